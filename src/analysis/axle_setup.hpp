#pragma once

#include "analysis/bench.hpp"
#include "drive/axle_setup_sheet.hpp"

/// Axles that are set up on the bench.
namespace gorvet::analysis {

struct WorkedSetup {
    build::AxleEnd end = build::AxleEnd::Rear;
    drive::AxleSetupIn input;
    drive::AxleSetupPlan plan;
};
/// Of its card.
inline std::string setupTag(build::AxleEnd end) { return "axle-seat:" + std::string(build::word(end)); }
/// Of each axle that something is said of.
std::vector<WorkedSetup> workedSetups(const build::Build&, const Results&);

sheet::Drawing axleSetupDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                                double height, const sheet::Format&);
Headline axleSetupHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> axleSetupPages(const build::Build&, const Results&);
void addAxleSetupFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::optional<Card> axleSetupCard(const build::Build&, const Results&, const Tag&);
std::string driveAxleJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
