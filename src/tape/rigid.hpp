#pragma once

#include "tape/network.hpp"

#include <Eigen/Core>

/// Shifts and turns of the survey as a whole. Internal to this room.
namespace gorvet::tape {

/// The six rigid motions of all points about their middle (fore and aft, sideways, up, roll, pitch, yaw), as columns over all
/// coordinates, then the unknowns of set-ups (three each) that move with them; turns scaled to mm at the edge.
struct RigidMotions {
    Eigen::MatrixXd by_coordinate; ///< 3·points × 6
    Eigen::MatrixXd by_setup;      ///< 3·set-ups × 6
    Eigen::Vector3d centre;
    double extent_mm = 1; ///< a turn of one unit is 1/extent rad
};
RigidMotions rigidMotions(const Network&);

/// Rigid motions that neither holds nor readings resist: basis in the six motions, one column each. Returns the motion that
/// names each (turns first), in order.
std::vector<int> openMotions(const Network&, const Rows& rows, Eigen::MatrixXd& basis);

/// Coordinates to hold so that the survey no longer floats: as many as there are open motions (`basis`), each where it resists
/// most.
std::vector<HeldCoordinate> leastHolds(const Network&, const Eigen::MatrixXd& basis);

} // namespace gorvet::tape
