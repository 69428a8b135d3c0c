// How wide the chassis is made: sheet, page, cards, files and JSON.
#include "analysis/width.hpp"

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

const char* const narrower_vehicle =
    "A frame of another width is a changed vehicle: ask the authority first. Steering, arms and brakes that move with it are set up and "
    "approved by licensed people.";
const char* const braced_first =
    "Tie both sides to each other ahead, in the middle and behind before the first slit; one side at a time, cold between the stitches.";
const char* const edges_bear =
    "A sill that is not tied to the frame carries nobody: seats and belts go to the frame, licensed work.";

std::string edgeWaits(const WorkedEdge& e) {
    return e.plan.missing.empty() ? std::string() : fmt::format("{} waits for {}.", e.edge.name, e.plan.missing.front());
}

stretch::WidthView widthView(const Build& b, const Results& r, const WorkedWidth& w) {
    stretch::WidthView v;
    if (w.narrow) {
        v.narrow_input = &*w.narrow_input;
        v.narrow = &*w.narrow;
    }
    for (const WorkedEdge& e : w.edges) v.edges.push_back({&e.input, &e.plan, edgeWaits(e), "floor-edge:" + e.edge.name});
    v.planned = r.planned_chassis;
    for (const RailLine* rail : {&r.rail_left, &r.rail_right})
        for (const double side : {-0.5, 0.5}) {
            std::vector<Vec3> line;
            for (Vec3 p : rail->points) {
                p.y_mm += side * rail->width_mm;
                line.push_back(p);
            }
            if (line.size() > 1) v.lines.push_back(std::move(line));
        }
    for (const auto& [id, m] : b.members) {
        if (m.state != MemberState::There || !m.station || !m.until) continue;
        const double half = m.kind == MemberKind::Pan && m.form == SectionForm::Flat ? m.height.value / 2 : 0;
        if (half <= 0) continue;
        const double from = m.station->value, until = m.until->value;
        v.lines.push_back({{from, -half, 0}, {until, -half, 0}, {until, half, 0}, {from, half, 0}, {from, -half, 0}});
    }
    for (const auto& [id, m] : b.members) {
        if (m.state != MemberState::There || m.kind != MemberKind::Spine) continue;
        for (const double side : {-0.5, 0.5}) {
            std::vector<Vec3> line;
            for (const PointId point : m.points)
                if (auto at = r.chassis.positionOf(point)) {
                    at->y_mm += side * m.width.value;
                    line.push_back(*at);
                }
            if (line.size() > 1) v.lines.push_back(std::move(line));
        }
    }
    for (const auto& [id, p] : b.points)
        if (p.subject == the_chassis)
            if (const auto at = r.chassis.positionOf(id))
                v.marks.emplace_back(p.name, isSill(b, id) ? v.planned.lengthwise().map(*at) : v.planned.map(*at));
    v.length = [step = b.settings.length_step](double mm) { return units::formatLength(mm, step); };
    return v;
}

} // namespace

Headline widthHeadline(const Build& b, const Results& r, SubjectId) {
    const WorkedWidth w = workedWidth(b, r);
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    if (!w.narrow && w.edges.empty())
        return {"The chassis stays as wide as it is, and no floor reaches out to a sill.",
                "Say by how much it is made narrower, and where it is slit: narrow by 120 at 420. Or where a floor reaches out: "
                "floor-edge left from Bl Cl Dl to Sl Tl."};
    Headline h;
    PlanVerdict worst_of = PlanVerdict::Holds;
    std::string first;
    const auto judge_by = [&](PlanVerdict v, const std::vector<Remark>& remarks, const std::vector<std::string>& assumed) {
        if (v <= worst_of) return;
        worst_of = v;
        first = !remarks.empty() ? remarks.front().sentence : fmt::format("{} was never measured.", assumed.front());
    };
    if (w.narrow) {
        if (w.narrow->strip_mm > 0)
            h.sentence =
                fmt::format("Slit the floor {} from the middle and take {} out of each side{}.", len(w.narrow->slit_mm),
                            len(w.narrow->strip_mm),
                            w.narrow->lap_mm > 0 ? fmt::format("; the sheets then lap by {}", len(w.narrow->lap_mm)) : "");
        else
            h.sentence = fmt::format("Each side comes in by {}.", len(w.narrow->side_mm));
        judge_by(w.narrow->verdict, w.narrow->remarks, w.narrow_input->assumed);
    }
    for (const WorkedEdge& e : w.edges) {
        if (const std::string waits = edgeWaits(e); !waits.empty()) {
            if (h.sentence.empty()) h.sentence = fmt::format("{} is to reach out to its sill.", e.edge.name);
            worst_of = std::max(worst_of, PlanVerdict::Marginal);
            if (first.empty()) first = waits;
            continue;
        }
        double least = 1e9, most = -1e9;
        for (const stretch::EdgeStation& s : e.plan.stations) {
            least = std::min(least, s.width.value);
            most = std::max(most, s.width.value);
        }
        if (&e == &w.edges.front())
            h.sentence += fmt::format("{}To the sill it is {} to {} at {}.", h.sentence.empty() ? "" : " ", len(least), len(most),
                                      e.edge.name);
        judge_by(e.plan.verdict, e.plan.remarks, e.input.assumed);
    }
    h.below = worst_of == PlanVerdict::Holds ? std::string("Holds, by what was said of it. ")
                                             : fmt::format("{}: {} ", verdictWord(worst_of), first);
    h.below += w.narrow ? narrower_vehicle : edges_bear;
    return h;
}

