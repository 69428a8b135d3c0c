// What people sit on and are held by: bars under seats, plates behind belts' bolts. Licensed work, and they say so.
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

namespace {

constexpr double nut_leg_mm = 3, nut_round = 1.6; ///< a nut is so many holes wide

class SeatMaker : BarMaker {
public:
    using BarMaker::BarMaker;

    /// A box across the floor between two faces, a plate on each of its ends, a strip with nuts on its top.
    PartPlan bar() {
        const double plate = f("plate"), foot = f("foot"), strip = f("strip"), apart = f("apart"), first = f("first"),
                     hole = f("hole");
        p_.size_mm = between(0, 1);
        p_.size_of = "between its two faces";
        const Vec3 way = minus(at(1), at(0));
        const double whole = geometry::length(way);
        const double edge = 1.5 * hole + strip;
        if (std::abs(way.z_mm) > 0.5 * whole)
            return refuse("It goes up rather than across.",
                          "Its two places are where its middle meets the one face, and the other.");
        if (first - edge < plate || first + apart + edge > whole - plate)
            return refuse(
                fmt::format("Between its faces {:.0f} mm are left: bolts {:g} apart, {:g} from its first end, find no room.",
                            whole, apart, first),
                "Say where the seat's first bolt stands from the first end, and how far the other is from it.");
        const Vec3 along = unit(way);
        BarPiece box = barBetween("bar", plus(at(0), times(along, plate)), minus(at(1), times(along, plate)));
        box.round = false;
        box.width_mm = f("wide");
        if (!fits(box)) return done();
        if (foot < std::max(box.height_mm, box.width_mm) + 2 * box.wall_mm)
            return refuse(fmt::format("A plate of {:g} leaves no room for a weld round its bar.", foot), "A larger foot.");
        for (std::size_t end = 0; end < 2; ++end) {
            cutEnd(box, end, end == 0 ? box.from : box.to, times(along, end == 0 ? -1 : 1), "An end");
            FlatPiece piece;
            piece.name = end == 0 ? "plate at its first end" : "plate at its other end";
            piece.thickness_mm = plate;
            piece.outline = {{-foot / 2, -foot / 2}, {foot / 2, -foot / 2}, {foot / 2, foot / 2}, {-foot / 2, foot / 2}};
            const Vec3 side = cross(along, box.up); // side × up is along, its thickness
            piece.places = {{end == 0 ? at(0) : box.to, times(side, -1), box.up}};
            if (dot(cross(times(side, -1), box.up), along) < 0) piece.places[0].x = side;
            p_.flats.push_back(std::move(piece));
            p_.seams.push_back({fmt::format("the plate at its {}, all round", end == 0 ? "first end" : "other end"), 4 * foot,
                                std::min(plate, most_leg_mm), plate, at(end), true});
            p_.seams.push_back({end == 0 ? "its first end on its plate" : "its other end on its plate", roundOf(box), box.wall_mm,
                                box.wall_mm, at(end), false});
        }
        box.length_mm = {p_.size_mm.value - 2 * plate, p_.size_mm.u95, p_.size_mm.provenance};
        weigh(box);
        FlatPiece top;
        top.name = "strip under the seat";
        top.thickness_mm = strip;
        const double half = box.width_mm / 2, long_half = apart / 2 + edge;
        top.outline = {{-long_half, -half}, {long_half, -half}, {long_half, half}, {-long_half, half}};
        const Vec3 middle = plus(plus(at(0), times(along, first + apart / 2)), times(box.up, box.height_mm / 2));
        top.places = {{middle, along, cross(box.up, along)}};
        for (const double side : {-1.0, 1.0}) {
            top.holes.push_back({{side * apart / 2, 0}, hole, "seat bolt"});
            PartBolt b;
            b.head = plus(plus(middle, times(along, side * apart / 2)), times(box.up, strip));
            b.along = times(box.up, -1);
            b.hole_mm = hole;
            b.captive = true;      // its nut is in the bar
            b.grip_mm = 2 * strip; // with the seat's own foot, which nobody measured
            p_.bolts.push_back(b);
        }
        p_.flats.push_back(std::move(top));
        p_.seams.push_back({"its strip, along both sides", 4 * long_half, std::min(strip, box.wall_mm),
                            std::min(strip, box.wall_mm), middle, false});
        p_.seams.push_back({"nuts under the strip, through the bar's top, before it goes on",
                            2 * std::numbers::pi * nut_round * hole, nut_leg_mm, strip, middle, false});
        p_.bars.push_back(std::move(box));
        licensed("It carries a seat with who sits in it: licensed work.",
                 "Who licenses it says what it must bear, and of what; a seat's own rails and bolts are part of it.");
        skip("the sheets that its end plates are welded on");
        strength(first, apart, whole);
        return done();
    }

