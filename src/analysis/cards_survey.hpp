#pragma once

#include "analysis/cards.hpp"

namespace gorvet::analysis {

/// Cards of what stands below the frame's figures: a set-up, what moved since the session before, the gaps.
Card setupCard(const build::Build&, const SurveyOf&, size_t setup);
Card sinceCard(const build::Build&, const SurveyOf&);
Card gapsCard(const build::Build&);
Card alignmentCard(const build::Build&);
std::optional<Card> flawCard(const build::Build&, const Results&, build::FlawId);
Card repairCard(const build::Build&, const Results&);
Card drawingCard(const build::Build&, const SurveyOf&);
Card practiceCard(const build::Build&, const Results&);
std::optional<Card> obstacleCard(const build::Build&, build::ObstacleId);

} // namespace gorvet::analysis
