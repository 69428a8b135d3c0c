#pragma once

#include "scan/neighbours.hpp"
#include "units/result.hpp"

#include <optional>
#include <string>

/// What is done to a scan before it is laid anywhere: its unit checked, stray points out, thinned, given normals.
namespace gorvet::scan {

using shape::Mesh;

/// A distance in the scan that is known from the workshop.
struct UnitCheck {
    double measured_mm = 0;
    double known_mm = 0;
    double ratio = 1;  ///< measured / known
    bool good = false; ///< within `tolerance` of 1
    std::string words; ///< what it means, and which unit would fit
};
/// `unit` is what the file was read with: mm, cm, m or in. Fails with BadInput when the known distance is not above 0 or the
/// places lie on each other.
Result<UnitCheck> checkUnit(const Point3& from, const Point3& to, double known_mm, const std::string& unit,
                            double tolerance = 0.02);

struct Downsampled {
    Mesh mesh;
    std::vector<std::uint32_t> kept; ///< of each point that stayed, which it was
    double bound_mm = 0;             ///< no point that was there is farther from one that stayed
};
/// One point for each cell of a grid, that nearest to the mean of the cell's points; triangles between what is left. `bound_mm` >
/// 0. The first of two that turn out to be the same triangle stays.
Downsampled downsampled(const Mesh&, double bound_mm);

struct Normals {
    std::vector<Point3> normal;    ///< unit; towards `eye` when it is given, else as they come
    std::vector<char> on_boundary; ///< 1: the cloud ends here: nothing lies on one side
    std::vector<float> spread_mm;  ///< of the neighbours about their plane, 1σ
};
/// The plane through each point's k nearest (least squares). k ≥ 6.
Normals normalsOf(const std::vector<Point3>&, size_t k = 16, const std::optional<Point3>& eye = {}, int threads = 0);
/// By neighbours of these points that are at hand.
Normals normalsOf(const std::vector<Point3>&, const Neighbours&, size_t k, const std::optional<Point3>& eye = {},
                  int threads = 0);

/// The points to keep: those whose mean distance to their k nearest is not beyond the median of all by more than `spreads` times
/// 1.4826 MAD (the median of their distances from the median, which is σ where they are normal; far outliers do not widen it). In
/// their own order.
std::vector<std::uint32_t> withoutOutliers(const std::vector<Point3>&, size_t k = 12, double spreads = 3, int threads = 0);
/// The mesh of these points alone; triangles of lost points go with them.
Mesh onlyPoints(const Mesh&, const std::vector<std::uint32_t>& kept);

/// The usual distance from a point to its next.
double spacingOf(const std::vector<Point3>&);
double spacingOf(const std::vector<Point3>&, const Neighbours&);

} // namespace gorvet::scan
