#pragma once

#include "scan/align.hpp"

/// The mid-plane of a thing that was made alike on both sides, from a scan of it, and where the sides are unlike now.
namespace gorvet::scan {

struct MidPlane {
    Point3 at{};           ///< on the plane, at the middle of what was compared
    Point3 normal{};       ///< unit, towards the right (its greatest part is positive)
    double off_u95_mm = 0; ///< ± at 95 %
    double rotation_u95_rad = 0;
    double rms_mm = 0;
    double compared = 0; ///< share of the scan that has its like on the other side
    bool settled = false;
    std::string words;
};
/// Reflects the scan and lays it on itself. `normal`: roughly which way is across; without it each of the scan's own three axes
/// is tried. Fails with BadInput for too few points.
Result<MidPlane> midPlaneOf(const std::vector<Point3>&, const std::optional<Point3>& normal = {}, const AlignOptions& = {});

/// For each point how far its mirror image is off the other side's surface, mm along the surface's normal turned back to the
/// point: > 0 where the point stands further out. NaN where the other side was not seen.
std::vector<float> asymmetry(const std::vector<Point3>&, const MidPlane&, double reach_mm = 60, int threads = 0);

/// A place where left and right are unlike, in words of the vehicle's axes (x station, y offset, z height).
struct Unlike {
    geometry::Box3 box; ///< round the left place
    Point3 way{};       ///< the surface's mean normal there, on the left
    double by_mm = 0;   ///< the left stands so much further along `way` than the right
    double u95_mm = 0;
    size_t points = 0;
    std::string words; ///< "left at station 700 to 1900, height 480 to 640: 6.0 mm lower than the right"
};
/// From the map: cells of `cell_mm`, those beyond `limit_mm` and beyond their ± joined with like neighbours, the largest first.
/// The scan must stand on the vehicle's axes.
std::vector<Unlike> unlikePlaces(const std::vector<Point3>&, const MidPlane&, const std::vector<float>& map, double limit_mm = 2,
                                 double cell_mm = 150);

Point3 reflected(const Point3&, const MidPlane&);

} // namespace gorvet::scan
