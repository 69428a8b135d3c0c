#pragma once

#include "drive/linkage.hpp"

/// A leaf spring as two arcs of one curvature. Internal to this room.
namespace gorvet::drive {

/// Where an eye stands from the seat, on what the leaf is clamped to, and how it goes with the curvature (mm per 1/mm).
struct LeafEnd {
    Vec3 from_seat;
    Vec3 by_curvature;
};

/// The circle through both eyes and the seat at rest. Arc lengths and the seat's tangent stay; the curvature changes.
struct LeafArc {
    double curvature = 0; ///< at rest, 1/mm, > 0 with the eyes above the seat
    double front_mm = 0;  ///< along the leaf
    double rear_mm = 0;
    double tangent_rad = 0;  ///< of the seat at rest: up towards the front
    double front_out_mm = 0; ///< the front eye to the right of the seat, at rest
    double rear_out_mm = 0;
    LeafEnd end(bool front, double more_curvature) const;
};
LeafArc arcOf(const Leaf&);

} // namespace gorvet::drive
