#include "stretch/width_sheet.hpp"

#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {

using namespace sheet;

namespace {

using build::Vec3;

/// From above, the nose to the left and the right side on top; figures beside it, what is wrong below.
class WidthDraft {
public:
    WidthDraft(Drawing& d, const WidthView& v, double height, const Format& f) : d_(d), v_(v), f_(f), height_(height) {}

    double draw() {
        const double column = f_.px(330), begins = f_.lead() + f_.px(6);
        d_.add(Text{{0, f_.lead()}, "From above", f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        extent();
        const double views = d_.width - column - f_.px(30);
        const double tall = std::max(f_.px(250), height_ - f_.px(50));
        to_ = fit(from_x_, to_x_, low_y_, high_y_, {f_.px(10), begins}, views - f_.px(10), tall, true);
        frame();
        if (v_.narrow) strips();
        for (const EdgeView& e : v_.edges)
            if (e.waits.empty()) edge(e);
        FigureColumn figures(d_, f_, {d_.width - column + f_.px(10), begins}, column - f_.px(10), v_.narrow ? "narrow" : "");
        if (v_.narrow) narrowed(figures);
        double right = figures.end();
        for (const EdgeView& e : v_.edges) {
            FigureColumn own(d_, f_, {d_.width - column + f_.px(10), right}, column - f_.px(10), e.tag);
            edged(own, e);
            right = own.end();
        }
        const double low = to_((from_x_ + to_x_) / 2, low_y_).y;
        double y = std::max(begins + f_.px(120), low + f_.px(20));
        if (v_.narrow) {
            SheetWords words(d_, f_, y, views, "narrow");
            words.remarks(v_.narrow->remarks);
            words.list("Taken as usual, not measured: ", v_.narrow_input->assumed);
            y = words.end();
        }
        for (const EdgeView& e : v_.edges) {
            SheetWords words(d_, f_, y, views, e.tag);
            if (!e.waits.empty()) words.lines(e.waits);
            words.remarks(e.plan->remarks);
            words.list("Taken as usual, not measured: ", e.input->assumed);
            y = words.end();
        }
        return std::max(y, right) + f_.px(14);
    }

private:
    void take(const Vec3& p) {
        from_x_ = std::min(from_x_, p.x_mm - 60);
        to_x_ = std::max(to_x_, p.x_mm + 60);
        low_y_ = std::min(low_y_, p.y_mm - 90);
        high_y_ = std::max(high_y_, p.y_mm + 90);
    }
    void extent() {
        for (const auto& line : v_.lines)
            for (const Vec3& p : line) {
                take(p);
                take(v_.planned.map(p));
            }
        for (const auto& [name, at] : v_.marks) take(at);
        for (const EdgeView& e : v_.edges)
            for (const EdgeStation& s : e.plan->stations) {
                const double y = s.edge_mm + std::max(0.0, s.width.value) + 60;
                take({s.station_mm, e.plan->left ? -y : y, 0});
            }
        if (from_x_ > to_x_) take({0, 0, 0});
    }
    std::vector<P> path(const std::vector<Vec3>& line, bool planned) const {
        std::vector<P> out;
        for (Vec3 p : line) {
            if (planned) p = v_.planned.map(p);
            out.push_back(to_(p.x_mm, p.y_mm));
        }
        return out;
    }
    void frame() {
        d_.add(Stroke{{to_(from_x_ + 20, 0), to_(to_x_ - 20, 0)}, false, {Ink::Faint, f_.thin(), Dash::DashDot}});
        for (const auto& line : v_.lines) {
            if (v_.planned.changes()) d_.add(Stroke{path(line, false), false, {Ink::Faint, f_.thin(), Dash::Dashed}});
            d_.add(Stroke{path(line, true), false, {Ink::Chassis, f_.medium(), Dash::Solid}});
        }
        for (const auto& [name, p] : v_.marks) {
            d_.add(Circle{to_(p.x_mm, p.y_mm), f_.px(2.5), {Ink::Chassis, f_.thin(), Dash::Solid}, true});
            d_.add(Text{{to_(p.x_mm, p.y_mm).x + f_.px(5), to_(p.x_mm, p.y_mm).y - f_.px(4)}, name, f_.small(), Ink::Second});
        }
    }
    /// As it is: what comes out of each side, and both lines of it.
    void strips() {
        const NarrowPlan& p = *v_.narrow;
        double from = from_x_ + 60, until = to_x_ - 60;
        if (!v_.narrow_input->pan.empty()) {
            from = v_.narrow_input->from_mm;
            until = v_.narrow_input->until_mm;
        }
        for (const double side : {-1.0, 1.0}) {
            const auto at = [&](double x, double y) { return to_(v_.planned.lengthwise().map(Vec3{x, 0, 0}).x_mm, side * y); };
            const double outer = p.strip_mm > 0 ? p.outer_mm : p.slit_mm + p.side_mm;
            d_.add(Hatch{{at(from, p.slit_mm), at(until, p.slit_mm), at(until, outer), at(from, outer)},
                         {Ink::Remove, f_.thin(), Dash::Solid},
                         f_.px(6),
                         true},
                   "narrow");
            for (const double y : {p.slit_mm, outer})
                d_.add(Stroke{{at(from, y), at(until, y)}, false, {Ink::Remove, f_.medium(), Dash::Solid}}, "narrow");
        }
        const P a = to_(from - 30, p.slit_mm), b = to_(from - 30, 0);
        d_.add(Dimension{b, a, -f_.px(10), v_.length(p.slit_mm), f_.small(), Ink::Ink, Mark::None}, "narrow");
    }
    void edge(const EdgeView& e) {
        const EdgePlan& p = *e.plan;
        const double side = p.left ? -1 : 1;
        const auto at = [&](double x, double y) { return to_(x, side * y); };
        std::vector<P> inner, outer;
        for (const EdgeStation& s : p.stations) {
            inner.push_back(at(s.station_mm, s.edge_mm));
            outer.push_back(at(s.station_mm, s.edge_mm + s.width.value));
        }
        std::vector<P> strip = inner;
        strip.insert(strip.end(), outer.rbegin(), outer.rend());
        d_.add(Hatch{strip, {Ink::NewSteel, f_.thin(), Dash::Solid}, f_.px(7), false}, e.tag);
        d_.add(Stroke{inner, false, {Ink::NewSteel, f_.medium(), Dash::Solid}}, e.tag);
        d_.add(Stroke{outer, false, {Ink::Body, f_.medium(), Dash::Solid}}, e.tag);
        const double half = e.input->edge.width.value / 2;
        for (const EdgeOutrigger& o : p.outriggers) {
            const Along a = along(p, o.station_mm);
            d_.add(Stroke{{at(o.station_mm - half, a.edge), at(o.station_mm + half, a.edge),
                           at(o.station_mm + half, a.edge + a.width), at(o.station_mm - half, a.edge + a.width)},
                          true,
                          {o.backed ? Ink::NewSteel : Ink::Bad, f_.medium(), Dash::Solid}},
                   e.tag);
        }
        for (const EdgeStation& s : p.stations)
            d_.add(Text{{at(s.station_mm, s.edge_mm + std::max(0.0, s.width.value)).x,
                         at(s.station_mm, s.edge_mm + std::max(0.0, s.width.value)).y + (p.left ? f_.px(18) : -f_.px(8))},
                        v_.length(s.width.value),
                        f_.body(),
                        Ink::Ink,
                        Anchor::Centre,
                        Level::Base,
                        Face::Bold,
                        s.width.provenance == build::Provenance::Assumed ? Mark::Assumed : Mark::Derived,
                        0,
                        true},
                   e.tag);
    }
    struct Along {
        double edge = 0, width = 0;
    };
    static Along along(const EdgePlan& p, double station) {
        for (std::size_t k = 1; k < p.stations.size(); ++k) {
            const EdgeStation &a = p.stations[k - 1], &b = p.stations[k];
            if (station > b.station_mm && k + 1 < p.stations.size()) continue;
            const double share = (station - a.station_mm) / std::max(1.0, b.station_mm - a.station_mm);
            return {a.edge_mm + share * (b.edge_mm - a.edge_mm), a.width.value + share * (b.width.value - a.width.value)};
        }
        return {};
    }

    static std::string plugWords(int count, double hole, double pitch) {
        return fmt::format("{} × {:.0f} at {:.0f}", count, hole, pitch);
    }
    void narrowed(FigureColumn& to) const {
        const NarrowPlan& p = *v_.narrow;
        to.head(fmt::format("Narrower by {}", v_.length(v_.narrow_input->narrowing.by.value)));
        to.row("each side comes in", v_.length(p.side_mm));
        to.row("slit, from the middle", v_.length(p.slit_mm), markOf(v_.narrow_input->narrowing.slit.provenance));
        if (p.long_mm > 0) {
            to.row("strip cut out of each", fmt::format("{} × {}", v_.length(p.long_mm), v_.length(p.strip_mm)));
            if (p.lap_mm > 0) to.row("both sheets lie on each other", v_.length(p.lap_mm));
            if (p.plugs > 0) to.row("plug welds, each side", plugWords(p.plugs, p.plug_mm, p.pitch_mm));
            to.row("comes out", fmt::format("{:.1f} kg", p.out_kg));
        }
        for (const NarrowMember& m : p.members) to.row(m.name, fmt::format("{} → {}", v_.length(m.now_mm), v_.length(m.then_mm)));
        constexpr std::size_t most = 6;
        if (!p.measures.empty()) to.head("Across, before it is welded");
        for (std::size_t k = 0; k < std::min(most, p.measures.size()); ++k)
            to.row(p.measures[k].name, fmt::format("{} ± {:.1f}", v_.length(p.measures[k].mm), p.measures[k].u95_mm));
    }
    void edged(FigureColumn& to, const EdgeView& e) const {
        const EdgePlan& p = *e.plan;
        to.head(fmt::format("{}, out to the sill", e.input->edge.name));
        if (!e.waits.empty()) return;
        for (const EdgeStation& s : p.stations)
            to.row(fmt::format("{} {}", v_.length(s.station_mm), s.at),
                   fmt::format("{} ± {:.1f}", v_.length(s.width.value), s.width.u95),
                   s.width.provenance == build::Provenance::Assumed ? Mark::Assumed : Mark::Derived);
        if (!p.stations.empty()) {
            const auto [low, high] = std::minmax_element(
                p.stations.begin(), p.stations.end(), [](const auto& a, const auto& b) { return a.rise.value < b.rise.value; });
            to.row("the sill stands higher by", fmt::format("{} to {}", v_.length(low->rise.value), v_.length(high->rise.value)));
        }
        if (p.strip_kg > 0) to.row("its strip", fmt::format("{:.1f} kg", p.strip_kg));
        if (p.plugs > 0) to.row("plugs on the old floor", plugWords(p.plugs, p.plug_mm, p.pitch_mm));
        if (!p.outriggers.empty()) {
            double least = 1e9, most = 0;
            for (const EdgeOutrigger& o : p.outriggers) {
                least = std::min(least, o.long_mm);
                most = std::max(most, o.long_mm);
            }
            to.row(fmt::format("{} outriggers", p.outriggers.size()),
                   fmt::format("{} to {}, {:.1f} kg", v_.length(least), v_.length(most), p.outriggers_kg));
        }
        if (p.stress_mpa)
            to.row("bent at its root", fmt::format("{:.0f} of {:.0f} MPa", *p.stress_mpa, p.may_mpa),
                   e.input->assumed.empty() ? Mark::Derived : Mark::Assumed);
        if (p.weld_share) to.row("of what its weld bears", fmt::format("{:.0f} %", 100 * *p.weld_share));
    }

    Drawing& d_;
    const WidthView& v_;
    const Format& f_;
    double height_;
    Projection to_;
    double from_x_ = 1e9, to_x_ = -1e9, low_y_ = 1e9, high_y_ = -1e9;
};

} // namespace

Drawing widthSheet(const WidthView& v, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = std::max(height, WidthDraft(d, v, height, f).draw());
    return d;
}

Drawing stripPattern(const EdgePlan& p, double lap_mm) {
    Drawing d;
    double most = 0;
    for (const auto& [along, out] : p.outline) {
        d.width = std::max(d.width, along);
        most = std::max(most, out);
    }
    d.height = most;
    const auto at = [&](const std::pair<double, double>& q) { return P{q.first, most - q.second}; };
    std::vector<P> outline, bend;
    for (const auto& q : p.outline) outline.push_back(at(q));
    for (const auto& q : p.bend) bend.push_back(at(q));
    d.add(Stroke{outline, true, {Ink::NewSteel, 0.35, Dash::Solid}}, "outline");
    d.add(Stroke{bend, false, {Ink::Second, 0.25, Dash::Dashed}}, "bend");
    for (int k = 0; k < p.plugs; ++k)
        d.add(Circle{{2 * p.plug_mm + k * p.pitch_mm, most - lap_mm / 2}, p.plug_mm / 2, {Ink::NewSteel, 0.35, Dash::Solid}}, "hole");
    return d;
}

} // namespace gorvet::stretch
