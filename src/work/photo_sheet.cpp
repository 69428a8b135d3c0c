#include "work/photo_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::work {

using namespace sheet;

namespace {

double heading(Drawing& d, P at, double width, const std::string& text, const Format& f) {
    d.add(Text{{at.x, at.y + f.lead()}, text, f.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
    const double y = at.y + f.lead() + f.px(8);
    d.add(Stroke{{{at.x, y}, {at.x + width, y}}, false, {Ink::Ink, f.medium(), Dash::Solid}});
    return y + f.px(8);
}

/// A pair side by side under its place; returns where it ends.
double pair(Drawing& d, const PhotoPair& p, P at, double width, double picture, const Format& f, const std::string& selected) {
    d.add(Text{{at.x, at.y + f.body()}, p.place, f.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
    constexpr double widest = 1.5; // of a picture's width over its height
    const double gap = f.px(8), half = std::min((width - gap) / 2, widest * picture), top = at.y + f.body() * 1.5;
    double y = top;
    for (const auto& [photo, x, what] :
         {std::tuple{&p.before, at.x, "before"}, std::tuple{&p.after, at.x + half + gap, "after"}}) {
        PhotoShown shown = *photo;
        shown.what = std::string(what) + (shown.what.empty() ? "" : ": " + shown.what);
        y = std::max(y, top + addPhoto(d, shown, {x, top}, half, picture, f, selected == "photo:" + shown.name));
    }
    return y;
}

} // namespace

double addPhoto(Drawing& d, const PhotoShown& p, P at, double width, double height, const Format& f, bool strong) {
    const std::string tag = "photo:" + p.name;
    d.add(Fill{{at, {at.x + width, at.y}, {at.x + width, at.y + height}, {at.x, at.y + height}}, Ink::Panel}, tag);
    if (p.bytes && !p.bytes->empty())
        d.add(Picture{at, width, height, p.bytes}, tag);
    else
        d.add(Text{{at.x + width / 2, at.y + height / 2},
                   p.voice    ? "a spoken note"
                   : p.unread ? "it can't be read"
                              : "being made …",
                   f.small(),
                   Ink::Second,
                   Anchor::Centre,
                   Level::Middle},
              tag);
    d.add(Stroke{{at, {at.x + width, at.y}, {at.x + width, at.y + height}, {at.x, at.y + height}},
                 true,
                 {strong ? Ink::Ink : Ink::Faint, strong ? f.medium() : f.thin(), Dash::Solid}},
          tag);
    double y = at.y + height + f.small() * 1.25;
    d.add(Text{{at.x, y}, p.name + "  " + p.when, f.small(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, tag);
    constexpr std::size_t most_lines = 2;
    std::vector<std::string> lines = wrapped(p.what, width, f.small());
    if (lines.size() > most_lines) {
        lines.resize(most_lines);
        lines.back() += " …";
    }
    for (const std::string& line : lines) {
        y += f.small() * 1.25;
        d.add(Text{{at.x, y}, line, f.small(), Ink::Second}, tag);
    }
    return height + f.small() * 1.25 * static_cast<double>(1 + lines.size()) + f.px(8);
}

Drawing photoSheet(const PhotosView& v, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    double y = 0;
    const double gap = f.px(20);
    if (!v.pairs.empty()) {
        y = heading(d, {0, y}, width, "Before and after", f);
        const int columns = width > f.px(1000) ? 2 : 1;
        const double one = (width - gap * (columns - 1)) / columns;
        for (std::size_t k = 0; k < v.pairs.size(); k += static_cast<std::size_t>(columns)) {
            double below = y;
            for (std::size_t c = 0; c < static_cast<std::size_t>(columns) && k + c < v.pairs.size(); ++c)
                below = std::max(below, pair(d, v.pairs[k + c], {static_cast<double>(c) * (one + gap), y}, one,
                                             std::min(one * 0.36, f.px(230)), f, v.selected));
            y = below + f.px(12);
        }
    }
    y = heading(d, {0, y}, width, v.all > v.newest.size() ? fmt::format("The newest {} of {}", v.newest.size(), v.all) : "Lately",
                f);
    const int columns = std::clamp(static_cast<int>(width / f.px(230)), 1, 6);
    const double one = (width - gap * 0.6 * (columns - 1)) / columns;
    for (std::size_t k = 0; k < v.newest.size(); k += static_cast<std::size_t>(columns)) {
        double tallest = 0;
        for (std::size_t c = 0; c < static_cast<std::size_t>(columns) && k + c < v.newest.size(); ++c) {
            const PhotoShown& p = v.newest[k + c];
            tallest = std::max(tallest, addPhoto(d, p, {static_cast<double>(c) * (one + gap * 0.6), y}, one, one * 0.72, f,
                                                 v.selected == "photo:" + p.name));
        }
        y += tallest + f.px(6);
    }
    d.height = std::max(height, y);
    return d;
}

std::vector<Drawing> photoPages(const PhotosView& v, const PageTitle& title, const std::vector<std::string>& cautions) {
    std::vector<Drawing> pages;
    Area area;
    constexpr std::size_t pairs_a_page = 2, wide = 4, high = 3;
    for (std::size_t k = 0; k < v.pairs.size(); k += pairs_a_page) {
        Drawing page = blankPage(title, cautions, area);
        double y = heading(page, {area.x, area.y}, area.width, "Before and after", on_paper);
        const double each = (area.y + area.height - y) / pairs_a_page;
        for (std::size_t c = 0; c < pairs_a_page && k + c < v.pairs.size(); ++c, y += each)
            pair(page, v.pairs[k + c], {area.x, y}, area.width, each - on_paper.px(85), on_paper, {});
        pages.push_back(std::move(page));
    }
    for (std::size_t k = 0; k < v.newest.size(); k += wide * high) {
        Drawing page = blankPage(title, cautions, area);
        const double top = heading(page, {area.x, area.y}, area.width, "Lately", on_paper);
        const double gap = on_paper.px(12), one = (area.width - gap * (wide - 1)) / wide,
                     each = (area.y + area.height - top) / high;
        for (std::size_t c = 0; c < wide * high && k + c < v.newest.size(); ++c)
            addPhoto(page, v.newest[k + c],
                     {area.x + static_cast<double>(c % wide) * (one + gap), top + static_cast<double>(c / wide) * each}, one,
                     each - on_paper.px(64), on_paper);
        pages.push_back(std::move(page));
    }
    return pages;
}

} // namespace gorvet::work
