#pragma once

#include "tape/network.hpp"

/// What datum and readings leave open, found from the null space of the normal equations and said in words.
namespace gorvet::tape {

struct Fixing {
    int defect = 0;               ///< dimensions that nothing fixes
    std::vector<char> fixed;      ///< by coordinate 3·point + axis; held ones are fixed
    std::vector<Unfixed> unfixed; ///< empty when all is fixed
    Eigen::MatrixXd covariance;   ///< of the free coordinates, mm²; pseudo-inverse where there is a defect
};

/// `rows`: the active readings' design matrix.
Fixing findUnfixed(const Network&, const Eigen::MatrixXd& rows);

} // namespace gorvet::tape
