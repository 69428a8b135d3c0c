#include "entry/reader.hpp"

#include <cmath>

namespace gorvet::entry {

WheelReadings Reader::wheel() {
    WheelReadings w;
    w.wheel = oneOf<Wheel>("the wheel");
    for (const auto& [id, old] : b_.wheels)
        if (old.wheel == w.wheel) return old;
    w.id = fresh<WheelReadings>();
    return w;
}

Dimension Reader::lean(const char* missing) {
    Dimension d = figure(line_.next(missing), units::Kind::Angle, missing);
    if (line_.take("in"))
        d.value = -d.value;
    else if (!line_.take("out") && d.value != 0)
        throw Failure{line_.endColumn(), "Does its top lean out or in?", "Like: camber front-left 0.4° out"};
    return d;
}

void Reader::toe() {
    ToeReadings t;
    t.axle = oneOf<AxleEnd>("the axle");
    for (const auto& [id, old] : b_.toe)
        if (old.axle == t.axle) t = old;
    t.ahead = lengthWord("the distance ahead of the hubs");
    t.behind = lengthWord("the distance behind the hubs");
    if (line_.take("rim")) t.rim = lengthUpTo({}, "the rim");
    if (!t.id) t.id = fresh<ToeReadings>();
    put(Put<ToeReadings>{t});
    const double in = t.behind.value - t.ahead.value;
    say(fmt::format("toe {}: {} {}", word(t.axle), units::formatSmall(std::abs(in), b_.settings.length_step, true),
                    in >= 0 ? "in" : "out"));
}

void Reader::camber() {
    WheelReadings w = wheel();
    w.camber = lean("the camber");
    put(Put<WheelReadings>{w});
    say(fmt::format("camber {}: {} {}", word(w.wheel), units::formatAngle(std::abs(w.camber->value)),
                    w.camber->value >= 0 ? "out" : "in"));
}

void Reader::sweep() {
    WheelReadings w = wheel();
    w.sweep = figure(line_.next("by how much it was turned"), units::Kind::Angle, "by how much it was turned");
    w.turned_out = lean("the camber with the wheel turned out");
    w.turned_in = lean("the camber with the wheel turned in");
    put(Put<WheelReadings>{w});
    say(fmt::format("sweep of {} by {}", word(w.wheel), units::formatAngle(w.sweep->value)));
}

void Reader::ride() {
    WheelReadings w = wheel();
    w.ride = lengthUpTo({}, "the ride height");
    put(Put<WheelReadings>{w});
    say(fmt::format("ride height {} {}", word(w.wheel), show(*w.ride)));
}

void Reader::weight() {
    WheelReadings w = wheel();
    const Word typed = line_.upTo({});
    auto parsed = units::parse(typed.text, units::Kind::Mass, units::Unit::Kilogram);
    if (!parsed) throw Failure{typed.column + std::max(0, parsed.error().column), parsed.error().message, parsed.error().remedy};
    w.weight = Dimension{parsed->value, parsed->typed, Provenance::Measured};
    put(Put<WheelReadings>{w});
    say(fmt::format("weight on {} {} kg", word(w.wheel), units::fixed(parsed->value, 1)));
}

void Reader::runOut() {
    WheelReadings w = wheel();
    w.run_out = lengthUpTo({}, "the run-out");
    put(Put<WheelReadings>{w});
    say(fmt::format("run-out of {} {}", word(w.wheel), show(*w.run_out)));
}

} // namespace gorvet::entry
