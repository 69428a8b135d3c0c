// What holds people, and a tank's pipes: by hand, on their solids, on both sides of their limits; never said to hold.
#include "make/part_examples.hpp"
#include "make/solids_apart.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <fmt/format.h>
#include <random>

namespace make_seat_test {

using namespace gorvet;
using build::PlanVerdict;
using make::PartIn;
using make::PartPlan;
using make_parts::part;
using make_parts::said;
using make_parts::says;

PartIn seatBar(std::map<std::string, double> more = {}) {
    more.insert({{"across", 40}, {"wide", 50}, {"wall", 3}, {"first", 100}, {"apart", 300}, {"hole", 11}});
    return part("seat-bar", {{1400, 120, 620}, {1400, 720, 620}}, more);
}
PartIn belt(std::map<std::string, double> more = {}) {
    more.insert({{"wide", 80}, {"high", 60}});
    return part("belt-plate", {{1600, 700, 700}, {1650, 700, 700}, {1600, 700, 740}}, more);
}

TEST_CASE("a bar under a seat: its pieces, its mass, where its bolts are, by hand", "[make][part][seat]") {
    const PartPlan p = make::partPlan(seatBar());
    REQUIRE(p.bars.size() == 1);
    REQUIRE(p.flats.size() == 3);
    CHECK(p.bars[0].length_mm.value == Approx(600 - 8));
    // a box is round at its corners: 2 t outside, t inside
    const double box = (40 * 50 - 34 * 44 - (4 - M_PI) * (36 - 9)) * 592 * 7.85e-6;
    const double strip_long = 300 + 2 * (1.5 * 11 + 5), strip = (strip_long * 50 - 2 * M_PI / 4 * 121) * 5 * 7.85e-6;
    CHECK(p.mass_kg == Approx(box + strip + 2 * 90 * 90 * 4 * 7.85e-6).epsilon(1e-3));
    REQUIRE(p.bolts.size() == 2);
    CHECK(geometry::between(p.bolts[0].head, {1400, 220, 645}) < 1e-9);
    CHECK(geometry::between(p.bolts[1].head, {1400, 520, 645}) < 1e-9);
    CHECK(p.bolts[0].captive);
    make_parts::solidsApart(p);
    // licensed work, however strong it is
    CHECK(says(p, "part-licensed"));
    for (const double load : {10.0, 4000.0}) CHECK(make::partPlan(seatBar({{"load", load}})).verdict == PlanVerdict::Marginal);
    CHECK(make::partPlan(seatBar({{"first", 5}})).verdict == PlanVerdict::Fails);
    CHECK(make::partPlan(seatBar({{"apart", 500}})).verdict == PlanVerdict::Fails);
    CHECK(make::partPlan(seatBar({{"foot", 50}})).verdict == PlanVerdict::Fails);
}

TEST_CASE("it is a beam on two supports with two pulls: by hand, either bolt worst, on both sides of its limit",
          "[make][part][seat][closed-form]") {
    const auto moment = [](double first, double apart, double load) { // of all places, by the pulls left of each
        double most = 0;
        const double near = load / 2 * ((600 - first) + (600 - first - apart)) / 600;
        for (double x = 0; x <= 600; x += 0.5)
            most = std::max(
                most, std::abs(near * x - load / 2 * std::max(0.0, x - first) - load / 2 * std::max(0.0, x - first - apart)));
        return most;
    };
    const double upright = (40 * 50.0 * 50 * 50 - 34 * std::pow(44, 3)) / (6 * 50),
                 level = (50 * 40.0 * 40 * 40 - 44 * std::pow(34, 3)) / (6 * 40);
    for (const auto& [first, apart] : {std::pair{60.0, 300.0}, {250.0, 300.0}, {100.0, 400.0}}) {
        const auto at = [&, first = first, apart = apart](double load) {
            return make::partPlan(seatBar({{"first", first}, {"apart", apart}, {"load", load}}));
        };
        double low = 10, high = 1e6;
        for (int k = 0; k < 50; ++k) (says(at((low + high) / 2), "part-stress") ? high : low) = (low + high) / 2;
        const double m = moment(first, apart, low);
        const double near = low / 2 * (1200 - 2 * first - apart) / 600, shear = std::max(near, low - near) / (2 * 3 * 34);
        CHECK(std::sqrt(std::pow(m / std::min(level, upright), 2) + 3 * shear * shear) == Approx(235 / 1.5).epsilon(1e-3));
        CHECK(at(low * 1.01).verdict == PlanVerdict::Fails);
    }
}

TEST_CASE("a belt's plate: what gives first, by hand, and the other way about it", "[make][part][seat][closed-form]") {
    const PartPlan p = make::partPlan(belt({{"load", 13'500}, {"sheet", 6}}));
    REQUIRE(p.used);
    const double sheared = 13'500 / (280.0 * 1) / (235 / std::sqrt(3) / 1.5);
    const double m = 36 * 235 / 4.0, hinges = std::min(4 * m * (80 / 60.0 + 60 / 80.0), 4 * M_PI * m),
                 bent = 13'500 * 1.5 / hinges;
    const double pulled = 13'500 / (M_PI / 4 * 11.5 * 11.5) / (0.33 * 800), pressed = 13'500 / (11.5 * 6) / 235,
                 weld = std::max(13'500 / 280.0 / 0.707 / (0.30 * 482), 13'500 / 280.0 / (0.40 * 235));
    CHECK(*p.used == Approx(std::max({sheared, bent, pulled, pressed, weld})));
    CHECK(says(p, "part-licensed"));
    CHECK(make::partPlan(belt({{"load", 1}})).verdict == PlanVerdict::Marginal);
    for (const auto& [word, weak] : {std::pair{"sheet", 3.0}, {"skin", 0.6}}) {
        INFO(word);
        CHECK(make::partPlan(belt({{word, weak}, {"load", 20'000}})).verdict == PlanVerdict::Fails);
    }
    CHECK(p.bolts.at(0).captive);
    CHECK(p.bolts.at(0).grip_mm == Approx(7)); // sheet and plate
    const auto solids = make::partSolids(p);
    REQUIRE(solids);
    const auto box = shape::bounds(solids->at(0).solid); // behind the sheet, seen from the belt: the side that x × y looks to
    CHECK(box.min.y_mm == Approx(700 + 1).margin(1e-6));
    CHECK(box.max.y_mm == Approx(700 + 7).margin(1e-6));
    // a guess is a guess: the load of common rules, unsaid
    PartIn guessed = belt();
    guessed.figures["load"] = {13'500, 0, build::Provenance::Assumed};
    guessed.figures["sheet"] = said(8);
    guessed.figures["skin"] = said(2);
    CHECK(says(make::partPlan(guessed), "part-guess"));
    PartIn flat = belt();
    flat.places.at[2] = {1690, 700, 700};
    CHECK(make::partPlan(flat).verdict == PlanVerdict::Fails);
}

TEST_CASE("a tank's pipe falls all along: with its ±, in the leg that falls least", "[make][part][tank]") {
    const auto pipe = [](double corner_z, double fall_deg = 5) {
        return make::partPlan(part("tank-pipe", {{2700, 800, 900}, {2700, 400, corner_z}, {2700, 250, 600}},
                                   {{"across", 50}, {"wall", 1.5}, {"fall", fall_deg * M_PI / 180}}));
    };
    CHECK_FALSE(says(pipe(820), "part-sags"));
    CHECK(pipe(820).verdict == PlanVerdict::Marginal); // fuel: pressed first
    const PartPlan rises = pipe(910);
    REQUIRE(says(rises, "part-sags"));
    CHECK(rises.verdict == PlanVerdict::Fails);
    const PartPlan flat = pipe(880);
    REQUIRE(says(flat, "part-sags"));
    CHECK(flat.verdict == PlanVerdict::Marginal);
    // just enough by its figure is not enough by its ±
    CHECK(says(pipe(900 - 400 * std::tan(5.01 * M_PI / 180)), "part-sags"));
    CHECK_FALSE(says(pipe(900 - 400 * std::tan(5.5 * M_PI / 180)), "part-sags"));
    // a leg that rises is said beside one that is only not known to fall enough
    PartIn two = part("tank-pipe", {{2700, 800, 900}, {2700, 400, 902}, {2700, 100, 600}, {2700, 98, 599.7}},
                      {{"across", 20}, {"wall", 1.5}, {"radius", 20}});
    two.places.at[3] = {2700, 40, 588};
    const PartPlan both = make::partPlan(two);
    CHECK(both.verdict == PlanVerdict::Fails);
    // the fall that is said covers what it proves to be: places thrown by what they are known to
    std::mt19937 dice(9);
    std::normal_distribution<double> off(0, 0.5);
    const double falls = std::atan2(30, 400), u95 = 1.96 * 0.5 * std::sqrt(2) / 400;
    int within = 0;
    constexpr int rounds = 1500;
    for (int k = 0; k < rounds; ++k)
        within += std::abs(std::atan2(30 + off(dice) - off(dice), 400 + off(dice) - off(dice)) - falls) < u95;
    CHECK(within > 0.93 * rounds);
    CHECK(within < 0.97 * rounds);
    const auto fact = pipe(870).facts;
    REQUIRE_FALSE(fact.empty());
    CHECK(fact[0].words == fmt::format("{:.1f}° ± {:.1f}°", falls * 180 / M_PI, u95 * 180 / M_PI));
    make_parts::solidsApart(pipe(820));
}

} // namespace make_seat_test
