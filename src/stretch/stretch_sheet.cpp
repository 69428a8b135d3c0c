#include "stretch/stretch_sheet.hpp"

#include "sheet/page.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {

using namespace sheet;

namespace {

class Drafter {
public:
    Drafter(const StretchView& v, double width, double height, const Format& f) : v_(v), f_(f) {
        d_.width = width;
        d_.height = height;
    }

    Drawing draw() {
        const Input& in = *v_.input;
        const Plan& p = *v_.plan;
        const build::RailLine& rail = in.left.points.size() > 1 ? in.left : in.right;
        if (rail.points.size() < 2) return d_;
        const double column = f_.px(300);
        const double w = d_.width - column - f_.px(60);
        // the part of the rail round the cut; the whole rail while no cut is chosen
        double from = rail.front();
        double to = rail.rear();
        if (in.cut_station_mm) {
            const double reach = std::max(700.0, 2.5 * p.clearance_need_mm);
            const RailCut& cut = p.left.known ? p.left : p.right;
            const double last = cut.known ? cut.last_station_mm : *in.cut_station_mm;
            from = std::max(from, *in.cut_station_mm - reach);
            to = std::min(to, last + reach);
        }
        const double height = rail.height_mm > 0 ? rail.height_mm : 80;
        double low = 1e12;
        double high = -1e12;
        for (int i = 0; i <= 20; ++i)
            if (const auto at = rail.at(from + (to - from) * i / 20)) {
                low = std::min(low, at->top_mm - height);
                high = std::max(high, at->top_mm);
            }
        to_ = fit(from, to, low - 60, high + 60, {f_.px(30), f_.px(70)}, w, d_.height - f_.px(190), true);
        d_.add(Text{{0, f_.body()}, "left rail, from the left", f_.body(), Ink::Second});
        band(rail, from, to, height);
        axles(from, to, low, height);
        if (in.cut_station_mm && p.status == Status::Planned)
            cut(rail, height);
        else if (in.cut_station_mm)
            marker(*in.cut_station_mm, rail, height);
        obstacles(rail, from, to, height);
        stations(rail, from, to, height);
        crossings({0, d_.height - f_.px(112)}, w + f_.px(20));
        figures({d_.width - column + f_.px(20), f_.px(40)});
        return std::move(d_);
    }

private:
    std::string len(double mm) const { return units::formatLength(mm, v_.step); }

    void band(const build::RailLine& rail, double from, double to, double height) {
        std::vector<double> stations = {from};
        for (const auto& p : rail.points)
            if (p.x_mm > from && p.x_mm < to) stations.push_back(p.x_mm);
        stations.push_back(to);
        Stroke top;
        Stroke bottom;
        top.pen = bottom.pen = {Ink::Chassis, f_.thick(), Dash::Solid};
        for (const double x : stations)
            if (const auto at = rail.at(x)) {
                top.path.push_back(to_(x, at->top_mm));
                bottom.path.push_back(to_(x, at->top_mm - height));
            }
        d_.add(std::move(top));
        d_.add(std::move(bottom));
        if (rail.thickness_mm > 0)
            for (size_t i = 0; i + 1 < stations.size(); ++i) {
                const auto a = rail.at(stations[i]);
                const auto b = rail.at(stations[i + 1]);
                if (!a || !b) continue;
                for (const double depth : {rail.thickness_mm, height - rail.thickness_mm})
                    d_.add(Stroke{{to_(stations[i], a->top_mm - depth), to_(stations[i + 1], b->top_mm - depth)},
                                  false,
                                  {Ink::Chassis, f_.thin(), Dash::Dashed}});
            }
    }

    void axles(double from, double to, double low, double height) {
        const auto axle = [&](const std::optional<double>& x, const char* name) {
            if (!x || *x < from || *x > to) return;
            d_.add(Stroke{{to_(*x, low + height + 50), to_(*x, low - 50)}, false, {Ink::Chassis, f_.thin(), Dash::DashDot}});
            d_.add(Text{{to_(*x, 0).x + f_.px(4), to_(0, low - 50).y}, name, f_.small(), Ink::Chassis});
        };
        axle(v_.input->front_axle_mm, "front axle");
        axle(v_.input->rear_axle_mm, "rear axle");
        if (!v_.zero.empty()) axle(0.0, ("0: " + v_.zero).c_str());
    }

