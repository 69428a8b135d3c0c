#pragma once

#include "analysis/results.hpp"
#include "entry/entry.hpp"

/// An entry is weighed before it is kept: a slip of the hand is cheaper to ask about than to look for.
namespace gorvet::prompt {

/// A length that is further than this from what the survey expects is asked about, and than this share of what is expected. What
/// is nearer is left to the adjustment: a frame may be bent.
inline constexpr double asked_beyond_mm = 100;
inline constexpr double asked_beyond_share = 0.05;
inline constexpr double asked_beyond_rad = 0.0873; ///< 5°
inline constexpr double asked_beyond_u95 = 3; ///< so many times the ± of what is expected on top: a sparse survey expects little

/// Why what was understood should be looked at once more before it is kept: "about 2891 mm is expected there". Empty: nothing
/// tells against it. Readings are weighed against where the adjusted survey has their points; a point that is not fixed yet, and
/// a reading that a set-up decides, are weighed against the rough places alone (build/unit_doubt.hpp).
std::string doubtOf(const build::Build&, const analysis::Results&, const entry::Understood&);

} // namespace gorvet::prompt
