#include "analysis/export.hpp"
#include "analysis/origin.hpp"
#include "analysis/pages.hpp"
#include "analysis/practice.hpp"
#include "analysis/survey_lines.hpp"
#include "analysis/views.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

Drawing surveyPage(const Build& b, const Results& r, SubjectId subject) {
    return benchPage(b, r, "Survey of the " + nameOf(b, subject), "tape", subject, {no_certificate, stands});
}

std::vector<Drawing> surveySheet(const Build& b, const Results& r, SubjectId subject) {
    std::vector<Drawing> pages{surveyPage(b, r, subject)};
    for (Drawing& page : surveyTables(b, r, subject)) pages.push_back(std::move(page));
    return pages;
}

std::vector<Drawing> surveyTables(const Build& b, const Results& r, SubjectId subject) {
    const SurveyOf& s = r.of(subject);
    const std::string name = nameOf(b, subject);
    std::vector<Drawing> pages;
    const auto step = b.settings.length_step;
    std::vector<std::vector<std::string>> points;
    for (size_t i = 0; i < s.solution->points.size(); ++i) {
        const auto& p = s.solution->points[i];
        const auto pm = [&](int axis) {
            if (!std::isfinite(p.sd_mm[axis])) return std::string("not fixed");
            return p.sd_mm[axis] == 0 ? std::string("held") : "± " + units::formatSmall(tape::u95Of(p.sd_mm[axis]), step);
        };
        points.push_back({s.survey.points[i].name, std::string(word(b.points.at(s.point_ids[i]).role)),
                          p.placed ? units::formatSmall(p.position.x_mm, step) : "–", pm(0),
                          p.placed ? units::formatSmall(p.position.y_mm, step) : "–", pm(1),
                          p.placed ? units::formatSmall(p.position.z_mm, step) : "–", pm(2), ""});
    }
    addTablePages(pages, titled(b, r, "Points of the " + name, subject),
                  {fmt::format("Stations rearward{}, offsets to the right, heights over the datum plane; ± at 95 %.",
                               subject == the_chassis ? " " + originOf(b, r).from + originOf(b, r).axle_words : "")},
                  {{"point", 24},
                   {"what", 34},
                   {"station", 28, Anchor::Right, Face::Sans},
                   {"", 24, Anchor::Left, Face::Sans},
                   {"offset", 26, Anchor::Right, Face::Sans},
                   {"", 24, Anchor::Left, Face::Sans},
                   {"height", 26, Anchor::Right, Face::Sans},
                   {"", 24, Anchor::Left, Face::Sans},
                   {"by hand", 55}},
                  points);
    std::vector<std::vector<std::string>> readings;
    for (size_t i = 0; i < s.solution->readings.size(); ++i) {
        const auto& a = s.solution->readings[i];
        const auto& q = s.survey.readings[i];
        const bool angle = isAngle(q.kind);
        const auto show = [&](double v) {
            return !std::isfinite(v) ? std::string("–") : angle ? units::formatAngle(v) : units::formatSmall(v, step);
        };
        readings.push_back({std::to_string(q.line), std::string(word(q.kind)), s.survey.points[q.from].name,
                            q.to >= 0 ? s.survey.points[q.to].name : "", s.readings_as_typed[i], show(a.leave_one_out),
                            "± " + show(a.leave_one_out_u95), show(a.residual), units::fixed(a.redundancy, 2),
                            units::fixed(a.w, 2),
                            std::string(tape::verdictWord(a.verdict)) + (a.set_aside ? ", set aside"
                                                                         : a.check == tape::Check::Checked
                                                                             ? ""
                                                                             : std::string(", ") + tape::checkWords(a.check)),
                            ""});
    }
    addTablePages(
        pages, titled(b, r, "Readings of the " + name, subject),
        {"r: how much of an error in the reading would show; w: how unlike the rest it is. Agrees to 2.5, Doubtful to 3.29, above: Re-tape."},
        {{"no", 10, Anchor::Right, Face::Sans},
         {"kind", 18},
         {"from", 20},
         {"to", 20},
         {"as typed", 28, Anchor::Right, Face::Sans},
         {"the rest say", 26, Anchor::Right, Face::Sans},
         {"", 20, Anchor::Left, Face::Sans},
         {"residual", 20, Anchor::Right, Face::Sans},
         {"r", 14, Anchor::Right, Face::Sans},
         {"w", 16, Anchor::Right, Face::Sans},
         {"verdict", 48},
         {"again", 30}},
        readings);
    return pages;
}

