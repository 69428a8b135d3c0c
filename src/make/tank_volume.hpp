#pragma once

#include "geometry/vec3.hpp"

#include <array>

namespace gorvet::make {

/// mm³ of a box-like body with eight corners (bit 0 of the index: to its far end, bit 1: to its right, bit 2: up) that lie below
/// a height. Its faces are flat, or are taken as two triangles each.
double hexahedronBelow(const std::array<geometry::Vec3, 8>&, double height_mm);

} // namespace gorvet::make
