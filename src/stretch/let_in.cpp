#include "stretch/let_in.hpp"

#include "stretch/parts.hpp"
#include "stretch/sheet_plugs.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::Figure;
using build::PlanVerdict;
using build::RailEnd;
using build::Remark;
using build::Vec3;

std::string letMm(double v, int decimals = 0) { return units::fixed(v, decimals) + " mm"; }

/// A box by its outside.
struct Box {
    double high = 0, wide = 0, wall = 0;
    double insideHigh() const { return high - 2 * wall; }
    double insideWide() const { return wide - 2 * wall; }
    Section section() const { return sectionOf(high, wide, wall, false); }
    double modulus() const { return insideHigh() > 0 && insideWide() > 0 ? section().level_modulus_mm3 : 0; }
};

class LetInto {
public:
    explicit LetInto(const LetInInput& in) : in_(in), r_(in.row) {}

    LetInPlan made() {
        p_.missing = in_.missing;
        if (p_.missing.empty()) ask();
        if (!p_.missing.empty()) return std::move(p_);
        lengths();
        for (const std::size_t k : {0, 1}) end(k);
        floor();
        settle(p_, !in_.assumed.empty());
        return std::move(p_);
    }

private:
    Remark& add(const char* code, PlanVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, v, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }
    const char* word(std::size_t k) const { return k == 0 ? "front" : "rear"; }
    Box rail() const { return {r_.height.value, r_.width.value, r_.wall.value}; }
    Box leg(std::size_t k) const {
        return k == 0 ? Box{r_.leg_height.value, r_.leg_width.value, r_.leg_wall.value}
                      : Box{r_.tail_height.value, r_.tail_width.value, r_.tail_wall.value};
    }
    bool driven(std::size_t k) const { return (k == 0) == (r_.driven == RailEnd::Front); }

    void ask() {
        const auto wants = [&](bool so, std::string what) {
            if (!so) p_.missing.push_back(std::move(what));
        };
        wants(rail().modulus() > 0, fmt::format("the rail's section: let-in {} section 80 50 3", r_.name));
        wants(leg(0).modulus() > 0, fmt::format("the front leg's section: let-in {} front-leg 84 54 2", r_.name));
        wants(leg(1).modulus() > 0, fmt::format("the rear leg's section: let-in {} rear-leg 84 54 2", r_.name));
        constexpr double least = 50;
        if (p_.missing.empty()) wants(geometry::between(in_.points.at[0], in_.points.at[1]) > least, "two ends that stand apart");
    }

    void lengths() {
        const auto apart = [](const std::vector<Vec3>& at) { return geometry::between(at[0], at[1]); };
        p_.between = figureOf(in_.points, {0, 1}, apart);
        p_.length = p_.between;
        p_.length.value -= let_in_root;
        if (in_.loose) p_.between.provenance = p_.length.provenance = build::Provenance::Assumed;
        const Vec3 way = geometry::minus(in_.points.at[1], in_.points.at[0]);
        p_.slope_rad = std::atan2(-way.z_mm, std::hypot(way.x_mm, way.y_mm));
        constexpr double steel_kg_mm3 = 7.85e-6;
        const Box b = rail();
        p_.rail_kg = (b.high * b.wide - b.insideHigh() * b.insideWide()) * p_.length.value * steel_kg_mm3;
    }

    /// Angles between the leg's own way and the rail's, out of the leg.
    std::optional<LetInTurn> turn(std::size_t k) const {
        if (in_.along[k] < 0) return {};
        const auto a = static_cast<std::size_t>(in_.along[k]);
        const std::size_t here = k, there = 1 - k;
        const auto between = [=](const std::vector<Vec3>& at, const auto& angle) {
            return angle(geometry::minus(at[there], at[here])) - angle(geometry::minus(at[here], at[a]));
        };
        const auto up = [](const Vec3& way) { return std::atan2(way.z_mm, std::hypot(way.x_mm, way.y_mm)); };
        const auto aside = [](const Vec3& way) { return std::atan2(way.y_mm, way.x_mm); };
        const auto least = [](double angle) { return std::remainder(angle, 2 * units::pi); };
        LetInTurn t;
        t.up = figureOf(in_.points, {0, 1, a}, [&](const std::vector<Vec3>& at) { return between(at, up); });
        t.aside = figureOf(in_.points, {0, 1, a}, [&](const std::vector<Vec3>& at) { return -least(between(at, aside)); });
        return t;
    }

