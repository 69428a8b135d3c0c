#include "make/make_sheet.hpp"

#include "units/shown.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::make {

using namespace sheet;

namespace {
std::vector<P> box(double x, double y, double w, double h) { return {{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}; }

/// How the stacks stand: `across` in each of `rows` rows.
struct Grid {
    size_t across;
    size_t rows;
};
Grid gridFor(size_t count, double width, const Format& f) {
    const auto most = static_cast<size_t>(std::max(1.0, std::floor(width / f.px(190))));
    const size_t rows = (count + most - 1) / most;
    return {(count + rows - 1) / rows, rows};
}
/// One stack from the rail up, in a cell of the sheet.
void drawStack(Drawing& d, const MountsView& v, const MountStack& m, const std::string& tag, P at, double cell, double row_height,
               double scale, const Format& f) {
    const double x = at.x, top = at.y;
    const double rail_y = top + row_height - f.px(50); // the rail's top face
    const double middle = x + cell * 0.28;
    const double half = std::min(cell * 0.115, f.px(34));
    d.add(Text{{x + f.px(22), top + f.body()}, m.name, f.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, tag);
    addMark(d, {x + f.px(10), top + f.body() - f.px(5)}, f.px(14), severityOf(m.verdict), tag);
    d.add(Text{{x + f.px(2), top + f.body() + f.px(22)},
               "gap " + units::shown(m.gap_mm, [&](double mm) { return units::formatSmall(mm, v.step); }),
               f.body(),
               Ink::Ink,
               Anchor::Left,
               Level::Base,
               Face::Sans,
               Mark::Derived},
          tag);
    d.add(Text{{x + cell - f.px(12), top + f.body()},
               fmt::format("at {}", units::formatLength(m.station_mm, v.step)),
               f.small(),
               Ink::Second,
               Anchor::Right},
          tag);
    if (!m.on_rail) {
        d.add(Text{{x + f.px(2), top + f.body() + f.px(46)}, "no rail here", f.body(), Ink::Bad}, tag);
        return;
    }
    const bool selected = !tag.empty() && tag == v.selected;
    const double weight = selected ? f.thick() : f.medium();
    const double body_y = rail_y - m.gap_mm.value * scale;
    const double body_h = std::max(f.px(5), v.body_thickness_mm * scale);
    const double rail_h = std::max(f.px(6), v.rail_thickness_mm * scale);
    d.add(Stroke{box(middle - half * 1.9, body_y - body_h, half * 3.8, body_h), true, {Ink::Body, weight, Dash::Solid}}, tag);
    d.add(Stroke{box(middle - half * 1.9, rail_y, half * 3.8, rail_h), true, {Ink::Chassis, weight, Dash::Solid}}, tag);
    // from the rail up: standoff, shims, biscuit, washer
    double y = rail_y;
    const double label_x = middle + half * 2.1 + f.px(14);
    double label_y = rail_y - f.px(6); // labels stand evenly, each with a line to its layer
    const auto layer = [&](double thickness, double reach, const Pen& pen, const std::string& text, bool hatch, Mark mark) {
        if (thickness <= 0) return;
        const double h = thickness * scale;
        const auto outline = box(middle - reach, y - h, 2 * reach, h);
        if (hatch) d.add(Hatch{outline, {pen.ink, f.thin(), Dash::Solid}, f.px(5), false}, tag);
        d.add(Stroke{outline, true, pen}, tag);
        if (!text.empty()) {
            label_y = std::min(label_y, y - h / 2);
            d.add(Stroke{{{middle + reach, y - h / 2}, {label_x - f.px(3), label_y}},
                         false,
                         {Ink::Second, f.thin() * 0.7, Dash::Solid}},
                  tag);
            d.add(Text{{label_x, label_y}, text, f.small(), pen.ink, Anchor::Left, Level::Middle, Face::Sans, mark}, tag);
            label_y -= f.px(17);
        }
        y -= h;
    };
    layer(m.standoff_mm, half * 0.62, {Ink::NewSteel, weight, Dash::Solid}, "standoff " + units::fixed(m.standoff_mm, 0), false,
          Mark::Derived);
    double shims = 0;
    std::string list;
    for (const double shim : m.shims_mm) {
        shims += shim;
        list += (list.empty() ? "shim " : "+") + fmt::format("{:g}", shim);
    }
    layer(shims, half, {Ink::NewSteel, f.thin(), Dash::Solid}, list, false, Mark::Derived);
    layer(m.biscuit_mm.value, half, {Ink::Ink, f.thin(), Dash::Solid}, "biscuit " + units::fixed(m.biscuit_mm.value, 1), true,
          markOf(m.biscuit_mm.provenance));
    layer(m.washer_mm.value, half * 1.15, {Ink::NewSteel, f.thin(), Dash::Solid}, "washer " + units::fixed(m.washer_mm.value, 1),
          false, markOf(m.washer_mm.provenance));
    d.add(Stroke{{{middle, body_y - body_h - f.px(8)}, {middle, rail_y + rail_h + f.px(8)}},
                 false,
                 {Ink::Second, f.thin(), Dash::DashDot}},
          tag);
    const std::string bolt = m.bolt_length_mm ? fmt::format("M{:g} × {:g}", m.bolt_mm, *m.bolt_length_mm)
                                              : fmt::format("M{:g}: no length fits", m.bolt_mm);
    d.add(Text{{middle, rail_y + rail_h + f.px(24)},
               bolt,
               f.body(),
               Ink::Ink,
               Anchor::Centre,
               Level::Base,
               Face::Sans,
               Mark::Derived},
          tag);
}

} // namespace

double mountsHeight(const MountsView& v, double width, const Format& f) {
    return v.mounts->empty() ? 0 : static_cast<double>(gridFor(v.mounts->size(), width, f).rows) * f.px(196);
}

Drawing mountsSheet(const MountsView& v, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    const auto& mounts = *v.mounts;
    if (mounts.empty()) return d;
    const Grid grid = gridFor(mounts.size(), width, f);
    const double row_height = height / static_cast<double>(grid.rows);
    const double cell = std::min(width / static_cast<double>(grid.across), f.px(230));
    double tallest = 20;
    for (const MountStack& m : mounts) tallest = std::max(tallest, m.gap_mm.value);
    const double head = f.px(64);
    const double room = row_height - head - f.px(58);
    const double scale = std::max(0.0, std::min(room / (tallest + 30), f.px(3.2)));
    for (size_t i = 0; i < mounts.size(); ++i)
        drawStack(d, v, mounts[i], i < v.tags.size() ? v.tags[i] : std::string(),
                  {cell * static_cast<double>(i % grid.across), row_height * static_cast<double>(i / grid.across)}, cell,
                  row_height, scale, f);
    return d;
}

} // namespace gorvet::make
