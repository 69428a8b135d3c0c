#include "analysis/bench_parts.hpp"
#include "analysis/fixtures.hpp"
#include "analysis/issued.hpp"
#include "analysis/joins.hpp"
#include "analysis/json.hpp"
#include "analysis/pages.hpp"
#include "analysis/parts.hpp"
#include "analysis/scans.hpp"
#include "analysis/service.hpp"
#include "analysis/steel_views.hpp"
#include "analysis/welds.hpp"
#include "make/crossmember_solid.hpp"
#include "make/make_sheet.hpp"
#include "sheet/tiles.hpp"
#include "sheet/write.hpp"
#include "units/shown.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

std::string ask(const build::Dimension& d, const Build& b) {
    return units::formatLength(d.value, b.settings.length_step) + (d.provenance == Provenance::Assumed ? " ?" : "");
}

Headline makeHeadline(const Build& b, const Results& r) {
    const auto step = b.settings.length_step;
    if (const auto lacks = makeLacks(b, r, the_body); b.mounts.empty() && !b.crossmember && !lacks.empty())
        return lackHeadline(lacks);
    double low = 1e9;
    double high = -1e9;
    int bad = 0;
    for (const auto& m : r.mounts) {
        if (m.on_rail) {
            low = std::min(low, m.gap_mm.value);
            high = std::max(high, m.gap_mm.value);
        }
        bad += m.verdict == PlanVerdict::Fails;
    }
    Headline h;
    if (r.mounts.empty())
        h.sentence = b.mounts.empty() ? "No body mount is set yet." : "The mounts wait until the body has a place.";
    else if (bad)
        h.sentence = fmt::format("{} of {} body mounts can't be made as planned.", bad, r.mounts.size());
    else
        h.sentence = fmt::format("{}, gaps from {} to {}.", units::counted(r.mounts.size(), "a body mount"),
                                 units::formatLength(low, step), units::formatLength(high, step, true));
    if (r.crossmember->possible && r.crossmember->dropped)
        h.below = fmt::format("Crossmember at {}: middle {} dropped by {}, legs at {} and {}, {} in all.",
                              units::formatLength(r.crossmember->station_mm, step),
                              units::formatLength(r.crossmember->dropped->middle_mm, step, true),
                              units::formatLength(r.crossmember->dropped->drop_mm, step, true),
                              units::formatAngle(r.crossmember->dropped->left.angle_rad, 1),
                              units::formatAngle(r.crossmember->dropped->right.angle_rad, 1),
                              units::formatMass(r.crossmember->mass_kg));
    else if (r.crossmember->possible)
        h.below =
            fmt::format("Crossmember at {}: bridge {} long between the flanges, {} in all.",
                        units::formatLength(r.crossmember->station_mm, step),
                        units::formatLength(r.crossmember->box_length_mm, step, true), units::formatMass(r.crossmember->mass_kg));
    else
        h.below = b.crossmember ? "The crossmember waits for " + r.crossmember->waiting_for + "." : "No crossmember is planned.";
    return h;
}

Headline makeHeadlineOf(const Build& b, const Results& r, SubjectId) { return makeHeadline(b, r); }

Drawing makeViewOf(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                   const Format& f) {
    return makeView(b, r, o, width, height, f);
}

void addMakePages(const Build& b, const Results& r, std::vector<Drawing>& pages) {
    if (!r.mounts.empty()) {
        Area area;
        Drawing page = blankPage(
            titled(b, r, "Make: body mounts"),
            {local_rules, "Seat belts are not anchored to body mounts of your own making without licensed approval."}, area);
        make::MountsView v;
        v.mounts = &r.mounts;
        v.step = b.settings.length_step;
        v.body_thickness_mm = b.mount_design.body_thickness.value;
        v.rail_thickness_mm = b.rail.thickness.value;
        page.place(make::mountsSheet(v, area.width, area.height * 0.52, on_paper), {area.x, area.y});
        std::vector<std::vector<std::string>> rows;
        const auto step = b.settings.length_step;
        for (const auto& m : r.mounts) {
            std::string shims;
            for (const double s : m.shims_mm) shims += fmt::format("{}{:g}", shims.empty() ? "" : " + ", s);
            rows.push_back({m.name, units::formatLength(m.station_mm, step),
                            m.on_rail ? units::shown(m.gap_mm, [&](double mm) { return units::formatSmall(mm, step); }) : "–",
                            ask(b.mount_design.washer, b), units::fixed(m.biscuit_mm.value, 1), units::fixed(m.standoff_mm, 0),
                            shims, m.bolt_length_mm ? fmt::format("M{:g} × {:g}", m.bolt_mm, *m.bolt_length_mm) : "–",
                            verdictWord(m.verdict), ""});
        }
        addTable(page, {area.x, area.y + area.height * 0.56, area.width, area.height * 0.44},
                 {{"mount", 24},
                  {"station", 26, Anchor::Right, Face::Sans},
                  {"gap", 40, Anchor::Right, Face::Sans},
                  {"washer", 20, Anchor::Right, Face::Sans},
                  {"biscuit", 22, Anchor::Right, Face::Sans},
                  {"standoff", 24, Anchor::Right, Face::Sans},
                  {"shims", 26, Anchor::Right, Face::Sans},
                  {"bolt", 32, Anchor::Right, Face::Sans},
                  {"verdict", 24},
                  {"by hand", 30}},
                 rows, on_paper.body());
        pages.push_back(std::move(page));
    }
    for (Drawing& page : crossmemberSheet(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : partPages(b, r, false)) pages.push_back(std::move(page));
    for (Drawing& page : servicePages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : orderPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : joinPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : weldPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : fixturePages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : issuePages(b, r)) pages.push_back(std::move(page));
}

void addMakeFiles(const Build& b, const Results& r, FileKeeper& out) {
    if (auto pages = crossmemberSheet(b, r); !pages.empty()) {
        numberPages(pages);
        out.keep("crossmember.pdf", [&](const auto& to) {
            return writePdf(pages, {"Crossmember: " + b.settings.name, "Gorvet crossmember"}, to);
        });
        out.keep("crossmember.svg", [&](const auto& to) { return writeSvg(pages.front(), to); });
    }
    keepPartFiles(b, r, out);
    keepFixtureFiles(b, r, out);
    if (r.file_damage.empty()) keepPlateFiles(b, r, out);
    // nothing that a machine cuts from comes out of a damaged file: a sheet can say so, a cutting file can't
    const bool cuttable = r.file_damage.empty();
    if (cuttable && r.crossmember.made() && r.crossmember->possible) {
        out.keep("flange-left.dxf", [&](const auto& to) { return writeDxf(make::plateDrawing(r.crossmember->left), to); });
        out.keep("flange-right.dxf", [&](const auto& to) { return writeDxf(make::plateDrawing(r.crossmember->right), to); });
        out.keep("pad.dxf", [&](const auto& to) { return writeDxf(make::plateDrawing(r.crossmember->pad), to); });
        out.keep("crossmember.step", [&](const auto& to) -> Result<void> {
            const auto solids = make::crossmemberSolids(r.crossmember.input(), *r.crossmember);
            return solids ? shape::writeStep(*solids, to, "Crossmember") : Result<void>(solids.error());
        });
    }
}

} // namespace

