#include "analysis/overlay_parts.hpp"

#include "sit/way_in.hpp"

#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using geometry::RigidTransform;
using shape::Mesh;
using shape::Point3;

RigidTransform axleMotion(const Point3& centre, double track, double left_up, double right_up) {
    // about the way rearward, right-handed: the right end goes up
    RigidTransform m = turnedAbout(centre, {centre[0] + 1, centre[1], centre[2]}, std::atan2(right_up - left_up, track));
    m.translation[2] += (left_up + right_up) / 2;
    return m;
}

namespace {

struct Usual {
    ScanPart one;
    ScanPart other;
    double least_mm;
};
/// Common workshop practice. engineering.md, Scan and Sit; a wheel's 20 at bump counts over its whole travel.
constexpr Usual usual[] = {{ScanPart::Body, ScanPart::Engine, 25},
                           {ScanPart::Bonnet, ScanPart::Engine, 20},
                           {ScanPart::Body, ScanPart::Exhaust, 40},
                           {ScanPart::Bonnet, ScanPart::Exhaust, 40},
                           {ScanPart::Exhaust, ScanPart::FuelTank, 100},
                           {ScanPart::Exhaust, ScanPart::Lines, 100},
                           {ScanPart::Body, ScanPart::PropShaft, 25},
                           {ScanPart::Body, ScanPart::Wheel, 20},
                           {ScanPart::Body, ScanPart::Axle, 25},
                           {ScanPart::Engine, ScanPart::Radiator, 25},
                           {ScanPart::SteeringShaft, ScanPart::Exhaust, 30}};

bool same(ScanPart a, ScanPart b, ScanPart one, ScanPart other) { return (a == one && b == other) || (a == other && b == one); }

const Usual* usualOf(ScanPart a, ScanPart b) {
    const auto* found =
        std::find_if(std::begin(usual), std::end(usual), [&](const Usual& u) { return same(a, b, u.one, u.other); });
    return found == std::end(usual) ? nullptr : found;
}

std::pair<Point3, Point3> boxOf(const Mesh& m) {
    Point3 least{INFINITY, INFINITY, INFINITY}, most{-INFINITY, -INFINITY, -INFINITY};
    for (const Point3& p : m.points)
        for (size_t axis = 0; axis < 3; ++axis) {
            least[axis] = std::min(least[axis], p[axis]);
            most[axis] = std::max(most[axis], p[axis]);
        }
    return {least, most};
}

std::string upWords(double by, units::LengthStep step) {
    if (std::abs(by) < 0.5) return "";
    return fmt::format("at {} {}", sit::wholeLength(std::abs(by), step), by > 0 ? "bump" : "droop");
}

/// A wheel of a beam axle: u is its own travel, v that of the other end, with which it leans.
std::optional<PartSweep> leaningWheel(const Point3& middle, const std::optional<Vec3>& hub, std::pair<double, double> travel,
                                      std::optional<double> track, bool assumed, units::LengthStep in) {
    if (travel.first + travel.second <= 0) return std::nullopt;
    const Point3 centre = hub ? Point3{hub->x_mm, hub->y_mm, hub->z_mm} : Point3{middle[0], 0, middle[2]};
    const double across = track.value_or(std::max(1.0, 2 * std::abs(middle[1] - centre[1])));
    const bool is_left = middle[1] < centre[1];
    const auto up = [travel](double u) { return u > 0 ? u * travel.first : u * travel.second; };
    sit::Sweep sweep;
    sweep.pose = [=](double u, double v) { return axleMotion(centre, across, up(is_left ? u : v), up(is_left ? v : u)); };
    sweep.words = [=](double u, double v) {
        std::string words = upWords(up(u), in);
        const std::string other = upWords(up(v), in);
        if (std::abs(u - v) > 1e-9)
            words += (words.empty() ? "" : ", ") + fmt::format("the other wheel {}", other.empty() ? "at rest" : other);
        return words;
    };
    sweep.u_steps = sweep.v_steps = 6;
    sweep.both_ends = true;
    return PartSweep{std::move(sweep), assumed};
}

} // namespace

