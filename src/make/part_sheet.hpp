#pragma once

#include "make/part.hpp"
#include "shape/hidden_lines.hpp"
#include "sheet/drawing.hpp"
#include "units/quantity.hpp"

/// Parts as drawings: for the window, for paper, flat pieces and wrap templates at 1 : 1.
namespace gorvet::make {

struct PartView {
    const PartIn* input = nullptr;
    const PartPlan* plan = nullptr;
    std::string tag;
    units::LengthStep step = units::LengthStep::Mm01;
    bool ends = true; ///< how bars' ends are cut stands among its figures
};
/// Each part: how it sits, its pieces as they are cut, its figures, and what is wrong with it.
sheet::Drawing partsSheet(const std::vector<PartView>&, double width, double height, const sheet::Format&);

/// One part's figures, what is wrong with it, what was taken as usual, in words.
sheet::Drawing partWords(const PartView&, double width, double height, const sheet::Format&);
/// "tube 42 × 3".
std::string stockWords(const BarPiece&);
/// "square, coped on 60.3, 45.0°".
std::string endsWords(const BarPiece&);
/// The template that is wrapped round a coped end, 1 : 1: its lower edge square across the tube, its upper one the cut, from the
/// tube's tip; the line along the tube from its upper side is marked. As wide as the tube is round.
sheet::Drawing wrapDrawing(const BarPiece&, std::size_t end);
/// How far below its highest place the cut is, at an angle about the tube from its upper side to the right, seen from the first
/// end: what the template's upper edge is made of.
double wrapDepth(const BarPiece&, std::size_t end, double angle_rad);

/// A true view: what hides what, by the solids. `fine`: pixels across.
std::vector<shape::ScribedLine> partLines(const std::vector<shape::NamedSolid>&, const shape::ViewAxes&, int fine);
sheet::Drawing linesDrawing(const std::vector<shape::ScribedLine>&, double width, double height, double mm_a_unit,
                            const sheet::Format&);
/// How wide and high those lines are, mm.
std::pair<double, double> linesSize(const std::vector<shape::ScribedLine>&);

} // namespace gorvet::make
