#include "make/wall.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::make {

namespace {

constexpr double least_wide = 0.25, face_alone = 0.85, thinnest = 35, unlike = 2, flattest_rad = 0.5235988, most_thick = 0.2;
constexpr double modulus_mpa = 205'000;

template <class W> double wide(const W& w) { return w.across_mm / w.face_mm; }
/// What the rail's own stress leaves of the wall: k_n for a rail in compression.
double left(double beta) { return std::min(1.0, 1.3 - 0.4 * rail_busy / beta); }

/// Of the rail's side as a column between its top and bottom: buckling curve c, EN 1993-1-1, 6.3.1.2.
double sideStress(double deep, double wall, double angle, double yield) {
    const double slender =
        3.46 * (deep / wall - 2) * std::sqrt(1 / std::sin(angle)) / (std::numbers::pi * std::sqrt(modulus_mpa / yield));
    const double phi = 0.5 * (1 + 0.49 * (slender - 0.2) + slender * slender);
    return yield * std::min(1.0, 1 / (phi + std::sqrt(std::max(0.0, phi * phi - slender * slender))));
}
/// Of a wide foot's or plate's edge across a wall: what of it presses at all.
double pressing(double across, double face, double wall, double thick) {
    const double stiff = thick > 0 ? std::min(1.0, wall / thick) : 1.0;
    return std::min(across, 10 * wall / face * stiff * across);
}
template <class W> bool railSaid(const W& w) {
    return w.face_mm > 0 && w.deep_mm > 0 && w.wall_mm > 0 && std::max(w.face_mm, w.deep_mm) / w.wall_mm <= thinnest &&
           w.face_mm / w.deep_mm <= unlike && w.deep_mm / w.face_mm <= unlike;
}

/// By the face's mechanism alone.
double facePushed(const WallFoot& w, double yield) {
    const double beta = wide(w), eta = w.along_mm / w.face_mm, s = std::sin(w.angle_rad);
    return left(beta) * yield * w.wall_mm * w.wall_mm / ((1 - beta) * s) * (2 * eta / s + 4 * std::sqrt(1 - beta));
}
double faceBent(const WallFoot& w, double yield) {
    const double beta = wide(w), t = w.wall_mm;
    return left(beta) * yield * t * t *
           (w.along_mm * (1 + beta) / (2 * (1 - beta)) + std::sqrt(2 * w.face_mm * w.across_mm * (1 + beta) / (1 - beta)));
}
WallFoot narrowed(WallFoot w) {
    w.across_mm = face_alone * w.face_mm;
    return w;
}
/// Between the face's mechanism at 0.85 and the sides' at 1.
double between(double face, double sides, double beta) { return face + (sides - face) * (beta - face_alone) / (1 - face_alone); }
/// Two plates and the wall between them, as one foot.
WallFoot block(const WallPlates& p) {
    const double both = p.apart_mm + 2 * p.thick_mm;
    WallFoot w{p.face_mm, p.deep_mm, p.wall_mm, p.across ? p.long_mm : both, p.across ? both : p.long_mm};
    return w;
}
double onePulled(const WallPlates& p, double yield) {
    const double t = p.wall_mm, shear = yield / std::numbers::sqrt3;
    if (!p.across) {
        const double busy = std::min(1.0, 1.3 * (1 - rail_busy));
        return std::min(busy * yield * t * t * (2 * p.long_mm / p.face_mm + 4 * std::sqrt(1 - p.thick_mm / p.face_mm)),
                        2 * shear * t * p.long_mm);
    }
    const double beta = p.long_mm / p.face_mm, face_beta = std::min(beta, face_alone);
    const double presses = pressing(p.long_mm, p.face_mm, t, p.thick_mm), cuts = pressing(p.long_mm, p.face_mm, t, 0);
    double least = left(beta) * yield * t * t * (2 + 2.8 * face_beta) / std::sqrt(1 - 0.9 * face_beta);
    least = std::min(least, yield * p.thick_mm * presses);
    if (beta > face_alone) least = std::min(least, shear * t * (2 * p.thick_mm + 2 * cuts));
    if (p.long_mm > p.face_mm - 2 * t)
        least = std::min(least, sideStress(p.deep_mm, t, std::numbers::pi / 2, yield) * t * (2 * p.thick_mm + 10 * t));
    return least;
}

} // namespace

