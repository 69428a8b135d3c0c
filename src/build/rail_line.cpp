#include "build/rail_line.hpp"

#include <cmath>

namespace gorvet::build {

std::optional<RailLine::At> RailLine::at(double station_mm) const {
    if (points.size() < 2 || station_mm < points.front().x_mm || station_mm > points.back().x_mm) return std::nullopt;
    size_t i = 0;
    while (i + 2 < points.size() && points[i + 1].x_mm < station_mm) ++i;
    const Vec3& a = points[i];
    const Vec3& b = points[i + 1];
    const double dx = b.x_mm - a.x_mm;
    if (!(dx > 0)) return std::nullopt;
    const double t = (station_mm - a.x_mm) / dx;
    const double z = a.z_mm + t * (b.z_mm - a.z_mm);
    At at;
    at.y_mm = a.y_mm + t * (b.y_mm - a.y_mm);
    at.top_mm = datum_face == RailFace::Top ? z : z + height_mm;
    at.bottom_mm = at.top_mm - height_mm;
    at.slope_rad = std::atan2(a.z_mm - b.z_mm, dx);
    at.plan_angle_rad = std::atan2(b.y_mm - a.y_mm, dx);
    return at;
}

} // namespace gorvet::build
