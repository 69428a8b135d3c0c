// Axles and wheels on their links: input, sheet, findings, cards and JSON.
#include "analysis/travel.hpp"

#include "analysis/card_maker.hpp"
#include "analysis/drive.hpp"
#include "analysis/fixed_points.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "drive/travel_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

const char* const link_caution = "Licensed hands weld what carries the wheels. Bushes are tightened with the weight on.";

namespace {

struct Suspended {
    Hung hung;
    const char* name;
    bool front;
    Side side; ///< none: an axle with both wheels
};
constexpr Suspended suspended[] = {
    {Hung::FrontAxle, "front axle", true, Side::None},       {Hung::RearAxle, "rear axle", false, Side::None},
    {Hung::FrontLeft, "front left wheel", true, Side::Left}, {Hung::FrontRight, "front right wheel", true, Side::Right},
    {Hung::RearLeft, "rear left wheel", false, Side::Left},  {Hung::RearRight, "rear right wheel", false, Side::Right}};

class TravelAsked {
public:
    TravelAsked(const Build& b, const Results& r, const Suspended& s) : b_(b), r_(r), s_(s), points_(b, r.chassis) {}

    std::optional<drive::TravelIn> ask() {
        for (const auto& [id, l] : b_.links)
            if (l.of == s_.hung) link(l);
        if (in_.held.links.empty()) return {};
        if (hangs_)
            in_.assumed.push_back(fmt::format(
                "that the {} hung as it does on its wheels: the car stood on something else when its links were measured",
                s_.name));
        in_.name = s_.name;
        in_.front = s_.front;
        if (const std::string lost = points_.lost(); !lost.empty()) in_.missing.push_back(lost);
        const int left = s_.side == Side::Right ? -1 : hub(Side::Left), right = s_.side == Side::Left ? -1 : hub(Side::Right);
        if ((left < 0 && s_.side != Side::Right) || (right < 0 && s_.side != Side::Left))
            in_.missing.push_back(fmt::format("the {} wheel centre{} on the chassis: mark {} on Tape",
                                              s_.front ? "front" : "rear", s_.side == Side::None ? "s" : "",
                                              s_.side == Side::None ? "both" : "it"));
        in_.held.left = static_cast<std::size_t>(std::max(0, left >= 0 ? left : right));
        in_.held.right = static_cast<std::size_t>(std::max(0, right >= 0 ? right : left));
        const WheelTravel& t = b_.travel;
        take(in_.held.bump_mm, s_.front ? t.front_bump : t.rear_bump, "how far it goes up");
        take(in_.held.droop_mm, s_.front ? t.front_droop : t.rear_droop, "how far it goes down");
        radius();
        joints();
        in_.places = points_.places();
        for (Vec3& p : in_.places.at) p = r_.planned_chassis.map(p);
        for (const std::string& name : points_.assumed()) in_.assumed.push_back("the place of " + name);
        if (in_.axle()) {
            wheelbase();
            if (const auto& cg = b_.drive_facts.cg_height) in_.cg_mm = cg->value;
        }
        return std::move(in_);
    }

private:
    void take(double& to, const build::Dimension& d, const char* what) {
        to = d.value;
        if (d.provenance == Provenance::Assumed) in_.assumed.emplace_back(what);
    }
    void link(const Link& l) {
        drive::LinkIn out{l.name, l.kind, {}};
        for (const PointId id : l.points) {
            const int k = points_.take(id);
            out.points.push_back(static_cast<std::size_t>(std::max(0, k)));
        }
        in_.held.links.push_back(std::move(out));
        hangs_ = hangs_ || std::any_of(l.points.begin(), l.points.end(), [&](PointId id) { return measuredHanging(b_, id); });
    }
    int hub(Side side) {
        for (const auto& [id, p] : b_.points)
            if (p.subject == the_chassis && p.role == (s_.front ? Role::FrontHub : Role::RearHub) && sideOf(p.name) == side)
                return points_.take(id);
        return -1;
    }
    void radius() {
        const auto& free = s_.front ? b_.travel.front_radius : b_.travel.rear_radius;
        const auto& over = s_.front ? b_.axles.front : b_.axles.rear;
        if (over) {
            take(in_.radius_mm, *over, "how high the wheel's centre is over the road");
        } else if (free) {
            take(in_.radius_mm, *free, "the tyre's radius");
        } else {
            in_.radius_mm = 320;
            in_.assumed.emplace_back("how high the wheel's centre is over the road, 320");
        }
    }
    /// The outer joints of a steered wheel: of its wishbones, the higher and the lower; or a strut's top over the lower one.
    void joints() {
        if (!s_.front || s_.side == Side::None || !in_.missing.empty()) return;
        const build::Places places = points_.places();
        std::vector<std::size_t> outer;
        for (const drive::LinkIn& l : in_.held.links)
            if (l.kind == LinkKind::Wishbone)
                outer.push_back(l.points[2]);
            else if (l.kind == LinkKind::Strut)
                outer.push_back(l.points[0]);
        if (outer.size() != 2) return;
        std::sort(outer.begin(), outer.end(),
                  [&](std::size_t a, std::size_t c) { return places.at[a].z_mm < places.at[c].z_mm; });
        in_.lower = outer[0];
        in_.upper = outer[1];
    }
    void wheelbase() {
        double front = 0, rear = 0;
        int fronts = 0, rears = 0;
        for (const auto& [id, p] : b_.points) {
            if (p.subject != the_chassis || (p.role != Role::FrontHub && p.role != Role::RearHub)) continue;
            const auto at = r_.chassis.positionOf(id);
            if (!at) continue;
            const bool of_front = p.role == Role::FrontHub;
            (of_front ? front : rear) += r_.planned_chassis.map(*at).x_mm;
            ++(of_front ? fronts : rears);
        }
        if (fronts && rears) in_.wheelbase_mm = rear / rears - front / fronts;
    }

