#pragma once

#include "scan/cloud.hpp"

#include <functional>

/// One scan laid on another that sees some of the same.
namespace gorvet::scan {

using geometry::RigidTransform;

/// A scan made ready to be laid: strays out, normals found. Meshes give their points.
struct Prepared {
    std::vector<Point3> points;
    Normals normals;
    std::unique_ptr<Neighbours> near;
    double spacing_mm = 0;
    size_t outliers = 0; ///< left out
};
/// Downsampled to about `most_points` when there are more. Fails with BadInput for fewer than 50 points.
Result<std::unique_ptr<Prepared>> preparedFor(const std::vector<Point3>&, size_t most_points = 40000, int threads = 0);

struct AlignOptions {
    double reach_mm = 150; ///< how far the start may be off at most, at any point
    bool search = true;    ///< try other starts when the first does not settle
    unsigned seed = 1;     ///< of the samples taken
    int threads = 0;
};
struct ScanRegistration {
    RigidTransform motion;
    double rms_mm = 0;  ///< of what was taken as seen by both
    double p95_mm = 0;  ///< 95 % of it is nearer
    double overlap = 0; ///< share of the moving scan that the fixed one sees, too
    size_t pairs = 0;
    bool settled = false;     ///< false: do not trust it
    Point3 middle{};          ///< of the pairs, in the fixed frame: the ± are of this place
    Point3 translation_u95{}; ///< ± at 95 %, mm
    Point3 rotation_u95_rad{};
    std::vector<Point3> loose; ///< directions of shift that nothing holds, unit vectors in the fixed frame
    std::string words;
};
/// Trimmed point-to-plane ICP with the normals of both sides (Rusinkiewicz 2019), from far to near; pairs at a rim of the fixed
/// scan, of unlike normals or off by more than a few spreads do not count. Deterministic. `start` moves `moving` roughly onto
/// `fixed`.
ScanRegistration registerScans(const Prepared& moving, const Prepared& fixed, const RigidTransform& start,
                               const AlignOptions& = {});

/// How far two motions are apart about a place: mm there, and rad.
struct Apart {
    double shift_mm = 0;
    double turn_rad = 0;
};
Apart apart(const RigidTransform&, const RigidTransform&, const Point3& at);

} // namespace gorvet::scan
