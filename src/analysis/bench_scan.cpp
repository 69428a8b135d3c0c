#include "analysis/bench_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/scans.hpp"
#include "sheet/write.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

/// What was found stays until it is found anew, and says so.
Headline shown(const Build& b, const Results& r, Headline h) {
    if (!clearanceKnown(b, r)) h.below = "Being worked out anew: this is how it was before. " + h.below;
    return h;
}

Headline fouling(const Build& b, const Results& r) {
    const Scans& s = *r.scans;
    if (!b.scans.empty() && (r.stopped.contains(slow::clearance) || r.stopped.contains(slow::overlay)) && !clearanceKnown(b, r))
        return {"The search for what fouls was stopped.", "Any change of the build begins it again."};
    if (!b.scans.empty() && s.clearance.made()) return shown(b, r, overlayHeadline(b, *s.clearance.input(), &*s.clearance));
    return overlayHeadline(b, *s.overlay, nullptr);
}

Headline scanHeadlineOf(const Build& b, const Results& r, SubjectId) {
    Headline h = fouling(b, r);
    for (const auto& [id, why] : r.scans->read->troubles)
        if (const auto scan = b.scans.find(id); scan != b.scans.end())
            h.below = fmt::format("{}: {} {}", scan->second.name, why, h.below);
    return h;
}

Headline wayHeadlineOf(const Build& b, const Results& r, SubjectId s) {
    if (!r.scans->way.made()) return scanHeadlineOf(b, r, s);
    return shown(b, r, wayHeadline(b, *r.scans->way));
}

Drawing pairs(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height, const Format& f) {
    const auto& c = r.scans->clearance;
    return c.made() ? pairsView(b, *c.input(), *c, width, height, f) : Drawing{};
}

Drawing wayDown(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height, const Format& f) {
    const auto& way = r.scans->way;
    return way.made() ? wayView(b, *way.input().overlay, *way, width, height, f) : Drawing{};
}

void findingsOfScan(const Build& b, const Results& r, std::vector<Finding>& all) {
    if (!clearanceKnown(b, r)) return;
    for (Finding& f : clearanceFindings(b, *r.scans->overlay, *r.scans->clearance)) all.push_back(std::move(f));
}

/// The corner above, below it both sides at one scale.
void addScribed(Drawing& page, const Area& area, const Build& b, const Results& r) {
    const Scribed& s = *r.scans->scribed;
    const Format f = on_paper;
    const double words = f.body() * 1.6, gap = 4;
    const bool wide = area.width > area.height;
    const Area upper{area.x, area.y, wide ? area.width * 0.58 : area.width, wide ? area.height : area.height * 0.42};
    const Area lower = wide ? Area{upper.x + upper.width + gap, area.y, area.width - upper.width - gap, area.height}
                            : Area{area.x, upper.y + upper.height + gap, area.width, area.height - upper.height - gap};
    const double each = lower.height / 2;
    // a whole scale: what is said is what is drawn
    const double scale = 5 * std::ceil(scribedScale(s, {"left", "above"}, lower.width, each - words - 2) / 5);
    for (const ScribedView& v : s.views) {
        const bool corner = std::string_view(v.key) == "corner", above = std::string_view(v.key) == "above";
        const Area to = corner ? upper : Area{lower.x, lower.y + (above ? each : 0), lower.width, each};
        page.add(Text{{to.x, to.y + f.body()},
                      corner ? std::string(v.words) : fmt::format("{}, 1 : {:.0f}", v.words, scale),
                      f.body(),
                      Ink::Second});
        const OverlayClearance* fouls = corner && clearanceKnown(b, r) ? &*r.scans->clearance : nullptr;
        page.place(scribedDrawing(s, v, to.width, to.height - words, f, corner ? 0 : scale, fouls, r.findings),
                   {to.x, to.y + words});
    }
}

/// Only what is of now: on paper nothing can be worked out anew.
void addScanPages(const Build& b, const Results& r, std::vector<Drawing>& pages) {
    Area area;
    if (currentSlow(b, r, slow::picture) && !r.scans->picture->empty()) {
        Drawing page = blankPage(titled(b, r, "Scan: body and chassis together"), {no_certificate, local_rules}, area);
        page.add(Picture{{area.x, area.y}, area.width, area.height, r.scans->picture.share()});
        pages.push_back(std::move(page));
    }
    if (currentSlow(b, r, slow::scribed) && r.scans->scribed->hasLines()) {
        Drawing page = blankPage(titled(b, r, "Scan: as it is planned, scribed"), {no_certificate, local_rules}, area);
        addScribed(page, area, b, r);
        pages.push_back(std::move(page));
    }
    if (clearanceKnown(b, r)) {
        Drawing page = blankPage(titled(b, r, "Scan: clearances, pair by pair"), {no_certificate, local_rules}, area);
        placeFitted(page, area, [&](double w, double h, const Format& f) { return pairs(b, r, the_body, {}, w, h, f); });
        pages.push_back(std::move(page));
    }
    if (currentSlow(b, r, slow::way)) {
        Drawing page = blankPage(titled(b, r, "Scan: the way in"),
                                 {"Nobody under a hung body. Lower it on blocks, never on hands.", local_rules}, area);
        placeFitted(page, area, [&](double w, double h, const Format& f) { return wayDown(b, r, the_body, {}, w, h, f); });
        pages.push_back(std::move(page));
    }
}

/// To draw on: one unit of the file is a millimetre of the car.
void addScanFiles(const Build& b, const Results& r, FileKeeper& out) {
    if (!currentSlow(b, r, slow::scribed) || !r.scans->scribed->hasLines()) return;
    for (const ScribedView& v : r.scans->scribed->views)
        out.keep(fmt::format("scans-{}.dxf", v.key), [&](const auto& to) {
            const Scribed& s = *r.scans->scribed;
            return writeDxf(scribedDrawing(s, v, 0, 0, {}, 1), to);
        });
}

} // namespace

extern const BenchInfo scan_bench; // of the table
const BenchInfo scan_bench{"scan",
                           "Scan",
                           "What fouls, and where must the body be cut?",
                           nullptr,
                           // not before it is known: a good mark would say that nothing fouls
                           [](const Build& b, const Results& r) { return !b.scans.empty() && clearanceKnown(b, r); },
                           scanHeadlineOf,
                           nullptr,
                           {{"space", "The scans", nullptr},
                            {"pairs", "Pair by pair", pairs, {slow::clearance}},
                            {"way", "The way in", wayDown, {slow::way, slow::clearance}, wayHeadlineOf}},
                           findingsOfScan,
                           nullptr,
                           addScanPages,
                           addScanFiles,
                           nullptr,
                           &scan_nodes};

} // namespace gorvet::analysis