    void marker(double station, const build::RailLine& rail, double height) {
        const auto at = rail.at(station);
        if (!at) return;
        d_.add(Stroke{{to_(station, at->top_mm + 40), to_(station, at->top_mm - height - 40)},
                      false,
                      {Ink::Remove, f_.medium(), Dash::Dashed}},
               "cut");
        d_.add(Text{{to_(station, 0).x + f_.px(4), to_(0, at->top_mm + 40).y}, "cut " + len(station), f_.body(), Ink::Remove},
               "cut");
    }

    void cut(const build::RailLine& rail, double height) {
        const Plan& p = *v_.plan;
        const RailCut& c = p.left.known ? p.left : p.right;
        const auto at_front = rail.at(c.first_station_mm);
        const auto at_rear = rail.at(c.last_station_mm);
        if (!at_front) return;
        const double rear_top = at_rear ? at_rear->top_mm : at_front->top_mm;
        const P a = to_(c.first_station_mm, at_front->top_mm);
        const P b = to_(c.first_station_mm, at_front->top_mm - height);
        if (p.shortens) {
            const P e = to_(c.last_station_mm, rear_top);
            const P g = to_(c.last_station_mm, rear_top - height);
            d_.add(Hatch{{a, e, g, b}, {Ink::Remove, f_.thin(), Dash::Solid}, f_.px(9), true}, "cut");
            for (const auto& [top, bottom] : {std::pair{a, b}, std::pair{e, g}})
                d_.add(Stroke{saw(top, bottom), false, {Ink::Remove, f_.medium(), Dash::Solid}}, "cut");
            d_.add(Dimension{a, e, f_.px(40), len(c.length_mm), f_.lead(), Ink::Remove, v_.change_mark}, "change");
            d_.add(Text{{(a.x + e.x) / 2, a.y - f_.px(62)}, "take out", f_.body(), Ink::Remove, Anchor::Centre}, "change");
        } else {
            d_.add(Stroke{saw(a, b), false, {Ink::Remove, f_.medium(), Dash::Solid}}, "cut");
            // the new piece, drawn above the rail at its own length
            const double lift = f_.px(30);
            const double width = c.length_mm * to_.scale;
            const double h = height * to_.scale;
            const P corner{a.x - width / 2, a.y - lift - h};
            d_.add(Stroke{{corner, {corner.x + width, corner.y}, {corner.x + width, corner.y + h}, {corner.x, corner.y + h}},
                          true,
                          {Ink::NewSteel, f_.thick(), Dash::Solid}},
                   "change");
            d_.add(
                Dimension{
                    corner, {corner.x + width, corner.y}, f_.px(20), len(c.length_mm), f_.lead(), Ink::NewSteel, v_.change_mark},
                "change");
            d_.add(Text{{corner.x + width + f_.px(8), corner.y + h / 2}, "let in", f_.body(), Ink::NewSteel}, "change");
        }
        if (p.sleeve) {
            const Sleeve& s = *p.sleeve;
            const double inset = (height - s.height_mm) / 2;
            const double from = c.first_station_mm - s.overlap_mm;
            const double to = c.last_station_mm + s.overlap_mm;
            const auto at_from = rail.at(from);
            const auto at_to = rail.at(to);
            if (at_from && at_to)
                d_.add(Stroke{{to_(from, at_from->top_mm - inset), to_(to, at_to->top_mm - inset),
                               to_(to, at_to->top_mm - height + inset), to_(from, at_from->top_mm - height + inset)},
                              true,
                              {Ink::NewSteel, f_.medium(), Dash::Dashed}},
                       "sleeve");
            plugs(rail, c, s, height);
            const double y = to_(0, std::min(at_front->top_mm, rear_top) - height).y + f_.px(22);
            d_.add(Dimension{{to_(from, 0).x, y},
                             {to_(c.first_station_mm, 0).x, y},
                             0,
                             len(s.overlap_mm),
                             f_.body(),
                             Ink::NewSteel,
                             Mark::Derived},
                   "sleeve");
        }
        const double y = to_(0, std::min(at_front->top_mm, rear_top) - height).y + f_.px(52);
        d_.add(Stroke{{b, {b.x, y}}, false, {Ink::Remove, f_.thin(), Dash::Dotted}}, "cut");
        const auto [side, label_x] = besideStations(b.x);
        d_.add(Text{{label_x, y + f_.px(16)},
                    "cut at " + len(c.first_station_mm),
                    f_.body(),
                    Ink::Remove,
                    side,
                    Level::Base,
                    Face::Sans,
                    Mark::None,
                    0,
                    true},
               "cut");
    }

