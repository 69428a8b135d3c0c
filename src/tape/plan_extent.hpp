#pragma once

#include "tape/survey.hpp"

#include <algorithm>

namespace gorvet::tape {

/// How far the placed points reach in plan, mm. `any` is false when none is placed.
struct PlanExtent {
    double front = 0;
    double rear = 0;
    double left = 0;
    double right = 0;
    bool any = false;
};

inline PlanExtent planExtent(const std::vector<AdjustedPoint>& points) {
    PlanExtent e;
    for (const AdjustedPoint& p : points) {
        if (!p.placed) continue;
        const Vec3& at = p.position;
        e = e.any ? PlanExtent{std::min(e.front, at.x_mm), std::max(e.rear, at.x_mm), std::min(e.left, at.y_mm),
                               std::max(e.right, at.y_mm), true}
                  : PlanExtent{at.x_mm, at.x_mm, at.y_mm, at.y_mm, true};
    }
    return e;
}

} // namespace gorvet::tape
