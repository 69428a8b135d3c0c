#pragma once

#include "tape/survey.hpp"

#include <array>

/// The observation equation of each kind of reading.
namespace gorvet::tape {

/// A predicted value, with its derivatives by x, y, z of `from` and of `to`.
struct Predicted {
    double value = 0;
    std::array<double, 3> by_from{};
    std::array<double, 3> by_to{};
};

/// +1, or −1 for a slope reading that was typed rear to front along a mainly fore-and-aft line.
double slopeSense(const Vec3& from, const Vec3& to);

/// The reading's value at these positions, mm or rad. `to` is ignored when the kind has no second point (`has_to` false).
/// Where the derivative does not exist (two points in one place) it is 0.
Predicted predict(ReadingKind, const Vec3& from, const Vec3& to, bool has_to, double slope_sense = 1.0);

} // namespace gorvet::tape