PairNeed pairNeed(const Placing& b, ScanPart one, ScanPart other) {
    for (const auto& [id, p] : b.pair_rules)
        if (same(one, other, p.one, p.other))
            return {p.least.value, p.finish.value,
                    p.least.provenance == Provenance::Assumed ||
                        (p.finish.value > 0 && p.finish.provenance == Provenance::Assumed)};
    PairNeed need{b.clearances.least.value, b.clearances.finish.value, b.clearances.least.provenance == Provenance::Assumed};
    if (const Usual* u = usualOf(one, other)) need = {u->least_mm, b.clearances.finish.value, true};
    return need;
}

bool watchedOnOneSubject(const Placing& b, ScanPart one, ScanPart other) {
    for (const auto& [id, p] : b.pair_rules)
        if (same(one, other, p.one, p.other)) return true;
    return usualOf(one, other) != nullptr;
}

RigidTransform turnedAbout(const Point3& from, const Point3& to, double angle) {
    // Rodrigues
    const Point3 k = geometry::unit(geometry::minus(to, from));
    const double c = std::cos(angle), s = std::sin(angle);
    RigidTransform m;
    const double cross[3][3] = {{0, -k[2], k[1]}, {k[2], 0, -k[0]}, {-k[1], k[0], 0}};
    for (size_t i = 0; i < 3; ++i)
        for (size_t j = 0; j < 3; ++j) m.rotation[i][j] = (i == j ? c : 0) + s * cross[i][j] + (1 - c) * k[i] * k[j];
    m.translation = geometry::minus(from, m.rotated(from));
    return m;
}

RigidTransform seatMotion(const Results& r) {
    if (!r.seated()) return {};
    const sit::Pose& p = r.seat->pose;
    return geometry::rigidTransform({p.shift.x_mm, p.shift.y_mm, p.shift.z_mm}, p.yaw_rad, p.pitch_rad, p.roll_rad);
}

namespace {

bool guessed(const build::Dimension& d) { return d.provenance == Provenance::Assumed; }
double up(double u, std::pair<double, double> travel) { return u > 0 ? u * travel.first : u * travel.second; }

/// What sweeps with the wheels: its box, and how the axle moves that it belongs to, which is the one nearer along the car.
struct OnWheels {
    const Placing& b;
    Point3 least;
    Point3 most;
    Point3 middle;
    const std::optional<Vec3>& front;
    const std::optional<Vec3>& rear;
    const WheelTravel& t;

    OnWheels(const Placing& placing, const Mesh& mesh)
        : b(placing), front(placing.front_hub), rear(placing.rear_hub), t(placing.travel) {
        std::tie(least, most) = boxOf(mesh);
        middle = geometry::along(least, most, 0.5);
    }
    static double away(const std::optional<Vec3>& hub, double station) { return hub ? std::abs(hub->x_mm - station) : INFINITY; }
    std::pair<double, double> travelOf(bool is_rear) const {
        return is_rear ? std::pair{t.rear_bump.value, t.rear_droop.value} : std::pair{t.front_bump.value, t.front_droop.value};
    }
    bool guessedTravel(bool is_rear) const {
        return is_rear ? guessed(t.rear_bump) || guessed(t.rear_droop) : guessed(t.front_bump) || guessed(t.front_droop);
    }

