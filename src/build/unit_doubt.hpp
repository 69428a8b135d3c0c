#pragma once

#include "build/build.hpp"

/// Figures that look as if they had been read or typed in another unit.
namespace gorvet::build {

/// What a figure would be with the unit that it seems to be in.
struct UnitDoubt {
    double factor = 1;      ///< 25.4, 10, 100, 1000, or one over these
    double would_be_mm = 0; ///< the figure times the factor
    std::string words;      ///< "in inches, 25.4 times as much"
};

/// Whether a length is far off what is roughly expected (by more than a half) and one of the usual factors brings it within an
/// eighth. Both above 0; nothing for an expectation below `least_expected_mm`: a rough place is good to a hand's breadth, and a
/// level of 10 mm where 100 was guessed is no slip.
inline constexpr double least_expected_mm = 500;
std::optional<UnitDoubt> doubtUnit(double value_mm, double expected_mm);

/// What the rough places say a reading should be, mm; nothing where they do not say, or for an angle.
std::optional<double> roughly(const Build&, ReadingKind, PointId from, PointId to);

} // namespace gorvet::build
