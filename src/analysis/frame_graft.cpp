#include "analysis/frame_graft.hpp"

#include "analysis/scans.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::analysis {

using namespace build;

namespace {

/// Rails that are joined are bent at the joint: so far on both sides of it the joint's own section is looked at.
constexpr double beside_joint_mm = 60;

frame::Profile boxProfile(double high, double wide, double wall, bool channel) {
    return {channel ? "channel" : "box", {high, wide, wall, 2 * wall}, {}, false, 0};
}

} // namespace

std::optional<Vec3> GraftedFrame::at(PointId id) const {
    for (const auto& [point, place] : points)
        if (point == id) return place;
    return std::nullopt;
}

std::optional<GraftedFrame> graftedFrame(const Build& b, const Results& r) {
    if (r.planned_chassis.cuts() || b.grafts.empty()) return {};
    GraftedFrame out;
    out.left = r.planned_left;
    out.right = r.planned_right;
    bool any = false;
    for (const WorkedGraft& g : workedGrafts(b, r, false)) {
        if (!g.plan.missing.empty() || !g.waits.empty()) continue;
        any = true;
        const bool ahead = g.graft.kind == GraftKind::FrontClip;
        const double joint = g.graft.joint.value, outward = ahead ? -1 : 1;
        (ahead ? out.stays_from_mm : out.stays_to_mm) = joint;
        const double half = g.graft.height.value / 2, own_half = out.left.height_mm / 2;
        for (const std::size_t k : {0, 1}) {
            RailLine& rail = k == 0 ? out.left : out.right;
            const auto here = rail.at(joint);
            if (!here) return {};
            // to the chassis' datum face, so that its middle is the piece's middle
            const double down =
                (g.graft.datum_face == RailFace::Top ? -half : half) + (rail.datum_face == RailFace::Top ? own_half : -own_half);
            std::vector<Vec3> line;
            for (const Vec3& p : rail.points)
                if (ahead ? p.x_mm > joint + 1 : p.x_mm < joint - 1) line.push_back(p);
            line.push_back({joint, here->y_mm, rail.datum_face == RailFace::Top ? here->top_mm : here->bottom_mm});
            const double reach = joint + outward * std::max(g.plan.transition_mm, 2.0);
            for (const int point : g.input.rails[k]) {
                Vec3 p = g.input.piece.at[static_cast<std::size_t>(point)];
                p.z_mm += down;
                if (ahead ? p.x_mm < reach : p.x_mm > reach) line.push_back(p);
            }
            std::sort(line.begin(), line.end(), [](const Vec3& a, const Vec3& c) { return a.x_mm < c.x_mm; });
            line.erase(std::unique(line.begin(), line.end(), [](const Vec3& a, const Vec3& c) { return c.x_mm - a.x_mm < 1; }),
                       line.end());
            rail.points = std::move(line);
        }
        const auto part = [&](double a, double c, frame::Profile section) {
            out.parts.push_back({std::min(a, c), std::max(a, c), std::move(section)});
        };
        const double far = joint + outward * 1e5;
        part(joint, far,
             boxProfile(g.graft.height.value, g.graft.width.value, g.graft.wall.value, g.graft.shape == RailShape::Channel));
        if (g.plan.way == stretch::GraftWay::Transition)
            part(joint, joint + outward * g.plan.transition_mm,
                 boxProfile(std::min(out.left.height_mm, g.graft.height.value), std::min(out.left.width_mm, g.graft.width.value),
                            g.plan.plate_mm, false));
        for (const auto& [id, p] : b.points)
            if (p.subject == g.graft.piece)
                for (std::size_t k = 0; k < g.input.piece.names.size(); ++k)
                    if (g.input.piece.names[k] == p.name) out.points.emplace_back(id, g.input.piece.at[k]);
        out.assumed.insert(out.assumed.end(), g.input.assumed.begin(), g.input.assumed.end());
    }
    return any ? std::optional(std::move(out)) : std::nullopt;
}

std::optional<stretch::GraftFrame> graftFrame(const Build& b, const Results& r, const stretch::GraftPlan& plan, const Graft& g) {
    if (!r.scans->frame.made() || !r.scans->frame->planned) return {};
    const FrameAsked asked = frameAsked(b, r);
    if (!asked.waits.empty() || !r.scans->frame.madeFrom(asked)) return {}; // of another moment
    const frame::Outcome& found = *r.scans->frame->planned;
    const double joint = g.joint.value, outward = g.kind == GraftKind::FrontClip ? -1 : 1;
    const double other = joint + outward * plan.transition_mm;
    const double from = std::min(joint, other) - beside_joint_mm, until = std::max(joint, other) + beside_joint_mm;
    stretch::GraftFrame out;
    out.assumed = asked.assumed;
    for (const std::string& at : asked.cracked) out.assumed.push_back("how far the crack at " + at + " goes");
    if (asked.now.hung.empty()) out.assumed.emplace_back("what the frame carries");
    for (const frame::OfLine& line : found.lines) {
        if (line.name != "left rail" && line.name != "right rail") continue;
        for (const frame::AtPlace& p : line.places) {
            if (p.at.x_mm < from || p.at.x_mm > until) continue;
            const double may = p.yield_mpa / 1.5;
            if (out.may_mpa == 0 || p.stress_mpa / may > out.stress_mpa / out.may_mpa) {
                out.stress_mpa = p.stress_mpa;
                out.may_mpa = may;
                out.line = line.name;
                out.case_name = p.worst_case < found.cases.size() ? found.cases[p.worst_case].asked.name : "";
            }
            out.range_mpa = std::max(out.range_mpa, p.range_mpa);
            for (std::size_t c = 0; c < found.cases.size() && c < p.in_case.size(); ++c) {
                if (found.cases[c].tips) continue;
                const auto& f = p.in_case[c];
                out.forces.push_back({line.name,
                                      found.cases[c].asked.name,
                                      {std::abs(f.axial_n), std::abs(f.aside_n), std::abs(f.upright_n), std::abs(f.twist_nmm),
                                       std::abs(f.upright_nmm), std::abs(f.level_nmm)}});
            }
        }
    }
    return out.may_mpa > 0 ? std::optional(std::move(out)) : std::nullopt;
}

} // namespace gorvet::analysis
