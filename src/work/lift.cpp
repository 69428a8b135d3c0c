#include "work/lift.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::work {

namespace {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::unit;
/// a + f b.
Vec3 plus(const Vec3& a, const Vec3& b, double f) { return geometry::plus(a, geometry::times(b, f)); }
double size(const Vec3& a) { return geometry::length(a); }

/// A leg is as good as taut where it lacks less than it stretches.
constexpr double stretch = 0.005;
constexpr double preferred_rad = 45 * std::numbers::pi / 180;
constexpr double squeezes_rad = 30 * std::numbers::pi / 180; ///< it pulls its point sideways with half of what it carries
constexpr double most_rad = 60 * std::numbers::pi / 180;
constexpr double level_rad = 3 * std::numbers::pi / 180;

/// The two places that lie so far from three points; none where the spheres do not meet.
std::vector<Vec3> trilaterated(const SlingLeg& a, const SlingLeg& b, const SlingLeg& c) {
    const Vec3 ab = minus(b.point, a.point), ac = minus(c.point, a.point);
    const double d = size(ab);
    if (d < 1) return {};
    const Vec3 ex = unit(ab);
    const double i = dot(ex, ac);
    const Vec3 across = plus(ac, ex, -i);
    const double j = size(across);
    if (j < 1) return {}; // on one line: nothing holds it from swinging about that
    const Vec3 ey = unit(across), ez = cross(ex, ey);
    const double x = (a.length_mm * a.length_mm - b.length_mm * b.length_mm + d * d) / (2 * d);
    const double y = (a.length_mm * a.length_mm - c.length_mm * c.length_mm + i * i + j * j - 2 * i * x) / (2 * j);
    const double zz = a.length_mm * a.length_mm - x * x - y * y;
    if (zz < 0) return {};
    const Vec3 foot = plus(plus(a.point, ex, x), ey, y);
    const double z = std::sqrt(zz);
    return {plus(foot, ez, z), plus(foot, ez, -z)};
}

/// The place in the plane of two points and the centre, on its far side from the centre; two legs hang so that all is in that
/// plane.
std::vector<Vec3> onTwoLegs(const SlingLeg& a, const SlingLeg& b, const Vec3& centre) {
    const Vec3 ab = minus(b.point, a.point);
    const double d = size(ab);
    if (d < 1) return {};
    const Vec3 ex = unit(ab);
    const double x = (a.length_mm * a.length_mm - b.length_mm * b.length_mm + d * d) / (2 * d);
    const double hh = a.length_mm * a.length_mm - x * x;
    if (hh <= 0) return {};
    const Vec3 foot = plus(a.point, ex, x);
    Vec3 off = minus(foot, centre);
    off = plus(off, ex, -dot(off, ex));
    // a centre on the line of the points can turn about it as it likes: upright is as good as any
    const Vec3 away = size(off) > 1 ? unit(off) : unit(plus({0, 0, 1}, ex, -ex.z_mm));
    return {plus(foot, away, std::sqrt(hh)), plus(foot, away, -std::sqrt(hh))};
}

/// Pulls along three directions (or two) that carry `load`; nothing where one would have to push.
std::optional<std::vector<double>> pulls(const std::vector<Vec3>& along, const Vec3& load) {
    constexpr double least = -1e-9;
    if (along.size() == 3) {
        const double det = dot(along[0], cross(along[1], along[2]));
        if (std::abs(det) < 1e-9) return std::nullopt;
        std::vector<double> t = {dot(load, cross(along[1], along[2])) / det, dot(along[0], cross(load, along[2])) / det,
                                 dot(along[0], cross(along[1], load)) / det};
        for (double& v : t) {
            if (v < least * size(load)) return std::nullopt;
            v = std::max(0.0, v);
        }
        return t;
    }
    const double aa = dot(along[0], along[0]), bb = dot(along[1], along[1]), ab = dot(along[0], along[1]);
    const double det = aa * bb - ab * ab;
    if (det < 1e-12) return std::nullopt;
    const double la = dot(load, along[0]), lb = dot(load, along[1]);
    std::vector<double> t = {(la * bb - lb * ab) / det, (lb * aa - la * ab) / det};
    const Vec3 left = plus(plus(load, along[0], -t[0]), along[1], -t[1]);
    if (size(left) > 1e-3 * size(load) || t[0] < least || t[1] < least) return std::nullopt;
    return t;
}

/// How it hangs, apart from verdicts.
struct Hung {
    Vec3 hook;
    Vec3 up;
    std::vector<bool> taut;
    std::vector<double> load_kg; ///< all that can carry do, as evenly as balance allows
    std::vector<double> most_kg;
};

std::vector<std::vector<size_t>> subsets(const std::vector<size_t>& of, size_t n) {
    std::vector<std::vector<size_t>> all;
    for (unsigned bits = 0; bits < (1U << of.size()); ++bits) {
        std::vector<size_t> one;
        for (size_t k = 0; k < of.size(); ++k)
            if (bits & (1U << k)) one.push_back(of[k]);
        if (one.size() == n) all.push_back(std::move(one));
    }
    return all;
}

/// Whether a place of the hook is in balance, and what the legs carry there.
std::optional<Hung> balancedAt(const LiftInput& in, const Vec3& hook) {
    Hung h;
    h.hook = hook;
    h.up = unit(minus(hook, in.centre));
    h.taut.assign(in.legs.size(), false);
    h.load_kg.assign(in.legs.size(), 0);
    h.most_kg.assign(in.legs.size(), 0);
    std::vector<size_t> taut;
    for (size_t k = 0; k < in.legs.size(); ++k) {
        const double away = size(minus(hook, in.legs[k].point));
        if (away > in.legs[k].length_mm * (1 + stretch)) return std::nullopt; // it does not reach so far
        if (away >= in.legs[k].length_mm * (1 - stretch)) taut.push_back(k);
    }
    std::vector<Vec3> along(in.legs.size());
    for (size_t k = 0; k < in.legs.size(); ++k) along[k] = unit(minus(hook, in.legs[k].point));
    const Vec3 load = plus({}, h.up, in.mass_kg);
    // every way in which two or three of them carry it alone: what really happens lies between these
    int ways = 0;
    for (const size_t n : {size_t{2}, size_t{3}})
        for (const auto& some : subsets(taut, n)) {
            std::vector<Vec3> directions;
            for (const size_t k : some) directions.push_back(along[k]);
            const auto t = pulls(directions, load);
            if (!t) continue;
            ++ways;
            for (size_t k = 0; k < some.size(); ++k) {
                h.load_kg[some[k]] += (*t)[k];
                h.most_kg[some[k]] = std::max(h.most_kg[some[k]], (*t)[k]);
            }
        }
    if (!ways) return std::nullopt;
    for (size_t k = 0; k < in.legs.size(); ++k) {
        h.load_kg[k] /= ways;
        h.taut[k] = h.load_kg[k] > 1e-6 * in.mass_kg;
    }
    return h;
}

/// The way it hangs that is nearest to upright.
std::optional<Hung> hung(const LiftInput& in) {
    std::vector<Vec3> places;
    std::vector<size_t> all(in.legs.size());
    for (size_t k = 0; k < all.size(); ++k) all[k] = k;
    for (const auto& three : subsets(all, 3))
        for (const Vec3& p : trilaterated(in.legs[three[0]], in.legs[three[1]], in.legs[three[2]])) places.push_back(p);
    for (const auto& two : subsets(all, 2))
        for (const Vec3& p : onTwoLegs(in.legs[two[0]], in.legs[two[1]], in.centre)) places.push_back(p);
    std::optional<Hung> best;
    for (const Vec3& p : places)
        if (auto h = balancedAt(in, p); h && (!best || h->up.z_mm > best->up.z_mm + 1e-9)) best = std::move(h);
    return best;
}

double tiltOf(const Hung& h) { return std::atan2(std::hypot(h.up.x_mm, h.up.y_mm), h.up.z_mm); }

class Judge {
public:
    Judge(const LiftInput& in, LiftPlan& p) : in_(in), p_(p) {}

