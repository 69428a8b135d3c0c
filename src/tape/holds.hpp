#pragma once

#include "tape/network.hpp"

/// Held coordinates beyond what a datum needs: they bend the shape unless they agree with the readings. Internal to this room.
namespace gorvet::tape {

/// What the holds came to.
struct HoldsTest {
    int redundant = 0;       ///< holds beyond a minimal datum
    double omega = 0;        ///< Ω with all of them less Ω of a minimal datum
    double limit = 0;        ///< χ² at 1 % for `redundant`
    std::vector<int> blamed; ///< indices into the holds: released, the worst first, until the others pass
};

/// The same to first order, where the adjusted survey stands: with all of them less without those beyond a datum, none blamed.
/// What was set aside may have been set aside because of them: then it says too little.
HoldsTest lookAtHolds(const Survey&, const Network&, const Factor&);

/// Tests redundant holds against the readings of a minimal datum, from which misread readings were taken out first
/// (engineering.md, Tape). `none.redundant` 0: there is nothing to test.
HoldsTest testHolds(const Survey&, const Options&);

} // namespace gorvet::tape
