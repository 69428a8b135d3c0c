#pragma once

#include "analysis/bench.hpp"
#include "stretch/let_in_sheet.hpp"

/// Rails let into a shell: what the build says of them, worked out.
namespace gorvet::analysis {

struct WorkedLetIn {
    build::LetIn row;
    stretch::LetInInput input;
    stretch::LetInPlan plan;
};
std::vector<WorkedLetIn> workedLetIns(const build::Build&, const Results&);
std::vector<sheet::Drawing> letInPages(const build::Build&, const Results&);
void addLetInFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::optional<Card> letInCard(const build::Build&, const Results&, const std::string& name);
Headline letInHeadline(const build::Build&, const Results&, build::SubjectId);
sheet::Drawing letInDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                            double height, const sheet::Format&);
std::string letInJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
