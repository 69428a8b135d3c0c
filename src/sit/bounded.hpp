#pragma once

#include <Eigen/Core>
#include <vector>

/// Least squares with bounds: the step that serves the pins best and breaks no bound.
namespace gorvet::sit {

struct BoundedStep {
    bool possible = false;          ///< some step keeps all bounds
    Eigen::VectorXd step;           ///< the best; empty when none is possible
    std::vector<double> pressures;  ///< of each bound, ≥ 0: how hard it holds against the pins (Lagrange multiplier); 0: idle
    std::vector<int> contradictory; ///< when none is possible: bounds that can't all be kept
};

/// Minimises |J d + r|² + tiny |d|² subject to A d ≥ b. The tiny term keeps what no pin resists where it is, unless a bound
/// pushes it. r as long as J has rows, b as A has; either matrix may have no row, both have as many columns. Lawson and Hanson,
/// Solving Least Squares Problems, ch. 23 (least distance programming by non-negative least squares).
BoundedStep boundedStep(const Eigen::MatrixXd& j, const Eigen::VectorXd& r, const Eigen::MatrixXd& a, const Eigen::VectorXd& b);

/// Non-negative least squares: minimises |E u − f| over u ≥ 0. Lawson and Hanson, algorithm NNLS.
Eigen::VectorXd nonNegativeLeastSquares(const Eigen::MatrixXd& e, const Eigen::VectorXd& f);

} // namespace gorvet::sit
