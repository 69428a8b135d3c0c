// Steering: input, sheet, page, findings, card and JSON.
#include "analysis/steering.hpp"

#include "analysis/card_maker.hpp"
#include "analysis/drive.hpp"
#include "analysis/fixed_points.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "drive/degree.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

const char* const steering_caution =
    "Steering is made, welded and judged by those who are licensed for it, or the car is not driven. Arms and rods are never bent or heated.";

class SteeringAsked {
public:
    SteeringAsked(const Build& b, const Results& r) : b_(b), r_(r), points_(b, r.chassis) {}

    drive::SteeringIn ask() {
        for (std::size_t side = 0; side < 2; ++side) wheel(side);
        in_.said = ties_ > 0;
        if (!in_.said) return std::move(in_);
        if (ties_ < 2) in_.missing.emplace_back("the tie rod of the other front wheel: link … tie-rod …");
        if (const std::string lost = points_.lost(); !lost.empty()) in_.missing.push_back(lost);
        const WheelTravel& t = b_.travel;
        in_.lock_rad = t.lock.value;
        if (t.lock.provenance == Provenance::Assumed) in_.assumed.emplace_back("how far the front wheels turn");
        if (b_.axles.front)
            in_.radius_mm = b_.axles.front->value;
        else
            in_.assumed.emplace_back("how high the front wheels' centres are over the road");
        const SteeringGear* gear = b_.steering_gears.empty() ? nullptr : &b_.steering_gears.begin()->second;
        const bool arm = gear && gear->kind == SteerKind::Box && gear->pivot;
        const int pivot = arm ? points_.take(gear->pivot) : -1, ball = arm ? points_.take(gear->ball) : -1;
        if (!gear || (gear->kind == SteerKind::Box && !arm))
            in_.assumed.emplace_back(
                "that both tie rods' inner ends go straight across by the same: a rack, or a relay that does it");
        else if (arm)
            in_.assumed.emplace_back("that the idler is as long as the box's arm and stands as it does");
        if (const std::string late = points_.lost(); !late.empty() && in_.missing.empty()) in_.missing.push_back(late);
        wheelbase();
        if (hangs_)
            in_.assumed.emplace_back(
                "that the front wheels hung as they do on the road: the car stood on something else when their links were measured");
        in_.places = points_.places();
        for (Vec3& p : in_.places.at) p = r_.planned_chassis.map(p);
        for (const std::string& name : points_.assumed()) in_.assumed.push_back("the place of " + name);
        for (drive::SteeredWheel& w : in_.wheels) joints(w);
        if (gear) geared(*gear, pivot, ball);
        if (in_.missing.empty() && std::any_of(in_.wheels.begin(), in_.wheels.end(), [](const auto& w) { return !w.upper; }))
            in_.assumed.emplace_back("that the front wheels are steered about uprights through their middles");
        for (std::size_t side = 0; side < 2 && in_.missing.empty(); ++side)
            if (!drive::freedoms(drive::linkageOf(in_.wheels[side].held, in_.places.at)).empty())
                in_.missing.push_back(fmt::format("links that hold the front {} wheel: its own page says what is free",
                                                  side == 0 ? "left" : "right"));
        return std::move(in_);
    }

private:
    void wheel(std::size_t side) {
        drive::SteeredWheel& w = in_.wheels[side];
        const Hung hung = side == 0 ? Hung::FrontLeft : Hung::FrontRight;
        for (const auto& [id, l] : b_.links) {
            if (l.of != hung) continue;
            drive::LinkIn out{l.name, l.kind, {}};
            for (const PointId p : l.points) {
                out.points.push_back(static_cast<std::size_t>(std::max(0, points_.take(p))));
                hangs_ = hangs_ || measuredHanging(b_, p);
            }
            if (l.kind == LinkKind::TieRod) {
                ++ties_;
                w.tie_in = out.points[0];
                w.tie_out = out.points[1];
            }
            w.held.links.push_back(std::move(out));
        }
        int hub = -1;
        for (const auto& [id, p] : b_.points)
            if (p.subject == the_chassis && p.role == Role::FrontHub && sideOf(p.name) == (side == 0 ? Side::Left : Side::Right))
                hub = points_.take(id);
        if (hub < 0)
            in_.missing.push_back(
                fmt::format("the front {} wheel's centre on the chassis: mark it on Tape", side == 0 ? "left" : "right"));
        w.held.left = w.held.right = static_cast<std::size_t>(std::max(0, hub));
    }
    /// The outer joints: of its wishbones, the higher and the lower; or a strut's top over the lower one.
    void joints(drive::SteeredWheel& w) const {
        std::vector<std::size_t> outer;
        for (const drive::LinkIn& l : w.held.links)
            if (l.kind == LinkKind::Wishbone || l.kind == LinkKind::Strut)
                outer.push_back(l.points[l.kind == LinkKind::Wishbone ? 2 : 0]);
        if (outer.size() != 2 || outer[0] >= in_.places.at.size() || outer[1] >= in_.places.at.size()) return;
        std::sort(outer.begin(), outer.end(),
                  [&](std::size_t a, std::size_t c) { return in_.places.at[a].z_mm < in_.places.at[c].z_mm; });
        w.lower = outer[0];
        w.upper = outer[1];
    }
    /// How its inner ends go, and how far.
    void geared(const SteeringGear& g, int pivot, int ball) {
        drive::GearIn gear{g.name, g.kind, {}, {}};
        if (g.turns) gear.turns = g.turns->value;
        drive::Rack rack;
        const auto& at = in_.places.at;
        if (g.kind == SteerKind::Rack) {
            if (in_.missing.empty())
                rack.along = geometry::unit(geometry::minus(at[in_.wheels[1].tie_in], at[in_.wheels[0].tie_in]));
            if (g.each_way) gear.each_way_mm = g.each_way->value;
        } else if (pivot >= 0 && ball >= 0) {
            rack.arm = geometry::minus(at[static_cast<std::size_t>(ball)], at[static_cast<std::size_t>(pivot)]);
            if (g.swing) gear.each_way_mm = g.swing->value * geometry::length(*rack.arm);
        }
        const auto& end = g.kind == SteerKind::Rack ? g.each_way : g.swing;
        if (!end || end->provenance == Provenance::Assumed)
            in_.assumed.emplace_back("how far the steering gear goes to its stops");
        for (drive::SteeredWheel& w : in_.wheels) w.held.rack = rack;
        in_.gear = std::move(gear);
    }
    void wheelbase() {
        double now[2] = {0, 0}, then[2] = {0, 0};
        int count[2] = {0, 0};
        for (const auto& [id, p] : b_.points) {
            if (p.subject != the_chassis || (p.role != Role::FrontHub && p.role != Role::RearHub)) continue;
            const auto at = r_.chassis.positionOf(id);
            if (!at) continue;
            const std::size_t end = p.role == Role::RearHub;
            now[end] += at->x_mm;
            then[end] += r_.planned_chassis.map(*at).x_mm;
            ++count[end];
        }
        if (!count[0] || !count[1]) return;
        in_.wheelbase_now_mm = now[1] / count[1] - now[0] / count[0];
        in_.wheelbase_mm = then[1] / count[1] - then[0] / count[0];
    }

