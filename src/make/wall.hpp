#pragma once

/// A closed rail's wall under the foot of something hollow, or of plates, that is welded onto it: what it bears before it gives
/// in or out. EN 1993-1-8:2005, 7.4 and 7.5.2, tables 7.2, 7.11, 7.13 and 7.14 (T joints), γ = 1: without any margin. mm, N, rad,
/// MPa.
namespace gorvet::make {

struct WallFoot {
    double face_mm = 0;   ///< of the rail's face that it stands on, across the rail
    double deep_mm = 0;   ///< of the rail behind that face
    double wall_mm = 0;   ///< of the rail
    double across_mm = 0; ///< of the foot, across the rail; of a round one its diameter
    double along_mm = 0;  ///< of the foot, along the rail; the same of a round one
    bool round = false;
    double angle_rad = 1.5707963267948966; ///< between what stands there and the rail
    double foot_wall_mm = 0;               ///< of what stands there, of the same yield; 0: as thick as the rail's at the least
};
/// Whether the standard says anything: the foot from a quarter of the face to all of it (round: 0.85), walls no thinner than a
/// 35th of the rail, the rail's sides no more unlike than two to one, no flatter than 30°.
bool wallSaid(const WallFoot&);
/// Along what stands there, pushed or pulled. A foot wider than 0.85 of the face: between the face's mechanism and what the
/// rail's sides bear as columns, nor more than its edges cut through or than a wide foot passes on by itself. `wallSaid`.
double wallPushed_N(const WallFoot&, double yield_mpa);
/// Bent about the rail's own length: the wall's, the rail's sides', and what keeps the rail square. `wallSaid`, not round.
double wallBent_Nmm(const WallFoot&, double yield_mpa);

/// One plate that stands on edge on a wall, or two side by side.
struct WallPlates {
    double face_mm = 0, deep_mm = 0, wall_mm = 0; ///< as of a foot
    double long_mm = 0;                           ///< of each plate's edge on the wall
    double thick_mm = 0;
    int count = 1;
    double apart_mm = 0; ///< between two, clear
    bool across = false; ///< they run across the rail; else along it
};
/// As of a foot; a plate across the rail at least a quarter of the face long, one along it no thicker than a fifth; two stand
/// within the face.
bool wallSaid(const WallPlates&);
/// Pulled straight off it or pushed at it, all of them: each by itself, and the wall between both taken along. `wallSaid`.
double wallPulled_N(const WallPlates&, double yield_mpa);
/// Bent in their own plane, all of them. `wallSaid`.
double wallBent_Nmm(const WallPlates&, double yield_mpa);
/// A plate bent over, across its own face: the wall on both sides of it is bent as a strip held at the rail's edges (of a plate
/// across the rail: along it), each taking half. Follows from the strip's equilibrium; the standard counts nothing. `wallSaid`.
double wallBentOver_Nmm(const WallPlates&, double yield_mpa);

/// A tube's wall under another round tube that stands on it at an angle, pushed or pulled along: table 7.2. Zero where the
/// standard says nothing: thinner than a 50th, the other under a fifth of its width or over it, flatter than 30°.
double tubeWallPushed_N(double tube_mm, double wall_mm, double other_mm, double angle_rad, double yield_mpa);

/// The rail's own stress as a share of its yield while this bears: taken, as much as it may have (1 / 1.5).
inline constexpr double rail_busy = 2.0 / 3;

} // namespace gorvet::make
