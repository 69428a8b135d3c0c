// Pieces of other frames: sheet, page, card, files, findings and JSON.
#include "analysis/graft.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "sheet/write.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

const char* const never_alone =
    "A frame that is made of two is a changed vehicle: ask the authority first. Its joints are welded and approved by licensed people.";
const char* const brace_both =
    "Both ends stand by themselves, rails tied across on either side of the joint, tank and battery out, before the saw.";

std::vector<stretch::GraftView> viewsOfGrafts(const Build& b, const std::vector<WorkedGraft>& all) {
    std::vector<stretch::GraftView> views;
    const auto step = b.settings.length_step;
    for (const WorkedGraft& g : all)
        views.push_back({&g.input, &g.plan, [step](double mm) { return units::formatLength(mm, step); },
                         fmt::format("graft:{}", g.graft.name), g.plan.missing.empty() ? std::string() : g.waits});
    return views;
}
const char* kindWords(GraftKind k) { return k == GraftKind::FrontClip ? "front clip" : "rear frame"; }

} // namespace

Headline graftHeadline(const Build& b, const Results& r, SubjectId) {
    const auto all = workedGrafts(b, r);
    if (all.empty())
        return {
            "No piece of another frame is joined to this one.",
            "Survey it as a subject of its own (subject clip component), then say where it is joined: graft nose front-clip of clip at 640."};
    const WorkedGraft& g = all.front();
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    if (!g.plan.missing.empty())
        return {fmt::format("{}, a {}, is to be joined at {}.", g.graft.name, kindWords(g.graft.kind), len(g.graft.joint.value)),
                g.waits};
    Headline h;
    const double least = std::min(g.plan.sides[0].trim_mm, g.plan.sides[1].trim_mm);
    h.sentence =
        least < 0
            ? fmt::format("{} is {} too short to reach its joint at {}.", g.graft.name, len(-least), len(g.graft.joint.value))
            : fmt::format("Cut the chassis at {}, and {} and {} off {}'s rails, left and right.", len(g.graft.joint.value),
                          len(g.plan.sides[0].trim_mm), len(g.plan.sides[1].trim_mm), g.graft.name);
    h.below = fmt::format("Joined by {}. ", stretch::graftWord(g.plan.way));
    if (g.plan.wheelbase)
        h.below +=
            fmt::format("The wheelbase becomes {} ± {}. ", len(g.plan.wheelbase->value), units::fixed(g.plan.wheelbase->u95, 1));
    h.below += g.plan.verdict == PlanVerdict::Holds
                   ? std::string("Holds, by what was said of it.")
                   : fmt::format("{}: {}", verdictWord(g.plan.verdict),
                                 !g.plan.remarks.empty() ? g.plan.remarks.front().sentence
                                                         : fmt::format("{} was never measured.", g.input.assumed.front()));
    return h;
}

sheet::Drawing graftDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                            const sheet::Format& f) {
    const auto all = workedGrafts(b, r);
    return stretch::graftSheet(viewsOfGrafts(b, all), width, std::max(height, f.px(stretch::graft_sheet_least_px)), f);
}

std::vector<sheet::Drawing> graftPages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    for (const WorkedGraft& g : workedGrafts(b, r)) {
        sheet::Area area;
        sheet::Drawing page =
            sheet::blankPage(titled(b, r, fmt::format("Stretch: {}, a {}", g.graft.name, kindWords(g.graft.kind))),
                             {never_alone, brace_both, local_rules}, area);
        const std::vector<WorkedGraft> one{g};
        placeFitted(page, area, [&](double w, double h, const sheet::Format& f) {
            return stretch::graftSheet(viewsOfGrafts(b, one), w, h, f);
        });
        pages.push_back(std::move(page));
    }
    return pages;
}

void addGraftFiles(const Build& b, const Results& r, FileKeeper& out) {
    if (!r.file_damage.empty()) return; // nothing that is cut from comes out of a damaged file
    for (const WorkedGraft& g : workedGrafts(b, r))
        for (const stretch::TransitionPlate& p : g.plan.plates)
            out.keep(fmt::format("graft-{}-{}.dxf", g.graft.name, p.name),
                     [&](const auto& to) { return sheet::writeDxf(stretch::transitionPattern(p), to); });
}

