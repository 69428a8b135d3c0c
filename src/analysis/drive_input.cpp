// What the build says of its drive line: slopes as read, ends, shafts, links, and what is taken as usual.
#include "analysis/drive.hpp"

#include "analysis/fixed_points.hpp"
#include "drive/wheel.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// Of a digital level, 1σ: engineering.md, Tape.
constexpr double level_sigma = 0.1 * std::numbers::pi / 180;
constexpr double straight_u95 = 0.5 * std::numbers::pi / 180; ///< of a swing that nobody measured

/// Place of a row in a table.
template <class T> std::map<Id<T>, int> placesOf(const Rows<T>& rows, int from = 0) {
    std::map<Id<T>, int> places;
    for (const auto& [id, row] : rows) places[id] = from++;
    return places;
}

/// Slope of the line through two places, whichever is in front: down at the back.
double slopeBetween(const Vec3& a, const Vec3& b) {
    const Vec3 &front = a.x_mm < b.x_mm ? a : b, &back = a.x_mm < b.x_mm ? b : a;
    return std::atan2(front.z_mm - back.z_mm, back.x_mm - front.x_mm);
}

class DriveAsked {
public:
    DriveAsked(const Build& b, const Results& r) : b_(b), r_(r), points_(b, r.chassis), levels_(levelsRead(b, r)) {}

    drive::LineInput ask() {
        for (const auto& [id, e] : b_.drive_ends) end(id, e);
        const std::size_t ends = in_.ends.size(), units = levels_.levels.units.size();
        in_.slope_covariance.assign(ends * ends, 0);
        for (const auto& [a, of_a] : read_)
            for (const auto& [b, of_b] : read_)
                in_.slope_covariance[a * ends + b] = levels_.levels.covariance[of_a * units + of_b];
        through();
        for (const auto& [id, s] : b_.shafts) shaft(s);
        axle(AxleEnd::Front, in_.front);
        axle(AxleEnd::Rear, in_.rear);
        facts();
        if (const std::string lost_places = points_.lost(); !lost_places.empty()) in_.missing.push_back(lost_places);
        in_.now = points_.places();
        for (const Vec3& p : in_.now.at) in_.planned.push_back(r_.planned_chassis.map(p));
        for (const std::string& name : points_.assumed()) in_.assumed.push_back("the place of " + name);
        std::sort(in_.assumed.begin(), in_.assumed.end());
        in_.assumed.erase(std::unique(in_.assumed.begin(), in_.assumed.end()), in_.assumed.end());
        return std::move(in_);
    }

private:
    void assume(bool it, std::string what) {
        if (it) in_.assumed.push_back(std::move(what));
    }
    void note(const std::optional<build::Dimension>& d, const std::string& what) {
        assume(d && d->provenance == Provenance::Assumed, what);
    }

