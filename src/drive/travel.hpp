#pragma once

#include "build/places.hpp"
#include "build/remark.hpp"
#include "drive/line.hpp"

/// An axle, or one wheel, through its travel: where it goes, how it turns, about what. mm, rad; x rearward, y to the right, z up.
namespace gorvet::drive {

struct TravelIn {
    std::string name; ///< "rear axle", "front left wheel"
    bool front = false;
    build::Places places; ///< as planned, with the covariance of the survey
    AxleIn held;          ///< one wheel: `right` is `left`
    double radius_mm = 0; ///< of the tyre, loaded: where the road is under the wheel's centre
    std::optional<double> wheelbase_mm;
    std::optional<double> cg_mm;      ///< height of the whole car's centre of gravity over the road
    std::optional<std::size_t> upper; ///< outer joints of a steered wheel, in the places: its steering axis
    std::optional<std::size_t> lower;
    std::vector<std::string> assumed;
    std::vector<std::string> missing;
    bool axle() const { return held.left != held.right; }
    bool operator==(const TravelIn&) const = default;
};

/// How it stands at one height, against rest.
struct TravelRow {
    double up_mm = 0;
    double slope_rad = 0; ///< of an axle's pinion: so much more down at the back
    double steer_rad = 0; ///< nose to the left
    double lean_rad = 0;  ///< top to the right
    double back_mm = 0;   ///< of the wheel's centre, or of the middle between both
    double aside_mm = 0;  ///< to the right; of one wheel: where it stands on the road
};
/// An axle that rolls: the right wheel so far over the left one.
struct RollRow {
    double roll_rad = 0;
    double steer_rad = 0;
    double aside_mm = 0;
    double slope_rad = 0;
};

struct TravelPlan {
    std::string name;
    std::vector<TravelRow> rows;       ///< from full droop to full bump
    std::vector<RollRow> rolls;        ///< of an axle, −4° … 4°
    Figure roll_centre_mm;             ///< over the road, at rest
    std::optional<Figure> centre_x_mm; ///< of an axle: about what it turns from the side, at rest; none where it does not turn
    std::optional<Figure> centre_z_mm;
    std::optional<Figure> anti_squat; ///< share of what the car would squat, of a driven rear axle: (h/x)(L/h_CG)
    Figure steer_per_roll;            ///< rad/rad of an axle; > 0: into the bend at the rear
    Figure bump_rad;                  ///< the pinion's slope at full bump, against rest; of one wheel its toe, > 0 in
    Figure droop_rad;
    Figure lean_bump_rad;             ///< of one wheel: top in at full bump
    std::optional<Figure> caster_rad; ///< of a steered wheel with both outer joints marked: top back
    double strain_mm = 0;
    double most_rod_rad = 0; ///< that a rod's end bends against rest
    std::string most_rod;
    std::vector<build::Remark> remarks;
    PlanVerdict verdict = PlanVerdict::Holds;
};

/// engineering.md, Drive; roll centre and anti-squat from the velocity of the tyre's contact (virtual work).
TravelPlan travelPlan(const TravelIn&);

} // namespace gorvet::drive
