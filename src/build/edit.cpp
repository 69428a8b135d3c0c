#include "build/edit.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::build {
namespace {

using Checked = Result<void>;

Error bad(std::string subject, std::string message, std::string remedy = {}) {
    return Error{Error::Code::Conflict, std::move(subject), std::move(message), std::move(remedy), -1};
}

Checked finite(const std::string& subject, const Dimension& d, double low, double high, const char* name) {
    if (!std::isfinite(d.value) || d.value < low || d.value > high)
        return bad(subject, fmt::format("{} = {:g}: must be between {:g} and {:g}.", name, d.value, low, high));
    return {};
}

bool isHash(const std::string& text) {
    return text.size() == 64 && text.find_first_not_of("0123456789abcdef") == std::string::npos;
}

/// Runs checks in order and returns the first that fails.
template <class... Checks> Checked firstOf(Checks... checks) {
    Checked result;
    (void)((result = checks(), static_cast<bool>(result)) && ...);
    return result;
}

Checked valid(const Build&, const Settings& s) {
    if (s.name.empty()) return bad("build", "A build needs a name.");
    if (!(s.frame_tolerance_mm > 0)) return bad("build", "The frame tolerance must be above 0 mm.");
    if (!(s.tape_reach_mm >= 100 && s.tape_reach_mm <= 1e5))
        return bad("build", "The tape's reach must be between 100 mm and 100 m.");
    if (!s.scan_picture.empty() && !isHash(s.scan_picture))
        return bad("build", "A picture is named by the 64 signs of its content's hash.");
    return {};
}

Checked valid(const Build&, const Session& s) {
    if (s.name.empty()) return bad("session", "A measuring session needs a name.");
    return {};
}

Checked valid(const Build& b, const Point& p) {
    if (p.name.empty()) return bad("point", "A point needs a name.");
    if (p.name.find_first_of(" \t,\"") != std::string::npos)
        return bad(p.name, "A point's name is one word, without blank, comma or quote.");
    const Point* same = pointNamed(b, p.subject, p.name);
    if (same && same->id != p.id)
        return bad(p.name, fmt::format("There is already a point {} on the {}.", p.name, word(p.subject)),
                   "Choose another name.");
    if (p.rough && !(std::isfinite(p.rough->x_mm) && std::isfinite(p.rough->y_mm) && std::isfinite(p.rough->z_mm)))
        return bad(p.name, "A rough position needs three finite numbers.");
    return {};
}

/// Six numbers of a symmetric matrix by rows that is positive definite (Sylvester's minors).
bool positive(const std::vector<double>& c) {
    if (c.size() != 6) return false;
    for (const double v : c)
        if (!std::isfinite(v)) return false;
    const double two = c[0] * c[3] - c[1] * c[1];
    const double three =
        c[0] * (c[3] * c[5] - c[4] * c[4]) - c[1] * (c[1] * c[5] - c[4] * c[2]) + c[2] * (c[1] * c[4] - c[3] * c[2]);
    return c[0] > 0 && two > 0 && three > 0;
}

Checked valid(const Build& b, const Reading& r) {
    const auto from = b.points.find(r.from);
    if (from == b.points.end()) return bad("reading", "The reading starts at a point that does not exist.");
    const std::string name = from->second.name + (r.to ? "–" + nameOf(b, r.to) : "");
    const auto session = b.sessions.find(r.session);
    if (session == b.sessions.end()) return bad(name, "The reading belongs to no measuring session.");
    if (session->second.subject != from->second.subject) return bad(name, "The reading's session measured the other subject.");
    const SecondPoint second = secondPoint(r.kind);
    if (second == SecondPoint::Needed && !r.to) return bad(name, fmt::format("A {} reading needs two points.", word(r.kind)));
    if (second == SecondPoint::None && r.to) return bad(name, fmt::format("A {} reading has one point.", word(r.kind)));
    if (r.to) {
        const auto to = b.points.find(r.to);
        if (to == b.points.end()) return bad(name, "The reading ends at a point that does not exist.");
        if (to->second.subject != from->second.subject) return bad(name, "The two points belong to different subjects.");
        if (r.to == r.from) return bad(name, "A reading goes between two different points.");
    }
    if (!std::isfinite(r.value.value)) return bad(name, "The reading has no finite value.");
    if ((r.kind == ReadingKind::Tape || r.kind == ReadingKind::Plan) && r.value.value <= 0)
        return bad(name, "A distance must be above 0.");
    if (std::abs(r.value.value) > 1e5) return bad(name, "The reading is above 100 m.");
    if (isAngle(r.kind) && std::abs(r.value.value) > 1.6) return bad(name, "An angle is between −90° and 90°.");
    if (r.kind == ReadingKind::Symmetry && r.value.provenance != Provenance::Assumed)
        return bad(name, "That two points mirror each other is assumed, never measured.");
    if (r.kind == ReadingKind::Coordinates) {
        if (!r.at || !std::isfinite(r.at->x_mm) || !std::isfinite(r.at->y_mm) || !std::isfinite(r.at->z_mm))
            return bad(name, "Coordinates are three finite numbers: station, offset, height.");
        if (!r.covariance_mm2.empty() && !positive(r.covariance_mm2))
            return bad(name, "The covariance of coordinates is six numbers, xx xy xz yy yz zz, of a positive definite matrix.");
    }
    if (r.instrument) {
        const auto instrument = b.instruments.find(r.instrument);
        if (instrument == b.instruments.end()) return bad(name, "The reading's instrument does not exist.");
        if (!takes(instrument->second.kind, r.kind))
            return bad(name, fmt::format("A {} reading is not taken with a {}.", word(r.kind), word(instrument->second.kind)));
    }
    if (r.sigma && !(*r.sigma > 0 && std::isfinite(*r.sigma))) return bad(name, "σ must be above 0.");
    if (r.setup) {
        const auto setup = b.setups.find(r.setup);
        if (setup == b.setups.end()) return bad(name, "The reading's set-up does not exist.");
        if (setup->second.subject != from->second.subject) return bad(name, "The reading's set-up belongs to the other subject.");
        if (!readFrom(setup->second.kind, r.kind))
            return bad(name, fmt::format("A {} reading is not read from a {}.", word(r.kind), word(setup->second.kind)));
    }
    return {};
}

Checked oneWord(const std::string& name, const char* what) {
    if (name.empty() || name.find_first_of(" \t,\"") != std::string::npos)
        return bad(name, fmt::format("{} needs a name of one word, without blank, comma or quote.", what));
    return {};
}

Checked valid(const Build& b, const SetUp& s) {
    if (auto ok = oneWord(s.name, "A set-up"); !ok) return ok;
    const SetUp* same = setupNamed(b, s.subject, s.name);
    if (same && same->id != s.id)
        return bad(s.name, fmt::format("There is already a set-up {}.", s.name), "Choose another name.");
    if (s.sigma_mm && !(*s.sigma_mm > 0 && std::isfinite(*s.sigma_mm))) return bad(s.name, "σ must be above 0.");
    for (const auto& [id, r] : b.readings)
        if (r.setup == s.id && !readFrom(s.kind, r.kind))
            return bad(s.name, fmt::format("Readings of kind {} hang on it: it stays what it is.", word(r.kind)));
    return {};
}

Checked valid(const Build& b, const WheelReadings& w) {
    const std::string name(word(w.wheel));
    for (const auto& [id, other] : b.wheels)
        if (id != w.id && other.wheel == w.wheel) return bad(name, fmt::format("The {} wheel is already listed.", name));
    const double steep = 0.35; // 20°: no wheel leans so
    for (const auto& d : {w.camber, w.turned_out, w.turned_in})
        if (d)
            if (auto ok = finite(name, *d, -steep, steep, "camber, rad"); !ok) return ok;
    if (w.sweep)
        if (auto ok = finite(name, *w.sweep, 0.08, 0.8, "turned for the caster, rad"); !ok) return ok;
    return firstOf([&]() -> Checked { return w.ride ? finite(name, *w.ride, 0, 2000, "ride_mm") : Checked{}; },
                   [&]() -> Checked { return w.weight ? finite(name, *w.weight, 0, 5000, "weight_kg") : Checked{}; },
                   [&]() -> Checked { return w.run_out ? finite(name, *w.run_out, 0, 50, "run_out_mm") : Checked{}; });
}

Checked valid(const Build& b, const ToeReadings& t) {
    const std::string name = fmt::format("{} axle", word(t.axle));
    for (const auto& [id, other] : b.toe)
        if (id != t.id && other.axle == t.axle) return bad(name, fmt::format("The {} is already listed.", name));
    return firstOf([&] { return finite(name, t.ahead, 200, 4000, "ahead_mm"); },
                   [&] { return finite(name, t.behind, 200, 4000, "behind_mm"); },
                   [&] { return finite(name, t.rim, 100, 1500, "rim_mm"); });
}

Checked valid(const Build& b, const Instrument& i) {
    if (auto ok = oneWord(i.name, "An instrument"); !ok) return ok;
    const Instrument* same = instrumentNamed(b, i.name);
    if (same && same->id != i.id)
        return bad(i.name, fmt::format("There is already an instrument {}.", i.name), "Choose another name.");
    if (i.sigma && !(*i.sigma > 0 && *i.sigma < 1000)) return bad(i.name, "σ must be above 0 and below 1000.");
    if (!(i.sigma_per_m >= 0 && i.sigma_per_m < 100)) return bad(i.name, "σ a metre must be between 0 and 100 mm.");
    for (const auto& [id, r] : b.readings)
        if (r.instrument == i.id && !takes(i.kind, r.kind))
            return bad(i.name, fmt::format("Readings of kind {} were taken with it: it stays what it is.", word(r.kind)));
    return {};
}

Checked valid(const Build& b, const Obstacle& o) {
    if (auto ok = oneWord(o.name, "What is in the way"); !ok) return ok;
    for (const auto& [id, other] : b.obstacles)
        if (id != o.id && other.subject == o.subject && other.name == o.name)
            return bad(o.name, fmt::format("{} is already marked.", o.name));
    const auto between = [](double from, double to) { return std::isfinite(from) && std::isfinite(to) && from < to; };
    if (!between(o.from.x_mm, o.to.x_mm) || !between(o.from.y_mm, o.to.y_mm) || !between(o.from.z_mm, o.to.z_mm))
        return bad(o.name, "It needs two different stations, offsets and heights.");
    return {};
}

Checked valid(const Build& b, const Scan& s) {
    if (auto ok = oneWord(s.name, "A scan"); !ok) return ok;
    for (const auto& [id, other] : b.scans)
        if (id != s.id && other.name == s.name)
            return bad(s.name, fmt::format("There is already a scan {}.", s.name), "Choose another name.");
    if (!isHash(s.blob)) return bad(s.name, "A scan is named by the 64 signs of its content's hash.");
    for (const double v : {s.shift.x_mm, s.shift.y_mm, s.shift.z_mm})
        if (!(std::abs(v) < 1e6)) return bad(s.name, "A scan is shifted by less than a kilometre.");
    for (const double v : {s.yaw_rad, s.pitch_rad, s.roll_rad})
        if (!(std::abs(v) < 7)) return bad(s.name, "A scan is turned by one whole turn at most.");
    return {};
}

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

Checked valid(const Build& b, const DatumRule& d) {
    const std::string name = fmt::format("datum {}", word(d.kind));
    const bool one = d.kind == DatumKind::Height;
    const size_t least = d.kind == DatumKind::Free ? 0 : one || d.kind == DatumKind::Station ? 1 : 2;
    const size_t most = d.kind == DatumKind::Free ? 0 : one ? 1 : 2;
    if (d.points.size() < least || d.points.size() > most)
        return bad(
            name, fmt::format("It needs {} point{}.", least == most ? std::to_string(most) : "one or two", most == 1 ? "" : "s"));
    for (const PointId id : d.points) {
        const auto point = b.points.find(id);
        if (point == b.points.end() || point->second.subject != d.subject)
            return bad(name, fmt::format("It needs points of the {}.", word(d.subject)));
    }
    if (d.points.size() == 2 && d.points[0] == d.points[1]) return bad(name, "It needs two different points.");
    return finite(name, d.value, -20000, 20000, "value, mm");
}

Checked valid(const Build& b, const DrawingFigure& d) {
    if (!b.points.contains(d.point)) return bad("drawing", "The drawing's figure is of no point.");
    const std::string name = nameOf(b, d.point);
    for (const auto& [id, other] : b.drawing)
        if (id != d.id && other.point == d.point) return bad(name, fmt::format("The drawing already has {}.", name));
    if (!d.x_mm && !d.y_mm && !d.z_mm) return bad(name, "The drawing must give a station, an offset or a height.");
    for (const auto& v : {d.x_mm, d.y_mm, d.z_mm})
        if (v && !(std::abs(*v) < 1e5)) return bad(name, "A drawing's figure must be within 100 m.");
    return {};
}

Checked valid(const Build& b, const Flaw& f) {
    const auto point = b.points.find(f.point);
    if (f.point && (point == b.points.end() || point->second.subject != f.subject))
        return bad("found", "What was found is at no point of the subject.");
    if (!f.point && f.part.empty()) return bad("found", "Where was it found?", "Name a point or a part.");
    const std::string name = f.point ? point->second.name : f.part;
    if (f.layers < 0 || f.layers > 20) return bad(name, "Layers are between 0 and 20.");
    if (!f.photo.empty() && !isHash(f.photo)) return bad(name, "A photo is named by the 64 signs of its content's hash.");
    return firstOf([&]() -> Checked { return f.amount ? finite(name, *f.amount, 0, 5000, "amount_mm") : Checked{}; },
                   [&]() -> Checked { return f.nominal ? finite(name, *f.nominal, 0.1, 100, "nominal_mm") : Checked{}; },
                   [&]() -> Checked {
                       if (f.kind == FlawKind::Thin && f.amount && f.nominal && f.amount->value > f.nominal->value)
                           return bad(name, "What is left is thicker than new: check the two thicknesses.");
                       return {};
                   });
}

Checked valid(const Build&, const Rates& r) {
    for (const auto& v : {r.hour, r.other_frame})
        if (v && !(*v >= 0 && *v < 1e9)) return bad("rates", "A price is 0 or more.");
    for (const double v : {r.other_frame_hours, r.patch_hours, r.crack_hours, r.redo_hours, r.seized_hours, r.play_hours,
                           r.section_hours, r.patch_material, r.section_material})
        if (!(v >= 0 && v < 1e9)) return bad("rates", "Hours and prices are 0 or more.");
    return {};
}

Checked valid(const Build&, const Practice& p) {
    if (!(p.seed >= 0 && p.seed < 2147483648.0) || p.seed != std::floor(p.seed))
        return bad("practice", "A seed is a whole number, 0 to 2147483647.");
    if (p.difficulty != 1 && p.difficulty != 2 && p.difficulty != 3) return bad("practice", "The difficulty is 1, 2 or 3.");
    return {};
}

Checked valid(const Build& b, const Answer& a) {
    if (!b.practice.on) return bad("practice", "There is nothing to answer: this is no practice frame.");
    if (b.practice.marked) return bad("practice", "The answers were handed in already.");
    if (a.about == "reading") return b.points.contains(a.from) ? Checked{} : bad("practice", "The reading starts at no point.");
    for (const auto& [id, other] : b.answers)
        if (id != a.id && other.about == a.about) return bad("practice", fmt::format("{} was answered already.", a.about));
    return a.value ? finite(a.about, *a.value, -500, 500, "value, mm") : Checked{};
}

Checked valid(const Build&, const Gap& g) {
    if (auto ok = oneWord(g.place, "A gap's place"); !ok) return ok;
    if (g.event.empty())
        return bad(g.place, "A gap needs the event at which it was measured.", "Like: gap door-left 4.5 at brace in");
    if (!(g.tolerance_mm > 0)) return bad(g.place, "The tolerance of a gap must be above 0.");
    return finite(g.place, g.value, -50, 500, "gap_mm");
}

Checked valid(const Build& b, const Hold& h) {
    if (!b.points.contains(h.point)) return bad("hold", "The held point does not exist.");
    if (!std::isfinite(h.value.value)) return bad(nameOf(b, h.point), "A held coordinate needs a finite value.");
    for (const auto& [id, other] : b.holds)
        if (id != h.id && other.point == h.point && other.axis == h.axis)
            return bad(nameOf(b, h.point), fmt::format("{} of {} is already held.", word(h.axis), nameOf(b, h.point)));
    return {};
}

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

Checked validBolt(const char* subject, const Dimension& d) {
    for (double standard : {8.0, 10.0, 12.0, 14.0, 16.0})
        if (d.value == standard) return {};
    return bad(subject, fmt::format("bolt = {:g}: must be 8, 10, 12, 14 or 16 mm.", d.value));
}

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
    return finite(c.step, c.value, 0, 20000, "reading, mm");
}

