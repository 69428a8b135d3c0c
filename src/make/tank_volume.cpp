#include "make/tank_volume.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::Vec3;

namespace {

double tetrahedron(const Vec3& a, const Vec3& b, const Vec3& c, const Vec3& d) {
    return std::abs(dot(minus(b, a), cross(minus(c, a), minus(d, a)))) / 6;
}

/// Of a tetrahedron, what lies below a level plane. Its corners by height: below the second a corner is cut off, above the third
/// one is missing, between them it is what a corner leaves less two that stand out of it.
double below(std::array<Vec3, 4> p, double h) {
    std::sort(p.begin(), p.end(), [](const Vec3& a, const Vec3& b) { return a.z_mm < b.z_mm; });
    const double whole = tetrahedron(p[0], p[1], p[2], p[3]);
    const auto z = [&](std::size_t k) { return p[k].z_mm; };
    if (h <= z(0)) return 0;
    if (h >= z(3)) return whole;
    // of a tetrahedron with a corner at k, how much of it a plane at h cuts off there: each edge by its share
    const auto corner = [&](std::size_t k) {
        double share = 1;
        for (std::size_t j = 0; j < 4; ++j)
            if (j != k) share *= (h - z(k)) / (z(j) - z(k));
        return whole * share;
    };
    if (h <= z(1)) return corner(0);
    if (h >= z(2)) return whole - corner(3);
    // between both: the wedge as three tetrahedra
    const auto on = [&](std::size_t a, std::size_t b) { return geometry::along(p[a], p[b], (h - z(a)) / (z(b) - z(a))); };
    const Vec3 a = on(0, 2), b = on(0, 3), c = on(1, 2), d = on(1, 3);
    return tetrahedron(p[0], p[1], a, b) + tetrahedron(p[1], a, b, c) + tetrahedron(p[1], b, c, d);
}

} // namespace

double hexahedronBelow(const std::array<Vec3, 8>& c, double height) {
    // six about the diagonal from the first corner to the last: one for each order of its three ways
    static constexpr std::size_t ways[6][2] = {{1, 3}, {1, 5}, {2, 3}, {2, 6}, {4, 5}, {4, 6}};
    double sum = 0;
    for (const auto& w : ways) sum += below({c[0], c[w[0]], c[w[1]], c[7]}, height);
    return sum;
}

} // namespace gorvet::make
