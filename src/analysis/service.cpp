// Fasteners of the plan and what may stand in their way; their sheet, page and JSON.
#include "analysis/service.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/link_bolts.hpp"
#include "analysis/overlay_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/parts.hpp"
#include "analysis/scans.hpp"
#include "make/crossmember_solid.hpp"
#include "make/rail_mesh.hpp"
#include "make/service_sheet.hpp"
#include "shape/plain_mesh.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::analysis {

using namespace build;
using make::Fastener;
using make::ServiceBody;
using make::ServiceIn;
using make::ServicePlan;
using sheet::Mark;

const char* const service_caution = "Hoses and wires are not in it. Bolts of belts, steering and brakes are new, and torqued.";

namespace {

const char* const the_crossmember = "the crossmember";
const char* const the_rails = "the rails";
const char* const the_body_itself = "the body";
/// A scan's surface counts from so far beyond a washer: what it lies on was scanned too.
constexpr double scan_slack_mm = 4;

class ServiceAsked {
public:
    ServiceAsked(const Build& b, const Results& r) : b_(b), r_(r) {}

    ServiceIn ask() {
        rails();
        crossmember();
        for (const auto& node : r_.parts) part(*node);
        mounts();
        steeringGear();
        links();
        for (const DrawnWheel& w : drawnWheels(b_, r_)) body("tyre " + w.name, tyreMesh(w)).given = true;
        for (const DrawnTube& t : drawnTubes(b_, r_)) body(t.name, tubeMesh(t)).given = true;
        if (!in_.fasteners.empty()) {
            if (b_.rail.shape == RailShape::Channel)
                in_.not_looked_at.emplace_back("to which side the rails' channels are open: inwards was taken");
            if (!hasScans(the_chassis))
                in_.not_looked_at.emplace_back("what else stands on the frame: nothing of it was scanned");
            if (!hasScans(the_body)) in_.not_looked_at.emplace_back("the body: nothing of it was scanned");
        }
        return std::move(in_);
    }

private:
    bool hasScans(SubjectId s) const {
        return std::any_of(b_.scans.begin(), b_.scans.end(), [&](const auto& row) { return row.second.subject == s; });
    }
    ServiceBody& body(std::string name, shape::Mesh mesh) {
        ServiceBody one;
        one.name = std::move(name);
        one.mesh = std::make_shared<const shape::Mesh>(std::move(mesh));
        in_.bodies.push_back(std::move(one));
        return in_.bodies.back();
    }

    void rails() {
        shape::Mesh both;
        for (const RailLine* rail : {&r_.planned_left, &r_.planned_right})
            append(both, make::railMesh(*rail, b_.rail.shape == RailShape::Channel));
        if (!both.points.empty()) body(the_rails, std::move(both)).given = true;
        if (r_.stretch->status == stretch::Status::Planned && r_.stretch->sleeve) {
            const stretch::Sleeve& s = *r_.stretch->sleeve;
            shape::Mesh sleeves;
            for (const auto& [rail, cut] :
                 {std::pair{&r_.planned_left, &r_.stretch->left}, {&r_.planned_right, &r_.stretch->right}})
                if (cut->known)
                    append(sleeves, make::alongRail(*rail, cut->first_station_mm - s.length_mm / 2,
                                                    cut->first_station_mm + s.length_mm / 2, s.height_mm, s.width_mm));
            if (!sleeves.points.empty()) body("the sleeves of the cut", std::move(sleeves)).given = true;
        }
    }

    Fastener& fastener(std::string name, std::string group, std::string tag, double bolt) {
        Fastener f;
        f.name = std::move(name);
        f.group = std::move(group);
        f.tag = std::move(tag);
        f.bolt_mm = bolt;
        in_.fasteners.push_back(std::move(f));
        return in_.fasteners.back();
    }

    /// A place that is known less well than what a bolt has to spare: nothing holds by it.
    static void knownTo(Fastener& f, double u95_mm) {
        if (u95_mm <= make::service_spare_mm) return;
        f.assumed.push_back(std::isfinite(u95_mm) ? fmt::format("its place, to ± {:.1f} mm", u95_mm)
                                                  : std::string("its place: something of it is open"));
    }

