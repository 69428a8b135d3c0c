#pragma once

#include "geometry/vec3.hpp"

#include <utility>
#include <vector>

/// Flat outlines, and the plane of places that should lie in one. mm.
namespace gorvet::geometry {

using Flat = std::pair<double, double>;
/// Corners in order, anticlockwise, closed from the last to the first.
using Outline = std::vector<Flat>;

/// The convex hull, anticlockwise (Andrew's monotone chain).
Outline hullOf(std::vector<Flat>);
/// Round all these places at that distance, as a hull: no corner lies inside of a circle, `steps` flats to each.
Outline hullRound(const std::vector<Flat>& places, double edge_mm, int steps = 48);
/// Anticlockwise: > 0.
double areaOf(const Outline&);
double perimeterOf(const Outline&);
/// Whether no side crosses another: three corners at least, none twice.
bool isSimple(const Outline&);
/// Whether a place lies inside.
bool isInside(const Outline&, const Flat&);
/// How far it is from the nearest side; whichever side it is on.
double fromEdge(const Outline&, const Flat&);

/// The plane of the least squares of their distances; three places at least, not in one line.
struct Plane {
    Vec3 middle;
    Vec3 normal; ///< of length 1
};
Plane planeOf(const std::vector<Vec3>&);

} // namespace gorvet::geometry
