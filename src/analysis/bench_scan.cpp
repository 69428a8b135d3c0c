#include "analysis/bench_parts.hpp"
#include "analysis/overlay.hpp"
#include "analysis/pages.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

Headline headlineOf(const Build& b, const Results&, SubjectId) {
    if (b.scans.empty()) return overlayHeadline(b, {}, nullptr); // what fouls needs the scans themselves
    return {fmt::format("{} scan{} kept.", b.scans.size(), b.scans.size() == 1 ? " is" : "s are"),
            "What fouls is told on the Scan bench and by gorvet-cli overlay, with the cut map."};
}

void addPages(const SheetAsked& asked, std::vector<Drawing>& pages) {
    const auto& b = asked.b;
    const auto& r = asked.r;
    if (asked.scans.picture) {
        Area area;
        Drawing page = blankPage(titled(b, r, "Scan: body and chassis together"), {no_certificate, local_rules}, area);
        page.add(Picture{{area.x, area.y}, area.width, area.height, asked.scans.picture});
        pages.push_back(std::move(page));
    }
    if (asked.scans.pairs) {
        Area area;
        Drawing page = blankPage(titled(b, r, "Scan: clearances, pair by pair"), {no_certificate, local_rules}, area);
        placeFitted(page, area, asked.scans.pairs);
        pages.push_back(std::move(page));
    }
    if (asked.scans.way) {
        Area area;
        Drawing page = blankPage(titled(b, r, "Scan: the way in"),
                                 {"Nobody under a hung body. Lower it on blocks, never on hands.", local_rules}, area);
        placeFitted(page, area, asked.scans.way);
        pages.push_back(std::move(page));
    }
}

} // namespace

extern const BenchInfo scan_bench; // of the table
const BenchInfo scan_bench{"scan",
                           "Scan",
                           "What fouls, and where must the body be cut?",
                           nullptr,
                           [](const Build& b, const Results&) { return !b.scans.empty(); },
                           headlineOf,
                           nullptr,
                           nullptr,
                           nullptr,
                           addPages,
                           nullptr,
                           nullptr};

} // namespace gorvet::analysis