    void crossmember() {
        if (!r_.crossmember.made() || !r_.crossmember->possible) return;
        const make::CrossmemberInput& in = r_.crossmember.input();
        const make::CrossmemberPlan& p = *r_.crossmember;
        const make::PartPlan pieces = make::crossmemberPieces(in, p);
        shape::Mesh all;
        for (const make::NamedMesh& piece : make::partMeshes(pieces)) append(all, piece.mesh);
        body(the_crossmember, std::move(all)).comes_off = true;
        if (p.pan) {
            constexpr double high_mm = 120; // nobody marks its upper side
            body("the gearbox pan", shape::prismMesh({{p.pan->front_mm, p.pan->left_mm},
                                                      {p.pan->rear_mm, p.pan->left_mm},
                                                      {p.pan->rear_mm, p.pan->right_mm},
                                                      {p.pan->front_mm, p.pan->right_mm}},
                                                     high_mm, {{0, 0, p.pan->low_mm}, {1, 0, 0}, {0, 1, 0}}));
        }
        if (!p.bolt_length_mm) return; // it says so itself
        const make::CrossmemberDesign& d = in.design;
        for (const make::FlatPiece& flange : pieces.flats) {
            if (flange.name == "pad") continue;
            const bool left = flange.name == "flange left";
            const shape::Frame& at = flange.places[0];
            const Vec3 x = geometry::unit(at.x), y = geometry::unit(at.y), z = geometry::cross(x, y); // z: to the left
            for (std::size_t k = 0; k < flange.holes.size(); ++k) {
                const auto& [a, c] = flange.holes[k].at;
                const Vec3 on = geometry::plus(at.origin, geometry::plus(geometry::times(x, a), geometry::times(y, c)));
                Fastener& f = fastener(fmt::format("{}, bolt {}", flange.name, k + 1), "crossmember, " + flange.name,
                                       "crossmember", p.bolt_mm);
                f.head = left ? on : geometry::plus(on, geometry::times(z, flange.thickness_mm));
                f.along = geometry::times(z, left ? 1 : -1);
                f.grip_mm =
                    d.flange_mm + d.end_clearance_mm + (in.channel || d.captive ? in.left.thickness_mm : in.left.width_mm);
                f.length_mm = *p.bolt_length_mm;
                f.captive = d.captive;
                f.holds = {the_crossmember};
                f.assumed = d.assumed;
                knownTo(f, in.gearbox_u95_mm);
            }
        }
    }

    void part(const make::PartPlan& p) {
        if (!p.made() || p.apart) return;
        shape::Mesh all;
        for (const make::NamedMesh& piece : make::partMeshes(p)) append(all, piece.mesh);
        const std::string name = "part " + p.name;
        body(name, std::move(all)).comes_off = p.bolted_on;
        for (std::size_t k = 0; k < p.bolts.size(); ++k) {
            const make::PartBolt& bolt = p.bolts[k];
            const std::string own = p.bolts.size() == 1 ? name + "'s bolt" : fmt::format("{}, bolt {}", name, k + 1);
            const make::BoltSize* size = make::boltThrough(bolt.hole_mm);
            const auto length = size ? make::boltLength(*size, bolt.grip_mm) : std::nullopt;
            if (!length) {
                in_.not_looked_at.push_back(
                    size ? fmt::format("{}: no standard bolt is long enough for {:.0f} mm", own, bolt.grip_mm)
                         : fmt::format("{}: a hole of {:g} is no bolt's", own, bolt.hole_mm));
                continue;
            }
            Fastener& f = fastener(own, name, "part:" + p.name, size->nominal);
            f.head = bolt.head;
            f.along = bolt.along;
            f.grip_mm = bolt.grip_mm;
            f.length_mm = *length;
            f.captive = bolt.captive;
            if (p.bolted_on) f.holds = {name};
            knownTo(f, p.size_mm.u95);
            if (!bolt.grip_known) f.assumed.push_back("what lies behind it: as thick as itself");
        }
    }

