#pragma once

#include "tape/network.hpp"

namespace gorvet::tape {

/// Looks for points (and the survey as a whole) that would fit their readings as well in a mirrored place, and for points
/// that would fit clearly better there: those are moved (`mended`), and the network must be adjusted again.
/// `sd_mm`: 1σ of each coordinate, to tell a true mirror image from the same place.
std::vector<Mirror> findMirrors(Network&, const std::vector<double>& sd_mm);

} // namespace gorvet::tape
