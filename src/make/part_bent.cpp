// Angle brackets, and standoffs.
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

constexpr double right_angle = std::numbers::pi / 2;
class BentMaker : PartMaker {
public:
    using PartMaker::PartMaker;

    PartPlan bracket() {
        const double t = f("sheet"), inside = f("inside"), wide = f("wide"), hole = f("hole"), edge = or_("edge", 1.75 * hole);
        const Vec3 from = minus(at(0), at(1));
        const Face foot = faceAt(at(1), times(from, -1));
        const Vec3 level = foot.of_rail ? foot.normal : Vec3{0, 0, 1};
        const Vec3 up = dot(level, from) < 0 ? times(level, -1) : level;
        if (!foot.of_rail) skip("the face that its foot lies on: no rail is there, and it is taken as level");
        const double high = dot(from, up);
        Vec3 along = minus(times(up, high), from); // from the upright towards the foot's hole
        const double out = geometry::length(along);
        p_.size_mm = between(0, 1);
        p_.size_of = "from hole to hole";
        const double least = inside + t + hole / 2 + t;
        if (high < least || out < least) {
            add("part-outline", PlanVerdict::Fails,
                fmt::format("Its holes stand {:.0f} up and {:.0f} out: within {:.0f} of the corner there is the bend.", high, out,
                            least),
                "Its first place is the upright's hole, on the side away from the foot; its second the foot's, on the face.");
            return done();
        }
        along = unit(along);
        if (inside < least_bend_radii * t)
            add("part-bend", PlanVerdict::Marginal, fmt::format("Bent over {:g} inside, a sheet of {:g} may crack.", inside, t),
                "A bar with a larger nose; the bend across the direction in which the sheet was rolled.")
                .of(fmt::format("{:g} mm", inside), fmt::format("≥ {:g} mm", least_bend_radii * t));
        const double allowance = bendAllowance(right_angle, inside, t), upright = high + edge, flat_foot = out + edge;
        const double whole = upright + flat_foot - (2 * (inside + t) - allowance), bend = upright - (inside + t) + allowance / 2;
        FlatPiece piece;
        piece.name = in_.name;
        piece.thickness_mm = t;
        piece.outline = {{0, -wide / 2}, {whole, -wide / 2}, {whole, wide / 2}, {0, wide / 2}};
        piece.holes = {{{edge, 0}, hole, "bolt"}, {{whole - edge, 0}, hole, "bolt"}};
        piece.bends = {{{bend, -wide / 2}, {bend, wide / 2}, right_angle, inside, allowance}};
        piece.along_mm = wide;
        // its section from its outer corner: along the foot, and up
        const double outer = inside + t;
        constexpr int steps = 12;
        const auto arc = [&](double r, bool back) {
            for (int k = 0; k <= steps; ++k) {
                const double turn = right_angle * (back ? steps - k : k) / steps;
                piece.section.emplace_back(outer - r * std::cos(turn), outer - r * std::sin(turn));
            }
        };
        piece.section.emplace_back(0, upright);
        arc(outer, false);
        piece.section.emplace_back(flat_foot, 0);
        piece.section.emplace_back(flat_foot, t);
        arc(inside, true);
        piece.section.emplace_back(t, upright);
        const Vec3 corner = minus(at(1), times(along, out)), side = cross(along, up);
        piece.places = {{minus(corner, times(side, wide / 2)), along, up}};
        p_.flats.push_back(std::move(piece));
        p_.bolted_on = true;
        bolt(plus(at(0), times(along, t)), along, t, hole); // heads inside of the angle
        bolt(plus(at(1), times(up, t)), up, t, hole);
        skip("what it carries: an angle gives in its bend");
        return done();
    }

