#include "drive/weights.hpp"

#include "drive/degree.hpp"
#include "drive/propagator.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

using build::judge;
using build::Limit;
using build::Provenance;
using build::Remark;
using build::SpringForm;
using geometry::RigidTransform;

namespace {

constexpr double gravity = 9.80665, shear_modulus_MPa = 79'000; // engineering.md, Stretch
/// Bars and springs are made to about a tenth of their rate.
constexpr double rate_share = 0.05;
/// ± of a spring's free length.
constexpr double free_u95_mm = 2;
/// Of the gap at a stop; rubber is made to about a fifth of its rate.
constexpr double stop_u95_mm = 2, stop_rate_share = 0.2;
/// Of what a wheel carries, so much goes through its spring.
constexpr double least_sprung = 0.5, most_sprung = 1;

/// The smallest turn that takes one direction to another, about a place.
RigidTransform turnTo(const Vec3& about, const Vec3& from, const Vec3& to) {
    using namespace geometry;
    const Vec3 a = unit(from), b = unit(to), axis = cross(a, b);
    const double c = dot(a, b);
    RigidTransform t;
    // Rodrigues, with 1/(1 + c) for (1 − c)/s²
    for (std::size_t row = 0; row < 3; ++row)
        for (std::size_t column = 0; column < 3; ++column) {
            double value = row == column ? c : 0;
            value += axis[row] * axis[column] / (1 + c);
            if (row != column) {
                const std::size_t third = 3 - row - column;
                value += ((row + 1) % 3 == column ? -1 : 1) * axis[third];
            }
            t.rotation[row][column] = value;
        }
    t.translation = minus(about, t.rotated(about));
    return t;
}

class WeightsMaker {
public:
    explicit WeightsMaker(const WeightsIn& in) : in_(in) {}

    WeightsPlan plan() {
        if (!in_.said) return std::move(p_);
        weighed();
        for (const SpringIn& s : in_.springs) spring(s);
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const Remark& a, const Remark& b) { return a.verdict > b.verdict; });
        for (const Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
        if (!in_.missing.empty() || !in_.assumed.empty()) p_.verdict = std::max(p_.verdict, PlanVerdict::Marginal);
        for (const SpringIn& s : in_.springs)
            if (!s.assumed.empty()) p_.verdict = std::max(p_.verdict, PlanVerdict::Marginal);
        return std::move(p_);
    }

private:
    using All = Propagator::All;
    static double sum(const All& n) { return n[0] + n[1] + n[2] + n[3]; }

    void weighed() {
        if (!std::all_of(in_.wheels.begin(), in_.wheels.end(), [](const auto& w) { return w.has_value(); })) return;
        Propagator n;
        for (const auto& w : in_.wheels) n.add(*w);
        const std::vector<std::size_t> scales{0, 1, 2, 3};
        p_.whole_kg = n.of(scales, sum);
        p_.front_share = n.of(scales, [](const All& v) { return (v[0] + v[1]) / sum(v); });
        p_.left_share = n.of(scales, [](const All& v) { return (v[0] + v[2]) / sum(v); });
        p_.cross_share = n.of(scales, [](const All& v) { return (v[1] + v[2]) / sum(v); });
        if (in_.wheelbase_mm) {
            const std::size_t base = n.add(*in_.wheelbase_mm);
            p_.cg_x_mm =
                n.of({0, 1, 2, 3, base}, [&](const All& v) { return in_.front_x_mm + v[base] * (v[2] + v[3]) / sum(v); });
            lifts(n, base);
        }
        if (in_.track_mm[0] && in_.track_mm[1]) {
            const std::size_t front = n.add(*in_.track_mm[0]), rear = n.add(*in_.track_mm[1]);
            p_.cg_y_mm = n.of({0, 1, 2, 3, front, rear},
                              [&](const All& v) { return ((v[1] - v[0]) * v[front] + (v[3] - v[2]) * v[rear]) / 2 / sum(v); });
        }
        if (p_.cross_share->value - p_.cross_share->u95 > 0.53 || p_.cross_share->value + p_.cross_share->u95 < 0.47)
            add("weight-cross", PlanVerdict::Marginal,
                fmt::format(
                    "The wheels carry {:.1f} % crosswise, front right and rear left: the car stands on two of its corners.",
                    100 * p_.cross_share->value),
                "Undo the anti-roll bars, roll the car, weigh again; then springs or seats of unlike height, or a bent frame.")
                .of(fmt::format("{:.1f} %", 100 * p_.cross_share->value), "47 to 53 %");
    }

