#pragma once

#include "build/places.hpp"
#include "build/remark.hpp"
#include "drive/line.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// Front wheels on links, steered by their tie rods: how both turn, where the car turns about, what the rods do at full lock, and
/// what makes a wheel steer by itself over bumps. mm, rad; x rearward, y to the right, z up. engineering.md, Drive.
namespace gorvet::drive {

/// One front wheel.
struct SteeredWheel {
    AxleIn held;                      ///< its links in the places; one wheel
    std::optional<std::size_t> upper; ///< outer joints: its steering axis
    std::optional<std::size_t> lower;
    std::size_t tie_in = 0; ///< inner and outer end of its tie rod
    std::size_t tie_out = 0;
    bool operator==(const SteeredWheel&) const = default;
};
/// The rack or box that turns them, where it was said.
struct GearIn {
    std::string name;
    build::SteerKind kind = build::SteerKind::Rack;
    std::optional<double> each_way_mm; ///< from its middle to its end, of a box along its ball's way; none: not said
    std::optional<double> turns;       ///< of the hand wheel, from stop to stop
    bool operator==(const GearIn&) const = default;
};
struct SteeringIn {
    build::Places places;               ///< as planned
    std::array<SteeredWheel, 2> wheels; ///< left, right; their rack is the gear's
    std::optional<GearIn> gear;
    double lock_rad = 0;                ///< that the inner wheel turns to
    double radius_mm = 320;             ///< of the tyre, loaded
    std::optional<double> wheelbase_mm; ///< as planned
    std::optional<double> wheelbase_now_mm;
    std::vector<std::string> assumed;
    std::vector<std::string> missing;
    bool said = false; ///< a tie rod is
    bool operator==(const SteeringIn&) const = default;
};

/// Both wheels at one place of the rack. Nose to the left is positive.
struct SteerRow {
    double rack_mm = 0; ///< both inner ends so far to the right, or along the way of a box's ball
    double left_rad = 0;
    double right_rad = 0;
};
/// Steered as far as it goes to one side.
struct FullLock {
    bool left = false;
    double rack_mm = 0;
    Figure inner_rad; ///< > 0
    Figure outer_rad;
    Figure ideal_rad; ///< the outer wheel's, by Ackermann: cot outer = cot inner + between the steering axes / wheelbase
    Figure off_rad;   ///< outer − ideal
    Figure circle_mm; ///< diameter of the circle that the outer front tyre's middle runs
    std::optional<double> circle_now_mm; ///< with the wheelbase as it is
    double straight_rad = 0;       ///< what is left between a tie rod and its arm before they stand in line, of the nearer wheel
    bool straight_left = false;    ///< that one is the left
    bool by_gear = false;          ///< the gear ends it before the lock that was said
    std::optional<double> over_mm; ///< the gear goes so much farther than that lock
};
/// What sets a wheel that steers over bumps right, worked out again with it done.
struct ToeRemedy {
    double before_rad = 0; ///< most that it steers within 30 mm of rest
    double after_rad = 0;
    double up_mm = 0; ///< the tie rod's inner end so much higher
    bool better = false;
};
struct SteeringPlan {
    std::vector<SteerRow> rows;         ///< from one lock to the other
    std::vector<FullLock> locks;        ///< left, right; as far as they were found
    std::array<ToeRemedy, 2> toe;       ///< of the left and the right wheel
    double between_axes_mm = 0;         ///< of the steering axes, on the road
    std::optional<double> per_turn_rad; ///< that the wheels turn, their mean, for a turn of the hand wheel, near straight ahead
    std::string searched;
    std::vector<build::Remark> remarks;
    PlanVerdict verdict = PlanVerdict::Holds;
};
SteeringPlan steeringPlan(const SteeringIn&);

/// The outer wheel's angle by Ackermann.
double ackermann(double inner_rad, double between_axes_mm, double wheelbase_mm);

/// A tie rod and its arm are never nearer to one line than this.
inline constexpr double least_straight_rad = 0.4363323; // 25°

} // namespace gorvet::drive
