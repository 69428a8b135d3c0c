#pragma once

#include "analysis/results.hpp"
#include "build/planned_chassis.hpp"
#include "sit/pairs.hpp"
#include "sit/way_in.hpp"

/// Body and chassis scans as they stand on each other: where the surveys and pins seat the body, the chassis as planned.
namespace gorvet::analysis {

/// A scan's mesh in its own file's axes, in mm, by the scan it belongs to.
using ScanMeshes = std::map<build::ScanId, std::shared_ptr<const shape::Mesh>>;

/// What it shows when it stands on the axes of its subject; a cloud's points count as themselves.
geometry::RigidTransform poseOf(const build::Scan&);
/// What it takes to read a scan's unit: mm to one unit of the file.
double unitOf(build::ScanUnit);

/// A tyre that nobody scanned, where it stands on the chassis as planned.
struct DrawnWheel {
    std::string name;
    build::Vec3 centre; ///< of the tyre, its line along y
    drive::TyreShape tyre;
    double seat_mm = 0; ///< radius of the bead seats
    bool operator==(const DrawnWheel&) const = default;
};

/// A shaft that nobody scanned, where it stands on the chassis as planned, and how its axle moves it.
struct DrawnTube {
    std::string name;
    build::ScanPart kind = build::ScanPart::PropShaft;
    double radius_mm = 0;
    std::array<build::Vec3, 2> at; ///< the middles of its ends at rest
    struct Stands {
        double share = 0; ///< −1 full droop, 1 full bump
        std::array<build::Vec3, 2> at;
        bool operator==(const Stands&) const = default;
    };
    std::vector<Stands> through; ///< rising; empty: it stays
    bool assumed = false;        ///< the travel is a typical one
    bool operator==(const DrawnTube&) const = default;
};

/// What the meshes of an overlay are made from: the scans, and how the plan changes what they show.
struct OverlayInput {
    std::shared_ptr<const ScanMeshes> meshes; ///< none: no scan
    build::Rows<build::Scan> scans;
    std::map<build::SubjectId, std::string> elsewhere; ///< names of the subjects that stand on axes of their own
    build::Rows<build::Obstacle> envelopes;            ///< marked boxes that pins keep clear of
    build::PlannedChassis planned;                     ///< where the plan puts what lies behind the cut
    std::optional<build::Lowering> lowering;           ///< none: no floor or rail is changed
    build::Rows<build::Zone> zones;                    ///< for the floor
    double rail_width_mm = 0;                          ///< for the ramps of a kick-up
    double between_axles_mm = 0;                       ///< a station: a wheel behind it is a rear one
    struct Channel {
        geometry::RigidTransform seat; ///< a channel lies over the rails wherever the body sits
        build::RailLine left;
        build::RailLine right;
        double half_mm = 0; ///< it is so wide to each side of a rail's middle
        bool operator==(const Channel&) const = default;
    };
    std::optional<Channel> channel;
    std::vector<DrawnWheel> wheels; ///< as wanted, else as fitted
    std::vector<DrawnTube> tubes;
    std::vector<std::shared_ptr<const make::PartPlan>> steel; ///< parts of new steel that do not join the body
    bool operator==(const OverlayInput&) const = default;
};
OverlayInput overlayInput(const build::Build&, const Results&, std::shared_ptr<const ScanMeshes>);

/// The chassis as it was surveyed: nothing moved, nothing let down.
shape::Mesh chassisAsItStands(const OverlayInput&);

/// Where an overlay's body sits, how its parts move, and what they must clear each other by.
struct Placing {
    bool seated = false; ///< the pins say where
    geometry::RigidTransform seat;
    double u95_mm = 0; ///< of the seat
    build::ClearanceRules clearances;
    build::Rows<build::PairRule> pair_rules;
    build::WheelTravel travel;
    build::Rows<build::Swing> swings;
    std::optional<build::Vec3> front_hub; ///< middle of an axle's wheels, after the change of wheelbase
    std::optional<build::Vec3> rear_hub;
    std::optional<double> front_track_mm;
    std::optional<double> rear_track_mm;
    units::LengthStep words_in = units::LengthStep::Mm01; ///< of poses
    bool beam_axle = false;                               ///< one was scanned: the rear wheels are taken to lean with it
    bool operator==(const Placing&) const = default;
};
Placing placingOf(const build::Build&, const Results&);

struct Overlay {
    std::shared_ptr<const sit::Ready> body = std::make_shared<sit::Ready>();    ///< all scans on the body's axes, in one
    std::shared_ptr<const sit::Ready> chassis = std::make_shared<sit::Ready>(); ///< all scans on the chassis' axes, as planned
    Placing placing;
    geometry::RigidTransform seat; ///< body to chassis
    bool seated = false;           ///< the pins say where; else both stand on their own axes, as if these were one
    sit::Need need;
    std::vector<sit::WayPart> chassis_parts; ///< each scan of the chassis by its name, as planned
    /// A scan, or a marked box that a pin keeps clear of, on its subject's axes.
    struct Part {
        sit::Part part;
        build::ScanPart kind = build::ScanPart::Other;
        build::ScanId scan;            ///< none: a box, or a drawn tyre
        bool sweep_assumed = false;    ///< its travel is a typical one, not read
        std::optional<DrawnTube> tube; ///< of a drawn shaft: how it moves
        size_t first = 0;              ///< its first point in the whole of its subject
    };
    std::vector<Part> body_parts;
    std::vector<Part> on_chassis;
    const std::vector<Part>& of(build::SubjectId s) const { return s == build::the_body ? body_parts : on_chassis; }
    std::vector<std::string> remarks;
    std::vector<std::string> mesh_remarks; ///< of them, those that stay when it is seated anew
    bool hasBody() const { return body->mesh && !body->mesh->points.empty(); }
    bool hasChassis() const { return chassis->mesh && !chassis->mesh->points.empty(); }
    bool complete() const { return hasBody() && hasChassis(); }
};
/// Makes both ready, on axes of their own; scans whose mesh is missing are left out and told.
Overlay overlayOf(const OverlayInput&, int threads = 0);
/// The same meshes with the body where it sits, and the needs that hold there: the ± of the seat goes into the need.
Overlay placed(const Overlay&, const Placing&);
/// Both steps for a build.
Overlay overlayOf(const build::Build&, const Results&, const ScanMeshes&, int threads = 0);

} // namespace gorvet::analysis
