#include "entry/entry.hpp"

#include "entry/line.hpp"

#include <algorithm>
#include <functional>
#include <map>

#include <fmt/format.h>

namespace gorvet::entry {

using namespace build;

namespace {

class Reader {
public:
    Reader(const Build& b, const Context& context, std::string_view text) : b_(b), context_(context), line_(text) { next_id_ = b.next_id; }

    Understood read() {
        if (line_.atEnd()) throw Failure{0, "Nothing was typed.", ""};
        static const std::map<std::string_view, void (Reader::*)()> commands = {
            {"point", &Reader::point},     {"role", &Reader::role},       {"hold", &Reader::hold},           {"session", &Reader::session},
            {"remove", &Reader::remove},   {"rail", &Reader::rail},       {"tyre", &Reader::axleHeight},     {"axle", &Reader::axleHeight},
            {"pin", &Reader::pin},         {"hinge", &Reader::hinge},     {"sill", &Reader::sill},           {"arch", &Reader::arch},
            {"centred", &Reader::centred}, {"cut", &Reader::cut},         {"change", &Reader::change},       {"kerf", &Reader::stretchFigure},
            {"root-gap", &Reader::stretchFigure}, {"sleeve-fit", &Reader::stretchFigure}, {"overlap", &Reader::stretchFigure},
            {"mount", &Reader::mount},     {"biscuit", &Reader::biscuit}, {"washer", &Reader::mountFigure},  {"floor", &Reader::mountFigure},
            {"standoff-step", &Reader::mountFigure}, {"mount-bolt", &Reader::mountFigure}, {"grip", &Reader::grip},
            {"crossmember", &Reader::crossmember}, {"isolator", &Reader::crossmemberFigure}, {"pad", &Reader::crossmemberFigure},
            {"flange", &Reader::crossmemberFigure}, {"end-clearance", &Reader::crossmemberFigure}, {"flange-bolt", &Reader::crossmemberFigure},
            {"pad-holes", &Reader::padHoles}, {"box", &Reader::box},       {"name", &Reader::name},           {"frame", &Reader::frame},
            {"show", &Reader::show},       {"tolerance", &Reader::tolerance}, {"subject", &Reader::subject}};
        const Word& first = line_.peek();
        // a point of that name wins over a command, so that no name is forbidden
        const bool is_point = pointNamed(b_, context_.subject, first.text) != nullptr;
        const auto command = commands.find(first.text);
        if (!is_point && !first.quoted && command != commands.end()) {
            command_ = line_.next("a word").text;
            (this->*command->second)();
        } else if (const auto kind = is_point ? std::nullopt : fromWord<ReadingKind>(first.text)) {
            line_.next("a word");
            reading(*kind, false);
        } else if (!is_point && line_.take("retape")) {
            reading(ReadingKind::Tape, true);
        } else {
            reading(ReadingKind::Tape, false);
        }
        line_.mustEnd();
        return std::move(out_);
    }

private:
    template <class T> Id<T> fresh() { return Id<T>{next_id_++}; }
    void put(Change change) { out_.edit.changes.push_back(std::move(change)); }
    void say(std::string sentence) {
        out_.edit.sentence = sentence;
        out_.echo = std::move(sentence);
    }
    units::Unit lengthUnit() const { return units::unitOf(b_.settings.length_step); }

    // ---- figures

    Dimension figure(const Word& typed, units::Kind kind, const char* missing) {
        std::string text = typed.text;
        Dimension d;
        d.provenance = Provenance::Measured;
        while (!text.empty() && (text.back() == ' ' || text.back() == '?')) {
            if (text.back() == '?') d.provenance = Provenance::Assumed;
            text.pop_back();
        }
        if (text.empty()) throw Failure{typed.column, std::string(missing) + " is missing.", ""};
        auto parsed = units::parse(text, kind, kind == units::Kind::Angle ? units::Unit::Degree : lengthUnit());
        if (!parsed) {
            const Error& e = parsed.error();
            throw Failure{typed.column + std::max(0, e.column), e.message, e.remedy};
        }
        d.value = parsed->value;
        d.typed = parsed->typed;
        if (!parsed->remark.empty()) out_.remark = parsed->remark;
        return d;
    }
    /// One length that may hold blanks, up to a stop word or the end.
    Dimension lengthUpTo(std::initializer_list<std::string_view> stops, const char* missing) { return figure(line_.upTo(stops), units::Kind::Length, missing); }
    /// One length of a single word.
    Dimension lengthWord(const char* missing) { return figure(line_.next(missing), units::Kind::Length, missing); }
    std::string show(const Dimension& d) const { return units::formatLength(d.value, b_.settings.length_step, true) + (d.provenance == Provenance::Assumed ? " ?" : ""); }
    std::string showAngle(const Dimension& d) const { return units::formatAngle(d.value) + (d.provenance == Provenance::Assumed ? " ?" : ""); }