    void end(DriveEndId id, const DriveEnd& e) {
        drive::EndIn out;
        out.name = e.name;
        out.kind = e.kind;
        out.on = e.on;
        bool lost = false;
        const auto place = [&](PointId p) {
            const int k = points_.take(p);
            lost = lost || k < 0;
            return k;
        };
        if (e.point) {
            out.point = place(e.point);
        } else {
            out.at = {e.station->value, e.right ? e.right->value : 0, e.up->value};
            out.at_planned = r_.planned_chassis.map(out.at);
            note(e.station, e.name + "'s station");
            note(e.up, e.name + "'s height");
            note(e.right, e.name + "'s place aside");
            assume(!e.right, "that " + e.name + " stands in the middle");
        }
        if (e.fore) {
            out.fore = place(e.fore);
            out.aft = place(e.aft);
        } else if (e.kind != DriveEndKind::Bearing) {
            line(id, e, out);
        }
        out.turned_rad = e.turned.value;
        out.moved = {e.back.value, e.aside.value, e.raised.value};
        if (!e.housing.empty()) out.housing = housings_.try_emplace(e.housing, static_cast<int>(housings_.size())).first->second;
        if (lost) { // which, is said of all together
            std::erase_if(read_, [&](const auto& row) { return row.first == in_.ends.size(); });
            return;
        }
        assume(
            e.on != Carrier::Frame && e.point && measuredHanging(b_, e.point),
            fmt::format("that {} was where it is on its wheels: the car stood on something else when it was measured", e.name));
        if (!out.has_line() && e.kind != DriveEndKind::Bearing && e.kind != DriveEndKind::Through)
            in_.missing.push_back(fmt::format("the slope of {}: {} {} slope …, or a level on it", e.name, word(e.kind), e.name));
        places_[id] = in_.ends.size();
        in_.ends.push_back(std::move(out));
    }
    void line(DriveEndId id, const DriveEnd& e, drive::EndIn& out) {
        if (const auto read = levels_.of(id)) {
            out.slope = *read;
            read_.emplace_back(in_.ends.size(), static_cast<std::size_t>(std::find(levels_.ends.begin(), levels_.ends.end(), id) -
                                                                         levels_.ends.begin()));
            assume(read->provenance == Provenance::Assumed, "that the frame stood level when " + e.name + " was read");
            // a rail that is not parallel to the datum would turn every slope by the same angle, and nothing would show it
            assume(!frameChecked(),
                   "that the level on the frame lay along its datum: a level on a shaft between marked joints would tell");
        } else if (e.slope) {
            out.slope = Figure{e.slope->value, u95Of(level_sigma), e.slope->provenance};
            note(e.slope, e.name + "'s slope");
        }
        if (!out.slope) return;
        if (e.swing) {
            out.swing = {e.swing->value, u95Of(level_sigma), e.swing->provenance};
            note(e.swing, e.name + "'s swing");
        } else {
            out.swing = {0, straight_u95, Provenance::Assumed};
            in_.assumed.push_back("that " + e.name + " points straight along the frame");
        }
    }
    /// Whether something whose slope the survey knows was read as well, and agrees.
    bool frameChecked() const {
        for (std::size_t k = 0; k < levels_.ids.size(); ++k) {
            const LevelReading& l = b_.level_readings.at(levels_.ids[k]);
            const drive::LevelJudged& j = levels_.levels.readings[k];
            if (l.on != LevelOn::Frame && !j.set_aside && j.redundancy >= 0.1) return true;
        }
        return false;
    }
    /// What drives through an axle has the line of its pinion, where nothing else is said.
    void through() {
        for (drive::EndIn& e : in_.ends) {
            if (e.kind != DriveEndKind::Through || e.has_line()) continue;
            for (const drive::EndIn& pinion : in_.ends)
                if (pinion.kind == DriveEndKind::Pinion && pinion.on == e.on && pinion.has_line()) {
                    e.slope = pinion.slope;
                    e.swing = pinion.swing;
                    e.fore = pinion.fore;
                    e.aft = pinion.aft;
                    if (e.housing < 0 || e.housing != pinion.housing) e.turned_rad = pinion.turned_rad; // else it goes with it
                    in_.assumed.push_back("that " + e.name + " lies in line with " + pinion.name);
                }
            if (!e.has_line()) in_.missing.push_back(fmt::format("the slope of {}: through {} slope …", e.name, e.name));
        }
    }
    void shaft(const Shaft& s) {
        const auto from = places_.find(s.from), to = places_.find(s.to);
        if (from == places_.end() || to == places_.end()) return; // why is said of its end
        in_.shafts.push_back({s, from->second, to->second});
        assume(s.limit.provenance == Provenance::Assumed, fmt::format("the most that joints of {} bend", s.name));
        note(s.tube, s.name + "'s tube");
        note(s.wall, s.name + "'s wall");
        note(s.slip_in, "how far " + s.name + " still goes in");
        note(s.slip_out, "how far " + s.name + " still goes out");
        note(s.phase, "the phase of " + s.name);
    }
    void axle(AxleEnd end, std::optional<drive::AxleIn>& out) {
        const bool front = end == AxleEnd::Front;
        const bool driven = std::any_of(in_.ends.begin(), in_.ends.end(), [&](const drive::EndIn& e) {
            return front ? e.on == Carrier::Front : e.on == Carrier::Rear || e.on == Carrier::SecondRear;
        });
        const WheelTravel& t = b_.travel;
        if (!front &&
            std::any_of(in_.ends.begin(), in_.ends.end(), [](const drive::EndIn& e) { return e.on == Carrier::SecondRear; }))
            in_.assumed.emplace_back("that the second rear axle goes straight up and down, as far as the first");
        in_.bump_mm[front ? 0 : 1] = front ? t.front_bump.value : t.rear_bump.value;
        in_.droop_mm[front ? 0 : 1] = front ? t.front_droop.value : t.rear_droop.value;
        if (!driven) return;
        const char* name = front ? "front" : "rear";
        note(front ? t.front_bump : t.rear_bump, fmt::format("how far the {} axle goes up", name));
        note(front ? t.front_droop : t.rear_droop, fmt::format("how far the {} axle goes down", name));
        drive::AxleIn axle;
        bool all = true;
        for (const auto& [id, l] : b_.links) {
            if (l.of != (front ? Hung::FrontAxle : Hung::RearAxle)) continue;
            drive::LinkIn link{l.name, l.kind, {}};
            for (const PointId p : l.points) {
                const int k = points_.take(p);
                all = all && k >= 0;
                link.points.push_back(static_cast<std::size_t>(std::max(k, 0)));
            }
            axle.links.push_back(std::move(link));
        }
        int left = -1, right = -1;
        for (const auto& [id, p] : b_.points) {
            if (p.subject != the_chassis || p.role != (front ? Role::FrontHub : Role::RearHub)) continue;
            (sideOf(p.name) == Side::Right ? right : left) = points_.take(id);
        }
        if (axle.links.empty() || !all || left < 0 || right < 0) {
            in_.assumed.push_back(fmt::format("that the {} axle goes straight up and down", name));
            return;
        }
        axle.left = static_cast<std::size_t>(left);
        axle.right = static_cast<std::size_t>(right);
        axle.bump_mm = in_.bump_mm[front ? 0 : 1];
        axle.droop_mm = in_.droop_mm[front ? 0 : 1];
        out = std::move(axle);
    }
    void facts() {
        const DriveFacts& f = b_.drive_facts;
        const auto value = [](const std::optional<build::Dimension>& d) { return d ? std::optional(d->value) : std::nullopt; };
        if (f.redline_rpm) in_.redline_rpm = f.redline_rpm->value;
        if (f.top_gear) in_.top_gear = f.top_gear->value;
        if (!b_.shafts.empty()) {
            assume(!f.redline_rpm || f.redline_rpm->provenance == Provenance::Assumed,
                   fmt::format("the engine's highest speed, {:.0f} rpm", in_.redline_rpm));
            assume(!f.top_gear || f.top_gear->provenance == Provenance::Assumed, fmt::format("top gear, {:g} : 1", in_.top_gear));
        }
        in_.first_gear = value(f.first_gear);
        in_.low_range = value(f.low_range);
        in_.torque_Nm = value(f.torque_Nm);
        in_.layout = f.layout;
        in_.wind_up_rad = f.wind_up.value;
    }

