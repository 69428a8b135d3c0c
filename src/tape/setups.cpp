#include "tape/setups.hpp"

#include "dense/dense.hpp"
#include "tape/rigid.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::tape {
namespace {

/// mm/m. A slope that the readings tell no better than this is not told by them.
constexpr double useless_slope_sd = 10;

/// Unknowns that the readings can't tell from the frame's own shape or place: (set-up, unknown), the least needed first.
std::vector<std::pair<int, int>> untold(const Network& net, const Fixing& fixing) {
    std::vector<std::pair<int, int>> list;
    const Eigen::MatrixXd& null_space = fixing.factor->nullSpace();
    const auto& none = fixing.factor->untouched();
    for (int u = setup_unknowns - 1; u >= 0; --u) // slopes before places
        for (size_t s = 0; s < net.setup_index.size(); ++s) {
            const int k = net.setup_index[s][u];
            if (k < 0 || net.setup_prior[s][u] > 0) continue;
            const bool useless = u > 0 && fixing.factor->entry(k, k) > useless_slope_sd * useless_slope_sd;
            const bool open = std::find(none.begin(), none.end(), k) != none.end() || null_space.row(k).squaredNorm() > 1e-6;
            if (useless || open) list.emplace_back(static_cast<int>(s), u);
        }
    return list;
}

/// Whether the unknown only says how the survey lies as a whole: some rigid motion of all points and set-ups that nothing
/// resists changes it.
bool carriesDatum(const Network& net, const Rows& rows, int setup, int unknown) {
    const RigidMotions motions = rigidMotions(net);
    Eigen::MatrixXd free = Eigen::MatrixXd::Zero(net.free_count, 6);
    Eigen::MatrixXd still = Eigen::MatrixXd::Zero(
        static_cast<Eigen::Index>(net.free_index.size() + setup_unknowns * net.setups.size()), 6); // what may not move
    for (size_t k = 0; k < net.free_index.size(); ++k) {
        const auto row = static_cast<Eigen::Index>(k);
        if (net.free_index[k] >= 0)
            free.row(net.free_index[k]) = motions.by_coordinate.row(row);
        else if (net.placed[k / 3])
            still.row(row) = motions.by_coordinate.row(row);
    }
    for (size_t s = 0; s < net.setups.size(); ++s)
        for (int u = 0; u < setup_unknowns; ++u) {
            const auto row = static_cast<Eigen::Index>(setup_unknowns * s + static_cast<size_t>(u));
            const int k = net.setup_index[s][u];
            if (k >= 0)
                free.row(k) = motions.by_setup.row(row);
            else
                still.row(static_cast<Eigen::Index>(net.free_index.size()) + row) =
                    u < unknownsOf(net.survey->setups[s].kind) ? Eigen::RowVectorXd(motions.by_setup.row(row))
                                                               : Eigen::RowVectorXd(Eigen::RowVectorXd::Zero(6));
        }
    const auto readings = static_cast<Eigen::Index>(net.survey->readings.size()); // what is only stated resists nothing
    const Eigen::MatrixXd resisted = rows.topRows(readings) * free;
    Eigen::MatrixXd stacked(resisted.rows() + still.rows(), 6);
    stacked << resisted, still;
    const dense::Singular svd = dense::singular(stacked, dense::Sides::Right);
    const Eigen::VectorXd& values = svd.values;
    const Eigen::RowVectorXd own = motions.by_setup.row(setup_unknowns * setup + unknown);
    for (Eigen::Index k = 0; k < 6; ++k) {
        const bool open = k >= values.size() || values(k) <= 3e-5 * std::max(values(0), 1e-9);
        if (open && std::abs(own.dot(svd.right.col(k))) > 1e-6 * own.norm()) return true;
    }
    return false;
}

double priorOf(SetUpKind kind, int unknown) {
    switch (kind) {
    case SetUpKind::Plane: return unknown ? plane_tilt_sd : plane_place_sd_mm;
    case SetUpKind::String: return unknown ? string_swing_sd : string_place_sd_mm;
    case SetUpKind::Tape: break;
    }
    return tape_long_sd_mm;
}

} // namespace

void tellSetUps(Network& net) {
    Network places = net;
    for (size_t s = 0; s < net.setups.size(); ++s)
        for (int u = 1; u < setup_unknowns; ++u) holdSetUp(places, static_cast<int>(s), u);
    adjust(places, Loss::Huber);
    adjust(places, Loss::Plain);
    net.at = places.at;
    net.setups = places.setups;
    std::array<bool, setup_unknowns> datum{};
    for (;;) {
        const Rows rows = designMatrix(net);
        const Fixing fixing = findUndetermined(net, activeRows(net, rows));
        const auto list = untold(net, fixing);
        if (list.empty()) return;
        const auto [s, u] = list.front();
        if (carriesDatum(net, activeRows(net, rows), s, u)) {
            datum[static_cast<size_t>(u)] = true;
            holdSetUp(net, s, u);
        } else {
            const double sd = priorOf(net.survey->setups[static_cast<size_t>(s)].kind, u);
            net.setup_prior[static_cast<size_t>(s)][static_cast<size_t>(u)] =
                sd * (datum[static_cast<size_t>(u)] ? std::numbers::sqrt2 : 1.0);
        }
    }
}

} // namespace gorvet::tape
