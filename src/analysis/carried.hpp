#pragma once

#include "analysis/bench.hpp"
#include "analysis/card_maker.hpp"
#include "analysis/listing.hpp"
#include "drive/brakes.hpp"
#include "drive/link_holes.hpp"
#include "drive/weights.hpp"

/// What the wheels carry and on what springs, rows of holes of links, checks of brakes and pedals.
namespace gorvet::analysis {

drive::WeightsIn weightsInput(const build::Build&, const Results&);
drive::BrakesIn brakesInput(const build::Build&, const Results&);
std::vector<Node<drive::LinkHolesIn, drive::LinkHolesPlan>> linkHolesOf(const build::Build&, const Results&,
                                                                        const Results* previous);

sheet::Drawing weightsDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                              double height, const sheet::Format&);
Headline weightsHeadline(const build::Build&, const Results&, build::SubjectId);
Headline linkHolesHeadline(const build::Build&, const Results&, build::SubjectId);
Listing linkHolesList(const build::Build&, const Results&, build::SubjectId);
Headline brakesHeadline(const build::Build&, const Results&, build::SubjectId);
Listing brakesList(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> carriedPages(const build::Build&, const Results&);
void addCarriedFindings(const build::Build&, const Results&, std::vector<Finding>&);
/// "weight:car", "spring:rear", "link-holes:ID", "brake:rear", "pedal:brake".
std::optional<Card> carriedCard(const build::Build&, const Results&, const Tag&);
std::string driveWeightJson(const build::Build&, const Results&);
std::string driveHolesJson(const build::Build&, const Results&);
std::string driveBrakeJson(const build::Build&, const Results&);

extern const char* const brake_caution;

} // namespace gorvet::analysis
