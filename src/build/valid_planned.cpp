// What is planned: seat, cuts, mounts, steel, the order of work.
#include "build/valid.hpp"

#include <algorithm>

namespace gorvet::build {

Checked valid(const Build& b, const Zone& z) {
    if (auto ok = oneWord(z.name, "A zone"); !ok) return ok;
    for (const auto& [id, other] : b.zones)
        if (id != z.id && other.name == z.name)
            return bad(z.name, fmt::format("There is already a zone {}.", z.name), "Choose another name.");
    const auto between = [](double from, double to) { return std::abs(from) < 1e5 && std::abs(to) < 1e5 && from < to; };
    if (!between(z.from.x_mm, z.to.x_mm) || !between(z.from.y_mm, z.to.y_mm) || !between(z.from.z_mm, z.to.z_mm))
        return bad(z.name, "It needs two different stations, offsets and heights.");
    return {};
}

Checked valid(const Build&, const ClearanceRules& c) {
    return firstOf([&] { return finite("clearance", c.least, 0, 500, "least, mm"); },
                   [&] { return finite("clearance", c.finish, 0, 200, "finish, mm"); },
                   [&] { return finite("clearance", c.margin, 0, 500, "margin, mm"); },
                   [&] { return finite("clearance", c.flange, 0, 500, "flange, mm"); },
                   [&] { return finite("clearance", c.sheet, 0.1, 20, "sheet, mm"); },
                   [&]() -> Checked {
                       if (c.flange.value > c.margin.value)
                           return bad("clearance",
                                      "A flange stands inside the finished edge: wider than the margin, it would foul.",
                                      "Widen the margin first.");
                       return {};
                   });
}

namespace {

/// What a pin between two features needs on its far side.
Checked validFeatures(const Build& b, const Pin& p) {
    const std::string name(word(p.kind));
    const auto one = [&](const std::vector<PointId>& ids) -> Checked {
        for (const PointId id : ids)
            if (!b.points.contains(id)) return bad(name, "The pin names a point that does not exist.");
        return {};
    };
    if (auto ok = one(p.points); !ok) return ok;
    if (auto ok = one(p.to); !ok) return ok;
    const auto onBody = [&](PointId id) { return b.points.at(id).subject == Subject::Body; };
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
        for (const PointId id : p.points)
            if (b.points.at(id).subject == box->second.subject)
                return bad(name, fmt::format("{} and the box {} are both of the {}: where the body sits does not change that.",
                                             nameOf(b, id), box->second.name, word(box->second.subject)));
    } else if (!between) {
        for (const PointId id : p.points)
            if (!onBody(id)) return bad(name, "The gap to a tyre is taken at points of the body.");
    }
    return {};
}

} // namespace

Checked valid(const Build& b, const Pin& p) {
    if (p.points.empty()) return bad("pin", "A pin needs at least one point of the body.");
    if (!(p.tolerance > 0 && std::isfinite(p.tolerance))) return bad("pin", "A pin's tolerance must be above 0.");
    if (!std::isfinite(p.target.value)) return bad("pin", "A pin's target must be a finite number.");
    if (p.bound != Bound::Equal && (p.kind == PinKind::Centred || p.kind == PinKind::Level))
        return bad("pin", fmt::format("A pin of kind {} has no least or most.", word(p.kind)));
    if (p.kind >= PinKind::Along) return validFeatures(b, p);
    for (PointId id : p.points) {
        const auto point = b.points.find(id);
        if (point == b.points.end() || point->second.subject != Subject::Body)
            return bad("pin", "A pin holds points of the body.");
    }
    const auto needed = p.kind == PinKind::Centred || p.kind == PinKind::Level || p.kind == PinKind::Rake ? 2U : 1U;
    if (p.points.size() < needed || (p.kind == PinKind::Centred && p.points.size() != 2))
        return bad("pin", fmt::format("A pin of kind {} needs {} points.", word(p.kind), needed));
    if (p.points.size() % 2 != 0 && needed == 2) return bad("pin", "This pin needs as many points at the rear as at the front.");
    return {};
}

