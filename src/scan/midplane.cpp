#include "scan/midplane.hpp"

#include "dense/dense.hpp"
#include "shape/disjoint_sets.hpp"
#include "shape/parallel.hpp"

#include <algorithm>
#include <limits>
#include <map>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::scan {
namespace {

using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;

Point3 meanOf(const std::vector<Point3>& points) {
    Point3 sum{};
    for (const Point3& p : points) sum = plus(sum, p);
    return times(sum, 1.0 / static_cast<double>(std::max<size_t>(1, points.size())));
}
Point3 mirror(const Point3& p, const Point3& at, const Point3& normal) {
    return minus(p, times(normal, 2 * dot(normal, minus(p, at))));
}

Point3 rightward(Point3 n) {
    size_t k = 0;
    for (size_t axis = 1; axis < 3; ++axis)
        if (std::abs(n[axis]) > std::abs(n[k])) k = axis;
    return n[k] < 0 ? times(n, -1) : n;
}

/// The middle of the box along a direction, without the outermost hundredths: half of a thing may have been seen better.
double middleAlong(const std::vector<Point3>& points, const Point3& way) {
    std::vector<double> v;
    for (const Point3& p : points) v.push_back(dot(p, way));
    std::sort(v.begin(), v.end());
    return (v[v.size() / 100] + v[v.size() - 1 - v.size() / 100]) / 2;
}

} // namespace

Point3 reflected(const Point3& p, const MidPlane& m) { return mirror(p, m.at, m.normal); }

Result<MidPlane> midPlaneOf(const std::vector<Point3>& points, const std::optional<Point3>& normal, const AlignOptions& options) {
    const auto own = preparedFor(points, 30000, options.threads);
    if (!own) return own.error();
    const Prepared& fixed = **own;
    const Point3 mean = meanOf(fixed.points);
    std::vector<Point3> tries;
    if (normal) {
        tries.push_back(geometry::unit(*normal));
    } else {
        Eigen::Matrix3d c = Eigen::Matrix3d::Zero();
        for (const Point3& p : fixed.points) {
            const Point3 d = minus(p, mean);
            const Eigen::Vector3d v(d[0], d[1], d[2]);
            c += v * v.transpose();
        }
        const Eigen::MatrixXd axes = dense::eigenpairs(c).vectors;
        for (int i = 0; i < 3; ++i) tries.push_back({axes(0, i), axes(1, i), axes(2, i)});
    }
    MidPlane best;
    for (const Point3& n : tries) {
        if (geometry::length(n) == 0) continue;
        const Point3 at = plus(mean, times(n, middleAlong(fixed.points, n) - dot(mean, n)));
        Prepared other;
        other.spacing_mm = fixed.spacing_mm;
        for (const Point3& p : fixed.points) other.points.push_back(mirror(p, at, n));
        other.normals = fixed.normals;
        for (Point3& v : other.normals.normal) v = minus(v, times(n, 2 * dot(n, v)));
        const ScanRegistration a = registerScans(other, fixed, {}, options);
        if (!(a.overlap > best.compared) && best.compared > 0) continue;
        // mirror and motion together leave one direction turned about: across the mid-plane
        Eigen::Matrix3d t;
        for (int i = 0; i < 3; ++i)
            for (int j = 0; j < 3; ++j) {
                double v = 0;
                for (int k = 0; k < 3; ++k) {
                    const auto ku = static_cast<size_t>(k), ju = static_cast<size_t>(j);
                    v += a.motion.rotation[static_cast<size_t>(i)][ku] * ((k == j ? 1 : 0) - 2 * n[ku] * n[ju]);
                }
                t(i, j) = v;
            }
        const Eigen::Vector3d across = dense::eigenpairs((t + t.transpose()) / 2).vectors.col(0); // eigenvalue −1
        best.normal = rightward({across(0), across(1), across(2)});
        const Point3 image = a.motion.transformed(mirror(a.middle, at, n));
        best.at = geometry::along(a.middle, image, 0.5);
        best.compared = a.overlap;
        best.rms_mm = a.rms_mm;
        best.settled = a.settled;
        // the plane moves by half of what the image does
        best.off_u95_mm = std::abs(dot(best.normal, a.translation_u95)) / 2;
        const Point3& w = a.rotation_u95_rad;
        best.rotation_u95_rad = std::sqrt(dot(w, w)) / 2;
        best.words = a.settled
                         ? fmt::format("Both sides compared over {:.0f} % of the scan, RMS {:.2f} mm.", 100 * a.overlap, a.rms_mm)
                         : "The two sides did not settle on each other: say which way is across, or scan more of both sides.";
    }
    if (best.compared == 0) best.words = "No mid-plane was found: the two sides have too little in common.";
    return best;
}

