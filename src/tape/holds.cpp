#include "tape/holds.hpp"

#include "dense/dense.hpp"
#include "tape/quantile.hpp"

#include <algorithm>

namespace gorvet::tape {
namespace {

/// More than these are not released one by one when they fail: all beyond a minimal datum are blamed.
constexpr size_t most_one_by_one = 60;

double sumLimit(int redundant) { return chiSquaredBeyond(redundant, 0.01); }

size_t place(const HeldCoordinate& h) { return 3 * static_cast<size_t>(h.point) + static_cast<size_t>(h.axis); }

/// The survey with held values as rough places, and without holds.
Survey unheld(const Survey& survey) {
    Survey free = survey;
    const Network net = begin(survey); // where points without a rough place stand
    for (const HeldCoordinate& h : survey.holds) {
        auto& rough = free.points[static_cast<size_t>(h.point)].rough;
        if (!rough && net.placed[static_cast<size_t>(h.point)]) rough = net.at[static_cast<size_t>(h.point)];
        if (rough) coordinate(*rough, static_cast<int>(h.axis)) = h.value_mm;
    }
    free.holds.clear();
    return free;
}

/// As many of the holds as fix a datum, the rest left out: of the open motions each takes the one that it resists most.
std::vector<int> minimal(const Survey& survey) {
    const Survey free = unheld(survey);
    const Network net = begin(free);
    const Factor factor(activeRows(net, designMatrix(net)));
    const Eigen::MatrixXd& null_space = factor.nullSpace();
    const auto& none = factor.untouched();
    Eigen::MatrixXd open = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(survey.holds.size()), null_space.cols());
    std::vector<int> kept;
    for (size_t k = 0; k < survey.holds.size(); ++k) {
        const int f = net.free_index[place(survey.holds[k])];
        if (f < 0 || std::find(none.begin(), none.end(), f) != none.end())
            kept.push_back(static_cast<int>(k)); // no reading says anything of it
        else if (null_space.cols())
            open.row(static_cast<Eigen::Index>(k)) = null_space.row(f);
    }
    for (Eigen::Index left = open.cols(); left > 0 && open.rows() > 0; --left) {
        Eigen::Index best = 0;
        const Eigen::VectorXd size = open.rowwise().squaredNorm();
        const double most = size.maxCoeff();
        if (most < 1e-9) break;
        while (size(best) < most * (1 - 1e-6)) ++best;
        const Eigen::RowVectorXd row = open.row(best).normalized();
        open -= (open * row.transpose()) * row;
        kept.push_back(static_cast<int>(best));
    }
    std::sort(kept.begin(), kept.end());
    return kept;
}

Network adjusted(const Survey& survey, const Solution& aside) {
    Network net = begin(survey);
    for (size_t i = 0; i < aside.readings.size(); ++i)
        if (aside.readings[i].set_aside) net.active[i] = 0;
    adjust(net, Loss::Huber);
    adjust(net, Loss::Plain);
    return net;
}

/// What the readings pull each hold by, and what they resist a move of it with once all else may follow.
struct Pull {
    Eigen::VectorXd g;
    Eigen::MatrixXd s;
    Eigen::VectorXd own; ///< what they would resist it with if nothing else followed
};
Pull pullOf(const Survey& held, const Network& at, const Factor& factor) {
    const auto m = static_cast<Eigen::Index>(held.readings.size());
    const auto n = static_cast<Eigen::Index>(held.holds.size());
    Eigen::MatrixXd columns = Eigen::MatrixXd::Zero(m, n);
    Eigen::VectorXd v = Eigen::VectorXd::Zero(m);
    for (Eigen::Index i = 0; i < m; ++i)
        if (at.active[static_cast<size_t>(i)])
            v(i) = (predict(at, static_cast<int>(i)).value - held.readings[static_cast<size_t>(i)].value) /
                   held.readings[static_cast<size_t>(i)].sigma;
    for (Eigen::Index k = 0; k < n; ++k) {
        const HeldCoordinate& h = held.holds[static_cast<size_t>(k)];
        for (const int i : at.touching[static_cast<size_t>(h.point)]) {
            if (!at.active[static_cast<size_t>(i)]) continue;
            const SurveyReading& r = held.readings[static_cast<size_t>(i)];
            const Predicted p = predict(at, i);
            columns(i, k) = (r.from == h.point ? p.by_from : p.by_to)[static_cast<size_t>(h.axis)] / r.sigma;
        }
    }
    const Rows rows = activeRows(at, designMatrix(at));
    const Eigen::MatrixXd by = rows.topRows(m).transpose() * columns;
    Pull pull;
    // once all that is free has given way
    pull.g = columns.transpose() * v - by.transpose() * factor.solve(Eigen::VectorXd(rows.topRows(m).transpose() * v));
    pull.s = columns.transpose() * columns;
    pull.own = pull.s.diagonal();
    for (Eigen::Index k = 0; k < n; ++k) pull.s.col(k) -= by.transpose() * factor.solve(Eigen::VectorXd(by.col(k)));
    return pull;
}

/// The hold whose release takes most off Ω: g²/s. −1 when none can be released.
int worstOf(const Survey& held, const Network& at) {
    const Factor factor(activeRows(at, designMatrix(at)));
    const Pull pull = pullOf(held, at, factor);
    int worst = -1;
    double most = 0;
    for (Eigen::Index k = 0; k < pull.g.size(); ++k) {
        if (pull.s(k, k) <= 1e-6 * pull.own(k)) continue; // it carries the datum
        const double off = pull.g(k) * pull.g(k) / pull.s(k, k);
        if (off > most) {
            most = off;
            worst = static_cast<int>(k);
        }
    }
    return worst;
}

} // namespace

