#include "drive/travel.hpp"

#include "drive/degree.hpp"
#include "drive/line_parts.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

using build::Remark;

namespace {

constexpr double most_steer_rad = 0.3 * one_degree; ///< of one wheel within 30 mm of rest, each way: workshop practice
constexpr double near_rest_mm = 30;
constexpr double most_roll_steer = 0.1;              ///< rad/rad out of the bend
constexpr double most_rod_end_rad = 15 * one_degree; ///< of a rod end without misalignment spacers
constexpr double least_turn = 1e-7;                  ///< rad per mm: slower, and it counts as not turning

double slopeAgainst(const Stance& s) { return std::atan2(-s.moved.rotation[2].x_mm, s.moved.rotation[0].x_mm); }
double steerAgainst(const Stance& s) { return std::atan2(s.moved.rotation[1].x_mm, s.moved.rotation[0].x_mm); }
double leanAgainst(const Stance& s) { return std::atan2(s.moved.rotation[1].z_mm, s.moved.rotation[2].z_mm); }

/// The places of the linkage as they are, and where the tyre stands on the road.
struct Ground {
    Vec3 middle;  ///< between the wheels
    Vec3 contact; ///< below it, or below the one wheel
};
Ground groundOf(const TravelIn& in, const std::vector<Vec3>& at) {
    Ground g;
    g.middle = geometry::along(at[in.held.left], at[in.held.right], 0.5);
    g.contact = g.middle;
    g.contact.z_mm -= in.radius_mm;
    return g;
}

/// All figures that carry a ±, in one list.
enum Place { RollCentre, CentreX, CentreZ, AntiSquat, RollSteer, Bump, Droop, LeanBump, Caster, figures_count };

std::vector<double> figuresAt(const TravelIn& in, const std::vector<Vec3>& at) {
    std::vector<double> out(figures_count, 0.0);
    const Linkage l = linkageOf(in.held, at);
    const auto rest = sweep(l, {{0, 0, 0}});
    if (rest.empty()) return out;
    const Ground g = groundOf(in, at);
    const Motion &heave = rest[0].in_heave, &roll = rest[0].in_roll;
    const Vec3 ref = rest[0].reference, contact = motionAt(heave, ref, g.contact);
    if (in.axle()) {
        // where nothing of it goes aside as it rolls
        out[RollCentre] = ref.z_mm + roll.shift.y_mm / roll.turn.x_mm - g.contact.z_mm;
        if (std::abs(heave.turn.y_mm) > least_turn) {
            out[CentreX] = ref.x_mm + heave.shift.z_mm / heave.turn.y_mm;
            out[CentreZ] = ref.z_mm - heave.shift.x_mm / heave.turn.y_mm;
        }
        if (in.wheelbase_mm && in.cg_mm) out[AntiSquat] = contact.x_mm / contact.z_mm * *in.wheelbase_mm / *in.cg_mm;
        out[RollSteer] = roll.turn.z_mm / roll.turn.x_mm;
    } else {
        // the contact goes across the line to its centre; that line meets the middle of the car
        out[RollCentre] = g.contact.y_mm * contact.y_mm / contact.z_mm;
    }
    const double side = g.contact.y_mm < 0 ? 1 : -1; // a left wheel's nose to the right is toe in
    const auto ends = [&](double up) { return sweep(l, {{up, up, 0}}); };
    if (const auto s = ends(in.held.bump_mm); !s.empty()) {
        out[Bump] = in.axle() ? slopeAgainst(s[0]) : -side * steerAgainst(s[0]);
        out[LeanBump] = side * leanAgainst(s[0]);
    }
    if (const auto s = ends(-in.held.droop_mm); !s.empty())
        out[Droop] = in.axle() ? slopeAgainst(s[0]) : -side * steerAgainst(s[0]);
    if (in.upper && in.lower)
        out[Caster] = std::atan2(at[*in.upper].x_mm - at[*in.lower].x_mm, at[*in.upper].z_mm - at[*in.lower].z_mm);
    return out;
}

void figures(const TravelIn& in, TravelPlan& p) {
    const std::size_t n = in.places.at.size();
    std::vector<double> values;
    for (const Vec3& at : in.places.at)
        for (std::size_t axis = 0; axis < 3; ++axis) values.push_back(at[axis]);
    const build::Propagated all =
        build::figuresOf(values, in.places.covariance, std::vector<double>(3 * n, 0.02), [&](const std::vector<double>& moved) {
            std::vector<Vec3> at(n);
            for (std::size_t k = 0; k < n; ++k) at[k] = {moved[3 * k], moved[3 * k + 1], moved[3 * k + 2]};
            return figuresAt(in, at);
        });
    const auto& f = all.figures;
    p.roll_centre_mm = f[RollCentre];
    if (f[CentreX].value != 0 || f[CentreZ].value != 0) {
        p.centre_x_mm = f[CentreX];
        p.centre_z_mm = f[CentreZ];
    }
    if (in.axle() && in.wheelbase_mm && in.cg_mm && !in.front) p.anti_squat = f[AntiSquat];
    p.steer_per_roll = f[RollSteer];
    p.bump_rad = f[Bump];
    p.droop_rad = f[Droop];
    p.lean_bump_rad = f[LeanBump];
    if (in.upper && in.lower) p.caster_rad = f[Caster];
}

TravelRow rowOf(const TravelIn& in, const Ground& g, const Stance& s) {
    TravelRow row;
    row.up_mm = s.asked.left_mm;
    row.slope_rad = slopeAgainst(s);
    row.steer_rad = steerAgainst(s);
    row.lean_rad = leanAgainst(s);
    row.back_mm = s.reference.x_mm - g.middle.x_mm;
    const Vec3 probe = in.axle() ? g.middle : g.contact;
    row.aside_mm = s.moved.transformed(probe).y_mm - probe.y_mm;
    return row;
}

void through(const TravelIn& in, TravelPlan& p) {
    const Linkage l = linkageOf(in.held, in.places.at);
    const Ground g = groundOf(in, in.places.at);
    constexpr int parts = 10;
    std::vector<Asked> down, up;
    for (int k = 1; k <= parts; ++k) {
        down.push_back({-in.held.droop_mm * k / parts, -in.held.droop_mm * k / parts, 0});
        up.push_back({in.held.bump_mm * k / parts, in.held.bump_mm * k / parts, 0});
    }
    const auto below = sweep(l, down), above = sweep(l, up), rest = sweep(l, {{0, 0, 0}});
    const auto bend =
        [&](const Stance& s) { // of rods with an eye at each end; ball joints and the pivots of arms turn by their make
            for (const Rod& rod : l.rods) {
                if (rod.leg || rod.racked) continue;
                const RodAngles a = rodAngles(l, rod, s);
                if (const double most = std::max(a.at_frame_rad, a.at_body_rad); most > p.most_rod_rad) {
                    p.most_rod_rad = most;
                    p.most_rod = rod.name;
                }
            }
        };
    const auto take = [&](const Stance& s) {
        p.rows.push_back(rowOf(in, g, s));
        p.strain_mm = std::max(p.strain_mm, s.strain_mm);
        bend(s);
    };
    for (auto s = below.rbegin(); s != below.rend(); ++s) take(*s);
    for (const Stance& s : rest) take(s);
    for (const Stance& s : above) take(s);
    if (static_cast<int>(below.size()) < parts || static_cast<int>(above.size()) < parts) {
        const bool drooped = static_cast<int>(below.size()) < parts;
        p.remarks.push_back({"locks", PlanVerdict::Fails,
                             fmt::format("The links of the {} lock before full {}.", in.name, drooped ? "droop" : "bump"),
                             "Measure their points once more, or shorten the travel.", "", ""});
    }
    if (!l.right) return;
    const double half = (l.right->y_mm - l.left.y_mm) / 2;
    for (int k = -4; k <= 4; ++k) {
        const double up_mm = half * std::tan(k * one_degree);
        const auto s = sweep(l, {{-up_mm, up_mm, 0}});
        if (s.empty()) continue;
        p.rolls.push_back(
            {k * one_degree, steerAgainst(s[0]), s[0].moved.transformed(g.middle).y_mm - g.middle.y_mm, slopeAgainst(s[0])});
        p.strain_mm = std::max(p.strain_mm, s[0].strain_mm);
        bend(s[0]);
    }
}

std::string degrees(double rad) { return fmt::format("{:.2f}°", rad / one_degree); }

void judgeTravel(const TravelIn& in, TravelPlan& p) {
    const auto add = [&](const char* code, std::string sentence, std::string remedy, std::string figure, std::string need) {
        p.remarks.push_back(Remark{code, PlanVerdict::Marginal, std::move(sentence), std::move(remedy), "", ""}.of(
            std::move(figure), std::move(need)));
    };
    if (in.axle()) {
        const double into = in.front ? -p.steer_per_roll.value : p.steer_per_roll.value;
        if (into < -most_roll_steer)
            add("roll-steer",
                fmt::format("The {} steers out of the bend as the body leans: by {:.2f}° a degree.", in.name, -into),
                in.front ? "Level its links, or raise their ends on the frame less."
                         : "Set the lower links' front ends lower, or level them.",
                fmt::format("{:.2f} ± {:.2f}", into, p.steer_per_roll.u95), fmt::format("≥ {:g}", -most_roll_steer));
    } else {
        double most = 0;
        for (const TravelRow& row : p.rows)
            if (std::abs(row.up_mm) <= near_rest_mm + 1) most = std::max(most, std::abs(row.steer_rad));
        if (most > most_steer_rad)
            add("bump-steer",
                fmt::format("The {} steers by itself: {} within {:g} mm of rest.", in.name, degrees(most), near_rest_mm),
                "Move an end of the tie rod up or down until its curve lies flat: the inner end by shims under the box or rack, or the outer on its arm.",
                degrees(most), "≤ " + degrees(most_steer_rad));
    }
    if (p.most_rod_rad > most_rod_end_rad)
        add("rod-end",
            fmt::format("An end of {} is bent {} out of the plane in which its bolts let it swing.", p.most_rod,
                        degrees(p.most_rod_rad)),
            "A plain rod end binds at about 15°: one with misalignment spacers, a rubber bush, or a longer rod.",
            degrees(p.most_rod_rad), "≤ " + degrees(most_rod_end_rad));
    for (const Remark& r : p.remarks) p.verdict = std::max(p.verdict, r.verdict);
    if (!in.assumed.empty()) p.verdict = std::max(p.verdict, PlanVerdict::Marginal);
}

} // namespace

TravelPlan travelPlan(const TravelIn& in) {
    TravelPlan p;
    p.name = in.name;
    if (!in.missing.empty()) {
        p.verdict = PlanVerdict::Marginal;
        return p;
    }
    std::string why;
    for (const Motion& m : freedoms(linkageOf(in.held, in.places.at))) why += (why.empty() ? "" : " and ") + freedomWords(m);
    if (!why.empty()) {
        p.remarks.push_back({"links-loose", PlanVerdict::Marginal,
                             fmt::format("The {} can still {}: nothing that is said of it holds it there.", in.name, why),
                             "Say the links that are missing: link NAME rear-axle rod …", "", ""});
        p.verdict = PlanVerdict::Marginal;
        return p;
    }
    figures(in, p);
    through(in, p);
    judgeTravel(in, p);
    return p;
}

} // namespace gorvet::drive
