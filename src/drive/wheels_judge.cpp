// What is said of the wheels of an axle: limits, and what they ask.
#include "drive/adaptor.hpp"
#include "drive/wheels_parts.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::drive {

using build::Dimension;
using build::judge;
using build::Limit;
using build::Provenance;
using build::Remark;
using build::WheelSet;

namespace {

/// Least room round and in front of a brake. Common practice.
constexpr double brake_mm = 3;
/// Two stud circles are one to this; what is sold apart differs by 0.7 at least.
constexpr double circle_mm = 0.5;
/// A wheel that stands so much farther out bends its bearings and studs by a fifth more, or so.
constexpr double outwards_mm = 15;
/// Steel between two holes of a plate, and to its edge.
constexpr double web_mm = 6;

std::string figure(const Figure& f) { return fmt::format("{:.1f} ± {:.1f} mm", f.value, f.u95); }

class WheelJudge {
public:
    WheelJudge(const WheelsIn& in, WheelsPlan& plan) : in_(in), p_(plan) {}

    void all() {
        const WheelSet* shown = in_.shown();
        if (!shown) {
            p_.missing.emplace_back("the wheel that is fitted, or the one that is wanted");
            p_.verdict = PlanVerdict::Marginal;
            return;
        }
        shown_ = shown;
        figures_ = in_.wanted ? *p_.wanted : *p_.fitted;
        room();
        bolted();
        brake();
        tyre();
        loads();
        change();
        band();
        adaptor();
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const Remark& a, const Remark& b) { return a.verdict > b.verdict; });
        for (const Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
        if (!in_.assumed.empty() || !p_.missing.empty()) p_.verdict = std::max(p_.verdict, PlanVerdict::Marginal);
    }

private:
    Remark& add(const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }
    void lacks(const char* what) { p_.missing.emplace_back(what); }

    /// What fits at the shown width.
    std::string fits() const {
        if (!p_.map || p_.map->columns.empty()) return "";
        const double section = figures_.section_mm ? figures_.section_mm->value : 0;
        const MapColumn* nearest = nullptr;
        for (const MapColumn& c : p_.map->columns)
            if (!nearest || std::abs(c.section_mm - section) < std::abs(nearest->section_mm - section)) nearest = &c;
        const auto& spans = nearest->clear.empty() ? nearest->free : nearest->clear;
        if (spans.empty()) {
            double widest = 0;
            for (const MapColumn& c : p_.map->columns)
                if (!c.free.empty()) widest = std::max(widest, c.section_mm);
            return widest > 0
                       ? fmt::format("No offset clears all at this width; up to {:.0f} mm wide one does.", widest)
                       : std::string("No width and offset of the map clears all: it needs another diameter, or more room.");
        }
        const MapSpan* best = &spans.front();
        for (const MapSpan& s : spans)
            if (s.high.offset_mm - s.low.offset_mm > best->high.offset_mm - best->low.offset_mm) best = &s;
        return fmt::format("At this width offsets from {:.0f} to {:.0f} mm {}.", best->low.offset_mm, best->high.offset_mm,
                           nearest->clear.empty() ? "just pass" : "are clear");
    }

    void room() {
        const auto& list = in_.wanted ? p_.planned : p_.now;
        if (list.empty()) {
            lacks("what stands beside the tyres (room arch …), or width, offset and diameter of wheel and tyre");
            return;
        }
        // a tyre of which one side alone is known is not clear on the other
        for (const bool outer : {true, false})
            for (std::size_t side = 0; side < 2; ++side) {
                const bool known = std::any_of(list.begin(), list.end(),
                                               [&](const RoomClear& c) { return c.corner == side && c.outer == outer; }) ||
                                   std::any_of(p_.seen[side].begin(), p_.seen[side].end(),
                                               [](const SeenThing& s) { return s.slack_mm > 0 && !s.places.empty(); });
                if (known) continue;
                p_.missing.push_back(fmt::format("what stands {} of the {} {} tyre (room …)", outer ? "outside" : "inside",
                                                 in_.name, in_.corners[side].name));
            }
        const RoomClear* worst = nullptr;
        for (const RoomClear& c : list) {
            const double spare = c.clear_mm.value - c.clear_mm.u95 - c.least_mm;
            if (c.verdict != PlanVerdict::Holds &&
                (!worst || spare < worst->clear_mm.value - worst->clear_mm.u95 - worst->least_mm))
                worst = &c;
            if (c.verdict == PlanVerdict::Holds) continue;
            const std::string where = c.pose.empty() ? "at rest" : c.pose;
            const PlanVerdict v = c.verdict;
            add("wheel-room", v,
                c.clear_mm.value < 0 ? fmt::format("The {} {} tyre runs into {} by {:.0f} ± {:.0f} mm, {}.", in_.name,
                                                   in_.corners[c.corner].name, c.name, -c.clear_mm.value, c.clear_mm.u95, where)
                                     : fmt::format("The {} {} tyre comes as near as {:.0f} ± {:.0f} mm to {}, {}.", in_.name,
                                                   in_.corners[c.corner].name, c.clear_mm.value, c.clear_mm.u95, c.name, where),
                fits())
                .of(figure(c.clear_mm), fmt::format("≥ {:.0f} mm", c.least_mm));
        }
    }

