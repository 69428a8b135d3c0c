#pragma once

#include "build/build.hpp"

#include <string_view>
#include <vector>

/// Ready-made lists of jobs for work that is done again and again. They fill in what the build knows and leave hours to who does
/// the work.
namespace gorvet::build {

struct JobList {
    const char* key;  ///< "cab-off"
    const char* what; ///< "the body comes off its frame"
};
const std::vector<JobList>& jobLists();

struct ReadyJobs {
    std::vector<Job> jobs;         ///< in their order, without ids; those whose name the build has already are left out
    std::vector<Release> releases; ///< what usually ties: to be struck out where the car has none of it
};
/// What the list brings to this build; empty for a key that there is not.
ReadyJobs readyJobs(const Build&, std::string_view key);

} // namespace gorvet::build
