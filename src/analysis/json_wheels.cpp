// The wheels as JSON.
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/wheels.hpp"

namespace gorvet::analysis {

using namespace build;

namespace {

void putKnown(Json& to, const std::optional<Figure>& f, const char* name) {
    if (f)
        put(to, *f, "_mm", name);
    else
        to[std::string(name) + "_mm"] = nullptr;
}

Json wheelJson(const drive::WheelFigures& w) {
    Json j;
    put(j, w.width_mm, "_mm", "rim_width");
    put(j, w.diameter_mm, "_mm", "rim_diameter");
    putKnown(j, w.offset_mm, "offset");
    putKnown(j, w.backspace_mm, "backspace");
    putKnown(j, w.outside_mm, "tyre_diameter");
    putKnown(j, w.section_mm, "tyre_width");
    putKnown(j, w.circle_mm, "stud_circle");
    return j;
}

Json clearJson(const drive::WheelsIn& in, const std::vector<drive::RoomClear>& list) {
    Json j = Json::array();
    for (const drive::RoomClear& c : list) {
        Json one = {{"of", in.corners[c.corner].name}, {"to", c.name}, {"verdict", drive::clearWord(c.verdict)}};
        put(one, c.clear_mm, "_mm", "clear");
        one["least_mm"] = number(c.least_mm);
        one["least_is_usual"] = c.least_assumed;
        one["pose"] = c.pose;
        j.push_back(std::move(one));
    }
    return j;
}

Json spansJson(const std::vector<drive::MapSpan>& spans) {
    Json j = Json::array();
    const auto end = [](const drive::MapEnd& e) {
        return Json{{"offset_mm", number(e.offset_mm)}, {"ended_by", known(e.name)}, {"pose", known(e.pose)}};
    };
    for (const drive::MapSpan& s : spans) j.push_back({{"from", end(s.low)}, {"to", end(s.high)}});
    return j;
}

Json mapJson(const drive::WheelMap& m) {
    Json j = {{"tyre_diameter_mm", number(m.outside_mm)},
              {"offsets_mm", {number(m.least_offset_mm), number(m.most_offset_mm)}},
              {"usual_widths_on_the_rim_mm", {number(m.least_on_rim_mm), number(m.most_on_rim_mm)}}};
    j["widths"] = Json::array();
    for (const drive::MapColumn& c : m.columns)
        j["widths"].push_back(
            {{"tyre_width_mm", number(c.section_mm)}, {"clear", spansJson(c.clear)}, {"passes", spansJson(c.free)}});
    return j;
}

} // namespace

std::string driveWheelJson(const Build& b, const Results& r) {
    Json j;
    j["axles"] = Json::array();
    for (const WheelsShown& w : wheelsShown(b, r)) {
        const drive::WheelsPlan& p = *w.plan;
        Json one = {{"axle", p.name}, {"verdict", verdictWord(p.verdict)}};
        one["fitted"] = p.fitted ? wheelJson(*p.fitted) : Json(nullptr);
        one["wanted"] = p.wanted ? wheelJson(*p.wanted) : Json(nullptr);
        putKnown(one, p.hub_circle_mm, "hub_stud_circle");
        one["change"] = p.change ? Json{{"tyre_share", number(p.change->diameter_share)},
                                        {"stands_higher_mm", number(p.change->rides_mm)},
                                        {"turns_per_km", number(p.change->revs_per_km)},
                                        {"true_at_100_kmh", number(p.change->true_at_100_kmh)},
                                        {"track_wider_mm", number(p.change->track_mm)},
                                        {"outer_side_outwards_mm", number(p.change->outer_mm)},
                                        {"inner_side_inwards_mm", number(p.change->inner_mm)}}
                                 : Json(nullptr);
        one["band"] = p.band ? Json{{"length_mm", number(p.band->length_mm)},
                                    {"cut_mm", number(p.band->cut_mm)},
                                    {"rim_width_mm", number(p.band->width_mm)},
                                    {"offset_mm", number(p.band->offset_mm)},
                                    {"kg", number(p.band->kg)}}
                             : Json(nullptr);
        if (const auto in = adaptorOf(w)) {
            const drive::AdaptorPlan plate = drive::adaptorPlan(*in);
            Json holes = Json::array();
            for (const drive::PlateHole& h : plate.holes)
                holes.push_back({{"x_mm", number(h.x_mm)},
                                 {"y_mm", number(h.y_mm)},
                                 {"across_mm", number(h.across_mm)},
                                 {"for", h.hub ? "hub" : "wheel"}});
            one["adaptor"] = {{"turned_deg", number(units::degrees(plate.turned_rad))},
                              {"least_between_holes_mm", number(plate.web_mm)},
                              {"least_to_edge_mm", number(plate.edge_mm)},
                              {"holes", std::move(holes)}};
        }
        one["clear_now"] = clearJson(*w.input, p.now);
        one["clear_as_wanted"] = clearJson(*w.input, p.planned);
        one["poses"] = p.poses;
        one["scans"] = known(w.scans);
        one["map"] = p.map ? mapJson(*p.map) : Json(nullptr);
        one["remarks"] = remarksJson(p.remarks);
        one["assumed"] = w.input->assumed;
        one["not_judged"] = p.missing;
        j["axles"].push_back(std::move(one));
    }
    j["turned"] = Json::array();
    for (const auto& [id, t] : b.dial_turns) {
        const drive::RunOut run = drive::runOut(t.readings, t.within ? t.within->value : dial_u95_mm);
        Json one = {{"wheel", word(t.wheel)}, {"way", word(t.way)}, {"total_mm", number(run.total_mm)}};
        put(one, run.first_mm, "_mm", "once_a_turn");
        if (run.high_known) put(one, run.high_rad, "_deg", "highest_at");
        one["left_then_mm"] = number(run.rest_mm);
        one["verdict"] = verdictWord(dialVerdict(t));
        j["turned"].push_back(std::move(one));
    }
    j["cautions"] = {wheel_caution, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
