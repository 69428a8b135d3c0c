#pragma once

#include "geometry/outline.hpp"
#include "shape/mesh.hpp"
#include "shape/solid.hpp"

/// Closed meshes of plain things, at once: no solid is modelled. Lengths mm.
namespace gorvet::shape {

/// Triangles that fill a simple outline, anticlockwise as it is: ears, one after the other. O(n²).
std::vector<Triangle> filled(const geometry::Outline&);
/// Places of a ring, one behind the other along what is made: as many in each ring.
using Ring = std::vector<Point3>;
/// What lies between rings, closed at both ends by `cap`, triangles of a ring's places, anticlockwise seen from its last ring.
Mesh ringsMesh(const std::vector<Ring>&, const std::vector<Triangle>& cap);
/// The wall between outer and inner rings, closed at both ends.
Mesh wallMesh(const std::vector<Ring>& outer, const std::vector<Ring>& inner);
/// Of an outline, anticlockwise in the frame's X and Y; its thickness along Z.
Mesh prismMesh(const geometry::Outline&, double thickness_mm, const Frame&);

} // namespace gorvet::shape
