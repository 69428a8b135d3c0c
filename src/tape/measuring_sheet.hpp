#pragma once

#include "sheet/drawing.hpp"
#include "tape/next_reading.hpp"

namespace gorvet::tape {

struct MeasuringSheet {
    const Survey* survey = nullptr;
    const Solution* solution = nullptr;
    std::vector<RankedReading> readings; ///< in the order of the walk
    units::LengthStep step = units::LengthStep::Mm01;
    sheet::Ink ink = sheet::Ink::Chassis;
};
/// Readings on one sheet of this height.
size_t measuringSheetRows(double height, const sheet::Format&);
/// A sketch from above with the readings numbered, and a list with room to write each figure twice. `first`, `count`: which of
/// the readings; numbers run on from sheet to sheet.
sheet::Drawing measuringSheet(const MeasuringSheet&, size_t first, size_t count, double width, double height,
                              const sheet::Format&);

} // namespace gorvet::tape
