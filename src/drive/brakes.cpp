#include "drive/brakes.hpp"

#include "drive/apart.hpp"
#include "drive/propagator.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

using build::Brake;
using build::BrakeKind;
using build::CrossingKind;
using build::judge;
using build::Limit;
using build::Pedal;
using build::Provenance;
using build::Remark;

double lockTogetherG(double braking, double weight, double wheelbase, double cg) { return (braking - weight) * wheelbase / cg; }

namespace {

constexpr double earth_g = 9.80665;
/// Linings grip to about a tenth of what is said of them; of what is measured, a tenth of a millimetre.
constexpr double grip_u95 = 0.1, size_u95_mm = 0.1, radius_u95_mm = 2, stroke_u95_mm = 0.1;
/// Hot exhaust beside lines: engineering.md, Scan and Sit.
constexpr double line_exhaust_mm = 100, line_shielded_mm = 50, line_moving_mm = 25;

double boreArea(double across) { return std::numbers::pi / 4 * across * across; }

class BrakesMaker {
public:
    explicit BrakesMaker(const BrakesIn& in) : in_(in) {}

    BrakesPlan plan() {
        if (!in_.said) return std::move(p_);
        pedals();
        balance();
        for (std::size_t k = 0; k < in_.runs.size(); ++k)
            for (std::size_t j = 0; j < in_.runs.size(); ++j) routed(in_.runs[k], in_.runs[j]);
        for (const RunIn& run : in_.runs) reach(run);
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const Remark& a, const Remark& b) { return a.verdict > b.verdict; });
        for (const Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
        return std::move(p_);
    }

private:
    Remark& add(const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }
    void skip(std::string what) { p_.not_looked_at.push_back(std::move(what)); }

    // ---- how hard each axle brakes

    /// Torque of both wheels of an axle for each MPa in its lines.
    struct PerPressure {
        std::size_t piston, pistons, radius, grip;
        bool disc;
        double operator()(const std::vector<double>& v) const {
            // a disc is pressed from both sides; what a drum's shoes rub for each push has their friction in it
            return 2 * (disc ? 2 : 1) * v[pistons] * boreArea(v[piston]) * v[grip] * v[radius];
        }
    };
    static bool whole(const Brake& b) {
        return b.piston && b.pistons && b.radius && (b.kind == BrakeKind::Disc ? b.grip : b.factor);
    }
    static PerPressure perPressure(Propagator& n, const Brake& b) {
        const build::Dimension& rubs = b.kind == BrakeKind::Disc ? *b.grip : *b.factor;
        return {n.add(*b.piston, size_u95_mm), n.add(*b.pistons, 0), n.add(*b.radius, radius_u95_mm),
                n.add(rubs, grip_u95 * rubs.value), b.kind == BrakeKind::Disc};
    }

