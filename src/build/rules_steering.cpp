// Steering columns and gears, pipes and lines, springs, rows of holes, pedals.
#include "build/rules.hpp"
#include "build/rules_points.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::build {

namespace {

Checked ofTheChassis(const Build& b, const std::string& of, std::initializer_list<PointId> points) {
    for (const PointId id : points)
        if (id && b.points.at(id).subject != the_chassis)
            return bad(of, fmt::format("{} is of the {}: it is marked on the chassis.", nameOf(b, id),
                                       nameOf(b, b.points.at(id).subject)));
    return {};
}
Checked whole(const std::string& of, const std::optional<Dimension>& count, const char* what) {
    if (count && std::abs(count->value - std::round(count->value)) > 1e-9)
        return bad(of, fmt::format("{:g} {}: they are counted whole.", count->value, what));
    return {};
}

} // namespace

Checked rules(const Build& b, const SteeringColumn& c) {
    constexpr const char* like = "Like: column steering through Wh Ja Jb Sg across 19.";
    if (c.points.size() < 3)
        return bad(c.name, "It runs through the hand wheel's hub, each joint in order, and a place on the gear's own shaft.",
                   like);
    if (twice(c.points)) return bad(c.name, "It runs through a point twice.", like);
    for (const auto* list : {&c.points, &c.bearings, &c.bulkhead})
        if (auto ok = inTheCar(b, c.name, *list); !ok) return ok;
    const std::size_t shafts = c.points.size() - 3; // between two joints
    if (!c.phases.empty() && c.phases.size() != shafts)
        return bad(c.name, fmt::format("{} between two joints, and {} said of how their forks stand.",
                                       units::counted(shafts, "shaft"), units::counted(c.phases.size(), "figure")));
    if (!c.bulkhead.empty() && (c.bulkhead.size() != 3 || twice(c.bulkhead)))
        return bad(c.name, "The sheet that it passes is said by three places of it.", "Like: column steering bulkhead Ba Bb Bc.");
    return {};
}

Checked rules(const Build& b, const SteeringGear& g) {
    if (std::find(g.holes.begin(), g.holes.end(), PointId{}) != g.holes.end()) return bad(g.name, "One of its holes is none.");
    for (const PointId id : g.holes)
        if (auto ok = ofTheChassis(b, g.name, {id}); !ok) return ok;
    if (auto ok = ofTheChassis(b, g.name, {g.pivot, g.ball}); !ok) return ok;
    if (twice(g.holes)) return bad(g.name, "A hole is named twice.");
    if (!g.holes.empty() && g.holes.size() < 2) return bad(g.name, "One bolt holds no steering gear.");
    if (static_cast<bool>(g.pivot) != static_cast<bool>(g.ball) || (g.pivot && g.pivot == g.ball))
        return bad(g.name, "Its arm runs from a place on its shaft to the ball at its end.",
                   "Like: steer-gear box-1 box arm Pv Pb swing 38deg.");
    if (g.kind == SteerKind::Rack && (g.pivot || g.swing))
        return bad(g.name, "A rack slides: an arm has a box.", "Like: steer-gear rack-1 rack each-way 72 turns 3.2.");
    if (g.kind == SteerKind::Box && g.each_way)
        return bad(g.name, "A box swings its arm: say by how much.", "Like: steer-gear box-1 box arm Pv Pb swing 38deg.");
    return {};
}

Checked rules(const Build& b, const Run& r) {
    if (r.points.empty()) return bad(r.name, "Where it runs is missing.", "Like: run downpipe exhaust through Ea Eb across 50.");
    if (twice(r.points)) return bad(r.name, "It runs through a point twice.");
    if (auto ok = inTheCar(b, r.name, r.points); !ok) return ok;
    if (r.length && r.points.size() < 2)
        return bad(r.name, "How long it is counts between its first and its last point, and it has one point only.");
    if (r.last_on != Carrier::Frame && b.points.at(r.points.back()).subject != the_chassis)
        return bad(r.name, fmt::format("{} moves with an axle: it is marked on the chassis.", nameOf(b, r.points.back())));
    return {};
}

Checked rules(const Build& b, const Spring& s) {
    const std::string of = fmt::format("spring {}", word(s.end));
    if (auto ok = ofTheChassis(b, of, {s.foot, s.top}); !ok) return ok;
    if (static_cast<bool>(s.foot) != static_cast<bool>(s.top) || (s.foot && s.foot == s.top))
        return bad(of, "It stands between two places: its foot on what moves, its top on the frame.");
    const bool twists = s.form == SpringForm::Torsion;
    if (twists && s.rate)
        return bad(of, "A torsion bar's rate is worked out from its bar.", "Like: spring rear torsion bar 22 long 560 arm 310.");
    if (!twists && (s.bar || s.inside || s.length || s.arm))
        return bad(of, fmt::format("Bar and arm are of a torsion bar, not of a {} spring.", word(s.form)));
    if (s.inside && (!s.bar || s.inside->value >= s.bar->value))
        return bad(of, "The inside of a bar is smaller than its outside.");
    if (s.stop_rate && !s.stop)
        return bad(of, "How hard its bump stop is counts from where it touches.",
                   fmt::format("Like: spring {} {} stop 45 stop-rate 120.", word(s.end), word(s.form)));
    if (s.on) {
        const Link& l = b.links.at(s.on);
        const bool front = l.of == Hung::FrontAxle || l.of == Hung::FrontLeft || l.of == Hung::FrontRight;
        if (front != (s.end == AxleEnd::Front)) return bad(of, fmt::format("{} carries the other end of the car.", l.name));
        if (l.kind != LinkKind::Rod && l.kind != LinkKind::Wishbone)
            return bad(of, fmt::format("A spring stands on a rod or a wishbone, not on a {}.", word(l.kind)));
    }
    return {};
}

Checked rules(const Build& b, const LinkHoles& h) {
    const Link& l = b.links.at(h.link);
    const std::string of = fmt::format("holes of {}", l.name);
    if (l.kind != LinkKind::Rod && l.kind != LinkKind::TieRod)
        return bad(of, fmt::format("A row of holes is for the end of a rod, not of a {}.", word(l.kind)));
    if (auto ok = whole(of, h.above, "holes"); !ok) return ok;
    if (auto ok = whole(of, h.below, "holes"); !ok) return ok;
    if (h.above.value + h.below.value < 1)
        return bad(of, "A row has more than one hole.", "Like: link-holes lower-left frame pitch 25 above 1 below 2.");
    if (h.hole && h.hole->value >= h.pitch.value)
        return bad(of, fmt::format("Holes of {:g} mm every {:g} run into each other.", h.hole->value, h.pitch.value));
    return {};
}

Checked rules(const Build&, const Pedal& p) {
    const std::string of = fmt::format("{} pedal", word(p.kind));
    if (p.lever && p.arm && p.arm->value >= p.lever->value)
        return bad(of, fmt::format("Its push rod sits {:g} mm from the pivot, its pad {:g}: the pad is farther.", p.arm->value,
                                   p.lever->value));
    return {};
}

} // namespace gorvet::build
