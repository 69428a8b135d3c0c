#include "shape/transform.hpp"

namespace gorvet::shape {

Mesh transformed(Mesh mesh, const geometry::RigidTransform& motion) {
    for (Point3& p : mesh.points) p = motion.transformed(p);
    for (auto& n : mesh.normals) {
        const Point3 t = motion.rotated({n[0], n[1], n[2]});
        n = {static_cast<float>(t[0]), static_cast<float>(t[1]), static_cast<float>(t[2])};
    }
    return mesh;
}

void append(Mesh& to, const Mesh& m) {
    const auto shift = static_cast<std::uint32_t>(to.points.size());
    to.points.insert(to.points.end(), m.points.begin(), m.points.end());
    to.triangles.reserve(to.triangles.size() + m.triangles.size());
    for (const Triangle& t : m.triangles) to.triangles.push_back({t[0] + shift, t[1] + shift, t[2] + shift});
}

} // namespace gorvet::shape
