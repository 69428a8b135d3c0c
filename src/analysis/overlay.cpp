#include "analysis/overlay.hpp"

#include "analysis/overlay_parts.hpp"
#include "analysis/wording.hpp"

#include "sit/pairs_sheet.hpp"
#include "units/quantity.hpp"

#include <algorithm>
#include <cctype>
#include <filesystem>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using shape::Mesh;
using shape::Motion;

namespace {

shape::Point3 point(const Vec3& v) { return {v.x_mm, v.y_mm, v.z_mm}; }

void append(Mesh& to, const Mesh& m, const Motion& motion) {
    const auto shift = static_cast<std::uint32_t>(to.points.size());
    for (const shape::Point3& p : m.points) to.points.push_back(motion.moved(p));
    for (const shape::Triangle& t : m.triangles) to.triangles.push_back({t[0] + shift, t[1] + shift, t[2] + shift});
    // a cloud's points count as themselves
    if (m.triangles.empty())
        for (std::uint32_t i = 0; i < m.points.size(); ++i) to.triangles.push_back({shift + i, shift + i, shift + i});
}

const char* word(sit::Band b) { return b == sit::Band::Fouls ? "Fouls" : b == sit::Band::Tight ? "Tight" : "Clear"; }

std::string side(double offset) {
    if (std::abs(offset) < 25) return "in the middle";
    return fmt::format("{:.0f} {}", std::abs(offset), offset < 0 ? "left" : "right");
}

} // namespace

double unitOf(ScanUnit u) {
    switch (u) {
    case ScanUnit::Mm: return 1;
    case ScanUnit::Cm: return 10;
    case ScanUnit::M: return 1000;
    case ScanUnit::Inch: return 25.4;
    }
    return 1;
}

Motion poseOf(const Scan& s) { return shape::motionOf(point(s.shift), s.yaw_rad, s.pitch_rad, s.roll_rad); }

Mesh asPlanned(Mesh mesh, double cut_station_mm, double change_mm, double slope_rad) {
    if (change_mm == 0) return mesh;
    // what comes out is pressed into the cut, what is let in is stretched over it: the surface stays as closed as it was
    const double out = std::max(0.0, -change_mm);
    for (shape::Point3& p : mesh.points) {
        if (p[0] <= cut_station_mm) continue;
        const double by = out > 0 ? -std::min(out, p[0] - cut_station_mm) : change_mm;
        p[0] += by;
        p[2] -= by * std::tan(slope_rad);
    }
    return mesh;
}

namespace {

Mesh boxMesh(const Obstacle& o) {
    Mesh m;
    for (const double z : {o.from.z_mm, o.to.z_mm})
        for (const double y : {o.from.y_mm, o.to.y_mm})
            for (const double x : {o.from.x_mm, o.to.x_mm}) m.points.push_back({x, y, z});
    // outward, two triangles a face; corner k: bit 0 x, bit 1 y, bit 2 z
    constexpr std::uint32_t faces[6][4] = {{0, 2, 3, 1}, {4, 5, 7, 6}, {0, 1, 5, 4}, {2, 6, 7, 3}, {0, 4, 6, 2}, {1, 3, 7, 5}};
    for (const auto& f : faces) {
        m.triangles.push_back({f[0], f[1], f[2]});
        m.triangles.push_back({f[0], f[2], f[3]});
    }
    return m;
}

bool changesWheelbase(const Build& b, const Results& r) {
    return b.stretch.cut_station && r.seat.change_mm && std::abs(*r.seat.change_mm) > 0.05;
}
Mesh asPlannedBy(const Build& b, const Results& r, Mesh m) {
    return changesWheelbase(b, r)
               ? asPlanned(std::move(m), b.stretch.cut_station->value, *r.seat.change_mm, r.sit_input.cut_slope_rad)
               : m;
}

} // namespace

sit::WayIn wayInOf(const Overlay& o) { return o.complete() ? sit::wayIn(*o.body->mesh, o.seat, o.chassis_parts) : sit::WayIn{}; }

