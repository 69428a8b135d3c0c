#pragma once

/// A closed rail's wall under the foot of something hollow that is welded onto it: what it bears before it gives in or out.
/// EN 1993-1-8:2005, 7.5.2, tables 7.11 and 7.14 (T joints), γ = 1: mechanisms of the wall, without any margin. mm, N, rad, MPa.
namespace gorvet::make {

struct WallFoot {
    double face_mm = 0;   ///< of the rail's face that it stands on, across the rail
    double deep_mm = 0;   ///< of the rail behind that face
    double wall_mm = 0;   ///< of the rail
    double across_mm = 0; ///< of the foot, across the rail; of a round one its diameter
    double along_mm = 0;  ///< of the foot, along the rail; the same of a round one
    bool round = false;
    double angle_rad = 1.5707963267948966; ///< between what stands there and the rail
};
/// Whether the standard says anything: the foot a quarter to 0.85 as wide as the face, walls no thinner than a 35th of the rail,
/// the rail's sides no more unlike than two to one, no flatter than 30°.
bool wallSaid(const WallFoot&);
/// Along what stands there, pushed or pulled. `wallSaid`.
double wallPushed_N(const WallFoot&, double yield_mpa);
/// Bent about the rail's own length: the wall's, and what keeps the rail square. `wallSaid`, not round.
double wallBent_Nmm(const WallFoot&, double yield_mpa);

/// The rail's own stress as a share of its yield while this bears: taken, as much as it may have (1 / 1.5).
inline constexpr double rail_busy = 2.0 / 3;

} // namespace gorvet::make
