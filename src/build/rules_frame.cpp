// What the frame is made of, and how it is loaded.
#include "build/rules.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::build {
namespace {

/// Windows of a plate, the pitch of ribs: what goes with what.
Checked rowsOf(const Member& m) {
    const bool plate = m.kind == MemberKind::Plate, rib = m.kind == MemberKind::Rib;
    if (m.window_long.has_value() != m.window_high.has_value() || (m.window_long && !m.pitch))
        return bad(m.name, "Windows are said by their length, their height and their pitch.",
                   fmt::format("Like: member {} plate from 400 to 900 3 windows 60 50 pitch 100.", m.name));
    if (m.window_long && !plate) return bad(m.name, "Only a plate has windows.");
    if (m.pitch && !m.window_long && !rib) return bad(m.name, "Only windows and ribs have a pitch.");
    constexpr double least_post_mm = 10;
    if (m.window_long && m.window_long->value + least_post_mm > m.pitch->value)
        return bad(m.name,
                   fmt::format("Windows {:g} long, one every {:g}, leave no post of {:g} mm between them.", m.window_long->value,
                               m.pitch->value, least_post_mm),
                   "Make them shorter, or further from each other.");
    if (!rib) return {};
    if (!m.pitch)
        return bad(m.name, "How far from each other the ribs stand is missing.",
                   fmt::format("Like: member {} rib from 400 to 1600 4 pitch 300.", m.name));
    constexpr double most_ribs = 200;
    if (m.station && m.until && (m.until->value - m.station->value) / m.pitch->value > most_ribs)
        return bad(m.name, fmt::format("That is more than {:g} ribs.", most_ribs), "Make the pitch longer.");
    if (m.form != SectionForm::Flat && m.form != SectionForm::Box && m.form != SectionForm::Tube)
        return bad(m.name, fmt::format("A rib is flat, or a box or tube that stands upright; not {}.", word(m.form)),
                   fmt::format("Like: member {} rib from 400 to 1600 box 30 30 2 pitch 300.", m.name));
    return {};
}

/// Sizes that make a section of that form.
Checked sizesOf(const Member& m) {
    const double h = m.height.value, w = m.width.value, t = m.wall.value;
    const bool round = m.form == SectionForm::Tube, flat = m.form == SectionForm::Flat;
    if (m.form == SectionForm::BuiltUp) {
        constexpr std::size_t figures = 5;
        if (m.walls_mm.empty() || m.walls_mm.size() % figures != 0)
            return bad(m.name, "A built-up section is said wall by wall: from y and z to y and z, and how thick it is.",
                       fmt::format("Like: member {} crossmember at 300 built-up 0 0 80 0 3 80 0 80 50 3.", m.name));
        for (std::size_t k = 0; k < m.walls_mm.size(); k += figures)
            if (m.walls_mm[k + 4] <= 0 ||
                std::hypot(m.walls_mm[k + 2] - m.walls_mm[k], m.walls_mm[k + 3] - m.walls_mm[k + 1]) <= 0)
                return bad(m.name, fmt::format("Wall {} has no length or no thickness.", k / figures + 1), "Leave it out.");
        return {};
    }
    if (!m.walls_mm.empty()) return bad(m.name, "Only a built-up section is said wall by wall.");
    if (m.kind == MemberKind::Plate || (m.kind == MemberKind::Rib && flat)) {
        if (t <= 0)
            return bad(m.name, fmt::format("How thick the {} is is missing.", word(m.kind)),
                       fmt::format("Like: member {} {} from 400 to 900 3{}.", m.name, word(m.kind),
                                   m.kind == MemberKind::Rib ? " pitch 300" : ""));
        return {};
    }
    if (h <= 0 || t <= 0 || (!round && !flat && w <= 0))
        return bad(m.name, fmt::format("A {} needs its sizes.", word(m.form)),
                   fmt::format("Like: member {} crossmember at 300 box 60 40 3.", m.name));
    const bool hollow = round || m.form == SectionForm::Box || m.form == SectionForm::Nested;
    const double least = flat ? 1e9 : round ? h : std::min(h, w);
    if (t * (hollow ? 2 : 1) >= least)
        return bad(m.name, fmt::format("A wall of {:g} mm does not fit into {:g}.", t, least),
                   "The outside comes first, the wall after it.");
    const bool other = m.form == SectionForm::Hat || m.form == SectionForm::Nested || m.form == SectionForm::Boxed;
    if (other != m.other.has_value())
        return bad(m.name, other ? fmt::format("A {} section needs one figure more: {}.", word(m.form),
                                               m.form == SectionForm::Hat      ? "how wide its flanges are"
                                               : m.form == SectionForm::Nested ? "how far the two lie on each other"
                                                                               : "how thick the plate is that closes it")
                                 : fmt::format("A {} section has no fourth figure.", word(m.form)));
    return {};
}

} // namespace

