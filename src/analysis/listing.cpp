#include "analysis/listing_cells.hpp"

#include <cmath>
#include <map>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

Listing readingsList(const Build& b, const Results& r, SubjectId subject) {
    const SurveyOf& s = r.of(subject);
    const auto step = b.settings.length_step;
    Listing list{{"kind", "from", "to", "as read", "that is", "off the rest by", "verdict", "session", "note"}, 3, "reading", {}};
    std::map<ReadingId, size_t> place; // in the survey; of coordinates the first of three; what is assumed stands apart
    for (size_t i = 0; i < s.reading_ids.size(); ++i) place.emplace(s.reading_ids[i], i);
    for (const auto& [id, reading] : b.readings) {
        if (reading.replaced_by || b.points.at(reading.from).subject != subject) continue;
        const auto at = place.find(id);
        const bool angle = isAngle(reading.kind);
        const bool assumed = reading.value.provenance == Provenance::Assumed;
        ListRow row;
        const std::string from = nameOf(b, reading.from);
        const std::string to = reading.to ? nameOf(b, reading.to) : std::string();
        const std::string kind(word(reading.kind));
        const sheet::Mark mark = sheet::markOf(reading.value.provenance);
        row.cells = {words(kind), words(from), words(to)};
        if (reading.kind == ReadingKind::Coordinates) {
            row.cells.push_back(words(reading.value.typed));
            row.cells.push_back(words(""));
        } else {
            const double v = reading.value.value;
            row.cells.push_back(number(reading.value.typed, v, mark));
            row.cells.push_back(number(angle ? units::formatAngle(v) : units::formatLength(v, step), v, mark));
        }
        if (at != place.end() && !assumed && s.solution->status == tape::Status::Solved) {
            const auto& a = s.solution->readings[at->second];
            const double off = std::abs(s.survey.readings[at->second].value - a.leave_one_out);
            row.cells.push_back(std::isfinite(off) ? number(angle ? units::formatAngle(off) : units::formatSmall(off, step), off,
                                                            sheet::Mark::Derived)
                                                   : words("–"));
            row.cells.push_back(words(tape::verdictWord(a.verdict)));
            if (a.verdict != tape::Verdict::Agrees)
                row.severity = a.verdict == tape::Verdict::Doubtful ? sheet::Severity::Warn : sheet::Severity::Bad;
        } else {
            row.cells.push_back(words(""));
            row.cells.push_back(words(assumed ? "assumed" : "not told yet"));
        }
        const auto session = b.sessions.find(reading.session);
        row.cells.push_back(words(session == b.sessions.end() ? "" : session->second.name));
        row.cells.push_back(words(reading.note));
        row.tag = fmt::format("reading:{}", id.value);
        const std::string pair = from + (to.empty() ? "" : " " + to);
        if (!assumed && reading.kind != ReadingKind::Coordinates && reading.kind != ReadingKind::Symmetry)
            row.line = (reading.kind == ReadingKind::Tape ? "retape " : kind + " ") + pair + " ";
        list.rows.push_back(std::move(row));
    }
    return list;
}

Listing pointsList(const Build& b, const Results& r, SubjectId subject) {
    const SurveyOf& s = r.of(subject);
    const auto step = b.settings.length_step;
    Listing list{{"name", "what it is", "station", "offset", "height", "± station", "± offset", "± height", "place", "note"},
                 0,
                 "point",
                 {}};
    for (size_t i = 0; i < s.point_ids.size(); ++i) {
        const Point& p = b.points.at(s.point_ids[i]);
        const auto& a = s.solution->points[i];
        const bool placed = a.placed && s.solution->status != tape::Status::NoReadings;
        ListRow row;
        row.cells = {words(p.name), words(p.role == Role::None ? "" : std::string(word(p.role)))};
        const bool assumed = s.assumed(p.id);
        const sheet::Mark mark = assumed || !placed ? sheet::Mark::Assumed : sheet::Mark::Derived;
        const auto at = placed ? std::optional(a.position) : p.rough;
        for (int axis = 0; axis < 3; ++axis) {
            const double v = !at ? std::nan("") : axis == 0 ? at->x_mm : axis == 1 ? at->y_mm : at->z_mm;
            row.cells.push_back(std::isfinite(v) ? number(placed ? units::formatLength(v, step) : units::fixed(v, 0), v, mark)
                                                 : words("–"));
        }
        for (int axis = 0; axis < 3; ++axis) {
            const double u95 = placed && !assumed ? u95Of(a.sd_mm[axis]) : std::nan("");
            row.cells.push_back(u95 == 0             ? number("held", 0)
                                : std::isfinite(u95) ? number(units::formatSmall(u95, step), u95, sheet::Mark::Derived)
                                                     : words("–"));
        }
        row.cells.push_back(words(!placed ? "roughly" : assumed ? "assumed" : "fixed"));
        row.cells.push_back(words(p.note));
        row.tag = fmt::format("point:{}", p.id.value);
        row.line = "rename " + p.name + " ";
        if (!placed) row.severity = sheet::Severity::Warn;
        list.rows.push_back(std::move(row));
    }
    return list;
}

} // namespace gorvet::analysis
