#include "tape/factor.hpp"

#include "dense/dense.hpp"

#include <Eigen/SparseCholesky>
#include <algorithm>
#include <cmath>
#include <unordered_map>

namespace gorvet::tape {

using SparseMatrix = Eigen::SparseMatrix<double>;

namespace {
/// Up to this many unknowns the selected inverse is looked up in a square table, above in the factor's own columns.
constexpr int square_table = 3000;
} // namespace

struct Factor::Impl {
    Eigen::SimplicialLDLT<SparseMatrix, Eigen::Lower> ldlt;
    SparseMatrix lower;         ///< unit lower factor, columns sorted, in the permuted order
    Eigen::VectorXd d;          ///< its diagonal
    std::vector<int> place;     ///< of an unknown in the permuted order
    std::vector<double> table;  ///< selected inverse, square, permuted; empty above `square_table`
    std::vector<double> values; ///< selected inverse by the factor's own entries
    Eigen::VectorXd diagonal;   ///< of the inverse, permuted

    /// Index of an entry of `lower`; −1 where it has none.
    Eigen::Index find(int row, int column) const {
        const auto* begin = lower.innerIndexPtr() + lower.outerIndexPtr()[column];
        const auto* end = lower.innerIndexPtr() + lower.outerIndexPtr()[column + 1];
        const auto* at = std::lower_bound(begin, end, row);
        return at != end && *at == row ? at - lower.innerIndexPtr() : -1;
    }
};

Factor::~Factor() = default;

Factor::Factor(const Rows& rows)
    : size_(static_cast<int>(rows.cols())), impl_(std::make_unique<Impl>()), is_pinned_(rows.cols(), 0) {
    SparseMatrix normal = rows.transpose() * rows;
    normal.makeCompressed();
    const Eigen::VectorXd diagonal = normal.diagonal();
    for (int k = 0; k < size_; ++k)
        if (diagonal(k) <= 0) {
            untouched_.push_back(k);
            pinned_.push_back(k);
            is_pinned_[k] = 1;
        }
    if (size_ == 0) return;
    pin(normal);
    selectInverse();
    findNullSpace(normal);
}

/// The unknowns whose pivots are not above a limit. A pivot of exactly nothing ends the factoring: what comes after it is not
/// known, and not looked at.
std::vector<int> Factor::notStiff(double limit) const {
    const Eigen::VectorXd& d = impl_->ldlt.vectorD();
    const auto& unknown_at = impl_->ldlt.permutationPinv().indices();
    std::vector<int> open;
    for (int p = 0; p < size_; ++p) {
        if (!(d(p) > limit)) open.push_back(unknown_at(p));
        if (d(p) == 0) break;
    }
    return open;
}

/// Factors with the pinned unknowns taken out, and pins more until what is left is stiff in every direction.
void Factor::pin(const SparseMatrix& normal) {
    const Eigen::VectorXd diagonal = normal.diagonal();
    const double largest = std::max(diagonal.maxCoeff(), 1e-300);
    const double limit = null_share * null_share * largest;
    auto& ldlt = impl_->ldlt;
    SparseMatrix reduced = normal;
    const auto strike = [&] {
        for (int c = 0; c < size_; ++c)
            for (SparseMatrix::InnerIterator it(reduced, c); it; ++it)
                if (is_pinned_[it.row()] || is_pinned_[c]) it.valueRef() = it.row() == c ? largest : 0;
    };
    // every unknown needs its diagonal entry, also those that nothing touches
    SparseMatrix unit(size_, size_);
    unit.setIdentity();
    reduced += unit * 0.0;
    for (const int k : untouched_) reduced.coeffRef(k, k) = largest;
    reduced.makeCompressed();
    strike();
    ldlt.analyzePattern(reduced);
    const auto pinAll = [&](const std::vector<int>& more) {
        for (const int k : more) {
            pinned_.push_back(k);
            is_pinned_[k] = 1;
        }
        strike();
    };
    for (int round = 0; round <= size_; ++round) {
        // a touch on the diagonal keeps the pivots after an empty one meaningful; it is far below the limit
        ldlt.setShift(1e-11 * largest);
        ldlt.factorize(reduced);
        if (const std::vector<int> open = notStiff(limit); !open.empty()) {
            pinAll(open);
            continue;
        }
        ldlt.setShift(0);
        ldlt.factorize(reduced);
        if (const std::vector<int> open = notStiff(0); !open.empty()) {
            pinAll(open);
            continue;
        }
        // the softest direction, by inverse iteration: a chain of stiff-looking pivots can still be soft as a whole
        Eigen::VectorXd x(size_);
        for (int k = 0; k < size_; ++k) x(k) = 1 + 0.37 * std::sin(1.7 * k); // no direction is missed, and always the same
        double stiffness = largest;
        for (int k = 0; k < 12; ++k) {
            x.normalize();
            const Eigen::VectorXd y = ldlt.solve(x);
            const double size = y.norm();
            if (!(size > 0) || !std::isfinite(size)) break;
            stiffness = 1 / size;
            x = y;
        }
        if (stiffness > limit) return;
        int softest = 0;
        x.cwiseAbs().maxCoeff(&softest);
        pinAll({softest});
    }
}

/// Z = (LDLᵀ)⁻¹ where L has entries: z_ij = δ_ij/d_j − Σ_{k>j} L_kj z_ik, from the last column to the first.
void Factor::selectInverse() {
    Impl& m = *impl_;
    m.lower = m.ldlt.matrixL();
    m.lower.makeCompressed();
    m.d = m.ldlt.vectorD();
    m.place.resize(static_cast<size_t>(size_));
    const auto& p = m.ldlt.permutationP().indices();
    for (int k = 0; k < size_; ++k) m.place[k] = p(k);
    // Eigen's factor holds the unit diagonal or not, by version: it is taken out
    m.lower = m.lower.triangularView<Eigen::StrictlyLower>();
    m.lower.makeCompressed();
    m.diagonal = Eigen::VectorXd::Zero(size_);
    m.values.assign(static_cast<size_t>(m.lower.nonZeros()), 0.0);
    const bool square = size_ <= square_table;
    if (square) m.table.assign(static_cast<size_t>(size_) * size_, 0.0);
    const int* inner = m.lower.innerIndexPtr();
    const int* outer = m.lower.outerIndexPtr();
    const double* l = m.lower.valuePtr();
    const auto z = [&](int i, int k) -> double {
        if (i == k) return m.diagonal(i);
        if (square) return m.table[static_cast<size_t>(i) * size_ + k];
        const Eigen::Index at = i > k ? m.find(i, k) : m.find(k, i);
        return at < 0 ? 0.0 : m.values[at];
    };
    for (int j = size_ - 1; j >= 0; --j) {
        const int from = outer[j];
        const int until = outer[j + 1];
        for (int a = until - 1; a >= from; --a) {
            const int i = inner[a];
            double sum = 0;
            for (int b = from; b < until; ++b) sum += l[b] * z(i, inner[b]);
            m.values[a] = -sum;
            if (square) {
                m.table[static_cast<size_t>(i) * size_ + j] = -sum;
                m.table[static_cast<size_t>(j) * size_ + i] = -sum;
            }
        }
        double sum = 0;
        for (int b = from; b < until; ++b) sum += l[b] * m.values[b];
        m.diagonal(j) = 1 / m.d(j) - sum;
    }
}

/// For each pinned unknown: how the others move with it when nothing resists.
void Factor::findNullSpace(const SparseMatrix& normal) {
    std::vector<int> moved;
    for (const int k : pinned_)
        if (std::find(untouched_.begin(), untouched_.end(), k) == untouched_.end()) moved.push_back(k);
    null_space_ = Eigen::MatrixXd::Zero(size_, static_cast<Eigen::Index>(moved.size()));
    if (moved.empty()) return;
    for (size_t c = 0; c < moved.size(); ++c) {
        Eigen::VectorXd column = -Eigen::VectorXd(normal.col(moved[c]));
        for (const int k : pinned_) column(k) = 0;
        Eigen::VectorXd x = impl_->ldlt.solve(column);
        for (const int k : pinned_) x(k) = 0;
        x(moved[c]) = 1;
        null_space_.col(static_cast<Eigen::Index>(c)) = x;
    }
    null_space_ = dense::orthonormal(null_space_);
}

Eigen::VectorXd Factor::solve(const Eigen::VectorXd& x) const {
    if (size_ == 0) return {};
    Eigen::VectorXd b = x;
    for (const int k : pinned_) b(k) = 0;
    Eigen::VectorXd y = impl_->ldlt.solve(b);
    for (const int k : pinned_) y(k) = 0;
    return y;
}

double Factor::entry(int k, int l) const {
    if (is_pinned_[k] || is_pinned_[l]) return 0;
    const Impl& m = *impl_;
    const int i = m.place[k];
    const int j = m.place[l];
    if (i == j) return m.diagonal(i);
    const Eigen::Index at = i > j ? m.find(i, j) : m.find(j, i);
    if (at >= 0) return m.values[at];
    Eigen::VectorXd unit = Eigen::VectorXd::Zero(size_);
    unit(k) = 1;
    return solve(unit)(l);
}

double Factor::quadratic(const Rows& rows, int row) const {
    double sum = 0;
    for (Rows::InnerIterator a(rows, row); a; ++a)
        for (Rows::InnerIterator b(rows, row); b; ++b)
            sum += a.value() * b.value() * entry(static_cast<int>(a.col()), static_cast<int>(b.col()));
    return sum;
}

} // namespace gorvet::tape
