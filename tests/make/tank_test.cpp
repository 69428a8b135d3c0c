// Tanks: what they hold, and that they are closed.
#include "make/part_examples.hpp"
#include "make/solids_apart.hpp"
#include "make/tank_volume.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace make_tank_test {

using namespace gorvet;
using build::PlanVerdict;
using geometry::Vec3;
using make_parts::part;
using make_parts::says;
using make_parts::solidsApart;

namespace {

using Corners = std::array<Vec3, 8>;
Corners wedge(double l, double w, double front, double rear, double pitch, double roll) {
    Corners c;
    for (std::size_t k = 0; k < 8; ++k) {
        const double x = k & 1 ? l : 0, y = k & 2 ? w : 0, z = k & 4 ? (k & 1 ? rear : front) : 0;
        const double z2 = z * std::cos(roll) + y * std::sin(roll), y2 = y * std::cos(roll) - z * std::sin(roll);
        c[k] = {x * std::cos(pitch) - z2 * std::sin(pitch), y2, z2 * std::cos(pitch) + x * std::sin(pitch)};
    }
    return c;
}
/// Of a level one of 220, of sheet of 1.5.
double litresOf(double from, double to, double wide) { return 0.95 * (to - from - 3) * (wide - 3) * (220 - 3) / 1e6; }
double litres(const make::PartPlan& p) {
    for (const auto& fact : p.facts)
        if (fact.what.find("holds") == 0) return std::stod(fact.words);
    return 0;
}

} // namespace

TEST_CASE("what lies below a height in a box and in a wedge, level and aslant", "[make][tank][closed-form]") {
    const auto box = wedge(500, 300, 200, 200, 0, 0);
    for (const double h : {-1.0, 0.0, 37.0, 199.0, 200.0, 500.0})
        CHECK(make::hexahedronBelow(box, h) == Approx(500 * 300 * std::clamp(h, 0.0, 200.0)).margin(1e-3));
    const auto slope = wedge(500, 300, 100, 200, 0, 0);
    CHECK(make::hexahedronBelow(slope, 1e4) == Approx(500 * 300 * 150.0));
    // over the front's height a wedge is left: its top rises from 100 to 200, at 150 it is half as long
    CHECK(make::hexahedronBelow(slope, 150) == Approx(300 * (500 * 150.0 - 250 * 50.0 / 2)));
    // aslant both ways, against places drawn at random
    std::mt19937 dice(8);
    std::uniform_real_distribution<double> share(0, 1);
    const auto tilted = wedge(500, 300, 180, 240, 0.12, -0.2);
    int whole = 0;
    std::array<int, 3> under{};
    const double heights[] = {20, 90, 180};
    constexpr int drawn = 300'000;
    for (int k = 0; k < drawn; ++k) {
        const double x = 500 * share(dice), y = 300 * share(dice), z = 240 * share(dice);
        if (z > 180 + 60 * x / 500) continue;
        ++whole;
        const double z2 = z * std::cos(-0.2) + y * std::sin(-0.2), up = z2 * std::cos(0.12) + x * std::sin(0.12);
        for (std::size_t i = 0; i < 3; ++i) under[i] += up < heights[i];
    }
    const double volume = make::hexahedronBelow(tilted, 1e4);
    CHECK(volume == Approx(500 * 300 * 210.0));
    CHECK(volume == Approx(500 * 300 * 240.0 * whole / drawn).epsilon(0.01));
    for (std::size_t i = 0; i < 3; ++i)
        CHECK(make::hexahedronBelow(tilted, heights[i]) == Approx(volume * under[i] / whole).epsilon(0.02));
    // it only grows
    double before = 0;
    for (double h = -150; h < 350; h += 3) {
        const double now = make::hexahedronBelow(tilted, h);
        CHECK(now >= before - 1e-6);
        before = now;
    }
}

TEST_CASE("a tank of flat sheet: closed, by itself, and as much inside as it says", "[make][tank]") {
    for (const double rear : {220.0, 150.0, 280.0})
        for (const double slope : {0.0, 0.08}) {
            const double l = 550, w = 600;
            const auto p = make::partPlan(part("tank", {{2400, -300, 420}, {2400, 300, 420}, {2400 + l, -300, 420 + slope * l}},
                                               {{"deep", 220}, {"deep-end", rear}, {"baffles", 0}, {"sheet", 2}}));
            INFO(rear << " " << slope);
            REQUIRE(p.made());
            solidsApart(p, 60); // its sloping top is cut square: the tips of its edges
            const double len = l * std::sqrt(1 + slope * slope);
            // what its outside holds, less its sheets, is its inside
            double sheets = 0;
            for (const auto& f : p.flats)
                if (f.name.find("strap") == std::string::npos) sheets += f.count * geometry::areaOf(f.outline) * f.thickness_mm;
            const double outside = len * w * (220 + rear) / 2;
            CHECK(litres(p) == Approx(0.95 * (outside - sheets) / 1e6).epsilon(0.004));
            CHECK(says(p, "part-tank"));
        }
}