Checked unused(const Build& b, PointId id) {
    const std::string name = nameOf(b, id);
    const auto used = [&](const char* by) { return bad(name, fmt::format("{} is used by {}.", name, by), "Remove that first."); };
    for (const auto& [key, r] : b.readings)
        if (r.from == id || r.to == id) return used("a reading");
    for (const auto& [key, h] : b.holds)
        if (h.point == id) return used("the datum");
    for (const auto& [key, p] : b.pins)
        for (const auto* list : {&p.points, &p.to})
            if (std::find(list->begin(), list->end(), id) != list->end()) return used("a pin");
    for (const auto& [key, m] : b.mounts)
        if (m.body_point == id) return used("a body mount");
    if (b.crossmember && b.crossmember->gearbox_mount == id) return used("the crossmember");
    for (const auto& [key, c] : b.checks)
        if (c.from == id || c.to == id) return used("a check at a hold point");
    for (const auto& [key, d] : b.datum)
        if (std::find(d.points.begin(), d.points.end(), id) != d.points.end()) return used("the datum");
    for (const auto& [key, d] : b.drawing)
        if (d.point == id) return used("the drawing's figures");
    for (const auto& [key, f] : b.flaws)
        if (f.point == id) return used("something found there");
    for (const auto& [key, a] : b.answers)
        if (a.from == id || a.to == id) return used("an answer");
    return {};
}
Checked unused(const Build& b, SessionId id) {
    for (const auto& [key, r] : b.readings)
        if (r.session == id) return bad(b.sessions.at(id).name, "The session has readings.", "Remove them first.");
    return {};
}
Checked unused(const Build& b, SetUpId id) {
    for (const auto& [key, r] : b.readings)
        if (r.setup == id) return bad(b.setups.at(id).name, "Readings were read from this set-up.", "Remove them first.");
    return {};
}
Checked unused(const Build& b, TemporarySteelId id) {
    for (const auto& [key, c] : b.checks)
        if (c.gap_of == id)
            return bad(b.temporary_steel.at(id).name, "Its gap was checked at a hold point.", "Undo those checks first.");
    return {};
}
Checked unused(const Build& b, InstrumentId id) {
    for (const auto& [key, r] : b.readings)
        if (r.instrument == id) return bad(b.instruments.at(id).name, "Readings were taken with it.", "Remove them first.");
    return {};
}
Checked unused(const Build& b, ObstacleId id) {
    for (const auto& [key, p] : b.pins)
        if (p.box == id) return bad(b.obstacles.at(id).name, "A pin keeps clear of it.", "Remove the pin first.");
    return {};
}
Checked unused(const Build& b, ScanId id) {
    for (const auto& [key, s] : b.swings)
        if (s.scan == id)
            return bad(b.scans.at(id).name, "It swings.",
                       fmt::format("Remove that first: remove swing {}.", b.scans.at(id).name));
    return {};
}
template <class T> Checked unused(const Build&, Id<T>) { return {}; }

