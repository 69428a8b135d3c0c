#pragma once

#include "build/places.hpp"

#include <vector>

/// How near two lines through marked places come. Internal to this room.
namespace gorvet::drive {

struct Apart {
    build::Figure clear_mm; ///< between their surfaces
    geometry::Vec3 at;      ///< on the one's middle
    geometry::Vec3 other_at;
};
/// `thick_mm`: half of both diameters. A single place is a line, too.
Apart apartOf(const build::Places&, const std::vector<std::size_t>& line, const std::vector<std::size_t>& other, double thick_mm);
/// Each once, in order.
std::vector<std::size_t> distinct(std::vector<std::size_t>);

} // namespace gorvet::drive
