// Frames of beams in space, under loads.
#include "frame/element.hpp"

#include <algorithm>
#include <cmath>

#include <Eigen/Sparse>

#include <fmt/format.h>

namespace gorvet::frame {

namespace {

const char* wordOf(std::size_t dof) {
    static constexpr const char* words[] = {"along x", "along y", "along z", "about x", "about y", "about z", "in warping"};
    return words[dof];
}

class Solver {
public:
    Solver(const Model& m, std::vector<Made> beams)
        : m_(m), beams_(std::move(beams)), numbers_(unknownsOf(m, beams_)), free_(numbers_.of), unknowns_(numbers_.count) {}

    Result<std::vector<Answer>> solve(const std::vector<Load>& loads) {
        std::vector<Answer> answers;
        if (unknowns_ > 0)
            if (auto ok = factor(); !ok) return ok.error();
        for (const Load& load : loads) answers.push_back(answer(load));
        return answers;
    }

private:
    std::size_t place(std::size_t beam, std::size_t i) const { return numbers_.place(m_, beam, i); }

    Result<void> factor() {
        std::vector<Eigen::Triplet<double>> entries;
        for (const auto& [row, column, v] : gathered(m_, beams_, numbers_, &Made::held)) entries.emplace_back(row, column, v);
        for (std::size_t k = 0; k < free_.size(); ++k)
            if (free_[k] >= 0 && m_.nodes[k / dofs].spring[k % dofs] > 0)
                entries.emplace_back(free_[k], free_[k], m_.nodes[k / dofs].spring[k % dofs]);
        stiffness_.resize(unknowns_, unknowns_);
        stiffness_.setFromTriplets(entries.begin(), entries.end());
        // each degree of freedom by its own stiffness: mm, rad and warping are then alike
        scale_ = Eigen::VectorXd::Ones(unknowns_);
        for (int k = 0; k < unknowns_; ++k) {
            const double own = stiffness_.coeff(k, k);
            if (!(own > 0)) return loose(k);
            scale_(k) = 1 / std::sqrt(own);
        }
        const Eigen::SparseMatrix<double> scaled = scale_.asDiagonal() * stiffness_ * scale_.asDiagonal();
        solver_.compute(scaled);
        if (solver_.info() != Eigen::Success) return loose(0);
        const Eigen::VectorXd pivots = solver_.vectorD();
        Eigen::Index least = 0;
        if (pivots.minCoeff(&least) < 1e-11) {
            // the pivot's place, before the rows were put in order
            return loose(static_cast<int>(solver_.permutationPinv().indices()(least)));
        }
        return {};
    }
    Error loose(int unknown) const {
        for (std::size_t k = 0; k < free_.size(); ++k)
            if (free_[k] == unknown)
                return Error{Error::Code::Conflict, fmt::format("node {}", k / dofs + 1),
                             fmt::format("Node {} can move {} and nothing holds it.", k / dofs + 1, wordOf(k % dofs)),
                             "Hold it, or join what is loose there.", -1};
        return Error{Error::Code::Conflict, "frame", "Something can move that nothing holds.", "Hold it.", -1};
    }

    Answer answer(const Load& load) const {
        Eigen::VectorXd force = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(free_.size()));
        for (const auto& [node, f] : load.at)
            for (std::size_t k = 0; k < dofs; ++k) force(static_cast<Eigen::Index>(node * dofs + k)) += f[k];
        std::vector<Vector14> weight(beams_.size(), Vector14::Zero());
        const Eigen::Vector3d g = vec(load.gravity);
        for (std::size_t n = 0; n < beams_.size() && g.norm() > 0; ++n) {
            weight[n] = weightOf(m_.beams[n], beams_[n], g);
            const Vector14 at_nodes = beams_[n].to_own.transpose() * weight[n];
            for (std::size_t i = 0; i < 2 * dofs; ++i)
                force(static_cast<Eigen::Index>(place(n, i))) += at_nodes(static_cast<Eigen::Index>(i));
        }
        Eigen::VectorXd moves = Eigen::VectorXd::Zero(force.size());
        if (unknowns_ > 0) {
            Eigen::VectorXd right(unknowns_);
            for (std::size_t k = 0; k < free_.size(); ++k)
                if (free_[k] >= 0) right(free_[k]) = force(static_cast<Eigen::Index>(k));
            Eigen::VectorXd u = scale_.asDiagonal() * solver_.solve(scale_.asDiagonal() * right);
            u += scale_.asDiagonal() *
                 solver_.solve(scale_.asDiagonal() * (right - stiffness_ * u)); // once more, by what is left over
            for (std::size_t k = 0; k < free_.size(); ++k)
                if (free_[k] >= 0) moves(static_cast<Eigen::Index>(k)) = u(free_[k]);
        }
        return told(force, moves, weight);
    }

