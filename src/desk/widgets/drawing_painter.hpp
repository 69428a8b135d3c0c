#pragma once

#include "desk/shell/theme.hpp"
#include "sheet/drawing.hpp"

class QPainter;

namespace gorvet::desk {

/// Paints the flattened items of a drawing, one paper unit a pixel.
void paintItems(QPainter&, const std::vector<sheet::Item>&, const Theme&);

/// The tag of the item nearest to a place, within reach_px; empty when none. Later items lie on top.
std::string tagAt(const std::vector<sheet::Item>&, sheet::P at, double reach_px);

} // namespace gorvet::desk
