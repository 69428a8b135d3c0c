// Steering column and gear, weight and springs, rows of holes, brakes: from what was typed to what is shown; shafts that nobody
// scanned among the scans.
#include "analysis/column.hpp"

#include "analysis/cards.hpp"
#include "analysis/carried.hpp"
#include "analysis/overlay_clearance.hpp"
#include "analysis/overlay_parts.hpp"
#include "analysis/steering.hpp"
#include "analysis/steering_made.hpp"
#include "build/edit.hpp"

#include <cmath>
#include <nlohmann/json.hpp>
#include <numbers>

namespace analysis_column_test {

using namespace gorvet;
using namespace gorvet::build;
using analysis_made::place;
using entry_tests::Typist;
using nlohmann::json;

namespace {

Typist columned() {
    Typist t;
    t.type("session monday right-way-up wheels");
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (const auto& [name, x, y, z] : {std::tuple{"Wh", 900.0, -350.0, 800.0},
                                        {"Ja", 300, -350, 560},
                                        {"Jb", 60, -250, 480},
                                        {"Sg", -120, -160, 330},
                                        {"Ha", -150, -300, 420},
                                        {"Hb", -60, -300, 420},
                                        {"Hc", -150, -300, 330},
                                        {"Hd", -60, -300, 330},
                                        {"Ea", 250, -90, 300},
                                        {"Eb", 250, -290, 900},
                                        {"Ka", 300, -60, 340},
                                        {"Kb", 320, -200, 800}})
        place(t, name, x, y, z);
    t.type("column steering through Wh Ja Jb Sg across 19");
    return t;
}
bool found(const analysis::Results& r, const std::string& code) {
    return std::any_of(r.findings.begin(), r.findings.end(), [&](const auto& f) { return f.code == code; });
}

} // namespace

TEST_CASE("a steering column from its points to findings, card, page, JSON and the plate's file", "[analysis][drive][column]") {
    Typist t = columned();
    const auto r = analysis::analyse(t.b, 1);
    CHECK(r.column.input().missing.empty());
    REQUIRE(r.column->joints.size() == 2);
    CHECK(found(r, "drive.column-stiff"));
    CHECK(r.column->verdict != PlanVerdict::Holds);
    CHECK(analysis::columnHeadline(t.b, r, the_chassis).sentence.find("Its joints bend by") == 0);
    // its angle by the three points
    const auto at = [&](const char* name) { return *r.chassis.positionOf(pointNamed(t.b, the_chassis, name)->id); };
    const auto way = [&](const char* a, const char* b) { return geometry::unit(geometry::minus(at(b), at(a))); };
    CHECK(r.column->joints[0].angle_rad.value == Approx(std::acos(geometry::dot(way("Wh", "Ja"), way("Ja", "Jb")))).margin(1e-9));
    for (const char* line :
         {"column steering forks 0deg gives 80 ? limit 45deg", "run downpipe exhaust through Ea Eb across 50",
          "run pipe brake-line through Ka Kb across 6", "steer-gear box-1 box holes Ha Hb Hd Hc bolt 10 plate 6"})
        t.type(line);
    CHECK(analysis::analyse(t.b, 2).column.input().assumed.size() == 1); // what gives is a guess
    t.type("column steering gives 80");
    const auto said = analysis::analyse(t.b, 2);
    CHECK_FALSE(found(said, "drive.column-stiff"));
    CHECK(found(said, "drive.column-held")); // nobody said what holds the hand wheel's shaft
    Typist loom = t;                         // a line that is far off tells nothing of the exhaust
    loom.type("remove run downpipe");
    CHECK(analysis::analyse(loom.b, 2).column.input().assumed.size() == 1);
    CHECK(said.column.input().assumed.empty());
    REQUIRE(said.column->near.size() == 2);
    CHECK(found(said, "drive.line-hot")); // the brake line beside the pipe
    REQUIRE(said.gear_plate->holes.size() == 4);
    const auto card = analysis::cardFor(t.b, said, the_chassis, "column:steering");
    REQUIRE(card);
    CHECK(card->rows.size() == 4);
    CHECK(analysis::cardFor(t.b, said, the_chassis, "steer-gear:box-1"));
    const auto run = analysis::cardFor(t.b, said, the_chassis, "run:pipe");
    REQUIRE(run);
    CHECK(run->rows.size() == 4);
    CHECK_FALSE(analysis::cardFor(t.b, said, the_chassis, "run:nothing"));
    CHECK(analysis::columnPages(t.b, said).size() == 1);
    const json j = json::parse(analysis::driveColumnJson(t.b, said));
    CHECK(j["joints"].size() == 2);
    CHECK(j["beside"].size() == 2);
    CHECK(j["plate"]["holes"].size() == 4);
    CHECK(j["cautions"].size() == 2);
    // a hand wheel on the body waits until it is seated
    t.type("subject body");
    t.type("point Wb 900 -350 300");
    t.type("subject chassis");
    t.type("column steering through body:Wb Ja Jb Sg");
    const auto waits = analysis::analyse(t.b, 3);
    CHECK(found(waits, "drive.column-waits"));
    CHECK(waits.column->joints.empty());
    CHECK(waits.column.input().between_body_and_frame);
    // nothing said, nothing shown
    Typist none;
    none.scannedLadder("rail 100 x 60 x 4 box top");
    const auto nothing = analysis::analyse(none.b, 4);
    CHECK(analysis::columnPages(none.b, nothing).empty());
    CHECK(analysis::carriedPages(none.b, nothing).empty());
    CHECK(json::parse(analysis::driveColumnJson(none.b, nothing))["said"] == false);
}

TEST_CASE("a rack that is said takes the place of what was assumed", "[analysis][drive][steering]") {
    Typist t = analysis_made::steered(0);
    const auto before = analysis::analyse(t.b, 1);
    REQUIRE(before.steering.input().assumed.size() == 1);
    REQUIRE(before.steering->locks.size() == 2);
    const double needed = std::abs(before.steering->locks[0].rack_mm);
    t.type(fmt::format("steer-gear rack-1 rack each-way {:.1f} turns 3.2", needed + 1));
    const auto said = analysis::analyse(t.b, 2);
    CHECK(said.steering.input().assumed.empty());
    CHECK(said.steering->verdict == PlanVerdict::Holds);
    CHECK(said.steering->per_turn_rad);
    t.type(fmt::format("steer-gear rack-1 rack each-way {:.1f} ?", needed + 1)); // guessed: no Holds
    CHECK(analysis::analyse(t.b, 3).steering->verdict == PlanVerdict::Marginal);
    t.type("steer-gear rack-1 rack each-way 30");
    const auto shorter = analysis::analyse(t.b, 4);
    CHECK(found(shorter, "drive.steer-short"));
    CHECK(shorter.steering->locks[0].circle_mm.value > said.steering->locks[0].circle_mm.value + 500);
}

TEST_CASE("weight, springs, holes and brakes as typed", "[analysis][drive][weights]") {
    Typist t;
    t.type("session monday right-way-up wheels");
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (const char* line :
         {"tyre front 320", "tyre rear 320", "weight front-left 400kg", "weight front-right 400kg", "weight rear-left 350kg"})
        t.type(line);
    const auto waits = analysis::analyse(t.b, 1);
    CHECK(found(waits, "drive.weight-waits"));
    CHECK(analysis::weightsHeadline(t.b, waits, the_chassis).sentence.find("wait for the weight on the rear right wheel") !=
          std::string::npos);
    t.type("weight rear-right 350kg");
    // 2600 between the axles: 560 over the road, lifted by 600 at the front
    const double slope = std::asin(600.0 / 2600);
    const double behind = 1500 * (700 / 1500.0 + (560 - 320) * std::tan(slope) / 2600);
    t.type(fmt::format("lifted front 600 rear {:.2f}kg", behind));
    for (const auto& [name, x, y, z] : {std::tuple{"Lf", 2000.0, -450.0, 470.0},
                                        {"La", 2560, -450, 330},
                                        {"Rf", 2000, 450, 470},
                                        {"Ra", 2560, 450, 330},
                                        {"Uf", 2150, -350, 560},
                                        {"Ua", 2580, -350, 520},
                                        {"Vf", 2150, 350, 560},
                                        {"Va", 2580, 350, 520},
                                        {"Pf", 2680, -480, 430},
                                        {"Pa", 2680, 420, 420},
                                        {"Sf", 2600, -420, 380},
                                        {"St", 2600, -420, 660}})
        place(t, name, x, y, z);
    for (const char* line :
         {"link lower-left rear-axle rod Lf La", "link lower-right rear-axle rod Rf Ra", "link upper-left rear-axle rod Uf Ua",
          "link upper-right rear-axle rod Vf Va", "link panhard rear-axle rod Pf Pa", "travel rear bump 80",
          "travel rear droop 80", "spring rear coil rate 35 foot Sf top St free 400 higher 30",
          "link-holes lower-left frame pitch 30 above 1 below 1 hole 14",
          "brake front disc piston 48 pistons 2 radius 112 grip 0.38 stroke 0.3",
          "brake rear drum piston 19 pistons 1 radius 114 factor 2.2 stroke 1",
          "pedal brake lever 290 arm 58 room 150 bore 22.2 help 3"})
        t.type(line);
    const auto r = analysis::analyse(t.b, 2);
    CHECK(r.weights->whole_kg->value == Approx(1500));
    CHECK(r.weights->cg_z_mm->value == Approx(560).margin(1));
    REQUIRE(r.weights->springs.size() == 1);
    CHECK(r.weights->springs[0].per_wheel->value == Approx(1).margin(0.1));
    CHECK(r.weights->springs[0].load_N->value == Approx(350 * 9.80665 / r.weights->springs[0].per_wheel->value));
    REQUIRE(r.weights->springs[0].higher->free_mm);
    REQUIRE(r.link_holes.size() == 1);
    CHECK(r.link_holes[0]->name == "lower-left and lower-right"); // its twin goes with it
    CHECK(r.link_holes[0]->holes.size() == 3);
    CHECK(r.link_holes[0]->holes[1].slope_rad == Approx(0).margin(1e-6));
    CHECK(r.link_holes[0]->holes[0].slope_rad * r.link_holes[0]->holes[2].slope_rad < 0);
    CHECK(r.brakes->not_looked_at.empty());
    CHECK(r.brakes->locks_at_g);
    CHECK(analysis::linkHolesList(t.b, r, the_chassis).rows.size() == 3);
    CHECK(analysis::brakesList(t.b, r, the_chassis).rows.size() == 5);
    CHECK(analysis::carriedPages(t.b, r).size() >= 3);
    for (const char* tag : {"weight:car", "spring:rear", "brake:front", "pedal:brake"}) {
        INFO(tag);
        const auto card = analysis::cardFor(t.b, r, the_chassis, tag);
        REQUIRE(card);
        CHECK(card->sentences.size() <= 2);
    }
    CHECK(analysis::cardFor(t.b, r, the_chassis, fmt::format("link-holes:{}", t.b.link_holes.begin()->first.value)));
    CHECK_FALSE(analysis::cardFor(t.b, r, the_chassis, "spring:front"));
    CHECK(json::parse(analysis::driveWeightJson(t.b, r))["weight_over_road_mm"].get<double>() == Approx(560).margin(1));
    CHECK(json::parse(analysis::driveHolesJson(t.b, r))["rows"][0]["holes"].size() == 3);
    CHECK(json::parse(analysis::driveBrakeJson(t.b, r))["not_looked_at"].empty());
    CHECK(r.weights.input().springs[0].assumed.empty());
    Typist longer = t; // weighed before it is made longer
    longer.type("change 300");
    longer.type("cut 1500");
    CHECK(analysis::analyse(longer.b, 3).weights->verdict == PlanVerdict::Marginal);
    // a link that goes takes its holes along, a point its spring
    t.type("remove link lower-left");
    CHECK(t.b.link_holes.empty());
}

TEST_CASE("shafts and steering that nobody scanned stand among the scans and move with their axle",
          "[analysis][overlay][column]") {
    Typist t = columned();
    for (const char* line :
         {"travel rear bump 80", "travel rear droop 80", "output gearbox at station 900 right 0 up 420 slope 3deg",
          "pinion rear at station 2480 right 0 up 340 slope -2deg on rear-axle", "shaft main from gearbox to rear",
          "shaft main tube 76 2.5"})
        t.type(line);
    const auto r = analysis::analyse(t.b, 1);
    const auto tubes = analysis::drawnTubes(t.b, r);
    REQUIRE(tubes.size() == 6); // the shaft, the column's three and its two joints
    CHECK(tubes[0].name == "shaft main");
    CHECK(tubes[3].name == "joint Ja");
    CHECK(tubes[3].radius_mm == 2 * tubes[2].radius_mm);
    CHECK(tubes[4].name == "column Jb to Sg");
    // closed, and by a little more than what it stands for: never less
    for (const analysis::DrawnTube& tube : tubes) {
        const shape::MeshReport report = shape::look(analysis::tubeMesh(tube));
        CHECK(report.closed);
        const double l = geometry::between(tube.at[0], tube.at[1]), rad = tube.radius_mm;
        const double exact = std::numbers::pi * rad * rad * (l + 4.0 / 3 * rad);
        CHECK(report.volume_mm3 > 0.985 * exact);
        CHECK(report.volume_mm3 < 1.02 * exact);
    }
    // it follows its axle: the pinion's end goes as the drive line has it, the gearbox's end stays
    const auto sweep = analysis::tubeSweep(tubes[0]);
    REQUIRE(sweep);
    for (const double u : {-1.0, -0.35, 0.0, 0.6, 1.0}) {
        const auto moved = sweep->pose(u, 0);
        CHECK(geometry::between(moved.transformed(tubes[0].at[0]), tubes[0].at[0]) < 1e-6);
        const Vec3 end = moved.transformed(tubes[0].at[1]);
        CHECK(end.z_mm ==
              Approx(tubes[0].at[1].z_mm + 80 * u).margin(1)); // no links: it goes straight up, and the shaft slides a little
    }
    CHECK(sweep->pose(0, 0).transformed(tubes[0].at[1]).z_mm == Approx(tubes[0].at[1].z_mm));
    CHECK_FALSE(analysis::tubeSweep(tubes[1])); // a column stays
    // a tunnel 120 over the shaft's middle at rest: at full bump it comes nearer by what the middle rises
    auto mesh = std::make_shared<shape::Mesh>();
    const double high = (tubes[0].at[0].z_mm + tubes[0].at[1].z_mm) / 2 + 38 + 120;
    mesh->points = {{1600, -300, high}, {1780, -300, high}, {1780, 300, high}, {1600, 300, high}};
    mesh->triangles = {{0, 1, 2}, {0, 2, 3}};
    Scan scan;
    scan.id = ScanId{9001};
    scan.subject = the_body;
    scan.part = ScanPart::Body;
    scan.name = "tunnel";
    analysis::OverlayInput in =
        analysis::overlayInput(t.b, r, std::make_shared<analysis::ScanMeshes>(analysis::ScanMeshes{{scan.id, mesh}}));
    CHECK(in.tubes.empty()); // without scans nothing is laid on anything
    in.scans[scan.id] = scan;
    in.tubes = {tubes[0]};
    const analysis::Overlay o = analysis::placed(analysis::overlayOf(in), analysis::placingOf(t.b, r));
    REQUIRE(o.on_chassis.size() == 1);
    REQUIRE(o.on_chassis[0].part.sweep);
    CHECK_FALSE(o.on_chassis[0].sweep_assumed);
    const auto clear = analysis::clearanceOf(o);
    REQUIRE(clear);
    // by hand: the line's place under each edge of the sheet, risen in its share
    double least = 1e9;
    for (double u = -1; u <= 1.0001; u += 0.01)
        for (double x = 1600; x <= 1780; x += 5) {
            const Vec3 a = tubes[0].at[0], b{tubes[0].at[1].x_mm, tubes[0].at[1].y_mm, tubes[0].at[1].z_mm + 80 * u};
            const double s = (x - a.x_mm) / (b.x_mm - a.x_mm), slope = std::atan2(b.z_mm - a.z_mm, b.x_mm - a.x_mm);
            least = std::min(least, (high - (a.z_mm + s * (b.z_mm - a.z_mm))) * std::cos(slope) - 38);
        }
    CHECK(clear->pairs.front().pair.least_mm == Approx(least).margin(1.5));
    // whoever scanned a shaft has it as it is
    Scan shaft = scan;
    shaft.id = ScanId{9002};
    shaft.subject = the_chassis;
    shaft.part = ScanPart::PropShaft;
    Build with = t.b;
    with.scans[shaft.id] = shaft;
    CHECK(analysis::drawnTubes(with, r).size() == 5);
}

} // namespace analysis_column_test
