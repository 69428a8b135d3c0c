#include "build/planned_chassis.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::build {

Vec3 PlannedChassis::shift() const { return {change_mm, 0, -change_mm * std::tan(slope_rad)}; }

double PlannedChassis::aside(double y) const {
    const double in = std::min(narrower_mm / 2, std::max(0.0, std::abs(y) - slit_mm));
    return y < 0 ? y + in : y - in;
}

Vec3 PlannedChassis::mapHub(const Vec3& hub, bool rear) const {
    Vec3 p = hub;
    if (rear && cuts() && behind(hub.x_mm)) p = plus(p, shift());
    const double in = (rear ? rear_track_mm : front_track_mm) / 2;
    p.y_mm += p.y_mm < 0 ? in : -in;
    return p;
}

Vec3 PlannedChassis::map(Vec3 p) const {
    p.y_mm = aside(p.y_mm);
    if (!behind(p.x_mm)) return p;
    const double by = std::max(change_mm, *cut_station_mm - p.x_mm);
    p.x_mm += by;
    p.z_mm -= by * std::tan(slope_rad);
    return p;
}

RailLine PlannedChassis::map(const RailLine& rail) const {
    RailLine result = rail;
    const auto at = cuts() ? rail.at(*cut_station_mm) : std::nullopt;
    if (!at) {
        for (Vec3& p : result.points) p.y_mm = aside(p.y_mm);
        return result;
    }
    result.points.clear();
    const double last = *cut_station_mm + std::max(0.0, -change_mm);
    // points nearer than 1 mm to the joint say nothing of their own
    for (const Vec3& p : rail.points)
        if (p.x_mm < *cut_station_mm - 1) result.points.push_back(p);
    result.points.push_back({*cut_station_mm, at->y_mm, rail.datum_face == RailFace::Top ? at->top_mm : at->bottom_mm});
    for (const Vec3& p : rail.points)
        if (p.x_mm > last + 1) result.points.push_back(plus(p, shift()));
    for (Vec3& p : result.points) p.y_mm = aside(p.y_mm);
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

PlannedChassis plannedWidth(const Build& b) {
    PlannedChassis p;
    if (b.narrowing) {
        p.narrower_mm = b.narrowing->by.value;
        p.slit_mm = b.narrowing->slit.value;
    }
    for (const AxleEnd end : {AxleEnd::Front, AxleEnd::Rear}) {
        double& track = end == AxleEnd::Rear ? p.rear_track_mm : p.front_track_mm;
        const Springs springs = end == AxleEnd::Rear ? b.frame_facts.rear_springs : b.frame_facts.front_springs;
        if (const AxleJob* job = axleJobOf(b, end))
            track = job->faces_wanted ? job->faces.value - job->faces_wanted->value : 0;
        else if (springs != Springs::Leaf)
            track = p.narrower_mm;
    }
    return p;
}

} // namespace gorvet::build
