#pragma once

#include "analysis/bench.hpp"
#include "make/part.hpp"
#include "sheet/drawing.hpp"
#include "work/buy.hpp"

/// What is cut of steel for the car, once, whoever plans it: cut list, bars, plates, shopping and weld plan are made from this.
namespace gorvet::analysis {

/// A piece sawn from a length.
struct SteelBar {
    std::string name;
    build::StockForm form = build::StockForm::Box;
    double height_mm = 0; ///< outside, as stock has them
    double width_mm = 0;
    double wall_mm = 0;
    double length_mm = 0; ///< of its longest edge
    int count = 1;
    std::string ends;
    double mass_kg = 0; ///< of one; 0: not worked out
    std::string stock;  ///< in words, of what is bought by no section: "as the rail", "the original"; else empty
    std::vector<make::TubeBend> bends = {};
    /// By how much its ends are sawn off square, of each in two directions across it, rad; empty: its words alone say it.
    std::vector<double> tilts_rad = {};
};
/// What holds things together and is bought by the piece.
struct SteelFixing {
    std::string name;
    std::string stock;    ///< "M10 bolt"
    double length_mm = 0; ///< 0: it has none that matters
    int count = 1;
    std::string ends; ///< how it is fitted
};
/// All pieces of one thing that is planned.
struct SteelThing {
    std::string tag; ///< of its card; empty: it has none
    std::vector<SteelBar> bars;
    std::vector<make::FlatPiece> flats; ///< by their full names
    std::vector<SteelFixing> fixings;
};
/// Crossmember, mounts, what Stretch lets in, closes and reaches out with, what Drive bolts on, then the parts in their order.
std::vector<SteelThing> steelThings(const build::Build&, const Results&);

/// A flat piece from its pattern at 1 : 1: the closed line tagged "outline", circles tagged "hole", closed lines tagged "window",
/// open ones tagged "bend" or "fold".
make::FlatPiece flatFrom(const sheet::Drawing& pattern, std::string name, double thickness_mm, int count = 1);

/// What is cut flat, and what of it is bought.
struct FlatNeed {
    std::string name, tag;
    make::FlatPiece flat;
};
std::vector<FlatNeed> flatNeeds(const build::Build&, const Results&);
std::vector<work::SteelNeed> steelNeeds(const build::Build&, const Results&);

/// A row of the cut list.
struct CutRow {
    int count = 1;
    std::string piece;
    std::string stock;
    std::string length; ///< mm; empty: it has none
    double length_mm = 0;
    std::string ends;
    std::string mass_kg; ///< of all of them; empty: not worked out
    std::string tag;
};
std::vector<CutRow> cutRows(const build::Build&, const Results&);

} // namespace gorvet::analysis
