// The drive line as JSON.
#include "analysis/drive.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"

namespace gorvet::analysis {

using namespace build;

namespace {

Json standingJson(const drive::ChainPlan& c, const drive::Standing& s) {
    Json j = {{"where", s.situation.name}};
    j["joints"] = Json::array();
    for (std::size_t k = 0; k < c.joints.size(); ++k) {
        Json one = {{"joint", c.joints[k].name}};
        put(one, s.angles_rad[k], "_deg", "angle");
        j["joints"].push_back(std::move(one));
    }
    put(j, s.residual_rad, "_deg", "residual");
    j["lengths"] = Json::array();
    for (std::size_t k = 0; k < c.shafts.size(); ++k) {
        Json one = {{"shaft", c.shafts[k].name}};
        put(one, s.lengths_mm[k], "_mm", "length");
        j["lengths"].push_back(std::move(one));
    }
    return j;
}

Json tubeJson(const std::optional<drive::Tube>& t) {
    return t ? Json{{"outside_mm", number(t->outside_mm)}, {"wall_mm", number(t->wall_mm)}} : Json(nullptr);
}

Json shaftJson(const drive::ShaftPlan& p) {
    Json j = {{"name", p.name}};
    put(j, p.length_mm, "_mm", "length");
    if (p.now_mm) put(j, *p.now_mm, "_mm", "length_now");
    put(j, p.shortest_mm, "_mm", "shortest");
    j["shortest_at"] = p.shortest_at;
    put(j, p.longest_mm, "_mm", "longest");
    j["longest_at"] = p.longest_at;
    put(j, p.most_angle_rad, "_deg", "most_angle");
    j["most_angle_at"] = p.most_angle_at;
    j["tube"] = tubeJson(p.tube);
    j["critical_rpm"] = number(p.critical_rpm);
    j["shear_mpa"] = number(p.shear_mpa);
    j["lightest_tube"] = tubeJson(p.lightest);
    return j;
}

Json shaftsJson(const Build& b, const Results& r) {
    Json j;
    const drive::LinePlan& plan = *r.drive;
    j["top_rpm"] = number(plan.top_rpm);
    j["lines"] = Json::array();
    for (const drive::ChainPlan& c : plan.chains) {
        Json one = {{"name", c.name}, {"verdict", verdictWord(c.verdict)}};
        one["stands"] = Json::array();
        for (const drive::Standing& s : c.stands) one["stands"].push_back(standingJson(c, s));
        if (c.now) one["now"] = standingJson(c, *c.now);
        one["torsional_rad_s2"] = number(c.torsional);
        one["inertial_rad_s2"] = number(c.inertial);
        one["exact_lead_deg"] = number(units::degrees(c.exact_lead_rad));
        one["pinion_slope_by_layout_deg"] = c.school_rad ? number(units::degrees(*c.school_rad)) : Json(nullptr);
        one["shafts"] = Json::array();
        for (const drive::ShaftPlan& p : c.shafts) one["shafts"].push_back(shaftJson(p));
        one["remedies"] = Json::array();
        for (const drive::Remedy& remedy : c.remedies)
            one["remedies"].push_back({{"words", remedy.words}, {"line", remedy.line}});
        one["searched"] = c.searched;
        one["remarks"] = remarksJson(c.remarks);
        j["lines"].push_back(std::move(one));
    }
    const LevelsRead read = levelsRead(b, r);
    j["levels"] = Json::array();
    for (std::size_t k = 0; k < read.ids.size(); ++k) {
        const LevelReading& l = b.level_readings.at(read.ids[k]);
        const drive::LevelJudged& judged = read.levels.readings[k];
        j["levels"].push_back({{"on", l.on == LevelOn::Frame  ? std::string("frame")
                                      : l.on == LevelOn::Unit ? b.drive_ends.at(l.end).name
                                                              : b.shafts.at(l.shaft).name},
                               {"read_deg", number(units::degrees(l.slope.value))},
                               {"residual_deg", number(units::degrees(judged.residual))},
                               {"redundancy", number(judged.redundancy)},
                               {"set_aside", judged.set_aside},
                               {"other_sign", judged.other_sign}});
    }
    j["loose"] = plan.loose;
    j["strain_mm"] = number(plan.strain_mm);
    j["missing"] = r.drive.input().missing;
    j["assumed"] = r.drive.input().assumed;
    j["cautions"] = {shaft_caution, local_rules};
    return j;
}

Json ratiosJson(const Build& b) {
    Json j = Json::array();
    for (const WorkedRatio& w : workedRatios(b)) {
        Json one = {{"axle", word(w.axle)}, {"counts", w.counts}};
        if (w.counted) put(one, *w.counted, "", "ratio");
        one["said"] = w.said ? number(w.said->value) : Json(nullptr);
        one["teeth"] = Json::array();
        for (const drive::TeethPair& p : w.pairs)
            one["teeth"].push_back({{"crown", p.crown}, {"pinion", p.pinion}, {"ratio", number(p.ratio())}});
        one["cruise_rpm"] = number(w.cruise_rpm);
        j.push_back(std::move(one));
    }
    return j;
}

} // namespace

std::string driveShaftJson(const Build& b, const Results& r) { return text(shaftsJson(b, r)); }
std::string driveRatioJson(const Build& b, const Results&) { return text(Json{{"axles", ratiosJson(b)}}); }
std::string driveJson(const Build& b, const Results& r) {
    Json j = shaftsJson(b, r);
    j["axles"] = ratiosJson(b);
    return text(j);
}

} // namespace gorvet::analysis
