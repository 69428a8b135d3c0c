#include "drive/axle_setup.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>
#include <numeric>

#include <fmt/format.h>

namespace gorvet::drive {

using build::BracketKind;
using build::GearCheck;
using build::GearReading;
using build::judge;
using build::Limit;
using build::Provenance;
using build::Remark;
using build::TackReading;

namespace {

/// ± of a tape along an axle, and of a level on it.
constexpr double bench_tape_u95_mm = 1.5;
/// A U-bolt's thread stands over its nut by so many diameters: washer, nut, three turns.
constexpr double over_stack = 1.65;
constexpr const char *at_shortest = "at its shortest", *at_longest = "at its longest";

std::string shown(const Figure& f) { return fmt::format("{:.1f} ± {:.1f} mm", f.value, f.u95); }

class AxleSetup {
public:
    explicit AxleSetup(const AxleSetupIn& in) : in_(in) { p_.name = in.name; }

    AxleSetupPlan plan() {
        if (!in_.faces_mm) p_.missing.emplace_back("the width of the axle from wheel face to wheel face");
        perches();
        for (const BracketIn& b : in_.brackets) bracket(b);
        turned();
        uBolt();
        for (const TackReading& t : in_.tacks) tack(t);
        for (const GearReading& g : in_.gears) gear(g);
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const Remark& a, const Remark& b) { return a.verdict > b.verdict; });
        for (const Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
        if (!in_.assumed.empty() || !p_.missing.empty()) p_.verdict = std::max(p_.verdict, PlanVerdict::Marginal);
        return std::move(p_);
    }

private:
    Remark& add(const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }

    void perches() {
        if (!in_.springs_mm[0] && !in_.springs_mm[1]) return;
        if (!in_.springs_mm[0] || !in_.springs_mm[1]) p_.missing.emplace_back("where the other spring sits");
        if (!in_.faces_mm) return;
        for (std::size_t side = 0; side < 2; ++side) {
            if (!in_.springs_mm[side]) continue;
            const Figure right = side == 0 ? -1.0 * *in_.springs_mm[side] : *in_.springs_mm[side];
            const Figure half = 0.5 * *in_.faces_mm;
            p_.perches.push_back({side == 1, half + right, half - right});
            const Figure own = half - *in_.springs_mm[side];
            if (!in_.brake_in_mm || !in_.spring_width_mm) continue;
            const Figure free = own - 0.5 * *in_.spring_width_mm - *in_.brake_in_mm;
            if (const auto v = judge(free, Limit::atLeast(0)); v != PlanVerdict::Holds)
                add("axle-perch", v,
                    fmt::format("The {} perch stands in the brake: {} between them.", side == 0 ? "left" : "right", shown(free)),
                    "Springs further in, a wider axle, or another brake.")
                    .of(shown(free), "≥ 0 mm");
        }
    }

