#pragma once

#include "analysis/bench.hpp"
#include "analysis/listing.hpp"
#include "make/join.hpp"

/// How each part is joined to what is there: list, page, findings, JSON.
namespace gorvet::analysis {

struct Joined {
    make::JoinIn input;
    make::JoinPlan plan;
};
/// Of parts that are made and are on the car, those that are joined to it.
std::vector<Joined> joinsOf(const build::Build&, const Results&);
Listing joinsList(const build::Build&, const Results&, build::SubjectId);
Headline joinsHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> joinPages(const build::Build&, const Results&);
void addJoinFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::string makeJoinsJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
