#pragma once

#include "tape/survey.hpp"

/// A survey that hangs together in several parts. Internal to this room.
namespace gorvet::tape {

/// With rules of a datum: the part that the rules stand on, and what no reading between two points joins to it. A point that has
/// only a station, an offset and a height says nothing of how the frame lies; taken together with it, it would displace the
/// datum. Nothing when it is all one part.
std::optional<std::vector<std::vector<int>>> partsOf(const Survey&);

/// Where the whole was not fixed by them: a point or two with a station or offset of their own, joined to the rest by readings
/// that don't fix the rest to them. The rest is then the part of the rules, and they attach to it. Nothing where that does not
/// help.
std::optional<std::vector<std::vector<int>>> attaching(const Survey&, const Solution& whole, const Options&);

/// Solves the parts apart and puts them together: the first on the rules; the others by their own readings, from the datum and to
/// points of the first, held where they stand.
Solution solveParts(const Survey&, const std::vector<std::vector<int>>& parts, const Options&);

} // namespace gorvet::tape
