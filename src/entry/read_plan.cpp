// When the shop works, what things should take, and what they took.
#include "entry/reader.hpp"
#include "units/dates.hpp"

namespace gorvet::entry {

void Reader::hours() {
    const Word w = line_.next("the step");
    double least = 0, likely = 0, most = 0;
    const auto read = [&] {
        const std::vector<double> figures = oneOrThree("hours");
        line_.mustEnd();
        likely = figures.size() == 3 ? figures[1] : figures[0];
        if (figures.size() == 3) {
            least = figures[0];
            most = figures[2];
        }
        say(fmt::format("{} takes {:g} h{}", w.text, likely, most > 0 ? fmt::format(", {:g} to {:g}", least, most) : ""));
    };
    if (const Job* old = jobNamed(b_, w.text.starts_with("job-") ? w.text.substr(4) : w.text)) {
        read();
        Job j = *old;
        j.least_h = least;
        j.likely_h = likely;
        j.most_h = most;
        put(Put<Job>{j});
        return;
    }
    const StepState& s = step(w);
    read();
    Estimate e;
    if (const Estimate* old = estimateOf(b_, s.code)) e = *old;
    if (!e.id) e.id = fresh<Estimate>();
    e.step = s.code;
    e.least_h = least;
    e.likely_h = likely;
    e.most_h = most;
    put(Put<Estimate>{e});
}

void Reader::removeHours(const Word&) {
    const Word w = line_.next("the step");
    const Estimate* e = estimateOf(b_, w.text);
    if (!e) throw Failure{w.column, fmt::format("Nothing is said of the hours of {}.", w.text), ""};
    put(Drop<Estimate>{e->id});
    say(fmt::format("nothing is said of the hours of {} any more", w.text));
}

void Reader::worked() {
    if (!context_.knows_work) throw Failure{0, "The order of work is not known here.", ""};
    Worked row;
    const bool figure_first = !line_.atEnd() && follows::figure(*this, &line_.peek());
    if (figure_first && context_.next_step.empty()) throw Failure{0, "All steps are done: say which it was.", ""};
    const StepState& s = figure_first ? step(Word{context_.next_step, 0, false}) : step(line_.next("the step"));
    row.step = s.code;
    row.hours = plainNumber("hours");
    row.day = context_.now_utc.substr(0, 10);
    row.who = context_.who;
    while (!line_.atEnd()) {
        if (line_.take("on"))
            row.day = dateNext();
        else if (line_.take("by"))
            row.who = line_.upTo({"on", "note"}).text;
        else if (line_.take("note"))
            row.note = line_.rest().text;
        else
            notKnownHere("Like: worked floor-left 3.5 on 2026-11-28 by Kim note the edge was thin.");
    }
    const auto day = units::dayOf(row.day), today = units::dayOf(context_.now_utc.substr(0, 10));
    if (day && today && *day > *today + 1)
        throw Failure{0, fmt::format("{} is still to come.", row.day), "Hours are logged once they are worked."};
    row.id = fresh<Worked>();
    put(Put<Worked>{row});
    double sum = row.hours;
    for (const auto& [id, other] : b_.worked)
        if (other.step == row.step) sum += other.hours;
    say(fmt::format("{:g} h on {}, {}{}", row.hours, s.title, row.day,
                    sum > row.hours ? fmt::format(": {:g} h on it by now", sum) : ""));
}

void Reader::removeWorked(const Word&) {
    const Word w = line_.next("the step");
    const std::string day = dateNext();
    for (const auto& [id, row] : b_.worked)
        if ((row.step == w.text || row.step == "job-" + w.text) && row.day == day) {
            put(Drop<Worked>{id});
            return say(fmt::format("take {:g} h on {} of {} out of the log", row.hours, row.step, day));
        }
    throw Failure{w.column, fmt::format("No hours are logged on {} of {}.", w.text, day), ""};
}

void Reader::shop() {
    Calendar c = b_.calendar;
    if (line_.atEnd())
        throw Failure{line_.endColumn(), "What is said of the shop's hours is missing.",
                      "Like: shop weekday 2.5 saturday 6 sunday 0 people 2 wanted 2027-06-01."};
    std::string said;
    const auto add = [&](const std::string& text) { said += (said.empty() ? "" : ", ") + text; };
    while (!line_.atEnd()) {
        const auto figure = [&](const char* what, Dimension& d) {
            d.value = plainNumber(what);
            d.typed = fmt::format("{:g}", d.value);
            d.provenance = Provenance::Measured;
            return d.value;
        };
        if (line_.take("weekday"))
            add(fmt::format("{:g} h on a weekday", figure("hours", c.weekday_h)));
        else if (line_.take("saturday"))
            add(fmt::format("{:g} h on a Saturday", figure("hours", c.saturday_h)));
        else if (line_.take("sunday"))
            add(fmt::format("{:g} h on a Sunday", figure("hours", c.sunday_h)));
        else if (line_.take("hour-costs"))
            add(fmt::format("an hour costs {:g}", figure("costs", c.cost_of_hour)));
        else if (line_.take("people")) {
            c.people = std::floor(plainNumber("people"));
            add(c.people == 1 ? "one person at work" : fmt::format("{:g} people at work", c.people));
        } else if (line_.take("wanted")) {
            c.wanted = line_.take("nothing") ? "" : dateNext();
            add(c.wanted.empty() ? "wanted by no date" : "wanted by " + c.wanted);
        } else
            notKnownHere("Like: shop weekday 2.5 saturday 6 sunday 0 people 2 wanted 2027-06-01 hour-costs 40.");
    }
    put(Set<Calendar>{c});
    say(said);
}

void Reader::off() {
    DayOff d;
    d.from = dateNext();
    d.to = d.from;
    if (!line_.atEnd() && units::dayOf(line_.peek().text)) d.to = dateNext();
    d.why = line_.rest().text;
    d.id = fresh<DayOff>();
    for (const auto& [id, old] : b_.days_off)
        if (old.from == d.from) d.id = id;
    put(Put<DayOff>{d});
    say(fmt::format("nobody works on it {}{}", d.from == d.to ? "on " + d.from : fmt::format("from {} to {}", d.from, d.to),
                    d.why.empty() ? "" : ": " + d.why));
}

void Reader::removeOff(const Word&) {
    const Word w = line_.next("the first day");
    for (const auto& [id, row] : b_.days_off)
        if (row.from == w.text) {
            put(Drop<DayOff>{id});
            return say("days off no more: " + w.text);
        }
    throw Failure{w.column, fmt::format("No days off begin on {}.", w.text), ""};
}

} // namespace gorvet::entry
