// The steering column, the rack or box, pipes and lines through the car.
#include "entry/reader.hpp"
#include "entry/said_words.hpp"

namespace gorvet::entry {
namespace {

constexpr const char* column_like = "Like: column steering through Wh Ja Jb Sg across 19.";
constexpr const char* gear_like = "Like: steer-gear rack-1 rack each-way 72 turns 3.2.";
constexpr const char* run_like = "Like: run downpipe exhaust through Ea Eb across 50.";
constexpr std::string_view column_words[] = {"through", "forks", "bearings", "bulkhead", "across", "gives", "limit", "note"};
constexpr std::string_view gear_words[] = {"holes", "bolt", "each-way", "arm", "swing", "turns", "plate", "closed", "note"};
constexpr std::string_view run_words[] = {"through", "across", "shielded", "open", "long", "ends-on", "note"};

} // namespace

template <std::size_t N> std::vector<PointId> Reader::carPoints(const std::string_view (&words)[N], const char* missing) {
    std::vector<PointId> list;
    while (!line_.atEnd() && !saidNext(words, line_)) {
        const Word w = line_.next(missing);
        const Point* p = w.text.find(':') != std::string::npos ? featurePoint(w.text) : pointOfEither(w, the_chassis);
        if (!p) unknown(the_chassis, w, false);
        list.push_back(p->id);
    }
    if (list.empty()) throw Failure{line_.endColumn(), fmt::format("{} is missing.", missing), ""};
    return list;
}

void Reader::steeringColumn() {
    const Word name = line_.next("its name");
    const SteeringColumn* old = steeringColumnNamed(b_, name.text);
    SteeringColumn c = old ? *old : SteeringColumn{};
    if (!old) {
        if (!b_.steering_columns.empty())
            throw Failure{name.column, fmt::format("There is the column {} already.", b_.steering_columns.begin()->second.name),
                          "A car has one: say its name, or take it away first."};
        c.id = fresh<SteeringColumn>();
        c.name = name.text;
    }
    const auto upTo = [&] { return line_.upTo([&] { return saidNext(column_words, line_); }); };
    while (!line_.atEnd()) {
        if (line_.take("through")) {
            c.points = carPoints(column_words, "A point");
            c.phases.clear(); // said of other shafts
        } else if (line_.take("forks")) {
            c.phases.clear();
            while (!line_.atEnd() && !saidNext(column_words, line_)) {
                const Word w = line_.next("how the forks stand");
                const Dimension d = figure(w, units::Kind::Angle, "how the forks stand");
                if (d.provenance == Provenance::Assumed)
                    throw Failure{w.column, "How the forks stand is looked at, or left out.",
                                  "Left out, they are taken to stand alike, and nothing holds by that."};
                c.phases.push_back(d.value);
            }
        } else if (line_.take("bearings")) {
            c.bearings = carPoints(column_words, "A bearing's point");
        } else if (line_.take("bulkhead")) {
            c.bulkhead = carPoints(column_words, "A place of the sheet");
        } else if (line_.take("across")) {
            c.across = figure(upTo(), units::Kind::Length, "the thickest shaft's diameter");
        } else if (line_.take("gives")) {
            c.gives = figure(upTo(), units::Kind::Length, "by how much it goes together");
        } else if (line_.take("limit")) {
            c.limit = figure(upTo(), units::Kind::Angle, "how far its joints bend");
        } else if (line_.take("note")) {
            c.note = line_.rest().text;
        } else {
            notKnownHere(column_like);
        }
    }
    put(Put<SteeringColumn>{c});
    say(fmt::format("column {} through {}", c.name, pointList(c.points)));
}
void Reader::removeSteeringColumn(const Word&) { removeNamed(b_.steering_columns, "column"); }

void Reader::steeringGear() {
    const Word name = line_.next("its name");
    const SteeringGear* old = steeringGearNamed(b_, name.text);
    SteeringGear g = old ? *old : SteeringGear{};
    if (!old) {
        if (!b_.steering_gears.empty())
            throw Failure{name.column,
                          fmt::format("There is the steering gear {} already.", b_.steering_gears.begin()->second.name),
                          "A car has one: say its name, or take it away first."};
        g.id = fresh<SteeringGear>();
        g.name = name.text;
    }
    g.kind = oneOf<SteerKind>("rack or box");
    const auto upTo = [&] { return line_.upTo([&] { return saidNext(gear_words, line_); }); };
    while (!line_.atEnd()) {
        if (line_.take("holes")) {
            g.holes = carPoints(gear_words, "A hole's point");
        } else if (line_.take("bolt")) {
            g.bolt = figure(upTo(), units::Kind::Length, "the bolts' thread");
        } else if (line_.take("each-way")) {
            g.each_way = figure(upTo(), units::Kind::Length, "how far it goes each way");
        } else if (line_.take("arm")) {
            g.pivot = known(the_chassis, line_.next("a place on the arm's shaft")).id;
            g.ball = known(the_chassis, line_.next("the ball at its end")).id;
        } else if (line_.take("swing")) {
            g.swing = figure(upTo(), units::Kind::Angle, "how far its arm swings each way");
        } else if (line_.take("turns")) {
            g.turns = countNext("turns of the hand wheel");
        } else if (line_.take("plate")) {
            g.plate = figure(upTo(), units::Kind::Length, "the plate's thickness");
        } else if (line_.take("closed")) {
            g.closed = true;
        } else if (line_.take("note")) {
            g.note = line_.rest().text;
        } else {
            notKnownHere(gear_like);
        }
    }
    put(Put<SteeringGear>{g});
    say(fmt::format("steering {} {}", word(g.kind), g.name));
}
void Reader::removeSteeringGear(const Word&) { removeNamed(b_.steering_gears, "steering gear"); }

void Reader::pipeRun() {
    const Word name = line_.next("its name");
    const Run* old = runNamed(b_, name.text);
    Run r = old ? *old : Run{};
    if (!old) {
        r.id = fresh<Run>();
        r.name = name.text;
    }
    r.kind = oneOf<CrossingKind>("what it is");
    bool sized = old != nullptr;
    while (!line_.atEnd()) {
        if (line_.take("through")) {
            r.points = carPoints(run_words, "A point");
        } else if (line_.take("across")) {
            r.across = figure(line_.upTo([&] { return saidNext(run_words, line_); }), units::Kind::Length, "its diameter");
            sized = true;
        } else if (line_.take("shielded")) {
            r.shielded = true;
        } else if (line_.take("open")) {
            r.shielded = false;
        } else if (line_.take("long")) {
            r.length = figure(line_.upTo([&] { return saidNext(run_words, line_); }), units::Kind::Length, "how long it is");
        } else if (line_.take("ends-on")) {
            r.last_on = oneOf<Carrier>("what its last point moves with");
        } else if (line_.take("note")) {
            r.note = line_.rest().text;
        } else {
            notKnownHere(run_like);
        }
    }
    if (!sized) throw Failure{line_.endColumn(), "Its diameter is missing.", run_like};
    put(Put<Run>{r});
    say(fmt::format("{} {} through {}", word(r.kind), r.name, pointList(r.points)));
}
void Reader::removePipeRun(const Word&) { removeNamed(b_.runs, "run"); }

} // namespace gorvet::entry
