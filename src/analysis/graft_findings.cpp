// Findings of pieces of other frames.
#include "analysis/finding_maker.hpp"
#include "analysis/graft.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

class GraftFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void find() {
        for (const WorkedGraft& g : workedGrafts(b_, r_)) {
            const std::string& name = g.graft.name;
            const auto tagged = [&](Finding& f, std::string brief) {
                f.tag = "graft:" + name;
                f.brief = std::move(brief);
                f.station_mm = g.graft.joint.value;
            };
            if (!g.waits.empty())
                tagged(add(Severity::Warn, "stretch.graft-waits", name, "Waiting", g.waits,
                           "Give it on Stretch, or measure it on Tape."),
                       name + " waits");
            if (!g.plan.missing.empty()) continue;
            for (const Remark& remark : g.plan.remarks) {
                Finding& f = add(sheet::severityOf(remark.verdict), "stretch." + remark.code, name, verdictWord(remark.verdict),
                                 remark.sentence, remark.remedy);
                f.figure = remark.figure;
                f.need = remark.need;
                tagged(f, fmt::format("{} {}", name, remark.code.substr(remark.code.find('-') + 1)));
            }
        }
    }
};

} // namespace

void addGraftFindings(const Build& b, const Results& r, std::vector<Finding>& out) { GraftFinder(b, r, out).find(); }

} // namespace gorvet::analysis