template <class T> T& part(Build& b) {
    if constexpr (std::is_same_v<T, Settings>)
        return b.settings;
    else if constexpr (std::is_same_v<T, RailSection>)
        return b.rail;
    else if constexpr (std::is_same_v<T, AxleGround>)
        return b.axles;
    else if constexpr (std::is_same_v<T, Stretch>)
        return b.stretch;
    else if constexpr (std::is_same_v<T, MountDesign>)
        return b.mount_design;
    else if constexpr (std::is_same_v<T, WorkFacts>)
        return b.work;
    else if constexpr (std::is_same_v<T, Rates>)
        return b.rates;
    else if constexpr (std::is_same_v<T, Practice>)
        return b.practice;
    else if constexpr (std::is_same_v<T, ClearanceRules>)
        return b.clearances;
    else if constexpr (std::is_same_v<T, WheelTravel>)
        return b.travel;
    else if constexpr (std::is_same_v<T, School>)
        return b.school;
    else if constexpr (std::is_same_v<T, Lowering>)
        return b.lowering;
    else
        return b.crossmember;
}

struct Applier {
    Build& b;

    template <class T> Result<Change> operator()(const Set<T>& change) {
        if (auto ok = valid(b, change.value); !ok) return ok.error();
        Set<T> inverse{part<T>(b)};
        part<T>(b) = change.value;
        return Change{std::move(inverse)};
    }
    template <class T> Result<Change> operator()(const Put<T>& change) {
        if (!change.value.id) return bad("id", "The change has no id.");
        if (auto ok = valid(b, change.value); !ok) return ok.error();
        auto& rows = table<T>(b);
        const auto old = rows.find(change.value.id);
        b.next_id = std::max(b.next_id, change.value.id.value + 1);
        if (old == rows.end()) {
            rows.emplace(change.value.id, change.value);
            return Change{Drop<T>{change.value.id}};
        }
        Put<T> inverse{old->second};
        old->second = change.value;
        return Change{std::move(inverse)};
    }
    template <class T> Result<Change> operator()(const Drop<T>& change) {
        auto& rows = table<T>(b);
        const auto old = rows.find(change.id);
        if (old == rows.end()) return Error{Error::Code::NotFound, "id", "What should be removed does not exist.", "", -1};
        if (auto ok = unused(b, change.id); !ok) return ok.error();
        Put<T> inverse{old->second};
        rows.erase(old);
        return Change{std::move(inverse)};
    }
};

} // namespace

Result<Change> enact(Build& b, const Change& change) { return std::visit(Applier{b}, change); }

Result<Edit> enact(Build& b, const Edit& edit) {
    Edit inverse{edit.sentence, {}};
    for (const Change& change : edit.changes) {
        auto undone = enact(b, change);
        if (!undone) {
            for (auto back = inverse.changes.rbegin(); back != inverse.changes.rend(); ++back)
                if (auto again = enact(b, *back); !again) return again.error();
            return undone.error();
        }
        inverse.changes.push_back(std::move(*undone));
    }
    std::reverse(inverse.changes.begin(), inverse.changes.end());
    return inverse;
}

} // namespace gorvet::build
