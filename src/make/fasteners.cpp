#include "make/fasteners.hpp"

#include <array>

namespace gorvet::make {

namespace {
constexpr std::array<BoltSize, 7> sizes = {{{6, 1.0, 5.2, 1.6, 12, 10, 6.6},
                                            {8, 1.25, 6.8, 1.6, 16, 13, 9},
                                            {10, 1.5, 8.4, 2.0, 20, 16, 11},
                                            {12, 1.75, 10.8, 2.5, 24, 18, 13.5},
                                            {14, 2.0, 12.8, 2.5, 28, 21, 15.5},
                                            {16, 2.0, 14.8, 3.0, 30, 24, 17.5},
                                            {20, 2.5, 18.0, 3.0, 37, 30, 22}}};
} // namespace

const BoltSize* boltSize(double nominal_mm) {
    for (const BoltSize& size : sizes)
        if (size.nominal == nominal_mm) return &size;
    return nullptr;
}

const BoltSize* boltThrough(double hole_mm) {
    if (hole_mm > sizes.back().clearance_hole + 2) return nullptr;
    const BoltSize* largest = nullptr;
    for (const BoltSize& size : sizes)
        if (size.nominal <= hole_mm + 1e-9) largest = &size;
    return largest;
}

std::optional<double> boltLength(const BoltSize& size, double grip_mm) {
    const double need = grip_mm + 2 * size.washer_thickness + size.nut + 3 * size.pitch;
    // ISO 888 lengths: in 5s to 70, in 10s to 160, in 20s to 400
    for (double length = 20; length <= 400; length += length < 70 ? 5 : length < 160 ? 10 : 20)
        if (length >= need - 1e-9) return length;
    return std::nullopt;
}

} // namespace gorvet::make