    void lifts(Propagator& n, std::size_t base) {
        double weights = 0, mean = 0;
        std::vector<std::size_t> all{0, 1, 2, 3, base};
        const std::size_t front = n.add(in_.radius_mm[0]), rear = n.add(in_.radius_mm[1]);
        all.insert(all.end(), {front, rear});
        std::vector<std::function<double(const All&)>> heights;
        std::vector<double> shares;
        for (const LiftedIn& l : in_.lifted) {
            if (std::abs(l.up_mm) < 1 || std::abs(l.up_mm) > 0.9 * in_.wheelbase_mm->value) continue;
            const std::size_t scale = n.add(l.other_kg), up = n.add(l.up_mm, 3, Provenance::Measured);
            all.insert(all.end(), {scale, up});
            heights.emplace_back([=, front_lifted = l.front](const All& v) {
                const double level = front_lifted ? v[2] + v[3] : v[0] + v[1];
                // over the line through the wheels' centres, where the middle of the car's weight is along it
                const double share = (v[2] + v[3]) / sum(v);
                return v[front] + share * (v[rear] - v[front]) + cgOverCentres(sum(v), level, v[scale], v[base], v[up]);
            });
            const Figure each = n.of({0, 1, 2, 3, base, front, rear, scale, up}, heights.back());
            p_.cg_each_mm.push_back(each);
            shares.push_back(1 / std::pow(std::max(0.1, each.u95), 2));
            weights += shares.back();
            mean += shares.back() * each.value;
        }
        if (heights.empty()) return;
        p_.cg_z_mm = n.of(all, [&](const All& v) {
            double value = 0;
            for (std::size_t k = 0; k < heights.size(); ++k) value += shares[k] / weights * heights[k](v);
            return value;
        });
        mean /= weights;
        for (std::size_t k = 0; k < p_.cg_each_mm.size(); ++k)
            if (const Figure& f = p_.cg_each_mm[k]; heights.size() > 1 && std::abs(f.value - mean) > 1.5 * f.u95)
                add("weight-lifted", PlanVerdict::Marginal,
                    fmt::format("Lifted by {:.0f} mm the weight stands {:.0f} ± {:.0f} mm over the road, by all together {:.0f}.",
                                in_.lifted[k].up_mm, f.value, f.u95, mean),
                    "Weigh that once more: springs locked, brakes off, the wheels free to roll.");
        if (p_.cg_z_mm->u95 > 40)
            add("weight-height", PlanVerdict::Marginal,
                fmt::format("How high the weight stands is known to ± {:.0f} mm only.", p_.cg_z_mm->u95),
                "Lift one axle higher: half a metre and more, held by slings or on ramps that are made for it, nobody beneath.");
    }

    // ---- springs

    static std::size_t endOf(const SpringIn& s) { return s.spring.end == build::AxleEnd::Front ? 0 : 1; }
    static double lengthAt(const SpringIn& s, const std::vector<Vec3>& at, double up) {
        const auto foot = footAt(s, at, up);
        return foot ? geometry::between(at[*s.top], *foot) : std::nan("");
    }
    /// Of the places, and of what else counts.
    Figure ofPlaces(const SpringIn& s, const std::function<double(const std::vector<Vec3>&)>& f) const {
        std::vector<std::size_t> all(s.places.at.size());
        for (std::size_t k = 0; k < all.size(); ++k) all[k] = k;
        return build::figureOf(s.places, all, f);
    }
    static Figure measured(const std::optional<build::Dimension>& d, double u95) { return {d->value, u95, d->provenance}; }

