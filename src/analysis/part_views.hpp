#pragma once

#include "analysis/node.hpp"
#include "make/part.hpp"
#include "shape/hidden_lines.hpp"

#include <array>
#include <memory>

namespace gorvet::analysis {

/// A part as a solid and as it is drawn: the build sheet, the sheets of parts and the files all take the same.
struct PartViews {
    struct View {
        const char* words;
        shape::ViewAxes axes;
        std::vector<shape::ScribedLine> lines; ///< none where there is no solid
    };
    Result<std::vector<shape::NamedSolid>> solids; ///< or why it can't be made
    std::array<View, 4> views;                     ///< from the left, from behind, from above, and as it stands in space
};

/// Made once for each plan as long as that plan is in some results, by each thread for itself: to draw a solid leaves its
/// triangles in it.
std::shared_ptr<const PartViews> viewsOf(const Node<make::PartIn, make::PartPlan>&);

} // namespace gorvet::analysis
