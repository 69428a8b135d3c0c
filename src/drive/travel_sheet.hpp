#pragma once

#include "drive/travel.hpp"
#include "sheet/page.hpp"

#include <functional>

/// Axles and wheels on their links, from the side and from behind, and through their travel.
namespace gorvet::drive {

struct TravelView {
    const TravelIn* input = nullptr;
    const TravelPlan* plan = nullptr;
    std::function<std::string(double)> length; ///< of mm
    double share = 0;                          ///< where it is drawn: −1 full droop, 1 full bump
    bool handles = false;
};
inline constexpr double travel_sheet_least_px = 560; ///< of each
sheet::Drawing travelSheet(const std::vector<TravelView>&, double width, double height, const sheet::Format&);

} // namespace gorvet::drive
