#include "drive/steering.hpp"

#include "drive/degree.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

using build::judge;
using build::Limit;
using build::Remark;

double ackermann(double inner, double between, double wheelbase) {
    return std::atan(1 / (1 / std::tan(inner) + between / wheelbase));
}

namespace {

constexpr double most_rack_mm = 160, rack_step_mm = 4;
/// By how much the outer wheel may be off at full lock. Workshop practice: more scrubs the tyres and is felt.
constexpr double most_off_rad = 4 * one_degree;
constexpr double bump_range_mm = 30, most_bump_rad = 0.3 * one_degree;
constexpr int most_shift_mm = 40;
constexpr double looked_for_rad = 0.1 * one_degree;
/// By which a gear may go on after the lock that was said.
constexpr double most_over_mm = 3;
/// ± of how far a gear goes to its stop.
constexpr double each_way_u95_mm = 1;

/// Nose to the left.
double steered(const Stance& s) { return std::atan2(s.moved.rotation[1].x_mm, s.moved.rotation[0].x_mm); }

class Steering {
public:
    explicit Steering(const SteeringIn& in) : in_(in) {}

    SteeringPlan plan() {
        if (!in_.said || !in_.missing.empty()) {
            p_.verdict = PlanVerdict::Marginal;
            return std::move(p_);
        }
        p_.between_axes_mm = between(in_.places.at);
        curves();
        if (in_.wheelbase_mm)
            for (const bool left : {true, false}) lock(left);
        for (std::size_t side = 0; side < 2; ++side) toe(side);
        perTurn();
        p_.searched = fmt::format(
            "The tie rods' inner ends were tried from {} mm lower to {} mm higher, every 5 mm and then each one beside the best, the toe set anew each time, where a wheel steers by more than 0.1°.",
            most_shift_mm, most_shift_mm);
        judged();
        return std::move(p_);
    }

private:
    Linkage linkage(std::size_t side, const std::vector<Vec3>& at) const { return linkageOf(in_.wheels[side].held, at); }

    /// Where the steering axis meets the road; without both joints under the wheel's centre.
    Vec3 axisOnRoad(std::size_t side, const std::vector<Vec3>& at) const {
        const SteeredWheel& w = in_.wheels[side];
        const Vec3 hub = at[w.held.left];
        const double road = hub.z_mm - in_.radius_mm;
        if (!w.upper || !w.lower) return {hub.x_mm, hub.y_mm, road};
        const Vec3 up = at[*w.upper], low = at[*w.lower];
        return geometry::along(low, up, (road - low.z_mm) / (up.z_mm - low.z_mm));
    }
    double between(const std::vector<Vec3>& at) const { return axisOnRoad(1, at).y_mm - axisOnRoad(0, at).y_mm; }

    /// Both wheels over all of the rack that both can follow.
    void curves() {
        std::array<std::vector<std::pair<double, double>>, 2> of; // rack, angle
        for (std::size_t side = 0; side < 2; ++side) {
            const Linkage l = linkage(side, in_.places.at);
            for (const double way : {-1.0, 1.0}) {
                std::vector<Asked> asked;
                for (double rack = way > 0 ? 0 : rack_step_mm; rack <= most_rack_mm; rack += rack_step_mm)
                    asked.push_back({0, 0, way * rack});
                double last = 0;
                for (const Stance& s : sweep(l, asked)) {
                    const double angle = steered(s);
                    // beyond its dead point a wheel turns back: nobody steers there
                    if (std::abs(s.asked.rack_mm) > rack_step_mm && std::abs(angle) <= std::abs(last) + 1e-6) break;
                    last = angle;
                    of[side].emplace_back(s.asked.rack_mm, angle);
                }
            }
            std::sort(of[side].begin(), of[side].end());
        }
        for (const auto& [rack, angle] : of[0])
            for (const auto& [other, right] : of[1])
                if (std::abs(rack - other) < 1e-9) p_.rows.push_back({rack, angle, right});
    }

    /// The rack at which the inner wheel stands at full lock; none: it never gets there.
    std::optional<double> rackAt(bool left) const {
        const auto inner = [&](const SteerRow& r) { return left ? r.left_rad : -r.right_rad; };
        for (std::size_t k = 0; k + 1 < p_.rows.size(); ++k) {
            const double a = inner(p_.rows[k]) - in_.lock_rad, b = inner(p_.rows[k + 1]) - in_.lock_rad;
            if (a * b > 0 || a == b) continue;
            return p_.rows[k].rack_mm + (p_.rows[k + 1].rack_mm - p_.rows[k].rack_mm) * a / (a - b);
        }
        return std::nullopt;
    }