    void bolted() {
        if (!in_.hub || !in_.hub->studs || !p_.hub_circle_mm) {
            lacks("the hub's studs (hub … studs 5 chord 67)");
            return;
        }
        const Dimension* studs = shown_->studs ? &*shown_->studs : nullptr;
        if (!studs || !figures_.circle_mm) {
            lacks("the wheel's stud circle");
            return;
        }
        if (!in_.adaptor) {
            const int of_hub = static_cast<int>(in_.hub->studs->value), of_wheel = static_cast<int>(studs->value);
            const Figure off = *figures_.circle_mm - *p_.hub_circle_mm;
            if (of_hub != of_wheel) {
                add("stud-circle", PlanVerdict::Fails, fmt::format("The hub has {} studs, the wheel {} holes.", of_hub, of_wheel),
                    "Other wheels; an adaptor is made and approved by licensed people.");
            } else if (const auto v = judge(off, Limit::within(circle_mm)); v != PlanVerdict::Holds) {
                add("stud-circle", v,
                    v == PlanVerdict::Fails
                        ? fmt::format("The wheel's holes stand on {}, the hub's studs on {}.", figure(*figures_.circle_mm),
                                      figure(*p_.hub_circle_mm))
                        : fmt::format("Whether the stud circles are one is not told: they differ by {}.", figure(off)),
                    v == PlanVerdict::Fails
                        ? "A wheel never goes on by force: other wheels, or hubs."
                        : "Measure from outer edge to outer edge of two studs, and of two holes, with a caliper.")
                    .of(figure(off), fmt::format("within {:.1f} mm", circle_mm));
            }
        }
        if (!in_.hub->spigot || !shown_->bore) return;
        const double gap = shown_->bore->value - in_.hub->spigot->value;
        if (gap < 0 && !in_.adaptor)
            add("wheel-bore", PlanVerdict::Fails,
                fmt::format("The wheel's bore is {:.1f} mm too small for the hub's spigot.", -gap),
                "Other wheels; a bore is opened by a machine shop that answers for it.");
        else if (gap > 0.5)
            add("wheel-bore", PlanVerdict::Marginal,
                fmt::format("The wheel's bore is {:.1f} mm wider than the spigot: its nuts alone centre it.", gap),
                fmt::format("A ring of {:.1f} × {:.1f} mm, or nuts that are made to centre.", in_.hub->spigot->value,
                            shown_->bore->value));
    }

    void brake() {
        if (!in_.hub || !in_.hub->brake_radius) {
            lacks("how far the brake reaches from the hub's middle");
            return;
        }
        if (!figures_.inside_mm) return;
        const Dimension& r = *in_.hub->brake_radius;
        const Figure round = 0.5 * *figures_.inside_mm - Figure{r.value, edge_u95_mm, r.provenance};
        if (const auto v = judge(round, Limit::atLeast(brake_mm)); v != PlanVerdict::Holds)
            add("brake-room", v, fmt::format("Between brake and rim there are {}.", figure(round)),
                figures_.inside_mm->provenance == Provenance::Assumed
                    ? "Measure the diameter inside the rim where the brake turns: rim … inside 350."
                    : "A larger rim, or a smaller brake; weights stuck inside need more.")
                .of(figure(round), fmt::format("≥ {:.0f} mm", brake_mm));
        if (!in_.hub->brake_out || !shown_->spokes) {
            lacks("how far brake and spokes stand out");
            return;
        }
        const Figure before = Figure{shown_->spokes->value, edge_u95_mm, shown_->spokes->provenance} -
                              Figure{in_.hub->brake_out->value, edge_u95_mm, in_.hub->brake_out->provenance} +
                              Figure{in_.adaptor ? in_.adaptor->thick.value : 0, 0, Provenance::Measured};
        if (const auto v = judge(before, Limit::atLeast(brake_mm)); v != PlanVerdict::Holds)
            add("brake-spokes", v, fmt::format("Between brake and spokes there are {}.", figure(before)),
                "A wheel whose spokes stand farther out; try one on before four are bought.")
                .of(figure(before), fmt::format("≥ {:.0f} mm", brake_mm));
    }

