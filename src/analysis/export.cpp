#include "analysis/export.hpp"

#include "analysis/findings.hpp"
#include "analysis/pages.hpp"
#include "analysis/views.hpp"
#include "files/out_file.hpp"
#include "formats/csv.hpp"
#include "formats/readings_csv.hpp"
#include "make/crossmember_solid.hpp"
#include "make/make_sheet.hpp"
#include "sheet/page.hpp"
#include "sheet/write.hpp"
#include "tape/measuring_sheet.hpp"
#include "work/work_sheet.hpp"

#include <cmath>
#include <functional>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

std::string ask(const build::Dimension& d, const Build& b) {
    return units::formatLength(d.value, b.settings.length_step) + (d.provenance == Provenance::Assumed ? " ?" : "");
}

Result<void> writeText(const std::filesystem::path& path, const std::string& text) {
    return files::putText(path, files::Kind::Csv, text);
}

std::string cutListCsv(const Results& r) {
    std::string csv = "count,piece,stock,length_mm,ends,mass_kg\n";
    for (const auto& p : r.crossmember.pieces)
        csv += fmt::format("{},{},{},{:.1f},{},{:.3f}\n", p.count, formats::csvField(p.name), formats::csvField(p.stock),
                           p.length_mm, formats::csvField(p.ends), p.mass_kg);
    for (const auto& m : r.mounts) {
        if (!m.on_rail) continue;
        if (m.standoff_mm > 0)
            csv += fmt::format("1,{},tube,{:.1f},square,\n", formats::csvField("standoff " + m.name), m.standoff_mm);
        if (m.bolt_length_mm)
            csv += fmt::format("1,{},M{:g} bolt,{:.0f},,\n", formats::csvField("mount bolt " + m.name), m.bolt_mm,
                               *m.bolt_length_mm);
        csv += fmt::format("1,{},{},,,\n", formats::csvField("mount nut " + m.name), formats::csvField(m.nut));
    }
    if (r.stretch.sleeve)
        csv += fmt::format("2,inner sleeve,{},{:.1f},square,\n",
                           formats::csvField(fmt::format("{:.1f} × {:.1f} × {:.1f}", r.stretch.sleeve->height_mm,
                                                         r.stretch.sleeve->width_mm, r.stretch.sleeve->wall_mm)),
                           r.stretch.sleeve->length_mm);
    if (r.stretch.splice && r.stretch.splice->plate) {
        const auto& plate = *r.stretch.splice->plate;
        csv += fmt::format("4,fish plate,{},{:.1f},\"{:.0f} high, ends tapered\",\n",
                           formats::csvField(fmt::format("plate {:g}", plate.thickness_mm)), plate.length_mm, plate.height_mm);
    }
    if (r.stretch.status == stretch::Status::Planned && !r.stretch.shortens)
        for (const auto& [name, cut] : {std::pair{"left", &r.stretch.left}, std::pair{"right", &r.stretch.right}})
            if (cut->known) csv += fmt::format("1,new rail piece {},as the rail,{:.1f},square,\n", name, cut->length_mm);
    return csv;
}

} // namespace

std::vector<formats::PointRow> pointRows(const Build& b, const SurveyOf& s) {
    std::vector<formats::PointRow> rows;
    for (size_t i = 0; i < s.solution.points.size(); ++i) {
        const tape::AdjustedPoint& p = s.solution.points[i];
        if (!p.placed) continue;
        rows.push_back({s.survey.points[i].name,
                        b.points.at(s.point_ids[i]).role,
                        p.position,
                        {p.sd_mm[0], p.sd_mm[1], p.sd_mm[2]},
                        p.fixed     ? "fixed"
                        : p.assumed ? "assumed"
                                    : "not fixed"});
    }
    return rows;
}

std::vector<tape::RankedReading> measuringRound(const SurveyOf& s, size_t count) {
    const auto plan = tape::planReadings(s.survey, s.solution, s.condition, s.wanted, s.means, count);
    std::vector<tape::RankedReading> round;
    for (const size_t i : tape::walkingOrder(s.solution, plan)) round.push_back(plan[i]);
    return round;
}

