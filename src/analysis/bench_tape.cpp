#include "analysis/bench_parts.hpp"
#include "analysis/json.hpp"
#include "analysis/listing.hpp"
#include "analysis/origin.hpp"
#include "analysis/pages.hpp"
#include "files/out_file.hpp"
#include "formats/readings_csv.hpp"
#include "sheet/write.hpp"
#include "tape/measuring_sheet.hpp"
#include "units/shown.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

Headline tapeHeadline(const Build& b, const SurveyOf& s, SubjectId subject, const std::vector<Finding>& all) {
    const std::string name = nameOf(b, subject);
    const auto step = b.settings.length_step;
    const auto small = [&](double mm) { return units::formatSmall(std::abs(mm), step, true); };
    if (s.survey.points.empty())
        return {fmt::format("Nothing of the {} is marked yet.", name),
                "Tap on the sketch what you can reach, or type a point: its name, and roughly where it is."};
    if (s.survey.readings.empty())
        return {fmt::format("{} of the {} and no reading yet.", units::counted(s.survey.points.size(), "a point"), name),
                s.survey.points.size() < 2 ? "Mark more: a tape goes from one to another."
                                           : "Tape between any two of them: the two names and the length."};
    int flagged = 0;
    std::string worst;
    double worst_w = 0;
    for (size_t i = 0; i < s.solution->readings.size(); ++i) {
        const auto& a = s.solution->readings[i];
        if (a.verdict != tape::Verdict::Retape) continue;
        ++flagged;
        if (std::abs(a.w) > worst_w) {
            worst_w = std::abs(a.w);
            const auto& r = s.survey.readings[i];
            worst = s.survey.points[r.from].name + (r.to >= 0 ? "–" + s.survey.points[r.to].name : "");
        }
    }
    const std::string readings =
        fmt::format("{} of {}, {} more than needed.", units::counted(s.survey.readings.size(), "a reading"),
                    units::counted(s.survey.points.size(), "a point"), s.solution->redundancy);
    if (s.solution->status != tape::Status::Solved) {
        const std::string remedy = s.solution->undetermined.empty() ? "" : " " + s.solution->undetermined.front().remedy;
        return {fmt::format("The {}'s shape is not fixed yet.", name), s.solution->message + remedy};
    }
    std::string spoils = flagged == 0   ? ""
                         : flagged == 1 ? fmt::format(" One reading spoils its neighbours: {}.", worst)
                                        : fmt::format(" {} readings to tape again, first {}.", flagged, worst);
    // suspects of which only one is wrong are no more misreads than one
    if (s.solution->inseparable.size() == 1 && static_cast<int>(s.solution->inseparable.front().size()) == flagged) {
        std::string names;
        const auto& group = s.solution->inseparable.front();
        for (size_t k = 0; k < group.size() && k < 4; ++k) {
            const auto& r = s.survey.readings[static_cast<size_t>(group[k])];
            names += (k ? ", " : "") + s.survey.points[static_cast<size_t>(r.from)].name +
                     (r.to >= 0 ? "–" + s.survey.points[static_cast<size_t>(r.to)].name : "");
        }
        if (group.size() > 4) names += fmt::format(" and {} more", group.size() - 4);
        spoils = fmt::format(" One of {} is wrong, the likeliest first.", names);
    }
    if (!s.solution->blamed_holds.empty()) spoils += " What is held contradicts the readings.";
    const tape::ConditionFigure* worst_figure = nullptr;
    const tape::ConditionFigure* twist = nullptr;
    for (const auto& f : s.condition->figures) {
        if (!f.judged) continue;
        if (f.kind == tape::FigureKind::Twist) twist = &f;
        const auto score = [](const tape::ConditionFigure& g) {
            return 1000.0 * static_cast<int>(g.verdict) + std::abs(g.size_mm.value);
        };
        if (!worst_figure || score(f) > score(*worst_figure)) worst_figure = &f;
    }
    if (!worst_figure) return {fmt::format("The {}'s points are fixed.", name), readings + spoils};
    const auto& f = *worst_figure;
    Headline h;
    if (f.verdict == PlanVerdict::Fails) {
        switch (f.kind) {
        case tape::FigureKind::Diamond:
            h.sentence = fmt::format("Not square: the {} rail stands {} aft of the other, ± {}.",
                                     f.size_mm.value > 0 ? "left" : "right", small(f.size_mm.value), small(f.size_mm.u95));
            break;
        case tape::FigureKind::Twist:
            h.sentence = fmt::format("Twisted by {}: {}.", units::shown(f.size_mm, small), f.words);
            break;
        case tape::FigureKind::Thrust:
            h.sentence =
                fmt::format("The rear axle stands askew by {} ± {}: {}.", units::formatAngle(std::abs(f.angle_rad.value)),
                            units::formatAngle(f.angle_rad.u95), f.words);
            break;
        default: h.sentence = fmt::format("Not true: {} {}, {}.", f.name, units::shown(f.size_mm, small), f.words); break;
        }
    } else if (f.verdict == PlanVerdict::Marginal) {
        h.sentence = proven(f.size_mm) ? fmt::format("Nearly true: {} {}, {}.", f.name, units::shown(f.size_mm, small), f.words)
                                       : fmt::format("Not proven straight yet: {} {}.", f.name, units::shown(f.size_mm, small));
    } else if (const auto part =
                   std::find_if(all.begin(), all.end(), [](const Finding& g) { return g.code.starts_with("tape.section-"); });
               part != all.end() && !s.condition->sections.empty()) {
        h.sentence = part->sentence; // crooked in one place, though the frame as a whole shows none
    } else {
        h.sentence = fmt::format("The {} is straight: nothing is out by more than {} ± {}.", name, small(f.size_mm.value),
                                 small(f.size_mm.u95));
    }
    if (twist && twist != worst_figure)
        h.below = fmt::format("Twist {} ± {} over the frame. ", units::formatAngle(std::abs(twist->angle_rad.value)),
                              units::formatAngle(twist->angle_rad.u95));
    h.below += readings + spoils;
    return h;
}