Checked rules(const Build& b, const Member& m) {
    if (auto ok = rowsOf(m); !ok) return ok;
    if (auto ok = sizesOf(m); !ok) return ok;
    for (const PointId id : m.points) {
        const SubjectId of = b.points.at(id).subject, first = b.points.at(m.points.front()).subject;
        if (of == the_body)
            return bad(m.name,
                       fmt::format("{} is of the {}: a member of the frame runs through points of the chassis, or of a piece "
                                   "that is joined to it.",
                                   nameOf(b, id), nameOf(b, of)));
        if (of != first)
            return bad(m.name, fmt::format("{} is of the {}, {} of the {}: a member runs through points of one of them.",
                                           nameOf(b, m.points.front()), nameOf(b, first), nameOf(b, id), nameOf(b, of)));
    }
    const bool along = m.kind == MemberKind::Rail || m.kind == MemberKind::Plate || m.kind == MemberKind::Rib;
    if (along && (!m.station || !m.until || !m.points.empty()))
        return bad(m.name, fmt::format("A {} runs along the rail from one station to another.", word(m.kind)),
                   fmt::format("Like: member {} {} from 400 to 900 …", m.name, word(m.kind)));
    if (m.station && m.until && m.station->value >= m.until->value)
        return bad(m.name, "It ends behind the station where it begins.");
    if (!along && m.points.size() == 1)
        return bad(m.name, "A member runs through two points at the least, or is placed by a station.");
    if (!along && m.points.empty() && !m.station)
        return bad(m.name, "Where it is is missing.",
                   fmt::format("Like: member {} {} at 300 …, or: through Al Ar …", m.name, word(m.kind)));
    if (m.points.empty() && !along && m.kind != MemberKind::Crossmember && !m.until)
        return bad(m.name, fmt::format("A {} runs through marked points, or along the middle from one station to another.",
                                       word(m.kind)));
    return {};
}

Checked rules(const Build&, const LoadCase& c) {
    if (c.left_out) return {};
    if (c.up_g == 0 && c.braking_g == 0 && c.cornering_g == 0)
        return bad(c.name, "A case without any load asks nothing.", "Like: case pothole up 4, or: case bump off.");
    return {};
}

Checked rules(const Build& b, const Graft& g) {
    if (g.piece == the_body || g.piece == the_chassis)
        return bad(
            g.name,
            fmt::format("A piece of another frame is not the {}: it is surveyed as a subject of its own.", nameOf(b, g.piece)),
            "Like: subject clip component.");
    for (const auto& [id, pin] : b.graft_pins)
        if (pin.graft == g.id)
            for (const PointId point : pin.points)
                if (const auto at = b.points.find(point); at != b.points.end() && at->second.subject != g.piece)
                    return bad(g.name, fmt::format("Its pins name points of the {}.", nameOf(b, at->second.subject)),
                               fmt::format("Remove them first: remove graft {} pin station.", g.name));
    if (g.height.value > 0 && (2 * g.wall.value >= g.height.value || 2 * g.wall.value >= g.width.value))
        return bad(g.name,
                   fmt::format("A wall of {:g} mm does not fit into {:g} × {:g}.", g.wall.value, g.height.value, g.width.value),
                   "Height and width outside come first, the wall after them.");
    return {};
}

Checked rules(const Build& b, const GraftPin& pin) {
    const Graft& g = b.grafts.at(pin.graft);
    if (pin.points.empty())
        return bad(g.name, "A pin names no point.", fmt::format("Like: graft {} pin station FL FR 0.", g.name));
    for (const PointId id : pin.points)
        if (b.points.at(id).subject != g.piece)
            return bad(g.name, fmt::format("{} is of the {}: {} is set by its own points.", nameOf(b, id),
                                           nameOf(b, b.points.at(id).subject), g.name));
    if (pin.kind == GraftPinKind::Centred && pin.points.size() != 2)
        return bad(g.name, "Centred is a left and a right point.", fmt::format("Like: graft {} pin centred FL FR.", g.name));
    return {};
}

Checked rules(const Build&, const Narrowing& n) {
    if (n.lap && n.lap->value > 0 && n.lap->value >= n.by.value)
        return bad("narrow",
                   fmt::format("Sheets can't lie {:g} mm on each other where {:g} mm come out on each side.", n.lap->value,
                               n.by.value / 2),
                   "Make the lap shorter: narrow lap 20, or 0 for a butt.");
    return {};
}

