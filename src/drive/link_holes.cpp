#include "drive/link_holes.hpp"

#include "drive/degree.hpp"
#include "units/text.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::drive {

namespace {

constexpr double usual_hole_mm = 14;

/// The row's way: up along it.
Vec3 upAlong(const build::LinkHoles& row) { return {std::sin(row.lean.value), 0, std::cos(row.lean.value)}; }

HoleDoes holeDoes(const LinkHolesIn& in, int step) {
    HoleDoes h;
    h.step = step;
    h.name = step == 0 ? "as it is" : fmt::format("{} {}", std::abs(step), step > 0 ? "above" : "below");
    const Vec3 by = geometry::times(upAlong(in.row), step * in.row.pitch.value);
    const bool at_frame = in.row.at == build::LinkEnd::Frame;
    std::vector<Vec3> at = in.travel.places.at;
    Linkage l = linkageOf(in.travel.held, at);
    for (const std::size_t link : in.links) {
        const auto& points = in.travel.held.links[link].points;
        const std::size_t moved = points[at_frame ? 0 : 1];
        for (Rod& rod : l.rods) {
            if (rod.name != in.travel.held.links[link].name) continue;
            const double length = geometry::between(rod.frame, rod.body);
            (at_frame ? rod.frame : rod.body) = geometry::plus(at[moved], by);
            rod.longer_mm = length - geometry::between(rod.frame, rod.body);
        }
        at[moved] = geometry::plus(at[moved], by);
    }
    const auto stood = sweep(l, {{0, 0, 0}});
    if (stood.empty()) return h;
    h.closes = true;
    const Stance& s = stood.front();
    h.slope_rad = in.travel.axle() ? std::atan2(-s.moved.rotation[2].x_mm, s.moved.rotation[0].x_mm)
                                   : std::atan2(s.moved.rotation[1].x_mm, s.moved.rotation[0].x_mm) *
                                         (in.travel.name.find("left") != std::string::npos ? -1 : 1);
    const Vec3 middle =
        in.travel.axle() ? geometry::along(at[in.travel.held.left], at[in.travel.held.right], 0.5) : at[in.travel.held.left];
    h.ahead_mm = middle.x_mm - s.moved.transformed(middle).x_mm;
    // from there it goes through its travel: what moves stands as it was bolted up
    std::vector<bool> moves(at.size(), false);
    moves[in.travel.held.left] = moves[in.travel.held.right] = true;
    for (const LinkIn& link : in.travel.held.links) {
        const auto& p = link.points;
        switch (link.kind) {
        case build::LinkKind::Rod:
        case build::LinkKind::TieRod: moves[p[1]] = true; break;
        case build::LinkKind::Wishbone: moves[p[2]] = true; break;
        case build::LinkKind::Strut: moves[p[1]] = true; break;
        case build::LinkKind::Leaf: moves[p[1]] = true; break;
        case build::LinkKind::Watts: moves[p[0]] = moves[p[2]] = moves[p[4]] = true; break;
        case build::LinkKind::Hinge: break;
        }
    }
    TravelIn then = in.travel;
    for (std::size_t k = 0; k < at.size(); ++k) then.places.at[k] = moves[k] ? s.moved.transformed(at[k]) : at[k];
    h.plan = travelPlan(then);
    return h;
}

} // namespace

LinkHolesPlan linkHolesPlan(const LinkHolesIn& in) {
    LinkHolesPlan p;
    p.name = in.name;
    const int below = static_cast<int>(in.row.below.value), above = static_cast<int>(in.row.above.value);
    const double hole = in.row.hole ? in.row.hole->value : usual_hole_mm;
    p.edge_mm = 1.5 * hole;
    p.high_mm = (below + above) * in.row.pitch.value + 2 * p.edge_mm;
    if (!in.travel.missing.empty() || in.links.empty()) {
        p.verdict = PlanVerdict::Marginal;
        return p;
    }
    for (int step = -below; step <= above; ++step) p.holes.push_back(holeDoes(in, step));
    const auto add = [&](const char* code, PlanVerdict v, std::string sentence, std::string remedy) {
        p.remarks.push_back({code, v, std::move(sentence), std::move(remedy), "", ""});
    };
    for (const HoleDoes& h : p.holes) {
        if (!h.closes)
            add("holes-open", PlanVerdict::Marginal,
                fmt::format("With {} in the hole {} the links don't close at rest: the axle can't stand there.", in.name, h.name),
                "Another length of the link goes with that hole.");
        else if (h.plan->verdict == PlanVerdict::Fails && h.plan->rows.size() < 15)
            add("holes-lock", PlanVerdict::Marginal,
                fmt::format("With {} in the hole {} the links lock within the travel.", in.name, h.name), "Leave that hole out.");
        else if (h.step != 0 && h.plan->verdict == PlanVerdict::Fails && !h.plan->remarks.empty())
            add("holes-worse", PlanVerdict::Marginal,
                fmt::format("With {} in the hole {}: {}", in.name, h.name, h.plan->remarks.front().sentence),
                "Leave that hole out, or do there what it says.");
    }
    if (in.row.pitch.value < 2 * hole)
        add("holes-close", PlanVerdict::Fails,
            fmt::format("Holes of {:.0f} mm every {:.0f} mm leave {:.0f} mm of steel between them.", hole, in.row.pitch.value,
                        in.row.pitch.value - hole),
            fmt::format("{:.0f} mm from hole to hole, or more.", 2 * hole));
    for (const build::Remark& r : p.remarks) p.verdict = std::max(p.verdict, r.verdict);
    if (!in.travel.assumed.empty() || !in.row.hole || in.row.hole->provenance == build::Provenance::Assumed ||
        in.row.pitch.provenance == build::Provenance::Assumed)
        p.verdict = std::max(p.verdict, PlanVerdict::Marginal);
    return p;
}

} // namespace gorvet::drive
