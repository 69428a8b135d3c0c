#pragma once

#include "tape/survey.hpp"

/// Internal to this room.
namespace gorvet::tape {

/// Places the points that the readings leave open by what is assumed (`Survey::assumed`: symmetry of a pair, figures from a data
/// sheet), with what is fixed held where it is. In a separate adjustment: nothing measured is judged by it. engineering.md, Tape.
void placeByAssumption(const Survey&, Solution&);

} // namespace gorvet::tape