    /// Where the cut's own station is written: below it, or on the side where no other station's score stands.
    std::pair<Anchor, double> besideStations(double x) const {
        double left = 1e9, right = 1e9;
        for (const Candidate& c : v_.plan->candidates) {
            const double away = to_(c.station_mm, 0).x - x;
            if (v_.input->cut_station_mm && std::abs(c.station_mm - *v_.input->cut_station_mm) < 25) continue;
            (away < 0 ? left : right) = std::min(away < 0 ? left : right, std::abs(away));
        }
        if (std::min(left, right) > f_.px(90)) return {Anchor::Centre, x};
        return right > left ? std::pair{Anchor::Left, x + f_.px(6)} : std::pair{Anchor::Right, x - f_.px(6)};
    }

    /// The centres of the plug welds along the upper flange.
    void plugs(const build::RailLine& rail, const RailCut& c, const Sleeve& s, double height) {
        if (!v_.plan->splice) return;
        const Plugs& g = v_.plan->splice->plugs;
        const int in_a_row = g.rows > 0 ? std::min(g.in_a_row, (g.needed + g.rows - 1) / g.rows) : 0;
        for (const bool ahead : {true, false})
            for (int i = 0; i < in_a_row; ++i) {
                const double away = g.edge_mm + i * g.pitch_mm;
                if (away > s.overlap_mm) break;
                const double x = ahead ? c.first_station_mm - away : c.last_station_mm + away;
                if (const auto at = rail.at(x))
                    for (const double inset : {0.0, height})
                        d_.add(Circle{to_(x, at->top_mm - inset), f_.px(3), {Ink::NewSteel, f_.thin(), Dash::Solid}, true},
                               "sleeve");
            }
    }

    /// Where else it could be cut: a notch under the rail with its score.
    void stations(const build::RailLine& rail, double from, double to, double height) {
        std::vector<double> written; // where figures stand already
        for (const Candidate& c : v_.plan->candidates) {
            if (c.station_mm < from || c.station_mm > to) continue;
            const auto at = rail.at(c.station_mm);
            if (!at || (v_.input->cut_station_mm && std::abs(c.station_mm - *v_.input->cut_station_mm) < 25)) continue;
            const P foot = to_(c.station_mm, at->top_mm - height);
            const Plan& p = *v_.plan;
            const RailCut& cut = p.left.known ? p.left : p.right;
            const double reach = p.sleeve && cut.known ? p.sleeve->overlap_mm : 0;
            const bool over_sleeve =
                cut.known && c.station_mm > cut.first_station_mm - reach && c.station_mm < cut.last_station_mm + reach;
            const double y = foot.y + f_.px(over_sleeve ? 34 : 8); // under the figures of the sleeve
            const std::string tag = fmt::format("station:{}", units::fixed(c.station_mm, 0));
            d_.add(Stroke{{{foot.x - f_.px(5), y + f_.px(8)}, {foot.x, y}, {foot.x + f_.px(5), y + f_.px(8)}},
                          false,
                          {Ink::Second, f_.thin() * 1.5, Dash::Solid}},
                   tag);
            // the best come first: where two stand too near, the notch alone tells of the other
            const double wide = textWidth(units::fixed(c.score, 1) + " of 10", f_.small(), Face::Sans) + f_.px(8);
            if (std::any_of(written.begin(), written.end(), [&](double x) { return std::abs(x - foot.x) < wide; })) continue;
            written.push_back(foot.x);
            d_.add(Text{{foot.x, y + f_.px(24)},
                        len(c.station_mm),
                        f_.small(),
                        Ink::Second,
                        Anchor::Centre,
                        Level::Base,
                        Face::Sans,
                        Mark::None,
                        0,
                        true},
                   tag);
            d_.add(Text{{foot.x, y + f_.px(40)}, units::fixed(c.score, 1) + " of 10", f_.small(), Ink::Second, Anchor::Centre},
                   tag);
        }
    }

