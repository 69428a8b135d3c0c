#include "tape/compare.hpp"

#include "dense/dense.hpp"
#include "tape/judge.hpp"
#include "tape/quantile.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include <fmt/format.h>

namespace gorvet::tape {
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;

double at(const Vec3& v, int axis) { return axis == 0 ? v.x_mm : axis == 1 ? v.y_mm : v.z_mm; }
double& at(Vec3& v, int axis) { return axis == 0 ? v.x_mm : axis == 1 ? v.y_mm : v.z_mm; }

/// One coordinate that both surveys have.
struct Coordinate {
    size_t point; ///< among the usable common ones
    int axis;
};

/// The differences of all common coordinates, with their joint covariance, and how each moves with the six rigid motions.
struct Differences {
    std::vector<Common> points;
    std::vector<Coordinate> coordinates;
    VectorXd d;
    MatrixXd spread;
    MatrixXd motion; ///< coordinates × 6: three shifts, three turns in mm at `reach`
    double reach = 1;

    Eigen::Index size() const { return d.size(); }
    VectorXd laying(const std::vector<char>& lays) const {
        VectorXd w = VectorXd::Zero(size());
        for (Eigen::Index k = 0; k < size(); ++k) w(k) = lays[coordinates[static_cast<size_t>(k)].point] ? 1 : 0;
        return w;
    }
};

Differences differencesOf(const Solution& before, const Solution& after, std::vector<Common> points) {
    Differences all;
    all.points = std::move(points);
    Vec3 middle;
    for (const Common& p : all.points)
        for (int a = 0; a < 3; ++a)
            at(middle, a) += at(before.points[p.before].position, a) / static_cast<double>(all.points.size());
    for (size_t i = 0; i < all.points.size(); ++i) {
        const Vec3& v = before.points[all.points[i].before].position;
        all.reach = std::max(all.reach, std::hypot(v.x_mm - middle.x_mm, v.y_mm - middle.y_mm, v.z_mm - middle.z_mm));
        for (int axis = 0; axis < 3; ++axis)
            if (all.points[i].known[static_cast<size_t>(axis)]) all.coordinates.push_back({i, axis});
    }
    const auto n = static_cast<Eigen::Index>(all.coordinates.size());
    all.d.resize(n);
    all.spread.resize(n, n);
    all.motion = MatrixXd::Zero(n, 6);
    for (Eigen::Index k = 0; k < n; ++k) {
        const Coordinate& c = all.coordinates[static_cast<size_t>(k)];
        const Common& p = all.points[c.point];
        const Vec3& v = before.points[p.before].position;
        all.d(k) = at(after.points[p.after].position, c.axis) - at(v, c.axis) - at(p.planned, c.axis);
        const double x = (v.x_mm - middle.x_mm) / all.reach;
        const double y = (v.y_mm - middle.y_mm) / all.reach;
        const double z = (v.z_mm - middle.z_mm) / all.reach;
        all.motion(k, c.axis) = 1;
        const double turns[3][3] = {{0, z, -y}, {-z, 0, x}, {y, -x, 0}};
        for (int t = 0; t < 3; ++t) all.motion(k, 3 + t) = turns[c.axis][t];
        const auto& b = before.covariance.column(3 * static_cast<size_t>(p.before) + static_cast<size_t>(c.axis));
        const auto& a = after.covariance.column(3 * static_cast<size_t>(p.after) + static_cast<size_t>(c.axis));
        for (Eigen::Index l = 0; l < n; ++l) {
            const Coordinate& o = all.coordinates[static_cast<size_t>(l)];
            const Common& q = all.points[o.point];
            all.spread(k, l) = b[3 * static_cast<size_t>(q.before) + static_cast<size_t>(o.axis)] +
                               a[3 * static_cast<size_t>(q.after) + static_cast<size_t>(o.axis)];
        }
    }
    all.spread.diagonal().array() += 1e-6; // a thousandth of a millimetre: what is held in both is not infinitely well known
    return all;
}

/// d and C with the second survey laid on the first over some points: S = I − G (Gᵀ D G)⁻¹ Gᵀ D.
struct PointRegistration {
    bool possible = false;
    VectorXd d;
    MatrixXd spread;
    VectorXd motion; ///< the six
};
PointRegistration lay(const Differences& all, const VectorXd& by) {
    PointRegistration out;
    const MatrixXd weighted = by.asDiagonal() * all.motion;
    const MatrixXd n = all.motion.transpose() * weighted;
    const VectorXd own = dense::eigenpairs(n).values;
    if (own(0) <= 1e-6 * own(5)) return out;
    const MatrixXd finds = dense::inverse(n) * weighted.transpose();
    out.possible = true;
    out.motion = finds * all.d;
    out.d = all.d - all.motion * out.motion;
    const MatrixXd half = all.spread - all.motion * (finds * all.spread);
    out.spread = half - (half * finds.transpose()) * all.motion.transpose();
    return out;
}

/// What the points that lay agree by: Ω = dᵀ C⁺ d, and by how much it falls without each of them.
struct Congruency {
    double omega = 0;
    int count = 0; ///< coordinates less 6
    std::vector<double> without;
};
Congruency congruency(const Differences& all, const PointRegistration& laid, const std::vector<char>& lays) {
    Congruency out;
    std::vector<Eigen::Index> rows;
    for (Eigen::Index k = 0; k < all.size(); ++k)
        if (lays[all.coordinates[static_cast<size_t>(k)].point]) rows.push_back(k);
    const auto n = static_cast<Eigen::Index>(rows.size());
    out.count = static_cast<int>(n) - 6;
    MatrixXd c(n, n);
    MatrixXd g(n, 6);
    VectorXd d(n);
    for (Eigen::Index k = 0; k < n; ++k) {
        d(k) = laid.d(rows[static_cast<size_t>(k)]);
        g.row(k) = all.motion.row(rows[static_cast<size_t>(k)]);
        for (Eigen::Index l = 0; l < n; ++l) c(k, l) = laid.spread(rows[static_cast<size_t>(k)], rows[static_cast<size_t>(l)]);
    }
    // the motions are C's null space: filled up, it can be inverted, and what it says of d stays the same
    const double scale = std::max(c.trace() / static_cast<double>(n), 1e-9);
    const MatrixXd filled = c + scale * g * g.transpose();
    const MatrixXd p = dense::inverseSymmetric(filled);
    const VectorXd pd = p * d;
    out.omega = d.dot(pd);
    out.without.assign(all.points.size(), 0.0);
    for (Eigen::Index k = 0; k < n;) {
        const size_t point = all.coordinates[static_cast<size_t>(rows[static_cast<size_t>(k)])].point;
        Eigen::Index size = 1;
        while (k + size < n && all.coordinates[static_cast<size_t>(rows[static_cast<size_t>(k + size)])].point == point) ++size;
        const VectorXd own = pd.segment(k, size);
        out.without[point] = own.dot(dense::solveSymmetric(p.block(k, k, size, size), own));
        k += size;
    }
    return out;
}

} // namespace

