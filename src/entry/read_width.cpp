// How wide the chassis is made, floors that reach out to sills, rails let into a shell, holes of the rails.
#include "entry/reader.hpp"

#include <algorithm>

namespace gorvet::entry {
namespace {

constexpr const char* narrow_like = "Like: narrow by 120 at 420.";
constexpr const char* edge_like = "Like: floor-edge left from Bl Cl Dl to Sl Tl.";
constexpr const char* let_in_like = "Like: let-in left from Fl to Rl section 80 50 3.";
constexpr const char* hole_like = "Like: rail-hole bush at 1240 across 30 outer.";
constexpr std::string_view hole_words[] = {"at",   "across", "along",   "up",    "left",      "right", "both",
                                           "top",  "bottom", "outer",   "inner", "initiator", "hole",  "keep",
                                           "open", "move",   "restore", "ask",   "note"};
constexpr std::string_view narrow_words[] = {"by", "at", "lap"};
constexpr std::string_view edge_words[] = {"from", "to", "sheet", "lap", "upstand", "outriggers", "pitch", "carries", "note"};
constexpr std::string_view let_in_words[] = {"from",       "to",     "section", "front-leg", "rear-leg", "front-along",
                                             "rear-along", "driven", "engage",  "floor",     "yield",    "note"};

template <std::size_t N> bool isOneOf(const std::string_view (&words)[N], std::string_view word) {
    return std::find(std::begin(words), std::end(words), word) != std::end(words);
}

} // namespace

void Reader::narrow() {
    Narrowing n = b_.narrowing.value_or(Narrowing{});
    if (line_.atEnd()) throw Failure{line_.endColumn(), "By how much is missing.", narrow_like};
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return !line_.atEnd() && isOneOf(narrow_words, line_.peek().text); }), units::Kind::Length,
                      missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("by")) {
            n.by = length("by how much in all");
        } else if (line_.take("at")) {
            n.slit = length("how far from the middle it is slit");
        } else if (line_.take("lap")) {
            if (line_.take("free"))
                n.lap.reset();
            else
                n.lap = length("how far the sheets lie on each other");
        } else {
            notKnownHere(narrow_like);
        }
    }
    if (n.by.value <= 0) throw Failure{line_.endColumn(), "By how much in all is missing.", narrow_like};
    if (n.slit.value <= 0) throw Failure{line_.endColumn(), "How far from the middle it is slit is missing.", narrow_like};
    put(Set<std::optional<Narrowing>>{n});
    say(fmt::format("the chassis is made narrower by {}, slit at {} from the middle", show(n.by), show(n.slit)));
}

void Reader::removeNarrow(const Word&) {
    if (!b_.narrowing) throw Failure{0, "The chassis is not made narrower.", narrow_like};
    put(Set<std::optional<Narrowing>>{});
    say("the chassis stays as wide as it is");
}

const Point* Reader::pointOfEither(const Word& w, SubjectId first) const {
    for (const SubjectId subject : {first, the_body, the_chassis})
        if (const Point* p = pointNamed(b_, subject, w.text)) return p;
    return nullptr;
}

void Reader::floorEdge() {
    const Word w = line_.next("its name");
    const FloorEdge* old = floorEdgeNamed(b_, w.text);
    FloorEdge e = old ? *old : FloorEdge{};
    if (!old) {
        e.id = fresh<FloorEdge>();
        e.name = w.text;
    }
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", edge_like};
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return !line_.atEnd() && isOneOf(edge_words, line_.peek().text); }), units::Kind::Length,
                      missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("from")) {
            e.edge.clear();
            for (const Point* p : points(the_chassis)) e.edge.push_back(p->id);
            if (e.edge.empty() && !line_.atEnd()) unknown(the_chassis, line_.next("a point"), false);
        } else if (line_.take("to")) {
            e.sill.clear();
            while (!line_.atEnd() && !isOneOf(edge_words, line_.peek().text)) {
                const Word name = line_.next("a point");
                const Point* p = pointOfEither(name, the_body);
                if (!p) unknown(the_body, name, false);
                e.sill.push_back(p->id);
            }
        } else if (line_.take("sheet")) {
            e.sheet = length("how thick the strip is");
        } else if (line_.take("lap")) {
            e.lap = length("how far it lies on the old floor");
        } else if (line_.take("upstand")) {
            e.upstand = length("how high its flange is");
        } else if (line_.take("outriggers")) {
            e.height = lengthWord("how high they are");
            e.width = lengthWord("how wide they are");
            e.wall = lengthWord("their wall");
        } else if (line_.take("pitch")) {
            if (line_.take("none"))
                e.pitch.reset();
            else
                e.pitch = length("how far they stand from each other");
        } else if (line_.take("carries")) {
            e.carries = Dimension{plainNumber("what each bears at its end, kg"), "", Provenance::Measured};
        } else if (line_.take("note")) {
            e.note = line_.rest().text;
        } else {
            notKnownHere(edge_like);
        }
    }
    if (e.edge.empty() || e.sill.empty())
        throw Failure{line_.endColumn(),
                      e.edge.empty() ? "Which edge reaches out is missing." : "Which sill it shall meet is missing.", edge_like};
    put(Put<FloorEdge>{e});
    say(fmt::format("{} reaches out to its sill{}", e.name,
                    e.pitch ? fmt::format(", outriggers one every {} at the most", show(*e.pitch)) : ""));
}

