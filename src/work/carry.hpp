#pragma once

#include "work/lift.hpp"

/// What is carried upright: on arms, stands, forks, a dolly, or by straps from beams. Statics of a rigid load on points that push
/// or pull straight up.
namespace gorvet::work {

struct CarryPoint {
    std::string name;
    Vec3 at;
    double rated_kg = 0; ///< 0: not said
    bool sound = false;  ///< looked at
};
struct CarryInput {
    std::vector<CarryPoint> points;
    double mass_kg = 0;     ///< > 0
    double mass_u95_kg = 0; ///< 0: not weighed
    Vec3 centre;            ///< of gravity
    Vec3 centre_u95;        ///< ± of each coordinate
    bool hangs = false;     ///< it hangs by straps: it swings level under two beams, and does not tip over an edge from below
};

struct CarryLoad {
    std::string name;
    double load_kg = 0; ///< all points alike in stiffness
    double most_kg = 0; ///< when only those carry that must, with the centre and mass at the worst of their ±
    bool bare = false;  ///< it carries nothing: the load stands on the others
};
struct CarryPlan {
    bool stands = false;
    std::string why_not;
    double edge_mm = 0;     ///< from the centre of gravity to the nearest edge over which it would tip; < 0: beyond it
    double edge_u95_mm = 0; ///< its ±
    std::vector<CarryLoad> loads;
    LiftVerdict verdict = LiftVerdict::Fails;
    std::vector<LiftRemark> remarks; ///< worst first
};

/// How a load stands on its points. Fails where the centre of gravity lies beyond them, within its ± too, or where a point would
/// carry more than it is rated for when only those carry that must (any three whose triangle holds the centre, the centre
/// anywhere within its ±); on two points that do not hang; and where it hangs with the centre above its points. Marginal within
/// 100 mm of an edge, and where mass, ratings or condition are not said.
CarryPlan carry(const CarryInput&);

} // namespace gorvet::work