    void balance() {
        if (!in_.brakes[0] || !in_.brakes[1] || !whole(*in_.brakes[0]) || !whole(*in_.brakes[1]) || !in_.radius_mm[0] ||
            !in_.radius_mm[1])
            return skip("which axle locks first: piston, pistons, radius and grip or factor of both axles, and both tyres");
        Propagator n;
        const PerPressure front = perPressure(n, *in_.brakes[0]), rear = perPressure(n, *in_.brakes[1]);
        const std::size_t tyre = n.add(*in_.radius_mm[0], 5, Provenance::Derived),
                          behind = n.add(*in_.radius_mm[1], 5, Provenance::Derived);
        // two cylinders side by side on a bar in its middle get half the push each; one cylinder gives both the same pressure
        double bias = 1;
        if (in_.pedal && in_.pedal->bore && in_.pedal->bore_rear)
            bias = boreArea(in_.pedal->bore_rear->value) / boreArea(in_.pedal->bore->value);
        const auto share = [=](const std::vector<double>& v) {
            const double f = bias * front(v) / v[tyre], r = rear(v) / v[behind];
            return f / (f + r);
        };
        p_.front_share = n.of(share);
        if (!in_.axle_kg[0] || !in_.axle_kg[1] || !in_.wheelbase_mm || !in_.cg_mm)
            return skip(
                "at what braking both axles lock together: the weight of all four wheels, the wheelbase, how high the weight stands");
        const std::size_t wf = n.add(in_.axle_kg[0]->value, in_.axle_kg[0]->u95, in_.axle_kg[0]->provenance),
                          wr = n.add(in_.axle_kg[1]->value, in_.axle_kg[1]->u95, in_.axle_kg[1]->provenance),
                          base = n.add(in_.wheelbase_mm->value, in_.wheelbase_mm->u95, in_.wheelbase_mm->provenance),
                          high = n.add(in_.cg_mm->value, in_.cg_mm->u95, in_.cg_mm->provenance);
        p_.locks_at_g = n.of(
            [=](const std::vector<double>& v) { return lockTogetherG(share(v), v[wf] / (v[wf] + v[wr]), v[base], v[high]); });
        const Figure& g = *p_.locks_at_g;
        if (const auto v = judge(g, Limit::atLeast(least_lock_g)); g.value - g.u95 < least_lock_g)
            add("brake-rear-first", v,
                g.value > 0 ? fmt::format("Braked harder than {:.2f} ± {:.2f} g the rear wheels lock first: the car turns round.",
                                          g.value, g.u95)
                            : "The rear wheels lock before the front ones however it is braked: the car turns round.",
                "Smaller cylinders or another valve for the rear: chosen, fitted and tried by those who are licensed for brakes.")
                .of(fmt::format("{:.2f} g", g.value), fmt::format("≥ {:.1f} g", least_lock_g));
        leg(n, share, front, tyre, wf, wr);
    }
    template <class Share>
    void leg(Propagator n, const Share& share, const PerPressure& front, std::size_t tyre, std::size_t wf, std::size_t wr) {
        if (!in_.pedal || !in_.pedal->lever || !in_.pedal->arm || !in_.pedal->bore)
            return skip("how hard the pedal must be pressed: its lever, its arm and the cylinder's bore");
        const Pedal& pedal = *in_.pedal;
        const std::size_t lever = n.add(*pedal.lever, 2), arm = n.add(*pedal.arm, 1), bore = n.add(*pedal.bore, size_u95_mm);
        const double help = pedal.help ? pedal.help->value : 1, halves = pedal.bore_rear ? 0.5 : 1;
        constexpr double asked_g = 0.6;
        p_.leg_N = n.of([=](const std::vector<double>& v) {
            const double force = asked_g * earth_g * (v[wf] + v[wr]) * share(v); // at the front tyres
            const double pressure = force * v[tyre] / front(v);                  // MPa
            return pressure * boreArea(v[bore]) / halves / (v[lever] / v[arm]) / help;
        });
        if (pedal.leg) {
            const Figure &asked = *p_.leg_N, g = asked_g * Figure{pedal.leg->value / asked.value, 0, pedal.leg->provenance};
            p_.reached_g = Figure{g.value, g.value * asked.u95 / asked.value, build::worst(asked.provenance, g.provenance)};
        }
        if (const auto v = judge(*p_.leg_N, Limit::atMost(most_leg_N)); p_.leg_N->value + p_.leg_N->u95 > most_leg_N)
            add("brake-leg", v,
                fmt::format("For 0.6 g the pedal asks for {:.0f} ± {:.0f} N of the leg.", p_.leg_N->value, p_.leg_N->u95),
                "A longer lever, a smaller cylinder or a servo: each takes pedal travel or wants a licensed hand.")
                .of(fmt::format("{:.0f} N", p_.leg_N->value), fmt::format("≤ {:.0f} N", most_leg_N));
    }

    // ---- pedals

