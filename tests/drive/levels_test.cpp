// Slopes read against plumb on a vehicle that is not level: by hand, ± by simulation, and a sign that slipped.
#include "drive/levels.hpp"
#include "drive/line.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

namespace drive_levels_test {

using namespace gorvet;
using namespace gorvet::drive;

constexpr double deg = std::numbers::pi / 180, sigma = 0.1 * deg;

TEST_CASE("the frame's own slope is taken off, and both readings make the ±", "[drive][levels]") {
    // frame 0.6° nose down (the back is high), engine 3.1° down at the back
    const Levels l = levelled({{-1, -0.6 * deg, sigma}, {0, 2.5 * deg, sigma}}, {}, 2);
    REQUIRE(l.frame);
    CHECK(l.frame->value == Approx(-0.6 * deg));
    REQUIRE(l.units[0]);
    CHECK(l.units[0]->value == Approx(3.1 * deg));
    CHECK(l.units[0]->u95 == Approx(build::u95Of(sigma * std::sqrt(2))));
    CHECK_FALSE(l.units[1]);
    CHECK(l.readings[0].redundancy == Approx(0).margin(1e-9));
    CHECK(l.readings[0].standardised == 0); // nothing checks it
    // never read on the frame: taken as level to a degree, and assumed
    const Levels none = levelled({{0, 2.5 * deg, sigma}}, {}, 1);
    CHECK_FALSE(none.frame);
    CHECK(none.units[0]->provenance == build::Provenance::Assumed);
    CHECK(none.units[0]->u95 == Approx(build::u95Of(std::hypot(sigma, 1 * deg))));
    CHECK(levelled({}, {}, 0).units.empty());
}

TEST_CASE("a sign that slipped accuses itself and nobody else", "[drive][levels]") {
    // a shaft that the survey knows at 3.4°, read with the wrong end down
    const std::vector<LevelIn> readings{
        {-1, 0.6 * deg, sigma}, {-1, 0.55 * deg, sigma}, {0, 3.7 * deg, sigma}, {0, 3.65 * deg, sigma}, {1, -4.0 * deg, sigma}};
    const Levels l = levelled(readings, {{1, 3.4 * deg, 0.03 * deg}}, 2);
    for (std::size_t k = 0; k < 4; ++k) {
        CHECK_FALSE(l.readings[k].set_aside);
        CHECK(l.readings[k].standardised < 2.5);
    }
    CHECK(l.readings[4].set_aside);
    CHECK(l.readings[4].other_sign);
    CHECK(l.units[0]->value == Approx(3.1 * deg).margin(0.05 * deg));
    CHECK(l.units[1]->value == Approx(3.4 * deg).margin(1e-6));
    // one that is just wrong is set aside, too, and its sign is not to blame
    auto wrong = readings;
    wrong[4].slope = 6 * deg;
    const Levels w = levelled(wrong, {{1, 3.4 * deg, 0.03 * deg}}, 2);
    CHECK(w.readings[4].set_aside);
    CHECK_FALSE(w.readings[4].other_sign);
    // right, it stays
    wrong[4].slope = 4.0 * deg;
    CHECK_FALSE(levelled(wrong, {{1, 3.4 * deg, 0.03 * deg}}, 2).readings[4].set_aside);
}

TEST_CASE("the ± of slopes covers what it says", "[drive][levels][coverage]") {
    std::mt19937 rng(8);
    std::normal_distribution<double> normal;
    int all = 0, inside = 0, blamed = 0, rounds = 2000;
    const double frame = -0.6 * deg, engine = 3.1 * deg, pinion = 2.4 * deg, shaft = 4.1 * deg;
    for (int k = 0; k < rounds; ++k) {
        const auto read = [&](int unit, double slope) { return LevelIn{unit, slope + frame + sigma * normal(rng), sigma}; };
        const Levels l = levelled(
            {{-1, frame + sigma * normal(rng), sigma}, read(0, engine), read(1, pinion), read(1, pinion), read(2, shaft)},
            {{2, shaft + 0.05 * deg * normal(rng), 0.05 * deg}}, 3);
        for (const auto& [u, truth] : {std::pair{0, engine}, std::pair{1, pinion}, std::pair{2, shaft}}) {
            ++all;
            inside += std::abs(l.units[static_cast<std::size_t>(u)]->value - truth) <= l.units[static_cast<std::size_t>(u)]->u95;
        }
        for (const LevelJudged& j : l.readings) blamed += j.set_aside;
    }
    const double share = static_cast<double>(inside) / all;
    INFO("inside " << share << ", blamed " << blamed << " of " << 5 * rounds);
    CHECK(share > 0.93);
    CHECK(share < 0.97);
    CHECK(blamed < rounds / 50);
}

TEST_CASE("one level on the frame is in the slope of every unit: a mirrored line's ± know it", "[drive][levels][coverage]") {
    // engine nose up by 3.5° against the shaft, pinion nose down by 3°: the frame's error turns both the same way, and what is
    // left of both grows by it twice
    const double shaft = std::atan2(60.0, 1000.0), tail = shaft + 3.5 * deg, nose = shaft - 3 * deg, frame = -0.6 * deg;
    const auto line = [&](const Levels& l) {
        LineInput in;
        in.now.names = {"G", "P"};
        in.now.at = {{1400, 0, 320}, {2400, 0, 260}};
        in.now.covariance.assign(36, 0.0);
        in.planned = in.now.at;
        in.ends.resize(2);
        for (std::size_t k = 0; k < 2; ++k) {
            in.ends[k].name = k == 0 ? "gearbox" : "rear";
            in.ends[k].point = static_cast<int>(k);
            in.ends[k].slope = *l.units[k];
            in.ends[k].swing = {0, 0, build::Provenance::Measured};
        }
        in.ends[1].kind = build::DriveEndKind::Pinion;
        in.ends[1].on = Carrier::Rear;
        in.slope_covariance = l.covariance;
        ShaftIn s;
        s.shaft.name = "main";
        s.to = 1;
        in.shafts = {s};
        return in;
    };
    const auto readings = [&](auto&& off) {
        return std::vector<LevelIn>{
            {-1, frame + off(), sigma}, {0, frame + tail + off(), sigma}, {1, frame + nose + off(), sigma}};
    };
    const auto left = [&](const LineInput& in) { return linePlan(in).chains[0].stands[0].residual_rad; };
    const double real = left(line(levelled(readings([] { return 0.0; }), {}, 2))).value;
    const double by_hand = std::sqrt(std::pow(3.5 * deg, 2) - std::pow(3 * deg, 2));
    CHECK(real == Approx(by_hand).epsilon(1e-3));
    std::mt19937 rng(41);
    std::normal_distribution<double> normal(0, sigma);
    int bounded = 0, blind = 0;
    constexpr int rounds = 3000;
    for (int round = 0; round < rounds; ++round) {
        LineInput in = line(levelled(readings([&] { return normal(rng); }), {}, 2));
        const Figure with = left(in);
        bounded += real <= with.value + with.u95;
        in.slope_covariance.clear();
        const Figure without = left(in);
        blind += real <= without.value + without.u95;
    }
    CHECK(bounded > 0.96 * rounds); // 97.5 % by the way it is made
    INFO("with " << bounded << ", as if alone " << blind);
    CHECK(bounded < 0.998 * rounds); // a bound of a size in two directions lies on the safe side
    CHECK(blind < 0.985 * rounds);
    CHECK(blind < bounded - 0.01 * rounds); // taken as if each had a frame of its own, it promised too much
    // the slopes themselves hang together as they are made: σ² of the frame in each
    const Levels l = levelled(readings([] { return 0.0; }), {}, 2);
    CHECK(l.covariance[1] == Approx(sigma * sigma));
    CHECK(l.covariance[0] == Approx(2 * sigma * sigma));
}

} // namespace drive_levels_test
