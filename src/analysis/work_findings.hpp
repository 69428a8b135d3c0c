#pragma once

#include "analysis/results.hpp"

namespace gorvet::analysis {

/// Appends one, and returns it for what is said besides. Internal to this bench.
Finding& addFinding(std::vector<Finding>& out, sheet::Severity, const char* code, std::string subject, const char* word,
                    std::string sentence, std::string remedy, std::string brief, std::string tag = {});
/// Findings of the order of work; appended to `out`. `Results::work` must be filled in.
void addWorkFindings(const build::Build&, const Results&, std::vector<Finding>& out);
/// The same of jobs of one's own, of what is awaited, and of the register.
void addOwnFindings(const build::Build&, const Results&, std::vector<Finding>& out);

} // namespace gorvet::analysis
