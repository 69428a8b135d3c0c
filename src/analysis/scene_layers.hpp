#pragma once

#include "analysis/overlay.hpp"

/// What the view of the scans shows beside them: new steel, and what is to be taken away.
namespace gorvet::analysis {

/// The crossmember as it is planned and the sleeves in the rails, in the chassis frame. Empty while nothing is planned.
shape::Mesh newSteelMesh(const Results&);
/// By triangle of the whole body: whether it lies inside a cut that is kept.
std::vector<bool> inKeptCuts(const build::Build&, const Overlay&);
/// The sheet of the body inside the cuts that are kept, along the body's own axes.
shape::Mesh toRemoveMesh(const build::Build&, const Overlay&);

} // namespace gorvet::analysis
