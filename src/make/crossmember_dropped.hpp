#pragma once

#include "make/crossmember.hpp"

namespace gorvet::make {

/// Lays a dropped middle and its legs into a plan whose rails, pad and pan are known; moves the box's top and bottom to the
/// middle's. Leaves `dropped` empty, and says in `waiting_for` why, when there is no room. Internal to this room.
void dropMiddle(CrossmemberPlan&, const CrossmemberInput&);

} // namespace gorvet::make