    const Build& b_;
    const Results& r_;
    const Suspended& s_;
    FixedPoints points_;
    bool hangs_ = false;
    drive::TravelIn in_;
};

std::vector<drive::TravelView> travelViews(const Build& b, const Results& r, const ViewOptions* o) {
    std::vector<drive::TravelView> views;
    for (const auto& node : r.travels) {
        drive::TravelView v{&node.input(), &*node,
                            [step = b.settings.length_step](double mm) { return units::formatLength(mm, step); }, 0,
                            o != nullptr};
        if (o && o->grip == "travel of " + node->name) v.share = std::clamp(o->grip_value, -1.0, 1.0);
        views.push_back(std::move(v));
    }
    return views;
}

/// What a pinion, or the toe of a wheel, comes to: its side in words.
std::string sideWords(const drive::TravelIn& in, double rad) {
    const char* side = in.axle() ? (rad < 0 ? "nose down" : "nose up") : rad < 0 ? "out" : "in";
    return units::formatAngle(std::abs(rad)) + " " + side;
}
std::string angleWords(const drive::TravelIn& in, const Figure& f) {
    return fmt::format("{} ± {}", sideWords(in, f.value), units::formatAngle(f.u95));
}

} // namespace

std::vector<drive::TravelIn> travelInputs(const Build& b, const Results& r) {
    std::vector<drive::TravelIn> all;
    if (b.links.empty()) return all;
    for (const Suspended& s : suspended)
        if (auto in = TravelAsked(b, r, s).ask()) all.push_back(std::move(*in));
    return all;
}

std::vector<Node<drive::TravelIn, drive::TravelPlan>> travelsOf(const Build& b, const Results& r, const Results* previous) {
    using Travel = Node<drive::TravelIn, drive::TravelPlan>;
    std::vector<Travel> all;
    for (drive::TravelIn& in : travelInputs(b, r)) {
        const Travel* before = nullptr;
        if (previous)
            for (const Travel& old : previous->travels)
                if (old.input().name == in.name) before = &old;
        all.push_back(Travel::of(std::move(in), before, drive::travelPlan));
    }
    return all;
}

