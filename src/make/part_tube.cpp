// Tubes through corners, as on a hand bender: sawn to rails, or of a cage, coped onto other tubes.
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
using geometry::times;
using geometry::unit;

namespace {

/// A hand bender collapses a tube that is bent tighter, in diameters; it grips so much of it between two bends.
constexpr double least_tube_bend = 2.5, grip_diameters = 1.5;

class BentTubeMaker : BarMaker {
public:
    using BarMaker::BarMaker;

    PartPlan plain() {
        way_ = in_.at;
        BarPiece bar = begun();
        if (!schedule(bar)) return done();
        weighBent(bar, bar.length_mm.value);
        ends(bar);
        return handed(std::move(bar));
    }

    /// Its first four places say what its ends meet; the rest are its corners.
    PartPlan caged() {
        way_ = {in_.at[0]};
        way_.insert(way_.end(), in_.at.begin() + 4, in_.at.end());
        way_.push_back(in_.at[2]);
        BarPiece bar = begun();
        if (!schedule(bar)) return done();
        const std::vector<Vec3>& q = bar.through;
        double less = 0, first_edge = 0, steel = bar.length_mm.value;
        for (std::size_t end = 0; end < 2; ++end) {
            const Vec3 tip = end == 0 ? q[0] : q.back(), next = end == 0 ? q[1] : q[q.size() - 2];
            const Vec3 inwards = unit(minus(next, tip));
            Vec3 main = unit(minus(at(2 * end + 1), at(2 * end)));
            if (dot(main, inwards) < 0) main = times(main, -1); // the acute side
            const Cope c{bar.height_mm, bar.wall_mm, f(end == 0 ? "onto" : "onto-far"),
                         std::acos(std::clamp(dot(main, inwards), 0.0, 1.0)), 0};
            const auto curve = copeCurve(c, rim_steps);
            if (!curve) {
                add("part-cope", PlanVerdict::Fails, curve.error().message, curve.error().remedy);
                return done();
            }
            BarEnd& e = bar.ends[end];
            e.kind = BarEnd::Kind::Cope;
            e.point = tip;
            e.normal = main;
            e.cope = c;
            const Vec3 beyond = minus(end == 0 ? q[2] : q[q.size() - 3], next);
            const Vec3 bend = unit(minus(beyond, times(inwards, dot(beyond, inwards))));
            const Vec3 acute = minus(main, times(inwards, dot(main, inwards)));
            const Vec3 forward = end == 0 ? inwards : times(inwards, -1);
            e.turned_rad = std::atan2(dot(acute, cross(forward, bend)), dot(acute, bend));
            const double edge = *std::min_element(curve->begin(), curve->end()),
                         deep = *std::max_element(curve->begin(), curve->end());
            if (end == 0) first_edge = edge;
            less += edge;
            steel -= copeMean(c, rim_steps);
            const double straight = end == 0 ? straights_.front() : straights_.back();
            if (straight < deep)
                add("part-short", PlanVerdict::Fails,
                    fmt::format("The cope of its {} reaches {:.0f} mm into its bend.", end == 0 ? "first end" : "other end",
                                deep - straight),
                    "A smaller radius, or that corner further from the tube that it meets.");
            else if (const double grip = grip_diameters * bar.height_mm; straight - edge < grip)
                add("part-grip", PlanVerdict::Marginal,
                    fmt::format("Before its {} {:.0f} mm are straight: a hand bender grips no less than {:.0f}.",
                                end == 0 ? "first bend" : "last bend", straight - edge, grip),
                    "Leave the end long, bend it, then cope it.");
        }
        bar.length_mm.value -= less;
        for (TubeBend& b : bar.bends) b.from_mm -= first_edge;
        weighBent(bar, steel);
        skip("the tubes that it meets, and whether a cage of such tubes is one: who builds and who licenses it says");
        return handed(std::move(bar));
    }

