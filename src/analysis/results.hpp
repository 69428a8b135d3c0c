#pragma once

#include "analysis/finding.hpp"
#include "analysis/node.hpp"
#include "build/build.hpp"
#include "build/planned_chassis.hpp"
#include "drive/brakes.hpp"
#include "drive/column.hpp"
#include "drive/gear_plate.hpp"
#include "drive/line.hpp"
#include "drive/link_holes.hpp"
#include "drive/steering.hpp"
#include "drive/travel.hpp"
#include "drive/weights.hpp"
#include "drive/wheels.hpp"
#include "make/crossmember.hpp"
#include "make/fixture.hpp"
#include "make/fouls.hpp"
#include "make/mounts.hpp"
#include "make/near.hpp"
#include "make/nest.hpp"
#include "make/part.hpp"
#include "make/service.hpp"
#include "make/weld_plan.hpp"
#include "make/weld_room.hpp"
#include "sit/lowering.hpp"
#include "sit/trade_offs.hpp"
#include "stretch/stretch.hpp"
#include "tape/compare.hpp"
#include "tape/next_reading.hpp"
#include "tape/repair.hpp"
#include "work/schedule.hpp"
#include "work/work.hpp"

#include <array>
#include <map>
#include <memory>
#include <set>
#include <utility>

namespace gorvet::build {
struct Edit;
}

/// The graph: calls the benches in order on the build. What took work is a node, made anew only from another input; what takes
/// seconds is made apart, see slow.hpp.
namespace gorvet::analysis {

struct Scans;

/// A subject's survey with the ids behind its indices.
struct SurveyOf {
    tape::Survey survey;
    std::vector<build::PointId> point_ids;
    std::vector<build::ReadingId> reading_ids;
    std::vector<build::SetUpId> setup_ids;
    std::vector<std::string> readings_as_typed;
    tape::FramePoints frame;
    tape::Wanted wanted;
    tape::Means means;
    struct Solved {
        tape::Survey survey;
        bool set_aside = true; ///< what disagrees too much is left out
        bool operator==(const Solved&) const = default;
    };
    Node<Solved, tape::Solution> solution;
    struct Judged {
        std::shared_ptr<const tape::Solution> solution;
        tape::FramePoints frame;
        bool operator==(const Judged&) const = default;
    };
    Node<Judged, tape::Condition> condition;
    struct Asked {
        std::shared_ptr<const tape::Condition> condition;
        tape::Wanted wanted;
        tape::Means means;
        bool operator==(const Asked&) const = default;
    };
    Node<Asked, std::vector<tape::RankedReading>> next; ///< what to take next, the best first
    /// What moved since the session before the newest one: each solved by its own readings.
    struct Since {
        std::string before; ///< names of the two sessions
        std::string after;
        bool unlike = false; ///< they stood unlike: part of what moved is the support's doing
        tape::Comparison comparison;
    };
    struct Sessions {
        std::vector<int> of_readings;   ///< by place in names; −1: none
        std::vector<std::string> names; ///< in the order of their first reading
        std::vector<std::pair<build::Attitude, build::Support>> supports;
        bool operator==(const Sessions&) const = default;
    };
    Sessions sessions;
    struct Compared {
        std::shared_ptr<const tape::Solution> solution; ///< of all sessions together: what they are made from is the same
        Sessions sessions;
        bool operator==(const Compared&) const = default;
    };
    Node<Compared, Since> since;
    /// The drawing's figures (or another car's).
    struct Drawn {
        std::string source;
        std::vector<std::array<bool, 3>> known; ///< by point: which of x, y, z the drawing has
        std::vector<build::Vec3> at;            ///< by point
        bool operator==(const Drawn&) const = default;
    };
    struct Drawing : Drawn {
        /// The survey laid on them; `moved.by` is survey − drawing.
        Node<std::pair<std::shared_ptr<const tape::Solution>, Drawn>, tape::Comparison> comparison;
    };
    Drawing drawing;
    std::vector<build::ReadingId> assumed_ids; ///< behind survey.assumed; three of a symmetry
    bool mixed_supports = false;               ///< its readings come from unlike supports or attitudes

