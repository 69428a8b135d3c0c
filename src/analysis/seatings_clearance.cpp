#include "analysis/seatings_clearance.hpp"

#include "analysis/scans.hpp"
#include "analysis/seatings.hpp"

#include "units/quantity.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

SeatingClearance summed(const Build& b, const Overlay& o, const OverlayClearance& c) {
    SeatingClearance s;
    s.known = true;
    for (const auto& place : c.places) s.fouls += place.contact.band == sit::Band::Fouls;
    if (c.pairs.empty()) return s;
    const OverlayPair& worst = c.pairs.front();
    const sit::Pair& p = worst.pair;
    s.far = p.least_mm >= p.need.cap_mm;
    s.spare_mm = p.least_mm - p.need.foulsBelow();
    s.assumed = worst.assumed || p.pose.ends_with("(assumed)");
    s.severity = p.band == sit::Band::Fouls                ? sheet::Severity::Bad
                 : p.band == sit::Band::Tight || s.assumed ? sheet::Severity::Warn
                                                           : sheet::Severity::Good;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    const std::string pair = partName(o, worst.moving, p.moving) + " to " + partName(o, worst.fixed, p.fixed);
    const std::string where = fmt::format("at station {:.0f}{}", p.at[0], p.pose.empty() ? "" : ", " + p.pose);
    if (s.far)
        s.words = "nothing is nearer than " + len(p.need.cap_mm);
    else if (p.meets && !p.depth_known)
        s.words = fmt::format("{}: they run through each other {}", pair, where);
    else
        s.words = fmt::format("{}: {}{} {}", pair, p.least_mm < 0 ? "−" : "", len(std::abs(p.least_mm)), where);
    return s;
}

/// The build as a column has it.
std::optional<Build> buildOf(const Build& b, const SeatingsCompared::Column& c) {
    if (c.id) {
        const auto seating = b.seatings.find(c.id);
        return seating == b.seatings.end() ? std::nullopt : std::optional(seatedAs(b, seating->second));
    }
    Build copy = b;
    copy.school.leads = c.seat.input().leads;
    return copy;
}

} // namespace

SeatingsAsked seatingsAsked(const Results& r) {
    SeatingsAsked asked{r.scans->read->meshes, r.scans->clearance.share(), {}};
    for (const auto& c : r.seatings.columns) asked.columns.push_back({c.name, c.usable, c.seat.share(), c.lowering});
    return asked;
}

std::optional<std::vector<SeatingClearance>> clearancesOfSeatings(const Build& b, const Results& r, int threads,
                                                                  const std::function<bool()>& stop) {
    const Scans& scans = *r.scans;
    std::vector<SeatingClearance> list;
    for (size_t k = 0; k < r.seatings.columns.size(); ++k) {
        if (stop && stop()) return std::nullopt;
        const auto& column = r.seatings.columns[k];
        list.emplace_back();
        if (!column.usable) continue;
        if (k == 0) {
            list.back() = summed(b, *scans.clearance.input(), *scans.clearance);
            continue;
        }
        auto as = buildOf(b, column);
        if (!as) continue;
        const Variant v = variantOf(std::move(*as), r);
        const auto meshes = Node<OverlayInput, Overlay>::of(overlayInput(v.build, v.results, scans.read->meshes), &scans.meshes,
                                                            [&](const OverlayInput& in) { return overlayOf(in, threads); });
        const Overlay o = placed(*meshes, placingOf(v.build, v.results));
        const auto c = clearanceOf(o, threads, stop);
        if (!c) return std::nullopt;
        list.back() = summed(v.build, o, *c);
    }
    return list;
}

} // namespace gorvet::analysis
