#pragma once

#include "frame/section.hpp"
#include "sheet/page.hpp"

#include <string>
#include <vector>

/// Plates that close an open rail, and ribs across it, flat, as they are cut.
namespace gorvet::frame {

struct ClosingPlate {
    std::string name;
    int count = 1;
    double length_mm = 0; ///< along the rail, points and all
    double height_mm = 0;
    double thickness_mm = 0;
    double point_mm = 0;          ///< each end runs out to a point so long: the weld ends where little is borne
    double hole_mm = 0;           ///< water runs out, wax goes in
    std::vector<double> holes_mm; ///< from the front point, on a line `hole_up_mm` over the lower edge
    double hole_up_mm = 0;
    Windows windows;                ///< 0 long: none
    std::vector<double> windows_mm; ///< their middles, from the front point
    double corner_mm = 0;           ///< cut off each corner: of a rib, for water and the rail's bend
};
/// For a length of an open rail: set in by the weld's leg from both faces, holes at its ends and every half metre at the most.
/// Windows stand in the middle of its height, as many as leave its ends whole.
ClosingPlate closingPlate(std::string name, double length_mm, double rail_height_mm, double thickness_mm, int count,
                          const Windows& = {});
/// A flat rib from web to tips of an open rail, outside sizes.
ClosingPlate ribPlate(std::string name, double rail_height_mm, double rail_width_mm, double rail_wall_mm, double thickness_mm,
                      int count);
/// At 1:1, lower left corner at the drawing's lower left: outline and holes alone.
sheet::Drawing platePattern(const ClosingPlate&);
/// All of them with their figures, to scale.
sheet::Drawing platesSheet(const std::vector<ClosingPlate>&, double width, double height, const sheet::Format&);

} // namespace gorvet::frame
