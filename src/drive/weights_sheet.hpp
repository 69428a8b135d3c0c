#pragma once

#include "drive/weights.hpp"
#include "sheet/page.hpp"

/// What each wheel carries, and where the weight is, from above and from the side; what the springs come to.
namespace gorvet::drive {

struct WeightsView {
    const WeightsIn* input = nullptr;
    const WeightsPlan* plan = nullptr;
};
inline constexpr const char* weights_tag = "weight:car";
sheet::Drawing weightsSheet(const WeightsView&, double width, double height, const sheet::Format&);

} // namespace gorvet::drive
