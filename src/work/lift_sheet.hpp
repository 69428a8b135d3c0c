#pragma once

#include "build/lifts.hpp"
#include "sheet/page.hpp"
#include "work/carry.hpp"

/// Lifts as drawings: from the side and from above, with the points, the centre of gravity and its ±, and what each point
/// carries.
namespace gorvet::work {

/// One lift, worked out: by slings or from points straight up.
struct WorkedLift {
    std::string name;
    build::LiftWay way = build::LiftWay::Slings;
    std::string step;       ///< title of the step that it is for; may be empty
    std::string waits;      ///< what is missing; empty: it is worked out
    std::string remedy;     ///< how to say it
    std::string holds_step; ///< code of the step that waits while it fails; may be empty
    bool made = false;      ///< from other figures of the build: no row of its own
    std::string note;
    LiftInput sling; ///< where way is Slings
    LiftPlan hung;
    CarryInput rest; ///< else
    CarryPlan carried;
    bool slings() const { return way == build::LiftWay::Slings; }
    LiftVerdict verdict() const { return slings() ? hung.verdict : carried.verdict; }
    const std::vector<LiftRemark>& remarks() const { return slings() ? hung.remarks : carried.remarks; }
    /// "hangs level", "stands 240 mm inside of its points".
    std::string sentence() const;
};

const char* verdictWord(LiftVerdict);

inline constexpr double lift_sheet_least_px = 330;
sheet::Drawing liftSheet(const std::vector<WorkedLift>&, double width, double height, const sheet::Format&);
/// A page a lift.
std::vector<sheet::Drawing> liftPages(const std::vector<WorkedLift>&, const sheet::PageTitle&,
                                      const std::vector<std::string>& cautions);

} // namespace gorvet::work
