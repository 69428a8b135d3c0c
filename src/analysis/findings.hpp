#pragma once

#include "analysis/results.hpp"

namespace gorvet::analysis {

/// All findings of a build, by bench, worst first. Everything in `Results` but `findings` must be filled in.
std::vector<Finding> findAll(const build::Build&, const Results&);

/// Puts what of the build's file can't be read before all other findings, and on every sheet. Nothing when there is no damage.
void sayDamage(Results&, const std::vector<std::string>& damage);

/// By bench, in the order of the table of benches, worst first.
void sortFindings(std::vector<Finding>&);

/// "Bl–Dr" for a reading, "height of Al" for one with a single point.
std::string readingName(const tape::Survey&, int reading);

} // namespace gorvet::analysis
