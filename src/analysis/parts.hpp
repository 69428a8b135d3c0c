#pragma once

#include "analysis/bench.hpp"
#include "analysis/card_maker.hpp"
#include "analysis/listing.hpp"
#include "analysis/steel.hpp"
#include "build/part_kinds.hpp"
#include "make/part.hpp"
#include "make/plates.hpp"

/// Parts of new steel: what the build says of each, their sheet, pages and files; the cut list of all new steel.
namespace gorvet::analysis {

make::PartIn partInput(const build::Build&, const Results&, const build::SteelPart&);
/// What a figure of a part was to be: as said, or as usual. None: nobody said it.
std::optional<double> plannedFigure(const build::SteelPart&, const std::string& word);
/// In what a figure of a part is said; "long", its main length, is one.
build::PartUnit partUnitOf(const build::SteelPart&, const std::string& word);
/// It in words, with its unit: "82.0 mm", "5°", "3".
std::string partFigureWords(build::PartUnit, double value, units::LengthStep);
std::vector<Node<make::PartIn, make::PartPlan>> partsOf(const build::Build&, const Results&, const Results* previous);

/// Pieces of each section that can be had in lengths, laid into those and into what lies on the shelf.
std::vector<Node<make::NestInput, make::NestPlan>> nestsOf(const build::Build&, const Results&, const Results* previous);
sheet::Drawing barsDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width, double height,
                           const sheet::Format&);
Headline barsHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> barPages(const build::Build&, const Results&);
std::string makeBarsJson(const build::Build&, const Results&);

/// Of a thickness of them, how they are laid; nothing while that is not worked out.
struct LaidThickness {
    const make::PlatesInput* input = nullptr;
    const make::PlatesPlan* plan = nullptr;
};
std::vector<LaidThickness> laidPlates(const build::Build&, const Results&);
/// Plates as thick as each other, as steel is bought.
bool samePlate(double mm, double other_mm);
/// They laid into the plates that can be had and that lie on the shelf: made apart.
bool platesKnown(const build::Build&, const Results&);
sheet::Drawing platesDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                             double height, const sheet::Format&);
Headline platesHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> platePages(const build::Build&, const Results&);
/// `plate-THICKNESS-N.dxf`.
void keepPlateFiles(const build::Build&, const Results&, FileKeeper&);
std::string makePlatesJson(const build::Build&, const Results&);
SlowNode platesNode();

sheet::Drawing partsDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                            double height, const sheet::Format&);
Headline partsHeadline(const build::Build&, const Results&, build::SubjectId);
Headline cutListHeadline(const build::Build&, const Results&, build::SubjectId);
Listing cutList(const build::Build&, const Results&, build::SubjectId);
/// Of each part its true views, its flats, and, where they are asked for, its templates 1 : 1; the cut list; bars.
std::vector<sheet::Drawing> partPages(const build::Build&, const Results&, bool templates);
/// `part-NAME-PIECE.dxf` of each flat piece, `parts.step`, `parts.pdf`, and `cut-list.csv` of all new steel.
void keepPartFiles(const build::Build&, const Results&, FileKeeper&);
void addPartFindings(const build::Build&, const Results&, std::vector<Finding>&);
/// "part:NAME".
std::optional<Card> partCard(const build::Build&, const Results&, const std::string& name);
std::string makePartJson(const build::Build&, const Results&);
std::string makeCutJson(const build::Build&, const Results&);

extern const char* const part_caution;

} // namespace gorvet::analysis
