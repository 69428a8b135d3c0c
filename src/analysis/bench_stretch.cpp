#include "analysis/axle.hpp"
#include "analysis/bench_parts.hpp"
#include "analysis/frame.hpp"
#include "analysis/graft.hpp"
#include "analysis/holes.hpp"
#include "analysis/json.hpp"
#include "analysis/let_in.hpp"
#include "analysis/origin.hpp"
#include "analysis/pages.hpp"
#include "analysis/scans.hpp"
#include "analysis/spine.hpp"
#include "analysis/stock_sizes.hpp"
#include "analysis/width.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

/// Why the piece is longer than the change, or shorter.
std::string whyAsLong(const Build& b, const stretch::Plan& p, double length_mm) {
    const auto step = b.settings.length_step;
    const auto len = [&](double mm) { return units::formatSmall(mm, step); };
    const double differs = length_mm - std::abs(p.change_mm), gap = b.stretch.root_gap.value, kerf = b.stretch.kerf.value;
    if (std::abs(differs) < 0.05) return "";
    const double slope = differs - (p.shortens ? gap : kerf - 2 * gap);
    std::string why = p.shortens
                          ? fmt::format(": {} more comes out, as the weld stands in a root gap of {}", len(differs), len(gap))
                          : fmt::format(": the piece is {} {}, as the saw takes {} and the two welds stand in root gaps of {}",
                                        len(std::abs(differs)), differs < 0 ? "shorter" : "longer", len(kerf), len(gap));
    if (std::abs(slope) > 0.05) why += fmt::format(", and the rail slopes there ({})", len(slope));
    return why;
}

/// The reasons that stand among the findings.
std::string whyNot(const Results& r) {
    const Finding* first = nullptr;
    size_t count = 0;
    for (const Finding& f : r.findings) {
        if (f.bench() != "stretch" || f.severity == sheet::Severity::Good) continue;
        ++count;
        if (!first || (f.severity == sheet::Severity::Bad && first->severity != sheet::Severity::Bad)) first = &f;
    }
    if (!first) return ".";
    return count == 1 ? ": " + first->sentence : fmt::format(", for {} reasons; the first: {}", count, first->sentence);
}

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
    if (auto spine = spineSentence(b, r)) {
        h.sentence = std::move(*spine);
        h.below = fmt::format("The wheelbase changes by {}{}. ", p.change_mm < 0 ? "−" : "+", by);
        h.below += p.verdict == PlanVerdict::Holds
                       ? std::string("The plan holds.")
                       : fmt::format("The plan {}{}", p.verdict == PlanVerdict::Marginal ? "is marginal" : "fails", whyNot(r));
        return h;
    }
    const double length = p.left.known ? p.left.length_mm : p.right.length_mm;
    const Origin origin = originOf(b, r);
    const std::string from = origin.at_axle ? "" : " " + origin.from; // usual is the axle: then the sheet's note says it
    h.sentence = p.shortens ? fmt::format("Cut at {}{} and take out {} of each rail.",
                                          units::formatLength(*r.stretch.input().cut_station_mm, step), from,
                                          units::formatLength(length, step, true))
                            : fmt::format("Cut at {}{} and let in a new piece of {}.",
                                          units::formatLength(*r.stretch.input().cut_station_mm, step), from,
                                          units::formatLength(length, step, true));
    h.below = fmt::format("The wheelbase changes by {}{}{}. ", p.change_mm < 0 ? "−" : "+", by, whyAsLong(b, p, length));
    if (p.sleeve) h.below += fmt::format("Inner sleeve {} long. ", units::formatLength(p.sleeve->length_mm, step, true));
    h.below += p.verdict == PlanVerdict::Holds
                   ? std::string("The plan holds.")
                   : fmt::format("The plan {}{}", p.verdict == PlanVerdict::Marginal ? "is marginal" : "fails", whyNot(r));
    return h;
}

Headline stretchHeadlineOf(const Build& b, const Results& r, SubjectId) { return stretchHeadline(b, r); }

