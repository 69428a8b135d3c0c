#include "tape/rigid.hpp"

#include "dense/dense.hpp"
#include "tape/factor.hpp"

#include <algorithm>

namespace gorvet::tape {

RigidMotions rigidMotions(const Network& net) {
    const size_t n = net.at.size();
    RigidMotions motions;
    Eigen::Vector3d& centre = motions.centre;
    centre.setZero();
    int count = 0;
    for (size_t i = 0; i < n; ++i)
        if (net.placed[i]) {
            centre += Eigen::Vector3d(net.at[i].x_mm, net.at[i].y_mm, net.at[i].z_mm);
            ++count;
        }
    centre /= std::max(count, 1);
    double& extent = motions.extent_mm;
    for (size_t i = 0; i < n; ++i)
        if (net.placed[i])
            extent = std::max(extent, (Eigen::Vector3d(net.at[i].x_mm, net.at[i].y_mm, net.at[i].z_mm) - centre).norm());
    Eigen::MatrixXd& g = motions.by_coordinate;
    g = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(3 * n), 6);
    for (size_t i = 0; i < n; ++i) {
        const double x = (net.at[i].x_mm - centre.x()) / extent;
        const double y = (net.at[i].y_mm - centre.y()) / extent;
        const double z = (net.at[i].z_mm - centre.z()) / extent;
        const auto row = static_cast<Eigen::Index>(3 * i);
        g.block<3, 3>(row, 0).setIdentity();
        g(row + 1, 3) = -z; // roll
        g(row + 2, 3) = y;
        g(row, 4) = z; // pitch
        g(row + 2, 4) = -x;
        g(row, 5) = -y; // yaw
        g(row + 1, 5) = x;
    }
    const auto& setups = net.survey->setups;
    Eigen::MatrixXd& s = motions.by_setup;
    s = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(setups.size() * setup_unknowns), 6);
    for (size_t i = 0; i < setups.size(); ++i) {
        const auto row = static_cast<Eigen::Index>(setup_unknowns * i);
        switch (setups[i].kind) {
        case SetUpKind::Plane: // its height at the origin, and its rise along and across in mm/m
            s(row, 2) = 1;
            s(row, 3) = -centre.y() / extent;
            s(row + 2, 3) = 1000 / extent;
            s(row, 4) = centre.x() / extent;
            s(row + 1, 4) = -1000 / extent;
            break;
        case SetUpKind::String:
            s(row, 1) = 1;
            s(row, 5) = -centre.x() / extent;
            s(row + 1, 5) = 1000 / extent;
            break;
        case SetUpKind::Tape: break;
        }
    }
    return motions;
}

std::vector<int> openMotions(const Network& net, const Rows& rows, Eigen::MatrixXd& basis) {
    const Eigen::MatrixXd g = rigidMotions(net).by_coordinate;
    Eigen::MatrixXd g_free = Eigen::MatrixXd::Zero(net.free_count, 6);
    Eigen::MatrixXd g_held = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(net.free_index.size()), 6);
    for (size_t k = 0; k < net.free_index.size(); ++k) {
        if (net.free_index[k] >= 0)
            g_free.row(net.free_index[k]) = g.row(static_cast<Eigen::Index>(k));
        else if (net.placed[k / 3])
            g_held.row(static_cast<Eigen::Index>(k)) = g.row(static_cast<Eigen::Index>(k));
    }
    Eigen::MatrixXd stacked(rows.rows() + g_held.rows(), 6);
    const Eigen::MatrixXd resisted = rows * g_free;
    stacked << resisted, g_held;
    const dense::Singular svd = dense::singular(stacked, dense::Sides::Right);
    const Eigen::VectorXd& values = svd.values;
    std::vector<Eigen::VectorXd> open;
    for (int k = 0; k < 6; ++k)
        if (k >= values.size() || values(k) <= null_share * std::max(values(0), 1e-9)) open.emplace_back(svd.right.col(k));
    basis = Eigen::MatrixXd(6, static_cast<Eigen::Index>(open.size()));
    for (size_t k = 0; k < open.size(); ++k) basis.col(static_cast<Eigen::Index>(k)) = open[k];
    std::vector<int> names;
    Eigen::MatrixXd reduced = basis;
    for (Eigen::Index column = 0; column < reduced.cols(); ++column) {
        int pivot = -1;
        for (const int candidate : {5, 4, 3, 0, 1, 2}) {
            if (std::find(names.begin(), names.end(), candidate) != names.end()) continue;
            Eigen::Index best = column;
            for (Eigen::Index c = column; c < reduced.cols(); ++c)
                if (std::abs(reduced(candidate, c)) > std::abs(reduced(candidate, best))) best = c;
            if (std::abs(reduced(candidate, best)) < 0.05) continue;
            reduced.col(column).swap(reduced.col(best));
            pivot = candidate;
            break;
        }
        if (pivot < 0) break;
        names.push_back(pivot);
        for (Eigen::Index c = column + 1; c < reduced.cols(); ++c)
            reduced.col(c) -= reduced.col(column) * (reduced(pivot, c) / reduced(pivot, column));
    }
    std::sort(names.begin(), names.end());
    return names;
}

std::vector<HeldCoordinate> leastHolds(const Network& net, const Eigen::MatrixXd& basis) {
    Eigen::MatrixXd open = rigidMotions(net).by_coordinate * basis; // how much each coordinate moves with each open motion
    for (size_t k = 0; k < net.free_index.size(); ++k)
        if (net.free_index[k] < 0) open.row(static_cast<Eigen::Index>(k)).setZero();
    std::vector<HeldCoordinate> holds;
    for (Eigen::Index left = open.cols(); left > 0; --left) {
        // the first of those that resist most: left and right often do alike, and rounding must not choose between them
        const Eigen::VectorXd size = open.rowwise().squaredNorm();
        const double most = size.maxCoeff();
        if (most < 1e-12) break;
        Eigen::Index best = 0;
        while (size(best) < most * (1 - 1e-6)) ++best;
        const Eigen::RowVectorXd row = open.row(best).normalized();
        open -= (open * row.transpose()) * row; // what remains can still move with this coordinate held
        HeldCoordinate h;
        h.point = static_cast<int>(best / 3);
        h.axis = static_cast<Axis>(best % 3);
        h.value_mm = coordinate(net.at[static_cast<size_t>(h.point)], static_cast<int>(best % 3));
        holds.push_back(h);
    }
    return holds;
}

} // namespace gorvet::tape
