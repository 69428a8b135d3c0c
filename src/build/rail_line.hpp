#pragma once

#include "build/build.hpp"

#include <optional>
#include <vector>

/// A rail as the line through its marked points, front to rear, with its section. Shared by Stretch and Make.
namespace gorvet::build {

struct RailLine {
    std::vector<Vec3> points; ///< on the datum face, centreline, stations strictly increasing
    double height_mm = 0;
    double width_mm = 0;
    double thickness_mm = 0;
    RailFace datum_face = RailFace::Top;
    bool operator==(const RailLine&) const = default;

    struct At {
        double y_mm = 0;
        double top_mm = 0; ///< height of the top face
        double bottom_mm = 0;
        double slope_rad = 0;      ///< down when followed rearward
        double plan_angle_rad = 0; ///< > 0: runs to the right when followed rearward
    };
    /// The rail at a station; none beyond its ends or with fewer than two points.
    std::optional<At> at(double station_mm) const;
    double front() const { return points.empty() ? 0 : points.front().x_mm; }
    double rear() const { return points.empty() ? 0 : points.back().x_mm; }
};

} // namespace gorvet::build
