// Findings of the wheels.
#include "analysis/finding_maker.hpp"
#include "analysis/wheels.hpp"
#include "drive/degree.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

class WheelFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void wheels() {
        for (const WheelsShown& w : wheelsShown(b_, r_)) {
            const std::string subject = w.plan->name + " wheels", tag = "wheels:" + w.plan->name;
            addRemarks(w.plan->remarks, "drive.", subject, tag);
            if (w.plan->missing.empty() || !w.input->shown()) continue;
            std::string list;
            for (const std::string& m : w.plan->missing) list += (list.empty() ? "" : "; ") + m;
            add(Severity::Warn, "drive.wheel-unsaid", subject, "Waiting",
                fmt::format("The {} are not judged whole. Missing: {}.", subject, list),
                fmt::format("Measure it and say it: hub {0} …, rim {0} {1} …, room … {0} ….", w.plan->name,
                            w.input->wanted ? "wanted" : "fitted"))
                .tag = tag;
        }
    }
    void turns() {
        for (const auto& [id, t] : b_.dial_turns) {
            const drive::RunOut run = drive::runOut(t.readings, t.within ? t.within->value : dial_u95_mm);
            if (dialVerdict(t) != PlanVerdict::Fails) continue;
            const bool taps = run.high_known && run.rest_mm <= run_out_mm;
            Finding& f =
                add(Severity::Bad, "drive.run-out", std::string(word(t.wheel)), "Fails",
                    fmt::format("The {} wheel runs {} by {:.2f} mm.", word(t.wheel),
                                t.way == DialWay::Lateral ? "aside" : "out of round", run.total_mm),
                    taps ? fmt::format("Turn it on its studs or true it {:.0f}° from the valve, forwards: {:.2f} mm stay then.",
                                       run.high_rad.value / drive::one_degree, run.rest_mm)
                         : fmt::format("{:.2f} mm of it is no matter of one side: a wheel shop, or another wheel.", run.rest_mm));
            f.figure = fmt::format("{:.2f} mm", run.total_mm);
            f.need = fmt::format("≤ {:.1f} mm", run_out_mm);
            f.tag = fmt::format("dial:{}", id.value);
        }
    }
    /// Axles that are driven together ask for tyres of one size.
    void together() {
        bool front = false, rear = false;
        for (const auto& [id, e] : b_.drive_ends)
            if (e.kind == DriveEndKind::Pinion) (e.on == Carrier::Front ? front : rear) = true;
        if (!front || !rear) return;
        const Figure* tyres[2] = {nullptr, nullptr};
        const auto all = wheelsShown(b_, r_);
        for (const WheelsShown& w : all) {
            const auto& figures = w.plan->wanted ? w.plan->wanted : w.plan->fitted;
            if (figures && figures->outside_mm) tyres[w.input->front ? 0 : 1] = &*figures->outside_mm;
        }
        if (!tyres[0] || !tyres[1]) return;
        const double share = tyres[0]->value / tyres[1]->value - 1;
        if (std::abs(share) <= 0.01) return;
        Finding& f =
            add(Severity::Bad, "drive.tyres-differ", "front, rear", "Fails",
                fmt::format("The front tyres have {:.0f} mm, the rear ones {:.0f}: driven together the axles wind up and break.",
                            tyres[0]->value, tyres[1]->value),
                "One size all round, or ratios that make up for it, by the same share.");
        f.figure = fmt::format("{:.1f} %", 100 * std::abs(share));
        f.need = "≤ 1 %";
        f.tag = "wheels:front";
    }
};

} // namespace

void addWheelFindings(const Build& b, const Results& r, std::vector<Finding>& out) {
    WheelFinder finder(b, r, out);
    finder.wheels();
    finder.turns();
    finder.together();
}

} // namespace gorvet::analysis
