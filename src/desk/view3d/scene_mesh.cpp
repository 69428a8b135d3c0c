#include "desk/view3d/scene_mesh.hpp"

#include "scan/cloud.hpp"

namespace gorvet::desk {

namespace {

constexpr size_t most_while_moving = 70000; ///< triangles: software rendering keeps up with so many

} // namespace

std::shared_ptr<SceneMesh> sceneMeshOf(std::shared_ptr<const shape::Mesh> mesh, std::shared_ptr<const shape::DistanceTree> tree) {
    auto s = std::make_shared<SceneMesh>();
    s->mesh = std::move(mesh);
    s->tree = std::move(tree);
    if (s->mesh->triangles.size() > most_while_moving / 2) {
        scan::Downsampled t = scan::downsampled(*s->mesh, 25);
        for (double bound = 35; t.mesh.triangles.size() > most_while_moving / 2 && bound < 500; bound *= 1.4)
            t = scan::downsampled(*s->mesh, bound);
        s->thinned = std::move(t.mesh);
        s->thinned_from = std::move(t.kept);
    }
    return s;
}

void SceneMesh::makeDrawn() {
    full = shape::drawnMesh(*mesh);
    if (thinned.points.empty()) return;
    thin = shape::drawnMesh(thinned);
    for (std::uint32_t& p : thin.from) p = thinned_from[p];
}

} // namespace gorvet::desk