    int indexOf(build::PointId) const;  ///< −1 when it is not in the survey
    bool assumed(build::PointId) const; ///< it has a place only by what is assumed
    /// Adjusted position of a point whose coordinates are all fixed; none otherwise.
    std::optional<build::Vec3> positionOf(build::PointId) const;
};

/// The seat as it is, other ways to seat the body, and what costs what.
struct SeatingsCompared {
    /// One way to seat the body: as pinned now, as a school would, or as it was kept.
    struct Column {
        std::string name;
        build::SeatingId id; ///< of one that was kept
        Node<sit::Input, sit::Seat> seat;
        std::vector<sit::PinResult> rows; ///< what each row comes to there
        build::Lowering lowering;
        std::string note;
        bool usable = false; ///< its points are there, and it seats the body
    };
    std::vector<build::Pin> rows; ///< all pins of all columns, each once; targets of the first that has it
    std::vector<Column> columns;  ///< as it is now first
    struct TradeOffs {
        std::vector<sit::Moved> moves; ///< of the seat as it is; pins as in its input
        std::vector<sit::GivenUp> given_up;
    };
    Node<std::shared_ptr<const sit::Seat>, TradeOffs> trade_offs;
    sit::LoweringInput lowering_input;
    double lower_by_mm = 0; ///< what `ways` are for
    std::vector<sit::LoweringPlan> ways;
};

struct Results {
    std::int64_t revision = -1;           ///< of the build they were computed from
    std::vector<std::string> file_damage; ///< what of the build's file can't be read; every sheet says so
    SurveyOf body;
    SurveyOf chassis;
    std::map<build::SubjectId, SurveyOf> others; ///< of every other subject of the build
    build::RailLine rail_left;                   ///< as measured
    build::RailLine rail_right;
    build::PlannedChassis planned_chassis;
    build::RailLine planned_left; ///< after the change of wheelbase
    build::RailLine planned_right;
    Node<sit::Input, sit::Seat> seat;
    std::vector<build::PinId> pin_ids;        ///< behind the pins of its input
    std::vector<build::PointId> sit_body_ids; ///< behind the body of its input
    SeatingsCompared seatings;
    Node<stretch::Input, stretch::Plan> stretch;
    Node<drive::LineInput, drive::LinePlan> drive;
    std::vector<Node<drive::TravelIn, drive::TravelPlan>> travels; ///< of every axle and wheel that links carry
    Node<drive::SteeringIn, drive::SteeringPlan> steering;
    Node<drive::WeightsIn, drive::WeightsPlan> weights;
    Node<drive::BrakesIn, drive::BrakesPlan> brakes;
    Node<drive::ColumnIn, drive::ColumnPlan> column;
    Node<drive::GearPlateIn, drive::GearPlatePlan> gear_plate;
    std::vector<Node<drive::LinkHolesIn, drive::LinkHolesPlan>> link_holes;
    std::vector<Node<drive::WheelsIn, drive::WheelsPlan>> wheels; ///< of each axle whose wheels something is said of; no scans
    std::vector<build::MountId> mount_ids;
    std::vector<make::MountInput> mount_inputs;
    std::vector<make::MountStack> mounts;
    std::vector<Node<make::PartIn, make::PartPlan>> parts; ///< of new steel, in the order of the build
    std::vector<Node<make::NestInput, make::NestPlan>>
        nests; ///< of each section that can be had in lengths: its pieces laid into them
    Node<make::CrossmemberInput, make::CrossmemberPlan> crossmember; ///< not made: none is planned, or it waits for something
    Node<make::ServiceIn, make::ServicePlan> service;                ///< whether every bolt comes out, by what is planned alone
    Node<std::vector<make::ServiceBody>, std::vector<make::Foul>> fouls; ///< planned things that stand in each other
    Node<std::vector<make::ServiceBody>, std::vector<make::Near>> nears; ///< how near planned things come to each other
    Node<make::PutOnIn, std::vector<make::PutOn>> put_on;                ///< all of it in order: from where each goes in
    Node<make::PutOnIn, std::vector<make::WeldRoom>> weld_rooms;         ///< of the same: whether a torch gets there
    Node<make::WeldIn, make::WeldPlan> welds;                            ///< of all new steel, in order
    std::vector<Node<make::FixtureIn, make::FixturePlan>> fixtures;
    work::Facts work_facts;
    struct Job {
        work::Facts facts;
        work::Record record;
        bool operator==(const Job&) const = default;
    };
    Node<Job, work::Order> work;                        ///< from the first minute of a build
    Node<work::ScheduleInput, work::Schedule> schedule; ///< when what is left of it may be done
    std::vector<build::FlawId> flaw_ids;                ///< behind repair.flaws
    tape::RepairView repair;
    std::shared_ptr<const Scans> scans = noScans(); ///< what takes seconds: made apart. Never null
    std::set<std::string, std::less<>> stopped;     ///< of that: what was stopped by hand and not begun again
    std::vector<Finding> findings;                  ///< worst first within each bench

