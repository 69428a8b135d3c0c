#pragma once

#include "analysis/results.hpp"

namespace gorvet::analysis {

/// Findings beyond the readings and the frame's own figures: what was found at points and parts, the drawing, the datum, what is
/// only assumed. Appended to `out`.
void addSurveyFindings(const build::Build&, const Results&, build::SubjectId, std::vector<Finding>& out);

} // namespace gorvet::analysis
