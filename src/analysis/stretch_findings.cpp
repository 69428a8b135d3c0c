#include "analysis/bench_parts.hpp"
#include "analysis/finding_maker.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

class StretchFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void stretch() {
        const auto& plan = *r_.stretch;
        if (plan.status == stretch::Status::Waiting && r_.seat->change_mm && std::abs(*r_.seat->change_mm) >= 0.5) {
            add(Severity::Warn, "stretch.waits", "rails", "Marginal",
                fmt::format("The wheelbase must change by {}, and the plan waits for {}.", signedLength(*r_.seat->change_mm),
                            plan.waiting_for),
                "Give it on Stretch.")
                .brief = "no cut yet";
        }
        if (plan.status != stretch::Status::Planned) return;
        for (const auto& near : plan.near) {
            if (near.verdict == PlanVerdict::Holds) continue;
            const bool inside = near.distance_mm <= 0 && plan.shortens;
            Finding& f = add(
                severityOf(near.verdict), inside ? "stretch.in-the-piece" : "stretch.near", near.obstacle.name,
                verdictWord(near.verdict),
                inside ? fmt::format("The {} {} stands in the piece that comes out.", near.obstacle.what, near.obstacle.name)
                : near.distance_mm < 0
                    ? fmt::format("The cut stands within the {} {}: it would part it.", near.obstacle.what, near.obstacle.name)
                    : fmt::format("The cut is {} from the {} {}. Needs {}.", len(std::abs(near.distance_mm)), near.obstacle.what,
                                  near.obstacle.name, len(plan.clearance_need_mm)),
                inside ? "Move the cut, or plan a new place for it." : moveRemedy(near));
            f.figure = len(near.distance_mm);
            f.need = len(plan.clearance_need_mm);
            f.station_mm = near.obstacle.station_mm;
            f.brief = near.obstacle.name + " near";
            f.tag = "cut";
        }
        for (const auto& remark : plan.remarks) {
            Finding& f = add(severityOf(remark.verdict), "stretch." + remark.code, "cut", verdictWord(remark.verdict),
                             remark.sentence, remark.remedy);
            f.figure = remark.figure;
            f.need = remark.need;
            f.station_mm = r_.stretch.input().cut_station_mm;
            f.tag = "cut";
            f.brief = remark.code;
            std::replace(f.brief.begin(), f.brief.end(), '-', ' ');
        }
    }

private:
    std::string moveRemedy(const stretch::Near& near) const {
        const double need = r_.stretch->clearance_need_mm - near.distance_mm;
        const bool behind = near.obstacle.station_mm > *r_.stretch.input().cut_station_mm;
        return fmt::format("Move the cut {} {}.", len(std::ceil(need)), behind ? "forward" : "rearward");
    }

    std::string signedLength(double mm) const { return (mm > 0 ? "+" : mm < 0 ? "−" : "") + len(std::abs(mm)); }
};

} // namespace

void addStretchFindings(const Build& b, const Results& r, std::vector<Finding>& out) { StretchFinder(b, r, out).stretch(); }

} // namespace gorvet::analysis