Overlay overlayOf(const Build& b, const Results& r, const ScanMeshes& meshes, int threads) {
    Overlay o;
    Mesh whole[2];
    const auto add = [&](Subject subject, ScanPart kind, ScanId scan, const std::string& name, Mesh mesh) {
        Overlay::Part part;
        part.kind = kind;
        part.scan = scan;
        Mesh& all = whole[static_cast<int>(subject)];
        part.first = all.points.size();
        append(all, mesh, {});
        part.part.name = name;
        auto own = std::make_shared<const Mesh>(std::move(mesh));
        if (subject == Subject::Chassis) o.chassis_parts.push_back({name, own});
        auto ready = std::make_shared<sit::Ready>(); // its tree comes when all are there
        ready->mesh = std::move(own);
        part.part.ready = std::move(ready);
        (subject == Subject::Body ? o.body_parts : o.on_chassis).push_back(std::move(part));
    };
    for (const auto& [id, s] : b.scans) {
        const auto mesh = meshes.find(id);
        if (mesh == meshes.end() || !mesh->second) {
            o.remarks.push_back(fmt::format("The scan {} is not there: it was left out.", s.name));
            continue;
        }
        Mesh own;
        append(own, *mesh->second, poseOf(s));
        own = s.subject == Subject::Body ? withFloorWork(b, r, std::move(own))
                                         : withKickedRails(b, s.part, asPlannedBy(b, r, std::move(own)));
        add(s.subject, s.part, id, s.name, std::move(own));
    }
    // envelopes that pins keep clear of: plain solids
    for (const auto& [id, box] : b.obstacles) {
        const ObstacleId which = id;
        if (std::none_of(b.pins.begin(), b.pins.end(), [&](const auto& row) { return row.second.box == which; })) continue;
        Mesh solid = boxMesh(box);
        add(box.subject, ScanPart::Other, {}, box.name,
            box.subject == Subject::Chassis ? asPlannedBy(b, r, std::move(solid)) : std::move(solid));
    }
    if (changesWheelbase(b, r))
        o.remarks.push_back(fmt::format("The chassis is shown as planned: behind station {:.0f} it stands {:.1f} mm further {}.",
                                        b.stretch.cut_station->value, std::abs(*r.seat.change_mm),
                                        *r.seat.change_mm < 0 ? "forward" : "back"));
    const Lowering& l = b.lowering;
    if (l.raise.value > 0 && std::none_of(b.zones.begin(), b.zones.end(), [&](const auto& row) {
            return row.second.name == (l.floor.empty() ? "floor" : l.floor);
        }))
        o.remarks.emplace_back("The raised floor is not shown: no zone says which sheet is the floor.");
    else if (l.channel.value > 0 || l.raise.value > 0 || l.kick.value > 0)
        o.remarks.push_back(fmt::format(
            "Shown as lowered: {}{}{}.", l.channel.value > 0 ? fmt::format("floor channelled by {:.0f}", l.channel.value) : "",
            l.raise.value > 0 ? fmt::format("{}floor raised by {:.0f}", l.channel.value > 0 ? ", " : "", l.raise.value) : "",
            l.kick.value > 0
                ? fmt::format("{}rails let down by {:.0f}", l.channel.value + l.raise.value > 0 ? ", " : "", l.kick.value)
                : ""));
    for (const Subject subject : {Subject::Body, Subject::Chassis}) {
        auto& parts = subject == Subject::Body ? o.body_parts : o.on_chassis;
        auto& all = subject == Subject::Body ? o.body : o.chassis;
        all = std::make_shared<const sit::Ready>(
            sit::readyOf(std::make_shared<const Mesh>(std::move(whole[static_cast<int>(subject)])), threads));
        // a single part is the whole; several are made ready each
        for (Overlay::Part& p : parts)
            p.part.ready =
                parts.size() == 1 ? all : std::make_shared<const sit::Ready>(sit::readyOf(p.part.ready->mesh, threads));
    }
    o.mesh_remarks = o.remarks;
    reseat(o, b, r);
    return o;
}

