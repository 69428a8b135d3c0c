// The steering column, the plate under its gear, pipes and lines: input, sheet, pages, cards, JSON.
#include "analysis/column.hpp"

#include "analysis/car_points.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "drive/degree.hpp"
#include "sheet/write.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

const char* const column_caution =
    "A steering column is made, welded and judged by those who are licensed for it, or the car is not driven. No weld in a shaft that was not made to be welded; "
    "each clamp bolt locked, each spline full.";

const SteeringColumn* theColumn(const Build& b) {
    return b.steering_columns.empty() ? nullptr : &b.steering_columns.begin()->second;
}
const SteeringGear* theGear(const Build& b) { return b.steering_gears.empty() ? nullptr : &b.steering_gears.begin()->second; }

drive::ColumnView columnView(const Build& b, const Results& r) {
    drive::ColumnView v;
    if (theColumn(b)) {
        v.input = &r.column.input();
        v.plan = &*r.column;
    }
    if (const SteeringGear* g = theGear(b); g && !g->holes.empty()) {
        v.plate_input = &r.gear_plate.input();
        v.plate = &*r.gear_plate;
    }
    return v;
}
std::string bentBy(const drive::ColumnPlan& p) {
    std::string text;
    for (std::size_t k = 0; k < p.joints.size(); ++k)
        text += fmt::format("{}{:.1f}°",
                            k == 0                     ? ""
                            : k + 1 == p.joints.size() ? " and "
                                                       : ", ",
                            p.joints[k].angle_rad.value / drive::one_degree);
    return text;
}

} // namespace

namespace {
/// A tape along a cable or hose: engineering.md, Tape.
double runLengthU95(double mm) { return u95Of(1.0 + 0.0002 * mm); }
} // namespace

std::vector<drive::RunIn> runsIn(const Build& b, CarPoints& points) {
    std::vector<drive::RunIn> all;
    for (const auto& [id, run] : b.runs) {
        drive::RunIn in;
        in.name = run.name;
        in.kind = run.kind;
        in.points = points.take(run.points);
        in.across_mm = run.across.value;
        in.shielded = run.shielded;
        in.assumed = run.across.provenance == Provenance::Assumed;
        if (run.length) in.long_mm = Figure{run.length->value, runLengthU95(run.length->value), run.length->provenance};
        all.push_back(std::move(in));
    }
    return all;
}

drive::ColumnIn columnInput(const Build& b, const Results& r) {
    drive::ColumnIn in;
    const SteeringColumn* c = theColumn(b);
    if (!c) return in;
    in.name = c->name;
    CarPoints points(b, r);
    in.points = points.take(c->points);
    in.bearings = points.take(c->bearings);
    in.bulkhead = points.take(c->bulkhead);
    in.runs = runsIn(b, points);
    if (const std::string lost = points.lost(); !lost.empty()) in.missing.push_back(lost);
    in.places = points.places();
    for (const std::string& name : points.assumed()) in.assumed.push_back("the place of " + name);
    in.phases_known = !c->phases.empty();
    in.phases_rad = c->phases;
    if (!in.phases_known && c->points.size() > 3)
        in.assumed.emplace_back("that the forks of each shaft stand alike: nobody looked");
    in.across_known = c->across && c->across->provenance != Provenance::Assumed;
    if (c->across) in.across_mm = c->across->value;
    if (!in.across_known) in.assumed.push_back(fmt::format("that its thickest shaft is {:g} mm thick", in.across_mm));
    if (c->gives) {
        in.gives_mm = c->gives->value;
        if (c->gives->provenance == Provenance::Assumed)
            in.assumed.emplace_back("by how much the column goes together in a crash");
    }
    for (const auto& [id, run] : b.runs)
        if (run.across.provenance == Provenance::Assumed) in.assumed.push_back("the diameter of " + run.name);
    const auto subject = [&](PointId id) { return b.points.at(id).subject; };
    in.between_body_and_frame = subject(c->points.front()) != subject(c->points.back());
    in.limit_rad = c->limit.value;
    in.limit_known = c->limit.provenance != Provenance::Assumed;
    if (!in.limit_known)
        in.assumed.push_back(
            fmt::format("that its joints bend by {:.0f}° at the most: their maker says", in.limit_rad / drive::one_degree));
    // a loom that was said tells nothing of the exhaust
    if (std::none_of(in.runs.begin(), in.runs.end(), [](const auto& run) { return run.kind == CrossingKind::Exhaust; }))
        in.assumed.emplace_back("that no exhaust passes near it: none is said");
    return in;
}

