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

/// A wish, with its points as indices into Input::body.
struct Wish {
    PinKind kind = PinKind::Station;
    std::vector<int> points; ///< level, rake: first half front, second half rear
    double target = 0;       ///< mm; rad for rake (> 0 nose down)
    double tolerance = 3;    ///< mm; rad for rake
    bool assumed = false;    ///< the target is an assumed figure
    bool operator==(const Wish&) const = default;
};

/// Points with the covariance of all their coordinates (3n × 3n, mm², row-major).
struct Located {
    std::vector<Vec3> at;
    std::vector<double> covariance;
    bool operator==(const Located&) const = default;
};

struct Input {
    Located body; ///< in the body's own frame
    std::vector<Wish> wishes;
    Located hubs; ///< wheel centres in the chassis frame, in the order of the indices below
    int front_left = -1;
    int front_right = -1;
    int rear_left = -1;
    int rear_right = -1;
    std::optional<double> front_height_mm; ///< wheel centre over the ground, front axle
    std::optional<double> rear_height_mm;
    bool heights_assumed = false;
    std::optional<double> decided_change_mm; ///< of the wheelbase; none: the wishes decide
    double cut_slope_rad = 0;                ///< the rail's slope at the cut: the rear part moves along it
    bool operator==(const Input&) const = default;
};

struct WishResult {
    bool usable = false;   ///< false: what it needs is not known (see `words`)
    double achieved = 0;   ///< mm or rad, mean over its points
    double half_width = 0; ///< ± at 95 % from the surveys
    double miss = 0;       ///< achieved − target; the largest over its points by size
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
    std::optional<Ground> ground;  ///< after the change of wheelbase
    std::optional<double> wheelbase_now_mm;
    std::optional<double> change_mm; ///< planned: decided, or what centres the rear wheels
    double change_half_width_mm = 0;
    bool change_decided = false;
    std::optional<double> change_both_centred_mm; ///< distance of the body's arch centres − wheelbase now
    double change_both_half_width_mm = 0;
};

/// Weighted least squares over the wishes (each residual divided by its tolerance): three shifts, three turns and, when it
/// is not decided and a rear-arch wish asks for it, the change of wheelbase. What no wish decides stays as it is in the
/// chassis frame and is named. ± by propagating both surveys' covariances through the solution.
Seat seat(const Input&);

/// Height over the ground, perpendicular to it.
double heightOver(const Ground&, const Vec3&);

} // namespace gorvet::sit
