#include "analysis/fit_picks.hpp"
#include "analysis/kept_cuts.hpp"
#include "analysis/lay_scan.hpp"
#include "analysis/move_body.hpp"
#include "analysis/overlay_clearance.hpp"
#include "analysis/overlay_parts.hpp"
#include "analysis/scan_edits.hpp"
#include "analysis/scene_layers.hpp"
#include "analysis/way_in.hpp"

#include "sim/car_meshes.hpp"
#include "support/scanned_car.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace analysis_overlay_test {

using namespace gorvet;
using namespace gorvet::build;
using geometry::RigidTransform;
using shape::Mesh;
using shape::Point3;
using test::box;
using test::Car;
using test::farthest;

TEST_CASE("what a pair needs: usual practice, assumed, until the build says it", "[analysis][overlay]") {
    Build b;
    CHECK(analysis::pairNeed(analysis::placingOf(b, {}), ScanPart::Body, ScanPart::Engine).least_mm == 25);
    CHECK(analysis::pairNeed(analysis::placingOf(b, {}), ScanPart::Exhaust, ScanPart::Body).least_mm == 40); // either way round
    CHECK(analysis::pairNeed(analysis::placingOf(b, {}), ScanPart::Body, ScanPart::Engine).assumed);
    CHECK(analysis::pairNeed(analysis::placingOf(b, {}), ScanPart::Body, ScanPart::Chassis).least_mm == b.clearances.least.value);
    b.clearances.least = {12, "12", Provenance::Measured};
    CHECK_FALSE(analysis::pairNeed(analysis::placingOf(b, {}), ScanPart::Body, ScanPart::Chassis).assumed);
    b.pair_rules[PairRuleId{1}] = {
        PairRuleId{1}, ScanPart::Engine, ScanPart::Body, {30, "30", Provenance::Measured}, {4, "4", Provenance::Measured}};
    const auto own = analysis::pairNeed(analysis::placingOf(b, {}), ScanPart::Body, ScanPart::Engine);
    CHECK(own.least_mm == 30);
    CHECK(own.finish_mm == 4);
    CHECK_FALSE(own.assumed);
    CHECK(analysis::watchedOnOneSubject(analysis::placingOf(b, {}), ScanPart::FuelTank, ScanPart::Exhaust));
    CHECK_FALSE(analysis::watchedOnOneSubject(analysis::placingOf(b, {}), ScanPart::Chassis, ScanPart::Engine));
}

TEST_CASE("a turn about an axis is right-handed and keeps what lies on it", "[analysis][overlay][closed-form]") {
    const RigidTransform m = analysis::turnedAbout({100, 0, 50}, {100, 0, 60}, units::radians(90));
    const Point3 p = m.transformed({110, 0, 0});
    CHECK(geometry::between(p, {100, 10, 0}) < 1e-9);
    CHECK(geometry::between(m.transformed({100, 0, -7}), {100, 0, -7}) < 1e-9);
}

