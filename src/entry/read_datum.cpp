#include "build/figure.hpp"
#include "entry/reader.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

// What a survey stands on: instruments, obstacles, the datum, the drawing's figures, what is assumed.
namespace gorvet::entry {

void Reader::instrument() {
    const Word name = line_.next("the instrument's name");
    Instrument i;
    i.name = name.text;
    const Instrument* old = instrumentNamed(b_, name.text);
    if (old) i = *old;
    if (name.text == "none") throw Failure{name.column, "The word none stands for no instrument: choose another name.", ""};
    bool kind_given = old != nullptr;
    while (!line_.atEnd()) {
        if (line_.take("sigma")) {
            const bool angle = i.kind == InstrumentKind::DigitalLevel || i.kind == InstrumentKind::SquareGauge;
            i.sigma = figure(line_.upTo({"per-m", "checked"}), angle ? units::Kind::Angle : units::Kind::Length, "σ").value;
        } else if (line_.take("per-m")) {
            i.sigma_per_m = figure(line_.upTo({"sigma", "checked"}), units::Kind::Length, "σ a metre").value;
        } else if (line_.take("checked")) {
            i.checked = line_.upTo({}).text;
        } else if (const auto kind = fromWord<InstrumentKind>(line_.peek().text)) {
            i.kind = *kind;
            kind_given = true;
            line_.next("");
        } else {
            throw Failure{
                line_.peek().column, fmt::format("\"{}\" is not known here.", line_.peek().text),
                fmt::format("Type {}; sigma 0.5; per-m 0.1; checked against what, and when.", wordList<InstrumentKind>())};
        }
    }
    if (!kind_given)
        throw Failure{line_.endColumn(), fmt::format("What is {}?", i.name), fmt::format("Type {}.", wordList<InstrumentKind>())};
    if (!i.id) i.id = fresh<Instrument>();
    put(Put<Instrument>{i});
    say(fmt::format("instrument {}: a {}", i.name, word(i.kind)));
}

InstrumentId Reader::instrumentFor(ReadingKind kind) {
    if (line_.take("with")) {
        const Word name = line_.next("the instrument's name");
        if (name.text == "none") return {};
        const Instrument* i = instrumentNamed(b_, name.text);
        if (!i)
            throw Failure{name.column, fmt::format("There is no instrument {}.", name.text),
                          "Name it first: instrument big tape"};
        if (!takes(i->kind, kind))
            throw Failure{name.column, fmt::format("A {} reading is not taken with a {}.", word(kind), word(i->kind)), ""};
        return i->id;
    }
    // as the newest reading of this kind was, unless an instrument was named since
    std::uint32_t since = 0;
    InstrumentId newest;
    for (auto r = b_.readings.rbegin(); r != b_.readings.rend(); ++r)
        if (r->second.kind == kind && r->second.value.provenance != Provenance::Assumed) {
            newest = r->second.instrument;
            since = r->first.value;
            break;
        }
    for (const auto& [id, i] : b_.instruments)
        if (takes(i.kind, kind) && id.value > since) newest = id;
    return newest;
}

void Reader::blocked() {
    Obstacle o;
    o.subject = context_.subject;
    o.name = line_.next("what is in the way").text;
    for (const auto& [id, old] : b_.obstacles)
        if (old.subject == o.subject && old.name == o.name) o.id = id;
    std::tie(o.from, o.to) = box6();
    if (!o.id) o.id = fresh<Obstacle>();
    put(Put<Obstacle>{o});
    say(fmt::format("{} is in the way, from station {} to {}", o.name, units::fixed(o.from.x_mm, 0), units::fixed(o.to.x_mm, 0)));
}

std::pair<Vec3, Vec3> Reader::box6() {
    double v[6];
    static constexpr const char* names[6] = {"the first station", "the last station", "the left offset",
                                             "the right offset",  "the lower height", "the upper height"};
    for (int k = 0; k < 6; ++k) v[k] = lengthWord(names[k]).value;
    for (int k = 0; k < 6; k += 2)
        if (v[k] > v[k + 1]) std::swap(v[k], v[k + 1]);
    return {{v[0], v[2], v[4]}, {v[1], v[3], v[5]}};
}

void Reader::datum() {
    const Word what = line_.next("held, free, plane, height, station, centred, upright or level");
    const SubjectId subject = context_.subject;
    const auto dropAll = [&](auto&& which) {
        for (const auto& [id, rule] : b_.datum)
            if (rule.subject == subject && which(rule)) put(Drop<DatumRule>{id});
    };
    const auto add = [&](DatumKind kind, std::vector<PointId> points, Dimension value) {
        put(Put<DatumRule>{{fresh<DatumRule>(), subject, kind, std::move(points), std::move(value)}});
    };
    const auto ids = [&](size_t least, size_t most, const char* how) {
        std::vector<PointId> list;
        for (const Point* p : points(subject)) list.push_back(p->id);
        if (list.size() < least || list.size() > most) {
            if (!line_.atEnd() && list.size() < least) known(subject, line_.peek());
            throw Failure{line_.endColumn(), fmt::format("It needs {} points.", least == most ? std::to_string(least) : "more"),
                          how};
        }
        for (size_t i = 0; i < list.size(); ++i)
            if (std::find(list.begin(), list.begin() + static_cast<std::ptrdiff_t>(i), list[i]) !=
                list.begin() + static_cast<std::ptrdiff_t>(i))
                throw Failure{line_.endColumn(), fmt::format("{} is named twice.", nameOf(b_, list[i])),
                              "Name different points."};
        return list;
    };
    const auto optionalLength = [&](const char* missing) {
        return line_.atEnd() ? Dimension{0, "0", Provenance::Measured} : lengthUpTo({}, missing);
    };
    if (what.text == "held") {
        dropAll([](const DatumRule&) { return true; });
        if (out_.edit.changes.empty()) throw Failure{what.column, "The datum is the held coordinates already.", ""};
        return say("the datum is the held coordinates");
    }
    // a free network has no other rule; any rule ends it
    dropAll([&](const DatumRule& r) { return (r.kind == DatumKind::Free) != (what.text == "free"); });
    if (what.text == "free") {
        dropAll([](const DatumRule& r) { return r.kind == DatumKind::Free; });
        add(DatumKind::Free, {}, {});
        return say("no datum: the shape floats about its rough positions");
    }
    if (what.text == "plane") {
        const auto pads = ids(3, 3, "Like: datum plane Al Ar Dl 0");
        const Dimension height = optionalLength("the plane's height");
        dropAll([](const DatumRule& r) { return r.kind == DatumKind::Height || r.kind == DatumKind::Level; });
        for (const PointId p : pads) add(DatumKind::Height, {p}, height);
        return say(fmt::format("datum: {} stand at height {}", pointList(pads), show(height)));
    }
    const auto kind = fromWord<DatumKind>(what.text);
    if (!kind)
        throw Failure{what.column, fmt::format("\"{}\" is not known here.", what.text),
                      "Type held, plane, " + wordList<DatumKind>() + "."};
    switch (*kind) {
    case DatumKind::Centred: {
        const auto list = ids(2, 60, "Like: datum centred Al Ar Dl Dr");
        if (list.size() % 2)
            throw Failure{line_.endColumn(), "A pair needs its right point too.", "Like: datum centred Al Ar Dl Dr"};
        dropAll([](const DatumRule& r) { return r.kind == DatumKind::Centred; });
        for (size_t i = 0; i < list.size(); i += 2) add(DatumKind::Centred, {list[i], list[i + 1]}, {});
        return say("datum: the centreline goes through the middle of " + pointList(list));
    }
    case DatumKind::Station: {
        const auto list = ids(1, 2, "Like: datum station HFl HFr 0");
        const Dimension at = optionalLength("the station");
        dropAll([](const DatumRule& r) { return r.kind == DatumKind::Station; });
        add(DatumKind::Station, list, at);
        return say(
            fmt::format("datum: {}{} stands at station {}", list.size() == 2 ? "the middle of " : "", pointList(list), show(at)));
    }
    case DatumKind::Height: {
        const auto list = ids(1, 1, "Like: datum height Al 310");
        const Dimension at = optionalLength("the height");
        dropAll([&](const DatumRule& r) { return r.kind == DatumKind::Height && r.points == list; });
        add(DatumKind::Height, list, at);
        return say(fmt::format("datum: {} stands at height {}", pointList(list), show(at)));
    }
    default: {
        const auto list = ids(2, 2, *kind == DatumKind::Upright ? "Like: datum upright Hlo Hup" : "Like: datum level Al Ar");
        dropAll([&](const DatumRule& r) { return r.kind == *kind && r.points == list; });
        add(*kind, list, {});
        return say(fmt::format("datum: {} {}", pointList(list),
                               *kind == DatumKind::Upright ? "stand one above the other" : "stand level"));
    }
    }
}

void Reader::drawing() {
    const auto figureOf = [&](PointId point) {
        DrawingFigure d;
        d.point = point;
        for (const auto& [id, old] : b_.drawing)
            if (old.point == point) d = old;
        return d;
    };
    if (line_.take("flat")) {
        int count = 0;
        for (const auto& [id, p] : b_.points) {
            if (p.subject != context_.subject || p.role != Role::Rail) continue;
            DrawingFigure d = figureOf(id);
            d.z_mm = 0;
            if (d.source.empty()) d.source = "straight rails";
            if (!d.id) d.id = fresh<DrawingFigure>();
            put(Put<DrawingFigure>{d});
            ++count;
        }
        if (!count) throw Failure{0, "No point has the role rail.", "Give the points on the rails that role first."};
        return say(fmt::format("the drawing has {} rail points at one height", count));
    }
    const Point& p = known(context_.subject, line_.next("the point's name, or flat"));
    DrawingFigure d = figureOf(p.id);
    std::optional<double>* axes[3] = {&d.x_mm, &d.y_mm, &d.z_mm};
    static constexpr const char* names[3] = {"the station", "the offset", "the height"};
    for (int k = 0; k < 3; ++k) {
        const Word w = line_.next(names[k]);
        if (w.text == "-" || w.text == "–")
            axes[k]->reset();
        else
            *axes[k] = figure(w, units::Kind::Length, names[k]).value;
    }
    if (line_.take("from")) d.source = line_.upTo({}).text;
    if (!d.id) d.id = fresh<DrawingFigure>();
    put(Put<DrawingFigure>{d});
    say(fmt::format("the drawing has {}{}", p.name, d.source.empty() ? "" : ", from " + d.source));
}

void Reader::coordinates(bool assumed) {
    if (assumed) throw Failure{0, "Coordinates are measured; a drawing's go in by: drawing NAME x y z.", ""};
    const Point& p = known(context_.subject, line_.next("a point's name"));
    Reading r;
    r.kind = ReadingKind::Coordinates;
    r.from = p.id;
    const Dimension x = lengthWord("the station");
    const Dimension y = lengthWord("the offset");
    const Dimension z = lengthWord("the height");
    r.at = Vec3{x.value, y.value, z.value};
    r.value = {x.value, x.typed + " " + y.typed + " " + z.typed, Provenance::Measured};
    for (const Dimension* d : {&x, &y, &z})
        if (d->provenance == Provenance::Assumed)
            throw Failure{line_.endColumn(), "Coordinates are measured; a drawing's go in by: drawing NAME x y z.", ""};
    const bool sigma = line_.take("sigma");
    if (sigma || line_.take("±") || line_.take("+-")) {
        std::vector<double> s; // one figure each way, or three
        while (!line_.atEnd() && !line_.peekIs("with") && !line_.peekIs("note") && s.size() < 3)
            s.push_back(sigma ? lengthWord("σ").value : sigmaOfU95(lengthWord("the ±").value));
        if (s.size() != 1 && s.size() != 3) throw Failure{line_.endColumn(), "σ of coordinates is one figure, or three.", ""};
        if (s.size() == 1)
            r.sigma = s[0];
        else
            r.covariance_mm2 = {s[0] * s[0], 0, 0, s[1] * s[1], 0, s[2] * s[2]};
    } else if (line_.take("cov")) {
        for (int k = 0; k < 6; ++k) {
            const Word w = line_.next("six numbers, xx xy xz yy yz zz, in mm²");
            char* end = nullptr;
            r.covariance_mm2.push_back(std::strtod(w.text.c_str(), &end));
            if (!end || *end)
                throw Failure{w.column, fmt::format("{} is not a number.", w.text), "Six numbers in mm²: xx xy xz yy yz zz."};
        }
    }
    r.instrument = instrumentFor(r.kind);
    if (line_.take("note")) r.note = line_.rest().text;
    r.session = session(context_.subject);
    r.id = fresh<Reading>();
    put(Put<Reading>{r});
    for (const auto& [id, other] : b_.readings)
        if (other.kind == r.kind && other.from == r.from && !other.replaced_by &&
            std::find(context_.to_retape.begin(), context_.to_retape.end(), id) != context_.to_retape.end()) {
            Reading old = other;
            old.replaced_by = r.id;
            put(Put<Reading>{old});
        }
    say(fmt::format("coordinates {} {}", p.name, r.value.typed));
}

void Reader::assume() {
    const bool symmetry = command_ != "assume" || line_.take("symmetry");
    if (!symmetry) {
        ReadingKind kind = ReadingKind::Tape;
        if (!line_.atEnd() && !pointNamed(b_, context_.subject, line_.peek().text))
            if (const auto named = fromWord<ReadingKind>(line_.peek().text)) {
                kind = *named;
                line_.next("");
            }
        return reading(kind, false, true);
    }
    std::vector<const Point*> lefts;
    if (line_.take("all")) {
        for (const auto& [id, p] : b_.points)
            if (p.subject == context_.subject && sideOf(p.name) == Side::Left) lefts.push_back(&p);
    } else {
        if (line_.atEnd()) throw Failure{line_.endColumn(), "Whose symmetry? A point's name, or all.", ""};
        if (!pointNamed(b_, context_.subject, line_.peek().text)) known(context_.subject, line_.peek());
        lefts = points(context_.subject);
    }
    int pairs = 0;
    SessionId in;
    for (const Point* p : lefts) {
        const Point* twin = pointNamed(b_, context_.subject, twinName(p->name));
        if (!twin) {
            if (lefts.size() == 1)
                throw Failure{0,
                              fmt::format("{} has no twin {}.", p->name,
                                          twinName(p->name).empty() ? "on the other side" : twinName(p->name)),
                              "Mark it first, roughly or without a place: point NAME"};
            continue;
        }
        bool there = false;
        for (const auto& [id, r] : b_.readings)
            there = there || (r.kind == ReadingKind::Symmetry &&
                              ((r.from == p->id && r.to == twin->id) || (r.to == p->id && r.from == twin->id)));
        if (there) continue;
        if (!in) in = session(context_.subject);
        Reading r;
        r.id = fresh<Reading>();
        r.session = in;
        r.kind = ReadingKind::Symmetry;
        r.from = p->id;
        r.to = twin->id;
        r.value = {0, "", Provenance::Assumed};
        put(Put<Reading>{r});
        ++pairs;
    }
    if (!pairs) throw Failure{0, "There is no pair whose symmetry is not assumed already.", ""};
    say(fmt::format("assume the symmetry of {} pair{}: it places only what nothing else fixes", pairs, pairs == 1 ? "" : "s"));
}

void Reader::removeSubject(const Word&) {
    // its sessions, set-ups, boxes and datum go with it; its points must have gone before
    const Word name = line_.next("its name");
    const Subject* named = subjectNamed(b_, name.text);
    if (!named) throw Failure{name.column, fmt::format("There is no subject {}.", name.text), ""};
    const auto with = [&](const auto& table) {
        using T = std::decay_t<decltype(table.begin()->second)>;
        for (const auto& [id, row] : table)
            if (row.subject == named->id) put(Drop<T>{id});
    };
    with(b_.datum);
    with(b_.obstacles);
    with(b_.setups);
    with(b_.sessions);
    put(Drop<Subject>{named->id});
    if (named->id == context_.subject) out_.subject = the_chassis;
    say(fmt::format("remove the subject {}", name.text));
}

void Reader::removeSession(const Word&) {
    removeNamed(b_.sessions, "session", [this](const Session& s) { return s.subject == context_.subject; });
}

void Reader::removeInstrument(const Word&) { removeNamed(b_.instruments, "instrument"); }

void Reader::removeObstacle(const Word&) {
    removeNamed(b_.obstacles, "obstacle", [this](const Obstacle& o) { return o.subject == context_.subject; });
}

void Reader::removeDrawing(const Word& what) {
    const bool all = line_.take("all");
    const Word name = all ? what : line_.next("its name");
    for (const auto& [id, d] : b_.drawing)
        if (b_.points.at(d.point).subject == context_.subject && (all || nameOf(b_, d.point) == name.text))
            put(Drop<DrawingFigure>{id});
    if (out_.edit.changes.empty())
        throw Failure{name.column,
                      all ? "There is no drawing's figure." : fmt::format("There is no drawing's figure of {}.", name.text), ""};
    say(all ? "remove the drawing's figures" : fmt::format("remove the drawing's figure of {}", name.text));
}

void Reader::removeFlaw(const Word&) {
    const FlawKind kind = oneOf<FlawKind>("what was found");
    const Word name = line_.next("its name");
    for (const auto& [id, f] : b_.flaws)
        if (f.kind == kind && f.subject == context_.subject && (f.point ? nameOf(b_, f.point) : f.part) == name.text)
            put(Drop<Flaw>{id});
    if (out_.edit.changes.empty()) throw Failure{name.column, fmt::format("There is no flaw at {}.", name.text), ""};
    say(fmt::format("remove the flaw at {}", name.text));
}

} // namespace gorvet::entry
