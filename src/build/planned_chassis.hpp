#pragma once

#include "build/rail_line.hpp"
#include "geometry/box3.hpp"

#include <optional>

/// The chassis as planned: the one place that says where what lies behind the cut, or outside a slit, goes.
namespace gorvet::build {

/// A change of length at one cut, and of width along a slit on each side. What lies behind the cut moves along the rail, as far
/// as the change; what comes out is pressed into the cut, so that a surface over it stays closed. What lies outside a slit comes
/// inwards in the same way. Without a cut and a slit all stays.
struct PlannedChassis {
    std::optional<double> cut_station_mm; ///< front cut line, on the rail as it is
    double change_mm = 0;                 ///< > 0 longer
    double slope_rad = 0;                 ///< of the rail at the cut, down rearward
    double narrower_mm = 0;               ///< in all, ≥ 0: half of it on each side
    double slit_mm = 0;                   ///< from the middle: what lies inside stays
    double front_track_mm = 0;            ///< by how much the front wheels come nearer to each other
    double rear_track_mm = 0;             ///< the same of the rear wheels
    bool operator==(const PlannedChassis&) const = default;

    /// The same without any change of width.
    PlannedChassis lengthwise() const { return {cut_station_mm, change_mm, slope_rad}; }
    /// Whether it is cut across; whether anything of it moves.
    bool cuts() const { return cut_station_mm && change_mm != 0; }
    bool changes() const { return cuts() || narrower_mm > 0; }
    bool behind(double station_mm) const { return cut_station_mm && station_mm > *cut_station_mm; }
    /// What all that lies behind the piece that comes out moves by.
    Vec3 shift() const;
    Vec3 map(Vec3) const;
    /// A wheel centre: moved with the part of the frame that has its axle, and with its own axle sideways.
    Vec3 mapHub(const Vec3&, bool rear) const;
    /// The rail without what comes out, with a point at the joint.
    RailLine map(const RailLine&) const;
    /// Moved as a whole, by its middle: a box is a part, and parts are not cut.
    geometry::Box3 map(const geometry::Box3&) const;
    /// Meshes, and whatever else has `points`.
    template <class Mesh>
    requires requires(Mesh m) { m.points.begin()->x_mm; }
    Mesh map(Mesh mesh) const {
        if (changes())
            for (auto& p : mesh.points) p = map(Vec3(p));
        return mesh;
    }
    /// Where a station of the planned chassis is on the one that stands there: the way back of `map` along the rail. In a piece
    /// that is let in: its front.
    double stationNow(double planned_mm) const;
    /// An offset as planned.
    double aside(double y_mm) const;
};

/// What is planned sideways alone. Wheels come in with an axle that is made narrower; else with the frame that carries their
/// arms, but for an axle on leaf springs, which stays as wide as it is.
PlannedChassis plannedWidth(const Build&);

} // namespace gorvet::build
