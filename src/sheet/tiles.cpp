#include "sheet/tiles.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

#include <fmt/format.h>

namespace gorvet::sheet {
namespace {

struct Box {
    double left, top, right, bottom;
    bool holds(P p) const { return p.x >= left && p.x < right && p.y >= top && p.y < bottom; }
};

/// The part of a line inside a box. Liang and Barsky.
std::optional<std::pair<P, P>> inside(P a, P b, const Box& box) {
    double from = 0, to = 1;
    const double dx = b.x - a.x, dy = b.y - a.y;
    for (const auto& [p, q] :
         {std::pair{-dx, a.x - box.left}, {dx, box.right - a.x}, {-dy, a.y - box.top}, {dy, box.bottom - a.y}}) {
        if (p == 0) {
            if (q < 0) return std::nullopt;
            continue;
        }
        const double share = q / p;
        if (p < 0)
            from = std::max(from, share);
        else
            to = std::min(to, share);
        if (from > to) return std::nullopt;
    }
    return std::pair{P{a.x + from * dx, a.y + from * dy}, P{a.x + to * dx, a.y + to * dy}};
}

void addClipped(Drawing& page, const Item& item, const Box& box, P shift) {
    const auto at = [&](P p) { return P{p.x + shift.x, p.y + shift.y}; };
    if (const auto* s = std::get_if<Stroke>(&item.shape)) {
        Stroke out{{}, false, s->pen};
        const auto flush = [&] {
            if (out.path.size() > 1) page.add(out, item.tag);
            out.path.clear();
        };
        const size_t n = s->path.size();
        for (size_t k = 0; k + (s->closed ? 0 : 1) < n; ++k) {
            const P a = s->path[k], b = s->path[(k + 1) % n];
            const auto part = inside(a, b, box);
            if (!part || (part->first == part->second && !(a == b))) {
                flush();
                continue;
            }
            if (out.path.empty() || !(out.path.back() == at(part->first))) {
                flush();
                out.path.push_back(at(part->first));
            }
            out.path.push_back(at(part->second));
            if (!(part->second == b)) flush();
        }
        flush();
    } else if (const auto* t = std::get_if<Text>(&item.shape)) {
        if (!box.holds(t->at)) return;
        Text moved = *t;
        moved.at = at(t->at);
        page.add(moved, item.tag);
    } else if (const auto* c = std::get_if<Circle>(&item.shape)) {
        if (!box.holds(c->centre)) return;
        Circle moved = *c;
        moved.centre = at(c->centre);
        page.add(moved, item.tag);
    }
}

} // namespace

std::vector<Drawing> tiled(const Drawing& d, const std::string& title, const TileOptions& o) {
    const std::vector<Item> items = flatten(d);
    const int columns = std::max(1, static_cast<int>(std::ceil(d.width / o.tile_width - 1e-9)));
    const int rows = std::max(1, static_cast<int>(std::ceil(d.height / o.tile_height - 1e-9)));
    const double left = (o.page_width - o.tile_width) / 2, top = 12;
    std::vector<Drawing> pages;
    for (int r = 0; r < rows; ++r)
        for (int c = 0; c < columns; ++c) {
            const Box box{c * o.tile_width, r * o.tile_height, (c + 1) * o.tile_width, (r + 1) * o.tile_height};
            Drawing page;
            page.width = o.page_width;
            page.height = o.page_height;
            for (const Item& item : items) addClipped(page, item, box, {left - box.left, top - box.top});
            if (page.items.empty()) continue;
            for (const double x : {left, left + o.tile_width})
                for (const double y : {top, top + o.tile_height}) {
                    page.add(Stroke{{{x - 5, y}, {x + 5, y}}, false, {Ink::Second, 0.25, Dash::Solid}});
                    page.add(Stroke{{{x, y - 5}, {x, y + 5}}, false, {Ink::Second, 0.25, Dash::Solid}});
                }
            const double foot = top + o.tile_height + 9;
            page.add(Text{{left + 8, foot},
                          fmt::format("{}: row {} of {}, column {} of {}", title, r + 1, rows, c + 1, columns),
                          4,
                          Ink::Ink,
                          Anchor::Left,
                          Level::Base,
                          Face::Bold});
            page.add(Text{
                {left + 8, foot + 5.5}, "Lay the crosses on each other and glue. Print at 100 %, not fitted to the page.", 3.4});
            const double bar = o.page_width - left - 8;
            page.add(Stroke{{{bar - 100, foot + 13}, {bar, foot + 13}}, false, {Ink::Ink, 0.5, Dash::Solid}});
            for (const double x : {bar - 100, bar})
                page.add(Stroke{{{x, foot + 10}, {x, foot + 16}}, false, {Ink::Ink, 0.5, Dash::Solid}});
            page.add(Text{{bar - 102, foot + 14.5}, "100 mm: check before you trust it", 3.4, Ink::Ink, Anchor::Right});
            pages.push_back(std::move(page));
        }
    return pages;
}

void addAtFullSize(std::vector<Drawing>& pages, const PageTitle& title, const std::vector<std::string>& cautions,
                   const Drawing& d) {
    constexpr double foot_mm = 14;
    Area area;
    Drawing page = blankPage(title, cautions, area);
    if (d.width > area.width || d.height > area.height - foot_mm) {
        for (Drawing& tile : tiled(d, title.title, TileOptions::on(title.paper.height, title.paper.width)))
            pages.push_back(std::move(tile));
        return;
    }
    page.place(d, {area.x, area.y});
    addCheckBar(page, {area.x, area.y + area.height - 2});
    pages.push_back(std::move(page));
}

} // namespace gorvet::sheet
