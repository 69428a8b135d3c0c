#pragma once

#include <string>
#include <vector>

namespace gorvet::cli {

/// `gorvet-cli what-if`: the lines are typed on a copy of the build, nothing is kept; prints what they would change. `scans`:
/// with the clearances of the scans, which take some seconds.
int whatIf(const std::string& path, const std::string& subject, const std::vector<std::string>& lines, bool scans);

} // namespace gorvet::cli
