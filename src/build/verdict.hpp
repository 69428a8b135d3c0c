#pragma once

#include <cmath>

namespace gorvet::build {

/// The verdict on a plan or a part.
enum class PlanVerdict { Holds, Marginal, Fails };

constexpr const char* verdictWord(PlanVerdict v) {
    return v == PlanVerdict::Holds ? "Holds" : v == PlanVerdict::Marginal ? "Marginal" : "Fails";
}

/// Holds when |value| + half_width ≤ tolerance, Fails when |value| − half_width > tolerance, else Marginal; Marginal when
/// the ± is unknown. engineering.md, Tape.
inline PlanVerdict planVerdict(double value, double half_width, double tolerance) {
    if (!std::isfinite(half_width)) return PlanVerdict::Marginal;
    if (std::abs(value) + half_width <= tolerance) return PlanVerdict::Holds;
    return std::abs(value) - half_width > tolerance ? PlanVerdict::Fails : PlanVerdict::Marginal;
}

/// An assumed number never makes a green verdict.
constexpr PlanVerdict notBetterThanMarginal(PlanVerdict v) { return v == PlanVerdict::Holds ? PlanVerdict::Marginal : v; }

/// ± at 95 % of a 1σ figure.
constexpr double halfWidth(double sd) { return 1.959964 * sd; }
/// 1σ of a typed ±, which is at 95 % like every one that is shown.
constexpr double sigmaOfHalfWidth(double half_width) { return half_width / 1.959964; }

} // namespace gorvet::build
