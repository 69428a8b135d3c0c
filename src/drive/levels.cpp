#include "drive/levels.hpp"

#include "dense/dense.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::drive {

using build::Figure;
using build::Provenance;

namespace {

constexpr double frame_prior = std::numbers::pi / 180;
constexpr double huber = 1.5, retape = 3.29, checked = 0.1;

/// One equation: the slope of a unit, of the frame, or of both together.
struct Equation {
    int unit = -1;
    bool frame = false;
    double value = 0, sigma = 1;
};

class Network {
public:
    Network(std::vector<Equation> equations, std::size_t units) : equations_(std::move(equations)), columns_(units + 1) {}

    /// Adjusted with a weight for each equation besides its own; unknowns: the units' slopes, then the frame's.
    void solve(const std::vector<double>& weights) {
        const auto n = static_cast<Eigen::Index>(columns_);
        Eigen::MatrixXd normal = Eigen::MatrixXd::Zero(n, n);
        Eigen::VectorXd right = Eigen::VectorXd::Zero(n);
        for (std::size_t k = 0; k < equations_.size(); ++k) {
            const Eigen::VectorXd row = rowOf(equations_[k]);
            const double w = weights[k] / (equations_[k].sigma * equations_[k].sigma);
            normal += w * row * row.transpose();
            right += w * equations_[k].value * row;
        }
        cofactor_ = dense::pseudoInverse(normal); // a unit that nothing was read of stays out
        x_ = cofactor_ * right;
    }
    double residual(std::size_t k) const { return equations_[k].value - rowOf(equations_[k]).dot(x_); }
    double redundancy(std::size_t k, double weight) const {
        const Eigen::VectorXd row = rowOf(equations_[k]);
        return 1 - weight * row.dot(cofactor_ * row) / (equations_[k].sigma * equations_[k].sigma);
    }
    double predictedVariance(std::size_t k) const {
        const Eigen::VectorXd row = rowOf(equations_[k]);
        return row.dot(cofactor_ * row);
    }
    Figure unit(std::size_t k) const {
        const auto at = static_cast<Eigen::Index>(k);
        return {x_(at), build::u95Of(std::sqrt(std::max(0.0, cofactor_(at, at)))), Provenance::Measured};
    }
    double covariance(std::size_t a, std::size_t b) const {
        return cofactor_(static_cast<Eigen::Index>(a), static_cast<Eigen::Index>(b));
    }
    const std::vector<Equation>& equations() const { return equations_; }

private:
    Eigen::VectorXd rowOf(const Equation& e) const {
        Eigen::VectorXd row = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(columns_));
        if (e.unit >= 0) row(e.unit) = 1;
        if (e.frame) row(static_cast<Eigen::Index>(columns_) - 1) = 1;
        return row;
    }
    std::vector<Equation> equations_;
    std::size_t columns_;
    Eigen::VectorXd x_;
    Eigen::MatrixXd cofactor_;
};

std::vector<double> robustly(Network& net) {
    std::vector<double> weights(net.equations().size(), 1);
    for (int turn = 0; turn < 50; ++turn) {
        net.solve(weights);
        for (std::size_t k = 0; k < weights.size(); ++k) {
            const double off = std::abs(net.residual(k)) / net.equations()[k].sigma;
            weights[k] = off > huber ? huber / off : 1;
        }
    }
    return weights;
}

/// How far what was read stands from what all others make of it, in its own σ.
double fromOthers(const Network& net, std::size_t k, double value) {
    const double predicted = net.equations()[k].value - net.residual(k);
    const double sigma = net.equations()[k].sigma;
    return std::abs(value - predicted) / std::sqrt(sigma * sigma + net.predictedVariance(k));
}

} // namespace

Levels levelled(const std::vector<LevelIn>& readings, const std::vector<KnownSlope>& known, std::size_t units) {
    std::vector<Equation> equations;
    for (const LevelIn& r : readings) equations.push_back({r.unit, true, r.slope, r.sigma});
    const bool frame_read = std::any_of(readings.begin(), readings.end(), [](const LevelIn& r) { return r.unit < 0; });
    for (const KnownSlope& k : known) equations.push_back({k.unit, false, k.slope, k.sigma});
    if (!frame_read) equations.push_back({-1, true, 0, frame_prior});
    Network net(std::move(equations), units);
    robustly(net);

    // what disagrees with all others goes out, the worst first, as far from where the robust solution left it
    std::vector<double> weights(net.equations().size(), 1);
    std::vector<bool> doubted(readings.size());
    for (std::size_t k = 0; k < readings.size(); ++k) doubted[k] = std::abs(net.residual(k)) > retape * readings[k].sigma;
    for (std::size_t k = 0; k < readings.size(); ++k) weights[k] = doubted[k] ? 0 : 1;
    for (std::size_t turn = 0; turn < readings.size(); ++turn) {
        net.solve(weights);
        std::size_t worst = readings.size();
        double most = retape;
        for (std::size_t k = 0; k < readings.size(); ++k) {
            if (weights[k] == 0) continue;
            const double r = net.redundancy(k, 1);
            if (r < checked) continue;
            if (const double w = std::abs(net.residual(k)) / (readings[k].sigma * std::sqrt(r)); w > most) {
                most = w;
                worst = k;
            }
        }
        if (worst == readings.size()) break;
        weights[worst] = 0;
    }
    Levels out;
    std::vector<bool> read(units, false);
    for (std::size_t k = 0; k < readings.size(); ++k) {
        LevelJudged j;
        j.residual = net.residual(k);
        j.set_aside = weights[k] == 0;
        j.redundancy = j.set_aside ? 1 : std::max(0.0, net.redundancy(k, 1));
        if (j.set_aside) {
            j.standardised = fromOthers(net, k, readings[k].slope);
            j.other_sign = fromOthers(net, k, -readings[k].slope) < 2.5;
        } else if (j.redundancy >= checked) {
            j.standardised = std::abs(j.residual) / (readings[k].sigma * std::sqrt(j.redundancy));
        }
        if (readings[k].unit >= 0) read[static_cast<std::size_t>(readings[k].unit)] = true;
        out.readings.push_back(j);
    }
    if (frame_read) out.frame = net.unit(units);
    for (std::size_t u = 0; u < units; ++u) {
        out.units.emplace_back();
        if (!read[u]) continue;
        out.units.back() = net.unit(u);
        if (!frame_read) out.units.back()->provenance = Provenance::Assumed;
    }
    out.covariance.assign(units * units, 0);
    for (std::size_t a = 0; a < units; ++a)
        for (std::size_t b = 0; b < units; ++b)
            if (read[a] && read[b]) out.covariance[a * units + b] = net.covariance(a, b);
    return out;
}

} // namespace gorvet::drive
