// What drives the wheels and what carries them.
#include "build/rules.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::build {

namespace {

Checked ofChassis(const Build& b, const std::string& of, PointId id) {
    if (id && b.points.at(id).subject != the_chassis)
        return bad(of, fmt::format("{} is of the {}: the drive line is marked on the chassis.", nameOf(b, id),
                                   nameOf(b, b.points.at(id).subject)));
    return {};
}

/// Whether a shaft begins, and whether one ends there.
bool begins(DriveEndKind k) { return k == DriveEndKind::Output || k == DriveEndKind::Through || k == DriveEndKind::Bearing; }
/// Whether the plan puts it elsewhere.
bool moves(const DriveEnd& e) { return e.turned.value != 0 || e.raised.value != 0 || e.aside.value != 0 || e.back.value != 0; }
bool ends(DriveEndKind k) { return k == DriveEndKind::Input || k == DriveEndKind::Pinion || k == DriveEndKind::Bearing; }

} // namespace

Checked rules(const Build& b, const DriveEnd& e) {
    for (const PointId id : {e.point, e.fore, e.aft})
        if (auto ok = ofChassis(b, e.name, id); !ok) return ok;
    const bool placed = e.station && e.up;
    if (!e.point && !placed)
        return bad(e.name, "Where its joint is is missing.",
                   fmt::format("Like: {} {} at Gx slope 3.1deg, or: at station 1420 right 0 up 310.", word(e.kind), e.name));
    if (static_cast<bool>(e.fore) != static_cast<bool>(e.aft) || (e.fore && e.fore == e.aft))
        return bad(e.name, "Its line runs through two points, the front one first.");
    if (e.fore && e.slope) return bad(e.name, "Its line is said by two points or by its slope, not by both.");
    if (!e.housing.empty() && e.kind == DriveEndKind::Bearing)
        return bad(e.name, "A centre bearing stands by itself: it is in no housing.");
    for (const auto& [id, mate] : b.drive_ends) {
        if (id == e.id || e.housing.empty() || mate.housing != e.housing) continue;
        if (mate.on != e.on)
            return bad(e.name, fmt::format("{} and {} are in one housing: both move with the {}, or both with the {}.", mate.name,
                                           e.name, word(mate.on), word(e.on)));
        if (moves(e) && moves(mate))
            return bad(
                e.name,
                fmt::format("{} is in the same housing {}, and is moved already: {} goes with it.", mate.name, e.housing, e.name),
                fmt::format("Move it by {} alone: {} {} turn 1deg raise 5.", mate.name, word(mate.kind), mate.name));
    }
    for (const auto& [id, shaft] : b.shafts) {
        if (shaft.from == e.id && !begins(e.kind))
            return bad(e.name, fmt::format("{} begins here: it is no {}.", shaft.name, word(e.kind)));
        if (shaft.to == e.id && !ends(e.kind))
            return bad(e.name, fmt::format("{} ends here: it is no {}.", shaft.name, word(e.kind)));
    }
    return {};
}

Checked rules(const Build& b, const Shaft& s) {
    if (s.from == s.to) return bad(s.name, "A shaft runs from one end to another.");
    const DriveEnd &from = b.drive_ends.at(s.from), &to = b.drive_ends.at(s.to);
    if (!begins(from.kind))
        return bad(s.name, fmt::format("{} is where a shaft ends, not where one begins.", from.name),
                   "The front end of a shaft is an output, a bearing, or the through end of an axle.");
    if (!ends(to.kind))
        return bad(s.name, fmt::format("{} is where a shaft begins, not where one ends.", to.name),
                   "A shaft ends at a bearing, an input or a pinion.");
    for (const auto& [id, other] : b.shafts) {
        if (id == s.id) continue;
        if (other.from == s.from) return bad(s.name, fmt::format("{} begins at {} already.", other.name, from.name));
        if (other.to == s.to) return bad(s.name, fmt::format("{} ends at {} already.", other.name, to.name));
    }
    DriveEndId at = s.to; // no way round in a circle: whoever follows the shafts comes to an end
    for (std::size_t k = 0; k <= b.shafts.size(); ++k) {
        const auto next = std::find_if(b.shafts.begin(), b.shafts.end(),
                                       [&](const auto& row) { return row.first != s.id && row.second.from == at; });
        if (next == b.shafts.end()) break;
        at = next->second.to;
        if (at == s.from) return bad(s.name, "These shafts run in a circle.");
    }
    if (s.tube.has_value() != s.wall.has_value())
        return bad(s.name, "A tube is said by its outside and its wall.", fmt::format("Like: shaft {} tube 76 2.5.", s.name));
    if (s.tube && 2 * s.wall->value >= s.tube->value)
        return bad(s.name, fmt::format("A wall of {:g} mm does not fit into {:g}.", s.wall->value, s.tube->value),
                   "The outside comes first, the wall after it.");
    return {};
}

