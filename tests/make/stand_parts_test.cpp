// Perches, axle perches, shims, bought mounts.
#include "make/hole_match.hpp"
#include "make/part_examples.hpp"
#include "make/solids_apart.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <numeric>
#include <random>

namespace make_stand_parts_test {

using namespace gorvet;
using build::PlanVerdict;
using geometry::Flat;
using geometry::Vec3;
using make::PartIn;
using make::PartPlan;
using make_parts::part;
using make_parts::says;
using make_parts::solidsApart;

TEST_CASE("a perch stands on the rail's side, its hole where it was marked, whichever way its top slopes", "[make][part]") {
    for (const double tilt : {0.0, 0.35, -0.35})
        for (const double side : {1.0, -1.0}) {
            std::map<std::string, double> figures{{"hole", 13}, {"wide", 80}, {"deep", 90}, {"load", 4000}};
            if (tilt != 0) figures["tilt"] = tilt;
            const PartPlan p = make::partPlan(part("perch", {{1000, side * 545, 470}, {1000, side * 480, 440}}, figures));
            INFO(tilt << " " << side);
            REQUIRE(p.flats.size() == 2);
            CHECK(p.flats[1].count == 2);
            solidsApart(p);
            const auto solids = make::partSolids(p);
            double nearest = 1e9, top = -1e9;
            for (const auto& s : *solids)
                for (const Vec3& q : shape::mesh(s.solid, 0.05).points) {
                    nearest = std::min(nearest, side * q.y_mm);
                    top = std::max(top, q.z_mm);
                }
            CHECK(nearest == Approx(480).margin(1e-6)); // on the face, and nothing in the rail
            // the hole's middle on the top's upper side is the place
            const auto& at = p.flats[0].places[0];
            const Vec3 z = geometry::cross(at.x, at.y),
                       up = geometry::plus(at.origin, geometry::times(z, p.flats[0].thickness_mm));
            const Vec3 hole = geometry::plus(up, geometry::times(at.x, p.flats[0].holes[0].at.first));
            CHECK(geometry::between(hole, {1000, side * 545, 470}) < 1e-6);
            CHECK(z.z_mm == Approx(std::cos(tilt)));
            CHECK(side * z.y_mm == Approx(std::sin(tilt)).margin(1e-9)); // slopes down outwards
            REQUIRE(p.bolts.size() == 1);
            CHECK(geometry::between(p.bolts[0].head, {1000, side * 545, 470}) < 1e-6);
            // two webs, 65 mm out
            const double bent = 4000 * 65 / (2 * 5 * 90 * 90 / 6.0), shear = 4000 / (2.0 * 5 * 90);
            const double weld = std::hypot(4000 * 65 / (4 * 90 * 90 / 6.0), 4000 / 360.0) / 5;
            CHECK(*p.used == Approx(std::max(std::sqrt(bent * bent + 3 * shear * shear) / (235 / 1.5),
                                             std::max(weld / (0.4 * 235), weld / 0.707 / (0.3 * 482)))));
        }
    // an engine's: its torque on two mounts presses the one by torque over their distance, as so much load would
    const std::vector<Vec3> places{{1000, 545, 470}, {1000, 480, 440}};
    const auto used = [&](std::map<std::string, double> more) {
        more.insert({{"hole", 13}, {"wide", 80}, {"deep", 90}});
        return make::partPlan(part("perch", places, more)).used;
    };
    CHECK(*used({{"torque", 930}, {"spread", 620}}) == Approx(*used({{"load", 1500}})));
    CHECK(*used({{"torque", 930}, {"spread", 620}, {"load", 2500}}) == Approx(*used({{"load", 4000}})));
    CHECK_FALSE(used({{"torque", 930}})); // nobody said how far apart
    PartIn guess = part("perch", places, {{"hole", 13}, {"wide", 80}, {"deep", 90}, {"torque", 930}, {"spread", 620}});
    guess.figures["torque"].provenance = build::Provenance::Assumed;
    CHECK(says(make::partPlan(guess), "part-guess"));
    const auto fails = [](const std::vector<Vec3>& at, std::map<std::string, double> figures) {
        CHECK(make::partPlan(part("perch", at, figures)).verdict == PlanVerdict::Fails);
    };
    fails({{1000, 486, 470}, {1000, 480, 440}}, {{"hole", 13}, {"wide", 80}, {"deep", 90}}); // its hole in the rail's face
    fails({{1000, 545, 470}, {1000, 480, 440}}, {{"hole", 13}, {"wide", 20}, {"deep", 90}});
    fails({{1000, 545, 470}, {1000, 480, 440}}, {{"hole", 13}, {"wide", 80}, {"deep", 20}, {"nose", 20}});
    fails({{1000, 450, 540}, {1000, 450, 500}}, {{"hole", 13}, {"wide", 80}, {"deep", 90}}); // on the rail's top
}

TEST_CASE("an axle perch lies round its tube: the gap on the solid", "[make][part]") {
    for (const double slope : {0.0, 0.06}) {
        const double high = 62, tube = 76;
        const PartPlan p =
            make::partPlan(part("axle-perch", {{2400, 450, 400}, {2500, 450, 400 + 100 * slope}},
                                {{"tube", tube}, {"wide", 60}, {"seat", 150}, {"high", high}, {"centre", 14}, {"load", 12'000}}));
        REQUIRE(p.flats.size() == 2);
        solidsApart(p);
        CHECK(says(p, "part-axle"));
        // the tube's middle: `high` under the seat, across the car
        const Vec3 x = geometry::unit({1, 0, slope}), z = geometry::cross(x, {0, 1, 0});
        const Vec3 middle = geometry::minus({2400, 450, 400}, geometry::times(z, high));
        double least = 1e9;
        int on_it = 0;
        const auto solids = make::partSolids(p);
        for (const auto& s : *solids)
            for (const Vec3& q : shape::mesh(s.solid, 0.02).points) {
                const Vec3 from = geometry::minus(q, middle);
                const double away = std::hypot(geometry::dot(from, x), geometry::dot(from, z));
                least = std::min(least, away);
                on_it += away < tube / 2 + 0.7;
            }
        CHECK(least >= tube / 2); // nothing in the tube
        CHECK(least < tube / 2 + 0.7);
        CHECK(on_it > 150); // and all round on it
    }
    CHECK(make::partPlan(part("axle-perch", {{2400, 450, 400}, {2500, 450, 400}},
                              {{"tube", 76}, {"wide", 60}, {"seat", 150}, {"high", 45}, {"centre", 14}}))
              .verdict == PlanVerdict::Fails);
}

TEST_CASE("shims fill any gap to half of the thinnest, one on the other", "[make][part][property]") {
    std::mt19937 dice(2);
    std::uniform_real_distribution<double> gap(0.6, 60);
    for (int k = 0; k < 200; ++k) {
        const double high = gap(dice), thin = k % 2 ? 0.5 : 1;
        if (high < thin) continue;
        const PartPlan p = make::partPlan(part("shim-stack", {{1000, 450, 500}, {1000, 450, 500 + high}},
                                               {{"across", 50}, {"hole", 13}, {"thin", thin}, {"dowel", 6}}));
        INFO(high);
        REQUIRE(p.made());
        double stands = 0;
        std::vector<std::pair<double, double>> from_to;
        for (const auto& f : p.flats) {
            CHECK(static_cast<std::size_t>(f.count) == f.places.size());
            CHECK(f.thickness_mm >= thin);
            CHECK(f.holes.size() == 2);
            for (const auto& place : f.places) from_to.emplace_back(place.origin.z_mm, place.origin.z_mm + f.thickness_mm);
            stands += f.count * f.thickness_mm;
        }
        CHECK(std::abs(stands - high) <= thin / 2 + 1e-9);
        std::sort(from_to.begin(), from_to.end());
        CHECK(from_to.front().first == Approx(500));
        for (std::size_t i = 1; i < from_to.size(); ++i) CHECK(from_to[i].first == Approx(from_to[i - 1].second));
        CHECK(says(p, "part-shim")); // its places are known to ± 1.4
    }
    PartIn known = part("shim-stack", {{1000, 450, 500}, {1000, 450, 511}}, {{"across", 50}, {"hole", 13}});
    for (double& v : known.places.covariance) v *= 0.01;
    CHECK_FALSE(says(make::partPlan(known), "part-shim"));
}

namespace {

/// By turning and shifting in small steps, each order of the holes, near a first guess that least squares do not give.
double bruteWorst(const std::vector<Flat>& pattern, const std::vector<Flat>& places, bool over) {
    double best = 1e9;
    std::vector<std::size_t> order(places.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    do {
        for (const bool turned : {false, true}) {
            if (turned && !over) continue;
            for (int k = 0; k < 7200; ++k) {
                const double a = 2 * std::numbers::pi * k / 7200, c = std::cos(a), s = std::sin(a);
                std::vector<Flat> off;
                for (std::size_t i = 0; i < pattern.size(); ++i) {
                    const double u = pattern[i].first, v = turned ? -pattern[i].second : pattern[i].second;
                    off.emplace_back(c * u - s * v - places[order[i]].first, s * u + c * v - places[order[i]].second);
                }
                best = std::min(best, make::leastCircle(off).radius_mm);
            }
        }
    } while (std::next_permutation(order.begin(), order.end()));
    return best;
}

} // namespace

TEST_CASE("the least circle holds all, and none smaller does", "[make][holes][property]") {
    std::mt19937 dice(4);
    std::uniform_real_distribution<double> any(-50, 50);
    for (int k = 0; k < 200; ++k) {
        std::vector<Flat> all;
        for (int i = 0; i < 2 + k % 5; ++i) all.emplace_back(any(dice), any(dice));
        const auto c = make::leastCircle(all);
        double farthest = 0;
        for (const Flat& p : all) farthest = std::max(farthest, std::hypot(p.first - c.middle.first, p.second - c.middle.second));
        CHECK(farthest == Approx(c.radius_mm).margin(1e-6));
        for (int i = 0; i < 40; ++i) { // any other middle has one farther away
            const Flat other{c.middle.first + any(dice) / 20, c.middle.second + any(dice) / 20};
            double away = 0;
            for (const Flat& p : all) away = std::max(away, std::hypot(p.first - other.first, p.second - other.second));
            CHECK(away >= c.radius_mm - 1e-9);
        }
    }
}

TEST_CASE("holes are laid so that the worst is off least: against every turn and order", "[make][holes][property]") {
    std::mt19937 dice(9);
    std::uniform_real_distribution<double> any(-120, 120), off(-4, 4);
    for (int k = 0; k < 12; ++k) {
        const std::size_t n = 2 + static_cast<std::size_t>(k) % 3;
        std::vector<Flat> pattern, places;
        for (std::size_t i = 0; i < n; ++i) pattern.emplace_back(any(dice), any(dice));
        const double turn = any(dice), c = std::cos(turn), s = std::sin(turn);
        for (std::size_t i = 0; i < n; ++i) {
            const auto& [u, v] = pattern[(i + 1) % n];
            const double w = k % 2 ? -v : v;
            places.emplace_back(c * u - s * w + 30 + off(dice), s * u + c * w - 12 + off(dice));
        }
        INFO(k);
        const auto m = make::matchHoles(pattern, places, k % 2 == 1);
        const double brute = bruteWorst(pattern, places, k % 2 == 1);
        CHECK(m.worst_mm <= brute + 1e-6);
        CHECK(m.worst_mm >= brute - 0.15); // its steps are that coarse
        for (std::size_t i = 0; i < n; ++i) {
            const Flat lies = m.placed(pattern[i]), &to = places[m.onto[i]];
            CHECK(lies.first - to.first == Approx(m.off[i].first).margin(1e-6));
            CHECK(lies.second - to.second == Approx(m.off[i].second).margin(1e-6));
        }
    }
    // exact, turned, in another order
    const auto m = make::matchHoles({{0, 0}, {180, 0}, {180, 90}, {0, 70}}, {{10, 190}, {10, 10}, {-80, 190}, {-60, 10}}, false);
    CHECK(m.worst_mm < 1e-3);
}

namespace {

/// Four holes of a bought mount on a rail's top; what is there drawn off by so much.
PartIn bought(double off) {
    return part(
        "bought-mount", {{1000, 440, 500}, {1180, 440, 500}, {1180 + off, 470, 500}, {1000, 470 + off, 500}},
        {{"hole", 11}, {"thick", 6}, {"along-2", 180}, {"along-3", 180}, {"across-3", 30}, {"along-4", 0}, {"across-4", 30}});
}

} // namespace

TEST_CASE("a bought mount: which holes fit, which are enlarged and by how much, which never", "[make][part]") {
    PartPlan p = make::partPlan(bought(0));
    REQUIRE(p.flats.size() == 1);
    CHECK(p.flats[0].at_hand);
    CHECK(p.mass_kg == 0);
    CHECK(p.bolts.size() == 4);
    CHECK(says(p, "part-holes")); // its places are known to ± 1: held up first
    CHECK(p.verdict == PlanVerdict::Marginal);
    PartIn known = bought(0);
    for (double& v : known.places.covariance) v *= 1e-4;
    CHECK_FALSE(says(make::partPlan(known), "part-holes"));
    p = make::partPlan(bought(3));
    CHECK(says(p, "part-holes"));
    CHECK(p.verdict == PlanVerdict::Marginal);
    p = make::partPlan(bought(12));
    CHECK(p.verdict == PlanVerdict::Fails);
    PartIn three = bought(0);
    three.figures.erase("along-4");
    three.figures.erase("across-4");
    CHECK(make::partPlan(three).verdict == PlanVerdict::Fails); // three holes on four
    // one that lies straight across from the first needs no along; a number left out is no hole
    PartIn four = bought(0);
    four.figures.erase("along-4");
    CHECK(make::partPlan(four).flats.size() == 1);
    four.figures.erase("along-3");
    four.figures.erase("across-3");
    CHECK(says(make::partPlan(four), "part-outline"));
    // a mount that goes on turned over only
    PartIn odd = part("bought-mount", {{0, 0, 0}, {180, 0, 0}, {150, 60, 0}},
                      {{"hole", 11}, {"thick", 6}, {"along-2", 180}, {"along-3", 150}, {"across-3", -60}});
    odd.left = odd.right = {};
    CHECK(make::partPlan(odd).verdict == PlanVerdict::Fails);
    odd.figures["turned-over"] = make_parts::said(1);
    p = make::partPlan(odd);
    CHECK(p.verdict == PlanVerdict::Marginal);
    CHECK(std::any_of(p.facts.begin(), p.facts.end(), [](const auto& f) { return f.what == "it is turned over"; }));
}

TEST_CASE("what is said to go on as it is does, when the holes prove to be where they may be", "[make][part][coverage]") {
    const std::vector<Flat> pattern{{0, 0}, {180, 0}, {180, 30}, {0, 30}};
    std::mt19937 dice(21);
    for (const double off : {0.0, 0.3, 2.0}) {
        PartIn in = bought(off);
        constexpr double sigma = 0.12;
        for (double& v : in.places.covariance) v *= sigma * sigma / 0.25;
        const PartPlan p = make::partPlan(in);
        const auto told =
            std::find_if(p.facts.begin(), p.facts.end(), [](const auto& f) { return f.what.find("worst") != std::string::npos; });
        REQUIRE(told != p.facts.end());
        const double worst = told->length_mm->value, u95 = told->length_mm->u95;
        std::normal_distribution<double> moved(0, sigma);
        int within = 0, goes = 0;
        constexpr int rounds = 1500;
        for (int k = 0; k < rounds; ++k) {
            std::vector<Flat> places;
            for (const Vec3& q : in.places.at) places.emplace_back(q.x_mm + moved(dice), q.y_mm + moved(dice));
            const double true_worst = make::matchHoles(pattern, places, false).worst_mm;
            within += std::abs(true_worst - worst) <= u95;
            goes += true_worst <= 0.5;
        }
        INFO(off << ": " << worst << " ± " << u95);
        CHECK(within >= 0.93 * rounds);
        CHECK(within <= 0.975 * rounds);
        if (!says(p, "part-holes")) CHECK(goes >= 0.95 * rounds);
        if (off == 2.0) CHECK(goes == 0);
    }
}

} // namespace make_stand_parts_test
