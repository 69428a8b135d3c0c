#include "tape/ghost.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::tape {

using namespace sheet;
using geometry::Vec3;

namespace {

void addOutline(Drawing& d, const Ghost& ghost, const Projection& to, const Pen& pen) {
    for (const auto& line : ghost.outline) {
        for (const double side : {1.0, -1.0}) {
            Stroke s{{}, false, pen};
            for (const Vec3& p : line) s.path.push_back(to(p.x_mm, side * p.y_mm));
            d.add(s);
        }
    }
    // wheels, as far as the sketch has any
    for (const GhostPoint& p : ghost.points) {
        if (p.role != build::Role::FrontHub && p.role != build::Role::RearHub) continue;
        for (const double side : {1.0, -1.0}) {
            Stroke wheel{{}, true, pen};
            for (const auto& [x, y] : {std::pair{-330.0, -95.0}, {330.0, -95.0}, {330.0, 95.0}, {-330.0, 95.0}})
                wheel.path.push_back(to(p.rough.x_mm + x, side * (p.rough.y_mm + 20) + y));
            d.add(wheel);
        }
    }
}

Projection fitted(const Ghost& ghost, const std::vector<GhostView::Marked>& marked, P at, double width, double height) {
    double front = -700;
    double rear = 3500;
    double wide = 860;
    for (const auto& line : ghost.outline)
        for (const Vec3& p : line) wide = std::max(wide, p.y_mm + 60);
    for (const auto& m : marked) {
        front = std::min(front, m.at.x_mm - 60);
        rear = std::max(rear, m.at.x_mm + 60);
        wide = std::max(wide, std::abs(m.at.y_mm) + 60);
    }
    return fit(front, rear, -wide, wide, at, width, height, true);
}

} // namespace

Drawing ghostSheet(const Ghost& ghost, const GhostView& view, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    const double line = std::max(f.body() * 1.5, f.px(34));
    const auto is_marked = [&](const std::string& name) {
        return std::any_of(view.marked.begin(), view.marked.end(), [&](const auto& m) { return m.name == name; });
    };
    std::vector<const GhostPoint*> open;
    for (const GhostPoint& p : ghost.points) {
        const auto names = p.names();
        if (!std::all_of(names.begin(), names.end(), is_marked)) open.push_back(&p);
    }
    const double column = open.empty() ? 0 : std::min(width * 0.42, f.px(330));
    d.height = std::max({height, f.px(230), line * static_cast<double>(open.size() + 2)});
    const double top = f.body() * 2.2;
    d.add(Text{{0, f.body()},
               fmt::format("A sketch of {}, not of yours: nothing has a place yet that readings fix.", ghost.words),
               f.body(),
               Ink::Second});
    const Projection to = fitted(ghost, view.marked, {f.px(10), top}, width - column - f.px(30), d.height - top - f.body() * 2);
    addOutline(d, ghost, to, {Ink::Faint, f.thin(), Dash::Dashed});
    const auto place = [&](const Vec3& p) { return to(p.x_mm, -p.y_mm); };
    for (const auto& [a, b] : view.readings)
        d.add(Stroke{{place(view.marked[static_cast<std::size_t>(a)].at), place(view.marked[static_cast<std::size_t>(b)].at)},
                     false,
                     {Ink::Second, f.thin(), Dash::Dotted}});
    if (view.next)
        d.add(Stroke{{place(view.marked[static_cast<std::size_t>(view.next->first)].at),
                      place(view.marked[static_cast<std::size_t>(view.next->second)].at)},
                     false,
                     {Ink::Ink, f.medium(), Dash::Dashed}},
              "next");
    for (const GhostPoint* p : open)
        for (const std::string& name : p->names()) {
            if (is_marked(name)) continue;
            const P at = place(p->at(name));
            d.add(Circle{at, f.px(20), {Ink::Second, f.thin(), Dash::Solid}, false, true}, "ghost:" + name);
            d.add(Text{at, name, f.body(), Ink::Ink, Anchor::Centre, Level::Middle, Face::Mono}, "ghost:" + name);
        }
    for (const auto& m : view.marked) {
        const P at = place(m.at);
        d.add(Circle{at, f.px(5), {view.ink, f.medium(), Dash::Solid}, true}, m.tag);
        d.add(Text{{at.x + f.px(8), at.y - f.px(6)},
                   m.name,
                   f.small(),
                   Ink::Ink,
                   Anchor::Left,
                   Level::Base,
                   Face::Mono,
                   Mark::None,
                   0,
                   true},
              m.tag);
    }
    if (!open.empty()) {
        const double x = width - column;
        double y = top + line * 0.6;
        d.add(Text{{x, y - line * 0.2}, "Tap what you can reach:", f.body(), Ink::Ink});
        for (const GhostPoint* p : open) {
            y += line;
            std::string names;
            for (const std::string& n : p->names()) names += (names.empty() ? "" : " ") + n;
            const std::string tag = "ghost:" + p->names().front();
            d.add(Text{{x, y}, names, f.body(), Ink::Ink, Anchor::Left, Level::Middle, Face::Mono}, tag);
            d.add(Text{{x + f.px(70), y}, p->what, f.body(), Ink::Second, Anchor::Left, Level::Middle}, tag);
        }
    }
    if (!view.note.empty()) d.add(Text{{0, d.height - f.px(6)}, view.note, f.body(), Ink::Second});
    return d;
}

Drawing ghostPicture(const Ghost& ghost, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    addOutline(d, ghost, fitted(ghost, {}, {0, 0}, width, height), {Ink::Ink, f.thin(), Dash::Solid});
    return d;
}

} // namespace gorvet::tape
