#pragma once

#include "make/part.hpp"

/// The pieces of a part, each by its name where it sits. Internal to this room.
namespace gorvet::make {

struct PlacedPiece {
    std::string name; ///< "o1, end plate"
    const FlatPiece* flat = nullptr;
    const BarPiece* bar = nullptr;
    const Trough* trough = nullptr; ///< of a flat piece that is bent to one
    shape::Frame place;             ///< of a flat one
};
/// They last as long as the plan.
std::vector<PlacedPiece> piecesOf(const PartPlan&);

/// Of its sheet, across and up from the bottom's lower side; anticlockwise.
geometry::Outline troughSection(const Trough&);

} // namespace gorvet::make