drive::GearPlateIn gearPlateInput(const Build& b, const Results& r) {
    drive::GearPlateIn in;
    const SteeringGear* g = theGear(b);
    if (!g || g->holes.empty()) return in;
    in.name = g->name;
    CarPoints points(b, r);
    in.holes = points.take(g->holes);
    if (const std::string lost = points.lost(); !lost.empty()) in.missing.push_back(lost);
    if (g->holes.size() < 3) in.missing.emplace_back("a third hole: two make no plane");
    in.places = points.places();
    for (const std::string& name : points.assumed()) in.assumed.push_back("the place of " + name);
    in.bolt_known = g->bolt && g->bolt->provenance != Provenance::Assumed;
    if (g->bolt) in.bolt_mm = g->bolt->value;
    if (!in.bolt_known) in.assumed.push_back(fmt::format("bolts of {:g} mm", in.bolt_mm));
    if (g->plate) {
        in.thick_mm = g->plate->value;
        if (g->plate->provenance == Provenance::Assumed) in.assumed.emplace_back("the plate's thickness");
    } else
        in.assumed.push_back(fmt::format("a plate of {:g} mm", drive::least_plate_mm));
    in.closed_rail = g->closed;
    return in;
}

sheet::Drawing columnDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                             const sheet::Format& f) {
    return drive::columnSheet(columnView(b, r), width, height, f);
}

Headline columnHeadline(const Build& b, const Results& r, SubjectId) {
    if (!theColumn(b))
        return {
            "The steering column is not said yet.",
            "Mark the hand wheel's hub, each joint and a place on the gear's own shaft, and say them from above: column steering through Wh Ja Jb Sg."};
    const drive::ColumnIn& in = r.column.input();
    const drive::ColumnPlan& p = *r.column;
    Headline h;
    if (!in.missing.empty())
        h.sentence = fmt::format("The column waits for {}.", in.missing.front());
    else
        h.sentence = fmt::format("Its joints bend by {}; the gear strays {:.0f} ± {:.0f} % from turning evenly.", bentBy(p),
                                 100 * p.stray.value, 100 * p.stray.u95);
    if (!p.remarks.empty())
        h.below = fmt::format("{}: {} ", verdictWord(p.verdict), p.remarks.front().sentence);
    else if (in.missing.empty() && !in.assumed.empty())
        h.below = fmt::format("Marginal: {} was never measured. ", in.assumed.front());
    h.below += column_caution;
    return h;
}

std::vector<sheet::Drawing> columnPages(const Build& b, const Results& r) {
    const drive::ColumnView v = columnView(b, r);
    if (!v.input && !v.plate) return {};
    sheet::Area area;
    sheet::Drawing page = sheet::blankPage(titled(b, r, "Drive: the steering column"), {column_caution, local_rules}, area);
    placeFitted(page, area, [&](double w, double h, const sheet::Format& f) { return drive::columnSheet(v, w, h, f); });
    return {std::move(page)};
}

void keepColumnFiles(const Build& b, const Results& r, FileKeeper& out) {
    const drive::ColumnView v = columnView(b, r);
    if (v.plate && !v.plate->outline.empty())
        out.keep(fmt::format("gear-plate-{}.dxf", v.plate->name),
                 [&](const auto& to) { return sheet::writeDxf(drive::gearPlateDrawing(*v.plate), to); });
}

namespace {

class ColumnCards : CardMaker {
public:
    using CardMaker::CardMaker;

