#include "frame/plates.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::frame {

using namespace sheet;

namespace {

constexpr double weld_leg_mm = 3; ///< the plate stands back so far from each face
constexpr double drain_mm = 12;
constexpr double from_end_mm = 30; ///< of the first hole behind the point
constexpr double pitch_mm = 500;   ///< at the most between holes
constexpr double over_edge_mm = 15;
constexpr double window_corner = 0.25; ///< radius of a window's corners, of its lesser side

/// Corners from the front point, counted over the top.
std::vector<P> outline(const ClosingPlate& p) {
    const double h = p.height_mm, l = p.length_mm, t = p.point_mm, c = p.corner_mm;
    if (c > 0) return {{0, c}, {c, 0}, {l - c, 0}, {l, c}, {l, h - c}, {l - c, h}, {c, h}, {0, h - c}};
    return {{0, h / 2}, {t, 0}, {l - t, 0}, {l, h / 2}, {l - t, h}, {t, h}};
}

/// A window with round corners about a middle.
std::vector<P> windowAt(const ClosingPlate& p, double middle) {
    const double a = p.windows.long_mm / 2, b = p.windows.high_mm / 2, r = 2 * window_corner * std::min(a, b);
    const P corners[] = {{a - r, b - r}, {-a + r, b - r}, {-a + r, -b + r}, {a - r, -b + r}};
    std::vector<P> shape;
    constexpr int steps = 8;
    for (int k = 0; k < 4; ++k)
        for (int i = 0; i <= steps; ++i) {
            const double angle = (k + static_cast<double>(i) / steps) * std::numbers::pi / 2;
            shape.push_back({middle + corners[k].x + r * std::cos(angle), p.height_mm / 2 + corners[k].y + r * std::sin(angle)});
        }
    return shape;
}

/// As many windows as leave both ends whole; water's holes on the posts between them.
void cutWindows(ClosingPlate& p, const Windows& w, double first, double last) {
    if (!(w.long_mm > 0) || w.high_mm >= p.height_mm || last - first < w.long_mm + 2 * from_end_mm) return;
    p.windows = w;
    const double room = last - first - w.long_mm - 2 * from_end_mm;
    const int n = 1 + static_cast<int>(std::floor(room / w.pitch_mm + 1e-9));
    const double start = (first + last - (n - 1) * w.pitch_mm) / 2;
    for (int k = 0; k < n; ++k) p.windows_mm.push_back(start + k * w.pitch_mm);
    for (std::size_t k = 1; k + 1 < p.holes_mm.size(); ++k) {
        const double post = std::clamp(std::round((p.holes_mm[k] - start) / w.pitch_mm - 0.5), 0.0, std::max(0.0, n - 2.0));
        if (n > 1) p.holes_mm[k] = start + (post + 0.5) * w.pitch_mm;
    }
    p.holes_mm.erase(std::unique(p.holes_mm.begin(), p.holes_mm.end()), p.holes_mm.end());
}

} // namespace

ClosingPlate ribPlate(std::string name, double height, double width, double wall, double thickness, int count) {
    ClosingPlate p;
    p.name = std::move(name);
    p.count = count;
    p.length_mm = std::max(1.0, width - wall);
    p.height_mm = std::max(1.0, height - 2 * wall);
    p.thickness_mm = thickness;
    constexpr double least_corner = 10;
    p.corner_mm = std::min({std::max(least_corner, 2 * wall), p.length_mm / 3, p.height_mm / 3});
    return p;
}

ClosingPlate closingPlate(std::string name, double length, double rail_height, double thickness, int count, const Windows& w) {
    ClosingPlate p;
    p.name = std::move(name);
    p.count = count;
    p.length_mm = length;
    p.height_mm = std::max(1.0, rail_height - 2 * weld_leg_mm);
    p.thickness_mm = thickness;
    p.point_mm = std::min(p.height_mm / 2, length / 4);
    p.hole_mm = drain_mm;
    p.hole_up_mm = std::min(over_edge_mm, p.height_mm / 3);
    const double first = p.point_mm + from_end_mm, last = length - p.point_mm - from_end_mm;
    if (last <= first) {
        p.holes_mm = {length / 2};
        return p;
    }
    const int gaps = std::max(1, static_cast<int>(std::ceil((last - first) / pitch_mm)));
    for (int k = 0; k <= gaps; ++k) p.holes_mm.push_back(first + (last - first) * k / gaps);
    cutWindows(p, w, first, last);
    return p;
}

