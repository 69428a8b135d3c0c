// Checks of brakes and pedals: input, list, headline, card and JSON; pages of what the wheels carry.
#include "analysis/car_points.hpp"
#include "analysis/carried.hpp"
#include "analysis/column.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/travel.hpp"
#include "drive/weights_sheet.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

const char* const brake_caution =
    "These are checks of figures, no design: brakes are chosen, built and tried by those who are licensed for it, and local rules come first.";

namespace {

/// Where a run's last point goes with its axle, at full bump and full droop.
void endMoves(const Build& b, const Results& r, const Run& run, bool right, drive::RunIn& in) {
    if (!run.length || run.last_on == Carrier::Frame) return;
    const bool front = run.last_on == Carrier::Front;
    const WheelTravel& t = b.travel;
    const auto& [bump, droop] = front ? std::tie(t.front_bump, t.front_droop) : std::tie(t.rear_bump, t.rear_droop);
    if (bump.provenance == Provenance::Assumed || droop.provenance == Provenance::Assumed) in.assumed = true;
    // a second rear axle is not on the first one's links
    const drive::TravelIn* held = run.last_on == Carrier::SecondRear ? nullptr : heldBy(r, front, right);
    in.straight = !held || !held->assumed.empty();
    in.steers = front;
    for (const double up : {bump.value, -droop.value}) {
        geometry::RigidTransform moved;
        moved.translation.z_mm = up;
        if (held) {
            const auto stances = drive::sweep(drive::linkageOf(held->held, held->places.at), {{up, up, 0}});
            if (stances.empty())
                in.straight = true;
            else
                moved = stances.front().moved;
        }
        in.last_moved.push_back(moved);
    }
}

} // namespace

drive::BrakesIn brakesInput(const Build& b, const Results& r) {
    drive::BrakesIn in;
    in.said = !b.brakes.empty() || !b.pedals.empty() || !b.runs.empty();
    if (!in.said) return in;
    const auto copied = [](const auto* row) { return row ? std::optional(*row) : std::nullopt; };
    in.brakes = {copied(brakeOf(b, AxleEnd::Front)), copied(brakeOf(b, AxleEnd::Rear))};
    in.pedal = copied(pedalOf(b, PedalKind::Brake));
    in.clutch = copied(pedalOf(b, PedalKind::Clutch));
    const drive::WeightsIn& weights = r.weights.input();
    for (std::size_t end = 0; end < 2; ++end)
        if (const auto& left = weights.wheels[2 * end], &right = weights.wheels[2 * end + 1]; left && right)
            in.axle_kg[end] = *left + *right;
    in.wheelbase_mm = weights.wheelbase_mm;
    if (r.weights->cg_z_mm)
        in.cg_mm = r.weights->cg_z_mm;
    else if (const auto& said = b.drive_facts.cg_height)
        in.cg_mm = Figure{said->value, 0.1 * said->value, said->provenance};
    if (b.axles.front) in.radius_mm[0] = b.axles.front->value;
    if (b.axles.rear) in.radius_mm[1] = b.axles.rear->value;
    CarPoints points(b, r);
    in.runs = runsIn(b, points);
    if (const std::string lost = points.lost(); !lost.empty()) {
        in.missing.push_back(lost);
        in.runs.clear();
    }
    in.places = points.places();
    if (in.runs.empty()) return in;
    const std::vector<std::string> guessed = points.assumed();
    std::size_t at = 0;
    for (const auto& [id, run] : b.runs) {
        drive::RunIn& of = in.runs[at++];
        endMoves(b, r, run, in.places.at[of.points.back()].y_mm > 0, of);
        for (const PointId p : run.points)
            if (run.length && std::find(guessed.begin(), guessed.end(), nameOf(b, p)) != guessed.end()) of.assumed = true;
    }
    return in;
}

