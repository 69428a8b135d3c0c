#include "shape/distinct.hpp"

#include <bit>

namespace gorvet::shape {

std::vector<std::uint32_t> firstOfEach(const std::vector<Point3>& points) {
    // an open table of numbers, at most half full
    constexpr std::uint32_t none = 0xffffffffU;
    std::vector<std::uint32_t> table(std::bit_ceil(2 * points.size() + 2), none);
    const size_t mask = table.size() - 1;
    const auto mixed = [](std::uint64_t h) {
        h ^= h >> 33;
        h *= 0xff51afd7ed558ccdULL;
        h ^= h >> 33;
        h *= 0xc4ceb9fe1a85ec53ULL;
        return h ^ h >> 33;
    };
    std::vector<std::uint32_t> first(points.size());
    for (std::uint32_t i = 0; i < points.size(); ++i) {
        std::uint64_t hash = 0;
        for (const double v : {points[i].x_mm, points[i].y_mm, points[i].z_mm})
            hash = mixed(hash ^ std::bit_cast<std::uint64_t>(v + 0.0)); // −0 + 0 = 0
        size_t slot = hash & mask;
        while (table[slot] != none && points[table[slot]] != points[i]) slot = (slot + 1) & mask;
        if (table[slot] == none) table[slot] = i;
        first[i] = table[slot];
    }
    return first;
}

} // namespace gorvet::shape
