// Rails let into a shell: their input, sheet, page, card, findings and JSON.
#include "analysis/let_in.hpp"

#include "analysis/fixed_points.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

const char* const shell_changed =
    "A shell that is cut is a changed vehicle: ask the authority first. Its joints are welded and approved by licensed people; sills and "
    "legs of ultra-high-strength steel are never cut nor welded here.";
const char* const shell_braced =
    "The shell is braced across its door openings, lines and fuel are out, before the floor is opened.";

WorkedLetIn workedLetIn(const Build& b, const Results& r, const LetIn& row) {
    WorkedLetIn out;
    out.row = row;
    stretch::LetInInput& in = out.input;
    in.row = row;
    in.yield_mpa = row.yield_MPa ? row.yield_MPa->value : b.frame_facts.yield_MPa.value;
    const auto point = b.points.find(row.front);
    FixedPoints points(b, r.of(point == b.points.end() ? the_chassis : point->second.subject));
    std::string lost;
    for (const PointId id : {row.front, row.rear})
        if (points.take(id) < 0 && lost.empty()) lost = nameOf(b, id);
    if (lost.empty())
        for (const std::size_t k : {0, 1})
            if (const PointId id = k == 0 ? row.front_along : row.rear_along) in.along[k] = points.take(id);
    in.points = points.places();
    if (!lost.empty()) in.missing.push_back(fmt::format("the place of {}: measure it on Tape", lost));
    const auto note = [&](const build::Dimension& d, const char* what) {
        if (d.provenance == Provenance::Assumed) in.assumed.emplace_back(what);
    };
    note(row.leg_height, "the front leg's height");
    note(row.leg_width, "the front leg's width");
    note(row.leg_wall, "the front leg's wall");
    note(row.tail_height, "the rear leg's height");
    note(row.tail_width, "the rear leg's width");
    note(row.tail_wall, "the rear leg's wall");
    note(row.floor, "how thick the floor is");
    note(row.yield_MPa ? *row.yield_MPa : b.frame_facts.yield_MPa, "the steel's yield");
    for (const std::string& name : points.assumed()) {
        in.assumed.push_back("the place of " + name);
        in.loose = true;
    }
    out.plan = stretch::letInPlan(in);
    return out;
}

std::string letInWaits(const WorkedLetIn& l) {
    return l.plan.missing.empty() ? std::string() : fmt::format("{} waits for {}.", l.row.name, l.plan.missing.front());
}
std::vector<stretch::LetInView> letInViews(const Build& b, const std::vector<WorkedLetIn>& all) {
    std::vector<stretch::LetInView> views;
    const auto step = b.settings.length_step;
    for (const WorkedLetIn& l : all)
        views.push_back({&l.input, &l.plan, letInWaits(l), [step](double mm) { return units::formatLength(mm, step); },
                         "let-in:" + l.row.name});
    return views;
}

} // namespace

std::vector<WorkedLetIn> workedLetIns(const Build& b, const Results& r) {
    std::vector<WorkedLetIn> all;
    for (const auto& [id, row] : b.let_in) all.push_back(workedLetIn(b, r, row));
    return all;
}

Headline letInHeadline(const Build& b, const Results& r, SubjectId) {
    const auto all = workedLetIns(b, r);
    if (all.empty())
        return {"No rail is let into a shell.",
                "Mark the open ends of both legs in their middle, then say it: let-in left from Fl to Rl section 80 50 3."};
    const WorkedLetIn& l = all.front();
    if (const std::string waits = letInWaits(l); !waits.empty()) return {fmt::format("{} is to be let in.", l.row.name), waits};
    Headline h;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    h.sentence = fmt::format("Cut {} to {} ± {:.1f}, square; its {} piece is driven, the other slides.", l.row.name,
                             len(l.plan.length.value), l.plan.length.u95, word(l.row.driven));
    h.below = l.plan.verdict == PlanVerdict::Holds
                  ? std::string("Holds: both joints bear what the weaker of rail and leg bears. ")
                  : fmt::format("{}: {} ", verdictWord(l.plan.verdict),
                                !l.plan.remarks.empty() ? l.plan.remarks.front().sentence
                                                        : fmt::format("{} was never measured.", l.input.assumed.front()));
    h.below += shell_changed;
    return h;
}

sheet::Drawing letInDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                            const sheet::Format& f) {
    const auto all = workedLetIns(b, r);
    return stretch::letInSheet(letInViews(b, all), width, std::max(height, f.px(stretch::let_in_sheet_least_px)), f);
}

