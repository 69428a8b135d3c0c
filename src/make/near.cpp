#include "make/near.hpp"

#include "geometry/box3.hpp"
#include "shape/triangle.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::make {

using geometry::Box3;
using geometry::Vec3;
using shape::Corners;
using shape::Mesh;

namespace {

Box3 boxOfCorners(const Corners& c) {
    Box3 b;
    for (const auto& p : c) b.take(p);
    return b;
}
/// Between two boxes at the least.
double apartOf(const Box3& a, const Box3& b) {
    double sum = 0;
    for (std::size_t axis = 0; axis < 3; ++axis) {
        const double gap = std::max({0.0, b.min[axis] - a.max[axis], a.min[axis] - b.max[axis]});
        sum += gap * gap;
    }
    return std::sqrt(sum);
}
struct Boxed {
    Corners corners;
    Box3 box;
};
std::vector<Boxed> nearBox(const Mesh& m, const Box3& to, double cap) {
    std::vector<Boxed> all;
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
        const Corners c = shape::cornersOf(m, t);
        const Box3 box = boxOfCorners(c);
        if (apartOf(box, to) < cap) all.push_back({c, box});
    }
    return all;
}
Box3 boxRound(const Mesh& m) {
    Box3 b;
    for (const auto& p : m.points) b.take(p);
    return b;
}

} // namespace

std::optional<Near> nearestOf(const Mesh& one, const Mesh& other, double cap) {
    const Box3 a = boxRound(one), b = boxRound(other);
    if (one.triangles.empty() || other.triangles.empty() || apartOf(a, b) >= cap) return std::nullopt;
    const auto mine = nearBox(one, b, cap), theirs = nearBox(other, a, cap);
    std::optional<Near> best;
    double least = cap;
    for (const Boxed& p : mine) {
        if (apartOf(p.box, b) >= least) continue;
        for (const Boxed& q : theirs) {
            if (apartOf(p.box, q.box) >= least) continue;
            const shape::Segment s = shape::nearestOf(p.corners, q.corners);
            if (const double d = geometry::between(s.from, s.to); d < least) {
                least = d;
                best = Near{"", "", d, s.from, s.to};
                if (d <= 0) return best;
            }
        }
    }
    return best;
}

std::optional<Near> nearestOther(const ServiceBody& body, const std::vector<ServiceBody>& others, double cap) {
    std::optional<Near> best;
    for (const ServiceBody& other : others) {
        if (other.name == body.name || !other.mesh) continue;
        auto near = nearestOf(*body.mesh, *other.mesh, best ? best->mm : cap);
        if (!near || near->mm <= std::max(body.touch_mm, other.touch_mm)) continue;
        near->one = body.name;
        near->other = other.name;
        best = std::move(near);
    }
    return best;
}

std::vector<Near> nearsOf(const std::vector<ServiceBody>& bodies) {
    std::vector<Near> all;
    for (const ServiceBody& body : bodies)
        if (body.closed && !body.given && body.mesh)
            if (auto near = nearestOther(body, bodies, near_cap_mm)) all.push_back(std::move(*near));
    return all;
}

} // namespace gorvet::make
