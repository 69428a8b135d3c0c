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

void Camera::showAll(const Point3& least, const Point3& most, double width_px, double height_px) {
    at = geometry::along(least, most, 0.5);
    double wide = 1, tall = 1;
    for (int corner = 0; corner < 8; ++corner) {
        const Point3 d =
            minus({corner & 1 ? most[0] : least[0], corner & 2 ? most[1] : least[1], corner & 4 ? most[2] : least[2]}, at);
        wide = std::max(wide, 2 * std::abs(dot(d, right())));
        tall = std::max(tall, 2 * std::abs(dot(d, up())));
    }
    px_per_mm = std::clamp(0.92 * std::min(width_px / wide, height_px / tall), 0.01, 40.0);
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
