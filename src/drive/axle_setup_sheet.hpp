#pragma once

#include "drive/axle_setup.hpp"
#include "sheet/page.hpp"

/// An axle on the bench: from behind with all that is welded to it taped from both faces, and from the left, turned against its
/// pinion.
namespace gorvet::drive {

struct AxleSetupView {
    const AxleSetupIn* input = nullptr;
    const AxleSetupPlan* plan = nullptr;
    std::string tag; ///< of its card
};
sheet::Drawing axleSetupSheet(const std::vector<AxleSetupView>&, double width, double height, const sheet::Format&);

} // namespace gorvet::drive
