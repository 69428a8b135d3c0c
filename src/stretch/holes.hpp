#pragma once

#include "build/hole.hpp"
#include "build/rail_line.hpp"
#include "build/remark.hpp"

#include <optional>
#include <string>
#include <utility>
#include <vector>

/// Holes that the maker left in the rails, and dents that start their folding in a crash, beside what is cut and welded:
/// engineering.md, Stretch. mm, MPa; stations of the rail as it is.
namespace gorvet::stretch {

struct HoleInput {
    build::RailHole hole;
    double height_mm = 0, width_mm = 0, wall_mm = 0; ///< the rail's own
    bool channel = false;
    std::optional<std::pair<double, double>> cut; ///< both cut lines, alike where nothing comes out; none: nothing is cut
    double sleeve_mm = 0;                         ///< that reaches so far to each side of the cut; 0: none
    std::vector<std::pair<double, double>> shut;  ///< stations that plates or ribs are welded on
    std::vector<double> welds;                    ///< other stations where something is welded on anew
    std::optional<double> stress_mpa;             ///< of the rail there, worst of the load cases; none: not worked out
    double may_mpa = 140;
    std::vector<std::string> assumed; ///< what nobody measured of rail, loads and hole
    bool operator==(const HoleInput&) const = default;
};
struct HolePlan {
    double net_share = 1;             ///< of the rail's section modulus, bent up and down, that is left beside it
    std::optional<double> stress_mpa; ///< beside it
    std::optional<double> weld_mm;    ///< from its edge to the nearest weld; < 0: the weld runs through it
    double weld_need_mm = 0;
    bool goes = false;    ///< it comes out with what is cut out
    bool covered = false; ///< by the sleeve from inside, or a plate
    std::vector<build::Remark> remarks;
    build::PlanVerdict verdict = build::PlanVerdict::Holds;
};
/// Never fails.
HolePlan holePlan(const HoleInput&);
/// Share of a rail's section modulus that a hole leaves: what of the wall it takes away, about the whole section's middle. A
/// drilled flange is counted as drilled where the bending is greatest. 0 where nothing is left.
double netShare(const build::RailHole&, double height_mm, double width_mm, double wall_mm, bool channel);

// ---- limits, mm; usual practice
inline constexpr double hole_weld = 25;             ///< from a hole's edge to a weld, and not less than its diameter
inline constexpr double hole_initiator_heights = 3; ///< from a dent that starts a fold to anything that stiffens the rail
inline constexpr double hole_net_least = 0.85;      ///< less is looked at with loads

} // namespace gorvet::stretch
