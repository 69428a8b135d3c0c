#pragma once

#include "analysis/results.hpp"

namespace gorvet::analysis {

/// What the order of work must know, from the build and the results of the other benches (stretch, make must be filled in).
work::Facts workFacts(const build::Build&, const Results&);
/// Whether there is anything to be done that the order must hold: planned, ticked, or a job, row or part of one's own. Else it
/// has the first steps that every build begins with.
bool workBegun(const build::Build&, const Results&);
/// What was ticked and read, oldest first.
work::Record workRecord(const build::Build&);

} // namespace gorvet::analysis