Checked valid(const Build& b, const Seating& s) {
    if (auto ok = oneWord(s.name, "A seating"); !ok) return ok;
    for (const auto& [id, other] : b.seatings)
        if (id != s.id && other.name == s.name) return bad(s.name, fmt::format("There is already a seating {}.", s.name));
    // its points may have gone since: it then waits for them, and is not refused
    return {};
}

Checked valid(const Build& b, const PairRule& p) {
    const std::string name = fmt::format("{} to {}", word(p.one), word(p.other));
    for (const auto& [id, other] : b.pair_rules)
        if (id != p.id && ((other.one == p.one && other.other == p.other) || (other.one == p.other && other.other == p.one)))
            return bad(name, fmt::format("{} has its least clearance already.", name));
    return firstOf([&] { return finite(name, p.least, 0, 500, "least, mm"); },
                   [&] { return finite(name, p.finish, 0, 200, "finish, mm"); });
}

Checked valid(const Build& b, const Swing& s) {
    if (!b.scans.contains(s.scan)) return bad("swing", "What swings is no scan of the build.");
    const std::string& name = b.scans.at(s.scan).name;
    for (const auto& [id, other] : b.swings)
        if (id != s.id && other.scan == s.scan) return bad(name, fmt::format("{} swings already.", name));
    for (const double v : {s.from.x_mm, s.from.y_mm, s.from.z_mm, s.to.x_mm, s.to.y_mm, s.to.z_mm})
        if (!(std::abs(v) < 1e5)) return bad(name, "The axis of a swing is within 100 m.");
    if (std::hypot(s.to.x_mm - s.from.x_mm, s.to.y_mm - s.from.y_mm, s.to.z_mm - s.from.z_mm) < 10)
        return bad(name, "The axis of a swing needs two places at least 10 mm apart.");
    return firstOf([&] { return finite(name, s.angle, 0, 3.1416, "angle, rad"); },
                   [&] { return finite(name, s.back, 0, 3.1416, "back, rad"); });
}

Checked valid(const Build&, const WheelTravel& t) {
    for (const auto& [name, d] : {std::pair{"front bump, mm", &t.front_bump},
                                  {"front droop, mm", &t.front_droop},
                                  {"rear bump, mm", &t.rear_bump},
                                  {"rear droop, mm", &t.rear_droop}})
        if (auto ok = finite("travel", *d, 0, 500, name); !ok) return ok;
    for (const auto& d : {t.front_radius, t.rear_radius})
        if (d)
            if (auto ok = finite("travel", *d, 50, 1500, "radius of the tyre, mm"); !ok) return ok;
    return firstOf([&] { return finite("travel", t.lock, 0, 1.2, "lock, rad"); },
                   [&] { return finite("travel", t.rock, 0, 0.5, "rock, rad"); },
                   [&] { return finite("travel", t.width, 50, 800, "width, mm"); });
}

Checked valid(const Build&, const School&) { return {}; }

Checked valid(const Build&, const Lowering& l) {
    if (l.kick_from.value >= l.kick_to.value)
        return bad("lower", "The rails are let down between two stations: the second lies behind the first.");
    return firstOf([&] { return finite("lower", l.channel, 0, 400, "channel, mm"); },
                   [&] { return finite("lower", l.raise, 0, 400, "raise-floor, mm"); },
                   [&] { return finite("lower", l.kick, 0, 400, "kick, mm"); },
                   [&] { return finite("lower", l.kick_from, -5000, 20000, "from, mm"); },
                   [&] { return finite("lower", l.kick_to, -5000, 20000, "to, mm"); });
}

Checked valid(const Build& b, const PlannedCut& c) {
    if (auto ok = oneWord(c.name, "A cut"); !ok) return ok;
    for (const auto& [id, other] : b.planned_cuts)
        if (id != c.id && other.name == c.name) return bad(c.name, fmt::format("There is already a cut {}.", c.name));
    if (c.line.size() < 2) return bad(c.name, "A cut needs two corners at least.");
    for (const auto* list : {&c.line, &c.as_cut})
        for (const Vec3& v : *list)
            if (!(std::abs(v.x_mm) < 1e5 && std::abs(v.y_mm) < 1e5 && std::abs(v.z_mm) < 1e5))
                return bad(c.name, "A cut's places are within 100 m.");
    return {};
}

