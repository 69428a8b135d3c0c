// Wheels, hubs, what stands beside them, turns under a dial, bands and plates.
#include "entry/reader.hpp"
#include "entry/said_words.hpp"

#include <algorithm>
#include <cstdlib>

namespace gorvet::entry {
namespace {

constexpr const char* rim_like = "Like: rim rear fitted width 6in diameter 15in backspace 110 tyre 195 aspect 65.";
constexpr const char* hub_like = "Like: hub rear studs 5 chord 67.2 spigot 70.";
constexpr const char* room_like = "Like: room arch rear out 92 up 310, or: room arch rear at Al.";
constexpr const char* dial_like = "Like: dial rear-left lateral 0 0.2 0.5 0.4 0.1 -0.2 -0.3 -0.1.";
constexpr const char* widen_like = "Like: widen rear by 50 inside barrel 380 sheet 3.";
constexpr const char* adaptor_like = "Like: adaptor rear thick 30 across 170 hub-hole 13 wheel-hole 14.";
constexpr std::string_view rim_words[] = {"width",   "diameter", "over-lips", "backspace", "offset",       "inside", "spokes",
                                          "bore",    "studs",    "circle",    "chord",     "next-but-one", "tyre",   "aspect",
                                          "outside", "section",  "carries",   "speed",     "note"};
constexpr std::string_view hub_words[] = {"studs", "circle",       "chord",     "next-but-one", "spigot", "stud",
                                          "out",   "brake-radius", "brake-out", "axle",         "note"};
constexpr std::string_view room_words[] = {"at", "from", "out", "up", "ahead", "side", "on", "least", "note"};
constexpr std::string_view widen_words[] = {"by", "inside", "outside", "barrel", "sheet"};
constexpr std::string_view adaptor_words[] = {"thick", "across", "hub-hole", "wheel-hole", "nut-across", "nut-deep"};

} // namespace

void Reader::rim() {
    const AxleEnd end = oneOf<AxleEnd>("front or rear");
    const WheelAs as = oneOf<WheelAs>("fitted or wanted");
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", rim_like};
    const WheelSet *old = wheelSetOf(b_, end, as), *like = old ? old : wheelSetOf(b_, end, WheelAs::Fitted);
    // what is wanted begins as what is fitted; what was measured of the tyre that is there is not the other's
    WheelSet w = like ? *like : WheelSet{};
    if (!old) {
        w.id = fresh<WheelSet>();
        w.end = end;
        w.as = as;
        w.note.clear();
    }
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return saidNext(rim_words, line_); }), units::Kind::Length, missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("width")) {
            w.width = length("its width between the bead seats");
            if (!old) w.over_lips.reset();
            if (!old) w.section.reset();
        } else if (line_.take("diameter")) {
            w.diameter = length("the diameter of its bead seats");
            if (!old) w.inside.reset();
            if (!old) w.outside.reset();
        } else if (line_.take("over-lips")) {
            w.over_lips = length("its width over the lips");
        } else if (line_.take("backspace")) {
            w.backspace = length("from its face to the inner lip");
            w.offset.reset();
        } else if (line_.take("offset")) {
            w.offset = length("its offset");
            w.backspace.reset();
        } else if (line_.take("inside")) {
            w.inside = length("the diameter inside it");
        } else if (line_.take("spokes")) {
            w.spokes = length("how far its spokes stand out");
        } else if (line_.take("bore")) {
            w.bore = length("its bore");
        } else if (line_.take("studs")) {
            w.studs = countNext("how many studs");
        } else if (line_.take("circle")) {
            w.circle = length("the diameter of the stud circle");
            w.chord.reset();
        } else if (line_.take("chord")) {
            w.chord = length("from hole to hole");
            w.circle.reset();
        } else if (line_.take("next-but-one")) {
            w.next_but_one = true;
        } else if (line_.take("tyre")) {
            w.tyre = length("the tyre's width");
            w.section.reset();
            w.outside.reset();
        } else if (line_.take("aspect")) {
            w.aspect = countNext("height of its side in hundredths of its width");
            w.outside.reset();
        } else if (line_.take("outside")) {
            w.outside = length("the tyre's diameter");
        } else if (line_.take("section")) {
            w.section = length("the tyre's width as measured");
        } else if (line_.take("carries")) {
            w.carries = countNext("kg that it may carry");
        } else if (line_.take("speed")) {
            w.speed = countNext("km/h that it may run");
        } else if (line_.take("note")) {
            w.note = line_.rest().text;
        } else {
            notKnownHere(rim_like);
        }
    }
    if (w.width.value <= 0 || w.diameter.value <= 0)
        throw Failure{line_.endColumn(), fmt::format("The {} of the rim is missing.", w.width.value <= 0 ? "width" : "diameter"),
                      rim_like};
    put(Put<WheelSet>{w});
    say(fmt::format("rim {} {}: {} wide, {} in diameter", word(end), word(as), show(w.width), show(w.diameter)));
}

