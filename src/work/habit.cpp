// What own history says of how long things take.
#include "work/schedule.hpp"

#include "dense/dense.hpp"

#include <cmath>

#include <Eigen/Core>

namespace gorvet::work {

namespace {

// 1 σ of the logarithm, before anything was logged: engineering.md, Work
constexpr double common_sigma = 0.3;
constexpr double trade_sigma = 0.2;
constexpr double one_sigma = 0.35;
constexpr double steps_before = 8; ///< what `one_sigma` counts against residuals

constexpr Eigen::Index unknowns = 1 + Habit::trades;
constexpr Eigen::Index ofTrade(build::JobKind k) { return 1 + static_cast<Eigen::Index>(k); }

} // namespace

Habit learn(const std::vector<Took>& took) {
    Habit h;
    Eigen::MatrixXd covariance = Eigen::MatrixXd::Zero(unknowns, unknowns);
    covariance(0, 0) = common_sigma * common_sigma;
    for (Eigen::Index t = 1; t < unknowns; ++t) covariance(t, t) = trade_sigma * trade_sigma;
    const Eigen::MatrixXd prior = dense::inverse(covariance);
    Eigen::VectorXd mean = Eigen::VectorXd::Zero(unknowns);
    std::vector<std::pair<Eigen::Index, double>> ratios; ///< trade, ln(worked / said)
    for (const Took& t : took)
        if (t.said_h > 0 && t.worked_h > 0) {
            ratios.emplace_back(ofTrade(t.kind), std::log(t.worked_h / t.said_h));
            ++h.learned_of[static_cast<std::size_t>(t.kind)];
        }
    h.learned_from = static_cast<int>(ratios.size());
    double one = one_sigma * one_sigma;
    // the scatter of one step and the factors in turn; it settles in a few rounds
    for (int round = 0; round < 20 && !ratios.empty(); ++round) {
        Eigen::MatrixXd information = prior;
        Eigen::VectorXd right = Eigen::VectorXd::Zero(unknowns);
        for (const auto& [trade, ratio] : ratios)
            for (const Eigen::Index i : {Eigen::Index{0}, trade}) {
                right(i) += ratio / one;
                for (const Eigen::Index j : {Eigen::Index{0}, trade}) information(i, j) += 1 / one;
            }
        covariance = dense::inverse(information);
        mean = covariance * right;
        double squares = steps_before * one_sigma * one_sigma;
        for (const auto& [trade, ratio] : ratios) {
            const double off = ratio - mean(0) - mean(trade);
            // what the factors' own doubt adds
            squares += off * off + covariance(0, 0) + covariance(trade, trade) + 2 * covariance(0, trade);
        }
        const double next = squares / (steps_before + static_cast<double>(ratios.size()));
        if (std::abs(next - one) < 1e-12) break;
        one = next;
    }
    h.common = mean(0);
    for (std::size_t t = 0; t < Habit::trades; ++t) h.of_trade[t] = mean(static_cast<Eigen::Index>(t) + 1);
    h.covariance.resize(static_cast<std::size_t>(unknowns * unknowns));
    for (Eigen::Index i = 0; i < unknowns; ++i)
        for (Eigen::Index j = 0; j < unknowns; ++j) h.covariance[static_cast<std::size_t>(i * unknowns + j)] = covariance(i, j);
    h.of_one = std::sqrt(one);
    return h;
}

Finds learnFinds(const Found& so_far) {
    Finds f;
    f.times_shape += so_far.times;
    f.times_rate_h += so_far.planned_h;
    f.hours_shape += so_far.times;
    f.hours_scale_h += so_far.hours;
    f.learned_from = so_far.times;
    return f;
}

double Habit::factor(build::JobKind k) const { return std::exp(common + of_trade[static_cast<std::size_t>(k)]); }

std::pair<double, double> Habit::factor95(build::JobKind k) const {
    const double mean = common + of_trade[static_cast<std::size_t>(k)];
    const auto at = [&](Eigen::Index i, Eigen::Index j) {
        return covariance.empty() ? 0.0 : covariance[static_cast<std::size_t>(i * unknowns + j)];
    };
    const Eigen::Index t = ofTrade(k);
    const double sigma = std::sqrt(at(0, 0) + at(t, t) + 2 * at(0, t));
    return {std::exp(mean - 1.96 * sigma), std::exp(mean + 1.96 * sigma)};
}

} // namespace gorvet::work
