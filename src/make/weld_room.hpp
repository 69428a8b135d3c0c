#pragma once

#include "make/put_on.hpp"

/// Whether a torch gets to what is welded, in the order in which the new steel is put on. Chassis frame, mm.
namespace gorvet::make {

/// Of one thing that is welded on.
struct WeldRoom {
    std::string name, tag;
    double seam_mm = 0;  ///< of edges on what is there before that its own shape leaves open
    double shut_mm = 0;  ///< of those that no torch reaches past what was put on before
    std::string shut_by; ///< what is most in the way
    geometry::Vec3 at;   ///< a place that is shut; meaningless when none is
};
/// Of every item whose `how` is "welded on": along its edges that lie on the frame or on what was put on before, every
/// `weld_step_mm` a place. From it a torch stands in one of `weld_ways` directions spread over the sphere that lead away from
/// both: free where its nozzle and the hand behind it touch nothing. What the item and what it lies on shut by themselves (the
/// inside of a tube, an acute side) is no seam; what is shut past others is.
std::vector<WeldRoom> weldRooms(const PutOnIn&);

/// A nozzle from where the wire comes out to the hand, and the hand: usual sizes, not measured.
inline constexpr double weld_step_mm = 12, weld_on_mm = 1.5, nozzle_from_mm = 15, nozzle_mm = 110, nozzle_radius_mm = 8,
                        hand_until_mm = 200, hand_radius_mm = 30;
inline constexpr int weld_ways = 400;

} // namespace gorvet::make
