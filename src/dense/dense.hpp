#pragma once

#include <memory>
#include <optional>

#include <Eigen/Core>

/// Decompositions of dense matrices of any size. They are Eigen's, compiled once for all rooms: each kind takes the compiler ten
/// seconds wherever its header is used. Matrices of 3 × 3 that are decomposed by the thousand stay with Eigen's own of that size.
namespace gorvet::dense {

/// Of a symmetric matrix (its lower half is read): eigenvalues, the least first, and orthonormal eigenvectors as columns.
struct Eigenpairs {
    Eigen::VectorXd values;
    Eigen::MatrixXd vectors;
};
Eigenpairs eigenpairs(const Eigen::MatrixXd& symmetric);

enum class Sides { Left, Right, Both };
/// Singular values, the largest first, and all the orthonormal vectors of the sides asked for (m × m and n × n), by Jacobi's way.
struct Singular {
    Eigen::VectorXd values; ///< min(m, n) of them
    Eigen::MatrixXd left, right;
};
Singular singular(const Eigen::MatrixXd& m, Sides sides);

/// QR with columns chosen by what is left of them: the least squares of all that the columns of the rank can do; others stay 0.
class ByColumns {
public:
    explicit ByColumns(const Eigen::MatrixXd& m);
    ByColumns(ByColumns&&) noexcept;
    ~ByColumns();
    Eigen::VectorXd solve(const Eigen::VectorXd& right) const;
    Eigen::Index rank() const;
    /// The k-th on R's diagonal, sizes falling.
    double pivot(Eigen::Index k) const;

private:
    struct Impl;
    std::unique_ptr<Impl> impl_;
};
/// `ByColumns` for one right side.
Eigen::VectorXd leastSquares(const Eigen::MatrixXd& m, const Eigen::VectorXd& right);

/// Of all least squares the shortest, whatever the rank.
Eigen::VectorXd leastNorm(const Eigen::MatrixXd& m, const Eigen::VectorXd& right);
/// Moore and Penrose's, whatever the rank (n × m).
Eigen::MatrixXd pseudoInverse(const Eigen::MatrixXd& m);

/// By elimination of a square matrix; none where a pivot is less than `least_share` of the largest.
std::optional<Eigen::VectorXd> eliminated(const Eigen::MatrixXd& square, const Eigen::VectorXd& right, double least_share);
/// Of a square matrix that has one.
Eigen::MatrixXd inverse(const Eigen::MatrixXd& square);
double determinant(const Eigen::MatrixXd& square);

/// Of a symmetric matrix that is positive (or just not negative): A x = b by L D Lᵀ.
Eigen::VectorXd solveSymmetric(const Eigen::MatrixXd& a, const Eigen::VectorXd& b);
/// The same, for the inverse of it.
Eigen::MatrixXd inverseSymmetric(const Eigen::MatrixXd& a);

/// Cholesky's root of a symmetric positive matrix: A = L Lᵀ, L lower.
Eigen::MatrixXd root(const Eigen::MatrixXd& a);
/// L x = b and Lᵀ x = b of a lower root.
Eigen::MatrixXd solveRoot(const Eigen::MatrixXd& lower, const Eigen::MatrixXd& b);
Eigen::VectorXd solveRootTransposed(const Eigen::MatrixXd& lower, const Eigen::VectorXd& b);

/// Orthonormal columns that span what the columns of `m` span (as many, which must be independent).
Eigen::MatrixXd orthonormal(const Eigen::MatrixXd& m);

} // namespace gorvet::dense