Checked rules(const Build& b, const FloorEdge& e) {
    const std::string like = fmt::format("Like: floor-edge {} from Bl Cl Dl to Sl Tl.", e.name);
    if (e.edge.size() < 2 || e.sill.size() < 2)
        return bad(e.name, "An edge and a sill run through two points each, at the least.", like);
    for (const PointId id : e.edge)
        if (b.points.at(id).subject != the_chassis)
            return bad(e.name,
                       fmt::format("{} is of the {}: the edge that reaches out is of the chassis.", nameOf(b, id),
                                   nameOf(b, b.points.at(id).subject)),
                       like);
    for (const PointId id : e.sill)
        if (const SubjectId of = b.points.at(id).subject; of != the_body && of != the_chassis)
            return bad(
                e.name,
                fmt::format("{} is of the {}: a sill is of the body, or marked on the chassis.", nameOf(b, id), nameOf(b, of)),
                like);
    const double h = e.height.value, w = e.width.value, t = e.wall.value;
    if ((h > 0) != (w > 0) || (h > 0) != (t > 0) || (h > 0 && (2 * t >= h || 2 * t >= w)))
        return bad(e.name, fmt::format("Outriggers of {:g} × {:g} × {:g} are no box.", h, w, t),
                   fmt::format("Height and width outside, then the wall: floor-edge {} outriggers 50 30 2 pitch 400.", e.name));
    if (e.pitch && h <= 0)
        return bad(e.name, "How big its outriggers are is missing.",
                   fmt::format("Like: floor-edge {} outriggers 50 30 2 pitch 400.", e.name));
    return {};
}

Checked rules(const Build&, const RailHole& h) {
    if (h.fate == HoleFate::Move && !h.moved_to)
        return bad(h.name, "Where it is made anew is missing.", fmt::format("Like: rail-hole {} move 1480.", h.name));
    if (h.moved_to && h.fate != HoleFate::Move) return bad(h.name, "Only a hole that is moved has another station.");
    return {};
}

Checked rules(const Build& b, const LetIn& l) {
    for (const PointId id : {l.front, l.rear, l.front_along, l.rear_along})
        if (id && b.points.at(id).subject != b.points.at(l.front).subject)
            return bad(l.name,
                       fmt::format("{} is of the {}, {} of the {}: both legs are of one shell.", nameOf(b, l.front),
                                   nameOf(b, b.points.at(l.front).subject), nameOf(b, id), nameOf(b, b.points.at(id).subject)),
                       "Mark them on the same subject.");
    if (l.front == l.rear || l.front == l.front_along || l.rear == l.rear_along)
        return bad(l.name, "The same point stands at two places of it.",
                   fmt::format("Like: let-in {} from Fl to Rl section 80 50 3.", l.name));
    for (const auto& [what, h, w, t] : {std::tuple{"The rail", l.height.value, l.width.value, l.wall.value},
                                        std::tuple{"The front leg", l.leg_height.value, l.leg_width.value, l.leg_wall.value},
                                        std::tuple{"The rear leg", l.tail_height.value, l.tail_width.value, l.tail_wall.value}})
        if ((h > 0) != (w > 0) || (h > 0) != (t > 0) || (h > 0 && (2 * t >= h || 2 * t >= w)))
            return bad(l.name, fmt::format("{} of {:g} × {:g} × {:g} is no box.", what, h, w, t),
                       "Height and width outside come first, the wall after them.");
    return {};
}

Checked rules(const Build&, const AxleJob& a) {
    const std::string of = fmt::format("{} axle", word(a.end));
    if (a.tube && a.tube_wall && 2 * a.tube_wall->value >= a.tube->value)
        return bad(of, fmt::format("A wall of {:g} mm does not fit into a tube of {:g}.", a.tube_wall->value, a.tube->value),
                   "The outside comes first, the wall after it.");
    if (a.splined && a.engaged && a.engaged->value > a.splined->value)
        return bad(of, fmt::format("{:g} mm of {:g} mm of splines can't stand in the gear.", a.engaged->value, a.splined->value),
                   "Splined is how far the splines reach from the shaft's inner end, engaged how much of them the gear holds.");
    const double half = a.faces.value / 2;
    if (std::abs(a.pinion.value) >= half || (a.pinion_wanted && std::abs(a.pinion_wanted->value) >= half))
        return bad(of, "The pinion stands beyond a wheel face.", "It is said from the middle between the faces, to the right.");
    for (const auto& p : {a.perches, a.perches_wanted})
        if (p && p->value + a.perch.value >= a.faces.value)
            return bad(of, "The spring perches reach beyond the wheel faces.", "Say the distance between their middles.");
    return {};
}

} // namespace gorvet::build
