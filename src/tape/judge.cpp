#include "tape/judge.hpp"

#include "tape/quantile.hpp"

#include <cmath>

namespace gorvet::tape {

Judged judge(const Network& net, const Rows& rows, const Factor& factor) {
    const auto& readings = net.survey->readings;
    const auto m = static_cast<Eigen::Index>(readings.size());
    Judged judged;
    judged.v = Eigen::VectorXd::Zero(m);
    judged.redundancy = Eigen::VectorXd::Zero(m);
    judged.w = Eigen::VectorXd::Zero(m);
    for (Eigen::Index i = 0; i < m; ++i) {
        const SurveyReading& r = readings[static_cast<size_t>(i)];
        if (!net.placed[r.from] || (r.to >= 0 && !net.placed[r.to])) continue;
        judged.v(i) = (predict(net, static_cast<int>(i)).value - r.value) / r.sigma;
        if (!net.active[static_cast<size_t>(i)]) continue;
        const double redundancy = std::clamp(1 - factor.quadratic(rows, static_cast<int>(i)), 0.0, 1.0);
        judged.redundancy(i) = redundancy < unchecked_r ? 0 : redundancy;
        judged.w(i) = redundancy < unchecked_r ? 0 : judged.v(i) / std::sqrt(redundancy);
    }
    return judged;
}

double omegaLimit(int redundancy) { return chiSquaredBeyond(redundancy, 0.05); }

double familyLimit(int readings) {
    constexpr double lost = 0.01; // of good surveys
    const double each = lost / (2.0 * std::max(readings, 1));
    return std::max(retape_w, normalBeyond(each));
}

double u95OfWorst(double sd, int k) { return k <= 1 ? u95Of(sd) : sd * normalBeyond(0.05 / (2.0 * k)); }

std::vector<int> inseparableFrom(const Network& net, const Rows& rows, const Factor& factor, const Judged& judged, int reading) {
    std::vector<int> group;
    const double own = judged.redundancy(reading);
    const Eigen::VectorXd cofactors =
        rows * factor.solve(Eigen::VectorXd(rows.row(reading).transpose())); // −P beside the diagonal
    for (Eigen::Index i = 0; i < judged.w.size(); ++i) {
        const auto index = static_cast<int>(i);
        if (!net.active[static_cast<size_t>(i)] || judged.redundancy(i) <= 0) continue;
        const double correlation = index == reading ? 1.0 : std::abs(cofactors(i)) / std::sqrt(own * judged.redundancy(i));
        const double apart = judged.w(reading) * judged.w(reading) - judged.w(i) * judged.w(i);
        if (correlation > inseparable_correlation && apart <= separable_w2) group.push_back(index);
    }
    return group;
}

} // namespace gorvet::tape
