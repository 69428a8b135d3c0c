#pragma once

#include "shape/mesh.hpp"

/// A mesh with its creases parted. Lengths mm.
namespace gorvet::shape {

/// Triangles as they are drawn: a point stands as often as creases part the faces around it, each time with the mean normal of
/// its own side, so that round sheet shades smoothly and an edge stays an edge.
struct DrawnMesh {
    std::vector<float> places;            ///< six figures a corner: place, unit normal (0 of a lone point)
    std::vector<std::uint32_t> from;      ///< of each corner, its point in the mesh
    std::vector<std::uint32_t> triangles; ///< three corners each
    std::vector<std::uint32_t> lone;      ///< corners without a triangle: points of a cloud
    bool empty() const { return from.empty(); }
};
/// Faces that turn by more than this at their common edge are parted there.
inline constexpr double crease_rad = 0.6;
DrawnMesh drawnMesh(const shape::Mesh&);

} // namespace gorvet::shape
