#include "shape/drawn_mesh.hpp"

#include <cmath>

namespace gorvet::shape {

namespace {

/// For each point the triangles that stand on it: `of` holds them one point after the other, beginning at `first`.
struct Around {
    std::vector<std::uint32_t> first;
    std::vector<std::uint32_t> of;
};
Around around(const Mesh& m) {
    Around a;
    a.first.assign(m.points.size() + 1, 0);
    for (const Triangle& t : m.triangles)
        for (const std::uint32_t p : t) ++a.first[p + 1];
    for (size_t i = 0; i < m.points.size(); ++i) a.first[i + 1] += a.first[i];
    a.of.resize(a.first.back());
    std::vector<std::uint32_t> next(a.first.begin(), a.first.end() - 1);
    for (size_t t = 0; t < m.triangles.size(); ++t)
        for (const std::uint32_t p : m.triangles[t]) a.of[next[p]++] = static_cast<std::uint32_t>(t);
    return a;
}

bool isLone(const Triangle& t) { return t[0] == t[1]; }

} // namespace

DrawnMesh drawnMesh(const Mesh& m) {
    std::vector<Point3> across(m.triangles.size()); // twice the area long
    for (size_t t = 0; t < across.size(); ++t) {
        const Triangle& q = m.triangles[t];
        across[t] =
            geometry::cross(geometry::minus(m.points[q[1]], m.points[q[0]]), geometry::minus(m.points[q[2]], m.points[q[0]]));
    }
    DrawnMesh d;
    d.triangles.assign(3 * m.triangles.size(), 0);
    const auto corner = [&](std::uint32_t point, const Point3& normal) {
        const Point3 n = geometry::unit(normal);
        for (const double v : {m.points[point].x_mm, m.points[point].y_mm, m.points[point].z_mm, n.x_mm, n.y_mm, n.z_mm})
            d.places.push_back(static_cast<float>(v));
        d.from.push_back(point);
        return static_cast<std::uint32_t>(d.from.size() - 1);
    };
    const Around a = around(m);
    const double alike = std::cos(crease_rad);
    std::vector<Point3> sides; // the faces around one point, those alike added up
    std::vector<size_t> side_of;
    for (std::uint32_t p = 0; p < m.points.size(); ++p) {
        sides.clear();
        side_of.clear();
        for (std::uint32_t k = a.first[p]; k < a.first[p + 1]; ++k) {
            const Point3& n = across[a.of[k]];
            const double size = geometry::length(n);
            // which way a scan's triangle is wound says little: alike is alike from either side
            const auto turned = [&](size_t side) { return geometry::dot(sides[side], n); };
            size_t side = 0;
            while (side < sides.size() && size > 0 && std::abs(turned(side)) < alike * size * geometry::length(sides[side]))
                ++side;
            if (side == sides.size())
                sides.push_back(n);
            else
                sides[side] = geometry::plus(sides[side], geometry::times(n, turned(side) < 0 ? -1 : 1));
            side_of.push_back(side);
        }
        const auto first = static_cast<std::uint32_t>(d.from.size());
        for (const Point3& n : sides) corner(p, n);
        for (std::uint32_t k = a.first[p]; k < a.first[p + 1]; ++k) {
            const std::uint32_t t = a.of[k];
            const auto at = first + static_cast<std::uint32_t>(side_of[k - a.first[p]]);
            for (size_t c = 0; c < 3; ++c)
                if (m.triangles[t][c] == p) d.triangles[3 * t + c] = at;
        }
    }
    // lone points last, and not among the triangles
    size_t kept = 0;
    for (size_t t = 0; t < m.triangles.size(); ++t) {
        if (isLone(m.triangles[t])) {
            d.lone.push_back(d.triangles[3 * t]);
            continue;
        }
        for (size_t c = 0; c < 3; ++c) d.triangles[3 * kept + c] = d.triangles[3 * t + c];
        ++kept;
    }
    d.triangles.resize(3 * kept);
    return d;
}

} // namespace gorvet::shape
