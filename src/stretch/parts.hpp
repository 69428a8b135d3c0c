#pragma once

#include "stretch/section.hpp"
#include "stretch/stretch.hpp"

/// The parts of a plan, one file each, and what several of them need. Internal to this room.
namespace gorvet::stretch {

inline constexpr double gravity = 9.81; ///< m/s²: N of a kg
inline const char* sideWord(std::size_t k) { return k == 0 ? "left" : "right"; }

/// The least clear sleeve for a rail; none where nothing is left inside.
std::optional<Sleeve> sleeveFor(const build::RailLine&, const Input&, double joint_mm);
/// Strength and plug welds of the joint, for the plan's sleeve. Adds remarks.
void joinStrength(Plan&, const Input&);
/// Adds the plan of the spine and its remarks to a plan that is `Planned`. The spine is both rails of the input.
void planSpine(Plan&, const Input&);
/// What crosses, and what to do about it. Adds a remark for what nothing is said of.
void answerCrossings(Plan&, const Input&);
/// What is marked, and the two axle lines.
std::vector<Obstacle> withAxles(const Input&);
/// By how much the rear end of a rail stands beside its front end once the piece is out or in, > 0 to the right: a rail that runs
/// aside in plan. `last`: the rear cut line. 0 where the rail is not known.
double sidewaysOf(const build::RailLine&, double station_mm, double change_mm, double last_mm);
/// Scores stations every 10 mm between the axles.
void findStations(Plan&, const Input&);

} // namespace gorvet::stretch
