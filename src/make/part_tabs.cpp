// Tabs with one hole, and the plates that U-bolts go through.
#include "make/part_maker.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::make {

using namespace geometry;

namespace {

class TabMaker : PartMaker {
public:
    using PartMaker::PartMaker;

    /// A strip on its foot, round about its hole.
    PartPlan tab() {
        const double t = f("sheet"), hole = f("hole"), wide = f("wide");
        const Vec3 out = minus(at(0), at(1));
        const double high = length(out), round = wide / 2;
        p_.size_mm = between(0, 1);
        p_.size_of = "from foot to hole";
        if (high < round + t || wide < 2 * hole) {
            add("part-outline", PlanVerdict::Fails,
                wide < 2 * hole
                    ? fmt::format("A strip of {:g} is too narrow for a hole of {:g}.", wide, hole)
                    : fmt::format("Its hole is {:.0f} mm off its foot: a strip of {:g} wants {:.0f}.", high, wide, round + t),
                "Its first place is the hole's middle, its second the middle of its foot on the face.");
            return done();
        }
        const Vec3 y = unit(out), through = acrossCar(y), x = cross(y, through);
        FlatPiece piece;
        piece.name = in_.name;
        piece.thickness_mm = t;
        piece.outline = {{-round, 0}, {round, 0}};
        constexpr int steps = 24;
        for (int k = 0; k <= steps; ++k) {
            const double phi = std::numbers::pi * k / steps;
            piece.outline.emplace_back(round * std::cos(phi), high + round * std::sin(phi));
        }
        piece.holes = {{{0, high}, hole, "bolt"}};
        piece.places = {{minus(at(1), times(through, t / 2)), x, y}};
        p_.flats.push_back(std::move(piece));
        bolt(plus(at(0), times(through, t / 2)), through, t, hole);
        p_.seams.push_back({"its foot, both sides", 2 * wide, std::min(t, most_leg_mm), t, at(1), true});
        if (p_.bolts.back().captive) p_.seams.push_back({"its nut", std::numbers::pi * 1.6 * hole, 3, t, at(0), false});
        if (!loaded()) {
            skip("what it carries: say the most that pulls at its hole, load 800");
            return done();
        }
        // pulled the worst way, across its face: a beam that stands on its foot
        const double load = f("load"), yield = in_.yield_mpa;
        bears("part-stress", load * high / (wide * t * t / 6), yield / yield_margin,
              "Pulled across its face, its foot stands under", "A thicker or wider strip, or a gusset beside it.");
        bears("part-stress", load / ((wide - hole) * t), yield / yield_margin, "Beside its hole it is pulled by",
              "A wider strip.");
        weldBears(load * high / (wide * t), std::min(t, most_leg_mm), "the weld of its foot"); // two lines, t apart
        wallBears(PlateFeet{at(1), faceAt(at(1), times(y, -1)).normal, x, wide, t, 1, 0, "its foot"},
                  {load, load * high, load * high});
        return done();
    }

    /// Under or over an axle: a hole for each leg of two U-bolts, and one in its middle.
    PartPlan uBoltPlate() {
        const double t = f("sheet"), tube = f("tube"), wide = f("wide"), thread = f("bolt"), edge = or_("edge", 1.5 * thread);
        constexpr double room_mm = 1; // of a hole over its bolt
        const Vec3 ahead = minus(at(1), at(0));
        p_.size_mm = between(0, 1);
        p_.size_of = "along the spring, as marked";
        if (length(ahead) < 1 || std::abs(unit(ahead).z_mm) > 0.8) {
            add("part-outline", PlanVerdict::Fails, "Its two places do not lie along a spring.",
                "Its first place is the middle of the seat, its second a place along the spring.");
            return done();
        }
        const Vec3 x = unit(ahead), y = acrossCar(x);
        const double along = (tube + thread) / 2, across = (wide + thread) / 2;
        FlatPiece piece;
        piece.name = in_.name;
        piece.thickness_mm = t;
        const double a = along + thread / 2 + edge, b = across + thread / 2 + edge;
        piece.outline = {{-a, -b}, {a, -b}, {a, b}, {-a, b}};
        for (const double i : {-1.0, 1.0})
            for (const double j : {-1.0, 1.0}) piece.holes.push_back({{i * along, j * across}, thread + room_mm, "bolt"});
        if (has("centre")) piece.holes.push_back({{0, 0}, f("centre"), "centre bolt"});
        const Vec3 z = cross(x, y);
        piece.places = {{at(0), x, z.z_mm < 0 ? times(y, -1) : y}};
        p_.flats.push_back(std::move(piece));
        p_.bolted_on = false; // by U-bolts, which are not looked at as bolts
        skip("whether its U-bolts come out");
        if (!loaded()) {
            skip("what it carries: say the pull of one leg of a U-bolt, load 20000");
            return done();
        }
        // between the bolts of each side it is a beam on the axle's middle line, both sides pulled
        const double load = f("load"), moment = 2 * load * along;
        const double less = has("centre") ? f("centre") : 0;
        bears("part-stress", moment / ((2 * b - less) * t * t / 6), in_.yield_mpa / yield_margin, "Over its middle it is bent by",
              "A thicker plate, or a rib along it.");
        return done();
    }

private:
    /// Square to a direction, across the car as near as it can be.
    static Vec3 acrossCar(const Vec3& y) {
        Vec3 through = minus({0, 1, 0}, times(y, y.y_mm));
        if (length(through) < 0.2) through = minus({1, 0, 0}, times(y, y.x_mm));
        return unit(through);
    }
};

} // namespace

PartPlan tabPlan(const PartIn& in) { return TabMaker(in).tab(); }
PartPlan uBoltPlatePlan(const PartIn& in) { return TabMaker(in).uBoltPlate(); }

} // namespace gorvet::make
