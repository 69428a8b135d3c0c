// What was measured, found and kept with it.
#include "build/rules.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include <fmt/format.h>

namespace gorvet::build {

Checked rules(const Build&, const Settings& s) {
    if (s.name.empty()) return bad("build", "A build needs a name.");
    if (!(s.frame_tolerance_mm > 0)) return bad("build", "The frame tolerance must be above 0 mm.");
    return {};
}

Checked rules(const Build&, const Subject& s) {
    if ((s.id == the_body) != (s.kind == SubjectKind::Body) || (s.id == the_chassis) != (s.kind == SubjectKind::Chassis))
        return bad(s.name, "A build has one body and one chassis.",
                   "Another frame is a candidate; an engine or axle a component.");
    if (s.name.find_first_of("/:\\") != std::string::npos || s.name.starts_with('.'))
        return bad(s.name, "A subject's name has no slash or colon and begins with no dot: files are called by it.", "");
    return {};
}

Checked entryRules(const Subject& s) {
    constexpr std::size_t most = 24; // as long as a button and a table's column are wide
    if (units::characters(s.name) > most)
        return bad(s.name,
                   fmt::format("A subject's name has {} characters at most: it stands on buttons, sheets and files.", most),
                   "Put the rest into its note.");
    return {};
}

Checked rules(const Build&, const Session& s) {
    if (s.name.empty()) return bad("session", "A measuring session needs a name.");
    return {};
}

Checked rules(const Build& b, const Point& p) {
    if (sideOf(p.name) != Side::None) return {};
    for (const auto& [id, m] : b.mounts)
        if (m.body_point == p.id)
            return bad(p.name, "A mount stands at this point: its name says the side and ends in l or r.",
                       "Choose another name.");
    return {};
}

namespace {

/// Six numbers of a symmetric matrix by rows that is positive definite (Sylvester's minors).
bool positive(const std::vector<double>& c) {
    if (c.size() != 6) return false;
    const double two = c[0] * c[3] - c[1] * c[1];
    const double three =
        c[0] * (c[3] * c[5] - c[4] * c[4]) - c[1] * (c[1] * c[5] - c[4] * c[2]) + c[2] * (c[1] * c[4] - c[3] * c[2]);
    return c[0] > 0 && two > 0 && three > 0;
}

Checked rulesOfFigure(const Reading& r, const std::string& name) {
    if ((r.kind == ReadingKind::Tape || r.kind == ReadingKind::Plan) && r.value.value <= 0)
        return bad(name, "A distance must be above 0.");
    if (isAngle(r.kind) && std::abs(r.value.value) > 1.6) return bad(name, "An angle is between −90° and 90°.");
    if (r.kind == ReadingKind::Symmetry && r.value.provenance != Provenance::Assumed)
        return bad(name, "That two points mirror each other is assumed, never measured.");
    if (r.kind == ReadingKind::Coordinates) {
        if (!r.at) return bad(name, "Coordinates are three finite numbers: station, offset, height.");
        if (!r.covariance_mm2.empty() && !positive(r.covariance_mm2))
            return bad(name, "The covariance of coordinates is six numbers, xx xy xz yy yz zz, of a positive definite matrix.");
    }
    if (r.sigma && !(*r.sigma > 0)) return bad(name, "σ must be above 0.");
    return {};
}

bool between(double from, double to) { return from < to; }

} // namespace

Checked rules(const Build& b, const Reading& r) {
    const Point& from = b.points.at(r.from);
    const std::string name = from.name + (r.to ? "–" + nameOf(b, r.to) : "");
    if (b.sessions.at(r.session).subject != from.subject) return bad(name, "The reading's session measured another subject.");
    const SecondPoint second = secondPoint(r.kind);
    if (second == SecondPoint::Needed && !r.to) return bad(name, fmt::format("A {} reading needs two points.", word(r.kind)));
    if (second == SecondPoint::None && r.to) return bad(name, fmt::format("A {} reading has one point.", word(r.kind)));
    if (r.to) {
        if (b.points.at(r.to).subject != from.subject) return bad(name, "The two points belong to different subjects.");
        if (r.to == r.from) return bad(name, "A reading goes between two different points.");
    }
    if (auto ok = rulesOfFigure(r, name); !ok) return ok;
    if (r.instrument && !takes(b.instruments.at(r.instrument).kind, r.kind))
        return bad(name,
                   fmt::format("A {} reading is not taken with a {}.", word(r.kind), word(b.instruments.at(r.instrument).kind)));
    if (r.setup) {
        const SetUp& setup = b.setups.at(r.setup);
        if (setup.subject != from.subject) return bad(name, "The reading's set-up belongs to another subject.");
        if (!readFrom(setup.kind, r.kind))
            return bad(name, fmt::format("A {} reading is not read from a {}.", word(r.kind), word(setup.kind)));
    }
    return {};
}

Checked entryRules(const Reading& r) {
    if (!r.sigma) return {};
    const double least = isAngle(r.kind) ? 1e-6 : 1e-3; // in the unit of its kind
    const double most = isAngle(r.kind) ? 0.5 : 1000;
    if (*r.sigma < least || *r.sigma > most)
        return bad("reading", fmt::format("sigma = {:g}: must be between {:g} and {:g} {}.", *r.sigma, least, most,
                                          isAngle(r.kind) ? "rad" : "mm"));
    return {};
}

Checked rules(const Build& b, const SetUp& s) {
    if (s.sigma_mm && !(*s.sigma_mm > 0)) return bad(s.name, "σ must be above 0.");
    for (const auto& [id, r] : b.readings)
        if (r.setup == s.id && !readFrom(s.kind, r.kind))
            return bad(s.name, fmt::format("Readings of kind {} hang on it: it stays what it is.", word(r.kind)));
    return {};
}

Checked rules(const Build& b, const Instrument& i) {
    if (i.sigma && !(*i.sigma > 0 && *i.sigma < 1000)) return bad(i.name, "σ must be above 0 and below 1000.");
    for (const auto& [id, r] : b.readings)
        if (r.instrument == i.id && !takes(i.kind, r.kind))
            return bad(i.name, fmt::format("Readings of kind {} were taken with it: it stays what it is.", word(r.kind)));
    return {};
}

Checked rules(const Build&, const Obstacle& o) {
    if (!between(o.from.x_mm, o.to.x_mm) || !between(o.from.y_mm, o.to.y_mm) || !between(o.from.z_mm, o.to.z_mm))
        return bad(o.name, "It needs two different stations, offsets and heights.");
    return {};
}

Checked rules(const Build&, const Scan& s) {
    if (s.blob.empty()) return bad(s.name, "A scan is named by the 64 signs of its content's hash.");
    for (const double v : {s.shift.x_mm, s.shift.y_mm, s.shift.z_mm})
        if (!(std::abs(v) < 1e6)) return bad(s.name, "A scan is shifted by less than a kilometre.");
    return {};
}

Checked rules(const Build& b, const DatumRule& d) {
    const std::string name = fmt::format("datum {}", word(d.kind));
    const bool one = d.kind == DatumKind::Height;
    const size_t least = d.kind == DatumKind::Free ? 0 : one || d.kind == DatumKind::Station ? 1 : 2;
    const size_t most = d.kind == DatumKind::Free ? 0 : one ? 1 : 2;
    if (d.points.size() < least || d.points.size() > most)
        return bad(
            name, fmt::format("It needs {} point{}.", least == most ? std::to_string(most) : "one or two", most == 1 ? "" : "s"));
    for (const PointId id : d.points)
        if (b.points.at(id).subject != d.subject)
            return bad(name, fmt::format("It needs points of the {}.", nameOf(b, d.subject)));
    if (d.points.size() == 2 && d.points[0] == d.points[1]) return bad(name, "It needs two different points.");
    return {};
}

Checked entryRules(const DatumRule& d) {
    if (std::set(d.points.begin(), d.points.end()).size() != d.points.size()) return bad("datum", "It needs different points.");
    return {};
}

Checked rules(const Build& b, const DrawingFigure& d) {
    if (!d.x_mm && !d.y_mm && !d.z_mm) return bad(nameOf(b, d.point), "The drawing must give a station, an offset or a height.");
    return {};
}

Checked rules(const Build& b, const Flaw& f) {
    if (f.point && b.points.at(f.point).subject != f.subject)
        return bad("found", "What was found is at no point of the subject.");
    if (!f.point && f.part.empty()) return bad("found", "Where was it found?", "Name a point or a part.");
    if (f.kind == FlawKind::Thin && f.amount && f.nominal && f.amount->value > f.nominal->value)
        return bad(f.point ? nameOf(b, f.point) : f.part, "What is left is thicker than new: check the two thicknesses.");
    return {};
}

Checked rules(const Build&, const Practice& p) {
    if (p.seed != std::floor(p.seed)) return bad("practice", "A seed is a whole number, 0 to 2147483647.");
    if (p.difficulty != std::floor(p.difficulty)) return bad("practice", "The difficulty is 1, 2 or 3.");
    return {};
}

Checked rules(const Build& b, const Answer& a) {
    if (!b.practice.on) return bad("practice", "There is nothing to answer: this is no practice frame.");
    if (b.practice.marked) return bad("practice", "The answers were handed in already.");
    if (a.about == "reading") return a.from ? Checked{} : bad("practice", "The reading starts at no point.");
    for (const auto& [id, other] : b.answers)
        if (id != a.id && other.about == a.about) return bad("practice", fmt::format("{} was answered already.", a.about));
    return {};
}

Checked rules(const Build&, const Gap& g) {
    if (g.event.empty())
        return bad(g.place, "A gap needs the event at which it was measured.", "Like: gap door-left 4.5 at brace in");
    if (!(g.tolerance_mm > 0)) return bad(g.place, "The tolerance of a gap must be above 0.");
    return {};
}

} // namespace gorvet::build