HoldsTest lookAtHolds(const Survey& held, const Network& at, const Factor& factor) {
    HoldsTest test;
    if (held.holds.empty()) return test;
    const Pull pull = pullOf(held, at, factor);
    const dense::Eigenpairs own = dense::eigenpairs((pull.s + pull.s.transpose()) / 2);
    const double least = 1e-6 * std::max(pull.own.maxCoeff(), 1e-12);
    for (Eigen::Index k = 0; k < own.values.size(); ++k) {
        const double value = own.values(k);
        if (value <= least) continue; // a motion that only the holds resist: the datum
        const double g = own.vectors.col(k).dot(pull.g);
        test.omega += g * g / value;
        ++test.redundant;
    }
    test.limit = sumLimit(test.redundant);
    return test;
}

HoldsTest testHolds(const Survey& survey, const Options& options) {
    HoldsTest test;
    const std::vector<int> kept = minimal(survey);
    test.redundant = static_cast<int>(survey.holds.size() - kept.size());
    if (test.redundant <= 0) return test;
    test.limit = sumLimit(test.redundant);
    Survey least = unheld(survey);
    least.assumed.clear();
    for (const int k : kept) least.holds.push_back(survey.holds[static_cast<size_t>(k)]);
    const Solution minimal_solution = solve(least, options);
    if (minimal_solution.status == Status::NotConverged || minimal_solution.status == Status::NoReadings) return test;
    Survey held = survey;
    held.assumed.clear();
    for (size_t i = 0; i < held.readings.size(); ++i)
        if (minimal_solution.readings[i].widened_sigma > 0) held.readings[i].sigma = minimal_solution.readings[i].widened_sigma;
    // the reading of a set-up that nothing tells is stated alike in both
    const double omega_least = minimal_solution.kept_omega;
    Network net = adjusted(held, minimal_solution);
    test.omega = omega(net) - omega_least;
    std::vector<int> index(held.holds.size());
    for (size_t k = 0; k < index.size(); ++k) index[k] = static_cast<int>(k);
    int redundant = test.redundant;
    double now = test.omega;
    while (now > sumLimit(redundant) && redundant > 0) {
        if (survey.holds.size() > most_one_by_one) {
            for (const int k : index)
                if (std::find(kept.begin(), kept.end(), k) == kept.end()) test.blamed.push_back(k);
            return test;
        }
        const int worst = worstOf(held, net);
        if (worst < 0) break;
        test.blamed.push_back(index[static_cast<size_t>(worst)]);
        index.erase(index.begin() + worst);
        held.holds.erase(held.holds.begin() + worst);
        --redundant;
        net = adjusted(held, minimal_solution);
        now = omega(net) - omega_least;
    }
    return test;
}

} // namespace gorvet::tape