    void end(std::size_t k) {
        LetInEnd& e = p_.ends[k];
        e.end = k == 0 ? RailEnd::Front : RailEnd::Rear;
        e.driven = driven(k);
        const Box b = rail(), l = leg(k);
        const double up = (b.insideHigh() - l.insideHigh()) / 2, aside = (b.insideWide() - l.insideWide()) / 2;
        e.into_rail = up + aside >= 0;
        const Box &roomy = e.into_rail ? b : l, &tight = e.into_rail ? l : b;
        e.step_mm = std::max(std::abs(up), std::abs(aside));
        const double fit = e.driven ? let_in_driven : let_in_slide;
        e.thin_high_mm = tight.insideHigh() - 2 * fit;
        e.thin_wide_mm = tight.insideWide() - 2 * fit;
        e.thick_high_mm = std::max(e.thin_high_mm, roomy.insideHigh() - 2 * let_in_slide);
        e.thick_wide_mm = std::max(e.thin_wide_mm, roomy.insideWide() - 2 * let_in_slide);
        if (e.step_mm < let_in_least_step) {
            e.thick_high_mm = e.thin_high_mm;
            e.thick_wide_mm = e.thin_wide_mm;
        }
        if ((up > let_in_least_step && aside < -let_in_least_step) || (up < -let_in_least_step && aside > let_in_least_step))
            add("let-in-step", PlanVerdict::Fails,
                fmt::format("Inside, the rail is {} than the {} leg one way and {} the other: a piece can slide into neither.",
                            up > 0 ? "higher" : "wider", word(k), up > 0 ? "narrower" : "lower"),
                fmt::format("A rail of {} × {} or more outside, or of {} × {} and less.", letMm(l.insideHigh() + 2 * b.wall),
                            letMm(l.insideWide() + 2 * b.wall), letMm(l.insideHigh() + 2 * b.wall),
                            letMm(l.insideWide() + 2 * b.wall)));
        else if (e.step_mm > let_in_fillable)
            add("let-in-far", PlanVerdict::Marginal,
                fmt::format("Between rail and {} leg the piece steps by {}: no tube fills that.", word(k), letMm(e.step_mm, 1)),
                "Make the step of four plates welded round the thin tube, or take another rail.")
                .of(letMm(e.step_mm, 1), letMm(let_in_fillable));
        wall(k);
        engage(k);
        turned(k);
    }