    const Build& b_;
    const Results& r_;
    FixedPoints points_;
    drive::SteeringIn in_;
    int ties_ = 0;
    bool hangs_ = false;
};

} // namespace

drive::SteeringIn steeringInput(const Build& b, const Results& r) { return SteeringAsked(b, r).ask(); }

sheet::Drawing steeringDrawing(const Build&, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                               const sheet::Format& f) {
    drive::SteeringView v{&r.steering.input(), &*r.steering, 1, true};
    if (o.grip == "steered") v.share = std::clamp(o.grip_value, -1.0, 1.0);
    return drive::steeringSheet(v, width, height, f);
}

Headline steeringHeadline(const Build&, const Results& r, SubjectId) {
    const drive::SteeringIn& in = r.steering.input();
    if (!in.said)
        return {
            "The steering is not said yet.",
            "Mark both ends of both tie rods and the joints of the front wheels' links, and say them: link tie-left front-left tie-rod Si So."};
    const drive::SteeringPlan& p = *r.steering;
    Headline h;
    if (!in.missing.empty()) {
        h.sentence = fmt::format("The steering waits for {}.", in.missing.front());
    } else if (p.locks.empty()) {
        h.sentence = "The front wheels don't come to full lock.";
    } else {
        const drive::FullLock* widest = &p.locks.front();
        for (const drive::FullLock& l : p.locks)
            if (l.circle_mm.value > widest->circle_mm.value) widest = &l;
        h.sentence =
            fmt::format("It turns in {:.1f} m to the {}.", widest->circle_mm.value / 1000, widest->left ? "left" : "right");
        if (widest->circle_now_mm)
            h.below = fmt::format("With the wheelbase as it is it would be {:.1f}. ", *widest->circle_now_mm / 1000);
    }
    if (!p.remarks.empty())
        h.below += fmt::format("{}: {} ", verdictWord(p.verdict), p.remarks.front().sentence);
    else if (in.missing.empty() && !in.assumed.empty())
        h.below += fmt::format("Marginal: {} was never measured. ", in.assumed.front());
    h.below += steering_caution;
    return h;
}

