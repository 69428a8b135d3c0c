#pragma once

#include "sheet/drawing.hpp"

#include <array>

namespace gorvet::sheet {

/// The corners of what a text covers on the sheet, from a little above its capitals to its descenders; turned as it is.
std::array<P, 4> cornersOf(const Text&);
/// Whether two rectangles, turned or not, share some of their area.
bool overlap(const std::array<P, 4>&, const std::array<P, 4>&);

/// No text stays on one that came before it: it is set aside by lines of its own height, up and down, then along, to the first
/// place that is free and on the sheet. One that finds none within three lines stays. Everything else stays where it is.
void settleTexts(std::vector<Item>&, double width, double height);

} // namespace gorvet::sheet
