#pragma once

#include "geometry/outline.hpp"

#include <optional>
#include <string>
#include <vector>

/// Flat pieces of one thickness laid into plates of it: from the shelf, and from what can be bought. mm. engineering.md, Make.
namespace gorvet::make {

struct PlatePiece {
    std::string name;
    geometry::Outline outline; ///< anticlockwise, simple; its holes are steel here
    int count = 1;
    bool operator==(const PlatePiece&) const = default;
};
/// Plates that pieces are cut from. Without a count as many as are needed can be had.
struct PlateSize {
    std::string name;
    double length_mm = 0; ///< along x
    double width_mm = 0;
    std::optional<int> count;    ///< on the shelf
    std::optional<double> price; ///< of one; none: by its area
    bool operator==(const PlateSize&) const = default;
};
struct PlatesInput {
    double thickness_mm = 0;
    std::vector<PlatePiece> pieces;
    std::vector<PlateSize> plates;
    double gap_mm = 3;  ///< between pieces, > 0: the kerf and what stands between
    double edge_mm = 5; ///< to a plate's edge
    bool operator==(const PlatesInput&) const = default;
};
/// A piece where it lies: turned by quarters, anticlockwise, then shifted.
struct LaidPiece {
    std::size_t piece = 0; ///< in the input
    int quarters = 0;
    geometry::Flat at; ///< where the origin of its outline comes to
};
geometry::Flat laid(const LaidPiece&, const geometry::Flat&);
geometry::Outline laid(const PlatesInput&, const LaidPiece&);
struct PlateLayout {
    std::size_t plate = 0; ///< in the input
    std::vector<LaidPiece> pieces;
    double share = 0;   ///< of its area that becomes pieces
    double rest_mm = 0; ///< of its length that stays whole over its width, behind them
};
struct PlatesPlan {
    std::vector<PlateLayout> layouts;
    std::vector<std::size_t> too_large; ///< pieces that no plate takes, each time that one is left over
    double cost = 0;                    ///< of what is bought, by price where every one has it, else its area in m²
    double least = 0;                   ///< by area alone no way of laying costs less
    int tried = 0;                      ///< orders in which they were laid
};
/// Each piece at the place farthest to the left, then lowest, of all places where it fits beside those that lie there already
/// (no-fit polygons), turned by quarters; in several orders, of which the cheapest stands; of what costs the same, the one that
/// leaves the longest rests. No two are nearer than the gap. Deterministic.
PlatesPlan layPlates(const PlatesInput&, int tries = 24);

} // namespace gorvet::make
