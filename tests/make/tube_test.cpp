// Tubes bent through corners: their schedules, copes, solids and templates.
#include "make/part_examples.hpp"
#include "make/part_sheet.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

namespace make_tube_test {

using namespace gorvet;
using build::PlanVerdict;
using geometry::between;
using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;
using geometry::Vec3;
using make::Figure;
using make::PartIn;
using make::PartPlan;
using make_parts::part;
using make_parts::rail;
using make_parts::said;

namespace {

constexpr double pi = std::numbers::pi;

bool says(const PartPlan& p, const std::string& code) {
    return std::any_of(p.remarks.begin(), p.remarks.end(), [&](const auto& r) { return r.code == code; });
}
double solidMass(const PartPlan& p) {
    const auto solids = make::partSolids(p);
    REQUIRE(solids);
    double sum = 0;
    for (const auto& s : *solids) {
        INFO(s.name);
        CHECK(shape::isSound(s.solid));
        sum += shape::steelMass(s.solid);
    }
    return sum;
}

} // namespace

TEST_CASE("a bent tube: its schedule by hand, its solid by Pappus", "[make][part][closed-form]") {
    PartIn in = part("bent-tube", {{0, 0, 0}, {300, 0, 0}, {300, 0, 200}}, {{"across", 30}, {"wall", 2}, {"radius", 100}});
    in.left = in.right = {};
    PartPlan p = make::partPlan(in);
    REQUIRE(p.bars.size() == 1);
    CHECK(p.bars[0].length_mm.value == Approx(200 + pi / 2 * 100 + 100));
    REQUIRE(p.bars[0].bends.size() == 1);
    CHECK(p.bars[0].bends[0].from_mm == Approx(200));
    CHECK(p.bars[0].bends[0].angle_rad == Approx(pi / 2));
    CHECK(p.mass_kg == Approx(pi / 4 * (900 - 676) * p.bars[0].length_mm.value * 7.85e-6));
    CHECK(solidMass(p) == Approx(p.mass_kg).epsilon(1e-6));
    // out of one plane: turned by a quarter, clockwise as one looks along it
    in = part("bent-tube", {{0, 0, 0}, {300, 0, 0}, {300, 300, 0}, {300, 300, 300}},
              {{"across", 30}, {"wall", 2}, {"radius", 80}});
    in.left = in.right = {};
    p = make::partPlan(in);
    REQUIRE(p.bars[0].bends.size() == 2);
    CHECK(p.bars[0].bends[1].turned_rad == Approx(pi / 2));
    CHECK(p.bars[0].bends[1].from_mm == Approx(220 + pi / 2 * 80 + 140));
    CHECK(solidMass(p) == Approx(p.mass_kg).epsilon(1e-5));
    in.places.at[3] = {300, 300, -300};
    CHECK(make::partPlan(in).bars[0].bends[1].turned_rad == Approx(-pi / 2));
    // too near to each other: refused; hardly enough for the bender: said
    in.places.at = {{0, 0, 0}, {300, 0, 0}, {300, 159, 0}, {300, 159, 300}};
    CHECK(says(make::partPlan(in), "part-short"));
    in.places.at[2].y_mm = in.places.at[3].y_mm = 204;
    CHECK(says(make::partPlan(in), "part-grip"));
    in.places.at[2].y_mm = in.places.at[3].y_mm = 206;
    CHECK_FALSE(says(make::partPlan(in), "part-grip"));
    CHECK_FALSE(says(make::partPlan(in), "part-bend"));
    in.figures["radius"] = said(74.9);
    CHECK(says(make::partPlan(in), "part-bend"));
    // coverage of its length
    std::mt19937 dice(17);
    std::normal_distribution<double> normal;
    const double is = make::partPlan(in).size_mm.value;
    int inside = 0;
    for (int round = 0; round < 2000; ++round) {
        PartIn seen = in;
        for (Vec3& q : seen.places.at)
            for (std::size_t axis = 0; axis < 3; ++axis) q[axis] += 0.5 * normal(dice);
        const Figure f = make::partPlan(seen).size_mm;
        inside += std::abs(f.value - is) <= f.u95;
    }
    CHECK(inside > 0.93 * 2000);
    CHECK(inside < 0.97 * 2000);
    // on rails it is sawn to their faces
    in = part("bent-tube", {{1000, -420, 450}, {1000, -200, 300}, {1000, 200, 300}, {1000, 420, 450}},
              {{"across", 40}, {"wall", 3}});
    p = make::partPlan(in);
    CHECK(p.bars[0].ends[0].saw_rad == Approx(std::atan2(150, 220)));
    CHECK(std::abs(std::cos(p.bars[0].ends[0].turned_rad)) == Approx(1)); // in the bend's plane
    CHECK(solidMass(p) == Approx(p.mass_kg).epsilon(1e-4));
    const auto solids = make::partSolids(p);
    CHECK(shape::bounds((*solids)[0].solid).min.y_mm == Approx(-420).margin(1e-5));
}

TEST_CASE("a cage tube by hand: a hoop on two tubes, square to both", "[make][part][closed-form]") {
    // up 500 from the one, over 900, down to the other: a tube of 40 on tubes of 60 that run across it
    const PartIn in = part("cage-tube", {{0, 0, 0}, {0, 300, 0}, {900, 0, 0}, {900, 300, 0}, {0, 0, 500}, {900, 0, 500}},
                           {{"across", 40}, {"wall", 3}, {"radius", 120}, {"onto", 60}, {"onto-far", 60}});
    const PartPlan p = make::partPlan(in);
    REQUIRE(p.bars.size() == 1);
    const make::BarPiece& bar = p.bars[0];
    const double path = 500 + 900 + 500 + 2 * 120 * (pi / 2 - 2); // two corners give their tangents for their arcs
    const double least = std::sqrt(30.0 * 30 - 17 * 17);          // on its flanks, where the inner edge of its wall touches
    CHECK(bar.length_mm.value == Approx(path - 2 * least));
    REQUIRE(bar.bends.size() == 2);
    CHECK(bar.bends[0].from_mm == Approx(500 - 120 - least));
    CHECK(bar.bends[1].from_mm == Approx(bar.bends[0].from_mm + pi / 2 * 120 + 660));
    CHECK(bar.bends[1].turned_rad == Approx(0).margin(1e-9));
    CHECK(solidMass(p) == Approx(p.mass_kg).epsilon(1e-3));
    CHECK(p.verdict == PlanVerdict::Marginal); // a cage is never said to hold
    // a bend right above the tube that it stands on: refused; hardly enough to be gripped: said
    const auto low = [&](double z) {
        PartIn other = in;
        for (const std::size_t k : {4U, 5U}) other.places.at[k].z_mm = z;
        return make::partPlan(other);
    };
    CHECK(says(low(149), "part-short")); // its deepest place is 30 off the other's middle
    CHECK_FALSE(says(low(151), "part-short"));
    CHECK(says(low(150 + 60 - 9), "part-grip")); // 60 is one and a half diameters, from the saddle's edge
    CHECK_FALSE(says(low(120 + 60 + least + 1), "part-grip"));
    PartIn wide = in;
    wide.figures["onto"] = said(39);
    CHECK(says(make::partPlan(wide), "part-cope"));
}

TEST_CASE("a cage tube's copes lie on what they meet, and so do their templates: on the solid", "[make][part]") {
    std::mt19937 dice(29);
    std::uniform_real_distribution<double> share(0, 1);
    const auto some = [&](double most) { return most * (2 * share(dice) - 1); };
    int made = 0;
    for (int round = 0; round < 12; ++round) {
        const Vec3 a{0, 0, 0}, c1{some(60), some(60), 450}, c2{700 + some(80), some(150), 450 + some(80)},
            b{750 + some(60), some(60), some(60)};
        const auto beside = [&](const Vec3& tip, const Vec3& next) { // the other tube: 40 to 90 degrees off the leg
            const Vec3 leg = unit(minus(next, tip));
            Vec3 any{some(1), some(1), some(1)};
            any = unit(minus(any, times(leg, dot(any, leg))));
            const double turn = 0.7 + 0.85 * share(dice);
            return plus(tip, times(plus(times(leg, std::cos(turn)), times(any, std::sin(turn))), 250));
        };
        const double across = 32 + 10 * share(dice);
        const PartIn in =
            part("cage-tube", {a, beside(a, c1), b, beside(b, c2), c1, c2},
                 {{"across", across}, {"wall", 2.5}, {"radius", 110}, {"onto", 44 + 20 * share(dice)}, {"onto-far", 50}});
        const PartPlan p = make::partPlan(in);
        INFO(round);
        if (!p.made()) continue;
        ++made;
        const make::BarPiece& bar = p.bars[0];
        CHECK(solidMass(p) == Approx(p.mass_kg).epsilon(4e-3));
        const auto solids = make::partSolids(p);
        const shape::Mesh mesh = shape::mesh((*solids)[0].solid, 0.08); // its corners lie on the steel, however coarse
        for (std::size_t end = 0; end < 2; ++end) {
            const make::BarEnd& e = bar.ends[end];
            const Vec3 tip = end == 0 ? a : b, next = end == 0 ? c1 : c2, beyond = end == 0 ? c2 : c1;
            const Vec3 inwards = unit(minus(next, tip)), forward = end == 0 ? inwards : times(inwards, -1);
            const Vec3 off = minus(beyond, next), bend = unit(minus(off, times(inwards, dot(off, inwards))));
            const double r = across / 2, big = e.cope->main_mm / 2;
            int on_rim = 0;
            std::vector<double> feet;
            for (const Vec3& q : mesh.points) {
                const Vec3 from = minus(q, tip);
                const double x = dot(from, inwards);
                const Vec3 radial = minus(from, times(inwards, x));
                if (x > between(tip, next) / 2 || geometry::length(radial) > r + 0.05) continue;
                const double away = geometry::length(minus(from, times(e.normal, dot(from, e.normal)))) - big;
                CHECK(away > -0.02); // nothing stands in the other tube
                if (std::abs(away) > 0.02 || geometry::length(radial) < r - 0.05) continue;
                ++on_rim;
                // where the outer edge of the wall is the one that touches, the template's line is where the steel is
                const Vec3 zero = unit(minus(e.normal, times(inwards, dot(e.normal, inwards)))), one = cross(inwards, zero);
                const double phi = std::atan2(dot(from, one), dot(from, zero));
                const auto x_of = [&](double radius) {
                    return (std::sqrt(big * big - std::pow(radius * std::sin(phi), 2)) +
                            radius * std::cos(phi) * std::cos(e.cope->angle_rad)) /
                           std::sin(e.cope->angle_rad);
                };
                CHECK(x < make::copeAt(*e.cope, phi) + 0.2); // nowhere is steel left that would keep it off
                if (x_of(r) < x_of(r - 2.5)) continue;
                // the template, wrapped with its line on the inside of the bend next to it
                const double angle = std::atan2(dot(radial, cross(forward, bend)), dot(radial, bend));
                feet.push_back(x - make::wrapDepth(bar, end, angle));
            }
            CHECK(on_rim > 10);
            REQUIRE(feet.size() > 5); // its foot is in one place all round: it is turned as it says
            CHECK(*std::max_element(feet.begin(), feet.end()) - *std::min_element(feet.begin(), feet.end()) < 0.2);
        }
    }
    CHECK(made >= 8);
}

TEST_CASE("a cage tube's length covers what it proves to be", "[make][part][coverage]") {
    std::mt19937 dice(31);
    std::normal_distribution<double> normal;
    const PartIn truth = part("cage-tube", {{0, 0, 0}, {0, 300, 0}, {900, 0, 0}, {900, 300, 0}, {0, 60, 500}, {900, 0, 520}},
                              {{"across", 40}, {"wall", 3}, {"onto", 60}, {"onto-far", 60}});
    const double is = make::partPlan(truth).size_mm.value;
    int inside = 0;
    for (int round = 0; round < 1500; ++round) {
        PartIn seen = truth;
        for (Vec3& q : seen.places.at)
            for (std::size_t axis = 0; axis < 3; ++axis) q[axis] += 0.5 * normal(dice);
        const Figure f = make::partPlan(seen).size_mm;
        inside += std::abs(f.value - is) <= f.u95;
    }
    CHECK(inside > 0.93 * 1500);
    CHECK(inside < 0.97 * 1500);
}

} // namespace make_tube_test