    /// From the middle between the wheels to a bracket, in numbers that places or the input give.
    void bracket(const BracketIn& b) {
        BracketRow row;
        row.name = b.name;
        row.tag = b.tag;
        row.kind = b.kind;
        const auto middle = [](const std::vector<Vec3>& at) { return geometry::along(at[0], at[1], 0.5); };
        Figure right = b.right_mm, ahead = b.ahead_mm, up = b.up_mm;
        std::function<Vec3(const std::vector<Vec3>&)> offset;
        std::vector<std::size_t> of{0, 1};
        if (b.place >= 0) {
            const auto k = static_cast<std::size_t>(b.place);
            of.push_back(k);
            offset = [&, k](const std::vector<Vec3>& at) { return geometry::minus(at[k], middle(at)); };
            right = build::figureOf(in_.places, of, [&](const auto& at) { return offset(at).y_mm; });
            ahead = build::figureOf(in_.places, of, [&](const auto& at) { return -offset(at).x_mm; });
            up = build::figureOf(in_.places, of, [&](const auto& at) { return offset(at).z_mm; });
            row.from_middle_mm =
                build::figureOf(in_.places, of, [&](const auto& at) { return std::hypot(offset(at).x_mm, offset(at).z_mm); });
            row.angle_rad =
                build::figureOf(in_.places, of, [&](const auto& at) { return std::atan2(offset(at).z_mm, -offset(at).x_mm); });
        } else {
            const double radius = std::hypot(ahead.value, up.value);
            const Provenance from = worst(Provenance::Derived, worst(ahead.provenance, up.provenance));
            const auto mixed = [&](double a, double u) { return std::hypot(a * ahead.u95, u * up.u95); };
            row.from_middle_mm = {radius, radius > 0 ? mixed(ahead.value / radius, up.value / radius) : 0, from};
            row.angle_rad = {std::atan2(up.value, ahead.value), radius > 0 ? mixed(up.value, ahead.value) / (radius * radius) : 0,
                             from};
        }
        if (in_.faces_mm) {
            row.from_left_mm = 0.5 * *in_.faces_mm + right;
            row.from_right_mm = 0.5 * *in_.faces_mm - right;
        }
        if (in_.pinion_slope_rad) row.turned_rad = row.angle_rad - *in_.pinion_slope_rad;
        if (in_.tube_mm && row.from_middle_mm.value + row.from_middle_mm.u95 < in_.tube_mm->value / 2)
            add("axle-inside", PlanVerdict::Fails, fmt::format("{} would sit inside the tube.", b.name),
                "Look at its figures again.");
        if (b.frame >= 0) travel(b, row, of, right, ahead, up);
        p_.brackets.push_back(std::move(row));
    }

    /// A damper's length, or a stop's gap, through the travel.
    void travel(const BracketIn& b, BracketRow& row, const std::vector<std::size_t>& with, const Figure& right,
                const Figure& ahead, const Figure& up) {
        const auto frame = static_cast<std::size_t>(b.frame);
        std::vector<std::size_t> of = with;
        of.push_back(frame);
        const auto hole = [&](const std::vector<Vec3>& at) {
            if (b.place >= 0) return at[static_cast<std::size_t>(b.place)];
            return geometry::plus(geometry::along(at[0], at[1], 0.5), {-ahead.value, right.value, up.value});
        };
        const double typed = b.place >= 0 ? 0 : std::hypot(right.u95, std::hypot(ahead.u95, up.u95));
        const auto wider = [&](Figure f) {
            f.u95 = std::hypot(f.u95, typed);
            return f;
        };
        if (b.kind == BracketKind::Stop) {
            const double height = b.closed ? b.closed->value : 0;
            row.gap_mm =
                wider(build::figureOf(in_.places, of, [&](const auto& at) { return at[frame].z_mm - hole(at).z_mm - height; }));
            if (!b.closed) p_.missing.push_back("the height of the stop " + b.name);
            if (const auto v = judge(*row.gap_mm, Limit::atMost(in_.bump_mm)); v != PlanVerdict::Holds)
                add("axle-stop", v,
                    fmt::format(
                        "The stop {} stands {} off at rest, and the axle is taken to go up by {:.0f} mm: something else ends its way.",
                        b.name, shown(*row.gap_mm), in_.bump_mm),
                    "A taller stop, or the travel as it really is.")
                    .of(shown(*row.gap_mm), fmt::format("≤ {:.0f} mm", in_.bump_mm));
            return;
        }
        const auto length = [&](const RigidTransform& moved) {
            return wider(build::figureOf(
                in_.places, of, [&](const auto& at) { return geometry::between(moved.transformed(hole(at)), at[frame]); }));
        };
        row.rest_mm = length({});
        for (const RigidTransform& moved : in_.travel) {
            const Figure l = length(moved);
            if (!row.shortest_mm || l.value < row.shortest_mm->value) row.shortest_mm = l;
            if (!row.longest_mm || l.value > row.longest_mm->value) row.longest_mm = l;
        }
        if (b.kind != BracketKind::Damper || !row.shortest_mm) return;
        if (!b.closed || !b.open) {
            p_.missing.push_back("how long the damper " + b.name + " is, pushed together and drawn out");
            return;
        }
        const Figure in = *row.shortest_mm - Figure{b.closed->value, bench_tape_u95_mm, b.closed->provenance},
                     out = Figure{b.open->value, bench_tape_u95_mm, b.open->provenance} - *row.longest_mm;
        const auto left = [&](const Figure& f, const char* where) {
            return f.value < 0 ? fmt::format("The damper {} is {:.0f} ± {:.0f} mm too {} {}.", b.name, -f.value, f.u95,
                                             where == at_longest ? "short" : "long", where)
                               : fmt::format("The damper {} has {} left {}.", b.name, shown(f), where);
        };
        if (const auto v = judge(in, Limit::atLeast(damper_spare_mm)); v != PlanVerdict::Holds)
            add("axle-damper-in", v, left(in, at_shortest),
                "Its bracket lower or further aside, a shorter damper, or a stop that ends the travel before.")
                .of(shown(in), fmt::format("≥ {:.0f} mm", damper_spare_mm));
        if (const auto v = judge(out, Limit::atLeast(damper_spare_mm)); v != PlanVerdict::Holds)
            add("axle-damper-out", v, left(out, at_longest),
                "A longer damper, its bracket higher, or straps that end the droop: a damper is no strap.")
                .of(shown(out), fmt::format("≥ {:.0f} mm", damper_spare_mm));
    }

