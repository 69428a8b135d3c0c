#include "analysis/overlay.hpp"

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

Motion seatOf(const Results& r) {
    if (!r.seated()) return {};
    const sit::Pose& p = r.seat.pose;
    return shape::motionOf(point(p.shift), p.yaw_rad, p.pitch_rad, p.roll_rad);
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
    Mesh body, chassis;
    for (const auto& [id, s] : b.scans) {
        const auto mesh = meshes.find(id);
        if (mesh == meshes.end() || !mesh->second) {
            o.remarks.push_back(fmt::format("The scan {} is not there: it was left out.", s.name));
            continue;
        }
        append(s.subject == Subject::Body ? body : chassis, *mesh->second, poseOf(s));
        if (s.subject == Subject::Chassis) {
            Mesh own;
            append(own, *mesh->second, poseOf(s));
            o.chassis_parts.push_back({s.name, std::make_shared<const Mesh>(asPlannedBy(b, r, std::move(own)))});
        }
    }
    chassis = asPlannedBy(b, r, std::move(chassis));
    if (changesWheelbase(b, r))
        o.remarks.push_back(fmt::format("The chassis is shown as planned: behind station {:.0f} it stands {:.1f} mm further {}.",
                                        b.stretch.cut_station->value, std::abs(*r.seat.change_mm),
                                        *r.seat.change_mm < 0 ? "forward" : "back"));
    o.body = std::make_shared<const sit::Ready>(sit::readyOf(std::make_shared<const Mesh>(std::move(body)), threads));
    o.chassis = std::make_shared<const sit::Ready>(sit::readyOf(std::make_shared<const Mesh>(std::move(chassis)), threads));
    o.mesh_remarks = o.remarks;
    reseat(o, b, r);
    return o;
}

void reseat(Overlay& o, const Build& b, const Results& r) {
    o.remarks = o.mesh_remarks;
    o.seated = r.seated();
    o.seat = seatOf(r);
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
        key += fmt::format("{} {} {} {} {} {} {} {} {} {};", id.value, s.blob, build::word(s.unit), build::word(s.subject),
                           s.shift.x_mm, s.shift.y_mm, s.shift.z_mm, s.yaw_rad, s.pitch_rad, s.roll_rad);
    if (b.stretch.cut_station && r.seat.change_mm)
        key += fmt::format("{} {} {}", b.stretch.cut_station->value, *r.seat.change_mm, r.sit_input.cut_slope_rad);
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

std::vector<Finding> clearanceFindings(const Build& b, const sit::Clearance& c, const sit::Need& need, size_t most) {
    std::vector<Finding> list;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    for (const sit::Contact& k : c.contacts) {
        if (list.size() == most) break;
        Finding f;
        f.bench = Bench::Scan;
        f.severity = k.band == sit::Band::Fouls ? sheet::Severity::Bad : sheet::Severity::Warn;
        f.code = k.band == sit::Band::Fouls ? "scan.fouls" : "scan.tight";
        f.subject = fmt::format("contact {}", list.size() + 1);
        f.word = word(k.band);
        f.need = len(need.least_mm);
        const std::string place = fmt::format("at station {:.0f}, {}, height {:.0f}", k.at[0], side(k.at[1]), k.at[2]);
        const bool deep = k.distance_mm < 0;
        f.figure = len(std::abs(k.distance_mm));
        if (deep)
            f.sentence = fmt::format("The body fouls the chassis by {} {}. Needs {} clear.", len(-k.distance_mm), place,
                                     len(need.least_mm));
        else if (k.meets && c.depth_known)
            f.sentence = fmt::format("The body touches the chassis {}. Needs {} clear.", place, len(need.least_mm));
        else if (k.meets)
            f.sentence = fmt::format(
                "The body and the chassis run through each other {}; neither is closed there, so how deep is not known.", place);
        else
            f.sentence = fmt::format("The body comes within {} of the chassis {}. Needs {} clear{}.", len(k.distance_mm), place,
                                     len(need.least_mm),
                                     need.finish_mm + need.half_width_mm > 0
                                         ? fmt::format(", with {} for finish and ±", len(need.finish_mm + need.half_width_mm))
                                         : "");
        const double short_by = need.foulsBelow() - k.distance_mm;
        f.remedy = k.band == sit::Band::Fouls
                       ? fmt::format("Raise or move the body by {} there, or cut it: the cut map says where.", len(short_by))
                       : "Measure it again once the body sits, before anything is welded.";
        f.station_mm = k.at[0];
        f.brief = k.band == sit::Band::Fouls ? "fouls" : "tight";
        f.tag = fmt::format("contact:{}", list.size() + 1);
        list.push_back(std::move(f));
    }
    return list;
}

Headline overlayHeadline(const Build& b, const Overlay& o, const sit::Clearance* c) {
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
    const auto fouls = static_cast<size_t>(
        std::count_if(c->contacts.begin(), c->contacts.end(), [](const auto& k) { return k.band == sit::Band::Fouls; }));
    Headline h;
    if (fouls > 0) {
        const sit::Contact& w = c->contacts.front();
        h.sentence = fmt::format("The body fouls the chassis in {} place{}, worst {}at station {:.0f}.", fouls,
                                 fouls == 1 ? "" : "s", w.distance_mm < 0 ? "by " + len(-w.distance_mm) + " " : "", w.at[0]);
    } else if (!c->contacts.empty()) {
        h.sentence = fmt::format("The body clears the chassis, but is tight: {} at station {:.0f}.", len(c->least_mm),
                                 c->contacts.front().at[0]);
    } else {
        h.sentence = c->least_mm < o.need.cap_mm
                         ? fmt::format("The body clears the chassis by {}.", len(c->least_mm))
                         : fmt::format("The body clears the chassis by more than {}.", len(o.need.cap_mm));
    }
    h.below = fmt::format("Needs {}{}; {}.", len(o.need.least_mm),
                          b.clearances.least.provenance == Provenance::Assumed ? " (assumed)" : "",
                          o.need.half_width_mm > 0 ? fmt::format("the seat's ± {} is taken off", len(o.need.half_width_mm))
                                                   : "the ± of the scans is not known");
    if (!remarks.empty()) h.below += " " + remarks;
    return h;
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
