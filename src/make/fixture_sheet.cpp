#include "make/fixture_sheet.hpp"

#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::make {

using namespace sheet;
using build::TowerDoes;

namespace {

constexpr double plan_px = 250, side_px = 120, side_over_mm = 110;

const char* doesWords(TowerDoes d) {
    switch (d) {
    case TowerDoes::Rest: return "it rests there";
    case TowerDoes::Clamp: return "clamped down";
    case TowerDoes::Pin: return "a pin goes into its hole";
    case TowerDoes::Pull: return "drawn to its stop";
    }
    return "";
}

class FixtureDraft {
public:
    FixtureDraft(Drawing& d, const Format& f, const FixtureView& v) : d_(d), f_(f), v_(v) {}

    double draw(std::size_t first, std::size_t until) {
        const FixturePlan& p = *v_.plan;
        double y = 0;
        if (first == 0) {
            y = p.made() ? side(plan()) : 0;
            SheetWords words(d_, f_, y + f_.body(), d_.width, tag_);
            for (const std::string& lack : v_.input->missing) words.lines("Waits for " + lack + ".");
            if (p.made()) {
                words.lines(fmt::format(
                    "Along counts to higher numbers, across to later letters. Station {} lies over the first holes along, its "
                    "middle {} from the first holes across; height 0 lies {} {} the table's top. One level sight line, a "
                    "string or a laser, lies {} over the table.",
                    len(p.station_mm), len(p.middle_mm), len(std::abs(p.high_mm)), p.high_mm < 0 ? "under" : "over",
                    len(p.line_mm)));
                std::string tapes;
                for (const build::Measure& m : p.across)
                    tapes += fmt::format("{}{} {} ± {}", tapes.empty() ? "" : "; ", m.name, len(m.mm),
                                         units::formatSmall(m.u95_mm, v_.step, true));
                if (!tapes.empty()) words.lines("Taped before anything is cut or drawn, and after: " + tapes + ".");
                words.lines("Searched: " + p.searched);
            }
            words.remarks(p.remarks);
            words.list("Not looked at: ", p.not_looked_at);
            words.list("Taken as usual, not measured: ", v_.input->assumed);
            y = words.end();
        }
        for (std::size_t k = first; k < std::min(until, p.towers.size()); ++k) y = tower(p.towers[k], y);
        return y + f_.px(6);
    }

private:
    std::string len(double mm) const { return units::formatLength(mm, v_.step); }

    double tower(const TowerPlan& t, double y) {
        const double base = y + f_.body() + f_.px(10);
        d_.add(Text{{0, base},
                    fmt::format("{}: {}", t.name, holeName(t.now.column, t.now.row)),
                    f_.body(),
                    Ink::Ink,
                    Anchor::Left,
                    Level::Base,
                    Face::Bold},
               tag_);
        SheetWords words(d_, f_, base + f_.px(19), d_.width - f_.px(34), tag_);
        words.lines(fmt::format("{}, {}. {}.", state(t.now), doesWords(t.does) + (t.pull.empty() ? std::string() : ": " + t.pull),
                                headWords(t.now, v_.step)),
                    f_.px(34));
        if (t.then)
            words.lines(fmt::format("Once the plan is carried out: {}, {}. {}.", holeName(t.then->column, t.then->row),
                                    state(*t.then), headWords(*t.then, v_.step)),
                        f_.px(34));
        return words.end();
    }
    std::string state(const TowerState& s) const {
        return fmt::format("{} ± {} high, {}; {} over the sight line", len(s.head_mm.value),
                           units::formatSmall(s.head_mm.u95, v_.step, true), towerWords(s, v_.step), len(s.over_line_mm));
    }

