#include "build/planned_chassis.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::build {

Vec3 PlannedChassis::shift() const { return {change_mm, 0, -change_mm * std::tan(slope_rad)}; }

Vec3 PlannedChassis::map(Vec3 p) const {
    if (!behind(p.x_mm)) return p;
    const double by = std::max(change_mm, *cut_station_mm - p.x_mm);
    p.x_mm += by;
    p.z_mm -= by * std::tan(slope_rad);
    return p;
}

RailLine PlannedChassis::map(const RailLine& rail) const {
    const auto at = changes() ? rail.at(*cut_station_mm) : std::nullopt;
    if (!at) return rail;
    RailLine result = rail;
    result.points.clear();
    const double last = *cut_station_mm + std::max(0.0, -change_mm);
    // points nearer than 1 mm to the joint say nothing of their own
    for (const Vec3& p : rail.points)
        if (p.x_mm < *cut_station_mm - 1) result.points.push_back(p);
    result.points.push_back({*cut_station_mm, at->y_mm, rail.datum_face == RailFace::Top ? at->top_mm : at->bottom_mm});
    for (const Vec3& p : rail.points)
        if (p.x_mm > last + 1) result.points.push_back(plus(p, shift()));
    return result;
}

geometry::Box3 PlannedChassis::map(const geometry::Box3& box) const {
    const Vec3 by = minus(map(box.middle()), box.middle());
    return {plus(box.min, by), plus(box.max, by)};
}

double PlannedChassis::stationNow(double planned_mm) const {
    if (!behind(planned_mm)) return planned_mm;
    return std::max(*cut_station_mm, planned_mm - change_mm);
}

} // namespace gorvet::build
