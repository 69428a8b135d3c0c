#pragma once

#include "analysis/cards.hpp"

namespace gorvet::analysis {

/// Cards of what stands below the frame's figures: a set-up, what moved since the session before, the gaps.
Card setupCard(const build::Build&, const SurveyOf&, size_t setup);
Card sinceCard(const build::Build&, const SurveyOf&);
Card gapsCard(const build::Build&);
Card alignmentCard(const build::Build&);

} // namespace gorvet::analysis