    std::optional<Card> column() const {
        const SteeringColumn* c = theColumn(b_);
        if (!c) return std::nullopt;
        const drive::ColumnPlan& p = *r_.column;
        Card card = begun(fmt::format("column {}", c->name), p.verdict, "steering-column", c->id.value);
        for (const drive::ColumnJoint& j : p.joints)
            card.rows.push_back(
                {"joint " + j.name,
                 fmt::format("{:.1f}° ± {:.1f}°", j.angle_rad.value / drive::one_degree, j.angle_rad.u95 / drive::one_degree),
                 Mark::Derived, true});
        for (const drive::NearRun& n : p.near)
            card.rows.push_back(
                {n.name, fmt::format("{} ± {:.0f}", len(n.clear_mm.value), n.clear_mm.u95), Mark::Derived, false});
        if (!p.remarks.empty()) card.sentences.push_back(p.remarks.front().sentence + " " + p.remarks.front().remedy);
        card.sentences.push_back(fmt::format("Caution: {}", column_caution));
        const std::string line = fmt::format("column {} ", c->name);
        card.actions.push_back({"forks", line + "forks ", "", true});
        card.actions.push_back({"thickest shaft", line + "across ", "", true});
        card.actions.push_back({"bearings", line + "bearings ", "", true});
        card.actions.push_back({"bulkhead", line + "bulkhead ", "", true});
        card.actions.push_back({"gives in a crash", line + "gives ", "", true});
        card.actions.push_back({"joints bend at most", line + "limit ", "", true});
        card.actions.push_back({"remove", "remove " + line.substr(0, line.size() - 1), "", false});
        return card;
    }
    std::optional<Card> gear() const {
        const SteeringGear* g = theGear(b_);
        if (!g) return std::nullopt;
        const drive::GearPlatePlan& p = *r_.gear_plate;
        Card card = begun(fmt::format("{} {}", word(g->kind), g->name), p.verdict, "steering-gear", g->id.value);
        if (g->each_way) card.rows.push_back({"each way", len(g->each_way->value), markOf(g->each_way->provenance), true});
        if (g->swing)
            card.rows.push_back({"its arm swings", units::formatAngle(g->swing->value), markOf(g->swing->provenance), true});
        if (g->turns)
            card.rows.push_back(
                {"turns, stop to stop", fmt::format("{:g}", g->turns->value), markOf(g->turns->provenance), false});
        if (!p.holes.empty()) {
            card.rows.push_back(
                {"plate", fmt::format("{} thick, {:.2f} kg", small(p.thick_mm), p.mass_kg), Mark::Derived, false});
            card.rows.push_back({"holes", fmt::format("{} of {}", p.holes.size(), small(p.hole_mm)), Mark::Derived, false});
        }
        if (!p.remarks.empty()) card.sentences.push_back(p.remarks.front().sentence + " " + p.remarks.front().remedy);
        card.sentences.push_back(fmt::format("Caution: {}", column_caution));
        const std::string line = fmt::format("steer-gear {} {} ", g->name, word(g->kind));
        card.actions.push_back({"its holes", line + "holes ", "", true});
        card.actions.push_back({"bolts", line + "bolt ", "", true});
        card.actions.push_back({"plate", line + "plate ", "", true});
        card.actions.push_back({g->kind == SteerKind::Rack ? "each way" : "its arm swings",
                                line + (g->kind == SteerKind::Rack ? "each-way " : "swing "), "", true});
        card.actions.push_back({"turns", line + "turns ", "", true});
        card.actions.push_back({"remove", fmt::format("remove steer-gear {}", g->name), "", false});
        return card;
    }
    std::optional<Card> run(const std::string& name) const {
        const Run* run = runNamed(b_, name);
        if (!run) return std::nullopt;
        Card card;
        card.title = fmt::format("{} {}", word(run->kind), name);
        card.journal_table = "run";
        card.journal_id = run->id.value;
        std::string through;
        for (const PointId id : run->points) through += (through.empty() ? "" : ", ") + nameOf(b_, id);
        card.rows.push_back({"through", through, Mark::None, false});
        card.rows.push_back({"across", small(run->across.value), markOf(run->across.provenance), true});
        for (const drive::NearRun& n : r_.column->near)
            if (n.name == name)
                card.rows.push_back({"to the steering column", fmt::format("{} ± {:.0f}", len(n.clear_mm.value), n.clear_mm.u95),
                                     Mark::Derived, false});
        for (const drive::RunsApart& a : r_.brakes->apart)
            if (a.line == name || a.beside == name)
                card.rows.push_back({"to " + (a.line == name ? a.beside : a.line),
                                     fmt::format("{} ± {:.0f}", len(a.clear_mm.value), a.clear_mm.u95), Mark::Derived, false});
        const std::string line = fmt::format("run {} {} ", name, word(run->kind));
        card.actions.push_back({"through other points", line + "through ", "", true});
        card.actions.push_back({"its diameter", line + "across ", "", true});
        if (!run->shielded) card.actions.push_back({"a shield is there", line + "shielded", "", false});
        card.actions.push_back({"remove", "remove run " + name, "", false});
        return card;
    }

private:
    static Card begun(std::string title, PlanVerdict v, const char* table, std::uint32_t id) {
        Card card;
        card.title = std::move(title);
        card.word = verdictWord(v);
        card.severity = sheet::severityOf(v);
        card.journal_table = table;
        card.journal_id = id;
        return card;
    }
};

} // namespace

