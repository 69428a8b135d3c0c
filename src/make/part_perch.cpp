// What something stands on: perches on a rail's side, spring seats on an axle, shims.
#include "make/part_maker.hpp"

#include <algorithm>
#include <array>
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

constexpr int disc_steps = 64;

class PerchMaker : PartMaker {
public:
    using PartMaker::PartMaker;

    /// A top with a hole on two webs that stand out from a rail's side.
    PartPlan perch() {
        const double t = f("sheet"), hole = f("hole"), wide = f("wide"), deep = f("deep"), edge = or_("edge", 1.75 * hole),
                     tilt = or_("tilt", 0), nose = or_("nose", 15);
        p_.size_mm = between(0, 1);
        p_.size_of = "from its hole to the place on the rail";
        const Vec3 from_face = minus(at(0), at(1));
        const Face face = faceAt(at(1), times({from_face.x_mm, from_face.y_mm, 0}, -1));
        Vec3 out = times(face.normal, -1);
        if (!face.of_rail) skip("the face that it stands on: no rail is there, and it is taken as upright");
        if (std::abs(out.z_mm) > 0.3)
            return refuse("The face that it stands on is not upright.", "A standoff stands on a rail's top.");
        const Vec3 along = unit(cross({0, 0, 1}, out)), up = cross(out, along);
        const double reach = dot(from_face, out), slope = std::tan(tilt), u = reach / std::cos(tilt);
        // its top's edge at the rail: cut square through, so that the edge that comes first touches
        const double until = u + edge, first = std::max(0.0, t * slope);
        const double web_out = until * std::cos(tilt) - std::max(0.0, t * std::sin(tilt)), under = t / std::cos(tilt);
        // heights over the hole's, of the underside of its top, along `out`
        const auto below_top = [&](double o) { return (reach - o) * slope - under; };
        const double root = below_top(0), end = below_top(web_out);
        if (u - first < hole / 2 + t || wide < 2 * (hole / 2 + t) || deep < nose + 5 || web_out < 20)
            return refuse(
                fmt::format("Its hole is {:.0f} mm off the rail: its sheet, its hole and its webs find no room.", reach),
                "Its hole farther out or its width larger; its webs are deeper at the rail than at their nose.");
        FlatPiece top;
        top.name = "top";
        top.thickness_mm = t;
        top.outline = {{first, -wide / 2}, {until, -wide / 2}, {until, wide / 2}, {first, wide / 2}};
        top.holes = {{{u, 0}, hole, "bolt"}};
        const Vec3 down_out = minus(times(out, std::cos(tilt)), times(up, std::sin(tilt))), normal = cross(down_out, along);
        const Vec3 origin = minus(minus(at(0), times(down_out, u)), times(normal, t));
        top.places = {{origin, down_out, along}};
        FlatPiece web;
        web.name = "web";
        web.count = 2;
        web.thickness_mm = t;
        web.outline = {{0, root - deep}, {web_out, end - nose}, {web_out, end}, {0, root}};
        // x along `out`, y up: its thickness lies along `along` turned round
        const Vec3 foot = minus(at(0), times(out, reach));
        for (const double side : {-1.0, 1.0}) {
            const double middle = side * (wide / 2 - t / 2);
            web.places.push_back({plus(foot, times(along, middle + t / 2 * lift(cross(out, up), along))), out, up});
        }
        if (root - deep > end - nose)
            return refuse("Its webs would be higher at their nose than at the rail.", "Deeper webs, or less of a nose.");
        p_.flats.push_back(std::move(top));
        p_.flats.push_back(std::move(web));
        fact("its webs on the rail begin under its hole by", -root);
        fact("and reach down to", deep - root);
        bolt(at(0), normal, t, hole);
        if (!has("grip")) { // through what stands on it
            p_.bolts.back().grip_mm = 2 * t;
            p_.bolts.back().grip_known = false;
        }
        const double leg = std::min(t, most_leg_mm);
        p_.seams.push_back({"its webs on the rail, both sides", 4 * deep, leg, t, plus(foot, times(up, root - deep / 2)), true});
        p_.seams.push_back({"its top on the rail, above", wide, leg, t, plus(foot, times(up, root)), true});
        p_.seams.push_back({"its webs under its top, outside", 2 * web_out, leg, t, at(0), false});
        if (p_.bolts.back().captive)
            p_.seams.push_back({"its nut, under its top", std::numbers::pi * 1.6 * hole, 3, t, at(0), false});
        const bool turned = has("torque") && has("spread");
        if (has("torque") && !turned) skip("the engine's torque: say how far apart its two mounts stand, spread 620");
        if (!loaded() && !turned) {
            skip("what it carries: say the most that presses on it, load 4000");
            skip("the wall that it stands on");
            return done();
        }
        // two webs as beams that stand out from the rail; its top is left out of it
        // held by two mounts, the torque lifts the one and presses the other
        const double of_torque = turned ? 1000 * f("torque") / f("spread") : 0;
        if (turned) fact("pressed by the torque", fmt::format("{:.0f} N", of_torque));
        const double load = or_("load", 0) + of_torque, moment = load * reach, modulus = 2 * t * deep * deep / 6;
        const double bent = moment / modulus, sheared = load / (2 * t * deep);
        bears("part-stress", std::sqrt(bent * bent + 3 * sheared * sheared), in_.yield_mpa / yield_margin,
              "At the rail its webs stand under", "Deeper or thicker webs, or its hole nearer to the rail.");
        weldBears(std::hypot(moment / (4 * deep * deep / 6), load / (4 * deep)), leg, "the weld of its webs");
        const Vec3 rooted = plus(foot, times(up, root - deep / 2));
        wallBears(PlateFeet{rooted, out, up, deep, t, 2, wide - 2 * t, "its webs"}, {0, moment, 0});
        return done();
    }

