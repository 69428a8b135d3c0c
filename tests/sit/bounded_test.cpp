#include "sit/bounded.hpp"

#include "dense/dense.hpp"
#include "support/support.hpp"

#include <Eigen/Core>
#include <catch2/catch.hpp>
#include <optional>

namespace sit_bounded_test {

using namespace gorvet;
using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

namespace {

MatrixXd random(std::mt19937& rng, Index rows, Index cols) {
    MatrixXd m(rows, cols);
    for (Index i = 0; i < rows; ++i)
        for (Index k = 0; k < cols; ++k) m(i, k) = test::normal(rng, 1.0);
    return m;
}

/// The best by trying every set of bounds as held exactly: slow, and independent of the solver.
std::optional<VectorXd> byTrying(const MatrixXd& j, const VectorXd& r, const MatrixXd& a, const VectorXd& b) {
    std::optional<VectorXd> best;
    double least = INFINITY;
    const Index n = j.cols();
    for (unsigned held = 0; held < (1U << a.rows()); ++held) {
        std::vector<Index> rows;
        for (Index k = 0; k < a.rows(); ++k)
            if (held >> k & 1U) rows.push_back(k);
        if (static_cast<Index>(rows.size()) > n) continue;
        const auto m = static_cast<Index>(rows.size());
        MatrixXd kkt = MatrixXd::Zero(n + m, n + m);
        VectorXd right(n + m);
        kkt.topLeftCorner(n, n) = j.transpose() * j;
        right.head(n) = -j.transpose() * r;
        for (Index k = 0; k < m; ++k) {
            kkt.row(n + k).head(n) = a.row(rows[static_cast<size_t>(k)]);
            kkt.col(n + k).head(n) = a.row(rows[static_cast<size_t>(k)]).transpose();
            right(n + k) = b(rows[static_cast<size_t>(k)]);
        }
        const VectorXd x = dense::leastNorm(kkt, right).head(n);
        if (!x.allFinite() || ((a * x - b).array() < -1e-7).any()) continue;
        if (const double cost = (j * x + r).squaredNorm(); cost < least) {
            least = cost;
            best = x;
        }
    }
    return best;
}

} // namespace

TEST_CASE("non-negative least squares meets its conditions on random problems", "[sit][property]") {
    std::mt19937 rng(3);
    for (int round = 0; round < 60; ++round) {
        const MatrixXd e = random(rng, 7, 5);
        const VectorXd f = random(rng, 7, 1);
        const VectorXd u = sit::nonNegativeLeastSquares(e, f);
        const VectorXd gradient = e.transpose() * (f - e * u);
        for (Index k = 0; k < u.size(); ++k) {
            CHECK(u(k) >= 0);
            // Karush, Kuhn, Tucker: no gain from any that is at 0, none left in those that are not
            if (u(k) > 0)
                CHECK(std::abs(gradient(k)) < 1e-9);
            else
                CHECK(gradient(k) < 1e-9);
        }
    }
}

TEST_CASE("the bounded step is the best that keeps all bounds", "[sit][property]") {
    std::mt19937 rng(11);
    int bound = 0;
    for (int round = 0; round < 80; ++round) {
        const MatrixXd j = random(rng, 8, 4);
        const VectorXd r = random(rng, 8, 1) * 3;
        const MatrixXd a = random(rng, 5, 4);
        const VectorXd b = random(rng, 5, 1);
        const auto by = sit::boundedStep(j, r, a, b);
        const auto want = byTrying(j, r, a, b);
        REQUIRE(by.possible == want.has_value());
        if (!want) continue;
        INFO("round " << round);
        CHECK((by.step - *want).norm() < 1e-5 * std::max(1.0, want->norm()));
        CHECK(((a * by.step - b).array() > -1e-7).all());
        for (Index k = 0; k < a.rows(); ++k) {
            const double spare = a.row(k).dot(by.step) - b(k);
            if (by.pressures[static_cast<size_t>(k)] > 1e-6) {
                CHECK(std::abs(spare) < 1e-6);
                ++bound;
            }
        }
    }
    CHECK(bound > 60); // the rounds do press against bounds
}

TEST_CASE("bounds that contradict are named, and only these", "[sit]") {
    const MatrixXd j = MatrixXd::Identity(2, 2);
    const VectorXd r = VectorXd::Zero(2);
    MatrixXd a(3, 2);
    a << 1, 0, -1, 0, 0, 1; // x ≥ 2, −x ≥ −1, y ≥ 5
    VectorXd b(3);
    b << 2, -1, 5;
    const auto by = sit::boundedStep(j, r, a, b);
    CHECK_FALSE(by.possible);
    CHECK(by.contradictory == std::vector<int>{0, 1});
    b(1) = -3; // x ≤ 3 goes with x ≥ 2
    const auto can = sit::boundedStep(j, r, a, b);
    REQUIRE(can.possible);
    CHECK(can.step(0) == Approx(2).margin(1e-6));
    CHECK(can.step(1) == Approx(5).margin(1e-6));
    // the pressure is the slope of the cost: d(½x²)/dx at 2
    CHECK(can.pressures[0] == Approx(2).epsilon(1e-5));
    CHECK(can.pressures[1] == 0);
}

TEST_CASE("what no pin resists stays, and moves when a bound pushes", "[sit]") {
    MatrixXd j(1, 2);
    j << 1, 0; // nothing resists y
    const VectorXd r = VectorXd::Constant(1, -4);
    auto by = sit::boundedStep(j, r, MatrixXd(0, 2), VectorXd(0));
    CHECK(by.step(0) == Approx(4).epsilon(1e-6));
    CHECK(by.step(1) == Approx(0).margin(1e-9));
    MatrixXd a(1, 2);
    a << 0.001, 1;
    by = sit::boundedStep(j, r, a, VectorXd::Constant(1, 10));
    REQUIRE(by.possible);
    CHECK(by.step(1) == Approx(9.996).epsilon(1e-4)); // y gives way, not x
    CHECK(by.step(0) == Approx(4).epsilon(1e-4));
}

} // namespace sit_bounded_test