std::vector<sheet::Drawing> steeringPages(const Build& b, const Results& r) {
    if (!r.steering.input().said) return {};
    sheet::Area area;
    sheet::Drawing page = sheet::blankPage(titled(b, r, "Drive: steering"), {steering_caution, local_rules}, area);
    const drive::SteeringView v{&r.steering.input(), &*r.steering, 1, false};
    placeFitted(page, area, [&](double w, double h, const sheet::Format& f) { return drive::steeringSheet(v, w, h, f); });
    return {std::move(page)};
}

std::optional<Card> steeringCard(const Build&, const Results& r) {
    if (!r.steering.input().said) return std::nullopt;
    const drive::SteeringPlan& p = *r.steering;
    Card c;
    c.title = "steering";
    c.word = verdictWord(p.verdict);
    c.severity = sheet::severityOf(p.verdict);
    for (const drive::FullLock& l : p.locks) {
        const char* way = l.left ? "left" : "right";
        c.rows.push_back({fmt::format("circle to the {}", way),
                          fmt::format("{:.2f} ± {:.2f} m", l.circle_mm.value / 1000, l.circle_mm.u95 / 1000), Mark::Derived,
                          false});
        c.rows.push_back(
            {fmt::format("outer wheel, {}", l.off_rad.value < 0 ? "too little" : "too much"),
             fmt::format("{:.1f}° ± {:.1f}°", std::abs(l.off_rad.value) / drive::one_degree, l.off_rad.u95 / drive::one_degree),
             Mark::Derived, false});
    }
    if (!p.remarks.empty()) c.sentences.push_back(p.remarks.front().sentence + " " + p.remarks.front().remedy);
    c.sentences.push_back(fmt::format("Caution: {}", steering_caution));
    c.actions.push_back({"lock", "travel lock ", "", true});
    return c;
}

std::string driveSteerJson(const Build&, const Results& r) {
    const drive::SteeringIn& in = r.steering.input();
    const drive::SteeringPlan& p = *r.steering;
    Json j = {{"said", in.said},
              {"verdict", in.said ? Json(verdictWord(p.verdict)) : Json(nullptr)},
              {"missing", in.missing},
              {"assumed", in.assumed}};
    j["between_steering_axes_mm"] = number(p.between_axes_mm);
    j["locks"] = Json::array();
    for (const drive::FullLock& l : p.locks) {
        Json one = {{"to", l.left ? "left" : "right"}, {"rack_mm", number(l.rack_mm)}};
        put(one, l.inner_rad, "_deg", "inner");
        put(one, l.outer_rad, "_deg", "outer");
        put(one, l.ideal_rad, "_deg", "outer_by_circle");
        put(one, l.off_rad, "_deg", "outer_off");
        put(one, l.circle_mm, "_mm", "circle");
        one["circle_now_mm"] = number(l.circle_now_mm);
        one["tie_rod_off_dead_line_deg"] = number(units::degrees(l.straight_rad));
        j["locks"].push_back(std::move(one));
    }
    j["over_bumps"] = Json::array();
    for (std::size_t side = 0; side < 2 && in.said; ++side) {
        const drive::ToeRemedy& t = p.toe[side];
        j["over_bumps"].push_back({{"wheel", side == 0 ? "left" : "right"},
                                   {"steers_deg", number(units::degrees(t.before_rad))},
                                   {"inner_end_higher_mm", t.better ? number(t.up_mm) : Json(nullptr)},
                                   {"steers_then_deg", t.better ? number(units::degrees(t.after_rad)) : Json(nullptr)}});
    }
    j["searched"] = p.searched;
    j["rows"] = Json::array();
    for (const drive::SteerRow& row : p.rows)
        j["rows"].push_back({{"rack_mm", number(row.rack_mm)},
                             {"left_deg", number(units::degrees(row.left_rad))},
                             {"right_deg", number(units::degrees(row.right_rad))}});
    j["remarks"] = remarksJson(p.remarks);
    j["cautions"] = {steering_caution, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