sheet::Drawing travelDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                             const sheet::Format& f) {
    const auto views = travelViews(b, r, &o);
    return drive::travelSheet(views, width,
                              std::max(height, f.px(drive::travel_sheet_least_px) * static_cast<double>(views.size())), f);
}

Headline travelHeadline(const Build&, const Results& r, SubjectId) {
    if (r.travels.empty())
        return {
            "What carries the axles is not said yet.",
            "Mark the ends of each link on Tape, then say them: link upper-left rear-axle rod Ufl Ual. A wishbone, a strut, a leaf spring or a trailing arm "
            "likewise."};
    const drive::TravelPlan* worst = nullptr;
    for (const auto& node : r.travels)
        if (!worst || node->verdict > worst->verdict) worst = &*node;
    const drive::TravelIn* input = nullptr;
    for (const auto& node : r.travels)
        if (&*node == worst) input = &node.input();
    Headline h;
    if (!input->missing.empty()) {
        h.sentence = fmt::format("The {} waits for {}.", worst->name, input->missing.front());
    } else if (worst->rows.empty()) {
        h.sentence = worst->remarks.front().sentence;
        h.below = worst->remarks.front().remedy + " ";
    } else {
        const double droop = worst->droop_rad.value, bump = worst->bump_rad.value;
        // a side that stays the same is said once: the headline must fit the smallest window
        const std::string low = (droop < 0) == (bump < 0) ? units::formatAngle(std::abs(droop)) : sideWords(*input, droop);
        h.sentence =
            input->axle()
                ? fmt::format("The {}'s pinion: {} at droop, {} at bump.", worst->name, low, sideWords(*input, bump))
                : fmt::format("The {} toes {} at full droop, {} at full bump.", worst->name, low, sideWords(*input, bump));
        h.below = worst->verdict == PlanVerdict::Holds ? std::string("Holds. ")
                  : !worst->remarks.empty() ? fmt::format("{}: {} ", verdictWord(worst->verdict), worst->remarks.front().sentence)
                                            : fmt::format("Marginal: {} was never measured. ",
                                                          input->assumed.front().substr(0, input->assumed.front().find(": ")));
    }
    h.below += link_caution;
    return h;
}

const drive::TravelIn* heldBy(const Results& r, bool front, std::optional<bool> right) {
    for (const auto& node : r.travels) {
        const drive::TravelIn& in = node.input();
        if (in.front != front || !in.missing.empty() || node->rows.empty()) continue;
        if (in.axle() || (right && in.name.find(*right ? "right" : "left") != std::string::npos)) return &in;
    }
    return nullptr;
}

std::vector<sheet::Drawing> travelPages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    for (const drive::TravelView& v : travelViews(b, r, nullptr)) {
        sheet::Area area;
        sheet::Drawing page = sheet::blankPage(titled(b, r, fmt::format("Drive: the {} through its travel", v.plan->name)),
                                               {link_caution, local_rules}, area);
        placeFitted(page, area, [&](double w, double h, const sheet::Format& f) { return drive::travelSheet({v}, w, h, f); });
        pages.push_back(std::move(page));
    }
    return pages;
}

std::optional<Card> linkCard(const Build& b, const Results&, const std::string& name) {
    const Link* l = linkNamed(b, name);
    if (!l) return std::nullopt;
    Card c;
    c.title = fmt::format("{} {}", word(l->kind), name);
    c.rows.push_back({"carries", "the " + std::string(word(l->of)), Mark::None, false});
    const auto roles = pointsOf(l->kind);
    for (std::size_t k = 0; k < l->points.size(); ++k)
        c.rows.push_back({std::string(roles[k]), nameOf(b, l->points[k]), Mark::None, false});
    c.sentences.push_back(fmt::format("Caution: {}", link_caution));
    c.actions.push_back({"between other points", fmt::format("link {} {} {} ", name, word(l->of), word(l->kind)), "", true});
    c.actions.push_back({"remove", "remove link " + name, "", false});
    c.journal_table = "link";
    c.journal_id = l->id.value;
    return c;
}

