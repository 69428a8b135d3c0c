#pragma once

#include "analysis/results.hpp"
#include "sit/cut_map.hpp"

namespace gorvet::analysis {

/// A cut map, with what was asked for.
std::string cutMapJson(const sit::CutMap&, const std::vector<std::pair<std::string, std::string>>& said,
                       const std::vector<std::pair<std::string, double>>& figures);
/// The scans on each other: what fouls, pair by pair, and the way in, as far as these were made; and the cut map, if there is
/// one.
std::string overlayJson(const build::Build&, const Results&, const std::string& seating, const sit::CutMap*,
                        const std::string& kept);

} // namespace gorvet::analysis
