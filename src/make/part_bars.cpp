// Braces: tubes and boxes from place to place, sawn or coped.
#include "make/crossmember.hpp"
#include "make/part_maker.hpp"

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

namespace {

/// Area and the least moment of a hollow section; a box's corners as bought: 2 t outside.
struct BarSection {
    double area = 0, least_mm4 = 0;
};
BarSection sectionOf(const BarPiece& b) {
    const double pi = std::numbers::pi, t = b.wall_mm;
    if (b.round) {
        const double inside = b.height_mm - 2 * t;
        return {pi / 4 * (b.height_mm * b.height_mm - inside * inside),
                pi / 64 * (std::pow(b.height_mm, 4) - std::pow(inside, 4))};
    }
    const double w = b.width_mm, h = b.height_mm;
    const double level = (w * h * h * h - (w - 2 * t) * std::pow(h - 2 * t, 3)) / 12,
                 upright = (h * w * w * w - (h - 2 * t) * std::pow(w - 2 * t, 3)) / 12;
    return {boxArea(h, w, t), std::min(level, upright)};
}

/// A direction square to the bar that points up where it can.
Vec3 upOf(const Vec3& along) {
    const Vec3 up = minus({0, 0, 1}, times(along, along.z_mm));
    return geometry::length(up) > 0.05 ? unit(up) : unit(minus({1, 0, 0}, times(along, along.x_mm)));
}

class BarMaker : PartMaker {
public:
    using PartMaker::PartMaker;

    PartPlan brace() {
        BarPiece bar = section();
        if (!fits(bar)) return done();
        for (std::size_t end = 0; end < 2; ++end) {
            const Vec3 out = times(along_, end == 0 ? -1 : 1);
            const Face face = faceAt(at(end), out);
            BarEnd& e = bar.ends[end];
            e.point = at(end);
            e.normal = face.normal;
            e.saw_rad = std::acos(std::clamp(std::abs(dot(face.normal, along_)), 0.0, 1.0));
            e.kind = e.saw_rad > 0.0015 ? BarEnd::Kind::Saw : BarEnd::Kind::Square; // under a tenth of a degree nobody saws
            const Vec3 slants = minus(face.normal, times(along_, dot(face.normal, along_)));
            if (e.kind == BarEnd::Kind::Saw) e.turned_rad = turned(bar, times(slants, -1));
            if (!face.of_rail)
                skip(fmt::format("what its {} meets: no rail is there, and it is cut square",
                                 end == 0 ? "first end" : "other end"));
            if (e.saw_rad > most_saw_rad)
                add("part-saw", PlanVerdict::Fails,
                    fmt::format("Its {} is cut {:.0f}° off square: no saw turns so far.", end == 0 ? "first end" : "other end",
                                e.saw_rad * 180 / std::numbers::pi),
                    "Set it more across what it meets, or end it in a plate.");
        }
        double most[2] = {0, 0}; // tips beyond the middle
        for (const Vec3& corner : corners(bar))
            for (std::size_t end = 0; end < 2; ++end) {
                const BarEnd& e = bar.ends[end];
                const double through = dot(e.normal, times(along_, end == 0 ? -1 : 1));
                if (std::abs(through) > 1e-6) most[end] = std::max(most[end], -dot(e.normal, corner) / through);
            }
        const BarSection s = sectionOf(bar);
        bar.length_mm = between(0, 1);
        bar.mass_kg = steelMass(s.area * bar.length_mm.value);
        p_.size_mm = bar.length_mm;
        p_.size_of = "between its faces";
        bar.length_mm.value += most[0] + most[1];
        const double round = bar.round ? std::numbers::pi * bar.height_mm : 2 * (bar.height_mm + bar.width_mm);
        seams(bar, round);
        pushed(bar, s, round);
        skip("the walls that its ends are welded to");
        p_.bars.push_back(std::move(bar));
        return done();
    }

