#pragma once

#include "build/build.hpp"
#include "build/verdict.hpp"

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
Vec3 place(const Pose&, const Vec3& body);

/// A point by its place in Input::body, or in Input::chassis.
struct At {
    int index = -1;
    bool chassis = false;
    At() = default;
    At(int i, bool on_chassis = false) : index(i), chassis(on_chassis) {}
    bool operator==(const At&) const = default;
};

/// A box along the axes of its subject.
struct Box {
    Vec3 least;
    Vec3 most;
    bool chassis = true;
    bool operator==(const Box&) const = default;
};

/// A wish: of the body, or between two features (means of their points).
struct Wish {
    PinKind kind = PinKind::Station;
    std::vector<At> points; ///< level, rake: first half front, second half rear
    double target = 0;      ///< mm; rad for rake (> 0 nose down)
    double tolerance = 3;   ///< mm; rad for rake
    bool assumed = false;   ///< the target, or what it is measured by, is an assumed figure
    std::vector<At> to = {};
    std::optional<Box> box = {};
    build::Bound bound = build::Bound::Equal;
    build::Importance importance = build::Importance::Want;
    bool operator==(const Wish&) const = default;
};
/// Whether a wish says where the body stands against what drives the car, not how it stands in the air: what a school weighs.
bool ofDriveline(PinKind);

/// Points with the covariance of all their coordinates (3n × 3n, mm², row-major).
struct Located {
    std::vector<Vec3> at;
    std::vector<double> covariance;
    bool operator==(const Located&) const = default;
};

struct Input {
    Located body; ///< in the body's own frame
    std::vector<Wish> wishes;
    Located chassis; ///< wheel centres by the indices below, and whatever else of the chassis the wishes name
    int front_left = -1;
    int front_right = -1;
    int rear_left = -1;
    int rear_right = -1;
    std::optional<double> front_height_mm; ///< wheel centre over the ground, front axle
    std::optional<double> rear_height_mm;
    bool heights_assumed = false;
    std::optional<double> decided_change_mm; ///< of the wheelbase; none: the wishes decide
    double cut_slope_rad = 0;                ///< the rail's slope at the cut: the rear part moves along it
    std::optional<double> cut_station_mm;    ///< chassis points behind it move with the rear wheels; none: these alone
    double front_bump_mm = 0;                ///< the wheels rise by so much
    double rear_bump_mm = 0;
    double tyre_width_mm = 195;
    double front_tyre_mm = 0; ///< free radius; 0: the height of the wheel centre
    double rear_tyre_mm = 0;
    build::Leads leads = build::Leads::Neither;
    bool operator==(const Input&) const = default;
};

struct WishResult {
    bool usable = false;        ///< false: what it needs is not known (see `words`)
    double achieved = 0;        ///< mm or rad: the mean over its points, the worst of them for a bound
    double half_width = 0;      ///< ± at 95 % of what the car will have there, with the body built in at this pose
    double miss = 0;            ///< achieved − target; the largest over its points by size; 0 when a bound is kept
    double miss_half_width = 0; ///< ± of the point that misses most
    bool on_bound = false;      ///< a bound that the other wishes press against
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
    std::string words;
};

/// The ground as z = height + along·x + across·y in the chassis frame.
struct Ground {
    double height_mm = 0;
    double along = 0;
    double across = 0;
};

enum class Status { Seated, Underdetermined, NoWishes, NotConverged };

struct Seat {
    Status status = Status::NoWishes;
    Pose pose;
    double pose_half_width_mm[3] = {}; ///< ± of the body's origin
    std::vector<WishResult> wishes;
    std::vector<std::string> open; ///< what no wish decides, each a sentence with what to pin
    std::vector<int>
        contradictory;            ///< wishes of importance must that can't all be kept: the others are served as well as they let
    std::optional<Ground> ground; ///< after the change of wheelbase
    std::optional<double> wheelbase_now_mm;
    std::optional<double> change_mm; ///< planned: decided, or what centres the rear wheels
    double change_half_width_mm = 0;
    bool change_decided = false;
    std::optional<double> change_both_centred_mm; ///< distance of the body's arch centres − wheelbase now
    double change_both_half_width_mm = 0;
};

/// Weighted least squares over the wishes (each residual divided by its tolerance): three shifts, three turns and, when it
/// is not decided and a rear-arch wish asks for it, the change of wheelbase. A wish with a bound counts only beyond it; one of
/// importance must is kept whatever it costs the others (within its tolerance, when it is no bound); one that is only liked
/// counts a quarter. What leads by the school counts three times. What no wish decides stays as it is in the chassis frame and is
/// named. ± of pose and change: by propagating both surveys' covariances through the solution (how far another survey would have
/// put them). ± of a wish: of the outcome with the pose held, the variance J C Jᵀ of the points that make it; its verdict is that
/// of its worst point with that point's own ±. engineering.md, Scan and Sit.
Seat seat(const Input&);
/// What every wish comes to with the body at this pose, and the wheelbase changed by so much, with ± of the outcome: no search.
std::vector<WishResult> achievedAt(const Input&, const Pose&, double change_mm);

/// Height over the ground, perpendicular to it.
double heightOver(const Ground&, const Vec3&);

} // namespace gorvet::sit