    void spring(const SpringIn& s) {
        SpringPlan out;
        out.name = s.name;
        const build::Spring& row = s.spring;
        const bool twists = row.form == SpringForm::Torsion;
        constexpr double beside = 1; // mm each way
        if (twists)
            bar(row, out);
        else if (row.rate)
            out.rate = measured(row.rate, rate_share * row.rate->value);
        if (!twists && s.foot && s.top) {
            out.length_mm = ofPlaces(s, [&](const auto& at) { return lengthAt(s, at, 0); });
            out.per_wheel =
                ofPlaces(s, [&](const auto& at) { return (lengthAt(s, at, -beside) - lengthAt(s, at, beside)) / (2 * beside); });
            if (!std::isfinite(out.per_wheel->value)) out.per_wheel.reset();
        } else if (!twists) {
            out.per_wheel = Figure{1, 0, Provenance::Assumed};
        }
        const std::size_t first = 2 * endOf(s);
        std::optional<Figure> corner;
        if (in_.wheels[first] && in_.wheels[first + 1]) corner = 0.5 * (*in_.wheels[first] + *in_.wheels[first + 1]);
        if (corner && out.per_wheel && std::abs(out.per_wheel->value) > 0.05) {
            const Figure n = gravity * *corner;
            out.load_N =
                Figure{n.value / out.per_wheel->value,
                       std::hypot(n.u95 / out.per_wheel->value, n.value * out.per_wheel->u95 / std::pow(out.per_wheel->value, 2)),
                       build::worst(n.provenance, out.per_wheel->provenance)};
        }
        if (row.free && out.length_mm && out.rate)
            out.free_load_N = *out.rate * (measured(row.free, free_u95_mm) - *out.length_mm);
        loads(out);
        if (!twists && out.rate && out.per_wheel) {
            // dF/dz of F = k (free − l(z)) · −l'(z): the leverage that changes under load counts, too
            out.wheel_rate = *out.rate * (*out.per_wheel * *out.per_wheel);
            if (s.foot && s.top && out.load_N) {
                const auto& at = s.places.at;
                constexpr double wide = 5;
                const double bends = (lengthAt(s, at, wide) - 2 * lengthAt(s, at, 0) + lengthAt(s, at, -wide)) / (wide * wide);
                if (std::isfinite(bends)) out.wheel_rate->value -= out.load_N->value * bends;
            }
        }
        if (out.wheel_rate && corner && out.wheel_rate->value > 0) {
            const double f = std::sqrt(out.wheel_rate->value * 1000 / corner->value) / (2 * std::numbers::pi);
            out.hertz = Figure{f, f / 2 * std::hypot(out.wheel_rate->u95 / out.wheel_rate->value, corner->u95 / corner->value),
                               build::worst(out.wheel_rate->provenance, corner->provenance)};
        }
        if (row.higher && row.higher->value != 0) higher(s, out, corner);
        if (row.stop) stop(s, out, corner);
        p_.springs.push_back(std::move(out));
    }
    void bar(const build::Spring& row, SpringPlan& out) {
        if (!row.bar || !row.length || !row.arm) return;
        Propagator n;
        const std::size_t d = n.add(*row.bar, 0.1), i = n.add(row.inside ? measured(row.inside, 0.2) : Figure{}),
                          l = n.add(*row.length, 2), a = n.add(*row.arm, 2);
        out.rate = out.wheel_rate = n.of({d, i, l, a}, [&](const All& v) { return barRate(v[d], v[i], v[l]) / (v[a] * v[a]); });
    }

    /// A spring carries what the wheel stands on the scale with, less what is not sprung: never more, and hardly less than half.
    void loads(const SpringPlan& s) {
        if (!s.load_N || !s.free_load_N) return;
        const Figure share{s.free_load_N->value / s.load_N->value, s.free_load_N->u95 / s.load_N->value,
                           build::worst(s.load_N->provenance, s.free_load_N->provenance)};
        if (share.value - share.u95 <= most_sprung && share.value + share.u95 >= least_sprung) return;
        add("spring-load", PlanVerdict::Marginal,
            fmt::format(
                "By its free length a spring of the {} wheels carries {:.0f} ± {:.0f} N, by the scales {:.0f} N with all that is not sprung.",
                s.name, s.free_load_N->value, s.free_load_N->u95, s.load_N->value),
            "Its rate, its free length, or where it stands is another: measure them once more before a spring is ordered.")
            .of(fmt::format("{:.0f} N", s.free_load_N->value),
                fmt::format("{:.0f} to {:.0f} N", least_sprung * s.load_N->value, most_sprung * s.load_N->value));
    }

