#include "stretch/spine_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {

using namespace sheet;

namespace {

constexpr double map_px = 235;

/// From above: nose to the left, the right side on top, as every plan view here.
class FromAbove {
public:
    FromAbove(const SpineView& v, double width, double height, const Format& f) : v_(v), f_(f), s_(*v.plan->spine) {
        d_.width = width;
        d_.height = height;
    }

    Drawing draw() {
        const double half = v_.input->left.width_mm / 2, pan = v_.input->spine->pan_width_mm.value_or(300);
        const double reach = s_.overlap_mm + 420;
        const double from = std::max(v_.input->left.front(), s_.cuts[1].first_mm - reach),
                     to = std::min(v_.input->left.rear(), s_.cuts[2].last_mm + reach);
        const double column = f_.px(350);
        to_ = fit(from, to, -half - pan - 30, half + pan + 30, {f_.px(20), f_.px(52)}, d_.width - column - f_.px(40),
                  f_.px(map_px), true);
        d_.add(Text{{0, f_.body()}, "The spine and its pans from above, nose to the left", f_.body(), Ink::Second});
        band(from, to, -half, half, Ink::Chassis, f_.medium());
        band(from, to, half, half + pan, Ink::Second, f_.thin());
        band(from, to, -half - pan, -half, Ink::Second, f_.thin());
        piece(s_.cuts[0], -half, half);
        piece(s_.cuts[1], -half - pan, -half);
        piece(s_.cuts[2], half, half + pan);
        slits(half);
        saddle(half);
        windows();
        diagonals();
        figures({d_.width - column + f_.px(10), f_.px(40)});
        words(f_.px(52) + f_.px(map_px) + f_.px(46));
        return std::move(d_);
    }

private:
    P at(double station, double offset) const { return to_(station, offset); }
    void band(double from, double to, double low, double high, Ink ink, double pen) {
        d_.add(Stroke{{at(from, low), at(to, low), at(to, high), at(from, high)}, true, {ink, pen, Dash::Solid}});
    }
    void piece(const SpineCut& c, double low, double high) {
        const bool out = c.last_mm > c.first_mm + 0.5;
        if (out)
            d_.add(Hatch{{at(c.first_mm, low), at(c.last_mm, low), at(c.last_mm, high), at(c.first_mm, high)},
                         {Ink::Remove, f_.thin(), Dash::Solid},
                         f_.px(6),
                         true},
                   "cut");
        for (const double x : {c.first_mm, c.last_mm})
            d_.add(Stroke{{at(x, low), at(x, high)}, false, {Ink::NewSteel, f_.thick(), Dash::Solid}}, "cut");
        const bool above = low > 0, below = high < 0;
        // the spine's own beneath it, where neither saddle nor window is
        const P to = at(c.first_mm, above ? high : low);
        d_.add(Text{{to.x + f_.px(4), above   ? to.y - f_.px(6)
                                      : below ? to.y + f_.px(16)
                                              : to.y + f_.px(20)},
                    fmt::format("{} {}", c.name, v_.length(c.first_mm)),
                    f_.body(),
                    Ink::Ink,
                    Anchor::Left,
                    Level::Base,
                    Face::Sans,
                    Mark::None,
                    0,
                    true},
               "cut");
    }
    void slits(double half) {
        for (const std::size_t k : {std::size_t{1}, std::size_t{2}}) {
            const double y = k == 1 ? -half : half;
            const double from = std::min(s_.cuts[0].first_mm, s_.cuts[k].first_mm),
                         to = std::max(s_.cuts[0].last_mm, s_.cuts[k].last_mm);
            d_.add(Stroke{{at(from, y), at(to, y)}, false, {Ink::NewSteel, f_.thick(), Dash::Solid}}, "cut");
        }
    }
    void saddle(double half) {
        const double out = half + s_.saddle_wall_mm + 3;
        const double from = s_.cuts[0].first_mm - s_.overlap_mm, to = s_.cuts[0].last_mm + s_.overlap_mm;
        d_.add(
            Stroke{{at(from, -out), at(to, -out), at(to, out), at(from, out)}, true, {Ink::NewSteel, f_.medium(), Dash::Dashed}},
            "sleeve");
    }
    void windows() {
        for (const SpineWindow& w : s_.windows) {
            const double l = w.long_mm / 2, b = w.wide_mm / 2;
            d_.add(Stroke{{at(w.station_mm - l, -b), at(w.station_mm + l, -b), at(w.station_mm + l, b), at(w.station_mm - l, b)},
                          true,
                          {Ink::NewSteel, f_.medium(), Dash::Solid}},
                   "cut");
        }
    }
    void diagonals() {
        const auto& c = v_.corners;
        if (c.size() < 4) return;
        for (const auto& [a, b] : {std::pair{std::size_t{0}, std::size_t{3}}, std::pair{std::size_t{1}, std::size_t{2}}})
            d_.add(Stroke{{at(c[a].second[0], c[a].second[1]), at(c[b].second[0], c[b].second[1])},
                          false,
                          {Ink::Second, f_.thin(), Dash::Dashed}});
        for (const auto& [name, place] : c) {
            d_.add(Circle{at(place[0], place[1]), f_.px(4), {Ink::Ink, f_.thin(), Dash::Solid}, false, true});
            d_.add(Text{{at(place[0], place[1]).x + f_.px(7), at(place[0], place[1]).y - f_.px(5)}, name, f_.small(), Ink::Ink});
        }
    }

