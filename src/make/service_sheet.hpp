#pragma once

#include "make/fouls.hpp"
#include "sheet/drawing.hpp"
#include "units/quantity.hpp"

/// Fasteners as drawings: what room each has at both its ends, and in which directions a spanner can stand.
namespace gorvet::make {

/// Bolts that are alike and stand alike, as one: those of one group with the same findings. The one with the least room stands
/// for all.
struct FastenerGroup {
    const FastenerRow* row = nullptr;
    std::vector<std::string> names;
};
std::vector<FastenerGroup> groupsOf(const ServicePlan&);

/// What stands in each other, the order in which what is bolted on comes off, then each group of fasteners, the worst first;
/// `first` to `until` of these.
sheet::Drawing serviceSheet(const ServicePlan&, const std::vector<Foul>&, units::LengthStep, double width, double height,
                            const sheet::Format&, std::size_t first = 0, std::size_t until = static_cast<std::size_t>(-1));

} // namespace gorvet::make
