#pragma once

#include "sheet/drawing.hpp"
#include "stretch/stretch.hpp"

/// The rail round the cut, from the left: what comes out or goes in, the sleeve, and what stands near.
namespace gorvet::stretch {

struct StretchView {
    const Input* input = nullptr;
    const Plan* plan = nullptr;
    units::LengthStep step = units::LengthStep::Mm01;
    sheet::Mark change_mark = sheet::Mark::Derived; ///< None when decided
    bool section_given = true;
    std::string zero; ///< what stands at station 0, where it is not the front axle
};

/// What the sheet needs in height, in pixels at 100 %; with less it is drawn so high all the same, and scrolled.
inline constexpr double stretch_sheet_least_px = 425;
sheet::Drawing stretchSheet(const StretchView&, double width, double height, const sheet::Format&);

} // namespace gorvet::stretch
