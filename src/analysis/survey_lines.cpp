#include "analysis/survey_lines.hpp"

#include "units/shown.hpp"

#include "analysis/practice.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

std::string withSign(double v, int digits) { return (v < 0 ? "−" : "+") + units::fixed(std::abs(v), digits); }

} // namespace

std::string setupWords(const tape::SetUp& setup, const tape::AdjustedSetUp& a, units::LengthStep step) {
    if (!a.readings) return "no reading yet";
    const auto said = [&](size_t u, const char* word, const std::string& pm, const char* unit) {
        if (a.estimable[u]) return fmt::format("{} {} ± {}{}", word, withSign(a.value[u], 1), pm, unit);
        return a.prior[u] > 0
                   ? fmt::format("{} unknown, ± {}{} assumed", word, units::fixed(u95Of(a.prior[u]), 0), unit[0] ? unit : " mm")
                   : std::string();
    };
    const auto place = [&](const char* word) { return said(0, word, units::formatSmall(u95Of(a.sd[0]), step), ""); };
    const auto slope = [&](size_t u, const char* word) { return said(u, word, units::fixed(u95Of(a.sd[u]), 1), " mm/m"); };
    std::vector<std::string> parts;
    switch (setup.kind) {
    case SetUpKind::Plane: parts = {place("high by"), slope(1, "rises along"), slope(2, "rises across")}; break;
    case SetUpKind::String: parts = {place("off by"), slope(1, "swings")}; break;
    case SetUpKind::Tape: parts = {place("reads long by")}; break;
    }
    std::string words;
    for (const std::string& part : parts)
        if (!part.empty()) words += (words.empty() ? "" : ", ") + part;
    if (!words.empty()) return words;
    return setup.kind == SetUpKind::Plane    ? "taken as level: no reading shows how it leans"
           : setup.kind == SetUpKind::String ? "taken as the centreline: no reading shows where it runs"
                                             : "taken as true: no reading checks it";
}

std::vector<tape::GapReading> gapReadings(const Build& b) {
    std::vector<tape::GapReading> list;
    for (const auto& [id, g] : b.gaps) list.push_back({g.place, g.event, g.value.value, g.tolerance_mm});
    return list;
}

bool takenAgain(const Build& b, ReadingId id) {
    return std::any_of(b.readings.begin(), b.readings.end(), [&](const auto& r) { return r.second.replaced_by == id; });
}

tape::AlignmentInput alignmentInput(const Build& b) {
    tape::AlignmentInput in;
    const auto value = [](const std::optional<build::Dimension>& d) { return d ? std::optional(d->value) : std::nullopt; };
    for (const auto& [id, w] : b.wheels)
        in.wheels[static_cast<size_t>(w.wheel)] = {value(w.camber), value(w.sweep),  value(w.turned_out), value(w.turned_in),
                                                   value(w.ride),   value(w.weight), value(w.run_out)};
    for (const auto& [id, t] : b.toe)
        in.toe[static_cast<size_t>(t.axle)] = tape::ToeRead{t.ahead.value, t.behind.value, t.rim.value};
    return in;
}

