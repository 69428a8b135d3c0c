#pragma once

#include "build/build.hpp"
#include "build/figure.hpp"
#include "geometry/box3.hpp"
#include "geometry/rigid_transform.hpp"

#include <optional>
#include <string>
#include <vector>

/// Sit: where does the body sit? The pose of the body on the chassis from the dimensions that must hold.
namespace gorvet::sit {

using build::PinKind;
using build::Vec3;

/// R = Rz(yaw)·Ry(pitch)·Rx(roll) about the body's own origin, then the shift, in the chassis frame.
/// + pitch nose up, + roll right side up, + yaw nose to the left.
struct Pose {
    Vec3 shift;
    double yaw_rad = 0;
    double pitch_rad = 0;
    double roll_rad = 0;
    bool operator==(const Pose&) const = default;
};
/// The same as a transform.
geometry::RigidTransform transformOf(const Pose&);
Vec3 place(const Pose&, const Vec3& body);

/// A point by its place in Input::body, or in Input::chassis.
struct At {
    int index = -1;
    bool chassis = false;
    At() = default;
    At(int i, bool on_chassis = false) : index(i), chassis(on_chassis) {}
    bool operator==(const At&) const = default;
};

/// A box along the axes of its subject, that something keeps clear of.
struct Envelope {
    geometry::Box3 box;
    bool chassis = true;
    bool operator==(const Envelope&) const = default;
};

/// A pin: of the body, or between two features (means of their points).
struct Pin {
    PinKind kind = PinKind::Station;
    std::vector<At> points;                                    ///< level, rake: first half front, second half rear
    double target = 0;                                         ///< mm; rad for rake (> 0 nose down)
    double tolerance = 3;                                      ///< mm; rad for rake
    build::Provenance provenance = build::Provenance::Derived; ///< of target and of what it is measured by, the worst
    std::vector<At> to = {};
    std::optional<Envelope> clear_of = {};
    build::Bound bound = build::Bound::Equal;
    build::Importance importance = build::Importance::Want;
    bool operator==(const Pin&) const = default;
};
/// Whether a pin says where the body stands against what drives the car, not how it stands in the air: what a school weighs.
bool ofDriveline(PinKind);

/// Points with the covariance of all their coordinates (3n × 3n, mm², row-major).
struct Located {
    std::vector<Vec3> at;
    std::vector<double> covariance;
    bool operator==(const Located&) const = default;
};

struct Input {
    Located body; ///< in the body's own frame
    std::vector<Pin> pins;
    Located chassis; ///< wheel centres by the indices below, and whatever else of the chassis the pins name
    int front_left = -1;
    int front_right = -1;
    int rear_left = -1;
    int rear_right = -1;
    std::optional<double> front_height_mm; ///< wheel centre over the ground, front axle
    std::optional<double> rear_height_mm;
    build::Provenance heights = build::Provenance::Derived; ///< of both, the worst
    std::optional<double> decided_change_mm;                ///< of the wheelbase; none: the pins decide
    double cut_slope_rad = 0;                               ///< the rail's slope at the cut: the rear part moves along it
    std::optional<double> cut_station_mm; ///< chassis points behind it move with the rear wheels; none: these alone
    double front_bump_mm = 0;             ///< the wheels rise by so much
    double rear_bump_mm = 0;
    double tyre_width_mm = 195;
    double front_tyre_mm = 0; ///< free radius; 0: the height of the wheel centre
    double rear_tyre_mm = 0;
    build::Leads leads = build::Leads::Neither;
    bool operator==(const Input&) const = default;
};

struct PinResult {
    bool usable = false;    ///< false: what it needs is not known (see `words`)
    build::Figure achieved; ///< mm or rad: the mean over its points, the worst of them for a bound; ± of what the car will have
                            ///< there, with the body built in at this pose
    build::Figure miss; ///< achieved − target; the largest over its points by size, with the ± of that; 0 when a bound is kept
    bool on_bound = false; ///< a bound that the other pins press against
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
    std::string words;
};

/// The ground as z = height + along·x + across·y in the chassis frame.
struct Ground {
    double height_mm = 0;
    double along = 0;
    double across = 0;
};

enum class Status { Seated, Underdetermined, NoPins, NotConverged };

struct Seat {
    Status status = Status::NoPins;
    Pose pose;
    double pose_u95_mm[3] = {}; ///< ± of the body's origin
    std::vector<PinResult> pins;
    std::vector<std::string> open;  ///< what no pin decides, each a sentence with what to pin
    std::vector<int> contradictory; ///< pins of importance must that can't all be kept: the others are served as well as they let
    std::optional<Ground> ground;   ///< after the change of wheelbase
    std::optional<double> wheelbase_now_mm;
    std::optional<double> change_mm; ///< planned: decided, or what centres the rear wheels
    double change_u95_mm = 0;
    bool change_decided = false;
    std::optional<double> change_both_centred_mm; ///< distance of the body's arch centres − wheelbase now
    double change_both_u95_mm = 0;
};

/// Weighted least squares over the pins (each residual divided by its tolerance): three shifts, three turns and, when it
/// is not decided and a rear-arch pin asks for it, the change of wheelbase. A pin with a bound counts only beyond it; one of
/// importance must is kept whatever it costs the others (within its tolerance, when it is no bound); one that is only liked
/// counts a quarter. What leads by the school counts three times. What no pin decides stays as it is in the chassis frame and is
/// named. ± of pose and change: by propagating both surveys' covariances through the solution (how far another survey would have
/// put them): what no pin decides stays where it is and adds nothing to it, so in an underdetermined seat it says nothing of
/// those directions. ± of a pin: of the outcome with the pose held, the variance J C Jᵀ of the points that make it; its verdict
/// is that of its worst point with that point's own ±. engineering.md, Scan and Sit.
Seat seat(const Input&);
/// What every pin comes to with the body at this pose, and the wheelbase changed by so much, with ± of the outcome: no search.
std::vector<PinResult> achievedAt(const Input&, const Pose&, double change_mm);

/// Height over the ground, perpendicular to it.
double heightOver(const Ground&, const Vec3&);

} // namespace gorvet::sit