    void tyre() {
        if (!shown_->tyre) {
            lacks("the tyre's size");
            return;
        }
        const double aspect = shown_->aspect ? shown_->aspect->value : 80, share = figures_.width_mm.value / shown_->tyre->value;
        const RimRange range = usualRims(aspect);
        if (share < range.least || share > range.most)
            add("tyre-rim", PlanVerdict::Marginal,
                fmt::format("A rim of {:.0f} mm is {} for a tyre of {:g}: usual are {:.0f} to {:.0f}.", figures_.width_mm.value,
                            share < range.least ? "narrow" : "wide", shown_->tyre->value, range.least * shown_->tyre->value,
                            range.most * shown_->tyre->value),
                "The tyre maker's table decides.");
        if (in_.drive_tyre_mm && figures_.outside_mm && std::abs(*in_.drive_tyre_mm / figures_.outside_mm->value - 1) > 0.01)
            add("two-tyres", PlanVerdict::Marginal,
                fmt::format("The drive line reckons with a tyre of {:.0f} mm, this one has {:.0f}.", *in_.drive_tyre_mm,
                            figures_.outside_mm->value),
                fmt::format("Say it there, too: drive tyre {:.0f}.", figures_.outside_mm->value));
    }

    void loads() {
        if (!shown_->carries) {
            lacks("the tyre's load mark");
        } else {
            const double may = shown_->carries->value;
            if (in_.wheel_kg && may < in_.wheel_kg->value)
                add("tyre-load", PlanVerdict::Fails,
                    fmt::format("The tyre may carry {:.0f} kg, and {:.0f} stand on it.", may, in_.wheel_kg->value),
                    "A tyre with a higher load mark; its pressure is its maker's.")
                    .of(fmt::format("{:.0f} kg", may), fmt::format("≥ {:.0f} kg", in_.wheel_kg->value));
            else if (in_.hub && in_.hub->axle_kg && may < in_.hub->axle_kg->value / 2)
                add("tyre-load", PlanVerdict::Fails,
                    fmt::format("Two of these tyres may carry {:.0f} kg, the axle {:.0f}.", 2 * may, in_.hub->axle_kg->value),
                    "Tyres are chosen for what the axle may carry, not for what it carries today.")
                    .of(fmt::format("{:.0f} kg", may), fmt::format("≥ {:.0f} kg", in_.hub->axle_kg->value / 2));
            if (!in_.wheel_kg && !(in_.hub && in_.hub->axle_kg)) lacks("what the axle carries");
        }
        if (in_.hub && in_.hub->axle_kg && in_.wheel_kg && 2 * in_.wheel_kg->value > in_.hub->axle_kg->value)
            add("axle-load", PlanVerdict::Fails,
                fmt::format("The heavier wheel carries {:.0f} kg: twice that is more than the {:.0f} that the axle may.",
                            in_.wheel_kg->value, in_.hub->axle_kg->value),
                "A stronger axle, or less weight.");
        if (shown_->speed && in_.cruise_kmh && shown_->speed->value < *in_.cruise_kmh)
            add("tyre-speed", PlanVerdict::Fails,
                fmt::format("The tyre may run {:.0f} km/h, and {:.0f} are asked.", shown_->speed->value, *in_.cruise_kmh),
                "A tyre with a higher speed mark.");
    }

