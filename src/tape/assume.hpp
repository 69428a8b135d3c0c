#pragma once

#include "tape/survey.hpp"

/// What is assumed: a symmetry, a remembered wheelbase, a data sheet's figure.
namespace gorvet::tape {

/// What is assumed between points that the readings fix is a claim that they can check.
struct Claim {
    int claim = -1;            ///< index into Survey::assumed
    double says = 0;           ///< the survey, mm or rad
    double u95 = 0;            ///< ± at 95 %
    bool contradicted = false; ///< off by more than that, and by more than a millimetre (or a tenth of a degree)
    bool operator==(const Claim&) const = default;
};
/// Claims whose points are fixed by readings alone, in their order.
std::vector<Claim> checkClaims(const Survey&, const Solution&);

/// Internal to this room: places the points that the readings leave open by what is assumed (`Survey::assumed`: symmetry of a
/// pair, figures from a data sheet), with what is fixed held where it is. In a separate adjustment: nothing measured is judged by
/// it. engineering.md, Tape.
void placeByAssumption(const Survey&, Solution&);

} // namespace gorvet::tape