    void all(const Hung& h) {
        if (h.up.z_mm <= 0)
            say(LiftVerdict::Fails, "The hook would hang below the centre of gravity: it turns over.",
                "Longer legs, or higher points.");
        if (!p_.steady)
            say(LiftVerdict::Fails,
                "Within the ± of its centre of gravity there are places at which it does not hang in balance: it may turn over.",
                "Longer legs, higher points, or the centre of gravity from corner weights.");
        legs();
        tilt();
        if (in_.mass_u95_kg <= 0)
            say(LiftVerdict::Marginal, "The mass is not weighed: no ± is said.", "Weigh it, or take more than it can be.");
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const LiftRemark& a, const LiftRemark& b) { return a.verdict > b.verdict; });
        p_.verdict = p_.remarks.empty() ? LiftVerdict::Holds : p_.remarks.front().verdict;
    }

private:
    void say(LiftVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({v, std::move(sentence), std::move(remedy)});
    }

    void legs() {
        const double heavier = (in_.mass_kg + in_.mass_u95_kg) / in_.mass_kg;
        for (size_t k = 0; k < p_.legs.size(); ++k) {
            const LegLoad& l = p_.legs[k];
            const double degrees = l.slope_rad * 180 / std::numbers::pi;
            if (!l.slack && l.slope_rad > most_rad + 1e-9)
                say(LiftVerdict::Fails,
                    fmt::format("The leg {} slopes {:.0f}° from the upright: 60° is the most.", l.name, degrees),
                    "Longer legs, or a spreader.");
            else if (!l.slack && l.slope_rad > preferred_rad + 1e-9)
                say(LiftVerdict::Marginal,
                    fmt::format("The leg {} slopes {:.0f}° from the upright: 45° is the most that is preferred.", l.name,
                                degrees),
                    "Longer legs, or a spreader.");
            if (!l.slack && !in_.spreader && l.slope_rad > squeezes_rad + 1e-9)
                say(LiftVerdict::Marginal,
                    fmt::format("The leg {} pulls its point inward with {:.0f} kg, and no spreader holds the points apart.",
                                l.name, l.squeeze_kg),
                    "A spreader, or brace the shell between the points first.");
            const SlingLeg& leg = in_.legs[k];
            if (leg.rated_kg <= 0)
                say(LiftVerdict::Marginal, fmt::format("What the leg {} may carry is not said.", l.name), "Read its label.");
            else if (l.most_kg * heavier > leg.rated_kg)
                say(LiftVerdict::Fails,
                    fmt::format("The leg {} may have to carry {:.0f} kg, and is rated for {:.0f}.", l.name, l.most_kg * heavier,
                                leg.rated_kg),
                    "A stronger sling: of four legs two may carry all.");
            if (!leg.sound)
                say(LiftVerdict::Marginal, fmt::format("The leg {} was not looked at.", l.name),
                    "Look for cuts, chafed edges, melted places and a label that can be read; without one it is not used.");
        }
    }
    void tilt() {
        const double degrees = 180 / std::numbers::pi;
        if (p_.tilt_rad + p_.tilt_u95_rad > level_rad)
            say(p_.tilt_rad > 3 * level_rad ? LiftVerdict::Fails : LiftVerdict::Marginal,
                fmt::format("It hangs {:.1f}° ± {:.1f}° out of level.", p_.tilt_rad * degrees, p_.tilt_u95_rad * degrees),
                p_.ballast_kg
                    ? fmt::format(
                          "Move the hook over the centre of gravity by the legs' lengths, or tie {:.0f} kg on at station {:.0f}, offset {:.0f}.",
                          *p_.ballast_kg, p_.ballast_at.x_mm, p_.ballast_at.y_mm)
                    : "Move the hook over the centre of gravity by the legs' lengths.");
    }

    const LiftInput& in_;
    LiftPlan& p_;
};

