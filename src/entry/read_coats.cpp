// Surfaces, their coats, and permits for what is hot.
#include "entry/reader.hpp"
#include "units/dates.hpp"

namespace gorvet::entry {

const Surface& Reader::surfaceNext() {
    const Word w = line_.next("the surface's name");
    if (const Surface* s = surfaceNamed(b_, w.text)) return *s;
    throw Failure{w.column, fmt::format("There is no surface {}.", w.text),
                  fmt::format("Say it first: surface {} steel blast m2 1.4", w.text)};
}

void Reader::surface() {
    const Word w = line_.next("the surface's name");
    const Surface* old = surfaceNamed(b_, w.text);
    Surface s = old ? *old : Surface{};
    if (!old) {
        s.id = fresh<Surface>();
        s.name = w.text;
    }
    static constexpr Option options[] = {
        {"m2", follows::figure}, {"area"}, {"seams", follows::figure}, {"within"}, {"at", follows::figure}, {"why"}, {"note"}};
    while (!line_.atEnd()) {
        if (const auto metal = fromWord<Metal>(line_.peek().text)) {
            s.metal = *metal;
            line_.next("the metal");
        } else if (const auto ready = fromWord<Preparation>(line_.peek().text)) {
            s.preparation = *ready;
            line_.next("how it is made ready");
        } else if (line_.take("m2")) {
            s.size_m2 = plainNumber("square metres");
        } else if (line_.take("area")) {
            s.area = textUpTo(options);
        } else if (line_.take("seams")) {
            s.seams_mm = lengthUpTo({"m2", "area", "within", "at", "why", "note"}, "the length of the seams").value;
        } else if (line_.take("within")) {
            s.space = textUpTo(options);
        } else if (line_.take("at")) {
            const Word t = line_.next("the temperature in °C");
            char* end = nullptr;
            s.at_c = std::strtod(t.text.c_str(), &end);
            if (t.text.empty() || *end)
                throw Failure{t.column, fmt::format("\"{}\" is no temperature.", t.text), "In °C, like: at 14."};
        } else if (line_.take("why")) {
            s.skip_why = textUpTo(options);
        } else if (line_.take("note")) {
            s.note = line_.rest().text;
        } else {
            notKnownHere("Like: surface sill-in steel blast m2 1.4 area left sill within left sill seams 3 m at 18.");
        }
    }
    put(Put<Surface>{s});
    say(fmt::format("{} surface {}: {}, {}{}", old ? "change the" : "a", s.name, word(s.metal), word(s.preparation),
                    s.size_m2 > 0 ? fmt::format(", {:g} m²", s.size_m2) : ""));
}

void Reader::coat() {
    const Surface& s = surfaceNext();
    const Word w = line_.next("the coat's name");
    Coat c;
    for (const Coat& old : coatsOf(b_, s.id))
        if (old.name == w.text) c = old;
    const bool old = static_cast<bool>(c.id);
    if (!old) {
        c.id = fresh<Coat>();
        c.surface = s.id;
        c.name = w.text;
        c.kind = oneOf<CoatKind>("what it is");
    }
    static constexpr Option options[] = {{"of"},
                                         {"coats", follows::figure},
                                         {"covers", follows::figure},
                                         {"dries", follows::figure},
                                         {"pot", follows::figure},
                                         {"brush"},
                                         {"spray"}};
    while (!line_.atEnd()) {
        if (const auto kind = fromWord<CoatKind>(line_.peek().text)) {
            c.kind = *kind;
            line_.next("what it is");
        } else if (const auto by = fromWord<ByHand>(line_.peek().text)) {
            c.by = *by;
            line_.next("how it goes on");
        } else if (line_.take("of")) {
            c.product = textUpTo(options);
        } else if (line_.take("coats")) {
            c.coats = plainNumber("coats");
        } else if (line_.take("covers")) {
            c.covers_m2 = plainNumber("square metres");
        } else if (line_.take("dries")) {
            c.dries_h = plainNumber("hours");
        } else if (line_.take("pot")) {
            c.pot_min = plainNumber("minutes");
        } else {
            notKnownHere("Like: coat sill-in primer epoxy-primer coats 2 covers 7 brush dries 12 pot 240.");
        }
    }
    put(Put<Coat>{c});
    say(fmt::format("{} {} on {}: {}", old ? "change the coat" : "the coat", c.name, s.name, word(c.kind)));
}

void Reader::bared() {
    std::string names;
    do {
        Surface s = surfaceNext();
        for (const Coat& c : coatsOf(b_, s.id))
            if (c.done)
                throw Failure{0, fmt::format("{} is on {} already.", c.name, s.name),
                              "What is stripped again is a surface of its own."};
        s.bared = Signed{context_.who, context_.now_utc};
        put(Put<Surface>{s});
        names += (names.empty() ? "" : ", ") + s.name;
    } while (!line_.atEnd());
    say("bare metal: " + names);
}

void Reader::coated() {
    const Surface& s = surfaceNext();
    const Word w = line_.next("the coat's name");
    const std::vector<Coat> coats = coatsOf(b_, s.id);
    const Coat* before = nullptr;
    for (const Coat& c : coats) {
        if (c.name != w.text) {
            before = &c;
            continue;
        }
        if (c.done) throw Failure{w.column, fmt::format("{} is on {} already.", c.name, s.name), ""};
        if (before && !before->done)
            throw Failure{w.column, fmt::format("{} goes on first, and is not on yet.", before->name),
                          fmt::format("Type: coated {} {}", s.name, before->name)};
        Coat on = c;
        on.done = Signed{context_.who, context_.now_utc};
        put(Put<Coat>{on});
        return say(fmt::format("{} is on {}", c.name, s.name));
    }
    throw Failure{w.column, fmt::format("{} has no coat {}.", s.name, w.text),
                  fmt::format("Say it first: coat {} {} epoxy-primer", s.name, w.text)};
}

/// The coats of a surface as jobs, each after the one before and the time that it dries.
void Reader::coatJobs() {
    const Surface& s = surfaceNext();
    if (s.preparation == Preparation::Skip) throw Failure{0, fmt::format("{} is skipped: {}.", s.name, s.skip_why), ""};
    std::vector<Job> jobs;
    const auto add = [&](const std::string& name, const std::string& title, JobKind kind, double rest_h) {
        if (jobNamed(b_, name)) throw Failure{0, fmt::format("There is a job {} already.", name), ""};
        Job j;
        j.id = fresh<Job>();
        j.name = name;
        j.title = title;
        j.kind = kind;
        j.area = s.area;
        j.inside = s.space;
        j.rest_h = rest_h;
        if (!jobs.empty()) j.after = {jobs.back().name};
        jobs.push_back(std::move(j));
    };
    add(s.name + "-bare", fmt::format("{} {} to bare metal", word(s.preparation), s.name),
        s.preparation == Preparation::Blast    ? JobKind::Blast
        : s.preparation == Preparation::Abrade ? JobKind::Grind
                                               : JobKind::Clean,
        0);
    for (const Coat& c : coatsOf(b_, s.id))
        add(s.name + "-" + c.name, fmt::format("{} on {}", word(c.kind), s.name),
            c.kind == CoatKind::SeamSealer ? JobKind::Seal : JobKind::Paint, c.dries_h * c.coats);
    for (Job& j : jobs) put(Put<Job>{j});
    say(fmt::format("{} for {}", units::counted(jobs.size(), "a job"), s.name));
}

void Reader::removeSurface(const Word&) {
    const Surface& s = surfaceNext();
    for (const Coat& c : coatsOf(b_, s.id)) put(Drop<Coat>{c.id});
    put(Drop<Surface>{s.id});
    say("remove the surface " + s.name);
}

void Reader::removeCoat(const Word&) {
    const Surface& s = surfaceNext();
    const Word w = line_.next("the coat's name");
    for (const Coat& c : coatsOf(b_, s.id))
        if (c.name == w.text) {
            put(Drop<Coat>{c.id});
            return say(fmt::format("remove the coat {} of {}", c.name, s.name));
        }
    throw Failure{w.column, fmt::format("{} has no coat {}.", s.name, w.text), ""};
}

/// The newest permit of a step that is not watched to its end.
const Permit* Reader::openPermit(const std::string& step) const {
    const Permit* open = nullptr;
    for (const auto& [id, p] : b_.permits)
        if (p.step == step && !p.watched) open = &p;
    return open;
}

void Reader::permit() {
    const Word w = line_.next("the step");
    const StepState& s = step(w);
    if (openPermit(s.code))
        throw Failure{w.column, fmt::format("{} has a permit already.", s.title), "It ends by: sparks-out " + w.text};
    if (!line_.take("watch"))
        throw Failure{line_.endColumn(), "Who watches is missing.",
                      "Somebody who does nothing else: permit " + w.text + " watch …"};
    Permit p;
    p.id = fresh<Permit>();
    p.step = s.code;
    p.watch = line_.rest().text;
    if (p.watch.empty()) throw Failure{line_.endColumn(), "Who watches is missing.", ""};
    p.begun = {context_.who, context_.now_utc};
    put(Put<Permit>{p});
    say(fmt::format("{} may be hot: {} watches", s.title, p.watch));
    out_.remark =
        "looked at before: fuel, lines, tank, foam, wiring and under-seal within 10 m out or covered; extinguisher and water at hand";
}

void Reader::sparksOut() {
    const Word w = line_.next("the step");
    const Permit* open = openPermit(w.text);
    if (!open) open = openPermit("job-" + w.text);
    if (!open) throw Failure{w.column, fmt::format("{} has no permit.", w.text), "Type: permit " + w.text + " watch …"};
    if (open->ended) throw Failure{w.column, "The last spark was said already.", "Once the hour is over: watched " + w.text};
    Permit p = *open;
    p.ended = Signed{context_.who, context_.now_utc};
    put(Put<Permit>{p});
    say(fmt::format("the last spark is out: {} watches for an hour from now", p.watch));
}

void Reader::watched() {
    const Word w = line_.next("the step");
    const Permit* open = openPermit(w.text);
    if (!open) open = openPermit("job-" + w.text);
    if (!open) throw Failure{w.column, fmt::format("{} has no permit.", w.text), ""};
    if (!open->ended)
        throw Failure{w.column, "It is still hot: the watch begins with the last spark.", "Type: sparks-out " + w.text};
    const auto since = units::secondsOf(open->ended->at_utc), now = units::secondsOf(context_.now_utc);
    constexpr long long an_hour = 3600;
    if (since && now && *now - *since < an_hour)
        throw Failure{w.column, fmt::format("{} min of the hour is left.", (an_hour - (*now - *since) + 59) / 60),
                      "What smoulders shows late: stay, and look behind and below."};
    Permit p = *open;
    p.watched = Signed{context_.who, context_.now_utc};
    put(Put<Permit>{p});
    say(fmt::format("the watch over {} is over: nothing smoulders", w.text));
}

} // namespace gorvet::entry
