#include "tape/survey_sheet.hpp"

#include "tape/plan_extent.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace gorvet::tape {

using namespace sheet;

Drawing pairSketch(const SurveyView& v, std::pair<int, int> pair, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    const auto& points = v.solution->points;
    const PlanExtent reach = planExtent(points);
    const auto n = static_cast<int>(points.size());
    if (!reach.any || pair.first < 0 || pair.second < 0 || pair.first >= n || pair.second >= n) return d;
    // from above, the front at the top: offsets to the right, stations down the sheet
    const Projection to = fit(reach.left - 60, reach.right + 60, reach.front, reach.rear, {f.px(30), f.px(56)}, width - f.px(60),
                              height - f.px(96), false);
    const auto at = [&](int i) {
        return to(points[static_cast<size_t>(i)].position.y_mm, points[static_cast<size_t>(i)].position.x_mm);
    };
    d.add(Text{{0, f.px(18)}, "from above, front at the top", f.body(), Ink::Second});
    // rails and cross lines of the matched pairs
    int before_left = -1;
    int before_right = -1;
    auto pairs = v.frame ? v.frame->pairs : std::vector<FramePoints::Pair>{};
    std::erase_if(pairs, [&](const FramePoints::Pair& q) {
        return !points[static_cast<size_t>(q.left)].placed || !points[static_cast<size_t>(q.right)].placed;
    });
    std::sort(pairs.begin(), pairs.end(), [&](const FramePoints::Pair& a, const FramePoints::Pair& b) {
        return points[static_cast<size_t>(a.left)].position.x_mm < points[static_cast<size_t>(b.left)].position.x_mm;
    });
    for (const FramePoints::Pair& q : pairs) {
        if (v.frame->rails && before_left >= 0) {
            d.add(Stroke{{at(before_left), at(q.left)}, false, {v.ink, f.medium(), Dash::Solid}});
            d.add(Stroke{{at(before_right), at(q.right)}, false, {v.ink, f.medium(), Dash::Solid}});
        }
        before_left = q.left;
        before_right = q.right;
    }
    for (int i = 0; i < n; ++i) {
        if (!points[static_cast<size_t>(i)].placed || i == pair.first || i == pair.second) continue;
        d.add(Circle{at(i), f.px(4), {Ink::Second, f.thin() * 1.5, Dash::Solid}, false, true});
        d.add(
            Text{{at(i).x + f.px(7), at(i).y + f.px(4)}, v.survey->points[static_cast<size_t>(i)].name, f.small(), Ink::Second});
    }
    const P a = at(pair.first);
    const P b = at(pair.second);
    d.add(Stroke{{a, b}, false, {Ink::Ink, f.thick() * 1.5, Dash::Solid}}, "pair");
    for (const auto& [end, other, i] : {std::tuple{a, b, pair.first}, std::tuple{b, a, pair.second}}) {
        d.add(Circle{end, f.px(10), {Ink::Ink, f.thick(), Dash::Solid}, false, true}, "pair");
        // the name stands away from the other end
        const bool left = end.x < other.x || (end.x == other.x && end.x > width / 2);
        d.add(Text{{end.x + f.px(left ? -18 : 18), end.y},
                   v.survey->points[static_cast<size_t>(i)].name,
                   f.px(36),
                   Ink::Ink,
                   left ? Anchor::Right : Anchor::Left,
                   Level::Middle,
                   Face::Bold,
                   Mark::None,
                   0,
                   true},
              "pair");
    }
    return d;
}

} // namespace gorvet::tape
