#include "analysis/json_scan.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/scans.hpp"

#include <numbers>

#include <fmt/format.h>

namespace gorvet::analysis {

namespace {

Json lineJson(const sit::CutLine& l) {
    Json places = Json::array();
    for (const shape::Point3& p : l.line.places) places.push_back({number(p[0]), number(p[1]), number(p[2])});
    return {{"length_mm", number(l.length_mm)},
            {"closed", l.line.closed},
            {"stays_inside", l.hole},
            {"straightened_by_mm", number(l.off_mm)},
            {"places", places}};
}
Json cutsJson(const sit::CutMap& map) {
    Json cuts = Json::array();
    for (const sit::Cut& c : map.cuts) {
        Json lines = Json::array(), rough = Json::array();
        for (const sit::CutLine& l : c.lines) lines.push_back(lineJson(l));
        for (const sit::CutLine& l : c.rough) rough.push_back(lineJson(l));
        cuts.push_back({{"number", c.number},
                        {"allowed", c.allowed()},
                        {"area_mm2", number(c.area_mm2)},
                        {"mass_kg", number(c.mass_kg)},
                        {"deepest_mm", number(c.deepest_mm)},
                        {"at", stationJson(c.at)},
                        {"from", stationJson(c.box.min)},
                        {"to", stationJson(c.box.max)},
                        {"flat", c.flat},
                        {"off_plane_mm", number(c.off_plane_mm)},
                        {"crosses", c.crosses},
                        {"never", c.never},
                        {"brace_first", c.brace},
                        {"lines", lines},
                        {"rough_lines", rough}});
    }
    return {{"cuts", cuts},
            {"ground_off", map.ground_off},
            {"area_mm2", number(map.area_mm2)},
            {"mass_kg", number(map.mass_kg)},
            {"remarks", map.remarks},
            {"caution",
             "Cutting a body changes its strength. Brace it first, follow local rules, and never cut plates with numbers."}};
}

Json wayDownJson(const sit::WayDown& w) {
    const auto step = [](const sit::DownStep& s) {
        return Json{{"rearward_mm", number(s.at.back_mm)},
                    {"up_mm", number(s.at.up_mm)},
                    {"nose_up_deg", number(units::degrees(s.at.tilt_rad))},
                    {"nearest_mm", s.far ? Json(nullptr) : number(s.least_mm)},
                    {"of", s.body_part},
                    {"to", s.chassis_part},
                    {"at", s.far ? Json(nullptr) : stationJson(s.where)}};
    };
    Json steps = Json::array(), blocked = Json::array();
    for (const sit::DownStep& s : w.steps) steps.push_back(step(s));
    for (const auto& i : w.in_the_way)
        blocked.push_back({{"of", i.body_part},
                           {"to", i.chassis_part},
                           {"up_mm", number(i.up_mm)},
                           {"at", stationJson(i.where)},
                           {"take_off", i.take_off.empty() ? Json(nullptr) : Json(i.take_off)},
                           {"or_cut_more_mm2", number(i.more_mm2)},
                           {"there_from", stationJson(i.box.min)},
                           {"there_to", stationJson(i.box.max)}});
    return {{"found", w.found},
            {"straight", w.straight},
            {"gave_up", w.gave_up},
            {"searched", w.searched},
            {"tightest", w.found ? step(w.steps[w.tightest]) : Json(nullptr)},
            {"between_steps_no_nearer_mm", w.found ? number(w.no_nearer_mm) : Json(nullptr)},
            {"turns_at", w.corners},
            {"steps", steps},
            {"straight_down_touches", blocked},
            {"left_out_mm2", number(w.left_out_mm2)},
            {"poses", w.looks}};
}

Json overlayObject(const build::Build& b, const Results& r) {
    const Overlay& o = *r.scans->overlay;
    const bool known = clearanceKnown(b, r);
    const Headline h = overlayHeadline(b, o, known ? &*r.scans->clearance : nullptr);
    Json j;
    j["sentence"] = h.sentence;
    j["below"] = h.below;
    j["seated"] = r.seated();
    if (!known) return j;
    const OverlayClearance& c = *r.scans->clearance;
    j["need"] = {{"least_mm", o.need.least_mm}, {"finish_mm", o.need.finish_mm}, {"u95_mm", number(o.need.u95_mm)}};
    j["least_mm"] = number(c.least_mm);
    j["signed"] = c.live.map.has_inside;
    j["pairs"] = Json::array();
    for (const OverlayPair& p : c.pairs) {
        const sit::Pair& q = p.pair;
        const bool far = q.least_mm >= q.need.cap_mm;
        j["pairs"].push_back({{"one", partName(o, p.moving, q.moving)},
                              {"other", partName(o, p.fixed, q.fixed)},
                              {"least_clearance_mm", number(q.need.least_mm)},
                              {"finish_mm", number(q.need.finish_mm)},
                              {"u95_mm", number(q.need.u95_mm)},
                              {"provenance", p.assumed ? "assumed" : "measured"},
                              {"verdict", q.band == sit::Band::Fouls   ? "Fouls"
                                          : q.band == sit::Band::Tight ? "Tight"
                                                                       : "Clear"},
                              {"nearest_mm", far ? Json(nullptr) : number(q.least_mm)},
                              {"looked_as_far_as_mm", number(q.need.cap_mm)},
                              {"surfaces_meet", q.meets},
                              {"depth_known", q.depth_known},
                              {"at", far ? Json(nullptr) : stationJson(q.at)},
                              {"pose", q.pose},
                              {"poses", q.poses},
                              {"between_poses_mm", number(q.between_mm)},
                              {"places", q.contacts.size()}});
    }
    j["findings"] = findings(clearanceFindings(b, o, c, 1000));
    const WayFound& both = *r.scans->way;
    const sit::WayIn& way = both.in;
    const auto lift = [](const sit::Lift& l) {
        Json parts = Json::array();
        for (const auto& [name, mm] : l.by_part) parts.push_back({{"part", name}, {"lift_mm", number(mm)}});
        return Json{{"lift_mm", number(l.lift_mm)}, {"part", l.part}, {"at", stationJson(l.at)}, {"by_part", parts}};
    };
    Json undercuts = Json::array();
    for (const sit::Undercut& u : way.undercuts)
        undercuts.push_back(
            {{"by_mm", number(u.by_mm)}, {"part", u.part}, {"at", stationJson(u.at)}, {"area_mm2", number(u.area_mm2)}});
    j["way_in"] = {{"from_behind", lift(way.from_behind)},
                   {"from_front", lift(way.from_front)},
                   {"tilt_deg", number(way.tilt_rad * 180 / std::numbers::pi)},
                   {"tilted", lift(way.tilted)},
                   {"tilted_from", way.behind_is_less ? "behind" : "front"},
                   {"undercuts", undercuts},
                   {"down", wayDownJson(both.down)},
                   {"words", both.words},
                   {"caution", "Nobody under a hung body. Lower it on blocks, never on hands."}};
    return j;
}

} // namespace

std::string cutMapJson(const sit::CutMap& map, const std::vector<std::pair<std::string, std::string>>& said,
                       const std::vector<std::pair<std::string, double>>& figures) {
    Json j;
    for (const auto& [key, value] : said) j[key] = value;
    for (const auto& [key, value] : figures) j[key] = value;
    j.update(cutsJson(map));
    return text(j);
}

std::string overlayJson(const build::Build& b, const Results& r, const std::string& seating, const sit::CutMap* cuts,
                        const std::string& kept) {
    Json j = {{"seating", seating.empty() ? "now" : seating}};
    j.update(overlayObject(b, r));
    if (!kept.empty()) j["kept"] = kept;
    if (cuts) j.update(cutsJson(*cuts));
    return text(j);
}

} // namespace gorvet::analysis
