#pragma once

#include "analysis/overlay_clearance.hpp"
#include "shape/hidden_lines.hpp"
#include "sheet/drawing.hpp"

#include <algorithm>

/// Body and chassis together as lines on paper: hidden ones left out, those behind the body's sheet dashed.
namespace gorvet::analysis {

struct ScribedAsked {
    std::shared_ptr<const Overlay> overlay;
    std::shared_ptr<const shape::Mesh> steel;
    std::shared_ptr<const shape::Mesh> removed; ///< of the body, along its own axes
    bool operator==(const ScribedAsked&) const = default;
};
struct ScribedView {
    const char* key = "";   ///< "corner"
    const char* words = ""; ///< "from the corner"
    shape::ViewAxes axes;
    std::vector<shape::ScribedLine> lines;
};
struct Scribed {
    std::vector<sheet::Ink> inks; ///< of each part that the lines speak of
    std::vector<ScribedView> views;
    /// Clouds have none.
    bool hasLines() const {
        return std::any_of(views.begin(), views.end(), [](const ScribedView& v) { return !v.lines.empty(); });
    }
};
/// Three views; nothing when `stop` said so.
std::optional<Scribed> scribedOf(const ScribedAsked&, const std::function<bool()>& stop = {});
/// One of them, as large as it goes, with what fouls at its place when `clearance` is given and of the same overlay. `mm_a_unit`:
/// how many mm a unit of paper shows; 0 fits. `width` 0: the drawing is as large as it is at that scale.
sheet::Drawing scribedDrawing(const Scribed&, const ScribedView&, double width, double height, const sheet::Format&,
                              double mm_a_unit = 0, const OverlayClearance* clearance = nullptr,
                              const std::vector<Finding>& findings = {});
/// How many mm a unit of paper shows so that all views fit into such a frame.
double scribedScale(const Scribed&, const std::vector<std::string_view>& keys, double width, double height);

} // namespace gorvet::analysis
