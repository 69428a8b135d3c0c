#pragma once

#include "units/result.hpp"

#include <vector>

/// Where a round tube meets another: its end, cut so that it lies all round on the other. mm, rad. engineering.md, Make.
namespace gorvet::make {

struct Cope {
    double branch_mm = 0; ///< outside diameter of the tube that is cut
    double wall_mm = 0;
    double main_mm = 0;   ///< outside diameter of the one that it meets
    double angle_rad = 0; ///< between their middles, 0 < … ≤ π/2
    double offset_mm = 0; ///< between their middles where they pass each other
    bool operator==(const Cope&) const = default;
};
/// How far from the other's middle, along the branch's own, its wall begins at an angle about it: the larger of outside and
/// inside, φ = 0 on the acute side. x(φ) = [√(R² − (r sin φ + e)²) + r cos φ cos θ]/sin θ.
double copeAt(const Cope&, double phi_rad);
/// All round in `steps`, the first at φ = 0. Fails with BadInput where the tube is wider than what it meets, passes beside it, or
/// lies along it (under 15°).
Result<std::vector<double>> copeCurve(const Cope&, int steps);
/// The same over the whole wall, as it is cut by area: from the other's middle so much of the branch is no steel. Simpson's rule.
double copeMean(const Cope&, int steps);

} // namespace gorvet::make
