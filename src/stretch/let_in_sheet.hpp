#pragma once

#include "sheet/page.hpp"
#include "stretch/let_in.hpp"

#include <functional>

/// Rails let into a shell, from the side along their own line, and both joints larger.
namespace gorvet::stretch {

struct LetInView {
    const LetInInput* input = nullptr;
    const LetInPlan* plan = nullptr;
    std::string waits; ///< what it waits for: then nothing else is drawn
    std::function<std::string(double)> length;
    std::string tag;
};
inline constexpr double let_in_sheet_least_px = 470;
sheet::Drawing letInSheet(const std::vector<LetInView>&, double width, double height, const sheet::Format&);

} // namespace gorvet::stretch
