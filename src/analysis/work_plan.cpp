// Time: when what is left of the work may be done.
#include "analysis/work_plan.hpp"

#include "analysis/pages.hpp"
#include "analysis/work_facts.hpp"
#include "units/dates.hpp"

#include <functional>
#include <map>

namespace gorvet::analysis {

using namespace build;

namespace {

/// Hours that were logged on each step.
std::map<std::string, double> workedOn(const Build& b) {
    std::map<std::string, double> sum;
    for (const auto& [id, w] : b.worked) sum[w.step] += w.hours;
    return sum;
}

double meanOf(double least, double likely, double most) { return most > 0 ? (least + 4 * likely + most) / 6 : likely; }

work::ShopHours hoursOf(const Build& b) {
    work::ShopHours h;
    const Calendar& c = b.calendar;
    for (std::size_t day = 0; day < 5; ++day) h.of_weekday[day] = c.weekday_h.value;
    h.of_weekday[5] = c.saturday_h.value;
    h.of_weekday[6] = c.sunday_h.value;
    for (const auto& [id, d] : b.days_off) h.off.emplace_back(*units::dayOf(d.from), *units::dayOf(d.to));
    h.people = static_cast<int>(c.people);
    h.assumed = c.weekday_h.provenance == Provenance::Assumed && c.saturday_h.provenance == Provenance::Assumed;
    return h;
}

std::string hoursWords(const Build& b) {
    const Calendar& c = b.calendar;
    return fmt::format("{:g} h on a weekday, {:g} on a Saturday, {:g} on a Sunday, {}", c.weekday_h.value, c.saturday_h.value,
                       c.sunday_h.value, c.people == 1 ? "one person" : fmt::format("{:g} people", c.people));
}

} // namespace

double restLeft(const work::Step& s) {
    const auto until = s.tick && s.rest_h > 0 ? hoursAfter(s.tick->at_utc, s.rest_h) : std::nullopt;
    constexpr double an_hour = 3600;
    return until ? std::max(0.0, static_cast<double>(*until - units::nowSeconds()) / an_hour) : 0.0;
}

namespace {

/// What is seized soaks before it can be tried: like something that comes, a day later.
void addSoaks(const Build& b, const Results& r, work::ScheduleInput& in,
              const std::function<work::Task*(const std::string&)>& taskOf) {
    const work::Step* lift = firstLift(*r.work);
    for (const auto& [id, row] : b.releases) {
        if (!row.seized || row.released) continue;
        work::Task* t = row.frees.empty() ? (lift ? taskOf(lift->code) : nullptr) : taskOf(row.frees);
        constexpr double a_day = 24, seconds_a_day = 86'400;
        work::Part p{"soak " + row.name, std::nullopt, 0, soakHours(row) / a_day, 0, true};
        if (const auto since = row.soaked ? units::secondsOf(row.soaked->at_utc) : std::nullopt) {
            p.ordered = static_cast<int>(static_cast<double>(*since) / seconds_a_day);
            p.likely_days += static_cast<double>(*since) / seconds_a_day - *p.ordered; // from its hour on
        }
        if (t) t->parts.push_back(in.parts.size());
        in.parts.push_back(std::move(p));
    }
}

/// What was found that nobody had planned, and how much planned work was done meanwhile. Of what has no hours nothing is learned.
work::Found foundSoFar(const Build& b, const Results& r, const std::map<std::string, double>& worked) {
    work::Found f;
    for (const work::Step& s : r.work->steps) {
        const double said = meanOf(s.least_h, s.likely_h, s.most_h);
        if (said <= 0) continue;
        const auto job = s.job ? b.jobs.find(s.job) : b.jobs.end();
        if (job != b.jobs.end() && job->second.found) {
            ++f.times;
            f.hours += said;
            continue;
        }
        const auto on_it = worked.find(s.code);
        f.planned_h += s.status == work::Status::Done ? said : on_it == worked.end() ? 0 : std::min(said, on_it->second);
    }
    return f;
}

} // namespace

work::ScheduleInput scheduleInput(const Build& b, const Results& r) { return scheduleInput(b, r, units::today()); }

work::ScheduleInput scheduleInput(const Build& b, const Results& r, int today) {
    work::ScheduleInput in;
    in.today = today;
    in.hours = hoursOf(b);
    in.wanted = units::dayOf(b.calendar.wanted);
    const auto worked = workedOn(b);
    const auto workedHours = [&](const std::string& code) {
        const auto found = worked.find(code);
        return found == worked.end() ? 0.0 : found->second;
    };
    std::map<std::string, std::size_t> place, rests; ///< what is done and still left alone is waited for like a part
    for (const work::Step& s : r.work->steps) {
        if (s.status == work::Status::Done) {
            const double said = meanOf(s.least_h, s.likely_h, s.most_h);
            if (said > 0 && workedHours(s.code) > 0) in.took.push_back({s.kind, said, workedHours(s.code)});
            if (const double left = restLeft(s); left > 0) {
                rests.emplace(s.code, in.parts.size());
                in.parts.push_back({s.title + ", left alone", in.today, 0, left / 24, 0});
            }
            continue;
        }
        work::Task t;
        t.code = s.code;
        t.title = s.title;
        t.area = s.area;
        t.kind = s.kind;
        for (const std::string& code : s.after)
            if (const auto k = place.find(code); k != place.end())
                t.after.push_back(k->second);
            else if (const auto rest = rests.find(code); rest != rests.end())
                t.parts.push_back(rest->second);
        t.alone = s.moves_to || s.sets_support;
        t.least_h = s.least_h;
        t.likely_h = s.likely_h;
        t.most_h = s.most_h;
        t.worked_h = workedHours(s.code);
        t.people = s.people;
        t.rest_h = s.rest_h;
        t.wanted = units::dayOf(s.wanted);
        place.emplace(s.code, in.tasks.size());
        in.tasks.push_back(std::move(t));
    }
    const auto taskOf = [&](const std::string& step) -> work::Task* {
        auto found = place.find(step);
        if (found == place.end()) found = place.find("job-" + step);
        return found == place.end() ? nullptr : &in.tasks[found->second];
    };
    for (const auto& [id, a] : b.awaited) {
        if (!a.arrived.empty()) continue;
        if (work::Task* t = taskOf(a.step)) t->parts.push_back(in.parts.size());
        in.parts.push_back({a.name, units::dayOf(a.ordered), a.least_days, a.likely_days, a.most_days});
    }
    addSoaks(b, r, in, taskOf);
    in.found = foundSoFar(b, r, worked);
    // what was agreed to takes more or less than the step was said to
    for (const auto& [id, d] : b.decisions) {
        if (!d.agreed || d.struck) continue;
        for (const auto& [choice_id, c] : b.choices)
            if (work::Task* t = c.decision == id && c.name == d.chosen ? taskOf(d.step) : nullptr; t && c.hours != 0) {
                const bool three = t->most_h > 0;
                t->likely_h = std::max(0.0, t->likely_h + c.hours);
                if (!three) continue;
                t->least_h = std::max(0.0, t->least_h + c.hours);
                t->most_h = std::max(t->likely_h, t->most_h + c.hours);
            }
    }
    return in;
}

work::TimeView timeView(const Build&, const Results& r) {
    work::TimeView v{&r.schedule.input(), &*r.schedule, {}, {}};
    for (std::size_t i = 0; i < r.work->steps.size(); ++i)
        if (r.work->steps[i].status != work::Status::Done) v.places.push_back(static_cast<int>(i) + 1);
    return v;
}

std::string finishWords(const Build&, const Results& r) {
    const work::Schedule& s = *r.schedule;
    const std::size_t tasks = r.schedule.input().tasks.size();
    if (tasks == 0) return "All is done.";
    if (s.never) return "When it is done can't be said: the shop has no hours.";
    if (s.unsaid == tasks) return "When it is done can't be said: no step has hours yet.";
    std::string text = fmt::format("It may be done {}: by {} in 50 of 100 ways that it may go, by {} in 90.",
                                   work::betweenWords(s.finish), work::dayWords(s.finish.p50), work::dayWords(s.finish.p90));
    if (s.unsaid)
        text += fmt::format(" {} {} no hours yet and {} counted as nothing: it will be later.",
                            units::counted(s.unsaid, "a step"), s.unsaid == 1 ? "has" : "have", s.unsaid == 1 ? "is" : "are");
    return text;
}

Headline timeHeadline(const Build& b, const Results& r, SubjectId) {
    const work::Schedule& s = *r.schedule;
    const std::size_t tasks = r.schedule.input().tasks.size();
    Headline h;
    if (tasks == 0) return {"All is done.", ""};
    if (s.never || s.unsaid == tasks) {
        h.sentence = "When it will be done is not known yet.";
        h.below =
            s.never ? "The shop has no hours at all: say them." : "Say what steps take: hours STEP 1 2 4. One figure will do.";
        return h;
    }
    h.sentence = fmt::format("{}: half the ways it may go are done by {}.",
                             s.unsaid ? fmt::format("{} of {} steps have no hours", s.unsaid, tasks)
                                      : fmt::format("{:.0f} to {:.0f} hours left", s.hours.p10, s.hours.p90),
                             work::dayWords(s.finish.p50));
    h.below = fmt::format("90 of 100 by {}. {} ({}). ", work::dayWords(s.finish.p90), hoursWords(b),
                          r.schedule.input().hours.assumed ? "usual, assumed" : "as said");
    if (const Costs c = costsOf(b, r); c.labour.p50 > 0 || c.parts > 0)
        h.below += fmt::format("Labour left {:.0f} to {:.0f}, parts {:.0f}. ", c.labour.p10, c.labour.p90, c.parts);
    h.below +=
        fmt::format("{:.0f} to {:.0f} h counted for what nobody has planned yet, {}. ", s.found_h.p10, s.found_h.p90,
                    s.finds.learned_from ? "from " + units::counted(static_cast<std::size_t>(s.finds.learned_from), "a find")
                                         : std::string("assumed as is usual"));
    h.below += s.habit.learned_from ? fmt::format("Things take {:.2f} times what is said, from {}.", std::exp(s.habit.common),
                                                  units::counted(static_cast<std::size_t>(s.habit.learned_from), "a step"))
                                    : "Nothing was logged yet of what things take: they are taken as said, give or take a third.";
    return h;
}

sheet::Drawing timeDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                           const sheet::Format& f) {
    work::TimeView v = timeView(b, r);
    v.selected = o.selected;
    return work::timeSheet(v, width, std::max(height, f.px(work::time_sheet_least_px)), f);
}

