// Parts of new steel on paper and in files, and the cut list of all new steel.
#include "analysis/issued.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/listing_cells.hpp"
#include "analysis/pages.hpp"
#include "analysis/part_frame.hpp"
#include "analysis/part_views.hpp"
#include "analysis/parts.hpp"
#include "files/out_file.hpp"
#include "formats/csv.hpp"
#include "make/crossmember.hpp"
#include "make/flat_sheet.hpp"
#include "make/part_sheet.hpp"
#include "make/press.hpp"
#include "sheet/tiles.hpp"
#include "sheet/write.hpp"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

constexpr std::size_t most_with_ends = 2; ///< of more bars the table alone says how their ends are cut

/// From the side, from above and from behind, at one scale, and as it stands in space.
Drawing trueViews(const PartViews& part, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    double mm_a_unit = 0;
    const double wide = width / 2 - f.px(20), high = (height - f.px(24)) / 2 - f.px(30);
    for (const PartViews::View& v : part.views) {
        const auto [w, h] = make::linesSize(v.lines);
        mm_a_unit = std::max({mm_a_unit, w / wide, h / high});
    }
    if (!(mm_a_unit > 0)) return d;
    for (std::size_t k = 0; k < part.views.size(); ++k) {
        const P at{k % 2 ? width / 2 + f.px(10) : 0, k / 2 ? (height - f.px(24)) / 2 : 0};
        d.add(Text{{at.x, at.y + f.small()}, part.views[k].words, f.small(), Ink::Second});
        d.place(make::linesDrawing(part.views[k].lines, wide, high, mm_a_unit, f), {at.x, at.y + f.px(20)});
    }
    addScale(d, {0, height - f.px(2)}, 1 / mm_a_unit, f);
    return d;
}

/// Of what is called so: letters, figures, points and dashes only, and no file twice.
std::string fileFor(const std::string& called, std::set<std::string>& used) {
    std::string plain;
    for (const char c : called) plain += std::isalnum(static_cast<unsigned char>(c)) || c == '.' || (c & 0x80) ? c : '-';
    std::string name = plain;
    for (int n = 2; !used.insert(name).second; ++n) name = fmt::format("{}-{}", plain, n);
    return fmt::format("part-{}.dxf", name);
}

std::vector<std::string> cautionsOf() { return {part_caution, local_rules, hot_work}; }

