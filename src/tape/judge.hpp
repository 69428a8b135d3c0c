#pragma once

#include "tape/network.hpp"

namespace gorvet::tape {

/// Residuals, redundancy numbers and standardised residuals of one adjusted state.
struct Judged {
    Eigen::VectorXd v;          ///< (computed − observed)/σ of every reading
    Eigen::VectorXd redundancy; ///< 0 for inactive readings
    Eigen::VectorXd w;
};

/// `rows`: all readings' design matrix; the factor is of the active ones. P = I − A Q Aᵀ has r on its diagonal.
Judged judge(const Network&, const Rows& rows, const Factor&);

/// χ² that Ω exceeds by chance in 5 of 100 surveys; 0 when `redundancy` ≤ 0.
double omegaLimit(int redundancy);

/// Limits of |w|. Baarda; engineering.md.
inline constexpr double doubtful_w = 2.5;
inline constexpr double retape_w = 3.29;
/// Once Ω passes, only a |w| beyond this is set aside: the limit that one of `readings` good ones passes by chance in 1 of 100
/// surveys (Bonferroni); never below retape_w.
double familyLimit(int readings);
/// ± of the worst of k figures at 95 %: z(1 − 0.05/2k)·sd (Bonferroni). k ≥ 1.
double u95OfWorst(double sd, int k);
/// Readings whose w correlate above this may not be told apart…
inline constexpr double inseparable_correlation = 0.9;
/// …unless their w² differ by more than this (χ² of one unknown at 1 %).
inline constexpr double separable_w2 = 6.635;
/// Below this a redundancy number counts as 0, and below the second as barely checked.
inline constexpr double unchecked_r = 1e-6;
inline constexpr double barely_r = 0.1;

/// Active readings whose w correlate with that of `reading` above the limit and whose w² comes within separable_w2 of its own,
/// `reading` itself included.
std::vector<int> inseparableFrom(const Network&, const Rows& rows, const Factor&, const Judged&, int reading);

} // namespace gorvet::tape
