// What is lifted, and the points that carry it.
#include "entry/reader.hpp"

namespace gorvet::entry {

const Lift& Reader::liftNext() {
    const Word w = line_.next("the lift's name");
    if (const Lift* l = liftNamed(b_, w.text)) return *l;
    throw Failure{w.column, fmt::format("There is no lift {}.", w.text), fmt::format("Say it first: lift {} weighs 400", w.text)};
}

void Reader::lift() {
    const Word w = line_.next("the lift's name");
    const Lift* old = liftNamed(b_, w.text);
    Lift l = old ? *old : Lift{};
    if (!old) {
        l.id = fresh<Lift>();
        l.name = w.text;
    }
    const auto mass = [&](const char* missing) {
        return figure(line_.upTo({"way", "for", "weighs", "pm", "centre", "spreader", "no-spreader", "note"}), units::Kind::Mass,
                      missing)
            .value;
    };
    while (!line_.atEnd()) {
        if (line_.take("way")) {
            l.way = oneOf<LiftWay>("how it is lifted");
        } else if (line_.take("for")) {
            l.step = stepNext("the step that it is lifted for");
        } else if (line_.take("weighs")) {
            l.mass_kg = mass("its mass");
            l.mass_u95_kg = line_.take("pm") ? mass("the ± of its mass") : 0;
        } else if (line_.take("centre")) {
            l.centre = place3();
            l.centre_u95 = line_.take("pm") ? place3() : Vec3{};
        } else if (line_.take("spreader")) {
            l.spreader = true;
        } else if (line_.take("no-spreader")) {
            l.spreader = false;
        } else if (line_.take("note")) {
            l.note = line_.rest().text;
        } else {
            notKnownHere("Like: lift cab way slings for body-off weighs 380 pm 20 centre 900 0 500 pm 60 20 60.");
        }
    }
    put(Put<Lift>{l});
    say(fmt::format("{} {} by {}{}", old ? "change the lift" : "lift", l.name, word(l.way),
                    l.mass_kg > 0
                        ? fmt::format(", {:g} kg{}", l.mass_kg, l.mass_u95_kg > 0 ? fmt::format(" ± {:g}", l.mass_u95_kg) : "")
                        : ""));
}

void Reader::leg() {
    const Lift& l = liftNext();
    const Word w = line_.next("the name of its leg or point");
    LiftPoint p;
    for (const auto& [id, old] : b_.lift_points)
        if (old.lift == l.id && old.name == w.text) p = old;
    const bool old = static_cast<bool>(p.id);
    if (!old) {
        p.id = fresh<LiftPoint>();
        p.lift = l.id;
        p.name = w.text;
    }
    const auto option = [&] {
        return line_.peekIs("long") || line_.peekIs("rated") || line_.peekIs("sound") || line_.peekIs("not-looked-at");
    };
    if (!line_.atEnd() && !option())
        p.at = place3();
    else if (!old)
        throw Failure{line_.endColumn(), "Its place on the load is missing.",
                      "Like: leg cab front-left 200 -500 900 long 1800 rated 1000 sound."};
    while (!line_.atEnd()) {
        if (line_.take("long"))
            p.length_mm = lengthUpTo({"rated", "sound", "not-looked-at"}, "the length of the leg").value;
        else if (line_.take("rated"))
            p.rated_kg = figure(line_.upTo({"long", "sound", "not-looked-at"}), units::Kind::Mass, "what it may carry").value;
        else if (line_.take("sound"))
            p.sound = true;
        else if (line_.take("not-looked-at"))
            p.sound = false;
        else
            notKnownHere("Like: leg cab front-left 200 -500 900 long 1800 rated 1000 sound.");
    }
    put(Put<LiftPoint>{p});
    say(fmt::format("{} {} of {}{}{}", old ? "change" : "add", p.name, l.name,
                    p.rated_kg > 0 ? fmt::format(", rated {:g} kg", p.rated_kg) : "", p.sound ? ", looked at" : ""));
}

void Reader::removeLift(const Word&) {
    const Lift& l = liftNext();
    for (const auto& [id, p] : b_.lift_points)
        if (p.lift == l.id) put(Drop<LiftPoint>{id});
    put(Drop<Lift>{l.id});
    say("remove the lift " + l.name);
}

void Reader::removeLeg(const Word&) {
    const Lift& l = liftNext();
    const Word w = line_.next("the name of its leg or point");
    for (const auto& [id, p] : b_.lift_points)
        if (p.lift == l.id && p.name == w.text) {
            put(Drop<LiftPoint>{id});
            return say(fmt::format("remove {} of the lift {}", p.name, l.name));
        }
    throw Failure{w.column, fmt::format("The lift {} has no {}.", l.name, w.text), ""};
}

void Reader::stand() {
    const Word w = line_.next("the name of the pair");
    const Stand* old = standNamed(b_, w.text);
    Stand s = old ? *old : Stand{};
    if (!old) {
        s.id = fresh<Stand>();
        s.name = w.text;
    }
    bool placed = old != nullptr;
    while (!line_.atEnd()) {
        if (line_.take("at")) {
            s.station = lengthUpTo({"rated", "sound", "not-looked-at"}, "its station");
            placed = true;
        } else if (line_.take("rated")) {
            s.rated_kg =
                figure(line_.upTo({"at", "sound", "not-looked-at"}), units::Kind::Mass, "what one of the two may carry").value;
        } else if (line_.take("sound")) {
            s.sound = true;
        } else if (line_.take("not-looked-at")) {
            s.sound = false;
        } else {
            notKnownHere("Like: stand front at 200 rated 1000 kg sound.");
        }
    }
    if (!placed)
        throw Failure{line_.endColumn(), "Its station is missing.", fmt::format("Like: stand {} at 200 rated 1000 kg.", s.name)};
    put(Put<Stand>{s});
    say(fmt::format("{} {} under both rails at {:g}{}", old ? "change the stands" : "stands", s.name, s.station.value,
                    s.rated_kg > 0 ? fmt::format(", {:g} kg each", s.rated_kg) : ""));
}
void Reader::removeStand(const Word&) { removeNamed(b_.stands, "pair of stands"); }

} // namespace gorvet::entry
