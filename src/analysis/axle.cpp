// Axles that are made narrower or wider: their input, sheet, page, card and JSON.
#include "analysis/axle.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

const char* const never_welded =
    "A half-shaft is never welded. Axle, brakes and wheels are judged by licensed people before it moves; have the joint of the tube "
    "approved.";
const char* const measure_axle =
    "Oil out, breather open, bearings and seals out before anything is hot; a bar through both bearing seats while it is welded.";

std::optional<double> railOutside(const Build& b, const Results& r, AxleEnd end) {
    const auto& f = r.chassis.frame;
    double most = 0;
    bool known = false;
    for (const bool left : {true, false}) {
        const int hub =
            end == AxleEnd::Rear ? (left ? f.rear_hub_left : f.rear_hub_right) : (left ? f.front_hub_left : f.front_hub_right);
        if (hub < 0) continue;
        const auto& point = r.chassis.solution->points[static_cast<std::size_t>(hub)];
        if (!point.determined) continue;
        const double station = r.planned_chassis.map(point.position).x_mm;
        if (const auto at = (left ? r.planned_left : r.planned_right).at(station)) {
            most = std::max(most, std::abs(at->y_mm) + b.rail.width.value / 2);
            known = true;
        }
    }
    return known ? std::optional(most) : std::nullopt;
}

std::optional<double> heavierWheel(const Build& b, AxleEnd end) {
    std::optional<double> most;
    for (const auto& [id, w] : b.wheels) {
        const bool rear = w.wheel == Wheel::RearLeft || w.wheel == Wheel::RearRight;
        if (w.weight && rear == (end == AxleEnd::Rear)) most = std::max(most.value_or(0), w.weight->value);
    }
    return most;
}

std::vector<stretch::AxleView> viewsOf(const Build& b, const std::vector<WorkedAxle>& all) {
    std::vector<stretch::AxleView> views;
    const auto step = b.settings.length_step;
    for (const WorkedAxle& a : all)
        views.push_back({fmt::format("{} axle", word(a.end)), &a.input, &a.plan,
                         [step](double mm) { return units::formatLength(mm, step, true); },
                         fmt::format("track:{}", word(a.end))});
    return views;
}

} // namespace

std::vector<WorkedAxle> workedAxles(const Build& b, const Results& r) {
    std::vector<WorkedAxle> all;
    for (const AxleEnd end : {AxleEnd::Rear, AxleEnd::Front})
        if (const AxleJob* job = axleJobOf(b, end)) {
            WorkedAxle a;
            a.end = end;
            a.input = {*job, railOutside(b, r, end), heavierWheel(b, end), {}};
            if (a.input.rail_outside_mm && b.rail.width.provenance == Provenance::Assumed)
                a.input.assumed.emplace_back("the rails' width");
            for (const auto& [id, w] : b.wheels)
                if (w.weight && w.weight->provenance == Provenance::Assumed)
                    a.input.assumed.emplace_back(fmt::format("what the {} wheel carries", word(w.wheel)));
            a.plan = stretch::axlePlan(a.input);
            all.push_back(std::move(a));
        }
    return all;
}

Headline axleHeadline(const Build& b, const Results& r, SubjectId) {
    const auto all = workedAxles(b, r);
    if (all.empty())
        return {"No axle is to be made narrower or wider yet.",
                "Measure it from wheel face to wheel face and say what is wanted: track rear faces 1420 wanted 1300 pinion 25."};
    const WorkedAxle& a = all.front();
    const stretch::AxlePlan& p = a.plan;
    const auto len = [&](double mm) { return units::formatLength(std::abs(mm), b.settings.length_step, true); };
    Headline h;
    const auto side = [&](std::size_t k) {
        const double cut = p.sides[k].cut_mm;
        return fmt::format("{} {} {}", len(cut), cut < 0 ? "let in" : "off", k == 0 ? "left" : "right");
    };
    h.sentence = !p.changes ? fmt::format("The {} axle keeps its width.", word(a.end))
                            : fmt::format("The {} axle: {}, {}.", word(a.end), side(0), side(1));
    h.below = p.verdict == PlanVerdict::Holds
                  ? "Holds, by what was said of it."
                  : fmt::format("{}: {}", verdictWord(p.verdict),
                                !p.remarks.empty()   ? p.remarks.front().sentence
                                : !p.missing.empty() ? fmt::format("not all of it is judged: {} is missing.", p.missing.front())
                                                     : fmt::format("{} was never measured.", p.assumed.front()));
    h.below += fmt::format(" {}", never_welded);
    return h;
}

sheet::Drawing axleDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                           const sheet::Format& f) {
    const auto all = workedAxles(b, r);
    return stretch::axleSheet(viewsOf(b, all), width, height, f);
}

