#pragma once

#include "analysis/results.hpp"

/// A subject's survey made from the build, and all that Tape computes from it. Internal to this room.
namespace gorvet::analysis {

/// Solves, judges, ranks, and compares with the session before and with the drawing; takes over from `previous` what has the same
/// input.
void solveSurvey(SurveyOf&, const SurveyOf* previous, const Progress&);

/// What was found at points and parts of the chassis and body.
tape::RepairView repairOf(const build::Build&, const Results&, std::vector<build::FlawId>& flaw_ids);

} // namespace gorvet::analysis
