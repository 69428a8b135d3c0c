#pragma once

#include "build/build.hpp"
#include "build/figure.hpp"

#include <cstddef>
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
    std::string name;      ///< "Bl–Dr"
    double now_mm = 0;     ///< as surveyed
    double planned_mm = 0; ///< after the change of wheelbase
    double u95_mm = 0;     ///< ± of either, from the survey
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
    std::string name;             ///< its own, of several of its kind
    bool out_before_heat = false; ///< it must be out before anything hot
    double hours = 0;             ///< that it should take; 0: not said
    std::string said() const { return std::string(word(kind)) + (name.empty() ? "" : " " + name); }
    std::string code() const { return "run-" + std::string(word(kind)) + (name.empty() ? "" : "-" + name); }
    bool operator==(const CrossingJob&) const = default;
};

/// What of the frame's own members is planned otherwise than it is; words, empty: nothing.
struct FrameSteel {
    std::string out_words;   ///< "tail at 2710"
    std::string in_words;    ///< "tail-new at 2700"
    std::string rib_words;   ///< "ribs, one every 300 from 400 to 1600"
    std::string plate_words; ///< "shut-front from 300 to 1010"
    bool windows = false;    ///< some of the plates have them
    bool any() const { return !(out_words.empty() && in_words.empty() && rib_words.empty() && plate_words.empty()); }
    bool operator==(const FrameSteel&) const = default;
};

/// The chassis made narrower, a rail let into the shell, or a floor that reaches out to its sill.
struct WidthJob {
    enum class Kind { Narrower, LetIn, FloorEdge };
    Kind kind = Kind::Narrower;
    std::string name;                  ///< empty: narrower
    std::string words;                 ///< "a strip of 40.0 out of each side"
    std::string pieces;                ///< what else is cut to it, or made for it; may be empty
    std::vector<std::string> measures; ///< "Al to Er 2105.0 ± 1.2"
    std::string open;                  ///< why it can't be worked to yet; empty: it can
    bool operator==(const WidthJob&) const = default;
};

/// A piece of another frame that is joined to this one.
struct GraftJob {
    std::string name;
    bool front = true;                 ///< it takes the place of the front
    std::string cut_words;             ///< "at 640.0"
    std::string joined_words;          ///< "a made box between both, tapered, 180 long"
    std::string trim_words;            ///< "Cut off its rails: 41.2 left, 40.8 right."
    std::vector<std::string> measures; ///< "Bl to FR 2345.0 ± 1.2"
    std::string open;                  ///< why it can't be worked to yet; empty: it can
    bool operator==(const GraftJob&) const = default;
};

/// A cut of the body's sheet that was kept from the cut map.
struct BodyCut {
    std::string name;
    std::string words;              ///< "station 1210 to 1450, 0.03 m²"
    std::vector<std::string> brace; ///< what must be braced before it
    bool operator==(const BodyCut&) const = default;
};

/// How far what must be undone for a step is undone, and done up again: from the register.
struct Tied {
    std::string step; ///< code that waits for it; empty: lifting the body
    int rows = 0;
    int tied = 0;           ///< not released yet
    std::string first_tied; ///< "earth-strap at the engine bay left"
    int unproved = 0;       ///< released, and not seen to be free on another walk-round
    std::string first_unproved;
    int soaking = 0;           ///< seized, and not to be tried yet
    std::string first_soaking; ///< "bolt-rear, until 2026-12-01 14:00 UTC"
    int off = 0;               ///< neither refitted nor scrapped
    std::string first_off;
    int loose = 0; ///< refitted, and not tightened for good
    std::string first_loose;
    bool operator==(const Tied&) const = default;
};

