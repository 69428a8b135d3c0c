// Jobs of one's own, and what is awaited.
#include "build/job_lists.hpp"
#include "entry/reader.hpp"
#include "units/dates.hpp"

#include <algorithm>

namespace gorvet::entry {

namespace {

/// "1 2 4" as three figures, "2" as one: least, likely, most; the others 0.
void setThree(const std::vector<double>& figures, double& least, double& likely, double& most) {
    least = figures.size() == 3 ? figures[0] : 0;
    likely = figures.size() == 3 ? figures[1] : figures[0];
    most = figures.size() == 3 ? figures[2] : 0;
}

std::string threeWords(double least, double likely, double most, const char* unit) {
    if (likely == 0) return {};
    return least > 0 ? fmt::format(", {:g} to {:g} {}, most likely {:g}", least, most, unit, likely)
                     : fmt::format(", {:g} {}", likely, unit);
}

} // namespace

/// The next words that are plain numbers: one, or three.
std::vector<double> Reader::oneOrThree(const char* what) {
    std::vector<double> figures;
    int column = line_.endColumn();
    while (!line_.atEnd() && figures.size() < 3) {
        const Word& w = line_.peek();
        char* end = nullptr;
        const double v = std::strtod(w.text.c_str(), &end);
        if (w.text.empty() || *end != 0 || !std::isfinite(v)) break;
        if (figures.empty()) column = w.column;
        if (v < 0) throw Failure{w.column, fmt::format("The {} can't be below 0.", what), ""};
        figures.push_back(v);
        line_.next(what);
    }
    if (figures.size() != 1 && figures.size() != 3)
        throw Failure{figures.empty() && !line_.atEnd() ? line_.peek().column : column,
                      fmt::format("The {} are one figure, or three: least, likely, most.", what), "Like: 2 3 6."};
    return figures;
}

std::string Reader::dateNext() {
    const Word w = line_.next("the date");
    if (units::dayOf(w.text)) return w.text;
    throw Failure{w.column, fmt::format("\"{}\" is no date.", w.text), "Like: 2026-12-24."};
}

/// The next words as names of steps, up to an option. What this build does not have yet is said.
std::vector<std::string> Reader::stepsUpTo(std::span<const Option> options, const std::string& of) {
    std::vector<std::string> steps;
    while (!line_.atEnd() && !stopsAt(options)) {
        const Word w = line_.next("a step");
        if (w.text == "nothing") continue;
        if (w.text == of) throw Failure{w.column, "A job can't wait for itself.", ""};
        if (!knownStep(w.text)) out_.remark = fmt::format("there is no step {} yet: it is waited for once there is one", w.text);
        if (std::find(steps.begin(), steps.end(), w.text) == steps.end()) steps.push_back(w.text);
    }
    return steps;
}

bool Reader::knownStep(const std::string& name) const {
    if (jobNamed(b_, name) || !context_.knows_work) return true;
    return std::any_of(context_.steps.begin(), context_.steps.end(),
                       [&](const StepState& s) { return s.code == name || s.code == "job-" + name; });
}

std::string Reader::stepNext(const char* missing) {
    const Word code = line_.next(missing);
    if (!knownStep(code.text)) out_.remark = fmt::format("there is no step {} yet", code.text);
    return code.text;
}

bool Reader::stopsAt(std::span<const Option> options) const {
    if (line_.peek().quoted) return false;
    const auto option =
        std::find_if(options.begin(), options.end(), [&](const Option& o) { return o.word == line_.peek().text; });
    if (option == options.end()) return false;
    return !option->fits || option->fits(*this, line_.left() > 1 ? &line_.peek(1) : nullptr);
}

namespace follows {

bool figure(const Reader&, const Word* next) {
    if (!next || next->text.empty()) return false;
    char* end = nullptr;
    std::strtod(next->text.c_str(), &end);
    return *end == 0;
}
bool date(const Reader&, const Word* next) { return next && units::dayOf(next->text).has_value(); }
/// A step that there is, or what can only be meant as one.
bool step(const Reader& r, const Word* next) {
    return next && (next->text == "nothing" || next->text.find('-') != std::string::npos ||
                    (r.context_.knows_work && r.knownStep(next->text)) || jobNamed(r.b_, next->text));
}

} // namespace follows

void Reader::job() {
    const Word w = line_.next("the job's name");
    const Job* old = jobNamed(b_, w.text);
    Job j = old ? *old : Job{};
    if (!old) {
        j.id = fresh<Job>();
        j.name = w.text;
        if (context_.knows_work &&
            std::any_of(context_.steps.begin(), context_.steps.end(), [&](const StepState& s) { return s.code == w.text; }))
            throw Failure{w.column, fmt::format("{} is a step of the plan already.", w.text), "Give the job another name."};
    }
    static constexpr Option options[] = {{"does"},
                                         {"area"},
                                         {"kind", follows::one<JobKind>},
                                         {"hours", follows::figure},
                                         {"rests", follows::figure},
                                         {"people", follows::figure},
                                         {"body-on"},
                                         {"body-off"},
                                         {"body-either"},
                                         {"way", follows::one<Attitude>},
                                         {"support", follows::one<Support>},
                                         {"after", follows::step},
                                         {"before", follows::step},
                                         {"closes"},
                                         {"within"},
                                         {"wanted", follows::date},
                                         {"during", follows::step},
                                         {"note"}};
    const bool found = command_ == "discovered";
    if (found && !j.found) j.found = Signed{context_.who, context_.now_utc};
    while (!line_.atEnd()) {
        if (found && line_.take("during")) {
            j.found_at = stepNext("the step at which it was found");
        } else if (line_.take("does")) {
            j.title = textUpTo(options);
        } else if (line_.take("area")) {
            j.area = textUpTo(options);
        } else if (line_.take("kind")) {
            j.kind = oneOf<JobKind>("the kind of work");
        } else if (line_.take("hours")) {
            setThree(oneOrThree("hours"), j.least_h, j.likely_h, j.most_h);
        } else if (line_.take("rests")) {
            j.rest_h = plainNumber("hours");
        } else if (line_.take("people")) {
            j.people = plainNumber("people");
        } else if (line_.take("body-on")) {
            j.body = BodyPlace::On;
        } else if (line_.take("body-off")) {
            j.body = BodyPlace::Off;
        } else if (line_.take("body-either")) {
            j.body.reset();
        } else if (line_.take("way")) {
            j.attitude = oneOf<Attitude>("which way up");
        } else if (line_.take("support")) {
            j.support = oneOf<Support>("what it is on");
        } else if (line_.take("after")) {
            j.after = stepsUpTo(options, j.name);
        } else if (line_.take("before")) {
            j.before = stepsUpTo(options, j.name);
        } else if (line_.take("closes")) {
            j.closes = textUpTo(options);
        } else if (line_.take("within")) {
            j.inside = textUpTo(options);
        } else if (line_.take("wanted")) {
            j.wanted = dateNext();
        } else if (line_.take("note")) {
            j.note = line_.rest().text;
        } else {
            notKnownHere(
                "Like: job floor-left does weld the floor patch area cabin kind weld hours 2 3 6 body-off after coat-frame. "
                "A text that holds one of these words goes in quotes.");
        }
    }
    put(Put<Job>{j});
    say(fmt::format("{} job {}{}{}",
                    found && !(old && old->found) ? "found:"
                    : old                         ? "change the"
                                                  : "add the",
                    j.name, j.title.empty() ? "" : ": " + j.title, threeWords(j.least_h, j.likely_h, j.most_h, "h")));
}

void Reader::splitJob() {
    const Word w = line_.next("the job's name");
    const Job* old = jobNamed(b_, w.text);
    if (!old) throw Failure{w.column, fmt::format("There is no job {}.", w.text), "The steps of the plan can't be split."};
    const Word name = line_.next("the name of its second part");
    if (jobNamed(b_, name.text)) throw Failure{name.column, fmt::format("There is a job {} already.", name.text), ""};
    Job first = *old, second = *old;
    second.id = fresh<Job>();
    second.name = name.text;
    second.title = (old->title.empty() ? old->name : old->title) + ", second part";
    second.after = {first.name};
    for (Job* j : {&first, &second}) {
        j->least_h /= 2;
        j->likely_h /= 2;
        j->most_h /= 2;
    }
    // what waited for it waits for its second part
    first.before.clear();
    first.closes.clear();
    put(Put<Job>{first});
    put(Put<Job>{second});
    for (const auto& [id, other] : b_.jobs) {
        Job j = other;
        for (std::string& code : j.after)
            if (code == first.name || code == "job-" + first.name) code = second.name;
        if (!(j == other) && id != first.id) put(Put<Job>{j});
    }
    say(fmt::format("split the job {}: {} is its second part", first.name, second.name));
}

void Reader::repeatJob() {
    const Word w = line_.next("the job's name");
    const Job* old = jobNamed(b_, w.text);
    if (!old) throw Failure{w.column, fmt::format("There is no job {}.", w.text), "The steps of the plan can't be repeated."};
    const Word name = line_.next("the name of the job when it is done once more");
    if (jobNamed(b_, name.text)) throw Failure{name.column, fmt::format("There is a job {} already.", name.text), ""};
    Job again = *old;
    again.id = fresh<Job>();
    again.name = name.text;
    again.title = (old->title.empty() ? old->name : old->title) + ", once more";
    again.after = {old->name};
    again.wanted.clear();
    put(Put<Job>{again});
    say(fmt::format("repeat the job {} as {}", old->name, again.name));
}

void Reader::failed() {
    const Word w = line_.next("the step");
    const StepState& s = step(w);
    const Tick* t = tickOf(b_, s.code);
    if (!t && !s.closed.empty())
        throw Failure{w.column, fmt::format("{} can't have been done yet: {}.", quotedTitle(s), s.closed), ""};
    Attempt a;
    a.id = fresh<Attempt>();
    a.step = s.code;
    a.why = line_.rest().text;
    a.who = context_.who;
    a.at_utc = context_.now_utc;
    put(Put<Attempt>{a});
    if (t) put(Drop<Tick>{t->id});
    say(fmt::format("{} did not come off{}: again", s.title, a.why.empty() ? "" : " (" + a.why + ")"));
}

void Reader::readyList() {
    const Word w = line_.next("the list");
    ReadyJobs ready = readyJobs(b_, w.text);
    if (ready.jobs.empty() && ready.releases.empty()) {
        std::string all;
        for (const JobList& l : jobLists()) {
            if (w.text == l.key) throw Failure{w.column, fmt::format("All of {} is there already.", w.text), ""};
            all += (all.empty() ? "" : ", ") + std::string(l.key);
        }
        throw Failure{w.column, fmt::format("There is no ready-made list {}.", w.text), "There are " + all + "."};
    }
    for (Job& j : ready.jobs) {
        j.id = fresh<Job>();
        put(Put<Job>{std::move(j)});
    }
    for (Release& r : ready.releases) {
        r.id = fresh<Release>();
        put(Put<Release>{std::move(r)});
    }
    say(fmt::format("{}: {}{}", w.text, units::counted(ready.jobs.size(), "a job"),
                    ready.releases.empty() ? "" : " and " + units::counted(ready.releases.size(), "a row") + " of the register"));
}

void Reader::await() {
    const Word w = line_.next("the part's name");
    Awaited a;
    bool old = false;
    for (const auto& [id, row] : b_.awaited)
        if (row.name == w.text) {
            a = row;
            old = true;
        }
    if (!old) {
        a.id = fresh<Awaited>();
        a.name = w.text;
    }
    static constexpr Option options[] = {
        {"for", follows::step},    {"from"}, {"ordered", follows::date}, {"arrived", follows::date}, {"days", follows::figure},
        {"cost", follows::figure}, {"note"}};
    while (!line_.atEnd()) {
        if (line_.take("for")) {
            a.step = stepNext("the step that waits for it");
        } else if (line_.take("from")) {
            a.supplier = textUpTo(options);
        } else if (line_.take("ordered")) {
            a.ordered = dateNext();
        } else if (line_.take("arrived")) {
            a.arrived = dateNext();
        } else if (line_.take("days")) {
            setThree(oneOrThree("days"), a.least_days, a.likely_days, a.most_days);
        } else if (line_.take("cost")) {
            a.cost = plainNumber("costs");
        } else if (line_.take("note")) {
            a.note = line_.rest().text;
        } else {
            notKnownHere("Like: await door-seals for trim-back from the seal maker ordered 2026-11-02 days 10 20 45.");
        }
    }
    if (a.step.empty())
        throw Failure{line_.endColumn(), "The step that waits for it is missing.", "Like: await door-seals for trim-back."};
    put(Put<Awaited>{a});
    say(fmt::format("{} {} {} for {}{}{}", old ? "change what is awaited:" : "await", a.name,
                    a.supplier.empty() ? "" : "from " + a.supplier, a.step,
                    threeWords(a.least_days, a.likely_days, a.most_days, "days"),
                    a.arrived.empty() ? "" : ", here since " + a.arrived));
}

std::string Reader::quotedTitle(const StepState& s) { return "\"" + s.title + "\""; }

} // namespace gorvet::entry