Headline tapeHeadlineOf(const Build& b, const Results& r, SubjectId subject) {
    return tapeHeadline(b, r.of(subject), subject, r.findings);
}

void addTapePages(const Build& b, const Results& r, std::vector<Drawing>& pages) {
    for (const SubjectId subject : subjectsInOrder(b))
        if (!r.of(subject).survey.points.empty()) pages.push_back(surveyPage(b, r, subject));
}

void addAnnex(const Build& b, const Results& r, std::vector<Drawing>& pages) {
    for (const SubjectId subject : subjectsInOrder(b))
        if (!r.of(subject).survey.points.empty())
            for (Drawing& page : surveyTables(b, r, subject)) pages.push_back(std::move(page));
}

void addTapeFiles(const Build& b, const Results& r, FileKeeper& out) {
    for (const SubjectId subject : subjectsInOrder(b)) {
        if (r.of(subject).survey.points.empty()) continue;
        auto pages = surveySheet(b, r, subject);
        numberPages(pages);
        const std::string name = "survey-" + nameOf(b, subject);
        out.keep(name + ".pdf", [&](const auto& to) {
            return writePdf(pages, {"Survey: " + b.settings.name, "Gorvet survey"}, to);
        });
        out.keep(name + ".svg", [&](const auto& to) { return writeSvg(pages.front(), to); });
        if (auto sheets = measuringSheets(b, r, subject, 30); !sheets.empty())
            out.keep("measuring-sheet-" + nameOf(b, subject) + ".pdf", [&](const auto& to) {
                return writePdf(sheets, {"Measuring sheet: " + b.settings.name, "Gorvet measuring sheet"}, to);
            });
        out.keep("as-found-" + nameOf(b, subject) + ".pdf", [&](const auto& to) {
            return writePdf(asFoundReport(b, r, subject), {"As found: " + b.settings.name, "Gorvet report as found"}, to);
        });
        out.keep("points-" + nameOf(b, subject) + ".csv", [&](const auto& to) {
            return files::putText(to, files::Kind::Csv, formats::writePoints(pointRows(b, r.of(subject))));
        });
        out.keep("readings-" + nameOf(b, subject) + ".csv",
                 [&](const auto& to) { return files::putText(to, files::Kind::Csv, formats::writeReadings(b, subject)); });
    }
}

} // namespace

std::vector<formats::PointRow> pointRows(const Build& b, const SurveyOf& s) {
    std::vector<formats::PointRow> rows;
    for (size_t i = 0; i < s.solution->points.size(); ++i) {
        const tape::AdjustedPoint& p = s.solution->points[i];
        if (!p.placed) continue;
        rows.push_back({s.survey.points[i].name,
                        b.points.at(s.point_ids[i]).role,
                        p.position,
                        {p.sd_mm[0], p.sd_mm[1], p.sd_mm[2]},
                        p.determined ? "fixed"
                        : p.assumed  ? "assumed"
                                     : "not fixed"});
    }
    return rows;
}

std::vector<tape::RankedReading> measuringRound(const SurveyOf& s, size_t count) {
    const auto plan = tape::planReadings(s.survey, *s.solution, *s.condition, s.wanted, s.means, count);
    std::vector<tape::RankedReading> round;
    for (const size_t i : tape::walkingOrder(*s.solution, plan)) round.push_back(plan[i]);
    return round;
}

std::vector<Drawing> measuringSheets(const Build& b, const Results& r, SubjectId subject, size_t count) {
    const SurveyOf& s = r.of(subject);
    tape::MeasuringSheet sheet{&s.survey, &*s.solution, measuringRound(s, count), b.settings.length_step,
                               subject == the_body ? Ink::Body : Ink::Chassis};
    std::vector<Drawing> pages;
    for (size_t first = 0; first < sheet.readings.size();) {
        Area area;
        std::vector<std::string> cautions{
            "Take each figure twice, the second time from the other end. Write down how it stands and on what.", stands};
        if (const std::string searched = tape::searchedWords(s.survey); !searched.empty())
            cautions.push_back("Readings " + searched + ".");
        Drawing page =
            blankPage(titled(b, r, fmt::format("Measuring sheet of the {}: {}", nameOf(b, subject), b.settings.want), subject),
                      cautions, area);
        const size_t rows = tape::measuringSheetRows(area.height, on_paper);
        page.place(tape::measuringSheet(sheet, first, rows, area.width, area.height, on_paper), {area.x, area.y});
        pages.push_back(std::move(page));
        first += rows;
    }
    numberPages(pages);
    return pages;
}

extern const BenchInfo tape_bench; // of the table
const BenchInfo tape_bench{"tape",
                           "Tape",
                           "Is the frame straight, and how well is that known?",
                           nullptr,
                           [](const Build& b, const Results&) { return !b.readings.empty(); },
                           tapeHeadlineOf,
                           tapeLacks,
                           {{"sheet", "The sheet", tapeView},
                            {"readings", "Readings", nullptr, {}, nullptr, readingsList},
                            {"points", "Points", nullptr, {}, nullptr, pointsList}},
                           addTapeFindings,
                           tapeCard,
                           addTapePages,
                           addTapeFiles,
                           nullptr,
                           nullptr,
                           true,
                           addAnnex};

} // namespace gorvet::analysis
