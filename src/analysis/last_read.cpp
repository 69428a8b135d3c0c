#include "analysis/last_read.hpp"

#include "analysis/findings.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

std::optional<LastRead> lastReading(const Build& b, const SurveyOf& s) {
    if (s.reading_ids.empty() || s.solution->readings.size() != s.reading_ids.size()) return std::nullopt;
    // coordinates come from a fixture or a scan: nobody read them under the car
    const auto read = [&](size_t i) { return b.readings.at(s.reading_ids[i]).kind != ReadingKind::Coordinates; };
    size_t newest = s.reading_ids.size();
    for (size_t i = 0; i < s.reading_ids.size(); ++i)
        if (read(i) && (newest == s.reading_ids.size() || s.reading_ids[i] > s.reading_ids[newest])) newest = i;
    if (newest == s.reading_ids.size()) return std::nullopt;
    const auto& reading = s.survey.readings[newest];
    const auto& a = s.solution->readings[newest];
    const bool angle = isAngle(reading.kind);
    const auto show = [&](double v) { return angle ? units::formatAngle(v) : units::formatSmall(v, b.settings.length_step); };
    LastRead last;
    last.name = readingName(s.survey, static_cast<int>(newest));
    last.value = show(reading.value);
    last.id = s.reading_ids[newest].value;
    if (s.solution->status != tape::Status::Solved) { // nothing judges it yet
        last.word = "kept";
        last.severity = Severity::Warn;
        last.sentence = "the shape is not fixed yet";
        return last;
    }
    last.word = tape::verdictWord(a.verdict);
    last.severity = a.verdict == tape::Verdict::Agrees     ? Severity::Good
                    : a.verdict == tape::Verdict::Doubtful ? Severity::Warn
                                                           : Severity::Bad;
    if (a.check == tape::Check::Nothing)
        last.sentence = tape::checkWords(a.check);
    else if (std::isfinite(a.leave_one_out))
        last.sentence = "the rest say " + show(a.leave_one_out);
    return last;
}

std::optional<LastRead> lastCheck(const Build& b, const Results& r) {
    if (b.checks.empty()) return std::nullopt;
    const Check& c = b.checks.rbegin()->second;
    const work::Step* step = r.work->find(c.step);
    if (!step) return std::nullopt;
    for (const work::CheckItem& item : step->checks) {
        const bool same =
            item.gap_of ? item.gap_of == c.gap_of
                        : !c.gap_of && ((item.from == c.from && item.to == c.to) || (item.from == c.to && item.to == c.from));
        if (!same) continue;
        const auto step_mm = b.settings.length_step;
        if (!item.gap_of && item.level.has_value() != (c.kind == ReadingKind::Level)) continue;
        const bool agrees = item.level ? item.agrees() : std::abs(c.value.value - item.plan_mm) <= item.tolerance_mm + 1e-9;
        return LastRead{item.name,
                        units::formatSmall(c.value.value, step_mm),
                        agrees ? "Agrees" : "Out",
                        agrees ? Severity::Good : Severity::Bad,
                        fmt::format("plan {}, may be out by {}", units::formatSmall(item.plan_mm, step_mm),
                                    units::formatSmall(item.tolerance_mm, step_mm)),
                        c.id.value};
    }
    return std::nullopt;
}

} // namespace

std::optional<LastRead> lastRead(const Build& b, const Results& r, SubjectId subject) {
    auto reading = lastReading(b, r.of(subject));
    auto check = lastCheck(b, r);
    if (!reading || (check && check->id > reading->id)) return check;
    return reading;
}

} // namespace gorvet::analysis