    /// To which side the gear goes for that lock: −1 to the left, 1 to the right.
    std::optional<double> wayTo(bool left) const {
        if (p_.rows.size() < 2) return std::nullopt;
        const bool rises = p_.rows.back().left_rad > p_.rows.front().left_rad; // nose to the left as the rack goes right
        return rises == left ? 1.0 : -1.0;
    }
    struct Turned {
        double inner = 0, outer = 0, straight = 0;
        bool straight_left = false;
    };
    std::optional<Turned> turnedAt(double rack, bool left, const std::vector<Vec3>& at) const {
        Turned t;
        t.straight = std::numbers::pi;
        for (std::size_t side = 0; side < 2; ++side) {
            const SteeredWheel& w = in_.wheels[side];
            const auto s = sweep(linkage(side, at), {{0, 0, rack}});
            if (s.empty()) return std::nullopt;
            const double angle = left ? steered(s[0]) : -steered(s[0]);
            ((side == 0) == left ? t.inner : t.outer) = angle;
            // in plan, between the rod and the arm from the joint to the steering axis
            const Vec3 outer = s[0].moved.transformed(at[w.tie_out]);
            const Vec3 inner = geometry::plus(at[w.tie_in], w.held.rack.shift(rack));
            Vec3 pivot = w.lower ? at[*w.lower] : at[w.held.left];
            const Vec3 rod = geometry::minus(inner, outer), arm = geometry::minus(s[0].moved.transformed(pivot), outer);
            const double across = std::abs(rod.x_mm * arm.y_mm - rod.y_mm * arm.x_mm),
                         along = std::abs(rod.x_mm * arm.x_mm + rod.y_mm * arm.y_mm);
            if (const double left_over = std::atan2(across, along); left_over < t.straight) {
                t.straight = left_over;
                t.straight_left = side == 0;
            }
        }
        return t;
    }
    /// Of the tyre's middle: the axles' lines meet where the two front wheels' mean wants it.
    double circle(const Turned& t, bool left, double wheelbase, const std::vector<Vec3>& at) const {
        const double apart = between(at);
        const double about =
            (wheelbase / std::tan(t.inner) + apart / 2 + wheelbase / std::tan(t.outer) - apart / 2) / 2; // to the car's middle
        const std::size_t outer = left ? 1 : 0;
        const double scrub = std::abs(at[in_.wheels[outer].held.left].y_mm) - std::abs(axisOnRoad(outer, at).y_mm);
        return 2 * (std::hypot(wheelbase, about + apart / 2) + scrub);
    }