void reseat(Overlay& o, const Build& b, const Results& r) {
    o.remarks = o.mesh_remarks;
    for (auto* parts : {&o.body_parts, &o.on_chassis})
        for (Overlay::Part& p : *parts) {
            const auto scan = b.scans.find(p.scan);
            auto sweep = scan == b.scans.end() ? std::nullopt : sweepOf(b, r, scan->second, *p.part.ready->mesh);
            p.sweep_assumed = sweep && sweep->assumed;
            p.part.sweep = sweep ? std::optional(std::move(sweep->sweep)) : std::nullopt;
        }
    o.seated = r.seated();
    o.seat = seatMotion(r);
    if (!o.seated) o.remarks.emplace_back("Nothing seats the body yet: both stand on their own axes as if these were one.");
    o.need = {};
    o.need.least_mm = b.clearances.least.value;
    o.need.finish_mm = b.clearances.finish.value;
    if (o.seated)
        for (const double h : r.seat.pose_half_width_mm)
            if (std::isfinite(h)) o.need.half_width_mm = std::max(o.need.half_width_mm, h);
    // what is assumed so wide that nothing could be said is not taken off
    o.need.half_width_mm = std::min(o.need.half_width_mm, 20.0);
    o.need.cap_mm = std::max(100.0, 2 * o.need.tightBelow());
}

namespace {

sit::Need needOf(const Overlay& o, const Build& b, ScanPart one, ScanPart other, bool moves) {
    const PairNeed p = pairNeed(b, one, other);
    sit::Need need = o.need;
    need.least_mm = p.least_mm;
    need.finish_mm = p.finish_mm;
    if (!moves) need.half_width_mm = 0;
    need.cap_mm = std::max(100.0, 2 * need.tightBelow());
    return need;
}

} // namespace

bool unlikeNeeds(const Overlay& o, const Build& b) {
    for (const auto& m : o.body_parts)
        for (const auto& f : o.on_chassis) {
            const sit::Need need = needOf(o, b, m.kind, f.kind, true);
            if (need.least_mm != o.need.least_mm || need.finish_mm != o.need.finish_mm) return true;
        }
    return false;
}

sit::LiveClearance liveOf(const Overlay& o, const Build& b, const Motion& seat, int threads, const std::function<bool()>& stop) {
    // all parts need the same: the whole in one
    if (!unlikeNeeds(o, b)) return sit::liveClearance(*o.body, *o.chassis, seat, o.need, threads, stop);
    sit::LiveClearance all;
    all.least_mm = o.need.cap_mm;
    for (const auto& m : o.body_parts) {
        std::vector<std::pair<const sit::Ready*, sit::Need>> fixed;
        for (const auto& f : o.on_chassis) fixed.emplace_back(f.part.ready.get(), needOf(o, b, m.kind, f.kind, true));
        auto live = sit::worstOf(*m.part.ready, fixed, seat, o.need, threads, stop);
        auto& to = all.map.distance_mm;
        to.insert(to.end(), live.map.distance_mm.begin(), live.map.distance_mm.end());
        all.map.has_inside = all.map.has_inside || live.map.has_inside;
        all.clear += live.clear;
        all.tight += live.tight;
        all.fouls += live.fouls;
        if (live.least_mm < all.least_mm || &m == &o.body_parts.front()) {
            all.least_mm = live.least_mm;
            all.at = live.at;
        }
    }
    return all;
}

