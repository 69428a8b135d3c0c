#pragma once

#include "shape/distance_tree.hpp"
#include "shape/drawn_mesh.hpp"

#include <memory>
#include <vector>

/// What the 3-D view needs of a mesh, made ready beside the window. No Qt.
namespace gorvet::desk {

using shape::DrawnMesh;

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