Checked rules(const Build&, const LevelReading& l) {
    const bool end = l.on == LevelOn::Unit, shaft = l.on == LevelOn::Shaft;
    if (static_cast<bool>(l.end) != end || static_cast<bool>(l.shaft) != shaft)
        return bad("level", "A level lies on the frame, on one unit, or on one shaft.",
                   "Like: level-on frame 0.6deg down-front.");
    return {};
}

Checked rules(const Build& b, const Link& l) {
    const std::size_t needs = pointsOf(l.kind).size();
    if (l.points.size() != needs)
        return bad(l.name, fmt::format("A {} has {} points: {}.", word(l.kind), needs, fmt::join(pointsOf(l.kind), ", ")),
                   "Name them in that order.");
    for (const PointId id : l.points) {
        if (auto ok = ofChassis(b, l.name, id); !ok) return ok;
        if (std::count(l.points.begin(), l.points.end(), id) > 1)
            return bad(l.name, fmt::format("{} stands twice in it.", nameOf(b, id)));
    }
    const bool axle = l.of == Hung::FrontAxle || l.of == Hung::RearAxle;
    if ((l.kind == LinkKind::Leaf || l.kind == LinkKind::Watts) && !axle)
        return bad(l.name, fmt::format("A {} carries an axle, not one wheel.", word(l.kind)));
    if ((l.kind == LinkKind::Strut || l.kind == LinkKind::Wishbone || l.kind == LinkKind::Hinge) && axle)
        return bad(l.name, fmt::format("A {} carries one wheel, not an axle.", word(l.kind)),
                   fmt::format("Like: link {} rear-left {} …", l.name, word(l.kind)));
    // what stands on it keeps its kind and its end of the car
    for (const auto& [id, holes] : b.link_holes)
        if (holes.link == l.id && l.kind != LinkKind::Rod && l.kind != LinkKind::TieRod)
            return bad(l.name, fmt::format("It has a row of holes: that is for the end of a rod, not of a {}.", word(l.kind)),
                       fmt::format("Take the holes away first: remove link-holes {} {}.", l.name, word(holes.at)));
    for (const auto& [id, spring] : b.springs) {
        if (spring.on != l.id) continue;
        const bool front = l.of == Hung::FrontAxle || l.of == Hung::FrontLeft || l.of == Hung::FrontRight;
        if (front != (spring.end == AxleEnd::Front) || (l.kind != LinkKind::Rod && l.kind != LinkKind::Wishbone))
            return bad(l.name,
                       fmt::format("The {} spring stands on it: it stays a rod or a wishbone of that end.", word(spring.end)),
                       fmt::format("Take the spring away first: remove spring {}.", word(spring.end)));
    }
    return {};
}

std::span<const std::string_view> pointsOf(LinkKind kind) {
    static constexpr std::string_view rod[] = {"on the frame", "on the axle"};
    static constexpr std::string_view wishbone[] = {"front pivot on the frame", "rear pivot on the frame", "outer joint"};
    static constexpr std::string_view hinge[] = {"one end of its pivot line", "the other end"};
    static constexpr std::string_view strut[] = {"top mount", "foot"};
    static constexpr std::string_view leaf[] = {"front eye", "seat on the axle", "rear eye", "shackle's pivot on the frame"};
    static constexpr std::string_view watts[] = {"pivot on the axle", "left rod on the frame", "left end of the rocker",
                                                 "right rod on the frame", "right end of the rocker"};
    static constexpr std::string_view tie[] = {"inner end", "outer end on the steering arm"};
    switch (kind) {
    case LinkKind::Rod: return rod;
    case LinkKind::Wishbone: return wishbone;
    case LinkKind::Hinge: return hinge;
    case LinkKind::Strut: return strut;
    case LinkKind::Leaf: return leaf;
    case LinkKind::Watts: return watts;
    case LinkKind::TieRod: return tie;
    }
    return rod;
}

} // namespace gorvet::build
