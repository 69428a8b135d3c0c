// Flat parts: gussets, ears, plates with holes.
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

constexpr double flat_mm = 1; ///< that a plate may be pulled flat by its bolts
constexpr double least_corner_rad = 0.35, most_corner_rad = 2.8;

class PlateMaker : PartMaker {
public:
    using PartMaker::PartMaker;

    PartPlan gusset() {
        const Vec3 one = minus(at(1), at(0)), other = minus(at(2), at(0));
        const double a = geometry::length(one), b = geometry::length(other), cut = f("cut-back"), nose = f("nose"),
                     t = f("sheet");
        const Vec3 x = unit(one), square = minus(other, times(x, dot(other, x))), y = unit(square);
        const double corner = std::atan2(geometry::length(square), dot(other, x));
        const Figure size = between(1, 2);
        p_.size_mm = size;
        p_.size_of = "between its legs' ends";
        if (a < 2 * cut + 1 || b < 2 * cut + 1 || corner < least_corner_rad || corner > most_corner_rad) {
            add("part-outline", PlanVerdict::Fails,
                corner < least_corner_rad || corner > most_corner_rad
                    ? fmt::format("Its corner opens by {:.0f}°: no gusset stands in it.", corner * 180 / std::numbers::pi)
                    : fmt::format("A corner cut back by {:g} leaves nothing of a leg of {:.0f} mm.", cut, std::min(a, b)),
                "Its first place is the corner, the two others the ends of its legs.");
            return done();
        }
        const double c = std::cos(corner), s = std::sin(corner);
        const auto leg = [&](double along, double off) { // on the other leg, and so far off it to the inside
            return geometry::Flat{along * c + off * s, along * s - off * c};
        };
        FlatPiece piece;
        piece.name = in_.name;
        piece.thickness_mm = t;
        piece.outline = {{cut, 0}, {a, 0}};
        if (nose > 0) piece.outline.emplace_back(a, nose);
        if (nose > 0) piece.outline.push_back(leg(b, nose));
        piece.outline.push_back(leg(b, 0));
        if (cut > 0) piece.outline.push_back(leg(cut, 0));
        if (cut <= 0) piece.outline.front() = {0, 0};
        // half its thickness to each side of its places
        piece.places = {{minus(at(0), times(cross(x, y), t / 2)), x, y}};
        p_.flats.push_back(std::move(piece));
        p_.seams.push_back(
            {"its one leg, both sides", 2 * (a - cut), std::min(t, most_leg_mm), t, geometry::along(at(0), at(1), 0.5), true});
        p_.seams.push_back(
            {"its other leg, both sides", 2 * (b - cut), std::min(t, most_leg_mm), t, geometry::along(at(0), at(2), 0.5), true});
        skip("what it carries");
        return done();
    }