    Answer told(const Eigen::VectorXd& force, const Eigen::VectorXd& moves, const std::vector<Vector14>& weight) const {
        Answer a;
        a.moves.resize(m_.nodes.size());
        a.reactions.resize(m_.nodes.size());
        for (std::size_t k = 0; k < free_.size(); ++k) a.moves[k / dofs][k % dofs] = moves(static_cast<Eigen::Index>(k));
        Eigen::VectorXd left = force; // what nobody but the ground takes
        for (std::size_t n = 0; n < beams_.size(); ++n) {
            Vector14 at_nodes;
            for (std::size_t i = 0; i < 2 * dofs; ++i)
                at_nodes(static_cast<Eigen::Index>(i)) = moves(static_cast<Eigen::Index>(place(n, i)));
            const Vector14 own = beams_[n].held * (beams_[n].to_own * at_nodes);
            const Vector14 back = beams_[n].to_own.transpose() * own;
            for (std::size_t i = 0; i < 2 * dofs; ++i)
                left(static_cast<Eigen::Index>(place(n, i))) -= back(static_cast<Eigen::Index>(i));
            std::array<double, 2 * dofs> ends{};
            for (std::size_t i = 0; i < 2 * dofs; ++i)
                ends[i] = own(static_cast<Eigen::Index>(i)) - weight[n](static_cast<Eigen::Index>(i));
            a.forces.push_back(ends);
        }
        // forces by forces, moments by moments, bimoments by bimoments
        std::array<double, 3> most{1e-300, 1e-300, 1e-300};
        for (std::size_t k = 0; k < free_.size(); ++k)
            most[k % dofs / 3] = std::max(most[k % dofs / 3], std::abs(force(static_cast<Eigen::Index>(k))));
        for (const auto& ends : a.forces)
            for (std::size_t i = 0; i < 2 * dofs; ++i) most[i % dofs / 3] = std::max(most[i % dofs / 3], std::abs(ends[i]));
        double longest = 0; // what a force is as a moment
        for (const Made& beam : beams_) longest = std::max(longest, beam.length);
        most[0] = std::max(most[0], most[1] / std::max(longest, 1.0));
        most[1] = std::max(most[1], most[0] * longest);
        most[2] = std::max(most[2], most[1] * longest);
        for (std::size_t k = 0; k < free_.size(); ++k) {
            const double rest = left(static_cast<Eigen::Index>(k)), spring = m_.nodes[k / dofs].spring[k % dofs];
            const bool held = m_.nodes[k / dofs].held[k % dofs];
            if (held) {
                a.reactions[k / dofs][k % dofs] = -rest;
                continue;
            }
            a.reactions[k / dofs][k % dofs] = -spring * moves(static_cast<Eigen::Index>(k));
            if (free_[k] >= 0)
                a.unbalanced =
                    std::max(a.unbalanced, std::abs(rest - spring * moves(static_cast<Eigen::Index>(k))) / most[k % dofs / 3]);
        }
        return a;
    }

    const Model& m_;
    std::vector<Made> beams_;
    Unknowns numbers_;
    const std::vector<int>& free_; ///< unknown of each degree of freedom; −1: held, or nobody's
    int unknowns_;
    Eigen::SparseMatrix<double> stiffness_;
    Eigen::VectorXd scale_;
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> solver_;
};

} // namespace

BeamSection beamSection(const Section& s, At line) {
    BeamSection b;
    b.area_mm2 = s.area_mm2;
    b.level_mm4 = s.level_mm4;
    b.upright_mm4 = s.upright_mm4;
    b.product_mm4 = s.product_mm4;
    b.torsion_mm4 = s.torsion_mm4;
    b.warping_mm6 = s.closed() ? 0 : s.warping_mm6; // what closed walls warp is small beside their torsion
    b.shear_level_mm2 = s.shear_level_mm2;
    b.shear_upright_mm2 = s.shear_upright_mm2;
    b.centroid = {s.centroid.y_mm - line.y_mm, s.centroid.z_mm - line.z_mm};
    b.shear_centre = {s.shear_centre.y_mm - line.y_mm, s.shear_centre.z_mm - line.z_mm};
    return b;
}

Result<std::vector<Answer>> solve(const Model& m, const std::vector<Load>& loads) {
    auto beams = madeOf(m);
    if (!beams) return beams.error();
    for (const Load& load : loads)
        for (const auto& [node, f] : load.at)
            if (node >= m.nodes.size())
                return Error{Error::Code::BadInput, load.name, "A load pulls at a node that is not there.", "", -1};
    return Solver(m, std::move(*beams)).solve(loads);
}

std::array<double, dofs> unit(Dof d, double amount) {
    std::array<double, dofs> f{};
    f[static_cast<std::size_t>(d)] = amount;
    return f;
}

} // namespace gorvet::frame
