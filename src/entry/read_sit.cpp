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
        if (old.kind == p.kind && old.points == p.points) p.id = id;
    if (!p.id) p.id = fresh<Pin>();
    put(Put<Pin>{p});
}

double Reader::tolerance(double standard, units::Kind kind) {
    if (!line_.take("tol")) return standard;
    const Word typed = line_.upTo({});
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
    const int at = line_.atEnd() ? line_.endColumn() : line_.peek().column;
    for (const Point* point : points(Subject::Body)) p.points.push_back(point->id);
    if (p.points.empty()) throw Failure{at, "A pin needs points of the body.", "Like: pin height Sfl Sfr 310"};
    finishPin(std::move(p));
}

void Reader::finishPin(Pin p) {
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
    const std::string what = p.kind == PinKind::Station || p.kind == PinKind::Height ? " " + show(p.target)
                             : p.kind == PinKind::Rake                               ? " " + showAngle(p.target)
                                                                                     : "";
    const std::string list = pointList(p.points);
    const std::string kind(word(p.kind));
    keepPin(std::move(p));
    say(fmt::format("pin {} of {}{}", kind, list, what));
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
        const auto pair = withRole(Subject::Body, role);
        if (pair.size() != 2) continue;
        if (role == Role::SillFront && !withRole(Subject::Body, Role::HingePillar).empty())
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

} // namespace gorvet::entry
