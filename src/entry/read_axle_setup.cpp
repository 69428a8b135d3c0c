// Axles on the bench: springs, brackets, what was read while they were tacked, how their gears run.
#include "entry/reader.hpp"
#include "entry/said_words.hpp"

#include <algorithm>

namespace gorvet::entry {
namespace {

constexpr const char* seat_like = "Like: seat rear faces 1420 tube 76 springs 430 430 width 60 pads 0deg pinion 3deg.";
constexpr const char* bracket_like = "Like: bracket damper-left rear damper right -480 ahead -70 up -60.";
constexpr const char* tacked_like = "Like: tacked perch-left rear is 279.5 wanted 280.";
constexpr const char* gears_like = "Like: gears rear-axle backlash 0.14 0.16 0.15 0.13 least 0.10 most 0.20.";
constexpr std::string_view seat_words[] = {"faces",   "tube",   "springs", "width", "pads",  "pinion",
                                           "kingpin", "caster", "u-bolt",  "stack", "plate", "note"};
constexpr std::string_view bracket_words[] = {"at", "right", "ahead", "up", "frame", "closed", "open", "note"};
constexpr std::string_view tacked_words[] = {"is", "wanted", "welded", "within", "note"};

} // namespace

void Reader::axleSeat() {
    const AxleEnd end = oneOf<AxleEnd>("front or rear");
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", seat_like};
    const AxleSeat* old = axleSeatOf(b_, end);
    AxleSeat s = old ? *old : AxleSeat{};
    if (!old) {
        s.id = fresh<AxleSeat>();
        s.end = end;
    }
    const auto upTo = [&] { return line_.upTo([&] { return saidNext(seat_words, line_); }); };
    const auto length = [&](const char* missing) { return figure(upTo(), units::Kind::Length, missing); };
    const auto angle = [&](const char* missing) { return figure(upTo(), units::Kind::Angle, missing); };
    while (!line_.atEnd()) {
        if (line_.take("faces")) {
            s.faces = length("its width from wheel face to wheel face");
        } else if (line_.take("tube")) {
            s.tube = length("the tube's outside");
        } else if (line_.take("springs")) {
            s.spring_left = lengthWord("how far out the left spring's middle is");
            s.spring_right = lengthWord("how far out the right spring's middle is");
        } else if (line_.take("width")) {
            s.spring_width = length("the springs' width");
        } else if (line_.take("pads")) {
            s.pad_slope = angle("the slope of the springs' seats");
        } else if (line_.take("pinion")) {
            s.pinion_slope = angle("the slope that the pinion shall have");
        } else if (line_.take("kingpin")) {
            s.kingpin = angle("how far the kingpins lean back");
        } else if (line_.take("caster")) {
            s.caster = angle("the caster that is wanted");
        } else if (line_.take("u-bolt")) {
            s.u_bolt = length("the thread of its U-bolts");
        } else if (line_.take("stack")) {
            s.stack = length("what the U-bolts hold beside the tube");
        } else if (line_.take("plate")) {
            s.plate = length("the plates' thickness");
        } else if (line_.take("note")) {
            s.note = line_.rest().text;
        } else {
            notKnownHere(seat_like);
        }
    }
    put(Put<AxleSeat>{s});
    say(fmt::format("{} axle on the bench", word(end)));
}

void Reader::removeAxleSeat(const Word&) {
    const AxleEnd end = oneOf<AxleEnd>("front or rear");
    const AxleSeat* s = axleSeatOf(b_, end);
    if (!s) throw Failure{line_.endColumn(), fmt::format("Nothing is said of the {} axle's springs.", word(end)), seat_like};
    put(Drop<AxleSeat>{s->id});
    say(fmt::format("forget the {} axle's springs", word(end)));
}

void Reader::axleBracket() {
    const Word name = line_.next("its name");
    const AxleBracket* old = axleBracketNamed(b_, name.text);
    AxleBracket a = old ? *old : AxleBracket{};
    if (!old) {
        a.id = fresh<AxleBracket>();
        a.name = name.text;
    }
    a.end = oneOf<AxleEnd>("front or rear");
    a.kind = oneOf<BracketKind>("what it is for");
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return saidNext(bracket_words, line_); }), units::Kind::Length, missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("at")) {
            a.point = known(the_chassis, line_.next("a point")).id;
            a.right = a.ahead = a.up = {};
        } else if (line_.take("right")) {
            a.right = length("how far right of the car's middle");
            a.point = {};
        } else if (line_.take("ahead")) {
            a.ahead = length("how far ahead of the axle's line");
            a.point = {};
        } else if (line_.take("up")) {
            a.up = length("how far over the axle's line");
            a.point = {};
        } else if (line_.take("frame")) {
            a.frame = known(the_chassis, line_.next("a point of the frame")).id;
        } else if (line_.take("closed")) {
            a.closed = length("its length pushed together");
        } else if (line_.take("open")) {
            a.open = length("its length drawn out");
        } else if (line_.take("note")) {
            a.note = line_.rest().text;
        } else {
            notKnownHere(bracket_like);
        }
    }
    put(Put<AxleBracket>{a});
    say(fmt::format("{} {} of the {} axle", word(a.kind), a.name, word(a.end)));
}

