#pragma once

#include "analysis/bench.hpp"
#include "stretch/width_sheet.hpp"

/// How wide the chassis is made: what the build says of it, worked out.
namespace gorvet::analysis {

struct WorkedEdge {
    build::FloorEdge edge;
    stretch::EdgeInput input;
    stretch::EdgePlan plan;
};
struct WorkedWidth {
    std::optional<stretch::NarrowInput> narrow_input;
    std::optional<stretch::NarrowPlan> narrow;
    std::vector<WorkedEdge> edges;
};
/// Whether a mark was taken over from a sill: it does not move with the chassis.
bool isSill(const build::Build&, build::PointId);
WorkedWidth workedWidth(const build::Build&, const Results&);
std::vector<sheet::Drawing> widthPages(const build::Build&, const Results&);
/// Strips of floor, flat.
void addWidthFiles(const build::Build&, const Results&, FileKeeper&);
void addWidthFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::optional<Card> narrowCard(const build::Build&, const Results&);
std::optional<Card> edgeCard(const build::Build&, const Results&, const std::string& name);
Headline widthHeadline(const build::Build&, const Results&, build::SubjectId);
sheet::Drawing widthDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                            double height, const sheet::Format&);
std::string widthJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
