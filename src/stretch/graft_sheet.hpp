#pragma once

#include "sheet/page.hpp"
#include "stretch/graft.hpp"

#include <functional>

/// A piece of another frame where it is joined to the chassis, from above and from the left.
namespace gorvet::stretch {

struct GraftView {
    const GraftInput* input = nullptr;
    const GraftPlan* plan = nullptr;
    std::function<std::string(double)> length; ///< as the build shows it
    std::string tag;                           ///< of its card
    std::string waits;                         ///< what it waits for: then nothing else is drawn
};
inline constexpr double graft_sheet_least_px = 470;
sheet::Drawing graftSheet(const std::vector<GraftView>&, double width, double height, const sheet::Format&);
/// A plate of the made box, flat, at 1:1: its outline, and the line along which it is folded.
sheet::Drawing transitionPattern(const TransitionPlate&);

} // namespace gorvet::stretch
