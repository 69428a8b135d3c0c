#include "analysis/emblem.hpp"

#include "analysis/views.hpp"
#include "tape/ghost.hpp"

#include <algorithm>

namespace gorvet::analysis {

using namespace sheet;

namespace {

/// The lines moved and scaled; their weights stay.
Item moved(Item item, double scale, P from, P to) {
    const auto at = [&](P p) { return P{to.x + (p.x - from.x) * scale, to.y + (p.y - from.y) * scale}; };
    if (auto* stroke = std::get_if<Stroke>(&item.shape)) {
        for (P& p : stroke->path) p = at(p);
    } else if (auto* circle = std::get_if<Circle>(&item.shape)) {
        circle->centre = at(circle->centre);
        circle->radius *= scale;
    } else if (auto* fill = std::get_if<Fill>(&item.shape)) {
        for (P& p : fill->polygon) p = at(p);
    }
    item.tag.clear();
    return item;
}

} // namespace

Drawing emblem(const build::Build& b, const Results& r, double width, double height, const Format& f) {
    // drawn as large as on the desk, then what is left of it without its words fills the picture
    constexpr double desk = 900;
    constexpr double rule = 110;
    if (ruleScale(b, r, desk, {}) <= 0) return tape::ghostPicture(tape::ghostOf(b.settings.frame_kind), width, height, f);
    std::vector<Item> lines;
    for (const Item& item : flatten(ruleView(b, r, {}, desk, rule, {}))) {
        const bool tag = item.tag.starts_with("finding");
        const auto* stroke = std::get_if<Stroke>(&item.shape);
        const bool edge = stroke && stroke->path.size() == 2 && stroke->path[1].x - stroke->path[0].x > desk * 0.9;
        if (!tag && !edge && !std::holds_alternative<Text>(item.shape)) lines.push_back(item);
    }
    const Extent e = extent(lines);
    const double margin = f.px(12);
    const double scale =
        std::min((width - 2 * margin) / std::max(1.0, e.right - e.left), (height - 2 * margin) / std::max(1.0, e.bottom - e.top));
    const P from{(e.left + e.right) / 2, (e.top + e.bottom) / 2};
    Drawing small;
    small.width = width;
    small.height = height;
    for (Item& item : lines) small.items.push_back(moved(std::move(item), scale, from, {width / 2, height / 2}));
    return small;
}

} // namespace gorvet::analysis
