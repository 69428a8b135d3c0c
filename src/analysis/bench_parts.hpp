#pragma once

#include "analysis/bench.hpp"
#include "analysis/card_maker.hpp"
#include "analysis/lead.hpp"

/// Parts of the benches that stand in files beside them. Internal to this room.
namespace gorvet::analysis {

void addTapeFindings(const build::Build&, const Results&, std::vector<Finding>&);
void addSitFindings(const build::Build&, const Results&, std::vector<Finding>&);
void addStretchFindings(const build::Build&, const Results&, std::vector<Finding>&);
void addMakeFindings(const build::Build&, const Results&, std::vector<Finding>&);

std::optional<Card> tapeCard(const build::Build&, const Results&, build::SubjectId, const Tag&);
std::optional<Card> sitCard(const build::Build&, const Results&, build::SubjectId, const Tag&);
std::optional<Card> stretchCard(const build::Build&, const Results&, build::SubjectId, const Tag&);
std::optional<Card> frameCard(const build::Build&, const Results&, build::SubjectId, const Tag&);
std::optional<Card> makeCard(const build::Build&, const Results&, build::SubjectId, const Tag&);
std::optional<Card> workCard(const build::Build&, const Results&, build::SubjectId, const Tag&);

/// The sheets of the frame as it carries, on Stretch, and what makes it.
const std::vector<BenchView>& frameViews();
extern const std::vector<SlowNode> frame_nodes;
void addFrameFiles(const build::Build&, const Results&, FileKeeper&);

std::vector<Lack> tapeLacks(const build::Build&, const Results&, build::SubjectId);
std::vector<Lack> sitLacks(const build::Build&, const Results&, build::SubjectId);
std::vector<Lack> stretchLacks(const build::Build&, const Results&, build::SubjectId);
std::vector<Lack> makeLacks(const build::Build&, const Results&, build::SubjectId);
/// The sentence of a bench that waits: the first of what it lacks, then the rest. There must be one.
Headline lackHeadline(const std::vector<Lack>&);

} // namespace gorvet::analysis
