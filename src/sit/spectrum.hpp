#pragma once

#include <Eigen/Core>

/// Internal to this room.
namespace gorvet::sit {

/// What the pins resist: eigenvalues of jᵀ·j, ascending, with their directions as columns. A direction whose value is not above
/// `limit` (1e-10 of the largest) is resisted by none.
struct Spectrum {
    Eigen::VectorXd values;
    Eigen::MatrixXd directions;
    double limit = 0;
};
/// `j`: at least one row.
Spectrum spectrumOf(const Eigen::MatrixXd& j);

} // namespace gorvet::sit