std::vector<Drawing> crossmemberSheet(const Build& b, const Results& r) {
    std::vector<Drawing> pages;
    if (!r.crossmember.made() || !r.crossmember->possible) return pages;
    const std::vector<std::string> cautions = {part_caution, local_rules, hot_work};
    Area area;
    const std::string mark = issueMark(issuesNow(b, r), "crossmember");
    const auto headed = [&](const std::string& words) {
        PageTitle t = titled(b, r, words);
        if (!mark.empty()) t.note = mark + "; " + t.note;
        return t;
    };
    Drawing page = blankPage(
        headed(fmt::format("Crossmember at {}", units::formatLength(r.crossmember->station_mm, b.settings.length_step))),
        cautions, area);
    make::CrossmemberView v;
    v.input = &r.crossmember.input();
    v.plan = &*r.crossmember;
    v.step = b.settings.length_step;
    page.place(make::crossmemberSheet(v, area.width, area.height - 12, on_paper), {area.x, area.y});
    pages.push_back(std::move(page));
    Drawing plates = blankPage(headed("Plates of the crossmember"), cautions, area);
    double x = area.x;
    for (const make::Plate* plate : {&r.crossmember->left, &r.crossmember->right, &r.crossmember->pad}) {
        plates.place(make::plateSheet(*plate, b.settings.length_step, area.width / 3 - 4, area.height - 14, on_paper),
                     {x, area.y});
        x += area.width / 3;
    }
    pages.push_back(std::move(plates));
    // the plates as templates
    for (const make::Plate* plate : {&r.crossmember->left, &r.crossmember->right, &r.crossmember->pad}) {
        addAtFullSize(pages, headed(fmt::format("Template 1 : 1, {}", plate->name)), cautions, make::plateDrawing(*plate));
    }
    return pages;
}

namespace {
const std::vector<SlowNode> make_nodes{serviceNode(), platesNode()};
}

extern const BenchInfo make_bench; // of the table
const BenchInfo make_bench{"make",
                           "Make",
                           "What is made of steel, and how?",
                           "mounts, crossmember and parts",
                           [](const Build& b, const Results&) {
                               return !b.mounts.empty() || b.crossmember.has_value() || !b.steel_parts.empty() ||
                                      !b.fixtures.empty();
                           },
                           makeHeadlineOf,
                           makeLacks,
                           {{"sheet", "The sheet", makeViewOf},
                            {"parts", "Parts", partsDrawing, {}, partsHeadline},
                            {"above", "From above", aboveDrawing, {}, partsHeadline, nullptr, aboveDragged},
                            {"order", "In order", orderDrawing, {}, orderHeadline},
                            {"cut", "Cut list", nullptr, {}, cutListHeadline, cutList},
                            {"bars", "Bars", barsDrawing, {}, barsHeadline},
                            {"plates", "Plates", platesDrawing, {slow::plates}, platesHeadline},
                            {"fasteners", "Fasteners", serviceDrawing, {slow::service}, serviceHeadline},
                            {"joins", "Joins", nullptr, {}, joinsHeadline, joinsList},
                            {"welds", "Welds", weldsDrawing, {}, weldsHeadline},
                            {"fixture", "Fixture", fixturesDrawing, {}, fixturesHeadline},
                            {"issues", "Handed out", nullptr, {}, issuesHeadline, issuesList}},
                           addMakeFindings,
                           makeCard,
                           addMakePages,
                           addMakeFiles,
                           [](const Build&, const Results& r) { return makeJson(r); },
                           &make_nodes,
                           false,
                           nullptr,
                           {{"part", makePartJson, {slow::frame}},
                            {"cut", makeCutJson},
                            {"bars", makeBarsJson},
                            {"plates", makePlatesJson, {slow::plates}},
                            {"fasteners", makeServiceJson, {slow::service}},
                            {"order", makeOrderJson},
                            {"joins", makeJoinsJson},
                            {"welds", makeWeldsJson},
                            {"fixture", makeFixtureJson},
                            {"issues", makeIssuesJson}}};

} // namespace gorvet::analysis
