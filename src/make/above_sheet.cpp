#include "make/above_sheet.hpp"

#include "make/part_edges.hpp"
#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::make {

using namespace sheet;
using geometry::minus;
using geometry::plus;

namespace {

constexpr double above_px = 360, on_rail_mm = 15, tight_mm = 15;

class AboveDraft {
public:
    AboveDraft(Drawing& d, const Format& f, const AboveView& v) : d_(d), f_(f), v_(v) {}

    double draw() {
        if (!frame()) return 0;
        for (const build::RailLine* rail : {&v_.left, &v_.right})
            for (const double side : {-1.0, 1.0}) {
                Stroke s{{}, false, {Ink::Chassis, f_.medium(), Dash::Solid}};
                for (const Vec3& p : rail->points) s.path.push_back(to_(p.x_mm, p.y_mm + side * rail->width_mm / 2));
                if (s.path.size() > 1) d_.add(std::move(s));
            }
        for (const shape::Mesh& m : v_.others) outline(m);
        for (const AboveItem& item : v_.items) part(item);
        for (const Near& n : v_.nears)
            if (n.one == "part " + v_.dragged || (v_.dragged.empty() && n.mm < tight_mm)) gap(n); // the others stand in the list
        double y = bottom_ + f_.px(30);
        if (!v_.live.empty()) {
            d_.add(Text{{0, y}, v_.live, f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
            y += f_.px(12);
        }
        SheetWords words(d_, f_, y + f_.px(4), d_.width, "");
        for (const Foul& foul : v_.fouls) words.judged(Severity::Bad, foulWords(foul, v_.step));
        return list(words.end());
    }

private:
    bool frame() {
        double low[2] = {1e18, 1e18}, high[2] = {-1e18, -1e18};
        const auto take = [&](const Vec3& p) {
            low[0] = std::min(low[0], p.x_mm);
            high[0] = std::max(high[0], p.x_mm);
            low[1] = std::min(low[1], p.y_mm);
            high[1] = std::max(high[1], p.y_mm);
        };
        for (const build::RailLine* rail : {&v_.left, &v_.right})
            for (const Vec3& p : rail->points) take(p);
        for (const AboveItem& item : v_.items)
            for (const Vec3& p : item.plan->at) take(p);
        if (low[0] >= high[0]) return false;
        constexpr double spare = 80;
        to_ = fit(low[0] - spare, high[0] + spare, low[1] - spare, high[1] + spare, {0, f_.px(26)}, d_.width, f_.px(above_px),
                  false);
        bottom_ = to_(0, high[1] + spare).y;
        d_.add(Text{{0, f_.small()}, "from above, front at the left", f_.small(), Ink::Second});
        return true;
    }
    void outline(const shape::Mesh& m) {
        geometry::Outline flat;
        for (const auto& p : m.points) flat.emplace_back(p.x_mm, p.y_mm);
        if (flat.size() < 3) return;
        Stroke s{{}, true, {Ink::NewSteel, f_.thin(), Dash::Dashed}};
        for (const auto& [x, y] : geometry::hullOf(flat)) s.path.push_back(to_(x, y));
        d_.add(std::move(s));
    }
    void part(const AboveItem& item) {
        const shape::ViewAxes axes = shape::ViewAxes::from(0, std::numbers::pi / 2);
        const Edges edges = edgesOf(*item.plan, axes);
        const bool dragged = item.plan->name == v_.dragged;
        const Pen pen{Ink::NewSteel, dragged ? f_.medium() : f_.thin(), Dash::Solid};
        double low = 1e18, high = -1e18, top = 1e18, foot = -1e18;
        for (const auto* paths : {&edges.closed, &edges.open})
            for (const Path& path : *paths) {
                Stroke s{{}, paths == &edges.closed, pen};
                for (const Vec3& q : path) {
                    s.path.push_back(to_(q.x_mm, q.y_mm));
                    low = std::min(low, s.path.back().x);
                    high = std::max(high, s.path.back().x);
                    top = std::min(top, s.path.back().y);
                    foot = std::max(foot, s.path.back().y);
                }
                d_.add(std::move(s), item.tag);
            }
        if (low > high) return;
        // its name on the side that looks away from the middle
        const bool right = (top + foot) / 2 > to_(0, 0).y + f_.px(10);
        d_.add(Text{{(low + high) / 2, right ? foot + f_.px(14) : top - f_.px(4)},
                    item.plan->name,
                    f_.small(),
                    Ink::Ink,
                    Anchor::Centre},
               item.tag);
        if (!item.grip || item.plan->at.empty()) return;
        Grip grip = *item.grip;
        grip.at = to_(item.plan->at.front().x_mm, item.plan->at.front().y_mm);
        grip.per_unit = 1 / to_.scale;
        d_.add(Circle{grip.at, f_.px(6), {Ink::NewSteel, f_.medium(), Dash::Solid}, false, true}, item.tag);
        for (const double side : {-1.0, 1.0}) // it goes to and fro
            d_.add(Stroke{{{grip.at.x + side * f_.px(9), grip.at.y - f_.px(4)},
                           {grip.at.x + side * f_.px(14), grip.at.y},
                           {grip.at.x + side * f_.px(9), grip.at.y + f_.px(4)}},
                          false,
                          {Ink::NewSteel, f_.medium(), Dash::Solid}},
                   item.tag);
        d_.grips.push_back(std::move(grip));
    }
    void gap(const Near& n) {
        const P a = to_(n.from.x_mm, n.from.y_mm), b = to_(n.to.x_mm, n.to.y_mm);
        d_.add(Stroke{{a, b}, false, {Ink::Warn, f_.medium(), Dash::Solid}});
        d_.add(Text{{(a.x + b.x) / 2 + f_.px(4), (a.y + b.y) / 2 - f_.px(3)},
                    units::formatLength(n.mm, v_.step),
                    f_.small(),
                    Ink::Ink,
                    Anchor::Left,
                    Level::Base,
                    Face::Sans,
                    Mark::Derived,
                    0,
                    true});
    }
    /// Each part: what comes nearest to it.
    double list(double y) {
        FigureColumn column(d_, f_, {0, y + f_.px(22)}, std::min(d_.width, f_.px(560)), "");
        column.head(fmt::format("what comes nearest to each, within {:g} mm", near_cap_mm));
        for (const AboveItem& item : v_.items) {
            const auto near =
                std::find_if(v_.nears.begin(), v_.nears.end(), [&](const Near& n) { return n.one == "part " + item.plan->name; });
            if (near == v_.nears.end())
                column.row(item.plan->name, "nothing else", Mark::None);
            else
                column.row(fmt::format("{}: {}", item.plan->name, near->other), units::formatLength(near->mm, v_.step, true));
        }
        return column.end() + f_.px(10);
    }

    Drawing& d_;
    const Format& f_;
    const AboveView& v_;
    Projection to_;
    double bottom_ = 0;
};

} // namespace

Drawing aboveSheet(const AboveView& v, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    d.height = std::max(height, AboveDraft(d, f, v).draw());
    return d;
}

std::vector<Vec3> movedAlong(const std::vector<Vec3>& places, double by, const build::RailLine& left,
                             const build::RailLine& right) {
    // the rail that a place lies in, or on a face of
    const auto railOf = [&](const Vec3& p) -> const build::RailLine* {
        for (const build::RailLine* rail : {&left, &right})
            if (const auto here = rail->at(p.x_mm); here && std::abs(p.y_mm - here->y_mm) < rail->width_mm / 2 + on_rail_mm &&
                                                    p.z_mm < here->top_mm + on_rail_mm && p.z_mm > here->bottom_mm - on_rail_mm)
                return rail;
        return nullptr;
    };
    const auto along = [&](const Vec3& p) -> std::optional<Vec3> {
        const build::RailLine* rail = railOf(p);
        if (!rail) return std::nullopt;
        const auto from = rail->at(p.x_mm), to = rail->at(p.x_mm + by);
        if (!from || !to) return std::nullopt;
        return Vec3{by, to->y_mm - from->y_mm, to->top_mm - from->top_mm};
    };
    const Vec3 first = places.empty() ? Vec3{} : along(places.front()).value_or(Vec3{by, 0, 0});
    std::vector<Vec3> all;
    for (const Vec3& p : places) all.push_back(plus(p, along(p).value_or(first)));
    return all;
}

} // namespace gorvet::make
