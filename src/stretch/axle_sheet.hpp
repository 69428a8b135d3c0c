#pragma once

#include "sheet/page.hpp"
#include "stretch/axle.hpp"

#include <functional>

/// An axle as it is and as planned, seen from behind.
namespace gorvet::stretch {

struct AxleView {
    std::string name; ///< "rear axle"
    const AxleInput* input = nullptr;
    const AxlePlan* plan = nullptr;
    std::function<std::string(double)> length; ///< as the build shows it
    std::string tag;                           ///< of its card
};
inline constexpr double axle_sheet_least_px = 520;
sheet::Drawing axleSheet(const std::vector<AxleView>&, double width, double height, const sheet::Format&);

} // namespace gorvet::stretch
