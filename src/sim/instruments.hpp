#pragma once

#include "sim/crooked_frame.hpp"

/// Simulated instruments that read a hidden truth with noise, drift and an occasional blunder.
namespace gorvet::sim {

/// What a reading is of.
struct Task {
    std::string kind; ///< spelling of a ReadingKind, or "dial", "scales"
    std::string from; ///< a point, or a wheel for dial and scales
    std::string to;
    int before = 0; ///< how often this same reading was taken already
    int taped = 0;  ///< how many tape readings were taken in all
    int taken = 0;  ///< how many readings of any kind
};

/// A reading as an instrument sends it.
struct Taken {
    std::string figure; ///< with its unit: "2164.2 mm"
    double value = 0;   ///< mm, rad or kg, as sent
    double truth = 0;   ///< what it would be without noise and blunder
    bool misread = false;
    std::string slip; ///< what went wrong, when it did: "a centimetre mark misread"
};

/// σ of the instruments: tape 1.0 mm + 0.2 mm/m, height gauge 0.7, level 0.1°, string 1.0, dial 0.05, scales 1 kg; as
/// engineering.md has them. The height gauge drifts by 0.1 mm with every ten readings.
/// Fails with BadInput when the frame has no such point or the kind is not played.
Result<Taken> take(const CrookedFrame&, const Task&);

/// The instruments that are played, as they introduce themselves: kind and name.
struct Played {
    build::InstrumentKind kind;
    const char* name;
};
const std::vector<Played>& played();
/// Which of them takes a kind of reading; nullptr when none does.
const Played* playedFor(std::string_view kind);

} // namespace gorvet::sim
