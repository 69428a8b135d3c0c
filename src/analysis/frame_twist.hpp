#pragma once

#include "analysis/results.hpp"
#include "frame/ladder.hpp"

/// How much the frame resists being twisted between its axles, as it is and as it is planned.
namespace gorvet::analysis {

struct FrameTwist {
    frame::Twist now;
    std::optional<frame::Twist> planned; ///< after the change of wheelbase; none: none is planned
    std::vector<frame::Bridge> bridges;  ///< as they were said
    std::vector<std::string> assumed;    ///< what of the rails was never measured
};
/// Rails as measured, with bridges that are said: the build knows none of those that are there. Those behind the cut move with
/// it. Fails where rails, their section or the axles are missing, and as frame::twistOf.
Result<FrameTwist> frameTwist(const Results&, const std::vector<frame::Bridge>&);

} // namespace gorvet::analysis
