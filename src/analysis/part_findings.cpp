// Findings of parts of new steel.
#include "analysis/finding_maker.hpp"
#include "analysis/parts.hpp"

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
            for (const Remark& remark : node->remarks) {
                Finding& f = add(severityOf(remark.verdict), "make." + remark.code, in.name, verdictWord(remark.verdict),
                                 fmt::format("{}: {}", in.name, remark.sentence), remark.remedy);
                f.figure = remark.figure;
                f.need = remark.need;
                if (!node->at.empty()) f.station_mm = node->at.front().x_mm;
                f.brief = in.name;
                f.tag = tag;
            }
            asMade(in, *node, tag);
        }
    }

private:
    /// What came out otherwise than it was to be, by more than its own ± and what a saw gives.
    void asMade(const make::PartIn& in, const make::PartPlan& p, const std::string& tag) {
        const SteelPart* part = steelPartNamed(b_, in.name);
        constexpr double allowed_mm = 2;
        for (const PartFigure& f : part->made) {
            const auto planned = in.figures.find(f.name);
            if (f.name != "long" && planned == in.figures.end()) continue;
            const double wanted = f.name == "long" ? p.size_mm.value : planned->second.value, off = f.value.value - wanted;
            if (std::abs(off) <= allowed_mm) continue;
            Finding& found =
                add(sheet::Severity::Warn, "make.part-made", in.name, "Marginal",
                    fmt::format("{} came out with its {} {:.1f} mm {} than it was to be.", in.name, f.name, std::abs(off),
                                off > 0 ? "more" : "less"),
                    fmt::format("Plan it as it is: part {} {} {:g}; or make it anew.", in.name, f.name, f.value.value));
            found.figure = fmt::format("{:.1f} mm", off);
            found.need = fmt::format("± {:g} mm", allowed_mm);
            found.tag = tag;
        }
    }
};

} // namespace

void addPartFindings(const Build& b, const Results& r, std::vector<Finding>& out) { PartFinder(b, r, out).parts(); }

} // namespace gorvet::analysis