    template <class E> E oneOf(const char* missing) {
        const Word w = line_.next(missing);
        const auto value = fromWord<E>(w.text);
        if (!value) throw Failure{w.column, fmt::format("\"{}\" is not known here.", w.text), "Type " + wordList<E>() + "."};
        return *value;
    }

    // ---- points

    const Point& known(Subject subject, const Word& w) const {
        const Point* p = pointNamed(b_, subject, w.text);
        if (!p)
            throw Failure{w.column, fmt::format("There is no point {} on the {}.", w.text, word(subject)),
                          subject == context_.subject ? fmt::format("Mark it first: point {} and roughly where: x y z.", w.text) : ""};
        return *p;
    }
    /// The next words as long as they name points.
    std::vector<const Point*> points(Subject subject) {
        std::vector<const Point*> list;
        while (!line_.atEnd())
            if (const Point* p = pointNamed(b_, subject, line_.peek().text)) {
                list.push_back(p);
                line_.next("a point");
            } else {
                break;
            }
        return list;
    }
    /// Left, then right point of a role on the body, as far as there are any.
    std::vector<PointId> withRole(Subject subject, Role role) const {
        std::vector<PointId> list;
        for (const Side side : {Side::Left, Side::Right, Side::None})
            for (const auto& [id, p] : b_.points)
                if (p.subject == subject && p.role == role && sideOf(p.name) == side) list.push_back(id);
        return list;
    }
    std::vector<PointId> needRole(Role role) const {
        auto list = withRole(Subject::Body, role);
        if (list.empty())
            throw Failure{0, fmt::format("No point of the body has the role {}.", word(role)), fmt::format("Give one the role on Tape: role NAME {}.", word(role))};
        return list;
    }

    // ---- Tape

    void point() {
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
        if (!xyz.empty() && xyz.size() != 3) throw Failure{line_.endColumn(), "A rough position is three lengths: station, offset, height.", "Like: point Al 0 -420 310"};
        if (xyz.size() == 3) p.rough = Vec3{xyz[0], xyz[1], xyz[2]};
        const std::string where = p.rough ? fmt::format(" about {} {} {}", units::fixed(p.rough->x_mm, 0), units::fixed(p.rough->y_mm, 0), units::fixed(p.rough->z_mm, 0)) : "";
        put(Put<Point>{p});
        say(fmt::format("{} point {} of the {}{}{}", old ? "change" : "mark", p.name, word(p.subject), p.role == Role::None ? "" : fmt::format(", {},", word(p.role)), where));
    }

    void role() {
        Point p = known(context_.subject, line_.next("the point's name"));
        p.role = oneOf<Role>("the role");
        put(Put<Point>{p});
        say(fmt::format("{} is a {}", p.name, word(p.role)));
    }