    PartPlan ears() {
        const double t = f("sheet"), hole = f("hole"), edge = or_("edge", 1.75 * hole), foot = f("foot"), apart = f("apart");
        const Vec3 out = minus(at(0), at(1));
        const double high = geometry::length(out);
        p_.size_mm = between(0, 1);
        p_.size_of = "from face to bolt";
        if (high < edge) {
            add("part-outline", PlanVerdict::Fails,
                fmt::format("The bolt is {:.0f} mm off the face: nearer than the edge of {:.0f}.", high, edge),
                "Its first place is the bolt's middle, its second the middle of the feet on the face.");
            return done();
        }
        const Vec3 y = unit(out);
        // the bolt lies across the car, as near as the face allows
        Vec3 bolt_along = minus({0, 1, 0}, times(y, y.y_mm));
        if (geometry::length(bolt_along) < 0.2) bolt_along = minus({1, 0, 0}, times(y, y.x_mm));
        bolt_along = unit(bolt_along);
        const Vec3 x = cross(y, bolt_along);
        FlatPiece piece;
        piece.name = "ear";
        piece.count = 2;
        piece.thickness_mm = t;
        piece.outline = earOutline(foot / 2, high, edge);
        piece.holes.push_back({{0, high}, hole, "bolt"});
        for (const double side : {-1.0, 1.0}) {
            const double from = side < 0 ? -apart / 2 - t : apart / 2; // x × y is the bolt's direction
            piece.places.push_back({plus(at(1), times(cross(x, y), from)), x, y});
        }
        p_.flats.push_back(std::move(piece));
        bolt(plus(at(0), times(bolt_along, apart / 2 + t)), bolt_along, t, hole);
        p_.bolts.back().grip_mm = apart + 2 * t; // the eye of what hangs there fills them
        p_.bolts.back().grip_known = true;
        p_.seams.push_back({"the foot of each, both sides", 4 * foot, std::min(t, most_leg_mm), t, at(1), true});
        if (!loaded()) {
            skip("what it carries: say the most that pulls at its bolt, load 8000");
            return done();
        }
        const double each = f("load") / 2, d = hole, yield = in_.yield_mpa;
        const std::string thicker = "Thicker ears, or more steel round the hole.";
        bears("part-stress", each / (d * t), 1.5 * yield / yield_margin, "The bolt presses on its hole with", thicker);
        bears("part-stress", each / (2 * (edge - d / 2) * t), base_share * yield, "Behind the bolt each ear is sheared by",
              thicker);
        bears("part-stress", each / ((2 * edge - d) * t), yield / yield_margin, "Beside the bolt each ear is pulled by", thicker);
        // pulled along the face, the worst way: each ear is a beam that stands on its foot
        bears("part-stress", each * high / (t * foot * foot / 6), yield / yield_margin,
              "Pulled along the face, each foot stands under", "A longer foot, thicker ears, or the bolt nearer to the face.");
        const double line = foot * foot / 3; // two fillets as lines
        weldBears(std::hypot(each * high / line, each / (2 * foot)), std::min(t, most_leg_mm), "the weld of its feet");
        // pulled any way in their plane: off the face, or along it at the worst
        wallBears(PlateFeet{at(1), faceAt(at(1), times(y, -1)).normal, x, foot, t, 2, apart, "its feet"},
                  {f("load"), f("load") * high, 0});
        return done();
    }

    PartPlan drilledPlate() {
        const double t = f("sheet"), hole = f("hole"), edge = or_("edge", 2 * hole);
        std::vector<Vec3> places;
        for (std::size_t k = 0; k < in_.at.size(); ++k) places.push_back(at(k));
        const geometry::Plane plane = geometry::planeOf(places);
        Vec3 x = minus(places[1], places[0]);
        x = unit(minus(x, times(plane.normal, dot(plane.normal, x))));
        Vec3 y = cross(plane.normal, x);
        if (y.z_mm < -1e-9) y = times(y, -1); // up where it can, seen from outside
        const Vec3 z = cross(x, y);
        FlatPiece piece;
        piece.name = in_.name;
        piece.thickness_mm = t;
        std::vector<geometry::Flat> middles;
        for (const Vec3& p : places) {
            middles.emplace_back(dot(x, minus(p, places[0])), dot(y, minus(p, places[0])));
            piece.holes.push_back({middles.back(), hole, "bolt"});
        }
        piece.outline = geometry::hullRound(middles, edge);
        const double lift = dot(z, minus(plane.middle, places[0]));
        piece.places = {{plus(places[0], times(z, lift)), x, y}};
        p_.flats.push_back(std::move(piece));
        p_.bolted_on = true;
        for (const geometry::Flat& m : middles) // what it lies on is behind it; a rail, on whichever side that is
            bolt(plus(plus(p_.flats.back().places[0].origin, times(z, t)), plus(times(x, m.first), times(y, m.second))), z, t,
                 hole);
        if (const Vec3 in_front = plus(p_.bolts[0].head, z);
            inRail(in_front) && !inRail(minus(p_.bolts[0].head, times(z, t + 1)))) {
            p_.bolts.clear();
            for (const geometry::Flat& m : middles)
                bolt(plus(p_.flats.back().places[0].origin, plus(times(x, m.first), times(y, m.second))), times(z, -1), t, hole);
        }
        pattern(hole, plane.normal);
        for (std::size_t i = 0; i < middles.size(); ++i)
            for (std::size_t j = 0; j < i; ++j)
                if (const double apart = std::hypot(middles[i].first - middles[j].first, middles[i].second - middles[j].second);
                    apart < 2 * hole)
                    add("part-close", PlanVerdict::Fails,
                        fmt::format("Two of its holes are {:.0f} mm apart, less than two holes.", apart),
                        "Look at both marks again.");
        skip("what it carries");
        return done();
    }

private:
    /// Round the bolt, and straight down to the ends of the foot.
    static geometry::Outline earOutline(double half, double high, double edge) {
        geometry::Outline o{{-half, 0}, {half, 0}};
        // a tangent from a foot's end to the circle
        const double away = std::hypot(half, high), opens = std::acos(std::clamp(edge / away, 0.0, 1.0));
        // seen from the circle's middle: towards the right foot, and turned back from there
        const double toward = std::atan2(-high, half), from = toward + opens;
        const double until = std::numbers::pi - from;
        constexpr int steps = 40;
        for (int k = 0; k <= steps; ++k) {
            const double phi = from + (until - from) * k / steps;
            o.emplace_back(edge * std::cos(phi), high + edge * std::sin(phi));
        }
        return o;
    }