/// What holds a step up that no step and no reading can open.
struct Held {
    std::string step;        ///< code, or name of a job
    std::string text;        ///< as a condition: "The lift cab holds: …"
    bool what_waits = false; ///< what waits for that step is held, not the step itself
    bool operator==(const Held&) const = default;
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
    std::string part_words;   ///< how the ends move when the rails part, and what holds them; empty: not known
    std::string stand_words;  ///< where the stands are, and what of it is not judged; empty: nothing is cut or said
    std::string cut_words;    ///< "at 1250.0 and 1394.0"
    std::string sleeve_words; ///< "90.0 × 50.0 × 4.0, 402.0 long"; empty: no sleeve
    std::string plug_words;   ///< "4 of 12 in each flange, each side"; empty: none
    bool fish_plates = false;
    FrameSteel steel;
    std::vector<GraftJob> grafts;
    std::vector<WidthJob> widths;
    std::string bushes;        ///< "rear axle": what hangs on links whose bushes are tightened at the end; empty: nothing
    std::string shaft_words;   ///< "main 1502.8 ± 1.4": shafts that are made anew, joint to joint; empty: none
    std::string shafts_open;   ///< why they can't be ordered yet; empty: they can
    std::string hole_words;    ///< "bush again at 1240.0": holes made anew once all is welded; empty: none
    bool spine = false;        ///< what is cut is a spine with pans beside it
    std::string pan_words;     ///< "the left pan at 1100, the right pan at 1400"
    std::string saddle_words;  ///< "480 long, 2.0"
    std::string spine_windows; ///< "140 × 84 at 820 and 1760"; empty: nothing runs inside
    std::string spine_inside;  ///< "shift-rod, fuel-line"
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
    std::vector<build::Job> jobs;   ///< one's own
    std::vector<build::Awaited> awaited;
    std::vector<build::Attempt> attempts;
    std::vector<build::Estimate> estimates; ///< hours of steps of the plan
    std::vector<build::Decision> decisions; ///< neither agreed to nor struck out
    std::vector<Held> held;                 ///< by a lift that fails, by what is left alone
    std::vector<Tied> tied;                 ///< from the register, by the step that waits for it
    bool begun = false;                     ///< something was ticked already
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
    std::optional<build::Support> support;
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
    // of a job of one's own; of others what is known
    build::JobId job;
    build::JobKind kind = build::JobKind::General;
    std::string area;
    std::string closes; ///< a space
    std::string inside;
    std::string wanted; ///< date; empty: none
    double least_h = 0; ///< hours; 0: not said
    double likely_h = 0;
    double most_h = 0;
    double rest_h = 0; ///< by the clock, that it is left alone afterwards
    double people = 1;
    int failed = 0; ///< how often it was done and did not come off
    // where it stands in the order
    std::size_t earliest = 0; ///< the first place, from 1, at which it could stand
    std::size_t latest = 0;   ///< the last
    std::string because;      ///< why it stands here
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
    bool stuck = false;             ///< some steps can never be reached: their conditions go in a circle
    bool exact = true;              ///< no order needs fewer moves; else `least_moves` is what is known
    int moves_left = 0;             ///< of body, frame and what it stands on
    int least_moves = 0;            ///< no order needs fewer than so many
    std::vector<std::string> apart; ///< what jobs ask for and can't have, each in a sentence; they are not asked for in the order
    const Step* find(const std::string& code) const;
};

/// The steps that this build needs, in no particular order but a stable one.
/// `apart`: what jobs ask for and can't have, each in a sentence.
std::vector<Step> stepsFor(const Facts&, std::vector<std::string>* apart = nullptr);

/// Puts the steps in order: every prerequisite before its step, and as few moves of body and frame as possible.
/// A hold point opens when all its conditions are met and every check has a fresh reading that agrees.
Order order(const Facts&, const Record&);

/// What a search for the fewest moves came to.
struct Moves {
    std::vector<Step> order; ///< the steps with the moves between them; empty where there is none
    bool exact = true;       ///< no order needs fewer
    int moves = 0;
    int least = 0; ///< no order needs fewer than so many
};
/// How many moves were made already: they are counted on.
struct MovesDone {
    int body = 0;
    int turns = 0;
    int supports = 0;
};
/// The order with the fewest moves of body, frame and support for any steps (`after`, `body`, `attitude`, `support`,
/// `sets_support` count). The moves are in it as steps with `moves_to`. Doing all that can be done before each move is never
/// worse, so only the choice of moves is searched: by least cost first with a bound from below (the most changes that any chain
/// of steps asks for). Exact up to `most_looked_at` states, then the best of a beam, with the bound.
Moves fewestMoves(const std::vector<Step>& remaining, const Stance& from, const MovesDone& done = {},
                  int most_looked_at = 20'000);

/// Fills in `earliest`, `latest` and `because` of steps in their order.
void explainPlaces(std::vector<Step>&);
/// Codes of all steps that wait for one, directly or through others.
std::vector<std::string> heldUpBy(const std::vector<Step>&, const std::string& code);
/// Steps that another pair of hands can do beside one: ready, not in the same place, no sparks beside fuel, nobody beside a lift.
std::vector<const Step*> besides(const Order&, const Step&);

/// What is dangerous about a kind of work.
struct KindOfWork {
    bool hot = false; ///< it burns or throws sparks
    std::vector<const char*> cautions;
};
const KindOfWork& kindOfWork(build::JobKind);

} // namespace gorvet::work
