#pragma once

#include "analysis/bench.hpp"
#include "analysis/listing.hpp"
#include "drive/wheels_sheet.hpp"

/// The wheels of a build: what is bolted on, what stands beside it, which fit.
namespace gorvet::analysis {

struct Overlay;

/// What the build says of the wheels of an axle; none where it says nothing. Scans stand apart.
std::optional<drive::WheelsIn> wheelsInput(const build::Build&, const Results&, build::AxleEnd);
/// The plans of both axles, taken over from before where nothing of them changed.
std::vector<Node<drive::WheelsIn, drive::WheelsPlan>> wheelsOf(const build::Build&, const Results&, const Results* previous);
/// The same with what the scans show beside them.
drive::WheelsIn withScans(drive::WheelsIn, const Overlay&);

/// As it is shown: with the scans once they were looked at.
struct WheelsShown {
    const drive::WheelsIn* input = nullptr;
    const drive::WheelsPlan* plan = nullptr;
    std::string scans; ///< what is said of them; empty: there are none
};
std::vector<WheelsShown> wheelsShown(const build::Build&, const Results&);

sheet::Drawing wheelsDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                             double height, const sheet::Format&);
sheet::Drawing wheelMapDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                               double height, const sheet::Format&);
/// The line for a wanted offset that was dragged on the map.
std::string draggedOffset(const build::Build&, const Results&, const std::string& grip, double value);
Headline wheelsHeadline(const build::Build&, const Results&, build::SubjectId);
/// Turns of the wheels under a dial.
Headline dialHeadline(const build::Build&, const Results&, build::SubjectId);
Listing dialList(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> wheelsPages(const build::Build&, const Results&);
void keepWheelFiles(const build::Build&, const Results&, FileKeeper&);
void addWheelFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::optional<Card> wheelCard(const build::Build&, const Results&, const Tag&);
std::string driveWheelJson(const build::Build&, const Results&);

/// The plate between hubs and wanted wheels; none before both stud circles are known.
std::optional<drive::AdaptorIn> adaptorOf(const WheelsShown&);

/// Most that a wheel may run out, least to most. engineering.md, Drive.
inline constexpr double run_out_mm = 1.0;
/// ± of a dial on a turned face.
inline constexpr double dial_u95_mm = 0.05;
/// A turn of so few readings may miss an oval.
inline constexpr std::size_t least_turn_readings = 6;
/// How a turn under the dial is judged: with the ± of its least and its most.
build::PlanVerdict dialVerdict(const build::DialTurn&);

extern const char* const wheel_caution;
extern const std::vector<SlowNode> wheel_nodes;

} // namespace gorvet::analysis