std::optional<Card> graftCard(const Build& b, const Results& r, const std::string& name) {
    for (const WorkedGraft& g : workedGrafts(b, r)) {
        if (g.graft.name != name) continue;
        const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
        Card c;
        c.title = fmt::format("{}, a {}", name, kindWords(g.graft.kind));
        c.rows.push_back({"joined at", len(g.graft.joint.value), sheet::markOf(g.graft.joint.provenance), true});
        if (!g.waits.empty()) c.sentences.push_back(g.waits);
        if (g.plan.missing.empty()) {
            c.word = verdictWord(g.plan.verdict);
            c.severity = sheet::severityOf(g.plan.verdict);
            c.rows.push_back({"by", stretch::graftWord(g.plan.way), Mark::Derived, false});
            for (std::size_t k = 0; k < 2; ++k)
                c.rows.push_back(
                    {fmt::format("{} {}", g.plan.sides[k].trim_mm < 0 ? "too short" : "cut off", k == 0 ? "left" : "right"),
                     len(std::abs(g.plan.sides[k].trim_mm)), Mark::Derived, false});
            if (g.plan.wheelbase)
                c.rows.push_back({"wheelbase",
                                  fmt::format("{} ± {}", len(g.plan.wheelbase->value), units::fixed(g.plan.wheelbase->u95, 1)),
                                  Mark::Derived, false});
            constexpr std::size_t most = 2; // the worst; all stand on the sheet
            for (std::size_t k = 0; k < std::min(most, g.plan.remarks.size()); ++k)
                c.sentences.push_back(g.plan.remarks[k].sentence + " " + g.plan.remarks[k].remedy);
        }
        c.sentences.push_back(fmt::format("Caution: {}", never_alone));
        const std::string line = "graft " + name + " ";
        c.actions.push_back({"joined at", line + "at ", "", true});
        c.actions.push_back({"its rails", line + "rails ", "", true});
        c.actions.push_back({"pin it", line + "pin ", "", true});
        c.actions.push_back({"a transition", line + "transition ", "", true});
        c.actions.push_back({"remove", "remove graft " + name, "", false});
        c.journal_table = "graft";
        c.journal_id = g.graft.id.value;
        return c;
    }
    return std::nullopt;
}

std::string graftJson(const Build& b, const Results& r) {
    Json j;
    j["grafts"] = Json::array();
    for (const WorkedGraft& g : workedGrafts(b, r)) {
        const stretch::GraftPlan& p = g.plan;
        Json one = {{"name", g.graft.name},
                    {"kind", word(g.graft.kind)},
                    {"joint_mm", number(g.graft.joint.value)},
                    {"waits_for", g.waits}};
        one["missing"] = p.missing;
        if (p.missing.empty()) {
            one["verdict"] = verdictWord(p.verdict);
            one["joined_by"] = stretch::graftWord(p.way);
            one["overlap_mm"] = number(p.overlap_mm);
            one["strip_mm"] = number(p.strip_mm);
            one["transition_mm"] = number(p.transition_mm);
            one["transition_plate_mm"] = number(p.plate_mm);
            one["taper_one_in"] = p.taper > 0 ? number(p.taper) : Json(nullptr);
            for (std::size_t k = 0; k < 2; ++k) {
                const stretch::GraftSide& s = p.sides[k];
                one[k == 0 ? "left" : "right"] = {{"aside_mm", number(s.aside_mm)},
                                                  {"up_mm", number(s.up_mm)},
                                                  {"turned_in_plan_deg", number(s.turn_plan_rad * units::degrees(1))},
                                                  {"turned_from_the_side_deg", number(s.turn_side_rad * units::degrees(1))},
                                                  {"cut_off_mm", number(s.trim_mm)},
                                                  {"step_mm", number(s.step_mm)}};
            }
            one["share_of_the_weaker_rail"] =
                p.weaker_modulus_mm3 > 0 ? number(p.joint_modulus_mm3 / p.weaker_modulus_mm3) : Json(nullptr);
            one["lever_mm"] = number(p.lever_mm);
            one["stress_mpa"] = number(p.stress_mpa);
            one["may_mpa"] = number(p.may_mpa);
            one["by_the_frame"] = g.input.frame.has_value();
            one["weld_share"] = number(p.weld_share);
            one["wheelbase_now_mm"] = number(g.input.wheelbase_now_mm);
            one["wheelbase_mm"] =
                p.wheelbase ? Json{{"value", number(p.wheelbase->value)}, {"u95", number(p.wheelbase->u95)}} : Json(nullptr);
            one["wheelbase_left_less_right_mm"] = p.wheelbase ? number(p.wheelbase_skew_mm) : Json(nullptr);
            one["measures"] = Json::array();
            for (const build::Measure& m : p.measures)
                one["measures"].push_back({{"name", m.name}, {"mm", number(m.mm)}, {"u95_mm", number(m.u95_mm)}});
            one["pins"] = Json::array();
            for (const stretch::GraftPinned& pin : g.input.pins)
                one["pins"].push_back({{"name", pin.name},
                                       {"wanted_mm", number(pin.wanted)},
                                       {"achieved_mm", number(pin.achieved.value)},
                                       {"u95_mm", number(pin.achieved.u95)},
                                       {"verdict", verdictWord(pin.verdict)}});
            one["plates"] = Json::array();
            for (const stretch::TransitionPlate& plate : p.plates) {
                Json corners = Json::array();
                for (const auto& [x, y] : plate.corners) corners.push_back({{"x_mm", number(x)}, {"y_mm", number(y)}});
                one["plates"].push_back(
                    {{"name", plate.name}, {"corners", std::move(corners)}, {"fold_deg", number(plate.fold_deg)}});
            }
            one["remarks"] = remarksJson(p.remarks);
            one["assumed"] = g.input.assumed;
        }
        j["grafts"].push_back(std::move(one));
    }
    j["cautions"] = {never_alone, brace_both, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
