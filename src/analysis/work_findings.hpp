#pragma once

#include "analysis/results.hpp"

namespace gorvet::analysis {

/// Findings of the order of work; appended to `out`. `Results::work` must be filled in.
void addWorkFindings(const build::Build&, const Results&, std::vector<Finding>& out);

} // namespace gorvet::analysis
