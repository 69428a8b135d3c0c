#pragma once

#include "drive/line.hpp"
#include "sheet/page.hpp"

#include <functional>

/// The drive line from the side and from above, with its angles drawn large enough to see, and through its travel.
namespace gorvet::drive {

struct LineView {
    const LineInput* input = nullptr;
    const LinePlan* plan = nullptr;
    std::function<std::string(double)> length; ///< of mm
    double share = 0;                          ///< where it is drawn: −1 full droop, 1 full bump
    bool handles = false;                      ///< it can be dragged through its travel
};
/// The least height that it needs, in pixels.
double lineSheetLeast(const LinePlan&);
sheet::Drawing lineSheet(const LineView&, double width, double height, const sheet::Format&);

} // namespace gorvet::drive
