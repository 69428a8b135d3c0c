#include "entry/reader.hpp"

#include <algorithm>
#include <map>

namespace gorvet::entry {

void Reader::mount() {
    std::vector<PointId> list;
    if (line_.take("all")) {
        for (const PointId id : withRole(the_body, Role::BodyMount)) list.push_back(id);
        if (list.empty())
            throw Failure{0, "No point of the body has the role body-mount.", "Give them the role on Tape: role Ml body-mount."};
    } else {
        for (const Point* p : points(the_body)) list.push_back(p->id);
        if (list.empty()) known(the_body, line_.next("the mount's body point"));
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

void Reader::biscuit() {
    MountDesign d = b_.mount_design;
    d.biscuit_free = lengthUpTo({"squash"}, "the biscuit's free height");
    if (line_.take("squash")) {
        Word typed = line_.next("the squash in %");
        std::string text = typed.text;
        const bool assumed = !text.empty() && text.back() == '?';
        if (assumed) text.pop_back();
        if (!text.empty() && text.back() == '%') text.pop_back();
        auto parsed = units::parse(text, units::Kind::Length, units::Unit::Millimetre);
        if (!parsed || !parsed->bare || parsed->value < 0 || parsed->value > 50)
            throw Failure{typed.column, "The squash is 0 to 50 % of the free height.", "Like: biscuit 25 squash 15%"};
        d.biscuit_squash = {parsed->value / 100, typed.text, assumed ? Provenance::Assumed : Provenance::Measured};
    }
    put(Set<MountDesign>{d});
    say(fmt::format("biscuit {} free, squashed {} %", show(d.biscuit_free), units::fixed(100 * d.biscuit_squash.value, 0)));
}

void Reader::mountFigure() {
    MountDesign d = b_.mount_design;
    Dimension& target = command_ == "washer"          ? d.washer
                        : command_ == "floor"         ? d.body_thickness
                        : command_ == "standoff-step" ? d.standoff_step
                                                      : d.bolt;
    target = lengthUpTo({}, "the length");
    const std::string shown = show(target);
    put(Set<MountDesign>{d});
    say(fmt::format("mounts: {} {}", command_, shown));
}

void Reader::grip() {
    MountDesign d = b_.mount_design;
    d.grip = oneOf<Grip>("wall or through");
    put(Set<MountDesign>{d});
    say(d.grip == Grip::Wall ? "mount bolts go through the rail's wall" : "mount bolts go through the whole rail");
}

Crossmember Reader::needCrossmember() const {
    if (!b_.crossmember) throw Failure{0, "There is no crossmember yet.", "Type crossmember first."};
    return *b_.crossmember;
}

void Reader::crossmember() {
    if (line_.take("form")) {
        Crossmember c = needCrossmember();
        c.form = oneOf<CrossmemberForm>("straight or dropped");
        put(Set<std::optional<Crossmember>>{c});
        return say(fmt::format("crossmember: {}", word(c.form)));
    }
    if (line_.take("load")) {
        Crossmember c = needCrossmember();
        static constexpr double most_N = 500'000;
        const auto column = line_.endColumn();
        c.load = countNext("what stands on it at the most, in newtons");
        if (c.load->value < 1 || c.load->value > most_N)
            throw Failure{column, fmt::format("A load of {:g} N can't be.", c.load->value),
                          fmt::format("It is 1 to {:g} N.", most_N)};
        put(Set<std::optional<Crossmember>>{c});
        return say(fmt::format("crossmember carries {:g} N", c.load->value));
    }
    if (line_.take("fixing")) {
        Crossmember c = needCrossmember();
        c.fixing = oneOf<Fixing>("through or captive");
        put(Set<std::optional<Crossmember>>{c});
        return say(c.fixing == Fixing::Through ? "crossmember bolts go through the rail"
                                               : "crossmember bolts go into captive nuts");
    }
    Crossmember c = b_.crossmember.value_or(Crossmember{});
    if (!line_.atEnd()) {
        c.gearbox_mount = known(the_chassis, line_.next("the gearbox mount")).id;
    } else {
        const Point* mount = pointWithRole(b_, the_chassis, Role::GearboxMount);
        if (!mount)
            throw Failure{line_.endColumn(), "No point of the chassis has the role gearbox-mount.",
                          "Name the point, or give it the role on Tape."};
        c.gearbox_mount = mount->id;
    }
    put(Set<std::optional<Crossmember>>{c});
    say(fmt::format("crossmember under {}", nameOf(b_, c.gearbox_mount)));
}

void Reader::crossmemberFigure() {
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

void Reader::panClearance() {
    Crossmember c = needCrossmember();
    c.pan_clearance = lengthUpTo({}, "the least clearance to the gearbox pan");
    const std::string shown = show(c.pan_clearance);
    put(Set<std::optional<Crossmember>>{c});
    say(fmt::format("gearbox pan {} clear", shown));
}

void Reader::padHoles() {
    Crossmember c = needCrossmember();
    c.pad_hole_pitch = lengthWord("the pitch of the holes");
    if (!line_.atEnd()) c.pad_hole = lengthWord("the hole's diameter");
    put(Set<std::optional<Crossmember>>{c});
    say(fmt::format("pad holes {} apart, {}", show(c.pad_hole_pitch), show(c.pad_hole)));
}

void Reader::box() {
    Crossmember c = needCrossmember();
    for (Dimension* d : {&c.box_width, &c.box_height, &c.box_wall}) {
        while (line_.take("x") || line_.take("×")) {}
        if (line_.atEnd()) throw Failure{line_.endColumn(), "A box is width, height and wall.", "Like: box 60 x 40 x 3"};
        *d = lengthWord("the box's size");
    }
    put(Set<std::optional<Crossmember>>{c});
    say(fmt::format("crossmember box {} × {} × {}", units::fixed(c.box_width.value, 1), units::fixed(c.box_height.value, 1),
                    units::fixed(c.box_wall.value, 1)));
}

void Reader::removeCrossmember(const Word&) {
    put(Set<std::optional<Crossmember>>{});
    say("remove the crossmember");
}

void Reader::removeMount(const Word& what) {
    const Point& p = known(the_body, line_.next("the mount's body point"));
    for (const auto& [id, mount] : b_.mounts)
        if (mount.body_point == p.id) put(Drop<Mount>{id});
    if (out_.edit.changes.empty()) throw Failure{what.column, fmt::format("{} has no mount.", p.name), ""};
    say(fmt::format("remove the mount {}", p.name));
}

} // namespace gorvet::entry