std::vector<float> asymmetry(const std::vector<Point3>& points, const MidPlane& m, double reach_mm, int threads) {
    std::vector<float> map(points.size(), std::numeric_limits<float>::quiet_NaN());
    if (points.size() < 20) return map;
    const Neighbours near(points);
    const Normals normals = normalsOf(points, near, 14, {}, threads);
    // outward: away from the mid-plane's own line through the middle of all
    const Point3 middle = meanOf(points);
    shape::inPieces(points.size(), 1024, shape::threadsOf(threads), [&](size_t from, size_t to) {
        for (size_t i = from; i < to; ++i) {
            const Point3 image = reflected(points[i], m);
            const auto n = near.nearest(image, reach_mm);
            if (n.point == Neighbours::none || normals.on_boundary[n.point]) continue;
            Point3 out = normals.normal[n.point];
            Point3 own = normals.normal[i];
            own = minus(own, times(m.normal, 2 * dot(m.normal, own)));
            if (std::abs(dot(out, own)) < 0.8) continue;
            if (dot(out, minus(points[n.point], middle)) < 0) out = times(out, -1);
            if (dot(out, own) < 0) own = times(own, -1);
            map[i] = static_cast<float>(dot(geometry::unit(plus(out, own)), minus(image, points[n.point])));
        }
    });
    return map;
}

std::vector<Unlike> unlikePlaces(const std::vector<Point3>& points, const MidPlane& m, const std::vector<float>& map,
                                 double limit_mm, double cell_mm) {
    const Normals normals = normalsOf(points, 14);
    const Point3 middle = meanOf(points);
    struct Cell {
        std::vector<float> off;
        Point3 way{};
        geometry::Box3 box;
        double median = 0;
        double u95 = 0;
    };
    // the left side, by cells and by which way the surface faces there
    std::map<std::array<int, 4>, Cell> cells;
    for (size_t i = 0; i < points.size(); ++i) {
        if (!std::isfinite(map[i]) || dot(m.normal, minus(points[i], m.at)) >= 0) continue;
        Point3 n = normals.normal[i];
        if (dot(n, minus(points[i], middle)) < 0) n = times(n, -1);
        int facing = 0;
        for (int axis = 1; axis < 3; ++axis)
            if (std::abs(n[static_cast<size_t>(axis)]) > std::abs(n[static_cast<size_t>(facing)])) facing = axis;
        if (n[static_cast<size_t>(facing)] < 0) facing += 3;
        std::array<int, 4> key{0, 0, 0, facing};
        for (size_t axis = 0; axis < 3; ++axis) key[axis] = static_cast<int>(std::floor(points[i][axis] / cell_mm));
        Cell& c = cells[key];
        c.off.push_back(map[i]);
        c.way = plus(c.way, n);
        c.box.take(points[i]);
    }
    std::vector<std::pair<std::array<int, 4>, Cell*>> far;
    for (auto& [key, c] : cells) {
        if (c.off.size() < 8) continue;
        std::sort(c.off.begin(), c.off.end());
        c.median = static_cast<double>(c.off[c.off.size() / 2]);
        const double quartiles = static_cast<double>(c.off[c.off.size() * 3 / 4] - c.off[c.off.size() / 4]);
        c.u95 = 1.96 * 1.2533 * quartiles / 1.349 / std::sqrt(static_cast<double>(c.off.size()));
        if (std::abs(c.median) - c.u95 > limit_mm) far.emplace_back(key, &c);
    }
    shape::DisjointSets groups(far.size());
    for (std::uint32_t i = 0; i < far.size(); ++i)
        for (std::uint32_t j = 0; j < i; ++j) {
            const auto &a = far[i].first, &b = far[j].first;
            const bool beside = std::abs(a[0] - b[0]) <= 1 && std::abs(a[1] - b[1]) <= 1 && std::abs(a[2] - b[2]) <= 1;
            if (beside && a[3] == b[3] && (far[i].second->median > 0) == (far[j].second->median > 0)) groups.join(i, j);
        }
    std::uint32_t count = 0;
    const auto number = groups.numbered(count);
    std::vector<Unlike> all(count);
    for (size_t i = 0; i < far.size(); ++i) {
        Unlike& u = all[number[i]];
        const Cell& c = *far[i].second;
        const double n = static_cast<double>(c.off.size());
        u.by_mm += n * c.median;
        u.u95_mm += n * n * c.u95 * c.u95;
        u.points += c.off.size();
        u.way = plus(u.way, c.way);
        u.box.take(c.box);
    }
    for (Unlike& u : all) {
        u.by_mm /= static_cast<double>(u.points);
        u.u95_mm = std::sqrt(u.u95_mm) / static_cast<double>(u.points);
        u.way = geometry::unit(u.way);
        size_t k = 0;
        for (size_t axis = 1; axis < 3; ++axis)
            if (std::abs(u.way[axis]) > std::abs(u.way[k])) k = axis;
        const bool along = (u.way[k] > 0) == (u.by_mm > 0);
        const char* how = k == 0   ? (along ? "further back" : "further forward")
                          : k == 1 ? (along ? "further in" : "further out")
                                   : (along ? "higher" : "lower");
        u.words = fmt::format("left at station {:.0f} to {:.0f}, height {:.0f} to {:.0f}: {:.1f} mm {} than the right (± {:.1f})",
                              u.box.min.x_mm, u.box.max.x_mm, u.box.min.z_mm, u.box.max.z_mm, std::abs(u.by_mm), how, u.u95_mm);
    }
    std::sort(all.begin(), all.end(), [](const Unlike& a, const Unlike& b) {
        return std::abs(a.by_mm) * static_cast<double>(a.points) > std::abs(b.by_mm) * static_cast<double>(b.points);
    });
    return all;
}

} // namespace gorvet::scan
