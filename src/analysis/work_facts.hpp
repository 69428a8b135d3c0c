#pragma once

#include "analysis/results.hpp"

namespace gorvet::analysis {

/// What the order of work must know, from the build and the results of the other benches (stretch, make must be filled in).
work::Facts workFacts(const build::Build&, const Results&);
/// Whether there is anything to be done that the order must hold: planned, ticked, or a job, row or part of one's own. Else it
/// has the first steps that every build begins with.
bool workBegun(const build::Build&, const Results&);
/// So many hours after a moment, seconds since 1970; none where the moment is none.
std::optional<long long> hoursAfter(const std::string& at_utc, double hours);
/// Hours that a seized row of the register soaks before it is tried: a day, where nothing else is said.
double soakHours(const build::Release&);
/// Until when (seconds since 1970, UTC) it soaks; none: it does not, or it is over.
std::optional<long long> soaksUntil(const build::Release&);
/// The step at which the body is lifted for the first time; nullptr: it is off, or stays on.
const work::Step* firstLift(const work::Order&);
/// What was ticked and read, oldest first.
work::Record workRecord(const build::Build&);

} // namespace gorvet::analysis
