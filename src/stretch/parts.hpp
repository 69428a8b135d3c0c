#pragma once

#include "stretch/section.hpp"
#include "stretch/stretch.hpp"

#include <algorithm>

/// The parts of a plan, one file each, and what several of them need. Internal to this room.
namespace gorvet::stretch {

inline constexpr double gravity = 9.81; ///< m/s²: N of a kg
inline const char* sideWord(std::size_t k) { return k == 0 ? "left" : "right"; }

/// Remarks of a plan, worst first, and the verdict that comes of them; what is assumed holds nothing.
template <class P> void settle(P& plan, bool assumed) {
    std::stable_sort(plan.remarks.begin(), plan.remarks.end(),
                     [](const build::Remark& a, const build::Remark& b) { return a.verdict > b.verdict; });
    for (const build::Remark& r : plan.remarks) plan.verdict = std::max(plan.verdict, r.verdict);
    if (assumed) plan.verdict = std::max(plan.verdict, build::PlanVerdict::Marginal);
}

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