Checked valid(const Build& b, const Mount& m) {
    const auto point = b.points.find(m.body_point);
    if (point == b.points.end() || point->second.subject != Subject::Body)
        return bad("mount", "A body mount starts at a point of the body.");
    for (const auto& [id, other] : b.mounts)
        if (id != m.id && other.body_point == m.body_point)
            return bad(point->second.name, fmt::format("{} already has a mount.", point->second.name));
    if (sideOf(point->second.name) == Side::None)
        return bad(point->second.name, "A mount's body point must say its side: its name ends in l or r.");
    return {};
}

Checked valid(const Build&, const RailSection& r) {
    return firstOf([&] { return finite("rail", r.height, 0, 500, "height_mm"); },
                   [&] { return finite("rail", r.width, 0, 500, "width_mm"); },
                   [&] { return finite("rail", r.thickness, 0, 25, "thickness_mm"); },
                   [&]() -> Checked {
                       if (r.height.value > 0 && 2 * r.thickness.value >= std::min(r.height.value, r.width.value))
                           return bad("rail", "The walls are thicker than the rail.", "Check height, width and thickness.");
                       return {};
                   });
}

Checked valid(const Build&, const AxleGround& a) {
    for (const auto& d : {a.front, a.rear})
        if (d)
            if (auto ok = finite("axle", *d, 50, 1500, "height of the wheel centre over the ground, mm"); !ok) return ok;
    return {};
}

Checked valid(const Build&, const Stretch& s) {
    return firstOf(
        [&]() -> Checked {
            return s.wheelbase_change ? finite("stretch", *s.wheelbase_change, -3000, 3000, "wheelbase_change_mm") : Checked{};
        },
        [&]() -> Checked {
            return s.cut_station ? finite("stretch", *s.cut_station, -5000, 20000, "cut_station_mm") : Checked{};
        },
        [&] { return finite("stretch", s.kerf, 0, 10, "kerf_mm"); },
        [&] { return finite("stretch", s.root_gap, 0, 10, "root_gap_mm"); },
        [&] { return finite("stretch", s.sleeve_fit, 0, 10, "sleeve_fit_mm"); },
        [&] { return finite("stretch", s.sleeve_overlap_heights, 0.5, 10, "sleeve overlap, rail heights"); },
        [&]() -> Checked { return s.sleeve_wall ? finite("stretch", *s.sleeve_wall, 1, 25, "sleeve_wall_mm") : Checked{}; },
        [&]() -> Checked { return s.plug_hole ? finite("stretch", *s.plug_hole, 4, 60, "plug_hole_mm") : Checked{}; },
        [&]() -> Checked { return s.fish_plate ? finite("stretch", *s.fish_plate, 2, 25, "fish_plate_mm") : Checked{}; });
}

namespace {

Checked validBolt(const char* subject, const Dimension& d) {
    for (double standard : {8.0, 10.0, 12.0, 14.0, 16.0})
        if (d.value == standard) return {};
    return bad(subject, fmt::format("bolt = {:g}: must be 8, 10, 12, 14 or 16 mm.", d.value));
}

} // namespace

Checked valid(const Build&, const MountDesign& m) {
    return firstOf([&] { return finite("mount", m.washer, 0, 20, "washer_mm"); },
                   [&] { return finite("mount", m.body_thickness, 0, 40, "body_thickness_mm"); },
                   [&] { return finite("mount", m.biscuit_free, 0, 100, "biscuit_free_mm"); },
                   [&] { return finite("mount", m.biscuit_squash, 0, 0.5, "biscuit_squash"); },
                   [&] { return finite("mount", m.standoff_step, 0.5, 50, "standoff_step_mm"); },
                   [&] { return validBolt("mount", m.bolt); });
}

