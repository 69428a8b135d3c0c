#include <Eigen/Eigenvalues>
#include <Eigen/SVD>

#include "dense/dense.hpp"

namespace gorvet::dense {

Eigenpairs eigenpairs(const Eigen::MatrixXd& symmetric) {
    const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solver(symmetric);
    return {solver.eigenvalues(), solver.eigenvectors()};
}

Singular singular(const Eigen::MatrixXd& m, Sides sides) {
    unsigned asked = 0;
    if (sides != Sides::Right) asked |= Eigen::ComputeFullU;
    if (sides != Sides::Left) asked |= Eigen::ComputeFullV;
    const Eigen::JacobiSVD<Eigen::MatrixXd> svd(m, asked);
    Singular s;
    s.values = svd.singularValues();
    if (sides != Sides::Right) s.left = svd.matrixU();
    if (sides != Sides::Left) s.right = svd.matrixV();
    return s;
}

} // namespace gorvet::dense
