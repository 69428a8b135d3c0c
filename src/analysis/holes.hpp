#pragma once

#include "analysis/bench.hpp"
#include "analysis/listing.hpp"
#include "stretch/holes.hpp"

/// Holes and crash dents of the rails, worked out beside what is cut and welded.
namespace gorvet::analysis {

struct WorkedHole {
    stretch::HoleInput input;
    stretch::HolePlan plan;
};
std::vector<WorkedHole> workedHoles(const build::Build&, const Results&);
Listing holesList(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> holePages(const build::Build&, const Results&);
void addHoleFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::optional<Card> holeCard(const build::Build&, const Results&, const std::string& name);
Headline holesHeadline(const build::Build&, const Results&, build::SubjectId);
std::string holesJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
