// Springs, weighings with one axle lifted, rows of holes of links, brakes and pedals.
#include "entry/reader.hpp"
#include "entry/said_words.hpp"

namespace gorvet::entry {
namespace {

constexpr const char* spring_like = "Like: spring rear coil rate 32 foot Sl top Tl free 380.";
constexpr const char* lifted_like = "Like: lifted front 600 rear 798kg.";
constexpr const char* holes_like = "Like: link-holes lower frame pitch 25 above 1 below 2 hole 14.";
constexpr const char* brake_like = "Like: brake front disc piston 48 pistons 2 radius 112 grip 0.38 stroke 0.5.";
constexpr const char* pedal_like = "Like: pedal brake lever 290 arm 52 room 140 bore 22.2.";
constexpr std::string_view spring_words[] = {"rate", "bar",  "inside", "long", "arm",       "foot", "top",
                                             "on",   "free", "higher", "stop", "stop-rate", "note"};
constexpr std::string_view lifted_words[] = {"front", "rear", "within", "note"};
constexpr std::string_view holes_words[] = {"pitch", "above", "below", "lean", "hole", "note"};
constexpr std::string_view brake_words[] = {"piston", "pistons", "radius", "grip", "factor", "stroke", "note"};
constexpr std::string_view pedal_words[] = {"lever", "arm", "room", "bore", "bore-rear", "stroke", "help", "leg", "note"};

} // namespace

void Reader::spring() {
    const AxleEnd end = oneOf<AxleEnd>("front or rear");
    const Spring* old = springOf(b_, end);
    Spring s = old ? *old : Spring{};
    if (!old) {
        s.id = fresh<Spring>();
        s.end = end;
    }
    s.form = oneOf<SpringForm>("what kind of spring");
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return saidNext(spring_words, line_); }), units::Kind::Length, missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("rate")) {
            s.rate = countNext("the rate, N/mm");
        } else if (line_.take("bar")) {
            s.bar = length("the bar's diameter");
        } else if (line_.take("inside")) {
            s.inside = length("its inside");
        } else if (line_.take("long")) {
            s.length = length("the bar's length");
        } else if (line_.take("arm")) {
            s.arm = length("from the bar to the wheel's centre");
        } else if (line_.take("foot")) {
            s.foot = known(the_chassis, line_.next("the point of its foot")).id;
        } else if (line_.take("top")) {
            s.top = known(the_chassis, line_.next("the point of its top")).id;
        } else if (line_.take("on")) {
            const Word w = line_.next("a link");
            const Link* l = linkNamed(b_, w.text);
            if (!l) throw Failure{w.column, fmt::format("There is no link {}.", w.text), "Say it first: link … …."};
            s.on = l->id;
        } else if (line_.take("free")) {
            s.free = length("its length without load");
        } else if (line_.take("higher")) {
            s.higher = length("how much higher the car shall stand");
        } else if (line_.take("stop")) {
            s.stop = length("how far the wheel goes up until its stop touches");
        } else if (line_.take("stop-rate")) {
            s.stop_rate = countNext("the stop's rate at the wheel, N/mm");
        } else if (line_.take("note")) {
            s.note = line_.rest().text;
        } else {
            notKnownHere(spring_like);
        }
    }
    put(Put<Spring>{s});
    say(fmt::format("{} springs of the {} wheels", word(s.form), word(end)));
}
void Reader::removeSpring(const Word&) { removeOfEnd<Spring>(springOf, "spring"); }

void Reader::axleLifted() {
    AxleLifted l;
    l.id = fresh<AxleLifted>();
    l.lifted = oneOf<AxleEnd>("front or rear");
    const auto upTo = [&] { return line_.upTo([&] { return saidNext(lifted_words, line_); }); };
    const auto mass = [&](const char* missing) { return figure(upTo(), units::Kind::Mass, missing); };
    l.up = figure(upTo(), units::Kind::Length, "by how much its wheels were lifted");
    const Word other = line_.next("what the other axle carried");
    if (const auto end = fromWord<AxleEnd>(other.text); !end || *end == l.lifted)
        throw Failure{other.column, "What the axle on the ground carried is missing.", lifted_like};
    l.weight = mass("what the other axle carried");
    while (!line_.atEnd()) {
        if (line_.take("within"))
            l.within = mass("± of the scales");
        else if (line_.take("note"))
            l.note = line_.rest().text;
        else
            notKnownHere(lifted_like);
    }
    put(Put<AxleLifted>{l});
    say(fmt::format("{} axle lifted by {}: {:.1f} kg on the other", word(l.lifted), show(l.up), l.weight.value));
}
void Reader::removeAxleLifted(const Word&) {
    const AxleEnd end = oneOf<AxleEnd>("front or rear");
    for (const auto& [id, l] : b_.axles_lifted)
        if (l.lifted == end) put(Drop<AxleLifted>{id});
    if (out_.edit.changes.empty())
        throw Failure{line_.endColumn(), fmt::format("The {} axle was not lifted.", word(end)), lifted_like};
    say(fmt::format("forget what was weighed with the {} axle lifted", word(end)));
}

