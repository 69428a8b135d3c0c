#pragma once

#include "analysis/results.hpp"
#include "frame/section.hpp"
#include "tape/alignment.hpp"
#include "tape/gaps.hpp"
#include "work/lift.hpp"

#include <map>
#include <string>

/// Results as JSON, as docs/cli.md describes them. Lengths in mm (`_mm`), angles in degrees (`_deg`).
namespace gorvet::analysis {

/// `lines`: the line of each reading in the CSV file it came from; empty: its place in the build.
std::string tapeJson(const analysis::SurveyOf&, const std::vector<analysis::Finding>&,
                     const std::map<build::ReadingId, int>& lines);
/// The frame's figures alone.
std::string conditionJson(const analysis::SurveyOf&);
/// What to take next, and a round of readings in the order of the walk.
std::string nextJson(const analysis::SurveyOf&, const std::vector<tape::RankedReading>& round);
std::string compareJson(const tape::Comparison&, const tape::Survey& before);
std::string alignJson(const analysis::SurveyOf&, const std::vector<tape::AlignmentFigure>&);
/// How far the points stand off the drawing.
std::string drawingJson(const analysis::SurveyOf&);
/// What was found at points and parts, and the ways out.
std::string foundJson(const build::Build&, const analysis::Results&);
/// What was said of a practice frame, and its marks once it was handed in.
std::string practiceJson(const build::Build&, const analysis::Results&);
std::string gapsJson(const std::vector<tape::GapTrend>&);
std::string sitJson(const build::Build&, const analysis::Results&);
std::string stretchJson(const analysis::Results&);
/// Sleeve and splice alone.
std::string spliceJson(const build::Build&, const analysis::Results&);
std::string makeJson(const analysis::Results&);
std::string workJson(const build::Build&, const analysis::Results&);
/// How far the order of work plays in a simulated workshop.
std::string playedJson(const analysis::Results&, bool& to_the_end);
/// One step of the order: why it stands where it stands, what waits for it, what can be done beside it. Empty where there is none
/// of that code, or job of that name.
std::string jobJson(const build::Build&, const analysis::Results&, const std::string& code);
/// The register of what is taken apart, and whether the body may be lifted.
std::string releaseJson(const build::Build&, const analysis::Results&);
/// When what is left may be done, and what it costs.
std::string planJson(const build::Build&, const analysis::Results&);
/// Where the work stands, what is to be decided and what was agreed to.
/// What a section is worth, however it was said.
std::string sectionJson(const std::string& said, const frame::Section&);
struct FrameTwist;
std::string twistJson(const build::Build&, const FrameTwist&);
/// Photos and spoken notes, the oldest first; what must be bought.
std::string photosJson(const build::Build&, const analysis::Results&);
std::string purchasesJson(const build::Build&, const analysis::Results&);
std::string clientJson(const build::Build&, const analysis::Results&);
/// Surfaces and their coats, and permits for hot work.
std::string coatsJson(const build::Build&, const analysis::Results&);
/// The lifts of a build, worked out.
std::string liftsJson(const build::Build&, const analysis::Results&);
/// What hangs on slings.
std::string liftJson(const work::LiftInput&, const work::LiftPlan&);
std::string findingsJson(const std::vector<analysis::Finding>&);
/// What a variant of a build changes: the sentences of the benches that differ, findings that come and go.
std::string whatIfJson(const build::Build&, const analysis::Results&, const analysis::Variant&);
/// What each bench waits for, by name (lead.hpp).
std::string lacksJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
