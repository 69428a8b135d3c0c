// What was measured, found and kept with it.
#include "build/valid.hpp"

#include <algorithm>

namespace gorvet::build {

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

Checked validAlone(const Point& p) {
    if (p.name.empty()) return bad("point", "A point needs a name.");
    if (p.name.find_first_of(" \t,\"") != std::string::npos)
        return bad(p.name, "A point's name is one word, without blank, comma or quote.");
    if (p.rough && !(std::isfinite(p.rough->x_mm) && std::isfinite(p.rough->y_mm) && std::isfinite(p.rough->z_mm)))
        return bad(p.name, "A rough position needs three finite numbers.");
    return {};
}

Checked valid(const Build& b, const Point& p) {
    if (auto ok = validAlone(p); !ok) return ok;
    const Point* same = pointNamed(b, p.subject, p.name);
    if (same && same->id != p.id)
        return bad(p.name, fmt::format("There is already a point {} on the {}.", p.name, word(p.subject)),
                   "Choose another name.");
    return {};
}

namespace {

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

} // namespace

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

} // namespace gorvet::build