void addPartPages(const Build& b, const Results& r, const IssuesNow& issues, const Node<make::PartIn, make::PartPlan>& node,
                  bool templates, std::vector<Drawing>& pages) {
    const make::PartIn& in = node.input();
    const make::PartPlan& p = *node;
    const auto drawn = viewsOf(node);
    Area area;
    const std::string mark = issueMark(issues, "part:" + p.name);
    const auto headed = [&](const std::string& words) {
        PageTitle t = titled(b, r, words);
        if (!mark.empty()) t.note = mark + "; " + t.note;
        return t;
    };
    const PageTitle title = headed(fmt::format("Part: {}, {}", p.name, p.kind));
    Drawing page = blankPage(title, cautionsOf(), area);
    const auto step = b.settings.length_step;
    // its figures and what is wrong stand beside its views; where they are many, its pieces follow on a page of their own
    const make::PartView v{&in, &p, "", step, p.bars.size() <= most_with_ends};
    const double usual = area.height * 0.56;
    const Drawing said = make::partWords(v, area.width * 0.36, usual, on_paper);
    const bool tall = said.height > usual + 1e-6;
    const double views = tall ? area.height * 0.8 : usual;
    if (!drawn->solids) // said where its views would be
        page.add(Text{{area.x, area.y + on_paper.body()},
                      "It can't be shown: " + drawn->solids.error().message,
                      on_paper.body(),
                      Ink::Bad});
    else
        page.place(trueViews(*drawn, area.width * 0.62, views, on_paper), {area.x, area.y});
    Area below{area.x, area.y + views + 3, area.width, area.height - views - 3};
    std::vector<std::vector<std::string>> rows;
    for (const make::BarPiece& bar : p.bars)
        rows.push_back({bar.name, make::stockWords(bar), units::formatLength(bar.length_mm.value, step), make::endsWords(bar),
                        units::formatMass(bar.mass_kg), ""});
    for (const make::FlatPiece& flat : p.flats)
        rows.push_back({flat.count > 1 ? fmt::format("{} × {}", flat.count, flat.name) : flat.name,
                        fmt::format("sheet {}", make::trimmed(flat.thickness_mm)), make::sizeWords(flat, step),
                        flat.bends.empty() ? "flat" : units::counted(flat.bends.size(), "a bend"),
                        units::formatMass(flat.mass_kg), ""});
    for (const make::Seam& s : p.seams)
        rows.push_back({"weld: " + s.what, fmt::format("fillet {}", make::trimmed(s.leg_mm)),
                        units::formatLength(s.length_mm, step), "", "", ""});
    if (const auto bears = partBears(b, r, p.name))
        rows.push_back({"the frame's loads", bears->bar, fmt::format("{:.0f} MPa", bears->stress_mpa),
                        fmt::format("in the case {}; it may bear {:.0f} MPa; at its joints {:.0f} MPa over ±1 g",
                                    bears->case_name, bears->may_mpa, bears->works_mpa),
                        "", ""});
    for (const Revision& one : revisionsOf(issues, "part:" + p.name))
        rows.push_back({one.name.empty() ? "changed since" : "issue " + one.name, one.day, "", one.words, "", ""});
    page.place(said, {area.x + area.width * 0.64, area.y});
    const std::vector<Column> columns{{"piece", 62, Anchor::Left, Face::Sans, true}, {"of", 30},
                                      {"size", 36, Anchor::Right, Face::Sans},       {"ends", 94, Anchor::Left, Face::Sans, true},
                                      {"weighs", 20, Anchor::Right, Face::Sans},     {"as made", 24}};
    std::size_t next = tall ? 0 : addTable(page, below, columns, rows, on_paper.body());
    while (next < rows.size()) { // on as many pages as they take
        pages.push_back(std::move(page));
        page = blankPage(title, cautionsOf(), area);
        const std::size_t before = next;
        next = addTable(page, area, columns, rows, on_paper.body(), next);
        if (next == before) break;
    }
    pages.push_back(std::move(page));
    // its flat pieces beside each other, as many as can be read
    constexpr std::size_t most_beside = 3;
    const std::size_t sheets = (p.flats.size() + most_beside - 1) / most_beside;
    for (std::size_t k = 0; k < sheets; ++k) {
        Area own;
        Drawing one = blankPage(headed(fmt::format("{}: as they are cut", p.name)), cautionsOf(), own);
        const std::size_t from = k * p.flats.size() / sheets, until = (k + 1) * p.flats.size() / sheets;
        const double wide = own.width / static_cast<double>(until - from);
        for (std::size_t i = from; i < until; ++i)
            one.place(make::flatSheet(p.flats[i], step, wide - 4, own.height - 4, on_paper),
                      {own.x + wide * static_cast<double>(i - from), own.y});
        pages.push_back(std::move(one));
    }
    if (!templates) return;
    for (const make::FlatPiece& flat : p.flats)
        addAtFullSize(pages, headed(fmt::format("Template 1 : 1, {}: {}", p.name, flat.name)), cautionsOf(),
                      make::flatDrawing(flat));
    for (const make::BarPiece& bar : p.bars)
        for (std::size_t end = 0; end < 2; ++end)
            if (bar.ends[end].cope)
                addAtFullSize(pages,
                              headed(fmt::format("{}: wrap 1 : 1 round its {}", p.name, end == 0 ? "first end" : "other end")),
                              cautionsOf(), make::wrapDrawing(bar, end));
}

} // namespace

std::vector<Drawing> partPages(const Build& b, const Results& r, bool templates) {
    std::vector<Drawing> pages;
    const IssuesNow issues = issuesNow(b, r);
    for (const auto& node : r.parts)
        if (node->made()) addPartPages(b, r, issues, node, templates, pages);
    addListingPages(pages, titled(b, r, "Make: the cut list"), {local_rules}, cutList(b, r, the_chassis),
                    {66, 46, 40, 20, 60, 30});
    for (Drawing& page : barPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : platePages(b, r)) pages.push_back(std::move(page));
    return pages;
}

Headline cutListHeadline(const Build& b, const Results& r, SubjectId) {
    const auto rows = cutRows(b, r);
    if (rows.empty())
        return {"Nothing is cut yet.",
                "Parts, the crossmember, mounts and what Stretch joins stand here, each with its length and its ends."};
    std::size_t pieces = 0;
    for (const CutRow& row : rows) pieces += static_cast<std::size_t>(row.count);
    return {fmt::format("{} to cut and to fit.", units::counted(pieces, "a piece")),
            "What lies on the shelf for them, and what must be bought, stands on Work."};
}

