#pragma once

#include "geometry/rigid_transform.hpp"
#include "shape/mesh.hpp"

/// Meshes moved and put together.
namespace gorvet::shape {

using geometry::RigidTransform;

/// The mesh moved, normals rotated with it.
Mesh transformed(Mesh, const RigidTransform&);
/// Points and triangles of a mesh behind those of another.
void append(Mesh& to, const Mesh&);

} // namespace gorvet::shape
