#pragma once

#include "build/figure.hpp"
#include "build/places.hpp"
#include "build/remark.hpp"
#include "build/springs.hpp"
#include "drive/line.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// What the wheels weigh, where the weight is, what its springs carry, and what a change of height asks of them. mm, kg, N; x
/// rearward, y to the right, z up. engineering.md, Drive.
namespace gorvet::drive {

/// A weighing with one axle lifted.
struct LiftedIn {
    bool front = false; ///< this one is
    double up_mm = 0;   ///< of its wheels' centres
    Figure other_kg;    ///< on both wheels of the other
    bool operator==(const LiftedIn&) const = default;
};

/// The springs of an axle.
struct SpringIn {
    build::Spring spring;
    std::string name;                ///< "front"
    std::optional<AxleIn> held;      ///< its links, or those of its left wheel
    build::Places places;            ///< as planned
    std::optional<std::size_t> foot; ///< of the left one
    std::optional<std::size_t> top;
    std::vector<std::size_t> on; ///< points of the link that its foot stands on; none: on what moves
    std::vector<std::string> assumed;
    bool operator==(const SpringIn&) const = default;
};

struct WeightsIn {
    /// front left, front right, rear left, rear right, kg
    std::array<std::optional<Figure>, 4> wheels;
    std::optional<Figure> wheelbase_mm; ///< as it stood on the scales
    double front_x_mm = 0;              ///< station of the front wheels' centres
    std::array<std::optional<Figure>, 2> track_mm;
    std::array<Figure, 2> radius_mm; ///< height of the wheels' centres over the road
    std::vector<LiftedIn> lifted;
    std::vector<SpringIn> springs;
    std::array<double, 2> droop_mm{0, 0}; ///< of front and rear
    std::array<double, 2> bump_mm{0, 0};
    std::vector<std::string> assumed;
    std::vector<std::string> missing;
    bool said = false;
    bool operator==(const WeightsIn&) const = default;
};

/// What the springs of an axle come to.
struct SpringPlan {
    std::string name;
    std::optional<Figure> rate;        ///< of one spring, N/mm; of a torsion bar at its arm's end
    std::optional<Figure> per_wheel;   ///< how far the spring goes together for each mm of the wheel
    std::optional<Figure> wheel_rate;  ///< N/mm, with what the changing leverage adds where its load is known
    std::optional<Figure> length_mm;   ///< as it stands
    std::optional<Figure> load_N;      ///< on one spring, from the scales: what is not sprung is in it
    std::optional<Figure> free_load_N; ///< the same by its free length
    std::optional<Figure> hertz;       ///< at which that end goes up and down
    struct Higher {
        double by_mm = 0;
        std::optional<Figure> free_mm;   ///< that a spring of this rate needs
        std::optional<Figure> spacer_mm; ///< on the spring that is there; < 0: it must be shorter
        std::optional<Figure> rate;      ///< that a spring of this free length needs
        std::optional<Figure> turn_rad;  ///< of a torsion bar in its splines
        double droop_left_mm = 0;
        double bump_mm = 0;
    };
    std::optional<Higher> higher;
    struct Stop {
        Figure free_mm;                ///< that the wheel goes up until its stop touches, as planned
        std::optional<Figure> touch_g; ///< what the wheel carries then, in times of what it carries at rest
        std::optional<Figure> most_g;  ///< and at full bump, with the stop pressed
    };
    std::optional<Stop> stop;
};
struct WeightsPlan {
    std::optional<Figure> whole_kg;
    std::optional<Figure> front_share;
    std::optional<Figure> left_share;
    std::optional<Figure> cross_share; ///< of front right and rear left
    std::optional<Figure> cg_x_mm;     ///< station
    std::optional<Figure> cg_y_mm;     ///< right of the car's middle
    std::optional<Figure> cg_z_mm;     ///< over the road
    std::vector<Figure> cg_each_mm;    ///< over the road, by each weighing with a lifted axle
    std::vector<SpringPlan> springs;
    std::vector<build::Remark> remarks;
    PlanVerdict verdict = PlanVerdict::Holds;
};
WeightsPlan weightsPlan(const WeightsIn&);

/// Height of the centre of gravity over the wheels' centres: L ΔW / (W tan α). engineering.md, Drive.
double cgOverCentres(double whole_kg, double level_kg, double lifted_kg, double wheelbase_mm, double up_mm);
/// N·mm/rad of a bar that twists: π (d⁴ − i⁴) G / 32 L.
double barRate(double across_mm, double inside_mm, double length_mm);
/// Where a spring's foot stands when the wheel, or both, went up so far; nothing where its links lock.
std::optional<Vec3> footAt(const SpringIn&, const std::vector<Vec3>& places, double up_mm);

/// That a wheel shall still go down.
inline constexpr double least_droop_mm = 40;
/// That a wheel shall go up before its stop touches.
inline constexpr double least_stop_mm = 25;

} // namespace gorvet::drive
