#pragma once

#include "build/figure.hpp"
#include "build/wheels.hpp"

#include <optional>

/// Wheels and tyres by their figures. engineering.md, Drive. mm, kg; ± at 95 %.
namespace gorvet::drive {

using build::Figure;

/// What stands over the bead seats at both lips together, where nobody measured it.
inline constexpr double lips_mm = 25.4;
/// A tyre rolls as one that is so much smaller does.
inline constexpr double rolls_as = 0.97;

/// A wheel with its tyre. None: not said, nor to be had from what is said.
struct WheelFigures {
    Figure width_mm;                    ///< of the rim, between the bead seats
    Figure diameter_mm;                 ///< of the seats
    Figure over_lips_mm;                ///< its width over the lips
    std::optional<Figure> offset_mm;    ///< face outside of the rim's middle is positive: backspace − over lips / 2
    std::optional<Figure> backspace_mm; ///< offset + over lips / 2
    std::optional<Figure> outside_mm;   ///< of the tyre, free: rim + 2 × width × aspect
    std::optional<Figure> section_mm;   ///< its width on this rim
    std::optional<Figure> inside_mm;    ///< diameter in which a brake turns
    std::optional<Figure> circle_mm;    ///< of the stud holes
    bool operator==(const WheelFigures&) const = default;
};
WheelFigures figuresOf(const build::WheelSet&);

/// ± of what is read with tape, straightedge or caliper, or is a mark, where none is said.
inline constexpr double tape_u95_mm = 2, edge_u95_mm = 1.5, caliper_u95_mm = 0.2;

/// Diameter of a stud circle from the distance of two stud middles. engineering.md, Drive: s / sin(π k / n), k = 1 for
/// neighbours, 2 past one. n ≥ 3, 2 k ≤ n.
Figure studCircle(const Figure& chord_mm, int studs, int apart);
/// The circle of a hub or a wheel: as measured by its chord, else as it is said.
std::optional<Figure> circleOf(const std::optional<build::Dimension>& studs, const std::optional<build::Dimension>& circle,
                               const std::optional<build::Dimension>& chord, bool next_but_one);

/// Width of the rim on which a tyre's mark holds, as a share of that mark; by the height of its side in hundredths. Read from
/// common sizes: 0.69 at 80, 0.85 at 45.
double measuringRim(double aspect);
/// Rims that usually take it, as shares of its mark.
struct RimRange {
    double least = 0;
    double most = 0;
};
RimRange usualRims(double aspect);
/// A tyre is wider by two fifths of what its rim is wider than the one it was marked on.
double sectionOn(double marked_mm, double aspect, double rim_mm);

/// What changes when one wheel takes another's place.
struct WheelChange {
    double diameter_share = 0;      ///< of the tyre's, against before; 0: the same
    double rides_mm = 0;            ///< the car, higher
    double revs_per_km = 0;         ///< as wanted
    double true_at_100_kmh = 0;     ///< road speed when the speedometer shows 100
    std::optional<double> track_mm; ///< wider
    std::optional<double> outer_mm; ///< the tyre's outer side, so far outwards
    std::optional<double> inner_mm; ///< its inner side, so far inwards
};
/// None before both tyres' diameters are known.
std::optional<WheelChange> changeOf(const WheelFigures& before, const WheelFigures& after);

/// A band let into a rim.
struct BandPlan {
    double length_mm = 0; ///< flat: π (outside − thickness)
    double cut_mm = 0;    ///< so long it is cut: 5 more, filed to fit
    double kg = 0;
    double width_mm = 0; ///< of the rim then
    std::optional<double> offset_mm;
    std::optional<double> backspace_mm;
};
BandPlan bandPlan(const WheelFigures& rim, const build::Widening&);

} // namespace gorvet::drive
