#include "drive/apart.hpp"

#include "drive/column.hpp"

#include <algorithm>

namespace gorvet::drive {

std::vector<std::size_t> distinct(std::vector<std::size_t> of) {
    std::sort(of.begin(), of.end());
    of.erase(std::unique(of.begin(), of.end()), of.end());
    return of;
}

Apart apartOf(const build::Places& places, const std::vector<std::size_t>& line, const std::vector<std::size_t>& other,
              double thick) {
    const std::vector<Vec3>& at = places.at;
    const auto next = [](const std::vector<std::size_t>& of, std::size_t k) { return of[std::min(k + 1, of.size() - 1)]; };
    Apart best;
    best.clear_mm.value = 1e18;
    for (std::size_t i = 0; i == 0 || i + 1 < line.size(); ++i)
        for (std::size_t j = 0; j == 0 || j + 1 < other.size(); ++j) {
            const std::size_t a = line[i], b = next(line, i), c = other[j], d = next(other, j);
            const NearestPlaces near = nearestOf(at[a], at[b], at[c], at[d]);
            if (near.distance_mm - thick >= best.clear_mm.value) continue;
            best.clear_mm = build::figureOf(places, distinct({a, b, c, d}), [&](const std::vector<Vec3>& p) {
                return nearestOf(p[a], p[b], p[c], p[d]).distance_mm - thick;
            });
            best.at = geometry::along(at[a], at[b], near.a);
            best.other_at = geometry::along(at[c], at[d], near.b);
        }
    return best;
}

} // namespace gorvet::drive