std::optional<OverlayClearance> clearanceOf(const Overlay& o, const Build& b, int threads, const std::function<bool()>& stop) {
    OverlayClearance c;
    const auto stopped = [&] { return stop && stop(); };
    c.live = liveOf(o, b, o.seat, threads, stop);
    if (stopped()) return std::nullopt;
    c.crossings = shape::crossings(*o.body->tree, *o.chassis->tree, o.seat, threads, stop);
    if (stopped()) return std::nullopt;
    const auto one = [&](Subject s, size_t i, Subject t, size_t j) {
        const Overlay::Part& m = o.of(s)[i];
        const Overlay::Part& f = o.of(t)[j];
        OverlayPair p;
        p.moving = s;
        p.fixed = t;
        p.assumed = pairNeed(b, m.kind, f.kind).assumed;
        auto found =
            sit::pairClearance(m.part, f.part, s == t ? Motion{} : o.seat, needOf(o, b, m.kind, f.kind, s != t), threads, stop);
        if (!found) return false;
        p.pair = std::move(*found);
        p.pair.moving = i;
        p.pair.fixed = j;
        if (!p.pair.pose.empty() && ((m.part.sweep && m.sweep_assumed) || (f.part.sweep && f.sweep_assumed)))
            p.pair.pose += " (assumed)";
        if (s == t && s == Subject::Body) {
            p.pair.at = o.seat.moved(p.pair.at);
            for (sit::Contact& k : p.pair.contacts) k.at = o.seat.moved(k.at);
        }
        c.pairs.push_back(std::move(p));
        return true;
    };
    for (size_t i = 0; i < o.body_parts.size(); ++i)
        for (size_t j = 0; j < o.on_chassis.size(); ++j)
            if (!one(Subject::Body, i, Subject::Chassis, j)) return std::nullopt;
    for (const Subject s : {Subject::Body, Subject::Chassis})
        for (size_t i = 0; i < o.of(s).size(); ++i)
            for (size_t j = i + 1; j < o.of(s).size(); ++j)
                if (watchedOnOneSubject(b, o.of(s)[i].kind, o.of(s)[j].kind) && !one(s, i, s, j)) return std::nullopt;
    const auto shortOf = [](const sit::Pair& p, double distance) { return p.need.foulsBelow() - distance; };
    std::stable_sort(c.pairs.begin(), c.pairs.end(), [&](const OverlayPair& x, const OverlayPair& y) {
        if (x.pair.band != y.pair.band) return x.pair.band > y.pair.band;
        return shortOf(x.pair, x.pair.least_mm) > shortOf(y.pair, y.pair.least_mm);
    });
    c.least_mm = o.need.cap_mm;
    for (size_t k = 0; k < c.pairs.size(); ++k) {
        const sit::Pair& p = c.pairs[k].pair;
        if (c.pairs[k].moving != c.pairs[k].fixed) c.least_mm = std::min(c.least_mm, p.least_mm);
        for (const sit::Contact& contact : p.contacts) c.places.push_back({k, contact, shortOf(p, contact.distance_mm)});
    }
    std::stable_sort(c.places.begin(), c.places.end(), [](const auto& x, const auto& y) {
        if (x.contact.band != y.contact.band) return x.contact.band > y.contact.band;
        return x.short_mm != y.short_mm ? x.short_mm > y.short_mm : x.contact.area_mm2 > y.contact.area_mm2;
    });
    return c;
}

Result<sit::CutMap> cutMapOf(const Overlay& o, const Build& b, int threads, const std::function<bool()>& stop) {
    std::vector<sit::CutAgainst> against;
    bool guessed = false;
    for (const Overlay::Part& f : o.on_chassis) {
        // the body's own sheet is what is cut, whichever of its scans it is on
        const double extra = needOf(o, b, ScanPart::Body, f.kind, true).foulsBelow() - o.need.foulsBelow();
        against.push_back({f.part.ready.get(), extra, {}});
        if (!f.part.sweep) continue;
        if (f.sweep_assumed) {
            guessed = true;
            continue;
        }
        const bool steered = f.part.sweep->v_steps > 1;
        for (const double u : {-1.0, 0.0, 1.0})
            for (const double v : {-1.0, 0.0, 1.0})
                if ((u != 0 || v != 0) && (steered || v == 0) && (u >= 0 || !f.part.sweep->one_way))
                    against.push_back({f.part.ready.get(), extra, f.part.sweep->pose(u, v)});
    }
    // an envelope of the body is no sheet: it is not cut
    auto sheet = o.body;
    if (std::any_of(o.body_parts.begin(), o.body_parts.end(), [](const Overlay::Part& p) { return !p.scan; })) {
        Mesh scans;
        for (const Overlay::Part& p : o.body_parts)
            if (p.scan) append(scans, *p.part.ready->mesh, {});
        sheet = std::make_shared<const sit::Ready>(sit::readyOf(std::make_shared<const Mesh>(std::move(scans)), threads));
    }
    auto map = sit::cutMap(*sheet, against, o.seat, cutOptionsOf(b, o.need), threads, stop);
    if (map && guessed)
        map->remarks.emplace_back(
            "What moves was taken as it stands: nobody cuts by an assumed travel. Type it, and its ends count: travel front bump 70.");
    return map;
}

