#pragma once

#include "build/figure.hpp"

#include <vector>

/// How a wheel runs, by a dial over one turn. mm, rad.
namespace gorvet::drive {

struct RunOut {
    double total_mm = 0;     ///< least to most, as read
    build::Figure first_mm;  ///< amplitude of what comes once a turn: it stands aside, or askew
    build::Figure high_rad;  ///< where that is highest, from the valve, forwards, 0 … 2π
    double rest_mm = 0;      ///< least to most of what is left when that is set right: buckles, an oval
    bool high_known = false; ///< its amplitude is more than its ±
};
/// By least squares of a + b cos φ + c sin φ over equal steps, which is exact for them. At least 4 readings; `u95_mm`: ± of each.
RunOut runOut(const std::vector<double>& readings_mm, double u95_mm);

} // namespace gorvet::drive
