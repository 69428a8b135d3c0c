#include "stretch/graft.hpp"

#include "geometry/vec3.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::stretch {

TransitionPlate flatPlate(std::string name, const std::array<build::Vec3, 4>& v) {
    TransitionPlate plate;
    plate.name = std::move(name);
    using geometry::between;
    const double diagonal = between(v[0], v[2]);
    const auto third = [&](double from_first, double from_third, double sign) {
        const double along = (from_first * from_first - from_third * from_third + diagonal * diagonal) / (2 * diagonal);
        return std::pair{along, sign * std::sqrt(std::max(0.0, from_first * from_first - along * along))};
    };
    plate.corners = {std::pair{0.0, 0.0}, third(between(v[0], v[1]), between(v[1], v[2]), 1), std::pair{diagonal, 0.0},
                     third(between(v[0], v[3]), between(v[3], v[2]), -1)};
    const build::Vec3 d = geometry::minus(v[2], v[0]), n1 = geometry::cross(geometry::minus(v[1], v[0]), d),
                      n2 = geometry::cross(d, geometry::minus(v[3], v[0]));
    const double cosine = geometry::dot(n1, n2) / std::sqrt(geometry::dot(n1, n1) * geometry::dot(n2, n2));
    plate.fold_deg = std::acos(std::clamp(cosine, -1.0, 1.0)) * 180 / std::numbers::pi;
    // its first edge level
    const double turn = std::atan2(plate.corners[1].second, plate.corners[1].first);
    for (auto& [x, y] : plate.corners) {
        const double u = x * std::cos(turn) + y * std::sin(turn), w = -x * std::sin(turn) + y * std::cos(turn);
        x = u;
        y = w;
    }
    return plate;
}

} // namespace gorvet::stretch
