#pragma once

#include "analysis/slow.hpp"
#include "store/store.hpp"

namespace gorvet::cli {

/// Makes what takes seconds, and says on standard error what is waited for and what can't be read. Which commands wait:
/// `findings` and `export` for what the sheets show, `overlay` for what it prints, `scan lay` for the scans alone.
void waitFor(const store::Store&, const build::Build&, analysis::Results&, const std::vector<std::string_view>& keys);

} // namespace gorvet::cli
