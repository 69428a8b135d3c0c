#pragma once

#include "tape/network.hpp"

/// What datum and readings leave open, found from the null space of the normal equations and said in words.
namespace gorvet::tape {

struct Fixing {
    int defect = 0;                         ///< dimensions that nothing fixes
    std::vector<char> determined;           ///< by coordinate 3·point + axis; held ones are fixed
    std::vector<Undetermined> undetermined; ///< empty when all is fixed
    std::shared_ptr<const Factor> factor;   ///< covariances of the unknowns
};

/// `rows`: the active readings' design matrix.
Fixing findUndetermined(const Network&, const Rows& rows);

/// 1σ of each coordinate by the readings' own σ; NaN of one that is not fixed.
std::vector<double> coordinateSds(const Network&, const Fixing&);

/// Leaves points out that have a place by what is assumed: they are said once, as assumed.
void leaveOutAssumed(std::vector<Undetermined>&, const Survey&, const Solution&);

} // namespace gorvet::tape
