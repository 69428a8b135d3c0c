#pragma once

#include "dense/dense.hpp"
#include "tape/equations.hpp"

namespace gorvet::test {

/// An independent solver: undamped Gauss–Newton by a dense QR of the whole design matrix, without the code under test
/// except the observation equations (which have a test of their own).
struct Independent {
    std::vector<build::Vec3> at;
    Eigen::MatrixXd covariance; ///< of the free coordinates
    Eigen::VectorXd redundancy;
    Eigen::VectorXd w;
    double omega = 0;
};

inline Independent solveByQr(const tape::Survey& survey, std::vector<build::Vec3> at) {
    std::vector<int> free(3 * at.size(), 0);
    for (const auto& h : survey.holds) free[3 * h.point + static_cast<int>(h.axis)] = -1;
    for (const auto& h : survey.holds)
        (h.axis == tape::Axis::X ? at[h.point].x_mm : h.axis == tape::Axis::Y ? at[h.point].y_mm : at[h.point].z_mm) = h.value_mm;
    int n = 0;
    for (int& f : free)
        if (f == 0) f = n++;
    const auto m = static_cast<Eigen::Index>(survey.readings.size());
    Independent result;
    Eigen::MatrixXd a;
    Eigen::VectorXd v;
    for (int round = 0; round < 30; ++round) {
        a = Eigen::MatrixXd::Zero(m, n);
        v = Eigen::VectorXd::Zero(m);
        for (Eigen::Index i = 0; i < m; ++i) {
            const auto& r = survey.readings[static_cast<size_t>(i)];
            const bool has_to = r.to >= 0;
            const auto p = tape::predict(r.kind, at[r.from], has_to ? at[r.to] : build::Vec3{}, has_to,
                                         has_to ? tape::senseOf(r.kind, at[r.from], at[r.to]) : 1.0);
            v(i) = (p.value - r.value) / r.sigma;
            for (int axis = 0; axis < 3; ++axis) {
                if (free[3 * r.from + axis] >= 0) a(i, free[3 * r.from + axis]) += p.by_from[axis] / r.sigma;
                if (has_to && free[3 * r.to + axis] >= 0) a(i, free[3 * r.to + axis]) += p.by_to[axis] / r.sigma;
            }
        }
        const Eigen::VectorXd step = dense::leastSquares(a, -v);
        for (size_t k = 0; k < free.size(); ++k)
            if (free[k] >= 0) (k % 3 == 0 ? at[k / 3].x_mm : k % 3 == 1 ? at[k / 3].y_mm : at[k / 3].z_mm) += step(free[k]);
        if (step.norm() < 1e-9) break;
    }
    result.at = at;
    result.omega = v.squaredNorm();
    result.covariance = dense::inverse(a.transpose() * a);
    const Eigen::MatrixXd hat = a * result.covariance * a.transpose();
    result.redundancy = Eigen::VectorXd::Ones(m) - hat.diagonal();
    result.w = v.cwiseQuotient(result.redundancy.cwiseSqrt());
    return result;
}

} // namespace gorvet::test
