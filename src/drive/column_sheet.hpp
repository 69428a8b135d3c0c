#pragma once

#include "drive/column.hpp"
#include "drive/gear_plate.hpp"
#include "sheet/page.hpp"

/// The steering column from the side and from above, what it passes, how evenly it turns, the plate under its gear.
namespace gorvet::drive {

struct ColumnView {
    const ColumnIn* input = nullptr; ///< none: only a plate
    const ColumnPlan* plan = nullptr;
    const GearPlateIn* plate_input = nullptr; ///< none: no gear's holes are marked
    const GearPlatePlan* plate = nullptr;
};
inline constexpr const char* column_tag = "column:steering";
inline constexpr const char* gear_tag = "steer-gear:steering";
sheet::Drawing columnSheet(const ColumnView&, double width, double height, const sheet::Format&);

} // namespace gorvet::drive
