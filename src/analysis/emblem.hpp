#pragma once

#include "analysis/results.hpp"
#include "sheet/drawing.hpp"

namespace gorvet::analysis {

/// What a build is known by in small: The Rule without its words, or the sketch of its kind of frame as long as nothing has a
/// place.
sheet::Drawing emblem(const build::Build&, const Results&, double width, double height, const sheet::Format&);

} // namespace gorvet::analysis
