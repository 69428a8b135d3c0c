#pragma once

#include "build/figure.hpp"
#include "tape/survey.hpp"

#include <map>

/// The condition of a frame: diamond, twist, rails and wheelbases left against right, each with its ±.
namespace gorvet::tape {

/// Which points make the frame. Indices into the survey; −1 for a hub that was not measured.
struct FramePoints {
    struct Pair {
        int left = -1;
        int right = -1;
        bool operator==(const Pair&) const = default;
    };
    std::vector<Pair> pairs; ///< matched rail points
    int front_hub_left = -1;
    int front_hub_right = -1;
    int rear_hub_left = -1;
    int rear_hub_right = -1;
    double tolerance_mm = 3.0;
    double thrust_tolerance_rad = 0.1 * 3.14159265358979323846 / 180; ///< engineering.md, Tape
    std::map<int, double> design_heights; ///< of a drawing, by point, mm; sag is only known against these
    bool carried =
        false; ///< it sits in something whose datum the survey stands on: judged against that centreline, not its own middle
    bool rails = true; ///< the pairs stand on two rails: compare their lengths and their middle line too
    bool operator==(const FramePoints&) const = default;
};

using build::Limit;
using build::PlanVerdict;

enum class FigureKind {
    Diamond,
    Twist,
    RailDifference,
    Sidesway,
    Aside, ///< of a carried frame: the pair's middle that stands furthest off the centreline of what carries it
    Sag,   ///< of the middle under the chord of the ends, against the design heights
    WheelbaseDifference,
    WheelbaseLeft,
    WheelbaseRight,
    TrackFront,
    TrackRear,
    SetBack,   ///< of the front axle: by how much the right wheel stands behind the left, square to the centreline
    Thrust,    ///< the same of the rear axle, as an angle: where it pushes the car
    RearOffset ///< of the rear axle's middle from the centreline
};
/// Whether a figure is shown as an angle; its value in mm is then over the width.
constexpr bool isAngle(FigureKind k) { return k == FigureKind::Twist || k == FigureKind::Thrust; }

struct ConditionFigure {
    FigureKind kind = FigureKind::Diamond;
    const char* key = "";    ///< for JSON and finding codes
    const char* name = "";   ///< as shown
    build::Figure size_mm;   ///< its ± that of the worst of several stations, of all of them together
    int worst_of = 1;        ///< how many stations it is the worst of
    build::Figure angle_rad; ///< twist and thrust: the same as an angle
    bool judged = false;     ///< a fault measured against the tolerance (else a plain dimension)
    PlanVerdict verdict = PlanVerdict::Marginal;
    std::string words;            ///< what the sign means here: "left rail aft", "right side low at the front"
    std::string remedy;           ///< of an axle: what to move, by how much, which way; empty for the frame's own faults
    double limit = 0;             ///< what it was judged against: mm, rad for thrust
    std::vector<double> gradient; ///< by the coordinates of all points, for the choice of the next reading
};

/// A deviation at one section.
struct Deviation {
    build::Figure size_mm;
    PlanVerdict verdict = PlanVerdict::Marginal;
};
/// How the frame stands at one pair, against the line through the middles of the end pairs.
struct Section {
    FramePoints::Pair pair;
    double station_mm = 0;
    Deviation lead;               ///< left point behind the right, square to the line
    Deviation lean;               ///< right side high against the front pair, over this width
    Deviation aside;              ///< middle to the right of the line
    std::optional<Deviation> low; ///< middle under the chord of the ends, against the design heights; none without these
};
/// Pairs from front to rear, at most 40 spread over the length; empty for fewer than two. `lean` of the frontmost pair and
/// `aside` and `low` of both ends are 0 ± 0: they are what the others are measured against.
std::vector<Section> sections(const Solution&, const FramePoints&);

struct Condition {
    std::vector<Section> sections; ///< along the length; of frames with rails
    std::vector<ConditionFigure> figures;
    double station_mm = 0; ///< middle of the frame, where its tags hang
    int by_chance = 0;     ///< of the judged figures, how many would look proven by chance alone (5 %), rounded up
};

/// Figures from the adjusted points, of a carried frame square to the centreline of its datum. Figures whose points are not all
/// fixed are left out. Needs two pairs for the rails. Diamond: mean of x_L − x_R along the line through the pairs' middles, which
/// for two pairs is (d₁² − d₂²)/(4 l), > 0 left rail aft. Axles are measured square to that line, or to the line between the
/// axles' middles when there are no two pairs; a tape alone seldom gives the thrust angle better than ± 0.16°. Twist: cross-level
/// of the frontmost pair minus that of the rearmost, as mm over the mean width.
Condition condition(const Solution&, const FramePoints&);

/// Pairs that share a point with a reading that was set aside or stands out, and that its value would fit: the wrong point was
/// taken? "It would fit A3–B6 (2164.2 ± 1.1)." The best two; empty when none fits within the ±.
std::vector<std::string> likelyPairs(const Survey&, const Solution&, int reading);

/// A likely slip that explains the difference between a reading and what the rest say, in words: a centimetre mark, a
/// decimetre, an inch read for another, exchanged digits. Empty when none fits within the ±.
std::string likelySlip(double taped_mm, double leave_one_out_mm, double u95_mm);

} // namespace gorvet::tape
