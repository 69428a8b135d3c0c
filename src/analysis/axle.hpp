#pragma once

#include "analysis/bench.hpp"
#include "stretch/axle_sheet.hpp"

/// Axles that are made narrower or wider: what the build says of them, worked out.
namespace gorvet::analysis {

struct WorkedAxle {
    build::AxleEnd end = build::AxleEnd::Rear;
    stretch::AxleInput input;
    stretch::AxlePlan plan;
};
/// Rear first, as they are mostly the ones.
std::vector<WorkedAxle> workedAxles(const build::Build&, const Results&);
std::vector<sheet::Drawing> axlePages(const build::Build&, const Results&);
void addAxleFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::optional<Card> axleCard(const build::Build&, const Results&, const std::string& end);
Headline axleHeadline(const build::Build&, const Results&, build::SubjectId);
sheet::Drawing axleDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width, double height,
                           const sheet::Format&);
std::string axleJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
