// Ends of shafts, shafts, slopes as read, turns as counted, links.
#include "entry/reader.hpp"

#include <algorithm>
#include <cstdlib>

namespace gorvet::entry {
namespace {

constexpr const char* end_like = "Like: output gearbox at station 1420 right 12 up 310 slope 3.1deg.";
constexpr const char* shaft_like = "Like: shaft main from gearbox to rear.";
constexpr const char* level_like = "Like: level-on frame -0.6deg.";
constexpr const char* turns_like = "Like: turns rear-axle shaft 3.55 wheel 1 one-held.";
constexpr const char* drive_like = "Like: drive redline 5200 torque 320 first 3.6 top 0.78.";
constexpr std::string_view end_words[] = {"at",   "station", "right", "up",   "line", "slope", "swing",
                                          "turn", "raise",   "aside", "back", "on",   "in",    "note"};
constexpr std::string_view shaft_words[] = {"from", "to",   "joints", "slip",  "phase", "in",
                                            "out",  "tube", "limit",  "loops", "note"};
constexpr std::string_view level_words[] = {"within", "note"};
constexpr std::string_view drive_words[] = {"redline", "torque", "first",  "top",        "low",         "cruise",
                                            "tyre",    "cg",     "layout", "ratio-rear", "ratio-front", "wind-up"};

template <std::size_t N> bool among(const std::string_view (&words)[N], const Line& line) {
    return !line.atEnd() && std::find(std::begin(words), std::end(words), line.peek().text) != std::end(words);
}

} // namespace

Dimension Reader::countNext(const char* missing) {
    Word w = line_.next(missing);
    Dimension d;
    d.provenance = Provenance::Measured;
    std::string text = w.text;
    while (!text.empty() && text.back() == '?') {
        text.pop_back();
        d.provenance = Provenance::Assumed;
    }
    char* end = nullptr;
    d.value = std::strtod(text.c_str(), &end);
    if (text.empty() || *end || !std::isfinite(d.value))
        throw Failure{w.column, fmt::format("\"{}\" is no figure.", w.text), fmt::format("What stands here is {}.", missing)};
    d.typed = text;
    if (line_.take("?")) d.provenance = Provenance::Assumed;
    return d;
}

void Reader::driveEnd() {
    const auto kind = fromWord<DriveEndKind>(command_);
    const Word w = line_.next("its name");
    if (w.text == "frame") throw Failure{w.column, "\"frame\" is what a level lies on; a unit has a name of its own.", end_like};
    const DriveEnd* old = driveEndNamed(b_, w.text);
    DriveEnd e = old ? *old : DriveEnd{};
    if (!old) {
        e.id = fresh<DriveEnd>();
        e.name = w.text;
        e.on = *kind == DriveEndKind::Pinion || *kind == DriveEndKind::Through ? Carrier::Rear : Carrier::Frame;
    }
    e.kind = *kind;
    const auto upTo = [&] { return line_.upTo([&] { return among(end_words, line_); }); };
    const auto length = [&](const char* missing) { return figure(upTo(), units::Kind::Length, missing); };
    const auto angle = [&](const char* missing) { return figure(upTo(), units::Kind::Angle, missing); };
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", end_like};
    while (!line_.atEnd()) {
        if (line_.take("at")) {
            if (!line_.atEnd() && line_.peek().text == "station") {
                e.point = {};
                continue;
            }
            e.point = known(the_chassis, line_.next("a point")).id;
            e.station = e.right = e.up = {};
        } else if (line_.take("station")) {
            e.station = length("its station");
        } else if (line_.take("right")) {
            e.right = length("how far right of the middle");
        } else if (line_.take("up")) {
            e.up = length("how high");
        } else if (line_.take("line")) {
            e.fore = known(the_chassis, line_.next("the front point")).id;
            e.aft = known(the_chassis, line_.next("the rear point")).id;
            e.slope.reset();
        } else if (line_.take("slope")) {
            e.slope = angle("its slope");
            e.fore = e.aft = {};
        } else if (line_.take("swing")) {
            e.swing = angle("its swing");
        } else if (line_.take("turn")) {
            e.turned = angle("by how much it is turned");
        } else if (line_.take("raise")) {
            e.raised = length("how much higher");
        } else if (line_.take("aside")) {
            e.aside = length("how much further right");
        } else if (line_.take("back")) {
            e.back = length("how much further back");
        } else if (line_.take("on")) {
            e.on = oneOf<Carrier>("what it moves with");
        } else if (line_.take("in")) {
            const Word housing = line_.next("the housing's name, or alone");
            e.housing = housing.text == "alone" ? "" : housing.text;
        } else if (line_.take("note")) {
            e.note = line_.rest().text;
        } else {
            notKnownHere(end_like);
        }
    }
    put(Put<DriveEnd>{e});
    say(fmt::format("{} {}{}{}", word(e.kind), e.name, e.slope ? ", slope " + showAngle(*e.slope) : "",
                    e.turned.value != 0 ? ", turned by " + showAngle(e.turned) : ""));
}

void Reader::removeDriveEnd(const Word& what) {
    const auto kind = fromWord<DriveEndKind>(what.text);
    removeNamed(b_.drive_ends, what.text.c_str(), [&](const DriveEnd& e) { return e.kind == *kind; });
}

void Reader::shaft() {
    const Word w = line_.next("its name");
    if (w.text == "frame")
        throw Failure{w.column, "\"frame\" is what a level lies on; a shaft has a name of its own.", shaft_like};
    const Shaft* old = shaftNamed(b_, w.text);
    Shaft s = old ? *old : Shaft{};
    if (!old) {
        s.id = fresh<Shaft>();
        s.name = w.text;
    }
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", shaft_like};
    const auto upTo = [&] { return line_.upTo([&] { return among(shaft_words, line_); }); };
    const auto length = [&](const char* missing) { return figure(upTo(), units::Kind::Length, missing); };
    const auto end = [&](const char* missing) {
        const Word name = line_.next(missing);
        const DriveEnd* e = driveEndNamed(b_, name.text);
        if (!e) throw Failure{name.column, fmt::format("There is no end of a shaft {}.", name.text), end_like};
        return e->id;
    };
    while (!line_.atEnd()) {
        if (line_.take("from")) {
            s.from = end("where it begins");
        } else if (line_.take("to")) {
            s.to = end("where it ends");
        } else if (line_.take("joints")) {
            s.front = oneOf<JointKind>("its front joint");
            s.rear = oneOf<JointKind>("its rear joint");
        } else if (line_.take("slip")) {
            s.slip = oneOf<SlipAt>("where it slides");
        } else if (line_.take("phase")) {
            s.phase = figure(upTo(), units::Kind::Angle, "how its yokes stand");
        } else if (line_.take("in")) {
            s.slip_in = length("how far it still goes in");
        } else if (line_.take("out")) {
            s.slip_out = length("how far it still goes out");
        } else if (line_.take("tube")) {
            s.tube = lengthWord("the tube's outside");
            s.wall = lengthWord("its wall");
        } else if (line_.take("limit")) {
            s.limit = figure(upTo(), units::Kind::Angle, "the most that its joints bend");
        } else if (line_.take("loops")) {
            s.loops = true;
        } else if (line_.take("note")) {
            s.note = line_.rest().text;
        } else {
            notKnownHere(shaft_like);
        }
    }
    if (!s.from || !s.to)
        throw Failure{line_.endColumn(), fmt::format("Where it {} is missing.", s.from ? "ends" : "begins"), shaft_like};
    put(Put<Shaft>{s});
    say(fmt::format("shaft {} from {} to {}", s.name, b_.drive_ends.at(s.from).name, b_.drive_ends.at(s.to).name));
}

void Reader::removeShaft(const Word&) { removeNamed(b_.shafts, "shaft"); }

void Reader::levelOn() {
    const Word w = line_.next("what it lay on");
    LevelReading l;
    l.id = fresh<LevelReading>();
    if (w.text != "frame") {
        if (const DriveEnd* e = driveEndNamed(b_, w.text)) {
            l.on = LevelOn::Unit;
            l.end = e->id;
        } else if (const Shaft* s = shaftNamed(b_, w.text)) {
            l.on = LevelOn::Shaft;
            l.shaft = s->id;
        } else {
            throw Failure{w.column, fmt::format("There is no unit and no shaft {}.", w.text), level_like};
        }
    }
    const auto angle = [&](const char* missing) {
        return figure(line_.upTo([&] { return among(level_words, line_); }), units::Kind::Angle, missing);
    };
    l.slope = angle("what it showed");
    while (!line_.atEnd()) {
        if (line_.take("within"))
            l.within = angle("its ±");
        else if (line_.take("note"))
            l.note = line_.rest().text;
        else
            notKnownHere(level_like);
    }
    put(Put<LevelReading>{l});
    say(fmt::format("level on {}: {}", w.text, showAngle(l.slope)));
}

void Reader::removeLevels(const Word&) {
    const Word w = line_.next("what it lay on");
    bool any = false;
    for (const auto& [id, l] : b_.level_readings) {
        const bool it = l.on == LevelOn::Frame  ? w.text == "frame"
                        : l.on == LevelOn::Unit ? b_.drive_ends.at(l.end).name == w.text
                                                : b_.shafts.at(l.shaft).name == w.text;
        if (!it) continue;
        put(Drop<LevelReading>{id});
        any = true;
    }
    if (!any) throw Failure{w.column, fmt::format("No level was read on {}.", w.text), level_like};
    say(fmt::format("forget the levels on {}", w.text));
}

void Reader::turns() {
    TurnCount t;
    t.id = fresh<TurnCount>();
    t.axle = oneOf<Carrier>("which axle");
    if (t.axle == Carrier::Frame) throw Failure{line_.endColumn(), "Turns are counted at an axle.", turns_like};
    while (!line_.atEnd()) {
        if (line_.take("shaft"))
            t.shaft = countNext("turns of the shaft");
        else if (line_.take("wheel"))
            t.wheel = countNext("turns of the wheel");
        else if (line_.take("one-held"))
            t.one_held = true;
        else if (line_.take("within"))
            t.within = countNext("± of the shaft's turns");
        else if (line_.take("note"))
            t.note = line_.rest().text;
        else
            notKnownHere(turns_like);
    }
    if (t.shaft.value <= 0 || t.wheel.value <= 0)
        throw Failure{line_.endColumn(), fmt::format("The turns of the {} are missing.", t.shaft.value <= 0 ? "shaft" : "wheel"),
                      turns_like};
    put(Put<TurnCount>{t});
    say(fmt::format("{}: {:g} turns of the shaft, {:g} of {}", word(t.axle), t.shaft.value, t.wheel.value,
                    t.one_held ? "one wheel, the other held" : "the wheel"));
}

void Reader::removeTurns(const Word&) {
    const Carrier axle = oneOf<Carrier>("which axle");
    bool any = false;
    for (const auto& [id, t] : b_.turn_counts)
        if (t.axle == axle) {
            put(Drop<TurnCount>{id});
            any = true;
        }
    if (!any) throw Failure{line_.endColumn(), fmt::format("No turns were counted at the {}.", word(axle)), turns_like};
    say(fmt::format("forget the turns of the {}", word(axle)));
}

void Reader::link() {
    const Word w = line_.next("its name");
    const Link* old = linkNamed(b_, w.text);
    Link l = old ? *old : Link{};
    if (!old) {
        l.id = fresh<Link>();
        l.name = w.text;
    }
    l.of = oneOf<Hung>("what it carries");
    l.kind = oneOf<LinkKind>("what it is");
    l.points.clear();
    for (const Point* p : points(the_chassis)) l.points.push_back(p->id);
    if (!line_.atEnd()) {
        if (!line_.take("note")) unknown(the_chassis, line_.next("a point"), false);
        l.note = line_.rest().text;
    }
    put(Put<Link>{l});
    say(fmt::format("{} {} of the {}", word(l.kind), l.name, word(l.of)));
}

void Reader::removeLink(const Word&) { removeNamed(b_.links, "link"); }

void Reader::driveFacts() {
    DriveFacts f = b_.drive_facts;
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", drive_like};
    const auto upTo = [&] { return line_.upTo([&] { return among(drive_words, line_); }); };
    while (!line_.atEnd()) {
        if (line_.take("redline"))
            f.redline_rpm = countNext("its highest rpm");
        else if (line_.take("torque"))
            f.torque_Nm = countNext("its most torque, N·m");
        else if (line_.take("first"))
            f.first_gear = countNext("the ratio of first gear");
        else if (line_.take("top"))
            f.top_gear = countNext("the ratio of top gear");
        else if (line_.take("low"))
            f.low_range = countNext("the ratio of the low range");
        else if (line_.take("cruise"))
            f.cruise_kmh = countNext("cruise, km/h");
        else if (line_.take("ratio-front"))
            f.front_ratio = countNext("the ratio of the front axle");
        else if (line_.take("ratio-rear"))
            f.rear_ratio = countNext("the ratio of the rear axle");
        else if (line_.take("tyre"))
            f.tyre_mm = figure(upTo(), units::Kind::Length, "the tyre's diameter");
        else if (line_.take("cg"))
            f.cg_height = figure(upTo(), units::Kind::Length, "how high the centre of gravity is");
        else if (line_.take("layout"))
            f.layout = oneOf<DriveLayout>("how they are to lie");
        else if (line_.take("wind-up"))
            f.wind_up = figure(upTo(), units::Kind::Angle, "by how much the nose goes up");
        else
            notKnownHere(drive_like);
    }
    put(Set<DriveFacts>{f});
    say("what the shafts turn with");
}

} // namespace gorvet::entry
