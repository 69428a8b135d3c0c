#include "analysis/pages.hpp"

#include "analysis/bench.hpp"
#include "analysis/origin.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

const char* const local_rules =
    "Follow the local vehicle-modification and roadworthiness rules. Structural, brake, steering and wheel welding is done or approved by licensed people.";
const char* const stands =
    "Measure and work with the frame on stands that can't slip; never reach under a body that hangs or a chassis on a jack.";
const char* const hot_work =
    "Before cutting or welding: fuel tank out and lines capped, battery off, restraint systems and refrigerant left to licensed people, a person with an extinguisher watching.";
const char* const no_certificate = "These figures come from your readings and certify nothing.";

PaperSize paperOf(const Build& b) { return b.settings.paper == Paper::Letter ? letter : b.settings.paper == Paper::A3 ? a3 : a4; }

PageTitle titled(const Build& b, const Results& r, const std::string& title, SubjectId subject) {
    return {title, b.settings.name,
            (r.file_damage.empty() ? std::string() : "FROM A DAMAGED FILE: " + r.file_damage.front() + ". ") +
                fmt::format("{} on {}, revision {}; stations {}", b.settings.body_name, b.settings.chassis_name, r.revision,
                            subject == the_chassis ? originOf(b, r).from
                                                   : fmt::format("on the axes of the {}, not the chassis'", nameOf(b, subject))),
            paperOf(b)};
}

/// As many pages as the rows need.
void addListingPages(std::vector<Drawing>& pages, const PageTitle& title, const std::vector<std::string>& cautions,
                     const Listing& list, const std::vector<double>& widths) {
    if (list.rows.empty()) return;
    std::vector<std::vector<std::string>> rows;
    for (const ListRow& row : list.rows) {
        rows.emplace_back();
        for (const ListCell& cell : row.cells) rows.back().push_back(cell.text);
    }
    std::vector<Column> columns;
    for (std::size_t k = 0; k < list.columns.size(); ++k)
        columns.push_back({list.columns[k], widths[k], Anchor::Left, Face::Sans, true});
    addTablePages(pages, title, cautions, columns, rows);
}

void addTablePages(std::vector<Drawing>& pages, const PageTitle& title, const std::vector<std::string>& cautions,
                   const std::vector<Column>& columns, const std::vector<std::vector<std::string>>& rows) {
    size_t next = 0;
    do {
        Area area;
        Drawing page = blankPage(title, cautions, area);
        next = addTable(page, area, columns, rows, on_paper.small(), next);
        pages.push_back(std::move(page));
    } while (next < rows.size());
}

void addHeadline(Drawing& page, Area& area, const Headline& h) {
    for (const std::string& line : wrapped(h.sentence, area.width, on_paper.head())) {
        page.add(Text{{area.x, area.y + on_paper.head()}, line, on_paper.head(), Ink::Ink});
        area.y += on_paper.head() * 1.3;
        area.height -= on_paper.head() * 1.3;
    }
    for (const std::string& line : wrapped(h.below, area.width, on_paper.body())) {
        page.add(Text{{area.x, area.y + on_paper.body() * 1.2}, line, on_paper.body(), Ink::Second});
        area.y += on_paper.body() * 1.4;
        area.height -= on_paper.body() * 1.4;
    }
    area.y += 3;
    area.height -= 3;
}

Drawing benchPage(const Build& b, const Results& r, const std::string& title, std::string_view bench, SubjectId subject,
                  const std::vector<std::string>& cautions) {
    Area area;
    Drawing page = blankPage(titled(b, r, title, bench == "tape" ? subject : the_chassis), cautions, area);
    addHeadline(page, area, headline(b, r, bench, subject));
    const Drawing view = benchOf(bench)->views.front().draw(b, r, subject, {}, area.width, area.height, on_paper);
    page.place(view, {area.x, area.y});
    return page;
}

std::vector<Drawing> longPages(const PageTitle& title, const std::vector<std::string>& cautions, std::size_t count,
                               const DrawRange& draw) {
    std::vector<Drawing> pages;
    for (std::size_t first = 0; first < count;) {
        Area area;
        Drawing page = blankPage(title, cautions, area);
        std::size_t until = count;
        Drawing d = draw(first, until, area.width, area.height, on_paper);
        while (d.height > area.height + 0.01 && until > first + 1) {
            until -= std::max<std::size_t>(1, (until - first) / 6);
            d = draw(first, until, area.width, area.height, on_paper);
        }
        page.place(d, {area.x, area.y});
        pages.push_back(std::move(page));
        first = until;
    }
    return pages;
}

/// What wants more height than the page has is drawn smaller, down to two thirds.
void placeFitted(Drawing& page, const Area& area, const std::function<Drawing(double, double, const Format&)>& draw) {
    Format f = on_paper;
    Drawing d = draw(area.width, area.height, f);
    for (const double least = on_paper.unit * 0.66; d.height > area.height + 0.01 && f.unit > least;) {
        f.unit *= 0.94;
        d = draw(area.width, area.height, f);
    }
    page.place(d, {area.x, area.y});
}

void addFindings(std::vector<Drawing>& pages, const Build& b, const Results& r,
                 const std::function<bool(const Finding&)>& wanted) {
    Area area;
    Drawing page = blankPage(titled(b, r, "What to see to"), {local_rules}, area);
    double y = area.y + 4;
    if (std::none_of(r.findings.begin(), r.findings.end(), wanted))
        page.add(Text{{area.x, y}, "Nothing was found that needs seeing to.", on_paper.body()});
    for (const Finding& f : r.findings) {
        if (!wanted(f)) continue;
        const auto lines = wrapped(f.sentence + " " + f.remedy, area.width - 62, on_paper.body());
        if (y + 4.4 * static_cast<double>(lines.size()) > area.y + area.height) {
            pages.push_back(std::move(page));
            page = blankPage(titled(b, r, "What to see to"), {local_rules}, area);
            y = area.y + 4;
        }
        addMark(page, {area.x + 2.5, y - 1.2}, 3.2, f.severity);
        page.add(Text{{area.x + 7, y}, benchName(f), on_paper.body(), Ink::Second});
        page.add(Text{{area.x + 26, y}, f.word, on_paper.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        for (const std::string& line : lines) {
            page.add(Text{{area.x + 50, y}, line, on_paper.body()});
            y += 4.4;
        }
        // a box to tick and room for a figure written by hand
        page.add(Stroke{{{area.x + area.width - 8, y - 8},
                         {area.x + area.width - 4, y - 8},
                         {area.x + area.width - 4, y - 4},
                         {area.x + area.width - 8, y - 4}},
                        true,
                        {Ink::Second, 0.2, Dash::Solid}});
        y += 2;
    }
    pages.push_back(std::move(page));
}

} // namespace gorvet::analysis