    const std::vector<tape::RankedReading>& next(build::SubjectId s) const { return *of(s).next; }
    /// The survey of a subject; that of the chassis for one that the build does not have.
    const SurveyOf& of(build::SubjectId s) const {
        const auto other = others.find(s);
        return s == build::the_body ? body : other != others.end() ? other->second : chassis;
    }
    SurveyOf& of(build::SubjectId s) { return const_cast<SurveyOf&>(std::as_const(*this).of(s)); }
    /// A body point in the chassis frame; none when the body is not surveyed there or nothing seats it.
    std::optional<build::Vec3> bodyInChassis(build::PointId) const;
    /// Whether a pose exists at all.
    bool seated() const { return seat->status == sit::Status::Seated || seat->status == sit::Status::Underdetermined; }

private:
    static std::shared_ptr<const Scans> noScans();
};

/// Results of the build at `revision`. Nodes whose inputs are the same as in `previous` are taken over, and what takes seconds as
/// it was then: slow.hpp tells what of it is of now. Stopped by `progress`, it returns at once with what is worthless: throw it
/// away.
Results analyse(const build::Build&, std::int64_t revision, const Results* previous = nullptr, const Progress& progress = {});

/// The findings anew, after something was made apart; what was said of the file's damage stays first.
void findAgain(const build::Build&, Results&);

/// A variant of a build: what is typed or decided otherwise, worked out beside it. `change` is laid on a copy of the build; what
/// it does not touch is taken over from the build's own results. Fails as the edit does.
struct Variant {
    build::Build build;
    Results results;
};
Result<Variant> variantOf(const build::Build&, const Results&, const build::Edit& change);
/// The same for a build that was changed already.
Variant variantOf(build::Build changed, const Results& of);

/// A survey solved with all readings: what disagrees is not set aside.
void solveWithAll(SurveyOf&);

/// A survey of a build's subject, in the build's order.
SurveyOf surveyOf(const build::Build&, build::SubjectId);

/// Whether anything was entered or planned yet that a bench can judge.
bool begun(const build::Build&, const Results&, std::string_view bench);

/// How many findings of a bench are of the worst kind there, and which.
struct Worst {
    int count = 0;
    sheet::Severity severity = sheet::Severity::Good;
};
Worst worstOf(const std::vector<Finding>&, std::string_view bench);

/// The one sentence that answers a bench's question, and the one below it.
struct Headline {
    std::string sentence;
    std::string below;
};
Headline headline(const build::Build&, const Results&, std::string_view bench, build::SubjectId);

} // namespace gorvet::analysis
