#pragma once

#include "build/rail_line.hpp"
#include "shape/mesh.hpp"

/// Rails and what lies in them as closed meshes. Chassis frame, mm.
namespace gorvet::make {

/// A rail from its first to its last point by its section, corners sharp: a box, or a channel that is open towards the middle.
/// Empty while its section or its points are not known.
shape::Mesh railMesh(const build::RailLine&, bool channel);
/// The same as if it were solid.
shape::Mesh railFilled(const build::RailLine&);
/// A bar along a rail's middle between two stations; empty where the rail does not reach.
shape::Mesh alongRail(const build::RailLine&, double from_mm, double until_mm, double height_mm, double width_mm);

} // namespace gorvet::make
