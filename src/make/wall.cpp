#include "make/wall.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::make {

namespace {

constexpr double least_wide = 0.25, most_wide = 0.85, thinnest = 35, unlike = 2, flattest_rad = 0.5235988;

double wide(const WallFoot& w) { return w.across_mm / w.face_mm; }
/// What the rail's own stress leaves of the wall: k_n for a rail in compression.
double left(const WallFoot& w) { return std::min(1.0, 1.3 - 0.4 * rail_busy / wide(w)); }

} // namespace

bool wallSaid(const WallFoot& w) {
    return w.face_mm > 0 && w.deep_mm > 0 && w.wall_mm > 0 && w.along_mm > 0 && wide(w) >= least_wide && wide(w) <= most_wide &&
           std::max(w.face_mm, w.deep_mm) / w.wall_mm <= thinnest && w.face_mm / w.deep_mm <= unlike &&
           w.deep_mm / w.face_mm <= unlike && w.angle_rad >= flattest_rad;
}

double wallPushed_N(const WallFoot& w, double yield) {
    const double beta = wide(w), eta = w.along_mm / w.face_mm, s = std::sin(w.angle_rad);
    const double box = left(w) * yield * w.wall_mm * w.wall_mm / ((1 - beta) * s) * (2 * eta / s + 4 * std::sqrt(1 - beta));
    return w.round ? std::numbers::pi / 4 * box : box;
}

double wallBent_Nmm(const WallFoot& w, double yield) {
    const double beta = wide(w), t = w.wall_mm;
    const double wall =
        left(w) * yield * t * t *
        (w.along_mm * (1 + beta) / (2 * (1 - beta)) + std::sqrt(2 * w.face_mm * w.across_mm * (1 + beta) / (1 - beta)));
    const double square = 2 * yield * t * (w.along_mm * t + std::sqrt(w.face_mm * w.deep_mm * t * (w.face_mm + w.deep_mm)));
    return std::min(wall, square);
}

} // namespace gorvet::make
