#pragma once

#include "build/rules.hpp"

#include <algorithm>

#include <fmt/format.h>

/// What the rules of rows ask of their points. Internal to this room.
namespace gorvet::build {

/// On the body or the chassis: what stands on axes of its own has no place in the car.
inline Checked inTheCar(const Build& b, const std::string& of, const std::vector<PointId>& points) {
    if (std::find(points.begin(), points.end(), PointId{}) != points.end()) return bad(of, "One of its points is none.");
    for (const PointId id : points)
        if (const SubjectId s = b.points.at(id).subject; s != the_chassis && s != the_body)
            return bad(of, fmt::format("{} is of the {}: it is marked on the body or the chassis.", nameOf(b, id), nameOf(b, s)));
    return {};
}
inline bool twice(std::vector<PointId> points) {
    std::sort(points.begin(), points.end());
    return std::adjacent_find(points.begin(), points.end()) != points.end();
}

} // namespace gorvet::build