    const Build& b_;
    const Results& r_;
    FixedPoints points_;
    LevelsRead levels_;
    std::vector<std::pair<std::size_t, std::size_t>> read_; ///< ends whose slope levels say, and which of their units
    std::map<DriveEndId, std::size_t> places_;
    std::map<std::string, int> housings_;
    drive::LineInput in_;
};

} // namespace

std::optional<Figure> LevelsRead::of(DriveEndId id) const {
    const auto at = std::find(ends.begin(), ends.end(), id);
    return at == ends.end() ? std::nullopt : levels.units[static_cast<std::size_t>(at - ends.begin())];
}

LevelsRead levelsRead(const Build& b, const Results& r) {
    LevelsRead out;
    if (b.level_readings.empty()) return out;
    for (const auto& [id, e] : b.drive_ends) out.ends.push_back(id);
    for (const auto& [id, s] : b.shafts) out.shafts.push_back(id);
    const auto ends = placesOf(b.drive_ends);
    const auto shafts = placesOf(b.shafts, static_cast<int>(out.ends.size()));
    std::vector<drive::LevelIn> readings;
    for (const auto& [id, l] : b.level_readings) {
        out.ids.push_back(id);
        const int unit = l.on == LevelOn::Frame ? -1 : l.on == LevelOn::Unit ? ends.at(l.end) : shafts.at(l.shaft);
        readings.push_back({unit, l.slope.value, l.within ? sigmaOfU95(l.within->value) : level_sigma});
    }
    // what the survey knows of the same lines: shafts between marked joints, units with two marked points
    std::vector<drive::KnownSlope> known;
    const auto know = [&](int unit, PointId from, PointId to) {
        FixedPoints points(b, r.chassis);
        if (!from || !to) return;
        const int f = points.take(from), t = points.take(to);
        if (f < 0 || t < 0 || !points.assumed().empty()) return;
        const Places places = points.places();
        const Figure slope = build::figureOf(places, {0, 1}, [&](const std::vector<Vec3>& at) {
            return slopeBetween(at[static_cast<std::size_t>(f)], at[static_cast<std::size_t>(t)]);
        });
        if (slope.u95 > 0) known.push_back({unit, slope.value, sigmaOfU95(slope.u95)});
    };
    for (const auto& [id, e] : b.drive_ends) know(ends.at(id), e.fore, e.aft);
    for (const auto& [id, s] : b.shafts) know(shafts.at(id), b.drive_ends.at(s.from).point, b.drive_ends.at(s.to).point);
    out.levels = drive::levelled(readings, known, out.ends.size() + out.shafts.size());
    return out;
}

