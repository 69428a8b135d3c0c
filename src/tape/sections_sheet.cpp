#include "tape/survey_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <functional>

#include <fmt/format.h>

namespace gorvet::tape {

using namespace sheet;

namespace {

struct Strip {
    const char* name;
    const char* up; ///< what above the line means
    std::function<std::optional<Deviation>(const Section&)> of;
};

} // namespace

Drawing sectionsSheet(const std::vector<Section>& sections, const Survey& survey, double tolerance_mm, double width,
                      double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    if (sections.size() < 2) return d;
    const std::vector<Strip> strips = {
        {"one rail ahead", "left aft", [](const Section& s) { return std::optional(s.lead); }},
        {"twist", "right side high", [](const Section& s) { return std::optional(s.lean); }},
        {"sidesway", "middle to the right", [](const Section& s) { return std::optional(s.aside); }},
        {"sag", "middle low", [](const Section& s) { return s.low; }}};
    const double left = f.px(175);
    const double right = width - f.px(30);
    const double x0 = sections.front().station_mm;
    const double x1 = sections.back().station_mm;
    const auto at = [&](double station) { return left + (right - left) * (station - x0) / std::max(x1 - x0, 1.0); };
    double most = tolerance_mm;
    for (const Section& s : sections)
        for (const Strip& strip : strips)
            if (const auto v = strip.of(s)) most = std::max(most, std::abs(v->size_mm.value) + v->size_mm.u95);
    const double foot = f.small() * 3.2;
    const double strip_height = (height - foot) / static_cast<double>(strips.size());
    const double scale = (strip_height * 0.5 - f.small() * 1.2) / most;
    for (size_t k = 0; k < strips.size(); ++k) {
        const Strip& strip = strips[k];
        const double y = strip_height * (static_cast<double>(k) + 0.5);
        d.add(Fill{{{left, y - scale * tolerance_mm},
                    {right, y - scale * tolerance_mm},
                    {right, y + scale * tolerance_mm},
                    {left, y + scale * tolerance_mm}},
                   Ink::Panel});
        d.add(Stroke{{{left, y}, {right, y}}, false, {Ink::Second, f.thin(), Dash::DashDot}});
        d.add(Text{{0, y}, strip.name, f.body(), Ink::Ink});
        d.add(Text{{0, y + f.small() * 1.3}, fmt::format("up: {}", strip.up), f.small(), Ink::Second});
        Stroke line;
        line.pen = {Ink::Chassis, f.thick(), Dash::Solid};
        bool any = false;
        for (const Section& s : sections) {
            const auto v = strip.of(s);
            if (!v) continue;
            any = true;
            line.path.push_back({at(s.station_mm), y - scale * v->size_mm.value});
        }
        if (!any) {
            d.add(Text{{left + f.px(8), y - f.px(4)},
                       "no heights from a drawing to judge it by: drawing NAME x y z, or drawing flat",
                       f.small(),
                       Ink::Second});
            continue;
        }
        if (line.path.size() > 1) d.add(line);
        for (const Section& s : sections) {
            const auto v = strip.of(s);
            if (!v || v->size_mm.u95 == 0) continue;
            const double x = at(s.station_mm);
            const double low = y - scale * (v->size_mm.value - v->size_mm.u95);
            const double high = y - scale * (v->size_mm.value + v->size_mm.u95);
            const Pen pen{inkOf(severityOf(v->verdict)), f.medium(), Dash::Solid};
            d.add(Stroke{{{x, low}, {x, high}}, false, pen});
            for (const double end : {low, high}) d.add(Stroke{{{x - f.px(4), end}, {x + f.px(4), end}}, false, pen});
            // the figure stands at the end of its bar that is further from the line of zero
            const bool above = v->size_mm.value >= 0;
            d.add(Text{{x, above ? high - f.px(4) : low + f.small() * 1.05},
                       units::fixed(std::abs(v->size_mm.value), 1),
                       f.small(),
                       pen.ink,
                       Anchor::Centre});
        }
    }
    for (const Section& s : sections)
        d.add(Text{{at(s.station_mm), height - foot + f.small() * 1.2},
                   survey.points[static_cast<size_t>(s.pair.left)].name + " " +
                       survey.points[static_cast<size_t>(s.pair.right)].name,
                   f.small(),
                   Ink::Second,
                   Anchor::Centre});
    d.add(Text{{0, height - f.small() * 0.3},
               fmt::format("front … rear; the band is ± {} mm", units::fixed(tolerance_mm, 1)),
               f.small(),
               Ink::Second});
    return d;
}

} // namespace gorvet::tape
