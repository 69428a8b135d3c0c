// Fixtures: holes, heights, what is said to stand, and a workshop that sets it up by the list.
#include "make/fixture.hpp"
#include "make/part_examples.hpp"
#include "make/rail_mesh.hpp"
#include "shape/plain_mesh.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace make_fixture_test {

using namespace gorvet;
using build::Attitude;
using build::PlanVerdict;
using build::TowerDoes;
using geometry::Vec3;
using make::FixtureIn;
using make::FixturePlan;

namespace {

/// A frame of two rails on six towers, its places known to 0.3 mm.
FixtureIn frame() {
    FixtureIn in;
    in.name = "table1";
    const std::vector<std::pair<std::string, Vec3>> at{{"Al", {103, -421, 500}},  {"Ar", {103, 421, 501}},
                                                       {"Bl", {1512, -421, 498}}, {"Br", {1512, 421, 500}},
                                                       {"Cl", {2688, -421, 560}}, {"Cr", {2688, 421, 561}}};
    for (const auto& [name, p] : at) {
        make::FixtureTower t;
        t.name = name;
        t.at = in.places.at.size();
        t.below = make_parts::said(100); // under a rail
        in.places.names.push_back(name);
        in.places.at.push_back(p);
        in.towers.push_back(t);
    }
    const std::size_t n = 3 * at.size();
    in.places.covariance.assign(n * n, 0);
    for (std::size_t k = 0; k < n; ++k) in.places.covariance[k * n + k] = 0.09;
    return in;
}
bool says(const FixturePlan& p, const std::string& code) {
    return std::any_of(p.remarks.begin(), p.remarks.end(), [&](const auto& r) { return r.code == code; });
}
const make::TowerPlan& tower(const FixturePlan& p, const std::string& name) {
    return *std::find_if(p.towers.begin(), p.towers.end(), [&](const auto& t) { return t.name == name; });
}

/// Someone who has nothing but the list: puts towers into its holes, packers on them, slides each head by its figures, and lays
/// the frame on. Returns by how much the heads miss the frame's places at the worst, the frame laid on the first three by height.
double setUpByHand(const FixtureIn& in, const FixturePlan& p, bool then) {
    std::vector<Vec3> heads, places;
    for (std::size_t k = 0; k < p.towers.size(); ++k) {
        const auto& t = p.towers[k];
        const make::TowerState& s = then && t.then ? *t.then : t.now;
        double high = s.tower_mm;
        for (const double packer : s.packers_mm) high += packer;
        heads.push_back({s.column * in.pitch_mm + s.off_along_mm, s.row * in.pitch_mm + s.off_across_mm, high});
        const auto& from = in.towers[k];
        Vec3 place = geometry::plus(then && from.planned ? *from.planned : in.places.at[from.at], from.pull);
        place = make::rolled(in.attitude, place);
        place.z_mm -= from.below.value;
        places.push_back(place);
    }
    double worst = 0; // both patterns against each other, pair by pair: laid on without turning
    for (std::size_t i = 0; i < heads.size(); ++i)
        for (std::size_t j = 0; j < i; ++j) {
            const Vec3 a = geometry::minus(heads[i], heads[j]), b = geometry::minus(places[i], places[j]);
            worst = std::max(worst, geometry::between(a, b));
        }
    return worst;
}

} // namespace

TEST_CASE("a shift onto the grid is the best there is: against every tenth of a millimetre", "[make][fixture][property]") {
    std::mt19937 dice(3);
    std::uniform_real_distribution<double> any(-3000, 3000);
    for (int k = 0; k < 60; ++k) {
        std::vector<double> places;
        for (int i = 0; i < 1 + k % 9; ++i) places.push_back(any(dice));
        const double pitch = k % 2 ? 50 : 75;
        const auto worstAt = [&](double shift) {
            double worst = 0;
            for (const double p : places) worst = std::max(worst, std::abs(std::remainder(p + shift, pitch)));
            return worst;
        };
        const auto best = make::gridShift(places, pitch);
        CHECK(worstAt(best.shift) == Approx(best.worst).margin(1e-6));
        double brute = 1e9;
        for (double s = 0; s < pitch; s += 0.1) brute = std::min(brute, worstAt(s));
        CHECK(best.worst <= brute + 1e-9);
        CHECK(best.worst >= brute - 0.06);
    }
}

TEST_CASE("holes have names as a sheet has", "[make][fixture]") {
    CHECK(make::holeName(0, 0) == "A1");
    CHECK(make::holeName(11, 25) == "Z12");
    CHECK(make::holeName(4, 26) == "AA5");
    CHECK(make::holeName(4, 27) == "AB5");
    CHECK(make::holeName(4, 26 + 26 * 26) == "AAA5");
}

