#include "desk/view3d/camera.hpp"

#include <algorithm>
#include <numbers>

namespace gorvet::desk {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;

namespace {
constexpr double right_angle = std::numbers::pi / 2;
}

Point3 Camera::towards() const {
    return {std::cos(rise_rad) * std::sin(azimuth_rad), -std::cos(rise_rad) * std::cos(azimuth_rad), std::sin(rise_rad)};
}
Point3 Camera::right() const { return {std::cos(azimuth_rad), std::sin(azimuth_rad), 0}; }
Point3 Camera::up() const { return cross(towards(), right()); }

Point3 Camera::onScreen(const Point3& p) const {
    const Point3 d = minus(p, at);
    return {dot(d, right()) * px_per_mm, -dot(d, up()) * px_per_mm, dot(d, towards())};
}

void Camera::ray(double x_px, double y_px, Point3& from, Point3& way) const {
    const Point3 in_plane = plus(at, plus(times(right(), x_px / px_per_mm), times(up(), -y_px / px_per_mm)));
    from = plus(in_plane, times(towards(), 20000));
    way = times(towards(), -1);
}

void Camera::orbit(double dx_px, double dy_px) {
    azimuth_rad = std::remainder(azimuth_rad - dx_px * 0.007, 2 * std::numbers::pi);
    rise_rad = std::clamp(rise_rad + dy_px * 0.007, -right_angle, right_angle);
}

Point3 Camera::dragged(double dx_px, double dy_px) const {
    return plus(times(right(), dx_px / px_per_mm), times(up(), -dy_px / px_per_mm));
}

void Camera::pan(double dx_px, double dy_px) { at = minus(at, dragged(dx_px, dy_px)); }

void Camera::zoom(double factor, double x_px, double y_px) {
    const double next = std::clamp(px_per_mm * factor, 0.01, 40.0);
    const Point3 before = dragged(x_px, y_px);
    px_per_mm = next;
    at = plus(at, minus(before, dragged(x_px, y_px)));
}

void Camera::showAll(const std::vector<Point3>& places, double width_px, double height_px) {
    if (places.empty()) return;
    const Point3 x = right(), y = up(), z = towards();
    double least[3] = {1e300, 1e300, 1e300}, most[3] = {-1e300, -1e300, -1e300};
    for (const Point3& p : places) {
        const double own[3] = {dot(p, x), dot(p, y), dot(p, z)};
        for (int i = 0; i < 3; ++i) {
            least[i] = std::min(least[i], own[i]);
            most[i] = std::max(most[i], own[i]);
        }
    }
    at = plus(plus(times(x, (least[0] + most[0]) / 2), times(y, (least[1] + most[1]) / 2)), times(z, (least[2] + most[2]) / 2));
    const double wide = std::max(1.0, most[0] - least[0]), tall = std::max(1.0, most[1] - least[1]);
    px_per_mm = std::clamp(0.94 * std::min(width_px / wide, height_px / tall), 0.01, 40.0);
}

void lookFrom(Camera& c, ViewFrom v) {
    switch (v) {
    case ViewFrom::Left: c.azimuth_rad = c.rise_rad = 0; break;
    case ViewFrom::Above: c.azimuth_rad = 0, c.rise_rad = right_angle; break;
    case ViewFrom::Behind: c.azimuth_rad = right_angle, c.rise_rad = 0; break;
    case ViewFrom::Underneath: c.azimuth_rad = 0, c.rise_rad = -right_angle; break;
    case ViewFrom::Corner: c.azimuth_rad = -0.55, c.rise_rad = 0.42; break;
    }
}

} // namespace gorvet::desk