bool wallSaid(const WallFoot& w) {
    return railSaid(w) && w.along_mm > 0 && wide(w) >= least_wide && wide(w) <= (w.round ? face_alone : 1 + 1e-9) &&
           w.angle_rad >= flattest_rad;
}

double wallPushed_N(const WallFoot& w, double yield) {
    const double beta = wide(w), s = std::sin(w.angle_rad), t = w.wall_mm;
    if (beta <= face_alone) return facePushed(w, yield) * (w.round ? std::numbers::pi / 4 : 1);
    const double sides = left(beta) * sideStress(w.deep_mm, t, w.angle_rad, yield) * t / s * (2 * w.along_mm / s + 10 * t);
    double least = between(facePushed(narrowed(w), yield), sides, beta);
    if (beta < 1 - 2 * t / w.face_mm)
        least = std::min(least, yield * t / (std::numbers::sqrt3 * s) *
                                    (2 * w.along_mm / s + 2 * pressing(w.across_mm, w.face_mm, t, 0)));
    if (w.foot_wall_mm > 0)
        least = std::min(least, yield * w.foot_wall_mm *
                                    (std::max(0.0, 2 * w.along_mm - 4 * w.foot_wall_mm) +
                                     2 * pressing(w.across_mm, w.face_mm, t, w.foot_wall_mm)));
    return least;
}

double wallBent_Nmm(const WallFoot& w, double yield) {
    const double beta = wide(w), t = w.wall_mm;
    const double square = 2 * yield * t * (w.along_mm * t + std::sqrt(w.face_mm * w.deep_mm * t * (w.face_mm + w.deep_mm)));
    if (beta <= face_alone) return std::min(faceBent(w, yield), square);
    const double sides = sideStress(w.deep_mm, t, std::numbers::pi / 2, yield) * t * (w.face_mm - t) * (w.along_mm + 5 * t);
    return std::min({between(faceBent(narrowed(w), yield), sides, beta), sides, square});
}

bool wallSaid(const WallPlates& p) {
    if (!railSaid(p) || p.long_mm <= 0 || p.thick_mm <= 0) return false;
    if (p.across) return p.long_mm >= least_wide * p.face_mm && p.long_mm <= p.face_mm * (1 + 1e-9);
    return p.thick_mm <= most_thick * p.face_mm && (p.count == 1 || wallSaid(block(p)));
}

double wallPulled_N(const WallPlates& p, double yield) {
    const double one = onePulled(p, yield);
    return p.count == 1 ? one : std::min(p.count * one, wallPushed_N(block(p), yield));
}

double wallBent_Nmm(const WallPlates& p, double yield) { return wallPulled_N(p, yield) * p.long_mm / 2; }

double wallBentOver_Nmm(const WallPlates& p, double yield) { return p.count * yield * p.wall_mm * p.wall_mm / 2 * p.long_mm; }

double tubeWallPushed_N(double tube, double wall, double other, double angle, double yield) {
    const double beta = other / tube, s = std::sin(angle), gamma = tube / (2 * wall);
    if (gamma > 25 || beta < 0.2 || beta > 1 + 1e-9 || angle < flattest_rad) return 0;
    const double busy = 1 - 0.3 * rail_busy * (1 + rail_busy); // k_p
    const double face = std::pow(gamma, 0.2) * busy * yield * wall * wall / s * (2.8 + 14.2 * beta * beta);
    const double cuts = yield / std::numbers::sqrt3 * wall * std::numbers::pi * other * (1 + s) / (2 * s * s);
    return other <= tube - 2 * wall ? std::min(face, cuts) : face;
}

} // namespace gorvet::make
