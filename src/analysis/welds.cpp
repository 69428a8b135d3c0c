// The weld plan: its seams from all that is planned of steel, its sheet, page and JSON.
#include "analysis/welds.hpp"

#include "analysis/frame.hpp"
#include "analysis/graft.hpp"
#include "analysis/joins.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/let_in.hpp"
#include "analysis/pages.hpp"
#include "analysis/steel.hpp"
#include "analysis/width.hpp"
#include "make/crossmember_solid.hpp"
#include "make/weld_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using make::WeldIn;
using make::WeldKind;
using make::WeldSeam;

const char* const weld_caution =
    "Licensed hands weld what carries people, steering, brakes or wheels. Battery off, tank out, a watch for an hour after.";

namespace {

void crossmemberSeams(const Results& r, WeldIn& in) {
    if (!r.crossmember.made() || !r.crossmember->possible) return;
    const make::CrossmemberInput& from = r.crossmember.input();
    const make::CrossmemberPlan& p = *r.crossmember;
    const make::CrossmemberDesign& d = from.design;
    const double round = 2 * (d.box_height_mm + d.box_width_mm), wall = d.box_wall_mm;
    const auto add = [&](std::string what, WeldKind kind, double length, double leg, double thick, const Vec3& at) {
        in.seams.push_back({"crossmember", std::move(what), "crossmember", kind, length, leg, thick, false, at});
    };
    const Vec3 middle{p.station_mm, from.gearbox_mount.y_mm, p.box_top_mm};
    for (const bool left : {true, false})
        add(left ? "the box on the flange left, all round" : "the box on the flange right, all round", WeldKind::Fillet, round,
            std::max(3.0, wall), std::min(wall, d.flange_mm),
            {p.station_mm, left ? p.rail_inner_left_mm : p.rail_inner_right_mm, p.box_top_mm});
    if (p.dropped) {
        for (const auto& [name, leg] : {std::pair{"the mitre left", &p.dropped->left}, {"the mitre right", &p.dropped->right}})
            add(name, WeldKind::Butt, round / std::cos(leg->angle_rad / 2), wall, wall,
                {p.station_mm, leg->joint_y_mm, p.box_top_mm});
        if (p.dropped->riser_mm > 0)
            add("the riser on the middle, all round", WeldKind::Fillet, 4 * p.dropped->riser_side_mm, std::max(3.0, wall), wall,
                middle);
    }
    add("the pad, along both sides", WeldKind::Fillet, 2 * p.pad.width_mm, std::max(3.0, wall), std::min(wall, d.pad_mm), middle);
    if (d.captive)
        add("its captive nuts, in the rails", WeldKind::Fillet,
            static_cast<double>(p.left.holes.size() + p.right.holes.size()) * 3.0 * d.bolt_mm, 3, from.left.thickness_mm, middle);
}

/// The rails where they are joined again, and the plates beside.
void spliceSeams(const Results& r, WeldIn& in) {
    const stretch::Plan& plan = *r.stretch;
    if (plan.status != stretch::Status::Planned) return;
    const stretch::Input& from = r.stretch.input();
    const std::string tag = "sleeve";
    for (const auto& [name, cut, rail] :
         {std::tuple{"rail left", &plan.left, plan.spine ? &from.left : &r.planned_left},
          {"rail right", &plan.right, plan.spine ? nullptr : &r.planned_right}}) { // one spine is both rails
        const auto at = rail ? rail->at(cut->first_station_mm) : std::nullopt;
        if (!cut->known || !at) continue;
        const Vec3 place{cut->first_station_mm, at->y_mm, (at->top_mm + at->bottom_mm) / 2};
        const double h = rail->height_mm, w = rail->width_mm, t = rail->thickness_mm;
        in.seams.push_back({plan.spine ? "spine" : name, "where it is joined again", tag, WeldKind::Butt,
                            from.channel ? h + 2 * w : 2 * (h + w), t, t, true, place});
        if (plan.splice && plan.splice->plate) {
            const stretch::FishPlate& plate = *plan.splice->plate;
            in.seams.push_back({name, "its fish plates, both edges of both", tag, WeldKind::Fillet, 4 * plate.length_mm,
                                plate.weld_leg_mm, std::min(plate.thickness_mm, t), true, place});
        }
    }
    if (plan.splice && plan.splice->plugs.structural)
        in.not_in_it.push_back(
            fmt::format("plug welds of the sleeves, {} to a rail's end: on Stretch", plan.splice->plugs.needed));
}

Vec3 onRail(const RailLine& rail, double station) {
    const auto at = rail.at(station);
    return at ? Vec3{station, at->y_mm, (at->top_mm + at->bottom_mm) / 2} : Vec3{station, 0, 0};
}

/// From the middle to the edge of a floor at a station.
double edgeAt(const stretch::EdgePlan& p, double station) {
    double out = 0, nearest = 1e18;
    for (const stretch::EdgeStation& s : p.stations)
        if (const double away = std::abs(s.station_mm - station); away < nearest) {
            nearest = away;
            out = std::abs(s.edge_mm);
        }
    return out;
}

/// Plates that close open rails, ribs in them, crossmembers that are made.
void railSteelSeams(const Build& b, const Results& r, WeldIn& in) {
    const auto station = [&](double x) { return r.planned_chassis.map(Vec3{x, 0, 0}).x_mm; };
    const double wall = b.rail.thickness.value;
    for (const frame::ClosingPlate& p : plannedPlates(b, r)) {
        const auto row = std::find_if(b.members.begin(), b.members.end(), [&](const auto& m) { return m.second.name == p.name; });
        if (row == b.members.end()) continue;
        const Member& m = row->second;
        const bool rib = m.kind == MemberKind::Rib;
        const make::FlatPiece flat = flatFrom(frame::platePattern(p), p.name, p.thickness_mm, p.count);
        // a rib is welded to the web and both flanges: its fourth side is free
        const double each = geometry::perimeterOf(flat.outline) - (rib ? p.height_mm - 2 * p.corner_mm : 0);
        const double thick = std::min(p.thickness_mm, wall);
        for (const bool left : {true, false}) {
            if (m.side == (left ? RailSide::Right : RailSide::Left)) continue;
            const int count = m.side == RailSide::Both ? p.count / 2 : p.count;
            const double middle = station((m.station->value + m.until->value) / 2);
            in.seams.push_back(
                {fmt::format("{} {}", word(m.kind), m.name),
                 rib ? fmt::format("the {} in the rail {}, three sides", units::counted(static_cast<std::size_t>(count), "a rib"),
                                   left ? "left" : "right")
                     : fmt::format("round the plate on the rail {}", left ? "left" : "right"),
                 "member:" + m.name, WeldKind::Fillet, count * each, std::min(3.0, thick), thick, true,
                 onRail(left ? r.planned_left : r.planned_right, middle)});
        }
    }
    for (const auto& [id, m] : b.members) {
        if (m.state != MemberState::Planned || m.kind != MemberKind::Crossmember || m.joint != Joint::Welded || m.until ||
            !m.points.empty())
            continue;
        const double round = m.form == SectionForm::Tube ? units::pi * m.height.value : 2 * (m.height.value + m.width.value);
        for (const bool left : {true, false})
            in.seams.push_back({"crossmember " + m.name, left ? "all round on the rail left" : "all round on the rail right",
                                "member:" + m.name, WeldKind::Fillet, round, std::max(3.0, std::min(m.wall.value, wall)),
                                std::min(m.wall.value, wall), true,
                                onRail(left ? r.planned_left : r.planned_right, station(m.station->value))});
    }
}

/// A spine joined again, floors that reach out, rails let in, pieces of other frames.
void widthSeams(const Build& b, const Results& r, WeldIn& in) {
    const stretch::Plan& plan = *r.stretch;
    if (plan.status == stretch::Status::Planned && plan.spine) {
        const stretch::SpinePlan& s = *plan.spine;
        const auto& asked = r.stretch.input().spine;
        const double pan = asked ? asked->pan_wall_mm.value_or(0) : 0;
        for (std::size_t k = 1; k < s.cuts.size(); ++k)
            if (pan > 0)
                in.seams.push_back(
                    {"spine",
                     fmt::format("the {} where it is joined again", s.cuts[k].name),
                     "sleeve",
                     WeldKind::Butt,
                     asked->pan_width_mm.value_or(0),
                     pan,
                     pan,
                     true,
                     {s.cuts[k].first_mm, k == 1 ? -asked->pan_width_mm.value_or(0) : asked->pan_width_mm.value_or(0), 0}});
        in.not_in_it.push_back(
            fmt::format("plug welds of the saddle, {} each side in its top and in the strip: on Stretch", s.plugs_needed));
    }
    std::string floors;
    const WorkedWidth width = workedWidth(b, r);
    if (width.narrow && width.narrow->long_mm > 0)
        in.not_in_it.push_back(fmt::format("both slits of the floor, {:.0f} mm each: on Stretch", width.narrow->long_mm));
    for (const WorkedEdge& e : width.edges) {
        if (!e.plan.missing.empty()) continue;
        const double wall = e.edge.wall.value;
        for (std::size_t k = 0; k < e.plan.outriggers.size(); ++k) {
            const stretch::EdgeOutrigger& o = e.plan.outriggers[k];
            in.seams.push_back({"floor edge " + e.edge.name,
                                fmt::format("outrigger {} on the edge, all round", k + 1),
                                "floor-edge:" + e.edge.name,
                                WeldKind::Fillet,
                                2 * (e.edge.height.value + e.edge.width.value),
                                std::max(2.0, wall),
                                wall,
                                true,
                                {o.station_mm, e.plan.left ? -edgeAt(e.plan, o.station_mm) : edgeAt(e.plan, o.station_mm), 0}});
        }
        if (e.plan.plugs > 0) floors += (floors.empty() ? "" : ", ") + fmt::format("{} of {}", e.plan.plugs, e.edge.name);
    }
    if (!floors.empty()) in.not_in_it.push_back("plug welds along the laps of floors: " + floors);
    for (const WorkedLetIn& l : workedLetIns(b, r)) {
        if (!l.plan.missing.empty()) continue;
        const double round = 2 * (l.row.height.value + l.row.width.value), wall = l.row.wall.value;
        for (const bool front : {true, false}) {
            const auto at = r.chassis.positionOf(front ? l.row.front : l.row.rear);
            if (!at) continue;
            in.seams.push_back({"rail " + l.row.name, front ? "on the front leg, all round" : "on the rear leg, all round",
                                "let-in:" + l.row.name, WeldKind::Butt, round, wall, wall, true, r.planned_chassis.map(*at)});
        }
        in.not_in_it.push_back(fmt::format("plug welds of {}, in its joints and along the floor: on Stretch", l.row.name));
    }
    for (const WorkedGraft& g : workedGrafts(b, r, false)) {
        if (!g.waits.empty() || !g.plan.missing.empty()) continue;
        const double joint = g.graft.joint.value;
        for (std::size_t side = 0; side < 2 && !g.plan.plates.empty(); ++side) {
            const char* name = side == 0 ? "left" : "right";
            double along = 0, ends = 0; // corners lie between two plates: each plate's two long edges are half of them
            for (const stretch::TransitionPlate& p : g.plan.plates) {
                if (!p.name.starts_with(name)) continue;
                const auto edge = [&](std::size_t from, std::size_t to) {
                    return std::hypot(p.corners[to].first - p.corners[from].first, p.corners[to].second - p.corners[from].second);
                };
                ends += edge(0, 1) + edge(2, 3);
                along += (edge(1, 2) + edge(3, 0)) / 2;
            }
            const Vec3 at = onRail(side == 0 ? g.input.left : g.input.right, joint);
            const std::string part = "graft " + g.graft.name, tag = "graft:" + g.graft.name;
            const double t = g.plan.plate_mm;
            in.seams.push_back(
                {part, fmt::format("corners of the made box {}", name), tag, WeldKind::Butt, along, t, t, false, at});
            in.seams.push_back(
                {part, fmt::format("the made box {}, round both its ends", name), tag, WeldKind::Butt, ends, t, t, true, at});
        }
        if (g.plan.plates.empty())
            in.not_in_it.push_back(fmt::format("the joints of {}, {}: on Stretch", g.graft.name, stretch::graftWord(g.plan.way)));
    }
}

WeldIn weldInput(const Build& b, const Results& r) {
    WeldIn in;
    std::string never; // what is not welded to what is there
    std::set<std::string> not_welded;
    for (const Joined& j : joinsOf(b, r))
        if (j.input.welded && !j.plan.welds()) {
            never += (never.empty() ? "" : ", ") + j.input.part;
            not_welded.insert(j.input.part);
        }
    if (!never.empty()) in.not_in_it.push_back(fmt::format("what joins {} to the car: see Joins", never));
    for (const auto& node : r.parts) {
        const make::PartPlan& p = *node;
        if (!p.made()) continue;
        for (const make::Seam& s : p.seams)
            if (!s.on_car || !not_welded.contains(p.name))
                in.seams.push_back({fmt::format("{} {}", p.kind, p.name), s.what, "part:" + p.name, WeldKind::Fillet, s.length_mm,
                                    s.leg_mm, s.thickness_mm, s.on_car, s.at});
    }
    crossmemberSeams(r, in);
    spliceSeams(r, in);
    railSteelSeams(b, r, in);
    widthSeams(b, r, in);
    std::string mounts;
    for (const make::MountStack& m : r.mounts)
        if (m.on_rail && m.standoff_mm > 0) mounts += (mounts.empty() ? "" : " ") + m.name;
    if (!mounts.empty()) in.not_in_it.push_back(fmt::format("the standoffs of the mounts {}: their tubes are not said", mounts));
    return in;
}

/// What stands of it on the sheet.
std::vector<std::string> roomWords(const Results& r) {
    std::vector<std::string> lines;
    for (const make::WeldRoom& w : *r.weld_rooms)
        if (w.shut_mm >= least_shut_mm) lines.push_back(weldShutWords(w));
    std::string none;
    for (const make::WeldRoom& w : *r.weld_rooms)
        if (w.seam_mm < least_shut_mm) none += (none.empty() ? "" : "; ") + w.name;
    if (!none.empty())
        lines.push_back(fmt::format("No edge was found that lies on what is there, so no torch was tried: {}.", none));
    else if (lines.empty() && !r.weld_rooms->empty())
        lines.emplace_back("A torch gets to every edge that lies on the rails or on new steel put on before. Nothing else that "
                           "stands on the frame, or hangs in it, was asked.");
    return lines;
}

} // namespace

