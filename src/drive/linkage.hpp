#pragma once

#include "geometry/rigid_transform.hpp"

#include <optional>
#include <string>
#include <vector>

/// What carries an axle, or one wheel, and where it stands through travel. mm, rad; x rearward, y to the right, z up. All places
/// are those at rest, with the weight on; a wheel that goes up has gone over a bump.
namespace gorvet::drive {

using geometry::Vec3;

/// How the inner ends of the tie rods go: straight along a rack, or round with the arm of a box, the link between them held level
/// with it by an idler of the same length.
struct Rack {
    Vec3 along{0, 1, 0};     ///< of length 1, to the right
    std::optional<Vec3> arm; ///< from the arm's shaft to its ball, at rest; none: a rack
    /// By how much they are shifted after so many mm, along the ball's way where it has an arm.
    Vec3 shift(double mm) const;
    /// How that changes with each mm.
    Vec3 way(double mm) const;
    bool operator==(const Rack&) const = default;
};
/// A rod with a joint at both ends, or one leg of a wishbone. Where `racked`, its end on the frame goes with the steering rack.
struct Rod {
    std::string name;
    Vec3 frame;
    Vec3 body;
    bool racked = false;
    bool leg = false;     ///< of a wishbone: its pivot on the frame is a line of its own
    double longer_mm = 0; ///< than from one of these places to the other
    bool operator==(const Rod&) const = default;
};
/// A place of what moves that stays where it is on the frame: two of them are the pivot line of a trailing arm.
struct Hinge {
    std::string name;
    Vec3 at;
    bool operator==(const Hinge&) const = default;
};
/// A strut: its line, fixed to what moves, runs through its top mount.
struct Strut {
    std::string name;
    Vec3 top;  ///< on the frame
    Vec3 foot; ///< another place on its line, on what moves
    bool operator==(const Strut&) const = default;
};
/// A leaf spring, its halves bent as circles of one curvature (equal strength all along), clamped at its seat; its shackle hangs
/// on the frame. The same to the first order as the three-link rule (links of 3/4 of the halves; SAE spring manual) and as its
/// rule for the seat's turn.
struct Leaf {
    std::string name;
    Vec3 front_eye; ///< on the frame
    Vec3 seat;      ///< of the main leaf over the axle
    Vec3 rear_eye;
    Vec3 shackle; ///< its pivot on the frame
    bool operator==(const Leaf&) const = default;
};
/// A rocker that turns about a pivot on the axle, across the car, with a rod to each side.
struct Watts {
    std::string name;
    Vec3 pivot; ///< on the axle
    Vec3 left_frame, left_arm;
    Vec3 right_frame, right_arm; ///< the arms: ends of the rocker
    bool operator==(const Watts&) const = default;
};

/// All that holds an axle with two wheels, or one wheel where `right` is none.
struct Linkage {
    std::vector<Rod> rods;
    std::vector<Hinge> hinges;
    std::vector<Strut> struts;
    std::vector<Leaf> leaves;
    std::vector<Watts> watts;
    Rack rack;
    Vec3 left;                 ///< centre of the left wheel, or of the one wheel
    std::optional<Vec3> right; ///< of the right wheel
    bool operator==(const Linkage&) const = default;
};

/// How a body moves: so far it is shifted, at the middle between the wheels, and so far turned (a rotation vector).
struct Motion {
    Vec3 shift;
    Vec3 turn;
};
/// Velocity of a place p of it, at a reference place.
Vec3 motionAt(const Motion&, const Vec3& reference, const Vec3& p);

/// Where the wheels shall be: so far up from rest; the rack so far to the right, or the arm's ball along its way.
struct Asked {
    double left_mm = 0;
    double right_mm = 0;
    double rack_mm = 0;
};
/// Where it stands then.
struct Stance {
    Asked asked;
    geometry::RigidTransform moved; ///< of a place at rest
    Vec3 reference;                 ///< the middle between the wheels, moved
    double strain_mm = 0;           ///< by how much bushes must give, the most of any: what is held more than once
    Motion in_heave;                ///< per mm that both wheels (or the one) go up
    Motion in_roll;                 ///< per rad that the right wheel stands higher; of one wheel nothing
    Motion in_rack;                 ///< per mm of the rack
};

/// What may still move though the wheels stand still: one for each freedom that nothing holds, the largest part made 1 (mm, or mm
/// at 1000 mm for a turn). Empty: it is held. `least_hold`: what is held by less counts as free: 0.05 where 1 mm of give in a
/// bush lets it go 20 mm.
std::vector<Motion> freedoms(const Linkage&, double least_hold = 1e-3);
/// The stance of each that is asked, each followed from the one before it (the first from rest), in steps that never jump to
/// another way of closing the linkage. Ends before the first that can't be reached: a rod at its end, a lock, a shackle that
/// turns over.
std::vector<Stance> sweep(const Linkage&, const std::vector<Asked>&);

/// By how far a rod leans out of the plane in which the bolts through its ends let it swing (level, square across it, as they
/// stand at rest): what bushes or rod ends must give at the frame and at the body. rad
struct RodAngles {
    double at_frame_rad = 0;
    double at_body_rad = 0;
};
RodAngles rodAngles(const Linkage&, const Rod&, const Stance&);
/// Length of a strut from its top to its foot.
double strutLength(const Strut&, const Stance&);

} // namespace gorvet::drive
