#pragma once

#include "analysis/overlay.hpp"

/// What of the scans fouls in each seating, beside each other.
namespace gorvet::analysis {

/// One column of SeatingsCompared, in its order.
struct SeatingClearance {
    bool known = false;   ///< it seats the body
    double spare_mm = 0;  ///< the worst pair has so much more than it needs; < 0: so much less
    bool far = false;     ///< nothing is nearer than was looked for: spare at least
    bool assumed = false; ///< what the worst pair needs is usual practice, or its travel
    size_t fouls = 0;     ///< places
    sheet::Severity severity = sheet::Severity::Good;
    std::string words; ///< the worst pair, where and in which pose
};
/// The seating of now is taken from `now` and `found`; every other is seated, and looked at pair by pair as clearanceOf does: a
/// second or two each, a few more where it lowers the body or changes the wheelbase. Nothing when stopped.
std::optional<std::vector<SeatingClearance>> clearancesOfSeatings(const build::Build&, const Results&, const Overlay& now,
                                                                  const OverlayClearance& found, const ScanMeshes&,
                                                                  int threads = 0, const std::function<bool()>& stop = {});
/// What they depend on, as text.
std::string seatingsKey(const build::Build&, const Results&);

} // namespace gorvet::analysis