std::string weldShutWords(const make::WeldRoom& w) {
    return fmt::format("No torch gets to {:.0f} of {:.0f} mm where {} lies on what is there before: {} is most in the way.",
                       w.shut_mm, w.seam_mm, w.name, w.shut_by);
}

Node<WeldIn, make::WeldPlan> weldsOf(const Build& b, const Results& r, const Results* previous) {
    return Node<WeldIn, make::WeldPlan>::of(weldInput(b, r), previous ? &previous->welds : nullptr, make::weldPlan);
}

Node<make::PutOnIn, std::vector<make::WeldRoom>> weldRoomsOf(const Results& r, const Results* previous) {
    return Node<make::PutOnIn, std::vector<make::WeldRoom>>::of(r.put_on.input(), previous ? &previous->weld_rooms : nullptr,
                                                                make::weldRooms);
}

sheet::Drawing weldsDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                            const sheet::Format& f) {
    return make::weldSheet({&r.welds.input(), &*r.welds, r.planned_left, r.planned_right, roomWords(r), b.settings.length_step},
                           width, height, f);
}

Headline weldsHeadline(const Build&, const Results& r, SubjectId) {
    const make::WeldPlan& p = *r.welds;
    if (p.steps.empty())
        return {"Nothing is welded yet.", "Parts, a crossmember and rails that are joined again bring their seams."};
    const auto on_car = static_cast<std::size_t>(std::count_if(
        p.steps.begin(), p.steps.end(), [&](const make::WeldStep& w) { return r.welds.input().seams[w.seam].on_car; }));
    return {fmt::format("{}, {:.1f} m in all, about {:.0f} hours.", units::counted(p.steps.size(), "a seam"), p.length_mm / 1000,
                        p.work_min / 60),
            fmt::format("{} on the car. {}", on_car, weld_caution)};
}