    /// `pivot`: of a steered wheel, as it was given; null: none was.
    std::optional<PartSweep> wheel(const Swing* pivot) const {
        sit::Sweep sweep;
        const units::LengthStep in = b.words_in;
        const bool is_rear = away(rear, middle[0]) <= away(front, middle[0]);
        const auto travel = travelOf(is_rear);
        if (is_rear && !pivot && b.beam_axle)
            return leaningWheel(middle, b.rear_hub, travel, b.rear_track_mm, guessedTravel(true), b.words_in);
        const double left = pivot ? pivot->angle.value : is_rear ? 0 : t.lock.value;
        const double right = pivot ? pivot->back.value : left;
        if (travel.first + travel.second <= 0 && left + right <= 0) return std::nullopt;
        // about the pivot axis that was given, leaning and inboard as it is; else about an upright through the wheel's middle,
        // which is a guess: a real pivot needs more room
        const Point3 from = pivot ? pivot->from : middle;
        const Point3 to = pivot ? pivot->to : Point3{middle[0], middle[1], middle[2] + 1};
        const bool upwards = to[2] >= from[2];
        const auto turned = [=](double v) { return v > 0 ? v * left : v * right; };
        sweep.pose = [=](double u, double v) {
            RigidTransform m = turnedAbout(from, to, turned(v));
            m.translation[2] += up(u, travel);
            return m;
        };
        sweep.words = [=](double u, double v) {
            std::string words = upWords(up(u, travel), in);
            // right-handed about up: the wheel's front goes to the left
            if (std::abs(turned(v)) > 1e-9)
                words += (words.empty() ? "" : ", ") + fmt::format("locked {} to the {}", units::formatAngle(std::abs(turned(v))),
                                                                   (v > 0) == upwards ? "left" : "right");
            return words;
        };
        sweep.u_steps = 8;
        sweep.v_steps = left + right > 0 ? 8 : 1;
        const bool guessed_lock = pivot ? guessed(pivot->angle) || guessed(pivot->back) : left > 0;
        return PartSweep{std::move(sweep), guessedTravel(is_rear) || guessed_lock};
    }

    std::optional<PartSweep> axle() const {
        sit::Sweep sweep;
        const units::LengthStep in = b.words_in;
        const bool is_rear = away(rear, middle[0]) <= away(front, middle[0]);
        const auto travel = travelOf(is_rear);
        if (travel.first + travel.second <= 0) return std::nullopt;
        // it rises and rolls: u is the travel of its left end, v that of its right
        const double track = (is_rear ? b.rear_track_mm : b.front_track_mm).value_or(std::max(1.0, most[1] - least[1]));
        const auto hub = is_rear ? b.rear_hub : b.front_hub;
        const Point3 centre = hub ? *hub : middle;
        sweep.pose = [=](double u, double v) { return axleMotion(centre, track, up(u, travel), up(v, travel)); };
        sweep.words = [=](double u, double v) {
            const std::string l = upWords(up(u, travel), in), right_end = upWords(up(v, travel), in);
            if (std::abs(u - v) < 1e-9) return l;
            return fmt::format("left end {}, right end {}", l.empty() ? "at rest" : l, right_end.empty() ? "at rest" : right_end);
        };
        sweep.u_steps = sweep.v_steps = 6;
        sweep.both_ends = true;
        return PartSweep{std::move(sweep), guessedTravel(is_rear)};
    }

    std::optional<PartSweep> propShaft() const {
        sit::Sweep sweep;
        const units::LengthStep in = b.words_in;
        // it hangs at the gearbox and follows the axle that is nearer to its far end
        const bool to_rear = away(rear, most[0]) <= away(front, least[0]);
        const auto travel = travelOf(to_rear);
        const Point3 hung = to_rear ? Point3{least[0], middle[1], middle[2]} : Point3{most[0], middle[1], middle[2]};
        const double reach = most[0] - least[0];
        if (travel.first + travel.second <= 0 || reach < 50) return std::nullopt;
        const double side = to_rear ? -1 : 1; // about y, right-handed: what is behind goes down
        sweep.pose = [=](double u, double) {
            return turnedAbout(hung, {hung[0], hung[1] + 1, hung[2]},
                               side * std::asin(std::clamp(up(u, travel) / reach, -0.9, 0.9)));
        };
        sweep.words = [=](double u, double) { return upWords(up(u, travel), in); };
        sweep.u_steps = 8;
        return PartSweep{std::move(sweep), guessedTravel(to_rear)};
    }

