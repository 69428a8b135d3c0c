#include "analysis/bench_parts.hpp"
#include "analysis/card_maker.hpp"
#include "analysis/frame.hpp"
#include "analysis/scans.hpp"
#include "analysis/stock_sizes.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;
using sheet::Severity;

namespace {

class StretchCards : CardMaker {
public:
    using CardMaker::CardMaker;

    std::optional<Card> make(const Tag& tag) {
        if (tag.kind == "cut") return cut();
        if (tag.kind == "sleeve") return sleeve();
        if (tag.kind == "rail") return rail();
        if (tag.kind == "crossings") return crossings();
        return std::nullopt;
    }

private:
    std::optional<Card> cut() {
        Card c;
        c.title = "cut";
        if (b_.stretch.cut_station)
            c.rows.push_back({"station", len(b_.stretch.cut_station->value), markOf(b_.stretch.cut_station->provenance), true});
        const auto& p = *r_.stretch;
        if (p.status == stretch::Status::Planned) {
            c.word = verdictWord(p.verdict);
            c.severity = severityOf(p.verdict);
            const auto& cut = p.left.known ? p.left : p.right;
            c.rows.push_back({p.shortens ? "take out" : "let in", len(cut.length_mm), Mark::Derived, true});
            if (p.shortens) c.rows.push_back({"second cut at", len(cut.last_station_mm), Mark::Derived, false});
            if (!p.near.empty())
                c.rows.push_back(
                    {"nearest", p.near.front().obstacle.name + " at " + len(p.near.front().distance_mm), Mark::Derived, false});
            c.rows.push_back({"keep clear by", len(p.clearance_need_mm), Mark::Derived, false});
        }
        c.rows.push_back({"kerf", len(b_.stretch.kerf.value), markOf(b_.stretch.kerf.provenance), false});
        c.rows.push_back({"root gap", len(b_.stretch.root_gap.value), markOf(b_.stretch.root_gap.provenance), false});
        c.actions.push_back({"cut at", "cut ", b_.stretch.cut_station ? current(*b_.stretch.cut_station) : "", true});
        c.actions.push_back({"kerf", "kerf ", current(b_.stretch.kerf), true});
        c.actions.push_back({"root gap", "root-gap ", current(b_.stretch.root_gap), true});
        return c;
    }

    std::optional<Card> sleeve() {
        if (!r_.stretch->sleeve) return std::nullopt;
        const auto& s = *r_.stretch->sleeve;
        Card c;
        c.title = "inner sleeve";
        c.rows.push_back(
            {"section",
             fmt::format("{} × {} × {}", units::fixed(s.height_mm, 1), units::fixed(s.width_mm, 1), units::fixed(s.wall_mm, 1)),
             Mark::Derived, true});
        c.rows.push_back({"length", len(s.length_mm), Mark::Derived, false});
        c.rows.push_back({"overlap", len(s.overlap_mm) + " each side", Mark::Derived, false});
        c.rows.push_back({"fit", len(b_.stretch.sleeve_fit.value) + " a side", markOf(b_.stretch.sleeve_fit.provenance), false});
        c.sentences.emplace_back(
            "Plug welds are sized for the rail's modulus at 210/1.5 MPa, filler 480, by half as much again. Structural welds are made or approved by licensed people.");
        if (r_.stretch->splice) {
            const auto& splice = *r_.stretch->splice;
            c.rows.push_back(
                {"beside the rail", units::fixed(100 * splice.share(), 0) + " % of its modulus", Mark::Derived, true});
            c.rows.push_back(
                {"plug welds",
                 fmt::format("{} of {} mm a flange, each side", splice.plugs.needed, units::fixed(splice.plugs.hole_mm, 0)),
                 Mark::Derived, false});
            c.rows.push_back({"fit there", std::to_string(splice.plugs.fit()), Mark::Derived, false});
            c.rows.push_back({"pitch", len(splice.plugs.pitch_mm), Mark::Derived, false});
        }
        if (const auto w = spliceWelds(b_, r_)) {
            if (w->bears.plug_N)
                c.rows.push_back({"worst plug, " + w->case_name,
                                  fmt::format("{:.1f} of {:.1f} kN", *w->bears.plug_N / 1000, w->bears.plug_may_N / 1000),
                                  Mark::Derived, false});
            if (w->bears.fillet_N)
                c.rows.push_back({"plate's edge, " + w->case_name,
                                  fmt::format("{:.1f} of {:.1f} kN", *w->bears.fillet_N / 1000, w->bears.fillet_may_N / 1000),
                                  Mark::Derived, false});
        }
        if (const auto& tube = r_.stretch->tube)
            c.rows.push_back({"tube in hand", fmt::format("{} and {} a side", small(tube->upright_mm), small(tube->sideways_mm)),
                              Mark::Derived, false});
        constexpr std::size_t most_offered = 3;
        const auto stock = sleevesFromStock(b_, r_);
        for (std::size_t k = 0; k < std::min(stock.size(), most_offered); ++k)
            c.actions.push_back({stock[k].size->name(), stock[k].line, "", false});
        c.actions.push_back({"the tube in hand", "sleeve-tube ", "", true});
        c.actions.push_back({"wall", "sleeve-wall ", b_.stretch.sleeve_wall ? current(*b_.stretch.sleeve_wall) : "", true});
        c.actions.push_back({"fish plates", "fish-plate ", b_.stretch.fish_plate ? current(*b_.stretch.fish_plate) : "", true});
        c.actions.push_back({"fit", "sleeve-fit ", current(b_.stretch.sleeve_fit), true});
        c.actions.push_back({"rail heights", "overlap ", units::fixed(b_.stretch.sleeve_overlap_heights.value, 1), true});
        return c;
    }

    std::optional<Card> rail() {
        Card c;
        c.title = "rail section";
        c.rows.push_back({"height", len(b_.rail.height.value), markOf(b_.rail.height.provenance), false});
        c.rows.push_back({"width", len(b_.rail.width.value), markOf(b_.rail.width.provenance), false});
        c.rows.push_back({"wall", len(b_.rail.thickness.value), markOf(b_.rail.thickness.provenance), false});
        c.rows.push_back({"shape", std::string(word(b_.rail.shape)), Mark::None, false});
        c.rows.push_back({"points on its", std::string(word(b_.rail.datum_face)) + " face", Mark::None, false});
        c.actions.push_back({"section", "rail ",
                             fmt::format("{:g} x {:g} x {:g} {} {}", b_.rail.height.value, b_.rail.width.value,
                                         b_.rail.thickness.value, word(b_.rail.shape), word(b_.rail.datum_face)),
                             true});
        return c;
    }

    std::optional<Card> crossings() {
        Card card;
        card.title = "what crosses the cut";
        for (const auto& c : r_.stretch->crossings) {
            card.rows.push_back({c.said(), c.slack_mm ? "slack " + len(*c.slack_mm) : "slack not measured",
                                 c.slack_mm ? Mark::None : Mark::Assumed, !c.follows});
            card.sentences.push_back(c.answer + (c.caution.empty() ? "" : " " + c.caution));
        }
        card.actions.push_back({"say of one", "crossing ", "", true});
        return card;
    }
};

} // namespace

std::optional<Card> stretchCard(const Build& b, const Results& r, SubjectId subject, const Tag& tag) {
    return StretchCards(b, r, subject).make(tag);
}

} // namespace gorvet::analysis