namespace {

std::string deviation(const tape::Deviation& d, units::LengthStep step) {
    if (d.size_mm.u95 == 0 && d.size_mm.value == 0) return "0, the end";
    const std::string size = units::formatSmall(std::abs(d.size_mm.value), step);
    return fmt::format("{}{} ± {}{}", d.size_mm.value < 0 ? "−" : "+", size, units::formatSmall(d.size_mm.u95, step),
                       proven(d.size_mm) ? "" : " ?");
}

void addFigures(std::vector<Drawing>& pages, const Build& b, const Results& r, const SurveyOf& s, SubjectId subject) {
    const std::string name = nameOf(b, subject);
    const auto step = b.settings.length_step;
    std::vector<std::vector<std::string>> rows;
    for (const tape::ConditionFigure& f : s.condition->figures) {
        const bool angle = tape::isAngle(f.kind);
        rows.push_back(
            {f.name,
             angle ? units::formatAngle(std::abs(f.angle_rad.value)) + " ± " + units::formatAngle(f.angle_rad.u95)
                   : units::formatSmall(f.judged ? std::abs(f.size_mm.value) : f.size_mm.value, step, true) + " ± " +
                         units::formatSmall(f.size_mm.u95, step),
             f.judged ? (f.kind == tape::FigureKind::Thrust ? units::formatAngle(f.limit) : units::formatSmall(f.limit, step))
                      : "",
             f.judged ? verdictWord(f.verdict) : "", f.judged ? (proven(f.size_mm) ? f.words : "not proven") : "", f.remedy});
    }
    const std::vector<Column> columns = {
        {"figure", 44},  {"as found", 48, Anchor::Right, Face::Sans},     {"may be", 22, Anchor::Right, Face::Sans},
        {"verdict", 24}, {"that is", 62, Anchor::Left, Face::Sans, true}, {"what to move", 66, Anchor::Left, Face::Sans, true}};
    Area area;
    Drawing page = blankPage(
        titled(b, r, "Figures of the " + name + ", and along its length", subject),
        {no_certificate, fmt::format("{} of the judged figures would look proven by chance alone.", s.condition->by_chance)},
        area);
    addTable(page, area, columns, rows, on_paper.small());
    const double used = tableHeight(columns, rows, on_paper.small()) + 4;
    if (!s.condition->sections.empty())
        page.place(tape::sectionsSheet(s.condition->sections, s.survey, b.settings.frame_tolerance_mm, area.width,
                                       area.height - used, on_paper),
                   {area.x, area.y + used});
    pages.push_back(std::move(page));
}

void addSections(std::vector<Drawing>& pages, const Build& b, const Results& r, const SurveyOf& s, SubjectId subject) {
    const std::string name = nameOf(b, subject);
    if (s.condition->sections.empty()) return;
    const auto step = b.settings.length_step;
    std::vector<std::vector<std::string>> rows;
    for (const tape::Section& c : s.condition->sections)
        rows.push_back({s.survey.points[c.pair.left].name + " " + s.survey.points[c.pair.right].name,
                        units::formatLength(c.station_mm, step), deviation(c.lead, step), deviation(c.lean, step),
                        deviation(c.aside, step), c.low ? deviation(*c.low, step) : "no drawing", ""});
    addTablePages(
        pages, titled(b, r, "Along the " + name, subject),
        {"Against the line through the middles of the end pairs; heights against the drawing's, where it has them. ± at 95 %; ? is not proven."},
        {{"pair", 26},
         {"station", 26, Anchor::Right, Face::Sans},
         {"left behind right", 44, Anchor::Right, Face::Sans},
         {"right side high", 44, Anchor::Right, Face::Sans},
         {"middle to the right", 44, Anchor::Right, Face::Sans},
         {"middle low", 44, Anchor::Right, Face::Sans},
         {"by hand", 36}},
        rows);
}

void addFound(std::vector<Drawing>& pages, const Build& b, const Results& r, SubjectId subject) {
    if (r.flaw_ids.empty()) return;
    std::vector<std::vector<std::string>> rows;
    for (size_t i = 0; i < r.flaw_ids.size(); ++i) {
        const Flaw& f = b.flaws.at(r.flaw_ids[i]);
        const tape::JudgedFlaw& j = r.repair.flaws[i];
        rows.push_back({nameOf(b, f.subject), f.point ? nameOf(b, f.point) : f.part, std::string(word(f.kind)), j.figure,
                        f.direction, verdictWord(j.verdict), j.remedy, f.photo.empty() ? "" : "photo"});
    }
    const std::vector<Column> columns = {{"of the", 36},
                                         {"at", 28, Anchor::Left, Face::Sans, true},
                                         {"what", 16},
                                         {"how much", 38},
                                         {"which way", 36, Anchor::Left, Face::Sans, true},
                                         {"verdict", 20},
                                         {"what to do", 76, Anchor::Left, Face::Sans, true},
                                         {"", 14}};
    const std::vector<std::string> cautions = {
        local_rules, hot_work, "Hours and prices are your rates; what is not set is an assumption of workshop practice."};
    Area area;
    Drawing page = blankPage(titled(b, r, "What was found", subject), cautions, area);
    size_t next = addTable(page, area, columns, rows, on_paper.small());
    while (next < rows.size()) {
        pages.push_back(std::move(page));
        page = blankPage(titled(b, r, "What was found", subject), cautions, area);
        const size_t first = next;
        next = addTable(page, area, columns, rows, on_paper.small(), first);
        rows.erase(rows.begin(), rows.begin() + static_cast<std::ptrdiff_t>(first));
        next -= first;
    }
    // what it would take is told of this car: of another thing only what was found there
    if (r.repair.ways.empty() || (subject != the_body && subject != the_chassis)) {
        pages.push_back(std::move(page));
        return;
    }
    const double used = tableHeight(columns, rows, on_paper.small()) + 8;
    area.y += used;
    area.height -= used;
    if (area.height < 60) {
        pages.push_back(std::move(page));
        page = blankPage(titled(b, r, "Repair, renew, or another frame"), cautions, area);
    }
    addHeadline(page, area, {r.repair.sentence, ""});
    std::vector<std::vector<std::string>> ways;
    for (size_t i = 0; i < r.repair.ways.size(); ++i) {
        const tape::Way& w = r.repair.ways[i];
        ways.push_back({static_cast<int>(i) == r.repair.advised ? "advised" : "", w.name,
                        w.possible ? units::fixed(w.hours, 1) + " h" : "not possible",
                        w.cost ? fmt::format("{} {}", units::fixed(*w.cost, 0), b.rates.money) : "", w.why,
                        w.missing.empty() || !w.possible ? "" : "not said: " + w.missing});
    }
    addTable(page, area,
             {{"", 22},
              {"way", 48},
              {"hours", 26, Anchor::Right, Face::Sans},
              {"cost", 34, Anchor::Right, Face::Sans},
              {"why", 92, Anchor::Left, Face::Sans, true},
              {"", 46}},
             ways, on_paper.small());
    pages.push_back(std::move(page));
}

void addPractice(std::vector<Drawing>& pages, const Build& b, const Results& r) {
    if (!b.practice.marked) return;
    const PracticeResult result = markPractice(b, r);
    std::vector<std::vector<std::string>> rows;
    for (const PracticeMark& m : result.marks) rows.push_back({m.about, m.said, m.truth, markWord(m.how), m.sentence});
    addTablePages(pages, titled(b, r, "Practice: " + fmt::format("{} of {} points", result.points, result.most)),
                  {"A practice frame: its truth is made up."},
                  {{"about", 40}, {"you said", 28}, {"the truth", 56}, {"", 18}, {"why", 124, Anchor::Left, Face::Sans, true}},
                  rows);
}

} // namespace