    /// Holes are where the lines of its grid cross.
    double plan() {
        const FixtureIn& in = *v_.input;
        const double long_mm = in.pitch_mm * (in.along - 1), wide_mm = in.pitch_mm * (in.across - 1), spare = in.pitch_mm;
        to_ = fit(-spare, long_mm + spare, -spare, wide_mm + spare, {f_.px(22), f_.px(26)}, d_.width - f_.px(30), f_.px(plan_px),
                  false);
        d_.add(Text{{0, f_.small()}, "the table from above, its first holes at the left", f_.small(), Ink::Second}, tag_);
        const Pen faint{Ink::Faint, f_.thin(), Dash::Solid};
        constexpr int every = 5;
        for (int k = 0; k < in.along; ++k) {
            const double x = k * in.pitch_mm;
            d_.add(Stroke{{to_(x, 0), to_(x, wide_mm)}, false, faint}, tag_);
            if (k % every == 0) text(to_(x, -spare), std::to_string(k + 1));
        }
        for (int k = 0; k < in.across; ++k) {
            const double y = k * in.pitch_mm;
            d_.add(Stroke{{to_(0, y), to_(long_mm, y)}, false, faint}, tag_);
            if (k % every == 0) text(to_(-spare, y), holeName(0, k).substr(0, holeName(0, k).size() - 1));
        }
        for (const build::RailLine& rail : v_.rails)
            for (const double s : {-1.0, 1.0}) {
                Stroke line{{}, false, {Ink::Chassis, f_.medium(), Dash::Solid}};
                for (const Vec3& q : rail.points) {
                    const Vec3 at = onTable(in, *v_.plan, {q.x_mm, q.y_mm + s * rail.width_mm / 2, q.z_mm});
                    line.path.push_back(to_(at.x_mm, at.y_mm));
                }
                if (line.path.size() > 1) d_.add(std::move(line), tag_);
            }
        for (const TowerPlan& t : v_.plan->towers) {
            foot(t.now, false, t.does);
            if (t.then) {
                foot(*t.then, true, t.does);
                arrow(at(t.now), at(*t.then));
            }
            // towards the table's middle, where nothing stands
            const bool upper = t.now.row * in.pitch_mm < wide_mm / 2;
            const double away = in.foot_mm / 2 * to_.scale + f_.px(upper ? 14 : 5);
            d_.add(Text{{at(t.now).x, at(t.now).y + (upper ? away : -away)},
                        fmt::format("{} {}", t.name, holeName(t.now.column, t.now.row)),
                        f_.small(),
                        Ink::Ink,
                        Anchor::Centre},
                   tag_);
        }
        return to_(0, wide_mm + spare).y + f_.px(12);
    }
    void text(P at, const std::string& words) {
        d_.add(Text{at, words, f_.small(), Ink::Second, Anchor::Centre, Level::Middle}, tag_);
    }
    P at(const TowerState& s) const { return to_(s.column * v_.input->pitch_mm, s.row * v_.input->pitch_mm); }

    void foot(const TowerState& s, bool later, TowerDoes does) {
        const double half = v_.input->foot_mm / 2 * to_.scale;
        const P m = at(s);
        d_.add(Stroke{{{m.x - half, m.y - half}, {m.x + half, m.y - half}, {m.x + half, m.y + half}, {m.x - half, m.y + half}},
                      true,
                      {Ink::NewSteel, f_.medium(), later ? Dash::Dashed : Dash::Solid}},
               tag_);
        const Pen pen{Ink::NewSteel, f_.medium(), Dash::Solid};
        if (does == TowerDoes::Pin) d_.add(Circle{m, std::max(f_.px(2), half / 3), pen, true}, tag_);
        if (does == TowerDoes::Clamp) // a bar over it
            d_.add(Stroke{{{m.x - half, m.y}, {m.x + half, m.y}}, false, pen}, tag_);
        if (does == TowerDoes::Pull)
            d_.add(Stroke{{{m.x - half, m.y + half}, {m.x + half, m.y - half}}, false, {Ink::Warn, f_.medium(), Dash::Solid}},
                   tag_);
        // where its head is
        const P head = to_(s.column * v_.input->pitch_mm + s.off_along_mm, s.row * v_.input->pitch_mm + s.off_across_mm);
        d_.add(Circle{head, f_.px(2.2), {Ink::Ink, f_.thin(), Dash::Solid}, false, true}, tag_);
    }
    void arrow(P from, P to) {
        const double away = std::hypot(to.x - from.x, to.y - from.y);
        if (away < f_.px(6)) return;
        const P u{(to.x - from.x) / away, (to.y - from.y) / away};
        const double tip = f_.px(7);
        const Pen pen{Ink::Second, f_.thin(), Dash::Solid};
        d_.add(Stroke{{from, to}, false, pen}, tag_);
        d_.add(Stroke{{{to.x - tip * (u.x + 0.5 * u.y), to.y - tip * (u.y - 0.5 * u.x)},
                       to,
                       {to.x - tip * (u.x - 0.5 * u.y), to.y - tip * (u.y + 0.5 * u.x)}},
                      false,
                      pen},
               tag_);
    }

