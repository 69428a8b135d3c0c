#include "tape/measuring_sheet.hpp"

#include "tape/plan_extent.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::tape {

using namespace sheet;

namespace {
double rowHeight(const Format& f) { return f.px(34); } // a figure by hand
double headHeight(const Format& f) { return f.px(40); }
} // namespace

size_t measuringSheetRows(double height, const Format& f) {
    return static_cast<size_t>(std::max(1.0, std::floor((height - headHeight(f)) / rowHeight(f))));
}

Drawing measuringSheet(const MeasuringSheet& m, size_t first, size_t count, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    const auto& points = m.solution->points;
    const size_t last = std::min(first + count, m.readings.size());
    // the sketch at the left, front at the top
    const PlanExtent reach = planExtent(points);
    const double sketch = width * 0.38;
    d.add(Text{{0, f.body()}, "from above, front at the top", f.body(), Ink::Second});
    if (reach.any) {
        const Projection to = fit(reach.left - 80, reach.right + 80, reach.front - 40, reach.rear + 40, {0, f.px(30)}, sketch,
                                  height - f.px(58), false);
        const auto at = [&](int i) {
            return to(points[static_cast<size_t>(i)].position.y_mm, points[static_cast<size_t>(i)].position.x_mm);
        };
        for (size_t i = first; i < last; ++i) {
            const RankedReading& r = m.readings[i];
            const P a = at(r.from);
            const P b = r.to >= 0 ? at(r.to) : a;
            if (r.to >= 0) d.add(Stroke{{a, b}, false, {Ink::Ink, f.medium(), Dash::Solid}});
            // a third of the way along: in the middle the diagonals cross
            const P where{a.x + (b.x - a.x) * 0.36, a.y + (b.y - a.y) * 0.36 + (r.to >= 0 ? 0 : f.px(20))};
            d.add(Text{where, std::to_string(i + 1), f.small(), Ink::Ink, Anchor::Centre, Level::Middle, Face::Bold, Mark::None,
                       0, true});
        }
        std::vector<char> used(points.size(), 0);
        for (size_t i = first; i < last; ++i) {
            used[static_cast<size_t>(m.readings[i].from)] = 1;
            if (m.readings[i].to >= 0) used[static_cast<size_t>(m.readings[i].to)] = 1;
        }
        for (size_t i = 0; i < points.size(); ++i) {
            if (!points[i].placed) continue;
            const P p = at(static_cast<int>(i));
            d.add(Circle{p, f.px(used[i] ? 4.5 : 2.5), {used[i] ? Ink::Ink : Ink::Second, f.thin(), Dash::Solid}, false, true});
            const bool left = points[i].position.y_mm < (reach.left + reach.right) / 2;
            d.add(Text{{p.x + (left ? -f.px(8) : f.px(8)), p.y + f.px(5)},
                       m.survey->points[i].name,
                       used[i] ? f.body() : f.small(),
                       used[i] ? Ink::Ink : Ink::Second,
                       left ? Anchor::Right : Anchor::Left,
                       Level::Base,
                       used[i] ? Face::Bold : Face::Sans});
        }
    }
    // the list at the right
    const double left = sketch + f.px(40);
    const double row = rowHeight(f);
    const double boxes = f.px(150);
    const double second = width - boxes;
    const double one = second - boxes - f.px(12);
    const auto heading = [&](double x, const char* text) { d.add(Text{{x, f.body()}, text, f.body(), Ink::Second}); };
    heading(left, "no");
    heading(left + f.px(44), "measure");
    heading(one - f.px(190), "about");
    heading(one, "first");
    heading(second, "again");
    for (size_t i = first; i < last; ++i) {
        const RankedReading& r = m.readings[i];
        const double y = headHeight(f) + row * static_cast<double>(i - first);
        const double base = y + row * 0.62;
        const std::string what = r.whatWords(*m.survey);
        d.add(Text{{left, base}, std::to_string(i + 1), f.body(), Ink::Second});
        d.add(Text{{left + f.px(44), base}, what, f.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        d.add(Text{{one - f.px(24), base}, r.aboutWords(m.step), f.body(), Ink::Second, Anchor::Right});
        for (const double x : {one, second})
            d.add(Stroke{{{x, y + f.px(3)}, {x + boxes, y + f.px(3)}, {x + boxes, y + row - f.px(3)}, {x, y + row - f.px(3)}},
                         true,
                         {Ink::Ink, f.thin(), Dash::Solid}});
    }
    return d;
}

} // namespace gorvet::tape
