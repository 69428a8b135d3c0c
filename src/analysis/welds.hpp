#pragma once

#include "analysis/bench.hpp"
#include "make/weld_plan.hpp"

/// Every weld of the new steel, in order: what the plan asks for, the sheet, the page.
namespace gorvet::analysis {

Node<make::WeldIn, make::WeldPlan> weldsOf(const build::Build&, const Results&, const Results* previous);
/// Whether a torch gets to what is welded on, past what was put on before.
Node<make::PutOnIn, std::vector<make::WeldRoom>> weldRoomsOf(const Results&, const Results* previous);
/// "No torch gets to 60 of 420 mm where …".
std::string weldShutWords(const make::WeldRoom&);
inline constexpr double least_shut_mm = 15; ///< less is an edge's corner, no seam
sheet::Drawing weldsDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                            double height, const sheet::Format&);
Headline weldsHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> weldPages(const build::Build&, const Results&);
std::string makeWeldsJson(const build::Build&, const Results&);

extern const char* const weld_caution;

} // namespace gorvet::analysis
