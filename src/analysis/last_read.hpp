#pragma once

#include "analysis/results.hpp"

namespace gorvet::analysis {

/// The newest figure that was read: a reading of the subject's survey, or a check at a hold point; what the call-out shows.
struct LastRead {
    std::string name;  ///< "Bl–Dr"
    std::string value; ///< in the build's unit
    std::string word;  ///< Agrees, Doubtful, Re-tape; a check: Agrees or Out
    sheet::Severity severity = sheet::Severity::Good;
    std::string sentence; ///< "the rest say 1691.9"; may be empty
    std::uint32_t id = 0;
};
std::optional<LastRead> lastRead(const build::Build&, const Results&, build::SubjectId);

} // namespace gorvet::analysis
