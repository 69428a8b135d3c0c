// The factored normal equations against dense linear algebra.
#include "tape/covariance.hpp"
#include "tape/factor.hpp"

#include "dense/dense.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>

#include <Eigen/SparseCore>

namespace tape_factor_test {

using namespace gorvet;

namespace {

/// Random rows that each join up to three unknowns of `n`, as readings join the coordinates of two points.
tape::Rows randomRows(std::mt19937& rng, int m, int n) {
    std::vector<Eigen::Triplet<double>> entries;
    for (int i = 0; i < m; ++i)
        for (int e = 0; e < 3; ++e) entries.emplace_back(i, std::uniform_int_distribution<>(0, n - 1)(rng), test::normal(rng, 1));
    tape::Rows rows(m, n);
    rows.setFromTriplets(entries.begin(), entries.end());
    return rows;
}

/// Rows of small whole numbers: their products cancel exactly, as those of a frame's nominal figures do.
Eigen::MatrixXd wholeNumbers(std::mt19937& rng, int rows, int columns) {
    Eigen::MatrixXd m = Eigen::MatrixXd::Zero(rows, columns);
    std::uniform_int_distribution<int> column(0, columns - 1), value(-2, 2);
    for (int r = 0; r < rows; ++r)
        for (int k = 0; k < 3; ++k) m(r, column(rng)) = value(rng);
    return m;
}

} // namespace

TEST_CASE("entries of the inverse are those of the dense inverse", "[tape][factor]") {
    std::mt19937 rng(5);
    for (int round = 0; round < 20; ++round) {
        const int n = 6 + round * 3;
        const tape::Rows rows = randomRows(rng, 4 * n, n);
        const tape::Factor factor(rows);
        REQUIRE(factor.defect() == 0);
        const Eigen::MatrixXd whole = dense::inverse(Eigen::MatrixXd(rows).transpose() * Eigen::MatrixXd(rows));
        for (int k = 0; k < n; ++k)
            for (int l = 0; l < n; ++l) REQUIRE(factor.entry(k, l) == Approx(whole(k, l)).epsilon(1e-7).margin(1e-9));
        const Eigen::MatrixXd hat = Eigen::MatrixXd(rows) * whole * Eigen::MatrixXd(rows).transpose();
        for (int i = 0; i < rows.rows(); ++i) {
            REQUIRE(factor.quadratic(rows, i) == Approx(hat(i, i)).epsilon(1e-7));
            REQUIRE(factor.quadraticOf(Eigen::VectorXd(rows.row(i).transpose())) == Approx(hat(i, i)).epsilon(1e-7));
        }
    }
}

TEST_CASE("open directions are counted, and what is fixed keeps its variance", "[tape][factor]") {
    std::mt19937 rng(8);
    for (int round = 0; round < 20; ++round) {
        const int n = 12;
        const int open = round % 4;
        // rows that only see n − open combinations of the unknowns in the first half, and all of the second half
        const Eigen::MatrixXd seen = Eigen::MatrixXd::NullaryExpr(6 - open, 6, [&] { return test::normal(rng, 1); });
        Eigen::MatrixXd all = Eigen::MatrixXd::Zero(40, n);
        for (int i = 0; i < 20; ++i)
            all.row(i).head(6) = Eigen::RowVectorXd::NullaryExpr(6 - open, [&] { return test::normal(rng, 1); }) * seen;
        for (int i = 20; i < 40; ++i)
            all.row(i).tail(6) = Eigen::RowVectorXd::NullaryExpr(6, [&] { return test::normal(rng, 1); });
        const tape::Rows rows = all.sparseView();
        const tape::Factor factor(rows);
        REQUIRE(factor.defect() == open);
        REQUIRE(factor.nullSpace().cols() == open);
        if (open) CHECK((rows * factor.nullSpace()).cwiseAbs().maxCoeff() < 1e-6);
        const Eigen::MatrixXd tail = dense::inverse(all.rightCols(6).transpose() * all.rightCols(6));
        for (int k = 0; k < 6; ++k) CHECK(factor.entry(6 + k, 6 + k) == Approx(tail(k, k)).epsilon(1e-6));
        // a Q aᵀ of a reading does not depend on which unknowns were held for the reckoning
        const Eigen::MatrixXd pseudo = dense::pseudoInverse(all.transpose() * all);
        for (int i = 0; i < 40; ++i)
            CHECK(factor.quadratic(rows, i) == Approx((all.row(i) * pseudo * all.row(i).transpose()).value()).epsilon(1e-5));
    }
}

TEST_CASE("unknowns that nothing touches are open, each by itself", "[tape][factor]") {
    tape::Rows rows(2, 4);
    rows.insert(0, 1) = 2;
    rows.insert(1, 3) = 0.5;
    const tape::Factor factor(rows);
    CHECK(factor.defect() == 2);
    CHECK(factor.untouched() == std::vector<int>{0, 2});
    CHECK(factor.nullSpace().cols() == 0);
    CHECK(factor.entry(1, 1) == Approx(0.25));
    CHECK(factor.entry(3, 3) == Approx(4));
    CHECK(tape::Factor(tape::Rows(0, 0)).defect() == 0);
}

TEST_CASE("covariances are found column by column and remembered", "[tape][factor]") {
    struct Counting final : tape::Covariance::Source {
        mutable int asked = 0;
        std::vector<double> column(size_t k) const override {
            ++asked;
            return {1.0 * static_cast<double>(k), 2, 3};
        }
    };
    const auto source = std::make_shared<Counting>();
    const tape::Covariance c(3, source);
    const tape::Covariance copy = c;
    CHECK(c(2, 0) == 2);
    CHECK(copy(2, 1) == 2);
    CHECK(source->asked == 1);
    CHECK(c.quadratic({0, 1}, {2, 3, 0}) == Approx(2 * 0 * 2 + 2 * 2 * 3 + 3 * 1 * 2 + 3 * 2 * 3));
    CHECK(tape::Covariance(3, nullptr).column(1) == std::vector<double>(3, 0.0));
}

TEST_CASE("what is open is found where pivots are exactly nothing, and the same each time", "[tape][factor]") {
    std::mt19937 rng(12);
    int singular = 0;
    for (int round = 0; round < 1500; ++round) {
        const int columns = std::uniform_int_distribution<int>(3, 14)(rng);
        const int rows = std::uniform_int_distribution<int>(2, 18)(rng);
        const Eigen::MatrixXd m = wholeNumbers(rng, rows, columns);
        const auto rank = static_cast<int>(dense::ByColumns(m).rank());
        const tape::Factor factor(m.sparseView());
        INFO(round << ": " << rows << " × " << columns << "\n" << m);
        CHECK(factor.defect() == columns - rank);
        singular += rank < columns;
        // nothing resists along what is called open, and these are ways at right angles to each other
        const Eigen::MatrixXd& open = factor.nullSpace();
        if (open.cols() > 0) {
            CHECK((m * open).cwiseAbs().maxCoeff() < 1e-6);
            CHECK((open.transpose() * open - Eigen::MatrixXd::Identity(open.cols(), open.cols())).cwiseAbs().maxCoeff() < 1e-9);
        }
        const tape::Factor again(m.sparseView());
        CHECK(again.nullSpace() == open);
    }
    CHECK(singular > 300);
}

TEST_CASE("a pivot that is nothing only without the touch on the diagonal is open, too", "[tape][factor]") {
    // a soft pair: 2⁻²⁸ is above what counts as open, and what is left of the other after it is exactly nothing; the touch of
    // 10⁻¹¹ on the diagonal makes more of it than counts as open
    for (int order = 0; order < 6; ++order) {
        Eigen::MatrixXd m = Eigen::MatrixXd::Zero(4, 7);
        for (int pair = 0; pair < 3; ++pair) {
            const bool turned = order >> pair & 1;
            m(pair, 2 * pair + turned) = std::ldexp(1, -14);
            m(pair, 2 * pair + !turned) = std::ldexp(1, -9);
        }
        m(3, 6) = 1;
        const tape::Factor factor(m.sparseView());
        INFO(order);
        CHECK(factor.defect() == 3);
        const Eigen::MatrixXd& open = factor.nullSpace();
        REQUIRE(open.cols() == 3);
        CHECK((m * open).cwiseAbs().maxCoeff() < 1e-9);
        CHECK(factor.entry(6, 6) == Approx(1));
    }
}

} // namespace tape_factor_test
