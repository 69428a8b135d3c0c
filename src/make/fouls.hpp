#pragma once

#include "make/service.hpp"
#include "units/quantity.hpp"

#include <vector>

/// Planned things that stand in each other. Chassis frame, mm.
namespace gorvet::make {

struct Foul {
    std::string one, other;
    geometry::Vec3 at; ///< a place where they do
};
/// Pairs of closed bodies that stand in each other by more than the one of them may (`touch_mm`): what only lies on something, or
/// is sawn to it, does not. The one is made smaller all round by that (each face moved inwards) and its triangles are asked one
/// by one for those of the other; what lies wholly inside counts. Scans and pairs of tyres and shafts are left out.
std::vector<Foul> foulsOf(const std::vector<ServiceBody>&);
/// "The crossmember and the gearbox pan stand in each other at station 912.3."
std::string foulWords(const Foul&, units::LengthStep);

} // namespace gorvet::make
