#pragma once

#include "drive/adaptor.hpp"
#include "drive/wheels.hpp"
#include "sheet/page.hpp"

/// The wheels of an axle, cut through along the hubs, with what stands beside them; which widths and offsets fit; a plate's
/// holes.
namespace gorvet::drive {

struct WheelsView {
    const WheelsIn* input = nullptr;
    const WheelsPlan* plan = nullptr;
    std::function<std::string(double)> length; ///< of mm
    std::string scans;                         ///< what is said of the scans: looked at, or not yet
    std::optional<double> offset_mm;           ///< dragged to
    bool handles = false;
};
sheet::Drawing wheelsSheet(const std::vector<WheelsView>&, double width, double height, const sheet::Format&);
sheet::Drawing wheelMapSheet(const std::vector<WheelsView>&, double width, double height, const sheet::Format&);

/// How near the tyres come with another offset: the nearest of all places seen, and what it is. None where nothing is seen.
struct TriedOffset {
    double clear_mm = 0;
    double spare_mm = 0; ///< over what is asked, the ± taken off
    std::string name;
};
std::optional<TriedOffset> triedOffset(const WheelsIn&, const WheelsPlan&, double offset_mm);

/// A plate's outline and holes in real millimetres, for cutting and drilling.
sheet::Drawing adaptorDrawing(const build::Adaptor&, const AdaptorPlan&, double spigot_mm);

} // namespace gorvet::drive
