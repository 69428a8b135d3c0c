#pragma once

#include "analysis/bench.hpp"
#include "analysis/card_maker.hpp"

/// Parts of the benches that stand in files beside them. Internal to this room.
namespace gorvet::analysis {

void addTapeFindings(const build::Build&, const Results&, std::vector<Finding>&);
void addSitFindings(const build::Build&, const Results&, std::vector<Finding>&);
void addStretchFindings(const build::Build&, const Results&, std::vector<Finding>&);
void addMakeFindings(const build::Build&, const Results&, std::vector<Finding>&);

std::optional<Card> tapeCard(const build::Build&, const Results&, build::SubjectId, const Tag&);
std::optional<Card> sitCard(const build::Build&, const Results&, build::SubjectId, const Tag&);
std::optional<Card> stretchCard(const build::Build&, const Results&, build::SubjectId, const Tag&);
std::optional<Card> makeCard(const build::Build&, const Results&, build::SubjectId, const Tag&);
std::optional<Card> workCard(const build::Build&, const Results&, build::SubjectId, const Tag&);

} // namespace gorvet::analysis