std::vector<sheet::Drawing> timeSheets(const Build& b, const Results& r) {
    if (!workBegun(b, r) || r.schedule->unsaid == r.schedule.input().tasks.size()) return {};
    return work::timePages(timeView(b, r), titled(b, r, "Time"),
                           {local_rules, "Dates are drawn from what was said and logged: a plan, no promise. "
                                         "Nothing about safety is done faster because a date is near."});
}

namespace {
/// A day to soak what is seized, or a day to try it.
void addSoak(const work::ScheduleInput& in, const work::Schedule& s, std::size_t p, const std::string& of,
             std::vector<formats::CalendarEntry>& list) {
    const std::string name = in.parts[p].name.substr(std::string_view("soak ").size());
    const auto by = s.parts[p].order_by;
    const auto day = [](double at) { return static_cast<int>(std::ceil(at)); };
    if (in.parts[p].ordered)
        list.push_back({"try-" + name + of, "Try " + name, "It was seized, and has soaked until then.", day(s.parts[p].here.p50),
                        day(s.parts[p].here.p50)});
    else if (by)
        list.push_back({"soak-" + name + of, "Soak " + name,
                        "Soaked by then it can be tried in time. Penetrating oil burns: never before something hot.",
                        std::max(*by, in.today), std::max(*by, in.today)});
}
} // namespace

