#include "entry/reader.hpp"

#include <algorithm>
#include <map>

namespace gorvet::entry {

void Reader::point() {
    const Word name = line_.next("the point's name");
    const Point* old = pointNamed(b_, context_.subject, name.text);
    Point p = old ? *old : Point{};
    if (!old) {
        p.id = fresh<Point>();
        p.subject = context_.subject;
        p.name = name.text;
    }
    std::vector<double> xyz;
    while (!line_.atEnd()) {
        if (const auto role = fromWord<Role>(line_.peek().text)) {
            p.role = *role;
            line_.next("a role");
        } else {
            if (xyz.size() == 3) line_.mustEnd();
            xyz.push_back(lengthWord("a coordinate").value);
        }
    }
    if (!xyz.empty() && xyz.size() != 3)
        throw Failure{line_.endColumn(), "A rough position is three lengths: station, offset, height.",
                      "Like: point Al 0 -420 310"};
    if (xyz.size() == 3) p.rough = Vec3{xyz[0], xyz[1], xyz[2]};
    const std::string where = p.rough ? fmt::format(" about {} {} {}", units::fixed(p.rough->x_mm, 0),
                                                    units::fixed(p.rough->y_mm, 0), units::fixed(p.rough->z_mm, 0))
                                      : "";
    put(Put<Point>{p});
    say(fmt::format("{} point {} of the {}{}{}", old ? "change" : "mark", p.name, word(p.subject),
                    p.role == Role::None ? "" : fmt::format(", {},", word(p.role)), where));
}

void Reader::role() {
    Point p = known(context_.subject, line_.next("the point's name"));
    p.role = oneOf<Role>("the role");
    put(Put<Point>{p});
    say(fmt::format("{} is a {}", p.name, word(p.role)));
}

void Reader::hold() {
    const Point& p = known(context_.subject, line_.next("the point's name"));
    Hold h;
    h.point = p.id;
    h.axis = oneOf<Axis>("the axis, x, y or z,");
    h.value = lengthUpTo({}, "the held coordinate");
    h.id = HoldId{};
    for (const auto& [id, old] : b_.holds)
        if (old.point == h.point && old.axis == h.axis) h.id = id;
    if (!h.id) h.id = fresh<Hold>();
    put(Put<Hold>{h});
    say(fmt::format("hold {} of {} at {}", word(h.axis), p.name, show(h.value)));
}

void Reader::session() {
    Session s;
    s.subject = context_.subject;
    s.name = line_.next("the session's name").text;
    for (const auto& [id, old] : b_.sessions)
        if (old.subject == s.subject && old.name == s.name) s = old;
    while (!line_.atEnd()) {
        if (const auto attitude = fromWord<Attitude>(line_.peek().text)) {
            s.attitude = *attitude;
            line_.next("");
        } else if (const auto support = fromWord<Support>(line_.peek().text)) {
            s.support = *support;
            line_.next("");
        } else if (line_.take("at")) {
            s.support_at = line_.upTo({"carrying"}).text;
        } else if (line_.take("carrying")) {
            const Word typed = line_.upTo({"at"});
            auto parsed = units::parse(typed.text, units::Kind::Mass, units::Unit::Kilogram);
            if (!parsed)
                throw Failure{typed.column + std::max(0, parsed.error().column), parsed.error().message, parsed.error().remedy};
            s.carried_mass_kg = parsed->value;
        } else {
            throw Failure{line_.peek().column, fmt::format("\"{}\" is not known here.", line_.peek().text),
                          fmt::format("Type {}; {}; at STATIONS; carrying 120 kg.", wordList<Attitude>(), wordList<Support>())};
        }
    }
    if (!s.id) s.id = fresh<Session>();
    put(Put<Session>{s});
    say(fmt::format("session {}: {} {}, on {}", s.name, word(s.subject), word(s.attitude), word(s.support)));
}

SessionId Reader::session(Subject subject) {
    if (const auto given = b_.sessions.find(context_.session); given != b_.sessions.end() && given->second.subject == subject)
        return given->first;
    for (auto it = b_.sessions.rbegin(); it != b_.sessions.rend(); ++it)
        if (it->second.subject == subject) return it->first;
    Session s;
    s.id = fresh<Session>();
    s.subject = subject;
    s.name = "first measuring";
    s.support = subject == Subject::Body ? Support::Trestles : Support::Stands;
    put(Put<Session>{s});
    return s.id;
}

void Reader::reading(ReadingKind kind, bool retape) {
    const Word first = line_.next("a point's name");
    const Point& from = known(context_.subject, first);
    Reading r;
    r.kind = kind;
    r.from = from.id;
    const SecondPoint second = secondPoint(kind);
    if (second != SecondPoint::None && !line_.atEnd()) {
        if (const Point* to = pointNamed(b_, context_.subject, line_.peek().text)) {
            r.to = to->id;
            if (r.to == r.from) throw Failure{line_.peek().column, "A reading goes between two different points.", ""};
            line_.next("");
        } else if (second == SecondPoint::Needed) {
            known(context_.subject, line_.peek());
        }
    } else if (second == SecondPoint::Needed) {
        throw Failure{line_.endColumn(), "The second point is missing.", ""};
    }
    const bool angle = kind == ReadingKind::Slope;
    const Word typed = line_.upTo({"±", "+-", "sigma", "note"});
    r.value = figure(typed, angle ? units::Kind::Angle : units::Kind::Length, "the reading");
    r.value.provenance = Provenance::Measured;
    if ((kind == ReadingKind::Tape || kind == ReadingKind::Plan) && r.value.value <= 0)
        throw Failure{typed.column, "A distance must be above 0.", ""};
    if (line_.take("sigma"))
        r.sigma = figure(line_.upTo({"note"}), angle ? units::Kind::Angle : units::Kind::Length, "σ").value;
    else if (line_.take("±") || line_.take("+-"))
        r.sigma = figure(line_.upTo({"note"}), angle ? units::Kind::Angle : units::Kind::Length, "the ±").value / 2;
    if (r.sigma && !(*r.sigma > 0)) throw Failure{line_.endColumn(), "The ± must be above 0.", ""};
    if (line_.take("note")) r.note = line_.upTo({}).text;
    // a reading that was to be taped again is replaced; any other stands beside the earlier ones
    Reading old;
    for (const auto& [id, other] : b_.readings) {
        const bool same =
            other.kind == kind && !other.replaced_by &&
            ((other.from == r.from && other.to == r.to) ||
             (kind != ReadingKind::Level && kind != ReadingKind::Slope && other.from == r.to && other.to == r.from));
        const bool flagged = std::find(context_.to_retape.begin(), context_.to_retape.end(), id) != context_.to_retape.end();
        if (same && (retape || flagged)) old = other;
    }
    if (retape && !old.id) throw Failure{first.column, "There is no such reading yet.", "Leave the word retape out."};
    r.session = session(context_.subject);
    r.id = fresh<Reading>();
    put(Put<Reading>{r});
    if (old.id) {
        old.replaced_by = r.id;
        put(Put<Reading>{old});
    }
    const std::string pair = from.name + (r.to ? "–" + nameOf(b_, r.to) : "");
    say(fmt::format("{} {} {}", old.id ? "re-tape" : word(kind), pair, angle ? showAngle(r.value) : show(r.value)));
}

void Reader::remove() {
    const Word what = line_.next("what to remove");
    if (what.text == "crossmember") {
        put(Set<std::optional<Crossmember>>{});
        return say("remove the crossmember");
    }
    if (what.text == "pin") {
        const PinKind kind = oneOf<PinKind>("the kind of the pin");
        const auto listed = points(Subject::Body);
        for (const auto& [id, pin] : b_.pins)
            if (pin.kind == kind &&
                (listed.empty() || std::find(pin.points.begin(), pin.points.end(), listed.front()->id) != pin.points.end()))
                put(Drop<Pin>{id});
        if (out_.edit.changes.empty()) throw Failure{what.column, fmt::format("There is no pin of kind {}.", word(kind)), ""};
        return say(fmt::format("remove the pin {}", word(kind)));
    }
    if (what.text == "mount") {
        const Point& p = known(Subject::Body, line_.next("the mount's body point"));
        for (const auto& [id, mount] : b_.mounts)
            if (mount.body_point == p.id) put(Drop<Mount>{id});
        if (out_.edit.changes.empty()) throw Failure{what.column, fmt::format("{} has no mount.", p.name), ""};
        return say(fmt::format("remove the mount {}", p.name));
    }
    if (what.text == "brace") {
        put(Drop<TemporarySteel>{temporary(line_.next("the brace's name")).id});
        return say("remove the brace from the list");
    }
    if (what.text == "hold") {
        const Point& p = known(context_.subject, line_.next("the held point"));
        const Axis axis = oneOf<Axis>("the axis");
        for (const auto& [id, hold] : b_.holds)
            if (hold.point == p.id && hold.axis == axis) put(Drop<Hold>{id});
        if (out_.edit.changes.empty()) throw Failure{what.column, fmt::format("{} of {} is not held.", word(axis), p.name), ""};
        return say(fmt::format("let go {} of {}", word(axis), p.name));
    }
    const auto kind = pointNamed(b_, context_.subject, what.text) ? std::nullopt : fromWord<ReadingKind>(what.text);
    const Point& from = kind ? known(context_.subject, line_.next("a point's name")) : known(context_.subject, what);
    if (line_.atEnd() && !kind) {
        put(Drop<Point>{from.id});
        return say(fmt::format("remove point {}", from.name));
    }
    PointId to;
    if (!line_.atEnd()) to = known(context_.subject, line_.next("a point's name")).id;
    for (auto it = b_.readings.rbegin(); it != b_.readings.rend(); ++it) {
        const Reading& r = it->second;
        if (r.replaced_by || (r.kind != kind.value_or(ReadingKind::Tape))) continue;
        if (!((r.from == from.id && r.to == to) || (r.to == from.id && r.from == to))) continue;
        for (const auto& [id, earlier] : b_.readings) // what it had replaced counts again
            if (earlier.replaced_by == r.id) {
                Reading back = earlier;
                back.replaced_by = {};
                put(Put<Reading>{back});
            }
        put(Drop<Reading>{it->first});
        return say(fmt::format("remove the reading {}{}", from.name, to ? "–" + nameOf(b_, to) : ""));
    }
    throw Failure{what.column, "There is no such reading.", ""};
}

} // namespace gorvet::entry
