// The order of work for the wall of the workshop.
#include "work/work_sheet.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::work {

using namespace sheet;
using build::Attitude;
using build::BodyPlace;

namespace {

constexpr double line_mm = 4.4;

std::string stanceWords(const Step& s) {
    std::string text;
    if (s.body) text = *s.body == BodyPlace::On ? "body on" : "body off";
    if (s.attitude && *s.attitude == Attitude::Inverted) text += (text.empty() ? "" : ", ") + std::string("upside down");
    return text;
}

/// The text block of a step, as lines: first its title, then why, what before it, cautions.
struct Row {
    std::vector<std::string> title;
    std::vector<std::pair<std::string, bool>> below; ///< text, bold
    double height = 0;
};

Row rowOf(const Step& s, units::LengthStep step, double width) {
    Row r;
    r.title = wrapped(s.title, width, on_paper.body(), Face::Bold);
    const auto more = [&](const std::string& text, bool bold = false) {
        if (text.empty()) return;
        for (const std::string& line : wrapped(text, width, on_paper.small())) r.below.emplace_back(line, bold);
    };
    more(jobWords(s));
    if (!s.why.empty()) more(s.why);
    if (s.no_return) more("No way back from here. Before it:", true);
    for (const std::string& b : s.before_return) more("[  ] " + b);
    for (const Condition& c : s.conditions) more((c.met ? "[x] " : "[  ] ") + c.text);
    for (const CheckItem& c : s.checks)
        more(fmt::format("{}: plan {}, may be out by {}. Read: {}", c.name, units::formatLength(c.plan_mm, step),
                         units::formatSmall(c.tolerance_mm, step),
                         c.read_mm ? units::formatLength(*c.read_mm, step) + (c.agrees() ? ", agrees" : ", out")
                                   : "____________"));
    for (const std::string& c : s.cautions) more("Caution: " + c);
    if (s.tick)
        more(fmt::format("Done: {} {}{}", s.tick->who, s.tick->at_utc.substr(0, 10),
                         s.tick->note.empty() ? "" : ", " + s.tick->note));
    r.height = line_mm * (static_cast<double>(r.title.size()) + 0.9 * static_cast<double>(r.below.size())) + 2.4;
    return r;
}

} // namespace

std::vector<Drawing> wallSheet(const Order& o, units::LengthStep step, const PageTitle& title,
                               const std::vector<std::string>& cautions) {
    std::vector<Drawing> pages;
    if (o.steps.empty()) return pages;
    Area area;
    Drawing page = blankPage(title, cautions, area);
    double y = area.y + 3;
    const double text_x = area.x + 22;
    const double text_width = area.width - 22 - 96;
    const auto fresh = [&] {
        pages.push_back(std::move(page));
        page = blankPage(title, cautions, area);
        y = area.y + 3;
    };
    for (size_t i = 0; i < o.steps.size(); ++i) {
        const Step& s = o.steps[i];
        const Row row = rowOf(s, step, text_width);
        if (y + row.height > area.y + area.height) fresh();
        const double top = y;
        page.add(Text{
            {area.x + 8, y + 2.4}, std::to_string(i + 1), on_paper.body(), Ink::Ink, Anchor::Right, Level::Base, Face::Bold});
        const double box = 5;
        page.add(Stroke{{{area.x + 11, y - 1.4},
                         {area.x + 11 + box, y - 1.4},
                         {area.x + 11 + box, y - 1.4 + box},
                         {area.x + 11, y - 1.4 + box}},
                        true,
                        {Ink::Ink, s.hold ? 0.8 : 0.3, Dash::Solid}});
        if (s.status == Status::Done) {
            page.add(Stroke{{{area.x + 12, y - 0.4}, {area.x + 10 + box, y - 2.4 + box}}, false, {Ink::Ink, 0.5, Dash::Solid}});
            page.add(Stroke{{{area.x + 12, y - 2.4 + box}, {area.x + 10 + box, y - 0.4}}, false, {Ink::Ink, 0.5, Dash::Solid}});
        }
        y += 2.4;
        for (const std::string& line : row.title) {
            page.add(Text{{text_x, y}, line, on_paper.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
            y += line_mm;
        }
        for (const auto& [line, bold] : row.below) {
            page.add(Text{
                {text_x, y - 0.4}, line, on_paper.small(), Ink::Ink, Anchor::Left, Level::Base, bold ? Face::Bold : Face::Sans});
            y += 0.9 * line_mm;
        }
        const double right = area.x + area.width;
        page.add(Text{{right - 92, top + 2.4}, stanceWords(s), on_paper.small(), Ink::Second});
        if (s.hold)
            page.add(
                Text{{right - 60, top + 2.4}, "HOLD POINT", on_paper.small(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        if (s.no_return)
            page.add(
                Text{{right - 60, top + 2.4}, "NO WAY BACK", on_paper.small(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        // who and when, by hand
        page.add(Stroke{{{right - 34, top + 3.4}, {right, top + 3.4}}, false, {Ink::Second, 0.2, Dash::Dotted}});
        y = std::max(y, top + 6.5);
        page.add(Stroke{{{area.x, y - 1.2}, {right, y - 1.2}}, false, {Ink::Faint, 0.15, Dash::Solid}});
        y += 2;
    }
    if (!o.steel.empty()) {
        std::vector<std::vector<std::string>> rows;
        for (const SteelEntry& e : o.steel)
            rows.push_back({e.steel.name, e.steel.purpose, e.steel.blocks,
                            e.out_after.empty() ? "when the body is bolted down" : e.out_after,
                            e.steel.gap ? units::formatLength(e.steel.gap->value, step) : "not measured",
                            e.state == SteelState::In    ? "in"
                            : e.state == SteelState::Out ? "out"
                                                         : "to fit",
                            ""});
        const double need = 8 + 6 * static_cast<double>(rows.size());
        if (y + need > area.y + area.height) fresh();
        page.add(Text{{area.x, y + 3}, "Temporary steel", on_paper.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        addTable(page, {area.x, y + 5, area.width, area.y + area.height - y - 5},
                 {{"brace", 30},
                  {"for", 50},
                  {"blocks", 45},
                  {"comes out after", 70},
                  {"gap", 22, Anchor::Right},
                  {"now", 18},
                  {"gap then", 30}},
                 rows, on_paper.small());
    }
    pages.push_back(std::move(page));
    return pages;
}

} // namespace gorvet::work
