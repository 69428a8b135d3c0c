#pragma once

#include "analysis/frame.hpp"

/// What closing the open rails of a frame would bring, choice by choice.
namespace gorvet::analysis {

/// Of a frame and what was worked out of it; the first choice is as it stands. Empty where nothing of its rails is open, nothing
/// when it was stopped. `wanted_nm_deg`: the lightest plates that reach it with joints that warp are looked for, too.
std::optional<std::vector<BoxingChoice>> boxingOf(const frame::Structure&, const frame::Outcome&, bool planned,
                                                  std::optional<double> wanted_nm_deg,
                                                  const std::function<bool(double)>& progress);
/// The lines that plan a choice, as they are typed: its plates or ribs. Names that are free.
std::vector<std::string> boxingLines(const build::Build&, const Results&, const BoxingChoice&);
/// What was searched, and what was not.
inline constexpr const char* boxing_tried =
    "Tried: every set of the bays between joints, alike left and right, with a plate as thick as the rail (3 at least); of each "
    "number of bays the stiffest set is shown. Windows, ribs and uprights are tried along all bays, of one size each. For a "
    "stiffness that is wanted (twist-wanted 4000) every set with whole plates of 3, 4, 5, 6 and 8. Hours: 1.2 a metre of seam, "
    "assumed. Not tried: plates on one side.";

} // namespace gorvet::analysis
