#include "analysis/json_parts.hpp"
#include "analysis/lead.hpp"
#include "analysis/stock_sizes.hpp"

namespace gorvet::analysis {

namespace {
constexpr const char* statuses[] = {"planned", "no change", "waiting"};

Json candidate(const stretch::Candidate& c) {
    return {{"station_mm", number(c.station_mm)}, {"score", number(c.score)}, {"reasons", c.reasons}, {"refused", c.refused}};
}

void addSleeve(Json& j, const stretch::Plan& p) {
    j["sleeve"] = nullptr;
    if (p.sleeve)
        j["sleeve"] = {{"height_mm", p.sleeve->height_mm},
                       {"width_mm", p.sleeve->width_mm},
                       {"wall_mm", p.sleeve->wall_mm},
                       {"length_mm", p.sleeve->length_mm},
                       {"overlap_mm", p.sleeve->overlap_mm}};
    j["tube_in_hand"] = nullptr;
    if (p.tube)
        j["tube_in_hand"] = {{"upright_a_side_mm", number(p.tube->upright_mm)},
                             {"sideways_a_side_mm", number(p.tube->sideways_mm)}};
}

void addSplice(Json& j, const stretch::Plan& p) {
    j["splice"] = nullptr;
    if (p.splice) {
        const auto& s = *p.splice;
        const auto& g = s.plugs;
        Json q = {{"rail_modulus_mm3", number(s.rail_modulus_mm3)},
                  {"sleeve_modulus_mm3", number(s.sleeve_modulus_mm3)},
                  {"joint_modulus_mm3", number(s.joint_modulus_mm3)},
                  {"share_of_rail", number(s.share())},
                  {"moment_Nmm", number(s.moment_Nmm)},
                  {"flange_force_N", number(s.flange_force_N)},
                  {"plugs",
                   {{"structural", g.structural},
                    {"hole_mm", number(g.hole_mm)},
                    {"hole_least_mm", number(g.hole_least_mm)},
                    {"hole_most_mm", number(g.hole_most_mm)},
                    {"pitch_mm", number(g.pitch_mm)},
                    {"edge_mm", number(g.edge_mm)},
                    {"needed", g.needed},
                    {"rows", g.rows},
                    {"in_a_row", g.in_a_row},
                    {"capacity_N", number(g.capacity_N)},
                    {"overlap_need_mm", number(g.overlap_need_mm)}}}};
        q["fish_plate"] = nullptr;
        if (s.plate)
            q["fish_plate"] = {{"thickness_mm", s.plate->thickness_mm},
                               {"height_mm", s.plate->height_mm},
                               {"length_mm", s.plate->length_mm},
                               {"weld_leg_mm", s.plate->weld_leg_mm},
                               {"weld_capacity_N", number(s.plate->weld_capacity_N)},
                               {"weld_force_N", number(s.plate->weld_force_N)}};
        j["splice"] = std::move(q);
    }
}

void addSpine(Json& j, const stretch::Plan& p) {
    j["spine"] = nullptr;
    if (!p.spine) return;
    const stretch::SpinePlan& s = *p.spine;
    Json q = {{"stagger_mm", number(s.stagger_mm)}, {"along_each_flank_mm", number(s.slit_mm[0])}};
    q["cuts"] = Json::array();
    for (const stretch::SpineCut& c : s.cuts)
        q["cuts"].push_back({{"name", c.name}, {"first_mm", number(c.first_mm)}, {"last_mm", number(c.last_mm)}});
    q["saddle"] = {{"long_mm", number(s.saddle_long_mm)},        {"flat_mm", number(s.saddle_blank_mm)},
                   {"wall_mm", number(s.saddle_wall_mm)},        {"inside_high_mm", number(s.saddle_high_mm)},
                   {"inside_wide_mm", number(s.saddle_wide_mm)}, {"overlap_mm", number(s.overlap_mm)},
                   {"share_of_spine", number(s.share)},          {"strip_below_mm", number(s.strip_wide_mm)}};
    q["plugs"] = {{"hole_mm", number(s.plug_mm)},
                  {"pitch_mm", number(s.plug_pitch_mm)},
                  {"capacity_N", number(s.plug_N)},
                  {"flange_force_N", number(s.flange_force_N)},
                  {"needed", s.plugs_needed},
                  {"fit", s.plugs_fit},
                  {"overlap_need_mm", number(s.overlap_need_mm)}};
    q["pan_joint"] = {{"strip_long_mm", number(s.pan_strip_long_mm)},
                      {"strip_wide_mm", number(s.pan_strip_wide_mm)},
                      {"plugs", s.pan_plugs},
                      {"hole_mm", number(s.pan_plug_mm)}};
    q["windows"] = Json::array();
    for (const stretch::SpineWindow& w : s.windows)
        q["windows"].push_back({{"station_mm", number(w.station_mm)},
                                {"long_mm", number(w.long_mm)},
                                {"wide_mm", number(w.wide_mm)},
                                {"screws", w.screws}});
    q["inside"] = s.inside;
    j["spine"] = std::move(q);
}

void addJoint(Json& j, const stretch::Plan& p) {
    addSpine(j, p);
    addSplice(j, p);
    j["crossings"] = Json::array();
    for (const auto& c : p.crossings)
        j["crossings"].push_back({{"kind", build::word(c.kind)},
                                  {"name", c.name},
                                  {"decided", build::word(c.decided)},
                                  {"out_before_heat", c.out_before_heat},
                                  {"change_mm", number(c.change_mm)},
                                  {"slack_mm", number(c.slack_mm)},
                                  {"follows", c.follows},
                                  {"answer", c.answer},
                                  {"caution", c.caution},
                                  {"verdict", build::verdictWord(c.verdict)}});
    j["crossings_not_told"] = Json::array();
    for (const auto kind : p.not_told) j["crossings_not_told"].push_back(build::word(kind));
    j["stations"] = Json::array();
    for (const auto& c : p.candidates) j["stations"].push_back(candidate(c));
    j["chosen_station"] = p.chosen ? candidate(*p.chosen) : Json(nullptr);
}
} // namespace

std::string spliceJson(const build::Build& b, const Results& r) {
    const auto& p = *r.stretch;
    Json j = {{"status", statuses[static_cast<int>(p.status)]}, {"waiting_for", p.waiting_for}};
    addSleeve(j, p);
    addSplice(j, p);
    addSpine(j, p);
    j["stock_that_fits"] = Json::array();
    for (const SleeveFromStock& s : sleevesFromStock(b, r))
        j["stock_that_fits"].push_back({{"name", s.size->name()},
                                        {"upright_a_side_mm", number(s.fit.upright_mm)},
                                        {"sideways_a_side_mm", number(s.fit.sideways_mm)},
                                        {"strip_mm", number(s.strip_mm)},
                                        {"sentence", s.words},
                                        {"line", s.line}});
    j["verdict"] = p.status == stretch::Status::Waiting ? Json(nullptr) : Json(build::verdictWord(p.verdict));
    return text(j);
}

std::string stretchJson(const Results& r) {
    const auto& p = *r.stretch;
    Json j;
    j["status"] = statuses[static_cast<int>(p.status)];
    j["waiting_for"] = p.waiting_for;
    j["change_mm"] = number(p.change_mm);
    j["cut_station_mm"] = number(r.stretch.input().cut_station_mm);
    j["tail"] = p.tail;
    j["clearance_need_mm"] = number(p.clearance_need_mm);
    for (const auto& [key, cut] : {std::pair{"left", &p.left}, std::pair{"right", &p.right}})
        j[key] = {{"known", cut->known},
                  {"slope_deg", number(units::degrees(cut->slope_rad))},
                  {p.shortens ? "take_out_mm" : "new_piece_mm", number(cut->length_mm)},
                  {"first_cut_mm", number(cut->first_station_mm)},
                  {"last_cut_mm", number(cut->last_station_mm)}};
    addSleeve(j, p);
    j["near"] = Json::array();
    for (const auto& near : p.near)
        j["near"].push_back({{"name", near.obstacle.name},
                             {"what", near.obstacle.what},
                             {"station_mm", near.obstacle.station_mm},
                             {"distance_mm", near.distance_mm},
                             {"verdict", build::verdictWord(near.verdict)}});
    addJoint(j, p);
    j["verdict"] = p.status == stretch::Status::Waiting ? Json(nullptr) : Json(build::verdictWord(p.verdict));
    j["findings"] = findings(r.findings, "stretch");
    return text(j);
}

std::string makeJson(const Results& r) {
    Json j;
    j["mounts"] = Json::array();
    for (const auto& m : r.mounts) {
        Json q = {{"name", m.name}, {"station_mm", number(m.station_mm)}};
        put(q, m.gap_mm, "_mm", "gap");
        put(q, m.washer_mm, "_mm", "washer");
        put(q, m.biscuit_mm, "_mm", "biscuit");
        q["standoff_mm"] = m.standoff_mm;
        q["shims_mm"] = m.shims_mm;
        q["leftover_mm"] = m.leftover_mm;
        q["outboard_mm"] = number(m.outboard_mm);
        q["bolt_mm"] = m.bolt_mm;
        q["bolt_length_mm"] = number(m.bolt_length_mm);
        q["nut"] = m.nut;
        q["nut_inside_closed_rail"] = m.nut_inside;
        q["verdict"] = build::verdictWord(m.verdict);
        q["sentence"] = m.sentence;
        j["mounts"].push_back(std::move(q));
    }
    const auto& c = *r.crossmember;
    j["crossmember"] = nullptr;
    if (r.crossmember.made()) {
        Json q = {{"possible", c.possible}, {"waiting_for", c.waiting_for}};
        if (c.possible) {
            q["station_mm"] = c.station_mm;
            q["between_rails_mm"] = c.between_rails_mm;
            q["box_length_mm"] = c.box_length_mm;
            q["box_long_edge_mm"] = c.box_long_edge_mm;
            q["end_angle_left_deg"] = units::degrees(c.end_angle_left_rad);
            q["end_angle_right_deg"] = units::degrees(c.end_angle_right_rad);
            q["form"] = c.dropped ? "dropped" : "straight";
            q["bolt_free_mm"] = number(c.bolt_free_mm);
            q["pan_gap_mm"] = c.pan_over ? number(c.pan_gap_mm) : Json(nullptr);
            q["dropped"] = nullptr;
            if (c.dropped) {
                const auto leg = [](const make::Leg& l) {
                    return Json{{"angle_deg", units::degrees(l.angle_rad)},
                                {"length_mm", l.length_mm},
                                {"long_edge_mm", l.long_edge_mm},
                                {"plan_saw_deg", units::degrees(l.plan_saw_rad)},
                                {"joint_y_mm", l.joint_y_mm},
                                {"pan_distance_mm", number(l.pan_distance_mm)}};
                };
                q["dropped"] = {{"drop_mm", c.dropped->drop_mm},
                                {"middle_mm", c.dropped->middle_mm},
                                {"middle_long_mm", c.dropped->middle_long_mm},
                                {"riser_mm", c.dropped->riser_mm},
                                {"left", leg(c.dropped->left)},
                                {"right", leg(c.dropped->right)}};
            }
            q["pad_top_mm"] = c.pad_top_mm;
            q["box_top_mm"] = c.box_top_mm;
            q["rail_top_left_mm"] = c.rail_top_left_mm;
            q["rail_top_right_mm"] = c.rail_top_right_mm;
            q["bolt_mm"] = c.bolt_mm;
            q["bolt_length_mm"] = number(c.bolt_length_mm);
            q["mass_kg"] = c.mass_kg;
            q["plates"] = Json::array();
            for (const auto* plate : {&c.left, &c.right, &c.pad}) {
                Json holes = Json::array();
                for (const auto& hole : plate->holes)
                    holes.push_back({{"x_mm", hole.x_mm}, {"z_mm", hole.z_mm}, {"diameter_mm", hole.diameter_mm}});
                q["plates"].push_back({{"name", plate->name},
                                       {"width_mm", plate->width_mm},
                                       {"height_mm", plate->height_mm},
                                       {"thickness_mm", plate->thickness_mm},
                                       {"mass_kg", plate->mass_kg},
                                       {"holes", holes}});
            }
            q["cut_list"] = Json::array();
            for (const auto& piece : c.pieces)
                q["cut_list"].push_back({{"name", piece.name},
                                         {"stock", piece.stock},
                                         {"count", piece.count},
                                         {"length_mm", piece.length_mm},
                                         {"ends", piece.ends},
                                         {"mass_kg", piece.mass_kg}});
            q["verdict"] = build::verdictWord(c.verdict);
        }
        j["crossmember"] = std::move(q);
    }
    j["findings"] = findings(r.findings, "make");
    return text(j);
}

std::string whatIfJson(const build::Build& b, const Results& r, const Variant& v) {
    Json changed = Json::array();
    for (const BenchInfo* bench : benches()) {
        const Headline now = bench->headline(b, r, build::the_chassis),
                       then = bench->headline(v.build, v.results, build::the_chassis);
        if (now.sentence == then.sentence && now.below == then.below) continue;
        changed.push_back({{"bench", bench->name},
                           {"now", now.sentence},
                           {"now_below", now.below},
                           {"then", then.sentence},
                           {"then_below", then.below}});
    }
    // what stands in one list and not in the other, by all that is said of it
    const auto only = [](const std::vector<Finding>& in, const std::vector<Finding>& out) {
        std::vector<Finding> list;
        for (const Finding& f : in)
            if (std::none_of(out.begin(), out.end(), [&](const Finding& g) {
                    return f.code == g.code && f.subject == g.subject && f.sentence == g.sentence;
                }))
                list.push_back(f);
        return findings(list);
    };
    return text({{"benches", changed},
                 {"findings_that_come", only(v.results.findings, r.findings)},
                 {"findings_that_go", only(r.findings, v.results.findings)}});
}

std::string lacksJson(const build::Build& b, const Results& r) {
    Json j = Json::object();
    for (const BenchInfo* bench : benches()) {
        Json& of = j[std::string(bench->key)] = Json::array();
        for (const build::SubjectId subject : build::subjectsInOrder(b)) {
            if (!bench->by_subject && subject != build::the_chassis) continue;
            for (const Lack& lack : lacksOf(*bench, b, r, subject)) {
                Json row{{"sentence", lack.sentence}, {"do", lack.label}};
                if (bench->by_subject) row["subject"] = build::nameOf(b, subject);
                if (!lack.line.empty()) row["line"] = lack.line;
                if (!lack.edit.changes.empty()) row["would"] = lack.edit.sentence;
                of.push_back(std::move(row));
            }
        }
    }
    return text(j);
}

std::string findingsJson(const std::vector<Finding>& list) { return text({{"findings", findings(list)}}); }

} // namespace gorvet::analysis
