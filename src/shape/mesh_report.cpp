#include "shape/disjoint_sets.hpp"
#include "shape/transform.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::shape {
namespace {

/// An edge by its lower and higher point, and which way its triangle runs along it.
struct Edge {
    std::uint32_t low;
    std::uint32_t high;
    std::uint32_t triangle;
    bool forward;
};

} // namespace

MeshReport look(const Mesh& m) {
    MeshReport r;
    r.points = m.points.size();
    r.triangles = m.triangles.size();
    if (!m.points.empty()) {
        r.box = {m.points.front(), m.points.front()};
        for (const Point3& p : m.points) r.box.take(p);
    }
    if (m.triangles.empty()) return r;
    std::vector<Edge> edges;
    edges.reserve(3 * m.triangles.size());
    std::vector<char> used(m.points.size(), 0);
    DisjointSets pieces(m.triangles.size());
    double six_volumes = 0;
    for (size_t t = 0; t < m.triangles.size(); ++t) {
        const Triangle& q = m.triangles[t];
        const Point3 n = cross(minus(m.points[q[1]], m.points[q[0]]), minus(m.points[q[2]], m.points[q[0]]));
        const double twice = std::sqrt(dot(n, n));
        r.area_mm2 += twice / 2;
        if (twice < 1e-12) ++r.degenerate_triangles;
        // from a corner of the box, so that far-away meshes keep their digits
        six_volumes +=
            dot(minus(m.points[q[0]], r.box.min), cross(minus(m.points[q[1]], r.box.min), minus(m.points[q[2]], r.box.min)));
        for (size_t k = 0; k < 3; ++k) {
            used[q[k]] = 1;
            const std::uint32_t a = q[k];
            const std::uint32_t b = q[(k + 1) % 3];
            if (a != b) edges.push_back({std::min(a, b), std::max(a, b), static_cast<std::uint32_t>(t), a < b});
        }
    }
    std::sort(edges.begin(), edges.end(),
              [](const Edge& a, const Edge& b) { return a.low != b.low ? a.low < b.low : a.high < b.high; });
    DisjointSets rims(m.points.size());
    std::vector<std::uint32_t> rim_points;
    for (size_t i = 0; i < edges.size();) {
        size_t j = i;
        size_t forward = 0;
        for (; j < edges.size() && edges[j].low == edges[i].low && edges[j].high == edges[i].high; ++j) {
            forward += edges[j].forward;
            pieces.join(edges[i].triangle, edges[j].triangle);
        }
        const size_t n = j - i;
        if (n == 1) {
            ++r.boundary_edges;
            rims.join(edges[i].low, edges[i].high);
            rim_points.push_back(edges[i].low);
        }
        if (n > 2) ++r.non_manifold_edges;
        if (n == 2 && forward != 1) ++r.flipped_edges;
        i = j;
    }
    for (std::uint32_t& p : rim_points) p = rims.find(p);
    std::sort(rim_points.begin(), rim_points.end());
    r.holes = static_cast<size_t>(std::unique(rim_points.begin(), rim_points.end()) - rim_points.begin());
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) r.pieces += pieces.find(t) == t;
    r.unreferenced_points = static_cast<size_t>(std::count(used.begin(), used.end(), char{0}));
    std::vector<Triangle> sorted = m.triangles;
    for (Triangle& q : sorted) std::sort(q.begin(), q.end());
    std::sort(sorted.begin(), sorted.end());
    for (size_t i = 1; i < sorted.size(); ++i) r.duplicate_triangles += sorted[i] == sorted[i - 1];
    r.closed = r.boundary_edges == 0 && r.non_manifold_edges == 0 && r.flipped_edges == 0;
    if (r.closed) r.volume_mm3 = six_volumes / 6;
    return r;
}

std::vector<std::string> MeshReport::remarks() const {
    std::vector<std::string> list;
    const auto say = [&](size_t n, const char* one, const char* many) {
        if (n) list.push_back(n == 1 ? fmt::format("One {}", one) : fmt::format("{} {}", n, many));
    };
    say(non_manifold_edges, "edge belongs to more than two triangles: inside and outside can't be told there.",
        "edges belong to more than two triangles: inside and outside can't be told there.");
    say(flipped_edges, "edge lies between triangles that face unlike ways.",
        "edges lie between triangles that face unlike ways.");
    if (closed && volume_mm3 < 0) list.emplace_back("It is turned inside out.");
    say(holes, "hole or open rim: distances have no inside.", "holes or open rims: distances have no inside.");
    say(duplicate_triangles, "triangle is there twice.", "triangles are there twice.");
    say(degenerate_triangles, "triangle has no area.", "triangles have no area.");
    say(unreferenced_points, "point belongs to no triangle.", "points belong to no triangle.");
    return list;
}

} // namespace gorvet::shape