    /// A seat for a leaf spring on an axle's tube: a plate on two webs that sit on the tube.
    PartPlan axlePerch() {
        const double t = f("sheet"), tube = f("tube"), wide = f("wide"), length = f("seat"), high = f("high"),
                     centre = f("centre");
        const Vec3 ahead = minus(at(1), at(0));
        p_.size_mm = between(0, 1);
        p_.size_of = "along the spring, as marked";
        if (geometry::length(ahead) < 1 || std::abs(unit(ahead).z_mm) > 0.7)
            return refuse("Its two places do not lie along a spring.",
                          "Its first place is the middle of the seat, its second a place along the spring.");
        const double r = tube / 2 + saddle_room_mm, grips = saddle_share * tube, low = high - grips;
        if (high - t < r + t || length < 2 * (r + t) * 0.6 || wide < centre + 4 * t)
            return refuse(fmt::format("Between a tube of {:g} and its seat {:.0f} mm are left: too little for webs.", tube,
                                      high - t - tube / 2),
                          "A higher seat; or the spring's pad is welded to the tube as it is.");
        const Vec3 x = unit(ahead), y = unit(cross({0, 0, 1}, x)), z = cross(x, y);
        FlatPiece seat;
        seat.name = "seat";
        seat.thickness_mm = t;
        seat.outline = {{-length / 2, -wide / 2}, {length / 2, -wide / 2}, {length / 2, wide / 2}, {-length / 2, wide / 2}};
        seat.holes = {{{0, 0}, centre, "centre bolt"}};
        seat.places = {{minus(at(0), times(z, t)), x, y}};
        FlatPiece web;
        web.name = "web";
        web.count = 2;
        web.thickness_mm = t;
        // from its left upper corner down and round; heights from the seat's upper side
        const double opens = std::asin(std::min(1.0, grips / r)); // below the tube's crown quarter
        const double foot = r * std::cos(opens);
        web.outline = {{-length / 2, -t}, {-length / 2, -2 * t}, {-foot - t, -low}};
        const int steps = 48;
        for (int k = 0; k <= steps; ++k) { // over the tube, from the rear to the front
            const double phi = std::numbers::pi - opens - (std::numbers::pi - 2 * opens) * k / steps;
            web.outline.emplace_back(r * std::cos(phi), -high + r * std::sin(phi));
        }
        web.outline.emplace_back(foot + t, -low);
        web.outline.emplace_back(length / 2, -2 * t);
        web.outline.emplace_back(length / 2, -t);
        for (const double side : {-1.0, 1.0}) { // x along the spring, y up: its thickness to −y
            const double middle = side * (wide / 2 - t / 2);
            web.places.push_back({plus(at(0), times(y, middle + t / 2)), x, z});
        }
        p_.flats.push_back(std::move(seat));
        p_.flats.push_back(std::move(web));
        const double arc = r * (std::numbers::pi - 2 * opens), leg = std::min(t, most_leg_mm);
        const Vec3 on_tube = minus(at(0), times(z, high - r));
        p_.seams.push_back({"its webs on the axle's tube, outside", 2 * arc, leg, t, on_tube, true});
        p_.seams.push_back({"its webs under its seat", 4 * (length - 2 * t), leg, t, at(0), false});
        fact("its webs grip the tube to under its crown by", r - grips + saddle_room_mm);
        add("part-axle", PlanVerdict::Marginal, "Welded on an axle's tube, it draws the tube out of straight.",
            "Tack it with the axle at ride height and the pinion set; short runs, left and right by turns; then check the tube.");
        if (!loaded()) {
            skip("what it carries: say the most that presses on its seat, load 12000");
            return done();
        }
        const double load = f("load");
        bears("part-stress", load / (2 * t * 2 * foot), in_.yield_mpa / yield_margin, "Pressed, its webs stand under",
              "Thicker webs.");
        weldBears(load / (2 * arc), leg, "the weld of its webs");
        return done();
    }