    void pedals() {
        const auto ratio = [](const std::optional<Pedal>& pedal) -> std::optional<Figure> {
            if (!pedal || !pedal->lever || !pedal->arm) return std::nullopt;
            Propagator n;
            const std::size_t lever = n.add(*pedal->lever, 2), arm = n.add(*pedal->arm, 1);
            return n.of([=](const std::vector<double>& v) { return v[lever] / v[arm]; });
        };
        p_.pedal_ratio = ratio(in_.pedal);
        p_.clutch_ratio = ratio(in_.clutch);
        const auto stroke = [](const std::optional<Brake>& b) { return b && b->piston && b->pistons && b->stroke; };
        if (!in_.pedal || !in_.pedal->bore || !p_.pedal_ratio || !stroke(in_.brakes[0]) || !stroke(in_.brakes[1]))
            return skip("how far the pedal goes: lever, arm and bore, and of both axles piston, pistons and stroke");
        Propagator n;
        const auto taken =
            [&](const Brake& b) { // of both wheels; pistons press from both sides, or a caliper slides as far again
                return std::array{n.add(*b.piston, size_u95_mm), n.add(*b.pistons, 0), n.add(*b.stroke, stroke_u95_mm)};
            };
        const auto front = taken(*in_.brakes[0]), rear = taken(*in_.brakes[1]);
        const std::size_t lever = n.add(*in_.pedal->lever, 2), arm = n.add(*in_.pedal->arm, 1),
                          bore = n.add(*in_.pedal->bore, size_u95_mm);
        const bool twin = in_.pedal->bore_rear.has_value();
        const std::size_t second = twin ? n.add(*in_.pedal->bore_rear, size_u95_mm) : bore;
        const auto volume = [](const std::vector<double>& v, const std::array<std::size_t, 3>& b) {
            return 2 * v[b[1]] * 2 * boreArea(v[b[0]]) * v[b[2]];
        };
        const auto push = [=](const std::vector<double>& v) {
            const double a = volume(v, front) / boreArea(v[bore]), b = volume(v, rear) / boreArea(v[second]);
            return twin ? (a + b) / 2 : a + b; // one behind the other, the pistons' ways add up
        };
        p_.pedal_mm = n.of([=](const std::vector<double>& v) { return push(v) * v[lever] / v[arm]; });
        if (const auto& most = in_.pedal->stroke) {
            const Figure way = n.of(push);
            if (const auto v = judge(way, Limit::atMost(most_pedal_share * most->value));
                way.value + way.u95 > most_pedal_share * most->value)
                add("brake-stroke", v,
                    fmt::format(
                        "The cylinder goes {:.0f} ± {:.0f} of its {:.0f} mm until the brakes press: nothing is left when one circuit fails.",
                        way.value, way.u95, most->value),
                    "A larger bore, or linings set nearer: by those who are licensed for brakes.")
                    .of(fmt::format("{:.0f} mm", way.value), fmt::format("≤ {:.0f} mm", most_pedal_share * most->value));
        }
        if (!in_.pedal->room) return skip("whether the pedal meets the floor: its room");
        p_.pedal_room_mm = in_.pedal->room->value;
        const double most = most_pedal_share * *p_.pedal_room_mm;
        if (const auto v = judge(*p_.pedal_mm, Limit::atMost(most)); p_.pedal_mm->value + p_.pedal_mm->u95 > most)
            add("brake-pedal", v,
                fmt::format("The pedal goes {:.0f} ± {:.0f} of its {:.0f} mm until the brakes press: hot, it meets the floor.",
                            p_.pedal_mm->value, p_.pedal_mm->u95, *p_.pedal_room_mm),
                "A larger bore or a smaller pedal ratio, and then the leg's force looked at again.")
                .of(fmt::format("{:.0f} mm", p_.pedal_mm->value), fmt::format("≤ {:.0f} mm", most));
    }

    // ---- lines

