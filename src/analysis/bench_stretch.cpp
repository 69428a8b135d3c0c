#include "analysis/bench_parts.hpp"
#include "analysis/json.hpp"
#include "analysis/origin.hpp"
#include "analysis/pages.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

Headline stretchHeadline(const Build& b, const Results& r) {
    const auto step = b.settings.length_step;
    const auto& p = *r.stretch;
    if (const auto lacks = stretchLacks(b, r, the_chassis);
        p.status == stretch::Status::Waiting && !r.seat->change_mm && !lacks.empty())
        return lackHeadline(lacks);
    if (p.status == stretch::Status::NoChange) return {"The wheelbase stays as it is: nothing to cut.", ""};
    const std::string by = units::formatLength(std::abs(p.change_mm), step, true);
    if (p.status == stretch::Status::Waiting)
        return {fmt::format("{} {}: where may it be cut?", p.change_mm < 0 ? "Take out" : "Put in", by),
                "The plan waits for " + p.waiting_for + "."};
    Headline h;
    const double length = p.left.known ? p.left.length_mm : p.right.length_mm;
    const Origin origin = originOf(b, r);
    const std::string from = origin.at_axle ? "" : " " + origin.from; // usual is the axle: then the sheet's note says it
    h.sentence = p.shortens ? fmt::format("Cut at {}{} and take out {} of each rail.",
                                          units::formatLength(*r.stretch.input().cut_station_mm, step), from,
                                          units::formatLength(length, step, true))
                            : fmt::format("Cut at {}{} and let in a new piece of {}.",
                                          units::formatLength(*r.stretch.input().cut_station_mm, step), from,
                                          units::formatLength(length, step, true));
    h.below = fmt::format("The wheelbase changes by {}{}. ", p.change_mm < 0 ? "−" : "+", by);
    if (p.sleeve) h.below += fmt::format("Inner sleeve {} long. ", units::formatLength(p.sleeve->length_mm, step, true));
    h.below += fmt::format("The plan {}.", p.verdict == PlanVerdict::Holds      ? "holds"
                                           : p.verdict == PlanVerdict::Marginal ? "is marginal: see the tags"
                                                                                : "fails: see the tags");
    return h;
}

Headline headlineOf(const Build& b, const Results& r, SubjectId) { return stretchHeadline(b, r); }

Drawing view(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height, const Format& f) {
    return stretchView(b, r, o, width, height, f);
}

void addPages(const Build& b, const Results& r, std::vector<Drawing>& pages) {
    if (r.stretch->status == stretch::Status::Planned)
        pages.push_back(benchPage(
            b, r, "Stretch: the cut", "stretch", the_chassis,
            {hot_work, "Stands each side of the cut, and the rails braced to each other, before the first cut.", local_rules}));
}

} // namespace

extern const BenchInfo stretch_bench; // of the table
const BenchInfo stretch_bench{
    "stretch",
    "Stretch",
    "How is the wheelbase changed, and does it hold?",
    "the change of wheelbase",
    [](const Build&, const Results& r) { return r.stretch->status != stretch::Status::Waiting || r.seat->change_mm.has_value(); },
    headlineOf,
    stretchLacks,
    {{"sheet", "The sheet", view}},
    addStretchFindings,
    stretchCard,
    addPages,
    nullptr,
    [](const Build&, const Results& r) { return stretchJson(r); }};

} // namespace gorvet::analysis
