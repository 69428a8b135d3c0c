#pragma once

#include "analysis/overlay.hpp"
#include "build/edit.hpp"
#include "shape/transform.hpp"

#include <memory>

/// Ways to lay a kept scan on its subject's axes. Each returns the change that stands it there, with how it was laid and how well
/// in its note; what stands in the note of the edit is what the person is told.
namespace gorvet::analysis {

struct LaidScan {
    build::Edit edit;
    std::string words;
};

/// On the others by places picked on both, as they are seen: in the chassis frame, the body at `seat`; then, with `surfaces`, by
/// what both see (registration of the surfaces). On the others of its subject, or of the other one where it stands now. No picks:
/// from where it stands. Fails with NotFound for a scan that is not read, as the fits of scan do, and with Degenerate when
/// surfaces do not settle it. Nothing when stopped.
std::optional<Result<LaidScan>> layByPicks(const build::Build&, const ScanMeshes&, const geometry::RigidTransform& seat,
                                           build::ScanId, const std::vector<std::array<shape::Point3, 2>>& picks, bool surfaces,
                                           const Progress& = {});
/// By marker balls: those seen in the scan and in the others of its subject, matched by their distances. Fails as
/// scan::matchMarkers, and with Conflict when another assignment fits as well.
Result<LaidScan> layByMarkers(const build::Build&, const ScanMeshes&, build::ScanId, double ball_radius_mm);
/// By its own mid-plane: turned and shifted across, so that this becomes the centreline; what is left along and up stays. Says
/// where left and right are unlike. Fails with Degenerate when nothing was found alike.
Result<LaidScan> layBySymmetry(const build::Build&, const ScanMeshes&, build::ScanId);
/// Three, two, one: three places on the datum plane, two on the centreline (the front one first), one at station 0, as they stand
/// now on the subject's axes.
Result<LaidScan> layByDatum(const build::Build&, build::ScanId, const std::array<shape::Point3, 6>& places);
/// On surveyed points of its subject, picked as they stand now on the subject's axes; three or more. Says which one disagrees.
/// Fails with NotFound for a point that the survey does not fix.
Result<LaidScan> layOnSurveyedPoints(const build::Build&, const Results&, build::ScanId,
                                     const std::vector<std::pair<build::PointId, shape::Point3>>&);

} // namespace gorvet::analysis
