#pragma once

#include "make/crossmember.hpp"
#include "make/mounts.hpp"
#include "sheet/drawing.hpp"

/// Mounts and crossmember as drawings: for the window, for paper, and plates at 1:1 for cutting.
namespace gorvet::make {

struct MountsView {
    const std::vector<MountStack>* mounts = nullptr;
    std::vector<std::string> tags;
    units::LengthStep step = units::LengthStep::Mm01;
    double body_thickness_mm = 3;
    double rail_thickness_mm = 4;
    std::string selected;
};
/// How high the stacks are drawn at the least: side by side, in as many rows as `width` needs. 0 without mounts.
double mountsHeight(const MountsView&, double width, const sheet::Format&);
/// Every stack in section, one scale for all.
sheet::Drawing mountsSheet(const MountsView&, double width, double height, const sheet::Format&);

struct CrossmemberView {
    const CrossmemberInput* input = nullptr;
    const CrossmemberPlan* plan = nullptr;
    units::LengthStep step = units::LengthStep::Mm01;
};
/// How high the bridge and its cut list are drawn at the least.
double crossmemberHeight(const CrossmemberView&, double width, const sheet::Format&);
/// The bridge between the rails from behind, the left flange, the cut list.
sheet::Drawing crossmemberSheet(const CrossmemberView&, double width, double height, const sheet::Format&);

/// A plate alone at 1:1 in mm, lower left corner at the drawing's lower left: outline and holes only, as a cutter wants it.
sheet::Drawing plateDrawing(const Plate&);
/// A plate with its dimensions, to scale in a box.
sheet::Drawing plateSheet(const Plate&, units::LengthStep, double width, double height, const sheet::Format&);

} // namespace gorvet::make
