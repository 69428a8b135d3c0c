#pragma once

#include "sheet/page.hpp"
#include "stretch/stretch.hpp"

#include <functional>

/// A spine platform's cut: from above, with its pans, windows and diagonals; and the saddle and covers, flat.
namespace gorvet::stretch {

struct SpineView {
    const Input* input = nullptr;
    const Plan* plan = nullptr; ///< with a spine
    std::function<std::string(double)> length;
    std::vector<std::pair<std::string, std::array<double, 2>>> corners; ///< marks to tape between: name, station and offset
};
inline constexpr double spine_sheet_least_px = 430;
sheet::Drawing spineSheet(const SpineView&, double width, double height, const sheet::Format&);

/// Flat, mm, for a machine: outline, bend lines and holes.
sheet::Drawing saddlePattern(const SpinePlan&);
sheet::Drawing coverPattern(const SpineWindow&);
/// Where the saddle's plug holes stand on its flat blank: along from one end, across from the blank's middle.
std::vector<sheet::P> saddleHoles(const SpinePlan&);

} // namespace gorvet::stretch