void Reader::removeAxleBracket(const Word&) { removeNamed(b_.axle_brackets, "bracket"); }

void Reader::tacked() {
    const Word name = line_.next("its name");
    const TackReading* old = tackReadingNamed(b_, name.text);
    TackReading t = old ? *old : TackReading{};
    if (!old) {
        t.id = fresh<TackReading>();
        t.name = name.text;
    }
    t.end = oneOf<AxleEnd>("front or rear");
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return saidNext(tacked_words, line_); }), units::Kind::Length, missing);
    };
    bool read = old != nullptr;
    while (!line_.atEnd()) {
        if (line_.take("is")) {
            t.tacked = length("what was read");
            t.welded.reset(); // tacked anew
            read = true;
        } else if (line_.take("wanted")) {
            t.wanted = length("what is wanted");
        } else if (line_.take("welded")) {
            t.welded = length("what was read when it was welded and cold");
        } else if (line_.take("within")) {
            t.within = length("by how much it may be off");
        } else if (line_.take("note")) {
            t.note = line_.rest().text;
        } else {
            notKnownHere(tacked_like);
        }
    }
    if (!read) throw Failure{line_.endColumn(), "What was read is missing.", tacked_like};
    put(Put<TackReading>{t});
    say(fmt::format("{} of the {} axle: tacked {}{}", t.name, word(t.end), show(t.tacked),
                    t.welded ? ", welded " + show(*t.welded) : std::string()));
}

void Reader::removeTacked(const Word&) { removeNamed(b_.tack_readings, "tacked"); }

void Reader::gears() {
    const Carrier axle = oneOf<Carrier>("which axle");
    const GearCheck check = oneOf<GearCheck>("what was read");
    GearReading g;
    for (const auto& [id, row] : b_.gear_readings)
        if (row.axle == axle && row.check == check) g = row;
    if (!g.id) g.id = fresh<GearReading>();
    g.axle = axle;
    g.check = check;
    std::vector<double> readings;
    while (!line_.atEnd()) {
        if (line_.take("least"))
            g.least = countNext("the least that is allowed");
        else if (line_.take("most"))
            g.most = countNext("the most that is allowed");
        else if (line_.take("spread"))
            g.spread = countNext("the most that they may differ");
        else if (line_.take("note"))
            g.note = line_.rest().text;
        else
            readings.push_back(countNext("what was read, or least, most, spread").value);
    }
    if (!readings.empty()) g.readings = readings;
    if (g.readings.empty()) throw Failure{line_.endColumn(), "What was read is missing.", gears_like};
    put(Put<GearReading>{g});
    say(fmt::format("{} of the {}: {}", word(check), word(axle), units::counted(g.readings.size(), "reading")));
}

void Reader::removeGears(const Word&) {
    const Carrier axle = oneOf<Carrier>("which axle");
    const GearCheck check = oneOf<GearCheck>("what was read");
    for (const auto& [id, row] : b_.gear_readings)
        if (row.axle == axle && row.check == check) {
            put(Drop<GearReading>{id});
            say(fmt::format("forget the {} of the {}", word(check), word(axle)));
            return;
        }
    throw Failure{line_.endColumn(), fmt::format("No {} of the {} was read.", word(check), word(axle)), gears_like};
}

} // namespace gorvet::entry
