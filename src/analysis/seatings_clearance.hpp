#pragma once

#include "analysis/overlay_clearance.hpp"

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
/// What they are made from, but for what the build's variants are worked out from: all of it is in the seats.
struct SeatingsAsked {
    struct Column {
        std::string name;
        bool usable = false;
        std::shared_ptr<const sit::Seat> seat;
        build::Lowering lowering;
        bool operator==(const Column&) const = default;
    };
    std::shared_ptr<const ScanMeshes> meshes;
    std::shared_ptr<const OverlayClearance> now; ///< of the first column
    std::vector<Column> columns;
    bool operator==(const SeatingsAsked&) const = default;
};
SeatingsAsked seatingsAsked(const Results&);
/// The seating of now is taken from the clearance that is known; every other is seated as a variant of the build, and looked at
/// pair by pair as clearanceOf does: a second or two each, a few more where it lowers the body or changes the wheelbase. Nothing
/// when stopped.
std::optional<std::vector<SeatingClearance>> clearancesOfSeatings(const build::Build&, const Results&, int threads = 0,
                                                                  const std::function<bool()>& stop = {});

} // namespace gorvet::analysis
