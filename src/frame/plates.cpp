#include "frame/plates.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::frame {

using namespace sheet;

namespace {

constexpr double weld_leg_mm = 3; ///< the plate stands back so far from each face
constexpr double drain_mm = 12;
constexpr double from_end_mm = 30; ///< of the first hole behind the point
constexpr double pitch_mm = 500;   ///< at the most between holes
constexpr double over_edge_mm = 15;

/// Corners from the front point, counted over the top.
std::vector<P> outline(const ClosingPlate& p) {
    const double h = p.height_mm, l = p.length_mm, t = p.point_mm;
    return {{0, h / 2}, {t, 0}, {l - t, 0}, {l, h / 2}, {l - t, h}, {t, h}};
}

} // namespace

ClosingPlate closingPlate(std::string name, double length, double rail_height, double thickness, int count) {
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
    return p;
}

Drawing platePattern(const ClosingPlate& p) {
    Drawing d;
    d.width = p.length_mm;
    d.height = p.height_mm;
    d.add(Stroke{outline(p), true, {Ink::Ink, 0.35, Dash::Solid}}, "outline");
    for (const double x : p.holes_mm)
        d.add(Circle{{x, p.height_mm - p.hole_up_mm}, p.hole_mm / 2, {Ink::Ink, 0.35, Dash::Solid}}, "hole");
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
        d.add(Dimension{shape[0],
                        {shape[3].x, shape[0].y},
                        f.px(22) + p.height_mm * scale / 2,
                        fmt::format("{:.1f}", p.length_mm),
                        f.small()});
        d.add(Dimension{
            {shape[3].x, shape[4].y}, {shape[3].x, shape[1].y}, -f.px(18), fmt::format("{:.0f}", p.height_mm), f.small()});
        y += p.height_mm * scale + f.small() * 1.5;
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
