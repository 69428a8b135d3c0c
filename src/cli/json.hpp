#pragma once

#include "analysis/results.hpp"

#include <map>
#include <string>

/// Results as JSON, as docs/cli.md describes them. Lengths in mm (`_mm`), angles in degrees (`_deg`).
namespace gorvet::cli {

/// `lines`: the line of each reading in the CSV file it came from; empty: its place in the build.
std::string tapeJson(const analysis::SurveyOf&, const std::vector<analysis::Finding>&,
                     const std::map<build::ReadingId, int>& lines);
std::string sitJson(const build::Build&, const analysis::Results&);
std::string stretchJson(const analysis::Results&);
std::string makeJson(const analysis::Results&);
std::string workJson(const build::Build&, const analysis::Results&);
std::string findingsJson(const std::vector<analysis::Finding>&);

} // namespace gorvet::cli
