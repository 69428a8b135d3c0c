#pragma once

#include "build/steel.hpp"
#include "build/structure.hpp"
#include "frame/structure.hpp"

/// Sections of rails and members, from what the build says of them. Internal to this room.
namespace gorvet::analysis {

/// Box and channel are bent: outside radius twice the wall unless it was read.
frame::Profile profileOf(const build::Member&);
/// The rails' own, with a wall of that thickness.
frame::Profile railProfile(const build::RailSection&, double wall_mm);
/// The rail's own section with a plate on it: a channel is closed, the outer side of a box gets thicker (but by no plate with
/// windows: nothing is counted on it).
frame::Profile platedProfile(const build::RailSection&, const build::Member& plate);

} // namespace gorvet::analysis
