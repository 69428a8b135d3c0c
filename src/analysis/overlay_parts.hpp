#pragma once

#include "analysis/overlay.hpp"

/// What the parts of an overlay must clear each other by, how they move, and how lowering changes them. Internal to this room.
namespace gorvet::analysis {

inline shape::Point3 pointOf(const build::Vec3& v) { return {v.x_mm, v.y_mm, v.z_mm}; }

/// The least clearance of two parts: as the build says, else usual practice, assumed. engineering.md, Scan and Sit.
struct PairNeed {
    double least_mm = 10;
    double finish_mm = 0;
    bool assumed = true;
};
PairNeed pairNeed(const Placing&, build::ScanPart, build::ScanPart);
/// The same with what the seat is good for, and how far one has to look; `moves`: one part stands on the seat.
sit::Need needOf(const Overlay&, build::ScanPart, build::ScanPart, bool moves);
/// Whether two parts of one subject have a least clearance at all: exhaust to tank, engine to radiator, or a pair the build
/// names.
bool watchedOnOneSubject(const Placing&, build::ScanPart, build::ScanPart);

/// How a scan's part moves: wheels and axles through bump, droop and lock, a shaft with its axle, an engine in its mounts, what
/// the build says swings. Nothing for what stands still.
struct PartSweep {
    sit::Sweep sweep;
    bool assumed = false; ///< the travel is a typical one
};
std::optional<PartSweep> sweepOf(const Placing&, build::ScanPart, build::ScanId, const shape::Mesh& on_its_axes);
/// A turn by so much about the axis through two places, right-handed from the first to the second.
geometry::RigidTransform turnedAbout(const shape::Point3& from, const shape::Point3& to, double angle_rad);

/// A beam axle whose ends rise by so much each.
geometry::RigidTransform axleMotion(const shape::Point3& middle, double track_mm, double left_up_mm, double right_up_mm);

/// Tyres that nobody scanned, and one of them as a closed mesh.
std::vector<DrawnWheel> drawnWheels(const build::Build&, const Results&);
shape::Mesh tyreMesh(const DrawnWheel&);

/// Shafts and steering columns that nobody scanned; one of them as a closed mesh; how it moves, where it does.
std::vector<DrawnTube> drawnTubes(const build::Build&, const Results&);
shape::Mesh tubeMesh(const DrawnTube&);
std::optional<sit::Sweep> tubeSweep(const DrawnTube&);

/// Parts of new steel that can be made and join nothing of the body: where those touch it is what they are for.
std::vector<std::shared_ptr<const make::PartPlan>> newSteel(const build::Build&, const Results&);

/// A body's scan with its floor channelled or raised, along the body's own axes.
shape::Mesh withFloorWork(const OverlayInput&, shape::Mesh);
/// A scan of the frame with its rails let down between the kick-ups.
shape::Mesh withKickedRails(const OverlayInput&, build::ScanPart, shape::Mesh);

/// Moves as seated by the results; the chassis frame when nothing seats the body.
geometry::RigidTransform seatMotion(const Results&);

} // namespace gorvet::analysis
