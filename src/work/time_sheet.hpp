#pragma once

#include "sheet/page.hpp"
#include "work/schedule.hpp"

/// Time as strips along the year: what is done in each place of the car, what is awaited, and when all may be done.
namespace gorvet::work {

struct TimeView {
    const ScheduleInput* in = nullptr;
    const Schedule* schedule = nullptr;
    std::vector<int> places; ///< of each task in the order of work, from 1
    std::string selected;    ///< tag "step:CODE"
};

inline constexpr double time_sheet_least_px = 320;
sheet::Drawing timeSheet(const TimeView&, double width, double height, const sheet::Format&);
std::vector<sheet::Drawing> timePages(const TimeView&, const sheet::PageTitle&, const std::vector<std::string>& cautions);

/// "between Thu 4 Mar and Tue 6 Apr 2027": days that 10 and 90 of 100 draws come to.
std::string betweenWords(const Spread&);
/// The day, in words.
std::string dayWords(double day);

} // namespace gorvet::work
