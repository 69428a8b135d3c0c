#include "entry/reader.hpp"

#include <algorithm>

namespace gorvet::entry {

namespace {
std::string quoted(const std::string& text) { return "\"" + text + "\""; }
} // namespace

void Reader::removeJob(const Word&) {
    const Word w = line_.next("the job's name");
    const Job* j = jobNamed(b_, w.text);
    if (!j) throw Failure{w.column, fmt::format("There is no job {}.", w.text), ""};
    put(Drop<Job>{j->id});
    // what waits for it alone waits for nothing then; what is awaited for it goes with it
    for (const auto& [id, other] : b_.jobs) {
        Job k = other;
        const auto gone = [&](const std::string& code) { return code == j->name || code == "job-" + j->name; };
        std::erase_if(k.after, gone);
        std::erase_if(k.before, gone);
        if (!(k == other)) put(Put<Job>{k});
    }
    for (const auto& [id, a] : b_.awaited)
        if (a.step == j->name || a.step == "job-" + j->name) put(Drop<Awaited>{id});
    say(fmt::format("remove the job {}", w.text));
}
void Reader::removeTag(const Word&) { removeNamed(b_.releases, "tag"); }
void Reader::removeAwaited(const Word&) { removeNamed(b_.awaited, "awaited part"); }

const StepState& Reader::step(const Word& w) const {
    for (const std::string& code : {w.text, "job-" + w.text})
        for (const StepState& s : context_.steps)
            if (s.code == code) return s;
    std::string some;
    int shown = 0;
    for (const StepState& s : context_.steps)
        if (!s.done && shown < 3) some += (shown++ ? ", " : "") + s.code;
    throw Failure{w.column, fmt::format("This build has no step {}.", w.text),
                  some.empty() ? "" : "The next ones are " + some + "."};
}

/// The step named by the next word, or the one that is next.
const StepState& Reader::stepOrNext() {
    if (!context_.knows_work) throw Failure{0, "The order of work is not known here.", ""};
    const bool named = !line_.atEnd() && line_.peek().text != "note" && line_.peek().text != "by" && line_.peek().text != "photo";
    if (named) return step(line_.next("the step"));
    if (context_.next_step.empty()) throw Failure{line_.endColumn(), "All steps are done.", ""};
    return step(Word{context_.next_step, 0, false});
}

void Reader::done() {
    const StepState& s = stepOrNext();
    Tick t;
    if (const Tick* old = tickOf(b_, s.code)) {
        t = *old; // a note or photo is added to it
        if (line_.atEnd()) throw Failure{0, fmt::format("{} is already done.", quoted(s.title)), ""};
    } else {
        if (!s.closed.empty()) throw Failure{0, fmt::format("{} can't be ticked yet: {}.", quoted(s.title), s.closed), ""};
        t.id = fresh<Tick>();
        t.step = s.code;
        t.who = context_.who;
        t.at_utc = context_.now_utc;
    }
    while (!line_.atEnd()) {
        if (line_.take("by")) {
            t.who = line_.upTo({"note", "photo"}).text;
        } else if (line_.take("note")) {
            t.note = line_.rest().text; // to the end: no word of a note signs a step
        } else if (line_.take("photo")) {
            t.photo = line_.next("the photo's hash (the step's card, or gorvet-cli photo, picks a file)").text;
        } else {
            throw Failure{line_.peek().column, fmt::format("\"{}\" is not known here.", line_.peek().text),
                          "Type: done STEP by NAME note TEXT."};
        }
    }
    const bool bare = s.hot && !permitted(b_, s.code) && !tickOf(b_, s.code);
    if (bare && t.note.empty()) {
        const std::string typed = s.code.starts_with("job-") ? s.code.substr(4) : s.code;
        throw Failure{line_.endColumn(),
                      fmt::format("{} burns or throws sparks, and nobody was said to watch for fire.", quoted(s.title)),
                      fmt::format("Before it begins: permit {} watch NAME. If it was done without, say so: done {} note WHY.",
                                  typed, typed)};
    }
    if (bare) out_.remark = "it was done without a permit: look behind, below and inside now, and once more in an hour";
    put(Put<Tick>{t});
    say(fmt::format("done: {}{}{}", s.title, t.note.empty() ? "" : ", " + t.note, t.photo.empty() ? "" : ", with photo"));
}

void Reader::undone() {
    const Word w = line_.next("the step");
    const Tick* t = tickOf(b_, w.text);
    if (!t) t = tickOf(b_, "job-" + w.text);
    if (!t) throw Failure{w.column, fmt::format("{} is not ticked.", w.text), ""};
    put(Drop<Tick>{t->id});
    say(fmt::format("not done after all: {}", w.text));
}

void Reader::check() {
    if (!context_.knows_work) throw Failure{0, "The order of work is not known here.", ""};
    const bool named = !line_.atEnd() && std::any_of(context_.steps.begin(), context_.steps.end(),
                                                     [&](const StepState& s) { return s.code == line_.peek().text; });
    const StepState& s = named ? step(line_.next("the step")) : stepAsking();
    Check c;
    c.step = s.code;
    c.who = context_.who;
    c.at_utc = context_.now_utc;
    std::string name;
    if (line_.take("gap")) {
        const Word brace = line_.next("the brace's name");
        c.gap_of = temporary(brace).id;
        name = "gap of " + brace.text;
    } else {
        if (line_.take("level")) c.kind = ReadingKind::Level;
        const Point& from = known(the_chassis, line_.next("a point's name"));
        const Point& to = known(the_chassis, line_.next("a point's name"));
        c.from = from.id;
        c.to = to.id;
        name = (c.kind == ReadingKind::Level ? "level " : "") + from.name + "–" + to.name;
    }
    const bool asked = std::any_of(s.checks.begin(), s.checks.end(), [&](const AskedCheck& a) {
        return c.gap_of ? a.gap_of == c.gap_of : a.asksFor(c.kind, c.from, c.to);
    });
    if (!asked) throw Failure{line_.endColumn(), fmt::format("{} does not ask for {}.", quoted(s.title), name), ""};
    c.value = lengthUpTo({}, "the reading");
    if (c.value.provenance == Provenance::Assumed)
        throw Failure{line_.endColumn(), "A check must be read, not assumed.",
                      "Leave the question mark out once you have read it."};
    c.id = fresh<Check>();
    put(Put<Check>{c});
    say(fmt::format("checked {}: {}", name, show(c.value)));
}

/// A reading typed plainly while a hold point asks for just that: it is its check, and no reading of the survey, which was taken
/// before the rails were cut.
bool Reader::countsAsCheck(ReadingKind kind, PointId from, PointId to, const Dimension& value) {
    if (!context_.knows_work || context_.subject != the_chassis || value.provenance == Provenance::Assumed) return false;
    for (const StepState& s : context_.steps) {
        if (s.code != context_.next_step) continue;
        if (std::none_of(s.checks.begin(), s.checks.end(), [&](const AskedCheck& a) { return a.asksFor(kind, from, to); }))
            return false;
        Check c;
        c.step = s.code;
        c.kind = kind;
        c.from = from;
        c.to = to;
        c.value = value;
        c.who = context_.who;
        c.at_utc = context_.now_utc;
        c.id = fresh<Check>();
        put(Put<Check>{c});
        say(fmt::format("checked {}{}–{}: {}, for {} (type retape in front to change the survey instead)",
                        kind == ReadingKind::Level ? "level " : "", nameOf(b_, from), nameOf(b_, to), show(value),
                        quoted(s.title)));
        return true;
    }
    return false;
}

/// The first step that is not done and asks for readings.
const StepState& Reader::stepAsking() const {
    for (const StepState& s : context_.steps)
        if (!s.done && !s.checks.empty()) return s;
    throw Failure{0, "No hold point asks for a reading.", ""};
}

const TemporarySteel& Reader::temporary(const Word& w) const {
    for (const auto& [id, t] : b_.temporary_steel)
        if (t.name == w.text) return t;
    throw Failure{w.column, fmt::format("There is no brace {}.", w.text), fmt::format("List it first: brace {}", w.text)};
}

void Reader::brace() {
    const Word w = line_.next("the brace's name");
    TemporarySteel t;
    t.name = w.text;
    for (const auto& [id, old] : b_.temporary_steel)
        if (old.name == w.text) t = old;
    while (!line_.atEnd()) {
        if (line_.take("for")) {
            t.purpose = line_.upTo({"blocks", "until", "gap"}).text;
        } else if (line_.take("blocks")) {
            t.blocks = line_.upTo({"for", "until", "gap"}).text;
        } else if (line_.take("until")) {
            t.out_after = line_.next("the step after which it comes out").text;
        } else if (line_.take("gap")) {
            t.gap = lengthUpTo({"for", "blocks", "until", "tol"}, "the gap it keeps");
            if (line_.take("tol")) t.gap_tolerance_mm = lengthUpTo({"for", "blocks", "until"}, "the tolerance").value;
        } else {
            throw Failure{line_.peek().column, fmt::format("\"{}\" is not known here.", line_.peek().text),
                          "Like: brace door-left for door opening blocks the left seat until bolt-body gap 4.5"};
        }
    }
    const bool old = static_cast<bool>(t.id);
    if (!old) t.id = fresh<TemporarySteel>();
    const std::string gap = t.gap ? ", gap " + show(*t.gap) : "";
    put(Put<TemporarySteel>{t});
    say(fmt::format("{} brace {}{}", old ? "change" : "list", t.name, gap));
}

void Reader::presence() {
    const bool there = command_ == "present";
    const Hazard hazard = oneOf<Hazard>("what is there");
    WorkFacts w = b_.work;
    presenceOf(w, hazard) = there ? Presence::Present : Presence::Absent;
    put(Set<WorkFacts>{w});
    say(fmt::format("{} is {}", word(hazard), there ? "there" : "not there"));
}

void Reader::standing() {
    WorkFacts w = b_.work;
    if (line_.atEnd())
        throw Failure{line_.endColumn(), "How it stands before the work begins is missing.",
                      "Like: standing body-on wheels right-way-up"};
    while (!line_.atEnd()) {
        const Word next = line_.next("how it stands");
        if (const auto body = fromWord<BodyPlace>(next.text))
            w.body = *body;
        else if (const auto attitude = fromWord<Attitude>(next.text))
            w.attitude = *attitude;
        else if (const auto support = fromWord<Support>(next.text))
            w.support = *support;
        else
            throw Failure{next.column, fmt::format("\"{}\" is not known here.", next.text),
                          fmt::format("Type {}; {}; {}.", wordList<BodyPlace>(), wordList<Attitude>(), wordList<Support>())};
    }
    if (w.attitude == Attitude::Inverted && w.body == BodyPlace::On)
        throw Failure{0, "A frame can't lie upside down with the body on.", "Type body-off too."};
    put(Set<WorkFacts>{w});
    say(fmt::format("before the work: {}, on {}, {}", word(w.body), word(w.support), word(w.attitude)));
}

void Reader::removeBrace(const Word&) {
    put(Drop<TemporarySteel>{temporary(line_.next("the brace's name")).id});
    say("remove the brace from the list");
}

} // namespace gorvet::entry
