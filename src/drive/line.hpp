#pragma once

#include "build/drive.hpp"
#include "build/figure.hpp"
#include "build/places.hpp"
#include "build/remark.hpp"
#include "drive/joints.hpp"
#include "drive/linkage.hpp"
#include "drive/shaft.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// Shafts from the gearbox to the axles, in three dimensions and through travel. mm, rad; x rearward, y to the right, z up.
namespace gorvet::drive {

using build::Carrier;
using build::Figure;
using build::JointKind;
using build::PlanVerdict;

/// An end of a shaft.
struct EndIn {
    std::string name;
    build::DriveEndKind kind = build::DriveEndKind::Output;
    Carrier on = Carrier::Frame;
    int point = -1;  ///< its joint, in the places; −1: `at`
    Vec3 at;         ///< as typed
    Vec3 at_planned; ///< the same place once the frame is as planned
    int fore = -1;   ///< two places on its line; −1: slope and swing
    int aft = -1;
    std::optional<Figure> slope; ///< of its line, down at the back; a bearing has none
    Figure swing;                ///< to the right at the back
    double turned_rad = 0;       ///< planned
    Vec3 moved;                  ///< planned
    int housing = -1;            ///< ends of the same number move together; −1: it is alone
    bool planned() const { return turned_rad != 0 || moved.x_mm != 0 || moved.y_mm != 0 || moved.z_mm != 0; }
    bool has_line() const { return fore >= 0 || slope.has_value(); }
    bool operator==(const EndIn&) const = default;
};
struct ShaftIn {
    build::Shaft shaft;
    std::size_t from = 0; ///< in the ends
    std::size_t to = 0;
    bool operator==(const ShaftIn&) const = default;
};
/// A link, its points in the places.
struct LinkIn {
    std::string name;
    build::LinkKind kind = build::LinkKind::Rod;
    std::vector<std::size_t> points;
    bool operator==(const LinkIn&) const = default;
};
/// What holds an axle, and how far it goes. Without links it is taken to go straight up and down.
struct AxleIn {
    std::vector<LinkIn> links;
    std::size_t left = 0; ///< its wheel centres, in the places
    std::size_t right = 0;
    double bump_mm = 0;
    double droop_mm = 0;
    Rack rack; ///< that its tie rods go with
    bool operator==(const AxleIn&) const = default;
};
/// The linkage of an axle, its points where they are.
Linkage linkageOf(const AxleIn&, const std::vector<Vec3>& at);

struct LineInput {
    build::Places now;         ///< as surveyed
    std::vector<Vec3> planned; ///< the same points once the frame is as planned
    std::vector<EndIn> ends;
    /// Of the ends' slopes, n × n, row-major, rad²: one level on the frame is in all of them. Empty: none depends on another.
    std::vector<double> slope_covariance;
    std::vector<ShaftIn> shafts;
    std::optional<AxleIn> front; ///< held by links
    std::optional<AxleIn> rear;
    std::array<double, 2> bump_mm{0, 0}; ///< of front and rear axle
    std::array<double, 2> droop_mm{0, 0};
    double redline_rpm = 5500;
    double top_gear = 1;
    std::optional<double> first_gear;
    std::optional<double> low_range;
    std::optional<double> torque_Nm;
    build::DriveLayout layout = build::DriveLayout::Parallel;
    double wind_up_rad = 0;
    std::vector<std::string> assumed; ///< what nobody measured, of what these figures need
    std::vector<std::string> missing; ///< what can't be worked out for want of it
    bool operator==(const LineInput&) const = default;
};

/// One shaft after the other, from a unit to a unit: those in the input's shafts.
using Chain = std::vector<std::size_t>;
std::vector<Chain> chainsOf(const LineInput&);

/// A joint of a chain.
struct JointOf {
    std::string name; ///< "front of main"
    JointKind kind = JointKind::Cross;
    std::size_t shaft = 0; ///< place in the chain
    bool at_front = true;  ///< of that shaft
};
std::vector<JointOf> jointsOf(const LineInput&, const Chain&);

/// How it stands: the axles so far up, as a share of bump (> 0) or droop (< 0); under drive or not.
struct Situation {
    std::string name; ///< "at rest"
    double front = 0;
    double rear = 0;
    bool pulling = false;
};
std::vector<Situation> situationsOf(const LineInput&, const Chain&);

/// A chain as it stands in a situation.
struct Standing {
    Situation situation;
    std::vector<Figure> angles_rad; ///< of each joint
    Figure residual_rad;            ///< of all together, as one cross joint; its ± bounds it from above (97.5 %)
    std::vector<Figure> lengths_mm; ///< of each shaft, between its joints' centres
};
/// Without ±: for a drawing.
struct SweepRow {
    double share = 0; ///< −1 full droop, 1 full bump
    std::vector<double> angles_rad;
    std::vector<double> lengths_mm;
    std::vector<Vec3> at; ///< the ends of the chain
    double pinion_slope_rad = 0;
};

/// What can be done about it, worked out again with it done.
struct Remedy {
    std::string words; ///< "turn the pinion 1.5° nose down"
    std::string line;  ///< what to type
    int effort = 0;    ///< what is easier is tried first
};

struct ShaftPlan {
    std::string name;
    Figure length_mm;             ///< at rest, as planned
    std::optional<Figure> now_mm; ///< as it is, where that differs
    Figure shortest_mm;
    Figure longest_mm;
    std::string shortest_at; ///< "full droop"
    std::string longest_at;
    std::optional<Tube> tube; ///< as it is
    std::optional<double> critical_rpm;
    std::optional<double> shear_mpa;
    std::optional<Tube> lightest; ///< of the usual ones that would do
    Figure most_angle_rad;        ///< of its joints, anywhere in the travel
    std::string most_angle_at;
};
struct ChainPlan {
    std::string name; ///< "gearbox to rear"
    std::vector<JointOf> joints;
    std::vector<Standing> stands; ///< as planned
    std::optional<Standing> now;  ///< at rest as it is, where that differs
    std::vector<SweepRow> sweep;
    std::vector<ShaftPlan> shafts;
    double exact_lead_rad = 0;        ///< at rest: how far the last shaft runs ahead and behind, exactly
    double torsional = 0;             ///< ω²θ², rad/s², at rest or pulling, the larger, without ±
    double inertial = 0;              ///< ω²β², the larger of the ends
    double most_residual_rad = 0;     ///< that ω²θ² ≤ 300 allows
    double most_angle_rad = 0;        ///< that ω²β² ≤ 1000 allows
    std::optional<double> school_rad; ///< the slope that the pinion has by the school, at rest
    std::vector<Remedy> remedies;
    std::string searched; ///< what was looked through for them
    std::vector<build::Remark> remarks;
    PlanVerdict verdict = PlanVerdict::Holds;
};
struct LinePlan {
    double top_rpm = 0; ///< of the shafts
    std::vector<ChainPlan> chains;
    std::vector<std::string> loose; ///< what nothing shuts out of an axle's links, in words
    double strain_mm = 0;           ///< that bushes must give through the travel
};

/// The same without an axle's links where they leave it free to move, or lock before the end of its travel; why, added to `loose`
/// in words.
LineInput heldOnly(const LineInput&, std::vector<std::string>* loose = nullptr);

/// Angles, residual, lengths and verdicts of every chain. engineering.md, Drive.
LinePlan linePlan(const LineInput&);

/// Limits of the field: torsional and inertial, rad/s²; least angle of a cross joint; spare travel of a slip joint.
inline constexpr double most_torsional = 300, most_inertial = 1000, least_angle_rad = 0.0087266, spare_mm = 25;

} // namespace gorvet::drive
