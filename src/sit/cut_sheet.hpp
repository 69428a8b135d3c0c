#pragma once

#include "sheet/drawing.hpp"
#include "sit/cut_map.hpp"

/// The cut map on paper.
namespace gorvet::sit {

/// A cut laid flat in real millimetres, with a 100 mm check bar and its station and height: for DXF and 1:1 prints. What stands
/// off the plane is said on it.
sheet::Drawing cutDrawing(const Cut&);
/// All cuts from above and from the left in one page, with their list.
sheet::Drawing cutMapPage(const CutMap&, double width, double height, const sheet::Format&);

} // namespace gorvet::sit
