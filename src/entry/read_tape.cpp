#include "build/figure.hpp"
#include "build/unit_doubt.hpp"
#include "entry/commands.hpp"

#include <algorithm>
#include <array>
#include <map>

namespace gorvet::entry {

void Reader::point() {
    Word name = line_.next("the point's name");
    SubjectId subject = context_.subject;
    if (const size_t colon = name.text.find(':'); colon != std::string::npos) { // of which subject is said in front of it
        const std::string whose = name.text.substr(0, colon);
        const auto it =
            std::find_if(b_.subjects.begin(), b_.subjects.end(), [&](const auto& row) { return row.second.name == whose; });
        if (it == b_.subjects.end() || colon + 1 == name.text.size())
            throw Failure{name.column, fmt::format("\"{}\" is no name of a point.", name.text),
                          "In front of a colon stands what it is a point of: point body:Kl sill."};
        subject = it->first;
        name.text = name.text.substr(colon + 1);
    }
    const Point* old = pointNamed(b_, subject, name.text);
    Point p = old ? *old : Point{};
    if (!old) {
        p.id = fresh<Point>();
        p.subject = subject;
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
    say(fmt::format("{} point {} of the {}{}{}", old ? "change" : "mark", p.name, nameOf(b_, p.subject),
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
        if (old.point == h.point && old.axis == h.axis) {
            h.id = id;
            if (old.value.value != h.value.value) out_.remark = fmt::format("it was held at {} until now", show(old.value));
        }
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
    say(fmt::format("session {}: {} {}, on {}", s.name, nameOf(b_, s.subject), word(s.attitude), word(s.support)));
}

void Reader::setup() {
    SetUp s;
    s.subject = context_.subject;
    const Word name = line_.next("the set-up's name");
    s.name = name.text;
    const SetUp* old = setupNamed(b_, s.subject, s.name);
    if (old) s = *old;
    if (s.name == "datum") throw Failure{name.column, "The word datum stands for no set-up: choose another name.", ""};
    bool kind_given = old != nullptr;
    while (!line_.atEnd()) {
        if (const auto kind = fromWord<SetUpKind>(line_.peek().text)) {
            s.kind = *kind;
            kind_given = true;
            line_.next("");
        } else if (line_.take("sigma")) {
            s.sigma_mm = figure(line_.upTo({"note", "plane", "string", "tape"}), units::Kind::Length, "σ").value;
        } else if (line_.take("note")) {
            s.note = line_.rest().text;
        } else {
            throw Failure{line_.peek().column, fmt::format("\"{}\" is not known here.", line_.peek().text),
                          fmt::format("Type {}; sigma 0.5; note when it was last checked.", wordList<SetUpKind>())};
        }
    }
    if (!kind_given)
        throw Failure{line_.endColumn(), fmt::format("What is {}?", s.name), fmt::format("Type {}.", wordList<SetUpKind>())};
    if (!s.id) s.id = fresh<SetUp>();
    put(Put<SetUp>{s});
    say(fmt::format("set-up {}: a {}", s.name, word(s.kind)));
}

void Reader::want() {
    Settings s = b_.settings;
    const Word what = line_.next("what you want to know");
    static constexpr std::array<std::string_view, 8> keys{"everything", "figures", "diamond",   "twist",
                                                          "sidesway",   "rails",   "wheelbase", "tracks"};
    if (what.text == "point") {
        s.want = "point " + known(context_.subject, line_.next("the point's name")).name;
    } else if (std::find(keys.begin(), keys.end(), what.text) != keys.end()) {
        s.want = what.text;
    } else {
        throw Failure{what.column, fmt::format("\"{}\" is not known here.", what.text),
                      "Type everything, figures, diamond, twist, sidesway, rails, wheelbase, tracks, or point NAME."};
    }
    put(Set<Settings>{s});
    say("the next readings are to tell " + s.want);
}

void Reader::gauge() {
    Settings s = b_.settings;
    const Word what = line_.next("yes or no");
    if (what.text != "yes" && what.text != "no") throw Failure{what.column, "Type gauge yes or gauge no.", ""};
    s.gauge = what.text == "yes";
    put(Set<Settings>{s});
    say(s.gauge ? "there is a height gauge" : "there is no height gauge");
}

void Reader::reach() {
    Settings s = b_.settings;
    s.tape_reach_mm = lengthUpTo({}, "the tape's reach").value;
    put(Set<Settings>{s});
    say("the tape reaches " + units::formatLength(s.tape_reach_mm, s.length_step, true));
}

void Reader::gap() {
    Gap g;
    g.place = line_.next("the gap's place").text;
    g.value = lengthUpTo({"at", "tol"}, "the gap");
    if (g.value.provenance == Provenance::Assumed) throw Failure{line_.endColumn(), "A gap must be measured, not assumed.", ""};
    g.value.provenance = Provenance::Measured;
    for (const auto& [id, old] : b_.gaps)
        if (old.place == g.place) g.tolerance_mm = old.tolerance_mm;
    while (!line_.atEnd()) {
        if (line_.take("tol"))
            g.tolerance_mm = lengthUpTo({"at"}, "the tolerance").value;
        else if (line_.take("at"))
            g.event = line_.upTo({"tol"}).text;
        else
            line_.mustEnd();
    }
    // the event of the gap before: a round of gaps is typed with it once
    if (g.event.empty() && !b_.gaps.empty()) g.event = b_.gaps.rbegin()->second.event;
    if (g.event.empty())
        throw Failure{line_.endColumn(), "At which event was it measured?", "Like: gap door-left 4.5 at brace in"};
    for (const auto& [id, old] : b_.gaps)
        if (old.place == g.place && old.event == g.event) g.id = id; // measured again at the same event
    g.who = context_.who;
    g.at_utc = context_.now_utc;
    if (!g.id) g.id = fresh<Gap>();
    put(Put<Gap>{g});
    say(fmt::format("gap {} {} at {}", g.place, show(g.value), g.event));
}

SetUpId Reader::setupFor(ReadingKind kind) {
    if (line_.take("by")) {
        const Word name = line_.next("the set-up's name");
        if (name.text == "datum") return {};
        const SetUp* s = setupNamed(b_, context_.subject, name.text);
        if (!s)
            throw Failure{name.column, fmt::format("There is no set-up {} on the {}.", name.text, nameOf(b_, context_.subject)),
                          "Name it first: setup floor plane"};
        if (!readFrom(s->kind, kind))
            throw Failure{name.column, fmt::format("A {} reading is not read from a {}.", word(kind), word(s->kind)), ""};
        return s->id;
    }
    // as the newest reading of this kind was
    for (auto r = b_.readings.rbegin(); r != b_.readings.rend(); ++r)
        if (r->second.kind == kind && b_.points.at(r->second.from).subject == context_.subject) {
            // a set-up that was named since then is the one that stands now
            SetUpId newest = r->second.setup;
            for (const auto& [id, s] : b_.setups)
                if (s.subject == context_.subject && readFrom(s.kind, kind) && id.value > r->first.value) newest = id;
            return newest;
        }
    SetUpId newest;
    for (const auto& [id, s] : b_.setups)
        if (s.subject == context_.subject && readFrom(s.kind, kind)) newest = id;
    return newest;
}

SessionId Reader::session(SubjectId subject) {
    if (const auto given = b_.sessions.find(context_.session); given != b_.sessions.end() && given->second.subject == subject)
        return given->first;
    for (auto it = b_.sessions.rbegin(); it != b_.sessions.rend(); ++it)
        if (it->second.subject == subject) return it->first;
    Session s;
    s.id = fresh<Session>();
    s.subject = subject;
    s.name = "first measuring";
    s.support = kindOf(b_, subject) == SubjectKind::Body ? Support::Trestles : Support::Stands;
    put(Put<Session>{s});
    return s.id;
}

void Reader::reading(ReadingKind kind, bool retape, bool assumed) {
    if (kind == ReadingKind::Coordinates) return coordinates(assumed);
    if (kind == ReadingKind::Symmetry) return assume();
    const Word first = line_.next("a point's name");
    if (first.column == 0 && !first.quoted && !pointNamed(b_, context_.subject, first.text))
        unknown(context_.subject, first, true);
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
    const bool angle = isAngle(kind);
    const Word typed = line_.upTo({"±", "+-", "sigma", "by", "with", "note"});
    r.value = figure(typed, angle ? units::Kind::Angle : units::Kind::Length, "the reading");
    if (assumed) r.value.provenance = Provenance::Assumed;
    if (retape && r.value.provenance == Provenance::Assumed)
        throw Failure{typed.column, "A reading is taped again, not assumed.",
                      "Leave the question mark out once you have read it."};
    if ((kind == ReadingKind::Tape || kind == ReadingKind::Plan) && r.value.value <= 0)
        throw Failure{typed.column, "A distance must be above 0.", ""};
    if (const auto about = roughly(b_, kind, r.from, r.to))
        if (const auto doubt = doubtUnit(r.value.value, *about))
            out_.doubt = fmt::format("roughly {} is expected there; {} would fit ({})",
                                     units::formatLength(*about, b_.settings.length_step, true),
                                     units::formatLength(doubt->would_be_mm, b_.settings.length_step, true), doubt->words);
    if (line_.atEnd() && !retape && countsAsCheck(kind, r.from, r.to, r.value)) return;
    if (line_.take("sigma"))
        r.sigma = figure(line_.upTo({"by", "with", "note"}), angle ? units::Kind::Angle : units::Kind::Length, "σ").value;
    else if (line_.take("±") || line_.take("+-"))
        r.sigma = sigmaOfU95(
            figure(line_.upTo({"by", "with", "note"}), angle ? units::Kind::Angle : units::Kind::Length, "the ±").value);
    if (r.sigma && !(*r.sigma > 0)) throw Failure{line_.endColumn(), "The ± must be above 0.", ""};
    if (r.value.provenance != Provenance::Assumed) {
        r.setup = setupFor(kind);
        r.instrument = instrumentFor(kind);
    }
    if (line_.take("note")) r.note = line_.rest().text;
    // a reading that was to be taped again is replaced; any other stands beside the earlier ones
    Reading old;
    const auto look = [&](const Reading& other) {
        const bool same = other.kind == kind && other.value.provenance == r.value.provenance && !other.replaced_by &&
                          ((other.from == r.from && other.to == r.to) ||
                           (kind != ReadingKind::Level && !isAngle(kind) && other.from == r.to && other.to == r.from));
        if (same && (!old.id || other.id.value > old.id.value)) old = other;
    };
    // a figure that is assumed replaces the one that was assumed before; a usual reading looks only at those that are flagged, so
    // that it costs the same after tens of thousands
    if (retape || r.value.provenance == Provenance::Assumed) {
        for (const auto& [id, other] : b_.readings) look(other);
    } else {
        for (const ReadingId id : context_.to_retape)
            if (const auto other = b_.readings.find(id); other != b_.readings.end()) look(other->second);
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
    const auto setup = b_.setups.find(r.setup);
    const auto instrument = b_.instruments.find(r.instrument);
    const bool assumption = r.value.provenance == Provenance::Assumed;
    say(fmt::format("{} {} {}{}{}{}",
                    assumption ? fmt::format("assume {}", word(kind))
                    : old.id   ? "re-tape"
                               : std::string(word(kind)),
                    pair, angle ? showAngle(r.value) : show(r.value), setup == b_.setups.end() ? "" : " by " + setup->second.name,
                    instrument == b_.instruments.end() ? "" : " with " + instrument->second.name,
                    assumption ? ": it places only what nothing else fixes" : ""));
}

void Reader::remove() {
    const Word what = line_.next("what to remove");
    if (!what.quoted)
        if (const Command* command = commandOf(what.text); command && command->remove) return command->remove(*this, what);
    const auto kind = what.quoted ? std::nullopt : fromWord<ReadingKind>(what.text);
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

void Reader::removeSetUp(const Word&) {
    const Word name = line_.next("the set-up's name");
    const SetUp* s = setupNamed(b_, context_.subject, name.text);
    if (!s) throw Failure{name.column, fmt::format("There is no set-up {}.", name.text), ""};
    put(Drop<SetUp>{s->id});
    say("remove the set-up " + name.text);
}

void Reader::removeGap(const Word&) {
    const Word place = line_.next("the gap's place");
    for (const auto& [id, g] : b_.gaps)
        if (g.place == place.text) put(Drop<Gap>{id});
    if (out_.edit.changes.empty()) throw Failure{place.column, fmt::format("There is no gap {}.", place.text), ""};
    say("remove the gap " + place.text);
}

void Reader::removeHold(const Word& what) {
    const Point& p = known(context_.subject, line_.next("the held point"));
    const Axis axis = oneOf<Axis>("the axis");
    for (const auto& [id, hold] : b_.holds)
        if (hold.point == p.id && hold.axis == axis) put(Drop<Hold>{id});
    if (out_.edit.changes.empty()) throw Failure{what.column, fmt::format("{} of {} is not held.", word(axis), p.name), ""};
    say(fmt::format("let go {} of {}", word(axis), p.name));
}

} // namespace gorvet::entry
