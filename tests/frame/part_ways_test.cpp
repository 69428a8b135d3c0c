// How ends move when rails part, against the textbook's overhanging beams.
#include "frame/part_ways.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace frame_part_ways_test {

using namespace gorvet;
using namespace gorvet::frame;

namespace {

constexpr double g = 9.81;

std::vector<Weight> even(double from, double to, double kg, int n = 4000) {
    std::vector<Weight> all;
    for (int k = 0; k < n; ++k) all.push_back({kg / n, {from + (to - from) * (k + 0.5) / n, 0, 0}, false});
    return all;
}

} // namespace

TEST_CASE("an end that hangs over, by its own weight and by a force", "[frame][parts][closed-form]") {
    // supports l apart, the end a beyond the nearer one; even load w over all of it
    const double l = 1200, a = 500, ei = 2e11, kg = 60;
    const double w = kg * g / (l + a);
    const auto m = endMoves(even(0, l + a, kg), l, 0, l + a, ei);
    // end: w a (4 a² l + 3 a³ − l³) / 24 E I (Roark, overhanging beam under an even load)
    CHECK(m.drops_mm == Approx(w * a * (4 * a * a * l + 3 * a * a * a - l * l * l) / (24 * ei)).epsilon(1e-5));
    // one newton at the end: a² (l + a) / 3 E I
    CHECK(m.yields_mm_n == Approx(a * a * (l + a) / (3 * ei)).epsilon(1e-9));
    // the rear half is its mirror image: it drops alike, and leans the other way
    const auto rear = endMoves(even(3000 - (l + a), 3000, kg), 3000 - l, 3000, 3000 - (l + a), ei);
    CHECK(rear.drops_mm == Approx(m.drops_mm).epsilon(1e-6));
    CHECK(rear.leans_rad == Approx(-m.leans_rad).epsilon(1e-6));
    // a load between the supports lifts the end: it is the slope at the support times its length
    std::vector<Weight> middle{{100, {l / 2, 0, 0}, true}};
    const auto lifted = endMoves(middle, l, 0, l + a, ei);
    CHECK(lifted.drops_mm == Approx(-(100 * g * l * l / (16 * ei)) * a).epsilon(1e-9));
    CHECK(lifted.leans_rad == Approx(-(100 * g * l * l / (16 * ei))).epsilon(1e-9));
}

TEST_CASE("tubes across the cut: nothing of them leaves the step, stiff ones leave none", "[frame][parts]") {
    EndMoves ahead, behind;
    ahead.yields_mm_n = behind.yields_mm_n = 2e-3;
    CHECK(stepWithTies(1, ahead, behind, 0, 400) == Approx(1));
    CHECK(stepWithTies(1, ahead, behind, 1e15, 400) == Approx(0).margin(1e-6));
    // as two springs: ends that give 4e-3 together, two tubes of 12 E I / l³
    const double k = 2 * 12 * 2e10 / std::pow(400, 3);
    CHECK(stepWithTies(1, ahead, behind, 2e10, 400) == Approx(1 / (1 + 4e-3 * k)));
}

} // namespace frame_part_ways_test
