#include "analysis/bench_parts.hpp"
#include "analysis/finding_maker.hpp"
#include "analysis/fixtures.hpp"
#include "analysis/issued.hpp"
#include "analysis/joins.hpp"
#include "analysis/parts.hpp"
#include "analysis/service.hpp"
#include "analysis/steel_views.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

class MakeFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void make() {
        addRemarks(r_.welds->remarks, "make.", "welds", "");
        for (const auto& [id, mount] : b_.mounts)
            if (std::find(r_.mount_ids.begin(), r_.mount_ids.end(), id) == r_.mount_ids.end()) {
                const std::string name = nameOf(b_, mount.body_point);
                add(Severity::Warn, "make.mount-waits", name, "Marginal",
                    fmt::format("The mount {} waits until the body has a place and its point is fixed.", name),
                    "Pin the body on Sit first.")
                    .tag = fmt::format("mount:{}", id.value);
            }
        for (size_t i = 0; i < r_.mounts.size(); ++i) {
            const auto& m = r_.mounts[i];
            if (m.verdict == PlanVerdict::Holds) continue;
            Finding& f = add(severityOf(m.verdict), "make.mount-" + m.code, m.name, verdictWord(m.verdict), m.sentence, m.remedy);
            f.figure = m.figure;
            f.need = m.need;
            f.station_mm = m.station_mm;
            f.brief = "mount " + m.name;
            f.tag = fmt::format("mount:{}", r_.mount_ids[i].value);
        }
        if (!b_.crossmember) return;
        if (!r_.crossmember->possible) {
            add(Severity::Warn, "make.crossmember-waits", "crossmember", "Marginal",
                fmt::format("The crossmember waits for {}.", r_.crossmember->waiting_for), "")
                .tag = "crossmember";
            return;
        }
        for (const auto& remark : r_.crossmember->remarks) {
            Finding& f = add(severityOf(remark.verdict), "make.crossmember-" + remark.code, "crossmember",
                             verdictWord(remark.verdict), remark.sentence, remark.remedy);
            f.figure = remark.figure;
            f.need = remark.need;
            f.station_mm = r_.crossmember->station_mm;
            f.brief = "crossmember";
            f.tag = "crossmember";
        }
    }
};

} // namespace

void addMakeFindings(const Build& b, const Results& r, std::vector<Finding>& out) {
    MakeFinder(b, r, out).make();
    addPartFindings(b, r, out);
    addServiceFindings(b, r, out);
    addJoinFindings(b, r, out);
    addOrderFindings(b, r, out);
    addWeldFindings(b, r, out);
    addFixtureFindings(b, r, out);
    addIssueFindings(b, r, out);
}

} // namespace gorvet::analysis
