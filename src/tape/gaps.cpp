#include "tape/gaps.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::tape {

std::vector<GapTrend> gapTrends(const std::vector<GapReading>& readings) {
    std::vector<GapTrend> trends;
    for (const GapReading& r : readings) {
        auto trend = std::find_if(trends.begin(), trends.end(), [&](const GapTrend& t) { return t.place == r.place; });
        if (trend == trends.end()) trend = trends.insert(trends.end(), GapTrend{r.place, {}});
        trend->readings.push_back(r);
    }
    for (GapTrend& t : trends) {
        t.change_mm.u95 = build::u95Of(gap_sigma_mm * std::sqrt(2.0));
        t.since_first_mm = t.readings.back().value_mm - t.readings.front().value_mm;
        for (size_t i = 1; i < t.readings.size(); ++i) {
            const double move = t.readings[i].value_mm - t.readings[i - 1].value_mm;
            if (std::abs(move) > std::abs(t.largest_mm)) t.largest_mm = move;
            t.change_mm.value = move;
        }
        if (t.readings.size() > 1) t.verdict = build::judge(t.change_mm, build::Limit::within(t.readings.back().tolerance_mm));
    }
    return trends;
}

} // namespace gorvet::tape
