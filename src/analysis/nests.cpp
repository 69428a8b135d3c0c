// Bars: pieces laid into the lengths that can be had and into what lies on the shelf.
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/parts.hpp"
#include "analysis/work_buy.hpp"
#include "sheet/plan_words.hpp"

#include <algorithm>
#include <map>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

bool canBeHad(const Build& b, const work::SteelNeed& need) {
    return need.form != StockForm::Plate && std::any_of(b.stock.begin(), b.stock.end(), [&](const auto& row) {
               return row.second.any && work::sameSection(need, row.second);
           });
}

std::vector<Node<make::NestInput, make::NestPlan>> nestsOf(const Build& b, const Results& r, const Results* previous) {
    using Made = Node<make::NestInput, make::NestPlan>;
    const std::vector<work::SteelNeed> needs = steelNeeds(b, r);
    std::vector<bool> seen(needs.size(), false);
    std::vector<Made> all;
    for (std::size_t first = 0; first < needs.size(); ++first) {
        const work::SteelNeed& like = needs[first];
        if (seen[first] || !canBeHad(b, like)) continue;
        make::NestInput in;
        in.section = work::sectionWords(like.form, like.height_mm, like.width_mm, like.wall_mm);
        in.kerf_mm = b.stretch.kerf.value;
        Stock section;
        section.form = like.form;
        section.height_mm = like.height_mm;
        section.width_mm = like.width_mm;
        section.wall_mm = like.wall_mm;
        for (std::size_t k = first; k < needs.size(); ++k)
            if (!seen[k] && work::sameSection(needs[k], section)) {
                seen[k] = true;
                in.pieces.push_back({needs[k].what, needs[k].length_mm, needs[k].count});
            }
        for (const auto& [id, s] : b.stock)
            if (work::sameSection(like, s) && (s.any || s.count >= 1))
                in.bars.push_back({s.name, s.length_mm, s.any ? std::nullopt : std::optional(static_cast<int>(s.count)),
                                   s.any ? s.price : std::nullopt});
        // prices are told apart from prices only: where one is not said, all are taken by their length
        if (std::any_of(in.bars.begin(), in.bars.end(), [](const make::NestBar& bar) { return !bar.count && !bar.price; }))
            for (make::NestBar& bar : in.bars) bar.price.reset();
        const Made* before = nullptr;
        if (previous)
            for (const Made& node : previous->nests)
                if (node.input().section == in.section) before = &node;
        all.push_back(Made::of(std::move(in), before, [](const make::NestInput& input) { return make::nestBars(input); }));
    }
    return all;
}

