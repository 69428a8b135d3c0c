#include "make/fouls.hpp"

#include "make/put_on.hpp"

#include "geometry/box3.hpp"
#include "shape/triangle.hpp"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <optional>

#include <fmt/format.h>

namespace gorvet::make {

using geometry::Box3;
using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;
using geometry::Vec3;
using shape::Mesh;

Mesh shrunk(const Mesh& m, double by) {
    struct Corner {
        std::vector<Vec3> normals; ///< of the faces there, each once
    };
    // points of one place are one corner
    std::vector<std::uint32_t> order(m.points.size()), same(m.points.size());
    for (std::uint32_t k = 0; k < order.size(); ++k) order[k] = k;
    std::sort(order.begin(), order.end(), [&](std::uint32_t a, std::uint32_t b) { return m.points[a] < m.points[b]; });
    for (std::size_t k = 0; k < order.size(); ++k)
        same[order[k]] = k > 0 && m.points[order[k]] == m.points[order[k - 1]] ? same[order[k - 1]] : order[k];
    std::vector<Corner> corners(m.points.size());
    for (const shape::Triangle& t : m.triangles) {
        const Vec3 normal = unit(cross(minus(m.points[t[1]], m.points[t[0]]), minus(m.points[t[2]], m.points[t[0]])));
        if (normal == Vec3{}) continue;
        for (const std::uint32_t p : t) {
            auto& list = corners[same[p]].normals;
            if (std::none_of(list.begin(), list.end(), [&](const Vec3& n) { return dot(n, normal) > 0.9999; }))
                list.push_back(normal);
        }
    }
    Mesh out = m;
    for (std::size_t k = 0; k < m.points.size(); ++k) {
        // (Σ n nᵀ + ε) d = −by Σ n
        double a[3][3] = {{1e-6, 0, 0}, {0, 1e-6, 0}, {0, 0, 1e-6}};
        Vec3 right;
        for (const Vec3& n : corners[same[k]].normals) {
            for (std::size_t i = 0; i < 3; ++i)
                for (std::size_t j = 0; j < 3; ++j) a[i][j] += n[i] * n[j];
            right = minus(right, times(n, by));
        }
        const Vec3 r0{a[0][0], a[0][1], a[0][2]}, r1{a[1][0], a[1][1], a[1][2]}, r2{a[2][0], a[2][1], a[2][2]};
        const double det = dot(r0, cross(r1, r2));
        if (std::abs(det) < 1e-18) continue;
        const Vec3 c0 = cross(r1, r2), c1 = cross(r2, r0), c2 = cross(r0, r1); // the inverse's columns, times det
        Vec3 d = times(plus(plus(times(c0, right.x_mm), times(c1, right.y_mm)), times(c2, right.z_mm)), 1 / det);
        // a needle's tip would run far: no farther than three times
        if (const double l = geometry::length(d); l > 3 * by) d = times(d, 3 * by / l);
        out.points[k] = plus(m.points[k], d);
    }
    return out;
}

namespace {

Box3 boxOf(const Mesh& m) {
    Box3 box;
    for (const auto& p : m.points) box.take(p);
    return box;
}
/// Triangles whose own box meets another.
std::vector<shape::Corners> within(const Mesh& m, const Box3& box) {
    std::vector<shape::Corners> all;
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
        const shape::Corners c = shape::cornersOf(m, t);
        Box3 own;
        for (const auto& p : c) own.take(p);
        if (own.meets(box)) all.push_back(c);
    }
    return all;
}
bool inside(const Mesh& m, const Vec3& p) {
    // upwards, a hair aside, so that no side of a triangle is met
    const double x = p.x_mm + 1.3e-5, y = p.y_mm + 2.9e-5;
    int above = 0;
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
        const shape::Corners c = shape::cornersOf(m, t);
        const auto side = [&](std::size_t i, std::size_t j) {
            return (c[j].x_mm - c[i].x_mm) * (y - c[i].y_mm) - (c[j].y_mm - c[i].y_mm) * (x - c[i].x_mm);
        };
        const double u = side(1, 2), v = side(2, 0), w = side(0, 1);
        if (!((u > 0 && v > 0 && w > 0) || (u < 0 && v < 0 && w < 0))) continue;
        above += (u * c[0].z_mm + v * c[1].z_mm + w * c[2].z_mm) / (u + v + w) > p.z_mm;
    }
    return above % 2 == 1;
}

std::optional<Vec3> shared(const Mesh& smaller, const Mesh& other) {
    const Box3 a = boxOf(smaller), b = boxOf(other);
    if (smaller.points.empty() || other.points.empty() || !a.meets(b)) return std::nullopt;
    const auto mine = within(smaller, b), theirs = within(other, a);
    std::vector<Box3> boxes;
    for (const auto& c : theirs) {
        Box3 box;
        for (const auto& p : c) box.take(p);
        boxes.push_back(box);
    }
    for (const auto& c : mine) {
        Box3 own;
        for (const auto& p : c) own.take(p);
        for (std::size_t k = 0; k < theirs.size(); ++k)
            if (own.meets(boxes[k]) && shape::meet(c, theirs[k])) return shape::nearestOf(c, theirs[k]).from;
    }
    if (inside(other, smaller.points.front())) return smaller.points.front();
    return std::nullopt;
}

} // namespace

std::vector<Foul> foulsOf(const std::vector<ServiceBody>& bodies) {
    std::vector<Foul> all;
    std::vector<std::optional<Mesh>> smaller(bodies.size());
    std::vector<Box3> boxes(bodies.size());
    for (std::size_t k = 0; k < bodies.size(); ++k) boxes[k] = boxOf(*bodies[k].mesh);
    for (std::size_t i = 0; i < bodies.size(); ++i)
        for (std::size_t j = 0; j < i; ++j) {
            const ServiceBody &one = bodies[j], &other = bodies[i];
            if (!one.closed || !other.closed || (one.given && other.given) || !boxes[i].meets(boxes[j])) continue;
            // the one that may stand in more, else that has fewer triangles, is made smaller
            const bool first = one.touch_mm != other.touch_mm ? one.touch_mm > other.touch_mm
                                                              : one.mesh->triangles.size() <= other.mesh->triangles.size();
            const std::size_t small = first ? j : i, large = first ? i : j;
            if (!smaller[small]) smaller[small] = shrunk(*bodies[small].mesh, bodies[small].touch_mm);
            auto at = shared(*smaller[small], *bodies[large].mesh);
            // or it lies wholly inside of the one that was made smaller
            if (const auto& first_place = bodies[large].mesh->points.front(); !at && inside(*smaller[small], first_place))
                at = first_place;
            if (at) all.push_back({one.name, other.name, *at});
        }
    return all;
}

std::string foulWords(const Foul& f, units::LengthStep step) {
    std::string words =
        fmt::format("{} and {} stand in each other at station {}.", f.one, f.other, units::formatLength(f.at.x_mm, step));
    words[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(words[0])));
    return words;
}

} // namespace gorvet::make
