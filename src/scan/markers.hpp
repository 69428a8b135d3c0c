#pragma once

#include "scan/fit.hpp"

/// Marker balls in scans, and which is which between several scans, by their distances from each other.
namespace gorvet::scan {

struct Marker {
    Point3 centre{};
    Fit fit;
};
/// The balls of a known radius in a cloud: places to which many normals point, fitted, of which a good part is seen (a rounded
/// corner of sheet is no ball). `least_points`: a ball seen by fewer is
/// not taken.
std::vector<Marker> findMarkers(const std::vector<Point3>&, double radius_mm, size_t least_points = 25, int threads = 0);

struct MarkersMatched {
    std::vector<std::array<size_t, 2>> pairs; ///< index in `from`, index in `to`
    PointRegistration laid;                   ///< of the pairs
    bool only_one = true;                     ///< false: another assignment fits about as well; do not trust it
    std::string words;
};
/// The largest set of markers whose distances agree within `tolerance_mm`; at least three, not on one line. Mirror images do not
/// count. Fails with BadInput for fewer than three on a side, NotFound when no three agree.
Result<MarkersMatched> matchMarkers(const std::vector<Point3>& from, const std::vector<Point3>& to, double tolerance_mm = 2);

/// A point that was surveyed, picked in the scan.
struct PickedPoint {
    std::string name;
    Point3 picked{};     ///< in the scan
    Point3 surveyed{};   ///< as taped
    double sigma_mm = 1; ///< of both together, 1σ
};
struct PickVerdict {
    double off_mm = 0; ///< between the two, once the scan is laid by the others
    double off_in_sigmas = 0;
    bool left_out = false; ///< it disagrees with the rest, and did not help to lay the scan
    std::string words;
};
struct OnSurvey {
    PointRegistration laid; ///< by those that agree
    std::vector<PickVerdict> points;
    std::string words;
};
/// Best fit of a scan to surveyed points, weighted; the one that disagrees most is left out as long as one is beyond 3.29 σ of
/// what the rest says and four remain. Fails as registerPoints does.
Result<OnSurvey> layOnSurvey(const std::vector<PickedPoint>&);

} // namespace gorvet::scan
