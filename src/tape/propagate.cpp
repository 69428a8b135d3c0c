#include "tape/propagate.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::tape {
namespace {
double& axisOf(Vec3& v, int axis) { return axis == 0 ? v.x_mm : axis == 1 ? v.y_mm : v.z_mm; }
} // namespace

Positions positionsOf(const Solution& s) {
    Positions positions;
    positions.reserve(s.points.size());
    for (const AdjustedPoint& point : s.points) positions.push_back(point.position);
    return positions;
}

Propagated propagate(const Solution& s, Positions positions, const std::vector<int>& points,
                     const std::function<double(const Positions&)>& figure) {
    Propagated result;
    result.gradient.assign(3 * s.points.size(), 0.0);
    result.value = figure(positions);
    constexpr double step_mm = 0.01;
    std::vector<size_t> coordinates;
    for (const int p : points)
        for (int axis = 0; axis < 3; ++axis) {
            double& c = axisOf(positions[p], axis);
            const double keep = c;
            c = keep + step_mm;
            const double up = figure(positions);
            c = keep - step_mm;
            const double down = figure(positions);
            c = keep;
            coordinates.push_back(3 * static_cast<size_t>(p) + axis);
            result.gradient[coordinates.back()] = (up - down) / (2 * step_mm);
        }
    result.sd = std::sqrt(std::max(0.0, s.covariance.quadratic(coordinates, result.gradient)));
    return result;
}

} // namespace gorvet::tape
