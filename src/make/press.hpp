#pragma once

#include "make/part.hpp"

#include <optional>
#include <vector>

/// How a flat piece is bent on a press with a straight blade over a vee, each bend freely in the air. mm, N, rad.
namespace gorvet::make {

/// The blade and the vee that are taken. The blade is straight, as high as it likes.
inline constexpr double blade_mm = 10, vee_thicknesses = 8;
/// The most that usual goose-neck blades are cut back from the middle of their nose.
inline constexpr double goose_neck_mm = 60;

/// One bend of a piece, as its turn comes.
struct PressStep {
    std::size_t bend = 0; ///< in the piece
    double stop_mm = 0;   ///< its middle line from the nearer edge of the flat, square to it
    double long_mm = 0;   ///< along the bend
    double force_N = 0;   ///< of the press, mild steel of 400 MPa: 1.42 R L t² / V
    double past_mm = 0;   ///< that what is bent already comes past the blade's face; none or less: it clears
    double above_mm = 0;  ///< where it does so, over the blade's nose
};
struct PressPlan {
    double vee_mm = 0;
    std::vector<PressStep> steps; ///< the order in which least comes past the blade, of all orders
    std::size_t tried = 0;        ///< orders that were looked at
    double past_mm = 0;           ///< the most of all steps
    double above_mm = 0;
};
/// None for a piece without bends, or with more than 7, or whose bends do not all run one way: each is looked at alone there.
std::optional<PressPlan> pressPlan(const FlatPiece&);

/// Its section across its bends as it comes out of the press, anticlockwise: where it begins its lower side lies level. None
/// where there is no `pressPlan`.
std::optional<geometry::Outline> bentOutline(const FlatPiece&);

/// A hole nearer to where a bend begins than this is pulled oval: two thicknesses.
struct HoleByBend {
    std::size_t hole = 0, bend = 0;
    double room_mm = 0; ///< from its edge to where the bend begins
};
std::vector<HoleByBend> holesByBends(const FlatPiece&);
/// Bends that end within the sheet, not at its edge: it tears there without a relief.
std::vector<std::size_t> tornBends(const FlatPiece&);

} // namespace gorvet::make
