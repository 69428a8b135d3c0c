#pragma once

#include "make/crossmember.hpp"

namespace gorvet::make {

/// What of the bridge bears the least under the load that was said. Stresses MPa, forces N.
struct BridgeStrength {
    double used = 0;       ///< share of what it bears that is taken, at the worst place
    const char* at = "";   ///< that place
    const char* mend = ""; ///< what helps there the cheapest
    double stress_mpa = 0; ///< there
    double most_mpa = 0;
};
/// A beam from bolt row to bolt row, free to turn at its ends: the load down on the pad, a third of it fore and aft at the mount
/// above it, which twists the bridge, too. Looked at: its section (bending both ways, twist and shear together; of a dropped one
/// middle, mitres and legs), the welds round its ends and the steel beside them, bolts (class 8.8, sheared and pulled), and how
/// they press on flange and rail. Limits: yield / 1.5; engineering.md, Stretch. Of bolts of class 8.8: 0.33 and 0.17 of 800 MPa.
BridgeStrength bridgeStrength(const CrossmemberInput&, const CrossmemberPlan&);

/// Of the load, so much fore and aft.
inline constexpr double share_fore_and_aft = 1.0 / 3;

} // namespace gorvet::make
