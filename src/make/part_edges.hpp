#pragma once

#include "make/part.hpp"
#include "shape/hidden_lines.hpp"

/// The edges of a part in space, for a quick picture: nothing hides anything. Internal to this room.
namespace gorvet::make {

using Path = std::vector<Vec3>;
/// A ring round a straight bar where its end is cut.
Path ringOf(const BarPiece&, std::size_t end);
struct Edges {
    std::vector<Path> closed, open;
};
/// As it is looked at: a bent tube is drawn by its outlines.
Edges edgesOf(const PartPlan&, const shape::ViewAxes&);
/// The middle of a tube through its corners.
Path middleOf(const BarPiece&);

} // namespace gorvet::make
