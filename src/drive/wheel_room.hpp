#pragma once

#include "build/places.hpp"
#include "drive/wheel.hpp"
#include "geometry/rigid_transform.hpp"

#include <array>
#include <cstdint>
#include <memory>
#include <string>
#include <vector>

/// What stands beside a wheel as it goes through bump, droop and lock, seen from the wheel: a tyre is round, so that of every
/// place only two figures count, how far out it stands along the hub and how far from the hub's line. Clearances in that plane
/// are those in space. mm, rad; x rearward, y to the right, z up.
namespace gorvet::drive {

using geometry::RigidTransform;
using geometry::Vec3;

/// A pose of the hub, against rest.
struct HubPose {
    RigidTransform moved;
    std::string words; ///< "at 70 bump, locked 30° to the left"; empty: at rest
    bool operator==(const HubPose&) const = default;
};

/// Something beside the wheels of an axle.
struct RoomThing {
    std::string name;
    std::string tag; ///< of its card
    build::RoomOn on = build::RoomOn::Body;
    double least_mm = 20; ///< that the tyre shall be clear of it
    bool least_assumed = true;
    bool assumed = false; ///< where it stands is
    bool operator==(const RoomThing&) const = default;
};
/// Taped from the wheel that is fitted, at rest.
struct TapedThing : RoomThing {
    build::RoomFrom from = build::RoomFrom::Face;
    Figure out_mm; ///< outwards from there; inwards is negative
    Figure up_mm;  ///< over the wheel's centre
    Figure ahead_mm;
    bool operator==(const TapedThing&) const = default;
};
/// Marked and surveyed.
struct MarkedThing : RoomThing {
    std::size_t place = 0; ///< in the places of the input
    bool operator==(const MarkedThing&) const = default;
};
/// Scanned: places of its surface, so dense that nothing between them comes nearer by a quarter of a millimetre.
struct ScannedThing : RoomThing {
    std::shared_ptr<const std::vector<Vec3>> surface; ///< along the chassis' axes, as planned
    double u95_mm = 0;                                ///< of the scan and of the seat
    bool operator==(const ScannedThing&) const = default;
};

/// What carries the wheel itself: places along its middle, as it stands in each pose.
struct CarriedThing : RoomThing {
    std::vector<std::vector<Vec3>> at; ///< pose by pose
    double half_mm = 0;                ///< it is so thick to each side of its middle, at the most
    double u95_mm = 0;
    bool operator==(const CarriedThing&) const = default;
};

/// One side of an axle.
struct Corner {
    std::string name; ///< "left"
    bool right = false;
    std::size_t centre = 0;     ///< in the places: the middle of the wheel that is fitted
    std::vector<HubPose> poses; ///< the first is rest
    std::vector<TapedThing> taped;
    std::vector<MarkedThing> marked;
    std::vector<ScannedThing> scanned;
    std::vector<CarriedThing> carried;
    bool operator==(const Corner&) const = default;
};

/// A tyre, cut through along the hub: a rectangle with round shoulders.
struct TyreShape {
    double middle_mm = 0; ///< outwards from the face
    double half_mm = 0;   ///< half its section
    double radius_mm = 0;
    double round_mm = 0; ///< of its shoulders
    bool operator==(const TyreShape&) const = default;
    /// Distance of a place so far out and so far from the hub's line; < 0 within.
    double distance(double out_mm, double from_line_mm) const;
    /// By how far out of its middle a place at that distance from the line may stand, at least, to be clear by `need`; < 0: any.
    double halfAt(double from_line_mm, double need_mm) const;
};
TyreShape tyreShape(double middle_mm, double section_mm, double outside_mm, double seat_mm);

/// A place seen from the wheel, in one pose.
struct RoomPlace {
    float out_mm = 0;  ///< outwards from the face
    float from_mm = 0; ///< from the hub's line
    std::uint32_t pose = 0;
};
/// What is seen of one thing from one wheel, over all poses.
struct SeenThing {
    RoomThing thing;
    std::size_t corner = 0;
    std::vector<RoomPlace> places;
    double u95_mm = 0;   ///< of those that were scanned, or go with a link
    double slack_mm = 0; ///< places are where they are to this
};
/// The nearest of them.
struct Nearest {
    double mm = 0;
    std::uint32_t pose = 0;
    float out_mm = 0;
    float from_mm = 0;
};
Nearest nearestOf(const SeenThing&, const TyreShape&);

/// What a place is as seen from a wheel whose face's middle is at `face` at rest, in a pose.
RoomPlace seenFrom(const Vec3& face, bool right, const RigidTransform& back_to_rest, const Vec3& place, std::uint32_t pose);
/// The same of all places of a scan over all poses, those farther than `reach_mm` from the hub's line left out, each to the
/// nearest millimetre: what stands in one square millimetre counts once.
SeenThing seenScan(const ScannedThing&, const Vec3& face, bool right, const std::vector<HubPose>&, double reach_mm);

} // namespace gorvet::drive
