#pragma once

#include "analysis/results.hpp"

/// What Sit computes from, taken from the build and its surveys.
namespace gorvet::analysis {

struct SitInput {
    sit::Input input;
    std::vector<build::PinId> pin_ids;    ///< behind input.pins; pins whose points are not fixed yet are left out
    std::vector<build::PointId> body_ids; ///< behind input.body
};
/// The surveys and rails of the results must be there already.
SitInput sitInput(const build::Build&, const Results&);

/// Rows and columns of some points of a survey in its covariance, by their places in it.
std::vector<double> covarianceOf(const tape::Solution&, const std::vector<int>& points);
/// A pin in words: "station of Hl", "Bn under the bonnet".
std::string pinName(const build::Build&, const build::Pin&);
/// What is wanted of it: "1210.0", "at least 20", "level"; with what it may miss by when it is no bound.
std::string pinWanted(const build::Build&, const build::Pin&);
/// A figure of it, as the build shows lengths; an angle for a rake.
std::string pinFigure(const build::Build&, const build::Pin&, double value, bool with_unit = true);

} // namespace gorvet::analysis