/// What is to be tied on, at the farthest point opposite, so that it hangs level: the hook stays where the legs put it.
void addBallast(const LiftInput& in, LiftPlan& p) {
    const Vec3 off{p.hook.x_mm - in.centre.x_mm, p.hook.y_mm - in.centre.y_mm, 0};
    const double d = size(off);
    if (d < 1) return;
    const Vec3 way = unit(off);
    double reach = 0;
    for (const SlingLeg& l : in.legs) reach = std::max(reach, dot(minus(l.point, p.hook), way));
    if (reach < 1) return;
    p.ballast_at = plus({p.hook.x_mm, p.hook.y_mm, in.centre.z_mm}, way, reach);
    p.ballast_kg = in.mass_kg * d / reach;
}

} // namespace

LiftPlan hang(const LiftInput& in) {
    LiftPlan p;
    if (in.legs.size() < 2 || in.legs.size() > 4 || in.mass_kg <= 0) {
        p.why_not = "Two, three or four legs and a mass are needed.";
        return p;
    }
    for (const SlingLeg& l : in.legs)
        if (l.length_mm <= 0) {
            p.why_not = fmt::format("The leg {} has no length.", l.name);
            return p;
        }
    const auto h = hung(in);
    if (!h) {
        p.why_not =
            "No place of the hook is in balance: the legs are too short to meet, or the centre of gravity lies outside of their points.";
        p.remarks.push_back({LiftVerdict::Fails, p.why_not, "Longer legs, or points on both sides of the centre of gravity."});
        return p;
    }
    p.hangs = true;
    p.hook = h->hook;
    p.height_mm = size(minus(h->hook, in.centre));
    p.tilt_rad = tiltOf(*h);
    p.nose_down_rad = std::atan2(h->up.x_mm, h->up.z_mm);
    p.left_down_rad = std::atan2(h->up.y_mm, h->up.z_mm);
    // how far the tilt itself moves; of what hangs level by how far it leans any way
    double along_tilt = 0, any_way = 0;
    std::vector<double> more(in.legs.size(), 0); // what a leg may carry more, squares
    for (std::size_t axis = 0; axis < 3; ++axis) {
        const double by = in.centre_u95[axis];
        if (by <= 0) continue;
        std::vector<double> most = h->most_kg;
        for (const double sign : {1.0, -1.0}) {
            LiftInput other = in;
            other.centre[axis] += sign * by;
            const auto moved = hung(other);
            if (!moved || moved->up.z_mm <= 0) {
                p.steady = false;
                continue;
            }
            for (std::size_t k = 0; k < most.size(); ++k) most[k] = std::max(most[k], moved->most_kg[k]);
            if (sign < 0) continue;
            const Vec3 change = minus(moved->up, h->up);
            any_way += dot(change, change);
            along_tilt += std::pow(tiltOf(*moved) - p.tilt_rad, 2);
        }
        for (std::size_t k = 0; k < more.size(); ++k) more[k] += std::pow(most[k] - h->most_kg[k], 2);
    }
    const double squares = p.tilt_rad > std::sqrt(any_way) ? along_tilt : any_way;
    p.tilt_u95_rad = std::sqrt(squares);
    for (size_t k = 0; k < in.legs.size(); ++k) {
        LegLoad l;
        l.name = in.legs[k].name;
        l.slope_rad = std::acos(std::clamp(dot(unit(minus(h->hook, in.legs[k].point)), h->up), -1.0, 1.0));
        l.load_kg = h->load_kg[k];
        l.most_kg = h->most_kg[k] + std::sqrt(more[k]);
        l.squeeze_kg = l.most_kg * std::sin(l.slope_rad);
        l.slack = !h->taut[k];
        p.legs.push_back(std::move(l));
    }
    addBallast(in, p);
    Judge(in, p).all(*h);
    return p;
}

TwoSupports onTwo(double mass_kg, double x_mm, double span_mm) {
    const double second = span_mm != 0 ? mass_kg * x_mm / span_mm : 0;
    return {mass_kg - second, second};
}

} // namespace gorvet::work
