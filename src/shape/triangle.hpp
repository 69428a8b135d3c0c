#pragma once

#include "shape/transform.hpp"

#include <optional>

/// One triangle at a time, in double precision.
namespace gorvet::shape {

using Corners = std::array<Point3, 3>;

inline Corners cornersOf(const Mesh& m, std::uint32_t triangle) {
    const Triangle& t = m.triangles[triangle];
    return {m.points[t[0]], m.points[t[1]], m.points[t[2]]};
}

/// What of a triangle is nearest: its face, a side (from corner k to the next) or a corner.
enum class Feature : std::uint8_t { Face, Side0, Side1, Side2, Corner0, Corner1, Corner2 };
struct Foot {
    Point3 at{};
    Feature feature = Feature::Face;
};
/// The nearest place on a triangle. A triangle of no area counts as its sides. Ericson, Real-Time Collision Detection 5.1.5.
Foot footOn(const Corners&, const Point3&);

struct Segment {
    Point3 from{};
    Point3 to{};
};
/// The nearest two places of two segments. Ericson 5.1.9.
Segment nearestOf(const Segment&, const Segment&);

/// > 0 when d lies on the side of the plane a, b, c from which they run clockwise: six times the volume of the four.
double orientation(const Point3& a, const Point3& b, const Point3& c, const Point3& d);
/// Whether two triangles cut or touch each other (within rounding; also in one plane).
bool meet(const Corners&, const Corners&);
/// The nearest two places of two triangles, the same place twice where they meet.
Segment nearestOf(const Corners&, const Corners&);

} // namespace gorvet::shape