std::string partName(const Overlay& o, Subject s, size_t part) {
    const auto& parts = o.of(s);
    const Overlay::Part& p = parts[part];
    const auto alike = std::count_if(parts.begin(), parts.end(), [&](const Overlay::Part& q) { return q.kind == p.kind; });
    if (alike > 1 || p.kind == ScanPart::Other) return p.part.name;
    std::string name = "the " + std::string(build::word(p.kind));
    std::replace(name.begin(), name.end(), '-', ' ');
    return name;
}

std::string overlayKey(const Build& b, const Results& r) {
    std::string key;
    for (const auto& [id, s] : b.scans)
        key += fmt::format("{} {} {} {} {} {} {} {} {} {} {} {};", id.value, s.name, build::word(s.part), s.blob,
                           build::word(s.unit), build::word(s.subject), s.shift.x_mm, s.shift.y_mm, s.shift.z_mm, s.yaw_rad,
                           s.pitch_rad, s.roll_rad);
    const Lowering& l = b.lowering;
    if (l.channel.value > 0 || l.raise.value > 0 || l.kick.value > 0) {
        const auto& p = r.seat.pose;
        key += fmt::format("{} {} {} {} {} {};", l.channel.value, l.raise.value, l.kick.value, l.kick_from.value, l.kick_to.value,
                           l.floor);
        // a channel lies over the rails wherever the body sits
        if (l.channel.value > 0)
            key += fmt::format("{:.2f} {:.2f} {:.2f} {:.5f} {:.5f} {:.5f};", p.shift.x_mm, p.shift.y_mm, p.shift.z_mm, p.yaw_rad,
                               p.pitch_rad, p.roll_rad);
        for (const auto& [id, z] : b.zones)
            key += fmt::format("{} {} {} {} {} {} {};", z.name, z.from.x_mm, z.from.y_mm, z.from.z_mm, z.to.x_mm, z.to.y_mm,
                               z.to.z_mm);
    }
    for (const auto& [id, o] : b.obstacles)
        for (const auto& [pin, p] : b.pins)
            if (p.box == id)
                key += fmt::format("{} {} {} {} {} {} {};", o.name, o.from.x_mm, o.from.y_mm, o.from.z_mm, o.to.x_mm, o.to.y_mm,
                                   o.to.z_mm);
    if (b.stretch.cut_station && r.seat.change_mm)
        key += fmt::format("{} {} {}", b.stretch.cut_station->value, *r.seat.change_mm, r.sit_input.cut_slope_rad);
    return key;
}

std::string clearanceKey(const Build& b, const Results& r) {
    const sit::Pose& p = r.seat.pose;
    const double* u = r.seat.pose_half_width_mm;
    std::string key = fmt::format("{} {} {} {} {} {} {} {} {} {} {};", r.seated(), p.shift.x_mm, p.shift.y_mm, p.shift.z_mm,
                                  p.yaw_rad, p.pitch_rad, p.roll_rad, u[0], u[1], u[2], r.seat.change_mm.value_or(0));
    const auto figure = [&](const Dimension& d) { key += fmt::format("{} {} ", d.value, build::word(d.provenance)); };
    for (const Dimension* d : {&b.clearances.least, &b.clearances.finish}) figure(*d);
    const WheelTravel& t = b.travel;
    for (const Dimension* d : {&t.front_bump, &t.front_droop, &t.rear_bump, &t.rear_droop, &t.lock, &t.rock}) figure(*d);
    for (const auto& [id, rule] : b.pair_rules) {
        key += fmt::format("{} {} ", build::word(rule.one), build::word(rule.other));
        figure(rule.least);
        figure(rule.finish);
    }
    for (const auto& [id, s] : b.swings) {
        key += fmt::format("{} {} {} {} {} {} {} ", s.scan.value, s.from.x_mm, s.from.y_mm, s.from.z_mm, s.to.x_mm, s.to.y_mm,
                           s.to.z_mm);
        figure(s.angle);
        figure(s.back);
    }
    for (const int i : {r.sit_input.front_left, r.sit_input.front_right, r.sit_input.rear_left, r.sit_input.rear_right})
        if (i >= 0) {
            const Vec3& at = r.sit_input.chassis.at[static_cast<size_t>(i)];
            key += fmt::format("{} {} {} ", at.x_mm, at.y_mm, at.z_mm);
        }
    return key;
}