    PartPlan standoff() {
        const double across = f("across"), wall = f("wall"), plate = f("plate"), hole = f("hole"),
                     side = or_("side", 1.6 * across);
        BarPiece bar;
        bar.name = "tube";
        bar.height_mm = across;
        bar.wall_mm = wall;
        bar.from = at(0);
        const Figure high = between(0, 1);
        p_.size_mm = high;
        p_.size_of = "from foot to top";
        if (2 * wall >= across || high.value < plate + 5) {
            add("part-outline", PlanVerdict::Fails,
                2 * wall >= across ? fmt::format("A wall of {:g} mm does not fit into {:g}.", wall, across)
                                   : fmt::format("{:.0f} mm leave no room for a tube under its plate.", high.value),
                "A thinner plate, or shims in place of a standoff.");
            return done();
        }
        const Vec3 axis = unit(minus(at(1), at(0)));
        bar.to = minus(at(1), times(axis, plate));
        const Vec3 any = std::abs(axis.x_mm) < 0.9 ? Vec3{1, 0, 0} : Vec3{0, 1, 0};
        bar.up = unit(minus(any, times(axis, dot(any, axis))));
        const Face face = faceAt(at(0), times(axis, -1));
        bar.ends[0].point = at(0);
        bar.ends[0].normal = face.normal;
        bar.ends[0].saw_rad = std::acos(std::clamp(-dot(face.normal, axis), 0.0, 1.0));
        bar.ends[0].kind = bar.ends[0].saw_rad > 0.0015 ? BarEnd::Kind::Saw : BarEnd::Kind::Square;
        const Vec3 slants = minus(face.normal, times(axis, dot(face.normal, axis)));
        if (bar.ends[0].kind == BarEnd::Kind::Saw)
            bar.ends[0].turned_rad = std::atan2(dot(times(slants, -1), cross(axis, bar.up)), dot(times(slants, -1), bar.up));
        bar.ends[1].point = bar.to;
        bar.ends[1].normal = axis;
        if (bar.ends[0].saw_rad > most_saw_rad) {
            add("part-saw", PlanVerdict::Fails, "It stands too flat on its face: no saw turns so far.",
                "Its top more over its foot.");
            return done();
        }
        const double inside = across - 2 * wall, area = std::numbers::pi / 4 * (across * across - inside * inside);
        bar.length_mm = {high.value - plate + across / 2 * std::tan(bar.ends[0].saw_rad), high.u95, high.provenance};
        bar.mass_kg = steelMass(area * (high.value - plate));
        const double round = std::numbers::pi * across;
        p_.seams.push_back({"its foot, all round", round, wall, wall, at(0), true});
        p_.seams.push_back({"under its plate, all round", round, wall, std::min(wall, plate), at(1), false});
        if (!face.of_rail) skip("what its foot stands on: no rail is there, and it is cut square");
        FlatPiece top;
        top.name = "plate";
        top.thickness_mm = plate;
        top.outline = {{-side / 2, -side / 2}, {side / 2, -side / 2}, {side / 2, side / 2}, {-side / 2, side / 2}};
        top.holes = {{{0, 0}, hole, "bolt"}};
        top.places = {{bar.to, bar.up, cross(axis, bar.up)}};
        if (hole >= inside)
            add("part-edge", PlanVerdict::Fails,
                fmt::format("A hole of {:g} is wider than the tube is inside, {:g}.", hole, inside), "A wider tube.");
        if (loaded()) {
            const double load = f("load"), least = std::numbers::pi / 64 * (std::pow(across, 4) - std::pow(inside, 4));
            struts(load, area, least, 2 * high.value, "A wider tube."); // its top is free to sway
            weldBears(load / round, wall, "the weld round its foot");
            wallBears({at(0), face.normal, axis, across, across, true, "its foot", wall}, load, 0);
        } else {
            skip("what it carries: say the most that presses on it, load 4000");
            skip("the wall that it stands on");
        }
        p_.bars.push_back(std::move(bar));
        p_.flats.push_back(std::move(top));
        bolt(plus(at(1), times(axis, plate)), axis, plate, hole); // through what lies on it
        if (!has("grip")) p_.bolts.back().grip_mm = 2 * plate;
        p_.bolts.back().grip_known = has("grip");
        if (p_.bolts.back().captive)
            p_.seams.push_back({"its nut, under its plate", std::numbers::pi * 1.6 * hole, 3, plate, at(1), false});
        return done();
    }
};

} // namespace

PartPlan angleBracketPlan(const PartIn& in) { return BentMaker(in).bracket(); }
PartPlan standoffPlan(const PartIn& in) { return BentMaker(in).standoff(); }

} // namespace gorvet::make