    void mounts() {
        for (std::size_t k = 0; k < r_.mounts.size(); ++k) {
            const make::MountStack& m = r_.mounts[k];
            const make::MountInput& in = r_.mount_inputs[k];
            if (!m.on_rail || !m.bolt_length_mm) continue; // it says so itself
            const RailLine& rail = in.side == Side::Left ? r_.planned_left : r_.planned_right;
            const Vec3 down = geometry::unit(geometry::minus(m.rail_top, in.body_point));
            if (down.z_mm > -0.5) continue;
            const double floor = b_.mount_design.body_thickness.value, gap = geometry::between(m.rail_top, in.body_point);
            Fastener& f = fastener("mount " + m.name, "mounts", fmt::format("mount:{}", r_.mount_ids[k].value), m.bolt_mm);
            f.head = geometry::minus(in.body_point, geometry::times(down, floor));
            f.along = down;
            f.grip_mm = floor + gap + (b_.mount_design.grip == Grip::Through ? rail.height_mm : rail.thickness_mm);
            f.length_mm = *m.bolt_length_mm;
            f.captive = m.nut_inside;
            f.holds = {the_body_itself};
            knownTo(f, m.gap_mm.u95);
            if (b_.mount_design.body_thickness.provenance == Provenance::Assumed) f.assumed.emplace_back("the floor's thickness");
        }
    }

    /// The steering gear's own bolts, through its flange and the plate under it.
    void steeringGear() {
        const drive::GearPlateIn& in = r_.gear_plate.input();
        const drive::GearPlatePlan& p = *r_.gear_plate;
        const make::BoltSize* size = p.outline.empty() ? nullptr : make::boltThrough(p.hole_mm);
        if (!size) return;
        std::vector<Vec3> holes;
        for (const std::size_t k : in.holes) holes.push_back(in.places.at[k]);
        const geometry::Plane plane = geometry::planeOf(holes);
        // the gear hangs on the side away from the rail beside it; without one, above
        Vec3 away{0, 0, 1};
        double nearest = 1e18, wide = 0;
        for (const RailLine* rail : {&r_.planned_left, &r_.planned_right})
            if (const auto at = rail->at(plane.middle.x_mm)) {
                const Vec3 off = geometry::minus(plane.middle, {plane.middle.x_mm, at->y_mm, (at->top_mm + at->bottom_mm) / 2});
                if (geometry::length(off) >= nearest) continue;
                nearest = geometry::length(off);
                away = off;
                wide = rail->width_mm;
            }
        const Vec3 out = geometry::dot(plane.normal, away) < 0 ? geometry::times(plane.normal, -1) : plane.normal;
        constexpr double flange_mm = 10; // of the gear's housing: nobody measured it
        for (std::size_t k = 0; k < holes.size(); ++k) {
            const double grip = flange_mm + p.thick_mm + (in.closed_rail && wide > 0 ? wide : p.thick_mm);
            const auto length = make::boltLength(*size, grip);
            if (!length) continue;
            Fastener& f =
                fastener(fmt::format("{}, bolt {}", p.name, p.holes[k].name), p.name, "steer-gear:" + p.name, size->nominal);
            f.head = geometry::plus(holes[k], geometry::times(out, flange_mm + p.thick_mm));
            f.along = geometry::times(out, -1);
            f.grip_mm = grip;
            f.length_mm = *length;
            f.assumed = in.assumed;
            f.assumed.push_back(fmt::format("its housing, which is not drawn, and its flange of {:g} mm", flange_mm));
            if (!in.closed_rail) f.assumed.emplace_back("what lies behind the plate: as thick as the plate");
            knownTo(f, p.flat_mm.u95);
        }
    }

    /// Of what carries the axles: planned steel must leave them their way out.
    void links() {
        LinkBolts bolts = linkBolts(b_, r_, in_.fasteners);
        for (Fastener& f : bolts.fasteners) in_.fasteners.push_back(std::move(f));
        for (std::string& what : bolts.not_looked_at) in_.not_looked_at.push_back(std::move(what));
    }

