#include "analysis/json_parts.hpp"

#include "analysis/seatings.hpp"
#include "analysis/sit_input.hpp"

namespace gorvet::analysis {

namespace {

bool isAngle(const build::Pin& p) { return p.kind == build::PinKind::Rake; }
Json shownJson(const build::Pin& p, double v) { return number(isAngle(p) ? units::degrees(v) : v); }
const char* unitOf(const build::Pin& p) { return isAngle(p) ? "_deg" : "_mm"; }

Json pinJson(const build::Build& b, const build::Pin& pin) {
    const std::string unit = unitOf(pin);
    Json q = {{"kind", build::word(pin.kind)}, {"name", pinName(b, pin)}, {"points", Json::array()}};
    for (const auto id : pin.points) q["points"].push_back(build::nameOf(b, id));
    if (!pin.to.empty()) {
        q["to"] = Json::array();
        for (const auto id : pin.to) q["to"].push_back(build::nameOf(b, id));
    }
    if (const auto box = b.obstacles.find(pin.box); box != b.obstacles.end()) q["to_box"] = box->second.name;
    q["bound"] = build::word(pin.bound);
    q["importance"] = build::word(pin.importance);
    q["target" + unit] = shownJson(pin, pin.target.value);
    q["provenance"] = build::word(pin.target.provenance);
    q["tolerance" + unit] = shownJson(pin, pin.tolerance);
    return q;
}

void addResult(Json& q, const build::Pin& pin, const sit::PinResult& w) {
    const std::string unit = unitOf(pin);
    q["usable"] = w.usable;
    q["words"] = w.words;
    if (!w.usable) return;
    put(q, w.achieved, unit, "achieved");
    put(q, w.miss, unit, "miss");
    q["on_bound"] = w.on_bound;
    q["verdict"] = build::verdictWord(w.verdict);
}

Json poseJson(const sit::Pose& p) {
    return {{"x_mm", number(p.shift.x_mm)},
            {"y_mm", number(p.shift.y_mm)},
            {"z_mm", number(p.shift.z_mm)},
            {"yaw_deg", number(units::degrees(p.yaw_rad))},
            {"pitch_deg", number(units::degrees(p.pitch_rad))},
            {"roll_deg", number(units::degrees(p.roll_rad))}};
}

Json comparedJson(const build::Build& b, const Results& r) {
    const SeatingsCompared& c = r.seatings;
    Json j;
    j["columns"] = Json::array();
    for (const auto& column : c.columns) {
        Json q = {{"name", column.name}, {"usable", column.usable}, {"note", column.note}};
        if (column.usable) {
            q["pose"] = poseJson(column.seat->pose);
            q["wheelbase_change_mm"] = number(column.seat->change_mm);
            q["channel_mm"] = number(column.lowering.channel.value);
            q["raise_floor_mm"] = number(column.lowering.raise.value);
            q["kick_mm"] = number(column.lowering.kick.value);
            q["pins"] = Json::array();
            for (size_t i = 0; i < column.rows.size(); ++i) {
                Json pin = {{"name", pinName(b, c.rows[i])}};
                addResult(pin, c.rows[i], column.rows[i]);
                q["pins"].push_back(std::move(pin));
            }
        }
        j["columns"].push_back(std::move(q));
    }
    j["moves"] = Json::array();
    for (const auto& m : c.trade_offs->moves) {
        Json q = {{"move", m.move.words}, {"sentence", moveSentence(b, r, m)}, {"gains", Json::array()}};
        for (size_t i = 0; i < m.gain.size(); ++i) {
            const auto& pin = b.pins.at(r.pin_ids[i]);
            q["gains"].push_back({{"pin", pinName(b, pin)}, {std::string("by") + unitOf(pin), shownJson(pin, m.gain[i])}});
        }
        j["moves"].push_back(std::move(q));
    }
    j["giving_up"] = Json::array();
    for (const auto& g : c.trade_offs->given_up)
        j["giving_up"].push_back(
            {{"pin", pinName(b, b.pins.at(r.pin_ids[static_cast<size_t>(g.pin)]))}, {"sentence", givenUpSentence(b, r, g)}});
    j["lower_by_mm"] = number(c.lower_by_mm);
    j["ways_to_lower"] = Json::array();
    for (const auto& p : c.ways)
        j["ways_to_lower"].push_back({{"way", sit::name(p.way)},
                                      {"cut_mm", number(p.cut_mm)},
                                      {"weld_mm", number(p.weld_mm)},
                                      {"new_sheet_mm2", number(p.sheet_area_mm2)},
                                      {"new_sheet_kg", number(p.mass_kg)},
                                      {"head_room_mm", number(p.head_room_by_mm)},
                                      {"foot_room_mm", number(p.foot_room_by_mm)},
                                      {"sills_mm", number(p.sill_by_mm)},
                                      {"rails_over_ground_mm", number(p.rail_clearance_by_mm)},
                                      {"tunnel_mm", number(p.tunnel_by_mm)},
                                      {"cuts_the_frame", p.cuts_rails},
                                      {"words", p.words}});
    return j;
}

} // namespace

std::string sitJson(const build::Build& b, const Results& r) {
    static constexpr const char* statuses[] = {"seated", "underdetermined", "no pins", "not converged"};
    Json j;
    j["status"] = statuses[static_cast<int>(r.seat->status)];
    j["pose"] = poseJson(r.seat->pose);
    j["wheelbase_now_mm"] = number(r.seat->wheelbase_now_mm);
    j["wheelbase_change_mm"] = number(r.seat->change_mm);
    j["wheelbase_change_u95_mm"] = number(r.seat->change_u95_mm);
    j["wheelbase_change_decided"] = r.seat->change_decided;
    j["change_both_centred_mm"] = number(r.seat->change_both_centred_mm);
    j["leads"] = build::word(b.school.leads);
    j["pins"] = Json::array();
    for (size_t i = 0; i < r.pin_ids.size(); ++i) {
        const auto& pin = b.pins.at(r.pin_ids[i]);
        Json q = pinJson(b, pin);
        addResult(q, pin, r.seat->pins[i]);
        j["pins"].push_back(std::move(q));
    }
    j["body_points"] = Json::array();
    for (const auto id : r.body.point_ids)
        if (const auto at = r.bodyInChassis(id)) {
            Json q = {{"name", build::nameOf(b, id)}};
            q.update(point(*at));
            j["body_points"].push_back(std::move(q));
        }
    j["open"] = r.seat->open;
    j["contradictory"] = Json::array();
    for (const int i : r.seat->contradictory)
        j["contradictory"].push_back(pinName(b, b.pins.at(r.pin_ids[static_cast<size_t>(i)])));
    j["seatings"] = comparedJson(b, r);
    j["findings"] = findings(r.findings, "sit");
    return text(j);
}

} // namespace gorvet::analysis