std::vector<Drawing> asFoundReport(const Build& b, const Results& r, SubjectId subject) {
    const SurveyOf& s = r.of(subject);
    const std::string name = nameOf(b, subject);
    std::vector<Drawing> pages;
    pages.push_back(benchPage(b, r, "As found: the " + name, "tape", subject, {no_certificate, local_rules, stands}));
    addFigures(pages, b, r, s, subject);
    addSections(pages, b, r, s, subject);
    addFound(pages, b, r, subject);
    const auto trends = tape::gapTrends(gapReadings(b));
    if (kindOf(b, subject) == SubjectKind::Body && !trends.empty()) {
        std::vector<std::vector<std::string>> rows;
        for (const tape::GapTrend& t : trends)
            for (const tape::GapReading& g : t.readings)
                rows.push_back({t.place, g.event, units::formatSmall(g.value_mm, b.settings.length_step),
                                &g == &t.readings.back() ? verdictWord(t.verdict) : ""});
        addTablePages(
            pages, titled(b, r, "Gaps"), {stands},
            {{"place", 60}, {"at", 90, Anchor::Left, Face::Sans, true}, {"gap", 40, Anchor::Right, Face::Sans}, {"verdict", 40}},
            rows);
    }
    addFindings(pages, b, r, [](const Finding& f) { return f.bench() == "tape"; });
    addPractice(pages, b, r);
    for (Drawing& page : surveyTables(b, r, subject)) pages.push_back(std::move(page));
    numberPages(pages);
    return pages;
}

} // namespace gorvet::analysis
