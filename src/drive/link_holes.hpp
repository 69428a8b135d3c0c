#pragma once

#include "build/springs.hpp"
#include "drive/travel.hpp"

/// A row of holes for the end of a rod: what each of them does. mm, rad.
namespace gorvet::drive {

struct LinkHolesIn {
    std::string name; ///< of the link, and of its twin
    build::LinkHoles row;
    TravelIn travel;                ///< of what the link carries, as it is bolted now
    std::vector<std::size_t> links; ///< the rod, and its twin on the other side: both are moved together
    bool operator==(const LinkHolesIn&) const = default;
};
/// One hole, everything bolted up in it and its length kept.
struct HoleDoes {
    std::string name;               ///< "2 above", "as it is"
    int step = 0;                   ///< holes up from the one that is used
    bool closes = false;            ///< the links can be bolted up so
    double slope_rad = 0;           ///< the pinion then stands so much more down at the back, at rest; of a wheel: toe in
    double ahead_mm = 0;            ///< the wheels' middle moves so much forwards
    std::optional<TravelPlan> plan; ///< through the travel from there
};
struct LinkHolesPlan {
    std::string name;
    std::vector<HoleDoes> holes; ///< from the lowest to the highest
    double edge_mm = 0;          ///< of the bracket: from a hole's middle to its edge
    double high_mm = 0;          ///< of the bracket
    std::vector<build::Remark> remarks;
    PlanVerdict verdict = PlanVerdict::Holds;
};
LinkHolesPlan linkHolesPlan(const LinkHolesIn&);

} // namespace gorvet::drive
