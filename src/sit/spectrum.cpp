// Alone in its file: Eigen's solver takes longer to compile than all the rest of this room.
#include "sit/spectrum.hpp"

#include <algorithm>

#include <Eigen/Eigenvalues>

namespace gorvet::sit {

Spectrum spectrumOf(const Eigen::MatrixXd& j) {
    const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solver(j.transpose() * j);
    return {solver.eigenvalues(), solver.eigenvectors(), 1e-10 * std::max(solver.eigenvalues().maxCoeff(), 1e-30)};
}

} // namespace gorvet::sit
