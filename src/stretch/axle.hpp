#pragma once

#include "build/build.hpp"
#include "build/remark.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// A live axle made narrower or wider: what comes off each side of the housing and of the half-shafts, where perches, brakes and
/// tyres then stand, and what the joint of the tube bears. engineering.md, Stretch. mm, kg, MPa.
namespace gorvet::stretch {

struct AxleInput {
    build::AxleJob job;
    std::optional<double>
        rail_outside_mm;              ///< from the middle of the car to the outside of the wider rail at that axle, as planned
    std::optional<double> wheel_kg;   ///< what the heavier wheel of that axle carries; none: not weighed
    std::vector<std::string> assumed; ///< of both, what nobody measured
    bool operator==(const AxleInput&) const = default;
};

/// One side, left or right as one sits in the car.
struct AxleSide {
    double now_mm = 0;  ///< from the pinion's line to the wheel face
    double then_mm = 0; ///< the same as planned
    double cut_mm = 0;  ///< what comes off the tube and off the shaft; < 0: what is let in, and the shaft is too short
    std::optional<double> shaft_mm; ///< as planned, from the wheel face to its inner end
    std::optional<double> shaft_now_mm;
    std::optional<double> splines_mm;     ///< that are left on the shaft that is there
    bool other_fits = false;              ///< the other side's shaft, as it is, has the length wanted here
    std::optional<double> perch_moves_mm; ///< along the tube, outwards; 0: it stays
    double weld_mm = 0; ///< where the tube's joint is best, from the middle between the faces; 0: nothing is cut or not known
};

struct AxlePlan {
    bool changes = false; ///< something is cut, let in or moved
    double faces_now_mm = 0;
    double faces_mm = 0;
    std::array<AxleSide, 2> sides;      ///< left, right
    double pinion_moves_mm = 0;         ///< to the right
    std::optional<double> track_now_mm; ///< between the middles of the tyres; needs the wheels' offset
    std::optional<double> track_mm;
    std::optional<double> over_tyres_now_mm;
    std::optional<double> over_tyres_mm;
    std::optional<double> offset_needed_mm; ///< that keeps the tyres within, on the axle as planned
    std::optional<double> faces_needed_mm;  ///< the same with the wheels as planned
    std::optional<double> free_mm;          ///< of the tube, between perch and end flange, as planned
    std::optional<double> brake_gap_mm;     ///< between perch and brake
    std::optional<double> tyre_perch_mm;    ///< between perch and tyre
    std::optional<double> tyre_rail_mm;     ///< between rail and tyre, the axle level in the middle
    std::optional<double> stress_1g_mpa;    ///< at the tube's joint, standing
    std::optional<double> stress_3g_mpa;    ///< in a pothole
    double may_mpa = 0;                     ///< yield over 1.5
    build::PlanVerdict verdict = build::PlanVerdict::Holds;
    std::vector<build::Remark> remarks; ///< worst first
    std::vector<std::string> assumed;   ///< figures that nobody measured: nothing then holds
    std::vector<std::string> missing;   ///< what would be judged if it were said
};

/// Never fails: what is not said is not judged, and stands in `missing`.
AxlePlan axlePlan(const AxleInput&);

// ---- limits, mm; usual practice
inline constexpr double axle_weld_apart = 25; ///< a weld from the next one: engineering.md
inline constexpr double axle_brake_gap = 10;  ///< between perch and brake
inline constexpr double axle_tyre_gap = 25;   ///< between tyre and spring or rail, at rest; less than 10 touches
inline constexpr double axle_tyre_least = 10;
inline constexpr double axle_tube_yield = 210; ///< MPa: unknown mild steel
inline constexpr double axle_spline_spare = 5; ///< splines beyond what the gear holds

} // namespace gorvet::stretch
