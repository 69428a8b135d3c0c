#pragma once

#include "build/figure.hpp"
#include "build/places.hpp"
#include "build/remark.hpp"
#include "build/steering.hpp"
#include "drive/joints.hpp"
#include "geometry/rigid_transform.hpp"

#include <optional>
#include <string>
#include <vector>

/// From the hand wheel to the steering gear: joints and how their forks stand, what holds the shafts, what they pass. mm, rad; x
/// rearward, y to the right, z up. engineering.md, Drive and Scan and Sit.
namespace gorvet::drive {

using build::Figure;
using build::PlanVerdict;
using geometry::Vec3;

/// A pipe or line through the car.
struct RunIn {
    std::string name;
    build::CrossingKind kind = build::CrossingKind::Exhaust;
    std::vector<std::size_t> points; ///< in the places
    double across_mm = 0;
    bool shielded = false;
    bool assumed = false;                               ///< its diameter, or where it runs
    std::optional<Figure> long_mm;                      ///< as long as it is
    std::vector<geometry::RigidTransform> last_moved{}; ///< its last point at full bump and full droop; empty: it stays
    bool steers = false;                                ///< its last point goes with a wheel that is steered, too
    bool straight = false; ///< as if that axle went straight up and down: no link is known to hold it
    bool operator==(const RunIn&) const = default;
};

struct ColumnIn {
    std::string name;
    build::Places places;              ///< as planned
    std::vector<std::size_t> points;   ///< the hand wheel's hub, each joint, a place on the gear's own shaft
    std::vector<double> phases_rad;    ///< of each shaft between two joints
    bool phases_known = false;         ///< else taken in phase
    std::vector<std::size_t> bearings; ///< in the places
    std::vector<std::size_t> bulkhead; ///< three, or none
    double across_mm = 19;             ///< of the thickest shaft
    bool across_known = false;
    std::optional<double> gives_mm;      ///< by which it goes together in a crash
    bool between_body_and_frame = false; ///< the hand wheel is on the one, the gear on the other
    double limit_rad = 0;                ///< most that its joints bend
    bool limit_known = false;
    std::vector<RunIn> runs;
    std::vector<std::string> assumed;
    std::vector<std::string> missing;
    bool operator==(const ColumnIn&) const = default;
};

struct ColumnJoint {
    std::string name; ///< of its point
    Figure angle_rad;
};
struct ColumnShaft {
    std::string from, to;
    Figure length_mm;
    bool between_joints = false;
    double phase_rad = 0; ///< as it is, or taken in phase
    double best_rad = 0;  ///< that leaves the steering most even, −90° … 90°
    std::size_t bearings = 0;
};
/// A run at its nearest.
struct NearRun {
    std::string name;
    build::CrossingKind kind = build::CrossingKind::Exhaust;
    std::string beside;  ///< "between Ja and Jb", "the joint Ja"
    Figure clear_mm;     ///< between the surfaces
    double least_mm = 0; ///< that is asked
    Vec3 at;             ///< on the column's line
    Vec3 run_at;         ///< on the run's
};
/// Where it passes the bulkhead.
struct Passage {
    Vec3 at;
    std::size_t shaft = 0;
    double slant_rad = 0;              ///< of the shaft to the sheet's square
    double wide_mm = 0;                ///< of the hole, with its clearance all round
    double long_mm = 0;                ///< along the slant
    std::vector<double> from_marks_mm; ///< from each of the sheet's three places
    Figure out_mm;                     ///< the larger of its two ± in the sheet: value 0
};
struct ColumnPlan {
    std::string name;
    std::vector<ColumnJoint> joints;
    std::vector<ColumnShaft> shafts;
    Figure stray;                ///< how far the gear's shaft strays from turning evenly, share of its speed
    double best_stray = 0;       ///< with the forks as they are best
    std::vector<double> turning; ///< the gear's shaft against the hand wheel, over a turn of it
    std::vector<NearRun> near;
    std::optional<Passage> passage;
    std::string searched;
    std::vector<build::Remark> remarks;
    PlanVerdict verdict = PlanVerdict::Holds;
};
ColumnPlan columnPlan(const ColumnIn&);

/// The two places where two stretches are nearest to each other; shares along each, 0 … 1.
struct NearestPlaces {
    double a = 0, b = 0, distance_mm = 0;
};
NearestPlaces nearestOf(const Vec3& a0, const Vec3& a1, const Vec3& b0, const Vec3& b1);

/// Least clearance of a turning steering shaft: to the exhaust by engineering.md, to all else by workshop practice.
inline constexpr double column_exhaust_mm = 30, column_other_mm = 10;
/// Most that the gear's shaft may stray from even; more is felt at the hand wheel, twice that pulls at it.
inline constexpr double most_stray = 0.1;

} // namespace gorvet::drive
