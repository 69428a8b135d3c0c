#pragma once

#include "frame/structure.hpp"
#include "sheet/page.hpp"

#include <functional>

/// The frame from above with what it bears, the same as it bends seen from the left, and its figures in a table.
namespace gorvet::frame {

struct SheetCase {
    std::string name;
    std::string words;  ///< "3 g down"
    std::string bears;  ///< "142 MPa"
    std::string margin; ///< "1.4"
    std::string where;
    sheet::Severity severity = sheet::Severity::Warn;
    bool counts = true; ///< false: nothing is said of it
};
struct SheetFigure {
    std::string name;
    std::string now;
    std::string planned; ///< empty: nothing is planned
    sheet::Mark mark = sheet::Mark::Derived;
};
struct FrameView {
    const Structure* structure = nullptr; ///< that is drawn
    const Outcome* outcome = nullptr;
    std::vector<bool> fresh; ///< of its lines: new steel
    bool planned = false;
    std::vector<SheetCase> cases;
    std::vector<SheetFigure> figures;
    std::vector<std::string> words; ///< under the figures: what was assumed, what is left out
    std::string selected;
    std::function<std::string(double)> station; ///< as it is shown
    /// Handles: where each stands, and what it moves. `at` and `per_unit` are the sheet's to say.
    std::vector<std::pair<Vec3, sheet::Grip>> grips;
    std::string dragged; ///< the name of the one that is dragged
    std::string live;    ///< what it comes to there
};

inline constexpr double frame_sheet_least_px = 380;
sheet::Drawing frameSheet(const FrameView&, double width, double height, const sheet::Format&);

/// A section to scale with its axes, centroid and shear centre, and what it is worth.
struct SectionShown {
    std::string name;
    std::string said; ///< "channel 100 × 50 × 4"
    Walls walls;
    Section section;
};
sheet::Drawing sectionsSheet(const std::vector<SectionShown>&, double width, double height, const sheet::Format&);

} // namespace gorvet::frame