Headline brakesHeadline(const Build&, const Results& r, SubjectId) {
    const drive::BrakesIn& in = r.brakes.input();
    if (!in.said)
        return {
            "Nothing is said of brakes and pedals.",
            "Say what is there, and what can be checked is checked: brake front disc piston 48 pistons 2 radius 112 grip 0.38. " +
                std::string(brake_caution)};
    const drive::BrakesPlan& p = *r.brakes;
    Headline h;
    if (!p.remarks.empty())
        h.sentence = p.remarks.front().sentence;
    else if (p.locks_at_g)
        h.sentence = fmt::format("Nothing was found: both axles lock together at {:.2f} ± {:.2f} g.", p.locks_at_g->value,
                                 p.locks_at_g->u95);
    else
        h.sentence = "Nothing was found by what could be checked.";
    if (!p.not_looked_at.empty()) h.below = fmt::format("Not looked at: {}. ", p.not_looked_at.front());
    h.below += brake_caution;
    return h;
}

Listing brakesList(const Build&, const Results& r, SubjectId) {
    Listing list;
    list.columns = {"what was checked", "figure", "wanted"};
    list.one = "check";
    const double no = std::nan("");
    const drive::BrakesPlan& p = *r.brakes;
    const Limit none;
    const auto add = [&](const std::string& tag, const std::string& what, const std::optional<Figure>& f, double scale,
                         int digits, const char* unit, const std::string& wanted, const Limit& limit) {
        if (!f) return;
        ListRow row;
        row.tag = tag;
        // a check makes nothing good: what it finds is coloured, and no more
        if (const auto v = judge(*f, limit); v != PlanVerdict::Holds) row.severity = sheet::severityOf(v);
        row.cells = {{what, no, false, Mark::None},
                     {fmt::format("{:.{}f} ± {:.{}f}{}", scale * f->value, digits, scale * f->u95, digits, unit), f->value, true,
                      sheet::markOf(f->provenance)},
                     {wanted, no, false, Mark::None}};
        list.rows.push_back(std::move(row));
    };
    add("brake:front", "of the braking, on the front wheels", p.front_share, 100, 1, " %", "–", none);
    add("brake:rear", "the rear locks first above", p.locks_at_g, 1, 2, " g", fmt::format("≥ {:.1f} g", drive::least_lock_g),
        Limit::atLeast(drive::least_lock_g));
    add("pedal:brake", "ratio of the brake pedal", p.pedal_ratio, 1, 2, "", "–", none);
    add("pedal:brake", "the leg presses for 0.6 g", p.leg_N, 1, 0, " N", fmt::format("≤ {:.0f} N", drive::most_leg_N),
        Limit::atMost(drive::most_leg_N));
    add("pedal:brake", "that leg brakes by, while the tyres hold", p.reached_g, 1, 2, " g", "–", none);
    const std::optional<double> most = p.pedal_room_mm ? std::optional(drive::most_pedal_share * *p.pedal_room_mm) : std::nullopt;
    add("pedal:brake", "the pedal goes", p.pedal_mm, 1, 0, " mm",
        most ? fmt::format("≤ {:.0f} mm", *most) : "its room is not said", most ? Limit::atMost(*most) : none);
    add("pedal:clutch", "ratio of the clutch pedal", p.clutch_ratio, 1, 2, "", "–", none);
    for (const drive::Reach& reach : p.reaches)
        add("run:" + reach.name, fmt::format("{} to spare, {}", reach.name, reach.at), reach.spare_mm, 1, 0, " mm",
            fmt::format("≥ {:.0f} mm", drive::least_spare_mm), Limit::atLeast(drive::least_spare_mm));
    for (const drive::RunsApart& a : p.apart)
        add("run:" + a.line, fmt::format("{} from {}", a.line, a.beside), a.clear_mm, 1, 0, " mm",
            fmt::format("≥ {:.0f} mm", a.least_mm), Limit::atLeast(a.least_mm));
    return list;
}

std::vector<sheet::Drawing> carriedPages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    if (r.weights.input().said) {
        sheet::Area area;
        sheet::Drawing page = sheet::blankPage(titled(b, r, "Drive: weight and springs"), {local_rules}, area);
        placeFitted(page, area, [&](double w, double h, const sheet::Format& f) {
            return drive::weightsSheet({&r.weights.input(), &*r.weights}, w, h, f);
        });
        pages.push_back(std::move(page));
    }
    addListingPages(pages, titled(b, r, "Drive: rows of holes"), {local_rules}, linkHolesList(b, r, the_chassis),
                    {56, 24, 34, 34, 34, 34, 34, 34});
    addListingPages(pages, titled(b, r, "Drive: brakes and pedals, checked"), {brake_caution, local_rules},
                    brakesList(b, r, the_chassis), {110, 60, 60});
    return pages;
}