TEST_CASE("what moves, moves as it does on a car", "[analysis][overlay]") {
    Car car;
    const Mesh wheel = box({-300, -700, 100}, {300, -500, 700});
    const ScanId front = car.add(the_chassis, ScanPart::Wheel, "front", wheel);
    car.b.travel.front_bump = {60, "60", Provenance::Measured};
    car.b.travel.front_droop = {80, "80", Provenance::Measured};
    car.b.travel.lock = {units::radians(30), "30°", Provenance::Measured};
    // without wheel centres nobody knows which axle it is on
    CHECK_FALSE(analysis::sweepOf(analysis::placingOf(car.b, car.results()), ScanPart::Wheel, front, wheel));
    const auto sweepOf = [&](const Build& b, ScanId id, const Mesh& mesh) {
        analysis::Placing p = analysis::placingOf(b, car.results());
        p.front_hub = Vec3{0, 0, 400};
        p.rear_hub = Vec3{2700, 0, 400};
        p.front_track_mm = p.rear_track_mm = 1200;
        const auto scan = b.scans.find(id);
        return analysis::sweepOf(p, scan == b.scans.end() ? ScanPart::Chassis : scan->second.part, id, mesh);
    };
    const auto sweep = sweepOf(car.b, front, wheel);
    REQUIRE(sweep);
    CHECK(sweep->assumed); // nobody said about which pivot it is steered
    CHECK(sweep->sweep.pose(1, 0).transformed({0, -600, 400})[2] == Approx(460));
    CHECK(sweep->sweep.pose(-1, 0).transformed({0, -600, 400})[2] == Approx(320));
    // locked to the left: the wheel's front goes to the left
    CHECK(sweep->sweep.pose(0, 1).transformed({-300, -600, 400})[1] < -700);
    CHECK(sweep->sweep.words(1, 1).find("60 bump, locked 30") != std::string::npos);
    CHECK(sweep->sweep.words(1, 1).find("left") != std::string::npos);
    // about a pivot that leans and stands inboard, it is no longer assumed, and the wheel's foot swings wider
    Build pivoted = car.b;
    Swing pivot;
    pivot.id = SwingId{900};
    pivot.scan = front;
    pivot.from = {0, -520, 200};
    pivot.to = {20, -480, 600};
    pivot.angle = pivot.back = {units::radians(30), "30°", Provenance::Measured};
    pivoted.swings[pivot.id] = pivot;
    const auto about = sweepOf(pivoted, front, wheel);
    REQUIRE(about);
    CHECK_FALSE(about->assumed);
    for (const Point3& on : {Point3{0, -520, 200}, Point3{20, -480, 600}}) // what stands on the axis stays
        CHECK(geometry::between(about->sweep.pose(0, 1).transformed(on), on) < 1e-6);
    CHECK(about->sweep.pose(0, 1).transformed({-300, -700, 100})[1] <
          sweep->sweep.pose(0, 1).transformed({-300, -700, 100})[1] + 60);
    CHECK(about->sweep.pose(1, 0).transformed({0, -600, 400})[2] == Approx(460));
    // a beam axle rises and rolls: one end at bump, the other at droop
    const Mesh beam = box({2650, -600, 350}, {2750, 600, 450});
    const ScanId axle = car.add(the_chassis, ScanPart::Axle, "axle", beam);
    const auto rolls = sweepOf(car.b, axle, beam);
    REQUIRE(rolls);
    const double bump = car.b.travel.rear_bump.value, droop = car.b.travel.rear_droop.value;
    CHECK(rolls->sweep.pose(1, -1).transformed({2700, -600, 400})[2] == Approx(400 + bump).margin(2));
    CHECK(rolls->sweep.pose(1, -1).transformed({2700, 600, 400})[2] == Approx(400 - droop).margin(2));
    CHECK(rolls->sweep.words(1, -1).find("left end at 80 bump, right end at 90 droop") != std::string::npos);
    car.b.scans.erase(axle); // the rear wheels below are on their own again
    // a rear wheel does not steer, and its travel was not read
    Mesh behind = wheel;
    for (Point3& p : behind.points) p[0] += 2700;
    const ScanId rear = car.add(the_chassis, ScanPart::Wheel, "rear", behind);
    const auto back = sweepOf(car.b, rear, behind);
    REQUIRE(back);
    CHECK(back->sweep.v_steps == 1);
    CHECK(back->assumed);
    CHECK(back->sweep.pose(1, 0).transformed({2700, -600, 400})[2] == Approx(400 + car.b.travel.rear_bump.value));
    // a shaft hangs at the gearbox; its rear end goes up with the axle
    const Mesh shaft = box({900, -30, 370}, {2600, 30, 430});
    const ScanId prop = car.add(the_chassis, ScanPart::PropShaft, "shaft", shaft);
    const auto swung = sweepOf(car.b, prop, shaft);
    REQUIRE(swung);
    CHECK(swung->sweep.pose(1, 0).transformed({2600, 0, 400})[2] == Approx(400 + car.b.travel.rear_bump.value).margin(0.01));
    CHECK(geometry::between(swung->sweep.pose(1, 0).transformed({900, 0, 400}), {900, 0, 400}) < 1e-6);
    // an engine rocks about its length, a bonnet swings as it is said
    const Mesh engine = box({100, -200, 300}, {700, 200, 800});
    const ScanId motor = car.add(the_chassis, ScanPart::Engine, "engine", engine);
    const auto rock = sweepOf(car.b, motor, engine);
    REQUIRE(rock);
    CHECK(rock->assumed);
    CHECK(rock->sweep.pose(1, 0).transformed({400, 0, 800})[1] < -10); // its top to the left
    CHECK(rock->sweep.words(1, 0).find("left") != std::string::npos);
    const Mesh lid = box({-500, -600, 900}, {500, 600, 905});
    const ScanId bonnet = car.add(the_body, ScanPart::Bonnet, "bonnet", lid);
    CHECK_FALSE(sweepOf(car.b, bonnet, lid)); // nothing said: shut
    car.b.swings[SwingId{90}] = {
        SwingId{90}, bonnet, {500, -600, 900}, {500, 600, 900}, {units::radians(60), "60°", Provenance::Measured}, {}};
    const auto open = sweepOf(car.b, bonnet, lid);
    REQUIRE(open);
    CHECK(open->sweep.one_way);
    CHECK(open->sweep.pose(1, 0).transformed({-500, 0, 900})[2] == Approx(900 + 1000 * std::sin(units::radians(60))));
    CHECK_FALSE(sweepOf(car.b, ScanId{99}, lid));
}