    void lock(bool left) {
        auto rack = rackAt(left);
        FullLock f;
        if (in_.gear && in_.gear->each_way_mm) {
            const double end = *in_.gear->each_way_mm;
            if (rack && std::abs(*rack) <= end) {
                f.over_mm = end - std::abs(*rack);
            } else if (const auto way = wayTo(left); way && std::abs(p_.rows[*way > 0 ? p_.rows.size() - 1 : 0].rack_mm) >= end) {
                rack = *way * end;
                f.by_gear = true;
            }
        }
        if (!rack) return;
        auto rest = turnedAt(*rack, left, in_.places.at);
        const auto beside = turnedAt(*rack + 0.5, left, in_.places.at);
        if (!rest || !beside || std::abs(beside->inner - rest->inner) < 1e-9) return;
        // both angles over the rack: the inner wheel stands at lock, and the outer one follows
        const double outer_per_inner = (beside->outer - rest->outer) / (beside->inner - rest->inner);
        if (!f.by_gear) {
            rack = *rack + 0.5 * (in_.lock_rad - rest->inner) / (beside->inner - rest->inner);
            rest = turnedAt(*rack, left, in_.places.at);
        }
        if (!rest) return;
        const std::vector<Vec3>& at = in_.places.at;
        std::vector<double> values, covariance = in_.places.covariance, steps;
        for (const Vec3& p : at)
            for (std::size_t axis = 0; axis < 3; ++axis) {
                values.push_back(p[axis]);
                steps.push_back(0.05);
            }
        const double wheelbase = *in_.wheelbase_mm;
        auto figures = build::figuresOf(values, covariance, steps, [&](const std::vector<double>& n) {
            std::vector<Vec3> moved(at.size());
            for (std::size_t k = 0; k < at.size(); ++k) moved[k] = {n[3 * k], n[3 * k + 1], n[3 * k + 2]};
            auto t = turnedAt(*rack, left, moved);
            if (!t) return std::vector<double>(5, 0);
            if (!f.by_gear) { // the stop is at the wheel
                t->outer -= outer_per_inner * (t->inner - rest->inner);
                t->inner = rest->inner;
            }
            const double ideal = ackermann(t->inner, between(moved), wheelbase);
            return std::vector<double>{t->inner, t->outer, ideal, t->outer - ideal, circle(*t, left, wheelbase, moved)};
        });
        if (f.by_gear) {                                                             // where it ends is taped, too
            const auto after = turnedAt(*rack - (*rack > 0 ? 0.5 : -0.5), left, at); // towards the middle
            if (!after) return;
            const double per[] = {
                2 * (after->inner - rest->inner), 2 * (after->outer - rest->outer),
                2 * (ackermann(after->inner, between(at), wheelbase) - ackermann(rest->inner, between(at), wheelbase)),
                2 * (after->outer - rest->outer - ackermann(after->inner, between(at), wheelbase) +
                     ackermann(rest->inner, between(at), wheelbase)),
                2 * (circle(*after, left, wheelbase, at) - circle(*rest, left, wheelbase, at))};
            for (std::size_t k = 0; k < 5; ++k)
                figures.figures[k].u95 = std::hypot(figures.figures[k].u95, per[k] * each_way_u95_mm);
        }
        f.left = left;
        f.rack_mm = *rack;
        f.inner_rad = figures.figures[0];
        f.outer_rad = figures.figures[1];
        f.ideal_rad = figures.figures[2];
        f.off_rad = figures.figures[3];
        f.circle_mm = figures.figures[4];
        if (in_.wheelbase_now_mm && std::abs(*in_.wheelbase_now_mm - wheelbase) > 0.5)
            f.circle_now_mm = circle(*rest, left, *in_.wheelbase_now_mm, at);
        f.straight_rad = rest->straight;
        f.straight_left = rest->straight_left;
        p_.locks.push_back(f);
    }

    /// Most that a wheel steers by itself near rest.
    std::optional<double> bumpSteer(std::size_t side, const std::vector<Vec3>& at) const {
        const Linkage l = linkage(side, at);
        double most = 0;
        for (const double way : {-1.0, 1.0}) {
            const auto all = sweep(l, {{0, 0, 0},
                                       {way * bump_range_mm / 2, way * bump_range_mm / 2, 0},
                                       {way * bump_range_mm, way * bump_range_mm, 0}});
            if (all.size() < 3) return std::nullopt;
            for (const Stance& s : all) most = std::max(most, std::abs(steered(s)));
        }
        return most;
    }
    void toe(std::size_t side) {
        const auto now = bumpSteer(side, in_.places.at);
        if (!now) return;
        ToeRemedy& r = p_.toe[side];
        r.before_rad = r.after_rad = *now;
        if (*now <= looked_for_rad) return; // nothing to be gained
        const auto attempt = [&](int shift) {
            std::vector<Vec3> at = in_.places.at;
            at[in_.wheels[side].tie_in].z_mm += shift;
            if (const auto then = bumpSteer(side, at); then && *then < r.after_rad - 1e-9) {
                r.after_rad = *then;
                r.up_mm = shift;
            }
        };
        for (int shift = -most_shift_mm; shift <= most_shift_mm; shift += 5) attempt(shift);
        const int best = static_cast<int>(r.up_mm);
        for (int shift = best - 4; shift <= best + 4; ++shift) attempt(shift);
        r.better = r.after_rad < 0.8 * r.before_rad;
    }