    /// On the far side of a sheet: a plate with a nut, for a belt's bolt.
    PartPlan belt() {
        const double t = f("sheet"), skin = f("skin"), wide = f("wide"), high = f("high"), hole = f("hole");
        p_.size_mm = between(0, 1);
        p_.size_of = "from its hole to the place along it";
        const Vec3 one = minus(at(1), at(0)), other = minus(at(2), at(0));
        const Vec3 normal = cross(one, other);
        if (geometry::length(one) < 5 || geometry::length(normal) < 0.2 * geometry::length(one) * geometry::length(other))
            return refuse("Its three places do not span its face.",
                          "The hole's middle, a place along the plate, and one across it, all on the face that the belt is on.");
        if (std::min(wide, high) < 3 * hole)
            return refuse(fmt::format("A plate of {:g} × {:g} is too small for a hole of {:g}.", wide, high, hole),
                          "A larger plate.");
        const Vec3 x = unit(one), n = unit(normal), y = cross(n, x);
        const double a = wide / 2, b = high / 2, c = std::min({corner_mm, a / 3, b / 3});
        FlatPiece plate;
        plate.name = in_.name;
        plate.thickness_mm = t;
        plate.outline = {{-a + c, -b}, {a - c, -b}, {a, -b + c}, {a, b - c}, {a - c, b}, {-a + c, b}, {-a, b - c}, {-a, -b + c}};
        plate.holes = {{{0, 0}, hole, "belt bolt"}};
        plate.places = {{minus(at(0), times(n, skin + t)), x, y}};
        p_.flats.push_back(std::move(plate));
        PartBolt bolt;
        bolt.head = at(0);
        bolt.along = times(n, -1);
        bolt.hole_mm = hole;
        bolt.captive = true;
        bolt.grip_mm = skin + t;
        bolt.grip_known = true;
        p_.bolts.push_back(bolt);
        const double round = 2 * (wide + high), leg = std::min(skin, t);
        p_.seams.push_back({"its edge on the sheet, all round", round, leg, leg, at(0), true});
        p_.seams.push_back({"its nut, on its far side", std::numbers::pi * nut_round * hole, nut_leg_mm, t, at(0), false});
        licensed("It holds a belt, and a belt holds a life: licensed work.",
                 "Who licenses it says where it may be, of what, and who welds it; a belt's bolt is bought with the belt.");
        skip("what is behind the sheet: a belt's plate goes where the shell is double or boxed, never on rust");
        const double load = f("load"), yield = in_.yield_mpa;
        // pulled off: the sheet is sheared round the plate; the plate bends over it, by its lines of hinges; the bolt is pulled
        bears("part-stress", load / (round * skin), yield / std::numbers::sqrt3 / yield_margin,
              "Round the plate the sheet is sheared by", "A larger plate, or where the sheet is double.");
        const double moment = t * t * yield / 4,
                     hinges = std::min(4 * moment * (wide / high + high / wide), 4 * std::numbers::pi * moment);
        bears("part-stress", load / hinges * yield, yield / yield_margin, "Pulled, the plate is bent by", "A thicker plate.");
        bears("part-stress", load / (std::numbers::pi / 4 * hole * hole), bolt_pull_mpa, "Its bolt (8.8 or better) is pulled by",
              "A thicker bolt.");
        // pulled along the sheet: bearing and the weld round it
        bears("part-stress", load / (hole * t), 1.5 * yield / yield_margin, "The bolt presses on its hole with",
              "A thicker plate.");
        weldBears(load / round, leg, "the weld round the plate");
        return done();
    }

private:
    static constexpr double corner_mm = 8;

    PartPlan refuse(std::string sentence, std::string remedy) {
        add("part-outline", PlanVerdict::Fails, std::move(sentence), std::move(remedy));
        return done();
    }
    void licensed(std::string sentence, std::string remedy) {
        add("part-licensed", PlanVerdict::Marginal, std::move(sentence), std::move(remedy));
    }
    /// Free to turn at its ends; what pulls at its two bolts, shared, any way across it.
    void strength(double first, double apart, double whole) {
        if (!loaded()) return skip("what it carries: say the most that pulls at its two bolts together, load 10000");
        const BarPiece& box = p_.bars.front();
        const double half = f("load") / 2, second = first + apart;
        const double near = half * ((whole - first) + (whole - second)) / whole, far = f("load") - near;
        const double moment = std::max(near * first, far * (whole - second));
        const BarSection s = sectionOf(box);
        const double w = box.width_mm, h = box.height_mm, t = box.wall_mm;
        const double upright = (h * w * w * w - (h - 2 * t) * std::pow(w - 2 * t, 3)) / (6 * w);
        const double bent = moment / std::min(s.level_mm3, upright),
                     sheared = std::max(near, far) / (2 * t * (std::min(h, w) - 2 * t));
        bears("part-stress", std::sqrt(bent * bent + 3 * sheared * sheared), in_.yield_mpa / yield_margin,
              "Pulled, the bar stands under", fmt::format("Higher, wider or thicker: it is a beam of {:.0f} mm.", whole));
        weldBears(std::max(near, far) / roundOf(box), t, "the weld of its end");
        weldBears(std::max(near, far) / (4 * f("foot")), std::min(f("plate"), most_leg_mm), "the weld of its end plate");
    }
};

} // namespace

PartPlan seatBarPlan(const PartIn& in) { return SeatMaker(in).bar(); }
PartPlan beltPlatePlan(const PartIn& in) { return SeatMaker(in).belt(); }

} // namespace gorvet::make
