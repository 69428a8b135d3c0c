#pragma once

#include "build/figure.hpp"
#include "build/rail_line.hpp"
#include "make/fasteners.hpp"

#include <optional>
#include <string>
#include <vector>

/// Make: body mounts. How high each one is and what it is stacked from.
namespace gorvet::make {

struct MountDesign {
    build::Figure washer_mm{3};
    build::Figure body_thickness_mm{3};
    build::Figure biscuit_free_mm{20};
    build::Figure biscuit_squash{0.15};
    double bolt_mm = 10;
    double standoff_step_mm = 5;
    bool through_rail = false;                           ///< bolt goes through the whole rail with a crush tube
    build::Provenance rail = build::Provenance::Derived; ///< of the rail's section, the worst
    bool closed_box = false;                             ///< the rail is a box: a nut inside it can't be reached
    std::vector<Filled> filled;                          ///< lengths of the rails that are not hollow: sleeves
    bool operator==(const MountDesign&) const = default;
};

struct MountInput {
    std::string name;
    build::Vec3 body_point;   ///< underside of the body, in the chassis frame
    double height_u95_mm = 0; ///< ± of its height over the rail
    build::Side side = build::Side::Left;
    std::optional<double> rail_station_mm; ///< none: straight below
    bool operator==(const MountInput&) const = default;
};

struct MountStack {
    std::string name;
    bool on_rail = false; ///< the rail reaches that station
    double station_mm = 0;
    build::Vec3 rail_top; ///< on the rail's centreline
    build::Figure gap_mm; ///< body underside over the rail's top face
    build::Figure washer_mm;
    build::Figure biscuit_mm; ///< compressed
    double standoff_mm = 0;
    std::vector<double> shims_mm; ///< thickest first
    double leftover_mm = 0;       ///< gap − stack, what no shim fills
    double outboard_mm = 0;       ///< sideways from the rail's centreline, > 0 outboard
    double lean_mm = 0;           ///< fore and aft from the body's hole to the rail's, > 0 rail hole behind
    std::optional<double> bolt_length_mm;
    double bolt_mm = 0;
    std::string nut;         ///< what the bolt goes into, for the cut list
    bool nut_inside = false; ///< it is fixed inside the closed rail beforehand
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
    std::string code; ///< of what is worst, "leans"; this and the next four empty when it holds
    std::string sentence;
    std::string remedy;
    std::string figure; ///< judged, with its unit
    std::string need;
};

/// Gap − washer − biscuit compressed is filled by a standoff (a multiple of the step) and shims of 3, 2, 1 and 0.5 mm.
/// Fails when washer and biscuit alone are higher than the gap, when the rail does not reach there, or when the bolt would
/// miss the rail; the need is given. engineering.md, Make.
MountStack mountStack(const MountInput&, const build::RailLine&, const MountDesign&);

} // namespace gorvet::make