    void routed(const RunIn& line, const RunIn& other) {
        const bool carries = line.kind == CrossingKind::BrakeLine || line.kind == CrossingKind::FuelLine ||
                             line.kind == CrossingKind::ParkBrakeCable;
        const bool hot = other.kind == CrossingKind::Exhaust, turns = other.kind == CrossingKind::PropShaft;
        if (!carries || (!hot && !turns)) return;
        RunsApart a{line.name,
                    other.name,
                    {},
                    turns                             ? line_moving_mm
                    : line.shielded || other.shielded ? line_shielded_mm
                                                      : line_exhaust_mm};
        a.clear_mm = apartOf(in_.places, line.points, other.points, (line.across_mm + other.across_mm) / 2).clear_mm;
        if (line.assumed || other.assumed) a.clear_mm.provenance = Provenance::Assumed;
        const auto v = judge(a.clear_mm, Limit::atLeast(a.least_mm));
        const std::string off =
            fmt::format("The {} {} is {:.0f} ± {:.0f} mm from", word(line.kind), line.name, a.clear_mm.value, a.clear_mm.u95);
        const std::string is = fmt::format("{:.0f} mm", a.clear_mm.value), wanted = fmt::format("≥ {:.0f} mm", a.least_mm);
        if (a.clear_mm.value - a.clear_mm.u95 < a.least_mm) {
            if (turns)
                add("line-moving", v, fmt::format("{} the turning shaft {}.", off, other.name),
                    "Lead it another way, clipped on both sides of the shaft.")
                    .of(is, wanted);
            else
                add("line-hot", v, fmt::format("{} the exhaust {}.", off, other.name),
                    "Lead it another way, or shield the pipe; heat boils brake fluid and fuel.")
                    .of(is, wanted);
        }
        p_.apart.push_back(std::move(a));
    }

    // ---- reach

    /// The way is that of a taut string through the points: what bends takes more, so little to spare is too little.
    void reach(const RunIn& run) {
        if (!run.long_mm || run.points.size() < 2) return;
        const auto way = [&](const geometry::RigidTransform* moved) {
            return build::figureOf(in_.places, distinct(run.points), [&](const std::vector<Vec3>& at) {
                double sum = 0;
                for (std::size_t k = 1; k < run.points.size(); ++k) {
                    const Vec3 end = at[run.points[k]];
                    sum += geometry::between(at[run.points[k - 1]],
                                             moved && k + 1 == run.points.size() ? moved->transformed(end) : end);
                }
                return sum;
            });
        };
        Reach r{run.name, run.kind, way(nullptr), {}, "at rest"};
        Figure longest = r.way_mm;
        for (std::size_t k = 0; k < run.last_moved.size(); ++k)
            if (const Figure moved = way(&run.last_moved[k]); moved.value > longest.value) {
                longest = moved;
                r.at = k == 0 ? "at full bump" : "at full droop";
            }
        r.spare_mm = *run.long_mm - longest;
        if (run.steers)
            skip(fmt::format("whether {} reaches with the wheels turned to lock: turn them, at full droop, and look", run.name));
        if (run.assumed || run.straight || run.steers) r.spare_mm.provenance = Provenance::Assumed;
        const std::string spare = fmt::format("{:.0f} mm", r.spare_mm.value), wanted = fmt::format("≥ {:.0f} mm", least_spare_mm);
        if (r.spare_mm.value - r.spare_mm.u95 < least_spare_mm)
            add("run-short", judge(r.spare_mm, Limit::atLeast(least_spare_mm)),
                r.spare_mm.value < 0 ? fmt::format("The {} {} is {:.0f} ± {:.0f} mm too short {}.", word(run.kind), run.name,
                                                   -r.spare_mm.value, r.spare_mm.u95, r.at)
                                     : fmt::format("The {} {} has {:.0f} ± {:.0f} mm to spare {}, taut through its points.",
                                                   word(run.kind), run.name, r.spare_mm.value, r.spare_mm.u95, r.at),
                "A longer one made by those who make them, or its ends nearer; a brake line is never drawn out nor joined by hand.")
                .of(spare, wanted);
        else if (r.spare_mm.value + r.spare_mm.u95 > std::max(most_spare_share * longest.value, 3 * least_spare_mm))
            add("run-slack", PlanVerdict::Marginal,
                fmt::format("The {} {} is {:.0f} ± {:.0f} mm longer than its longest way: it hangs, and rubs.", word(run.kind),
                            run.name, r.spare_mm.value, r.spare_mm.u95),
                "Clip it along its way, or have a shorter one made.")
                .of(spare, fmt::format("≤ {:.0f} % of its way", 100 * most_spare_share));
        p_.reaches.push_back(std::move(r));
    }

    const BrakesIn& in_;
    BrakesPlan p_;
};

} // namespace

BrakesPlan brakesPlan(const BrakesIn& in) { return BrakesMaker(in).plan(); }

} // namespace gorvet::drive
