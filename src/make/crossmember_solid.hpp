#pragma once

#include "make/crossmember.hpp"
#include "make/part.hpp"

namespace gorvet::make {

/// Every piece of the crossmember where it sits, in the chassis frame: bridge or middle and legs, riser, flanges, pad. None when
/// the plan is not possible yet.
PartPlan crossmemberPieces(const CrossmemberInput&, const CrossmemberPlan&);
/// They as solids. Box corners: 2 t outside, t inside. Fails with NotFound when the plan is not possible yet, or as the
/// modelling does.
Result<std::vector<shape::NamedSolid>> crossmemberSolids(const CrossmemberInput&, const CrossmemberPlan&);

} // namespace gorvet::make
