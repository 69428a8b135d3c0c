#pragma once

/// The figures of the statistician's tables, in one file: each costs the compiler seconds.
namespace gorvet::tape {

/// χ² of `count` unknowns that chance exceeds in `share` of cases; 0 when count ≤ 0. 0 < share < 1.
double chiSquaredBeyond(int count, double share);
/// The standard normal deviate that chance exceeds, on one side, in `share` of cases. 0 < share < 1.
double normalBeyond(double share);

} // namespace gorvet::tape