std::vector<sheet::Drawing> weldPages(const Build& b, const Results& r) {
    return longPages(titled(b, r, "Make: welds"), {weld_caution, local_rules}, r.welds->steps.size(),
                     [&](std::size_t first, std::size_t until, double w, double h, const sheet::Format& f) {
                         return make::weldSheet(
                             {&r.welds.input(), &*r.welds, r.planned_left, r.planned_right, roomWords(r), b.settings.length_step},
                             w, h, f, first, until);
                     });
}

std::string makeWeldsJson(const Build&, const Results& r) {
    const make::WeldPlan& p = *r.welds;
    Json j = {{"length_mm", number(p.length_mm)},       {"filler_kg", number(p.wire_kg)}, {"gas_l", number(p.gas_l)},
              {"arc_min", number(p.arc_min)},           {"work_min", number(p.work_min)}, {"rates", "assumed"},
              {"not_in_it", r.welds.input().not_in_it}, {"seams", Json::array()},         {"torch", Json::array()},
              {"cautions", {weld_caution, local_rules}}};
    for (const make::WeldRoom& w : *r.weld_rooms)
        j["torch"].push_back(
            {{"part", w.name}, {"seam_mm", number(w.seam_mm)}, {"shut_mm", number(w.shut_mm)}, {"shut_by", w.shut_by}});
    for (const make::WeldStep& w : p.steps) {
        const WeldSeam& s = r.welds.input().seams[w.seam];
        j["seams"].push_back({{"number", w.number},
                              {"part", s.part},
                              {"seam", s.what},
                              {"kind", s.kind == WeldKind::Fillet ? "fillet" : "butt"},
                              {"length_mm", number(s.length_mm)},
                              {"leg_mm", number(s.leg_mm)},
                              {"thickness_mm", number(s.thickness_mm)},
                              {"on_car", s.on_car},
                              {"at_mm", {number(s.at.x_mm), number(s.at.y_mm), number(s.at.z_mm)}},
                              {"process", w.process},
                              {"filler", w.filler},
                              {"tacks", w.tacks},
                              {"tack_mm", number(w.tack_mm)},
                              {"run_mm", number(w.run_mm)},
                              {"runs", w.runs},
                              {"passes", w.passes},
                              {"filler_kg", number(w.wire_kg)},
                              {"gas_l", number(w.gas_l)},
                              {"work_min", number(w.work_min)},
                              {"draws_together_mm", number(w.pull_mm)}});
    }
    return text(j);
}

} // namespace gorvet::analysis