Result<Edit> movePins(const Build& b, double rearward_mm, double up_mm) {
    Edit edit;
    bool along = false, up = false;
    // an arch that is pinned to its wheel holds the body along: only the height moves then
    const bool held =
        std::any_of(b.pins.begin(), b.pins.end(), [](const auto& row) { return row.second.kind == PinKind::ArchFront; });
    if (held && std::abs(up_mm) >= 0.05) rearward_mm = 0;
    if (held && std::abs(rearward_mm) >= 0.05)
        return Error{Error::Code::Conflict, "arch",
                     "The front arch is pinned to its wheel: the body can't be moved along by hand.",
                     "Remove that pin first, on Sit.", -1};
    const auto moved = [&](Pin pin, double by) {
        pin.target.value += by;
        pin.target.typed.clear();
        pin.target.provenance = Provenance::Derived;
        edit.changes.emplace_back(Put<Pin>{pin});
    };
    for (const auto& [id, pin] : b.pins) {
        if (pin.kind == PinKind::Station && std::abs(rearward_mm) >= 0.05) moved(pin, rearward_mm), along = true;
        if (pin.kind == PinKind::Height && std::abs(up_mm) >= 0.05) moved(pin, up_mm), up = true;
    }
    if ((std::abs(rearward_mm) >= 0.05 && !along) || (std::abs(up_mm) >= 0.05 && !up))
        return Error{Error::Code::Conflict, "pins",
                     fmt::format("No pin holds the body {}.", up || std::abs(up_mm) < 0.05 ? "along" : "in height"),
                     "Pin the hinge pillar's station and the sills' heights on Sit first.", -1};
    if (!along && !up) return Error{Error::Code::BadInput, "move", "That is no move.", "Drag it further.", -1};
    edit.sentence = fmt::format("move the body {:.1f} mm {} and {:.1f} mm {}", std::abs(rearward_mm),
                                rearward_mm < 0 ? "forward" : "rearward", std::abs(up_mm), up_mm < 0 ? "down" : "up");
    return edit;
}

sit::CutOptions cutOptionsOf(const Build& b, const sit::Need& need) {
    sit::CutOptions o;
    o.need = need;
    o.margin_mm = b.clearances.margin.value;
    o.flange_mm = b.clearances.flange.value;
    o.thickness_mm = b.clearances.sheet.value;
    for (const auto& [id, z] : b.zones) {
        const auto kind = z.rule == ZoneRule::Never   ? sit::ZoneKind::Never
                          : z.rule == ZoneRule::Brace ? sit::ZoneKind::Brace
                                                      : sit::ZoneKind::Named;
        o.zones.push_back({z.name, kind, point(z.from), point(z.to)});
    }
    return o;
}

std::vector<Finding> clearanceFindings(const Build& b, const Overlay& o, const OverlayClearance& c, size_t most) {
    std::vector<Finding> list;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    for (const OverlayClearance::Place& place : c.places) {
        if (list.size() == most) break;
        const sit::Contact& k = place.contact;
        const OverlayPair& pair = c.pairs[place.pair];
        const sit::Need& need = pair.pair.need;
        const std::string one = capital(partName(o, pair.moving, pair.pair.moving)),
                          other = partName(o, pair.fixed, pair.pair.fixed);
        Finding f;
        f.bench = Bench::Scan;
        f.severity = k.band == sit::Band::Fouls ? sheet::Severity::Bad : sheet::Severity::Warn;
        f.code = k.band == sit::Band::Fouls ? "scan.fouls" : "scan.tight";
        f.subject = fmt::format("{} and {}", partName(o, pair.moving, pair.pair.moving), other);
        f.word = word(k.band);
        f.need = len(need.least_mm) + (pair.assumed ? " ?" : "");
        const std::string where = fmt::format("at station {:.0f}, {}, height {:.0f}{}", k.at[0], side(k.at[1]), k.at[2],
                                              pair.pair.pose.empty() ? "" : ", " + pair.pair.pose);
        const std::string needs =
            fmt::format("Needs {} clear{}{}.", len(need.least_mm), pair.assumed ? " (assumed)" : "",
                        need.finish_mm + need.half_width_mm > 0
                            ? fmt::format(", with {} for finish and ±", len(need.finish_mm + need.half_width_mm))
                            : "");
        f.figure = len(std::abs(k.distance_mm));
        if (k.distance_mm < 0)
            f.sentence = fmt::format("{} fouls {} by {} {}. {}", one, other, len(-k.distance_mm), where, needs);
        else if (k.meets && pair.pair.depth_known)
            f.sentence = fmt::format("{} touches {} {}. {}", one, other, where, needs);
        else if (k.meets)
            f.sentence = fmt::format("{} and {} run through each other {}; neither is closed there, so how deep is not known.",
                                     one, other, where);
        else
            f.sentence = fmt::format("{} comes within {} of {} {}. {}", one, len(k.distance_mm), other, where, needs);
        if (k.band == sit::Band::Fouls && pair.moving != pair.fixed)
            f.remedy = fmt::format("Raise or move the body by {} there, or cut it: the cut map says where.", len(place.short_mm));
        else if (k.band == sit::Band::Fouls)
            f.remedy = fmt::format("Move one of them by {}, or shield it and say what it then needs.", len(place.short_mm));
        else
            f.remedy = "Measure it again once the body sits, before anything is welded.";
        f.station_mm = k.at[0];
        f.brief = k.band == sit::Band::Fouls ? "fouls" : "tight";
        f.tag = fmt::format("contact:{}", list.size() + 1);
        list.push_back(std::move(f));
    }
    return list;
}