sheet::Drawing widthDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                            const sheet::Format& f) {
    const WorkedWidth w = workedWidth(b, r);
    return stretch::widthSheet(widthView(b, r, w), width, std::max(height, f.px(stretch::width_sheet_least_px)), f);
}

std::vector<sheet::Drawing> widthPages(const Build& b, const Results& r) {
    const WorkedWidth w = workedWidth(b, r);
    if (!w.narrow && w.edges.empty()) return {};
    sheet::Area area;
    sheet::Drawing page = sheet::blankPage(titled(b, r, "Stretch: how wide"),
                                           {w.narrow ? narrower_vehicle : edges_bear, braced_first, local_rules}, area);
    placeFitted(page, area, [&](double wide, double high, const sheet::Format& f) {
        return stretch::widthSheet(widthView(b, r, w), wide, high, f);
    });
    return {std::move(page)};
}

void addWidthFiles(const Build& b, const Results& r, FileKeeper& out) {
    if (!r.file_damage.empty()) return; // nothing that is cut from comes out of a damaged file
    for (const WorkedEdge& e : workedWidth(b, r).edges)
        if (!e.plan.outline.empty())
            out.keep(fmt::format("floor-edge-{}.dxf", e.edge.name),
                     [&](const auto& to) { return sheet::writeDxf(stretch::stripPattern(e.plan, e.edge.lap.value), to); });
}

std::optional<Card> narrowCard(const Build& b, const Results& r) {
    const WorkedWidth w = workedWidth(b, r);
    if (!w.narrow) return std::nullopt;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    Card c;
    c.title = "Narrower";
    c.word = verdictWord(w.narrow->verdict);
    c.severity = sheet::severityOf(w.narrow->verdict);
    c.rows.push_back({"in all", len(b.narrowing->by.value), sheet::markOf(b.narrowing->by.provenance), true});
    c.rows.push_back({"slit, from the middle", len(w.narrow->slit_mm), sheet::markOf(b.narrowing->slit.provenance), true});
    if (w.narrow->strip_mm > 0) c.rows.push_back({"out of each side", len(w.narrow->strip_mm), Mark::Derived, false});
    if (!w.narrow->remarks.empty())
        c.sentences.push_back(w.narrow->remarks.front().sentence + " " + w.narrow->remarks.front().remedy);
    c.sentences.push_back(fmt::format("Caution: {}", narrower_vehicle));
    c.actions.push_back({"by", "narrow by ", units::formatLength(b.narrowing->by.value, b.settings.length_step), true});
    c.actions.push_back({"slit at", "narrow at ", units::formatLength(b.narrowing->slit.value, b.settings.length_step), true});
    c.actions.push_back({"lap", "narrow lap ", "", true});
    c.actions.push_back({"leave it as wide as it is", "remove narrow", "", false});
    c.journal_table = "narrowing";
    return c;
}

