#pragma once

#include "make/crossmember.hpp"
#include "shape/solid.hpp"

namespace gorvet::make {

/// Every piece of the crossmember as a solid, where it sits, in the chassis frame: bridge or middle and legs, flanges, pad,
/// riser. Box corners: 2 t outside, t inside. Fails with NotFound when the plan is not possible yet, or as the modelling does.
Result<std::vector<shape::NamedSolid>> crossmemberSolids(const CrossmemberInput&, const CrossmemberPlan&);

} // namespace gorvet::make