Listing cutList(const Build& b, const Results& r, SubjectId) {
    Listing list{{"piece", "of", "mm", "pieces", "ends", "kg"}, -1, "piece", {}};
    for (const CutRow& c : cutRows(b, r)) {
        ListRow row;
        row.cells = {words(c.piece),
                     words(c.stock),
                     c.length.empty() ? words("") : number(c.length, c.length_mm),
                     number(fmt::format("{}", c.count), c.count),
                     words(c.ends),
                     words(c.mass_kg)};
        row.tag = c.tag;
        list.rows.push_back(std::move(row));
    }
    return list;
}

void keepPartFiles(const Build& b, const Results& r, FileKeeper& out) {
    if (auto pages = partPages(b, r, true); !pages.empty()) {
        numberPages(pages);
        out.keep("parts.pdf", [&](const auto& to) { return writePdf(pages, {"Parts: " + b.settings.name, "Gorvet parts"}, to); });
    }
    if (!r.file_damage.empty()) return; // nothing that a machine cuts from comes out of a damaged file
    if (const auto rows = cutRows(b, r); !rows.empty())
        out.keep("cut-list.csv", [&](const auto& to) {
            std::string csv = "count,piece,stock,length_mm,ends,mass_kg\n";
            for (const CutRow& c : rows)
                csv += fmt::format("{},{},{},{},{},{}\n", c.count, formats::csvField(c.piece), formats::csvField(c.stock),
                                   c.length, formats::csvField(c.ends), c.mass_kg);
            return files::putText(to, files::Kind::Csv, csv);
        });
    std::set<std::string> used;
    for (const auto& node : r.parts)
        for (const make::FlatPiece& flat : node->flats) // of one that was bought too: its holes are drilled after it
            out.keep(fileFor(flat.name == node->name ? node->name : node->name + "-" + flat.name, used),
                     [&](const auto& to) { return writeDxf(make::flatDrawing(flat), to); });
    if (std::none_of(r.parts.begin(), r.parts.end(), [](const auto& node) { return node->made(); })) return;
    out.keep("parts.step", [&](const auto& to) -> Result<void> { // all of them, or an error that names the one: none is left out
        std::vector<shape::NamedSolid> all;
        for (const auto& node : r.parts) {
            if (!node->made()) continue;
            const auto drawn = viewsOf(node);
            if (!drawn->solids) return drawn->solids.error();
            all.insert(all.end(), drawn->solids->begin(), drawn->solids->end());
        }
        return shape::writeStep(all, to, b.settings.name);
    });
}

std::string makeCutJson(const Build& b, const Results& r) {
    Json j = {{"pieces", Json::array()}};
    for (const CutRow& c : cutRows(b, r))
        j["pieces"].push_back({{"piece", c.piece},
                               {"stock", c.stock},
                               {"count", c.count},
                               {"length_mm", c.length.empty() ? Json(nullptr) : number(c.length_mm)},
                               {"ends", c.ends}});
    return text(j);
}

namespace {
/// How it is cut, drilled, bent.
Json flatJson(const make::FlatPiece& flat) {
    Json piece = {{"name", flat.name},
                  {"count", flat.count},
                  {"thickness_mm", number(flat.thickness_mm)},
                  {"mass_kg", number(flat.mass_kg)},
                  {"bought", flat.at_hand},
                  {"outline", Json::array()},
                  {"holes", Json::array()},
                  {"bends", Json::array()}};
    for (const auto& [x, y] : flat.outline) piece["outline"].push_back({number(x), number(y)});
    for (const make::FlatHole& h : flat.holes)
        piece["holes"].push_back({{"x_mm", number(h.at.first)},
                                  {"y_mm", number(h.at.second)},
                                  {"diameter_mm", number(h.diameter_mm)},
                                  {"for", h.what}});
    piece["windows"] = flat.windows.size();
    const auto press = make::pressPlan(flat);
    for (std::size_t k = 0; k < flat.bends.size(); ++k) {
        const make::FlatBend& bend = flat.bends[k];
        Json said = {{"angle_deg", number(units::degrees(bend.angle_rad))},
                     {"inside_mm", number(bend.inside_mm)},
                     {"allowance_mm", number(bend.allowance_mm)}};
        for (std::size_t turn = 0; press && turn < press->steps.size(); ++turn)
            if (const make::PressStep& s = press->steps[turn]; s.bend == k) {
                said["turn"] = turn + 1;
                said["stop_mm"] = number(s.stop_mm);
                said["press_kN"] = number(s.force_N / 1000);
                said["past_blade_mm"] = number(s.past_mm);
            }
        piece["bends"].push_back(std::move(said));
    }
    return piece;
}
} // namespace

