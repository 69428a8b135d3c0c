// What is planned: seat, cuts, mounts, steel, the order of work.
#include "build/rules.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include <fmt/format.h>

namespace gorvet::build {
namespace {

/// Whether a place lies where a car can be.
bool near(const Vec3& v) { return std::abs(v.x_mm) < 1e5 && std::abs(v.y_mm) < 1e5 && std::abs(v.z_mm) < 1e5; }

} // namespace

Checked rules(const Build&, const Zone& z) {
    const bool wide = z.from.x_mm < z.to.x_mm && z.from.y_mm < z.to.y_mm && z.from.z_mm < z.to.z_mm;
    if (!wide || !near(z.from) || !near(z.to)) return bad(z.name, "It needs two different stations, offsets and heights.");
    return {};
}

Checked rules(const Build&, const ClearanceRules& c) {
    if (c.flange.value > c.margin.value)
        return bad("clearance", "A flange stands inside the finished edge: wider than the margin, it would foul.",
                   "Widen the margin first.");
    return {};
}

namespace {

/// What a pin between two features needs on its far side.
Checked rulesOfFeatures(const Build& b, const Pin& p) {
    const std::string name(word(p.kind));
    const auto onBody = [&](PointId id) { return b.points.at(id).subject == the_body; };
    const bool between = p.kind != PinKind::Tyre && p.kind != PinKind::Bump && p.kind != PinKind::Clear;
    const size_t least = p.kind == PinKind::Line ? 2 : p.kind == PinKind::Under ? 3 : between ? 1 : 0;
    if (p.to.size() < least || (p.kind == PinKind::Line && p.to.size() != 2))
        return bad(name, fmt::format("A pin of kind {} needs {} point{} after \"to\".", name,
                                     p.kind == PinKind::Under  ? "three or more"
                                     : p.kind == PinKind::Line ? "two"
                                                               : "one or more",
                                     least == 1 ? "" : "s"));
    if (p.kind == PinKind::Line && p.to[0] == p.to[1]) return bad(name, "A line needs two different points.");
    if (p.kind == PinKind::Clear) {
        const auto box = b.obstacles.find(p.box);
        if (box == b.obstacles.end())
            return bad(name, "The pin keeps clear of a box that is not marked.", "Mark it first: blocked NAME x x y y z z.");
        if (box->second.subject != the_body && box->second.subject != the_chassis)
            return bad(name, fmt::format("The box {} is of the {}: a pin holds points of body and chassis.", box->second.name,
                                         nameOf(b, box->second.subject)));
        for (const PointId id : p.points)
            if (b.points.at(id).subject == box->second.subject)
                return bad(name, fmt::format("{} and the box {} are both of the {}: where the body sits does not change that.",
                                             nameOf(b, id), box->second.name, nameOf(b, box->second.subject)));
    } else if (!between) {
        for (const PointId id : p.points)
            if (!onBody(id)) return bad(name, "The gap to a tyre is taken at points of the body.");
    }
    return {};
}

} // namespace

Checked rules(const Build& b, const Pin& p) {
    if (p.points.empty()) return bad("pin", "A pin needs at least one point of the body.");
    if (!(p.tolerance > 0)) return bad("pin", "A pin's tolerance must be above 0.");
    if (p.bound != Bound::Equal && (p.kind == PinKind::Centred || p.kind == PinKind::Level))
        return bad("pin", fmt::format("A pin of kind {} has no least or most.", word(p.kind)));
    for (const auto* list : {&p.points, &p.to})
        for (const PointId id : *list)
            if (b.points.at(id).subject != the_body && b.points.at(id).subject != the_chassis)
                return bad("pin", fmt::format("{} is of the {}: a pin holds points of body and chassis.", nameOf(b, id),
                                              nameOf(b, b.points.at(id).subject)));
    if (p.kind >= PinKind::Along) return rulesOfFeatures(b, p);
    for (PointId id : p.points)
        if (b.points.at(id).subject != the_body) return bad("pin", "A pin holds points of the body.");
    const auto needed = p.kind == PinKind::Centred || p.kind == PinKind::Level || p.kind == PinKind::Rake ? 2U : 1U;
    if (p.points.size() < needed || (p.kind == PinKind::Centred && p.points.size() != 2))
        return bad("pin", fmt::format("A pin of kind {} needs {} points.", word(p.kind), needed));
    if (p.points.size() % 2 != 0 && needed == 2) return bad("pin", "This pin needs as many points at the rear as at the front.");
    return {};
}

Checked entryRules(const Pin& p) {
    for (const auto* list : {&p.points, &p.to})
        if (p.kind != PinKind::Line && std::set(list->begin(), list->end()).size() != list->size())
            return bad("pin", "It names a point twice.", "Name each point once.");
    return {};
}

Checked rules(const Build& b, const PairRule& p) {
    const std::string name = fmt::format("{} to {}", word(p.one), word(p.other));
    for (const auto& [id, other] : b.pair_rules)
        if (id != p.id && ((other.one == p.one && other.other == p.other) || (other.one == p.other && other.other == p.one)))
            return bad(name, fmt::format("{} has its least clearance already.", name));
    return {};
}

Checked rules(const Build& b, const Swing& s) {
    const std::string& name = b.scans.at(s.scan).name;
    if (!near(s.from) || !near(s.to)) return bad(name, "The axis of a swing is within 100 m.");
    if (std::hypot(s.to.x_mm - s.from.x_mm, s.to.y_mm - s.from.y_mm, s.to.z_mm - s.from.z_mm) < 10)
        return bad(name, "The axis of a swing needs two places at least 10 mm apart.");
    return {};
}

Checked rules(const Build&, const Lowering& l) {
    if (l.kick_from.value >= l.kick_to.value)
        return bad("lower", "The rails are let down between two stations: the second lies behind the first.");
    return {};
}

Checked rules(const Build&, const PlannedCut& c) {
    if (c.line.size() < 2) return bad(c.name, "A cut needs two corners at least.");
    for (const auto* list : {&c.line, &c.as_cut})
        if (!std::all_of(list->begin(), list->end(), near)) return bad(c.name, "A cut's places are within 100 m.");
    return {};
}

Checked rules(const Build& b, const Mount& m) {
    const Point& point = b.points.at(m.body_point);
    if (point.subject != the_body) return bad("mount", "A body mount starts at a point of the body.");
    if (sideOf(point.name) == Side::None)
        return bad(point.name, "A mount's body point must say its side: its name ends in l or r.");
    return {};
}

Checked rules(const Build&, const RailSection& r) {
    if (r.height.value > 0 && 2 * r.thickness.value >= std::min(r.height.value, r.width.value))
        return bad("rail", "The walls are thicker than the rail.", "Check height, width and thickness.");
    return {};
}

namespace {

Checked rulesOfBolt(const char* subject, const Dimension& d) {
    for (double standard : {8.0, 10.0, 12.0, 14.0, 16.0})
        if (d.value == standard) return {};
    return bad(subject, fmt::format("bolt = {:g}: must be 8, 10, 12, 14 or 16 mm.", d.value));
}

} // namespace

Checked rules(const Build&, const MountDesign& m) { return rulesOfBolt("mount", m.bolt); }

Checked rules(const Build& b, const Crossmember& c) {
    if (b.points.at(c.gearbox_mount).subject != the_chassis)
        return bad("crossmember", "The crossmember needs the gearbox mount, a point of the chassis.");
    return rulesOfBolt("crossmember", c.bolt);
}

Checked rules(const Build&, const Crossing& c) {
    if (c.name.find_first_of(" \t,\"") != std::string::npos)
        return bad(std::string(word(c.kind)), "The name of one of several is one word, without blank, comma or quote.");
    if (c.starts && c.ends && c.starts->value >= c.ends->value)
        return bad(std::string(word(c.kind)), fmt::format("The {} must end behind the station where it starts.", word(c.kind)));
    return {};
}

Checked rules(const Build&, const TemporarySteel& t) {
    if (!(t.gap_tolerance_mm > 0)) return bad(t.name, "The tolerance of a gap must be above 0.");
    return {};
}

Checked rules(const Build&, const Tick& t) {
    if (t.step.empty()) return bad("work", "A tick needs the code of its step.");
    return {};
}

Checked rules(const Build& b, const Check& c) {
    if (c.step.empty()) return bad("work", "A check needs the code of its hold point.");
    if (!c.gap_of) {
        for (const PointId id : {c.from, c.to})
            if (!id || b.points.at(id).subject != the_chassis)
                return bad(c.step, "A check goes between two points of the chassis.");
        if (c.from == c.to) return bad(c.step, "A check goes between two different points.");
    }
    if (c.value.provenance == Provenance::Assumed)
        return bad(c.step, "A check must be read, not assumed.", "Leave the question mark out once you have read it.");
    if (c.kind != ReadingKind::Tape && c.kind != ReadingKind::Level) return bad(c.step, "A check is a distance or a level.");
    if (c.kind == ReadingKind::Tape && c.value.value < 0) return bad(c.step, "A distance must be above 0.");
    return {};
}

} // namespace gorvet::build