    void turned() {
        if (in_.pad_slope_rad && in_.pinion_slope_rad) p_.pinion_up_rad = *in_.pinion_slope_rad - *in_.pad_slope_rad;
        if (!p_.perches.empty() && !in_.front) {
            if (!in_.pad_slope_rad) p_.missing.emplace_back("the slope of the springs' seats at rest");
            if (!in_.pinion_slope_rad) p_.missing.emplace_back("the slope that the pinion shall have");
        }
        // a kingpin leans back by its own lean against the seats' square, and by what those are down at the back
        if (in_.kingpin_rad && in_.caster_rad && in_.pad_slope_rad)
            p_.wedge_rad = *in_.caster_rad - *in_.kingpin_rad - *in_.pad_slope_rad;
    }

    void uBolt() {
        if (!in_.u_bolt_mm || !in_.tube_mm) return;
        if (!in_.stack_mm) {
            p_.missing.emplace_back("what the U-bolts hold beside the tube");
            return;
        }
        UBolt u;
        const double d = *in_.u_bolt_mm, tube = in_.tube_mm->value;
        u.inside_mm = tube;
        u.leg_mm = tube + *in_.stack_mm + over_stack * d;
        u.thread_mm = over_stack * d + std::min(25.0, *in_.stack_mm / 2);
        u.rod_mm = std::numbers::pi / 2 * (tube + d) + 2 * (u.leg_mm - tube / 2);
        p_.u_bolt = u;
    }

