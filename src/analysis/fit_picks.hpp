#pragma once

#include "sit/clearance.hpp"
#include "units/quantity.hpp"
#include "units/result.hpp"

#include <string>

/// What can be read off a scan at picked places: how sharp a place is, and shapes through several.
namespace gorvet::analysis {

/// How well a scan shows the place: the scatter of its points about their own plane within `reach_mm`, at 95 %. A bend counts as
/// scatter. None where fewer than six points lie there.
std::optional<double> scatterAt(const sit::Ready&, const shape::Point3& at, double reach_mm = 12);

enum class PickShape { Plane, Line, Circle, Tube, Ball };
inline constexpr std::array<int, 5> picks_needed{3, 2, 3, 6, 4};
struct FittedPicks {
    std::string words;
    shape::Point3 at{}; ///< middle, centre, or a place on the axis
    double radius_mm = 0;
    double rms_mm = 0;
    size_t points = 0;
    bool grown = false; ///< the scan's own points beside the picks counted, not the picks alone
};
/// A shape through picked places; where the scan has points on it between the picks, through these. Fails as the fits of scan do.
Result<FittedPicks> fitThrough(PickShape, const std::vector<shape::Point3>& picks, const std::vector<shape::Point3>& scan,
                               units::LengthStep);

} // namespace gorvet::analysis
