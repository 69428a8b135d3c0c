#pragma once

#include "sheet/page.hpp"
#include "work/work.hpp"

/// The order of work as drawings: the track of all steps with the one that is next, and the sheet for the wall.
namespace gorvet::work {

/// "left sill · 2 to 6 h, likely 3 · two people · wanted 2026-12-24": what a job says of itself; empty for a step of the plan.
std::string jobWords(const Step&);

struct WorkView {
    const Order* order = nullptr;
    units::LengthStep step = units::LengthStep::Mm01;
    std::string selected; ///< tag "step:CODE"
};

/// What the sheet needs in height, in pixels at 100 %; with less it is drawn so high all the same, and scrolled.
inline constexpr double work_sheet_least_px = 340;
/// A track whose height tells where body and frame are, marks for steps, gates for hold points, barbs for points of no return;
/// below it the next step whole, and what follows.
sheet::Drawing workSheet(const WorkView&, double width, double height, const sheet::Format&);

/// A4 pages for the wall: every step with a box to tick, its cautions, room for readings and a name. `cautions` stand at each
/// page's foot.
std::vector<sheet::Drawing> wallSheet(const Order&, units::LengthStep, const sheet::PageTitle&,
                                      const std::vector<std::string>& cautions);

} // namespace gorvet::work
