// Findings of parts of new steel.
#include "analysis/finding_maker.hpp"
#include "analysis/fixtures.hpp"
#include "analysis/joins.hpp"
#include "analysis/part_frame.hpp"
#include "analysis/parts.hpp"
#include "analysis/steel_views.hpp"
#include "analysis/welds.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

class PartFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void parts() {
        for (const auto& node : r_.parts) {
            const make::PartIn& in = node.input();
            const std::string tag = "part:" + in.name;
            if (!in.missing.empty()) {
                std::string list;
                for (const std::string& m : in.missing) list += (list.empty() ? "" : "; ") + m;
                add(sheet::Severity::Warn, "make.part-waits", in.name, "Marginal", fmt::format("{} waits for {}.", in.name, list),
                    "Measure it, or say it.")
                    .tag = tag;
                continue;
            }
            of(node->remarks, in.name, tag, node->at.empty() ? std::nullopt : std::optional(node->at.front().x_mm));
            asMade(in, *node, tag);
            inFrame(in, tag);
        }
    }

    void order() {
        for (const make::PutOn& p : *r_.put_on) {
            if (!p.from.empty()) continue;
            Finding& f = add(sheet::Severity::Bad, "make.order-shut", p.name, "Fails",
                             fmt::format("{} can't be put in straight from any side: {} shut it in.", p.name, p.shut_by),
                             "Before those, or of two pieces that are joined in place.");
            f.brief = p.name;
            f.tag = p.tag;
        }
    }
    void welds() {
        for (const make::WeldRoom& w : *r_.weld_rooms) {
            if (w.shut_mm < least_shut_mm) continue;
            Finding& f = add(sheet::Severity::Bad, "make.weld-shut", w.name, "Fails", weldShutWords(w),
                             "Weld it before that goes on, or place one of them otherwise: tack both and try the torch.");
            f.figure = fmt::format("{:.0f} mm", w.shut_mm);
            f.station_mm = w.at.x_mm;
            f.brief = w.name;
            f.tag = w.tag;
        }
    }
    void fixtures() {
        for (const auto& node : r_.fixtures) {
            const std::string name = node.input().name, tag = "fixture:" + name;
            if (!node.input().missing.empty())
                add(sheet::Severity::Warn, "make.fixture-waits", name, "Marginal",
                    fmt::format("The fixture {} waits for {}.", name, node.input().missing.front()), "Measure it, or say it.")
                    .tag = tag;
            of(node->remarks, name, tag, std::nullopt);
        }
    }
    void joins() {
        std::string unknown, tag; // said once of all
        for (const Joined& j : joinsOf(b_, r_)) {
            std::vector<Remark> own;
            for (const Remark& remark : j.plan.remarks)
                if (remark.code != "join-known" || j.input.bolted) own.push_back(remark);
            of(own, j.input.part, j.input.tag, std::nullopt);
            if (own.size() == j.plan.remarks.size()) continue;
            unknown += (unknown.empty() ? "" : ", ") + j.input.part;
            tag = j.input.tag;
        }
        if (unknown.empty()) return;
        Finding& f = add(sheet::Severity::Warn, "make.join-known", "joins", "Marginal",
                         fmt::format("What {} joined to is taken as mild steel: nobody said so.",
                                     unknown.find(',') == std::string::npos ? unknown + " is" : unknown + " are"),
                         "A magnet, a file and its papers tell: frame-metal mild, or part o1 upon mild thick 3.");
        f.brief = "joins";
        f.tag = tag;
    }

private:
    /// What the frame hands to it, by Stretch's load cases.
    void inFrame(const make::PartIn& in, const std::string& tag) {
        if (partLoose(b_, r_, in.name))
            add(sheet::Severity::Warn, "make.part-loose", in.name, "Marginal",
                fmt::format("A bar of {} meets nothing of the frame: it is in no strength figure.", in.name),
                "Its ends reach a rail or another bar within 150 mm: say other places.")
                .tag = tag;
        const auto bears = partBears(b_, r_, in.name);
        if (!bears || bears->share() <= 1) return;
        Finding& f = add(sheet::Severity::Bad, "make.part-bears", in.name, "Fails",
                         fmt::format("{} bears {:.0f} MPa in {} at {:.0f}, and may bear {:.0f}.", in.name, bears->stress_mpa,
                                     bears->bar, bears->at.x_mm, bears->may_mpa),
                         fmt::format("By the frame's load case {}: thicker or deeper bars, or bring its ends to a crossmember. "
                                     "Indicative, no certificate: have it approved by licensed people.",
                                     bears->case_name));
        f.figure = fmt::format("{:.0f} MPa", bears->stress_mpa);
        f.need = fmt::format("{:.0f} MPa", bears->may_mpa);
        f.station_mm = bears->at.x_mm;
        f.brief = in.name;
        f.tag = tag;
    }
    void of(const std::vector<Remark>& remarks, const std::string& name, const std::string& tag, std::optional<double> station) {
        for (const Remark& remark : remarks) {
            Finding& f = add(severityOf(remark.verdict), "make." + remark.code, name, verdictWord(remark.verdict),
                             fmt::format("{}: {}", name, remark.sentence), remark.remedy);
            f.figure = remark.figure;
            f.need = remark.need;
            f.station_mm = station;
            f.brief = name;
            f.tag = tag;
        }
    }
    /// What came out otherwise than it was to be, by more than its own ± and what a saw gives.
    void asMade(const make::PartIn& in, const make::PartPlan& p, const std::string& tag) {
        const SteelPart* part = steelPartNamed(b_, in.name);
        for (const PartFigure& f : part->made) {
            const auto planned = f.name == "long" ? std::optional(p.size_mm.value) : plannedFigure(*part, f.name);
            if (!planned) continue;
            constexpr double allowed_mm = 2, allowed_rad = 0.0174533, allowed_count = 0.5;
            const PartUnit unit = partUnitOf(*part, f.name);
            const double off = f.value.value - *planned, allowed = unit == PartUnit::Length  ? allowed_mm
                                                                   : unit == PartUnit::Angle ? allowed_rad
                                                                                             : allowed_count;
            if (std::abs(off) <= allowed) continue;
            const auto in_words = [&](double value) { return partFigureWords(unit, value, b_.settings.length_step); };
            Finding& found =
                add(sheet::Severity::Warn, "make.part-made", in.name, "Marginal",
                    fmt::format("{} came out with its {} {} {} than it was to be.", in.name, f.name, in_words(std::abs(off)),
                                off > 0 ? "more" : "less"),
                    fmt::format("Plan it as it is: part {} {} {}; or make it anew.", in.name, f.name, f.value.typed));
            found.figure = in_words(off);
            found.need = "± " + in_words(allowed);
            found.tag = tag;
        }
    }
};

} // namespace

void addPartFindings(const Build& b, const Results& r, std::vector<Finding>& out) { PartFinder(b, r, out).parts(); }
void addJoinFindings(const Build& b, const Results& r, std::vector<Finding>& out) { PartFinder(b, r, out).joins(); }
void addOrderFindings(const Build& b, const Results& r, std::vector<Finding>& out) { PartFinder(b, r, out).order(); }
void addWeldFindings(const Build& b, const Results& r, std::vector<Finding>& out) { PartFinder(b, r, out).welds(); }
void addFixtureFindings(const Build& b, const Results& r, std::vector<Finding>& out) { PartFinder(b, r, out).fixtures(); }

} // namespace gorvet::analysis
