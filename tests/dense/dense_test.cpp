// The decompositions that all rooms share, by what they promise: none is compared with itself.
#include "dense/dense.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace dense_dense_test {

using namespace gorvet;
using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

namespace {

MatrixXd randomOf(std::mt19937& rng, Index rows, Index columns) {
    return MatrixXd::NullaryExpr(rows, columns, [&] { return test::normal(rng, 1); });
}
/// Of a rank that is less than its sides.
MatrixXd poorOf(std::mt19937& rng, Index rows, Index columns, Index rank) {
    return randomOf(rng, rows, rank) * randomOf(rng, rank, columns);
}
double sizeOf(const MatrixXd& m) { return m.size() ? m.cwiseAbs().maxCoeff() : 0; }
bool isOrthonormal(const MatrixXd& m) { return sizeOf(m.transpose() * m - MatrixXd::Identity(m.cols(), m.cols())) < 1e-12; }

} // namespace

TEST_CASE("eigenpairs and singular values make the matrix again, in their order", "[dense][property]") {
    std::mt19937 rng(21);
    for (Index n = 1; n <= 12; ++n) {
        const MatrixXd m = randomOf(rng, n, n), symmetric = m + m.transpose();
        const dense::Eigenpairs own = dense::eigenpairs(symmetric);
        CHECK(isOrthonormal(own.vectors));
        CHECK(sizeOf(own.vectors * own.values.asDiagonal() * own.vectors.transpose() - symmetric) < 1e-11);
        MatrixXd lower = symmetric; // the upper half is not looked at
        lower.triangularView<Eigen::StrictlyUpper>().setConstant(1e6);
        CHECK(sizeOf(dense::eigenpairs(lower).values - own.values) < 1e-11);
        for (const Index rows : {n, n + 3, std::max<Index>(1, n - 2)}) {
            const MatrixXd oblong = randomOf(rng, rows, n);
            const dense::Singular both = dense::singular(oblong, dense::Sides::Both);
            REQUIRE(both.values.size() == std::min(rows, n));
            REQUIRE((both.left.cols() == rows && both.right.cols() == n));
            CHECK((isOrthonormal(both.left) && isOrthonormal(both.right)));
            const Index k = both.values.size();
            const MatrixXd again = both.left.leftCols(k) * both.values.asDiagonal() * both.right.leftCols(k).transpose();
            CHECK(sizeOf(again - oblong) < 1e-11);
            for (Index i = 1; i < k; ++i) CHECK(both.values(i) <= both.values(i - 1));
            CHECK(sizeOf(dense::singular(oblong, dense::Sides::Right).right - both.right) < 1e-12);
            CHECK(sizeOf(dense::singular(oblong, dense::Sides::Left).left - both.left) < 1e-12);
        }
    }
}

TEST_CASE("least squares leave what no column can do, and the shortest is the shortest", "[dense][property]") {
    std::mt19937 rng(22);
    for (int round = 0; round < 60; ++round) {
        const Index n = 2 + round % 7, rows = n + 1 + round % 5, rank = round % 3 ? n : n - 1;
        const MatrixXd m = poorOf(rng, rows, n, rank);
        const VectorXd right = randomOf(rng, rows, 1);
        const dense::ByColumns by(m);
        CHECK(by.rank() == rank);
        for (Index k = 1; k < rank; ++k) CHECK(std::abs(by.pivot(k)) <= std::abs(by.pivot(k - 1)) * (1 + 1e-12));
        const VectorXd x = dense::leastSquares(m, right), least = dense::leastNorm(m, right);
        CHECK(sizeOf(m.transpose() * (m * x - right)) < 1e-9);
        CHECK(sizeOf(m.transpose() * (m * least - right)) < 1e-9);
        CHECK(least.norm() <= x.norm() * (1 + 1e-9));
        const MatrixXd p = dense::pseudoInverse(m); // the four conditions of Penrose
        CHECK(sizeOf(m * p * m - m) < 1e-8);
        CHECK(sizeOf(p * m * p - p) < 1e-8);
        CHECK(sizeOf(m * p - (m * p).transpose()) < 1e-9);
        CHECK(sizeOf(p * m - (p * m).transpose()) < 1e-9);
        CHECK(sizeOf(p * right - least) < 1e-8 * std::max(1.0, least.norm()));
    }
}

TEST_CASE("square ones are solved where they can be, and elimination says where not", "[dense][property]") {
    std::mt19937 rng(23);
    for (Index n = 2; n <= 14; ++n) {
        const MatrixXd m = randomOf(rng, n, n);
        const VectorXd right = randomOf(rng, n, 1);
        const auto x = dense::eliminated(m, right, 1e-9);
        REQUIRE(x);
        CHECK(sizeOf(m * *x - right) < 1e-9);
        CHECK(sizeOf(m * dense::inverse(m) - MatrixXd::Identity(n, n)) < 1e-9);
        CHECK(std::abs(dense::determinant(m)) == Approx(dense::singular(m, dense::Sides::Left).values.prod()));
        MatrixXd swapped = m; // rows changed about: the other sign
        swapped.row(0).swap(swapped.row(1));
        CHECK(dense::determinant(swapped) == Approx(-dense::determinant(m)));
        CHECK_FALSE(dense::eliminated(poorOf(rng, n, n, n - 1), right, 1e-9));
        CHECK_FALSE(dense::eliminated(MatrixXd::Constant(n, n, std::nan("")), right, 1e-9));
    }
}

TEST_CASE("symmetric ones are solved, rooted and spanned", "[dense][property]") {
    std::mt19937 rng(24);
    for (Index n = 1; n <= 12; ++n) {
        const MatrixXd m = randomOf(rng, n + 2, n), a = m.transpose() * m;
        const VectorXd b = randomOf(rng, n, 1);
        CHECK(sizeOf(a * dense::solveSymmetric(a, b) - b) < 1e-8);
        CHECK(sizeOf(a * dense::inverseSymmetric(a) - MatrixXd::Identity(n, n)) < 1e-8);
        const MatrixXd root = dense::root(a);
        CHECK(sizeOf(root * root.transpose() - a) < 1e-11);
        CHECK(sizeOf(MatrixXd(root.triangularView<Eigen::StrictlyUpper>())) == 0);
        CHECK(sizeOf(root * dense::solveRoot(root, b) - b) < 1e-8);
        CHECK(sizeOf(root.transpose() * dense::solveRootTransposed(root, b) - b) < 1e-8);
        const MatrixXd ways = dense::orthonormal(m);
        REQUIRE(ways.cols() == n);
        CHECK(isOrthonormal(ways));
        CHECK(sizeOf(ways * (ways.transpose() * m) - m) < 1e-11); // what m spans lies in them
    }
}

} // namespace dense_dense_test
