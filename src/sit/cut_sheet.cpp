#include "sit/cut_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::sit {
namespace {

using namespace sheet;

std::string joined(const std::vector<std::string>& names) { return fmt::format("{}", fmt::join(names, ", ")); }

std::string heading(const Cut& c) {
    std::string text = fmt::format("Cut {}", c.number);
    if (!c.allowed())
        text += ": NOT ALLOWED, goes through " + joined(c.never);
    else if (!c.brace.empty())
        text += ": brace first, goes through " + joined(c.brace);
    return text;
}

} // namespace

Drawing cutDrawing(const Cut& cut) {
    const auto lines = flattened(cut);
    double left = 0, right = 100, low = 0, high = 0;
    for (const auto& l : lines)
        for (const auto& p : l) {
            left = std::min(left, p[0]);
            right = std::max(right, p[0]);
            low = std::min(low, p[1]);
            high = std::max(high, p[1]);
        }
    constexpr double margin = 20, foot = 40;
    Drawing d;
    d.width = right - left + 2 * margin;
    d.height = high - low + 2 * margin + foot;
    const auto at = [&](const std::array<double, 2>& p) { return P{p[0] - left + margin, high - p[1] + margin}; };
    for (size_t i = 0; i < lines.size(); ++i) {
        Stroke s;
        for (const auto& p : lines[i]) s.path.push_back(at(p));
        s.closed = cut.lines[i].line.closed;
        s.pen = {Ink::Remove, 0.7, cut.lines[i].hole ? Dash::Dashed : Dash::Solid};
        d.add(std::move(s));
    }
    // a cross where the plane's middle is, with its place on the car
    const P middle = at({0, 0});
    d.add(Stroke{{{middle.x - 5, middle.y}, {middle.x + 5, middle.y}}, false, {Ink::Second, 0.35, Dash::Solid}});
    d.add(Stroke{{{middle.x, middle.y - 5}, {middle.x, middle.y + 5}}, false, {Ink::Second, 0.35, Dash::Solid}});
    d.add(Text{{middle.x + 6, middle.y - 2},
               fmt::format("station {:.0f}, offset {:.0f}, height {:.0f}", cut.plane_at[0], cut.plane_at[1], cut.plane_at[2]),
               4});
    const double y = d.height - 22;
    d.add(Stroke{{{margin, y}, {margin + 100, y}}, false, {Ink::Ink, 0.5, Dash::Solid}});
    for (const double x : {margin, margin + 100}) d.add(Stroke{{{x, y - 3}, {x, y + 3}}, false, {Ink::Ink, 0.5, Dash::Solid}});
    d.add(Text{{margin + 102, y + 1.5}, "100 mm: check before you trust the print", 4});
    d.add(Text{{margin, y + 9}, heading(cut), 5, Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
    d.add(Text{{margin, y + 15},
               cut.flat
                   ? fmt::format("flat within {:.1f} mm", cut.off_plane_mm)
                   : fmt::format("NOT flat: stands up to {:.0f} mm off this plane; use the list of places", cut.off_plane_mm),
               4});
    return d;
}

Drawing cutMapPage(const CutMap& map, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    if (map.cuts.empty()) {
        d.add(Text{{0, f.lead()}, "Nothing needs to be cut.", f.lead()});
        return d;
    }
    geometry::Box3 box;
    for (const Cut& c : map.cuts) box.take(c.box);
    const double list = f.body() * 1.5 * static_cast<double>(map.cuts.size() + 1) + f.px(20);
    const double room = std::max(f.px(160), height - list - 3 * f.lead());
    const double wide = box.size().y_mm, tall = box.size().z_mm;
    const double scale =
        std::min((width - f.px(40)) / std::max(1.0, box.size().x_mm), (room - f.px(50)) / std::max(1.0, wide + tall));
    const auto view = [&](size_t axis, double top, bool up, const char* title) {
        const Projection p{
            scale, {f.px(20) - scale * box.min.x_mm, up ? top + scale * box.max[axis] : top - scale * box.min[axis]}, up};
        d.add(Text{{0, top - f.px(6)}, title, f.small(), Ink::Second});
        for (const Cut& c : map.cuts) {
            for (const CutLine& l : c.lines) {
                Stroke s;
                for (const auto& q : l.line.places) s.path.push_back(p(q[0], q[axis]));
                s.closed = l.line.closed;
                s.pen = {Ink::Remove, f.medium(), c.allowed() ? Dash::Solid : Dash::Dotted};
                d.add(std::move(s), fmt::format("cut:{}", c.number));
            }
            const P at = p(c.box.middle().x_mm, c.box.middle()[axis]);
            d.add(Text{at, std::to_string(c.number), f.lead(), Ink::Ink, Anchor::Centre, Level::Middle, Face::Bold, Mark::None, 0,
                       true},
                  fmt::format("cut:{}", c.number));
        }
    };
    // the right side on top, as in every sheet from above
    double y = f.lead() + f.px(4);
    view(1, y, true, "from above, nose to the left");
    y += scale * wide + f.lead() * 1.6;
    view(2, y, true, "from the left");
    y += scale * tall + f.lead() * 1.6;
    for (const Cut& c : map.cuts) {
        double sum = 0;
        for (const CutLine& l : c.lines) sum += l.length_mm;
        d.add(Text{{0, y}, fmt::format("{}", c.number), f.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        std::string text = fmt::format("station {:.0f} to {:.0f} · line {:.0f} mm · {:.0f} cm² · {:.2f} kg", c.box.min.x_mm,
                                       c.box.max.x_mm, sum, c.area_mm2 / 100, c.mass_kg);
        if (!c.never.empty())
            text += " · NEVER: " + joined(c.never);
        else if (!c.brace.empty())
            text += " · brace first: " + joined(c.brace);
        else if (!c.crosses.empty())
            text += " · crosses " + joined(c.crosses);
        text += c.flat ? " · print 1:1" : " · by places";
        d.add(Text{{f.px(28), y}, text, f.body(), c.allowed() ? Ink::Ink : Ink::Bad}, fmt::format("cut:{}", c.number));
        y += f.body() * 1.5;
    }
    return d;
}

} // namespace gorvet::sit
