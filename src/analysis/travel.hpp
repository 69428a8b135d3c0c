#pragma once

#include "analysis/bench.hpp"
#include "drive/travel.hpp"

/// Axles and wheels of a build on their links.
namespace gorvet::analysis {

/// What the build says of each axle and wheel that a link carries.
std::vector<drive::TravelIn> travelInputs(const build::Build&, const Results&);
/// The plans of all, taken over from before where nothing of them changed.
std::vector<Node<drive::TravelIn, drive::TravelPlan>> travelsOf(const build::Build&, const Results&, const Results* previous);

/// The axle of an end on links that hold it, or the wheel of one side; nullptr: none is worked out.
const drive::TravelIn* heldBy(const Results&, bool front, std::optional<bool> right);

sheet::Drawing travelDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                             double height, const sheet::Format&);
Headline travelHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> travelPages(const build::Build&, const Results&);
std::optional<Card> linkCard(const build::Build&, const Results&, const std::string& name);
std::optional<Card> travelCard(const build::Build&, const Results&, const std::string& name);
std::string driveLinkJson(const build::Build&, const Results&);

extern const char* const link_caution;

} // namespace gorvet::analysis