    /// As thick as it must be to bear, in the tighter one, what the weaker of leg and rail bears.
    void wall(std::size_t k) {
        LetInEnd& e = p_.ends[k];
        const Box b = rail(), l = leg(k);
        e.weaker_mm3 = std::min(b.modulus(), l.modulus());
        // in every way in which it is loaded: bent up and down, sideways, twisted, sheared
        const auto share = [&](double t) {
            const Box piece{e.thin_high_mm, e.thin_wide_mm, t};
            if (piece.modulus() <= 0) return 0.0;
            const Section inner = piece.section(), rail = b.section(), leg = l.section();
            const auto of = [&](double Section::*way) { return inner.*way / std::min(rail.*way, leg.*way); };
            return std::min({of(&Section::level_modulus_mm3), of(&Section::upright_modulus_mm3),
                             of(&Section::torsion_modulus_mm3), of(&Section::web_area_mm2)});
        };
        e.wall_mm = std::max(2.0, std::ceil(2 * std::min(b.wall, l.wall)) / 2);
        const double most = std::min(e.thin_high_mm, e.thin_wide_mm) / 4;
        while (e.weaker_mm3 > 0 && share(e.wall_mm) < 1 && e.wall_mm + 0.5 <= most) e.wall_mm += 0.5;
        e.share = e.weaker_mm3 > 0 ? share(e.wall_mm) : 0;
        if (e.share < 1)
            add("let-in-piece", PlanVerdict::Fails,
                fmt::format(
                    "A piece with a wall of {} inside has {:.0f} % of what the weaker of {} leg and rail has, in the way in which it has least.",
                    letMm(e.wall_mm, 1), 100 * e.share, word(k)),
                "A larger rail, over the leg; or fish plates outside as well.")
                .of(fmt::format("{:.0f} %", 100 * e.share), "100 %");
        if (b.modulus() < l.modulus())
            add("let-in-weak", PlanVerdict::Marginal,
                fmt::format("The rail has {:.0f} % of what the {} leg has: it bends first.", 100 * b.modulus() / l.modulus(),
                            word(k)),
                fmt::format("A thicker one: let-in {} section {} {} {}.", r_.name, units::fixed(b.high, 0),
                            units::fixed(b.wide, 0), units::fixed(b.wall + 1, 1)))
                .of(fmt::format("{:.0f} %", 100 * b.modulus() / l.modulus()), "100 %");
    }

    void engage(std::size_t k) {
        LetInEnd& e = p_.ends[k];
        const Box b = rail(), l = leg(k);
        const double high = std::max(b.high, l.high);
        constexpr double heights = 2, least_heights = 1.5, working_share = 1 / 1.5;
        e.engage_mm = r_.engage ? r_.engage->value : heights * high;
        const double pull = e.weaker_mm3 * in_.yield_mpa * working_share / (std::min(b.high, l.high) - std::min(b.wall, l.wall));
        const double thinner = std::min({b.wall, l.wall, e.wall_mm});
        const SheetPlugs g = sheetPlugs(thinner, std::min(b.wide, l.wide) - 4 * thinner, e.engage_mm, pull);
        e.plug_mm = g.hole_mm;
        e.pitch_mm = g.pitch_mm;
        e.plugs_needed = g.needed;
        e.plugs_fit = g.fit;
        e.engage_need_mm = g.along_need_mm;
        e.slot_mm = 2 * e.engage_mm + 20; // behind the piece once it is drawn back
        if (e.engage_mm < least_heights * high - 0.05)
            add("let-in-short", PlanVerdict::Fails,
                fmt::format("The {} piece stands {} in each: it pries itself loose.", word(k), letMm(e.engage_mm)),
                fmt::format("Two heights, one and a half at the least: let-in {} engage {}.", r_.name,
                            units::fixed(std::ceil(heights * high), 0)))
                .of(letMm(e.engage_mm), letMm(least_heights * high));
        if (g.fit < g.needed)
            add("let-in-plugs", PlanVerdict::Fails,
                fmt::format("{} plug welds of {} fit into each flange at the {} joint, {} are needed.", g.fit, letMm(g.hole_mm),
                            word(k), g.needed),
                g.rows > 0
                    ? fmt::format("A longer piece: let-in {} engage {}.", r_.name, units::fixed(std::ceil(g.along_need_mm), 0))
                    : std::string("The flange is too narrow for plugs: a wider rail, or plates on its sides."))
                .of(fmt::format("{}", g.fit), fmt::format("{}", g.needed));
        if (3 * e.engage_mm + 20 > p_.length.value && e.into_rail)
            add("let-in-no-room", PlanVerdict::Fails,
                fmt::format("The {} piece can't be drawn back into a rail of {}.", word(k), letMm(p_.length.value)),
                "Shorter pieces (engage), or a rail that opens: a channel closed with a plate afterwards.");
    }

