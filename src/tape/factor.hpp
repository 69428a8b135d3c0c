#pragma once

#include <Eigen/Core>
#include <Eigen/SparseCore>
#include <memory>
#include <vector>

/// Internal to this room.
namespace gorvet::tape {

/// A direction counts as open when its σ is above 30 000 times that of the stiffest one.
constexpr double null_share = 3e-5;

/// One row a reading, divided by its σ; one column a free unknown. At most a dozen entries a row.
using Rows = Eigen::SparseMatrix<double, Eigen::RowMajor>;

/// The normal equations AᵀA of a survey, factored: what every ± comes from. Where the readings leave a direction open, as many
/// unknowns are held for the reckoning ("pinned") as there are open directions; variances of what *is* fixed do not depend on
/// which ones. Covariances are found for what stands together in a reading (Takahashi's recursion on the factor); any other by
/// one solve. Duff, Erisman and Reid, Direct Methods for Sparse Matrices, §15.7.
class Factor {
public:
    /// `rows`: those of the readings that count; the others zero.
    explicit Factor(const Rows& rows);
    ~Factor();
    Factor(const Factor&) = delete;
    Factor& operator=(const Factor&) = delete;

    /// Directions that nothing fixes.
    int defect() const { return static_cast<int>(pinned_.size()); }
    /// Unknowns that no reading touches.
    const std::vector<int>& untouched() const { return untouched_; }
    /// Those directions without the untouched unknowns: orthonormal columns over all unknowns. May have no column.
    const Eigen::MatrixXd& nullSpace() const { return null_space_; }
    /// Q·x, with the pinned unknowns at zero.
    Eigen::VectorXd solve(const Eigen::VectorXd&) const;
    /// Entries of Q. `entry` is quick for two unknowns that stand together in a reading that counts.
    double entry(int k, int l) const;
    /// a Q aᵀ of one row.
    double quadratic(const Rows& rows, int row) const;
    /// The same for a row that does not count, whatever unknowns it joins.
    double quadraticOf(const Eigen::VectorXd& row) const { return row.dot(solve(row)); }
    int size() const { return size_; }

private:
    struct Impl;
    std::vector<int> notStiff(double limit) const;
    void pin(const Eigen::SparseMatrix<double>& normal);
    void selectInverse();
    void findNullSpace(const Eigen::SparseMatrix<double>& normal);

    int size_ = 0;
    std::unique_ptr<Impl> impl_;
    std::vector<int> pinned_;
    std::vector<char> is_pinned_;
    std::vector<int> untouched_;
    Eigen::MatrixXd null_space_;
};

} // namespace gorvet::tape