    void perTurn() {
        if (!in_.gear || !in_.gear->turns || !in_.gear->each_way_mm) return;
        const auto one = turnedAt(1, true, in_.places.at), other = turnedAt(-1, true, in_.places.at);
        if (!one || !other) return;
        const double per_mm = std::abs(one->inner + one->outer - other->inner - other->outer) / 4;
        p_.per_turn_rad = per_mm * 2 * *in_.gear->each_way_mm / *in_.gear->turns;
    }
    /// How far the gear goes against the lock that was said: the tyres' clearances were worked out to there.
    void geared() {
        for (const FullLock& f : p_.locks) {
            const char* way = f.left ? "left" : "right";
            if (f.over_mm && *f.over_mm > most_over_mm)
                add("steer-stops", PlanVerdict::Marginal,
                    fmt::format(
                        "To the {} the gear goes on {:.0f} mm after the {:.0f}° of lock that tyres and rods were looked at for.",
                        way, *f.over_mm, in_.lock_rad / one_degree),
                    "Stops at the wheels' knuckles that end the lock there, or say the lock that the gear gives: travel lock 36deg.")
                    .of(fmt::format("{:.0f} mm", *f.over_mm), fmt::format("≤ {:.0f} mm", most_over_mm));
            if (f.by_gear)
                add("steer-short", PlanVerdict::Marginal,
                    fmt::format("To the {} the gear ends at {:.1f}° of the inner wheel, not at the {:.0f}° that were said.", way,
                                f.inner_rad.value / one_degree, in_.lock_rad / one_degree),
                    fmt::format("The circle is worked out with that. Say the lock that it really has: travel lock {:.0f}deg.",
                                f.inner_rad.value / one_degree))
                    .of(fmt::format("{:.1f}°", f.inner_rad.value / one_degree),
                        fmt::format("{:.0f}°", in_.lock_rad / one_degree));
        }
    }

    Remark& add(const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }
    void judged() {
        for (const FullLock& f : p_.locks) {
            const char* way = f.left ? "left" : "right";
            if (const auto v = judge(f.off_rad, Limit::within(most_off_rad)); v != PlanVerdict::Holds)
                add("steer-ackermann", v,
                    fmt::format(
                        "At full lock to the {} the outer wheel turns {:.1f}° ± {:.1f}° {} than the circle wants: the tyres scrub.",
                        way, std::abs(f.off_rad.value) / one_degree, f.off_rad.u95 / one_degree,
                        f.off_rad.value > 0 ? "more" : "less"),
                    "Steering arms that point at the rear axle's middle, as long as the wheelbase as planned asks; arms are never bent or welded.")
                    .of(fmt::format("{:.1f}°", f.off_rad.value / one_degree),
                        fmt::format("within {:.0f}°", most_off_rad / one_degree));
            if (const auto v = f.straight_rad < 0.6 * least_straight_rad ? PlanVerdict::Fails : PlanVerdict::Marginal;
                f.straight_rad < least_straight_rad)
                add("steer-straight", v,
                    fmt::format(
                        "At full lock to the {} the {} tie rod and its arm stand within {:.0f}° of one line: beyond it the wheel flips over.",
                        way, f.straight_left ? "left" : "right", f.straight_rad / one_degree),
                    "A stop that ends the lock before, or another place of the rack.")
                    .of(fmt::format("{:.0f}°", f.straight_rad / one_degree),
                        fmt::format("≥ {:.0f}°", least_straight_rad / one_degree));
        }
        geared();
        if (in_.wheelbase_mm && p_.locks.size() < 2)
            add("steer-lock", PlanVerdict::Marginal,
                fmt::format("The wheels don't reach {:.0f}° {}: a rod comes to its end before.", in_.lock_rad / one_degree,
                            p_.locks.empty()   ? "to either side"
                            : p_.locks[0].left ? "to the right"
                                               : "to the left"),
                "Say the lock that it really has (travel lock …), or look at the tie rods' ends again.");
        for (std::size_t side = 0; side < 2; ++side) {
            const ToeRemedy& r = p_.toe[side];
            if (r.before_rad <= most_bump_rad || !r.better) continue;
            add("steer-bump", PlanVerdict::Marginal,
                fmt::format(
                    "The {} wheel steers by {:.2f}° within {:.0f} mm of rest; with its tie rod's inner end {:.0f} mm {} it would be {:.2f}°.",
                    side == 0 ? "left" : "right", r.before_rad / one_degree, bump_range_mm, std::abs(r.up_mm),
                    r.up_mm > 0 ? "higher" : "lower", r.after_rad / one_degree),
                "Move the rack or the relay, not the arm; then set the toe and look once more.");
        }
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const Remark& a, const Remark& b) { return a.verdict > b.verdict; });
        for (const Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
        if (!in_.assumed.empty() || !in_.wheelbase_mm) p_.verdict = std::max(p_.verdict, PlanVerdict::Marginal);
    }

    const SteeringIn& in_;
    SteeringPlan p_;
};

} // namespace

SteeringPlan steeringPlan(const SteeringIn& in) { return Steering(in).plan(); }

} // namespace gorvet::drive
