#pragma once

#include "analysis/results.hpp"
#include "sheet/drawing.hpp"

/// The drawing of each bench, from the build and its results: the same for window and paper.
namespace gorvet::analysis {

struct SeatingClearance;

struct ViewOptions {
    std::string selected;                    ///< tag of what is picked
    std::optional<std::pair<int, int>> next; ///< Tape: the pair the entry line proposes
    double slide_mm = 0;                     ///< The Rule: the body edge dragged by so much, a preview
    std::string grip = {};                   ///< the handle that is dragged, a preview; empty: none
    double grip_value = 0;                   ///< where it is dragged to
};

sheet::Drawing tapeView(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width, double height,
                        const sheet::Format&);
/// Where the pair of a reading is, for the call-out.
sheet::Drawing pairView(const Results&, build::SubjectId, std::pair<int, int> pair, double width, double height,
                        const sheet::Format&);
sheet::Drawing sitView(const build::Build&, const Results&, const ViewOptions&, double width, double height,
                       const sheet::Format&);
/// What costs what on Sit: every seating on one ruled scale a pin, what moves bring, what giving up a pin brings, ways to lower;
/// and how near the scans come in each, when that is known.
sheet::Drawing seatingsView(const build::Build&, const Results&, double width, double height, const sheet::Format&,
                            const std::vector<SeatingClearance>* clearances = nullptr);
sheet::Drawing stretchView(const build::Build&, const Results&, const ViewOptions&, double width, double height,
                           const sheet::Format&);
sheet::Drawing makeView(const build::Build&, const Results&, const ViewOptions&, double width, double height,
                        const sheet::Format&);

sheet::Drawing workView(const build::Build&, const Results&, const ViewOptions&, double width, double height,
                        const sheet::Format&);

/// The Rule: body edge over chassis edge, with stations, wheels, the cut and the findings' tags.
sheet::Drawing ruleView(const build::Build&, const Results&, const ViewOptions&, double width, double height,
                        const sheet::Format&);
/// How many mm a paper unit of The Rule is, for dragging; 0 when there is nothing to slide.
double ruleScale(const build::Build&, const Results&, double width, const sheet::Format&);
/// The chassis' station at a place of The Rule; none when there is nothing on it.
std::optional<double> ruleStation(const build::Build&, const Results&, double width, double x, const sheet::Format&);

} // namespace gorvet::analysis
