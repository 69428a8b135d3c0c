#include "scan/align.hpp"

#include "dense/dense.hpp"
#include "shape/parallel.hpp"

#include <Eigen/Geometry>
#include <algorithm>
#include <numbers>
#include <random>

#include <fmt/format.h>

namespace gorvet::scan {
namespace {

using geometry::chained;
using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using Matrix6 = Eigen::Matrix<double, 6, 6>;
using Vector6 = Eigen::Matrix<double, 6, 1>;

/// A pair: a moving point (moved), the plane between the two, how far it is off.
struct Pair {
    Point3 at{};
    Point3 normal{};
    double off = 0;
};

class Laying {
public:
    Laying(const Prepared& moving, const Prepared& fixed, unsigned seed)
        : moving_(moving), fixed_(fixed), order_(moving.points.size()) {
        for (std::uint32_t i = 0; i < order_.size(); ++i) order_[i] = i;
        std::mt19937 rng(seed);
        std::shuffle(order_.begin(), order_.end(), rng);
    }
    /// Pairs of the first `count` points in a fixed random order.
    std::vector<Pair> pairs(const RigidTransform& m, size_t count, double reach, double least_cosine, int threads) const {
        count = std::min(count, order_.size());
        std::vector<Pair> all(count);
        std::vector<char> good(count, 0);
        shape::inPieces(count, 512, threads, [&](size_t from, size_t to) {
            for (size_t k = from; k < to; ++k) {
                const std::uint32_t i = count < order_.size() ? order_[k] : static_cast<std::uint32_t>(k); // all: as they lie
                const Point3 p = m.transformed(moving_.points[i]);
                const auto n = fixed_.near->nearest(p, reach);
                if (n.point == Neighbours::none || fixed_.normals.on_boundary[n.point]) continue;
                Point3 own = m.rotated(moving_.normals.normal[i]);
                const Point3& other = fixed_.normals.normal[n.point];
                const double cosine = dot(own, other);
                if (std::abs(cosine) < least_cosine) continue;
                if (cosine < 0) own = times(own, -1);
                // between both normals, an arc gives no error of its own
                const Point3 normal = geometry::unit(plus(own, other));
                all[k] = {p, normal, dot(normal, minus(p, fixed_.points[n.point]))};
                good[k] = 1;
            }
        });
        std::vector<Pair> kept;
        for (size_t k = 0; k < count; ++k)
            if (good[k]) kept.push_back(all[k]);
        return kept;
    }
    size_t size() const { return order_.size(); }

private:
    const Prepared& moving_;
    const Prepared& fixed_;
    std::vector<std::uint32_t> order_;
};

double spreadOf(const std::vector<Pair>& pairs) {
    std::vector<double> off;
    for (const Pair& p : pairs) off.push_back(std::abs(p.off));
    if (off.empty()) return 0;
    std::nth_element(off.begin(), off.begin() + static_cast<std::ptrdiff_t>(off.size() / 2), off.end());
    return 1.4826 * off[off.size() / 2];
}

/// The small motion that takes the pairs together; Tukey's weights at `limit`.
struct Step {
    RigidTransform motion;
    double size_mm = 0; ///< by how much it moves things a metre away
    Matrix6 normal = Matrix6::Zero();
    Point3 middle{};
    double arm = 1; ///< mm: turns are counted as the shift at this radius
    double sum = 0; ///< of weighted squares
    double weight = 0;
};
Step stepOf(const std::vector<Pair>& pairs, double limit) {
    Step s;
    for (const Pair& p : pairs) s.middle = plus(s.middle, times(p.at, 1.0 / static_cast<double>(pairs.size())));
    double arm2 = 0;
    for (const Pair& p : pairs) arm2 += dot(minus(p.at, s.middle), minus(p.at, s.middle)) / static_cast<double>(pairs.size());
    s.arm = std::max(1.0, std::sqrt(arm2));
    Vector6 right = Vector6::Zero();
    for (const Pair& p : pairs) {
        const double u = p.off / limit;
        if (std::abs(u) >= 1) continue;
        const double w = (1 - u * u) * (1 - u * u);
        const Point3 turn = times(cross(minus(p.at, s.middle), p.normal), 1 / s.arm);
        Vector6 row;
        row << p.normal[0], p.normal[1], p.normal[2], turn[0], turn[1], turn[2];
        s.normal += w * row * row.transpose();
        right -= w * p.off * row;
        s.sum += w * p.off * p.off;
        s.weight += w;
    }
    // a direction that hardly any plane resists is not moved along
    Matrix6 damped = s.normal;
    damped.diagonal().array() += 1e-4 * std::max(s.normal.trace() / 6, 1e-9);
    const Vector6 x = dense::solveSymmetric(damped, right);
    const Eigen::Vector3d turn = x.tail<3>() / s.arm;
    const double angle = turn.norm();
    const Eigen::Matrix3d r = angle > 0 ? Eigen::AngleAxisd(angle, turn / angle).toRotationMatrix() : Eigen::Matrix3d::Identity();
    for (int i = 0; i < 3; ++i)
        for (int j = 0; j < 3; ++j) s.motion.rotation[static_cast<size_t>(i)][static_cast<size_t>(j)] = r(i, j);
    s.motion.translation = plus(minus(s.middle, s.motion.rotated(s.middle)), {x(0), x(1), x(2)});
    s.size_mm = x.norm();
    return s;
}

struct Run {
    RigidTransform motion;
    double share = 0; ///< of the sample that lies within the limit of a plane
};

/// From `reach` down to `floor`, `count` points a step.
Run descend(const Laying& laying, RigidTransform m, double reach, double floor, size_t count, int threads) {
    Run run;
    for (int i = 0; i < 60; ++i) {
        const bool last = reach <= floor;
        const auto pairs = laying.pairs(m, count, reach, reach > 40 ? 0.6 : 0.8, threads);
        if (pairs.size() < 12) break;
        const double limit = std::max(floor / 2, std::min(reach, 3 * spreadOf(pairs)));
        const Step s = stepOf(pairs, limit);
        m = chained(s.motion, m);
        if (last && s.size_mm < 1e-3) break;
        reach = std::max(floor, reach * (s.size_mm > 0.2 * reach ? 0.95 : 0.85));
        if (last && i > 45) break;
    }
    const auto pairs = laying.pairs(m, count, floor, 0.8, threads);
    size_t close = 0;
    for (const Pair& p : pairs) close += std::abs(p.off) < floor / 4;
    run.motion = m;
    run.share = static_cast<double>(close) / static_cast<double>(std::min(count, laying.size()));
    return run;
}

} // namespace

Result<std::unique_ptr<Prepared>> preparedFor(const std::vector<Point3>& points, size_t most_points, int threads) {
    auto p = std::make_unique<Prepared>();
    Mesh m;
    m.points = points;
    if (points.size() > most_points) {
        double bound = 2 * spacingOf(points);
        for (int i = 0; i < 12 && m.points.size() > most_points; ++i, bound *= 1.4) {
            Mesh all;
            all.points = points;
            m = downsampled(all, std::max(bound, 1e-6)).mesh;
        }
    }
    const auto kept = withoutOutliers(m.points, 8, 6, threads);
    p->outliers = m.points.size() - kept.size();
    p->points = onlyPoints(m, kept).points;
    if (p->points.size() < 50)
        return Error{Error::Code::BadInput, "scan",
                     fmt::format("A scan of {} points is too little to be laid on another.", p->points.size()),
                     "Take a larger piece of it.", -1};
    p->near = std::make_unique<Neighbours>(p->points);
    p->spacing_mm = spacingOf(p->points, *p->near);
    p->normals = normalsOf(p->points, *p->near, 14, {}, threads);
    return p;
}

ScanRegistration registerScans(const Prepared& moving, const Prepared& fixed, const RigidTransform& start,
                               const AlignOptions& options) {
    const Laying laying(moving, fixed, options.seed);
    const int threads = shape::threadsOf(options.threads);
    const double floor = std::max(2.5 * fixed.spacing_mm, 2.0);
    Run best = descend(laying, start, options.reach_mm, floor, 1500, threads);
    if (options.search && best.share < 0.6) {
        // other starts about the given one: shifted and turned by part of the reach
        Point3 middle{};
        for (const Point3& p : moving.points) middle = plus(middle, times(p, 1.0 / static_cast<double>(moving.points.size())));
        middle = start.transformed(middle);
        const double shift = options.reach_mm * 0.45, turn = 0.045;
        for (int axis = 0; axis < 3; ++axis)
            for (const double side : {-1.0, 1.0})
                for (const bool turned : {false, true}) {
                    Point3 by{};
                    by[static_cast<size_t>(axis)] = side * (turned ? 0 : shift);
                    const double a = turned ? side * turn : 0;
                    RigidTransform small = geometry::rigidTransform({}, axis == 2 ? a : 0, axis == 1 ? a : 0, axis == 0 ? a : 0);
                    small.translation = plus(minus(middle, small.rotated(middle)), by);
                    const Run other = descend(laying, chained(small, start), options.reach_mm * 0.7, floor, 1500, threads);
                    if (other.share > best.share) best = other;
                }
    }
    // all points, within a few spreads of the noise
    ScanRegistration a;
    a.motion = best.motion;
    double spread = floor;
    Step s;
    std::vector<Pair> pairs;
    for (int i = 0; i < 14; ++i) {
        pairs = laying.pairs(a.motion, laying.size(), floor, 0.85, threads);
        if (pairs.size() < 30) break;
        spread = std::max(std::min(spread, spreadOf(pairs)), 1e-6);
        s = stepOf(pairs, 4 * spread);
        a.motion = chained(s.motion, a.motion);
        if (i > 3 && s.size_mm < 1e-4) break;
    }
    std::vector<double> off;
    for (const Pair& p : pairs)
        if (std::abs(p.off) < 4 * spread) off.push_back(std::abs(p.off));
    a.pairs = off.size();
    if (off.size() < 30) {
        a.words = "The scans have too little in common from this start: lay it by hand, nearer.";
        return a;
    }
    for (const double d : off) a.rms_mm += d * d / static_cast<double>(off.size());
    a.rms_mm = std::sqrt(a.rms_mm);
    std::sort(off.begin(), off.end());
    a.p95_mm = off[off.size() * 95 / 100];
    a.overlap = static_cast<double>(off.size()) / static_cast<double>(laying.size());
    a.middle = s.middle;
    const dense::Eigenpairs own = dense::eigenpairs(s.normal / s.weight);
    // one pair in a thousand resists: less is no hold
    for (int i = 0; i < 6 && own.values(i) < 1e-3; ++i) {
        const Vector6 v = own.vectors.col(i);
        if (v.head<3>().norm() > 0.5) a.loose.push_back(geometry::unit({v(0), v(1), v(2)}));
    }
    const Matrix6 covariance = dense::pseudoInverse(s.normal) * (s.sum / s.weight);
    for (int i = 0; i < 3; ++i) {
        a.translation_u95[static_cast<size_t>(i)] = 1.959964 * std::sqrt(std::max(0.0, covariance(i, i)));
        a.rotation_u95_rad[static_cast<size_t>(i)] = 1.959964 * std::sqrt(std::max(0.0, covariance(i + 3, i + 3))) / s.arm;
    }
    // settled: it stands still, and what is taken as common lies much closer than it would by chance
    a.settled = s.size_mm < 0.02 && a.loose.empty() && spread < floor / 4;
    a.words = !a.loose.empty()
                  ? "The common part is too plain: it could slide along itself. Add markers, or a scan that sees more."
              : a.settled ? fmt::format("PointRegistration on {:.0f} % of the scan, RMS {:.2f} mm.", 100 * a.overlap, a.rms_mm)
                          : "It did not settle: lay it by hand, nearer, or pick points.";
    return a;
}

Apart apart(const RigidTransform& a, const RigidTransform& b, const Point3& at) {
    const RigidTransform d = chained(a, inverse(b));
    const double trace = d.rotation[0][0] + d.rotation[1][1] + d.rotation[2][2];
    // small angles by the sine, which keeps its digits
    const Point3 axis{d.rotation[2][1] - d.rotation[1][2], d.rotation[0][2] - d.rotation[2][0],
                      d.rotation[1][0] - d.rotation[0][1]};
    return {geometry::length(minus(a.transformed(at), b.transformed(at))),
            std::atan2(geometry::length(axis) / 2, (trace - 1) / 2)};
}

} // namespace gorvet::scan