std::vector<sheet::Drawing> axlePages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    for (const WorkedAxle& a : workedAxles(b, r)) {
        sheet::Area area;
        sheet::Drawing page = sheet::blankPage(titled(b, r, fmt::format("Stretch: the {} axle", word(a.end))),
                                               {never_welded, measure_axle, local_rules}, area);
        const std::vector<WorkedAxle> one{a};
        placeFitted(page, area,
                    [&](double w, double h, const sheet::Format& f) { return stretch::axleSheet(viewsOf(b, one), w, h, f); });
        pages.push_back(std::move(page));
    }
    return pages;
}

std::optional<Card> axleCard(const Build& b, const Results& r, const std::string& end) {
    for (const WorkedAxle& a : workedAxles(b, r)) {
        if (word(a.end) != end) continue;
        const AxleJob& j = a.input.job;
        const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
        Card c;
        c.title = fmt::format("The {} axle", end);
        c.word = verdictWord(a.plan.verdict);
        c.severity = sheet::severityOf(a.plan.verdict);
        c.rows.push_back({"faces", len(j.faces.value), sheet::markOf(j.faces.provenance), true});
        if (j.faces_wanted) c.rows.push_back({"wanted", len(j.faces_wanted->value), Mark::None, false});
        for (std::size_t k = 0; k < 2; ++k)
            if (std::abs(a.plan.sides[k].cut_mm) > 0.05)
                c.rows.push_back({fmt::format("{} {}", a.plan.sides[k].cut_mm > 0 ? "off" : "let in", k == 0 ? "left" : "right"),
                                  len(std::abs(a.plan.sides[k].cut_mm)), Mark::Derived, false});
        if (a.plan.track_mm) c.rows.push_back({"track", len(*a.plan.track_mm), Mark::Derived, false});
        for (const Remark& remark : a.plan.remarks) c.sentences.push_back(remark.sentence + " " + remark.remedy);
        if (!a.plan.missing.empty()) c.sentences.push_back(fmt::format("Not judged: {}.", a.plan.missing.front()));
        c.sentences.push_back(fmt::format("Caution: {}", never_welded));
        c.actions.push_back({"wanted width", fmt::format("track {} wanted ", end),
                             j.faces_wanted ? units::formatLength(j.faces_wanted->value, b.settings.length_step) : "", true});
        c.actions.push_back({"pinion", fmt::format("track {} pinion ", end), "", true});
        c.actions.push_back({"wheels", fmt::format("track {} offset ", end), "", true});
        c.actions.push_back({"shafts", fmt::format("track {} shaft-left ", end), "", true});
        c.actions.push_back({"leave the axle as it is", fmt::format("remove track {}", end), "", false});
        c.journal_table = "axle-job";
        c.journal_id = j.id.value;
        return c;
    }
    return std::nullopt;
}

std::string axleJson(const Build& b, const Results& r) {
    Json j;
    j["axles"] = Json::array();
    for (const WorkedAxle& a : workedAxles(b, r)) {
        const stretch::AxlePlan& p = a.plan;
        Json one = {{"axle", word(a.end)},
                    {"verdict", verdictWord(p.verdict)},
                    {"faces_mm", number(p.faces_now_mm)},
                    {"faces_planned_mm", number(p.faces_mm)},
                    {"pinion_moves_mm", number(p.pinion_moves_mm)}};
        for (std::size_t k = 0; k < 2; ++k) {
            const stretch::AxleSide& s = p.sides[k];
            one[k == 0 ? "left" : "right"] = {{"pinion_to_face_mm", number(s.now_mm)},
                                              {"pinion_to_face_planned_mm", number(s.then_mm)},
                                              {"cut_mm", number(s.cut_mm)},
                                              {"shaft_planned_mm", number(s.shaft_mm)},
                                              {"splines_left_mm", number(s.splines_mm)},
                                              {"other_sides_shaft_fits", s.other_fits},
                                              {"perch_moves_mm", number(s.perch_moves_mm)},
                                              {"joint_from_middle_mm", s.weld_mm > 0 ? number(s.weld_mm) : Json(nullptr)}};
        }
        one["track_mm"] = number(p.track_now_mm);
        one["track_planned_mm"] = number(p.track_mm);
        one["over_tyres_planned_mm"] = number(p.over_tyres_mm);
        one["offset_that_keeps_within_mm"] = number(p.offset_needed_mm);
        one["faces_that_keep_within_mm"] = number(p.faces_needed_mm);
        one["tube_beside_perch_mm"] = number(p.free_mm);
        one["brake_to_perch_mm"] = number(p.brake_gap_mm);
        one["tyre_to_perch_mm"] = number(p.tyre_perch_mm);
        one["tyre_to_rail_mm"] = number(p.tyre_rail_mm);
        one["joint_at_1g_mpa"] = number(p.stress_1g_mpa);
        one["joint_in_pothole_mpa"] = number(p.stress_3g_mpa);
        one["joint_may_bear_mpa"] = p.may_mpa > 0 ? number(p.may_mpa) : Json(nullptr);
        one["remarks"] = remarksJson(p.remarks);
        one["assumed"] = p.assumed;
        one["not_judged"] = p.missing;
        j["axles"].push_back(std::move(one));
    }
    j["cautions"] = {never_welded, measure_axle, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
