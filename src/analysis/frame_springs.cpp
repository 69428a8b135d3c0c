// Where springs bear on a frame, by the suspension marks near an axle.
#include "analysis/frame.hpp"

#include <cmath>

namespace gorvet::analysis {

using namespace build;

std::optional<Vec3> suspensionNear(const Build& b, const Results& r, Side side, double axle_mm) {
    constexpr double most_mm = 500;
    std::optional<Vec3> nearest;
    for (const auto& [id, p] : b.points) {
        if (p.subject != the_chassis || p.role != Role::Suspension || sideOf(p.name) != side) continue;
        const auto at = r.chassis.positionOf(id);
        if (!at || std::abs(at->x_mm - axle_mm) > most_mm) continue;
        if (!nearest || std::abs(at->x_mm - axle_mm) < std::abs(nearest->x_mm - axle_mm)) nearest = *at;
    }
    return nearest;
}

std::optional<std::pair<Vec3, Vec3>> springHangers(const Build& b, const Results& r, Side side, double axle_mm) {
    std::optional<Vec3> front, rear;
    constexpr double least_mm = 150, most_mm = 1000;
    for (const auto& [id, p] : b.points) {
        if (p.subject != the_chassis || p.role != Role::Suspension || sideOf(p.name) != side) continue;
        const auto at = r.chassis.positionOf(id);
        if (!at) continue;
        const double away = std::abs(at->x_mm - axle_mm);
        if (away < least_mm || away > most_mm) continue;
        auto& known = at->x_mm < axle_mm ? front : rear;
        if (!known || away < std::abs(known->x_mm - axle_mm)) known = *at;
    }
    if (!front || !rear) return {};
    return std::pair(*front, *rear);
}

bool frameBegun(const Build& b) { return !b.members.empty(); }

} // namespace gorvet::analysis
