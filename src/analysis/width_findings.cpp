// Findings of how wide the chassis is made, of rails let into a shell, and of the rails' holes.
#include "analysis/finding_maker.hpp"
#include "analysis/holes.hpp"
#include "analysis/let_in.hpp"
#include "analysis/width.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

class WidthFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void widths() {
        const WorkedWidth w = workedWidth(b_, r_);
        if (w.narrow) addRemarks(w.narrow->remarks, "stretch.", "narrower", "narrow");
        for (const WorkedEdge& e : w.edges) told("stretch.edge-waits", e.edge.name, "floor-edge:" + e.edge.name, e.plan);
    }
    void letIns() {
        for (const WorkedLetIn& l : workedLetIns(b_, r_))
            told("stretch.let-in-waits", l.row.name, "let-in:" + l.row.name, l.plan);
    }
    void holes() {
        for (const WorkedHole& w : workedHoles(b_, r_)) {
            const std::size_t first = out_.size();
            addRemarks(w.plan.remarks, "stretch.", w.input.hole.name, "hole:" + w.input.hole.name);
            for (std::size_t k = first; k < out_.size(); ++k) out_[k].station_mm = w.input.hole.station.value;
        }
    }

private:
    /// What a plan waits for, else what it says of itself.
    template <class P> void told(const char* waits, const std::string& name, const std::string& tag, const P& plan) {
        if (!plan.missing.empty())
            add(Severity::Warn, waits, name, "Waiting", fmt::format("{} waits for {}.", name, plan.missing.front()),
                "Give it on Stretch, or measure it on Tape.")
                .tag = tag;
        addRemarks(plan.remarks, "stretch.", name, tag);
    }
};

} // namespace

void addWidthFindings(const Build& b, const Results& r, std::vector<Finding>& out) { WidthFinder(b, r, out).widths(); }
void addLetInFindings(const Build& b, const Results& r, std::vector<Finding>& out) { WidthFinder(b, r, out).letIns(); }
void addHoleFindings(const Build& b, const Results& r, std::vector<Finding>& out) { WidthFinder(b, r, out).holes(); }

} // namespace gorvet::analysis