    /// A straight piece goes into a leg that stands turned to the rail as far as its slack lets it.
    void turned(std::size_t k) {
        LetInEnd& e = p_.ends[k];
        e.turn = turn(k);
        if (!e.turn) {
            add("let-in-way", PlanVerdict::Marginal,
                fmt::format("Which way the {} leg runs was never measured: a piece that is driven in turns the rail with it.",
                            word(k)),
                fmt::format("Mark its middle further along: let-in {} {} MARK.", r_.name, k == 0 ? "front-along" : "rear-along"));
            return;
        }
        const double slack = 2 * (e.driven ? let_in_driven : let_in_slide) / e.engage_mm;
        const auto fits = [&](const Figure& f) {
            return build::judge({std::abs(f.value), f.u95, f.provenance}, build::Limit::atMost(slack));
        };
        if (fits(e.turn->up) == PlanVerdict::Holds && fits(e.turn->aside) == PlanVerdict::Holds) return;
        const Figure& worse = std::abs(e.turn->up.value) >= std::abs(e.turn->aside.value) ? e.turn->up : e.turn->aside;
        const auto deg = [](double rad) { return fmt::format("{:.1f}°", units::degrees(rad)); };
        const char* const from = &worse == &e.turn->up ? "the side" : "above";
        if (std::abs(worse.value) <= slack) {
            add("let-in-kink", PlanVerdict::Marginal,
                fmt::format(
                    "Whether rail and {} leg run in one line is not known: {} ± {} seen from {}. A straight piece of {} with this "
                    "fit takes {}.",
                    word(k), deg(std::abs(worse.value)), deg(worse.u95), from, letMm(e.engage_mm), deg(slack)),
                "Lay a straightedge along the leg and over the gap, or measure marks further apart.")
                .of("± " + deg(worse.u95), deg(slack));
            return;
        }
        const bool beyond = std::abs(worse.value) - worse.u95 > units::radians(let_in_kink_deg);
        add("let-in-kink", beyond ? PlanVerdict::Fails : PlanVerdict::Marginal,
            fmt::format(
                "Rail and {} leg stand {} ± {} to each other, seen from {}. A straight piece of {} with this fit turns by {}.",
                word(k), deg(std::abs(worse.value)), deg(worse.u95), from, letMm(e.engage_mm), deg(slack)),
            beyond
                ? "Let the rail in at another height, or cut the leg and set a mitred piece between, with plates over both sides."
                : "Cut the piece at its step and weld it at that angle, the joint's faces bevelled by half of it; it then goes in from "
                  "an opening in the flange, closed with a plate.")
            .of(deg(std::abs(worse.value)), deg(slack));
    }

    /// Both joints at all that they bear push the floor up at one end and down at the other: the foot's edge shears the sheet.
    void floor() {
        double weakest = 1e18;
        for (const LetInEnd& e : p_.ends) weakest = std::min(weakest, e.weaker_mm3);
        constexpr double margin = 1.5, flange = 40, pitch = sheet_pitch_mm, play = 2;
        p_.push_N = 2 * weakest * in_.yield_mpa / margin / p_.length.value;
        const double t = r_.floor.value, edge = p_.push_N * margin / (t * sheet_base_MPa);
        p_.foot_wide_mm = r_.width.value + 2 * flange;
        p_.foot_long_mm = std::max(2 * r_.width.value, std::ceil(edge / 2 - p_.foot_wide_mm));
        p_.foot_thick_mm = std::max(2.0, 2 * t);
        p_.slot_wide_mm = r_.width.value + 2 * play;
        p_.floor_plugs = std::max(2, static_cast<int>(std::ceil(p_.length.value / pitch)));
        if (p_.foot_long_mm > p_.length.value / 3)
            add("let-in-floor", PlanVerdict::Fails,
                fmt::format("A floor of {} wants a foot {} long at each end: that is no foot any more.", letMm(t, 1),
                            letMm(p_.foot_long_mm)),
                "Let new sheet in round the rail first, or carry its ends on a crossmember from sill to sill.")
                .of(letMm(p_.foot_long_mm), letMm(p_.length.value / 3));
    }

    const LetInInput& in_;
    const build::LetIn& r_;
    LetInPlan p_;
};

} // namespace

LetInPlan letInPlan(const LetInInput& in) { return LetInto(in).made(); }

} // namespace gorvet::stretch