TEST_CASE("every pair by its own need, and the worst first", "[analysis][overlay]") {
    Car car;
    car.add(the_body, ScanPart::Body, "shell", box({0, -600, 0}, {2000, 600, 2}));
    car.add(the_chassis, ScanPart::Chassis, "frame", box({0, 400, -120}, {2000, 460, -20}));    // 20: needs 10
    car.add(the_chassis, ScanPart::Exhaust, "pipe", box({500, -300, -100}, {1500, -250, -35})); // 35: needs 40
    car.add(the_chassis, ScanPart::FuelTank, "tank", box({1600, -300, -200}, {1900, 0, -60}));  // 60; and 100 from the pipe
    const analysis::Overlay o = car.overlay();
    REQUIRE(o.complete());
    CHECK(analysis::unlikeNeeds(o));
    const auto c = analysis::clearanceOf(o, 1);
    REQUIRE(c);
    REQUIRE(c->pairs.size() == 4); // three with the body, and pipe to tank
    CHECK(c->pairs[0].pair.band == sit::Band::Fouls);
    const auto named = [&](size_t k) {
        return analysis::partName(o, c->pairs[k].moving, c->pairs[k].pair.moving) + "/" +
               analysis::partName(o, c->pairs[k].fixed, c->pairs[k].pair.fixed);
    };
    CHECK(named(0) == "the body/the exhaust");
    CHECK(c->pairs[0].pair.least_mm == Approx(35).margin(1e-4));
    CHECK(named(1) == "the exhaust/the fuel tank");
    CHECK(c->pairs[1].pair.least_mm == Approx(std::hypot(100, 0)).margin(1e-4));
    CHECK(c->pairs[1].pair.band == sit::Band::Tight); // 100 where 100 is needed
    CHECK(c->live.fouls == 0);                        // its corners are far from the pipe: only surfaces tell
    const auto findings = analysis::clearanceFindings(car.b, o, *c);
    REQUIRE_FALSE(findings.empty());
    CHECK(findings[0].sentence.find("The body comes within 35.0 mm of the exhaust") == 0);
    CHECK(findings[0].need == "40.0 mm ?");
    CHECK(findings[0].remedy.find("5.0 mm") != std::string::npos);
    // cut for the pipe: 5 short of its 40; once it is shielded nothing needs to be cut
    const auto map = analysis::cutMapOf(o, analysis::cutRulesOf(car.b), 1);
    REQUIRE(map);
    CHECK(map->cuts.size() == 2); // both faces of the plate
    // the build says that it is shielded
    car.b.pair_rules[PairRuleId{50}] = {
        PairRuleId{50}, ScanPart::Body, ScanPart::Exhaust, {25, "25", Provenance::Measured}, {0, "0", Provenance::Measured}};
    const auto shielded = analysis::clearanceOf(car.overlay(), 1);
    for (const auto& p : shielded->pairs)
        if (p.pair.need.least_mm == 25) CHECK(p.pair.band == sit::Band::Tight);
    CHECK(analysis::cutMapOf(car.overlay(), analysis::cutRulesOf(car.b), 1)->cuts.empty());
    // an envelope that a pin keeps clear of is a part, too, but no sheet to cut
    car.b.points[PointId{60}] = {PointId{60}, the_chassis, "P", Vec3{0, 0, 0}};
    car.b.obstacles[ObstacleId{61}] = {ObstacleId{61}, the_body, "climate", {800, 350, -60}, {1200, 500, -1}}; // over the frame
    Pin clear;
    clear.id = PinId{62};
    clear.kind = PinKind::Clear;
    clear.points = {PointId{60}};
    clear.box = ObstacleId{61};
    car.b.pins[clear.id] = clear;
    const analysis::Overlay with_box = car.overlay();
    REQUIRE(with_box.body_parts.size() == 2);
    const auto boxed = analysis::clearanceOf(with_box, 1);
    CHECK(analysis::partName(with_box, boxed->pairs[0].moving, boxed->pairs[0].pair.moving) == "climate");
    CHECK(boxed->pairs[0].pair.meets);
    CHECK(analysis::cutMapOf(with_box, analysis::cutRulesOf(car.b), 1)->cuts.empty());
    const auto h = analysis::overlayHeadline(car.b, o, &*c);
    CHECK(h.sentence.find("The body fouls the exhaust") == 0);
    CHECK(h.below.find("4 pairs of parts, all by assumed clearances") == 0);
}

