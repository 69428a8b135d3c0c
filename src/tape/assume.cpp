#include "tape/assume.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::tape {

void placeByAssumption(const Survey& survey, Solution& s) {
    if (std::all_of(s.points.begin(), s.points.end(), [](const AdjustedPoint& p) { return p.fixed; })) return;
    Survey second = survey;
    second.assumed.clear();
    second.datum.clear();
    second.holds.clear();
    second.readings.clear();
    for (size_t i = 0; i < s.points.size(); ++i) {
        const AdjustedPoint& p = s.points[i];
        if (p.fixed) {
            const double at[3] = {p.position.x_mm, p.position.y_mm, p.position.z_mm};
            for (int axis = 0; axis < 3; ++axis) second.holds.push_back({static_cast<int>(i), static_cast<Axis>(axis), at[axis]});
        } else {
            for (const HeldCoordinate& h : survey.holds)
                if (h.point == static_cast<int>(i) && survey.datum.empty()) second.holds.push_back(h);
        }
        if (p.placed) second.points[i].rough = p.position;
    }
    for (size_t i = 0; i < survey.readings.size(); ++i)
        if (!s.readings[i].set_aside) second.readings.push_back(survey.readings[i]);
    second.readings.insert(second.readings.end(), survey.assumed.begin(), survey.assumed.end());
    const Solution placed = solve(second, {.set_aside = false, .go_on = {}});
    if (placed.status == Status::NotConverged || placed.status == Status::NoReadings) return;
    for (size_t i = 0; i < s.points.size(); ++i) {
        AdjustedPoint& p = s.points[i];
        if (p.fixed || !placed.points[i].fixed) continue;
        p.placed = true;
        p.assumed = true;
        p.position = placed.points[i].position;
        // the second adjustment scales nothing: its Ω says nothing of the measuring
        for (int axis = 0; axis < 3; ++axis) p.sd_mm[axis] = placed.points[i].sd_mm[axis] / placed.sd_scale;
    }
}

} // namespace gorvet::tape
