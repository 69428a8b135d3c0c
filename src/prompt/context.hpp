#pragma once

#include "analysis/results.hpp"
#include "entry/entry.hpp"

/// What the entry line must know beyond the build: which readings are to be taped again, which steps of work can be ticked.
/// The one place that knows both the grammar and the results; window and command line share it.
namespace gorvet::prompt {

entry::Context contextFor(const analysis::Results&, build::SubjectId, const std::string& who, const std::string& now_utc);

/// Lets drawings be handed out: build and results must outlive the context.
void letIssue(entry::Context&, const build::Build&, const analysis::Results&);

} // namespace gorvet::prompt
