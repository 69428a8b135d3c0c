#include "scan/cloud.hpp"

#include "shape/parallel.hpp"

#include <Eigen/Eigenvalues>
#include <algorithm>
#include <array>
#include <numbers>
#include <set>
#include <unordered_map>

#include <fmt/format.h>

namespace gorvet::scan {
namespace {

using geometry::between;
using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;

/// A cell of a grid by three whole numbers: however far out, no two places far apart share one.
using CellKey = std::array<std::uint64_t, 3>;
struct CellHash {
    size_t operator()(const CellKey& k) const {
        std::uint64_t h = 0;
        for (const std::uint64_t v : k) {
            h ^= v + 0x9e3779b97f4a7c15ULL + (h << 6) + (h >> 2);
            h *= 0xff51afd7ed558ccdULL;
            h ^= h >> 32;
        }
        return h;
    }
};
CellKey cellOf(const Point3& p, const Point3& least, double cell) {
    CellKey key{};
    for (size_t axis = 0; axis < 3; ++axis)
        key[axis] = static_cast<std::uint64_t>(std::min((p[axis] - least[axis]) / cell, 1e18));
    return key;
}

} // namespace

Result<UnitCheck> checkUnit(const Point3& from, const Point3& to, double known_mm, const std::string& unit, double tolerance) {
    UnitCheck c;
    c.measured_mm = between(from, to);
    c.known_mm = known_mm;
    if (!(known_mm > 0) || !(c.measured_mm > 0))
        return Error{Error::Code::BadInput, "known distance", "A known distance needs two places apart and a length above 0.",
                     "Pick two places whose distance you have taped.", -1};
    c.ratio = c.measured_mm / known_mm;
    c.good = std::abs(c.ratio - 1) <= tolerance;
    if (c.good) {
        c.words = fmt::format("The scan says {:.1f} mm where {:.1f} mm was taped: the unit is right.", c.measured_mm, known_mm);
        return c;
    }
    struct Unit {
        const char* name;
        double mm;
    };
    static constexpr Unit units[] = {{"mm", 1}, {"cm", 10}, {"m", 1000}, {"in", 25.4}};
    double read_mm = 1;
    for (const Unit& u : units)
        if (unit == u.name) read_mm = u.mm;
    c.words = fmt::format("The scan says {:.1f} mm where {:.1f} mm was taped. ", c.measured_mm, known_mm);
    for (const Unit& u : units)
        if (unit != u.name && std::abs(c.ratio * u.mm / read_mm - 1) <= tolerance) {
            c.words += fmt::format("It was read as {}; {} would fit.", unit, u.name);
            return c;
        }
    c.words += "No usual unit makes up for that: the scan is out of scale, or these are not the places that were taped.";
    return c;
}

Downsampled downsampled(const Mesh& m, double bound_mm) {
    Downsampled t;
    t.bound_mm = bound_mm;
    if (m.points.empty()) return t;
    // two points of a cell are never farther apart than its diagonal
    const double cell = bound_mm / std::numbers::sqrt3;
    Point3 least = m.points[0];
    for (const Point3& p : m.points)
        for (size_t axis = 0; axis < 3; ++axis) least[axis] = std::min(least[axis], p[axis]);
    struct Cell {
        Point3 sum{};
        size_t count = 0;
        std::uint32_t nearest = 0;
        double off = 1e300;
        std::uint32_t number = 0;
    };
    std::unordered_map<CellKey, Cell, CellHash> cells;
    cells.reserve(m.points.size() / 4);
    for (const Point3& p : m.points) {
        Cell& c = cells[cellOf(p, least, cell)];
        c.sum = plus(c.sum, p);
        ++c.count;
    }
    for (std::uint32_t i = 0; i < m.points.size(); ++i) {
        Cell& c = cells[cellOf(m.points[i], least, cell)];
        if (const double d = between(m.points[i], times(c.sum, 1.0 / static_cast<double>(c.count))); d < c.off) {
            c.off = d;
            c.nearest = i;
        }
    }
    // in the order of the points that stay
    std::vector<std::uint32_t> kept;
    for (const auto& [key, c] : cells) kept.push_back(c.nearest);
    std::sort(kept.begin(), kept.end());
    std::vector<std::uint32_t> number(m.points.size());
    for (std::uint32_t k = 0; k < kept.size(); ++k) {
        number[kept[k]] = k;
        t.mesh.points.push_back(m.points[kept[k]]);
        if (!m.normals.empty()) t.mesh.normals.push_back(m.normals[kept[k]]);
        if (!m.colours.empty()) t.mesh.colours.push_back(m.colours[kept[k]]);
    }
    std::vector<std::uint32_t> place(m.points.size());
    for (std::uint32_t i = 0; i < m.points.size(); ++i) place[i] = number[cells[cellOf(m.points[i], least, cell)].nearest];
    std::set<shape::Triangle> seen;
    for (const shape::Triangle& q : m.triangles) {
        const shape::Triangle n{place[q[0]], place[q[1]], place[q[2]]};
        if (n[0] == n[1] || n[1] == n[2] || n[2] == n[0]) continue;
        shape::Triangle sorted = n;
        std::sort(sorted.begin(), sorted.end());
        if (seen.insert(sorted).second) t.mesh.triangles.push_back(n);
    }
    t.kept = std::move(kept);
    return t;
}

Normals normalsOf(const std::vector<Point3>& points, size_t k, const std::optional<Point3>& eye, int threads) {
    return normalsOf(points, Neighbours(points), k, eye, threads);
}

Normals normalsOf(const std::vector<Point3>& points, const Neighbours& all, size_t k, const std::optional<Point3>& eye,
                  int threads) {
    Normals n;
    n.normal.assign(points.size(), {0, 0, 1});
    n.on_boundary.assign(points.size(), 0);
    n.spread_mm.assign(points.size(), 0);
    shape::inPieces(points.size(), 1024, shape::threadsOf(threads), [&](size_t from, size_t to) {
        std::vector<Neighbours::Near> near;
        std::vector<double> angles;
        for (size_t i = from; i < to; ++i) {
            all.nearest(points[i], k, near);
            if (near.size() < 3) continue;
            Point3 middle{};
            for (const auto& q : near) middle = plus(middle, points[q.point]);
            middle = times(middle, 1.0 / static_cast<double>(near.size()));
            Eigen::Matrix3d c = Eigen::Matrix3d::Zero();
            for (const auto& q : near) {
                const Point3 d = minus(points[q.point], middle);
                const Eigen::Vector3d v(d[0], d[1], d[2]);
                c += v * v.transpose();
            }
            Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> solver;
            solver.computeDirect(c / static_cast<double>(near.size()));
            const Eigen::Vector3d v = solver.eigenvectors().col(0);
            Point3 normal{v.x(), v.y(), v.z()};
            if (eye && dot(normal, minus(*eye, points[i])) < 0) normal = times(normal, -1);
            n.normal[i] = normal;
            n.spread_mm[i] = static_cast<float>(std::sqrt(std::max(0.0, solver.eigenvalues()(0))));
            // at a rim the neighbours leave a wide gap round the point
            const Point3 along{solver.eigenvectors()(0, 2), solver.eigenvectors()(1, 2), solver.eigenvectors()(2, 2)};
            const Point3 across = cross(normal, along);
            angles.clear();
            for (const auto& q : near) {
                if (q.distance_mm <= 0) continue;
                const Point3 d = minus(points[q.point], points[i]);
                angles.push_back(std::atan2(dot(d, across), dot(d, along)));
            }
            std::sort(angles.begin(), angles.end());
            double gap = angles.empty() ? 7 : angles.front() + 2 * std::numbers::pi - angles.back();
            for (size_t a = 1; a < angles.size(); ++a) gap = std::max(gap, angles[a] - angles[a - 1]);
            n.on_boundary[i] = gap > 0.6 * std::numbers::pi;
        }
    });
    return n;
}

std::vector<std::uint32_t> withoutOutliers(const std::vector<Point3>& points, size_t k, double spreads, int threads) {
    std::vector<double> mean(points.size(), 0);
    const Neighbours all(points);
    shape::inPieces(points.size(), 1024, shape::threadsOf(threads), [&](size_t from, size_t to) {
        std::vector<Neighbours::Near> near;
        for (size_t i = from; i < to; ++i) {
            all.nearest(points[i], k + 1, near);
            for (const auto& q : near) mean[i] += q.distance_mm / static_cast<double>(std::max<size_t>(1, near.size() - 1));
        }
    });
    // median and spread about it, so that far strays do not widen the limit
    std::vector<double> sorted = mean;
    std::sort(sorted.begin(), sorted.end());
    std::vector<std::uint32_t> kept;
    if (points.empty()) return kept;
    const double median = sorted[sorted.size() / 2];
    for (double& s : sorted) s = std::abs(s - median);
    std::sort(sorted.begin(), sorted.end());
    const double limit = median + spreads * std::max(1.4826 * sorted[sorted.size() / 2], 1e-9);
    for (std::uint32_t i = 0; i < points.size(); ++i)
        if (mean[i] <= limit) kept.push_back(i);
    return kept;
}

Mesh onlyPoints(const Mesh& m, const std::vector<std::uint32_t>& kept) {
    Mesh out;
    std::vector<std::uint32_t> number(m.points.size(), Neighbours::none);
    for (const std::uint32_t i : kept) {
        number[i] = static_cast<std::uint32_t>(out.points.size());
        out.points.push_back(m.points[i]);
        if (!m.normals.empty()) out.normals.push_back(m.normals[i]);
        if (!m.colours.empty()) out.colours.push_back(m.colours[i]);
    }
    for (const shape::Triangle& t : m.triangles) {
        const shape::Triangle n{number[t[0]], number[t[1]], number[t[2]]};
        if (n[0] != Neighbours::none && n[1] != Neighbours::none && n[2] != Neighbours::none) out.triangles.push_back(n);
    }
    return out;
}

double spacingOf(const std::vector<Point3>& points) { return spacingOf(points, Neighbours(points)); }

double spacingOf(const std::vector<Point3>& points, const Neighbours& all) {
    std::vector<double> next;
    std::vector<Neighbours::Near> near;
    const size_t step = std::max<size_t>(1, points.size() / 2000);
    for (size_t i = 0; i < points.size(); i += step) {
        all.nearest(points[i], 2, near);
        if (near.size() == 2) next.push_back(near[1].distance_mm);
    }
    if (next.empty()) return 0;
    std::nth_element(next.begin(), next.begin() + static_cast<std::ptrdiff_t>(next.size() / 2), next.end());
    return next[next.size() / 2];
}

} // namespace gorvet::scan
