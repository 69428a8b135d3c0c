#pragma once

#include "analysis/results.hpp"
#include "tape/alignment.hpp"
#include "tape/gaps.hpp"
#include "tape/survey_sheet.hpp"

namespace gorvet::analysis {

/// What stands below the frame's figures on the Tape sheet: set-ups as they were found, what moved since the session before,
/// gaps.
std::vector<tape::SideLine> surveyLines(const build::Build&, const Results&, build::SubjectId);

/// "3.2 ± 0.4 mm/m along" for what was found of a set-up; "taken as level" where nothing tells.
std::string setupWords(const tape::SetUp&, const tape::AdjustedSetUp&, units::LengthStep);

/// Whether this reading was taken because an earlier one was to be read again.
bool takenAgain(const build::Build&, build::ReadingId);

/// What was read at the wheels.
tape::AlignmentInput alignmentInput(const build::Build&);

/// The gaps of a build in the order they were taken.
std::vector<tape::GapReading> gapReadings(const build::Build&);

} // namespace gorvet::analysis
