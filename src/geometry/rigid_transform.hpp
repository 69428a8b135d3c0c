#pragma once

#include "geometry/vec3.hpp"

#include <array>

/// The one rigid transform of the house.
namespace gorvet::geometry {

/// p ↦ R·p + t: first rotated about the origin, then translated.
struct RigidTransform {
    std::array<Vec3, 3> rotation{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}}; ///< rows of R, a proper rotation
    Vec3 translation{};
    Vec3 rotated(const Vec3& p) const { return {dot(rotation[0], p), dot(rotation[1], p), dot(rotation[2], p)}; }
    Vec3 transformed(const Vec3& p) const { return plus(rotated(p), translation); }
    bool operator==(const RigidTransform&) const = default;
};
/// The way back.
RigidTransform inverse(const RigidTransform&);
/// First `first`, then `then`.
RigidTransform chained(const RigidTransform& then, const RigidTransform& first);
/// R = Rz(yaw)·Ry(pitch)·Rx(roll), then the translation; angles rad.
RigidTransform rigidTransform(const Vec3& translation, double yaw_rad, double pitch_rad, double roll_rad);
/// The angles that `rigidTransform` takes: yaw, pitch, roll, rad; pitch within ± a right angle.
std::array<double, 3> yawPitchRoll(const RigidTransform&);

} // namespace gorvet::geometry
