#pragma once

#include "analysis/bench.hpp"
#include "analysis/listing.hpp"
#include "drive/levels.hpp"
#include "drive/line.hpp"
#include "drive/ratio.hpp"

#include <map>

/// The drive line of a build: its slopes as read, its shafts, what its axles are geared to.
namespace gorvet::analysis {

/// Slopes as read, adjusted, with the rows behind them.
struct LevelsRead {
    std::vector<build::LevelReadingId> ids; ///< behind the judged readings
    std::vector<build::DriveEndId> ends;    ///< behind the units: first the ends, then the shafts
    std::vector<build::ShaftId> shafts;
    drive::Levels levels;
    /// The slope of an end to the frame; none where none was read on it.
    std::optional<build::Figure> of(build::DriveEndId) const;
};
LevelsRead levelsRead(const build::Build&, const Results&);

/// What the build says of its drive line.
drive::LineInput driveInput(const build::Build&, const Results&);

/// What an axle is geared to.
struct WorkedRatio {
    build::Carrier axle = build::Carrier::Rear;
    std::size_t counts = 0;
    std::optional<build::Figure> counted;
    std::vector<drive::TeethPair> pairs;  ///< that fit what was counted
    std::optional<build::Dimension> said; ///< on a tag, or by a seller
    std::optional<double> cruise_rpm;     ///< of the engine, in top gear
};
std::vector<WorkedRatio> workedRatios(const build::Build&);

void addDriveFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::optional<Card> driveCard(const build::Build&, const Results&, build::SubjectId, const Tag&);
std::vector<sheet::Drawing> drivePages(const build::Build&, const Results&);
Headline driveHeadline(const build::Build&, const Results&, build::SubjectId);
Headline ratioHeadline(const build::Build&, const Results&, build::SubjectId);
Listing levelsList(const build::Build&, const Results&, build::SubjectId);
Listing ratiosList(const build::Build&, const Results&, build::SubjectId);
std::vector<Lack> driveLacks(const build::Build&, const Results&, build::SubjectId);
std::string driveShaftJson(const build::Build&, const Results&);
std::string driveRatioJson(const build::Build&, const Results&);
std::string driveJson(const build::Build&, const Results&);

/// Whether the point was measured while the car did not stand on its wheels: what moves with an axle hung then where it does not
/// run.
bool measuredHanging(const build::Build&, build::PointId);
/// Whether a link names the point: one end of it moves with a wheel, and a frame is not measured by it.
bool namedByLink(const build::Build&, build::PointId);
/// What is done at the end, on the wheels: bushes, lengths of shafts that are made anew.
void addDriveFacts(const build::Build&, const Results&, work::Facts&);
/// A slope in words: "0.55° down at the front".
std::string slopeWords(double rad);
extern const char* const shaft_caution;

} // namespace gorvet::analysis
