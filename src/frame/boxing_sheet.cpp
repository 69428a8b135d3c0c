#include "frame/boxing_sheet.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::frame {

using namespace sheet;

Drawing boxingSheet(const BoxingView& v, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    double most = 1;
    most = std::max(most, v.wanted_nm_deg);
    for (const BoxingRow& r : v.rows) most = std::max(most, r.held_nm_deg);
    const double names = f.px(250), columns = f.px(92);
    const std::array<const char*, 5> heads{"steel", "seam", "per kg", "per m seam", "per hour"};
    const double bars = width - names - columns * static_cast<double>(heads.size()) - f.px(30), bar_x = names + f.px(10);
    double y = f.body();
    d.add(Text{{bar_x, y},
               v.wanted_nm_deg > 0
                   ? fmt::format("N·m a degree between the axles: free to held; the stroke: {:.0f} wanted", v.wanted_nm_deg)
                   : std::string("N·m a degree between the axles: free to held"),
               f.small(),
               Ink::Second});
    for (std::size_t k = 0; k < heads.size(); ++k)
        d.add(Text{
            {width - columns * static_cast<double>(heads.size() - 1 - k), y}, heads[k], f.small(), Ink::Second, Anchor::Right});
    y += f.px(8);
    d.add(Stroke{{{0, y}, {width, y}}, false, {Ink::Ink, f.medium(), Dash::Solid}});
    const double base = v.rows.empty() ? 0 : v.rows.front().free_nm_deg;
    for (const BoxingRow& r : v.rows) {
        const std::string tag = "boxing:" + r.name;
        y += f.body() * 1.7;
        d.add(Text{{0, y}, r.name, f.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, tag);
        const double a = bar_x + bars * 0.72 * r.free_nm_deg / most, b = bar_x + bars * 0.72 * r.held_nm_deg / most;
        const double top = y - f.body() * 0.75, bottom = y + f.px(2);
        const Ink ink = r.kg > 0 ? Ink::NewSteel : Ink::Chassis;
        d.add(Fill{{{bar_x, top}, {a, top}, {a, bottom}, {bar_x, bottom}}, ink}, tag);
        if (v.wanted_nm_deg > 0 && v.wanted_nm_deg <= most) {
            const double w = bar_x + bars * 0.72 * v.wanted_nm_deg / most;
            d.add(Stroke{{{w, top - f.px(5)}, {w, bottom + f.px(3)}}, false, {Ink::Ink, f.medium(), Dash::Solid}}, tag);
        }
        if (b - a > f.px(1))
            d.add(Hatch{{{a, top}, {b, top}, {b, bottom}, {a, bottom}}, {ink, f.thin(), Dash::Solid}, f.px(4), false}, tag);
        const std::string figure = b - a > 0.02 * bars ? fmt::format("{:.0f} to {:.0f}", r.free_nm_deg, r.held_nm_deg)
                                                       : fmt::format("{:.0f}", r.free_nm_deg);
        d.add(Text{{b + f.px(8), y}, figure, f.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Mono, Mark::Derived}, tag);
        if (r.kg > 0) {
            const double gain = r.free_nm_deg - base;
            const std::array<std::string, 5> cells{fmt::format("{:.1f} kg", r.kg), fmt::format("{:.1f} m", r.seam_m),
                                                   fmt::format("{:+.0f}", gain / r.kg), fmt::format("{:+.0f}", gain / r.seam_m),
                                                   fmt::format("{:+.0f}", gain / r.hours)};
            for (std::size_t k = 0; k < cells.size(); ++k)
                d.add(Text{{width - columns * static_cast<double>(cells.size() - 1 - k), y},
                           cells[k],
                           f.body(),
                           Ink::Ink,
                           Anchor::Right,
                           Level::Base,
                           Face::Mono,
                           Mark::Derived},
                      tag);
        }
        for (const std::string& line : wrapped(r.words, width - f.px(20), f.small())) {
            y += f.small() * 1.25;
            d.add(Text{{f.px(12), y}, line, f.small(), Ink::Second}, tag);
        }
    }
    y += f.px(18);
    std::vector<std::string> words{v.tried};
    words.insert(words.end(), v.words.begin(), v.words.end());
    for (const std::string& text : words)
        for (const std::string& line : wrapped(text, width, f.small())) {
            y += f.small() * 1.3;
            d.add(Text{{0, y}, line, f.small(), Ink::Second});
        }
    d.height = std::max(height, y + f.px(8));
    return d;
}

} // namespace gorvet::frame