TEST_CASE("a tank's baffles, its litres, and what is no tank", "[make][tank]") {
    const auto tank = [](std::map<std::string, double> figures, const Vec3& third = {2950, -300, 420}) {
        figures["deep"] = figures.contains("deep") ? figures["deep"] : 220;
        return make::partPlan(part("tank", {{2400, -300, 420}, {2400, 300, 420}, third}, figures));
    };
    auto p = tank({});
    std::size_t baffles = 0;
    for (const auto& f : p.flats) baffles += f.name.find("baffle") == 0;
    CHECK(baffles == 1); // 550 long: one every 300
    CHECK_FALSE(says(p, "part-baffle"));
    CHECK(says(tank({{"baffles", 0}}), "part-baffle"));
    CHECK(litres(tank({{"baffles", 2}})) < litres(p));
    const double holds = litres(p);
    CHECK_FALSE(says(tank({{"litres", holds - 0.4}}), "part-small"));
    // enough, but not with its ±: never without a word
    CHECK(says(tank({{"litres", holds - 0.1}}), "part-small"));
    CHECK(tank({{"litres", holds - 0.1}}).verdict == PlanVerdict::Marginal);
    p = tank({{"litres", holds + 5}});
    CHECK(says(p, "part-small"));
    CHECK(p.verdict == PlanVerdict::Fails);
    // as much deeper as it says, and it holds them
    const auto& remedy =
        std::find_if(p.remarks.begin(), p.remarks.end(), [](const auto& r) { return r.code == "part-small"; })->remedy;
    CHECK(litres(tank({{"deep", 220 + std::stod(remedy)}})) >= holds + 5 - 0.1);
    CHECK(says(tank({}, {2950, -260, 420}), "part-square"));
    CHECK(tank({}, {2450, -300, 420}).verdict == PlanVerdict::Fails);             // too short
    CHECK(tank({{"deep", 600}, {"deep-end", 60}}).verdict == PlanVerdict::Fails); // too steep
    CHECK(make::partPlan(part("tank", {{2400, 300, 420}, {2400, -300, 420}, {2950, 300, 420}}, {{"deep", 220}})).verdict ==
          PlanVerdict::Fails); // upside down
    // the stick: a quarter of it under the height that is named
    const auto plain = tank({{"baffles", 0}});
    int told = 0;
    for (const auto& fact : plain.facts)
        if (fact.what.find("stand over its lowest") != std::string::npos) {
            ++told;
            CHECK(std::stod(fact.what) == Approx(fact.length_mm->value * (550 - 3) * (600 - 3) / 1e6).margin(0.06));
        }
    CHECK(told == 3);
}

TEST_CASE("what a tank holds lies within its ± when its places prove to be where they may be", "[make][tank][coverage]") {
    const auto in = part("tank", {{2400, -300, 420}, {2400, 300, 420}, {2950, -300, 420}}, {{"deep", 220}, {"baffles", 0}});
    const auto told = make::partPlan(in);
    const std::string words = told.facts.front().words;
    const double u95 = std::stod(words.substr(words.find("±") + 3));
    CHECK(u95 > 0.1);
    // finer than it is written, by its sides
    const double fine =
        litresOf(2400, 2950, 600) * std::hypot(1.96 * 0.5 * std::sqrt(2.0) / 550, 1.96 * 0.5 * std::sqrt(2.0) / 600);
    CHECK(u95 == Approx(fine).margin(0.051));
    std::mt19937 dice(31);
    std::normal_distribution<double> off(0, 0.5);
    int within = 0;
    constexpr int rounds = 4000;
    for (int k = 0; k < rounds; ++k) {
        std::vector<Vec3> at = in.places.at;
        for (Vec3& p : at)
            for (std::size_t a = 0; a < 3; ++a) p[a] += off(dice);
        const Vec3 x = geometry::minus(at[2], at[0]), y = geometry::minus(at[1], at[0]);
        const Vec3 along = geometry::unit(x);
        const double wide = geometry::length(geometry::minus(y, geometry::times(along, geometry::dot(y, along))));
        within += std::abs(litresOf(0, geometry::length(x), wide) - litresOf(0, 550, 600)) <= fine;
    }
    CHECK(within > 0.93 * rounds);
    CHECK(within < 0.97 * rounds);
}

} // namespace make_tank_test
