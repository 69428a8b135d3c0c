#include "analysis/planned_width.hpp"

#include <cmath>

namespace gorvet::analysis {

using namespace build;

std::optional<double> armsNearer(const Build& b, const SurveyOf& chassis, AxleEnd end, const PlannedChassis& width) {
    const bool rear = end == AxleEnd::Rear;
    const auto& f = chassis.frame;
    const int hub = rear ? f.rear_hub_left : f.front_hub_left;
    if (hub < 0 || !chassis.solution->points[static_cast<std::size_t>(hub)].determined) return {};
    const double station = chassis.solution->points[static_cast<std::size_t>(hub)].position.x_mm;
    double nearest = 600;
    std::optional<double> by;
    for (const auto& [id, p] : b.points) {
        if (p.subject != the_chassis || p.role != Role::Suspension || sideOf(p.name) != Side::Left) continue;
        const Point* twin = pointNamed(b, the_chassis, twinName(p.name));
        const auto left = chassis.positionOf(id), right = twin ? chassis.positionOf(twin->id) : std::nullopt;
        if (!left || !right || std::abs(left->x_mm - station) >= nearest) continue;
        nearest = std::abs(left->x_mm - station);
        by = (right->y_mm - left->y_mm) - (width.aside(right->y_mm) - width.aside(left->y_mm));
    }
    return by;
}

PlannedChassis widthPlanned(const Build& b, const SurveyOf& chassis) {
    PlannedChassis p = plannedWidth(b);
    if (!b.narrowing) return p;
    for (const AxleEnd end : {AxleEnd::Front, AxleEnd::Rear}) {
        const bool rear = end == AxleEnd::Rear;
        if (axleJobOf(b, end) || (rear ? b.frame_facts.rear_springs : b.frame_facts.front_springs) == Springs::Leaf) continue;
        if (const auto by = armsNearer(b, chassis, end, p)) (rear ? p.rear_track_mm : p.front_track_mm) = *by;
    }
    return p;
}

} // namespace gorvet::analysis
