#include "sit/way_sheet.hpp"

#include "sheet/page.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::sit {

using namespace sheet;

namespace {

constexpr double way_row_px = 22;
constexpr double way_head_px = 26;
constexpr double profile_px = 150;

std::string tiltWords(double rad) {
    if (std::abs(rad) < 1e-6) return "level";
    return fmt::format("{:.1f}° nose {}", std::abs(rad) * 180 / std::numbers::pi, rad > 0 ? "up" : "down");
}

/// How much lift each part asks for, and what hanging it otherwise would do.
double drawLifts(Drawing& d, const WayView& v, double x, double y, double width, const Format& f) {
    const bool from_behind = v.in->from_behind.lift_mm <= v.in->from_front.lift_mm;
    const Lift& less = from_behind ? v.in->from_behind : v.in->from_front;
    const Lift& more = from_behind ? v.in->from_front : v.in->from_behind;
    struct Row {
        std::string name, figure;
        double mm;
        bool strong;
    };
    std::vector<Row> rows;
    for (const auto& [part, mm] : less.by_part) rows.push_back({"for the " + part, v.length(mm), mm, rows.empty()});
    rows.push_back(
        {fmt::format("all, from {}", from_behind ? "the front" : "behind"), v.length(more.lift_mm), more.lift_mm, false});
    if (v.in->tilt_rad != 0)
        rows.push_back(
            {fmt::format("hung {}", tiltWords(v.in->tilt_rad)), v.length(v.in->tilted.lift_mm), v.in->tilted.lift_mm, false});
    d.add(Text{{x, y + f.small()},
               fmt::format("above its seat, rolled in from {}, air included", from_behind ? "behind" : "the front"),
               f.small(),
               Ink::Second});
    y += f.px(way_head_px);
    double most = 1;
    for (const Row& r : rows) most = std::max(most, r.mm);
    double name_width = 0, figure_width = 0;
    for (const Row& r : rows) {
        const Face face = r.strong ? Face::Bold : Face::Sans;
        name_width = std::max(name_width, textWidth(r.name, f.small(), face));
        figure_width = std::max(figure_width, textWidth(r.figure, f.small(), face));
    }
    const double bar_at = x + name_width + f.px(12), bar_width = std::max(f.px(40), width - name_width - figure_width - f.px(30));
    for (const Row& r : rows) {
        const double base = y + f.px(way_row_px) * 0.7;
        d.add(Text{{x, base}, r.name, f.small(), Ink::Ink, Anchor::Left, Level::Base, r.strong ? Face::Bold : Face::Sans});
        const double end = bar_at + bar_width * r.mm / most;
        d.add(Stroke{{{bar_at, base - f.px(4)}, {end, base - f.px(4)}},
                     false,
                     {Ink::Ink, r.strong ? f.thick() : f.medium(), Dash::Solid}});
        for (const double at : {bar_at, end})
            d.add(Stroke{{{at, base - f.px(9)}, {at, base + f.px(1)}}, false, {Ink::Ink, f.thin(), Dash::Solid}});
        d.add(Text{{x + width, base},
                   r.figure,
                   f.small(),
                   Ink::Ink,
                   Anchor::Right,
                   Level::Base,
                   r.strong ? Face::Bold : Face::Sans,
                   Mark::Derived});
        y += f.px(way_row_px);
    }
    return y;
}

/// The nearest distance over the way, from hanging (left) to the seat.
double drawProfile(Drawing& d, const WayView& v, double x, double y, double width, const Format& f) {
    const bool found = v.down->found;
    const std::vector<DownStep>& steps = found ? v.down->steps : v.down->tried;
    const std::vector<size_t> corners = found ? v.down->corners : std::vector<size_t>{0, steps.size() - 1};
    d.add(Text{{x, y + f.small()},
               found ? "how near it passes, from hanging to its seat" : "how near it comes straight down; at 0 it touches",
               f.small(),
               Ink::Second});
    y += f.px(way_head_px);
    const double height = f.px(profile_px), base = y + height, left = x + f.px(30);
    double far = 0;
    for (const DownStep& s : steps) far = std::max(far, s.far ? s.least_mm : 0.0);
    const double top_mm = std::max({far, 2 * v.tight_below_mm, 60.0});
    // along the way by how far it has come
    std::vector<double> come{0};
    for (size_t k = 1; k < steps.size(); ++k) {
        const Hang &a = steps[k - 1].at, &b = steps[k].at;
        come.push_back(come.back() + std::hypot(b.up_mm - a.up_mm, b.back_mm - a.back_mm) +
                       500 * std::abs(b.tilt_rad - a.tilt_rad));
    }
    const double all = std::max(1.0, come.back());
    const auto px = [&](size_t k) { return left + (x + width - left) * come[k] / all; };
    const auto py = [&](double mm) { return base - height * std::clamp(mm, 0.0, top_mm) / top_mm; };
    const auto band = [&](double from, double to, Ink ink, bool crossed) {
        d.add(Hatch{{{left, py(from)}, {x + width, py(from)}, {x + width, py(to)}, {left, py(to)}},
                    {ink, f.thin(), Dash::Solid},
                    f.px(6),
                    crossed});
    };
    band(0, v.fouls_below_mm, Ink::Bad, true);
    band(v.fouls_below_mm, v.tight_below_mm, Ink::Warn, false);
    for (const double mm : {0.0, v.fouls_below_mm, v.tight_below_mm, top_mm}) {
        d.add(Stroke{{{left - f.px(4), py(mm)}, {left, py(mm)}}, false, {Ink::Ink, f.thin(), Dash::Solid}});
        d.add(
            Text{{left - f.px(6), py(mm) + f.small() * 0.35}, fmt::format("{:.0f}", mm), f.small(), Ink::Second, Anchor::Right});
    }
    d.add(Stroke{{{left, base}, {x + width, base}}, false, {Ink::Ink, f.thin(), Dash::Solid}});
    d.add(Stroke{{{left, y}, {left, base}}, false, {Ink::Ink, f.thin(), Dash::Solid}});
    std::vector<P> line;
    for (size_t k = 0; k < steps.size(); ++k) line.push_back({px(k), py(steps[k].far ? top_mm : steps[k].least_mm)});
    d.add(Stroke{line, false, {Ink::Ink, f.medium(), Dash::Solid}});
    for (size_t i = 0; i < corners.size(); ++i) {
        const size_t k = corners[i];
        d.add(Stroke{{{px(k), y}, {px(k), base + f.px(4)}}, false, {Ink::Second, f.thin(), Dash::Dashed}});
        d.add(Text{{px(k), base + f.px(4) + f.small()},
                   i + 1 == corners.size() ? "0" : v.length(steps[k].at.up_mm),
                   f.small(),
                   Ink::Second,
                   i == 0                    ? Anchor::Left
                   : i + 1 == corners.size() ? Anchor::Right
                                             : Anchor::Centre});
        if (i + 1 < corners.size() && corners.size() > 2)
            d.add(Text{{(px(k) + px(corners[i + 1])) / 2, y + f.small()},
                       std::to_string(i + 1),
                       f.small(),
                       Ink::Second,
                       Anchor::Centre,
                       Level::Base,
                       Face::Bold});
    }
    if (found && !steps[v.down->tightest].far) {
        const DownStep& t = steps[v.down->tightest];
        const P at{px(v.down->tightest), py(t.least_mm)};
        d.add(Circle{at,
                     f.px(4),
                     {t.least_mm < v.fouls_below_mm   ? Ink::Bad
                      : t.least_mm < v.tight_below_mm ? Ink::Warn
                                                      : Ink::Good,
                      f.medium(), Dash::Solid}});
        const bool at_right = at.x > x + width * 0.6;
        // above the line, wherever that goes beside the mark
        const std::string figure = v.near(t.least_mm);
        const double wide = textWidth(figure, f.body(), Face::Bold) + f.px(12);
        double clear = at.y;
        for (size_t k = 1; k < line.size(); ++k) {
            const double from = at_right ? at.x - wide : at.x, to = at_right ? at.x : at.x + wide;
            if (line[k].x < from || line[k - 1].x > to) continue;
            for (const double edge : {std::clamp(from, line[k - 1].x, line[k].x), std::clamp(to, line[k - 1].x, line[k].x)})
                clear = std::min(clear,
                                 line[k].x > line[k - 1].x
                                     ? std::lerp(line[k - 1].y, line[k].y, (edge - line[k - 1].x) / (line[k].x - line[k - 1].x))
                                     : line[k].y);
        }
        d.add(Text{{at.x + (at_right ? -f.px(8) : f.px(8)), clear - f.px(7)},
                   figure,
                   f.body(),
                   Ink::Ink,
                   at_right ? Anchor::Right : Anchor::Left,
                   Level::Base,
                   Face::Bold,
                   Mark::Derived});
    }
    return base + f.px(8) + f.small() * 1.4;
}

} // namespace