drive::LineInput driveInput(const Build& b, const Results& r) { return DriveAsked(b, r).ask(); }

namespace {
/// Diameter of the tyres of an axle: as said of the drive line, else of the wheels as they shall be.
std::optional<double> tyreOf(const Build& b, Carrier axle) {
    if (b.drive_facts.tyre_mm) return b.drive_facts.tyre_mm->value;
    const AxleEnd end = axle == Carrier::Front ? AxleEnd::Front : AxleEnd::Rear;
    const WheelSet* wheel = wheelSetOf(b, end, WheelAs::Wanted);
    if (!wheel) wheel = wheelSetOf(b, end, WheelAs::Fitted);
    const auto outside = wheel ? drive::figuresOf(*wheel).outside_mm : std::nullopt;
    return outside ? std::optional(outside->value) : std::nullopt;
}
} // namespace

std::vector<WorkedRatio> workedRatios(const Build& b) {
    std::vector<WorkedRatio> all;
    const DriveFacts& f = b.drive_facts;
    for (const Carrier axle : {Carrier::Front, Carrier::Rear, Carrier::SecondRear}) {
        WorkedRatio w;
        w.axle = axle;
        std::vector<drive::Turns> counts;
        for (const auto& [id, t] : b.turn_counts) {
            if (t.axle != axle) continue;
            drive::Turns one;
            one.shaft = t.shaft.value;
            one.wheel = t.wheel.value;
            one.one_held = t.one_held;
            if (t.within) one.shaft_off = t.within->value;
            counts.push_back(one);
        }
        w.counts = counts.size();
        w.said = axle == Carrier::Front ? f.front_ratio : axle == Carrier::Rear ? f.rear_ratio : std::nullopt;
        if (!counts.empty()) {
            w.counted = drive::ratioOf(counts);
            for (const auto& [id, t] : b.turn_counts)
                if (t.axle == axle && worst(t.shaft.provenance, t.wheel.provenance) == Provenance::Assumed)
                    w.counted->provenance = Provenance::Assumed;
            w.pairs = drive::pairsFor(*w.counted);
        }
        if (counts.empty() && !w.said) continue;
        const double ratio = w.counted ? w.counted->value : w.said->value;
        if (const auto tyre = tyreOf(b, axle); tyre && f.cruise_kmh && f.top_gear && axle != Carrier::SecondRear)
            w.cruise_rpm = drive::engineRpm(f.cruise_kmh->value, ratio, f.top_gear->value, *tyre);
        all.push_back(std::move(w));
    }
    return all;
}

} // namespace gorvet::analysis