TEST_CASE("a workshop that has the list alone sets up every tower where the frame comes to lie", "[make][fixture][workshop]") {
    std::mt19937 dice(12);
    std::uniform_real_distribution<double> off(-60, 60), down(0, 120);
    for (int round = 0; round < 60; ++round) {
        FixtureIn in = frame();
        in.attitude = round % 3 == 0 ? Attitude::RightWayUp : round % 3 == 1 ? Attitude::Inverted : Attitude::OnItsSide;
        in.across = 80;
        in.tower_most_mm = 2500;
        in.reach_mm = 60;
        in.packer_mm = round % 2 ? 0.5 : 1;
        for (std::size_t k = 0; k < in.towers.size(); ++k) {
            for (std::size_t a = 0; a < 3; ++a) in.places.at[k][a] += off(dice);
            in.towers[k].below = make_parts::said(down(dice));
            if (round % 2 && k >= 2) in.towers[k].planned = geometry::plus(in.places.at[k], {-139.8, 0, -2});
        }
        if (round % 4 == 1) in.towers[5].does = TowerDoes::Pull, in.towers[5].pull = {0, 3, 5};
        const FixturePlan p = make::fixturePlan(in);
        INFO(round);
        REQUIRE(p.made());
        for (const auto& r : p.remarks) UNSCOPED_INFO(r.sentence);
        CHECK_FALSE(says(p, "fixture-low"));
        CHECK_FALSE(says(p, "fixture-high"));
        // each is off by no more than half of the thinnest packer in height, two of them by a whole one
        CHECK(setUpByHand(in, p, false) <= in.packer_mm + 1e-6);
        if (round % 2) CHECK(setUpByHand(in, p, true) <= in.packer_mm + 1e-6);
        for (const auto& t : p.towers) {
            CHECK(t.then.has_value() == (round % 2 == 1 && t.name[0] != 'A'));
            CHECK(t.now.column >= 0);
            CHECK(t.now.column < in.along);
            CHECK(t.now.row >= 0);
            CHECK(t.now.row < in.across);
            CHECK(std::abs(t.now.off_along_mm) <= in.pitch_mm / 2 + 1e-9);
            CHECK(p.line_mm + t.now.over_line_mm == Approx(t.now.head_mm.value));
            CHECK(t.now.over_line_mm > 0);
        }
    }
}

TEST_CASE("the ± of a head covers where it proves to be", "[make][fixture][coverage]") {
    const FixtureIn in = frame();
    const FixturePlan p = make::fixturePlan(in);
    std::mt19937 dice(17);
    std::normal_distribution<double> moved(0, 0.3);
    int within = 0;
    constexpr int rounds = 3000;
    for (int k = 0; k < rounds; ++k) within += std::abs(moved(dice)) <= tower(p, "Br").now.head_mm.u95; // its height's own survey
    CHECK(within > 0.93 * rounds);
    CHECK(within < 0.97 * rounds);
    for (const auto& m : p.across) {
        CHECK(m.u95_mm == Approx(1.96 * 0.3 * std::sqrt(2.0)).epsilon(0.01));
        CHECK(m.mm > 500);
    }
    CHECK(p.across.size() == 6);
    CHECK(says(make::fixturePlan([] {
                   FixtureIn rough = frame();
                   for (double& v : rough.places.covariance) v *= 25;
                   return rough;
               }()),
               "fixture-known"));
    CHECK_FALSE(says(p, "fixture-known"));
}

