#pragma once

#include "work/work.hpp"

/// The moves of body and frame as steps. Internal to this room.
namespace gorvet::work {

/// `number` counts moves of this kind from 1. `after`: what must be done before the body may be lifted.
Step bodyMove(bool off, int number, const Stance& to, const std::vector<std::string>& after);
Step frameTurn(int number, const Stance& to);

} // namespace gorvet::work
