#pragma once

#include "build/wheels.hpp"

#include <vector>

/// A plate between a hub and a wheel of another stud circle. mm, rad.
namespace gorvet::drive {

struct AdaptorIn {
    build::Adaptor plate;
    int hub_studs = 0;
    double hub_circle_mm = 0;
    int wheel_studs = 0;
    double wheel_circle_mm = 0;
    double spigot_mm = 0; ///< hole in its middle; 0: not said
};
struct PlateHole {
    double x_mm = 0;
    double y_mm = 0;
    double across_mm = 0;
    bool hub = false; ///< for a stud of the hub; else for one of the wheel
};
struct AdaptorPlan {
    double turned_rad = 0; ///< the wheel's first stud against the hub's, where the holes stand farthest apart
    std::vector<PlateHole> holes;
    double web_mm = 0;    ///< least steel between two holes; < 0: they run into each other
    double edge_mm = 0;   ///< least steel to the plate's edge
    double middle_mm = 0; ///< least steel to the hole in the middle; 0: none is said
};
AdaptorPlan adaptorPlan(const AdaptorIn&);

} // namespace gorvet::drive
