#pragma once

#include "shape/distance_tree.hpp"

#include <memory>
#include <vector>

/// What the 3-D view needs of a mesh, made ready beside the window. No Qt.
namespace gorvet::desk {

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

/// What is shown.
struct SceneMesh {
    std::shared_ptr<const shape::Mesh> mesh;
    std::shared_ptr<const shape::DistanceTree> tree; ///< for picks
    shape::Mesh thinned;                             ///< its outlines while the view moves; empty: the mesh is small enough
    std::vector<std::uint32_t> thinned_from;         ///< of its points, which they are in `mesh`
    DrawnMesh full;
    DrawnMesh thin; ///< drawn while the view moves; its corners come from the points of `mesh`
    /// `full` and `thin` anew, from the meshes: who draws takes them.
    void makeDrawn();
};
std::shared_ptr<SceneMesh> sceneMeshOf(std::shared_ptr<const shape::Mesh>, std::shared_ptr<const shape::DistanceTree>);

} // namespace gorvet::desk
