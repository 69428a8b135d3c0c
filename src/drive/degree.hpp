#pragma once

#include <numbers>

namespace gorvet::drive {

inline constexpr double one_degree = std::numbers::pi / 180; ///< rad

} // namespace gorvet::drive