Drawing stretchViewOf(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                      const Format& f) {
    if (r.stretch->spine) return spineDrawing(b, r, width, height, f);
    return stretchView(b, r, o, width, height, f);
}

void addStretchPages(const Build& b, const Results& r, std::vector<Drawing>& pages) {
    if (r.stretch->status == stretch::Status::Planned)
        pages.push_back(benchPage(
            b, r, "Stretch: the cut", "stretch", the_chassis,
            {hot_work, "Stands each side of the cut, and the rails braced to each other, before the first cut.", local_rules}));
    for (Drawing& page : framePages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : spinePages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : stockPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : axlePages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : widthPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : holePages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : graftPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : letInPages(b, r)) pages.push_back(std::move(page));
}

void findingsOfStretch(const Build& b, const Results& r, std::vector<Finding>& out) {
    addStretchFindings(b, r, out);
    addFrameFindings(b, r, out);
    addAxleFindings(b, r, out);
    addWidthFindings(b, r, out);
    addHoleFindings(b, r, out);
    addGraftFindings(b, r, out);
    addLetInFindings(b, r, out);
}

std::optional<Card> card(const Build& b, const Results& r, SubjectId subject, const Tag& tag) {
    if (tag.kind == "track") return axleCard(b, r, tag.rest);
    if (tag.kind == "graft") return graftCard(b, r, tag.rest);
    if (tag.kind == "hole") return holeCard(b, r, tag.rest);
    if (tag.kind == "narrow") return narrowCard(b, r);
    if (tag.kind == "floor-edge") return edgeCard(b, r, tag.rest);
    if (tag.kind == "let-in") return letInCard(b, r, tag.rest);
    auto found = stretchCard(b, r, subject, tag);
    return found ? found : frameCard(b, r, subject, tag);
}

std::vector<BenchView> views() {
    std::vector<BenchView> all{{"sheet", "The sheet", stretchViewOf}};
    all.insert(all.end(), frameViews().begin(), frameViews().end());
    all.push_back({"stock", "Stock", stockDrawing, {}, stockHeadline});
    all.push_back({"track", "Track", axleDrawing, {}, axleHeadline});
    all.push_back({"holes", "Holes", nullptr, {slow::frame}, holesHeadline, holesList});
    all.push_back({"width", "Width", widthDrawing, {}, widthHeadline});
    all.push_back({"graft", "Joined", graftDrawing, {slow::frame}, graftHeadline});
    all.push_back({"let-in", "Let in", letInDrawing, {}, letInHeadline});
    return all;
}

} // namespace

extern const BenchInfo stretch_bench; // of the table
const BenchInfo stretch_bench{"stretch",
                              "Stretch",
                              "How is the wheelbase changed, and does it hold?",
                              "the change of wheelbase",
                              [](const Build& b, const Results& r) {
                                  return !b.grafts.empty() || b.narrowing || !b.floor_edges.empty() || !b.let_in.empty() ||
                                         !b.rail_holes.empty() || r.stretch->status != stretch::Status::Waiting ||
                                         r.seat->change_mm.has_value();
                              },
                              stretchHeadlineOf,
                              stretchLacks,
                              views(),
                              findingsOfStretch,
                              card,
                              addStretchPages,
                              [](const Build& b, const Results& r, FileKeeper& out) {
                                  addFrameFiles(b, r, out);
                                  addSpineFiles(b, r, out);
                                  addWidthFiles(b, r, out);
                                  addGraftFiles(b, r, out);
                              },
                              [](const Build&, const Results& r) { return stretchJson(r); },
                              &frame_nodes,
                              false,
                              nullptr,
                              {{"plan", [](const Build&, const Results& r) { return stretchJson(r); }},
                               {"splice", spliceJson},
                               {"track", axleJson},
                               {"holes", holesJson},
                               {"width", widthJson},
                               {"graft", graftJson},
                               {"let-in", letInJson}}};

} // namespace gorvet::analysis