Comparison compare(const Solution& before, const Solution& after, const std::vector<Common>& common,
                   const CompareOptions& options) {
    Comparison c;
    std::vector<Common> usable;
    for (const Common& p : common)
        if (before.points[p.before].determined && after.points[p.after].determined) usable.push_back(p);
    if (usable.size() < 3) {
        c.message = "Fewer than three points are fixed in both surveys.";
        return c;
    }
    constexpr size_t most_points = 1000; // their covariance is held whole
    if (usable.size() > most_points) {
        c.message =
            fmt::format("{} points are fixed in both surveys: {} at most can be compared in one. Take some out of one of them.",
                        usable.size(), most_points);
        return c;
    }
    const Differences all = differencesOf(before, after, std::move(usable));
    std::vector<char> lays;
    for (const Common& p : all.points) lays.push_back(p.lays);
    PointRegistration laid{true, all.d, all.spread, VectorXd::Zero(6)};
    int count = static_cast<int>(all.size());
    if (!options.as_measured) {
        if (std::count(lays.begin(), lays.end(), char{1}) < 3) {
            c.message = "Fewer than three of the points to lay by are fixed in both surveys.";
            return c;
        }
        laid = lay(all, all.laying(lays));
        if (!laid.possible) {
            c.message = "The common points lie on one line: the surveys can't be laid on each other.";
            return c;
        }
        while (!options.keep_laying) {
            const Congruency now = congruency(all, laid, lays);
            if (now.omega <= chiSquaredBeyond(now.count, 0.01)) break;
            const auto worst =
                static_cast<size_t>(std::max_element(now.without.begin(), now.without.end()) - now.without.begin());
            // with fewer than half of the points nobody knows which half moved
            if (2 * (std::count(lays.begin(), lays.end(), char{1}) - 1) <= static_cast<std::ptrdiff_t>(all.points.size())) break;
            lays[worst] = 0;
            const PointRegistration next = lay(all, all.laying(lays));
            if (!next.possible) {
                lays[worst] = 1;
                break;
            }
            laid = next;
        }
        c.omega = congruency(all, lay(all, VectorXd::Ones(all.size())), std::vector<char>(all.points.size(), 1)).omega;
        count -= 6;
    } else {
        c.omega = all.d.dot(dense::solveSymmetric(all.spread, all.d));
    }
    c.possible = true;
    c.shift = {laid.motion(0), laid.motion(1), laid.motion(2)};
    c.turn_rad = {laid.motion(3) / all.reach, laid.motion(4) / all.reach, laid.motion(5) / all.reach};
    c.omega_limit = omegaLimit(count);
    for (Eigen::Index k = 0; k < all.size();) {
        const size_t point = all.coordinates[static_cast<size_t>(k)].point;
        Moved moved;
        moved.before = all.points[point].before;
        moved.after = all.points[point].after;
        moved.lays = !options.as_measured && lays[point];
        std::fill_n(moved.u95, 3, std::numeric_limits<double>::infinity());
        Eigen::Index size = 0;
        while (k + size < all.size() && all.coordinates[static_cast<size_t>(k + size)].point == point) {
            const int axis = all.coordinates[static_cast<size_t>(k + size)].axis;
            at(moved.by, axis) = laid.d(k + size);
            moved.u95[axis] = u95Of(std::sqrt(std::max(0.0, laid.spread(k + size, k + size))));
            ++size;
        }
        const VectorXd own = laid.d.segment(k, size);
        const MatrixXd spread = laid.spread.block(k, k, size, size);
        const double square = own.dot(dense::solveSymmetric(spread, own));
        moved.t = std::sqrt(std::max(0.0, square));
        moved.proven = square > chiSquaredBeyond(static_cast<int>(size), 0.05);
        c.moved.push_back(moved);
        k += size;
    }
    c.by_chance = static_cast<int>(std::ceil(0.05 * static_cast<double>(c.moved.size())));
    std::stable_sort(c.moved.begin(), c.moved.end(), [](const Moved& a, const Moved& b) { return a.t > b.t; });
    return c;
}

} // namespace gorvet::tape
