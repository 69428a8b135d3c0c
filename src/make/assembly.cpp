#include "make/assembly.hpp"

#include "shape/hidden_lines.hpp"
#include "sheet/plan_words.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::make {

using namespace sheet;
using geometry::Box3;
using geometry::dot;
using geometry::plus;
using geometry::times;

namespace {

constexpr double first_step_mm = 140, step_mm = 90, clear_mm = 15, beside_mm = 60;
constexpr int most_steps = 12;
constexpr double names_px = 260, assembly_number_px = 11;

Box3 moved(const Box3& b, const Vec3& by) { return {plus(b.min, by), plus(b.max, by)}; }
Box3 boxOfItem(const AssemblyItem& item) {
    Box3 all;
    for (const shape::Mesh& m : item.pieces) {
        const Box3 b = boxOfMesh(m);
        all.take(b.min);
        all.take(b.max);
    }
    return all;
}
Vec3 middleOf(const Box3& b) { return times(plus(b.min, b.max), 0.5); }

} // namespace

Box3 boxOfMesh(const shape::Mesh& m) {
    Box3 b;
    for (const auto& p : m.points) b.take(Vec3(p));
    return b;
}

std::vector<Vec3> drawnAway(const AssemblyView& v) {
    const Box3 frame = boxOfMesh(v.frame);
    const bool has_frame = !v.frame.points.empty();
    const Vec3 centre = has_frame ? middleOf(frame) : Vec3{};
    std::vector<Box3> standing;
    if (has_frame) standing.push_back(frame);
    std::vector<Vec3> all;
    for (const AssemblyItem& item : v.items) {
        const Box3 own = boxOfItem(item);
        const Vec3 at = middleOf(own);
        const double aside = at.y_mm - centre.y_mm, over = at.z_mm - centre.z_mm;
        // what reaches across the frame goes up or down; what is beside, outwards
        const bool across = own.min.y_mm < centre.y_mm - beside_mm && own.max.y_mm > centre.y_mm + beside_mm;
        const Vec3 way =
            !across && std::abs(aside) > beside_mm ? Vec3{0, aside > 0 ? 1.0 : -1.0, 0.25} : Vec3{0, 0, over < 0 ? -1.0 : 1.0};
        Vec3 best{};
        for (int k = 0; k < most_steps; ++k) {
            const Vec3 by = times(way, first_step_mm + k * step_mm);
            Box3 there = moved(own, by);
            there.min = plus(there.min, {-clear_mm, -clear_mm, -clear_mm});
            there.max = plus(there.max, {clear_mm, clear_mm, clear_mm});
            if (std::any_of(standing.begin(), standing.end(), [&](const Box3& b) { return b.meets(there); })) continue;
            best = by;
            break;
        }
        standing.push_back(moved(own, best));
        all.push_back(best);
    }
    return all;
}

Drawing assemblySheet(const AssemblyView& v, double width, double height, const Format& f, int fine) {
    Drawing d{width, height, {}, {}};
    if (v.items.empty()) return d;
    const std::vector<Vec3> away = drawnAway(v);
    const shape::ViewAxes axes = shape::ViewAxes::from(0.65, 0.5);
    std::vector<shape::LinePart> parts{{&v.frame, {}, false}};
    std::vector<std::size_t> item_of{0};
    for (std::size_t k = 0; k < v.items.size(); ++k)
        for (const shape::Mesh& m : v.items[k].pieces) {
            shape::LinePart part{&m, {}, false};
            part.pose.translation = away[k];
            parts.push_back(part);
            item_of.push_back(k + 1);
        }
    shape::LineOptions options;
    options.across_px = fine;
    options.shortest_px = 3;
    const auto lines = shape::scribedLines(parts, axes, options);
    double least[2] = {1e18, 1e18}, most[2] = {-1e18, -1e18};
    for (const shape::ScribedLine& l : lines)
        for (const auto& q : l.path)
            for (std::size_t a = 0; a < 2; ++a) {
                least[a] = std::min(least[a], q[a]);
                most[a] = std::max(most[a], q[a]);
            }
    if (least[0] >= most[0]) return d;
    const Projection to =
        fit(least[0], most[0], least[1], most[1], {f.px(16), f.px(16)}, width - f.px(names_px + 40), height - f.px(32), true);
    for (const shape::ScribedLine& l : lines) {
        const std::size_t item = item_of[l.part];
        Stroke s{{}, false, {item ? Ink::NewSteel : Ink::Chassis, 1.4 * f.thin(), Dash::Solid}};
        for (const auto& q : l.path) s.path.push_back(to(q[0], q[1]));
        d.add(std::move(s), item ? v.items[item - 1].tag : "");
    }
    const auto flat = [&](const Vec3& p) { return to(dot(p, axes.right), dot(p, axes.up)); };
    const double left = width - f.px(names_px);
    double y = f.lead();
    d.add(Text{{left, y}, "in the order it is made", f.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
    std::vector<P> taken;
    for (std::size_t k = 0; k < v.items.size(); ++k) {
        const AssemblyItem& item = v.items[k];
        const Vec3 home = middleOf(boxOfItem(item));
        const P there = flat(plus(home, away[k])), back = flat(home);
        d.add(Stroke{{there, back}, false, {Ink::Second, f.thin(), Dash::Dotted}}, item.tag);
        P at = there;
        const double apart = f.px(2 * assembly_number_px + 2);
        for (int n = 1; n < 60 && std::any_of(taken.begin(), taken.end(),
                                              [&](const P& p) { return std::hypot(p.x - at.x, p.y - at.y) < apart; });
             ++n)
            at = {there.x + apart * 0.7 * std::sqrt(n) * std::cos(2.4 * n),
                  there.y + apart * 0.7 * std::sqrt(n) * std::sin(2.4 * n)};
        taken.push_back(at);
        if (at != there) d.add(Stroke{{there, at}, false, {Ink::Second, f.thin(), Dash::Solid}}, item.tag);
        d.add(Circle{at, f.px(assembly_number_px), {Ink::NewSteel, f.medium(), Dash::Solid}, false, true}, item.tag);
        d.add(Text{at, std::to_string(k + 1), f.small(), Ink::Ink, Anchor::Centre, Level::Middle}, item.tag);
        y += f.px(22);
        d.add(Text{{left, y}, fmt::format("{}", k + 1), f.body(), Ink::Second}, item.tag);
        d.add(Text{{left + f.px(26), y}, item.name, f.body(), Ink::Ink}, item.tag);
        y += f.px(16);
        for (const std::string& line : wrapped(item.how, f.px(names_px - 26), f.small())) {
            d.add(Text{{left + f.px(26), y}, line, f.small(), Ink::Second}, item.tag);
            y += f.px(15);
        }
        y -= f.px(12);
    }
    d.height = std::max(height, y + f.px(16));
    return d;
}

} // namespace gorvet::make
