#pragma once

#include "build/places.hpp"
#include "build/remark.hpp"
#include "sheet/drawing.hpp"

#include <optional>
#include <string>
#include <vector>

/// The plate that a steering box or rack is bolted to, from the marked holes of its foot. mm.
namespace gorvet::drive {

struct GearPlateIn {
    std::string name;
    build::Places places;           ///< of the holes, as planned
    std::vector<std::size_t> holes; ///< three at least, in the places
    double bolt_mm = 10;            ///< thread
    bool bolt_known = false;
    std::optional<double> thick_mm;
    bool closed_rail = false; ///< the bolts go through a closed rail
    std::vector<std::string> assumed;
    std::vector<std::string> missing;
    bool operator==(const GearPlateIn&) const = default;
};
/// In the plate's own plane: its first hole is the origin, its second lies along a.
struct GearPlateHole {
    std::string name;
    double a_mm = 0;
    double b_mm = 0;
    double off_mm = 0; ///< out of the plane of all
};
struct GearPlatePlan {
    std::string name;
    std::vector<GearPlateHole> holes;
    double hole_mm = 0; ///< drilled
    double edge_mm = 0; ///< from a hole's middle to the edge: twice the bolt
    double thick_mm = 0;
    std::vector<std::pair<double, double>> outline; ///< anticlockwise, its corners round the holes
    double area_mm2 = 0;
    double mass_kg = 0;      ///< of steel
    build::Figure flat_mm;   ///< how far the holes stand out of one plane, the most
    build::Figure across_mm; ///< between the two holes that are farthest apart
    std::vector<build::Remark> remarks;
    build::PlanVerdict verdict = build::PlanVerdict::Holds;
};
GearPlatePlan gearPlatePlan(const GearPlateIn&);

/// Its outline and holes as they are cut, 1 : 1.
sheet::Drawing gearPlateDrawing(const GearPlatePlan&);

inline constexpr double plate_flat_mm = 1, least_plate_mm = 5;

} // namespace gorvet::drive