TEST_CASE("a floor that is channelled, raised, and rails that are kicked", "[analysis][overlay]") {
    Build b;
    b.rail.width = {60, "60", Provenance::Measured};
    b.rail.height = {100, "100", Provenance::Measured};
    analysis::Results r;
    for (auto* rail : {&r.planned_left, &r.planned_right}) {
        const double y = rail == &r.planned_left ? -400 : 400;
        rail->points = {{0, y, 500}, {3000, y, 500}};
        rail->height_mm = 100;
        rail->width_mm = 60;
    }
    Mesh floor;
    for (int i = 0; i <= 60; ++i)
        for (int j = -30; j <= 30; ++j) floor.points.push_back({i * 50.0, j * 20.0, 505});
    b.lowering.channel = {40, "40", Provenance::Measured};
    b.clearances.least = {10, "10", Provenance::Measured};
    const Mesh channelled = analysis::withFloorWork(analysis::overlayInput(b, r, nullptr), floor);
    for (size_t k = 0; k < floor.points.size(); ++k) {
        const bool over = std::abs(std::abs(floor.points[k][1]) - 400) <= 40;
        CHECK(channelled.points[k][2] == Approx(over ? 545 : 505));
    }
    // raised: only in the zone that is the floor
    b.lowering.channel.value = 0;
    b.lowering.raise = {25, "25", Provenance::Measured};
    CHECK(farthest(analysis::withFloorWork(analysis::overlayInput(b, r, nullptr), floor), [](const Point3& p) { return p[2]; }) ==
          505); // no zone says which
    b.zones[ZoneId{1}] = {ZoneId{1}, "floor", ZoneRule::Named, {500, -300, 400}, {1500, 300, 600}};
    const Mesh raised = analysis::withFloorWork(analysis::overlayInput(b, r, nullptr), floor);
    for (size_t k = 0; k < floor.points.size(); ++k) {
        const Point3& p = floor.points[k];
        CHECK(raised.points[k][2] == Approx(p[0] >= 500 && p[0] <= 1500 && std::abs(p[1]) <= 300 ? 530 : 505));
    }
    b.lowering.kick = {30, "30", Provenance::Measured};
    const Mesh kicked = analysis::withKickedRails(analysis::overlayInput(b, r, nullptr), ScanPart::Chassis, floor);
    for (size_t k = 0; k < floor.points.size(); ++k) {
        const double x = floor.points[k][0];
        if (x >= 900 && x <= 2000) CHECK(kicked.points[k][2] == Approx(475));
        if (x <= 800 || x >= 2100) CHECK(kicked.points[k][2] == Approx(505));
    }
    CHECK(analysis::withKickedRails(analysis::overlayInput(b, r, nullptr), ScanPart::Engine, floor) ==
          floor); // the driveline stays
}

