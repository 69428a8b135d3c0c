#pragma once

#include "build/build.hpp"

#include <cstdint>
#include <string>
#include <vector>

/// Practice frames: a made-up ladder frame with a hidden truth, from a seed and a difficulty. Same seed, same frame, on every
/// machine.
namespace gorvet::sim {

using build::Vec3;

struct FramePoint {
    std::string name;
    build::Role role = build::Role::None;
    Vec3 drawn; ///< where the drawing has it
    Vec3 truth; ///< where it stands
    Vec3 rough; ///< where a glance puts it
};

/// What was done to the frame.
struct Fault {
    std::string key; ///< as of tape's figures: diamond, twist, rail-difference, sidesway, sag
    double amount_mm = 0;
    std::string how; ///< what happened to it: "hit at the left front corner"
};

struct CrookedFrame {
    std::uint32_t seed = 0;
    int difficulty = 1;
    std::vector<FramePoint> points; ///< the axes are the frame's own: front axle, centreline of the drawing
    std::vector<Fault> faults;      ///< at least one
    std::vector<int> misread;       ///< which tape readings go wrong, counted from the first (0)
    Vec3 floor;                     ///< height of the floor at the origin, mm; rise along and across, mm/m

    const FramePoint* named(std::string_view name) const;
};

/// difficulty 1: one or two plain faults, one misread tape. 2: two or three smaller ones. 3: small ones near the tolerance, an
/// uneven floor, two misread tapes.
CrookedFrame crookedFrame(std::uint32_t seed, int difficulty);

/// Random numbers that are the same everywhere (splitmix64): one stream a purpose.
class Chance {
public:
    explicit Chance(std::uint64_t seed) : state_(seed) {}
    std::uint64_t bits();
    double uniform(double from, double to);
    int whole(int from, int to); ///< both included
    double normal();             ///< mean 0, σ 1 (Box–Muller)

private:
    std::uint64_t state_;
};

} // namespace gorvet::sim
