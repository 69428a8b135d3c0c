#pragma once

#include "build/rail_line.hpp"
#include "make/weld_plan.hpp"
#include "sheet/drawing.hpp"
#include "units/quantity.hpp"

/// The weld plan as a map from above with its numbers, and what each number is.
namespace gorvet::make {

struct WeldView {
    const WeldIn* input = nullptr;
    const WeldPlan* plan = nullptr;
    build::RailLine left, right;    ///< as planned
    std::vector<std::string> rooms; ///< where no torch gets to, or that it does
    units::LengthStep step = units::LengthStep::Mm01;
};
/// `first` to `until` of its steps; the map stands above the first.
sheet::Drawing weldSheet(const WeldView&, double width, double height, const sheet::Format&, std::size_t first = 0,
                         std::size_t until = static_cast<std::size_t>(-1));

/// "fillet 3 × 280".
std::string seamWords(const WeldSeam&, units::LengthStep);
/// "5 tacks of 9 first, then 6 runs of 60, skipping".
std::string runWords(const WeldStep&);

} // namespace gorvet::make
