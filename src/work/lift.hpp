#pragma once

#include "geometry/vec3.hpp"

#include <optional>
#include <string>
#include <vector>

/// What hangs on slings: how it hangs, what each leg carries, and whether that may be. Statics of a rigid load on straight legs
/// that do not stretch; axes of the load: x rearward, y right, z up, mm.
namespace gorvet::work {

using geometry::Vec3;

/// One leg from the hook to a point of the load.
struct SlingLeg {
    std::string name;
    Vec3 point;
    double length_mm = 0; ///< > 0
    double rated_kg = 0;  ///< what the leg may carry hanging straight; 0: not said
    bool sound = false;   ///< looked at: no cut, chafed edge or melted place
};
struct LiftInput {
    std::vector<SlingLeg> legs; ///< two, three or four
    double mass_kg = 0;         ///< > 0
    double mass_u95_kg = 0;
    Vec3 centre;           ///< of gravity
    Vec3 centre_u95;       ///< ± of each coordinate
    bool spreader = false; ///< the points are held apart
};

enum class LiftVerdict { Holds, Marginal, Fails };

struct LegLoad {
    std::string name;
    double slope_rad = 0;  ///< from the upright
    double load_kg = 0;    ///< as hung, all legs carrying that can
    double most_kg = 0;    ///< when only those carry that must: of four legs two or three, whichever loads it most; with the
                           ///< centre's ±
    double squeeze_kg = 0; ///< what it pulls sideways on its point, at `most_kg`
    bool slack = false;    ///< it hangs loose
};
struct LiftRemark {
    LiftVerdict verdict = LiftVerdict::Holds;
    std::string sentence;
    std::string remedy;
};
struct LiftPlan {
    bool hangs = false;   ///< there is a place of the hook at which all is in balance
    std::string why_not;  ///< otherwise
    bool steady = true;   ///< it is in balance with the centre of gravity anywhere within its ±, too
    Vec3 hook;            ///< in the load's axes, as it hangs
    double height_mm = 0; ///< of the hook above the centre of gravity, along the upright
    double tilt_rad = 0;  ///< of the load's own upright
    double tilt_u95_rad = 0;
    double nose_down_rad = 0; ///< of it, forward
    double left_down_rad = 0;
    std::vector<LegLoad> legs;
    std::optional<double> ballast_kg; ///< at `ballast_at`, to hang level; none: it hangs level, or none does it there
    Vec3 ballast_at;
    LiftVerdict verdict = LiftVerdict::Fails;
    std::vector<LiftRemark> remarks; ///< worst first
};

/// How a load hangs by its legs from one hook that is free to go where it must: over the centre of gravity. The hook's place in
/// the load follows from the lengths; with four legs of a rigid load, the three that are taut. Refused (Fails) where no place is
/// in balance, where the hook would stand below the centre of gravity or a leg slope beyond 60° from the upright, where a leg
/// would carry more than it is rated for when only those carry that must; Marginal beyond 45°, beyond 30° without a spreader,
/// beyond 3° of tilt, where ratings, mass or condition are not said. `engineering.md`, Work: two legs carry a four-leg rigid
/// lift; tilt = atan(offset of CG / height of hook above CG).
LiftPlan hang(const LiftInput&);

/// One load on two supports a span apart, its centre `x_mm` from the first: what each carries, kg. Outside the span one of them
/// lifts: then the other figure is below 0.
struct TwoSupports {
    double first_kg = 0;
    double second_kg = 0;
};
TwoSupports onTwo(double mass_kg, double x_mm, double span_mm);

} // namespace gorvet::work
