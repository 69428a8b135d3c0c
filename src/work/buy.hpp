#pragma once

#include "build/stock.hpp"

#include <string>
#include <vector>

/// What steel must be bought: the pieces that the plan asks for, against what lies on the shelf.
namespace gorvet::work {

/// Pieces of one section, cut to a length.
struct SteelNeed {
    std::string what; ///< "bridge"
    build::StockForm form = build::StockForm::Box;
    double height_mm = 0; ///< as Stock has them
    double width_mm = 0;
    double wall_mm = 0;
    double length_mm = 0;
    int count = 1;
    std::string ends = {}; ///< how they are cut: "square, 32.0° off square"
    double mass_kg = 0;    ///< of one; 0: not known
    std::string tag = {};  ///< of what it is a piece of
    bool operator==(const SteelNeed&) const = default;
};
/// Whether a need can be cut from what is on the shelf: same form, same section within 0.6 mm, lying either way.
bool sameSection(const SteelNeed&, const build::Stock&);
/// "box 60 × 40 × 3".
std::string sectionWords(build::StockForm, double height_mm, double width_mm, double wall_mm);

struct PlacedPiece {
    std::size_t need = 0; ///< place among the needs
    std::string from;     ///< name on the shelf; empty: it must be bought
};
struct ToBuy {
    std::string section;
    std::vector<double> lengths_mm; ///< longest first
    double total_mm = 0;            ///< with a kerf for each
};
struct SteelPlan {
    std::vector<PlacedPiece> pieces; ///< one for each piece of each need
    std::vector<ToBuy> buy;
    bool exact = true; ///< no other way of cutting leaves less to be bought; else one may
    double bought_mm = 0;
};
/// Cuts as much of the needs from the shelf as can be, and of equal ways the one that begins the fewest lengths. Searched section
/// by section over all ways of laying pieces into lengths, up to `most_looked_at` of them; before that best fit, longest first.
/// Plates are not laid out here: of what is no length of a section nothing is placed.
SteelPlan placeSteel(const std::vector<SteelNeed>&, const std::vector<build::Stock>&, double kerf_mm,
                     int most_looked_at = 200'000);

} // namespace gorvet::work
