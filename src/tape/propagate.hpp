#pragma once

#include "tape/survey.hpp"

/// Internal to this room.
namespace gorvet::tape {

using Positions = std::vector<Vec3>;
Positions positionsOf(const Solution&);

/// A figure's value, its σ by the law of propagation (Ghilani ch. 6), and its gradient by central differences over the points
/// that carry it: by coordinate 3·point + axis, all of them.
struct Propagated {
    double value = 0;
    double sd = 0;
    std::vector<double> gradient;
};
Propagated propagate(const Solution&, Positions, const std::vector<int>& points,
                     const std::function<double(const Positions&)>& figure);

} // namespace gorvet::tape
