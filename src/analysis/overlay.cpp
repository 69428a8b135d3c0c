#include "analysis/overlay.hpp"

#include "analysis/overlay_parts.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using geometry::RigidTransform;
using shape::Mesh;

namespace {

void append(Mesh& to, const Mesh& m, const RigidTransform& motion) {
    const auto shift = static_cast<std::uint32_t>(to.points.size());
    append(to, transformed(m, motion));
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

RigidTransform poseOf(const Scan& s) { return geometry::rigidTransform(pointOf(s.shift), s.yaw_rad, s.pitch_rad, s.roll_rad); }

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

/// Where the plan puts it: a wheel as a whole, with its axle.
Mesh asPlanned(const OverlayInput& in, ScanPart part, Mesh mesh) {
    if (part != ScanPart::Wheel || mesh.points.empty()) return in.planned.map(std::move(mesh));
    geometry::Box3 box;
    for (const auto& p : mesh.points) box.take(Vec3(p));
    const Vec3 middle = box.middle();
    const bool rear = middle.x_mm > in.between_axles_mm;
    const Vec3 by = minus(in.planned.mapHub(middle, rear), middle);
    const Vec3 along = minus(in.planned.lengthwise().map(middle), middle);
    for (auto& p : mesh.points) p = plus(plus(Vec3(p), {0, by.y_mm, 0}), along);
    return mesh;
}

bool lowers(const Lowering& l) { return l.channel.value > 0 || l.raise.value > 0 || l.kick.value > 0; }

} // namespace

OverlayInput overlayInput(const Build& b, const Results& r, std::shared_ptr<const ScanMeshes> meshes) {
    OverlayInput in;
    in.meshes = std::move(meshes);
    in.scans = b.scans;
    for (const auto& [id, s] : b.scans)
        if (s.subject != the_body && s.subject != the_chassis) in.elsewhere[s.subject] = nameOf(b, s.subject);
    for (const auto& [id, box] : b.obstacles)
        if (std::any_of(b.pins.begin(), b.pins.end(), [&, which = id](const auto& row) { return row.second.box == which; }))
            in.envelopes[id] = box;
    in.planned = r.planned_chassis;
    if (!b.scans.empty()) {
        in.wheels = drawnWheels(b, r);
        in.tubes = drawnTubes(b, r);
        in.steel = newSteel(b, r);
    }
    const sit::Input& seat = r.seat.input();
    if (seat.front_left >= 0 && seat.rear_left >= 0)
        in.between_axles_mm = (seat.chassis.at[static_cast<size_t>(seat.front_left)].x_mm +
                               seat.chassis.at[static_cast<size_t>(seat.rear_left)].x_mm) /
                              2;
    if (!lowers(b.lowering)) return in;
    in.lowering = b.lowering;
    in.zones = b.zones;
    in.rail_width_mm = b.rail.width.value;
    if (b.lowering.channel.value > 0)
        in.channel = {seatMotion(r), r.planned_left, r.planned_right,
                      b.rail.width.value / 2 + std::max(0.0, b.clearances.least.value)};
    return in;
}

Mesh chassisAsItStands(const OverlayInput& in) {
    Mesh all;
    for (const auto& [id, s] : in.scans)
        if (s.subject == the_chassis && in.meshes && in.meshes->contains(id) && in.meshes->at(id))
            append(all, *in.meshes->at(id), poseOf(s));
    return all;
}

/// The parts of new steel that stand on the chassis; what cannot be made solid is said. Where the program can model none, they
/// stand there plain, without their holes: what is cleared of them does not depend on it.
template <class Add> void addSteel(const OverlayInput& in, Overlay& o, const Add& add) {
    constexpr double steel_chord_mm = 0.5;
    std::string unmodelled; // why
    for (const auto& plan : in.steel) {
        const auto solids = make::partSolids(*plan);
        Mesh mesh;
        if (solids) {
            for (const shape::NamedSolid& s : *solids) append(mesh, shape::mesh(s.solid, steel_chord_mm), {});
        } else if (solids.error().code == Error::Code::File) {
            for (const make::NamedMesh& piece : make::partMeshes(*plan)) append(mesh, piece.mesh, {});
            unmodelled = solids.error().message;
        } else {
            o.remarks.push_back(
                fmt::format("The part {} is not shown, and nothing is cleared of it: {}", plan->name, solids.error().message));
            continue;
        }
        add(the_chassis, ScanPart::Chassis, ScanId{}, "part " + plan->name, std::move(mesh));
    }
    if (!unmodelled.empty())
        o.remarks.push_back("Parts of new steel are shown and cleared plain, without their holes. " + unmodelled);
    if (!in.steel.empty())
        o.remarks.emplace_back(
            "Parts of new steel stand among the scans as they are planned on Make; those that join the body are left out.");
}

Overlay overlayOf(const OverlayInput& in, int threads) {
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
    for (const auto& [id, s] : in.scans) {
        const auto* mesh = in.meshes && in.meshes->contains(id) ? &in.meshes->at(id) : nullptr;
        if (!mesh || !*mesh) {
            o.remarks.push_back(fmt::format("The scan {} is not there: it was left out.", s.name));
            continue;
        }
        if (const auto subject = in.elsewhere.find(s.subject); subject != in.elsewhere.end()) {
            o.remarks.push_back(
                fmt::format("The scan {} is of the {}, on axes of its own: it was left out.", s.name, subject->second));
            continue;
        }
        Mesh own;
        append(own, **mesh, poseOf(s));
        own = s.subject == the_body ? withFloorWork(in, std::move(own))
                                    : withKickedRails(in, s.part, asPlanned(in, s.part, std::move(own)));
        add(s.subject, s.part, id, s.name, std::move(own));
    }
    // envelopes that pins keep clear of: plain solids
    for (const auto& [id, box] : in.envelopes) {
        Mesh solid = boxMesh(box);
        add(box.subject, ScanPart::Other, {}, box.name,
            box.subject == the_chassis ? in.planned.map(std::move(solid)) : std::move(solid));
    }
    for (const DrawnWheel& wheel : in.wheels) add(the_chassis, ScanPart::Wheel, {}, wheel.name, tyreMesh(wheel));
    for (const DrawnTube& tube : in.tubes) {
        add(the_chassis, tube.kind, {}, tube.name, tubeMesh(tube));
        o.on_chassis.back().tube = tube;
    }
    if (!in.tubes.empty())
        o.remarks.emplace_back("Shafts and steering are drawn from what is said of them on Drive: nobody scanned them.");
    addSteel(in, o, add);
    if (!in.wheels.empty())
        o.remarks.emplace_back("The tyres are drawn from what is said of the wheels on Drive: nobody scanned one.");
    if (in.planned.narrower_mm > 0)
        o.remarks.push_back(fmt::format("The chassis is shown as planned: outside {:.0f} mm from the middle it stands {:.1f} mm "
                                        "further in, on each side.",
                                        in.planned.slit_mm, in.planned.narrower_mm / 2));
    if (in.planned.cuts())
        o.remarks.push_back(fmt::format("The chassis is shown as planned: behind station {:.0f} it stands {:.1f} mm further {}.",
                                        *in.planned.cut_station_mm, std::abs(in.planned.change_mm),
                                        in.planned.change_mm < 0 ? "forward" : "back"));
    if (const Lowering l = in.lowering.value_or(Lowering{});
        l.raise.value > 0 && std::none_of(in.zones.begin(), in.zones.end(), [&](const auto& row) {
            return row.second.name == (l.floor.empty() ? "floor" : l.floor);
        }))
        o.remarks.emplace_back("The raised floor is not shown: no zone says which sheet is the floor.");
    else if (lowers(l))
        o.remarks.push_back(fmt::format(
            "Shown as lowered: {}{}{}.", l.channel.value > 0 ? fmt::format("floor channelled by {:.0f}", l.channel.value) : "",
            l.raise.value > 0 ? fmt::format("{}floor raised by {:.0f}", l.channel.value > 0 ? ", " : "", l.raise.value) : "",
            l.kick.value > 0
                ? fmt::format("{}rails let down by {:.0f}", l.channel.value + l.raise.value > 0 ? ", " : "", l.kick.value)
                : ""));
    for (Mesh* all : {&whole_body, &whole_chassis}) {
        all->points.shrink_to_fit();
        all->triangles.shrink_to_fit();
    }
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
    return o;
}

Placing placingOf(const Build& b, const Results& r) {
    Placing p;
    p.seated = r.seated();
    p.seat = seatMotion(r);
    if (p.seated)
        for (const double h : r.seat->pose_u95_mm)
            if (std::isfinite(h)) p.u95_mm = std::max(p.u95_mm, h);
    p.clearances = b.clearances;
    p.pair_rules = b.pair_rules;
    p.travel = b.travel;
    p.swings = b.swings;
    p.words_in = b.settings.length_step;
    p.beam_axle = std::any_of(b.scans.begin(), b.scans.end(), [](const auto& s) { return s.second.part == ScanPart::Axle; });
    const sit::Input& in = r.seat.input();
    const auto wheel = [&](int i) { return i < 0 ? nullptr : &in.chassis.at[static_cast<size_t>(i)]; };
    for (const bool rear : {false, true}) {
        const Vec3* left = wheel(rear ? in.rear_left : in.front_left);
        const Vec3* right = wheel(rear ? in.rear_right : in.front_right);
        auto& hub = rear ? p.rear_hub : p.front_hub;
        if (left && right)
            hub = Vec3{(left->x_mm + right->x_mm) / 2, (left->y_mm + right->y_mm) / 2, (left->z_mm + right->z_mm) / 2};
        else if (left || right)
            hub = left ? *left : *right;
        // without a cut nothing says along which slope they move
        if (hub && rear)
            hub = r.planned_chassis.cuts() ? r.planned_chassis.map(*hub) : plus(*hub, {r.seat->change_mm.value_or(0), 0, 0});
        if (const double track = left && right ? right->y_mm - left->y_mm : 0; track > 100)
            (rear ? p.rear_track_mm : p.front_track_mm) = track;
    }
    return p;
}

Overlay placed(const Overlay& of, const Placing& p) {
    Overlay o = of;
    o.placing = p;
    o.remarks = o.mesh_remarks;
    for (auto* parts : {&o.body_parts, &o.on_chassis})
        for (Overlay::Part& part : *parts) {
            auto sweep = part.scan || part.kind == ScanPart::Wheel ? sweepOf(p, part.kind, part.scan, *part.part.ready->mesh)
                                                                   : std::nullopt;
            part.sweep_assumed = part.tube ? part.tube->assumed : sweep && sweep->assumed;
            part.part.sweep = part.tube ? tubeSweep(*part.tube) : sweep ? std::optional(std::move(sweep->sweep)) : std::nullopt;
        }
    o.seated = p.seated;
    o.seat = p.seat;
    if (!o.seated) o.remarks.emplace_back("Nothing seats the body yet: both stand on their own axes as if these were one.");
    o.need = {};
    o.need.least_mm = p.clearances.least.value;
    o.need.finish_mm = p.clearances.finish.value;
    // what is assumed so wide that nothing could be said is not taken off
    o.need.u95_mm = std::min(p.u95_mm, 20.0);
    o.need.cap_mm = std::max(100.0, 2 * o.need.tightBelow());
    return o;
}

Overlay overlayOf(const Build& b, const Results& r, const ScanMeshes& meshes, int threads) {
    return placed(overlayOf(overlayInput(b, r, std::make_shared<const ScanMeshes>(meshes)), threads), placingOf(b, r));
}

} // namespace gorvet::analysis
