#pragma once

#include "analysis/results.hpp"

/// The chassis as planned sideways. Internal to this room.
namespace gorvet::analysis {

/// By how much an axle's mounts on the frame come nearer to each other: of the pair of suspension marks nearest to it; none where
/// none is marked within 600 mm of its wheels.
std::optional<double> armsNearer(const build::Build&, const SurveyOf& chassis, build::AxleEnd,
                                 const build::PlannedChassis& width);
/// What is planned sideways, wheels as their arms come in where these are marked.
build::PlannedChassis widthPlanned(const build::Build&, const SurveyOf& chassis);

} // namespace gorvet::analysis
