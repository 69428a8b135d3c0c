#pragma once

#include "analysis/bench.hpp"
#include "analysis/card_maker.hpp"
#include "make/fixture.hpp"

/// Fixtures of the build: their towers from points, sheet, page, table of figures, card and JSON.
namespace gorvet::analysis {

std::vector<Node<make::FixtureIn, make::FixturePlan>> fixturesOf(const build::Build&, const Results&, const Results* previous);
sheet::Drawing fixturesDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                               double height, const sheet::Format&);
Headline fixturesHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> fixturePages(const build::Build&, const Results&);
/// `fixture-NAME.csv`.
void keepFixtureFiles(const build::Build&, const Results&, FileKeeper&);
void addFixtureFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::optional<Card> fixtureCard(const build::Build&, const Results&, const std::string& name);
std::string makeFixtureJson(const build::Build&, const Results&);

extern const char* const fixture_caution;

} // namespace gorvet::analysis