void Reader::linkHoles() {
    const Word name = line_.next("the link");
    const Link* link = linkNamed(b_, name.text);
    if (!link) throw Failure{name.column, fmt::format("There is no link {}.", name.text), "Say it first: link … …."};
    const LinkEnd at = oneOf<LinkEnd>("frame or axle");
    const LinkHoles* old = linkHolesOf(b_, link->id, at);
    LinkHoles h = old ? *old : LinkHoles{};
    if (!old) {
        h.id = fresh<LinkHoles>();
        h.link = link->id;
        h.at = at;
    }
    const auto upTo = [&] { return line_.upTo([&] { return saidNext(holes_words, line_); }); };
    bool spaced = old != nullptr;
    while (!line_.atEnd()) {
        if (line_.take("pitch")) {
            h.pitch = figure(upTo(), units::Kind::Length, "from hole to hole");
            spaced = true;
        } else if (line_.take("above")) {
            h.above = countNext("holes above");
        } else if (line_.take("below")) {
            h.below = countNext("holes below");
        } else if (line_.take("lean")) {
            h.lean = figure(upTo(), units::Kind::Angle, "how far the row leans");
        } else if (line_.take("hole")) {
            h.hole = figure(upTo(), units::Kind::Length, "a hole's diameter");
        } else if (line_.take("note")) {
            h.note = line_.rest().text;
        } else {
            notKnownHere(holes_like);
        }
    }
    if (!spaced) throw Failure{line_.endColumn(), "From hole to hole is missing.", holes_like};
    put(Put<LinkHoles>{h});
    say(fmt::format("holes of {} at the {}: {:.0f} above, {:.0f} below", link->name, word(at), h.above.value, h.below.value));
}
void Reader::removeLinkHoles(const Word&) {
    const Word name = line_.next("the link");
    const LinkEnd at = oneOf<LinkEnd>("frame or axle");
    const Link* link = linkNamed(b_, name.text);
    const LinkHoles* h = link ? linkHolesOf(b_, link->id, at) : nullptr;
    if (!h) throw Failure{name.column, fmt::format("{} has no row of holes at the {}.", name.text, word(at)), holes_like};
    put(Drop<LinkHoles>{h->id});
    say(fmt::format("forget the holes of {} at the {}", name.text, word(at)));
}

void Reader::brake() {
    const AxleEnd end = oneOf<AxleEnd>("front or rear");
    const Brake* old = brakeOf(b_, end);
    Brake k = old ? *old : Brake{};
    if (!old) {
        k.id = fresh<Brake>();
        k.end = end;
    }
    k.kind = oneOf<BrakeKind>("disc or drum");
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return saidNext(brake_words, line_); }), units::Kind::Length, missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("piston"))
            k.piston = length("a piston's diameter");
        else if (line_.take("pistons"))
            k.pistons = countNext("how many pistons");
        else if (line_.take("radius"))
            k.radius = length("the radius at which they press");
        else if (line_.take("grip"))
            k.grip = countNext("how the linings grip");
        else if (line_.take("factor"))
            k.factor = countNext("what the shoes rub for each push");
        else if (line_.take("stroke"))
            k.stroke = length("how far a piston moves");
        else if (line_.take("note"))
            k.note = line_.rest().text;
        else
            notKnownHere(brake_like);
    }
    put(Put<Brake>{k});
    say(fmt::format("{} brakes of the {} wheels", word(k.kind), word(end)));
}
void Reader::removeBrake(const Word&) { removeOfEnd<Brake>(brakeOf, "brake"); }

void Reader::pedal() {
    const PedalKind kind = oneOf<PedalKind>("brake or clutch");
    const Pedal* old = pedalOf(b_, kind);
    Pedal p = old ? *old : Pedal{};
    if (!old) {
        p.id = fresh<Pedal>();
        p.kind = kind;
    }
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return saidNext(pedal_words, line_); }), units::Kind::Length, missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("lever"))
            p.lever = length("from its pivot to its pad");
        else if (line_.take("arm"))
            p.arm = length("from its pivot to the push rod");
        else if (line_.take("room"))
            p.room = length("from its rest to the floor");
        else if (line_.take("bore"))
            p.bore = length("the cylinder's bore");
        else if (line_.take("bore-rear"))
            p.bore_rear = length("the rear cylinder's bore");
        else if (line_.take("stroke"))
            p.stroke = length("the cylinder's stroke");
        else if (line_.take("help"))
            p.help = countNext("a servo's help");
        else if (line_.take("leg"))
            p.leg = countNext("what the leg presses, N");
        else if (line_.take("note"))
            p.note = line_.rest().text;
        else
            notKnownHere(pedal_like);
    }
    put(Put<Pedal>{p});
    say(fmt::format("{} pedal", word(kind)));
}
void Reader::removePedal(const Word&) {
    const PedalKind kind = oneOf<PedalKind>("brake or clutch");
    const Pedal* p = pedalOf(b_, kind);
    if (!p) throw Failure{line_.endColumn(), fmt::format("Nothing is said of the {} pedal.", word(kind)), pedal_like};
    put(Drop<Pedal>{p->id});
    say(fmt::format("forget the {} pedal", word(kind)));
}

} // namespace gorvet::entry
