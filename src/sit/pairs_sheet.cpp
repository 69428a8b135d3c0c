#include "sit/pairs_sheet.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::sit {

using namespace sheet;

namespace {
constexpr double pair_row_px = 40;
constexpr double pair_head_px = 26;
} // namespace

double pairsHeight(const PairsView& v, const Format& f) {
    return f.px(pair_head_px) + f.px(pair_row_px) * static_cast<double>(v.rows.size()) +
           f.small() * 1.5 * static_cast<double>(v.remarks.size()) + f.px(16);
}

Drawing pairsSheet(const PairsView& v, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    const double name_width = width * 0.25, scale_at = name_width + f.px(8), scale_width = width * 0.25;
    const double figure_at = scale_at + scale_width + f.px(92), where_at = figure_at + f.px(14);
    d.add(Text{{0, f.small()}, "pair, and what it needs", f.small(), Ink::Second});
    d.add(Text{{scale_at, f.small()}, "fouls, tight, clear; thin mark: they touch", f.small(), Ink::Second});
    d.add(Text{{where_at, f.small()}, "where, and in which pose", f.small(), Ink::Second});
    double y = f.px(pair_head_px);
    for (const PairRow& row : v.rows) {
        const double middle = y + f.px(pair_row_px) / 2;
        d.add(Text{{0, middle - f.px(2)}, row.name, f.body(), Ink::Ink});
        d.add(Text{{0, middle + f.small() * 1.1},
                   row.need,
                   f.small(),
                   Ink::Second,
                   Anchor::Left,
                   Level::Base,
                   Face::Sans,
                   row.assumed ? Mark::Assumed : Mark::None});
        if (!row.need_more.empty())
            d.add(Text{{textWidth(row.need, f.small(), Face::Sans) + f.px(row.assumed ? 24 : 8), middle + f.small() * 1.1},
                       row.need_more,
                       f.small(),
                       Ink::Second});
        // from as deep as it fouls to well beyond tight
        const double low = std::min(0.0, row.far ? 0.0 : row.distance) - 0.15 * row.tight_below;
        const double high =
            std::max(1.8 * row.tight_below, row.far ? 0.0 : std::min(row.distance * 1.1, 4 * row.tight_below)) + 1;
        const auto x = [&](double mm) { return scale_at + (std::clamp(mm, low, high) - low) / (high - low) * scale_width; };
        const double line = middle + f.px(6), deep = f.px(8);
        const auto band = [&](double from, double to, Ink ink, bool crossed) {
            if (to - from < 0.5) return;
            d.add(Hatch{{{from, line}, {to, line}, {to, line + deep}, {from, line + deep}},
                        {ink, f.thin(), Dash::Solid},
                        f.px(4),
                        crossed});
        };
        band(scale_at, x(row.fouls_below), Ink::Bad, true);
        band(x(row.fouls_below), x(row.tight_below), Ink::Warn, false);
        d.add(Stroke{{{scale_at, line}, {scale_at + scale_width, line}}, false, {Ink::Second, f.thin(), Dash::Solid}});
        d.add(Stroke{{{x(0), line - f.px(4)}, {x(0), line + deep}}, false, {Ink::Ink, f.thin(), Dash::Solid}}); // they touch
        d.add(Stroke{{{x(row.fouls_below), line - f.px(3)}, {x(row.fouls_below), line + deep}},
                     false,
                     {Ink::Bad, f.medium(), Dash::Solid}});
        const Ink ink = inkOf(row.severity);
        const double at = row.far ? scale_at + scale_width : x(row.distance);
        if (row.far)
            d.add(Fill{{{at, line - f.px(4)}, {at - f.px(8), line - f.px(8)}, {at - f.px(8), line}}, ink}); // beyond the scale
        else
            d.add(Fill{{{at, line - f.px(1)}, {at - f.px(5), line - f.px(10)}, {at + f.px(5), line - f.px(10)}}, ink});
        d.add(
            Text{{figure_at, middle + f.px(3)}, row.text, f.body(), ink, Anchor::Right, Level::Base, Face::Sans, Mark::Derived});
        addMark(d, {where_at + f.px(4), middle - f.px(6)}, f.px(11), row.severity);
        d.add(Text{{where_at + f.px(16), middle - f.px(2)}, row.word, f.small(), ink, Anchor::Left, Level::Base, Face::Bold});
        d.add(Text{{where_at + f.px(24) + textWidth(row.word, f.small(), Face::Bold), middle - f.px(2)},
                   row.where,
                   f.small(),
                   Ink::Ink});
        d.add(Text{{where_at + f.px(16), middle + f.small() * 1.1}, row.pose, f.small(), Ink::Second});
        y += f.px(pair_row_px);
        d.add(Stroke{{{0, y}, {width, y}}, false, {Ink::Panel, f.thin(), Dash::Solid}});
    }
    y += f.px(6);
    for (const std::string& r : v.remarks) {
        y += f.small() * 1.5;
        d.add(Text{{0, y}, r, f.small(), Ink::Second});
    }
    return d;
}

} // namespace gorvet::sit
