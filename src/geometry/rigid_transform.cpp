#include "geometry/rigid_transform.hpp"

#include <algorithm>

namespace gorvet::geometry {

RigidTransform inverse(const RigidTransform& m) {
    RigidTransform back;
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t j = 0; j < 3; ++j) back.rotation[i][j] = m.rotation[j][i];
    back.translation = times(back.rotated(m.translation), -1);
    return back;
}

RigidTransform chained(const RigidTransform& then, const RigidTransform& first) {
    RigidTransform m;
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t j = 0; j < 3; ++j)
            m.rotation[i][j] = then.rotation[i][0] * first.rotation[0][j] + then.rotation[i][1] * first.rotation[1][j] +
                               then.rotation[i][2] * first.rotation[2][j];
    m.translation = then.transformed(first.translation);
    return m;
}

RigidTransform rigidTransform(const Vec3& translation, double yaw_rad, double pitch_rad, double roll_rad) {
    const double cy = std::cos(yaw_rad), sy = std::sin(yaw_rad);
    const double cp = std::cos(pitch_rad), sp = std::sin(pitch_rad);
    const double cr = std::cos(roll_rad), sr = std::sin(roll_rad);
    return {{{{cy * cp, cy * sp * sr - sy * cr, cy * sp * cr + sy * sr},
              {sy * cp, sy * sp * sr + cy * cr, sy * sp * cr - cy * sr},
              {-sp, cp * sr, cp * cr}}},
            translation};
}

std::array<double, 3> yawPitchRoll(const RigidTransform& m) {
    return {std::atan2(m.rotation[1].x_mm, m.rotation[0].x_mm), std::asin(std::clamp(-m.rotation[2].x_mm, -1.0, 1.0)),
            std::atan2(m.rotation[2].y_mm, m.rotation[2].z_mm)};
}

} // namespace gorvet::geometry
