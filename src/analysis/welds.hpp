#pragma once

#include "analysis/bench.hpp"
#include "make/weld_plan.hpp"

/// Every weld of the new steel, in order: what the plan asks for, the sheet, the page.
namespace gorvet::analysis {

Node<make::WeldIn, make::WeldPlan> weldsOf(const build::Build&, const Results&, const Results* previous);
sheet::Drawing weldsDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                            double height, const sheet::Format&);
Headline weldsHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> weldPages(const build::Build&, const Results&);
std::string makeWeldsJson(const build::Build&, const Results&);

extern const char* const weld_caution;

} // namespace gorvet::analysis