    void figures(P place) {
        double y = place.y;
        const auto line = [&](const char* name, const std::string& figure, Mark mark = Mark::Derived) {
            d_.add(Text{{place.x, y}, name, f_.small(), Ink::Second});
            d_.add(Text{{d_.width, y}, figure, f_.body(), Ink::Ink, Anchor::Right, Level::Base, Face::Mono, mark}, "sleeve");
            y += f_.body() * 1.5;
        };
        const Plan& p = *v_.plan;
        line(p.shortens ? "take out" : "put in", v_.length(p.left.length_mm));
        for (const SpineCut& c : s_.cuts)
            line(c.name,
                 p.shortens ? fmt::format("{} to {}", v_.length(c.first_mm), v_.length(c.last_mm)) : v_.length(c.first_mm));
        line("along each flank", v_.length(s_.slit_mm[0]));
        line("saddle, flat", fmt::format("{} × {} × {}", v_.length(s_.saddle_long_mm), v_.length(s_.saddle_blank_mm),
                                         v_.length(s_.saddle_wall_mm)));
        line("strip below", fmt::format("{} × {} × {}", v_.length(s_.saddle_long_mm), v_.length(s_.strip_wide_mm),
                                        v_.length(s_.saddle_wall_mm)));
        line("beside the spine", fmt::format("{:.0f} %", 100 * s_.share));
        line("plug welds, above and below",
             fmt::format("{} of {}, {} fit", s_.plugs_needed, units::fixed(s_.plug_mm, 0), s_.plugs_fit));
        line("their pitch", v_.length(s_.plug_pitch_mm));
        if (s_.pan_plugs > 0) {
            line("strip under a pan", fmt::format("{} × {}", v_.length(s_.pan_strip_long_mm), v_.length(s_.pan_strip_wide_mm)));
            line("its plugs", fmt::format("{} of {} mm", s_.pan_plugs, units::fixed(s_.pan_plug_mm, 0)));
        }
        for (const SpineWindow& w : s_.windows)
            line("window", fmt::format("{} × {} at {}", v_.length(w.long_mm), v_.length(w.wide_mm), v_.length(w.station_mm)));
    }
    void words(double y) {
        const auto lines = [&](const std::string& text) {
            for (const std::string& line : wrapped(text, d_.width - f_.px(370), f_.small())) {
                d_.add(Text{{0, y}, line, f_.small(), Ink::Ink});
                y += f_.small() * 1.35;
            }
        };
        if (!s_.inside.empty()) {
            std::string list;
            for (const std::string& i : s_.inside) list += (list.empty() ? "" : ", ") + i;
            lines(
                "Inside the spine: " + list +
                ". Apart through the windows before the saw, together again when all is cold; the covers are screwed on with sealer, not welded.");
        }
        lines(
            "The left pan is cut ahead of the spine, the right one behind it, and each is slit along the spine between the two: no weld line runs through.");
        d_.height = std::max(d_.height, y + f_.px(8));
    }