TEST_CASE("a scan is laid by its mid-plane, by three, two, one, and by marker balls", "[analysis][lay]") {
    Car car;
    const Mesh shell = sim::bodyShell(40);
    // it lies off the centreline, turned
    const RigidTransform off = geometry::rigidTransform({0, 23, 0}, 0.02, 0, 0.015);
    const ScanId id = car.add(the_body, ScanPart::Body, "shell", transformed(shell, off));
    const auto laid = analysis::layBySymmetry(car.b, car.meshes, id);
    REQUIRE(laid);
    REQUIRE(enact(car.b, laid->edit));
    const RigidTransform pose = analysis::poseOf(car.b.scans.at(id));
    // mirrored pairs of the true shell stand alike on both sides again
    for (const Point3 p : {Point3{700, -650, 500}, Point3{2400, -600, 900}}) {
        const Point3 left = pose.transformed(off.transformed(p)), right = pose.transformed(off.transformed({p[0], -p[1], p[2]}));
        CHECK(left[1] == Approx(-right[1]).margin(0.4));
        CHECK(left[2] == Approx(right[2]).margin(0.4));
    }
    CHECK(car.b.scans.at(id).note.find("by its mid-plane") == 0);

    // three, two, one: places of the true shell, seen where they stand now
    const auto now = [&](const Point3& p) { return analysis::poseOf(car.b.scans.at(id)).transformed(off.transformed(p)); };
    const auto datum = analysis::layByDatum(car.b, id,
                                            {now({500, -300, 0}), now({2500, -300, 0}), now({1500, 400, 0}), now({100, 0, 50}),
                                             now({2900, 0, 80}), now({0, 200, 30})});
    REQUIRE(datum);
    REQUIRE(enact(car.b, datum->edit));
    for (const Point3 p : {Point3{0, 0, 0}, Point3{1500, 300, 700}}) CHECK(geometry::between(now(p), p) < 1e-6);
    CHECK_FALSE(
        analysis::layByDatum(car.b, id, {Point3{0, 0, 0}, {1, 0, 0}, {2, 0, 0}, {0, 0, 0}, {1, 0, 0}, {0, 0, 0}})); // on one line

    // too few balls is said
    const ScanId other = car.add(the_body, ScanPart::Body, "other", shell);
    const auto none = analysis::layByMarkers(car.b, car.meshes, id, 12.5);
    REQUIRE_FALSE(none);
    CHECK(none.error().remedy.find("radius") != std::string::npos);

    // by picks as they are seen: in the chassis frame, the body where it sits; stopped, nothing is kept
    const RigidTransform seat = geometry::rigidTransform({300, 0, 450}, 0, 0.01, 0);
    std::vector<std::array<Point3, 2>> picks;
    for (const Point3 p : {Point3{700, -650, 500}, Point3{2400, -600, 900}, Point3{1500, 600, 700}, Point3{200, 300, 400}})
        picks.push_back({seat.transformed(now(p)), seat.transformed(geometry::plus(p, {5, 0, 0}))});
    const auto by_picks = analysis::layByPicks(car.b, car.meshes, seat, id, picks, false);
    REQUIRE(by_picks);
    REQUIRE(*by_picks);
    REQUIRE(enact(car.b, (*by_picks)->edit));
    CHECK(geometry::between(now({1000, 100, 600}), {1005, 100, 600}) < 1e-6);
    // then by surfaces on the other scan of the same subject: the 5 mm are found again
    const auto by_surfaces = analysis::layByPicks(car.b, car.meshes, seat, id, {}, true);
    REQUIRE(by_surfaces);
    REQUIRE(*by_surfaces);
    REQUIRE(enact(car.b, (*by_surfaces)->edit));
    CHECK(geometry::between(now({1000, 100, 600}), {1000, 100, 600}) < 0.5);
    CHECK_FALSE(analysis::layByPicks(car.b, car.meshes, seat, id, {}, true, [](double) { return false; }));

    car.b.scans.erase(other);
    car.meshes.erase(other);
    CHECK_FALSE(analysis::layByMarkers(car.b, car.meshes, id, 12.5));
    car.meshes.erase(id);
    CHECK(analysis::layBySymmetry(car.b, car.meshes, id).error().code == Error::Code::NotFound);
}