std::optional<Card> travelCard(const Build&, const Results& r, const std::string& name) {
    for (const auto& node : r.travels) {
        if (node->name != name) continue;
        Card c;
        c.title = "the " + name;
        c.word = verdictWord(node->verdict);
        c.severity = sheet::severityOf(node->verdict);
        if (!node->rows.empty()) {
            c.rows.push_back({"rolls about, over the road",
                              fmt::format("{:.0f} ± {:.0f} mm", node->roll_centre_mm.value, node->roll_centre_mm.u95),
                              Mark::Derived, false});
            c.rows.push_back({"at full bump", angleWords(node.input(), node->bump_rad), Mark::Derived, true});
            c.rows.push_back({"at full droop", angleWords(node.input(), node->droop_rad), Mark::Derived, true});
        }
        if (!node->remarks.empty()) c.sentences.push_back(node->remarks.front().sentence + " " + node->remarks.front().remedy);
        c.sentences.push_back(fmt::format("Caution: {}", link_caution));
        c.actions.push_back({"bump", fmt::format("travel {} bump ", node.input().front ? "front" : "rear"), "", true});
        c.actions.push_back({"droop", fmt::format("travel {} droop ", node.input().front ? "front" : "rear"), "", true});
        return c;
    }
    return std::nullopt;
}

std::string driveLinkJson(const Build&, const Results& r) {
    Json j;
    j["held"] = Json::array();
    for (const auto& node : r.travels) {
        const drive::TravelPlan& p = *node;
        Json one = {{"name", p.name},
                    {"verdict", verdictWord(p.verdict)},
                    {"missing", node.input().missing},
                    {"assumed", node.input().assumed}};
        if (!p.rows.empty()) {
            put(one, p.roll_centre_mm, "_mm", "roll_centre_over_road");
            if (p.centre_x_mm) {
                put(one, *p.centre_x_mm, "_mm", "instant_centre_station");
                put(one, *p.centre_z_mm, "_mm", "instant_centre_height");
            }
            if (p.anti_squat) put(one, *p.anti_squat, "", "anti_squat");
            if (node.input().axle()) put(one, p.steer_per_roll, "", "steer_per_roll");
            put(one, p.bump_rad, "_deg", node.input().axle() ? "pinion_at_bump" : "toe_in_at_bump");
            put(one, p.droop_rad, "_deg", node.input().axle() ? "pinion_at_droop" : "toe_in_at_droop");
            if (!node.input().axle()) put(one, p.lean_bump_rad, "_deg", "top_in_at_bump");
            if (p.caster_rad) put(one, *p.caster_rad, "_deg", "caster");
            one["bushes_give_mm"] = number(p.strain_mm);
            one["rod_end_deg"] = number(units::degrees(p.most_rod_rad));
            one["rod_end_of"] = p.most_rod;
            one["travel"] = Json::array();
            for (const drive::TravelRow& row : p.rows)
                one["travel"].push_back({{"up_mm", number(row.up_mm)},
                                         {"pinion_deg", number(units::degrees(row.slope_rad))},
                                         {"steer_deg", number(units::degrees(row.steer_rad))},
                                         {"lean_deg", number(units::degrees(row.lean_rad))},
                                         {"back_mm", number(row.back_mm)},
                                         {"aside_mm", number(row.aside_mm)}});
            one["roll"] = Json::array();
            for (const drive::RollRow& row : p.rolls)
                one["roll"].push_back({{"roll_deg", number(units::degrees(row.roll_rad))},
                                       {"steer_deg", number(units::degrees(row.steer_rad))},
                                       {"aside_mm", number(row.aside_mm)},
                                       {"pinion_deg", number(units::degrees(row.slope_rad))}});
        }
        one["remarks"] = remarksJson(p.remarks);
        j["held"].push_back(std::move(one));
    }
    j["cautions"] = {link_caution, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