    const Build& b_;
    const Results& r_;
    ServiceIn in_;
};

Scans::ServiceAsked serviceAsked(const Results& r) { return {r.scans->overlay.share(), r.service.input()}; }
bool servicePossible(const Build& b, const Results& r) { return !b.scans.empty() && !r.service.input().fasteners.empty(); }
bool serviceCurrent(const Build&, const Results& r) { return r.scans->service.madeFrom(serviceAsked(r)); }
bool makeService(const Build&, Results& r, const ReadBlob&, const Progress& progress) {
    using Made = decltype(Scans::service);
    Made made = Made::of(serviceAsked(r), &r.scans->service, [&](const Scans::ServiceAsked& asked) -> std::optional<ServicePlan> {
        if (!progress(0.1)) return std::nullopt;
        const ServiceIn in = serviceWithScans(asked.planned, *asked.overlay);
        if (!progress(0.3)) return std::nullopt;
        return make::servicePlan(in);
    });
    if (!made.made()) return false;
    auto scans = std::make_shared<Scans>(*r.scans);
    scans->service = std::move(made);
    r.scans = std::move(scans);
    return true;
}

} // namespace

ServiceIn serviceWithScans(ServiceIn in, const Overlay& o) {
    for (const Overlay::Part& part : o.on_chassis) {
        if (!part.scan.value) continue; // drawn: it is there already
        ServiceBody one;
        one.name = "scan " + part.part.name;
        one.mesh = part.part.ready->mesh;
        one.slack_mm = scan_slack_mm;
        one.closed = false;
        one.given = true;
        in.bodies.push_back(std::move(one));
    }
    if (o.seated && o.hasBody()) {
        ServiceBody whole;
        whole.name = the_body_itself;
        whole.mesh = std::make_shared<const shape::Mesh>(shape::transformed(*o.body->mesh, o.seat));
        whole.slack_mm = scan_slack_mm;
        whole.closed = false;
        whole.comes_off = true;
        in.bodies.push_back(std::move(whole));
    } else if (o.hasBody()) {
        in.not_looked_at.emplace_back("the body: nothing says where it sits");
    }
    return in;
}

SlowNode serviceNode() {
    return {slow::service, "whether every bolt comes out", {slow::overlay}, servicePossible, serviceCurrent, makeService, true,
            true};
}

/// What is sawn to a rail is sawn to where the rail was measured: to this, nobody cuts and measures nearer.
constexpr double rail_touch_mm = 3;

Node<std::vector<ServiceBody>, std::vector<make::Foul>> foulsOf(const Build& b, const Results& r, const Results* previous) {
    std::vector<ServiceBody> bodies = r.service.input().bodies;
    if (b.rail.shape == RailShape::Box) // a box is filled: nothing goes into it unsaid
        for (ServiceBody& body : bodies) {
            if (body.name != the_rails) continue;
            shape::Mesh both;
            for (const RailLine* rail : {&r.planned_left, &r.planned_right}) append(both, make::railFilled(*rail));
            body.mesh = std::make_shared<const shape::Mesh>(std::move(both));
            body.touch_mm = rail_touch_mm;
        }
    return Node<std::vector<ServiceBody>, std::vector<make::Foul>>::of(std::move(bodies), previous ? &previous->fouls : nullptr,
                                                                       make::foulsOf);
}

Node<ServiceIn, ServicePlan> serviceOf(const Build& b, const Results& r, const Results* previous) {
    return Node<ServiceIn, ServicePlan>::of(ServiceAsked(b, r).ask(), previous ? &previous->service : nullptr, make::servicePlan);
}

const ServicePlan& serviceShown(const Build& b, const Results& r) {
    return servicePossible(b, r) && serviceCurrent(b, r) ? *r.scans->service : *r.service;
}

sheet::Drawing serviceDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                              const sheet::Format& f) {
    return make::serviceSheet(serviceShown(b, r), *r.fouls, b.settings.length_step, width, height, f);
}

