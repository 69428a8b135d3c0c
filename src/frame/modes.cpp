// How a frame swings by itself.
#include "frame/element.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <Eigen/Sparse>

#include <Spectra/MatOp/SparseSymMatProd.h>
#include <Spectra/SymGEigsShiftSolver.h>

namespace gorvet::frame {

namespace {

using Sparse = Eigen::SparseMatrix<double>;

Sparse matrixOf(const Model& m, const std::vector<Made>& beams, const Unknowns& u, Matrix14 Made::*which, bool masses) {
    std::vector<Eigen::Triplet<double>> entries;
    for (const auto& [row, column, v] : gathered(m, beams, u, which)) entries.emplace_back(row, column, v);
    for (std::size_t k = 0; k < u.of.size(); ++k) {
        if (u.of[k] < 0) continue;
        const Node& node = m.nodes[k / dofs];
        const double own = !masses ? node.spring[k % dofs] : k % dofs < 3 ? node.mass_kg / 1000 : 0;
        if (own > 0) entries.emplace_back(u.of[k], u.of[k], own);
    }
    Sparse matrix(u.count, u.count);
    matrix.setFromTriplets(entries.begin(), entries.end());
    return matrix;
}

/// What the search for the slowest asks of a frame: the answer of A − σ B, which is positive for a σ under 0.
class Shifted {
public:
    using Scalar = double;
    Shifted(const Sparse& a, const Sparse& b) : a_(a), b_(b) {}
    Eigen::Index rows() const { return a_.rows(); }
    Eigen::Index cols() const { return a_.cols(); }
    void set_shift(double sigma) { solver_.compute(a_ - sigma * b_); }
    bool sound() const { return solver_.info() == Eigen::Success; }
    void perform_op(const double* in, double* out) const {
        Eigen::VectorXd::Map(out, rows()) = solver_.solve(Eigen::VectorXd::Map(in, rows()));
    }

private:
    const Sparse &a_, &b_;
    Eigen::SimplicialLDLT<Sparse> solver_;
};

Mode modeFrom(const Model& m, const Unknowns& u, double square, const Eigen::VectorXd& shape) {
    Mode mode;
    mode.hz = std::sqrt(std::max(square, 0.0)) / (2 * std::numbers::pi);
    mode.moves.resize(m.nodes.size());
    double most = 0;
    for (std::size_t k = 0; k < u.of.size(); ++k) {
        if (u.of[k] < 0) continue;
        mode.moves[k / dofs][k % dofs] = shape(u.of[k]);
        if (k % dofs < 3) most = std::max(most, std::abs(shape(u.of[k])));
    }
    for (auto& node : mode.moves)
        for (double& v : node) v /= most > 0 ? most : 1;
    return mode;
}

} // namespace

Result<std::vector<Mode>> modes(const Model& m, int count) {
    const auto beams = madeOf(m);
    if (!beams) return beams.error();
    const Unknowns u = unknownsOf(m, *beams);
    if (count < 1 || u.count <= count)
        return Error{Error::Code::Conflict, "frame", "It has fewer ways to swing than are asked for.",
                     "Ask for fewer, or divide its beams.", -1};
    const Sparse stiffness = matrixOf(m, *beams, u, &Made::held, false), mass = matrixOf(m, *beams, u, &Made::mass, true);
    if (mass.nonZeros() == 0)
        return Error{Error::Code::Conflict, "frame", "It has no mass: it does not swing.", "Say what it is made of.", -1};
    using Product = Spectra::SparseSymMatProd<double>;
    Shifted shifted(stiffness, mass);
    Product product(mass);
    const int basis = std::min(u.count, std::max(4 * count, 20));
    constexpr double below = 100; // (rad/s)²: a little under 0, so that what moves as a whole can be found, too
    Spectra::SymGEigsShiftSolver<Shifted, Product, Spectra::GEigsMode::ShiftInvert> solver(shifted, product, count, basis,
                                                                                           -below);
    const Error loose{Error::Code::Conflict, "frame", "How it swings can't be worked out.",
                      "Look for parts that hang together by nothing.", -1};
    if (!shifted.sound()) return loose;
    solver.init();
    constexpr int most_rounds = 1000;
    constexpr double until = 1e-10;
    solver.compute(Spectra::SortRule::LargestMagn, most_rounds, until);
    if (solver.info() != Spectra::CompInfo::Successful) return loose;
    std::vector<Mode> list;
    const Eigen::VectorXd squares = solver.eigenvalues();
    const Eigen::MatrixXd shapes = solver.eigenvectors();
    for (Eigen::Index k = 0; k < squares.size(); ++k) list.push_back(modeFrom(m, u, squares(k), shapes.col(k)));
    std::sort(list.begin(), list.end(), [](const Mode& a, const Mode& b) { return a.hz < b.hz; });
    return list;
}

} // namespace gorvet::frame
