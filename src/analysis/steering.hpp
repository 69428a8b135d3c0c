#pragma once

#include "analysis/bench.hpp"
#include "drive/steering_sheet.hpp"

/// The steering of a build, as its front wheels' links and tie rods have it.
namespace gorvet::analysis {

drive::SteeringIn steeringInput(const build::Build&, const Results&);

sheet::Drawing steeringDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                               double height, const sheet::Format&);
Headline steeringHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> steeringPages(const build::Build&, const Results&);
void addSteeringFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::optional<Card> steeringCard(const build::Build&, const Results&);
std::string driveSteerJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