    void tack(const TackReading& t) {
        const auto off = [&](const build::Dimension& is, const build::Dimension& against) {
            return Figure{is.value - against.value, bench_tape_u95_mm / 3,
                          worst(Provenance::Derived, worst(is.provenance, against.provenance))};
        };
        const Limit within{-t.within.value, t.within.value, Provenance::Measured};
        const auto words = [](const Figure& f) {
            return fmt::format("{:.1f} ± {:.1f} mm {}", std::abs(f.value), f.u95, f.value < 0 ? "short" : "long");
        };
        if (!t.welded) {
            if (!t.wanted) return;
            const Figure f = off(t.tacked, *t.wanted);
            if (const auto v = judge(f, within); v != PlanVerdict::Holds)
                add("axle-tack", v, fmt::format("{} is tacked {}.", t.name, words(f)),
                    "Break the tack and set it again: it is minutes now.")
                    .of(shown(f), fmt::format("within {:g} mm", t.within.value));
            return;
        }
        const Figure pull = off(*t.welded, t.tacked);
        if (t.wanted) {
            const Figure f = off(*t.welded, *t.wanted);
            if (const auto v = judge(f, within); v != PlanVerdict::Holds)
                add("axle-welded", v,
                    fmt::format("{} is welded {}; the heat made it {:.1f} mm {}.", t.name, words(f), std::abs(pull.value),
                                pull.value < 0 ? "shorter" : "longer"),
                    "An axle that is bent is straightened by a shop that does it, or the bracket is made anew.")
                    .of(shown(f), fmt::format("within {:g} mm", t.within.value));
        } else if (const auto v = judge(pull, within); v != PlanVerdict::Holds) {
            add("axle-pull", v,
                fmt::format("Welding made {} {:.1f} ± {:.1f} mm {}.", t.name, std::abs(pull.value), pull.u95,
                            pull.value < 0 ? "shorter" : "longer"),
                "Shorter runs, side about, cold between them; look whether the tube is straight.")
                .of(shown(pull), fmt::format("within {:g} mm", t.within.value));
        }
    }

    void gear(const GearReading& g) {
        GearRow row;
        const bool turning = g.check == GearCheck::PinionPreload || g.check == GearCheck::WholePreload;
        row.unit = turning ? "N·m" : "mm";
        const auto [least, most] = std::minmax_element(g.readings.begin(), g.readings.end());
        row.least = *least;
        row.most = *most;
        row.mean = std::accumulate(g.readings.begin(), g.readings.end(), 0.0) / static_cast<double>(g.readings.size());
        const auto say = [&](PlanVerdict v, const std::string& what, const std::string& need) {
            row.verdict = std::max(row.verdict, v);
            add("axle-gears", v, what,
                turning ? "The adjuster, the shim or a new crush sleeve: it is set by what turns it, never by counted turns."
                        : "Shims or adjusters; a spread from tooth to tooth is dirt, a bent seat or a bad pair.")
                .of(fmt::format("{:g} to {:g} {}", row.least, row.most, row.unit), need);
        };
        const std::string name = fmt::format("{} of the {}", word(g.check), word(g.axle));
        if (g.least && row.least < g.least->value)
            say(PlanVerdict::Fails, fmt::format("{}: {:g} {} is less than {:g}.", name, row.least, row.unit, g.least->value),
                fmt::format("≥ {:g}", g.least->value));
        if (g.most && row.most > g.most->value)
            say(PlanVerdict::Fails, fmt::format("{}: {:g} {} is more than {:g}.", name, row.most, row.unit, g.most->value),
                fmt::format("≤ {:g}", g.most->value));
        if (g.spread && row.most - row.least > g.spread->value)
            say(PlanVerdict::Fails,
                fmt::format("{}: from place to place it differs by {:g} {}.", name, row.most - row.least, row.unit),
                fmt::format("spread ≤ {:g}", g.spread->value));
        if (!g.least && !g.most && g.check != GearCheck::RunOut) {
            row.verdict = std::max(row.verdict, PlanVerdict::Marginal);
            p_.missing.push_back("its maker's limits for the " + name);
        }
        if (g.check == GearCheck::Backlash && g.readings.size() < 3) {
            row.verdict = std::max(row.verdict, PlanVerdict::Marginal);
            p_.missing.push_back("backlash at three or more teeth of the " + std::string(word(g.axle)));
        }
        p_.gears.push_back(row);
    }

    const AxleSetupIn& in_;
    AxleSetupPlan p_;
};

} // namespace

AxleSetupPlan axleSetupPlan(const AxleSetupIn& in) { return AxleSetup(in).plan(); }

} // namespace gorvet::drive