    /// A tank's filler or vent: from its mouth down to the tank, falling all along.
    PartPlan piped() {
        way_ = in_.at;
        BarPiece bar = begun();
        if (!schedule(bar)) return done();
        for (std::size_t end = 0; end < 2; ++end) {
            BarEnd& e = bar.ends[end];
            e.point = end == 0 ? bar.from : bar.to;
            e.normal = unit(minus(e.point, end == 0 ? bar.through[1] : bar.through[bar.through.size() - 2]));
        }
        std::optional<Figure> flattest;
        for (std::size_t k = 0; k + 1 < way_.size(); ++k) {
            const Figure falls = legFalls(k);
            if (!flattest || falls.value < flattest->value) flattest = falls;
        }
        constexpr double one_degree = std::numbers::pi / 180;
        fact("it falls by no less than",
             fmt::format("{:.1f}° ± {:.1f}°", flattest->value / one_degree, flattest->u95 / one_degree));
        weighBent(bar, bar.length_mm.value);
        p_.size_mm = bar.length_mm;
        p_.size_of = "as it lies straight";
        add("part-tank", PlanVerdict::Marginal, "Fuel runs in it: it is pressed with the tank before it is filled.",
            "A hose of fuel's own kind at each end that gives with the body; the mouth outside of the cabin, earthed to the body.");
        skip("the hoses and clamps at its ends, its cap or valve");
        skip("what is hot beside it: 100 mm from an exhaust, 50 behind a shield; and what strikes it");
        p_.bars.push_back(std::move(bar));
        return done();
    }

private:
    /// How much a leg of a pipe falls towards the tank; says so where that is too little, its ± counted.
    Figure legFalls(std::size_t k) {
        const std::size_t i = way_[k], j = way_[k + 1];
        const Figure slope = build::figureOf(in_.places, {i, j}, [i, j](const std::vector<Vec3>& p) {
            return std::atan2(p[i].z_mm - p[j].z_mm, std::hypot(p[j].x_mm - p[i].x_mm, p[j].y_mm - p[i].y_mm));
        });
        constexpr double one_degree = std::numbers::pi / 180;
        const double falls = slope.value / one_degree, u95 = slope.u95 / one_degree, least = f("fall") / one_degree;
        if (falls - u95 >= least) return slope;
        const std::string between = fmt::format("{} and {}", in_.places.names[i], in_.places.names[j]);
        add("part-sags", falls < 0 ? PlanVerdict::Fails : PlanVerdict::Marginal,
            falls < 0
                ? fmt::format("Between {} it rises towards the tank: fuel stands there, and air does not get past.", between)
                : fmt::format("Between {} it falls by {:.1f}° ± {:.1f}°: parked on a slope, it may hold fuel.", between, falls,
                              u95),
            "The corner higher, the tank's own end lower, or the mouth moved up.")
            .of(fmt::format("{:.1f}°", falls), fmt::format("≥ {:.0f}°", least));
        return slope;
    }
    BarPiece begun() {
        BarPiece bar;
        bar.name = in_.name;
        bar.height_mm = f("across");
        bar.wall_mm = f("wall");
        bar.radius_mm = or_("radius", 3 * bar.height_mm);
        for (const std::size_t k : way_) bar.through.push_back(in_.places.at[k]);
        bar.from = bar.through.front();
        bar.to = bar.through.back();
        return bar;
    }
    void weighBent(BarPiece& bar, double steel_mm) {
        const double inside = bar.height_mm - 2 * bar.wall_mm,
                     area = std::numbers::pi / 4 * (bar.height_mm * bar.height_mm - inside * inside);
        bar.mass_kg = steelMass(area * steel_mm);
    }
    PartPlan handed(BarPiece bar) {
        p_.size_mm = bar.length_mm;
        p_.size_of = "as it lies straight";
        for (const bool first : {true, false})
            p_.seams.push_back({first ? "its first end, all round" : "its other end, all round", std::numbers::pi * bar.height_mm,
                                bar.wall_mm, bar.wall_mm, first ? bar.through.front() : bar.through.back(), true});
        skip("what it carries: a tube with corners is no strut");
        p_.bars.push_back(std::move(bar));
        return done();
    }
    /// Straights and bends from its first end on; false where they do not fit.
    bool schedule(BarPiece& bar) {
        if (2 * bar.wall_mm >= bar.height_mm) {
            add("part-outline", PlanVerdict::Fails,
                fmt::format("A wall of {:g} mm does not fit into {:g}.", bar.wall_mm, bar.height_mm),
                "The outside comes first, the wall after it.");
            return false;
        }
        if (bar.radius_mm < least_tube_bend * bar.height_mm)
            add("part-bend", PlanVerdict::Marginal,
                fmt::format("Bent over {:g} to its middle, a tube of {:g} folds on the inside.", bar.radius_mm, bar.height_mm),
                "A larger former, a mandrel, or sand in the tube and heat.")
                .of(fmt::format("{:g} mm", bar.radius_mm), fmt::format("≥ {:g} mm", least_tube_bend * bar.height_mm));
        const std::vector<Vec3>& q = bar.through;
        const std::size_t corners = q.size() - 2;
        std::vector<double> takes(q.size(), 0), angles(q.size(), 0);
        std::vector<Vec3> way;
        for (std::size_t k = 0; k + 1 < q.size(); ++k) way.push_back(unit(minus(q[k + 1], q[k])));
        for (std::size_t k = 1; k <= corners; ++k) {
            angles[k] = std::acos(std::clamp(dot(way[k - 1], way[k]), -1.0, 1.0));
            takes[k] = bar.radius_mm * std::tan(angles[k] / 2);
        }
        double along = 0;
        Vec3 plane;
        for (std::size_t k = 0; k + 1 < q.size(); ++k) {
            const double straight = geometry::between(q[k], q[k + 1]) - takes[k] - takes[k + 1];
            if (straight < 0) {
                add("part-short", PlanVerdict::Fails,
                    fmt::format("Between {} and {} its bends want {:.0f} mm more than there are.", in_.places.names[way_[k]],
                                in_.places.names[way_[k + 1]], -straight),
                    "A smaller radius, or its corners further apart.");
                return false;
            }
            if (const double grip = grip_diameters * bar.height_mm; k > 0 && k + 2 < q.size() && straight < grip)
                add("part-grip", PlanVerdict::Marginal,
                    fmt::format("Between two bends {:.0f} mm are straight: a hand bender grips no less than {:.0f}.", straight,
                                grip),
                    "Bend the nearer one first, or its corners further apart.");
            straights_.push_back(straight);
            along += straight;
            if (k + 2 == q.size()) break;
            const Vec3 normal = cross(way[k], way[k + 1]);
            if (angles[k + 1] < 1e-4) continue;
            TubeBend bend{along, angles[k + 1], 0};
            if (geometry::length(plane) > 0) bend.turned_rad = std::atan2(dot(way[k], cross(plane, normal)), dot(plane, normal));
            plane = normal;
            bar.bends.push_back(bend);
            along += bar.radius_mm * angles[k + 1];
        }
        // of the places: a corner takes up its tangents and gives its arc
        const std::vector<std::size_t> of = way_;
        const double radius = bar.radius_mm;
        bar.length_mm = build::figureOf(in_.places, of, [of, radius](const std::vector<Vec3>& moved) {
            double sum = 0;
            for (std::size_t k = 0; k + 1 < of.size(); ++k) sum += geometry::between(moved[of[k]], moved[of[k + 1]]);
            for (std::size_t k = 1; k + 1 < of.size(); ++k) {
                const Vec3 in = unit(minus(moved[of[k]], moved[of[k - 1]])), out = unit(minus(moved[of[k + 1]], moved[of[k]]));
                const double angle = std::acos(std::clamp(dot(in, out), -1.0, 1.0));
                sum += radius * (angle - 2 * std::tan(angle / 2));
            }
            return sum;
        });
        return true;
    }
    /// Sawn to the rails' faces, each seen from the inside of the bend next to it.
    void ends(BarPiece& bar) {
        const std::vector<Vec3>& q = bar.through;
        for (std::size_t end = 0; end < 2; ++end) {
            const Vec3 tip = end == 0 ? q[0] : q.back(), next = end == 0 ? q[1] : q[q.size() - 2];
            const Vec3 out = unit(minus(tip, next));
            const Face face = faceAt(tip, out);
            BarEnd& e = bar.ends[end];
            e.point = tip;
            e.normal = face.normal;
            e.saw_rad = std::acos(std::clamp(dot(face.normal, out), 0.0, 1.0));
            e.kind = e.saw_rad > 0.0015 ? BarEnd::Kind::Saw : BarEnd::Kind::Square;
            // a face that the tube comes back over is no face to cut all of it by
            if (std::any_of(q.begin(), q.end(),
                            [&](const Vec3& p) { return dot(face.normal, minus(p, tip)) > bar.height_mm / 2; })) {
                e = {};
                e.point = tip;
                e.normal = out;
                skip(fmt::format("the face that its {} meets: it comes back over it, and is cut square",
                                 end == 0 ? "first end" : "other end"));
                continue;
            }
            if (!face.of_rail)
                skip(fmt::format("what its {} meets: no rail is there, and it is cut square",
                                 end == 0 ? "first end" : "other end"));
            if (e.kind == BarEnd::Kind::Saw && q.size() > 2) {
                const Vec3 beyond = minus(end == 0 ? q[2] : q[q.size() - 3], next), inwards = times(out, -1);
                const Vec3 bend = unit(minus(beyond, times(inwards, dot(beyond, inwards))));
                const Vec3 slants = times(minus(face.normal, times(out, dot(face.normal, out))), -1);
                const Vec3 forward = end == 0 ? inwards : out;
                e.turned_rad = std::atan2(dot(slants, cross(forward, bend)), dot(slants, bend));
                bar.length_mm.value += bar.height_mm / 2 * std::tan(e.saw_rad);
            }
            if (e.saw_rad > most_saw_rad)
                add("part-saw", PlanVerdict::Fails, "An end is cut further off square than a saw turns.",
                    "Let it meet the rail more squarely.");
        }
    }

    std::vector<std::size_t> way_;  ///< its places from end to end, in the places
    std::vector<double> straights_; ///< between its bends, from its first end on
};

} // namespace

PartPlan bentTubePlan(const PartIn& in) { return BentTubeMaker(in).plain(); }
PartPlan tankPipePlan(const PartIn& in) { return BentTubeMaker(in).piped(); }
PartPlan cageTubePlan(const PartIn& in) { return BentTubeMaker(in).caged(); }

} // namespace gorvet::make
