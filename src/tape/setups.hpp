#pragma once

#include "tape/undetermined.hpp"

/// What readings of one set-up share and nobody measured: which of it the readings tell. Internal to this room.
namespace gorvet::tape {

/// What is stated of a set-up that no reading tells, 1σ about zero: how far a floor or a laser line is out of level and a string
/// out of straight ahead, mm/m; how far their place is off, mm; what a tape reads too long, mm. Workshop practice, an assumption.
inline constexpr double plane_tilt_sd = 5;
inline constexpr double plane_place_sd_mm = 100;
inline constexpr double string_swing_sd = 2;
inline constexpr double string_place_sd_mm = 20;
inline constexpr double tape_long_sd_mm = 2;

/// Decides which unknowns of set-ups the readings tell. One that only says how the whole survey lies is the datum, and zero: a
/// floor taken as level. Any other stays unknown with its prior (between two planes of which one carries the datum, √2 of it), so
/// that it stands in every ± it reaches. Decided with all slopes at zero: far from it a slope and the frame's own lean differ by
/// their squares, and what is no more than that would pass for knowledge.
void tellSetUps(Network&);

} // namespace gorvet::tape