    /// Out of one plane, and how well the holes are known against the room that they have.
    void pattern(double hole, const Vec3& normal) {
        std::vector<std::size_t> all = in_.at;
        Figure flat{0, 0, build::Provenance::Derived};
        for (std::size_t k = 0; k < all.size(); ++k) { // each to its side: a size has no slope at nothing
            const Figure off = build::figureOf(in_.places, all, [&](const std::vector<Vec3>& moved) {
                std::vector<Vec3> some;
                for (const std::size_t i : all) some.push_back(moved[i]);
                const geometry::Plane p = geometry::planeOf(some);
                const double value = dot(p.normal, minus(moved[all[k]], p.middle));
                return dot(p.normal, normal) < 0 ? -value : value;
            });
            flat.value = std::max(flat.value, std::abs(off.value));
            flat.u95 = std::max(flat.u95, off.u95);
        }
        if (const auto v = build::judge(flat, build::Limit::atMost(flat_mm)); all.size() > 3 && v != PlanVerdict::Holds)
            add("part-flat", v, fmt::format("Its places stand {:.1f} ± {:.1f} mm out of one plane.", flat.value, flat.u95),
                "Shim what stands back, or measure them once more.")
                .of(fmt::format("{:.1f} mm", flat.value), fmt::format("≤ {:g} mm", flat_mm));
        Figure widest;
        for (std::size_t i = 0; i < all.size(); ++i)
            for (std::size_t j = 0; j < i; ++j)
                if (const Figure apart = between(j, i); apart.value > widest.value) widest = apart;
        p_.size_mm = widest;
        p_.size_of = "farthest holes";
        const double room = hole / 10; // of a medium hole over its bolt
        if (widest.u95 > room)
            add("part-pattern", PlanVerdict::Marginal,
                fmt::format("Its holes are known to ± {:.1f} mm across, and bolts have about {:.1f} mm of room.", widest.u95,
                            room),
                "Drill one, bolt it on, and spot the others through what it holds.")
                .of(fmt::format("± {:.1f} mm", widest.u95), fmt::format("± {:.1f} mm", room));
    }
};

} // namespace

PartPlan gussetPlan(const PartIn& in) { return PlateMaker(in).gusset(); }
PartPlan earsPlan(const PartIn& in) { return PlateMaker(in).ears(); }
PartPlan drilledPlatePlan(const PartIn& in) { return PlateMaker(in).drilledPlate(); }

} // namespace gorvet::make
