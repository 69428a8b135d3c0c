#pragma once

#include "desk/shell/desk.hpp"

/// What Scan lets one watch in space.
namespace gorvet::desk {

void watchWay(Desk&);
void watchTravel(Desk&);
void watchChange(Desk&);
/// Asks which.
void watchSomething(Desk&);

} // namespace gorvet::desk
