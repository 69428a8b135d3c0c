#pragma once

#include "sheet/drawing.hpp"
#include "tape/condition.hpp"

/// The survey as a drawing: from above with the readings, and from the left with heights enlarged.
namespace gorvet::tape {

/// A line below the frame's figures: a set-up, a gap, what moved, what to take next.
struct SideLine {
    std::string name;
    std::string value;
    std::optional<sheet::Severity> severity; ///< with its mark
    std::string tag;
    bool heading = false;
};

struct SurveyView {
    const Survey* survey = nullptr;
    const Solution* solution = nullptr;
    const Condition* condition = nullptr;
    const FramePoints* frame = nullptr;
    std::vector<std::string> point_tags;   ///< by point; may be empty
    std::vector<std::string> reading_tags; ///< by reading; may be empty
    units::LengthStep step = units::LengthStep::Mm01;
    sheet::Ink ink = sheet::Ink::Chassis;    ///< body or chassis
    std::optional<std::pair<int, int>> next; ///< the pair the entry line proposes
    std::string selected;                    ///< tag of what is picked
    bool figures = true;                     ///< with the list of figures at the right
    std::vector<SideLine> lines;             ///< below them
    struct Found {
        int point = -1;
        sheet::Severity severity = sheet::Severity::Warn;
        std::string word; ///< "crack"
        std::string tag;
    };
    std::vector<Found> found;                   ///< what was found at points, with its mark and word beside them
    std::vector<std::pair<Vec3, Vec3>> blocked; ///< boxes that no tape goes through
    std::vector<std::string> blocked_names;
    std::vector<std::string> blocked_tags;
    std::optional<double> plan_height; ///< how much of the height the views take, where the list needs more; none: all
};

/// What the sheet needs in height; with less it is drawn so high all the same, and scrolled.
double surveySheetHeight(const SurveyView&, const sheet::Format&);
/// Draws into width × height. Points without a place are left out. Faults of left/right pairs are enlarged, and it says how much.
sheet::Drawing surveySheet(const SurveyView&, double width, double height, const sheet::Format&);

/// How the frame deviates along its length: one strip a kind of deviation, with ± and the band of the tolerance, enlarged alike.
sheet::Drawing sectionsSheet(const std::vector<Section>&, const Survey&, double tolerance_mm, double width, double height,
                             const sheet::Format&);

/// Where a pair of points is, to be seen from afar: all points from above, front at the top, the pair large. Empty for indices
/// that are none of the survey's.
sheet::Drawing pairSketch(const SurveyView&, std::pair<int, int> pair, double width, double height, const sheet::Format&);

} // namespace gorvet::tape
