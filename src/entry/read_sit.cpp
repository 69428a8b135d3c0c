#include "entry/reader.hpp"

#include <algorithm>
#include <map>

namespace gorvet::entry {

void Reader::rail() {
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
    if (figures != 0 && figures != 3)
        throw Failure{line_.endColumn(), "A rail's section is height, width and wall.", "Like: rail 100 x 60 x 4 box top"};
    put(Set<RailSection>{r});
    say(fmt::format("rail {} × {} × {} {}, points on its {} face{}", units::fixed(r.height.value, 1),
                    units::fixed(r.width.value, 1), units::fixed(r.thickness.value, 1), word(r.shape), word(r.datum_face),
                    r.heat_treated ? ", heat-treated" : ""));
}

void Reader::axleHeight() {
    const Word which = line_.next("front or rear");
    if (which.text != "front" && which.text != "rear") throw Failure{which.column, "Type front or rear.", ""};
    const Dimension d = lengthUpTo({}, "the height of the wheel centre");
    AxleGround a = b_.axles;
    (which.text == "front" ? a.front : a.rear) = d;
    put(Set<AxleGround>{a});
    say(command_ == "tyre" ? fmt::format("tyre radius {} {}", which.text, show(d))
                           : fmt::format("wheel centre {} over the ground {}", which.text, show(d)));
}

void Reader::keepPin(Pin p) {
    for (const auto& [id, old] : b_.pins)
        if (old.kind == p.kind && old.points == p.points && old.to == p.to && old.box == p.box) p.id = id;
    if (!p.id) p.id = fresh<Pin>();
    put(Put<Pin>{p});
}

double Reader::tolerance(double standard, units::Kind kind, std::initializer_list<std::string_view> stops) {
    if (!line_.take("tol")) return standard;
    const Word typed = line_.upTo(stops);
    const double value = figure(typed, kind, "the tolerance").value;
    if (!(value > 0)) throw Failure{typed.column, "A tolerance must be above 0.", ""};
    return value;
}

std::string Reader::pointList(const std::vector<PointId>& ids) const {
    std::string list;
    for (size_t i = 0; i < ids.size(); ++i) list += (i == 0 ? "" : i + 1 == ids.size() ? " and " : ", ") + nameOf(b_, ids[i]);
    return list;
}

void Reader::pin() {
    Pin p;
    p.kind = oneOf<PinKind>("the kind of the pin");
    if (p.kind >= PinKind::Along) return betweenFeatures(std::move(p));
    const int at = line_.atEnd() ? line_.endColumn() : line_.peek().column;
    for (const Point* point : points(the_body)) p.points.push_back(point->id);
    if (p.points.empty()) throw Failure{at, "A pin needs points of the body.", "Like: pin height Sfl Sfr 310"};
    finishPin(std::move(p));
}

void Reader::finishPin(Pin p) {
    const bool rake = p.kind == PinKind::Rake;
    const auto kind = rake ? units::Kind::Angle : units::Kind::Length;
    if (line_.take("least"))
        p.bound = Bound::AtLeast;
    else if (line_.take("most"))
        p.bound = Bound::AtMost;
    const bool between = p.kind >= PinKind::Along;
    if (p.bound != Bound::Equal || between || rake || p.kind == PinKind::Station || p.kind == PinKind::Height)
        p.target = figure(line_.upTo({"tol", "must", "want", "like"}), kind,
                          p.kind == PinKind::Station  ? "the station"
                          : p.kind == PinKind::Height ? "the height over the ground"
                          : rake                      ? "the rake"
                                                      : "the figure");
    const double usual = p.kind == PinKind::ArchFront || p.kind == PinKind::ArchRear ? 5
                         : rake                                                      ? units::radians(0.1)
                         : between                                                   ? 3
                                                                                     : 2;
    p.tolerance = usual;
    while (!line_.atEnd()) {
        if (line_.peekIs("tol"))
            p.tolerance = tolerance(usual, kind, {"must", "want", "like"});
        else if (line_.take("must"))
            p.importance = Importance::Must;
        else if (line_.take("want"))
            p.importance = Importance::Want;
        else if (line_.take("like"))
            p.importance = Importance::Like;
        else
            line_.mustEnd();
    }
    std::string what;
    if (p.bound != Bound::Equal || between || rake || p.kind == PinKind::Station || p.kind == PinKind::Height)
        what = fmt::format(" {}{}",
                           p.bound == Bound::AtLeast  ? "at least "
                           : p.bound == Bound::AtMost ? "at most "
                                                      : "",
                           rake ? showAngle(p.target) : show(p.target));
    if (p.importance != Importance::Want) what += fmt::format(", {}", word(p.importance));
    std::string list = pointList(p.points);
    if (!p.to.empty()) list += " to " + pointList(p.to);
    if (p.box) list += " to " + b_.obstacles.at(p.box).name;
    const std::string name(word(p.kind));
    keepPin(std::move(p));
    say(fmt::format("pin {} of {}{}", name, list, what));
}

const Point* Reader::featurePoint(const std::string& text) const {
    for (const auto& [id, subject] : b_.subjects)
        if (text.starts_with(subject.name + ":")) return pointNamed(b_, id, text.substr(subject.name.size() + 1));
    const Point* on_body = pointNamed(b_, the_body, text);
    return on_body ? on_body : pointNamed(b_, the_chassis, text);
}

std::vector<PointId> Reader::feature() {
    std::vector<PointId> list;
    while (!line_.atEnd())
        if (const Point* p = featurePoint(line_.peek().text)) {
            list.push_back(p->id);
            line_.next("a point");
        } else {
            break;
        }
    return list;
}

void Reader::betweenFeatures(Pin p) {
    const int at = line_.atEnd() ? line_.endColumn() : line_.peek().column;
    p.points = feature();
    if (p.points.empty())
        throw Failure{at, "A pin needs points of body or chassis.",
                      "Like: pin up Floor to chassis:Al 40, or pin bump Aul Aur least 20"};
    if (p.kind == PinKind::Tyre || p.kind == PinKind::Bump) return finishPin(std::move(p));
    if (!line_.take("to")) {
        const int here = line_.atEnd() ? line_.endColumn() : line_.peek().column;
        throw Failure{here, "A pin between two features needs \"to\" and the second one.",
                      p.kind == PinKind::Clear ? "Like: pin clear Bk to booster least 10"
                                               : "Like: pin up Floor to chassis:Al 40"};
    }
    if (p.kind == PinKind::Clear) {
        const Word box = line_.next("the name of the box");
        // of two boxes of that name the one on the other side; what stands on axes of its own keeps nothing clear
        const SubjectId own = p.points.empty() ? the_body : b_.points.at(p.points.front()).subject;
        for (const auto& [id, o] : b_.obstacles)
            if (o.name == box.text && (o.subject == the_body || o.subject == the_chassis))
                if (!p.box || o.subject != own) p.box = id;
        if (!p.box)
            throw Failure{box.column, fmt::format("There is no box {}.", box.text),
                          "Mark it first on Tape: blocked NAME x x y y z z."};
    } else {
        const int here = line_.atEnd() ? line_.endColumn() : line_.peek().column;
        p.to = feature();
        if (p.to.empty()) throw Failure{here, "Which feature does it go to?", "Like: pin up Floor to chassis:Al 40"};
    }
    finishPin(std::move(p));
}

void Reader::travel() {
    WheelTravel t = b_.travel;
    const Word what = line_.next("front, rear, lock, rock or width");
    std::string said;
    if (what.text == "lock" || what.text == "rock") {
        Dimension& d = what.text == "lock" ? t.lock : t.rock;
        d = figure(line_.upTo({}), units::Kind::Angle, "the angle");
        said = fmt::format("{} {} each way", what.text, showAngle(d));
    } else if (what.text == "width") {
        t.width = lengthUpTo({}, "the tyre's width");
        said = "tyre width " + show(t.width);
    } else if (what.text == "front" || what.text == "rear") {
        const bool front = what.text == "front";
        const Word which = line_.next("bump, droop or radius");
        Dimension d;
        if (which.text != "bump" && which.text != "droop" && which.text != "radius")
            throw Failure{which.column, "Type bump, droop or radius.", "Like: travel front bump 70"};
        d = lengthUpTo({}, "the length");
        if (which.text == "bump") (front ? t.front_bump : t.rear_bump) = d;
        if (which.text == "droop") (front ? t.front_droop : t.rear_droop) = d;
        if (which.text == "radius") (front ? t.front_radius : t.rear_radius) = d;
        said = fmt::format("{} {} {}", what.text, which.text, show(d));
    } else {
        throw Failure{what.column, "Type front, rear, lock, rock or width.", "Like: travel front bump 70"};
    }
    put(Set<WheelTravel>{t});
    say("travel: " + said);
}

void Reader::seating() {
    const Word what = line_.next("keep or use");
    if (what.text != "keep" && what.text != "use") throw Failure{what.column, "Type keep or use.", "Like: seating keep low"};
    const Word name = line_.next("the seating's name");
    const auto old =
        std::find_if(b_.seatings.begin(), b_.seatings.end(), [&](const auto& row) { return row.second.name == name.text; });
    if (what.text == "keep") {
        if (b_.pins.empty())
            throw Failure{what.column, "Nothing is pinned yet: there is no seating to keep.", "Pin the body first."};
        Seating s;
        s.id = old == b_.seatings.end() ? fresh<Seating>() : old->first;
        s.name = name.text;
        for (const auto& [id, p] : b_.pins) s.pins.push_back(p);
        s.wheelbase_change = b_.stretch.wheelbase_change;
        s.leads = b_.school.leads;
        s.lowering = b_.lowering;
        if (line_.take("note")) s.note = line_.rest().text;
        put(Put<Seating>{s});
        return say(fmt::format("keep this seating as {}", name.text));
    }
    if (old == b_.seatings.end())
        throw Failure{name.column, fmt::format("There is no seating {}.", name.text), "Keep one first: seating keep NAME."};
    const Seating& s = old->second;
    for (const auto& [id, p] : b_.pins) put(Drop<Pin>{id});
    for (Pin p : s.pins) {
        if (!b_.pins.contains(p.id)) p.id = fresh<Pin>(); // an id is never used twice
        put(Put<Pin>{p});
    }
    Stretch stretch = b_.stretch;
    stretch.wheelbase_change = s.wheelbase_change;
    if (!(stretch == b_.stretch)) put(Set<Stretch>{stretch});
    if (s.leads != b_.school.leads) put(Set<School>{School{s.leads}});
    if (!(s.lowering == b_.lowering)) put(Set<Lowering>{s.lowering});
    say(fmt::format("seat the body as in {}", s.name));
}

void Reader::school() {
    const Leads leads = oneOf<Leads>("driveline, body or neither");
    put(Set<School>{School{leads}});
    say(leads == Leads::Neither     ? "neither driveline nor body leads"
        : leads == Leads::Driveline ? "the driveline leads: the body works round it"
                                    : "the body leads: the driveline works round it");
}

void Reader::lower() {
    Lowering l = b_.lowering;
    const Word what = line_.next("channel, raise-floor, kick, floor or none");
    std::string said;
    if (what.text == "none") {
        const std::string floor = l.floor;
        l = {};
        l.floor = floor;
        said = "neither channel, raised floor nor kicked rails";
    } else if (what.text == "channel") {
        l.channel = lengthUpTo({}, "how high");
        said = "channel the floor over the rails by " + show(l.channel);
    } else if (what.text == "raise-floor") {
        l.raise = lengthUpTo({}, "by how much");
        said = "raise the floor by " + show(l.raise);
    } else if (what.text == "kick") {
        l.kick = lengthUpTo({"from"}, "by how much");
        if (line_.take("from")) {
            l.kick_from = lengthUpTo({"to"}, "the first station");
            if (!line_.take("to"))
                throw Failure{line_.endColumn(), "Between which two stations?", "Like: lower kick 40 from 900 to 2000"};
            l.kick_to = lengthUpTo({}, "the last station");
        }
        said = fmt::format("let the rails down by {} from station {} to {}", show(l.kick), show(l.kick_from), show(l.kick_to));
    } else if (what.text == "floor") {
        const Word zone = line_.next("the zone that is the floor");
        if (std::none_of(b_.zones.begin(), b_.zones.end(), [&](const auto& row) { return row.second.name == zone.text; }))
            throw Failure{zone.column, fmt::format("There is no zone {}.", zone.text),
                          "Name one first: zone floor named x x y y z z."};
        l.floor = zone.text;
        said = fmt::format("the zone {} is the floor", zone.text);
    } else {
        throw Failure{what.column, fmt::format("\"{}\" is not known here.", what.text),
                      "Type channel, raise-floor, kick, floor or none."};
    }
    put(Set<Lowering>{l});
    say(said);
}

void Reader::hinge() {
    Pin p;
    p.kind = PinKind::Station;
    p.points = needRole(Role::HingePillar);
    finishPin(std::move(p));
}

void Reader::sill() {
    const Word which = line_.next("front or rear");
    if (which.text == "level" || which.text == "rake") {
        Pin p;
        p.kind = which.text == "level" ? PinKind::Level : PinKind::Rake;
        p.points = needRole(Role::SillFront);
        const auto rear = needRole(Role::SillRear);
        p.points.insert(p.points.end(), rear.begin(), rear.end());
        return finishPin(std::move(p));
    }
    if (which.text != "front" && which.text != "rear")
        throw Failure{which.column, "Type front, rear, level or rake.", "Like: sill front 310"};
    Pin p;
    p.kind = PinKind::Height;
    p.points = needRole(which.text == "front" ? Role::SillFront : Role::SillRear);
    finishPin(std::move(p));
}

void Reader::arch() {
    const Word which = line_.next("front or rear");
    if (which.text != "front" && which.text != "rear") throw Failure{which.column, "Type front or rear.", ""};
    Pin p;
    p.kind = which.text == "front" ? PinKind::ArchFront : PinKind::ArchRear;
    p.points = needRole(which.text == "front" ? Role::ArchFront : Role::ArchRear);
    finishPin(std::move(p));
}

void Reader::centred() {
    const double tol = tolerance(2);
    for (const Role role : {Role::HingePillar, Role::SillFront, Role::SillRear, Role::ArchRear}) {
        const auto pair = withRole(the_body, role);
        if (pair.size() != 2) continue;
        if (role == Role::SillFront && !withRole(the_body, Role::HingePillar).empty())
            continue; // one pair at the front is enough
        Pin p;
        p.kind = PinKind::Centred;
        p.points = pair;
        p.tolerance = tol;
        keepPin(std::move(p));
    }
    if (out_.edit.changes.empty())
        throw Failure{0, "No left and right pair to centre by.",
                      "Give points the roles hinge-pillar, sill-front, sill-rear or arch-rear, or name two: pin centred Hl Hr."};
    say("pin the body centred");
}

void Reader::removePin(const Word& what) {
    const PinKind kind = oneOf<PinKind>("the kind of the pin");
    const auto listed = feature();
    PointId to;
    if (line_.take("to")) {
        if (const auto far = feature(); !far.empty())
            to = far.front();
        else if (!line_.atEnd())
            line_.next("the box");
    }
    for (const auto& [id, pin] : b_.pins) {
        const auto names = [](const std::vector<PointId>& list, PointId one) {
            return std::find(list.begin(), list.end(), one) != list.end();
        };
        if (pin.kind == kind && (listed.empty() || names(pin.points, listed.front())) && (!to || names(pin.to, to)))
            put(Drop<Pin>{id});
    }
    if (out_.edit.changes.empty()) throw Failure{what.column, fmt::format("There is no pin of kind {}.", word(kind)), ""};
    say(fmt::format("remove the pin {}", word(kind)));
}

void Reader::removeSeating(const Word&) { removeNamed(b_.seatings, "seating"); }

} // namespace gorvet::entry
