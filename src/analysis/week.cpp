#include "analysis/week.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/work_plan.hpp"
#include "units/dates.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

/// The likely end of a build as of a day; none where it can't be said.
std::optional<double> likelyEnd(const Build& b, const Results& of, int day) {
    const Variant v = variantOf(b, of);
    const work::ScheduleInput in = scheduleInput(v.build, v.results, day);
    const work::Schedule s = work::schedule(in);
    if (in.tasks.empty()) return day;
    if (s.never || s.unsaid == in.tasks.size()) return std::nullopt;
    return s.finish.p50;
}

/// A job is another one than it was, but for its hours.
bool sameButHours(Job a, const Job& b) {
    a.least_h = b.least_h;
    a.likely_h = b.likely_h;
    a.most_h = b.most_h;
    return a == b;
}

template <class T> int added(const Rows<T>& then, const Rows<T>& now) {
    int count = 0;
    for (const auto& [id, row] : now) count += !then.contains(id);
    return count;
}

std::string workedWords(const Build& then, const Build& now) {
    double hours = 0;
    for (const auto& [id, w] : now.worked)
        if (!then.worked.contains(id)) hours += w.hours;
    const int steps = added(then.ticks, now.ticks);
    if (!steps && hours <= 0) return "nothing was ticked or logged";
    const std::string worked = hours > 0 ? fmt::format("{:g} h worked", hours) : std::string();
    if (!steps) return worked;
    return units::counted(static_cast<std::size_t>(steps), "a step") + " done" + (worked.empty() ? "" : ", " + worked);
}

std::string foundWords(const Build& then, const Build& now) {
    std::string names;
    double hours = 0;
    for (const auto& [id, j] : now.jobs)
        if (j.found && !then.jobs.contains(id)) {
            names += (names.empty() ? "" : ", ") + (j.title.empty() ? j.name : j.title);
            hours += j.most_h > 0 ? (j.least_h + 4 * j.likely_h + j.most_h) / 6 : j.likely_h;
        }
    return names.empty() ? names : fmt::format("{}: {:.0f} h", names, hours);
}

} // namespace

WeekDid weekDid(const Build& then, int then_day, const Build& now, const Results& r) {
    WeekDid w;
    w.then_day = then_day;
    w.now_day = units::today();
    const auto begin = likelyEnd(then, r, then_day);
    const auto end = likelyEnd(now, r, w.now_day);
    if (!begin || !end) {
        w.why_not = begin ? "when it will be done is not known now" : "when it would be done was not known then";
        return w;
    }
    w.then_end = *begin;
    w.now_end = *end;
    Build at = then;
    double comes_now = *begin;
    const auto bring = [&](std::string what, std::string words, auto change) {
        change(at);
        const auto comes_to = likelyEnd(at, r, w.now_day);
        const double moved = comes_to ? *comes_to - comes_now : 0;
        if (comes_to) comes_now = *comes_to;
        w.movers.push_back({std::move(what), std::move(words), moved});
    };
    bring("the days that went by",
          w.now_day - then_day == 1 ? std::string("one day") : fmt::format("{} of them", w.now_day - then_day), [](Build&) {});
    bring("work that was done", workedWords(then, now), [&](Build& b) {
        b.ticks = now.ticks;
        b.worked = now.worked;
        b.checks = now.checks;
        b.permits = now.permits;
        b.coats = now.coats;
        b.surfaces = now.surfaces;
    });
    bring("what did not come off", units::counted(static_cast<std::size_t>(added(then.attempts, now.attempts)), "an attempt"),
          [&](Build& b) { b.attempts = now.attempts; });
    bring("what was found", foundWords(then, now), [&](Build& b) {
        for (const auto& [id, j] : now.jobs)
            if (j.found && !then.jobs.contains(id)) b.jobs.emplace(id, j);
    });
    bring("hours that are said otherwise", "", [&](Build& b) {
        b.estimates = now.estimates;
        for (const auto& [id, j] : now.jobs)
            if (b.jobs.contains(id) && !(b.jobs.at(id) == j) && sameButHours(b.jobs.at(id), j)) b.jobs[id] = j;
    });
    bring("other jobs", "added, taken out, or asked for otherwise", [&](Build& b) { b.jobs = now.jobs; });
    bring("parts and what soaks", "", [&](Build& b) {
        b.awaited = now.awaited;
        b.releases = now.releases;
    });
    bring("what was decided", "", [&](Build& b) {
        b.decisions = now.decisions;
        b.choices = now.choices;
    });
    bring("the shop's hours and days off", "", [&](Build& b) {
        b.calendar = now.calendar;
        b.days_off = now.days_off;
    });
    bring("the plan of the car itself", "", [&](Build& b) { b = now; });
    // what did nothing is not listed, but for the first two
    const auto stays = [&](const Mover& m) { return std::abs(m.days) >= 0.05 || &m < w.movers.data() + 2; };
    std::vector<Mover> kept;
    for (const Mover& m : w.movers)
        if (stays(m)) kept.push_back(m);
    w.movers = std::move(kept);
    return w;
}

std::string weekWords(const WeekDid& w) {
    if (!w.why_not.empty()) return "What these days did to the date can't be said: " + w.why_not + ".";
    const double moved = w.moved();
    constexpr double same = 0.5;
    const std::string by = fmt::format("{:.0f} days", std::abs(moved));
    return fmt::format("On {} the likely end was {}; now it is {}: {}.", work::dayWords(w.then_day), work::dayWords(w.then_end),
                       work::dayWords(w.now_end),
                       std::abs(moved) < same ? std::string("the same") : by + (moved > 0 ? " later" : " earlier"));
}

Card weekCard(const WeekDid& w) {
    Card c;
    c.title = "What these days did to the date";
    c.sentences.push_back(weekWords(w));
    if (!w.why_not.empty()) return c;
    c.word = w.moved() > 0.5 ? "later" : w.moved() < -0.5 ? "earlier" : "as it was";
    c.severity = w.moved() > 0.5 ? Severity::Warn : Severity::Good;
    for (const Mover& m : w.movers)
        c.sentences.push_back(fmt::format("{:+.1f} days: {}{}.", m.days, m.what, m.words.empty() ? "" : " (" + m.words + ")"));
    c.sentences.emplace_back(
        "Each is what the likely end moves by when it comes in, in this order: in another order the shares would be "
        "others, their sum not.");
    return c;
}

std::string weekJson(const Build& b, const WeekDid& w) {
    const auto date = [](double day) { return units::isoDate(static_cast<int>(std::floor(day))); };
    Json j = {{"build", b.settings.name}, {"since", date(w.then_day)}, {"today", date(w.now_day)}, {"sentence", weekWords(w)}};
    const bool known = w.why_not.empty();
    j["why_not"] = known ? Json(nullptr) : Json(w.why_not);
    j["likely_end_then"] = known ? Json(date(w.then_end)) : Json(nullptr);
    j["likely_end_now"] = known ? Json(date(w.now_end)) : Json(nullptr);
    j["moved_days"] = known ? number(w.moved()) : Json(nullptr);
    j["movers"] = Json::array();
    for (const Mover& m : w.movers) j["movers"].push_back({{"what", m.what}, {"days", number(m.days)}, {"words", m.words}});
    return text(j);
}

} // namespace gorvet::analysis
