// The build sheet: one page that a builder signs, what it rests on behind it.
#include "analysis/bench.hpp"
#include "analysis/export.hpp"
#include "analysis/findings.hpp"
#include "analysis/pages.hpp"
#include "analysis/views.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

/// The sentence of each bench, one below the other. Returns where they end.
double addSentences(Drawing& page, const Area& area, const Build& b, const Results& r) {
    double y = area.y;
    const bool any =
        std::any_of(benches().begin(), benches().end(), [&](const BenchInfo* bench) { return begun(b, r, bench->key); });
    for (const BenchInfo* bench : benches()) {
        if (any && !begun(b, r, bench->key)) continue; // nothing of it was done yet: there is nothing to sign
        const Headline h = bench->headline(b, r, the_chassis);
        addMark(page, {area.x + 3, y + 2.8}, 4, worstOf(r.findings, bench->key).severity);
        page.add(Text{{area.x + 9, y + 4.3}, bench->name, on_paper.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        double line_y = y + 4.3;
        for (const std::string& line : wrapped(h.sentence, area.width - 36, on_paper.lead())) {
            page.add(Text{{area.x + 34, line_y}, line, on_paper.lead()});
            line_y += 4.6;
        }
        for (const std::string& line : wrapped(h.below, area.width - 36, on_paper.small())) {
            page.add(Text{{area.x + 34, line_y - 0.4}, line, on_paper.small(), Ink::Second});
            line_y += 3.6;
        }
        y = line_y + 0.1;
    }
    return y;
}

/// What is worst, as far as the height reaches, and how much more there is.
void addWorst(Drawing& page, const Area& area, const Results& r) {
    page.add(Text{
        {area.x, area.y + 4}, "To see to before it is signed", on_paper.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
    if (r.findings.empty()) {
        page.add(Text{{area.x, area.y + 9}, "Nothing was found that needs seeing to.", on_paper.body()});
        return;
    }
    std::vector<const Finding*> worst_first;
    for (const Finding& f : r.findings) worst_first.push_back(&f);
    std::stable_sort(worst_first.begin(), worst_first.end(),
                     [](const Finding* a, const Finding* b) { return a->severity > b->severity; });
    double y = area.y + 9;
    size_t shown = 0;
    for (const Finding* finding : worst_first) {
        const Finding& f = *finding;
        const auto lines = wrapped(f.sentence, area.width - 7, on_paper.small());
        const double height = 3.6 * static_cast<double>(lines.size()) + 0.8;
        if (y + height > area.y + area.height - 4) break;
        addMark(page, {area.x + 2, y - 1}, 2.6, f.severity);
        for (const std::string& line : lines) {
            page.add(Text{{area.x + 6, y}, line, on_paper.small()});
            y += 3.6;
        }
        y += 0.8;
        ++shown;
    }
    if (shown < r.findings.size())
        page.add(Text{{area.x + 6, y},
                      fmt::format("and {} more: see \"What to see to\" behind the order of work", r.findings.size() - shown),
                      on_paper.small(),
                      Ink::Second});
}

/// Who stands for it: three lines to sign on.
void addSignatures(Drawing& page, const Area& area) {
    static constexpr const char* who[] = {"planned by", "built as planned, by", "approved by (licensed)"};
    double y = area.y + 4;
    page.add(Text{{area.x, y}, "Signed", on_paper.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
    const double pitch = std::min(13.0, (area.height - 8) / 3);
    for (const char* name : who) {
        y += pitch;
        page.add(Stroke{{{area.x, y}, {area.x + area.width * 0.66, y}}, false, {Ink::Ink, on_paper.thin(), Dash::Solid}});
        page.add(
            Stroke{{{area.x + area.width * 0.7, y}, {area.x + area.width, y}}, false, {Ink::Ink, on_paper.thin(), Dash::Solid}});
        page.add(Text{{area.x, y + 3.2}, name, on_paper.small(), Ink::Second});
        page.add(Text{{area.x + area.width * 0.7, y + 3.2}, "date", on_paper.small(), Ink::Second});
    }
}

Drawing firstPage(const Build& b, const Results& r) {
    Area area;
    Drawing page = blankPage(titled(b, r, "Build sheet"), {no_certificate, local_rules, stands}, area);
    const double after = addSentences(page, area, b, r);
    const double rule_height = 118 * on_paper.unit;
    const double bottom = area.y + area.height;
    page.place(ruleView(b, r, {}, area.width, rule_height, on_paper), {area.x, after});
    const double top = after + rule_height + 1;
    addWorst(page, {area.x, top, area.width * 0.6 - 6, bottom - top}, r);
    addSignatures(page, {area.x + area.width * 0.6, top, area.width * 0.4, bottom - top});
    return page;
}

/// How each survey was taken.
void addSessions(std::vector<Drawing>& pages, const Build& b, const Results& r) {
    if (b.sessions.empty()) return;
    std::vector<std::vector<std::string>> rows;
    for (const auto& [id, s] : b.sessions)
        rows.push_back({nameOf(b, s.subject), s.name, std::string(word(s.attitude)), std::string(word(s.support)), s.support_at,
                        s.carried_mass_kg > 0 ? units::formatMass(s.carried_mass_kg) : "", s.note});
    addTablePages(pages, titled(b, r, "How it was measured"), {stands},
                  {{"measured", 32},
                   {"session", 46},
                   {"attitude", 32},
                   {"on", 28},
                   {"at", 50},
                   {"carrying", 24},
                   {"note", 60, Anchor::Left, Face::Sans, true}},
                  rows);
}

} // namespace

std::vector<Drawing> buildSheet(const Build& b, const Results& r) {
    std::vector<Drawing> pages{firstPage(b, r)};
    for (const BenchInfo* bench : benches())
        if (bench->pages) bench->pages(b, r, pages);
    addFindings(pages, b, r);
    const size_t annex = pages.size();
    addSessions(pages, b, r);
    for (const BenchInfo* bench : benches())
        if (bench->annex) bench->annex(b, r, pages);
    numberPages(pages);
    for (size_t i = annex; i < pages.size(); ++i)
        pages[i].add(Text{{pages[i].width / 2, pages[i].height - 5}, "annex", on_paper.small(), Ink::Second, Anchor::Centre});
    return pages;
}

} // namespace gorvet::analysis