    /// Washers of plate from what is stocked, until a gap is filled.
    PartPlan shimStack() {
        const double across = f("across"), hole = f("hole"), thin = f("thin");
        const Figure gap = between(0, 1);
        p_.size_mm = gap;
        p_.size_of = "of a gap";
        if (gap.value < thin)
            return refuse(fmt::format("The gap is {:.1f} mm: less than the thinnest shim.", gap.value),
                          "No shim is needed there, or its places are one.");
        if (across < 2 * hole + 2)
            return refuse(fmt::format("A shim of {:g} has no room for a hole of {:g}.", across, hole), "A wider shim.");
        static constexpr double stocked[] = {20, 15, 12, 10, 8, 6, 5, 4, 3, 2, 1.5, 1, 0.8, 0.5};
        const Vec3 up = unit(minus(at(1), at(0)));
        const Vec3 any = std::abs(up.x_mm) < 0.9 ? Vec3{1, 0, 0} : Vec3{0, 1, 0};
        const Vec3 x = unit(minus(any, times(up, dot(any, up)))), y = cross(up, x);
        const double dowel = or_("dowel", 0), off = or_("dowel-off", across / 2 - 1.5 * dowel);
        if (dowel > 0 && (off - dowel / 2 < hole / 2 + 2 || off + dowel / 2 + 2 > across / 2))
            return refuse(
                fmt::format("A dowel of {:g} finds no room beside a hole of {:g} in a shim of {:g}.", dowel, hole, across),
                "A wider shim, or a thinner dowel.");
        double left = gap.value, stands = 0;
        for (const double s : stocked) {
            if (s < thin) break;
            FlatPiece shim;
            while (left >= s - thin / 2) { // to the nearest that the thinnest can make
                shim.places.push_back({plus(at(0), times(up, stands)), x, y});
                stands += s;
                left -= s;
            }
            shim.count = static_cast<int>(shim.places.size());
            if (!shim.count) continue;
            shim.name = fmt::format("shim of {:g}", s);
            shim.thickness_mm = s;
            for (int k = 0; k < disc_steps; ++k) {
                const double phi = 2 * std::numbers::pi * k / disc_steps;
                shim.outline.emplace_back(across / 2 * std::cos(phi), across / 2 * std::sin(phi));
            }
            shim.holes = {{{0, 0}, hole, "bolt"}};
            if (dowel > 0) shim.holes.push_back({{off, 0}, dowel, "dowel"});
            p_.flats.push_back(std::move(shim));
        }
        fact("it stands high", stands);
        fact("left over", left);
        if (gap.value > most_shims_mm)
            add("part-shim", PlanVerdict::Marginal, fmt::format("A stack of {:.0f} mm works loose.", stands),
                "A standoff up to the last few millimetres, shims on it.");
        if (gap.u95 > thin)
            add("part-shim", PlanVerdict::Marginal,
                fmt::format("The gap is known to ± {:.1f} mm, and the thinnest shim is {:g}.", gap.u95, thin),
                "Have one thicker and one thinner at hand, and fit them with the body on.")
                .of(fmt::format("± {:.1f} mm", gap.u95), fmt::format("± {:g} mm", thin));
        p_.bolted_on = true;
        bolt(plus(at(0), times(up, stands)), up, stands, hole);
        p_.bolts.back().grip_known = has("grip");
        skip("that both faces lie square to the bolt: a wedge, or a cup, where they do not");
        return done();
    }

private:
    static constexpr double saddle_room_mm = 0.5, saddle_share = 0.15, most_shims_mm = 30;

    PartPlan refuse(std::string sentence, std::string remedy) {
        add("part-outline", PlanVerdict::Fails, std::move(sentence), std::move(remedy));
        return done();
    }
    /// −1 where a piece's thickness runs with a direction, 1 where against it: from its middle to its lower side.
    static double lift(const Vec3& thick, const Vec3& along) { return dot(thick, along) > 0 ? -1 : 1; }
};

} // namespace

PartPlan perchPlan(const PartIn& in) { return PerchMaker(in).perch(); }
PartPlan axlePerchPlan(const PartIn& in) { return PerchMaker(in).axlePerch(); }
PartPlan shimStackPlan(const PartIn& in) { return PerchMaker(in).shimStack(); }

} // namespace gorvet::make