std::vector<formats::CalendarEntry> calendarOf(const Build& b, const Results& r) {
    std::vector<formats::CalendarEntry> list;
    const work::ScheduleInput& in = r.schedule.input();
    const work::Schedule& s = *r.schedule;
    if (s.never || s.unsaid == in.tasks.size()) return list;
    const auto day = [](double at) { return static_cast<int>(std::floor(at)); };
    const std::string of = "@" + b.settings.name;
    for (std::size_t i = 0; i < in.tasks.size(); ++i) {
        const work::TaskDates& d = s.tasks[i];
        if (in.tasks[i].likely_h <= 0) continue;
        std::string note = fmt::format("Likely; in 90 of 100 ways it ends by {}.", work::dayWords(d.finish.p90));
        for (const work::Step& step : r.work->steps)
            if (step.code == in.tasks[i].code)
                for (const std::string& caution : step.cautions) note += "\nCaution: " + caution;
        list.push_back(
            {"step-" + in.tasks[i].code + of, in.tasks[i].title, std::move(note), day(d.start.p50), day(d.finish.p50)});
    }
    for (std::size_t p = 0; p < in.parts.size(); ++p)
        if (in.parts[p].soaks)
            addSoak(in, s, p, of, list);
        else if (const auto by = s.parts[p].order_by; by && in.parts[p].likely_days > 0)
            list.push_back({"order-" + in.parts[p].name + of, "Order " + in.parts[p].name,
                            "Ordered by then it holds nothing up in 90 of 100 ways.", *by, *by});
    list.push_back({"done" + of, "All may be done", finishWords(b, r), day(s.finish.p50), day(s.finish.p50)});
    return list;
}

Costs costsOf(const Build& b, const Results& r) {
    Costs c;
    for (const auto& [id, a] : b.awaited)
        if (a.cost)
            c.parts += *a.cost;
        else
            ++c.parts_unpriced;
    c.agreed = work::agreedOf(clientInput(b, r).decisions).price;
    const double an_hour = b.calendar.cost_of_hour.value;
    const work::Spread& h = r.schedule->hours;
    c.labour = {h.p10 * an_hour, h.p50 * an_hour, h.p90 * an_hour};
    for (const auto& [id, w] : b.worked) c.worked_h += w.hours;
    c.worked = c.worked_h * an_hour;
    return c;
}

} // namespace gorvet::analysis