Headline overlayHeadline(const Build& b, const Overlay& o, const OverlayClearance* c) {
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    if (b.scans.empty())
        return {"Nothing was scanned yet.",
                "Add a scan of the body and one of the chassis: then you see where they foul before the first cut."};
    std::string remarks = fmt::format("{}", fmt::join(o.remarks, " "));
    if (!o.complete()) {
        if (!o.hasBody() && !o.hasChassis()) return {"The scans are being read.", remarks};
        return {o.hasBody() ? "The body is scanned, the chassis is not." : "The chassis is scanned, the body is not.", remarks};
    }
    if (!c) return {"Looking for what fouls…", remarks};
    const auto fouls =
        std::count_if(c->places.begin(), c->places.end(), [](const auto& k) { return k.contact.band == sit::Band::Fouls; });
    Headline h;
    if (!c->places.empty()) {
        const auto& w = c->places.front();
        const OverlayPair& pair = c->pairs[w.pair];
        const std::string one = capital(partName(o, pair.moving, pair.pair.moving)),
                          other = partName(o, pair.fixed, pair.pair.fixed);
        const double by = -w.contact.distance_mm;
        if (fouls > 0)
            h.sentence = fmt::format("{} fouls {}{} at station {:.0f}{}.", one, other, by > 0 ? " by " + len(by) : "",
                                     w.contact.at[0], fouls > 1 ? fmt::format(": the worst of {} places", fouls) : "");
        else
            h.sentence =
                fmt::format("The body clears the chassis, but {} is tight to {}: {} at station {:.0f}.",
                            partName(o, pair.moving, pair.pair.moving), other, len(w.contact.distance_mm), w.contact.at[0]);
    } else {
        h.sentence = c->least_mm < o.need.cap_mm
                         ? fmt::format("The body clears the chassis by {}.", len(c->least_mm))
                         : fmt::format("The body clears the chassis by more than {}.", len(o.need.cap_mm));
    }
    const auto guessed = std::count_if(c->pairs.begin(), c->pairs.end(), [](const OverlayPair& p) { return p.assumed; });
    h.below =
        fmt::format("{} pairs of parts{}; {}. F5 shows each.", c->pairs.size(),
                    guessed == 0 ? ""
                                 : fmt::format(", {} by assumed clearances",
                                               guessed == static_cast<long>(c->pairs.size()) ? "all" : std::to_string(guessed)),
                    o.need.half_width_mm > 0 ? fmt::format("the seat's ± {} is taken off", len(o.need.half_width_mm))
                                             : "the ± of the scans is not known");
    if (!remarks.empty()) h.below += " " + remarks;
    return h;
}

