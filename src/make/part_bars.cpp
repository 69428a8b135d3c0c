// Braces: tubes and boxes from place to place, sawn or coped.
#include "make/bar_maker.hpp"
#include "make/crossmember.hpp"
#include "make/wall.hpp"

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

class TubeMaker : BarMaker {
public:
    using BarMaker::BarMaker;

    PartPlan brace() {
        BarPiece bar = section();
        if (!fits(bar)) return done();
        for (std::size_t end = 0; end < 2; ++end) {
            const char* which = end == 0 ? "first end" : "other end";
            const Face face = faceAt(at(end), times(along_, end == 0 ? -1 : 1));
            cutEnd(bar, end, at(end), face.normal, fmt::format("Its {}", which));
            if (!face.of_rail) skip(fmt::format("what its {} meets: no rail is there, and it is cut square", which));
        }
        bar.length_mm = between(0, 1);
        weigh(bar);
        p_.size_mm = bar.length_mm;
        p_.size_of = "between its faces";
        bar.length_mm.value += tips(bar);
        const double round = roundOf(bar);
        seams(bar, round);
        pushed(bar, sectionOf(bar), round);
        for (std::size_t end = 0; end < 2 && loaded(); ++end) {
            const Face face = faceAt(at(end), times(along_, end == 0 ? -1 : 1));
            const double along = bar.round ? bar.height_mm : bar.width_mm;
            if (face.of_rail)
                wallBears({at(end), face.normal, along_, bar.height_mm, along, bar.round,
                           end == 0 ? "its first end" : "its other end", bar.wall_mm},
                          f("load"), 0);
        }
        if (!loaded()) skip("the walls that its ends are welded to");
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
            const auto curve = copeCurve(c, rim_steps);
            if (!curve) {
                add("part-cope", PlanVerdict::Fails, curve.error().message, curve.error().remedy);
                return done();
            }
            least[end] = *std::min_element(curve->begin(), curve->end());
            mean[end] = copeMean(c, rim_steps);
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
        for (std::size_t end = 0; end < 2; ++end) metWall(bar, end);
        p_.bars.push_back(std::move(bar));
        return done();
    }

private:
    BarPiece section() {
        along_ = unit(minus(at(1), at(0)));
        return barBetween(in_.name, at(0), at(1));
    }
    void seams(const BarPiece& bar, double round) {
        for (std::size_t end = 0; end < 2; ++end)
            p_.seams.push_back({end == 0 ? "its first end, all round" : "its other end, all round", round, bar.wall_mm,
                                bar.wall_mm, at(end), true});
    }
    /// The wall of the tube that an end is coped onto.
    void metWall(const BarPiece& bar, std::size_t end) {
        const char *onto = end == 0 ? "onto" : "onto-far", *word = end == 0 ? "onto-wall" : "onto-far-wall";
        const std::string other = end == 0 ? "the wall of the tube at its first end" : "the wall of the tube at its other end";
        if (!loaded()) return skip(other);
        if (!has(word)) return skip(fmt::format("{}: say it, {} 3", other, word));
        const double bears_N = tubeWallPushed_N(f(onto), f(word), bar.height_mm, bar.ends[end].cope->angle_rad, in_.yield_mpa);
        if (bears_N <= 0)
            return skip(fmt::format("{}: a tube of {:g} on one of {:g} with a wall of {:g}, of which the standard says nothing",
                                    other, bar.height_mm, f(onto), f(word)));
        const double share = yield_margin * f("load") / bears_N;
        if (share > p_.used.value_or(0)) {
            p_.used = share;
            p_.used_at = other;
        }
        if (share > 1)
            add("part-wall", PlanVerdict::Fails, fmt::format("Pushed, {} bears {:.0f} % of the load.", other, 100 / share),
                "A collar round that tube, or a thicker one; a wider tube on it.")
                .of(fmt::format("{:.0f} %", 100 / share), "100 %");
        guessed_ = guessed_ || !in_.yield_known || in_.figures.at(word).provenance == build::Provenance::Assumed || loadGuessed();
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

PartPlan bracePlan(const PartIn& in) { return TubeMaker(in).brace(); }
PartPlan copedTubePlan(const PartIn& in) { return TubeMaker(in).coped(); }

} // namespace gorvet::make
