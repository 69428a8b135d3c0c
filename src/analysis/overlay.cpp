#include "analysis/overlay.hpp"

#include "analysis/overlay_parts.hpp"

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
    append(to, moved(m, motion));
    // a cloud's points count as themselves
    if (m.triangles.empty())
        for (std::uint32_t i = 0; i < m.points.size(); ++i) to.triangles.push_back({shift + i, shift + i, shift + i});
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

Overlay overlayOf(const Build& b, const Results& r, const ScanMeshes& meshes, int threads) {
    Overlay o;
    Mesh whole_body;
    Mesh whole_chassis;
    const auto add = [&](SubjectId subject, ScanPart kind, ScanId scan, const std::string& name, Mesh mesh) {
        Overlay::Part part;
        part.kind = kind;
        part.scan = scan;
        Mesh& all = subject == the_body ? whole_body : whole_chassis;
        part.first = all.points.size();
        append(all, mesh, {});
        part.part.name = name;
        auto own = std::make_shared<const Mesh>(std::move(mesh));
        if (subject == the_chassis) o.chassis_parts.push_back({name, own});
        auto ready = std::make_shared<sit::Ready>(); // its tree comes when all are there
        ready->mesh = std::move(own);
        part.part.ready = std::move(ready);
        (subject == the_body ? o.body_parts : o.on_chassis).push_back(std::move(part));
    };
    for (const auto& [id, s] : b.scans) {
        const auto mesh = meshes.find(id);
        if (mesh == meshes.end() || !mesh->second) {
            o.remarks.push_back(fmt::format("The scan {} is not there: it was left out.", s.name));
            continue;
        }
        if (s.subject != the_body && s.subject != the_chassis) {
            o.remarks.push_back(
                fmt::format("The scan {} is of the {}, on axes of its own: it was left out.", s.name, nameOf(b, s.subject)));
            continue;
        }
        Mesh own;
        append(own, *mesh->second, poseOf(s));
        own = s.subject == the_body ? withFloorWork(b, r, std::move(own))
                                    : withKickedRails(b, s.part, asPlannedBy(b, r, std::move(own)));
        add(s.subject, s.part, id, s.name, std::move(own));
    }
    // envelopes that pins keep clear of: plain solids
    for (const auto& [id, box] : b.obstacles) {
        const ObstacleId which = id;
        if (std::none_of(b.pins.begin(), b.pins.end(), [&](const auto& row) { return row.second.box == which; })) continue;
        Mesh solid = boxMesh(box);
        add(box.subject, ScanPart::Other, {}, box.name,
            box.subject == the_chassis ? asPlannedBy(b, r, std::move(solid)) : std::move(solid));
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
    for (const SubjectId subject : {the_body, the_chassis}) {
        auto& parts = subject == the_body ? o.body_parts : o.on_chassis;
        auto& all = subject == the_body ? o.body : o.chassis;
        all = std::make_shared<const sit::Ready>(
            sit::readyOf(std::make_shared<const Mesh>(std::move(subject == the_body ? whole_body : whole_chassis)), threads));
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

std::string overlayKey(const Build& b, const Results& r) {
    std::string key;
    for (const auto& [id, s] : b.scans)
        key += fmt::format("{} {} {} {} {} {} {} {} {} {} {} {};", id.value, s.name, build::word(s.part), s.blob,
                           build::word(s.unit), build::nameOf(b, s.subject), s.shift.x_mm, s.shift.y_mm, s.shift.z_mm, s.yaw_rad,
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
    // an arch that is pinned to its wheel holds the body along where no station is asked for: only the height moves then
    const auto has = [&](PinKind kind) {
        return std::any_of(b.pins.begin(), b.pins.end(), [&](const auto& row) { return row.second.kind == kind; });
    };
    const bool held = has(PinKind::ArchFront) && !has(PinKind::Station);
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

Edit keepScan(const Build& b, const std::string& name, SubjectId subject, ScanPart part, ScanUnit unit, const std::string& hash,
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
