#include "make/bar_maker.hpp"

#include "make/crossmember.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;

BarSection sectionOf(const BarPiece& b) {
    const double pi = std::numbers::pi, t = b.wall_mm;
    if (b.round) {
        const double inside = b.height_mm - 2 * t, fourth = pi / 64 * (std::pow(b.height_mm, 4) - std::pow(inside, 4));
        return {pi / 4 * (b.height_mm * b.height_mm - inside * inside), fourth, fourth / (b.height_mm / 2)};
    }
    const double w = b.width_mm, h = b.height_mm;
    const double level = (w * h * h * h - (w - 2 * t) * std::pow(h - 2 * t, 3)) / 12,
                 upright = (h * w * w * w - (h - 2 * t) * std::pow(w - 2 * t, 3)) / 12;
    return {boxArea(h, w, t), std::min(level, upright), level / (h / 2)};
}

Vec3 upOf(const Vec3& along) {
    const Vec3 up = minus({0, 0, 1}, times(along, along.z_mm));
    return geometry::length(up) > 0.05 ? unit(up) : unit(minus({1, 0, 0}, times(along, along.x_mm)));
}

namespace {

Vec3 alongOf(const BarPiece& b) { return unit(minus(b.to, b.from)); }

/// Of its outside, from its middle.
std::vector<Vec3> cornersOf(const BarPiece& b, int steps) {
    const Vec3 side = cross(alongOf(b), b.up);
    std::vector<Vec3> all;
    if (!b.round)
        for (const double a : {-1.0, 1.0})
            for (const double c : {-1.0, 1.0})
                all.push_back(plus(times(b.up, a * b.height_mm / 2), times(side, c * b.width_mm / 2)));
    else
        for (int k = 0; k < steps; ++k) {
            const double phi = 2 * std::numbers::pi * k / steps, r = b.height_mm / 2;
            all.push_back(plus(times(b.up, r * std::cos(phi)), times(side, r * std::sin(phi))));
        }
    return all;
}

} // namespace

BarPiece BarMaker::barBetween(std::string name, const Vec3& from, const Vec3& to) const {
    BarPiece bar;
    bar.name = std::move(name);
    bar.height_mm = f("across");
    bar.wall_mm = f("wall");
    bar.round = !has("wide");
    bar.width_mm = or_("wide", 0);
    bar.from = from;
    bar.to = to;
    if (geometry::between(from, to) > 0) bar.up = upOf(alongOf(bar));
    return bar;
}

bool BarMaker::fits(const BarPiece& b) {
    const double side = b.round ? b.height_mm : std::min(b.height_mm, b.width_mm);
    if (2 * b.wall_mm < side && geometry::between(b.from, b.to) > 1) return true;
    add("part-outline", PlanVerdict::Fails,
        2 * b.wall_mm < side ? std::string("Its two places are one.")
                             : fmt::format("A wall of {:g} mm does not fit into {:g}.", b.wall_mm, side),
        "The outside comes first, the wall after it; and its places where it begins and ends.");
    return false;
}

void BarMaker::cutEnd(BarPiece& bar, std::size_t end, const Vec3& point, const Vec3& normal, const std::string& which) {
    const Vec3 along = alongOf(bar);
    BarEnd& e = bar.ends[end];
    e.point = point;
    e.normal = normal;
    e.saw_rad = std::acos(std::clamp(std::abs(dot(normal, along)), 0.0, 1.0));
    e.kind = e.saw_rad > 0.0015 ? BarEnd::Kind::Saw : BarEnd::Kind::Square; // under a tenth of a degree nobody saws
    const Vec3 slants = minus(normal, times(along, dot(normal, along)));
    if (e.kind == BarEnd::Kind::Saw) e.turned_rad = turned(bar, times(slants, -1));
    if (e.saw_rad > most_saw_rad)
        add("part-saw", PlanVerdict::Fails,
            fmt::format("{} is cut {:.0f}° off square: no saw turns so far.", which, e.saw_rad * 180 / std::numbers::pi),
            "Set it more across what it meets, or end it in a plate.");
}

double BarMaker::turned(const BarPiece& bar, const Vec3& direction) {
    return std::atan2(dot(direction, cross(alongOf(bar), bar.up)), dot(direction, bar.up));
}

double BarMaker::tips(const BarPiece& bar) {
    const Vec3 along = alongOf(bar);
    double most[2] = {0, 0};
    for (const Vec3& corner : cornersOf(bar, rim_steps))
        for (std::size_t end = 0; end < 2; ++end) {
            const BarEnd& e = bar.ends[end];
            const double through = dot(e.normal, times(along, end == 0 ? -1 : 1));
            if (std::abs(through) > 1e-6) most[end] = std::max(most[end], -dot(e.normal, corner) / through);
        }
    return most[0] + most[1];
}

double BarMaker::roundOf(const BarPiece& bar) {
    return bar.round ? std::numbers::pi * bar.height_mm : 2 * (bar.height_mm + bar.width_mm);
}

void BarMaker::weigh(BarPiece& bar) const { bar.mass_kg = steelMass(sectionOf(bar).area * geometry::between(bar.from, bar.to)); }

void BarMaker::fromOriginal(BarPiece& bar, double original) {
    bar.at_hand = true;
    if (const double lacks = bar.length_mm.value + bar.length_mm.u95 - original; lacks > 0)
        add("part-original", bar.length_mm.value > original ? PlanVerdict::Fails : PlanVerdict::Marginal,
            fmt::format("{} wants {:.0f} ± {:.0f} mm of an original leg of {:.0f}.", bar.name, bar.length_mm.value,
                        bar.length_mm.u95, original),
            "A wider opening, middle rails that are longer, or a new leg.")
            .of(fmt::format("{:.0f} mm", original), fmt::format("≥ {:.0f} mm", bar.length_mm.value + bar.length_mm.u95));
}

} // namespace gorvet::make
