// Cross joints against closed forms, and against a chain put together from them by hand.
#include "drive/joints.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

namespace drive_joints_test {

using namespace gorvet;
using drive::ChainJoint;
using geometry::Vec3;

constexpr double deg = std::numbers::pi / 180;

Vec3 line(double slope, double swing) { return geometry::unit({1, std::tan(swing), -std::tan(slope)}); }

/// How far the driven side of one joint stands when the driving fork stands at t from the joint's plane: tan out = tan t / cos β.
double through(double t, double beta) { return std::atan2(std::sin(t), std::cos(beta) * std::cos(t)); }

TEST_CASE("one cross joint runs ahead and behind as the closed form says", "[drive][joints]") {
    for (const double beta : {0.5 * deg, 3 * deg, 12 * deg, 30 * deg, 45 * deg}) {
        const ChainJoint joint{line(0.1, 0.05), {}, false, 0};
        // turned by β about any axis across it
        const Vec3 in = joint.in, side = geometry::unit(geometry::cross(in, {0.3, 0.2, 1}));
        const Vec3 out = geometry::plus(geometry::times(in, std::cos(beta)), geometry::times(side, std::sin(beta)));
        CHECK(drive::angleBetween(in, out) == Approx(beta).epsilon(1e-12));
        const double most = std::atan((1 - std::cos(beta)) / (2 * std::sqrt(std::cos(beta))));
        CHECK(drive::exactLead({{in, out, false, 0}}, 20'000) == Approx(most).epsilon(1e-6));
        CHECK(drive::residualAngle({{in, out, false, 0}}) == Approx(beta).epsilon(1e-12));
    }
    // the ratio is the slope of that angle
    for (double t = 0; t < 6.2; t += 0.37) {
        const double beta = 20 * deg, h = 1e-6;
        CHECK(drive::ratioOfCross(beta, t) ==
              Approx(std::remainder(through(t + h, beta) - through(t - h, beta), 2 * std::numbers::pi) / (2 * h)).epsilon(1e-8));
    }
}

TEST_CASE("two equal joints cancel in phase and add a quarter turn off", "[drive][joints]") {
    const double beta = 8 * deg;
    for (const bool mirrored : {false, true}) {
        const Vec3 engine = line(4 * deg, 0), shaft = line(4 * deg + beta, 0),
                   pinion = line(mirrored ? 4 * deg + 2 * beta : 4 * deg, 0);
        const std::vector<ChainJoint> in_phase{{engine, shaft, false, 0}, {shaft, pinion, false, 0}};
        CHECK(drive::residualAngle(in_phase) < 1e-7);
        CHECK(drive::exactLead(in_phase) < 1e-12);
        const std::vector<ChainJoint> off{{engine, shaft, false, 0}, {shaft, pinion, false, std::numbers::pi / 2}};
        CHECK(drive::residualAngle(off) == Approx(std::sqrt(2) * beta).epsilon(1e-9));
        // both leads add: tan of the second from the first's
        double most = 0;
        for (int k = 0; k < 20'000; ++k) {
            const double t = 2 * std::numbers::pi * k / 20'000;
            most = std::max(most, std::abs(std::remainder(through(through(t, beta), beta) - t, 2 * std::numbers::pi)));
        }
        CHECK(drive::exactLead(off, 20'000) == Approx(most).epsilon(1e-6));
    }
}

TEST_CASE("joints whose planes stand across each other do not cancel", "[drive][joints]") {
    // the second bends sideways by as much as the first bends down: (−1)¹ e^{iπ} = +1, both add
    const double beta = 5 * deg;
    const Vec3 engine{1, 0, 0}, shaft{std::cos(beta), 0, -std::sin(beta)};
    const Vec3 across = geometry::unit(geometry::cross(shaft, engine)); // to one side
    const Vec3 pinion = geometry::plus(geometry::times(shaft, std::cos(beta)), geometry::times(across, std::sin(beta)));
    const std::vector<ChainJoint> chain{{engine, shaft, false, 0}, {shaft, pinion, false, 0}};
    CHECK(drive::residualAngle(chain) == Approx(std::sqrt(2) * beta).epsilon(1e-9));
    // with a yoke turned by a quarter they do
    const std::vector<ChainJoint> clocked{{engine, shaft, false, 0}, {shaft, pinion, false, std::numbers::pi / 2}};
    CHECK(drive::residualAngle(clocked) < 1e-7);
    CHECK(drive::exactLead(clocked) < 1e-12);
}

TEST_CASE("the rule for small angles against the exact chain", "[drive][joints]") {
    std::mt19937 rng(20);
    std::uniform_real_distribution<double> any(-1, 1);
    double worst = 0;
    for (int k = 0; k < 300; ++k) {
        std::vector<ChainJoint> chain;
        Vec3 before = line(5 * deg * any(rng), 5 * deg * any(rng));
        const int joints = 1 + k % 4;
        for (int j = 0; j < joints; ++j) {
            const Vec3 next = line(6 * deg * any(rng), 6 * deg * any(rng));
            chain.push_back({before, next, k % 7 == 0 && j == 1, any(rng)});
            before = next;
        }
        const double theta = drive::residualAngle(chain), lead = drive::exactLead(chain, 1440);
        double sum = 0;
        for (const ChainJoint& j : chain) sum += std::pow(drive::angleBetween(j.in, j.out), 2);
        worst = std::max(worst, std::abs(lead - theta * theta / 4) / sum);
    }
    // up to 12° between shafts: off by less than half a hundredth of the angles' squares
    CHECK(worst < 0.005);
    CHECK(worst > 1e-5); // it is a rule for small angles, and no more
}

TEST_CASE("an even joint counts for nothing and keeps the phase", "[drive][joints]") {
    const Vec3 a{1, 0, 0}, b = line(6 * deg, 0), c = line(2 * deg, 3 * deg), d = line(8 * deg, 3 * deg);
    const std::vector<ChainJoint> even{{a, b, true, 0}, {b, c, true, 0}};
    CHECK(drive::residualAngle(even) == 0);
    CHECK(drive::exactLead(even) < 1e-12);
    const std::vector<ChainJoint> one{{a, c, true, 0}, {c, d, false, 0}};
    CHECK(drive::exactLead(one, 7200) == Approx(std::pow(drive::angleBetween(c, d), 2) / 4).epsilon(5e-3));
    CHECK(drive::residualAngle({}) == 0);
    CHECK(drive::exactLead({}) == 0);
}

} // namespace drive_joints_test