    void change() {
        if (!p_.change) return;
        const WheelChange& c = *p_.change;
        const double plate = in_.adaptor ? in_.adaptor->thick.value : 0;
        if (c.track_mm && *c.track_mm / 2 + plate > outwards_mm)
            add("wheel-out", PlanVerdict::Marginal,
                fmt::format("Each wheel's middle stands {:.0f} mm farther out: hubs, bearings and studs are bent more{}.",
                            *c.track_mm / 2 + plate, in_.front ? ", and the steering pulls" : ""),
                "Ask those who approve it how much wider the track may be; wings must cover the tyre.")
                .of(fmt::format("{:.0f} mm", *c.track_mm / 2 + plate), fmt::format("≤ {:.0f} mm", outwards_mm));
        if (std::abs(c.diameter_share) > 0.03)
            add("wheel-size", PlanVerdict::Marginal,
                fmt::format("The tyre is {:.1f} % {}: at 100 on the dial the car runs {:.0f} km/h.",
                            100 * std::abs(c.diameter_share), c.diameter_share > 0 ? "larger" : "smaller", c.true_at_100_kmh),
                "The speedometer is set right, and the gearing judged anew: drive ratio.");
    }

    void band() {
        if (!p_.band) return;
        add("welded-rim", PlanVerdict::Marginal, "Welded rims are forbidden on the road in many places.",
            "Ask first. Where they may be: a wheel shop that does it daily, welds both sides, tests and marks them.");
        if (in_.wanted && std::abs(in_.wanted->width.value - p_.band->width_mm) > 2)
            add("band-width", PlanVerdict::Fails,
                fmt::format("With this band the rim is {:.0f} mm wide, wanted are {:.0f}.", p_.band->width_mm,
                            in_.wanted->width.value),
                fmt::format("Like: widen {} by {:.0f}.", in_.name, in_.wanted->width.value - p_.fitted->width_mm.value));
        if (in_.wanted && p_.wanted->offset_mm && p_.band->offset_mm &&
            std::abs(p_.wanted->offset_mm->value - *p_.band->offset_mm) > 3)
            add("band-offset", PlanVerdict::Fails,
                fmt::format("With this band the offset is {:.0f} mm, reckoned with are {:.0f}.", *p_.band->offset_mm,
                            p_.wanted->offset_mm->value),
                fmt::format("Say what comes of it (rim {} wanted offset {:.0f}), or part the band to both sides of the disc.",
                            in_.name, *p_.band->offset_mm));
    }

    void adaptor() {
        if (!in_.adaptor) return;
        const build::Adaptor& a = *in_.adaptor;
        add("adaptor", PlanVerdict::Marginal, "A plate between hub and wheel carries the car by two sets of studs.",
            "It is made by a machine shop that answers for it, and approved before it runs; many places forbid it.");
        if (in_.hub && in_.hub->stud_out && in_.hub->stud_out->value > a.thick.value)
            add("adaptor-studs", PlanVerdict::Fails,
                fmt::format("The hub's studs stand {:.0f} mm out of a plate of {:.0f}: the wheel does not lie on it.",
                            in_.hub->stud_out->value - a.thick.value, a.thick.value),
                "A thicker plate, or shorter studs; a stud is never cut in place.");
        if (!in_.hub || !in_.hub->studs || !p_.hub_circle_mm || !shown_->studs || !figures_.circle_mm) return;
        const AdaptorPlan plan = adaptorPlan({a, static_cast<int>(in_.hub->studs->value), p_.hub_circle_mm->value,
                                              static_cast<int>(shown_->studs->value), figures_.circle_mm->value,
                                              in_.hub->spigot ? in_.hub->spigot->value : 0});
        const double least = std::min({plan.web_mm, plan.edge_mm, in_.hub->spigot ? plan.middle_mm : 1e9});
        if (const auto v = least < 0 ? PlanVerdict::Fails : PlanVerdict::Marginal; least < web_mm)
            add("adaptor-web", v,
                least < 0 ? std::string("Holes of the plate run into each other, its edge or its bore.")
                          : fmt::format("Only {:.1f} mm of the plate stand between its holes, or to its edge.", least),
                "A larger plate, smaller sunk holes, or two plates bolted one behind the other by a shop that answers for it.")
                .of(fmt::format("{:.1f} mm", least), fmt::format("≥ {:.0f} mm", web_mm));
    }

    const WheelsIn& in_;
    WheelsPlan& p_;
    const WheelSet* shown_ = nullptr;
    WheelFigures figures_;
};

} // namespace

void judgeWheels(const WheelsIn& in, WheelsPlan& plan) { WheelJudge(in, plan).all(); }

} // namespace gorvet::drive
