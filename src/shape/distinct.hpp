#pragma once

#include "shape/transform.hpp"

#include <cstdint>
#include <vector>

namespace gorvet::shape {

/// Of each point the lowest number of a point that lies exactly on it (0 and −0 are one).
std::vector<std::uint32_t> firstOfEach(const std::vector<Point3>&);

} // namespace gorvet::shape
