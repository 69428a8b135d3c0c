// A ladder frame twisted between its axles, against the closed form where there is one, and against what must hold.
#include "frame/ladder.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>

namespace frame_ladder_test {

using namespace gorvet;
using namespace gorvet::frame;

namespace {

Section sectionFrom(const std::vector<std::string>& words) {
    const auto walls = wallsFrom(words);
    REQUIRE(walls);
    const auto s = sectionOf(*walls);
    REQUIRE(s);
    return *s;
}
Ladder ladder(const std::vector<std::string>& rail, const std::vector<std::string>& bridge, std::vector<double> stations) {
    Ladder l;
    l.left = {{-400, -420, 500}, {3000, -420, 500}};
    l.right = {{-400, 420, 500}, {3000, 420, 500}};
    l.rail = sectionFrom(rail);
    l.front_axle_mm = 0;
    l.rear_axle_mm = 2600;
    for (const double x : stations) l.bridges.push_back({"b" + std::to_string(l.bridges.size()), x, sectionFrom(bridge), 0});
    return l;
}
Twist of(const Ladder& l) {
    const auto t = twistOf(l);
    if (!t) FAIL(t.error().text());
    CHECK(t->held_nm_per_deg >= t->free_nm_per_deg * (1 - 1e-9));
    return *t;
}

} // namespace

TEST_CASE("between two bridges that do not give, rails twist and bend as the book says", "[frame][ladder]") {
    Ladder l = ladder({"box", "100", "60", "4"}, {"box", "100", "60", "4"}, {0, 2600});
    for (Bridge& b : l.bridges) { // as stiff as can be
        b.section.area_mm2 *= 1e3;
        for (double* v : {&b.section.level_mm4, &b.section.upright_mm4, &b.section.torsion_mm4, &b.section.shear_level_mm2,
                          &b.section.shear_upright_mm2})
            *v *= 1e4;
    }
    const Section& s = l.rail;
    const double length = 2600, track = 840, g = l.material.g_mpa, e = l.material.e_mpa;
    // each rail: G J / L, and as a beam whose ends stay parallel 12 E I / L³, with its shear
    const double bends = 12 * e * s.level_mm4 / (length * length * length) /
                         (1 + 12 * e * s.level_mm4 / (g * s.shear_upright_mm2 * length * length));
    const double per_rad = 2 * g * s.torsion_mm4 / length + 2 * bends * track / 2 * track / 2;
    CHECK(of(l).free_nm_per_deg == Approx(per_rad / 1000 * std::numbers::pi / 180).epsilon(0.005));
    CHECK_FALSE(of(l).open);
    CHECK(of(l).mass_kg > 2 * 3400 * s.area_mm2 * l.material.kg_mm3);
}

TEST_CASE("what is added never softens it; boxing channels helps, and how much is a range", "[frame][ladder]") {
    const std::vector<std::string> open{"channel", "100", "50", "4"}, closed{"boxed", "100", "50", "4", "4"},
        bridge{"box", "60", "40", "3"};
    const Twist three = of(ladder(open, bridge, {0, 1300, 2600})), five = of(ladder(open, bridge, {0, 650, 1300, 1950, 2600}));
    CHECK(five.free_nm_per_deg > three.free_nm_per_deg);
    CHECK(five.held_nm_per_deg > three.held_nm_per_deg);
    CHECK(three.open);
    CHECK(three.held_nm_per_deg > 1.01 * three.free_nm_per_deg); // open rails: held joints make a difference
    const Twist boxed = of(ladder(closed, bridge, {0, 1300, 2600}));
    CHECK(boxed.free_nm_per_deg > 1.5 * three.held_nm_per_deg);
    CHECK(boxed.held_nm_per_deg == Approx(boxed.free_nm_per_deg).epsilon(1e-6)); // nothing warps
    CHECK_FALSE(boxed.open);
    // finer pieces change nothing that is seen
    CHECK(twistOf(ladder(open, bridge, {0, 1300, 2600}), 20)->free_nm_per_deg == Approx(three.free_nm_per_deg).epsilon(0.002));
    // shorter is stiffer
    Ladder shorter = ladder(open, bridge, {0, 1150, 2300});
    shorter.rear_axle_mm = 2300;
    CHECK(of(shorter).free_nm_per_deg > three.free_nm_per_deg);
    // seen in a mirror it is the same
    Ladder swapped = ladder(open, bridge, {0, 1300, 2600});
    swapped.rail = mirrored(swapped.rail); // channels that open outwards
    CHECK(of(swapped).free_nm_per_deg > 0.3 * three.free_nm_per_deg);
    CHECK(swapped.rail.shear_centre.y_mm == -ladder(open, bridge, {0, 2600}).rail.shear_centre.y_mm);
}

TEST_CASE("what can't be twisted says why", "[frame][ladder]") {
    const std::vector<std::string> rail{"box", "100", "60", "4"};
    const auto why = [](const Ladder& l) {
        const auto t = twistOf(l);
        REQUIRE_FALSE(t);
        return t.error().message;
    };
    CHECK(why(ladder(rail, rail, {0})).find("Fewer than two") != std::string::npos);
    CHECK(why(ladder(rail, rail, {0, 4000})).find("does not reach bridge b1") != std::string::npos);
    Ladder far = ladder(rail, rail, {0, 1000});
    far.rear_axle_mm = 5000;
    CHECK(why(far).find("the rear axle") != std::string::npos);
    Ladder none = ladder(rail, rail, {0, 1000});
    none.left.clear();
    CHECK_FALSE(twistOf(none));
    Ladder same = ladder(rail, rail, {0, 1000});
    same.rear_axle_mm = 20;
    CHECK(why(same).find("less than 100") != std::string::npos);
}

} // namespace frame_ladder_test
