// Wheels, hubs, what stands beside them; axles on the bench.
#include "build/rules.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::build {

namespace {

std::string wheelName(const WheelSet& w) { return fmt::format("rim {} {}", word(w.end), word(w.as)); }

/// A number of studs, and how they are said to stand.
Checked pattern(const std::string& of, const std::optional<Dimension>& studs, const std::optional<Dimension>& chord,
                bool next_but_one) {
    if (studs && std::abs(studs->value - std::round(studs->value)) > 1e-9)
        return bad(of, fmt::format("{:g} studs: they are counted whole.", studs->value));
    if (chord && !studs) return bad(of, "From stud to stud says nothing before they are counted.", "Like: studs 5 chord 67.2.");
    if (next_but_one && studs && studs->value < 5)
        return bad(of, "With fewer than five studs the next but one stands across: measure that, and say circle.");
    return {};
}

} // namespace

Checked rules(const Build&, const WheelSet& w) {
    const std::string of = wheelName(w);
    if (auto ok = pattern(of, w.studs, w.chord, w.next_but_one); !ok) return ok;
    if (w.over_lips && w.over_lips->value < w.width.value)
        return bad(
            of, fmt::format("{:g} mm over the lips is less than {:g} between the bead seats.", w.over_lips->value, w.width.value),
            "The width of a rim is said between the seats of the beads; over its lips it is about 25 mm more.");
    if (w.inside && w.inside->value >= w.diameter.value)
        return bad(of, fmt::format("{:g} mm of room inside does not fit into a rim of {:g}.", w.inside->value, w.diameter.value));
    if (w.aspect && !w.tyre) return bad(of, "The height of a tyre's side is said with its width.", "Like: tyre 195 aspect 65.");
    if (w.outside && w.outside->value <= w.diameter.value)
        return bad(of, fmt::format("A tyre of {:g} mm does not go round a rim of {:g}.", w.outside->value, w.diameter.value),
                   "The tyre's is its outside diameter.");
    return {};
}

Checked rules(const Build&, const Hub& h) {
    return pattern(fmt::format("hub {}", word(h.end)), h.studs, h.chord, h.next_but_one);
}

Checked rules(const Build& b, const WheelRoom& r) {
    if (r.point) {
        const SubjectId s = b.points.at(r.point).subject;
        if (s != the_chassis && s != the_body)
            return bad(r.name, fmt::format("{} is of the {}: what stands beside a wheel is marked on the body or the chassis.",
                                           nameOf(b, r.point), nameOf(b, s)));
        if ((s == the_body) != (r.on == RoomOn::Body))
            return bad(r.name, fmt::format("{} is of the {}, and {} is said to be part of the {}.", nameOf(b, r.point),
                                           nameOf(b, s), r.name, word(r.on)));
        if (r.out || r.up || r.ahead) return bad(r.name, "It is said by a marked point or taped from the wheel, not both.");
        return {};
    }
    if (!r.out || !r.up)
        return bad(
            r.name, "How far out and how high over the wheel's centre it stands is missing.",
            fmt::format("Like: room {} {} out 92 up 310, or: room {} {} at Al.", r.name, word(r.end), r.name, word(r.end)));
    return {};
}

Checked rules(const Build&, const DialTurn& t) {
    const std::string of = fmt::format("dial {} {}", word(t.wheel), word(t.way));
    if (t.readings.size() < 4 || t.readings.size() > 72)
        return bad(of, fmt::format("{} readings of a turn: 4 to 72 are wanted.", t.readings.size()),
                   "Eight equal steps from the valve do well.");
    return {};
}

Checked rules(const Build&, const Widening& w) {
    if (2 * w.sheet.value >= w.barrel.value)
        return bad(fmt::format("widen {}", word(w.end)),
                   fmt::format("Sheet of {:g} mm does not go round {:g}.", w.sheet.value, w.barrel.value),
                   "The barrel's outside comes first.");
    return {};
}

Checked rules(const Build&, const Adaptor& a) {
    const std::string of = fmt::format("adaptor {}", word(a.end));
    if (a.nut_across && a.nut_across->value <= a.hub_hole.value)
        return bad(of, fmt::format("A sunk hole of {:g} mm is no wider than the stud's of {:g}.", a.nut_across->value,
                                   a.hub_hole.value));
    if (a.nut_deep.value >= a.thick.value)
        return bad(of, fmt::format("A hole sunk by {:g} mm goes through a plate of {:g}.", a.nut_deep.value, a.thick.value));
    return {};
}

Checked rules(const Build& b, const AxleBracket& a) {
    for (const PointId id : {a.point, a.frame})
        if (id && b.points.at(id).subject != the_chassis)
            return bad(a.name, fmt::format("{} is of the {}: an axle's brackets are marked on the chassis.", nameOf(b, id),
                                           nameOf(b, b.points.at(id).subject)));
    if (a.point && (a.right || a.ahead || a.up))
        return bad(a.name, "It is said by a marked point or by three figures, not both.");
    if (!a.point && (!a.right || !a.up))
        return bad(a.name, "Where it shall be is missing.",
                   fmt::format("Like: bracket {0} {1} {2} right -420 ahead -60 up -80, or: bracket {0} {1} {2} at Sl.", a.name,
                               word(a.end), word(a.kind)));
    if (a.open && a.closed && a.open->value <= a.closed->value)
        return bad(a.name, fmt::format("Drawn out {:g} mm, pushed together {:g}: the shorter comes first.", a.open->value,
                                       a.closed->value));
    return {};
}

Checked rules(const Build&, const GearReading& g) {
    const std::string of = fmt::format("gears {} {}", word(g.axle), word(g.check));
    if (g.axle == Carrier::Frame) return bad(of, "Gears are read at an axle.");
    if (g.readings.empty())
        return bad(of, "What was read is missing.", "Like: gears rear-axle backlash 0.14 0.16 0.15 0.13 least 0.10 most 0.20.");
    if (g.least && g.most && g.least->value > g.most->value)
        return bad(of, fmt::format("At least {:g} and at most {:g} leaves nothing.", g.least->value, g.most->value));
    return {};
}

} // namespace gorvet::build
