#pragma once

#include "analysis/overlay.hpp"

/// What the view of the scans shows beside them: new steel, and what is to be taken away.
namespace gorvet::analysis {

using PlannedCuts = build::Rows<build::PlannedCut>;

struct SteelInput {
    std::optional<make::CrossmemberInput> crossmember_input;
    std::shared_ptr<const make::CrossmemberPlan> crossmember;
    std::shared_ptr<const stretch::Plan> stretch;
    build::RailLine left; ///< as planned
    build::RailLine right;
    bool operator==(const SteelInput&) const = default;
};
SteelInput steelInput(const Results&);
/// The crossmember as it is planned and the sleeves in the rails, in the chassis frame. Empty while nothing is planned.
shape::Mesh newSteelMesh(const SteelInput&);
/// By triangle of the whole body: whether it lies inside a cut that is kept.
std::vector<bool> inKeptCuts(const PlannedCuts&, const Overlay&);
/// One of the body's parts without them, along the body's own axes: triangles on a line are cut along it, to about 4 mm. Empty
/// when nothing of this part is cut.
std::optional<shape::Mesh> withoutKeptCuts(const PlannedCuts&, const Overlay&, const std::vector<bool>& in_kept_cuts,
                                           size_t body_part);
/// The sheet of the body inside the cuts that are kept, along the body's own axes.
shape::Mesh toRemoveMesh(const PlannedCuts&, const Overlay&);

} // namespace gorvet::analysis