    double topOf() const {
        double top = v_.plan->line_mm;
        for (const TowerPlan& t : v_.plan->towers)
            top = std::max({top, t.now.head_mm.value, t.then ? t.then->head_mm.value : 0.0});
        return top + side_over_mm;
    }
    /// From the left, at the same scale, heights as they are.
    double side(double y) {
        const FixtureIn& in = *v_.input;
        const double top = topOf(), scale = std::min(to_.scale, f_.px(side_px) / std::max(1.0, top));
        const double floor = y + f_.px(18) + scale * top;
        const auto on = [&](double x, double z) { return P{to_(x, 0).x, floor - scale * z}; };
        d_.add(Text{{0, y + f_.small()}, "from its side", f_.small(), Ink::Second}, tag_);
        const double long_mm = in.pitch_mm * (in.along - 1);
        d_.add(Stroke{{on(-in.pitch_mm, 0), on(long_mm + in.pitch_mm, 0)}, false, {Ink::Ink, f_.medium(), Dash::Solid}}, tag_);
        d_.add(Stroke{{on(0, v_.plan->line_mm), on(long_mm, v_.plan->line_mm)}, false, {Ink::Second, f_.thin(), Dash::DashDot}},
               tag_);
        for (const build::RailLine& rail : v_.rails)
            for (const bool under : {false, true}) {
                Stroke line{{}, false, {Ink::Chassis, f_.thin(), Dash::Solid}};
                for (const Vec3& q : rail.points) {
                    const auto here = rail.at(q.x_mm);
                    if (!here) continue;
                    const Vec3 p = onTable(in, *v_.plan, {q.x_mm, q.y_mm, under ? here->bottom_mm : here->top_mm});
                    line.path.push_back(on(p.x_mm, p.z_mm));
                }
                if (line.path.size() > 1) d_.add(std::move(line), tag_);
            }
        for (const TowerPlan& t : v_.plan->towers)
            for (const TowerState* s : {&t.now, t.then ? &*t.then : nullptr}) {
                if (!s) continue;
                const double x = s->column * in.pitch_mm, half = in.foot_mm / 4;
                d_.add(Stroke{{on(x - half, 0), on(x - half, s->head_mm.value), on(x + half, s->head_mm.value), on(x + half, 0)},
                              false,
                              {Ink::NewSteel, f_.medium(), s == &t.now ? Dash::Solid : Dash::Dashed}},
                       tag_);
            }
        return floor + f_.px(10);
    }

    Drawing& d_;
    const Format& f_;
    const FixtureView& v_;
    const std::string tag_ = "fixture:" + v_.input->name;
    Projection to_;
};

} // namespace

std::string towerWords(const TowerState& s, units::LengthStep step) {
    if (s.tower_mm <= 0) return "no tower is so short";
    std::string words = "tower " + units::formatLength(s.tower_mm, step);
    for (std::size_t k = 0; k < s.packers_mm.size(); ++k)
        words += fmt::format("{}{:g}", k ? " + " : s.packers_mm.size() > 1 ? ", packers " : ", packer ", s.packers_mm[k]);
    return words;
}

std::string headWords(const TowerState& s, units::LengthStep step) {
    const auto way = [&](double mm) { return (mm < 0 ? "−" : "+") + units::formatLength(std::abs(mm), step); };
    return fmt::format("Its head stands {} along and {} across from its hole", way(s.off_along_mm), way(s.off_across_mm));
}

Vec3 onTable(const FixtureIn& in, const FixturePlan& p, const Vec3& place) {
    return geometry::plus(rolled(in.attitude, place), {-p.station_mm, p.middle_mm, p.high_mm});
}

Drawing fixtureSheet(const FixtureView& v, double width, double height, const Format& f, std::size_t first, std::size_t until) {
    Drawing d{width, height, {}, {}};
    d.height = std::max(height, FixtureDraft(d, f, v).draw(first, until));
    return d;
}

} // namespace gorvet::make