TEST_CASE("places of a scan: how sharp they are, and shapes through them", "[analysis][lay]") {
    // a tube of radius 24 along x, seen with a scatter of 0.2
    std::mt19937 rng(5);
    Mesh tube;
    for (int i = 0; i < 60; ++i)
        for (int k = 0; k < 48; ++k) {
            const double a = k * units::pi / 24, radius = 24 + test::normal(rng, 0.2);
            tube.points.push_back({300 + i * 5.0, 10 + radius * std::cos(a), 400 + radius * std::sin(a)});
        }
    std::vector<Point3> picks;
    for (const int k : {3, 500, 1010, 1700, 2222, 2800}) picks.push_back(tube.points[static_cast<size_t>(k)]);
    const auto fit = analysis::fitThrough(analysis::PickShape::Tube, picks, tube.points, units::LengthStep::Mm01);
    REQUIRE(fit);
    CHECK(fit->grown);
    CHECK(fit->points > 500);
    CHECK(fit->radius_mm == Approx(24).margin(0.05));
    CHECK(fit->rms_mm == Approx(0.2).epsilon(0.15));
    CHECK(fit->words.find("Tube of diameter 48.0 mm") == 0);
    // through the picks alone where the scan has nothing there
    const auto alone = analysis::fitThrough(analysis::PickShape::Tube, picks, {}, units::LengthStep::Mm01);
    REQUIRE(alone);
    CHECK_FALSE(alone->grown);
    CHECK_FALSE(analysis::fitThrough(analysis::PickShape::Tube, {picks[0], picks[1]}, tube.points, units::LengthStep::Mm01));
    // a flat sheet with a scatter of 0.3: its ± is that, at 95 %
    Mesh sheet;
    for (int i = 0; i <= 40; ++i)
        for (int j = 0; j <= 40; ++j) sheet.points.push_back({i * 2.0, j * 2.0, test::normal(rng, 0.3)});
    for (std::uint32_t i = 0; i < 40; ++i)
        for (std::uint32_t j = 0; j < 40; ++j) {
            sheet.triangles.push_back({i * 41 + j, (i + 1) * 41 + j, (i + 1) * 41 + j + 1});
            sheet.triangles.push_back({i * 41 + j, (i + 1) * 41 + j + 1, i * 41 + j + 1});
        }
    const auto ready = sit::readyOf(std::make_shared<const Mesh>(sheet), 1);
    const auto scatter = analysis::scatterAt(ready, {40, 40, 0});
    REQUIRE(scatter);
    CHECK(*scatter == Approx(1.96 * 0.3).epsilon(0.25));
    CHECK_FALSE(analysis::scatterAt(ready, {500, 500, 0}));
}

