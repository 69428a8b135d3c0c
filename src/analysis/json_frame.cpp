// Sections as JSON.
#include "analysis/frame.hpp"
#include "analysis/frame_twist.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/scans.hpp"
#include "frame/forces_sheet.hpp"

namespace gorvet::analysis {

std::string sectionJson(const std::string& said, const frame::Section& s) {
    const auto at = [](const frame::At& p) { return Json{{"y_mm", number(p.y_mm)}, {"z_mm", number(p.z_mm)}}; };
    Json j = {{"section", said}, {"closed", s.closed()}};
    j["area_mm2"] = number(s.area_mm2);
    j["mass_kg_per_m"] = number(s.mass_kg_per_m);
    j["centroid"] = at(s.centroid);
    j["shear_centre"] = at(s.shear_centre);
    j["level_mm4"] = number(s.level_mm4);
    j["upright_mm4"] = number(s.upright_mm4);
    j["product_mm4"] = number(s.product_mm4);
    j["principal_mm4"] = number(s.principal_mm4);
    j["lesser_mm4"] = number(s.lesser_mm4);
    j["turned_deg"] = number(s.turned_rad * units::degrees(1));
    j["level_modulus_mm3"] = number(s.level_modulus_mm3);
    j["upright_modulus_mm3"] = number(s.upright_modulus_mm3);
    j["torsion_mm4"] = number(s.torsion_mm4);
    j["torsion_of_cells_mm4"] = number(s.cells_mm4);
    j["warping_mm6"] = number(s.warping_mm6);
    j["shear_area_level_mm2"] = number(s.shear_level_mm2);
    j["shear_area_upright_mm2"] = number(s.shear_upright_mm2);
    j["cautions"] = {"Figures of thin walls as said: rust, holes and welds are not in them.", "They certify nothing."};
    return text(j);
}

std::string twistJson(const build::Build& b, const FrameTwist& t) {
    const auto twist = [](const frame::Twist& one) {
        return Json{{"joints_warp_nm_per_deg", number(one.free_nm_per_deg)},
                    {"joints_held_nm_per_deg", number(one.held_nm_per_deg)},
                    {"between_axles_mm", number(one.length_mm)},
                    {"open_sections", one.open},
                    {"mass_kg", number(one.mass_kg)}};
    };
    Json j = {{"build", b.settings.name}, {"as_it_is", twist(t.now)}};
    j["as_planned"] = t.planned ? twist(*t.planned) : Json(nullptr);
    j["bridges"] = Json::array();
    for (const frame::Bridge& one : t.bridges)
        j["bridges"].push_back({{"name", one.name}, {"station_mm", number(one.station_mm)}, {"below_mm", number(one.below_mm)}});
    j["assumed"] = t.assumed;
    j["cautions"] = {"Indicative, no certificate: rails and the bridges that were said, as beams with rigid joints.",
                     "Left out: the body, suspension, brackets, holes, rust, welds that give, and bridges that were not said.",
                     "Strength and any change of a frame are for licensed people, by local rules."};
    return text(j);
}

namespace {

Json stiffnessJson(const frame::Stiffness& s) {
    return {{"joints_give_nm_per_deg", number(s.free_nm_deg)}, {"joints_held_nm_per_deg", number(s.held_nm_deg)}};
}

Json outcomeJson(const FrameAsked& asked, const frame::Outcome& o) {
    Json j = {{"twist", stiffnessJson(o.twist)}, {"between_axles_mm", number(o.length_mm)}, {"steel_kg", number(o.mass_kg)}};
    j["twist_with_body"] = o.with_body ? stiffnessJson(*o.with_body) : Json(nullptr);
    j["all_kg"] = number(o.all_kg);
    j["centre_of_gravity"] = {{"x_mm", number(o.centre_mm)}, {"z_mm", number(o.centre_up_mm)}};
    j["torsion_hz"] = number(o.torsion_hz);
    j["bending_hz"] = number(o.bending_hz);
    j["open_sections"] = o.open;
    j["beams"] = o.beams;
    j["meets_nothing"] = o.loose;
    j["cases"] = Json::array();
    for (const frame::OfCase& c : o.cases) {
        Json one = {{"name", c.asked.name},
                    {"up_g", number(c.asked.up_g)},
                    {"braking_g", number(c.asked.braking_g)},
                    {"cornering_g", number(c.asked.cornering_g)}};
        one["wheel_in_the_air"] = c.lifted ? Json(build::word(static_cast<build::Wheel>(*c.lifted))) : Json(nullptr);
        one["tips"] = c.tips;
        if (!c.tips) {
            one["stress_mpa"] = number(c.stress_mpa);
            one["margin"] = number(c.margin);
            one["verdict"] = build::verdictWord(verdictOf(asked, c));
            one["at"] = {{"member", c.line}, {"place", point(c.at)}};
            one["sinks_mm"] = number(c.sinks_mm);
            one["springs_carry_n"] = Json::array();
            for (const double n : c.carry_n) one["springs_carry_n"].push_back(number(n));
            one["unbalanced_share"] = number(c.unbalanced);
        }
        j["cases"].push_back(std::move(one));
    }
    j["members"] = Json::array();
    for (const frame::OfLine& l : o.lines) {
        Json line = {{"name", l.name}, {"places", Json::array()}};
        for (const frame::AtPlace& p : l.places)
            line["places"].push_back({{"place", point(p.at)},
                                      {"stress_mpa", number(p.stress_mpa)},
                                      {"worst_case", p.worst_case < o.cases.size() ? o.cases[p.worst_case].asked.name : ""},
                                      {"margin", number(p.margin())},
                                      {"range_of_1g_mpa", number(p.range_mpa)},
                                      {"joint", p.weld},
                                      {"at_rest_moment_nm", number(p.upright_nmm / 1000)},
                                      {"at_rest_sideways_nm", number(p.level_nmm / 1000)},
                                      {"at_rest_twist_nm", number(p.twist_nmm / 1000)},
                                      {"at_rest_shear_n", number(p.shear_n)}});
        j["members"].push_back(std::move(line));
    }
    return j;
}

} // namespace

std::string frameJson(const build::Build& b, const Results& r) {
    const FrameAsked asked = frameAsked(b, r);
    Json j = {{"build", b.settings.name}, {"waits_for", asked.waits}, {"remedy", asked.remedy}};
    j["assumed"] = asked.assumed;
    j["cracked"] = asked.cracked;
    j["weighed_kg"] = number(asked.weighed_kg);
    j["ribs_that_do_nothing"] = asked.idle;
    j["twist_wanted_nm_per_deg"] = number(asked.wanted_nm_deg);
    j["as_it_is"] = j["as_planned"] = nullptr;
    j["error"] = j["error_as_planned"] = nullptr;
    if (r.scans->frame.made()) {
        const FrameFound& found = *r.scans->frame;
        if (!found.wrong.empty()) j["error"] = found.wrong;
        if (!found.planned_wrong.empty()) j["error_as_planned"] = found.planned_wrong;
        if (found.now) j["as_it_is"] = outcomeJson(r.scans->frame.input(), *found.now);
        if (found.planned) j["as_planned"] = outcomeJson(r.scans->frame.input(), *found.planned);
        j["at_the_cut"] = nullptr;
        if (found.now && !found.now->lines.empty() && b.stretch.cut_station)
            if (const auto at = frame::throughAt(found.now->lines.front(), b.stretch.cut_station->value))
                j["at_the_cut"] = {{"station_mm", number(b.stretch.cut_station->value)},
                                   {"left_rail_bends_nm", number(at->bends_nm)},
                                   {"left_rail_shear_n", number(at->shear_n)},
                                   {"left_rail_twist_nm", number(at->twist_nm)},
                                   {"most_anywhere_nm", number(frame::mostThrough(found.now->lines.front()).bends_nm)}};
        j["splice"] = nullptr;
        if (const auto s = spliceBears(b, r))
            j["splice"] = {{"line", s->line},
                           {"stress_mpa", number(s->stress_mpa)},
                           {"may_mpa", number(s->may_mpa)},
                           {"margin", s->unlike ? Json(nullptr) : number(s->margin())},
                           {"other_section_there", s->unlike},
                           {"least_share_of_the_rail", number(s->share)}};
        j["splice_welds"] = nullptr;
        if (const auto w = spliceWelds(b, r))
            j["splice_welds"] = {{"line", w->line},
                                 {"case", w->case_name},
                                 {"plug_N", number(w->bears.plug_N)},
                                 {"plug_may_N", number(w->bears.plug_may_N)},
                                 {"fillet_edge_N", number(w->bears.fillet_N)},
                                 {"fillet_edge_may_N", number(w->bears.fillet_may_N)}};
        j["boxing"] = Json::array();
        for (const BoxingChoice& c : found.boxing) {
            Json plates = Json::array();
            for (const auto& [from, to] : c.plates) plates.push_back({{"from_mm", number(from)}, {"to_mm", number(to)}});
            Json ribs = Json::array();
            for (const auto& [from, to] : c.ribs) ribs.push_back({{"from_mm", number(from)}, {"to_mm", number(to)}});
            j["boxing"].push_back({{"name", c.name},
                                   {"where", c.words},
                                   {"thickness_mm", number(c.plate_mm)},
                                   {"windows_long_mm", number(c.windows.long_mm)},
                                   {"windows_high_mm", number(c.windows.high_mm)},
                                   {"windows_pitch_mm", number(c.windows.pitch_mm)},
                                   {"ribs", std::move(ribs)},
                                   {"rib_pitch_mm", number(c.rib_pitch_mm)},
                                   {"upright_mm", number(c.upright_mm)},
                                   {"other_members_closed", c.members},
                                   {"twist", stiffnessJson(c.twist)},
                                   {"plates", std::move(plates)},
                                   {"plates_kg", number(c.kg)},
                                   {"seam_m", number(c.seam_m)},
                                   {"hours_assumed", number(c.hours)}});
        }
    }
    j["cautions"] = {
        "Indicative, no certificate.",
        "Left out: buckling of plates, welds and rivets that give, holes, brackets, sheet that is welded on, and rust "
        "that nobody measured.",
        "Strength and any change of a frame are for licensed people, by local rules."};
    return text(j);
}

} // namespace gorvet::analysis
