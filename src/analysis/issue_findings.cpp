// Findings of drawings that no longer hold.
#include "analysis/finding_maker.hpp"
#include "analysis/issued.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

class IssueFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void issues() {
        const IssuesNow now = issuesNow(b_, r_);
        for (const std::string& thing : thingsOf(now.since)) {
            if (made(thing)) continue; // it is cut: what is off stands with how it came out
            std::vector<PieceChange> changes;
            for (const PieceChange& c : now.since)
                if (c.thing == thing && c.matters && c.kind != PieceChange::Kind::New) changes.push_back(c);
            if (changes.empty()) continue;
            const Issue& last = now.records.back().issue;
            const std::string called = thingCalled(thing, changes.front().piece);
            Finding& f =
                add(sheet::Severity::Warn, "make.issue-old", called, "Marginal",
                    fmt::format("The drawing of {} that was handed out as {} no longer holds: {}.", called, last.name,
                                thingWords(changes, thing)),
                    "Take the old sheet back and hand the new one out: issue. What is cut already is measured against the new.");
            f.brief = called + " redrawn";
            f.tag = thing;
        }
    }

private:
    bool made(const std::string& thing) const {
        const SteelPart* part = thing.starts_with("part:") ? steelPartNamed(b_, thing.substr(5)) : nullptr;
        return part && !part->made.empty();
    }
};

} // namespace

void addIssueFindings(const Build& b, const Results& r, std::vector<Finding>& out) {
    if (!b.issues.empty()) IssueFinder(b, r, out).issues();
}

} // namespace gorvet::analysis
