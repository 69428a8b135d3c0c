#pragma once

#include "analysis/results.hpp"

/// Where station 0 of the chassis is: every figure that is scribed or cut counts from there.
namespace gorvet::analysis {

struct Origin {
    std::string from;              ///< "from the front axle", "from Hornl", "from a place 250.0 ahead of Hornl"; never empty
    std::optional<double> axle_mm; ///< station of the front axle's middle; none: not measured
    bool at_axle = false;          ///< it stands at 0, within a millimetre
    /// What to add where a figure may be misread: ", the front axle stands at 380.0"; empty when it stands at 0 or is not
    /// measured.
    std::string axle_words;
};
Origin originOf(const build::Build&, const Results&);

} // namespace gorvet::analysis
