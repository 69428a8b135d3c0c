#pragma once

#include "geometry/vec3.hpp"

#include <algorithm>
#include <limits>

/// The one box of the house, along the axes.
namespace gorvet::geometry {

/// From its least to its greatest corner, both within; empty as it comes.
struct Box3 {
    Vec3 min{std::numeric_limits<double>::infinity(), std::numeric_limits<double>::infinity(),
             std::numeric_limits<double>::infinity()};
    Vec3 max{-std::numeric_limits<double>::infinity(), -std::numeric_limits<double>::infinity(),
             -std::numeric_limits<double>::infinity()};
    bool operator==(const Box3&) const = default;

    bool empty() const { return min.x_mm > max.x_mm; }
    /// Grows until the point lies in it.
    void take(const Vec3& p) {
        for (std::size_t axis = 0; axis < 3; ++axis) {
            min[axis] = std::min(min[axis], p[axis]);
            max[axis] = std::max(max[axis], p[axis]);
        }
    }
    void take(const Box3& b) {
        take(b.min);
        take(b.max);
    }
    bool contains(const Vec3& p) const {
        for (std::size_t axis = 0; axis < 3; ++axis)
            if (p[axis] < min[axis] || p[axis] > max[axis]) return false;
        return true;
    }
    bool contains(const Box3& b) const { return contains(b.min) && contains(b.max); }
    bool meets(const Box3& b) const {
        for (std::size_t axis = 0; axis < 3; ++axis)
            if (b.max[axis] < min[axis] || b.min[axis] > max[axis]) return false;
        return true;
    }
    Vec3 middle() const { return along(min, max, 0.5); }
    Vec3 size() const { return minus(max, min); }
};

} // namespace gorvet::geometry