std::optional<Card> edgeCard(const Build& b, const Results& r, const std::string& name) {
    const WorkedWidth w = workedWidth(b, r);
    for (const WorkedEdge& e : w.edges) {
        if (e.edge.name != name) continue;
        Card c;
        c.title = name + ", out to the sill";
        if (const std::string waits = edgeWaits(e); !waits.empty()) {
            c.sentences.push_back(waits);
        } else {
            c.word = verdictWord(e.plan.verdict);
            c.severity = sheet::severityOf(e.plan.verdict);
            for (const stretch::EdgeStation& s : e.plan.stations)
                c.rows.push_back(
                    {fmt::format("at {}", s.at),
                     fmt::format("{} ± {:.1f}", units::formatLength(s.width.value, b.settings.length_step, true), s.width.u95),
                     sheet::markOf(s.width.provenance), false});
            if (!e.plan.remarks.empty())
                c.sentences.push_back(e.plan.remarks.front().sentence + " " + e.plan.remarks.front().remedy);
        }
        c.sentences.push_back(fmt::format("Caution: {}", edges_bear));
        const std::string line = "floor-edge " + name + " ";
        c.actions.push_back({"outriggers", line + "outriggers ", "", true});
        c.actions.push_back({"pitch", line + "pitch ", "", true});
        c.actions.push_back({"sheet", line + "sheet ", "", true});
        c.actions.push_back({"flange up", line + "upstand ", "", true});
        c.actions.push_back({"remove", "remove floor-edge " + name, "", false});
        c.journal_table = "floor-edge";
        c.journal_id = e.edge.id.value;
        return c;
    }
    return std::nullopt;
}

std::string widthJson(const Build& b, const Results& r) {
    const WorkedWidth w = workedWidth(b, r);
    Json j;
    j["narrower"] = nullptr;
    if (w.narrow) {
        const stretch::NarrowPlan& p = *w.narrow;
        Json one = {{"verdict", verdictWord(p.verdict)}, {"by_mm", number(b.narrowing->by.value)},
                    {"each_side_mm", number(p.side_mm)}, {"slit_mm", number(p.slit_mm)},
                    {"strip_mm", number(p.strip_mm)},    {"strip_long_mm", number(p.long_mm)},
                    {"lap_mm", number(p.lap_mm)},        {"plugs_each_side", p.plugs},
                    {"out_kg", number(p.out_kg)}};
        one["members"] = Json::array();
        for (const stretch::NarrowMember& m : p.members)
            one["members"].push_back({{"name", m.name}, {"now_mm", number(m.now_mm)}, {"planned_mm", number(m.then_mm)}});
        one["axles"] = Json::array();
        for (const stretch::NarrowAxle& a : w.narrow_input->axles)
            one["axles"].push_back({{"axle", word(a.end)},
                                    {"mounts_nearer_mm", number(a.arms_mm)},
                                    {"wheels_nearer_mm", number(a.wheels_mm)},
                                    {"track_mm", number(a.track_mm)},
                                    {"track_planned_mm", a.track_mm ? number(*a.track_mm - a.wheels_mm) : Json(nullptr)}});
        one["moved"] = p.moved;
        one["measures"] = Json::array();
        for (const build::Measure& m : p.measures)
            one["measures"].push_back({{"name", m.name}, {"mm", number(m.mm)}, {"u95_mm", number(m.u95_mm)}});
        one["remarks"] = remarksJson(p.remarks);
        one["assumed"] = w.narrow_input->assumed;
        j["narrower"] = std::move(one);
    }
    j["floor_edges"] = Json::array();
    for (const WorkedEdge& e : w.edges) {
        Json one = {{"name", e.edge.name}};
        one["missing"] = e.plan.missing;
        if (e.plan.missing.empty()) {
            one["verdict"] = verdictWord(e.plan.verdict);
            one["side"] = e.plan.left ? "left" : "right";
            one["stations"] = Json::array();
            for (const stretch::EdgeStation& s : e.plan.stations) {
                Json at = {{"station_mm", number(s.station_mm)}, {"at", s.at}};
                put(at, s.width, "_mm", "width");
                put(at, s.rise, "_mm", "rise");
                one["stations"].push_back(std::move(at));
            }
            one["outriggers"] = Json::array();
            for (const stretch::EdgeOutrigger& o : e.plan.outriggers)
                one["outriggers"].push_back({{"station_mm", number(o.station_mm)},
                                             {"long_mm", number(o.long_mm)},
                                             {"rise_mm", number(o.rise_mm)},
                                             {"backed", o.backed}});
            one["strip_kg"] = number(e.plan.strip_kg);
            one["outriggers_kg"] = number(e.plan.outriggers_kg);
            one["root_mpa"] = number(e.plan.stress_mpa);
            one["may_mpa"] = number(e.plan.may_mpa);
            one["weld_share"] = number(e.plan.weld_share);
            one["plugs"] = e.plan.plugs;
            one["remarks"] = remarksJson(e.plan.remarks);
            one["assumed"] = e.input.assumed;
        }
        j["floor_edges"].push_back(std::move(one));
    }
    j["cautions"] = {narrower_vehicle, braced_first, edges_bear, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