Checked valid(const Build& b, const std::optional<Crossmember>& c) {
    if (!c) return {};
    const auto point = b.points.find(c->gearbox_mount);
    if (point == b.points.end() || point->second.subject != Subject::Chassis)
        return bad("crossmember", "The crossmember needs the gearbox mount, a point of the chassis.");
    return firstOf([&] { return finite("crossmember", c->isolator, 0, 200, "isolator_mm"); },
                   [&] { return finite("crossmember", c->pad, 3, 30, "pad_mm"); },
                   [&] { return finite("crossmember", c->box_height, 20, 200, "box_height_mm"); },
                   [&] { return finite("crossmember", c->box_width, 20, 200, "box_width_mm"); },
                   [&] { return finite("crossmember", c->box_wall, 1.5, 10, "box_wall_mm"); },
                   [&] { return finite("crossmember", c->flange, 4, 25, "flange_mm"); },
                   [&] { return finite("crossmember", c->end_clearance, 0, 10, "end_clearance_mm"); },
                   [&] { return finite("crossmember", c->pad_hole_pitch, 20, 300, "pad_hole_pitch_mm"); },
                   [&] { return finite("crossmember", c->pad_hole, 5, 30, "pad_hole_mm"); },
                   [&] { return finite("crossmember", c->pan_clearance, 0, 100, "pan_clearance_mm"); },
                   [&] { return validBolt("crossmember", c->bolt); });
}

Checked valid(const Build& b, const Crossing& c) {
    const std::string name(word(c.kind));
    for (const auto& [id, other] : b.crossings)
        if (id != c.id && other.kind == c.kind) return bad(name, fmt::format("The {} is already listed.", name));
    return firstOf([&]() -> Checked { return c.slack ? finite(name, *c.slack, 0, 2000, "slack_mm") : Checked{}; },
                   [&]() -> Checked { return c.starts ? finite(name, *c.starts, -5000, 20000, "starts_mm") : Checked{}; },
                   [&]() -> Checked { return c.ends ? finite(name, *c.ends, -5000, 20000, "ends_mm") : Checked{}; },
                   [&]() -> Checked {
                       if (c.starts && c.ends && c.starts->value >= c.ends->value)
                           return bad(name, fmt::format("The {} must end behind the station where it starts.", name));
                       return {};
                   });
}

Checked valid(const Build&, const WorkFacts&) { return {}; }

Checked valid(const Build& b, const TemporarySteel& t) {
    if (t.name.empty() || t.name.find_first_of(" \t,\"") != std::string::npos)
        return bad(t.name, "A brace needs a name of one word, without blank, comma or quote.");
    for (const auto& [id, other] : b.temporary_steel)
        if (id != t.id && other.name == t.name) return bad(t.name, fmt::format("There is already a brace {}.", t.name));
    if (!(t.gap_tolerance_mm > 0)) return bad(t.name, "The tolerance of a gap must be above 0.");
    return t.gap ? finite(t.name, *t.gap, 0, 5000, "gap_mm") : Checked{};
}

Checked valid(const Build& b, const Tick& t) {
    if (t.step.empty()) return bad("work", "A tick needs the code of its step.");
    if (const Tick* same = tickOf(b, t.step); same && same->id != t.id)
        return bad(t.step, fmt::format("{} is already done.", t.step));
    if (!t.photo.empty() && !isHash(t.photo)) return bad(t.step, "A photo is named by the 64 signs of its content's hash.");
    return {};
}

Checked valid(const Build& b, const Check& c) {
    if (c.step.empty()) return bad("work", "A check needs the code of its hold point.");
    if (c.gap_of) {
        if (!b.temporary_steel.contains(c.gap_of)) return bad(c.step, "The check is of a brace that does not exist.");
    } else {
        for (const PointId id : {c.from, c.to}) {
            const auto point = b.points.find(id);
            if (point == b.points.end() || point->second.subject != Subject::Chassis)
                return bad(c.step, "A check goes between two points of the chassis.");
        }
        if (c.from == c.to) return bad(c.step, "A check goes between two different points.");
    }
    if (c.value.provenance == Provenance::Assumed)
        return bad(c.step, "A check must be read, not assumed.", "Leave the question mark out once you have read it.");
    if (c.kind != ReadingKind::Tape && c.kind != ReadingKind::Level) return bad(c.step, "A check is a distance or a level.");
    return finite(c.step, c.value, c.kind == ReadingKind::Level ? -20000 : 0, 20000, "reading, mm");
}

} // namespace gorvet::build