std::vector<std::string> moves(const WayDown& w, const std::function<std::string(double mm)>& length,
                               const std::function<std::string(double mm)>& near_length) {
    std::vector<std::string> list;
    if (w.corners.empty()) return list;
    if (const Hang& from = w.steps.front().at; std::abs(from.back_mm) >= 0.5 || std::abs(from.tilt_rad) > 1e-6)
        list.push_back(fmt::format("Hung {} above its seat{}, {}.", length(from.up_mm),
                                   std::abs(from.back_mm) < 0.5 ? ""
                                                                : fmt::format(", {} {}", length(std::abs(from.back_mm)),
                                                                              from.back_mm > 0 ? "rearward" : "forward"),
                                   tiltWords(from.tilt_rad)));
    for (size_t k = 1; k < w.corners.size(); ++k) {
        const Hang &a = w.steps[w.corners[k - 1]].at, &b = w.steps[w.corners[k]].at;
        std::vector<std::string> parts;
        if (std::abs(a.up_mm - b.up_mm) >= 0.5)
            parts.push_back(fmt::format("{} {}, to {}", a.up_mm > b.up_mm ? "down" : "up", length(std::abs(a.up_mm - b.up_mm)),
                                        b.up_mm < 0.5 ? "the height of its seat" : length(b.up_mm) + " above its seat"));
        if (std::abs(a.back_mm - b.back_mm) >= 0.5)
            parts.push_back(
                fmt::format("{} {}", b.back_mm > a.back_mm ? "rearward" : "forward", length(std::abs(a.back_mm - b.back_mm))));
        if (std::abs(a.tilt_rad - b.tilt_rad) > 1e-6) parts.push_back("till it hangs " + tiltWords(b.tilt_rad));
        double near = 1e9;
        size_t where = w.corners[k - 1];
        for (size_t i = w.corners[k - 1]; i < w.corners[k]; ++i)
            if (w.steps[i].least_mm < near) near = w.steps[where = i].least_mm;
        const DownStep& s = w.steps[where];
        list.push_back(fmt::format("{}. {}: {}", k, fmt::join(parts, ", "),
                                   s.far ? fmt::format("nowhere nearer than {}", length(near))
                                         : fmt::format("{} from {} to {}, at station {:.0f}, {:.0f} {}", near_length(near),
                                                       s.body_part, s.chassis_part, s.where[0], std::abs(s.where[1]),
                                                       s.where[1] < 0 ? "left" : "right")));
    }
    return list;
}

