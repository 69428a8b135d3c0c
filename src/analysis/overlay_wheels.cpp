// Tyres that nobody scanned, drawn from what is said of the wheels: so that Scan and Sit know them at full bump and lock as Drive
// does.
#include "analysis/overlay_parts.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

std::vector<DrawnWheel> drawnWheels(const Build& b, const Results& r) {
    std::vector<DrawnWheel> all;
    // whoever scanned a wheel has it as it is
    if (std::any_of(b.scans.begin(), b.scans.end(), [](const auto& row) { return row.second.part == ScanPart::Wheel; }))
        return all;
    for (const auto& node : r.wheels) {
        const drive::WheelsIn& in = node.input();
        if (!in.fitted || !in.shown() || std::find(in.assumed.begin(), in.assumed.end(), "the track") != in.assumed.end())
            continue;
        const drive::WheelFigures fitted = drive::figuresOf(*in.fitted), shown = drive::figuresOf(*in.shown());
        if (!fitted.offset_mm || !shown.offset_mm || !shown.outside_mm || !shown.section_mm) continue;
        const double out =
            fitted.offset_mm->value - shown.offset_mm->value + (in.wanted && in.adaptor ? in.adaptor->thick.value : 0);
        for (const drive::Corner& c : in.corners) {
            Vec3 at = in.places.at[c.centre];
            at.y_mm += c.right ? out : -out;
            all.push_back({fmt::format("{} {} tyre, {}", in.name, c.name, word(in.shown()->as)), at,
                           drive::tyreShape(0, shown.section_mm->value, shown.outside_mm->value, shown.diameter_mm.value),
                           shown.diameter_mm.value / 2});
        }
    }
    return all;
}

shape::Mesh tyreMesh(const DrawnWheel& w) {
    constexpr int around = 96, shoulder = 6;
    // the section, anticlockwise from the inner bead: across the seats, up, over both shoulders, down
    std::vector<std::pair<double, double>> section{{-w.tyre.half_mm, w.seat_mm}, {w.tyre.half_mm, w.seat_mm}};
    const double x = w.tyre.half_mm - w.tyre.round_mm, y = w.tyre.radius_mm - w.tyre.round_mm;
    for (const double side : {1.0, -1.0})
        for (int k = 0; k <= shoulder; ++k) {
            const double a = std::numbers::pi / 2 * (side > 0 ? k : shoulder - k) / shoulder;
            section.emplace_back(side * (x + w.tyre.round_mm * std::cos(a)), y + w.tyre.round_mm * std::sin(a));
        }
    // flat pieces that touch the tyre from outside: nothing is drawn smaller than it is
    const double wider = 1 / std::cos(std::numbers::pi / around);
    shape::Mesh m;
    const auto n = static_cast<std::uint32_t>(section.size());
    for (int k = 0; k < around; ++k) {
        const double a = 2 * std::numbers::pi * k / around;
        for (const auto& [out, from] : section)
            m.points.push_back(
                {w.centre.x_mm + wider * from * std::cos(a), w.centre.y_mm + out, w.centre.z_mm + wider * from * std::sin(a)});
    }
    for (std::uint32_t k = 0; k < around; ++k)
        for (std::uint32_t i = 0; i < n; ++i) {
            const std::uint32_t a = k * n + i, b = k * n + (i + 1) % n, next = (k + 1) % around;
            const std::uint32_t c = next * n + (i + 1) % n, d = next * n + i;
            m.triangles.push_back({a, c, b});
            m.triangles.push_back({a, d, c});
        }
    return m;
}

} // namespace gorvet::analysis