    void hold() {
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

    void session() {
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
                if (!parsed) throw Failure{typed.column + std::max(0, parsed.error().column), parsed.error().message, parsed.error().remedy};
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

    SessionId session(Subject subject) {
        if (const auto given = b_.sessions.find(context_.session); given != b_.sessions.end() && given->second.subject == subject) return given->first;
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

    void reading(ReadingKind kind, bool retape) {
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
        if ((kind == ReadingKind::Tape || kind == ReadingKind::Plan) && r.value.value <= 0) throw Failure{typed.column, "A distance must be above 0.", ""};
        if (line_.take("sigma")) r.sigma = figure(line_.upTo({"note"}), angle ? units::Kind::Angle : units::Kind::Length, "σ").value;
        else if (line_.take("±") || line_.take("+-")) r.sigma = figure(line_.upTo({"note"}), angle ? units::Kind::Angle : units::Kind::Length, "the ±").value / 2;
        if (r.sigma && !(*r.sigma > 0)) throw Failure{line_.endColumn(), "The ± must be above 0.", ""};
        if (line_.take("note")) r.note = line_.upTo({}).text;
        // a reading that was to be taped again is replaced; any other stands beside the earlier ones
        Reading old;
        for (const auto& [id, other] : b_.readings) {
            const bool same = other.kind == kind && !other.replaced_by &&
                              ((other.from == r.from && other.to == r.to) || (kind != ReadingKind::Level && kind != ReadingKind::Slope && other.from == r.to && other.to == r.from));
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

    void remove() {
        const Word what = line_.next("what to remove");
        if (what.text == "crossmember") {
            put(Set<std::optional<Crossmember>>{});
            return say("remove the crossmember");
        }
        if (what.text == "pin") {
            const PinKind kind = oneOf<PinKind>("the kind of the pin");
            const auto listed = points(Subject::Body);
            for (const auto& [id, pin] : b_.pins)
                if (pin.kind == kind && (listed.empty() || std::find(pin.points.begin(), pin.points.end(), listed.front()->id) != pin.points.end())) put(Drop<Pin>{id});
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

    // ---- Sit

    void rail() {
        RailSection r = b_.rail;
        int figures = 0;
        while (!line_.atEnd()) {
            if (line_.take("x") || line_.take("×")) continue;
            if (const auto shape = fromWord<RailShape>(line_.peek().text)) {
                r.shape = *shape;
                line_.next("");
            } else if (const auto face = fromWord<RailFace>(line_.peek().text)) {
                r.datum_face = *face;
                line_.next("");
            } else if (line_.take("heat-treated")) {
                r.heat_treated = true;
            } else if (line_.take("mild")) {
                r.heat_treated = false;
            } else {
                if (figures == 3) line_.mustEnd();
                (figures == 0 ? r.height : figures == 1 ? r.width : r.thickness) = lengthWord("the rail's size");
                ++figures;
            }
        }
        if (figures != 0 && figures != 3) throw Failure{line_.endColumn(), "A rail's section is height, width and wall.", "Like: rail 100 x 60 x 4 box top"};
        put(Set<RailSection>{r});
        say(fmt::format("rail {} × {} × {} {}, points on its {} face{}", units::fixed(r.height.value, 1), units::fixed(r.width.value, 1), units::fixed(r.thickness.value, 1),
                        word(r.shape), word(r.datum_face), r.heat_treated ? ", heat-treated" : ""));
    }

    void axleHeight() {
        const Word which = line_.next("front or rear");
        if (which.text != "front" && which.text != "rear") throw Failure{which.column, "Type front or rear.", ""};
        const Dimension d = lengthUpTo({}, "the height of the wheel centre");
        AxleGround a = b_.axles;
        (which.text == "front" ? a.front : a.rear) = d;
        put(Set<AxleGround>{a});
        say(command_ == "tyre" ? fmt::format("tyre radius {} {}", which.text, show(d)) : fmt::format("wheel centre {} over the ground {}", which.text, show(d)));
    }

    /// Adds the pin, or changes the one of the same kind on the same points.
    void keepPin(Pin p) {
        for (const auto& [id, old] : b_.pins)
            if (old.kind == p.kind && old.points == p.points) p.id = id;
        if (!p.id) p.id = fresh<Pin>();
        put(Put<Pin>{p});
    }
    double tolerance(double standard, units::Kind kind = units::Kind::Length) {
        if (!line_.take("tol")) return standard;
        const Word typed = line_.upTo({});
        const double value = figure(typed, kind, "the tolerance").value;
        if (!(value > 0)) throw Failure{typed.column, "A tolerance must be above 0.", ""};
        return value;
    }
    std::string pointList(const std::vector<PointId>& ids) const {
        std::string list;
        for (size_t i = 0; i < ids.size(); ++i) list += (i == 0 ? "" : i + 1 == ids.size() ? " and " : ", ") + nameOf(b_, ids[i]);
        return list;
    }

    void pin() {
        Pin p;
        p.kind = oneOf<PinKind>("the kind of the pin");
        const int at = line_.atEnd() ? line_.endColumn() : line_.peek().column;
        for (const Point* point : points(Subject::Body)) p.points.push_back(point->id);
        if (p.points.empty()) throw Failure{at, "A pin needs points of the body.", "Like: pin height Sfl Sfr 310"};
        finishPin(std::move(p));
    }

    void finishPin(Pin p) {
        switch (p.kind) {
        case PinKind::Station:
        case PinKind::Height:
            p.target = lengthUpTo({"tol"}, p.kind == PinKind::Station ? "the station" : "the height over the ground");
            p.tolerance = tolerance(2);
            break;
        case PinKind::Rake:
            p.target = figure(line_.upTo({"tol"}), units::Kind::Angle, "the rake");
            p.tolerance = tolerance(units::radians(0.1), units::Kind::Angle);
            break;
        case PinKind::ArchFront:
        case PinKind::ArchRear: p.tolerance = tolerance(5); break;
        default: p.tolerance = tolerance(2); break;
        }
        const std::string what = p.kind == PinKind::Station || p.kind == PinKind::Height ? " " + show(p.target) : p.kind == PinKind::Rake ? " " + showAngle(p.target) : "";
        const std::string list = pointList(p.points);
        const std::string kind(word(p.kind));
        keepPin(std::move(p));
        say(fmt::format("pin {} of {}{}", kind, list, what));
    }

    void hinge() {
        Pin p;
        p.kind = PinKind::Station;
        p.points = needRole(Role::HingePillar);
        finishPin(std::move(p));
    }
    void sill() {
        const Word which = line_.next("front or rear");
        if (which.text == "level" || which.text == "rake") {
            Pin p;
            p.kind = which.text == "level" ? PinKind::Level : PinKind::Rake;
            p.points = needRole(Role::SillFront);
            const auto rear = needRole(Role::SillRear);
            p.points.insert(p.points.end(), rear.begin(), rear.end());
            return finishPin(std::move(p));
        }
        if (which.text != "front" && which.text != "rear") throw Failure{which.column, "Type front, rear, level or rake.", "Like: sill front 310"};
        Pin p;
        p.kind = PinKind::Height;
        p.points = needRole(which.text == "front" ? Role::SillFront : Role::SillRear);
        finishPin(std::move(p));
    }
    void arch() {
        const Word which = line_.next("front or rear");
        if (which.text != "front" && which.text != "rear") throw Failure{which.column, "Type front or rear.", ""};
        Pin p;
        p.kind = which.text == "front" ? PinKind::ArchFront : PinKind::ArchRear;
        p.points = needRole(which.text == "front" ? Role::ArchFront : Role::ArchRear);
        finishPin(std::move(p));
    }
    void centred() {
        const double tol = tolerance(2);
        for (const Role role : {Role::HingePillar, Role::SillFront, Role::SillRear, Role::ArchRear}) {
            const auto pair = withRole(Subject::Body, role);
            if (pair.size() != 2) continue;
            if (role == Role::SillFront && !withRole(Subject::Body, Role::HingePillar).empty()) continue; // one pair at the front is enough
            Pin p;
            p.kind = PinKind::Centred;
            p.points = pair;
            p.tolerance = tol;
            keepPin(std::move(p));
        }
        if (out_.edit.changes.empty())
            throw Failure{0, "No left and right pair to centre by.", "Give points the roles hinge-pillar, sill-front, sill-rear or arch-rear, or name two: pin centred Hl Hr."};
        say("pin the body centred");
    }

    // ---- Stretch

    void cut() {
        Stretch s = b_.stretch;
        s.cut_station = lengthUpTo({}, "the cut station");
        put(Set<Stretch>{s});
        say(fmt::format("cut the rails at {}", show(*s.cut_station)));
    }
    void change() {
        Stretch s = b_.stretch;
        if (line_.take("free")) {
            s.wheelbase_change.reset();
            put(Set<Stretch>{s});
            return say("let the pins decide the wheelbase");
        }
        s.wheelbase_change = lengthUpTo({}, "the change of wheelbase, or the word free,");
        put(Set<Stretch>{s});
        say(fmt::format("change the wheelbase by {}", show(*s.wheelbase_change)));
    }
    void stretchFigure() {
        Stretch s = b_.stretch;
        Dimension& d = command_ == "kerf" ? s.kerf : command_ == "root-gap" ? s.root_gap : command_ == "sleeve-fit" ? s.sleeve_fit : s.sleeve_overlap_heights;
        if (command_ == "overlap") { // a plain number of rail heights
            const Word typed = line_.next("the number of rail heights");
            auto parsed = units::parse(typed.text, units::Kind::Length, units::Unit::Millimetre);
            if (!parsed || !parsed->bare) throw Failure{typed.column, "The overlap is a number of rail heights.", "Like: overlap 2"};
            d = {parsed->value, typed.text, Provenance::Measured};
            put(Set<Stretch>{s});
            return say(fmt::format("sleeve overlap {} rail heights each side", units::fixed(d.value, 1)));
        }
        d = lengthUpTo({}, "the length");
        const std::string shown = show(d);
        put(Set<Stretch>{s});
        say(fmt::format("{} {}", command_, shown));
    }

    // ---- Make

    void mount() {
        std::vector<PointId> list;
        if (line_.take("all")) {
            for (const PointId id : withRole(Subject::Body, Role::BodyMount)) list.push_back(id);
            if (list.empty()) throw Failure{0, "No point of the body has the role body-mount.", "Give them the role on Tape: role Ml body-mount."};
        } else {
            for (const Point* p : points(Subject::Body)) list.push_back(p->id);
            if (list.empty()) known(Subject::Body, line_.next("the mount's body point"));
        }
        std::optional<Dimension> station;
        if (line_.take("at")) station = lengthUpTo({}, "the station on the rail");
        for (const PointId id : list) {
            Mount m;
            m.body_point = id;
            for (const auto& [key, old] : b_.mounts)
                if (old.body_point == id) m = old;
            if (station) m.rail_station = station;
            if (!m.id) m.id = fresh<Mount>();
            put(Put<Mount>{m});
        }
        say(fmt::format("mount the body at {}{}", pointList(list), station ? ", rail station " + show(*station) : ""));
    }
    void biscuit() {
        MountDesign d = b_.mount_design;
        d.biscuit_free = lengthUpTo({"squash"}, "the biscuit's free height");
        if (line_.take("squash")) {
            Word typed = line_.next("the squash in %");
            std::string text = typed.text;
            const bool assumed = !text.empty() && text.back() == '?';
            if (assumed) text.pop_back();
            if (!text.empty() && text.back() == '%') text.pop_back();
            auto parsed = units::parse(text, units::Kind::Length, units::Unit::Millimetre);
            if (!parsed || !parsed->bare || parsed->value < 0 || parsed->value > 50) throw Failure{typed.column, "The squash is 0 to 50 % of the free height.", "Like: biscuit 25 squash 15%"};
            d.biscuit_squash = {parsed->value / 100, typed.text, assumed ? Provenance::Assumed : Provenance::Measured};
        }
        put(Set<MountDesign>{d});
        say(fmt::format("biscuit {} free, squashed {} %", show(d.biscuit_free), units::fixed(100 * d.biscuit_squash.value, 0)));
    }
    void mountFigure() {
        MountDesign d = b_.mount_design;
        Dimension& target = command_ == "washer" ? d.washer : command_ == "floor" ? d.body_thickness : command_ == "standoff-step" ? d.standoff_step : d.bolt;
        target = lengthUpTo({}, "the length");
        const std::string shown = show(target);
        put(Set<MountDesign>{d});
        say(fmt::format("mounts: {} {}", command_, shown));
    }
    void grip() {
        MountDesign d = b_.mount_design;
        d.grip = oneOf<Grip>("wall or through");
        put(Set<MountDesign>{d});
        say(d.grip == Grip::Wall ? "mount bolts go through the rail's wall" : "mount bolts go through the whole rail");
    }

    Crossmember needCrossmember() const {
        if (!b_.crossmember) throw Failure{0, "There is no crossmember yet.", "Type crossmember first."};
        return *b_.crossmember;
    }
    void crossmember() {
        Crossmember c = b_.crossmember.value_or(Crossmember{});
        if (!line_.atEnd()) {
            c.gearbox_mount = known(Subject::Chassis, line_.next("the gearbox mount")).id;
        } else {
            const Point* mount = pointWithRole(b_, Subject::Chassis, Role::GearboxMount);
            if (!mount) throw Failure{line_.endColumn(), "No point of the chassis has the role gearbox-mount.", "Name the point, or give it the role on Tape."};
            c.gearbox_mount = mount->id;
        }
        put(Set<std::optional<Crossmember>>{c});
        say(fmt::format("crossmember under {}", nameOf(b_, c.gearbox_mount)));
    }
    void crossmemberFigure() {
        Crossmember c = needCrossmember();
        Dimension& target = command_ == "isolator"        ? c.isolator
                            : command_ == "pad"           ? c.pad
                            : command_ == "flange"        ? c.flange
                            : command_ == "end-clearance" ? c.end_clearance
                                                          : c.bolt;
        target = lengthUpTo({}, "the length");
        const std::string shown = show(target);
        put(Set<std::optional<Crossmember>>{c});
        say(fmt::format("crossmember: {} {}", command_, shown));
    }
    void padHoles() {
        Crossmember c = needCrossmember();
        c.pad_hole_pitch = lengthWord("the pitch of the holes");
        if (!line_.atEnd()) c.pad_hole = lengthWord("the hole's diameter");
        put(Set<std::optional<Crossmember>>{c});
        say(fmt::format("pad holes {} apart, {}", show(c.pad_hole_pitch), show(c.pad_hole)));
    }
    void box() {
        Crossmember c = needCrossmember();
        for (Dimension* d : {&c.box_width, &c.box_height, &c.box_wall}) {
            while (line_.take("x") || line_.take("×")) {
            }
            if (line_.atEnd()) throw Failure{line_.endColumn(), "A box is width, height and wall.", "Like: box 60 x 40 x 3"};
            *d = lengthWord("the box's size");
        }
        put(Set<std::optional<Crossmember>>{c});
        say(fmt::format("crossmember box {} × {} × {}", units::fixed(c.box_width.value, 1), units::fixed(c.box_height.value, 1), units::fixed(c.box_wall.value, 1)));
    }

    // ---- Build

    void settings(const std::function<void(Settings&)>& change, std::string sentence) {
        Settings s = b_.settings;
        change(s);
        put(Set<Settings>{s});
        say(std::move(sentence));
    }
    void name() {
        Word which = line_.next("the name");
        if ((which.text == "body" || which.text == "chassis") && !line_.atEnd()) {
            const std::string text = line_.upTo({}).text;
            return settings([&](Settings& s) { (which.text == "body" ? s.body_name : s.chassis_name) = text; }, fmt::format("the {} is the {}", which.text, text));
        }
        const std::string rest = line_.upTo({}).text;
        const std::string text = which.text + (rest.empty() ? "" : " " + rest);
        settings([&](Settings& s) { s.name = text; }, fmt::format("name the build {}", text));
    }
    void frame() {
        const FrameKind kind = oneOf<FrameKind>("the kind of frame");
        settings([&](Settings& s) { s.frame_kind = kind; }, fmt::format("the frame is a {}", word(kind)));
    }
    void tolerance() {
        const Dimension d = lengthUpTo({}, "the tolerance");
        settings([&](Settings& s) { s.frame_tolerance_mm = d.value; }, fmt::format("frame tolerance {}", show(d)));
    }
    void show() {
        const Word unit = line_.next("mm or inch");
        const Word step = line_.atEnd() ? Word{unit.text == "mm" ? "0.1" : "1/16", unit.column, false} : line_.next("the step");
        static const std::map<std::pair<std::string, std::string>, units::LengthStep> steps = {
            {{"mm", "1"}, units::LengthStep::Mm1},         {{"mm", "0.5"}, units::LengthStep::Mm05},     {{"mm", "0.1"}, units::LengthStep::Mm01},
            {{"inch", "1/16"}, units::LengthStep::Inch16}, {{"inch", "1/32"}, units::LengthStep::Inch32}, {{"inch", "0.001"}, units::LengthStep::InchThousandth}};
        const auto found = steps.find({unit.text, step.text});
        if (found == steps.end()) throw Failure{unit.column, "Lengths are shown in mm to 1, 0.5 or 0.1, or in inch to 1/16, 1/32 or 0.001.", "Like: show inch 1/32"};
        settings([&](Settings& s) { s.length_step = found->second; }, fmt::format("show lengths in {} to {}", unit.text, step.text));
    }
    void subject() {
        out_.subject = oneOf<Subject>("body or chassis");
        out_.echo = fmt::format("turn to the {}", word(*out_.subject));
    }

    const Build& b_;
    const Context& context_;
    Line line_;
    Understood out_;
    std::string command_;
    std::uint32_t next_id_ = 1;
};

} // namespace

Result<Understood> understand(const Build& b, const Context& context, std::string_view line) {
    try {
        Understood understood = Reader(b, context, line).read();
        Build trial = b;
        if (!understood.edit.changes.empty())
            if (auto ok = enact(trial, understood.edit); !ok) return ok.error();
        return understood;
    } catch (const Failure& f) {
        return Error{Error::Code::BadInput, std::string(line), f.message, f.remedy, f.column};
    }
}

const std::vector<Form>& forms() {
    static const std::vector<Form> list = {
        {"Tape", "NAME NAME length", "A3 B7 2164", "a tape reading between two points"},
        {"Tape", "plan|level NAME NAME length", "plan A3 B7 2161", "distance between plumb marks; how much higher the second stands"},
        {"Tape", "height NAME length", "height A3 412", "height over the datum plane"},
        {"Tape", "offset|station NAME [NAME] length", "offset A3 -412", "from the centre string, left negative; along the rail"},
        {"Tape", "slope NAME NAME angle", "slope A3 B7 2°30'", "how far the line goes down, rearward"},
        {"Tape", "… ± length, … note text", "A3 B7 2164 ± 3 note sagging tape", "how well it was read, and what to remember"},
        {"Tape", "point NAME [role] [x y z]", "point Al rail 0 -420 310", "marks a point, roughly placed: station, offset, height"},
        {"Tape", "role NAME role", "role Hl hinge-pillar", "what a point is"},
        {"Tape", "hold NAME x|y|z length", "hold Al z 0", "holds a coordinate: the datum"},
        {"Tape", "session NAME attitude support", "session monday right-way-up stands at 300 and 2700", "how it stood when it was measured"},
        {"Tape", "retape NAME NAME length", "retape A3 B7 2154", "replaces a reading; the old one stays in the log"},
        {"Tape", "remove NAME [NAME]", "remove A3 B7", "takes a reading, point, hold, pin or mount away"},
        {"Tape", "subject body|chassis", "subject body", "turns to the other subject"},
        {"Sit", "tyre front|rear length", "tyre front 340", "loaded radius of the tyre; axle front 338 for a typed height"},
        {"Sit", "hinge length [tol length]", "hinge 1210 tol 1", "the hinge pillar stands at this station"},
        {"Sit", "centred [tol length]", "centred", "the body stands on the centreline"},
        {"Sit", "sill front|rear length", "sill front 310", "height of the sill over the ground; sill level, sill rake 0.5°"},
        {"Sit", "arch front|rear [tol length]", "arch rear", "the wheel stands in the middle of its arch"},
        {"Sit", "pin kind NAME… figure", "pin height Sfl Sfr 310 tol 2", "any pin, by points"},
        {"Stretch", "rail height x width x wall shape face", "rail 100 x 60 x 4 box top", "section of the rail, and the face its points were marked on"},
        {"Stretch", "cut length", "cut 1480", "where the rails are cut"},
        {"Stretch", "change length|free", "change -75", "decides the change of wheelbase, or leaves it to the pins"},
        {"Stretch", "kerf|root-gap|sleeve-fit length, overlap n", "sleeve-fit 1", "how it is cut, fitted and lapped"},
        {"Make", "mount all|NAME… [at length]", "mount all", "body mounts, at points of role body-mount"},
        {"Make", "biscuit length [squash n%]", "biscuit 25 squash 15%", "the mounting rubber; also washer, floor, standoff-step, mount-bolt"},
        {"Make", "grip wall|through", "grip through", "whether mount bolts go through the whole rail"},
        {"Make", "crossmember [NAME]", "crossmember", "a bridge under the gearbox mount"},
        {"Make", "box width x height x wall", "box 60 x 40 x 3", "its section; also isolator, pad, flange, flange-bolt, end-clearance, pad-holes"},
        {"Build", "name text", "name Petrel on Tern", "names the build; name body …, name chassis …"},
        {"Build", "frame kind", "frame ladder", "ladder, perimeter, spine-platform, bolted-subframe, monocoque or space-frame"},
        {"Build", "show mm|inch step", "show inch 1/16", "how lengths are shown, and what a bare number means"},
        {"Build", "tolerance length", "tolerance 3", "what the frame may be out by"},
    };
    return list;
}

} // namespace gorvet::entry