    PartPlan coped() {
        BarPiece bar = section();
        bar.round = true;
        bar.width_mm = 0;
        if (!fits(bar)) return done();
        const double whole = geometry::between(at(0), at(1));
        double least[2] = {0, 0}, mean[2] = {0, 0};
        for (std::size_t end = 0; end < 2; ++end) {
            BarEnd& e = bar.ends[end];
            const Vec3 inwards = times(along_, end == 0 ? 1 : -1);
            Vec3 main = unit(minus(at(end + 2), at(end)));
            if (dot(main, inwards) < 0) main = times(main, -1); // the acute side
            Cope c{bar.height_mm, bar.wall_mm, f(end == 0 ? "onto" : "onto-far"),
                   std::acos(std::clamp(dot(main, inwards), 0.0, 1.0)), 0};
            e.kind = BarEnd::Kind::Cope;
            e.point = at(end);
            e.normal = main;
            e.cope = c;
            e.turned_rad = turned(bar, minus(main, times(along_, dot(main, along_))));
            const auto curve = copeCurve(c, cope_steps);
            if (!curve) {
                add("part-cope", PlanVerdict::Fails, curve.error().message, curve.error().remedy);
                return done();
            }
            least[end] = *std::min_element(curve->begin(), curve->end());
            mean[end] = meanOf(c);
        }
        const Figure middle = between(0, 1);
        bar.length_mm = {middle.value - least[0] - least[1], middle.u95, middle.provenance};
        if (bar.length_mm.value < bar.height_mm) {
            add("part-short", PlanVerdict::Fails,
                fmt::format("Between the two tubes {:.0f} mm are left for it: too little to be coped.", bar.length_mm.value),
                "A plate between them instead.");
            return done();
        }
        p_.size_mm = middle;
        p_.size_of = "from middle to middle";
        const BarSection s = sectionOf(bar);
        bar.mass_kg = steelMass(s.area * (whole - mean[0] - mean[1]));
        const double round = std::numbers::pi * bar.height_mm; // a cope's saddle is longer: on the safe side
        seams(bar, round);
        pushed(bar, s, round);
        skip("what it meets: the wall of the other tubes");
        p_.bars.push_back(std::move(bar));
        return done();
    }

private:
    static constexpr int cope_steps = 360;

    BarPiece section() {
        BarPiece bar;
        bar.name = in_.name;
        bar.height_mm = f("across");
        bar.wall_mm = f("wall");
        bar.round = !has("wide");
        bar.width_mm = or_("wide", 0);
        bar.from = at(0);
        bar.to = at(1);
        along_ = unit(minus(at(1), at(0)));
        bar.up = upOf(along_);
        return bar;
    }
    bool fits(const BarPiece& b) {
        const double side = b.round ? b.height_mm : std::min(b.height_mm, b.width_mm);
        if (2 * b.wall_mm < side && geometry::between(b.from, b.to) > 1) return true;
        add("part-outline", PlanVerdict::Fails,
            2 * b.wall_mm < side ? std::string("Its two places are one.")
                                 : fmt::format("A wall of {:g} mm does not fit into {:g}.", b.wall_mm, side),
            "The outside comes first, the wall after it; and its places where it begins and ends.");
        return false;
    }
    double turned(const BarPiece& bar, const Vec3& direction) const {
        return std::atan2(dot(direction, cross(along_, bar.up)), dot(direction, bar.up));
    }
    /// Of its outside, from its middle.
    std::vector<Vec3> corners(const BarPiece& bar) const {
        const Vec3 side = cross(along_, bar.up);
        std::vector<Vec3> all;
        if (!bar.round)
            for (const double a : {-1.0, 1.0})
                for (const double b : {-1.0, 1.0})
                    all.push_back(plus(times(bar.up, a * bar.height_mm / 2), times(side, b * bar.width_mm / 2)));
        else
            for (int k = 0; k < cope_steps; ++k) {
                const double phi = 2 * std::numbers::pi * k / cope_steps, r = bar.height_mm / 2;
                all.push_back(plus(times(bar.up, r * std::cos(phi)), times(side, r * std::sin(phi))));
            }
        return all;
    }
    /// Of a tube that follows the other's outside through its whole wall: by area, Simpson over the wall.
    static double meanOf(const Cope& c) {
        const double outer = c.branch_mm / 2, inner = outer - c.wall_mm, big = c.main_mm / 2;
        double sum = 0, area = 0;
        for (const auto& [r, weight] : {std::pair{inner, 1.0}, std::pair{(inner + outer) / 2, 4.0}, std::pair{outer, 1.0}})
            for (int k = 0; k < cope_steps; ++k) {
                const double phi = 2 * std::numbers::pi * k / cope_steps, aside = r * std::sin(phi) + c.offset_mm;
                const double x =
                    (std::sqrt(std::max(0.0, big * big - aside * aside)) + r * std::cos(phi) * std::cos(c.angle_rad)) /
                    std::sin(c.angle_rad);
                sum += weight * r * x;
                area += weight * r;
            }
        return sum / area;
    }
    void seams(const BarPiece& bar, double round) {
        for (std::size_t end = 0; end < 2; ++end)
            p_.seams.push_back({end == 0 ? "its first end, all round" : "its other end, all round", round, bar.wall_mm,
                                bar.wall_mm, at(end), true});
    }
    /// Rankine: what crushes it and what buckles it (hinged at both ends), together.
    void pushed(const BarPiece& bar, const BarSection& s, double round) {
        if (!loaded()) return skip("what it carries: say the most that pushes along it, load 5000");
        const double load = f("load"), length = geometry::between(bar.from, bar.to);
        struts(load, s.area, s.least_mm4, length, fmt::format("A wider tube: it is {:.0f} mm long.", length));
        weldBears(load / round, bar.wall_mm, "the weld round its end");
    }

    Vec3 along_;
};

} // namespace

PartPlan bracePlan(const PartIn& in) { return BarMaker(in).brace(); }
PartPlan copedTubePlan(const PartIn& in) { return BarMaker(in).coped(); }

} // namespace gorvet::make
