#include "tape/compare.hpp"

#include "tape/judge.hpp"

#include <Eigen/Cholesky>
#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

namespace gorvet::tape {
namespace {

using Eigen::Matrix3d;
using Eigen::Vector3d;
using Matrix36 = Eigen::Matrix<double, 3, 6>;
using Vector6 = Eigen::Matrix<double, 6, 1>;

Vector3d vec(const Vec3& v) { return {v.x_mm, v.y_mm, v.z_mm}; }

/// Covariance of one point; a coordinate that is held (sd 0) counts as read to a tenth of a millimetre, so that no point pins
/// all.
Matrix3d spreadOf(const Solution& s, int point) {
    Matrix3d c;
    for (int a = 0; a < 3; ++a) {
        const auto& column = s.covariance.column(3 * static_cast<size_t>(point) + a);
        for (int b = 0; b < 3; ++b) c(a, b) = column[3 * static_cast<size_t>(point) + b];
    }
    return c + Matrix3d::Identity() * 0.01;
}

/// By how much a point at `at` from the middle moves with shift and small turns, these in mm at `reach`, so that all six weigh
/// alike.
Matrix36 motion(const Vector3d& at, double reach) {
    const Vector3d p = at / reach;
    Matrix36 m = Matrix36::Zero();
    m.leftCols<3>().setIdentity();
    m(1, 3) = -p.z(); // about x
    m(2, 3) = p.y();
    m(0, 4) = p.z(); // about y
    m(2, 4) = -p.x();
    m(0, 5) = -p.y(); // about z
    m(1, 5) = p.x();
    return m;
}

} // namespace

Comparison compare(const Solution& before, const Solution& after, const std::vector<Common>& common, bool as_measured) {
    Comparison c;
    std::vector<Common> usable;
    for (const Common& p : common)
        if (before.points[p.before].fixed && after.points[p.after].fixed) usable.push_back(p);
    if (usable.size() < 3) {
        c.message = "Fewer than three points are fixed in both surveys.";
        return c;
    }
    Vector3d middle = Vector3d::Zero();
    for (const Common& p : usable) middle += vec(before.points[p.before].position);
    middle /= static_cast<double>(usable.size());
    double reach = 1;
    for (const Common& p : usable) reach = std::max(reach, (vec(before.points[p.before].position) - middle).norm());
    std::vector<Matrix3d> weight;
    for (const Common& p : usable) weight.push_back((spreadOf(before, p.before) + spreadOf(after, p.after)).inverse());
    Vector6 x = Vector6::Zero();
    Eigen::Matrix<double, 6, 6> n = Eigen::Matrix<double, 6, 6>::Zero();
    if (!as_measured) {
        // d = after − before = motion · x + what really moved; several rounds let single movers pull less (Huber)
        std::vector<double> share(usable.size(), 1.0);
        for (int round = 0; round < 8; ++round) {
            n.setZero();
            Vector6 g = Vector6::Zero();
            for (size_t i = 0; i < usable.size(); ++i) {
                const Vector3d at = vec(before.points[usable[i].before].position) - middle;
                const Vector3d d = vec(after.points[usable[i].after].position) - middle - at;
                const Matrix36 m = motion(at, reach);
                n += share[i] * m.transpose() * weight[i] * m;
                g += share[i] * m.transpose() * weight[i] * d;
            }
            const Eigen::SelfAdjointEigenSolver<Eigen::Matrix<double, 6, 6>> solver(n);
            if (solver.eigenvalues()(0) <= 1e-9 * solver.eigenvalues()(5)) {
                c.message = "The common points lie on one line: the surveys can't be laid on each other.";
                return c;
            }
            x = n.ldlt().solve(g);
            for (size_t i = 0; i < usable.size(); ++i) {
                const Vector3d at = vec(before.points[usable[i].before].position) - middle;
                const Vector3d v = vec(after.points[usable[i].after].position) - middle - at - motion(at, reach) * x;
                const double t = std::sqrt(std::max(0.0, v.dot(weight[i] * v)));
                share[i] = t <= 2.5 ? 1.0 : 2.5 / t;
            }
        }
    }
    c.possible = true;
    c.shift = {x(0), x(1), x(2)};
    c.turn_rad = {x(3) / reach, x(4) / reach, x(5) / reach};
    const Eigen::Matrix<double, 6, 6> laid =
        as_measured ? Eigen::Matrix<double, 6, 6>::Zero() : Eigen::Matrix<double, 6, 6>(n.inverse());
    for (size_t i = 0; i < usable.size(); ++i) {
        const Vector3d at = vec(before.points[usable[i].before].position) - middle;
        const Matrix36 m = motion(at, reach);
        const Vector3d v = vec(after.points[usable[i].after].position) - middle - at - m * x;
        // what laying one on the other took from this point's own freedom
        Matrix3d spread = weight[i].inverse() - m * laid * m.transpose();
        spread += Matrix3d::Identity() * 1e-4;
        Moved moved;
        moved.before = usable[i].before;
        moved.after = usable[i].after;
        moved.by = {v.x(), v.y(), v.z()};
        for (int a = 0; a < 3; ++a) moved.half_width[a] = build::halfWidth(std::sqrt(std::max(0.0, spread(a, a))));
        moved.t = std::sqrt(std::max(0.0, v.dot(spread.ldlt().solve(v))));
        moved.proven = moved.t > std::sqrt(7.815); // χ² of three at 5 %
        c.omega += v.dot(weight[i] * v);
        c.moved.push_back(moved);
    }
    c.omega_limit = omegaLimit(3 * static_cast<int>(usable.size()) - (as_measured ? 0 : 6));
    c.by_chance = static_cast<int>(std::ceil(0.05 * static_cast<double>(usable.size())));
    std::stable_sort(c.moved.begin(), c.moved.end(), [](const Moved& a, const Moved& b) { return a.t > b.t; });
    return c;
}

} // namespace gorvet::tape
