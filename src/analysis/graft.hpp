#pragma once

#include "analysis/bench.hpp"
#include "stretch/graft_sheet.hpp"

/// Pieces of other frames that are joined to the chassis: what the build says of them, worked out.
namespace gorvet::analysis {

struct WorkedGraft {
    build::Graft graft;
    stretch::GraftInput input;
    stretch::GraftPlan plan;
    std::string waits; ///< what it waits for, a sentence with its remedy; empty: nothing
};
/// `with_frame`: held against what the frame asks of their joints, where that was worked out.
std::vector<WorkedGraft> workedGrafts(const build::Build&, const Results&, bool with_frame = true);
std::vector<sheet::Drawing> graftPages(const build::Build&, const Results&);
/// The plates of made boxes, flat.
void addGraftFiles(const build::Build&, const Results&, FileKeeper&);
void addGraftFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::optional<Card> graftCard(const build::Build&, const Results&, const std::string& name);
Headline graftHeadline(const build::Build&, const Results&, build::SubjectId);
sheet::Drawing graftDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                            double height, const sheet::Format&);
std::string graftJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