    /// What crosses the cut, and what becomes of it.
    void crossings(P at, double width) {
        double y = at.y;
        for (const Crossing& c : v_.plan->crossings) {
            if (y > d_.height - f_.px(2)) break;
            addMark(d_, {at.x + f_.px(8), y - f_.px(5)}, f_.px(12), severityOf(c.verdict), "crossings");
            d_.add(Text{{at.x + f_.px(24), y}, c.said(), f_.small(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold},
                   "crossings");
            auto lines = wrapped(c.answer, width - f_.px(170), f_.small());
            d_.add(Text{{at.x + f_.px(164), y}, lines.size() > 1 ? lines.front() + " …" : c.answer, f_.small(), Ink::Ink},
                   "crossings");
            y += f_.px(19);
        }
        if (!v_.plan->not_told.empty() && y <= d_.height - f_.px(2))
            d_.add(Text{{at.x + f_.px(24), y},
                        fmt::format("{} more: not told whether they cross", v_.plan->not_told.size()),
                        f_.small(),
                        Ink::Warn},
                   "crossings");
    }

    /// A saw-tooth line.
    std::vector<P> saw(P a, P b) const {
        std::vector<P> path;
        const double length = std::hypot(b.x - a.x, b.y - a.y);
        const int teeth = std::max(2, static_cast<int>(length / f_.px(7)));
        const P across{-(b.y - a.y) / length * f_.px(3), (b.x - a.x) / length * f_.px(3)};
        for (int i = 0; i <= teeth; ++i) {
            const double t = static_cast<double>(i) / teeth;
            const double side = i % 2 ? 1 : -1;
            path.push_back({a.x + t * (b.x - a.x) + side * across.x, a.y + t * (b.y - a.y) + side * across.y});
        }
        return path;
    }

    void obstacles(const build::RailLine& rail, double from, double to, double height) {
        const Plan& p = *v_.plan;
        int level = 0;
        const auto draw = [&](const Obstacle& o, const Near* near) {
            if (o.station_mm < from || o.station_mm > to) return;
            const auto at = rail.at(o.station_mm);
            if (!at || build::sideOf(o.name) == build::Side::Right) return;
            const P top = to_(o.station_mm, at->top_mm);
            const double y = top.y - f_.px(84) - f_.px(19) * (level++ % 3);
            d_.add(Stroke{
                {{top.x, y + f_.px(4)}, {top.x, to_(0, at->top_mm - height).y}}, false, {Ink::Second, f_.thin(), Dash::Dotted}});
            d_.add(Text{{top.x, y},
                        near ? fmt::format("{} {}", o.name, len(near->distance_mm)) : o.name,
                        f_.small(),
                        near ? inkOf(severityOf(near->verdict)) : Ink::Ink,
                        Anchor::Centre});
            if (near)
                addMark(d_, top, f_.px(13), severityOf(near->verdict));
            else
                d_.add(Circle{top, f_.px(4), {Ink::Chassis, f_.thin(), Dash::Solid}, true});
        };
        if (p.status == Status::Planned) {
            auto sorted = p.near;
            std::sort(sorted.begin(), sorted.end(),
                      [](const Near& a, const Near& b) { return a.obstacle.station_mm < b.obstacle.station_mm; });
            for (const Near& near : sorted) draw(near.obstacle, &near);
        } else {
            for (const Obstacle& o : v_.input->obstacles) draw(o, nullptr);
        }
    }

    void figures(P at) {
        const Plan& p = *v_.plan;
        const Input& in = *v_.input;
        double y = at.y;
        const double right = d_.width - f_.px(4);
        const auto line = [&](const std::string& name, const std::string& value, Mark mark, const char* tag) {
            d_.add(Text{{at.x, y}, name, f_.body(), Ink::Second}, tag);
            d_.add(Text{{right, y}, value, f_.body(), Ink::Ink, Anchor::Right, Level::Base, Face::Sans, mark}, tag);
            y += f_.px(29);
        };
        const Mark section = v_.section_given ? Mark::None : Mark::Assumed;
        line("rail",
             in.left.height_mm > 0 ? fmt::format("{} × {} × {}", units::fixed(in.left.height_mm, 0),
                                                 units::fixed(in.left.width_mm, 0), units::fixed(in.left.thickness_mm, 1))
                                   : "not given",
             section, "rail");
        if (!in.change_mm) return;
        line("change of wheelbase", (p.change_mm > 0 ? "+" : "") + len(p.change_mm), v_.change_mark, "change");
        if (p.status != Status::Planned) return;
        const char* what = p.shortens ? "take out, " : "new piece, ";
        line(std::string(what) + "left", p.left.known ? len(p.left.length_mm) : "–", Mark::Derived, "change");
        line(std::string(what) + "right", p.right.known ? len(p.right.length_mm) : "–", Mark::Derived, "change");
        line("slope of the rail", units::formatAngle(p.left.known ? p.left.slope_rad : p.right.slope_rad), Mark::Derived, "cut");
        if (p.sleeve) {
            line("sleeve section",
                 fmt::format("{} × {} × {}", units::fixed(p.sleeve->height_mm, 1), units::fixed(p.sleeve->width_mm, 1),
                             units::fixed(p.sleeve->wall_mm, 1)),
                 Mark::Derived, "sleeve");
            line("sleeve length", len(p.sleeve->length_mm), Mark::Derived, "sleeve");
        }
        if (p.splice) {
            const Splice& s = *p.splice;
            line("joint beside the rail", units::fixed(100 * s.share(), 0) + " %", Mark::Derived, "sleeve");
            line("plug welds", fmt::format("{} of {}, {} fit", s.plugs.needed, units::fixed(s.plugs.hole_mm, 0), s.plugs.fit()),
                 Mark::Derived, "sleeve");
            if (s.plate)
                line("fish plates",
                     fmt::format("{} × {} × {}", units::fixed(s.plate->length_mm, 0), units::fixed(s.plate->height_mm, 0),
                                 units::fixed(s.plate->thickness_mm, 0)),
                     Mark::Derived, "sleeve");
        }
        if (p.chosen)
            line("station", p.chosen->refused.empty() ? units::fixed(p.chosen->score, 1) + " of 10" : "refused", Mark::Derived,
                 "cut");
        line("keep clear by", len(p.clearance_need_mm), Mark::Derived, "cut");
        y += f_.px(4);
        addMark(d_, {at.x + f_.px(8), y - f_.px(5)}, f_.px(14), severityOf(p.verdict));
        d_.add(Text{{at.x + f_.px(26), y},
                    build::verdictWord(p.verdict),
                    f_.lead(),
                    inkOf(severityOf(p.verdict)),
                    Anchor::Left,
                    Level::Base,
                    Face::Bold});
    }

    const StretchView& v_;
    Format f_;
    Drawing d_;
    Projection to_;
};

} // namespace

Drawing stretchSheet(const StretchView& view, double width, double height, const Format& f) {
    return Drafter(view, width, height, f).draw();
}

} // namespace gorvet::stretch
