#pragma once

#include <algorithm>
#include <cmath>
#include <limits>

/// A number with what is known of it, and the one place where it becomes a verdict.
namespace gorvet::units {

/// Where a figure comes from, from the most to the least trusted.
enum class Provenance { Measured, Derived, Assumed };

/// ± at 95 % of a 1σ figure.
constexpr double u95Of(double sd) { return 1.959964 * sd; }
/// 1σ of a ±, typed or shown: every ± is at 95 %.
constexpr double sigmaOfU95(double u95) { return u95 / 1.959964; }

/// The least trusted of two origins.
constexpr Provenance worst(Provenance a, Provenance b) { return std::max(a, b); }

/// In the unit of its owner's name: mm, rad, kg … u95 is its ± at 95 %, ≥ 0, infinite where nothing is known of it. What is
/// worked out from others is derived at best.
struct Figure {
    double value = 0;
    double u95 = 0;
    Provenance provenance = Provenance::Derived;
    bool operator==(const Figure&) const = default;
};

/// Sums and multiples of figures that do not depend on each other: ± by root sum of squares, and the worst provenance. Of figures
/// that come from one adjustment the ± is J C Jᵀ, never this.
inline Figure operator+(const Figure& a, const Figure& b) {
    return {a.value + b.value, std::hypot(a.u95, b.u95), worst(Provenance::Derived, worst(a.provenance, b.provenance))};
}
inline Figure operator*(double f, const Figure& a) {
    return {f * a.value, std::abs(f) * a.u95, worst(Provenance::Derived, a.provenance)};
}
inline Figure operator-(const Figure& a, const Figure& b) { return a + -1.0 * b; }
/// ± of a product to the first order.
inline Figure operator*(const Figure& a, const Figure& b) {
    return {a.value * b.value, std::hypot(a.u95 * b.value, a.value * b.u95),
            worst(Provenance::Derived, worst(a.provenance, b.provenance))};
}

/// It differs from 0 by more than its ±.
inline bool proven(const Figure& f) { return std::abs(f.value) > f.u95; }

/// The verdict on a plan or a part.
enum class PlanVerdict { Holds, Marginal, Fails };

constexpr const char* verdictWord(PlanVerdict v) {
    return v == PlanVerdict::Holds ? "Holds" : v == PlanVerdict::Marginal ? "Marginal" : "Fails";
}

/// From what to what a figure may lie. A limit that is itself assumed makes no green verdict either.
struct Limit {
    double least = -std::numeric_limits<double>::infinity();
    double most = std::numeric_limits<double>::infinity();
    Provenance provenance = Provenance::Measured;
    static constexpr Limit within(double tolerance) { return {-tolerance, tolerance}; }
    static constexpr Limit atLeast(double least) { return {least, std::numeric_limits<double>::infinity()}; }
    static constexpr Limit atMost(double most) { return {-std::numeric_limits<double>::infinity(), most}; }
};

/// Holds when the figure with all of its ± lies within, Fails when with all of its ± it lies outside, else Marginal; Marginal
/// when the ± is not known. What is assumed never Holds. engineering.md, Tape.
inline PlanVerdict judge(const Figure& f, const Limit& limit) {
    if (!std::isfinite(f.u95) || !std::isfinite(f.value)) return PlanVerdict::Marginal;
    if (f.value + f.u95 < limit.least || f.value - f.u95 > limit.most) return PlanVerdict::Fails;
    const bool within = f.value - f.u95 >= limit.least && f.value + f.u95 <= limit.most;
    const bool known = worst(f.provenance, limit.provenance) != Provenance::Assumed;
    return within && known ? PlanVerdict::Holds : PlanVerdict::Marginal;
}

} // namespace gorvet::units