Headline serviceHeadline(const Build& b, const Results& r, SubjectId) {
    const ServicePlan& p = serviceShown(b, r);
    if (p.rows.empty())
        return {"No bolt is planned yet.",
                "Body mounts, a crossmember's flanges and parts that are bolted on bring theirs: mount Bl1, crossmember at G1."};
    const auto never = static_cast<std::size_t>(
        std::count_if(p.rows.begin(), p.rows.end(), [](const make::FastenerRow& row) { return row.round == 0; }));
    const auto later = static_cast<std::size_t>(std::count_if(
        p.rows.begin(), p.rows.end(), [](const make::FastenerRow& row) { return row.round > 0 && !row.after.empty(); }));
    Headline h;
    const std::size_t fouls = r.fouls->size();
    h.sentence = never   ? fmt::format("{} of {} can't be put in or taken out.", never, units::counted(p.rows.size(), "a bolt"))
                 : later ? fmt::format("Every bolt comes out, {} of {} after something else.", later, p.rows.size())
                         : fmt::format("{} come out with everything on.",
                                       p.rows.size() == 1 ? "The bolt" : fmt::format("All {} bolts", p.rows.size()));
    if (fouls) {
        h.below = h.sentence + " ";
        h.sentence = fouls == 1 ? std::string("Two planned things stand in each other.")
                                : fmt::format("{} pairs of planned things stand in each other.", fouls);
    }
    const bool waits = servicePossible(b, r) && !serviceCurrent(b, r);
    if (waits)
        h.below += "The scans were not looked through yet. ";
    else if (!fouls)
        h.below += p.not_looked_at.empty() ? "Looked at: all that is planned, and the scans. " : "Looked at: what is planned. ";
    h.below += service_caution;
    return h;
}

std::vector<sheet::Drawing> servicePages(const Build& b, const Results& r) {
    const ServicePlan& p = serviceShown(b, r);
    return longPages(titled(b, r, "Make: fasteners"), {service_caution, local_rules}, make::groupsOf(p).size(),
                     [&](std::size_t first, std::size_t until, double w, double h, const sheet::Format& f) {
                         return make::serviceSheet(p, *r.fouls, b.settings.length_step, w, h, f, first, until);
                     });
}

std::string makeServiceJson(const Build& b, const Results& r) {
    const ServicePlan& p = serviceShown(b, r);
    Json j = {{"verdict", verdictWord(p.verdict)},
              {"looked_at", p.looked_at},
              {"not_looked_at", p.not_looked_at},
              {"comes_off", p.off},
              {"stays", p.stays},
              {"stand_in_each_other", Json::array()},
              {"fasteners", Json::array()},
              {"cautions", {service_caution, local_rules}}};
    for (const make::Foul& foul : *r.fouls)
        j["stand_in_each_other"].push_back({{"one", foul.one},
                                            {"other", foul.other},
                                            {"at_mm", {number(foul.at.x_mm), number(foul.at.y_mm), number(foul.at.z_mm)}}});
    for (const make::FastenerRow& row : p.rows) {
        Json one = {{"name", row.name},
                    {"bolt_mm", number(row.bolt_mm)},
                    {"length_mm", number(row.length_mm)},
                    {"grip_mm", number(row.grip_mm)},
                    {"captive", row.captive},
                    {"verdict", verdictWord(row.verdict)},
                    {"comes_out", row.round > 0},
                    {"turned", row.turned},
                    {"after", row.after},
                    {"assumed", row.assumed},
                    {"ends", Json::array()},
                    {"findings", Json::array()}};
        for (std::size_t end = 0; end < 2; ++end) {
            const make::FastenerEnd& e = row.ends[end];
            one["ends"].push_back({{"end", end == 0 ? "head" : "nut"},
                                   {"free_mm", number(e.free_mm)},
                                   {"needs_mm", number(e.need_mm)},
                                   {"blocked_by", e.blocked_by},
                                   {"spanner_deg", number(units::degrees(e.swing_rad))},
                                   {"spanner_blocked_by", e.tool_blocked_by},
                                   {"socket", e.socket}});
        }
        for (const Remark& remark : row.remarks)
            one["findings"].push_back(
                {{"code", "make." + remark.code}, {"sentence", remark.sentence}, {"remedy", remark.remedy}});
        j["fasteners"].push_back(std::move(one));
    }
    return text(j);
}

} // namespace gorvet::analysis
