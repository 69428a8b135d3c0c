#include "analysis/scene_times.hpp"

#include "analysis/overlay_parts.hpp"
#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

#include <fmt/format.h>

namespace gorvet::analysis {

using build::ScanPart;
using geometry::RigidTransform;

namespace {

std::function<std::string(double)> lengthOf(const build::Build& b) {
    return [step = b.settings.length_step](double mm) { return units::formatLength(std::abs(mm), step, true); };
}

/// Bump and droop with the wheels straight, then lock to both sides where it stands, then at full bump; −1 to 1 each.
std::vector<std::array<double, 2>> travelPoses(bool steered) {
    constexpr int parts = 5;
    std::vector<std::array<double, 2>> poses;
    const auto go = [&](double u0, double v0, double u1, double v1) {
        for (int k = poses.empty() ? 0 : 1; k <= parts; ++k) {
            const double t = static_cast<double>(k) / parts;
            poses.push_back({u0 + (u1 - u0) * t, v0 + (v1 - v0) * t});
        }
    };
    go(0, 0, 1, 0);
    go(1, 0, -1, 0);
    go(-1, 0, 0, 0);
    if (!steered) return poses;
    go(0, 0, 0, 1);
    go(0, 1, 0, -1);
    go(0, -1, 1, -1);
    go(1, -1, 1, 1);
    return poses;
}

bool onWheels(const Overlay::Part& p) {
    return p.part.sweep && (p.kind == ScanPart::Wheel || p.kind == ScanPart::Axle || p.kind == ScanPart::PropShaft);
}
RigidTransform poseAt(const sit::Sweep& s, double u, double v) {
    return s.both_ends ? s.pose(u, u) : s.pose(u, s.v_steps > 1 ? v : 0);
}

/// On a label: "wheel rear left".
std::string spaced(std::string name) {
    std::replace(name.begin(), name.end(), '-', ' ');
    return name;
}

/// What of the body is nearest to a part on the chassis in a pose, exactly.
struct ClosestBody {
    double spare_mm = 1e300; ///< over what the pair needs
    double least_mm = 1e300;
    sit::Need need;
    bool assumed = true; ///< the need is
    bool meets = false;
    bool depth_known = true;
    shape::Point3 where{}; ///< in the chassis frame
    size_t body_part = 0;
};
std::optional<ClosestBody> closestBody(const Overlay& o, size_t on_chassis, const RigidTransform& pose,
                                       const std::function<bool()>& stop) {
    if (stop()) return std::nullopt;
    ClosestBody best;
    const Overlay::Part& part = o.on_chassis[on_chassis];
    const RigidTransform to_part = geometry::chained(inverse(pose), o.seat);
    for (size_t j = 0; j < o.body_parts.size(); ++j) {
        const ScanPart kind = o.body_parts[j].kind;
        const sit::Need need = needOf(o, kind, part.kind, true);
        const auto c = sit::clearance(*o.body_parts[j].part.ready, *part.part.ready, to_part, need, 0, stop);
        if (!c) return std::nullopt;
        const double spare = c->least_mm - need.foulsBelow();
        if (spare >= best.spare_mm) continue;
        best = {spare,
                c->least_mm,
                need,
                pairNeed(o.placing, kind, part.kind).assumed,
                c->meets,
                c->depth_known,
                pose.transformed(c->at_fixed),
                j};
    }
    return best;
}

/// What is nearest to a part, judged by what the two need.
void say(SceneMoment& m, const Overlay& o, size_t on_chassis, const ClosestBody& c, bool travel_assumed,
         const std::function<std::string(double)>& length) {
    const std::string one = partName(o, build::the_body, c.body_part), other = partName(o, build::the_chassis, on_chassis);
    const sit::Band band = c.need.band(c.least_mm);
    m.where = c.where;
    m.brief = spaced(other) + (c.least_mm <= 0 ? " −" : " ") + length(c.least_mm);
    // an assumed figure never makes a green one
    m.severity = band == sit::Band::Fouls                                  ? sheet::Severity::Bad
                 : band == sit::Band::Tight || c.assumed || travel_assumed ? sheet::Severity::Warn
                                                                           : sheet::Severity::Good;
    m.words = c.meets && !c.depth_known ? fmt::format("{} and {} run through each other", one, other)
              : c.least_mm <= 0         ? fmt::format("{} fouls {} by {}", one, other, length(c.least_mm))
                                        : fmt::format("{} between {} and {}, which need {}{}", length(c.least_mm), one, other,
                                                      length(c.need.foulsBelow()), c.assumed ? " (assumed)" : "");
}

} // namespace

std::optional<SceneTimes> wayTimes(const build::Build& b, const Overlay& o, const WayFound& way) {
    const auto length = lengthOf(b);
    SceneTimes t;
    const auto& steps = way.down.found ? way.down.steps : way.down.tried;
    size_t tightest = way.down.found ? way.down.tightest : 0;
    for (std::size_t k = 0; k < steps.size(); ++k) {
        const sit::DownStep& s = steps[k];
        SceneMoment m;
        m.seat = geometry::chained(sit::hungAt(way.down.about, s.at), o.seat);
        // at the seat it rests, and is cut where it fouls: that is told elsewhere
        const bool seated = k + 1 == steps.size() && way.down.found;
        if (!seated && !s.far)
            m.severity = s.least_mm < passing(o)            ? sheet::Severity::Bad
                         : s.least_mm < o.need.foulsBelow() ? sheet::Severity::Warn
                                                            : sheet::Severity::Good;
        m.words = seated ? std::string("on its seat") : fmt::format("{} over its seat", length(s.at.up_mm));
        if (std::abs(s.at.back_mm) >= 0.5)
            m.words += fmt::format(", {} {}", length(s.at.back_mm), s.at.back_mm > 0 ? "rearward" : "forward");
        if (std::abs(s.at.tilt_rad) > 1e-4)
            m.words +=
                fmt::format(", nose {} by {}", s.at.tilt_rad > 0 ? "up" : "down", units::formatAngle(std::abs(s.at.tilt_rad)));
        if (!s.far && !seated) {
            m.words += s.least_mm <= 0 ? fmt::format(": {} touches {}", s.body_part, s.chassis_part)
                                       : fmt::format(": {} between {} and {}", length(s.least_mm), s.body_part, s.chassis_part);
            m.brief = spaced(s.chassis_part) + " " + length(std::max(0.0, s.least_mm));
            m.where = s.where;
        }
        t.moments.push_back(std::move(m));
    }
    if (t.moments.empty()) return std::nullopt;
    if (!way.down.found)
        for (size_t k = t.moments.size(); k-- > 0;)
            if (t.moments[k].touches()) tightest = k;
    t.words = way.down.found ? "The way in, from hanging free to the seat. Nobody under a hung body."
                             : "No way in was found: so it would come straight down. Nobody under a hung body.";
    t.ways = {{way.down.found ? "Where it is tightest" : "Where it touches first", std::min(tightest, t.moments.size() - 1)},
              {"At its seat", t.moments.size() - 1}};
    return t;
}

std::optional<SceneTimes> travelTimes(const build::Build& b, const Overlay& o, const std::function<bool(double)>& progress) {
    if (!o.complete()) return std::nullopt;
    const auto length = lengthOf(b);
    SceneTimes t;
    const Overlay::Part* speaks = nullptr; // a steered wheel says how all stand
    bool assumed = false, steered = false;
    for (size_t i = 0; i < o.on_chassis.size(); ++i) {
        const Overlay::Part& p = o.on_chassis[i];
        if (!onWheels(p)) continue;
        t.moving.push_back(i);
        const bool steers = p.part.sweep->v_steps > 1 && !p.part.sweep->both_ends;
        if (!speaks || (steers && !steered)) speaks = &p;
        steered = steered || steers;
        assumed = assumed || p.sweep_assumed;
    }
    if (!speaks) return std::nullopt;
    const auto poses = travelPoses(steered);
    std::map<std::tuple<size_t, double, double>, ClosestBody> known; // one that does not steer stands alike at every lock
    double worst = 1e300;
    size_t worst_at = 0;
    for (size_t k = 0; k < poses.size(); ++k) {
        const auto go_on = [&] { return !progress || progress(static_cast<double>(k) / static_cast<double>(poses.size())); };
        const auto [u, v] = poses[k];
        SceneMoment m;
        m.seat = o.seat;
        double shortest = 1e300; // of what each pair needs
        for (const size_t i : t.moving) {
            const Overlay::Part& part = o.on_chassis[i];
            const sit::Sweep& sweep = *part.part.sweep;
            m.moved.push_back(poseAt(sweep, u, v));
            const bool steers = sweep.v_steps > 1 && !sweep.both_ends;
            const auto [it, fresh] = known.try_emplace({i, u, steers ? v : 0});
            if (fresh) {
                const auto found = closestBody(o, i, m.moved.back(), [&] { return !go_on(); });
                if (!found) return std::nullopt;
                it->second = *found;
            }
            const ClosestBody& c = it->second;
            if (c.spare_mm >= shortest) continue;
            shortest = c.spare_mm;
            if (c.least_mm >= c.need.cap_mm) continue;
            say(m, o, i, c, part.sweep_assumed, length);
        }
        if (shortest < worst) worst = shortest, worst_at = k;
        const std::string pose = speaks->part.sweep->words(u, speaks->part.sweep->both_ends ? u : v);
        m.words = (pose.empty() ? "as it stands" : pose) + (m.words.empty() ? "" : ": " + m.words);
        t.moments.push_back(std::move(m));
    }
    t.words = fmt::format(
        "Wheels and axles through their travel, in steps, both sides alike{}. Between the steps, and with one wheel up "
        "and the other down, it may come nearer: pair by pair looks at that.",
        assumed ? " (a travel that is usual, not yours: type travel)" : "");
    t.ways = {{"Where it is worst", worst_at}, {"As it stands", 0}};
    return t;
}

std::optional<SceneTimes> changeTimes(const build::Build& b, const Results& r, const Overlay& o) {
    const build::PlannedChassis& p = r.planned_chassis;
    if (!p.cuts()) return std::nullopt;
    const auto length = lengthOf(b);
    SceneTimes t;
    SceneMoment before;
    before.seat = o.seat;
    before.as_planned = before.steel = false;
    before.words = "as it was surveyed";
    SceneMoment after = before;
    after.as_planned = after.steel = true;
    after.uncut = false;
    after.words = fmt::format("as it is planned: behind station {} it stands {} further {}",
                              units::formatLength(*p.cut_station_mm, b.settings.length_step), length(p.change_mm),
                              p.change_mm < 0 ? "forward" : "rearward");
    t.moments = {std::move(before), std::move(after)};
    t.words = "The chassis before its change and after it, under the body where it is to sit.";
    t.ways = {{"Before", 0}, {"After", 1}};
    return t;
}

std::optional<SceneTimes> workTimes(const build::Build&, const Results& r, const Overlay& o) {
    const work::Order& order = *r.work;
    if (order.steps.empty()) return std::nullopt;
    SceneTimes t;
    t.words = "The order of work, step by step: what stands on the car. Local rules and licensed people come first.";
    const auto place = [&](const char* code) {
        const auto it = std::find_if(order.steps.begin(), order.steps.end(), [&](const work::Step& s) { return s.code == code; });
        return static_cast<size_t>(it - order.steps.begin());
    };
    const size_t cut = place("cut-rails"), closed = place("close-up"), narrowed = place("narrow-weld"),
                 member = place("fit-crossmember"), none = order.steps.size();
    bool body_cut = false;
    for (size_t k = 0; k < order.steps.size(); ++k) {
        const work::Step& s = order.steps[k];
        SceneMoment m;
        m.seat = o.seat;
        const work::Stance& stands = s.moves_to ? *s.moves_to : s.stance;
        m.body = stands.body == build::BodyPlace::On;
        // once the rails are brought together; a rail that is never cut is as planned from the first
        m.as_planned = (cut == none || k >= closed) && (narrowed == none || k >= narrowed) &&
                       (cut != none || narrowed != none || !r.planned_chassis.changes());
        // sleeves go in then, out of sight: new steel is shown when all of it is there
        m.steel = member != none ? k >= member && (cut == none || k >= closed) : cut != none && k >= closed;
        const bool apart = cut != none && k >= cut && k < closed;
        body_cut = body_cut || s.code.starts_with("cut-body-");
        m.uncut = !body_cut;
        m.words = fmt::format("{} of {}: {}{}{}{}", k + 1, order.steps.size(), s.title, s.tick ? " (done)" : "",
                              std::string(m.body ? "" : " · body off") + (apart ? " · rails cut apart (shown as they were)" : ""),
                              stands.attitude == build::Attitude::RightWayUp ? ""
                              : stands.attitude == build::Attitude::Inverted
                                  ? " · frame upside down (shown as it stands on its wheels)"
                                  : " · frame on its side (shown as it stands on its wheels)");
        if (!s.cautions.empty()) m.words += " · " + s.cautions.front();
        t.moments.push_back(std::move(m));
    }
    if (order.next) t.ways.emplace_back("The next step", *order.next);
    if (cut != none) t.ways.emplace_back("The cut", cut);
    t.ways.emplace_back("The last step", none - 1);
    return t;
}

shape::Mesh chassisWithout(const Overlay& o, const std::vector<size_t>& without) {
    shape::Mesh rest;
    for (size_t i = 0; i < o.on_chassis.size(); ++i)
        if (std::find(without.begin(), without.end(), i) == without.end()) append(rest, *o.on_chassis[i].part.ready->mesh);
    return rest;
}

} // namespace gorvet::analysis
