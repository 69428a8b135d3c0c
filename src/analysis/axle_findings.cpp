// Findings of axles that are made narrower or wider.
#include "analysis/axle.hpp"
#include "analysis/finding_maker.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

class AxleFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void find() {
        for (const WorkedAxle& a : workedAxles(b_, r_)) {
            const std::string subject = fmt::format("{} axle", word(a.end));
            const auto tagged = [&](Finding& f, std::string brief) {
                f.tag = fmt::format("track:{}", word(a.end));
                f.brief = std::move(brief);
            };
            for (const Remark& remark : a.plan.remarks) {
                Finding& f = add(sheet::severityOf(remark.verdict), "stretch.axle-" + remark.code, subject,
                                 verdictWord(remark.verdict), remark.sentence, remark.remedy);
                f.figure = remark.figure;
                f.need = remark.need;
                tagged(f, fmt::format("{} {}", word(a.end), remark.code));
            }
            if (a.plan.changes && !a.plan.missing.empty()) {
                std::string list;
                for (const std::string& m : a.plan.missing) list += (list.empty() ? "" : "; ") + m;
                tagged(add(Severity::Warn, "stretch.axle-unsaid", subject, "Waiting",
                           fmt::format("The {} is not judged whole. Missing: {}.", subject, list),
                           fmt::format("Measure it and say it: track {} perches 980 flange 62 brake 95.", word(a.end))),
                       fmt::format("{} axle unsaid", word(a.end)));
            }
        }
    }
};

} // namespace

void addAxleFindings(const Build& b, const Results& r, std::vector<Finding>& out) { AxleFinder(b, r, out).find(); }

} // namespace gorvet::analysis