std::optional<Card> columnCard(const Build& b, const Results& r, const Tag& tag) {
    const ColumnCards cards(b, r, the_chassis);
    if (tag.kind == "column") return cards.column();
    if (tag.kind == "steer-gear") return cards.gear();
    return cards.run(tag.rest);
}

std::string driveColumnJson(const Build& b, const Results& r) {
    const drive::ColumnIn& in = r.column.input();
    const drive::ColumnPlan& p = *r.column;
    const bool said = theColumn(b) != nullptr;
    Json j = {{"said", said},
              {"verdict", said ? Json(verdictWord(p.verdict)) : Json(nullptr)},
              {"missing", in.missing},
              {"assumed", in.assumed},
              {"searched", p.searched}};
    j["joints"] = Json::array();
    for (const drive::ColumnJoint& joint : p.joints) {
        Json one = {{"at", joint.name}};
        put(one, joint.angle_rad, "_deg", "bends");
        j["joints"].push_back(std::move(one));
    }
    if (!p.joints.empty()) {
        put(j, p.stray, "", "strays_from_even");
        j["strays_with_forks_at_best"] = number(p.best_stray);
    }
    j["shafts"] = Json::array();
    for (const drive::ColumnShaft& s : p.shafts) {
        Json one = {{"from", s.from}, {"to", s.to}, {"bearings", s.bearings}};
        put(one, s.length_mm, "_mm", "length");
        one["forks_deg"] = s.between_joints ? number(units::degrees(s.phase_rad)) : Json(nullptr);
        one["forks_best_deg"] = s.between_joints ? number(units::degrees(s.best_rad)) : Json(nullptr);
        j["shafts"].push_back(std::move(one));
    }
    j["beside"] = Json::array();
    for (const drive::NearRun& n : p.near) {
        Json one = {{"run", n.name}, {"kind", word(n.kind)}, {"where", n.beside}, {"least_mm", number(n.least_mm)}};
        put(one, n.clear_mm, "_mm", "clear");
        j["beside"].push_back(std::move(one));
    }
    if (p.passage)
        j["bulkhead"] = {{"wide_mm", number(p.passage->wide_mm)},
                         {"along_slant_mm", number(p.passage->long_mm)},
                         {"slant_deg", number(units::degrees(p.passage->slant_rad))},
                         {"from_marks_mm", p.passage->from_marks_mm},
                         {"u95_mm", number(p.passage->out_mm.u95)}};
    if (const drive::ColumnView v = columnView(b, r); v.plate) {
        const drive::GearPlatePlan& plate = *v.plate;
        Json one = {{"name", plate.name},
                    {"verdict", verdictWord(plate.verdict)},
                    {"missing", v.plate_input->missing},
                    {"assumed", v.plate_input->assumed},
                    {"hole_mm", number(plate.hole_mm)},
                    {"edge_mm", number(plate.edge_mm)},
                    {"thick_mm", number(plate.thick_mm)},
                    {"mass_kg", number(plate.mass_kg)}};
        put(one, plate.flat_mm, "_mm", "out_of_plane");
        one["holes"] = Json::array();
        for (const drive::GearPlateHole& h : plate.holes)
            one["holes"].push_back(
                {{"name", h.name}, {"along_mm", number(h.a_mm)}, {"across_mm", number(h.b_mm)}, {"off_mm", number(h.off_mm)}});
        one["remarks"] = remarksJson(plate.remarks);
        j["plate"] = std::move(one);
    }
    j["remarks"] = remarksJson(p.remarks);
    j["cautions"] = {column_caution, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
