#include "work/register_sheet.hpp"

#include "sheet/code.hpp"
#include "work/table_pages.hpp"

#include <algorithm>

namespace gorvet::work {

using namespace build;
using namespace sheet;

namespace {

std::string box(const std::optional<Signed>& s) { return s ? s->at_utc.substr(0, 10) + " " + s->who : "[    ]"; }

/// Rows by area, areas and rows as they came.
std::vector<const Release*> byArea(const std::vector<Release>& rows) {
    std::vector<std::string> areas;
    for (const Release& r : rows)
        if (std::find(areas.begin(), areas.end(), r.area) == areas.end()) areas.push_back(r.area);
    std::vector<const Release*> list;
    for (const std::string& area : areas)
        for (const Release& r : rows)
            if (r.area == area) list.push_back(&r);
    return list;
}

} // namespace

std::vector<Drawing> registerSheet(const std::vector<Release>& all, const PageTitle& title,
                                   const std::vector<std::string>& cautions) {
    std::vector<Drawing> pages;
    if (all.empty()) return pages;
    const auto rows = byArea(all);
    std::vector<std::vector<std::string>> undo, refit;
    for (const Release* r : rows)
        undo.push_back({r->name, r->area, r->joins,
                        r->how + (r->seized ? (r->how.empty() ? "seized: soak it" : "; seized: soak it") : ""), r->cap,
                        r->bag.empty() ? r->name : r->bag, r->frees.empty() ? "the body" : r->frees, box(r->released),
                        box(r->proved)});
    for (auto r = rows.rbegin(); r != rows.rend(); ++r) {
        if ((*r)->fate == Fate::Scrap) continue;
        std::string fastener = (*r)->renew ? "renew" : "use again";
        if ((*r)->captive) fastener += ", held nut";
        refit.push_back(
            {(*r)->name, (*r)->area, (*r)->joins, (*r)->bag.empty() ? (*r)->name : (*r)->bag, fastener,
             (*r)->torque_nm > 0 ? fmt::format("{:g} N·m{}", (*r)->torque_nm, (*r)->on_wheels ? ", on its wheels" : "") : "",
             box((*r)->refitted), box((*r)->tightened)});
    }
    addTableUnder(pages, title, cautions, "To be undone, and seen free once more on another walk-round",
                  {{"tag", 30, Anchor::Left, Face::Bold},
                   {"where", 32, Anchor::Left, Face::Sans, true},
                   {"joins", 42, Anchor::Left, Face::Sans, true},
                   {"how", 48, Anchor::Left, Face::Sans, true},
                   {"cap or plug", 26, Anchor::Left, Face::Sans, true},
                   {"bag", 24, Anchor::Left, Face::Sans, true},
                   {"for", 24, Anchor::Left, Face::Sans, true},
                   {"undone", 28},
                   {"seen free", 28}},
                  undo);
    if (!refit.empty())
        addTableUnder(pages, title, cautions, "To go on again: the same backwards",
                      {{"tag", 32, Anchor::Left, Face::Bold},
                       {"where", 36, Anchor::Left, Face::Sans, true},
                       {"joins", 50, Anchor::Left, Face::Sans, true},
                       {"bag", 28, Anchor::Left, Face::Sans, true},
                       {"fastener", 36, Anchor::Left, Face::Sans, true},
                       {"torque", 40, Anchor::Left, Face::Sans, true},
                       {"on again", 30},
                       {"tightened", 30}},
                      refit);
    return pages;
}

const std::vector<LabelStock>& labelStocks() {
    static const std::vector<LabelStock> stocks = {
        {"70x37", 210, 297, 3, 8, 0, 0.5, 70, 37, 70, 37},
        {"63.5x38.1", 210, 297, 3, 7, 7.25, 15.15, 66, 38.1, 63.5, 38.1},
        {"48.5x25.4", 210, 297, 4, 11, 8, 8.8, 48.5, 25.4, 48.5, 25.4},
        {"66.7x25.4", 215.9, 279.4, 3, 10, 4.8, 12.7, 69.85, 25.4, 66.7, 25.4}, // on letter paper: 2 5/8" × 1"
    };
    return stocks;
}

const LabelStock* labelStock(std::string_view key) {
    for (const LabelStock& s : labelStocks())
        if (key == s.key) return &s;
    return nullptr;
}

std::string labelLine(const Release& r) { return "row " + r.name; }

Result<std::vector<Drawing>> labelSheets(const std::vector<Release>& rows, const LabelStock& stock, int first) {
    std::vector<Drawing> pages;
    const int of_page = stock.across * stock.down;
    int place = std::max(0, first) % of_page;
    for (const Release& r : rows) {
        if (pages.empty() || place == of_page) {
            if (!pages.empty()) place = 0;
            pages.emplace_back();
            pages.back().width = stock.paper_width;
            pages.back().height = stock.paper_height;
        }
        Drawing& page = pages.back();
        const double x = stock.left + (place % stock.across) * stock.pitch_x,
                     y = stock.top + (place / stock.across) * stock.pitch_y;
        ++place;
        constexpr double edge = 2.5;
        const double code = std::min(stock.height - 2 * edge, 26.0);
        if (auto made = addCode(page, {x + edge, y + (stock.height - code) / 2}, code, labelLine(r)); !made) return made.error();
        const double left = x + edge + code + 1, width = stock.width - code - 2 * edge - 1;
        double at = y + edge + 4;
        const auto lines = [&](const std::string& text, double size, Face face, size_t most) {
            if (text.empty()) return;
            auto broken = wrapped(text, width, size, face);
            for (size_t k = 0; k < broken.size() && k < most; ++k) {
                if (at > y + stock.height - 1.5) return;
                // a word that is wider than the label is cut, not printed over its neighbour
                std::string line = broken[k];
                while (line.size() > 1 && textWidth(line, size, face) > width) {
                    while ((static_cast<unsigned char>(line.back()) & 0xC0U) == 0x80U)
                        line.pop_back(); // a sign is whole or not there
                    line.pop_back();
                }
                page.add(Text{{left, at}, line, size, Ink::Ink, Anchor::Left, Level::Base, face});
                at += size * 1.2;
            }
        };
        lines(r.name, 3.6, Face::Bold, 2);
        lines(r.area, 2.6, Face::Sans, 1);
        lines(r.joins, 2.6, Face::Sans, 2);
        lines(r.bag.empty() || r.bag == r.name ? "" : "bag " + r.bag, 2.6, Face::Sans, 1);
        lines(r.fate == Fate::Scrap ? "scrap" : r.renew ? "renew the fastener" : "", 2.6, Face::Sans, 1);
    }
    return pages;
}

} // namespace gorvet::work
