#pragma once

#include <cmath>
#include <compare>
#include <cstddef>

/// The one vector of the house: a place or a direction in space, and its arithmetic.
namespace gorvet::geometry {

/// X station, rearward · Y offset, to the right · Z height, up. Of a direction the parts are shares of 1.
struct Vec3 {
    double x_mm = 0;
    double y_mm = 0;
    double z_mm = 0;
    auto operator<=>(const Vec3&) const = default;

    /// By axis, 0…2.
    constexpr double& operator[](std::size_t axis) { return axis == 0 ? x_mm : axis == 1 ? y_mm : z_mm; }
    constexpr const double& operator[](std::size_t axis) const { return axis == 0 ? x_mm : axis == 1 ? y_mm : z_mm; }
};

constexpr Vec3 plus(const Vec3& a, const Vec3& b) { return {a.x_mm + b.x_mm, a.y_mm + b.y_mm, a.z_mm + b.z_mm}; }
constexpr Vec3 minus(const Vec3& a, const Vec3& b) { return {a.x_mm - b.x_mm, a.y_mm - b.y_mm, a.z_mm - b.z_mm}; }
constexpr Vec3 times(const Vec3& a, double f) { return {a.x_mm * f, a.y_mm * f, a.z_mm * f}; }
constexpr double dot(const Vec3& a, const Vec3& b) { return a.x_mm * b.x_mm + a.y_mm * b.y_mm + a.z_mm * b.z_mm; }
constexpr Vec3 cross(const Vec3& a, const Vec3& b) {
    return {a.y_mm * b.z_mm - a.z_mm * b.y_mm, a.z_mm * b.x_mm - a.x_mm * b.z_mm, a.x_mm * b.y_mm - a.y_mm * b.x_mm};
}
inline double length(const Vec3& a) { return std::sqrt(dot(a, a)); }
inline double between(const Vec3& a, const Vec3& b) { return length(minus(a, b)); }
/// From a (share 0) to b (share 1).
constexpr Vec3 along(const Vec3& a, const Vec3& b, double share) { return plus(a, times(minus(b, a), share)); }
/// Of length 1; {0, 0, 0} for a vector of no length.
inline Vec3 unit(const Vec3& a) {
    const double l = length(a);
    return l > 0 ? times(a, 1 / l) : Vec3{};
}

} // namespace gorvet::geometry
