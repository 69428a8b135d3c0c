#pragma once

#include "sit/measures.hpp"

/// How well it is known what the pins come to. Internal to this room.
namespace gorvet::sit {

/// ± at 95 % of the figures at one pose.
struct Outcome {
    std::vector<double> achieved;           ///< of each pin
    std::vector<std::vector<double>> parts; ///< of each of its parts
};

/// The pose is built, not fitted again: it no longer follows the surveys, the points that make a figure do. Variance J C Jᵀ of
/// the figures by the coordinates of both surveys with the pose held (engineering.md, Scan and Sit); two parts that are one
/// distance from a line are taken together. 0 where a survey gives no covariance. What the workshop misses the pose by is not in
/// it.
Outcome outcomeOf(const Scene&, const Parameters&);

} // namespace gorvet::sit
