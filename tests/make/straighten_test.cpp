// A crooked frame drawn straight: onto the image of its twin, and never by what nobody can know.
#include "make/fixture.hpp"
#include "make/straighten.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <random>

namespace make_straighten_test {

using namespace gorvet;
using namespace gorvet::make;
using geometry::Vec3;

namespace {

/// A ladder of pairs, alike left and right, turned and shifted a little: even places are left, odd ones right.
std::vector<Vec3> ladder(std::mt19937& rng, int pairs) {
    std::uniform_real_distribution<double> any(-1, 1);
    const double yaw = 0.02 * any(rng), roll = 0.03 * any(rng), pitch = 0.02 * any(rng), aside = 40 * any(rng);
    std::vector<Vec3> all;
    for (int k = 0; k < pairs; ++k) {
        const double x = 700.0 * k + 60 * any(rng), y = 400 + 80 * any(rng), z = 450 + 120 * any(rng);
        for (const int side : {-1, 1}) {
            Vec3 p{x, side * y, z};
            p = {p.x_mm * std::cos(yaw) - p.y_mm * std::sin(yaw), p.x_mm * std::sin(yaw) + p.y_mm * std::cos(yaw), p.z_mm};
            p = {p.x_mm, p.y_mm * std::cos(roll) - p.z_mm * std::sin(roll), p.y_mm * std::sin(roll) + p.z_mm * std::cos(roll)};
            p = {p.x_mm * std::cos(pitch) + p.z_mm * std::sin(pitch), p.y_mm,
                 p.z_mm * std::cos(pitch) - p.x_mm * std::sin(pitch)};
            all.push_back(geometry::plus(p, {0, aside, 0}));
        }
    }
    return all;
}
std::vector<Pair> pairsBut(int pairs, int without) {
    std::vector<Pair> all;
    for (int k = 0; k < pairs; ++k)
        if (k != without) all.emplace_back(static_cast<std::size_t>(2 * k), static_cast<std::size_t>(2 * k + 1));
    return all;
}
build::Places known(std::vector<Vec3> at, double sigma) {
    build::Places p;
    p.at = std::move(at);
    const std::size_t n = 3 * p.at.size();
    p.covariance.assign(n * n, 0);
    for (std::size_t k = 0; k < n; ++k) p.covariance[k * n + k] = sigma * sigma;
    for (std::size_t k = 0; k < p.at.size(); ++k) p.names.push_back((k % 2 ? "r" : "l") + std::to_string(k / 2));
    return p;
}

FixtureIn held(const build::Places& places, std::size_t drawn) {
    FixtureIn in;
    in.name = "table1";
    in.along = 80;
    in.places = places;
    const int pairs = static_cast<int>(places.at.size() / 2);
    for (std::size_t k = 0; k < places.at.size(); ++k) {
        FixtureTower t;
        t.name = places.names[k];
        t.at = k;
        t.does = k == drawn ? build::TowerDoes::Pull : build::TowerDoes::Clamp;
        if (k == drawn) t.twin = k ^ 1U;
        in.towers.push_back(t);
    }
    in.held = pairsBut(pairs, static_cast<int>(drawn / 2));
    return in;
}

} // namespace

TEST_CASE("a bent corner of any frame that was alike is drawn back by just what bent it", "[make][fixture][property]") {
    std::mt19937 rng(11);
    std::uniform_real_distribution<double> by(-12, 12);
    for (int round = 0; round < 300; ++round) {
        const int pairs = 3 + round % 4, bent = round % pairs;
        std::vector<Vec3> at = ladder(rng, pairs);
        const std::size_t corner = static_cast<std::size_t>(2 * bent + round % 2);
        const Vec3 off{by(rng), by(rng), by(rng)};
        at[corner] = geometry::plus(at[corner], off);
        const auto pull = drawnStraight(known(at, 0), pairsBut(pairs, bent), corner, corner ^ 1U);
        for (std::size_t axis = 0; axis < 3; ++axis) CHECK(pull[axis].value == Approx(-off[axis]).margin(1e-6));
        // drawn so, the frame's tapes across are alike again
        Vec3 drawn = at[corner];
        for (std::size_t axis = 0; axis < 3; ++axis) drawn[axis] += pull[axis].value;
        at[corner] = drawn;
        for (int k = 0; k < pairs; ++k) {
            if (k == bent) continue;
            const auto left = static_cast<std::size_t>(2 * k), own = static_cast<std::size_t>(2 * bent);
            CHECK(geometry::between(at[left], at[own + 1]) == Approx(geometry::between(at[left + 1], at[own])).margin(1e-6));
        }
    }
}

TEST_CASE("the ± of a pull covers it", "[make][fixture][coverage]") {
    std::mt19937 rng(5);
    constexpr double sigma = 0.8;
    std::normal_distribution<double> error(0, sigma);
    std::array<int, 3> within{};
    constexpr int rounds = 3000;
    for (int round = 0; round < rounds; ++round) {
        const int pairs = 3 + round % 3, bent = round % pairs;
        std::vector<Vec3> at = ladder(rng, pairs);
        const std::size_t corner = static_cast<std::size_t>(2 * bent + 1);
        const Vec3 off{3, -2, 6};
        at[corner] = geometry::plus(at[corner], off);
        for (Vec3& p : at)
            for (std::size_t axis = 0; axis < 3; ++axis) p[axis] += error(rng);
        const auto pull = drawnStraight(known(at, sigma), pairsBut(pairs, bent), corner, corner ^ 1U);
        for (std::size_t axis = 0; axis < 3; ++axis) within[axis] += std::abs(pull[axis].value + off[axis]) <= pull[axis].u95;
    }
    for (const int n : within) {
        CHECK(n > 0.93 * rounds);
        CHECK(n < 0.97 * rounds);
    }
}

TEST_CASE("a tower draws to the image of its twin, in the directions that the readings prove", "[make][fixture]") {
    std::mt19937 rng(2);
    std::vector<Vec3> at = ladder(rng, 4);
    at[5].z_mm -= 9; // its right corner hangs
    const FixtureIn in = held(known(at, 0.5), 5);
    const FixturePlan p = fixturePlan(in);
    const TowerPlan& t = p.towers[5];
    REQUIRE(t.straight);
    CHECK((*t.straight)[2].value == Approx(9).margin(1e-6));
    CHECK(t.pull.find("9.0 ± ") == 0);
    CHECK(t.pull.ends_with(" up"));
    CHECK(t.pull.find("right") == std::string::npos); // not proven: not drawn
    // its head stands where the image is, and is known as the image is
    const Vec3 image = mirrored(mirrorOf(at, in.held), at[4]);
    CHECK(t.now.head_mm.value == Approx(image.z_mm + p.high_mm));
    CHECK(t.now.head_mm.u95 != Approx(p.towers[4].now.head_mm.u95));
    CHECK(p.verdict == PlanVerdict::Marginal); // one that is drawn never holds

    const auto says = [](const FixturePlan& plan, const char* code) {
        return std::any_of(plan.remarks.begin(), plan.remarks.end(), [&](const auto& r) { return r.code == code; });
    };
    CHECK_FALSE(says(p, "fixture-straight"));
    CHECK_FALSE(says(p, "fixture-crooked"));
    // a frame that is crooked where it is held, as a diamond is, tells nobody where the corner belongs
    std::vector<Vec3> diamond = at;
    for (std::size_t k = 1; k < diamond.size(); k += 2) diamond[k].x_mm += 6;
    const FixturePlan crooked = fixturePlan(held(known(diamond, 0.5), 5));
    CHECK(says(crooked, "fixture-crooked"));
    CHECK(crooked.verdict == PlanVerdict::Fails);
    CHECK_FALSE(says(fixturePlan(held(known(diamond, 8), 5)), "fixture-crooked")); // not proven
    // what the readings do not prove is not drawn, and said
    const FixturePlan unproven = fixturePlan(held(known(at, 8), 5));
    CHECK(says(unproven, "fixture-straight"));
    CHECK(unproven.towers[5].pull == "not at all");
    // a slip of a reading makes no frame of its own
    at[5].y_mm += 400;
    const FixturePlan absurd = fixturePlan(held(known(at, 0.5), 5));
    CHECK(says(absurd, "fixture-straight"));
    CHECK(absurd.verdict == PlanVerdict::Fails);
}

TEST_CASE("a frame that is alike where it is held is hardly ever called crooked, one that is not mostly is",
          "[make][fixture][coverage]") {
    std::mt19937 rng(9);
    constexpr double sigma = 0.8;
    std::normal_distribution<double> error(0, sigma);
    int wrongly = 0, rightly = 0;
    constexpr int rounds = 400;
    for (int round = 0; round < rounds; ++round)
        for (const double lean : {0.0, 8.0}) {
            std::vector<Vec3> at = ladder(rng, 4);
            for (std::size_t k = 1; k < at.size(); k += 2) at[k].x_mm += lean;
            for (Vec3& p : at)
                for (std::size_t axis = 0; axis < 3; ++axis) p[axis] += error(rng);
            const FixturePlan plan = fixturePlan(held(known(at, sigma), 5));
            const bool said =
                std::any_of(plan.remarks.begin(), plan.remarks.end(), [](const auto& r) { return r.code == "fixture-crooked"; });
            (lean > 0 ? rightly : wrongly) += said;
        }
    INFO(wrongly << " wrongly, " << rightly << " rightly of " << rounds);
    CHECK(wrongly < 0.03 * rounds);
    CHECK(rightly > 0.95 * rounds);
}

} // namespace make_straighten_test
