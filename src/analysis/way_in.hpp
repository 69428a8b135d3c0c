#pragma once

#include "analysis/overlay_clearance.hpp"
#include "analysis/scene_layers.hpp"
#include "sit/way_down.hpp"

/// How body and chassis come together: how high it hangs, and the way down.
namespace gorvet::analysis {

struct WayFound {
    sit::WayIn in;
    sit::WayDown down;               ///< from the lift that level rolling in asks for
    std::string words;               ///< of both
    std::vector<std::string> clouds; ///< scans without a surface between their points
};
/// Beside the window: from under a second to half a minute where straight down it does not go. What is nearer at the seat than
/// the build's least clearance counts as cut, or as resting there; so does what lies inside the cuts that are kept. Nothing when
/// stopped, or when a scan is missing.
std::optional<WayFound> wayOf(const Overlay&, const PlannedCuts&, int threads = 0, const std::function<bool()>& stop = {},
                              units::LengthStep words_in = units::LengthStep::Mm01);

/// So near may parts pass on the way: half of the least clearance is enough.
double passing(const Overlay&);
/// What the body must be cut for, besides its seat, to come straight down past all that does not come off: for cutMapOf. Empty
/// when nothing is in the way.
std::vector<sit::CutAgainst> cutsForWay(const Overlay&, const WayFound&);
/// The same whatever cuts are kept already: made again, a cut map does not lose those for the way. Empty when stopped.
std::vector<sit::CutAgainst> cutsForWay(const Overlay&, int threads = 0, const std::function<bool()>& stop = {});
/// In a sentence, and below it how high the body hangs.
Headline wayHeadline(const build::Build&, const WayFound&);
/// How high it hangs for each part, and how near it passes on the way down, with the moves.
sheet::Drawing wayView(const build::Build&, const Overlay&, const WayFound&, double width, double height, const sheet::Format&);

} // namespace gorvet::analysis