Drawing platePattern(const ClosingPlate& p) {
    Drawing d;
    d.width = p.length_mm;
    d.height = p.height_mm;
    d.add(Stroke{outline(p), true, {Ink::Ink, 0.35, Dash::Solid}}, "outline");
    for (const double x : p.holes_mm)
        d.add(Circle{{x, p.height_mm - p.hole_up_mm}, p.hole_mm / 2, {Ink::Ink, 0.35, Dash::Solid}}, "hole");
    for (const double x : p.windows_mm) d.add(Stroke{windowAt(p, x), true, {Ink::Ink, 0.35, Dash::Solid}}, "window");
    return d;
}

Drawing platesSheet(const std::vector<ClosingPlate>& all, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    double longest = 1;
    for (const ClosingPlate& p : all) longest = std::max(longest, p.length_mm);
    const double scale = (width - f.px(120)) / longest;
    double y = f.px(4);
    for (const ClosingPlate& p : all) {
        const std::string tag = "member:" + p.name;
        d.add(Text{{0, y + f.body()},
                   fmt::format("{}: {} of {:g} mm, {:.1f} long, {:.0f} high", p.name, p.count, p.thickness_mm, p.length_mm,
                               p.height_mm),
                   f.body(),
                   Ink::Ink,
                   Anchor::Left,
                   Level::Base,
                   Face::Bold},
              tag);
        y += f.body() + f.px(34);
        std::vector<P> shape = outline(p);
        for (P& at : shape) at = {f.px(40) + at.x * scale, y + at.y * scale};
        d.add(Stroke{shape, true, {Ink::NewSteel, f.medium(), Dash::Solid}}, tag);
        for (const double x : p.holes_mm)
            d.add(Circle{{f.px(40) + x * scale, y + (p.height_mm - p.hole_up_mm) * scale},
                         p.hole_mm / 2 * scale,
                         {Ink::NewSteel, f.thin(), Dash::Solid}},
                  tag);
        const P right = *std::max_element(shape.begin(), shape.end(), [](const P& a, const P& b) { return a.x < b.x; });
        for (const double x : p.windows_mm) {
            std::vector<P> window = windowAt(p, x);
            for (P& at : window) at = {f.px(40) + at.x * scale, y + at.y * scale};
            d.add(Stroke{window, true, {Ink::NewSteel, f.thin(), Dash::Solid}}, tag);
        }
        d.add(Dimension{
            shape[0], {right.x, shape[0].y}, f.px(22) + p.height_mm * scale / 2, fmt::format("{:.1f}", p.length_mm), f.small()});
        d.add(Dimension{
            {right.x, y + p.height_mm * scale}, {right.x, y}, -f.px(18), fmt::format("{:.0f}", p.height_mm), f.small()});
        y += p.height_mm * scale + f.small() * 1.5;
        if (p.corner_mm > 0) {
            d.add(Text{{f.px(40), y},
                       fmt::format("corners {:g} off: water runs past, and the rail's bend has room.", p.corner_mm),
                       f.small(),
                       Ink::Second},
                  tag);
            y += f.px(26);
            continue;
        }
        if (!p.windows_mm.empty()) {
            d.add(Text{{f.px(40), y},
                       fmt::format("{} windows {:g} × {:g}, corners round by {:g}, one every {:g}, middles from the front point: "
                                   "{:.1f} to {:.1f}.",
                                   p.windows_mm.size(), p.windows.long_mm, p.windows.high_mm,
                                   window_corner * std::min(p.windows.long_mm, p.windows.high_mm), p.windows.pitch_mm,
                                   p.windows_mm.front(), p.windows_mm.back()),
                       f.small(),
                       Ink::Second},
                  tag);
            y += f.small() * 1.4;
        }
        std::string holes;
        for (const double x : p.holes_mm) holes += fmt::format("{}{:.0f}", holes.empty() ? "" : ", ", x);
        d.add(Text{{f.px(40), y},
                   fmt::format(
                       "holes {:g} for water and wax, {:.0f} over the lower edge, from the front point: {}. Points {:.0f} long.",
                       p.hole_mm, p.hole_up_mm, holes, p.point_mm),
                   f.small(),
                   Ink::Second},
              tag);
        y += f.px(26);
    }
    d.height = std::max(height, y);
    return d;
}

} // namespace gorvet::frame
