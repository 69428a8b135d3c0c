#pragma once

#include "stretch/stretch.hpp"

/// The parts of a plan, one file each. Internal to this room.
namespace gorvet::stretch {

/// Second moment of area about the level axis of a box (two webs) or channel (one), mm⁴; sharp corners.
double secondMoment(double height_mm, double width_mm, double wall_mm, bool channel);
/// S = I / (h/2), mm³.
double sectionModulus(double height_mm, double width_mm, double wall_mm, bool channel);

/// The least clear sleeve for a rail; none where nothing is left inside.
std::optional<Sleeve> sleeveFor(const build::RailLine&, const Input&, double joint_mm);
/// Strength and plug welds of the joint, for the plan's sleeve. Adds remarks.
void joinStrength(Plan&, const Input&);
/// What crosses, and what to do about it. Adds a remark for what nothing is said of.
void answerCrossings(Plan&, const Input&);
/// Scores stations every 10 mm between the axles.
void findStations(Plan&, const Input&);

} // namespace gorvet::stretch
