#pragma once

#include "shape/transform.hpp"

#include <functional>

/// Meshes as lines on paper: outlines, creases and rims, in parallel projection, and which of them are hidden. Lengths mm.
namespace gorvet::shape {

/// The picture's own axes; `towards` from the thing to the eye. Unit vectors at right angles.
struct ViewAxes {
    Point3 right{1, 0, 0};
    Point3 up{0, 0, 1};
    Point3 towards{0, -1, 0};
    /// Turned about the upright by `azimuth_rad` (0 from the left, a right angle from behind) and raised.
    static ViewAxes from(double azimuth_rad, double rise_rad);
};

struct LinePart {
    const Mesh* mesh = nullptr;
    RigidTransform pose;
    /// Sheet that one sees through: lines behind it are veiled, not hidden.
    bool seen_through = false;
};

enum class Sight { Plain, Veiled };
struct ScribedLine {
    std::vector<std::array<double, 2>> path; ///< right, up
    size_t part = 0;
    Sight sight = Sight::Plain;
    bool operator==(const ScribedLine&) const = default;
};

struct LineOptions {
    int across_px = 2400; ///< fineness: the longer side of the picture in pixels; what is nearer than about one is not told apart
    double shortest_px = 5; ///< lines shorter than this are noise
};
/// Every line that is not hidden by a part that can't be seen through, and, of parts that can be seen through, not hidden at all.
/// What hides is found in a picture of depths (`across_px`), the lines in the meshes themselves. Empty when `stop` says so.
std::vector<ScribedLine> scribedLines(const std::vector<LinePart>&, const ViewAxes&, const LineOptions& = {},
                                      const std::function<bool()>& stop = {});

} // namespace gorvet::shape
