#include "shape/vector3.hpp"

#include <algorithm>

namespace gorvet::shape {

Motion motionOf(const Point3& shift, double yaw_rad, double pitch_rad, double roll_rad) {
    const double cy = std::cos(yaw_rad), sy = std::sin(yaw_rad);
    const double cp = std::cos(pitch_rad), sp = std::sin(pitch_rad);
    const double cr = std::cos(roll_rad), sr = std::sin(roll_rad);
    Motion m;
    m.turn = {{{cy * cp, cy * sp * sr - sy * cr, cy * sp * cr + sy * sr},
               {sy * cp, sy * sp * sr + cy * cr, sy * sp * cr - cy * sr},
               {-sp, cp * sr, cp * cr}}};
    m.shift = shift;
    return m;
}

std::array<double, 3> anglesOf(const Motion& m) {
    return {std::atan2(m.turn[1][0], m.turn[0][0]), std::asin(std::clamp(-m.turn[2][0], -1.0, 1.0)),
            std::atan2(m.turn[2][1], m.turn[2][2])};
}

Mesh moved(Mesh mesh, const Motion& motion) {
    for (Point3& p : mesh.points) p = motion.moved(p);
    for (auto& n : mesh.normals) {
        const Point3 t = motion.turned({n[0], n[1], n[2]});
        n = {static_cast<float>(t[0]), static_cast<float>(t[1]), static_cast<float>(t[2])};
    }
    return mesh;
}

void append(Mesh& to, const Mesh& m) {
    const auto shift = static_cast<std::uint32_t>(to.points.size());
    to.points.insert(to.points.end(), m.points.begin(), m.points.end());
    for (const Triangle& t : m.triangles) to.triangles.push_back({t[0] + shift, t[1] + shift, t[2] + shift});
}

} // namespace gorvet::shape
