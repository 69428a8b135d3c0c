#pragma once

#include "build/figure.hpp"

#include <string>
#include <vector>

/// What an axle is geared to, from turns that were counted.
namespace gorvet::drive {

/// Turns as they were counted. With one wheel held the differential halves: the other turns twice as far as the crown wheel.
struct Turns {
    double shaft = 0;        ///< > 0
    double wheel = 0;        ///< > 0
    double shaft_off = 0.05; ///< by how much the count may be wrong at 95 %, in turns of the shaft
    double wheel_off = 0.01; ///< the same of the wheel
    bool one_held = false;   ///< the other wheel of the axle was held
    bool operator==(const Turns&) const = default;
};
/// Ratio of one count: shaft turns per turn of the crown wheel. engineering.md, Drive: 2 × with one wheel held.
build::Figure ratioOf(const Turns&);
/// The weighted mean of several counts; its ± is that of the mean, widened where they do not agree (by √(Ω/(n − 1)) when above
/// 1).
build::Figure ratioOf(const std::vector<Turns>&);

/// Teeth of a crown wheel and its pinion.
struct TeethPair {
    int crown = 0;
    int pinion = 0;
    double ratio() const { return static_cast<double>(crown) / pinion; }
    bool operator==(const TeethPair&) const = default;
};
/// Pairs of 25 … 60 and 6 … 21 teeth whose ratio lies within the figure's ±, none twice the same ratio (the one with the most
/// usual crown: nearest to 41 teeth), nearest first. Pairs with a common divisor are left out where asked: hypoid sets are mostly
/// cut to hunt.
std::vector<TeethPair> pairsFor(const build::Figure& ratio, bool hunting_only = true);

/// Engine rpm at a road speed: v × ratio × gear/(0.97 π OD). engineering.md, Drive.
double engineRpm(double kmh, double axle_ratio, double gear_ratio, double tyre_mm);
/// What the speedometer shows when its drive was made for another ratio or tyre, as a share of the road speed.
double speedometerShare(double was_ratio, double is_ratio, double was_tyre_mm, double is_tyre_mm);

} // namespace gorvet::drive
