// The cut of a spine platform: its sheet, page and patterns.
#include "analysis/spine.hpp"

#include "analysis/origin.hpp"
#include "analysis/pages.hpp"
#include "sheet/write.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

const char* const thin_sheet =
    "Thin sheet warps and burns through: short plugs far from each other, the edge cooled, never a line in one go. What carries is welded or "
    "approved by licensed people.";

/// The marks whose diagonals the hold points ask for: two ahead of the cut, two behind it.
std::vector<std::pair<std::string, std::array<double, 2>>> corners(const Build& b, const Results& r) {
    std::vector<std::pair<std::string, std::array<double, 2>>> list;
    if (r.work_facts.diagonals.size() < 2) return list;
    const work::Distance &one = r.work_facts.diagonals[0], &two = r.work_facts.diagonals[1];
    for (const PointId id : {one.from, two.from, two.to, one.to})
        if (const auto at = r.chassis.positionOf(id)) list.push_back({nameOf(b, id), {at->x_mm, at->y_mm}});
    return list;
}

} // namespace

sheet::Drawing spineDrawing(const Build& b, const Results& r, double width, double height, const sheet::Format& f) {
    const auto step = b.settings.length_step;
    const stretch::SpineView v{&r.stretch.input(), &*r.stretch, [step](double mm) { return units::formatLength(mm, step); },
                               corners(b, r)};
    return stretch::spineSheet(v, width, std::max(height, f.px(stretch::spine_sheet_least_px)), f);
}

std::optional<std::string> spineSentence(const Build& b, const Results& r) {
    const auto& p = *r.stretch;
    if (!p.spine) return {};
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    const auto& cuts = p.spine->cuts;
    return fmt::format("Cut the spine at {}, its pans at {} and {}, and {} {}.", len(cuts[0].first_mm), len(cuts[1].first_mm),
                       len(cuts[2].first_mm), p.shortens ? "take out" : "let in", len(p.left.length_mm));
}

void addSpineFiles(const Build&, const Results& r, FileKeeper& out) {
    if (!r.file_damage.empty() || !r.stretch->spine) return; // nothing that a machine cuts from comes out of a damaged file
    const stretch::SpinePlan& s = *r.stretch->spine;
    out.keep("saddle.dxf", [&](const auto& to) { return sheet::writeDxf(stretch::saddlePattern(s), to); });
    if (!s.windows.empty())
        out.keep("window-cover.dxf",
                 [&](const auto& to) { return sheet::writeDxf(stretch::coverPattern(s.windows.front()), to); });
}

std::vector<sheet::Drawing> spinePages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    if (!r.stretch->spine) return pages;
    const stretch::SpinePlan& s = *r.stretch->spine;
    sheet::Area area;
    sheet::Drawing page =
        sheet::blankPage(titled(b, r, "Stretch: saddle and covers, flat"), {thin_sheet, no_certificate, local_rules}, area);
    addHeadline(
        page, area,
        {fmt::format("One saddle of {:.1f} × {:.1f} × {:.1f}; {}.", s.saddle_long_mm, s.saddle_blank_mm, s.saddle_wall_mm,
                     s.windows.empty() ? "no window"
                                       : fmt::format("{} of {:.0f} × {:.0f}", units::counted(s.windows.size(), "a cover"),
                                                     s.windows.front().cover_long_mm, s.windows.front().cover_wide_mm)),
         "Cut from saddle.dxf and window-cover.dxf; do not measure from this page. Bend at the dashed lines, 90° down, inside radius as the wall."});
    placeFitted(page, area, [&](double w, double h, const sheet::Format& f) {
        sheet::Drawing d;
        d.width = w;
        d.height = h;
        double y = f.body();
        const auto put = [&](const sheet::Drawing& pattern, const std::string& name) {
            d.add(
                sheet::Text{{0, y}, name, f.body(), sheet::Ink::Ink, sheet::Anchor::Left, sheet::Level::Base, sheet::Face::Bold});
            const double scale = std::min(w / pattern.width, (h * 0.4) / pattern.height);
            y += f.px(10);
            for (const sheet::Item& item : pattern.items) {
                if (const auto* line = std::get_if<sheet::Stroke>(&item.shape)) {
                    sheet::Stroke s2 = *line;
                    for (sheet::P& p : s2.path) p = {p.x * scale, y + p.y * scale};
                    s2.pen.weight = f.thin();
                    d.add(s2);
                } else if (const auto* hole = std::get_if<sheet::Circle>(&item.shape)) {
                    sheet::Circle c = *hole;
                    c.centre = {c.centre.x * scale, y + c.centre.y * scale};
                    c.radius *= scale;
                    c.pen.weight = f.thin();
                    d.add(c);
                }
            }
            y += pattern.height * scale + f.px(34);
        };
        put(stretch::saddlePattern(s),
            fmt::format("Saddle, flat, {} holes of {:.0f}", stretch::saddleHoles(s).size(), s.plug_mm));
        if (!s.windows.empty())
            put(stretch::coverPattern(s.windows.front()), fmt::format("Cover of a window, {} screws", s.windows.front().screws));
        return d;
    });
    pages.push_back(std::move(page));
    return pages;
}

} // namespace gorvet::analysis
