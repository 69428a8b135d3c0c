#pragma once

#include <optional>
#include <string>

/// Standard metric bolts, nuts and washers, for mounts and flanges.
namespace gorvet::make {

/// Dimensions in mm. ISO 4032 nuts (greatest height), ISO 7089 washers, coarse thread.
struct BoltSize {
    double nominal = 0;
    double pitch = 0;
    double nut = 0;
    double washer_thickness = 0;
    double washer_outside = 0;
    double across_flats = 0;   ///< of the head, for room for a spanner
    double clearance_hole = 0; ///< ISO 273, medium
};

/// A length of the rails that is filled from inside: a sleeve. Nothing that stands inside the rail goes there, nor is it slid in
/// past such a thing.
struct Filled {
    std::string by; ///< "the sleeve of the cut"
    double from_mm = 0;
    double to_mm = 0;
    bool operator==(const Filled&) const = default;
};

/// Null for a size that is not 6, 8, 10, 12, 14, 16 or 20.
const BoltSize* boltSize(double nominal_mm);
/// The largest bolt that goes through a hole; null: none does, or it is a hole for more than a bolt of 20.
const BoltSize* boltThrough(double hole_mm);

/// grip + two washers + nut + three threads, rounded up to the next standard length; none above 400 mm. engineering.md, Make.
std::optional<double> boltLength(const BoltSize&, double grip_mm);

} // namespace gorvet::make