TEST_CASE("cuts are kept along the body, told when it moves, and compared with what came out", "[analysis][cuts]") {
    Car car;
    // a floor of many small triangles over a rail that runs through it
    Mesh floor;
    for (int i = 0; i <= 60; ++i)
        for (int j = 0; j <= 30; ++j) floor.points.push_back({i * 20.0, j * 20.0 - 300, 0});
    for (std::uint32_t i = 0; i < 60; ++i)
        for (std::uint32_t j = 0; j < 30; ++j) {
            floor.triangles.push_back({i * 31 + j, (i + 1) * 31 + j, (i + 1) * 31 + j + 1});
            floor.triangles.push_back({i * 31 + j, (i + 1) * 31 + j + 1, i * 31 + j + 1});
        }
    car.add(the_body, ScanPart::Body, "shell", floor);
    car.add(the_chassis, ScanPart::Chassis, "rail", box({400, -30, -50}, {800, 30, 40}));
    car.b.zones[ZoneId{40}] = {ZoneId{40}, "sill", ZoneRule::Brace, {500, -50, -10}, {600, 50, 10}};
    const analysis::Overlay o = car.overlay();
    const auto map = analysis::cutMapOf(o, analysis::cutRulesOf(car.b), 1);
    REQUIRE(map);
    REQUIRE(map->cuts.size() == 1);
    const analysis::Results r = car.results();
    const auto edit = analysis::keepCuts(car.b, r, *map);
    REQUIRE(edit);
    REQUIRE(enact(car.b, *edit));
    REQUIRE(car.b.planned_cuts.size() == 1);
    PlannedCut& cut = car.b.planned_cuts[car.b.planned_cuts.begin()->first];
    CHECK(cut.name == "cut-1");
    CHECK(cut.brace == "sill");
    CHECK(cut.closed);
    CHECK(cut.line.size() < 60);
    // 10 clear and a margin of 10 round a rail of 400 × 60
    CHECK(cut.area_mm2 == Approx(440.0 * 100).epsilon(0.03));
    const Mesh removed = analysis::toRemoveMesh(car.b.planned_cuts, o);
    CHECK(removed.triangles.size() > 80);
    CHECK(farthest(removed, [](const Point3& p) { return p[0]; }) < 845);
    // steps of the work: braced first, then cut
    const auto worked = car.results();
    REQUIRE(worked.work->find("brace-zone-sill"));
    REQUIRE(worked.work->find("cut-body-cut-1"));
    CHECK(worked.work->find("cut-body-cut-1")->no_return);
    // kept again: those made by the map give way, one drawn by hand stays
    cut.by_hand = true;
    const auto again = analysis::keepCuts(car.b, r, *map);
    REQUIRE(again);
    REQUIRE(enact(car.b, *again));
    CHECK(car.b.planned_cuts.size() == 2);
    // the edge as it came out: 3 short on one side, then far beyond the line
    const auto codes = [&] {
        std::string all;
        for (const auto& f : analysis::keptCutFindings(car.b, car.results())) all += f.code + " ";
        return all;
    };
    CHECK(codes().empty());
    const auto first = [&]() -> PlannedCut& { return car.b.planned_cuts[car.b.planned_cuts.begin()->first]; };
    first().as_cut = {{600, 47, 0}};
    CHECK(codes() == "work.cut-short ");
    first().as_cut = {{600, 38, 0}}; // beyond the margin: it fouls again
    CHECK(analysis::keptCutFindings(car.b, car.results())[0].word == "Fails");
    first().as_cut = {{600, 56, 0}};
    CHECK(codes() == "work.cut-far ");
    first().as_cut.clear();
    first().made_at = "5 0 0 0 0 0";
    CHECK(codes() == "work.cut-stale ");
    CHECK_FALSE(analysis::keepCuts(car.b, r, {}));
}

TEST_CASE("the map of a body over a wheel counts its bump", "[analysis][overlay]") {
    Car car;
    car.add(the_body, ScanPart::Body, "shell", box({-280, -680, 780}, {280, -520, 782}));
    car.add(the_chassis, ScanPart::Wheel, "front", box({-300, -700, 100}, {300, -500, 700}));
    analysis::Overlay o = car.overlay();
    const double still = analysis::liveOf(o, o.seat, 1).least_mm;
    CHECK(still == Approx(80).margin(1e-3));
    sit::Sweep bump;
    bump.u_steps = 4;
    bump.pose = [](double u, double) { return geometry::rigidTransform({0, 0, 70 * u}, 0, 0, 0); };
    bump.words = [](double u, double) { return u > 0 ? std::string("at 70 bump") : std::string("at 70 droop"); };
    o.on_chassis[0].part.sweep = bump;
    o.on_chassis[0].sweep_assumed = true;
    const auto live = analysis::liveOf(o, o.seat, 1);
    CHECK(live.least_mm == Approx(10).margin(1e-3));
    CHECK(live.pose == "at 70 bump (assumed)");
    // the exact pair agrees: 780 − (700 + 70)
    const auto c = analysis::clearanceOf(o, 1);
    REQUIRE(c);
    CHECK(c->pairs[0].pair.least_mm == Approx(10).margin(1e-3));
}

} // namespace analysis_overlay_test