sheet::Drawing pairsView(const Build& b, const Overlay& o, const OverlayClearance& c, double width, double height,
                         const sheet::Format& f) {
    sit::PairsView v;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    for (const OverlayPair& p : c.pairs) {
        sit::PairRow row;
        row.name = capital(partName(o, p.moving, p.pair.moving)) + " to " + partName(o, p.fixed, p.pair.fixed);
        const sit::Need& need = p.pair.need;
        row.need = len(need.least_mm);
        const double taken = need.finish_mm + need.half_width_mm;
        if (taken > 0) row.need_more = fmt::format("+ {} finish and ±", units::formatSmall(taken, b.settings.length_step));
        row.assumed = p.assumed;
        row.fouls_below = need.foulsBelow();
        row.tight_below = need.tightBelow();
        row.far = p.pair.least_mm >= need.cap_mm;
        row.distance = p.pair.least_mm;
        row.text = row.far                               ? "over " + len(need.cap_mm)
                   : p.pair.meets && !p.pair.depth_known ? "through"
                   : p.pair.least_mm < 0                 ? "−" + len(-p.pair.least_mm)
                                                         : len(p.pair.least_mm);
        row.severity = p.pair.band == sit::Band::Fouls   ? sheet::Severity::Bad
                       : p.pair.band == sit::Band::Tight ? sheet::Severity::Warn
                                                         : sheet::Severity::Good;
        // an assumed figure never makes a green verdict; what is far off would be clear by any
        if (p.assumed && row.severity == sheet::Severity::Good && !row.far) row.severity = sheet::Severity::Warn;
        row.word = row.far || p.pair.band != sit::Band::Clear || !p.assumed ? word(p.pair.band) : "Clear, if that is enough";
        if (!row.far) {
            row.where = fmt::format("station {:.0f}, {}, height {:.0f}", p.pair.at[0], side(p.pair.at[1]), p.pair.at[2]);
            row.pose = p.pair.pose;
        }
        if (p.pair.poses > 1 && row.pose.empty()) row.pose = fmt::format("{} poses", p.pair.poses);
        if (p.pair.between_mm > 0.5 && !row.far) row.pose += fmt::format(", ± {:.0f} between poses", p.pair.between_mm);
        v.rows.push_back(std::move(row));
    }
    v.remarks.emplace_back("Clearances with ? are usual practice and not yours: type clearance between PART PART length.");
    v.remarks.emplace_back(
        "What moves is taken through the travel that is typed (travel front bump 70, swing bonnet …); tyres grow and mounts sag beyond it.");
    return sit::pairsSheet(v, width, std::max(height, sit::pairsHeight(v, f)), f);
}

std::string scanNameFor(const Build& b, const std::string& file) {
    std::string base;
    for (const char c : std::filesystem::path(file).stem().string())
        base +=
            std::isalnum(static_cast<unsigned char>(c)) ? static_cast<char>(std::tolower(static_cast<unsigned char>(c))) : '-';
    while (!base.empty() && base.front() == '-') base.erase(0, 1);
    if (base.empty()) base = "scan";
    base = base.substr(0, 24);
    const auto taken = [&](const std::string& name) {
        return std::any_of(b.scans.begin(), b.scans.end(), [&](const auto& row) { return row.second.name == name; });
    };
    std::string name = base;
    for (int i = 2; taken(name); ++i) name = fmt::format("{}-{}", base, i);
    return name;
}

Edit keepScan(const Build& b, const std::string& name, Subject subject, ScanPart part, ScanUnit unit, const std::string& hash,
              const std::string& file) {
    Scan s;
    s.id = ScanId{b.next_id};
    s.subject = subject;
    s.part = part;
    s.name = name;
    s.blob = hash;
    s.file = file;
    s.unit = unit;
    return {fmt::format("scan {} of the {}", name, build::word(part)), {Put<Scan>{s}}};
}

Edit standScan(const Build& b, ScanId id, const Motion& m, const std::string& how) {
    Scan s = b.scans.at(id);
    const auto a = anglesOf(m);
    s.shift = {m.shift[0], m.shift[1], m.shift[2]};
    s.yaw_rad = a[0];
    s.pitch_rad = a[1];
    s.roll_rad = a[2];
    s.note = how;
    return {fmt::format("lay the scan {}: {}", s.name, how), {Put<Scan>{s}}};
}

} // namespace gorvet::analysis
