#include "analysis/cards_survey.hpp"

#include "analysis/survey_lines.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

Card setupCard(const Build& b, const SurveyOf& s, size_t setup) {
    const SetUp& kept = b.setups.at(s.setup_ids[setup]);
    const tape::AdjustedSetUp& a = s.solution->setups[setup];
    Card c;
    c.title = fmt::format("{} {}", word(kept.kind), kept.name);
    c.rows.push_back({"found", setupWords(s.survey.setups[setup], a, b.settings.length_step), Mark::Derived, true});
    c.rows.push_back({"readings from it", std::to_string(a.readings), Mark::None, false});
    c.rows.push_back({"reads to σ",
                      kept.sigma_mm ? units::formatSmall(*kept.sigma_mm, b.settings.length_step, true) : "as its kind of reading",
                      kept.sigma_mm ? Mark::None : Mark::Assumed, false});
    if (!kept.note.empty()) c.sentences.push_back(kept.note);
    if (a.readings && !a.estimable[0] && !a.estimable[1])
        c.sentences.emplace_back(
            "Nothing tells it from the shape itself, so it is taken as true. Readings that do not come from it would tell.");
    c.actions.push_back({"σ", "setup " + kept.name + " sigma ", kept.sigma_mm ? units::fixed(*kept.sigma_mm, 2) : "", true});
    c.actions.push_back({"note", "setup " + kept.name + " note ", kept.note, true});
    if (!a.readings) c.actions.push_back({"remove", "remove setup " + kept.name, "", false});
    c.journal_table = "set-up";
    c.journal_id = kept.id.value;
    return c;
}

Card sinceCard(const Build& b, const SurveyOf& s) {
    const auto& since = *s.since;
    const auto step = b.settings.length_step;
    Card c;
    c.title = fmt::format("from {} to {}", since.before, since.after);
    for (size_t i = 0; i < since.comparison.moved.size() && i < 8; ++i) {
        const tape::Moved& m = since.comparison.moved[i];
        const auto part = [&](double mm) { return (mm < 0 ? "−" : "+") + units::formatSmall(std::abs(mm), step); };
        c.rows.push_back({s.survey.points[m.after].name,
                          fmt::format("{} {} {} ± {}", part(m.by.x_mm), part(m.by.y_mm), part(m.by.z_mm),
                                      units::formatSmall(std::max({m.u95[0], m.u95[1], m.u95[2]}), step)),
                          Mark::Derived, m.proven});
    }
    c.sentences.emplace_back("Rearward, to the right, up; each session by its own readings, the second laid on the first.");
    c.sentences.push_back(
        fmt::format("{} of {} points would look moved by chance.", since.comparison.by_chance, since.comparison.moved.size()));
    if (since.unlike) c.sentences.emplace_back("It stood on unlike supports: part of what moved is theirs.");
    return c;
}

Card alignmentCard(const Build& b) {
    const auto step = b.settings.length_step;
    Card c;
    c.title = "how the wheels stand";
    for (const auto& f : tape::alignment(alignmentInput(b))) {
        const auto show = [&](double v) { return tape::shownFigure(f, v, step); };
        c.rows.push_back({f.name,
                          fmt::format("{} ± {}{}{}", show(f.size.value), show(f.size.u95),
                                      f.mm ? ", " + units::formatSmall(std::abs(*f.mm), step, true) : "",
                                      f.words.empty() ? "" : ", " + f.words),
                          Mark::Derived, f.judged && f.verdict == PlanVerdict::Fails});
        if (f.judged && f.verdict == PlanVerdict::Fails) c.sentences.push_back(f.remedy);
    }
    c.sentences.emplace_back("Steering and brakes: have the work checked by a licensed person before it goes on the road.");
    for (const char* what : {"toe ", "camber ", "sweep ", "ride "})
        c.actions.push_back({std::string(what) + "…", what, "", true});
    return c;
}

Card gapsCard(const Build& b) {
    const auto step = b.settings.length_step;
    Card c;
    c.title = "gaps";
    for (const tape::GapTrend& t : tape::gapTrends(gapReadings(b))) {
        std::string values;
        for (const tape::GapReading& r : t.readings)
            values += (values.empty() ? "" : " → ") + units::formatSmall(r.value_mm, step);
        c.rows.push_back({t.place, values, Mark::None, t.verdict != PlanVerdict::Holds});
        if (t.readings.size() > 1 && t.verdict != PlanVerdict::Holds)
            c.sentences.push_back(fmt::format("{}: {} between \"{}\" and \"{}\".", t.place,
                                              units::formatSmall(std::abs(t.change_mm.value), step, true),
                                              t.readings[t.readings.size() - 2].event, t.readings.back().event));
    }
    c.actions.push_back({"measure one", "gap ", "", true});
    return c;
}

} // namespace gorvet::analysis
