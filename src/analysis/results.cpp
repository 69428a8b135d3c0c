#include "analysis/results.hpp"

#include "analysis/frame.hpp"

#include "analysis/carried.hpp"
#include "analysis/column.hpp"
#include "analysis/drive.hpp"
#include "analysis/findings.hpp"
#include "analysis/fixtures.hpp"
#include "analysis/parts.hpp"
#include "analysis/planned_width.hpp"
#include "analysis/seatings.hpp"
#include "analysis/service.hpp"
#include "analysis/sit_input.hpp"
#include "analysis/steel_views.hpp"
#include "analysis/steering.hpp"
#include "analysis/survey_of.hpp"
#include "analysis/travel.hpp"
#include "analysis/welds.hpp"
#include "analysis/wheels.hpp"
#include "analysis/work_facts.hpp"
#include "analysis/work_plan.hpp"
#include "build/assumed.hpp"
#include "build/edit.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace gorvet::analysis {

using namespace build;

std::optional<Vec3> Results::bodyInChassis(PointId id) const {
    const auto at = body.positionOf(id);
    if (!at || !seated()) return std::nullopt;
    return sit::place(seat->pose, *at);
}

namespace {

RailLine railOf(const Build& b, const SurveyOf& chassis, Side side) {
    RailLine rail;
    rail.height_mm = b.rail.height.value;
    rail.width_mm = b.rail.width.value;
    rail.thickness_mm = b.rail.thickness.value;
    rail.datum_face = b.rail.datum_face;
    for (const auto& [id, p] : b.points)
        if (p.subject == the_chassis && p.role == Role::Rail && sideOf(p.name) == side)
            if (const auto at = chassis.positionOf(id)) rail.points.push_back(*at);
    std::sort(rail.points.begin(), rail.points.end(), [](const Vec3& a, const Vec3& c) { return a.x_mm < c.x_mm; });
    // two marks at one station can't make a line
    rail.points.erase(
        std::unique(rail.points.begin(), rail.points.end(), [](const Vec3& a, const Vec3& c) { return c.x_mm - a.x_mm < 1; }),
        rail.points.end());
    return rail;
}

/// What the plan makes of the chassis. Below half a millimetre nothing is cut.
PlannedChassis plannedChassis(const Build& b, const Results& r) {
    PlannedChassis planned = widthPlanned(b, r.chassis);
    const stretch::Plan& plan = *r.stretch;
    if (plan.status == stretch::Status::NoChange) return planned;
    planned.cut_station_mm = r.stretch.input().cut_station_mm;
    planned.change_mm = plan.change_mm;
    planned.slope_rad = r.seat.input().cut_slope_rad;
    return planned;
}

make::CrossmemberInput crossmemberInput(const Build& b, const Results& r, const Vec3& at, const RailLine& left,
                                        const RailLine& right) {
    const Crossmember& c = *b.crossmember;
    make::CrossmemberInput in;
    in.gearbox_mount = at;
    in.gearbox_u95_mm = u95Of(r.chassis.solution->points[r.chassis.indexOf(c.gearbox_mount)].sd_mm[2]);
    in.left = left;
    in.right = right;
    in.channel = b.rail.shape == RailShape::Channel;
    in.design = {c.isolator.value,
                 c.pad.value,
                 c.box_height.value,
                 c.box_width.value,
                 c.box_wall.value,
                 c.flange.value,
                 c.end_clearance.value,
                 c.bolt.value,
                 c.pad_hole_pitch.value,
                 c.pad_hole.value,
                 c.form == CrossmemberForm::Dropped,
                 c.fixing == Fixing::Captive,
                 c.pan_clearance.value,
                 assumedIn(c)};
    if (c.load) {
        in.design.load_N = c.load->value;
        in.design.load_known = c.load->provenance != Provenance::Assumed;
    }
    in.design.yield_mpa = b.frame_facts.yield_MPa.value;
    in.design.yield_known = b.frame_facts.yield_MPa.provenance != Provenance::Assumed;
    for (const std::string& size : assumedIn(b.rail)) in.design.assumed.push_back("rail " + size);
    for (const auto& [id, p] : b.points)
        if (p.subject == the_chassis && p.role == Role::GearboxPan)
            if (const auto place = r.chassis.positionOf(id)) in.pan.push_back(*place);
    return in;
}

/// What is planned anew stands in the way of a cut as what is there does: the crossmember's flanges and the body mounts. Places
/// are on the rails as they are now.
void newParts(const Build& b, const Results& r, stretch::Input& in) {
    PlannedChassis planned;
    if (b.stretch.cut_station) planned = {b.stretch.cut_station->value, r.seat->change_mm.value_or(0), 0};
    if (b.crossmember)
        if (const auto at = r.chassis.positionOf(b.crossmember->gearbox_mount)) {
            const auto plan = make::crossmember(crossmemberInput(b, r, *at, r.rail_left, r.rail_right));
            if (plan.possible) in.obstacles.push_back({"flange", "new crossmember's", at->x_mm, plan.left.width_mm / 2});
        }
    for (const auto& [id, mount] : b.mounts)
        if (const auto at = r.bodyInChassis(mount.body_point))
            in.obstacles.push_back({nameOf(b, mount.body_point), "new body mount",
                                    planned.stationNow(mount.rail_station ? mount.rail_station->value : at->x_mm)});
}

/// A cut between both hangers of a leaf spring would part them: all of it is in the way. So are members of the frame that are
/// named.
void springsAndMembers(const Build& b, const Results& r, stretch::Input& in) {
    const auto& points = r.chassis.solution->points;
    const tape::FramePoints& f = r.chassis.frame;
    for (const auto& [hub, side, name] :
         {std::tuple{f.front_hub_left, Side::Left, "front left"}, std::tuple{f.front_hub_right, Side::Right, "front right"},
          std::tuple{f.rear_hub_left, Side::Left, "rear left"}, std::tuple{f.rear_hub_right, Side::Right, "rear right"}}) {
        if (hub < 0 || !points[static_cast<std::size_t>(hub)].determined) continue;
        const bool front = hub == f.front_hub_left || hub == f.front_hub_right;
        if ((front ? b.frame_facts.front_springs : b.frame_facts.rear_springs) == Springs::Other) continue;
        const auto ends = springHangers(b, r, side, points[static_cast<std::size_t>(hub)].position.x_mm);
        if (ends)
            in.obstacles.push_back(
                {name, "suspension", (ends->first.x_mm + ends->second.x_mm) / 2, (ends->second.x_mm - ends->first.x_mm) / 2});
    }
    for (const auto& [id, m] : b.members)
        if (m.kind == MemberKind::Crossmember && m.state != MemberState::ComesOut) {
            std::optional<double> station = m.station ? std::optional(m.station->value) : std::nullopt;
            if (const auto at = m.points.empty() ? std::nullopt : r.chassis.positionOf(m.points.front())) station = at->x_mm;
            if (station) in.obstacles.push_back({m.name, "crossmember", *station, m.width.value / 2});
        }
}

/// A frame without rails that has a spine: the spine is what is cut.
void spineAsRail(const Build& b, const Results& r, stretch::Input& in) {
    if (r.rail_left.points.size() > 1 || r.rail_right.points.size() > 1) return;
    for (const auto& [id, m] : b.members) {
        if (m.kind != MemberKind::Spine || m.state == MemberState::Planned || m.form != SectionForm::Box) continue;
        RailLine spine;
        spine.height_mm = m.height.value;
        spine.width_mm = m.width.value;
        spine.thickness_mm = m.wall.value;
        for (const PointId point : m.points)
            if (const auto at = r.chassis.positionOf(point))
                spine.points.push_back({at->x_mm, at->y_mm, at->z_mm + m.height.value / 2});
        if (m.points.empty() && m.until)
            for (const double x : {m.station->value, m.until->value})
                spine.points.push_back({x, 0, m.height.value / 2 - m.below.value});
        std::sort(spine.points.begin(), spine.points.end(), [](const Vec3& p, const Vec3& q) { return p.x_mm < q.x_mm; });
        if (spine.points.size() < 2) continue;
        in.left = in.right = spine;
        in.spine.emplace();
        for (const build::Dimension* d : {&m.height, &m.width, &m.wall})
            if (d->provenance == Provenance::Assumed) in.assumed.push_back(m.name + "'s section");
        break;
    }
    if (!in.spine) return;
    std::erase_if(in.assumed, [](const std::string& a) { return a.starts_with("rail "); });
    for (const auto& [id, m] : b.members)
        if (m.kind == MemberKind::Pan && m.state != MemberState::Planned) {
            in.spine->pan_width_mm =
                (std::max(m.height.value, m.width.value) - in.left.width_mm) / 2; // a flat's width is its height
            in.spine->pan_wall_mm = m.wall.value;
            for (const build::Dimension* d : {&m.height, &m.width, &m.wall})
                if (d->value > 0 && d->provenance == Provenance::Assumed) in.assumed.push_back(m.name + "'s section");
        }
    if (b.stretch.stagger) in.spine->stagger_mm = b.stretch.stagger->value;
    for (const auto& [id, c] : b.crossings)
        if (c.inside && c.presence == Presence::Present)
            in.spine->inside.push_back(std::string(word(c.kind)) + (c.name.empty() ? "" : " " + c.name));
}

stretch::Input stretchInput(const Build& b, const Results& r) {
    stretch::Input in;
    in.left = r.rail_left;
    in.right = r.rail_right;
    in.channel = b.rail.shape == RailShape::Channel;
    in.heat_treated = b.rail.heat_treated;
    for (const std::string& size : assumedIn(b.rail)) in.assumed.push_back("rail " + size);
    for (const std::string& size : assumedIn(b.stretch)) in.assumed.push_back(size);
    for (const auto& [id, p] : b.points) {
        if (p.subject != the_chassis) continue;
        const char* what = p.role == Role::BodyMount      ? "body mount"
                           : p.role == Role::GearboxMount ? "gearbox mount"
                           : p.role == Role::Crossmember  ? "crossmember"
                           : p.role == Role::Suspension   ? "suspension point"
                           : p.role == Role::Steering     ? "steering point"
                                                          : nullptr;
        if (!what) continue;
        if (const auto at = r.chassis.positionOf(id)) in.obstacles.push_back({p.name, what, at->x_mm});
    }
    springsAndMembers(b, r, in);
    newParts(b, r, in);
    if (r.seat->change_mm) {
        in.change_mm = r.seat->change_mm;
        in.change_u95_mm = r.seat->change_u95_mm;
    }
    if (b.stretch.wheelbase_change) in.change_mm = b.stretch.wheelbase_change->value; // a tail's change moves no wheel
    if (b.stretch.cut_station) in.cut_station_mm = b.stretch.cut_station->value;
    const auto axle = [&](int left, int right) -> std::optional<double> {
        for (const int i : {left, right})
            if (i >= 0 && r.chassis.solution->points[i].determined) return r.chassis.solution->points[i].position.x_mm;
        return std::nullopt;
    };
    in.front_axle_mm = axle(r.chassis.frame.front_hub_left, r.chassis.frame.front_hub_right);
    in.rear_axle_mm = axle(r.chassis.frame.rear_hub_left, r.chassis.frame.rear_hub_right);
    in.kerf_mm = b.stretch.kerf.value;
    in.root_gap_mm = b.stretch.root_gap.value;
    in.sleeve_fit_mm = b.stretch.sleeve_fit.value;
    in.overlap_heights = b.stretch.sleeve_overlap_heights.value;
    const auto value = [](const std::optional<build::Dimension>& d) { return d ? std::optional(d->value) : std::nullopt; };
    in.sleeve_wall_mm = value(b.stretch.sleeve_wall);
    in.tube_height_mm = value(b.stretch.tube_height);
    in.tube_width_mm = value(b.stretch.tube_width);
    in.strip_mm = value(b.stretch.strip).value_or(0);
    in.plug_hole_mm = value(b.stretch.plug_hole);
    in.fish_plate_mm = value(b.stretch.fish_plate);
    in.butt_counts = b.stretch.butt_counts;
    in.stepped = b.stretch.stepped;
    spineAsRail(b, r, in);
    double mass = 0;
    int weighed = 0;
    for (const auto& [id, w] : b.wheels)
        if (w.weight) {
            mass += w.weight->value;
            ++weighed;
        }
    if (weighed == 4) in.mass_kg = mass;
    for (const auto& [id, c] : b.crossings)
        in.runners.push_back({c.kind, c.presence, value(c.slack), value(c.starts), value(c.ends), c.name, c.answer,
                              value(c.new_length), c.out_before_heat});
    return in;
}

/// Where the rails as planned are not hollow: the sleeve reaches its overlap each way from the joint.
std::vector<make::Filled> filledRails(const Results& r) {
    if (r.stretch->status != stretch::Status::Planned || !r.stretch->sleeve) return {};
    const stretch::RailCut& cut = r.stretch->left.known ? r.stretch->left : r.stretch->right;
    const double along = std::cos(cut.slope_rad);
    const double front = cut.first_station_mm - r.stretch->sleeve->overlap_mm * along;
    return {{"the sleeve of the cut", front, front + r.stretch->sleeve->length_mm * along}};
}

make::MountDesign mountDesign(const Build& b, const Results& r) {
    const build::MountDesign& d = b.mount_design;
    make::MountDesign m;
    m.washer_mm = figureOf(d.washer);
    m.body_thickness_mm = figureOf(d.body_thickness);
    m.biscuit_free_mm = figureOf(d.biscuit_free);
    m.biscuit_squash = figureOf(d.biscuit_squash);
    m.bolt_mm = d.bolt.value;
    m.standoff_step_mm = d.standoff_step.value;
    m.through_rail = d.grip == Grip::Through;
    m.closed_box = b.rail.shape == RailShape::Box;
    if (!assumedIn(b.rail).empty()) m.rail = Provenance::Assumed;
    m.filled = filledRails(r);
    return m;
}

/// ± of a body point's height over the rail below it, by root sum of squares: the point's own z, its seat, and the rail.
double gapU95(const Results& r, PointId body_point, double station) {
    const int i = r.body.indexOf(body_point);
    const double own = r.body.solution->points[i].sd_mm[2];
    const double seat = r.seat->pose_u95_mm[2] / u95Of(1.0);
    double rail = 0;
    double nearest = 1e9;
    for (const auto& pair : r.chassis.frame.pairs)
        for (const int k : {pair.left, pair.right}) {
            const auto& p = r.chassis.solution->points[k];
            if (p.determined && std::abs(p.position.x_mm - station) < nearest) {
                nearest = std::abs(p.position.x_mm - station);
                rail = p.sd_mm[2];
            }
        }
    return u95Of(std::sqrt(own * own + seat * seat + rail * rail));
}

/// Something of the body's pose is decided by no pin. (That the wheelbase is open is no part of its pose.)
bool poseOpen(const Results& r) {
    const auto& pins = r.seat.input().pins;
    const bool says_wheelbase =
        !r.seat.input().decided_change_mm &&
        std::none_of(pins.begin(), pins.end(), [](const sit::Pin& p) { return p.kind == PinKind::ArchRear; });
    return r.seat->open.size() > (says_wheelbase ? 1U : 0U);
}

void makeMounts(const Build& b, Results& r) {
    const bool open = poseOpen(r);
    for (const auto& [id, mount] : b.mounts) {
        const auto at = r.bodyInChassis(mount.body_point);
        if (!at) continue;
        make::MountInput in;
        in.name = nameOf(b, mount.body_point);
        in.body_point = *at;
        in.side = sideOf(in.name);
        if (mount.rail_station) in.rail_station_mm = mount.rail_station->value;
        in.height_u95_mm =
            open ? std::numeric_limits<double>::infinity() : gapU95(r, mount.body_point, in.rail_station_mm.value_or(at->x_mm));
        r.mount_ids.push_back(id);
        r.mounts.push_back(make::mountStack(in, in.side == Side::Left ? r.planned_left : r.planned_right, mountDesign(b, r)));
        r.mount_inputs.push_back(std::move(in));
    }
}

void makeCrossmember(const Build& b, Results& r, const Results* previous) {
    if (!b.crossmember) return;
    const Crossmember& c = *b.crossmember;
    using Made = Node<make::CrossmemberInput, make::CrossmemberPlan>;
    const auto at = r.chassis.positionOf(c.gearbox_mount);
    if (!at) {
        make::CrossmemberPlan waits;
        waits.waiting_for = "the gearbox mount's position: nothing fixes " + nameOf(b, c.gearbox_mount) + " yet";
        r.crossmember = Made::waiting(std::move(waits));
        return;
    }
    make::CrossmemberInput in = crossmemberInput(b, r, r.planned_chassis.map(*at), r.planned_left, r.planned_right);
    for (Vec3& place : in.pan) place = r.planned_chassis.map(place);
    in.filled = filledRails(r);
    r.crossmember = Made::of(std::move(in), previous ? &previous->crossmember : nullptr, make::crossmember);
}

void makeWork(const Build& b, Results& r, const Results* previous) {
    const work::Facts& f = r.work_facts = workFacts(b, r);
    r.work = Node<Results::Job, work::Order>::of({f, workRecord(b)}, previous ? &previous->work : nullptr,
                                                 [](const Results::Job& j) { return work::order(j.facts, j.record); });
    r.schedule = Node<work::ScheduleInput, work::Schedule>::of(scheduleInput(b, r), previous ? &previous->schedule : nullptr,
                                                               work::schedule);
}

} // namespace