std::string makePartJson(const Build& b, const Results& r) {
    Json j = {{"parts", Json::array()}, {"cautions", {part_caution, local_rules}}};
    for (const auto& node : r.parts) {
        const make::PartIn& in = node.input();
        const make::PartPlan& p = *node;
        Json one = {{"name", in.name},
                    {"kind", in.kind},
                    {"pinned", in.pinned},
                    {"verdict", verdictWord(p.verdict)},
                    {"missing", in.missing},
                    {"assumed", in.assumed},
                    {"not_looked_at", p.not_looked_at}};
        if (p.made()) {
            put(one, p.size_mm, "_mm", "size");
            one["size_of"] = p.size_of;
            one["mass_kg"] = number(p.mass_kg);
            one["load_share"] = number(p.used);
            one["load_share_at"] = p.used_at;
        }
        one["facts"] = Json::array();
        for (const make::PartFact& fact : p.facts) {
            Json of = {{"what", fact.what}};
            if (fact.length_mm)
                put(of, *fact.length_mm, "_mm", "length");
            else
                of["words"] = fact.words;
            one["facts"].push_back(std::move(of));
        }
        one["on_the_car"] = !p.apart;
        if (const auto bears = partBears(b, r, in.name))
            one["in_the_frame"] = {{"bar", bears->bar},
                                   {"stress_MPa", number(bears->stress_mpa)},
                                   {"may_MPa", number(bears->may_mpa)},
                                   {"case", bears->case_name},
                                   {"at", point(bears->at)},
                                   {"works_MPa", number(bears->works_mpa)}};
        one["bars"] = Json::array();
        for (const make::BarPiece& bar : p.bars) {
            Json piece = {{"name", bar.name},
                          {"form", bar.round ? "tube" : "box"},
                          {"height_mm", number(bar.height_mm)},
                          {"width_mm", number(bar.width_mm)},
                          {"wall_mm", number(bar.wall_mm)},
                          {"mass_kg", number(bar.mass_kg)},
                          {"original", bar.at_hand},
                          {"ends", Json::array()}};
            put(piece, bar.length_mm, "_mm", "length");
            for (const make::BarEnd& e : bar.ends) {
                Json end = {{"cut", e.kind == make::BarEnd::Kind::Square ? "square"
                                    : e.kind == make::BarEnd::Kind::Saw  ? "saw"
                                                                         : "cope"},
                            {"saw_deg", number(units::degrees(e.saw_rad))},
                            {"turned_deg", number(units::degrees(e.turned_rad))}};
                if (e.cope) {
                    end["onto_mm"] = number(e.cope->main_mm);
                    end["angle_deg"] = number(units::degrees(e.cope->angle_rad));
                }
                piece["ends"].push_back(std::move(end));
            }
            one["bars"].push_back(std::move(piece));
        }
        one["flats"] = Json::array();
        for (const make::FlatPiece& flat : p.flats) one["flats"].push_back(flatJson(flat));
        one["as_made"] = Json::array();
        for (const PartFigure& made : steelPartNamed(b, p.name)->made) {
            const auto planned =
                made.name == "long" ? std::optional(p.size_mm.value) : plannedFigure(*steelPartNamed(b, p.name), made.name);
            one["as_made"].push_back({{"figure", made.name},
                                      {"value", number(made.value.value)},
                                      {"planned", planned ? Json(number(*planned)) : Json(nullptr)}});
        }
        one["seams"] = Json::array();
        for (const make::Seam& s : p.seams)
            one["seams"].push_back({{"what", s.what}, {"length_mm", number(s.length_mm)}, {"leg_mm", number(s.leg_mm)}});
        one["remarks"] = remarksJson(p.remarks);
        j["parts"].push_back(std::move(one));
    }
    return text(j);
}

} // namespace gorvet::analysis
