#pragma once

#include "build/figure.hpp"

#include <string>
#include <vector>

/// Door and panel gaps over the events of the work: what moved since the one before.
namespace gorvet::tape {

struct GapReading {
    std::string place;
    std::string event;
    double value_mm = 0;
    double tolerance_mm = 1.5; ///< by how much it may move from one event to the next
    bool operator==(const GapReading&) const = default;
};

/// 1σ of a gap read with a rule or a stepped wedge, mm.
inline constexpr double gap_sigma_mm = 0.3;

struct GapTrend {
    std::string place;
    std::vector<GapReading> readings; ///< in the order of the events; at least one
    build::Figure change_mm;          ///< since the event before, both gaps read; 0 with a single reading
    double since_first_mm = 0;
    double largest_mm = 0;                                  ///< the largest move between two events, with its sign
    build::PlanVerdict verdict = build::PlanVerdict::Holds; ///< of the last change against the tolerance
};

/// Readings in the order they were taken; places in the order they first appear.
std::vector<GapTrend> gapTrends(const std::vector<GapReading>&);

} // namespace gorvet::tape