void Reader::removeRim(const Word&) {
    const AxleEnd end = oneOf<AxleEnd>("front or rear");
    const WheelAs as = oneOf<WheelAs>("fitted or wanted");
    const WheelSet* w = wheelSetOf(b_, end, as);
    if (!w) throw Failure{line_.endColumn(), fmt::format("No {} wheel is {}.", word(end), word(as)), rim_like};
    put(Drop<WheelSet>{w->id});
    say(fmt::format("forget the {} {} wheel", word(end), word(as)));
}

void Reader::hub() {
    const AxleEnd end = oneOf<AxleEnd>("front or rear");
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", hub_like};
    const Hub* old = hubOf(b_, end);
    Hub h = old ? *old : Hub{};
    if (!old) {
        h.id = fresh<Hub>();
        h.end = end;
    }
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return saidNext(hub_words, line_); }), units::Kind::Length, missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("studs")) {
            h.studs = countNext("how many studs");
        } else if (line_.take("circle")) {
            h.circle = length("the diameter of the stud circle");
            h.chord.reset();
        } else if (line_.take("chord")) {
            h.chord = length("from stud to stud");
            h.circle.reset();
        } else if (line_.take("next-but-one")) {
            h.next_but_one = true;
        } else if (line_.take("spigot")) {
            h.spigot = length("the diameter of the spigot");
        } else if (line_.take("stud")) {
            h.stud = length("the diameter of a stud");
        } else if (line_.take("out")) {
            h.stud_out = length("how far a stud stands out");
        } else if (line_.take("brake-radius")) {
            h.brake_radius = length("how far the brake reaches from the hub's middle");
        } else if (line_.take("brake-out")) {
            h.brake_out = length("how far the brake stands outside of the face");
        } else if (line_.take("axle")) {
            h.axle_kg = countNext("kg that the axle may carry");
        } else if (line_.take("note")) {
            h.note = line_.rest().text;
        } else {
            notKnownHere(hub_like);
        }
    }
    put(Put<Hub>{h});
    say(fmt::format("hub {}", word(end)));
}

void Reader::removeHub(const Word&) { removeOfEnd<Hub>(hubOf, "hub"); }

void Reader::wheelRoom() {
    const Word name = line_.next("its name");
    const WheelRoom* old = wheelRoomNamed(b_, name.text);
    WheelRoom r = old ? *old : WheelRoom{};
    if (!old) {
        r.id = fresh<WheelRoom>();
        r.name = name.text;
    }
    r.end = oneOf<AxleEnd>("front or rear");
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return saidNext(room_words, line_); }), units::Kind::Length, missing);
    };
    bool said_on = old != nullptr;
    while (!line_.atEnd()) {
        if (line_.take("at")) {
            const Word w = line_.next("a point");
            const Point* p = pointNamed(b_, the_body, w.text);
            if (!p || (said_on && r.on != RoomOn::Body))
                p = pointNamed(b_, the_chassis, w.text) ? pointNamed(b_, the_chassis, w.text) : p;
            if (!p) unknown(the_chassis, w, false);
            r.point = p->id;
            r.out = r.up = r.ahead = {};
            if (p->subject == the_body)
                r.on = RoomOn::Body;
            else if (r.on == RoomOn::Body)
                r.on = RoomOn::Frame;
            said_on = true;
        } else if (line_.take("from")) {
            r.from = oneOf<RoomFrom>("what it is taped from");
        } else if (line_.take("out")) {
            r.out = length("how far out it stands");
            r.point = {};
        } else if (line_.take("up")) {
            r.up = length("how high over the wheel's centre");
            r.point = {};
        } else if (line_.take("ahead")) {
            r.ahead = length("how far ahead of the wheel's centre");
            r.point = {};
        } else if (line_.take("side")) {
            r.side = oneOf<RailSide>("on which side");
        } else if (line_.take("on")) {
            r.on = oneOf<RoomOn>("what it is part of");
            said_on = true;
        } else if (line_.take("least")) {
            r.least = length("by what the tyre shall be clear of it");
        } else if (line_.take("note")) {
            r.note = line_.rest().text;
        } else {
            notKnownHere(room_like);
        }
    }
    put(Put<WheelRoom>{r});
    say(fmt::format("{} beside the {} wheels", r.name, word(r.end)));
}

