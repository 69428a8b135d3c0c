#include "analysis/bench_parts.hpp"
#include "analysis/json.hpp"
#include "analysis/pages.hpp"
#include "analysis/scans.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

Headline sitHeadline(const Build& b, const Results& r) {
    const auto step = b.settings.length_step;
    if (const auto lacks = sitLacks(b, r, the_body); !lacks.empty() && r.seat->status == sit::Status::NoPins)
        return lackHeadline(lacks);
    if (r.seat->status == sit::Status::NoPins) return {"The pins wait for their points.", "The tags on The Rule say for which."};
    if (r.seat->status == sit::Status::NotConverged)
        return {"The pins contradict each other.", "No place for the body comes near to all of them."};
    Headline h;
    if (!r.seat->open.empty()) h.sentence = "The body's place is not settled yet.";
    int fails = 0;
    int marginal = 0;
    for (const auto& w : r.seat->pins) {
        fails += w.usable && w.verdict == PlanVerdict::Fails;
        marginal += !w.usable || w.verdict == PlanVerdict::Marginal;
    }
    if (r.seat->change_mm) {
        const double change = *r.seat->change_mm;
        const std::string by = units::formatLength(std::abs(change), step, true);
        const std::string pm =
            r.seat->change_decided ? ", as decided" : " ± " + units::formatSmall(r.seat->change_u95_mm, step, true);
        if (std::abs(change) < 0.5)
            h.sentence = "The body sits with the wheelbase as it is.";
        else
            h.sentence =
                fmt::format("The body sits when the wheelbase is {} by {}{}.", change < 0 ? "shortened" : "lengthened", by, pm);
    } else if (h.sentence.empty()) {
        h.sentence = "The body sits.";
    }
    const auto holds = r.seat->pins.size() - static_cast<size_t>(fails) - static_cast<size_t>(marginal);
    h.below = fmt::format("{}: {} hold, {} marginal, {} missed.", units::counted(b.pins.size(), "a pin"), holds, marginal, fails);
    if (!r.seat->open.empty()) h.below = r.seat->open.front();
    return h;
}

Headline sitHeadlineOf(const Build& b, const Results& r, SubjectId) { return sitHeadline(b, r); }

Drawing sitViewOf(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                  const Format& f) {
    return sitView(b, r, o, width, height, f);
}

Drawing costs(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height, const Format& f) {
    const bool known = currentSlow(b, r, slow::seatings);
    return seatingsView(b, r, width, height, f, known ? &*r.scans->seatings : nullptr);
}

void addSitPages(const Build& b, const Results& r, std::vector<Drawing>& pages) {
    if (!b.pins.empty())
        pages.push_back(benchPage(b, r, "Sit: where the body sits", "sit", the_body,
                                  {no_certificate, "Nobody under a hung body. Lower it on blocks, never on hands."}));
    if (!b.pins.empty() && r.seated()) {
        Area area;
        Drawing page = blankPage(titled(b, r, "Sit: what costs what"), {no_certificate, local_rules}, area);
        placeFitted(page, area, [&](double w, double h, const sheet::Format& f) { return costs(b, r, the_body, {}, w, h, f); });
        pages.push_back(std::move(page));
    }
}

} // namespace

extern const BenchInfo sit_bench; // of the table
const BenchInfo sit_bench{
    "sit",
    "Sit",
    "Where does the body sit?",
    "where the body sits",
    [](const Build& b, const Results&) { return !b.pins.empty(); },
    sitHeadlineOf,
    sitLacks,
    {{"sheet", "The sheet", sitViewOf}, {"space", "The scans", nullptr}, {"costs", "What costs what", costs, {slow::seatings}}},
    addSitFindings,
    sitCard,
    addSitPages,
    nullptr,
    sitJson};

} // namespace gorvet::analysis
