#pragma once

#include "drive/steering.hpp"
#include "sheet/page.hpp"

/// Front wheels steered, from above, with where their lines meet the rear axle's; the outer wheel's angle over the inner one's.
namespace gorvet::drive {

struct SteeringView {
    const SteeringIn* input = nullptr;
    const SteeringPlan* plan = nullptr;
    double share = 1;     ///< where it is drawn: −1 full lock to the right, 1 to the left
    bool handles = false; ///< it can be dragged from lock to lock
};
inline constexpr const char* steering_tag = "steering:front";
sheet::Drawing steeringSheet(const SteeringView&, double width, double height, const sheet::Format&);

} // namespace gorvet::drive
