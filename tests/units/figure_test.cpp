// Figures and the one place where they become verdicts.
#include "units/figure.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>
#include <rapidcheck.h>
#include <rapidcheck/catch.h>

namespace units_figure_test {

using namespace gorvet::units;

TEST_CASE("a figure with its ± against a limit", "[figure]") {
    CHECK(judge({1.0, 1.5}, Limit::within(3)) == PlanVerdict::Holds);
    CHECK(judge({-2.0, 1.5}, Limit::within(3)) == PlanVerdict::Marginal);
    CHECK(judge({5.0, 1.5}, Limit::within(3)) == PlanVerdict::Fails);
    CHECK(judge({4.0, 1.5}, Limit::within(3)) == PlanVerdict::Marginal);
    CHECK(judge({0, std::nan("")}, Limit::within(3)) == PlanVerdict::Marginal);
    CHECK(judge({12, 1}, Limit::atLeast(10)) == PlanVerdict::Holds);
    CHECK(judge({10.5, 1}, Limit::atLeast(10)) == PlanVerdict::Marginal);
    CHECK(judge({8, 1}, Limit::atLeast(10)) == PlanVerdict::Fails);
    CHECK(judge({8, 1}, Limit::atMost(10)) == PlanVerdict::Holds);
}

TEST_CASE("no assumed figure makes a green verdict, by whatever arithmetic", "[figure][property]") {
    CHECK(rc::check("assumed stays assumed", [] {
        Figure sum{0, 0, Provenance::Measured};
        bool assumed = false;
        const int n = *rc::gen::inRange(1, 8);
        for (int i = 0; i < n; ++i) {
            const auto from = static_cast<Provenance>(*rc::gen::inRange(0, 3));
            assumed = assumed || from == Provenance::Assumed;
            const Figure f{*rc::gen::inRange(-50, 50) / 10.0, *rc::gen::inRange(0, 20) / 10.0, from};
            switch (*rc::gen::inRange(0, 4)) {
            case 0: sum = sum - f; break;
            case 1: sum = sum * f; break;
            case 2: sum = 0.0 * f + sum; break; // that it counts nothing does not make it known
            default: sum = sum + f;
            }
        }
        RC_ASSERT((sum.provenance == Provenance::Assumed) == assumed);
        if (assumed) RC_ASSERT(judge(sum, Limit::within(1e9)) == PlanVerdict::Marginal);
        if (!assumed) RC_ASSERT(sum.provenance == Provenance::Derived);
    }));
    CHECK(judge({1, 0}, {0, 2, Provenance::Assumed}) == PlanVerdict::Marginal); // nor an assumed limit
    CHECK(judge({5, 0, Provenance::Assumed}, Limit::within(3)) == PlanVerdict::Fails);
}

TEST_CASE("the ± of sums and products covers 95 of 100", "[figure][coverage]") {
    std::mt19937 rng(11);
    std::normal_distribution<double> error(0, 1);
    const Figure a{120, u95Of(0.8)}, b{45, u95Of(0.5)}, share{0.15, u95Of(0.004)};
    const Figure stack = a - b + 2.0 * b * share;
    int covered = 0;
    constexpr int rounds = 20'000;
    for (int i = 0; i < rounds; ++i) {
        const double x = a.value + 0.8 * error(rng), y = b.value + 0.5 * error(rng), z = b.value + 0.5 * error(rng),
                     s = share.value + 0.004 * error(rng);
        covered += std::abs(x - y + 2 * z * s - stack.value) <= stack.u95;
    }
    CHECK(covered > 0.943 * rounds);
    CHECK(covered < 0.957 * rounds);
    CHECK(sigmaOfU95(u95Of(0.7)) == Approx(0.7));
}

} // namespace units_figure_test