double wayHeight(const WayView& v, double width, const Format& f) { return waySheet(v, width, 0, f).height; }

Drawing waySheet(const WayView& v, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    const double gap = f.px(36), half = (width - gap) * 0.44;
    double y = drawLifts(d, v, 0, 0, half, f);
    if (v.down->found || v.down->tried.size() > 1) y = std::max(y, drawProfile(d, v, half + gap, 0, width - half - gap, f));
    y += f.px(6);
    const auto say = [&](const std::string& text, Ink ink, Face face = Face::Sans) {
        for (const std::string& line : wrapped(text, width - f.px(10), f.small())) {
            y += f.small() * 1.5;
            d.add(Text{{0, y}, line, f.small(), ink, Anchor::Left, Level::Base, face});
        }
    };
    if (v.down->found) {
        for (const std::string& m : moves(*v.down, v.length, v.near)) say(m, Ink::Ink);
    } else {
        say(v.down->none, Ink::Bad, Face::Bold);
    }
    for (const WayDown::InTheWay& i : v.down->in_the_way) {
        std::string text = fmt::format("Straight down the {} touches the {} up to {} above its seat, at station {:.0f}",
                                       i.body_part, i.chassis_part, v.length(i.up_mm), i.where[0]);
        text += i.take_off.empty() ? ": " : fmt::format(": take the {} off first, or ", i.take_off);
        text += fmt::format("cut about {:.0f} cm² more, station {:.0f} to {:.0f}, height {:.0f} to {:.0f}.", i.more_mm2 / 100,
                            i.box.min.x_mm, i.box.max.x_mm, i.box.min.z_mm, i.box.max.z_mm);
        say(text, Ink::Warn);
    }
    for (const std::string& r : v.remarks) say(r, Ink::Second);
    d.height = std::max(height, y + f.px(8));
    return d;
}

} // namespace gorvet::sit
