#pragma once

#include "make/service.hpp"

#include <optional>

/// How near planned things come to each other. Chassis frame, mm.
namespace gorvet::make {

struct Near {
    std::string one, other;
    double mm = 0;
    geometry::Vec3 from, to; ///< the two nearest places
};
/// The nearest two places of two meshes, where they are nearer than `cap_mm`; triangle by triangle, exact, nothing that stands
/// inside is told. None: farther.
std::optional<Near> nearestOf(const shape::Mesh&, const shape::Mesh&, double cap_mm);
/// Of a body the nearest other within the cap that it neither touches nor stands in (by what either may); none: no other is so
/// near.
std::optional<Near> nearestOther(const ServiceBody&, const std::vector<ServiceBody>& others, double cap_mm);
/// The same of all that is made here: closed, and not given.
std::vector<Near> nearsOf(const std::vector<ServiceBody>&);

inline constexpr double near_cap_mm = 60;

} // namespace gorvet::make
