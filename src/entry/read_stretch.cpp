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
