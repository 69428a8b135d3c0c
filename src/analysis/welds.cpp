// The weld plan: its seams from all that is planned of steel, its sheet, page and JSON.
#include "analysis/welds.hpp"

#include "analysis/joins.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
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
         {std::tuple{"rail left", &plan.left, &r.planned_left}, {"rail right", &plan.right, &r.planned_right}}) {
        const auto at = rail->at(cut->first_station_mm);
        if (!cut->known || !at) continue;
        const Vec3 place{cut->first_station_mm, at->y_mm, (at->top_mm + at->bottom_mm) / 2};
        const double h = rail->height_mm, w = rail->width_mm, t = rail->thickness_mm;
        in.seams.push_back(
            {name, "where it is joined again", tag, WeldKind::Butt, from.channel ? h + 2 * w : 2 * (h + w), t, t, true, place});
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
    std::string mounts;
    for (const make::MountStack& m : r.mounts)
        if (m.on_rail && m.standoff_mm > 0) mounts += (mounts.empty() ? "" : " ") + m.name;
    if (!mounts.empty()) in.not_in_it.push_back(fmt::format("the standoffs of the mounts {}: their tubes are not said", mounts));
    if (!b.let_in.empty()) in.not_in_it.emplace_back("what is let in beside the rails: on Stretch");
    return in;
}

} // namespace

Node<WeldIn, make::WeldPlan> weldsOf(const Build& b, const Results& r, const Results* previous) {
    return Node<WeldIn, make::WeldPlan>::of(weldInput(b, r), previous ? &previous->welds : nullptr, make::weldPlan);
}

sheet::Drawing weldsDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                            const sheet::Format& f) {
    return make::weldSheet({&r.welds.input(), &*r.welds, r.planned_left, r.planned_right, b.settings.length_step}, width, height,
                           f);
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
                             {&r.welds.input(), &*r.welds, r.planned_left, r.planned_right, b.settings.length_step}, w, h, f,
                             first, until);
                     });
}

std::string makeWeldsJson(const Build&, const Results& r) {
    const make::WeldPlan& p = *r.welds;
    Json j = {
        {"length_mm", number(p.length_mm)},       {"filler_kg", number(p.wire_kg)}, {"gas_l", number(p.gas_l)},
        {"arc_min", number(p.arc_min)},           {"work_min", number(p.work_min)}, {"rates", "assumed"},
        {"not_in_it", r.welds.input().not_in_it}, {"seams", Json::array()},         {"cautions", {weld_caution, local_rules}}};
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