std::vector<tape::SideLine> surveyLines(const Build& b, const Results& r, SubjectId subject) {
    std::vector<tape::SideLine> lines;
    const SurveyOf& s = r.of(subject);
    const auto step = b.settings.length_step;
    for (size_t i = 0; i < s.solution->setups.size() && i < s.survey.setups.size(); ++i) {
        const tape::SetUp& setup = s.survey.setups[i];
        const tape::AdjustedSetUp& a = s.solution->setups[i];
        const std::string tag = fmt::format("setup:{}", s.setup_ids[i].value);
        lines.push_back({fmt::format("{} {}", word(setup.kind), setup.name), "", {}, tag, true});
        if (a.estimable[0])
            lines.push_back({setup.kind == SetUpKind::Plane    ? "high by"
                             : setup.kind == SetUpKind::String ? "off by"
                                                               : "reads long by",
                             fmt::format("{} ± {}", withSign(a.value[0], 1), units::formatSmall(u95Of(a.sd[0]), step)),
                             {},
                             tag});
        static constexpr const char* slopes[2][2] = {{"rises along", "rises across"}, {"swings", ""}};
        for (int u = 1; u < tape::unknownsOf(setup.kind); ++u)
            if (a.estimable[u])
                lines.push_back({fmt::format("{}, mm/m", slopes[static_cast<int>(setup.kind)][u - 1]),
                                 fmt::format("{} ± {}", withSign(a.value[u], 1), units::fixed(u95Of(a.sd[u]), 1)),
                                 {},
                                 tag});
        if (!a.estimable[0] && !a.estimable[1] && !a.estimable[2]) lines.push_back({setupWords(setup, a, step), "", {}, tag});
    }
    if (s.since->comparison.possible) {
        int proven = 0;
        for (const auto& m : s.since->comparison.moved) proven += m.proven;
        lines.push_back(
            {"since " + s.since->before, proven ? fmt::format("{} moved", proven) : "nothing moved", {}, "since", true});
        for (size_t i = 0; i < s.since->comparison.moved.size() && i < 3; ++i) {
            const auto& m = s.since->comparison.moved[i];
            if (!m.proven) break;
            lines.push_back({s.survey.points[m.after].name,
                             fmt::format("{} {} {}", withSign(m.by.x_mm, 1), withSign(m.by.y_mm, 1), withSign(m.by.z_mm, 1)),
                             Severity::Warn, "since"});
        }
    }
    if (b.practice.on && subject == the_chassis) {
        if (!b.practice.marked) {
            lines.push_back({"practice: say what is wrong", "", {}, "practice", true});
            for (const auto& [key, said] : practiceQuestions(b))
                lines.push_back({key, said.empty() ? "?" : said, {}, "practice"});
        } else {
            const PracticeResult result = markPractice(b, r);
            lines.push_back({"practice", fmt::format("{} of {} points", result.points, result.most), {}, "practice", true});
            for (const PracticeMark& m : result.marks)
                lines.push_back({m.about, markWord(m.how),
                                 m.how == PracticeMark::How::Right  ? Severity::Good
                                 : m.how == PracticeMark::How::Near ? Severity::Warn
                                                                    : Severity::Bad,
                                 "practice"});
        }
    }
    if (s.drawing.comparison->possible && !b.practice.on) {
        int off = 0;
        for (const auto& m : s.drawing.comparison->moved) off += m.proven;
        lines.push_back({"against the drawing", off ? fmt::format("{} off", off) : "nothing off", {}, "drawing", true});
    }
    bool found = false;
    for (size_t i = 0; i < r.flaw_ids.size(); ++i) {
        const Flaw& f = b.flaws.at(r.flaw_ids[i]);
        if (f.subject != subject) continue;
        if (!found)
            lines.push_back({"found",
                             (subject == the_body || subject == the_chassis) && r.repair.advised >= 0
                                 ? r.repair.ways[static_cast<size_t>(r.repair.advised)].name
                                 : "",
                             {},
                             "repair",
                             true});
        found = true;
        const tape::JudgedFlaw& j = r.repair.flaws[i];
        lines.push_back({f.point ? nameOf(b, f.point) : f.part,
                         j.figure.empty() ? std::string(word(f.kind)) : fmt::format("{} {}", word(f.kind), j.figure),
                         severityOf(j.verdict), fmt::format("flaw:{}", f.id.value)});
    }
    if (subject == the_chassis) {
        const auto wheels = tape::alignment(alignmentInput(b));
        if (!wheels.empty()) lines.push_back({"wheels", "", {}, "alignment", true});
        for (const auto& f : wheels) {
            const auto show = [&](double v) { return tape::shownFigure(f, v, step); };
            lines.push_back({f.name, units::shown(f.size, show), f.judged ? std::optional(severityOf(f.verdict)) : std::nullopt,
                             "alignment"});
        }
    }
    if (kindOf(b, subject) == SubjectKind::Body) {
        const auto trends = tape::gapTrends(gapReadings(b));
        if (!trends.empty()) lines.push_back({"gaps", trends.front().readings.back().event, {}, "gaps", true});
        for (const tape::GapTrend& t : trends)
            lines.push_back({t.place,
                             t.readings.size() > 1
                                 ? fmt::format("{}, {} ± {}", units::formatSmall(t.readings.back().value_mm, step),
                                               withSign(t.change_mm.value, 1), units::formatSmall(t.change_mm.u95, step))
                                 : units::formatSmall(t.readings.back().value_mm, step),
                             severityOf(t.verdict), "gaps"});
    }
    return lines;
}

} // namespace gorvet::analysis
