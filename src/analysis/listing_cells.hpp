#pragma once

#include "analysis/listing.hpp"

#include <limits>

/// Cells of lists. Internal to this room.
namespace gorvet::analysis {

inline ListCell words(std::string text) { return {std::move(text), std::numeric_limits<double>::quiet_NaN()}; }
inline ListCell number(std::string text, double value, sheet::Mark mark = sheet::Mark::None) {
    return {std::move(text), value, true, mark};
}

} // namespace gorvet::analysis
