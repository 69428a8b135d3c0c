#include "sheet/page.hpp"

#include "units/quantity.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::sheet {

namespace {
constexpr double margin_mm = 12;
const Format f = on_paper;
} // namespace

std::vector<std::string> wrapped(const std::string& text, double width, double size, Face face) {
    std::vector<std::string> lines;
    std::string line;
    size_t at = 0;
    while (at < text.size()) {
        size_t stop = text.find(' ', at);
        if (stop == std::string::npos) stop = text.size();
        const std::string word = text.substr(at, stop - at);
        const std::string longer = line.empty() ? word : line + " " + word;
        if (!line.empty() && textWidth(longer, size, face) > width) {
            lines.push_back(line);
            line = word;
        } else {
            line = longer;
        }
        at = stop + 1;
    }
    if (!line.empty()) lines.push_back(line);
    return lines;
}

Drawing blankPage(const PageTitle& title, const std::vector<std::string>& cautions, Area& area) {
    Drawing d;
    d.width = title.paper.width;
    d.height = title.paper.height;
    const double right = d.width - margin_mm;
    d.add(Text{{margin_mm, margin_mm + 5}, title.title, f.head(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
    d.add(Text{{right, margin_mm + 2}, title.build, f.lead(), Ink::Ink, Anchor::Right});
    d.add(Text{{right, margin_mm + 6.5}, title.note, f.small(), Ink::Second, Anchor::Right});
    d.add(Stroke{{{margin_mm, margin_mm + 8.5}, {right, margin_mm + 8.5}}, false, {Ink::Ink, f.medium(), Dash::Solid}});
    std::vector<std::string> lines;
    for (const std::string& caution : cautions)
        for (const std::string& line : wrapped(caution, d.width - 2 * margin_mm - 60, f.small())) lines.push_back(line);
    const double foot = d.height - margin_mm;
    const double top = foot - std::max<double>(static_cast<double>(lines.size()), 2) * 3.6 - 3;
    d.add(Stroke{{{margin_mm, top}, {right, top}}, false, {Ink::Ink, f.thin(), Dash::Solid}});
    for (size_t i = 0; i < lines.size(); ++i)
        d.add(Text{{margin_mm, top + 4 + 3.6 * static_cast<double>(i)}, lines[i], f.small(), Ink::Ink});
    d.add(Text{{right - 55, top + 4.5}, "checked by", f.small(), Ink::Second});
    d.add(Stroke{{{right - 36, top + 5}, {right, top + 5}}, false, {Ink::Second, f.thin(), Dash::Dotted}});
    d.add(Text{{right - 55, top + 9.5}, "date", f.small(), Ink::Second});
    d.add(Stroke{{{right - 36, top + 10}, {right, top + 10}}, false, {Ink::Second, f.thin(), Dash::Dotted}});
    area = {margin_mm, margin_mm + 11, d.width - 2 * margin_mm, top - margin_mm - 13};
    return d;
}

void numberPages(std::vector<Drawing>& pages) {
    for (size_t i = 0; i < pages.size(); ++i)
        pages[i].add(Text{{pages[i].width - margin_mm, pages[i].height - 5},
                          fmt::format("page {} of {}", i + 1, pages.size()),
                          f.small(),
                          Ink::Second,
                          Anchor::Right});
}

void addScale(Drawing& d, P at, double mm_per_mm, const Format& format) {
    if (format.unit >= 0.9 || !(mm_per_mm > 0)) return; // a screen
    const std::string scale = mm_per_mm <= 1 ? "1 : " + units::fixed(1 / mm_per_mm, 1) : units::fixed(mm_per_mm, 1) + " : 1";
    d.add(Text{at, scale + ". Its figures count; do not measure from the print.", format.small(), Ink::Second});
}

void addCheckBar(Drawing& d, P left) {
    d.add(Stroke{{left, {left.x + 100, left.y}}, false, {Ink::Ink, f.medium(), Dash::Solid}}, "check-bar");
    for (int i = 0; i <= 10; ++i) {
        const double x = left.x + 10 * i;
        const double tick = i % 5 == 0 ? 2.4 : 1.4;
        d.add(Stroke{{{x, left.y - tick}, {x, left.y}}, false, {Ink::Ink, f.thin(), Dash::Solid}});
    }
    d.add(Text{{left.x + 102, left.y}, "This bar must measure 100 mm; if not, print again at 100 %.", f.small(), Ink::Ink});
}

namespace {

constexpr double row_pitch = 1.55; // of the text size

/// The lines of each cell.
std::vector<std::vector<std::string>> linesOf(const std::vector<Column>& columns, const std::vector<std::string>& cells,
                                              double size) {
    std::vector<std::vector<std::string>> lines;
    for (size_t c = 0; c < columns.size(); ++c) {
        const std::string text = c < cells.size() ? cells[c] : std::string();
        const double room = columns[c].width - size * 0.8;
        const bool fits =
            !columns[c].wraps || text.find(' ') == std::string::npos || textWidth(text, size, columns[c].face) <= room;
        lines.push_back(fits ? std::vector{text} : wrapped(text, room, size));
    }
    return lines;
}
size_t most(const std::vector<std::vector<std::string>>& lines) {
    size_t n = 1;
    for (const auto& cell : lines) n = std::max(n, cell.size());
    return n;
}

} // namespace

double tableHeight(const std::vector<Column>& columns, const std::vector<std::vector<std::string>>& rows, double size) {
    double height = size * (1 + row_pitch * 1.1);
    for (const auto& row : rows) height += size * row_pitch * static_cast<double>(most(linesOf(columns, row, size)));
    return height;
}

std::vector<Column> fittedTo(std::vector<Column> columns, double width) {
    double sum = 0;
    for (const Column& c : columns) sum += c.width;
    if (sum > width)
        for (Column& c : columns) c.width *= width / sum;
    return columns;
}

size_t addTable(Drawing& d, const Area& area, const std::vector<Column>& wanted,
                const std::vector<std::vector<std::string>>& rows, double size, size_t first) {
    const std::vector<Column> columns = fittedTo(wanted, area.width);
    const double line = size * row_pitch;
    const auto row = [&](double y, const std::vector<std::vector<std::string>>& cells, bool heading) {
        double x = area.x;
        for (size_t c = 0; c < columns.size(); ++c) {
            const Column& column = columns[c];
            const double at = column.anchor == Anchor::Left     ? x + size * 0.5
                              : column.anchor == Anchor::Centre ? x + column.width / 2
                                                                : x + column.width - size * 0.3;
            const std::vector<std::string> lines = heading ? std::vector{column.heading} : cells[c];
            for (size_t k = 0; k < lines.size(); ++k)
                if (!lines[k].empty())
                    d.add(Text{{at, y + static_cast<double>(k) * line},
                               lines[k],
                               size,
                               heading ? Ink::Second : Ink::Ink,
                               column.anchor,
                               Level::Base,
                               heading ? Face::Sans : column.face});
            x += column.width;
        }
        return x;
    };
    double y = area.y + size;
    const double right = row(y, {}, true);
    d.add(Stroke{{{area.x, y + size * 0.4}, {right, y + size * 0.4}}, false, {Ink::Ink, f.thin(), Dash::Solid}});
    y += line * 1.1;
    size_t i = first;
    for (; i < rows.size(); ++i) {
        const auto cells = linesOf(columns, rows[i], size);
        const double more = line * static_cast<double>(most(cells) - 1);
        if (y + more > area.y + area.height && i > first) break;
        if (y > area.y + area.height) break;
        row(y, cells, false);
        y += more;
        d.add(Stroke{{{area.x, y + size * 0.42}, {right, y + size * 0.42}}, false, {Ink::Faint, f.thin() * 0.5, Dash::Solid}});
        y += line;
    }
    return i;
}

} // namespace gorvet::sheet
