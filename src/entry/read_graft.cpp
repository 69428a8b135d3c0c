// A piece of another frame: what it is, where it is joined, what sets it.
#include "entry/reader.hpp"

#include <algorithm>

namespace gorvet::entry {
namespace {

constexpr const char* example = "Like: graft nose front-clip of clip at 640.";
constexpr std::string_view stops[] = {"of", "at", "rails", "transition", "plate", "note", "pin", "front-clip", "rear-frame"};

} // namespace

void Reader::graft() {
    const Word w = line_.next("its name");
    const Graft* old = graftNamed(b_, w.text);
    Graft g = old ? *old : Graft{};
    if (!old) {
        if (line_.atEnd() || !fromWord<GraftKind>(line_.peek().text))
            throw Failure{line_.endColumn(), "What it is is missing.",
                          fmt::format("It is a {}. {}", wordList<GraftKind>(), example)};
        g.id = fresh<Graft>();
        g.name = w.text;
    }
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", example};
    if (old && line_.take("pin")) return graftPin(*old);
    const auto stop = [&] {
        return !line_.atEnd() && std::find(std::begin(stops), std::end(stops), line_.peek().text) != std::end(stops);
    };
    const auto length = [&](const char* missing) { return figure(line_.upTo(stop), units::Kind::Length, missing); };
    bool placed = old != nullptr;
    while (!line_.atEnd()) {
        if (fromWord<GraftKind>(line_.peek().text)) {
            g.kind = oneOf<GraftKind>("what it is");
        } else if (line_.take("of")) {
            g.piece = subjectNext();
        } else if (line_.take("at")) {
            g.joint = length("the station of its joint");
            placed = true;
        } else if (line_.take("rails")) {
            g.height = lengthWord("how high its rails are");
            g.width = lengthWord("how wide they are");
            g.wall = lengthWord("their wall");
            g.shape = RailShape::Box;
            g.datum_face = RailFace::Top;
            if (!line_.atEnd() && fromWord<RailShape>(line_.peek().text)) g.shape = oneOf<RailShape>("their shape");
            if (!line_.atEnd() && fromWord<RailFace>(line_.peek().text))
                g.datum_face = oneOf<RailFace>("the face that was marked");
        } else if (line_.take("transition")) {
            if (line_.take("free"))
                g.transition.reset();
            else
                g.transition = length("how long the made piece is");
        } else if (line_.take("plate")) {
            if (line_.take("free"))
                g.plate.reset();
            else
                g.plate = length("what it is made of");
        } else if (line_.take("note")) {
            g.note = line_.rest().text;
        } else {
            notKnownHere(example);
        }
    }
    if (!g.piece) throw Failure{line_.endColumn(), "Which subject it was surveyed as is missing.", example};
    if (!placed) throw Failure{line_.endColumn(), "Where the chassis is cut for it is missing.", example};
    put(Put<Graft>{g});
    say(fmt::format("{}, a {}, joined at {}", g.name, word(g.kind), show(g.joint)));
}

void Reader::graftPin(const Graft& g) {
    GraftPin pin;
    pin.graft = g.id;
    pin.kind = oneOf<GraftPinKind>("what is pinned");
    while (!line_.atEnd()) {
        const Point* p = pointNamed(b_, g.piece, line_.peek().text);
        if (!p) break;
        pin.points.push_back(p->id);
        line_.next("a point");
    }
    if (pin.points.empty()) {
        if (line_.atEnd())
            throw Failure{line_.endColumn(), "Which points of it is missing.",
                          fmt::format("Like: graft {} pin station FL FR 0.", g.name)};
        const Word w = line_.next("a point");
        unknown(g.piece, w, false);
    }
    const auto stop = [&] { return !line_.atEnd() && line_.peek().text == "tol"; };
    if (pin.kind != GraftPinKind::Centred) pin.target = figure(line_.upTo(stop), units::Kind::Length, "where they shall stand");
    pin.tolerance = pin.kind == GraftPinKind::Centred ? 1 : 2;
    if (line_.take("tol")) pin.tolerance = lengthUpTo({}, "by how much it may miss").value;
    if (!line_.atEnd()) notKnownHere("Like: graft nose pin height FL FR 310 tol 2.");
    for (const auto& [id, old] : b_.graft_pins) // the same said again
        if (old.graft == g.id && old.kind == pin.kind && old.points == pin.points) pin.id = id;
    if (!pin.id) pin.id = fresh<GraftPin>();
    put(Put<GraftPin>{pin});
    say(fmt::format("{} is set by a {}{}", g.name, word(pin.kind),
                    pin.kind == GraftPinKind::Centred ? std::string(" pair") : " of " + show(pin.target)));
}

void Reader::removeGraft(const Word&) {
    const Word name = line_.next("its name");
    const Graft* g = graftNamed(b_, name.text);
    if (!g) throw Failure{name.column, fmt::format("There is no piece {}.", name.text), example};
    const bool all = line_.atEnd();
    const auto kind = all ? GraftPinKind::Station : (line_.take("pin"), oneOf<GraftPinKind>("which pins"));
    if (!all) // with all of it go its pins
        for (const auto& [id, pin] : b_.graft_pins)
            if (pin.graft == g->id && pin.kind == kind) put(Drop<GraftPin>{id});
    if (!all) return say(fmt::format("{} is not set by its {} any more", g->name, word(kind)));
    put(Drop<Graft>{g->id});
    say(fmt::format("remove the piece {}", g->name));
}

} // namespace gorvet::entry
