#pragma once

#include "analysis/results.hpp"
#include "build/edit.hpp"
#include "sit/cut_map.hpp"

/// Cuts of the body that are kept in the build: steps of Work, drawn over by hand, compared with how they came out.
namespace gorvet::analysis {

/// The change that keeps the allowed cuts of a map: their longest outer line, along the body's own axes. Those kept before give
/// way, but for what was drawn by hand or measured since. Fails with Conflict when nothing can be kept.
Result<build::Edit> keepCuts(const build::Build&, const Results&, const sit::CutMap&);

/// The change that moves one corner of a kept cut to a place in the chassis frame, as the body sits: drawn by hand from then on.
Result<build::Edit> moveCutCorner(const build::Build&, const Results&, build::PlannedCutId, size_t corner,
                                  const shape::Point3& at);

/// Findings on kept cuts: the body sits elsewhere by now; cut short; cut too far.
std::vector<Finding> keptCutFindings(const build::Build&, const Results&);

/// A kept cut's corners in the chassis frame, as the body sits.
std::vector<shape::Point3> keptCutPlaces(const Results&, const build::PlannedCut&);

} // namespace gorvet::analysis
