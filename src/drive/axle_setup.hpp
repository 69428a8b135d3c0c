#pragma once

#include "build/axle_setup.hpp"
#include "build/places.hpp"
#include "build/remark.hpp"
#include "geometry/rigid_transform.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// An axle set up on the bench for the car that it goes into: where its perches and brackets are welded, taped from both wheel
/// faces and turned against the pinion's line. mm, rad, N·m; x rearward, y to the right, z up. engineering.md, Drive.
namespace gorvet::drive {

using build::Figure;
using build::PlanVerdict;
using geometry::RigidTransform;
using geometry::Vec3;

/// A bracket, or the axle's end of a link.
struct BracketIn {
    std::string name;
    std::string tag; ///< of its card
    build::BracketKind kind = build::BracketKind::Other;
    int place = -1;  ///< in the places; −1: by the figures
    Figure right_mm; ///< of the axle's middle
    Figure ahead_mm; ///< of its line
    Figure up_mm;
    int frame = -1; ///< in the places: a damper's other end, the face that a stop meets
    std::optional<build::Dimension> closed;
    std::optional<build::Dimension> open;
    bool operator==(const BracketIn&) const = default;
};

struct AxleSetupIn {
    std::string name; ///< "rear axle"
    bool front = false;
    std::optional<Figure> faces_mm; ///< from wheel face to wheel face
    std::optional<Figure> tube_mm;
    std::optional<Figure> brake_in_mm;               ///< from the face inwards to the innermost of the brake
    std::array<std::optional<Figure>, 2> springs_mm; ///< left, right: outwards from the car's middle
    std::optional<Figure> spring_width_mm;
    std::optional<Figure> pad_slope_rad;
    std::optional<Figure> pinion_slope_rad;
    std::optional<Figure> kingpin_rad;
    std::optional<Figure> caster_rad;
    std::optional<double> u_bolt_mm;
    std::optional<double> stack_mm;
    std::optional<double> plate_mm;
    build::Places places; ///< as planned; the first two are the wheels' centres, left and right
    std::vector<BracketIn> brackets;
    std::vector<RigidTransform> travel; ///< where the axle goes, against rest: rest, bump, droop, and one wheel up
    double bump_mm = 0;
    std::vector<build::TackReading> tacks;
    std::vector<build::GearReading> gears;
    std::vector<std::string> photos; ///< of how its gears bear
    std::vector<std::string> assumed;
    bool operator==(const AxleSetupIn&) const = default;
};

struct PerchRow {
    bool right = false;
    Figure from_left_mm; ///< from the left wheel face to the perch's middle
    Figure from_right_mm;
};
struct BracketRow {
    std::string name;
    std::string tag;
    build::BracketKind kind = build::BracketKind::Other;
    Figure from_left_mm; ///< from the left wheel face, along the axle
    Figure from_right_mm;
    Figure from_middle_mm;            ///< of its hole to the middle of the tube
    std::optional<Figure> turned_rad; ///< seen from the left: its direction against the pinion's line forwards, up is positive
    Figure angle_rad;                 ///< the same against the car's level
    /// Of a damper through the travel.
    std::optional<Figure> rest_mm;
    std::optional<Figure> shortest_mm;
    std::optional<Figure> longest_mm;
    std::optional<Figure> gap_mm; ///< of a stop, at rest
};
/// A U-bolt as it is ordered.
struct UBolt {
    double inside_mm = 0; ///< between its legs
    double leg_mm = 0;    ///< from inside of its bow to the end
    double rod_mm = 0;    ///< length of the rod that it is bent from
    double thread_mm = 0; ///< at each end
};
struct GearRow {
    const char* unit = "mm";
    double least = 0;
    double most = 0;
    double mean = 0;
    PlanVerdict verdict = PlanVerdict::Holds;
};
struct AxleSetupPlan {
    std::string name;
    std::vector<PerchRow> perches;
    std::optional<Figure> pinion_up_rad; ///< against the perches' square: nose up is positive
    std::optional<Figure> wedge_rad;     ///< of a front beam: its seats turned so much further back
    std::vector<BracketRow> brackets;
    std::optional<UBolt> u_bolt;
    std::vector<GearRow> gears; ///< of the input's
    std::vector<build::Remark> remarks;
    std::vector<std::string> missing;
    PlanVerdict verdict = PlanVerdict::Holds;
};
AxleSetupPlan axleSetupPlan(const AxleSetupIn&);

/// A damper's least spare length at both ends of its travel.
inline constexpr double damper_spare_mm = 10;

} // namespace gorvet::drive
