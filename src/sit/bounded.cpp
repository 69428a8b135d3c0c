#include "sit/bounded.hpp"

#include "dense/dense.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace gorvet::sit {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

VectorXd nonNegativeLeastSquares(const MatrixXd& e, const VectorXd& f) {
    const Index n = e.cols();
    VectorXd u = VectorXd::Zero(n);
    std::vector<bool> passive(static_cast<size_t>(n), false);
    const double small = 1e-12 * std::max(1.0, e.cwiseAbs().maxCoeff() * std::max(1.0, f.cwiseAbs().maxCoeff()));
    const auto solved = [&] {
        std::vector<Index> columns;
        for (Index k = 0; k < n; ++k)
            if (passive[static_cast<size_t>(k)]) columns.push_back(k);
        MatrixXd part(e.rows(), static_cast<Index>(columns.size()));
        for (size_t k = 0; k < columns.size(); ++k) part.col(static_cast<Index>(k)) = e.col(columns[k]);
        const VectorXd x = dense::leastSquares(part, f);
        VectorXd z = VectorXd::Zero(n);
        for (size_t k = 0; k < columns.size(); ++k) z(columns[k]) = x(static_cast<Index>(k));
        return z;
    };
    for (Index round = 0; round < 6 * n + 20; ++round) {
        const VectorXd gradient = e.transpose() * (f - e * u);
        Index enters = -1;
        for (Index k = 0; k < n; ++k)
            if (!passive[static_cast<size_t>(k)] && gradient(k) > small && (enters < 0 || gradient(k) > gradient(enters)))
                enters = k;
        if (enters < 0) break;
        passive[static_cast<size_t>(enters)] = true;
        for (Index inner = 0; inner <= n; ++inner) {
            const VectorXd z = solved();
            double share = 1;
            for (Index k = 0; k < n; ++k)
                if (passive[static_cast<size_t>(k)] && z(k) <= 0) share = std::min(share, u(k) / (u(k) - z(k)));
            if (share >= 1) {
                u = z;
                break;
            }
            u += share * (z - u);
            for (Index k = 0; k < n; ++k)
                if (passive[static_cast<size_t>(k)] && u(k) <= 1e-14 * std::max(1.0, u.maxCoeff())) {
                    u(k) = 0;
                    passive[static_cast<size_t>(k)] = false;
                }
        }
    }
    return u;
}

BoundedStep boundedStep(const MatrixXd& j, const VectorXd& r, const MatrixXd& a, const VectorXd& b) {
    BoundedStep result;
    const Index n = std::max(j.cols(), a.cols());
    MatrixXd h = MatrixXd::Zero(n, n);
    VectorXd g = VectorXd::Zero(n);
    if (j.rows() > 0) {
        h = j.transpose() * j;
        g = j.transpose() * r;
    }
    const double tiny = 1e-9 * std::max(1e-3, h.diagonal().maxCoeff());
    h.diagonal().array() += tiny;
    const MatrixXd root = dense::root(h);
    const VectorXd free_step = -dense::solveRootTransposed(root, dense::solveRoot(root, g));
    result.pressures.assign(static_cast<size_t>(a.rows()), 0.0);
    if (a.rows() == 0) {
        result.possible = true;
        result.step = free_step;
        return result;
    }
    // z = Lᵀ (d − d_free): the least |z| with (A L⁻ᵀ) z ≥ b − A d_free
    const MatrixXd w = dense::solveRoot(root, a.transpose()); // L⁻¹ Aᵀ
    const VectorXd short_by = b - a * free_step;
    // each bound to a size of its own, so that one stiff direction does not drown the others
    VectorXd scale(a.rows());
    for (Index k = 0; k < a.rows(); ++k) scale(k) = 1 / std::max(1e-12, w.col(k).norm());
    MatrixXd e(n + 1, a.rows());
    e.topRows(n) = w * scale.asDiagonal();
    const VectorXd shorts = short_by.cwiseProduct(scale);
    const double unit = std::max(1.0, shorts.cwiseAbs().maxCoeff());
    e.row(n) = (shorts / unit).transpose();
    VectorXd f = VectorXd::Zero(n + 1);
    f(n) = 1;
    const VectorXd u = nonNegativeLeastSquares(e, f);
    const VectorXd left = e * u - f;
    if (left(n) > -1e-9) {
        for (Index k = 0; k < u.size(); ++k)
            if (u(k) > 1e-9 * u.maxCoeff()) result.contradictory.push_back(static_cast<int>(k));
        return result;
    }
    const VectorXd z = left.head(n) / -left(n) * unit;
    result.possible = true;
    result.step = free_step + dense::solveRootTransposed(root, z);
    for (Index k = 0; k < u.size(); ++k) result.pressures[static_cast<size_t>(k)] = u(k) / -left(n) * unit * scale(k);
    return result;
}

} // namespace gorvet::sit
