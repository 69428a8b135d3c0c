#include <Eigen/Cholesky>
#include <Eigen/LU>
#include <Eigen/QR>

#include "dense/dense.hpp"

namespace gorvet::dense {

using Eigen::MatrixXd;
using Eigen::VectorXd;

struct ByColumns::Impl {
    Eigen::ColPivHouseholderQR<MatrixXd> qr;
};
ByColumns::ByColumns(const MatrixXd& m) : impl_(std::make_unique<Impl>(Impl{Eigen::ColPivHouseholderQR<MatrixXd>(m)})) {}
ByColumns::ByColumns(ByColumns&&) noexcept = default;
ByColumns::~ByColumns() = default;
VectorXd ByColumns::solve(const VectorXd& right) const { return impl_->qr.solve(right); }
Eigen::Index ByColumns::rank() const { return impl_->qr.rank(); }
double ByColumns::pivot(Eigen::Index k) const { return impl_->qr.matrixQR()(k, k); }

VectorXd leastSquares(const MatrixXd& m, const VectorXd& right) { return ByColumns(m).solve(right); }

VectorXd leastNorm(const MatrixXd& m, const VectorXd& right) {
    return Eigen::CompleteOrthogonalDecomposition<MatrixXd>(m).solve(right);
}
MatrixXd pseudoInverse(const MatrixXd& m) { return Eigen::CompleteOrthogonalDecomposition<MatrixXd>(m).pseudoInverse(); }

std::optional<VectorXd> eliminated(const MatrixXd& square, const VectorXd& right, double least_share) {
    const Eigen::PartialPivLU<MatrixXd> lu(square);
    const VectorXd pivots = lu.matrixLU().diagonal().cwiseAbs();
    if (!(pivots.minCoeff() > least_share * pivots.maxCoeff())) return std::nullopt;
    return VectorXd(lu.solve(right));
}
MatrixXd inverse(const MatrixXd& square) { return Eigen::PartialPivLU<MatrixXd>(square).inverse(); }
double determinant(const MatrixXd& square) { return Eigen::PartialPivLU<MatrixXd>(square).determinant(); }

VectorXd solveSymmetric(const MatrixXd& a, const VectorXd& b) { return Eigen::LDLT<MatrixXd>(a).solve(b); }
MatrixXd inverseSymmetric(const MatrixXd& a) { return Eigen::LDLT<MatrixXd>(a).solve(MatrixXd::Identity(a.rows(), a.cols())); }

MatrixXd root(const MatrixXd& a) { return Eigen::LLT<MatrixXd>(a).matrixL(); }
MatrixXd solveRoot(const MatrixXd& lower, const MatrixXd& b) { return lower.triangularView<Eigen::Lower>().solve(b); }
VectorXd solveRootTransposed(const MatrixXd& lower, const VectorXd& b) {
    return lower.transpose().triangularView<Eigen::Upper>().solve(b);
}

MatrixXd orthonormal(const MatrixXd& m) {
    return Eigen::HouseholderQR<MatrixXd>(m).householderQ() * MatrixXd::Identity(m.rows(), m.cols());
}

} // namespace gorvet::dense