    /// From where the stop touches, its rate adds to the spring's.
    void stop(const SpringIn& s, SpringPlan& out, const std::optional<Figure>& corner) {
        const build::Spring& row = s.spring;
        const double by = row.higher ? row.higher->value : 0, bump = in_.bump_mm[endOf(s)] + by;
        SpringPlan::Stop stop;
        stop.free_mm = Figure{row.stop->value + by, stop_u95_mm, row.stop->provenance};
        if (out.wheel_rate && corner && corner->value > 0) {
            Propagator n;
            const std::size_t rate = n.add(*out.wheel_rate), kg = n.add(*corner), free = n.add(stop.free_mm);
            stop.touch_g = n.of([=](const All& v) { return 1 + v[rate] * v[free] / (gravity * v[kg]); });
            if (row.stop_rate && bump > stop.free_mm.value) {
                const std::size_t hard = n.add(measured(row.stop_rate, stop_rate_share * row.stop_rate->value));
                stop.most_g = n.of([=](const All& v) {
                    return 1 + (v[rate] * bump + v[hard] * std::max(0.0, bump - v[free])) / (gravity * v[kg]);
                });
            }
        }
        const Figure& f = stop.free_mm;
        if (f.value - f.u95 < least_stop_mm)
            add("spring-stop", judge(f, Limit::atLeast(least_stop_mm)),
                f.value <= 0 ? fmt::format("The {} wheels stand on their bump stops.", s.name)
                             : fmt::format("The {} wheels go up by {:.0f} ± {:.0f} mm only before their stops touch.", s.name,
                                           f.value, f.u95),
                "Shorter stops, if tyres and frame let the wheels up; a stiffer or longer spring; else leave it higher.")
                .of(fmt::format("{:.0f} mm", f.value), fmt::format("≥ {:.0f} mm", least_stop_mm));
        else if (f.value - f.u95 > bump)
            add("spring-idle", PlanVerdict::Marginal,
                fmt::format(
                    "The stops of the {} wheels touch after {:.0f} mm, and the wheels are taken to go up by {:.0f} only: something else ends their way.",
                    s.name, f.value, bump),
                "A taller stop, or the travel as it really is.")
                .of(fmt::format("{:.0f} mm", f.value), fmt::format("≤ {:.0f} mm", bump));
        out.stop = stop;
    }