void Reader::removeWheelRoom(const Word&) { removeNamed(b_.wheel_rooms, "room"); }

void Reader::dialTurn() {
    const Wheel wheel = oneOf<Wheel>("which wheel");
    const DialWay way = oneOf<DialWay>("radial or lateral");
    DialTurn t;
    for (const auto& [id, row] : b_.dial_turns)
        if (row.wheel == wheel && row.way == way) t = row;
    if (!t.id) t.id = fresh<DialTurn>();
    t.wheel = wheel;
    t.way = way;
    t.readings.clear();
    while (!line_.atEnd()) {
        if (line_.take("within")) {
            t.within = figure(line_.rest(), units::Kind::Length, "± of each");
            break;
        }
        t.readings.push_back(lengthWord("what the dial showed").value);
    }
    if (t.readings.empty()) throw Failure{line_.endColumn(), "What the dial showed is missing.", dial_like};
    put(Put<DialTurn>{t});
    say(fmt::format("{} {} under the dial: {}", word(wheel), word(way), units::counted(t.readings.size(), "reading")));
}

void Reader::removeDialTurn(const Word&) {
    const Wheel wheel = oneOf<Wheel>("which wheel");
    const DialWay way = oneOf<DialWay>("radial or lateral");
    for (const auto& [id, row] : b_.dial_turns)
        if (row.wheel == wheel && row.way == way) {
            put(Drop<DialTurn>{id});
            say(fmt::format("forget {} {} under the dial", word(wheel), word(way)));
            return;
        }
    throw Failure{line_.endColumn(), fmt::format("The {} wheel was not under a dial {}.", word(wheel), word(way)), dial_like};
}

void Reader::widen() {
    const AxleEnd end = oneOf<AxleEnd>("front or rear");
    const Widening* old = wideningOf(b_, end);
    Widening w = old ? *old : Widening{};
    if (!old) {
        w.id = fresh<Widening>();
        w.end = end;
    }
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return saidNext(widen_words, line_); }), units::Kind::Length, missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("by"))
            w.band = length("how wide the band is");
        else if (line_.take("inside"))
            w.at = BandAt::Inside;
        else if (line_.take("outside"))
            w.at = BandAt::Outside;
        else if (line_.take("barrel"))
            w.barrel = length("the barrel's outside diameter");
        else if (line_.take("sheet"))
            w.sheet = length("how thick it is");
        else
            notKnownHere(widen_like);
    }
    if (w.band.value <= 0 || w.barrel.value <= 0 || w.sheet.value <= 0)
        throw Failure{line_.endColumn(), "The band's width, the barrel or the sheet is missing.", widen_like};
    put(Put<Widening>{w});
    say(fmt::format("{} rims wider by {}", word(end), show(w.band)));
}

void Reader::removeWidening(const Word&) { removeOfEnd<Widening>(wideningOf, "band"); }

void Reader::adaptor() {
    const AxleEnd end = oneOf<AxleEnd>("front or rear");
    const Adaptor* old = adaptorOf(b_, end);
    Adaptor a = old ? *old : Adaptor{};
    if (!old) {
        a.id = fresh<Adaptor>();
        a.end = end;
    }
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return saidNext(adaptor_words, line_); }), units::Kind::Length, missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("thick"))
            a.thick = length("how thick it is");
        else if (line_.take("across"))
            a.across = length("its diameter");
        else if (line_.take("hub-hole"))
            a.hub_hole = length("its holes for the hub's studs");
        else if (line_.take("wheel-hole"))
            a.wheel_hole = length("its holes for the wheel's studs");
        else if (line_.take("nut-across"))
            a.nut_across = length("the sunk hole for the nuts");
        else if (line_.take("nut-deep"))
            a.nut_deep = length("how deep that is");
        else
            notKnownHere(adaptor_like);
    }
    if (a.thick.value <= 0 || a.across.value <= 0 || a.hub_hole.value <= 0 || a.wheel_hole.value <= 0)
        throw Failure{line_.endColumn(), "Its thickness, its diameter or its holes are missing.", adaptor_like};
    put(Put<Adaptor>{a});
    say(fmt::format("adaptor {}, {} thick", word(end), show(a.thick)));
}

void Reader::removeAdaptor(const Word&) { removeOfEnd<Adaptor>(adaptorOf, "adaptor"); }

} // namespace gorvet::entry
