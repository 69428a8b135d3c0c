#pragma once

#include "frame/section.hpp"

#include <string>
#include <string_view>
#include <vector>

/// Sizes of steel that most yards have on the rack. mm; what is rolled in inches keeps its own name.
namespace gorvet::frame {

struct StockSize {
    std::string_view form; ///< a word of `shapes`: box, tube, angle, channel, flat
    double height = 0;     ///< outside; a diameter; a flat's width
    double width = 0;      ///< 0 for tube and flat
    double wall = 0;
    bool inch = false;
    /// "box 60 × 40 × 3", "box 2\" × 1 1/2\" × 11 gauge".
    std::string name() const;
    Profile profile() const;
};
/// Cold-formed hollow sections (EN 10219-2), round tube (EN 10305-3, EN 10219-2), equal angles (EN 10056-1), cold-formed
/// channels, flats (EN 10058), and what is rolled in inches with walls by sheet gauge. Which of them a yard has is its own
/// affair: an extract, by use.
const std::vector<StockSize>& commonStock();
/// What each of them is worth, in the same order; worked out once.
const std::vector<Section>& worthOfStock();
/// Thickness of sheet by the manufacturers' standard gauge of steel, mm; 0 for a gauge that is not among them (7 to 18).
double gaugeMm(int gauge);

} // namespace gorvet::frame