    /// The wheel stands lower under the car by as much; its weight is the same.
    void higher(const SpringIn& s, SpringPlan& out, const std::optional<Figure>& corner) {
        SpringPlan::Higher h;
        const build::Spring& row = s.spring;
        h.by_mm = row.higher->value;
        h.droop_left_mm = in_.droop_mm[endOf(s)] - h.by_mm;
        h.bump_mm = in_.bump_mm[endOf(s)] + h.by_mm;
        if (row.form == SpringForm::Torsion) {
            if (row.arm) h.turn_rad = Figure{h.by_mm / row.arm->value, std::abs(h.by_mm) * 2 / std::pow(row.arm->value, 2)};
        } else if (s.foot && s.top && out.rate && corner) {
            constexpr double beside = 1;
            Propagator n;
            const std::size_t rate = n.add(*out.rate), kg = n.add(*corner);
            // of the places alone, then of rate and weight with them held
            const auto wanted = [&](const std::vector<Vec3>& at, double k, double m, double up) {
                const double per = (lengthAt(s, at, up - beside) - lengthAt(s, at, up + beside)) / (2 * beside);
                return lengthAt(s, at, up) + gravity * m / per / k;
            };
            const auto both = [&](const std::function<double(const std::vector<Vec3>&, double, double)>& f) {
                Figure a = ofPlaces(s, [&](const auto& at) { return f(at, out.rate->value, corner->value); });
                const Figure b = n.of({rate, kg}, [&](const All& v) { return f(s.places.at, v[rate], v[kg]); });
                return Figure{a.value, std::hypot(a.u95, b.u95), build::worst(b.provenance, out.per_wheel->provenance)};
            };
            h.free_mm = both([&](const auto& at, double k, double m) { return wanted(at, k, m, -h.by_mm); });
            h.spacer_mm =
                both([&](const auto& at, double k, double m) { return wanted(at, k, m, -h.by_mm) - wanted(at, k, m, 0); });
            if (!std::isfinite(h.free_mm->value)) {
                h.free_mm.reset();
                h.spacer_mm.reset();
            }
            if (row.free) {
                const double free = row.free->value;
                Figure need = both([&](const auto& at, double, double m) {
                    const double per = (lengthAt(s, at, -h.by_mm - beside) - lengthAt(s, at, -h.by_mm + beside)) / (2 * beside);
                    return gravity * m / per / (free - lengthAt(s, at, -h.by_mm));
                });
                // its free length is measured, too
                need.u95 = std::hypot(need.u95, need.value * free_u95_mm / (free - lengthAt(s, s.places.at, -h.by_mm)));
                if (row.free->provenance == Provenance::Assumed) need.provenance = Provenance::Assumed;
                if (std::isfinite(need.value) && need.value > 0) h.rate = need;
            }
        }
        if (const auto v = h.droop_left_mm < least_droop_mm / 2 ? PlanVerdict::Fails : PlanVerdict::Marginal;
            h.droop_left_mm < least_droop_mm)
            add("spring-droop", v,
                fmt::format("{:.0f} mm higher, the {} wheels go down by {:.0f} mm only before dampers or straps stop them.",
                            h.by_mm, s.name, h.droop_left_mm),
                "Longer dampers and straps; then look at the shafts' angles and the links' ends through the new travel.")
                .of(fmt::format("{:.0f} mm", h.droop_left_mm), fmt::format("≥ {:.0f} mm", least_droop_mm));
        if (const auto v = h.bump_mm < 20 ? PlanVerdict::Fails : PlanVerdict::Marginal; h.bump_mm < 40)
            add("spring-bump", v,
                fmt::format("{:.0f} mm lower, the {} wheels go up by {:.0f} mm only before the stops.", -h.by_mm, s.name,
                            h.bump_mm),
                "Shorter stops, if the tyres and the frame let them; else leave it higher.")
                .of(fmt::format("{:.0f} mm", h.bump_mm), "≥ 40 mm");
        out.higher = h;
    }

    Remark& add(const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }

    const WeightsIn& in_;
    WeightsPlan p_;
};

} // namespace

WeightsPlan weightsPlan(const WeightsIn& in) { return WeightsMaker(in).plan(); }

double cgOverCentres(double whole, double level, double lifted, double wheelbase, double up) {
    const double slope = std::abs(up) / std::sqrt(wheelbase * wheelbase - up * up);
    // let down, the other axle gets lighter
    return (up > 0 ? 1 : -1) * wheelbase * (lifted - level) / (whole * slope);
}

double barRate(double across, double inside, double length) {
    return std::numbers::pi * (std::pow(across, 4) - std::pow(inside, 4)) * shear_modulus_MPa / (32 * length);
}

std::optional<Vec3> footAt(const SpringIn& s, const std::vector<Vec3>& at, double up) {
    const Vec3 foot = at[*s.foot];
    if (!s.held) return geometry::plus(foot, {0, 0, up});
    const auto all = sweep(linkageOf(*s.held, at), {{up, up, 0}});
    if (all.empty()) return std::nullopt;
    if (s.on.empty()) return all[0].moved.transformed(foot);
    // a wishbone turns about the line of its pivots, a rod about its end
    const Vec3 outer = at[s.on.back()], pivot = at[s.on.front()];
    const Vec3 now = all[0].moved.transformed(outer);
    if (s.on.size() < 3) return turnTo(pivot, geometry::minus(outer, pivot), geometry::minus(now, pivot)).transformed(foot);
    const Vec3 axis = geometry::unit(geometry::minus(at[s.on[1]], pivot));
    const auto across = [&](const Vec3& p) {
        const Vec3 from = geometry::minus(p, pivot);
        return geometry::minus(from, geometry::times(axis, geometry::dot(from, axis)));
    };
    return turnTo(pivot, across(outer), across(now)).transformed(foot);
}

} // namespace gorvet::drive