    const SpineView& v_;
    const Format& f_;
    const SpinePlan& s_;
    Drawing d_;
    Projection to_;
};

constexpr double line_mm = 0.35;

} // namespace

Drawing spineSheet(const SpineView& v, double width, double height, const Format& f) {
    return FromAbove(v, width, height, f).draw();
}

std::vector<P> saddleHoles(const SpinePlan& s) {
    std::vector<P> holes;
    const double edge = 2 * s.plug_mm;
    const int per_side = s.plugs_needed;
    const double across = s.saddle_wide_mm - 4 * s.saddle_wall_mm - 1.5 * s.plug_mm;
    const int rows = across < 0 ? 0 : 1 + static_cast<int>(std::floor(across / s.plug_pitch_mm + 1e-9));
    for (const bool front : {true, false})
        for (int k = 0; rows > 0 && k < per_side; ++k) {
            const double along = edge + (k / rows) * s.plug_pitch_mm;
            if (along > s.overlap_mm - edge + 1e-9) break;
            const double side = (k % rows - (rows - 1) / 2.0) * s.plug_pitch_mm;
            holes.push_back({front ? along : s.saddle_long_mm - along, side});
        }
    return holes;
}

Drawing saddlePattern(const SpinePlan& s) {
    Drawing d;
    d.width = s.saddle_long_mm;
    d.height = s.saddle_blank_mm;
    const double l = s.saddle_long_mm, b = s.saddle_blank_mm;
    d.add(Stroke{{{0, 0}, {l, 0}, {l, b}, {0, b}}, true, {Ink::Ink, line_mm, Dash::Solid}}, "outline");
    const double flat = s.saddle_wide_mm - 2 * s.saddle_wall_mm;
    for (const double side : {-1.0, 1.0}) {
        const double bend = (b - flat) / 2 - (s.saddle_high_mm - s.saddle_wall_mm); // length of one bend
        const double y = b / 2 + side * (flat / 2 + bend / 2);
        d.add(Stroke{{{0, y}, {l, y}}, false, {Ink::Second, line_mm, Dash::Dashed}}, "bend");
    }
    for (const P& hole : saddleHoles(s))
        d.add(Circle{{hole.x, b / 2 + hole.y}, s.plug_mm / 2, {Ink::Ink, line_mm, Dash::Solid}}, "hole");
    return d;
}

Drawing coverPattern(const SpineWindow& w) {
    Drawing d;
    d.width = w.cover_long_mm;
    d.height = w.cover_wide_mm;
    d.add(Stroke{{{0, 0}, {d.width, 0}, {d.width, d.height}, {0, d.height}}, true, {Ink::Ink, line_mm, Dash::Solid}}, "outline");
    // screws along the middle of the lap, evenly round it
    const double in = (w.cover_long_mm - w.long_mm) / 4, a = d.width - 2 * in, b = d.height - 2 * in, round = 2 * (a + b);
    constexpr double screw_mm = 4.2;
    for (int k = 0; k < w.screws; ++k) {
        double along = round * k / w.screws;
        P p{in, in};
        if (along < a)
            p = {in + along, in};
        else if ((along -= a) < b)
            p = {in + a, in + along};
        else if ((along -= b) < a)
            p = {in + a - along, in + b};
        else
            p = {in, in + b - (along - a)};
        d.add(Circle{p, screw_mm / 2, {Ink::Ink, line_mm, Dash::Solid}}, "hole");
    }
    return d;
}

} // namespace gorvet::stretch
