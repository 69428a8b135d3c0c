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
    if (command_ == "stagger") {
        if (line_.take("free") || line_.take("none"))
            s.stagger.reset();
        else
            s.stagger = lengthUpTo({}, "the length, or the word free,");
        put(Set<Stretch>{s});
        return say(s.stagger ? fmt::format("the pans are cut {} from the spine's cut", show(*s.stagger))
                             : "stagger: as the rules say");
    }
    if (command_ == "sleeve-step") {
        s.stepped = line_.take("yes");
        if (!s.stepped && !line_.take("not"))
            throw Failure{line_.endColumn(), "Is the sleeve made with the step?", "Type: sleeve-step yes, or: sleeve-step not."};
        put(Set<Stretch>{s});
        return say(s.stepped ? "the sleeve is made with the step of rails that run aside" : "the sleeve is straight");
    }
    if (command_ == "sleeve-tube") {
        if (line_.take("free") || line_.take("none")) {
            s.tube_height.reset();
            s.tube_width.reset();
            s.strip.reset();
            put(Set<Stretch>{s});
            return say("the sleeve is made to fit");
        }
        s.tube_height = lengthWord("how high the tube is, outside");
        s.tube_width = lengthWord("how wide it is");
        if (line_.take("wall")) s.sleeve_wall = lengthUpTo({}, "its wall");
        put(Set<Stretch>{s});
        return say(fmt::format("the sleeve is the tube in hand: {} × {}{}", show(*s.tube_height), show(*s.tube_width),
                               s.sleeve_wall ? " × " + show(*s.sleeve_wall) : ""));
    }
    auto& figure = command_ == "tube-strip"    ? s.strip
                   : command_ == "sleeve-wall" ? s.sleeve_wall
                   : command_ == "plug"        ? s.plug_hole
                                               : s.fish_plate;
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

void Reader::sayOfCrossing(Crossing& c) {
    static constexpr Option options[] = {{"slack", follows::figure},
                                         {"from", follows::figure},
                                         {"to", follows::figure},
                                         {"clips", follows::figure},
                                         {"fittings"},
                                         {"answer", follows::one<RunAnswer>},
                                         {"long", follows::figure},
                                         {"supplier"},
                                         {"price", follows::figure},
                                         {"hours", follows::figure},
                                         {"out"},
                                         {"stays"},
                                         {"inside"},
                                         {"beside"},
                                         {"note"}};
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return stopsAt(options); }), units::Kind::Length, missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("slack")) {
            c.slack = length("the slack");
        } else if (line_.take("from")) {
            c.starts = length("the station where it starts");
        } else if (line_.take("to")) {
            c.ends = length("the station where it ends");
        } else if (line_.take("clips")) {
            c.clips = plainNumber("clips");
        } else if (line_.take("fittings")) {
            c.fittings = textUpTo(options);
        } else if (line_.take("answer")) {
            c.answer = oneOf<RunAnswer>("what is done about it");
        } else if (line_.take("long")) {
            c.new_length = length("its new length");
        } else if (line_.take("supplier")) {
            c.supplier = textUpTo(options);
        } else if (line_.take("price")) {
            c.price = plainNumber("price");
        } else if (line_.take("hours")) {
            c.hours = plainNumber("hours");
        } else if (line_.take("out")) {
            c.out_before_heat = true;
        } else if (line_.take("stays")) {
            c.out_before_heat = false;
        } else if (line_.take("inside")) {
            c.inside = true;
        } else if (line_.take("beside")) {
            c.inside = false;
        } else if (line_.take("note")) {
            c.note = line_.rest().text;
        } else {
            notKnownHere(
                "Like: crossing brake-line left slack 30 from 400 to 2600 answer joiner hours 1.5 out, or: crossing brake-line none");
        }
    }
}

void Reader::crossing() {
    const CrossingKind kind = oneOf<CrossingKind>("what crosses");
    Crossing c;
    c.kind = kind;
    // several of a kind have names of their own
    static constexpr std::string_view words[] = {"none",     "slack", "from",  "to",  "clips", "fittings", "answer", "long",
                                                 "supplier", "price", "hours", "out", "stays", "inside",   "beside", "note"};
    if (!line_.atEnd() && std::find(std::begin(words), std::end(words), line_.peek().text) == std::end(words))
        c.name = line_.next("its name").text;
    if (const Crossing* old = crossingOf(b_, kind, c.name)) c = *old;
    c.presence = Presence::Present;
    if (line_.take("none"))
        c.presence = Presence::Absent;
    else
        sayOfCrossing(c);
    if (!c.id) c.id = fresh<Crossing>();
    const std::string slack = c.slack ? ", slack " + show(*c.slack) : "";
    const std::string named = c.name.empty() ? "" : " " + c.name;
    const std::string answer = c.answer == RunAnswer::Open ? "" : fmt::format(", {}", word(c.answer));
    put(Put<Crossing>{c});
    say(c.presence == Presence::Absent ? fmt::format("no {}{}", word(kind), named)
                                       : fmt::format("{}{} runs along the frame{}{}", word(kind), named, slack, answer));
}

void Reader::removeCrossing(const Word&) {
    const CrossingKind kind = oneOf<CrossingKind>("what crosses");
    const std::string own = line_.atEnd() ? "" : line_.next("its name").text;
    const Crossing* c = crossingOf(b_, kind, own);
    if (!c)
        throw Failure{line_.endColumn(), fmt::format("Nothing is said of a {}{}.", word(kind), own.empty() ? "" : " " + own), ""};
    put(Drop<Crossing>{c->id});
    say(fmt::format("nothing is said of the {}{} any more", word(kind), own.empty() ? "" : " " + own));
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
