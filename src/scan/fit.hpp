#pragma once

#include "shape/transform.hpp"
#include "units/result.hpp"

#include <optional>
#include <vector>

/// Scan: plane, line, circle, sphere and cylinder through picked or scanned points, and one set of points laid on another.
namespace gorvet::scan {

using shape::Point3;

/// How well a shape fits, of the points that counted.
struct Fit {
    size_t points = 0;
    size_t outliers = 0; ///< left out: further off than 3.5 times the spread (from the median of all distances)
    double rms_mm = 0;   ///< root of the mean square distance
    double worst_mm = 0;
};
struct Plane {
    Point3 at{};     ///< middle of the points
    Point3 normal{}; ///< unit; its greatest part is positive
    Fit fit;
};
struct Line {
    Point3 at{};
    Point3 way{}; ///< unit; its greatest part is positive
    Fit fit;
};
/// A circle in space: the mouth of a hole, the edge of a hub. Distances count in the plane and out of it.
struct Circle {
    Point3 centre{};
    Point3 normal{};
    double radius_mm = 0;
    double radius_u95_mm = 0; ///< ± at 95 %, from the fit's own spread
    Fit fit;
};
struct Sphere {
    Point3 centre{};
    double radius_mm = 0;
    double radius_u95_mm = 0;
    Fit fit;
};
/// A tube or bore: its axis through `at`, as long as the points reach.
struct Cylinder {
    Point3 at{}; ///< on the axis, at the middle of the points
    Point3 way{};
    double radius_mm = 0;
    double radius_u95_mm = 0;
    double length_mm = 0;
    Fit fit;
};

/// All by least squares of the distances (not of algebraic ones: Gauss–Newton after an algebraic start). `outliers`: leave out
/// what stands off, at most three rounds, never below half of the points. Fail with BadInput for too few points (3, 2, 3, 4, 6)
/// and Degenerate where they do not make the shape: on one line, in one place, in one plane. Ghilani ch. 22; Eberly, Fitting 3D
/// Data with a Cylinder.
Result<Plane> fitPlane(const std::vector<Point3>&, bool outliers = false);
Result<Line> fitLine(const std::vector<Point3>&, bool outliers = false);
Result<Circle> fitCircle(const std::vector<Point3>&, bool outliers = false);
Result<Sphere> fitSphere(const std::vector<Point3>&, bool outliers = false);
Result<Cylinder> fitCylinder(const std::vector<Point3>&, bool outliers = false);

using geometry::RigidTransform;
struct PointRegistration {
    RigidTransform motion;
    std::optional<double> scale; ///< of the second against the first, when it was asked for: 1 unless a unit is wrong
    std::vector<double> off_mm;  ///< of each point once it was laid
    double rms_mm = 0;
    double worst_mm = 0;
    Point3 translation_u95{};  ///< ± at 95 % of the middle, mm; 0 without a point to spare
    Point3 rotation_u95_rad{}; ///< about x, y, z through the middle
};
/// Lays `from` on `to`, point by point, weighted (one each, > 0; empty: all alike). Umeyama/Kabsch. Fails with BadInput for fewer
/// than three points or unlike numbers, Degenerate for points on one line.
Result<PointRegistration> registerPoints(const std::vector<Point3>& from, const std::vector<Point3>& to,
                                         const std::vector<double>& weights = {}, bool with_scale = false);

/// 3-2-1: three points or more make the plane of height 0, two the line along which offset is 0 (followed from the first to the
/// second: rearward), one stands at station 0. Returns the motion of the scan onto the axes. Fails with Degenerate when the line
/// stands square to the plane, or the three stand on a line.
Result<RigidTransform> threeTwoOne(const std::vector<Point3>& plane, const std::array<Point3, 2>& line, const Point3& station);

} // namespace gorvet::scan