TEST_CASE("what does not stand, does not reach or has no room is refused", "[make][fixture]") {
    const FixturePlan plain = make::fixturePlan(frame());
    CHECK(plain.remarks.empty());
    CHECK(plain.verdict == PlanVerdict::Marginal); // what its towers bear was not looked at: nothing holds by that
    const auto fails = [](const FixtureIn& in, const char* code) {
        const FixturePlan p = make::fixturePlan(in);
        INFO(code);
        CHECK(says(p, code));
        CHECK(p.verdict == PlanVerdict::Fails);
    };
    FixtureIn in = frame();
    for (const std::size_t k : {std::size_t{1}, std::size_t{3}, std::size_t{5}})
        in.towers[k].does = TowerDoes::Pull, in.towers[k].pull = {0, 0, 1};
    fails(in, "fixture-stands"); // three in a line are left
    fails(in, "fixture-free");
    in = frame();
    in.towers.resize(2);
    fails(in, "fixture-stands");
    in = frame(); // cut between A and B: what is left in front stands on two
    for (std::size_t k = 2; k < 6; ++k) in.towers[k].planned = geometry::plus(in.places.at[k], {-140, 0, 0});
    fails(in, "fixture-stands");
    CHECK(says(make::fixturePlan(in), "fixture-moved"));
    for (std::size_t k = 0; k < 2; ++k) in.towers[k].planned = geometry::plus(in.places.at[k], {-140, 0, 0}); // all of it
    CHECK_FALSE(says(make::fixturePlan(in), "fixture-stands"));
    in = frame();
    in.along = 40;
    fails(in, "fixture-table");
    in = frame();
    in.high_mm = -300; // heads at 100 over the table
    fails(in, "fixture-low");
    in.high_mm = 600;
    fails(in, "fixture-high");
    in = frame();
    in.reach_mm = 2;
    in.places.at[0].x_mm += 20;
    fails(in, "fixture-reach");
    in = frame();
    in.places.at[1] = {120, -421, 500};
    in.towers[0].name = "A";
    fails(in, "fixture-near");
    in = frame();
    for (const std::size_t k : {std::size_t{0}, std::size_t{1}, std::size_t{2}}) in.towers[k].does = TowerDoes::Clamp;
    in.towers[5].does = TowerDoes::Pull;
    in.towers[5].pull = {0, 0, 4};
    FixturePlan p = make::fixturePlan(in);
    CHECK_FALSE(says(p, "fixture-free"));
    CHECK(says(p, "fixture-pull"));
    CHECK(p.verdict == PlanVerdict::Marginal);
    CHECK(tower(p, "Cr").now.head_mm.value == Approx(tower(make::fixturePlan(frame()), "Cr").now.head_mm.value + 4));
    in = frame();
    in.missing = {"the place of Al: measure it on Tape"};
    CHECK_FALSE(make::fixturePlan(in).made());
    in = frame();
    in.towers.clear();
    CHECK_FALSE(make::fixturePlan(in).made());
}

TEST_CASE("a frame comes down on its towers and off again: what stands over one is named", "[make][fixture]") {
    for (const Attitude attitude : {Attitude::RightWayUp, Attitude::Inverted}) {
        FixtureIn in = frame();
        in.attitude = attitude;
        for (auto& t : in.towers) t.below = make_parts::said(attitude == Attitude::Inverted ? 0 : 100);
        make::ServiceBody rails;
        rails.name = "the rails";
        shape::Mesh both;
        for (const double y : {-421.0, 421.0}) {
            build::RailLine rail = make_parts::rail(y, y);
            rail.points = {{0, y, 500}, {2000, y, 500}, {3000, y, 500 + 85}};
            for (const auto& q : in.places.at) (void)q;
            const shape::Mesh one = make::railFilled(rail);
            const auto from = static_cast<std::uint32_t>(both.points.size());
            both.points.insert(both.points.end(), one.points.begin(), one.points.end());
            for (auto tri : one.triangles) {
                for (auto& i : tri) i += from;
                both.triangles.push_back(tri);
            }
        }
        rails.mesh = std::make_shared<const shape::Mesh>(both);
        rails.given = true;
        rails.touch_mm = 6;
        in.around = {rails};
        for (auto& q : in.places.at) q.z_mm = q.x_mm > 2000 ? 500 + 0.085 * (q.x_mm - 2000) : 500;
        FixturePlan p = make::fixturePlan(in);
        for (const auto& r : p.remarks) UNSCOPED_INFO(r.sentence);
        CHECK(p.fouls.empty());
        // an outrigger's box beside the rail, right over the tower at Bl, lower than its head
        make::ServiceBody box;
        box.name = "part o1";
        const double z = attitude == Attitude::Inverted ? 520 : 300;
        box.mesh = std::make_shared<const shape::Mesh>(
            shape::prismMesh({{-80, -80}, {80, -80}, {80, 80}, {-80, 80}}, 60, {{1512, -421, z}, {1, 0, 0}, {0, 1, 0}}));
        in.around.push_back(box);
        p = make::fixturePlan(in);
        REQUIRE(p.fouls.size() == 1);
        CHECK(says(p, "fixture-fouls"));
        CHECK(p.verdict == PlanVerdict::Fails);
        in.around.back().mesh = std::make_shared<const shape::Mesh>(
            shape::prismMesh({{-80, -80}, {80, -80}, {80, 80}, {-80, 80}}, 60, {{1200, -421, z}, {1, 0, 0}, {0, 1, 0}}));
        CHECK(make::fixturePlan(in).fouls.empty()); // beside it
    }
}

} // namespace make_fixture_test