std::optional<Card> brakesCard(const Build& b, const Results& r, const Tag& tag) {
    Card c;
    std::string remove, line;
    if (tag.kind == "brake") {
        for (const auto& [id, brake] : b.brakes) {
            if (word(brake.end) != tag.rest) continue;
            c.title = fmt::format("{} brakes of the {} wheels", word(brake.kind), tag.rest);
            c.journal_table = "brake";
            c.journal_id = id.value;
            line = fmt::format("brake {} {} ", tag.rest, word(brake.kind));
            c.actions.push_back({"pistons", line + "piston ", "", true});
            c.actions.push_back({"radius", line + "radius ", "", true});
            remove = "remove brake " + tag.rest;
        }
    } else {
        for (const auto& [id, pedal] : b.pedals) {
            if (word(pedal.kind) != tag.rest) continue;
            c.title = fmt::format("{} pedal", tag.rest);
            c.journal_table = "pedal";
            c.journal_id = id.value;
            line = fmt::format("pedal {} ", tag.rest);
            c.actions.push_back({"lever", line + "lever ", "", true});
            c.actions.push_back({"arm", line + "arm ", "", true});
            c.actions.push_back({"bore", line + "bore ", "", true});
            remove = "remove pedal " + tag.rest;
        }
    }
    if (line.empty()) return std::nullopt;
    const drive::BrakesPlan& p = *r.brakes;
    if (!p.remarks.empty()) {
        c.word = verdictWord(p.verdict);
        c.severity = sheet::severityOf(p.verdict);
        c.sentences.push_back(p.remarks.front().sentence + " " + p.remarks.front().remedy);
    }
    c.sentences.push_back(fmt::format("Caution: {}", brake_caution));
    c.actions.push_back({"remove", remove, "", false});
    return c;
}

std::optional<Card> linkHolesCard(const Build&, const Results&, std::uint32_t id);
std::optional<Card> weightsCard(const Build&, const Results&, const Tag&);

std::optional<Card> carriedCard(const Build& b, const Results& r, const Tag& tag) {
    if (tag.kind == "link-holes") return linkHolesCard(b, r, tag.id);
    if (tag.kind == "brake" || tag.kind == "pedal") return brakesCard(b, r, tag);
    return weightsCard(b, r, tag);
}

std::string driveBrakeJson(const Build&, const Results& r) {
    const drive::BrakesPlan& p = *r.brakes;
    Json j = {{"said", r.brakes.input().said}, {"missing", r.brakes.input().missing}, {"not_looked_at", p.not_looked_at}};
    j["verdict"] = p.remarks.empty() ? Json(nullptr) : Json(verdictWord(p.verdict));
    const auto maybe = [&](const std::optional<Figure>& f, const char* unit, const char* name) {
        if (f) put(j, *f, unit, name);
    };
    maybe(p.front_share, "", "front_braking_share");
    maybe(p.locks_at_g, "_g", "axles_lock_together");
    maybe(p.leg_N, "_N", "leg_for_0.6_g");
    maybe(p.reached_g, "_g", "reached_with_leg");
    maybe(p.pedal_ratio, "", "pedal_ratio");
    maybe(p.pedal_mm, "_mm", "pedal_goes");
    maybe(p.clutch_ratio, "", "clutch_pedal_ratio");
    j["lines"] = Json::array();
    for (const drive::RunsApart& a : p.apart) {
        Json one = {{"line", a.line}, {"beside", a.beside}, {"least_mm", number(a.least_mm)}};
        put(one, a.clear_mm, "_mm", "clear");
        j["lines"].push_back(std::move(one));
    }
    j["reaches"] = Json::array();
    for (const drive::Reach& reach : p.reaches) {
        Json one = {{"run", reach.name}, {"least_mm", number(drive::least_spare_mm)}, {"longest", reach.at}};
        put(one, reach.way_mm, "_mm", "way");
        put(one, reach.spare_mm, "_mm", "spare");
        j["reaches"].push_back(std::move(one));
    }
    j["remarks"] = remarksJson(p.remarks);
    j["cautions"] = {brake_caution, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
