#pragma once

#include "build/build.hpp"
#include "build/figure.hpp"

#include <optional>
#include <string>
#include <vector>

/// Work: what next, and is it safe? An order of work made from the facts of this build: steps with what must come before them,
/// the body's place and the frame's attitude as states, hold points that take fresh readings, points of no return.
namespace gorvet::work {

/// Where body and frame are while a step is done.
struct Stance {
    build::BodyPlace body = build::BodyPlace::On;
    build::Attitude attitude = build::Attitude::RightWayUp;
    build::Support support = build::Support::Wheels;
    bool operator==(const Stance&) const = default;
};

/// A distance on the frame that a hold point can ask for.
struct Distance {
    build::PointId from;
    build::PointId to;
    std::string name;         ///< "Bl–Dr"
    double now_mm = 0;        ///< as surveyed
    double planned_mm = 0;    ///< after the change of wheelbase
    double u95_mm = 0; ///< ± of either, from the survey
    bool operator==(const Distance&) const = default;
};

/// A height against the left rail's foremost point, that a hold point can ask for: what three diagonals do not see, a twist or a
/// bow, stands in these.
struct Levelled {
    build::PointId from; ///< the foremost left point
    build::PointId to;
    std::string name;      ///< "level Al–Br"
    int pair = 0;          ///< from the front
    bool left = false;     ///< of that pair
    double back_mm = 0;    ///< how far `to` stands behind `from`, after the change
    double width_mm = 0;   ///< of its pair
    double now_mm = 0;     ///< height of `to` over `from`, as surveyed
    double planned_mm = 0; ///< after the change
    double u95_mm = 0;
    bool operator==(const Levelled&) const = default;
};

/// What is to be done to something that crosses the cut.
struct CrossingJob {
    build::CrossingKind kind = build::CrossingKind::PropShaft;
    std::string answer;
    std::string caution;
    bool operator==(const CrossingJob&) const = default;
};

/// A cut of the body's sheet that was kept from the cut map.
struct BodyCut {
    std::string name;
    std::string words;              ///< "station 1210 to 1450, 0.03 m²"
    std::vector<std::string> brace; ///< what must be braced before it
    bool operator==(const BodyCut&) const = default;
};

/// Everything the order depends on.
struct Facts {
    build::FrameKind frame_kind = build::FrameKind::Ladder;
    bool has_body = false;
    Stance start;
    build::Presence fuel_tank = build::Presence::Unknown;
    build::Presence battery = build::Presence::Unknown;
    build::Presence restraints = build::Presence::Unknown;
    build::Presence refrigerant = build::Presence::Unknown;
    bool cut_planned = false;
    bool shortens = false;
    std::string cut_words;    ///< "at 1250.0 and 1394.0"
    std::string sleeve_words; ///< "90.0 × 50.0 × 4.0, 402.0 long"; empty: no sleeve
    std::string plug_words;   ///< "4 of 12 in each flange, each side"; empty: none
    bool fish_plates = false;
    std::vector<CrossingJob> crossings;
    int mounts = 0;
    int mount_nuts = 0; ///< of them, nuts that are fixed inside a closed rail
    bool crossmember = false;
    bool captive_nuts = false;
    std::vector<double> nut_stations_mm;                ///< of the crossmember's captive nuts, as planned
    std::optional<double> joint_station_mm;             ///< where the rails are open once cut, as planned
    std::optional<std::pair<double, double>> sleeve_mm; ///< stations that the sleeves fill
    std::string mounts_open;                            ///< why mounts can't be made as planned; empty: they can
    std::string crossmember_open;                       ///< the same of the crossmember
    std::string survey_open;                            ///< why the chassis survey can't be built on yet; empty: it can
    std::string gap_open;            ///< a door or panel gap that moved beyond its tolerance; empty: none. Shuts every hold point
    std::string flaw_open;           ///< steel of a rail that fails and must be seen to before the cut; empty: none
    std::string plan_open;           ///< why the plan of the cut can't be worked to yet; empty: it can
    std::vector<Distance> diagonals; ///< over the cut, at most three
    std::vector<Levelled> levels;    ///< of the first and last pairs and those beside the joint
    double tolerance_mm = 3;
    std::vector<build::TemporarySteel> temporary;
    std::vector<BodyCut> body_cuts; ///< in their order
    bool operator==(const Facts&) const = default;
};

/// What was done and read so far.
struct Record {
    std::vector<build::Tick> ticks;   ///< oldest first
    std::vector<build::Check> checks; ///< oldest first
    bool operator==(const Record&) const = default;
};

enum class Status { Ready, Waiting, HoldPoint, Done };
const char* statusWord(Status);

/// One reading that a hold point asks for.
struct CheckItem {
    std::string name;
    build::PointId from;
    build::PointId to;
    build::TemporarySteelId gap_of;
    std::optional<Levelled> level; ///< it is a height, judged with the others: twist and bow, whatever the frame stands on
    double plan_mm = 0;
    double u95_mm = 0; ///< ± of the planned figure; 0 for a gap that was measured
    double tolerance_mm = 3;
    bool out = false;              ///< of a height: with the others it shows a twist or a bow
    std::optional<double> read_mm; ///< the newest reading taken since all steps before the hold point were done
    bool stale = false;            ///< there is only an older one: it does not count
    bool agrees() const;           ///< |read − plan| ≤ tolerance, with a reading; a height: not out with the others
};
/// A twist or bow beyond the tolerance, and which heights show it.
struct ShapeFault {
    std::string sentence;
    int pair = 0;
    std::optional<bool> left; ///< of one rail; none: both of the pair
};
/// How far a nut inside a rail can be reached from its open end, by hand and torch.
inline constexpr double arm_reach_mm = 350;
/// Whether the crossmember's nuts are welded in through the rails' open ends; else through slots.
bool nutsThroughOpenEnds(const Facts&);

/// What heights over one point say of the frame: each pair's cross-level against the front pair's, over its own width (twist),
/// and each inner point against the chord of its rail's ends (bow), against the plan. A frame that leans or tips as a whole on
/// its stands shows neither. What is beyond the tolerance; empty when all agree or heights are missing.
std::vector<ShapeFault> twistAndBow(const std::vector<CheckItem>&);

/// What must be so, beyond readings, for a hold point to open or a step to be Ready.
struct Condition {
    std::string text;
    bool met = false;
};

struct Step {
    std::string code; ///< stable
    std::string title;
    std::string why; ///< may be empty
    std::vector<std::string> after;
    std::optional<build::BodyPlace> body; ///< where the body must be; none: either
    std::optional<build::Attitude> attitude;
    std::optional<build::Support> sets_support;
    std::optional<Stance> moves_to; ///< the step is a move of body or frame
    bool hot = false;               ///< it burns, welds or throws sparks
    bool hold = false;
    bool no_return = false;
    std::vector<std::string> before_return; ///< what must be inside, out, coated, clean or checked before it
    std::vector<std::string> cautions;
    std::vector<CheckItem> checks;
    std::vector<Condition> conditions;
    build::TemporarySteelId fits;
    build::TemporarySteelId takes_out;
    // how it stands
    Stance stance;
    Status status = Status::Waiting;
    std::string waits_for; ///< why it can't be ticked now; empty: it can
    bool open() const { return waits_for.empty(); }
    std::optional<build::Tick> tick;
    std::vector<std::string> skipped; ///< titles of steps before it that are not ticked though it is
};

enum class SteelState { Planned, In, Out };
struct SteelEntry {
    build::TemporarySteel steel;
    SteelState state = SteelState::Planned;
    std::string out_after; ///< title of the step
    bool out_after_known = true;
};

struct Order {
    std::vector<Step> steps;    ///< done ones as they were ticked, then the rest in the order to do them
    std::optional<size_t> next; ///< the first that is not done; none when all are
    Stance now;
    int body_moves_left = 0;
    int turns_left = 0;
    int done = 0;
    std::vector<SteelEntry> steel;
    bool stuck = false; ///< some steps can never be reached: their conditions go in a circle
    const Step* find(const std::string& code) const;
};

/// The steps that this build needs, in no particular order but a stable one.
std::vector<Step> stepsFor(const Facts&);

/// Puts the steps in order: every prerequisite before its step, and as few moves of body and frame as possible.
/// A hold point opens when all its conditions are met and every check has a fresh reading that agrees.
Order order(const Facts&, const Record&);

/// The order with the fewest moves for any steps (`after`, `body`, `attitude` count); empty when there is none. The moves are in
/// it as steps with `moves_to`. Exact: doing all that can be done before each move is never worse, so only the choice of moves
/// is searched, breadth first.
std::vector<Step> fewestMoves(const std::vector<Step>& remaining, const Stance& from, int body_moves_done, int turns_done);

} // namespace gorvet::work
