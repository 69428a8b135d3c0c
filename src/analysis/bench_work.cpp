#include "analysis/bench_parts.hpp"
#include "analysis/json.hpp"
#include "analysis/kept_cuts.hpp"
#include "analysis/pages.hpp"
#include "analysis/work_findings.hpp"
#include "sheet/write.hpp"
#include "work/work_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

Headline workHeadline(const Results& r) {
    if (!r.work.made())
        return {"There is nothing to do yet: nothing is planned.",
                "The order of work comes from the plan: a cut on Stretch, mounts or a crossmember on Make."};
    const work::Order& o = *r.work;
    if (!o.next)
        return {"All is done.",
                fmt::format("{}, each ticked with a name.", units::counted(static_cast<std::size_t>(o.done), "a step"))};
    const work::Step& s = o.steps[*o.next];
    Headline h;
    h.sentence = fmt::format("{}: {}.", s.hold ? "Hold point" : "Next", s.title);
    if (h.sentence.size() > 100) h.sentence = fmt::format("{}: step {}.", s.hold ? "Hold point" : "Next", *o.next + 1);
    h.below = fmt::format("{} of {} steps done.", o.done, o.steps.size());
    if (o.body_moves_left)
        h.below += fmt::format(" The body still moves {} {}, no order needs fewer.", o.body_moves_left,
                               o.body_moves_left == 1 ? "time" : "times");
    h.below += o.now.body == build::BodyPlace::On ? " It is on" : " It is off";
    h.below += fmt::format(", the frame {} on {}.", o.now.attitude == Attitude::Inverted ? "upside down" : "right way up",
                           word(o.now.support));
    return h;
}

Headline headlineOf(const Build&, const Results& r, SubjectId) { return workHeadline(r); }

Drawing view(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height, const Format& f) {
    return workView(b, r, o, width, height, f);
}

void addFindings(const Build& b, const Results& r, std::vector<Finding>& out) {
    addWorkFindings(b, r, out);
    for (Finding& f : keptCutFindings(b, r)) out.push_back(std::move(f));
}

void addPages(const Build& b, const Results& r, std::vector<Drawing>& pages) {
    for (Drawing& page : workSheet(b, r)) pages.push_back(std::move(page));
}

void addFiles(const Build& b, const Results& r, FileKeeper& out) {
    if (auto pages = workSheet(b, r); !pages.empty()) {
        numberPages(pages);
        out.keep("order-of-work.pdf", [&](const auto& to) {
            return writePdf(pages, {"Order of work: " + b.settings.name, "Gorvet order of work"}, to);
        });
    }
}

} // namespace

std::vector<Drawing> workSheet(const Build& b, const Results& r) {
    if (!r.work.made()) return {};
    return work::wallSheet(*r.work, b.settings.length_step, titled(b, r, "Order of work"), {local_rules, hot_work, stands});
}

extern const BenchInfo work_bench; // of the table
const BenchInfo work_bench{"work",
                           "Work",
                           "What next, and is it safe?",
                           "the order of work: what next, and is it safe",
                           [](const Build&, const Results& r) { return r.work.made(); },
                           headlineOf,
                           nullptr,
                           {{"sheet", "The sheet", view}},
                           addFindings,
                           workCard,
                           addPages,
                           addFiles,
                           workJson};

} // namespace gorvet::analysis