std::vector<sheet::Drawing> letInPages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    for (const WorkedLetIn& l : workedLetIns(b, r)) {
        sheet::Area area;
        sheet::Drawing page = sheet::blankPage(titled(b, r, fmt::format("Stretch: {}, let into the shell", l.row.name)),
                                               {shell_changed, shell_braced, local_rules}, area);
        const std::vector<WorkedLetIn> one{l};
        placeFitted(page, area,
                    [&](double w, double h, const sheet::Format& f) { return stretch::letInSheet(letInViews(b, one), w, h, f); });
        pages.push_back(std::move(page));
    }
    return pages;
}

std::optional<Card> letInCard(const Build& b, const Results& r, const std::string& name) {
    const LetIn* row = letInNamed(b, name);
    if (!row) return std::nullopt;
    const WorkedLetIn l = workedLetIn(b, r, *row);
    Card c;
    c.title = name + ", let in";
    c.rows.push_back({"from", nameOf(b, row->front) + " to " + nameOf(b, row->rear), Mark::None, false});
    if (const std::string waits = letInWaits(l); !waits.empty()) {
        c.sentences.push_back(waits);
    } else {
        c.word = verdictWord(l.plan.verdict);
        c.severity = sheet::severityOf(l.plan.verdict);
        c.rows.push_back({"cut to",
                          fmt::format("{} ± {:.1f}", units::formatLength(l.plan.length.value, b.settings.length_step, true),
                                      l.plan.length.u95),
                          Mark::Derived, false});
        if (!l.plan.remarks.empty()) c.sentences.push_back(l.plan.remarks.front().sentence + " " + l.plan.remarks.front().remedy);
    }
    c.sentences.push_back(fmt::format("Caution: {}", shell_changed));
    const std::string line = "let-in " + name + " ";
    c.actions.push_back({"its section", line + "section ", "", true});
    c.actions.push_back({"front leg", line + "front-leg ", "", true});
    c.actions.push_back({"rear leg", line + "rear-leg ", "", true});
    c.actions.push_back({"into each", line + "engage ", "", true});
    c.actions.push_back({row->driven == RailEnd::Front ? "drive the rear one" : "drive the front one",
                         line + (row->driven == RailEnd::Front ? "driven rear" : "driven front"), "", false});
    c.actions.push_back({"remove", "remove let-in " + name, "", false});
    c.journal_table = "let-in";
    c.journal_id = row->id.value;
    return c;
}

std::string letInJson(const Build& b, const Results& r) {
    Json j;
    j["let_in"] = Json::array();
    for (const WorkedLetIn& l : workedLetIns(b, r)) {
        const stretch::LetInPlan& p = l.plan;
        Json one = {{"name", l.row.name}, {"from", nameOf(b, l.row.front)}, {"to", nameOf(b, l.row.rear)}};
        one["missing"] = p.missing;
        if (p.missing.empty()) {
            one["verdict"] = verdictWord(p.verdict);
            put(one, p.between, "_mm", "between");
            put(one, p.length, "_mm", "length");
            for (const stretch::LetInEnd& e : p.ends) {
                Json end = {{"driven", e.driven},
                            {"drawn_back_into", e.into_rail ? "rail" : "leg"},
                            {"thin_mm", {number(e.thin_high_mm), number(e.thin_wide_mm)}},
                            {"thick_mm", {number(e.thick_high_mm), number(e.thick_wide_mm)}},
                            {"wall_mm", number(e.wall_mm)},
                            {"into_each_mm", number(e.engage_mm)},
                            {"share_of_the_weaker", number(e.share)},
                            {"plugs_needed", e.plugs_needed},
                            {"plugs_fit", e.plugs_fit},
                            {"plug_hole_mm", number(e.plug_mm)},
                            {"slot_from_joint_mm", number(e.slot_mm)}};
                if (e.turn) {
                    put(end, e.turn->up, "_deg", "turned_up");
                    put(end, e.turn->aside, "_deg", "turned_aside");
                }
                one[word(e.end) == std::string_view("front") ? "front" : "rear"] = std::move(end);
            }
            one["foot_mm"] = {number(p.foot_long_mm), number(p.foot_wide_mm), number(p.foot_thick_mm)};
            one["push_on_floor_N"] = number(p.push_N);
            one["floor_opening_mm"] = number(p.slot_wide_mm);
            one["mass_kg"] = number(p.rail_kg);
            one["remarks"] = remarksJson(p.remarks);
            one["assumed"] = l.input.assumed;
        }
        j["let_in"].push_back(std::move(one));
    }
    j["cautions"] = {shell_changed, shell_braced, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
