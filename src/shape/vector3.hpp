#pragma once

#include "shape/mesh.hpp"

#include <cmath>

/// Arithmetic of points in space. Lengths mm.
namespace gorvet::shape {

inline Point3 plus(const Point3& a, const Point3& b) { return {a[0] + b[0], a[1] + b[1], a[2] + b[2]}; }
inline Point3 minus(const Point3& a, const Point3& b) { return {a[0] - b[0], a[1] - b[1], a[2] - b[2]}; }
inline Point3 times(const Point3& a, double f) { return {a[0] * f, a[1] * f, a[2] * f}; }
inline double dot(const Point3& a, const Point3& b) { return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]; }
inline Point3 cross(const Point3& a, const Point3& b) {
    return {a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]};
}
inline double length(const Point3& a) { return std::sqrt(dot(a, a)); }
inline double between(const Point3& a, const Point3& b) { return length(minus(a, b)); }
/// From a (share 0) to b (share 1).
inline Point3 along(const Point3& a, const Point3& b, double share) { return plus(a, times(minus(b, a), share)); }
/// Of length 1; {0, 0, 0} for a vector of no length.
inline Point3 unit(const Point3& a) {
    const double l = length(a);
    return l > 0 ? times(a, 1 / l) : Point3{};
}

/// A rigid motion: first turned, then shifted.
struct Motion {
    std::array<Point3, 3> turn{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}}; ///< rows of R, a proper rotation
    Point3 shift{};
    Point3 turned(const Point3& p) const { return {dot(turn[0], p), dot(turn[1], p), dot(turn[2], p)}; }
    Point3 moved(const Point3& p) const { return plus(turned(p), shift); }
    bool operator==(const Motion&) const = default;
};
/// The way back.
inline Motion inverse(const Motion& m) {
    Motion back;
    for (size_t i = 0; i < 3; ++i)
        for (size_t j = 0; j < 3; ++j) back.turn[i][j] = m.turn[j][i];
    back.shift = times(back.turned(m.shift), -1);
    return back;
}
/// First `first`, then `then`.
inline Motion chained(const Motion& then, const Motion& first) {
    Motion m;
    for (size_t i = 0; i < 3; ++i)
        for (size_t j = 0; j < 3; ++j)
            m.turn[i][j] =
                then.turn[i][0] * first.turn[0][j] + then.turn[i][1] * first.turn[1][j] + then.turn[i][2] * first.turn[2][j];
    m.shift = then.moved(first.shift);
    return m;
}
/// R = Rz(yaw)·Ry(pitch)·Rx(roll), then the shift; angles rad.
Motion motionOf(const Point3& shift, double yaw_rad, double pitch_rad, double roll_rad);
/// The angles of motionOf that give this motion: yaw, pitch, roll, rad; pitch within ± a right angle.
std::array<double, 3> anglesOf(const Motion&);
/// The mesh moved, normals turned with it.
Mesh moved(Mesh, const Motion&);
/// Points and triangles of a mesh behind those of another.
void append(Mesh& to, const Mesh&);

} // namespace gorvet::shape
