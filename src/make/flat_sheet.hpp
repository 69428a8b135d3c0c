#pragma once

#include "make/part.hpp"
#include "sheet/drawing.hpp"
#include "units/quantity.hpp"

/// Flat pieces as drawings: as a cutter wants them, and with all that a hand needs to mark, drill and bend them.
namespace gorvet::make {

/// The rectangle that a flat piece is cut from, mm; "312.0 × 84.0".
std::pair<double, double> flatSize(const FlatPiece&);
std::string sizeWords(const FlatPiece&, units::LengthStep);

/// A flat piece alone at 1 : 1 in mm: its outline, its holes, its bends' middle lines dashed: as a cutter wants it.
sheet::Drawing flatDrawing(const FlatPiece&);
/// To scale in a box: few holes by dimensions, all of them numbered in a table, its bends in the order in which they are made,
/// with stops and the press's force; of a bent one its section.
sheet::Drawing flatSheet(const FlatPiece&, units::LengthStep, double width, double height, const sheet::Format&);
/// Its outline, holes, windows and bends on another drawing.
void addFlat(sheet::Drawing&, const FlatPiece&, const sheet::Projection&, const sheet::Format&, const std::string& tag);

} // namespace gorvet::make
