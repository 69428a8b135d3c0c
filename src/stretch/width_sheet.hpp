#pragma once

#include "sheet/page.hpp"
#include "stretch/width.hpp"

#include <functional>

/// How wide the chassis is made, from above: strips that come out, and floors that reach out to sills.
namespace gorvet::stretch {

struct EdgeView {
    const EdgeInput* input = nullptr;
    const EdgePlan* plan = nullptr;
    std::string waits; ///< what it waits for: then it is not drawn
    std::string tag;
};
struct WidthView {
    const NarrowInput* narrow_input = nullptr; ///< none: it stays as wide as it is
    const NarrowPlan* narrow = nullptr;
    std::vector<EdgeView> edges;
    build::PlannedChassis planned;
    std::vector<std::vector<build::Vec3>> lines;            ///< outsides of the chassis as it is
    std::vector<std::pair<std::string, build::Vec3>> marks; ///< marked points as planned
    std::function<std::string(double)> length;              ///< as the build shows it
};
inline constexpr double width_sheet_least_px = 340;
sheet::Drawing widthSheet(const WidthView&, double width, double height, const sheet::Format&);
/// A strip of floor, flat, at 1:1: its outline, the bend dashed, plug holes along its inner edge.
sheet::Drawing stripPattern(const EdgePlan&, double lap_mm);

} // namespace gorvet::stretch
