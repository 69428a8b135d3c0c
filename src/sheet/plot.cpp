#include "sheet/plot.hpp"

#include <algorithm>

namespace gorvet::sheet {

Dash dashOf(std::size_t n) {
    constexpr Dash dashes[] = {Dash::Solid, Dash::Dashed, Dash::DashDot, Dash::Dotted};
    return dashes[n % 4];
}

double plotMargin(const Format& f) { return f.px(70); }

P addPlot(Drawing& d, const Plot& plot, const Format& f, const std::string& tag) {
    double low = 1e300, high = -1e300, from = 1e300, to = -1e300;
    for (const PlotCurve& c : plot.curves)
        for (std::size_t k = 0; k < c.x.size(); ++k) {
            low = std::min(low, c.y[k]);
            high = std::max(high, c.y[k]);
            from = std::min(from, c.x[k]);
            to = std::max(to, c.x[k]);
        }
    if (low > high) return plot.at; // nothing to draw
    if (plot.limit) high = std::max(high, std::min(*plot.limit, 2 * high));
    if (high - low < 1e-9) {
        low -= 0.5e-9;
        high = low + 1e-9;
    }
    if (to - from < 1e-9) to = from + 1e-9;
    const double x = plot.at.x, top = plot.at.y, bottom = top + plot.height;
    const auto at = [&](double along, double value) {
        return P{x + (along - from) / (to - from) * plot.width, bottom - (value - low) / (high - low) * plot.height};
    };
    d.add(Text{{x, top - f.px(8)}, plot.name, f.small(), Ink::Second});
    d.add(Stroke{{{x, top}, {x, bottom}, {x + plot.width, bottom}}, false, {Ink::Second, f.thin(), Dash::Solid}});
    for (const double end : {low, high})
        d.add(Text{{x - f.px(6), at(from, end).y + f.small() * 0.35}, plot.words(end), f.small(), Ink::Second, Anchor::Right});
    if (plot.zero && low < 0 && high > 0) d.add(Stroke{{at(from, 0), at(to, 0)}, false, {Ink::Faint, f.thin(), Dash::Solid}});
    if (plot.today)
        d.add(Stroke{{at(*plot.today, low), at(*plot.today, high)}, false, {Ink::NewSteel, f.medium(), Dash::Solid}}, tag);
    if (plot.limit && *plot.limit <= high)
        d.add(Stroke{{at(from, *plot.limit), at(to, *plot.limit)}, false, {Ink::Bad, f.thin(), Dash::Dashed}});
    for (const PlotCurve& c : plot.curves) {
        Stroke s{{}, false, {Ink::Ink, f.medium(), c.dash}};
        for (std::size_t k = 0; k < c.x.size(); ++k) s.path.push_back(at(c.x[k], c.y[k]));
        d.add(std::move(s), tag);
    }
    d.add(Text{{x, bottom + f.small() * 1.3}, plot.from, f.small(), Ink::Second});
    d.add(Text{{x + plot.width, bottom + f.small() * 1.3}, plot.to, f.small(), Ink::Second, Anchor::Right});
    return at(plot.today.value_or(from), low);
}

} // namespace gorvet::sheet