    std::optional<PartSweep> engine() const {
        sit::Sweep sweep;
        const double rock = t.rock.value;
        if (rock <= 0) return std::nullopt;
        sweep.pose = [rock, middle = middle](double u, double) {
            return turnedAbout(middle, {middle[0] + 1, middle[1], middle[2]}, u * rock);
        };
        sweep.words = [=](double u, double) {
            return fmt::format("rocked {} to the {}", units::formatAngle(std::abs(u) * rock), u > 0 ? "left" : "right");
        };
        sweep.u_steps = 4;
        return PartSweep{std::move(sweep), guessed(t.rock)};
    }
};

/// A bonnet, door or lid about its hinges; nothing when it does not move.
std::optional<PartSweep> swung(const Swing& swing) {
    const double angle = swing.angle.value, back = swing.back.value;
    if (angle <= 0 && back <= 0) return std::nullopt;
    sit::Sweep sweep;
    sweep.pose = [=, from = swing.from, to = swing.to](double u, double) {
        return turnedAbout(from, to, u > 0 ? u * angle : u * back);
    };
    sweep.words = [=](double u, double) { return fmt::format("swung by {}", units::formatAngle(u > 0 ? u * angle : -u * back)); };
    sweep.one_way = back <= 0;
    sweep.u_steps = std::clamp(static_cast<int>(std::ceil((angle + back) / units::radians(3))), 4, 60);
    return PartSweep{std::move(sweep), guessed(swing.angle)};
}

} // namespace

std::optional<PartSweep> sweepOf(const Placing& b, ScanPart part, ScanId scan, const Mesh& mesh) {
    if (mesh.points.empty()) return std::nullopt;
    const Swing* pivot = nullptr;
    for (const auto& [id, swing] : b.swings) {
        if (swing.scan != scan) continue;
        if (part != ScanPart::Wheel) return swung(swing);
        pivot = &swing;
    }
    const OnWheels on(b, mesh);
    const bool hubs = b.front_hub || b.rear_hub;
    switch (part) {
    case ScanPart::Wheel: return hubs ? on.wheel(pivot) : std::nullopt;
    case ScanPart::Axle: return hubs ? on.axle() : std::nullopt;
    case ScanPart::PropShaft: return b.rear_hub ? on.propShaft() : std::nullopt;
    case ScanPart::Engine: return on.engine();
    default: return std::nullopt;
    }
}

Mesh withFloorWork(const OverlayInput& in, Mesh m) {
    if (!in.lowering) return m;
    const Lowering& l = *in.lowering;
    if (l.channel.value <= 0 && l.raise.value <= 0) return m;
    const Zone* floor = nullptr;
    for (const auto& [id, z] : in.zones)
        if (z.name == l.floor || (l.floor.empty() && z.name == "floor")) floor = &z;
    const auto inFloor = [&](const Point3& p) {
        return p[0] >= floor->from.x_mm && p[0] <= floor->to.x_mm && p[1] >= floor->from.y_mm && p[1] <= floor->to.y_mm &&
               p[2] >= floor->from.z_mm && p[2] <= floor->to.z_mm;
    };
    const auto overRail = [&](const Point3& p) {
        const Point3 at = in.channel->seat.transformed(p);
        for (const RailLine* rail : {&in.channel->left, &in.channel->right}) {
            const auto on = rail->at(at[0]);
            // sheet well over a rail is not its floor
            if (on && std::abs(at[1] - on->y_mm) <= in.channel->half_mm &&
                (floor || (at[2] > on->bottom_mm - 60 && at[2] < on->top_mm + 60)))
                return true;
        }
        return false;
    };
    for (Point3& p : m.points) {
        double up = 0;
        if (floor && !inFloor(p)) continue;
        if (l.raise.value > 0 && floor) up = l.raise.value;
        if (in.channel && overRail(p)) up = std::max(up, l.channel.value);
        p[2] += up;
    }
    return m;
}

Mesh withKickedRails(const OverlayInput& in, ScanPart part, Mesh m) {
    if (!in.lowering) return m;
    const Lowering& l = *in.lowering;
    if (l.kick.value <= 0 || part == ScanPart::Engine || part == ScanPart::Axle || part == ScanPart::Wheel ||
        part == ScanPart::PropShaft || part == ScanPart::Radiator)
        return m;
    const double ramp = std::max(50.0, 1.5 * in.rail_width_mm);
    for (Point3& p : m.points) {
        const double before = (p[0] - (l.kick_from.value - ramp)) / ramp, after = (l.kick_to.value + ramp - p[0]) / ramp;
        p[2] -= l.kick.value * std::clamp(std::min(before, after), 0.0, 1.0);
    }
    return m;
}

} // namespace gorvet::analysis