void Reader::removeFloorEdge(const Word&) { removeNamed(b_.floor_edges, "edge"); }

void Reader::letIn() {
    const Word w = line_.next("its name");
    const LetIn* old = letInNamed(b_, w.text);
    LetIn l = old ? *old : LetIn{};
    if (!old) {
        l.id = fresh<LetIn>();
        l.name = w.text;
    }
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", let_in_like};
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return !line_.atEnd() && isOneOf(let_in_words, line_.peek().text); }), units::Kind::Length,
                      missing);
    };
    const auto mark = [&](const char* missing) {
        const Word name = line_.next(missing);
        const SubjectId first = l.front && b_.points.contains(l.front) ? b_.points.at(l.front).subject : context_.subject;
        const Point* p = pointOfEither(name, first);
        if (!p) unknown(first, name, false);
        return p->id;
    };
    const auto section = [&](Dimension& high, Dimension& wide, Dimension& wall) {
        high = lengthWord("how high it is");
        wide = lengthWord("how wide it is");
        wall = lengthWord("its wall");
    };
    while (!line_.atEnd()) {
        if (line_.take("from"))
            l.front = mark("the front leg's open end");
        else if (line_.take("to"))
            l.rear = mark("the rear leg's open end");
        else if (line_.take("front-along"))
            l.front_along = mark("a mark further along the front leg");
        else if (line_.take("rear-along"))
            l.rear_along = mark("a mark further along the rear leg");
        else if (line_.take("section"))
            section(l.height, l.width, l.wall);
        else if (line_.take("front-leg"))
            section(l.leg_height, l.leg_width, l.leg_wall);
        else if (line_.take("rear-leg"))
            section(l.tail_height, l.tail_width, l.tail_wall);
        else if (line_.take("driven"))
            l.driven = oneOf<RailEnd>("which end is driven");
        else if (line_.take("engage"))
            sayEngage(l, length);
        else if (line_.take("floor"))
            l.floor = length("how thick the floor is");
        else if (line_.take("yield"))
            l.yield_MPa = Dimension{plainNumber("what the rail yields at, MPa"), "", Provenance::Measured};
        else if (line_.take("note"))
            l.note = line_.rest().text;
        else
            notKnownHere(let_in_like);
    }
    if (!l.front || !l.rear)
        throw Failure{line_.endColumn(), fmt::format("The {} leg's open end is missing.", l.front ? "rear" : "front"),
                      let_in_like};
    put(Put<LetIn>{l});
    say(fmt::format("{} is let in from {} to {}", l.name, nameOf(b_, l.front), nameOf(b_, l.rear)));
}

void Reader::sayEngage(LetIn& l, const std::function<Dimension(const char*)>& length) {
    if (line_.take("free"))
        l.engage.reset();
    else
        l.engage = length("how far its pieces stand in each");
}

void Reader::railHole() {
    const Word w = line_.next("its name");
    const RailHole* old = railHoleNamed(b_, w.text);
    RailHole h = old ? *old : RailHole{};
    if (!old) {
        h.id = fresh<RailHole>();
        h.name = w.text;
    }
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", hole_like};
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return !line_.atEnd() && isOneOf(hole_words, line_.peek().text); }), units::Kind::Length,
                      missing);
    };
    bool placed = old != nullptr, sized = placed;
    while (!line_.atEnd()) {
        const std::string next = line_.peek().text;
        if (line_.take("at")) {
            h.station = length("the station of its middle");
            placed = true;
        } else if (line_.take("across")) {
            h.across = length("its diameter, or how far it reaches across");
            sized = true;
        } else if (line_.take("along")) {
            h.along = length("how long it is along the rail");
        } else if (line_.take("up")) {
            h.up = length("how far its middle is over the lower edge");
        } else if (line_.take("move")) {
            h.fate = HoleFate::Move;
            h.moved_to = length("the station where it is made anew");
        } else if (line_.take("note")) {
            h.note = line_.rest().text;
        } else if (fromWord<RailSide>(next)) {
            h.side = oneOf<RailSide>("which rail");
        } else if (fromWord<RailWall>(next)) {
            h.wall = oneOf<RailWall>("which wall");
        } else if (fromWord<HoleKind>(next)) {
            h.kind = oneOf<HoleKind>("what it is");
        } else if (fromWord<HoleFate>(next)) {
            h.fate = oneOf<HoleFate>("what is done about it");
            h.moved_to.reset();
        } else {
            notKnownHere(hole_like);
        }
    }
    if (!placed || !sized)
        throw Failure{line_.endColumn(), placed ? "How big it is is missing." : "At which station it is is missing.", hole_like};
    put(Put<RailHole>{h});
    say(fmt::format("{}, {} of {} at {}: {}", h.name, h.kind == HoleKind::Hole ? "a hole" : "a dent", show(h.across),
                    show(h.station), word(h.fate)));
}

void Reader::removeRailHole(const Word&) { removeNamed(b_.rail_holes, "hole"); }

void Reader::removeLetIn(const Word&) { removeNamed(b_.let_in, "rail"); }

} // namespace gorvet::entry
