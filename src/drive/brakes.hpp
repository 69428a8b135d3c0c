#pragma once

#include "build/brakes.hpp"
#include "build/figure.hpp"
#include "build/remark.hpp"
#include "drive/column.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// Checks of brakes and pedals from what is said of them. They find what is off; they make nothing good: no verdict here is
/// better than Marginal, for brakes are designed and judged by those who are licensed for it. mm, N, kg, shares. engineering.md,
/// Drive.
namespace gorvet::drive {

struct BrakesIn {
    std::array<std::optional<build::Brake>, 2> brakes; ///< front, rear
    std::optional<build::Pedal> pedal;
    std::optional<build::Pedal> clutch;
    std::array<std::optional<Figure>, 2> axle_kg;
    std::optional<Figure> wheelbase_mm;
    std::optional<Figure> cg_mm;                    ///< height over the road
    std::array<std::optional<double>, 2> radius_mm; ///< of the tyres, loaded
    build::Places places;                           ///< of the runs
    std::vector<RunIn> runs;                        ///< all of them
    std::vector<std::string> missing;
    bool said = false;
    bool operator==(const BrakesIn&) const = default;
};
/// Two runs that want room between them, at their nearest.
struct RunsApart {
    std::string line; ///< the one that must stay cool or whole
    std::string beside;
    Figure clear_mm;
    double least_mm = 0;
};
/// A run that is there already, against the way that it takes.
struct Reach {
    std::string name;
    build::CrossingKind kind = build::CrossingKind::BrakeLine;
    Figure way_mm;   ///< through its points, at rest
    Figure spare_mm; ///< what is left of it where its way is longest; < 0: it does not reach
    std::string at;  ///< where that is: "at full droop"
};
struct BrakesPlan {
    std::optional<Figure> front_share; ///< of the braking at the tyres
    std::optional<Figure> locks_at_g;  ///< both axles lock together there; above it the rear locks first
    std::optional<Figure> leg_N;       ///< that the pedal asks for 0.6 g
    std::optional<Figure> reached_g;   ///< with what the leg presses, if it was said and the tyres hold
    std::optional<Figure> pedal_ratio;
    std::optional<Figure> pedal_mm; ///< way of the pad until the brakes press
    std::optional<double> pedal_room_mm;
    std::optional<Figure> clutch_ratio;
    std::vector<RunsApart> apart;
    std::vector<Reach> reaches;
    std::vector<std::string> not_looked_at; ///< what was not said, so not checked
    std::vector<build::Remark> remarks;
    PlanVerdict verdict = PlanVerdict::Marginal;
};
BrakesPlan brakesPlan(const BrakesIn&);

/// The deceleration, in g, at which axles with that share of the braking lock together: (share − weight's share) L / h.
double lockTogetherG(double front_braking, double front_weight, double wheelbase_mm, double cg_mm);

/// Up to here the rear shall not lock first; the most that a leg shall press for 0.6 g; share of a pedal's room.
inline constexpr double least_lock_g = 0.8, most_leg_N = 500, most_pedal_share = 0.6;
/// What a hose, cable or pipe has left at least where its way is longest; by which share of its way it may be too long.
inline constexpr double least_spare_mm = 10, most_spare_share = 0.15;

} // namespace gorvet::drive