std::vector<Drawing> measuringSheets(const Build& b, const Results& r, Subject subject, size_t count) {
    const SurveyOf& s = r.of(subject);
    tape::MeasuringSheet sheet{&s.survey, &s.solution, measuringRound(s, count), b.settings.length_step,
                               subject == Subject::Body ? Ink::Body : Ink::Chassis};
    std::vector<Drawing> pages;
    for (size_t first = 0; first < sheet.readings.size();) {
        Area area;
        std::vector<std::string> cautions{
            "Take each figure twice, the second time from the other end. Write down how it stands and on what.", stands};
        if (const std::string searched = tape::searchedWords(s.survey); !searched.empty())
            cautions.push_back("Readings " + searched + ".");
        Drawing page =
            blankPage(titled(b, r, fmt::format("Measuring sheet of the {}: {}", word(subject), b.settings.want)), cautions, area);
        const size_t rows = tape::measuringSheetRows(area.height, on_paper);
        page.place(tape::measuringSheet(sheet, first, rows, area.width, area.height, on_paper), {area.x, area.y});
        pages.push_back(std::move(page));
        first += rows;
    }
    numberPages(pages);
    return pages;
}

std::vector<Drawing> crossmemberSheet(const Build& b, const Results& r) {
    std::vector<Drawing> pages;
    if (!r.crossmember_input || !r.crossmember.possible) return pages;
    const std::vector<std::string> cautions = {"The strength of this part is not checked here.", local_rules, hot_work};
    Area area;
    Drawing page = blankPage(
        titled(b, r, fmt::format("Crossmember at {}", units::formatLength(r.crossmember.station_mm, b.settings.length_step))),
        cautions, area);
    make::CrossmemberView v;
    v.input = &*r.crossmember_input;
    v.plan = &r.crossmember;
    v.step = b.settings.length_step;
    page.place(make::crossmemberSheet(v, area.width, area.height - 12, on_paper), {area.x, area.y});
    pages.push_back(std::move(page));
    Drawing plates = blankPage(titled(b, r, "Plates of the crossmember"), cautions, area);
    double x = area.x;
    for (const make::Plate* plate : {&r.crossmember.left, &r.crossmember.right, &r.crossmember.pad}) {
        plates.place(make::plateSheet(*plate, b.settings.length_step, area.width / 3 - 4, area.height - 14, on_paper),
                     {x, area.y});
        x += area.width / 3;
    }
    pages.push_back(std::move(plates));
    // the plates as templates, where they fit on a page
    for (const make::Plate* plate : {&r.crossmember.left, &r.crossmember.right, &r.crossmember.pad}) {
        if (plate->width_mm > area.width || plate->height_mm > area.height - 14) continue;
        Area own;
        Drawing template_page = blankPage(titled(b, r, fmt::format("Template 1 : 1, {}", plate->name)), cautions, own);
        template_page.place(make::plateDrawing(*plate), {own.x, own.y});
        addCheckBar(template_page, {own.x, own.y + own.height - 2});
        pages.push_back(std::move(template_page));
    }
    return pages;
}

std::vector<Drawing> workSheet(const Build& b, const Results& r) {
    if (!r.work_planned) return {};
    return work::wallSheet(r.work, b.settings.length_step, titled(b, r, "Order of work"), {local_rules, hot_work, stands});
}

namespace {

/// What wants more height than the page has is drawn smaller, down to two thirds.
void placeFitted(Drawing& page, const Area& area, const std::function<Drawing(double, double, const Format&)>& draw) {
    Format f = on_paper;
    Drawing d = draw(area.width, area.height, f);
    for (const double least = on_paper.unit * 0.66; d.height > area.height + 0.01 && f.unit > least;) {
        f.unit *= 0.94;
        d = draw(area.width, area.height, f);
    }
    page.place(d, {area.x, area.y});
}

} // namespace

