#pragma once

#include "build/figure.hpp"
#include "units/quantity.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// How the wheels stand: toe from two gauge readings, camber, caster by sweep, ride heights. engineering.md, Tape.
namespace gorvet::tape {

/// Wheels in the order front left, front right, rear left, rear right.
inline constexpr const char* wheel_names[4] = {"front left", "front right", "rear left", "rear right"};

struct WheelRead {
    std::optional<double> camber_rad;     ///< > 0 top out, steered straight ahead
    std::optional<double> sweep_rad;      ///< turned so far each way for the caster, > 0
    std::optional<double> turned_out_rad; ///< camber with the wheel's front turned out
    std::optional<double> turned_in_rad;
    std::optional<double> ride_mm;
    std::optional<double> weight_kg;
    std::optional<double> run_out_mm; ///< least to most over a turn of the wheel
    bool operator==(const WheelRead&) const = default;
};
/// Between the rims of an axle at hub height, ahead of the hub and behind it; `rim_mm` between the two places.
struct ToeRead {
    double ahead_mm = 0;
    double behind_mm = 0;
    double rim_mm = 400;
    bool operator==(const ToeRead&) const = default;
};
struct AlignmentInput {
    std::array<WheelRead, 4> wheels;
    std::array<std::optional<ToeRead>, 2> toe; ///< front, rear
    bool operator==(const AlignmentInput&) const = default;
};

/// 1σ of the gauges, and by how much left and right may differ: common workshop practice.
inline constexpr double camber_sigma_rad = 0.1 * 3.14159265358979323846 / 180;
inline constexpr double toe_sigma_mm = 0.5;
inline constexpr double ride_sigma_mm = 1.0;
inline constexpr double unlike_limit_rad = 0.5 * 3.14159265358979323846 / 180;
inline constexpr double unlike_ride_mm = 5.0;
inline constexpr double run_out_limit_mm = 1.0; ///< engineering.md, Drive
inline constexpr double run_out_sigma_mm = 0.05;
inline constexpr double weight_sigma_kg = 1.0;

struct AlignmentFigure {
    std::string key;  ///< "toe-front", "camber-front-left", "caster-front-unlike"
    std::string name; ///< as shown
    bool angle = true;
    std::string unit;         ///< "kg" or "%"; empty: mm, or rad of an angle
    build::Figure size;       ///< rad, mm, kg or %; toe > 0 in, camber > 0 top out, unlike: left − right
    std::optional<double> mm; ///< toe: the same between the rims
    std::string words;        ///< "toe-in", "top out", "left more than right"
    bool judged = false;
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
    double limit = 0;
    std::string remedy;
};

/// A figure and its ± in words: "0.4° ± 0.2°", "2.0 ± 0.5 mm", "51.2 ± 0.2 %".
std::string shownFigure(const AlignmentFigure&, double value, units::LengthStep);

/// Share of the weight on the front axle, and cross weight (front right + rear left of all; 50 % is even), from four corner
/// scales. Toe = (behind − ahead)/rim over both wheels. Caster = (camber turned out − camber turned in)/(2 sin δ). Differences
/// left − right are judged. Only what was read is there.
std::vector<AlignmentFigure> alignment(const AlignmentInput&);

} // namespace gorvet::tape
