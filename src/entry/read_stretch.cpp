#include "entry/reader.hpp"

#include <algorithm>
#include <map>

namespace gorvet::entry {

void Reader::cut() {
    Stretch s = b_.stretch;
    s.cut_station = lengthUpTo({}, "the cut station");
    put(Set<Stretch>{s});
    say(fmt::format("cut the rails at {}", show(*s.cut_station)));
}

void Reader::change() {
    Stretch s = b_.stretch;
    if (line_.take("free")) {
        s.wheelbase_change.reset();
        put(Set<Stretch>{s});
        return say("let the pins decide the wheelbase");
    }
    s.wheelbase_change = lengthUpTo({}, "the change of wheelbase, or the word free,");
    put(Set<Stretch>{s});
    say(fmt::format("change the wheelbase by {}", show(*s.wheelbase_change)));
}

void Reader::joint() {
    Stretch s = b_.stretch;
    if (command_ == "butt") {
        if (line_.take("counts"))
            s.butt_counts = true;
        else if (line_.take("not"))
            s.butt_counts = false;
        else
            throw Failure{line_.endColumn(), "Does the butt weld count?",
                          "Type: butt counts, when it is fully penetrated and licensed; or: butt not."};
        put(Set<Stretch>{s});
        return say(s.butt_counts ? "the butt weld counts: fully penetrated, by someone licensed"
                                 : "the butt weld does not count");
    }
    auto& figure = command_ == "sleeve-wall" ? s.sleeve_wall : command_ == "plug" ? s.plug_hole : s.fish_plate;
    if (line_.take("free") || line_.take("none")) {
        figure.reset();
        put(Set<Stretch>{s});
        return say(fmt::format("{}: as the rules say", command_));
    }
    figure = lengthUpTo({}, "the length, or the word free,");
    const std::string shown = show(*figure);
    put(Set<Stretch>{s});
    say(fmt::format("{} {}", command_, shown));
}

void Reader::crossing() {
    const CrossingKind kind = oneOf<CrossingKind>("what crosses");
    Crossing c;
    c.kind = kind;
    if (const Crossing* old = crossingOf(b_, kind)) c = *old;
    c.presence = Presence::Present;
    if (line_.take("none")) {
        c.presence = Presence::Absent;
    } else {
        while (!line_.atEnd()) {
            if (line_.take("slack")) {
                c.slack = lengthUpTo({"from", "to", "note"}, "the slack");
            } else if (line_.take("from")) {
                c.starts = lengthUpTo({"slack", "to", "note"}, "the station where it starts");
            } else if (line_.take("to")) {
                c.ends = lengthUpTo({"slack", "from", "note"}, "the station where it ends");
            } else if (line_.take("note")) {
                c.note = line_.rest().text;
            } else {
                throw Failure{line_.peek().column, fmt::format("\"{}\" is not known here.", line_.peek().text),
                              "Like: crossing brake-line slack 30 from 400 to 2600, or: crossing brake-line none"};
            }
        }
    }
    if (!c.id) c.id = fresh<Crossing>();
    const std::string slack = c.slack ? ", slack " + show(*c.slack) : "";
    put(Put<Crossing>{c});
    say(c.presence == Presence::Absent ? fmt::format("no {}", word(kind))
                                       : fmt::format("{} runs along the frame{}", word(kind), slack));
}

void Reader::stretchFigure() {
    Stretch s = b_.stretch;
    Dimension& d = command_ == "kerf"         ? s.kerf
                   : command_ == "root-gap"   ? s.root_gap
                   : command_ == "sleeve-fit" ? s.sleeve_fit
                                              : s.sleeve_overlap_heights;
    if (command_ == "overlap") { // a plain number of rail heights
        const Word typed = line_.next("the number of rail heights");
        auto parsed = units::parse(typed.text, units::Kind::Length, units::Unit::Millimetre);
        if (!parsed || !parsed->bare) throw Failure{typed.column, "The overlap is a number of rail heights.", "Like: overlap 2"};
        d = {parsed->value, typed.text, Provenance::Measured};
        put(Set<Stretch>{s});
        return say(fmt::format("sleeve overlap {} rail heights each side", units::fixed(d.value, 1)));
    }
    d = lengthUpTo({}, "the length");
    const std::string shown = show(d);
    put(Set<Stretch>{s});
    say(fmt::format("{} {}", command_, shown));
}

} // namespace gorvet::entry