namespace {

constexpr double bar_px = 30, bar_words_px = 210;

/// Each bar as long as it is against the longest, its pieces in it.
class BarsDraft {
public:
    BarsDraft(Drawing& d, const Format& f, units::LengthStep step) : d_(d), f_(f), step_(step) {}
    double draw(const Results& r) {
        double longest = 1;
        for (const auto& node : r.nests)
            for (const make::NestBar& bar : node.input().bars) longest = std::max(longest, bar.length_mm);
        const double scale = (d_.width - f_.px(bar_words_px) - f_.px(10)) / longest;
        for (const auto& node : r.nests) {
            const make::NestInput& in = node.input();
            y_ += f_.lead() + f_.px(6);
            d_.add(Text{{0, y_}, in.section, f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
            SheetWords words(d_, f_, y_ + f_.px(6), d_.width, "");
            words.lines(searched(*node));
            if (std::any_of(in.bars.begin(), in.bars.end(), [](const make::NestBar& bar) { return !bar.count && !bar.price; }))
                words.lines("Taken by their length: not each of these has a price.");
            for (const std::size_t piece : node->too_long)
                words.judged(Severity::Bad, fmt::format("No length takes {} of {}.", in.pieces[piece].name,
                                                        units::formatLength(in.pieces[piece].length_mm, step_, true)));
            y_ = words.end() + f_.px(4);
            for (const make::NestLayout& l : node->layouts) bar(in, l, scale);
        }
        return y_ + f_.px(20);
    }
    static std::string searched(const make::NestPlan& p) {
        if (p.exact)
            return fmt::format("No way of cutting them costs less; looked through: {} of filling a bar.",
                               units::counted(static_cast<std::size_t>(p.patterns), "a way"));
        return p.least > 0 ? fmt::format("Another way may cost up to {:.1f} % less: not all were looked at.",
                                         std::max(0.0, 100 * (1 - p.least / std::max(1e-9, p.cost))))
                           : std::string("Another way may cost less: not all were looked at.");
    }

private:
    void bar(const make::NestInput& in, const make::NestLayout& l, double scale) {
        const make::NestBar& bar = in.bars[l.bar];
        const std::string tag = "stock:" + bar.name;
        const double top = y_ + f_.px(6), low = top + f_.px(bar_px), left = f_.px(bar_words_px);
        d_.add(Text{{0, top + f_.px(13)},
                    fmt::format("{}{} {}", l.times > 1 ? fmt::format("{} × ", l.times) : "", bar.name,
                                units::formatLength(bar.length_mm, step_)),
                    f_.body(),
                    Ink::Ink},
               tag);
        d_.add(Text{{0, top + f_.px(28)},
                    fmt::format("{}, {} left", bar.count ? "on the shelf" : "to buy", units::formatLength(l.left_mm, step_)),
                    f_.small(),
                    Ink::Second},
               tag);
        d_.add(Stroke{{{left, top}, {left + scale * bar.length_mm, top}, {left + scale * bar.length_mm, low}, {left, low}},
                      true,
                      {Ink::Chassis, f_.medium(), Dash::Solid}},
               tag);
        double at = 0;
        for (const std::size_t k : l.pieces) {
            const double length = in.pieces[k].length_mm, from = left + scale * at, until = left + scale * (at + length);
            d_.add(Stroke{{{until, top}, {until, low}}, false, {Ink::NewSteel, f_.medium(), Dash::Solid}}, tag);
            std::string words = units::formatLength(length, step_);
            if (textWidth(in.pieces[k].name + "  " + words, f_.small(), Face::Sans) < until - from - f_.px(8))
                words = in.pieces[k].name + "  " + words;
            if (textWidth(words, f_.small(), Face::Sans) < until - from - f_.px(4))
                d_.add(Text{{(from + until) / 2, (top + low) / 2 + f_.px(5)}, words, f_.small(), Ink::NewSteel, Anchor::Centre},
                       tag);
            at += length + in.kerf_mm;
        }
        if (at < bar.length_mm) {
            const double from = left + scale * at, until = left + scale * bar.length_mm;
            d_.add(Hatch{{{from, top}, {until, top}, {until, low}, {from, low}},
                         {Ink::Faint, f_.thin(), Dash::Solid},
                         f_.px(7),
                         false},
                   tag);
        }
        y_ = low;
    }

    Drawing& d_;
    const Format& f_;
    units::LengthStep step_;
    double y_ = 0;
};

} // namespace

Drawing barsDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                    const Format& f) {
    Drawing d{width, height, {}, {}};
    d.height = std::max(height, BarsDraft(d, f, b.settings.length_step).draw(r));
    return d;
}

Headline barsHeadline(const Build& b, const Results& r, SubjectId) {
    if (r.nests.empty())
        return {
            "No length can be had yet.",
            steelNeeds(b, r).empty()
                ? "Nothing is cut yet."
                : "Say which lengths of a section can be had, and pieces are laid into them: stock mill-b60 box 60 40 3 long 6000 any price 41."};
    double metres = 0;
    std::size_t left_out = 0;
    for (const auto& node : r.nests) {
        metres += node->bought_mm / 1000;
        left_out += node->too_long.size();
    }
    Headline h;
    h.sentence = left_out ? fmt::format("{} for no length.",
                                        left_out == 1 ? "One piece is too long" : fmt::format("{} pieces are too long", left_out))
                          : fmt::format("{:.1f} m to buy, offcuts first.", metres);
    h.below =
        fmt::format("A kerf of {} goes with each cut{}.", units::formatSmall(b.stretch.kerf.value, b.settings.length_step, true),
                    b.stretch.kerf.provenance == Provenance::Assumed ? ", as usual" : "");
    return h;
}

std::vector<Drawing> barPages(const Build& b, const Results& r) {
    if (r.nests.empty()) return {};
    Area area;
    Drawing page = blankPage(titled(b, r, "Make: how bars are cut"), {local_rules}, area);
    placeFitted(page, area, [&](double w, double h, const Format& f) { return barsDrawing(b, r, the_chassis, {}, w, h, f); });
    return {std::move(page)};
}

std::string makeBarsJson(const Build&, const Results& r) {
    Json j = {{"sections", Json::array()}};
    for (const auto& node : r.nests) {
        const make::NestInput& in = node.input();
        Json one = {{"section", in.section},
                    {"kerf_mm", number(in.kerf_mm)},
                    {"cost", number(node->cost)},
                    {"least_cost", number(node->least)},
                    {"proven", node->exact},
                    {"ways_looked_at", node->patterns},
                    {"bought_mm", number(node->bought_mm)},
                    {"bars", Json::array()},
                    {"too_long", Json::array()}};
        for (const make::NestLayout& l : node->layouts) {
            Json bar = {{"from", in.bars[l.bar].name},
                        {"length_mm", number(in.bars[l.bar].length_mm)},
                        {"on_shelf", in.bars[l.bar].count.has_value()},
                        {"times", l.times},
                        {"left_mm", number(l.left_mm)},
                        {"pieces", Json::array()}};
            for (const std::size_t k : l.pieces)
                bar["pieces"].push_back({{"piece", in.pieces[k].name}, {"length_mm", number(in.pieces[k].length_mm)}});
            one["bars"].push_back(std::move(bar));
        }
        for (const std::size_t k : node->too_long) one["too_long"].push_back(in.pieces[k].name);
        j["sections"].push_back(std::move(one));
    }
    return text(j);
}

} // namespace gorvet::analysis
