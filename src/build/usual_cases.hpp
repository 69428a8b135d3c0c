#pragma once

#include "build/build.hpp"

#include <vector>

namespace gorvet::build {

/// The load cases that are asked for unless they are left out or said otherwise (engineering.md, Stretch). Of "lifted" the wheel
/// is one of the end that is lighter, where none is said.
std::vector<LoadCase> usualCases();

} // namespace gorvet::build