std::vector<Drawing> buildSheet(const Build& b, const Results& given, const ScanSheets& scans) {
    Results with;
    const bool lacks =
        std::none_of(given.findings.begin(), given.findings.end(), [](const Finding& f) { return f.bench == Bench::Scan; });
    if (lacks && !scans.findings.empty()) {
        with = given;
        with.findings.insert(with.findings.end(), scans.findings.begin(), scans.findings.end());
        std::stable_sort(with.findings.begin(), with.findings.end(), [](const Finding& a, const Finding& c) {
            return a.bench != c.bench ? a.bench < c.bench : a.severity > c.severity;
        });
    }
    const Results& r = with.findings.empty() ? given : with;
    std::vector<Drawing> pages;
    {
        Area area;
        Drawing cover = blankPage(titled(b, r, "Build sheet"), {no_certificate, local_rules, stands}, area);
        double y = area.y + 2;
        for (const Bench bench : all_benches) {
            const Headline h = headline(b, r, bench, Subject::Chassis);
            const Worst worst = worstOf(r.findings, bench);
            addMark(cover, {area.x + 3, y + 3.4}, 4, worst.severity);
            cover.add(
                Text{{area.x + 9, y + 5}, benchName(bench), on_paper.head(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
            double line_y = y + 5;
            for (const std::string& line : wrapped(h.sentence, area.width - 45, on_paper.lead())) {
                cover.add(Text{{area.x + 42, line_y}, line, on_paper.lead()});
                line_y += 5;
            }
            for (const std::string& line : wrapped(h.below, area.width - 45, on_paper.body())) {
                cover.add(Text{{area.x + 42, line_y}, line, on_paper.body(), Ink::Second});
                line_y += 4.4;
            }
            y = line_y + 3;
        }
        const double rule_height = 110 * on_paper.unit;
        cover.place(ruleView(b, r, {}, area.width, rule_height, on_paper), {area.x, area.y + area.height - rule_height - 4});
        std::vector<std::vector<std::string>> sessions;
        for (const auto& [id, s] : b.sessions)
            sessions.push_back({std::string(word(s.subject)), s.name, std::string(word(s.attitude)), std::string(word(s.support)),
                                s.support_at, s.carried_mass_kg > 0 ? units::formatMass(s.carried_mass_kg) : ""});
        addTable(cover, {area.x, y + 2, area.width, area.y + area.height - rule_height - y - 10},
                 {{"measured", 26}, {"session", 50}, {"attitude", 36}, {"on", 30}, {"at", 60}, {"carrying", 28}}, sessions,
                 on_paper.small());
        pages.push_back(std::move(cover));
    }
    addFindings(pages, b, r);
    for (const Subject subject : {Subject::Chassis, Subject::Body})
        if (!r.of(subject).survey.points.empty())
            for (Drawing& page : surveySheet(b, r, subject)) pages.push_back(std::move(page));
    if (scans.picture) {
        Area area;
        Drawing page = blankPage(titled(b, r, "Scan: body and chassis together"), {no_certificate, local_rules}, area);
        page.add(Picture{{area.x, area.y}, area.width, area.height, scans.picture});
        pages.push_back(std::move(page));
    }
    if (scans.pairs) {
        Area area;
        Drawing page = blankPage(titled(b, r, "Scan: clearances, pair by pair"), {no_certificate, local_rules}, area);
        placeFitted(page, area, scans.pairs);
        pages.push_back(std::move(page));
    }
    if (scans.way) {
        Area area;
        Drawing page = blankPage(titled(b, r, "Scan: the way in"),
                                 {"Nobody under a hung body. Lower it on blocks, never on hands.", local_rules}, area);
        placeFitted(page, area, scans.way);
        pages.push_back(std::move(page));
    }
    if (!b.pins.empty())
        pages.push_back(benchPage(b, r, "Sit: where the body sits", Bench::Sit, Subject::Body,
                                  {no_certificate, "Nobody under a hung body. Lower it on blocks, never on hands."}));
    if (!b.pins.empty() && r.seated()) {
        Area area;
        Drawing page = blankPage(titled(b, r, "Sit: what costs what"), {no_certificate, local_rules}, area);
        placeFitted(page, area, [&](double w, double h, const sheet::Format& f) {
            return seatingsView(b, r, w, h, f, scans.seatings.get());
        });
        pages.push_back(std::move(page));
    }
    if (r.stretch.status == stretch::Status::Planned)
        pages.push_back(benchPage(
            b, r, "Stretch: the cut", Bench::Stretch, Subject::Chassis,
            {hot_work, "Stands each side of the cut, and the rails braced to each other, before the first cut.", local_rules}));
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
        v.parts_assumed = b.mount_design.biscuit_free.provenance == Provenance::Assumed;
        page.place(make::mountsSheet(v, area.width, area.height * 0.52, on_paper), {area.x, area.y});
        std::vector<std::vector<std::string>> rows;
        const auto step = b.settings.length_step;
        for (const auto& m : r.mounts) {
            std::string shims;
            for (const double s : m.shims_mm) shims += fmt::format("{}{:g}", shims.empty() ? "" : " + ", s);
            rows.push_back(
                {m.name, units::formatLength(m.station_mm, step),
                 m.on_rail ? units::formatSmall(m.gap_mm, step) + " ± " + units::formatSmall(m.half_width_mm, step) : "–",
                 ask(b.mount_design.washer, b), units::fixed(m.biscuit_mm, 1), units::fixed(m.standoff_mm, 0), shims,
                 m.bolt_length_mm ? fmt::format("M{:g} × {:g}", m.bolt_mm, *m.bolt_length_mm) : "–", verdictWord(m.verdict), ""});
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
    for (Drawing& page : workSheet(b, r)) pages.push_back(std::move(page));
    numberPages(pages);
    return pages;
}

Result<std::vector<std::filesystem::path>> exportAll(const Build& b, const Results& r, const std::filesystem::path& folder,
                                                     const Progress& progress, const ScanSheets& scans) {
    std::error_code ec;
    std::filesystem::create_directories(folder, ec);
    if (ec)
        return Error{Error::Code::File, folder.string(),
                     fmt::format("The folder {} can't be made: {}.", folder.string(), ec.message()), "Choose another place.", -1};
    std::vector<std::filesystem::path> files;
    std::optional<Error> failed;
    constexpr double about_files = 18;
    // one file after the other; none after the first that failed or after a stop
    const auto keep = [&](const std::string& name, const std::function<Result<void>(const std::filesystem::path&)>& write) {
        if (failed) return;
        if (progress && !progress(std::min(0.99, static_cast<double>(files.size()) / about_files))) {
            failed = Error{Error::Code::Conflict, folder.string(),
                           fmt::format("Cancelled: {} files were written before.", files.size()), "", -1};
            return;
        }
        if (auto done = write(folder / name); !done)
            failed = done.error();
        else
            files.push_back(folder / name);
    };
    keep("build-sheet.pdf", [&](const auto& to) {
        return writePdf(buildSheet(b, r, scans), {"Build sheet: " + b.settings.name, "Gorvet build sheet"}, to);
    });
    for (const Subject subject : {Subject::Chassis, Subject::Body}) {
        if (r.of(subject).survey.points.empty()) continue;
        auto pages = surveySheet(b, r, subject);
        numberPages(pages);
        const std::string name = "survey-" + std::string(word(subject));
        keep(name + ".pdf", [&](const auto& to) { return writePdf(pages, {"Survey: " + b.settings.name, "Gorvet survey"}, to); });
        keep(name + ".svg", [&](const auto& to) { return writeSvg(pages.front(), to); });
        if (auto sheets = measuringSheets(b, r, subject, 30); !sheets.empty())
            keep("measuring-sheet-" + std::string(word(subject)) + ".pdf", [&](const auto& to) {
                return writePdf(sheets, {"Measuring sheet: " + b.settings.name, "Gorvet measuring sheet"}, to);
            });
        keep("as-found-" + std::string(word(subject)) + ".pdf", [&](const auto& to) {
            return writePdf(asFoundReport(b, r, subject), {"As found: " + b.settings.name, "Gorvet report as found"}, to);
        });
        keep("points-" + std::string(word(subject)) + ".csv",
             [&](const auto& to) { return writeText(to, formats::writePoints(pointRows(b, r.of(subject)))); });
        keep("readings-" + std::string(word(subject)) + ".csv",
             [&](const auto& to) { return writeText(to, formats::writeReadings(b, subject)); });
    }
    if (auto pages = crossmemberSheet(b, r); !pages.empty()) {
        numberPages(pages);
        keep("crossmember.pdf", [&](const auto& to) {
            return writePdf(pages, {"Crossmember: " + b.settings.name, "Gorvet crossmember"}, to);
        });
        keep("crossmember.svg", [&](const auto& to) { return writeSvg(pages.front(), to); });
    }
    // nothing that a machine cuts from comes out of a damaged file: a sheet can say so, a cutting file can't
    const bool cuttable = r.file_damage.empty();
    if (cuttable && r.crossmember_input && r.crossmember.possible) {
        keep("flange-left.dxf", [&](const auto& to) { return writeDxf(make::plateDrawing(r.crossmember.left), to); });
        keep("flange-right.dxf", [&](const auto& to) { return writeDxf(make::plateDrawing(r.crossmember.right), to); });
        keep("pad.dxf", [&](const auto& to) { return writeDxf(make::plateDrawing(r.crossmember.pad), to); });
        keep("crossmember.step", [&](const auto& to) -> Result<void> {
            const auto solids = make::crossmemberSolids(*r.crossmember_input, r.crossmember);
            return solids ? shape::writeStep(*solids, to) : Result<void>(solids.error());
        });
    }
    if (auto pages = workSheet(b, r); !pages.empty()) {
        numberPages(pages);
        keep("order-of-work.pdf", [&](const auto& to) {
            return writePdf(pages, {"Order of work: " + b.settings.name, "Gorvet order of work"}, to);
        });
    }
    if (cuttable && (!r.mounts.empty() || r.crossmember.possible || r.stretch.status == stretch::Status::Planned))
        keep("cut-list.csv", [&](const auto& to) { return writeText(to, cutListCsv(r)); });
    if (failed) return *failed;
    return files;
}

} // namespace gorvet::analysis
