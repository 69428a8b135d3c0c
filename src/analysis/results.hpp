#pragma once

#include "analysis/finding.hpp"
#include "build/build.hpp"
#include "make/crossmember.hpp"
#include "make/mounts.hpp"
#include "sit/lowering.hpp"
#include "sit/trade_offs.hpp"
#include "stretch/stretch.hpp"
#include "tape/compare.hpp"
#include "tape/next_reading.hpp"
#include "tape/repair.hpp"
#include "work/work.hpp"

#include <array>
#include <functional>
#include <map>
#include <memory>
#include <utility>

/// The graph: calls the benches in order on the build, and remembers results by the inputs' content.
namespace gorvet::analysis {

/// A subject's survey with the ids behind its indices.
struct SurveyOf {
    tape::Survey survey;
    std::vector<build::PointId> point_ids;
    std::vector<build::ReadingId> reading_ids;
    std::vector<build::SetUpId> setup_ids;
    std::vector<std::string> readings_as_typed;
    tape::FramePoints frame;
    tape::Solution solution;
    tape::Condition condition;
    tape::Wanted wanted;
    tape::Means means;
    std::vector<tape::RankedReading> next; ///< what to take next, the best first
    /// What moved since the session before the newest one: each solved by its own readings.
    struct Since {
        std::string before; ///< names of the two sessions
        std::string after;
        bool unlike = false; ///< they stood unlike: part of what moved is the support's doing
        tape::Comparison comparison;
    };
    Since since;
    std::vector<int> sessions;              ///< of each reading, by place in session_names
    std::vector<std::string> session_names; ///< in the order of their first reading
    std::vector<std::pair<build::Attitude, build::Support>> session_supports;
    /// The drawing's figures (or another car's), the survey laid on them; `moved.by` is survey − drawing.
    struct Drawing {
        std::string source;
        std::vector<std::array<bool, 3>> known; ///< by point: which of x, y, z the drawing has
        std::vector<build::Vec3> at;            ///< by point
        tape::Comparison comparison;
        bool operator==(const Drawing& other) const { return source == other.source && known == other.known && at == other.at; }
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
        sit::Input input;
        sit::Seat seat;
        std::vector<sit::WishResult> rows; ///< what each row comes to there
        build::Lowering lowering;
        std::string note;
        bool usable = false; ///< its points are there, and it seats the body
    };
    std::vector<build::Pin> rows;  ///< all pins of all columns, each once; targets of the first that has it
    std::vector<Column> columns;   ///< as it is now first
    std::vector<sit::Moved> moves; ///< of the seat as it is; wishes as in sit_input
    std::vector<sit::GivenUp> given_up;
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
    build::RailLine planned_left; ///< after the change of wheelbase
    build::RailLine planned_right;
    sit::Input sit_input;
    std::vector<build::PinId> pin_ids;        ///< behind sit_input.wishes
    std::vector<build::PointId> sit_body_ids; ///< behind sit_input.body
    sit::Seat seat;
    SeatingsCompared seatings;
    stretch::Input stretch_input;
    stretch::Plan stretch;
    std::vector<build::MountId> mount_ids;
    std::vector<make::MountInput> mount_inputs;
    std::vector<make::MountStack> mounts;
    std::optional<make::CrossmemberInput> crossmember_input;
    make::CrossmemberPlan crossmember;
    work::Facts work_facts;
    work::Record work_record;
    bool work_planned = false; ///< there is something to do: a cut, a mount or a crossmember is planned
    work::Order work;
    std::vector<build::FlawId> flaw_ids; ///< behind repair.flaws
    tape::RepairView repair;
    std::vector<Finding> findings; ///< worst first within each bench

    const std::vector<tape::RankedReading>& next(build::SubjectId s) const { return of(s).next; }
    /// The survey of a subject; that of the chassis for one that the build does not have.
    const SurveyOf& of(build::SubjectId s) const {
        const auto other = others.find(s);
        return s == build::the_body ? body : other != others.end() ? other->second : chassis;
    }
    SurveyOf& of(build::SubjectId s) { return const_cast<SurveyOf&>(std::as_const(*this).of(s)); }
    /// A body point in the chassis frame; none when the body is not surveyed there or nothing seats it.
    std::optional<build::Vec3> bodyInChassis(build::PointId) const;
    /// Whether a pose exists at all.
    bool seated() const { return seat.status == sit::Status::Seated || seat.status == sit::Status::Underdetermined; }
};

/// Called with the share done, 0…1; false: stop.
using Progress = std::function<bool(double)>;

/// Results of the build at `revision`. Parts whose inputs are the same as in `previous` are taken over. Stopped by `progress`,
/// it returns at once with what is worthless: throw it away.
Results analyse(const build::Build&, std::int64_t revision, const Results* previous = nullptr, const Progress& progress = {});

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