Results analyse(const Build& b, std::int64_t revision, const Results* previous, const Progress& progress) {
    Results r;
    double share = 0;
    const auto go_on = [&] { return !progress || progress(share); };
    const auto asked = [&](double) { return go_on(); };
    r.revision = revision;
    r.chassis = surveyOf(b, the_chassis);
    solveSurvey(r.chassis, previous ? &previous->chassis : nullptr, asked);
    share = 0.5;
    if (!go_on()) return r;
    r.body = surveyOf(b, the_body);
    solveSurvey(r.body, previous ? &previous->body : nullptr, asked);
    for (const auto& [id, subject] : b.subjects) {
        if (id == the_body || id == the_chassis) continue;
        SurveyOf& s = r.others[id] = surveyOf(b, id);
        const auto before = previous ? previous->others.find(id) : r.others.end();
        solveSurvey(s, previous && before != previous->others.end() ? &before->second : nullptr, asked);
    }
    share = 0.8;
    if (!go_on()) return r;
    r.rail_left = railOf(b, r.chassis, Side::Left);
    r.rail_right = railOf(b, r.chassis, Side::Right);
    SitInput sit = sitInput(b, r);
    r.pin_ids = std::move(sit.pin_ids);
    r.sit_body_ids = std::move(sit.body_ids);
    r.seat = Node<sit::Input, sit::Seat>::of(std::move(sit.input), previous ? &previous->seat : nullptr, sit::seat);
    r.stretch =
        Node<stretch::Input, stretch::Plan>::of(stretchInput(b, r), previous ? &previous->stretch : nullptr, stretch::plan);
    r.planned_chassis = plannedChassis(b, r);
    r.planned_left = r.planned_chassis.map(r.rail_left);
    r.planned_right = r.planned_chassis.map(r.rail_right);
    r.drive =
        Node<drive::LineInput, drive::LinePlan>::of(driveInput(b, r), previous ? &previous->drive : nullptr, drive::linePlan);
    r.travels = travelsOf(b, r, previous);
    r.steering = Node<drive::SteeringIn, drive::SteeringPlan>::of(steeringInput(b, r), previous ? &previous->steering : nullptr,
                                                                  drive::steeringPlan);
    r.wheels = wheelsOf(b, r, previous);
    r.weights = Node<drive::WeightsIn, drive::WeightsPlan>::of(weightsInput(b, r), previous ? &previous->weights : nullptr,
                                                               drive::weightsPlan);
    r.brakes = Node<drive::BrakesIn, drive::BrakesPlan>::of(brakesInput(b, r), previous ? &previous->brakes : nullptr,
                                                            drive::brakesPlan);
    r.column = Node<drive::ColumnIn, drive::ColumnPlan>::of(columnInput(b, r), previous ? &previous->column : nullptr,
                                                            drive::columnPlan);
    r.gear_plate = Node<drive::GearPlateIn, drive::GearPlatePlan>::of(
        gearPlateInput(b, r), previous ? &previous->gear_plate : nullptr, drive::gearPlatePlan);
    r.link_holes = linkHolesOf(b, r, previous);
    r.seatings = compareSeatings(b, r, previous);
    makeMounts(b, r);
    makeCrossmember(b, r, previous);
    r.parts = partsOf(b, r, previous);
    r.nests = nestsOf(b, r, previous);
    r.service = serviceOf(b, r, previous);
    r.fouls = foulsOf(b, r, previous);
    r.nears = nearsOf(b, r, previous);
    r.welds = weldsOf(b, r, previous);
    r.put_on = putOnOf(b, r, previous);
    r.weld_rooms = weldRoomsOf(r, previous);
    r.fixtures = fixturesOf(b, r, previous);
    r.repair = repairOf(b, r, r.flaw_ids); // a rail that fails shuts a hold point
    makeWork(b, r, previous);
    if (previous) r.scans = previous->scans;
    r.findings = findAll(b, r);
    return r;
}

void findAgain(const Build& b, Results& r) {
    r.findings = findAll(b, r);
    sayDamage(r, std::vector(r.file_damage));
}

Variant variantOf(Build changed, const Results& of) {
    Variant v{std::move(changed), {}};
    v.results = analyse(v.build, of.revision, &of);
    return v;
}

Result<Variant> variantOf(const Build& b, const Results& of, const Edit& change) {
    Build changed = b;
    if (auto done = enact(changed, change); !done) return done.error();
    return variantOf(std::move(changed), of);
}

} // namespace gorvet::analysis
