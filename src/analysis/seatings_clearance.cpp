#include "analysis/seatings_clearance.hpp"

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
    copy.school.leads = c.input.leads;
    return copy;
}

} // namespace

std::optional<std::vector<SeatingClearance>> clearancesOfSeatings(const Build& b, const Results& r, const Overlay& now,
                                                                  const OverlayClearance& found, const ScanMeshes& meshes,
                                                                  int threads, const std::function<bool()>& stop) {
    std::vector<SeatingClearance> list;
    const std::string key = overlayKey(b, r);
    for (size_t k = 0; k < r.seatings.columns.size(); ++k) {
        if (stop && stop()) return std::nullopt;
        const auto& column = r.seatings.columns[k];
        list.emplace_back();
        if (!column.usable) continue;
        if (k == 0) {
            list.back() = summed(b, now, found);
            continue;
        }
        const auto as = buildOf(b, column);
        if (!as) continue;
        const Results seated = analyse(*as, r.revision, &r);
        Overlay o;
        if (overlayKey(*as, seated) == key) {
            o = now;
            reseat(o, *as, seated);
        } else {
            o = overlayOf(*as, seated, meshes, threads);
        }
        const auto c = clearanceOf(o, *as, threads, stop);
        if (!c) return std::nullopt;
        list.back() = summed(*as, o, *c);
    }
    return list;
}

std::string seatingsKey(const Build& b, const Results& r) {
    std::string key = overlayKey(b, r) + clearanceKey(b, r);
    for (const auto& c : r.seatings.columns) {
        const sit::Pose& p = c.seat.pose;
        const Lowering& l = c.lowering;
        key += fmt::format(";{} {} {} {} {} {} {} {} {} {} {} {} {} {} {}", c.name, c.usable, p.shift.x_mm, p.shift.y_mm,
                           p.shift.z_mm, p.yaw_rad, p.pitch_rad, p.roll_rad, c.seat.change_mm.value_or(0), l.channel.value,
                           l.raise.value, l.kick.value, l.kick_from.value, l.kick_to.value, l.floor);
    }
    return key;
}

} // namespace gorvet::analysis
