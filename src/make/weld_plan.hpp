#pragma once

#include "build/remark.hpp"
#include "geometry/vec3.hpp"

#include <string>
#include <vector>

/// Every weld of the new steel: how it is welded, in what order, what it takes, what it pulls. mm, kg, minutes. Chassis frame.
namespace gorvet::make {

enum class WeldKind { Fillet, Butt };

/// A weld that the plan asks for.
struct WeldSeam {
    std::string part; ///< "outrigger o1", "crossmember"
    std::string what; ///< "all round on the rail"
    std::string tag;
    WeldKind kind = WeldKind::Fillet;
    double length_mm = 0;
    double leg_mm = 0; ///< of a fillet; of a butt the thickness that it fills
    double thickness_mm = 0;
    bool on_car = false;
    geometry::Vec3 at;
    bool operator==(const WeldSeam&) const = default;
};
struct WeldIn {
    std::vector<WeldSeam> seams;
    std::vector<std::string> not_in_it; ///< welds of the plan that are not here
    bool operator==(const WeldIn&) const = default;
};

/// One of them as it is welded.
struct WeldStep {
    std::size_t seam = 0; ///< in the input
    int number = 0;       ///< 1…, in order
    const char* process = "";
    const char* filler = "";
    int tacks = 0;
    double tack_mm = 0; ///< length of each
    double run_mm = 0;  ///< welded at a time, then another place
    int runs = 0;       ///< so many of them, one pass each
    int passes = 0;     ///< one over the other
    double wire_kg = 0; ///< filler
    double gas_l = 0;
    double arc_min = 0;  ///< the arc burns
    double work_min = 0; ///< with setting up, tacking, turning, cleaning
    double pull_mm = 0;  ///< across the seam, a guess: by so much it draws together
};
struct WeldPlan {
    std::vector<WeldStep> steps; ///< in order
    double length_mm = 0, wire_kg = 0, gas_l = 0, arc_min = 0, work_min = 0;
    std::vector<build::Remark> remarks;
};
/// On the bench first, part by part; on the car then, each seam as far as can be from the two before it and on the other side
/// where one is left, so that no place gets hot. Tacks: at two places at least, twenty-five thicknesses apart (50 to 150). Runs
/// of twenty thicknesses (40 to 100) skip along the seam. What it draws together: a fillet 1.02 leg/thickness, a butt 0.2
/// area/thickness + 0.05 gap (Spraragen and Ettinger). Wire, gas and hours by usual rates (see `weld_rates`), which nobody
/// measured here. Never fails.
WeldPlan weldPlan(const WeldIn&);

/// The rates by which hours, wire and gas are reckoned, in words: assumed.
extern const char* const weld_rates;
/// Of two orders of places how near what follows each other comes: the least and the mean distance of a seam from the one before,
/// of those on the car.
struct Heat {
    double least_mm = 0;
    double mean_mm = 0;
    int same_side = 0; ///< followed by one on the same side
};
Heat heatOf(const WeldIn&, const std::vector<std::size_t>& order);

} // namespace gorvet::make
