// The dropped crossmember: by hand, and as solids that are weighed and measured independently.
#include "make/crossmember.hpp"
#include "make/crossmember_solid.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace make_dropped_test {

using namespace gorvet;
using build::PlanVerdict;

namespace {

build::RailLine rail(double side, double slope = 0, double taper = 0) {
    build::RailLine r;
    r.points = {{0, side * 450, 490}, {3000, side * (450 + taper), 490 + slope}};
    r.height_mm = 100;
    r.width_mm = 60;
    r.thickness_mm = 4;
    return r;
}

make::CrossmemberInput under(double pan_low) {
    make::CrossmemberInput in;
    in.left = rail(-1);
    in.right = rail(1);
    in.gearbox_mount = {1050, 0, 470};
    in.design.isolator_mm = 30;
    in.design.box_height_mm = 40;
    in.design.box_width_mm = 50;
    in.design.dropped = true;
    if (pan_low > 0) in.pan = {{800, -150, pan_low}, {800, 150, pan_low + 4}, {1040, -150, pan_low}, {1040, 150, pan_low}};
    return in;
}

const make::Remark* remark(const make::CrossmemberPlan& p, const std::string& code) {
    for (const auto& r : p.remarks)
        if (r.code == code) return &r;
    return nullptr;
}

std::map<std::string, shape::Solid> solidsOf(const make::CrossmemberInput& in, const make::CrossmemberPlan& p) {
    const auto list = make::crossmemberSolids(in, p);
    if (!list) FAIL(list.error().text());
    std::map<std::string, shape::Solid> named;
    for (const auto& piece : *list) {
        INFO(piece.name);
        CHECK(shape::isSound(piece.solid));
        named.emplace(piece.name, piece.solid);
    }
    return named;
}

/// The pan as a block of steel, from its underside 200 up.
shape::Solid panBlock(const make::CrossmemberInput& in) {
    const auto pan = *make::panOf(in.pan);
    const auto base = shape::prism(
        {{pan.front_mm, pan.left_mm}, {pan.rear_mm, pan.left_mm}, {pan.rear_mm, pan.right_mm}, {pan.front_mm, pan.right_mm}},
        200);
    return shape::placed(*base, {{0, 0, pan.low_mm}, {1, 0, 0}, {0, 1, 0}});
}

} // namespace

TEST_CASE("a dropped middle, by hand", "[make][dropped][closed-form]") {
    auto in = under(410);
    const auto p = make::crossmember(in);
    REQUIRE(p.dropped);
    const auto& q = *p.dropped;
    // the pan decides: 410 − 12 = 398, below the pad's underside at 470 − 30 − 6 = 434
    CHECK(p.box_top_mm == Approx(398));
    CHECK(q.riser_mm == Approx(36));
    CHECK(q.drop_mm == Approx(440 - (398 - 20))); // rail's middle over the middle's axis
    for (const auto* leg : {&q.left, &q.right}) {
        const double run = std::abs(leg->flange_y_mm - leg->joint_y_mm);
        CHECK(std::abs(leg->flange_y_mm) == Approx(450 - 30 - 8 - 1));
        CHECK(std::tan(leg->angle_rad) == Approx(62 / run));
        CHECK(leg->length_mm == Approx(std::hypot(62, run)));
        CHECK(leg->pan_distance_mm >= 12);
        // five millimetres further in, the leg would come too near
        CHECK(leg->pan_distance_mm < 12 + 5);
    }
    CHECK(q.middle_mm == Approx(2 * q.right.joint_y_mm)); // alike on both sides
    CHECK(p.pan_gap_mm == Approx(12));
    CHECK_FALSE(remark(p, "pan-fouls"));
    CHECK_FALSE(remark(p, "legs-steep"));
}

TEST_CASE("its solids weigh what the cut list says and clear the pan", "[make][dropped]") {
    const bool tapered = GENERATE(false, true);
    auto in = under(402);
    if (tapered) {
        in.left = rail(-1, 20, 120);
        in.right = rail(1, 8, 60);
        in.gearbox_mount.y_mm = 14;
    }
    const auto p = make::crossmember(in);
    REQUIRE(p.dropped);
    const auto solids = solidsOf(in, p);
    REQUIRE(solids.size() == 7); // middle, two legs, riser, two flanges, pad
    for (const auto& piece : p.pieces) {
        const auto found = solids.find(piece.name);
        if (found == solids.end()) continue;
        INFO(piece.name);
        CHECK(shape::steelMass(found->second) == Approx(piece.mass_kg).epsilon(2e-3));
    }
    // the middle's longest edge is what the solid measures from end to end
    const auto b = shape::bounds(solids.at("middle"));
    CHECK(b.max.y_mm - b.min.y_mm == Approx(p.dropped->middle_long_mm).margin(0.1 + 2 * 6 * std::tan(0.4)));
    const auto pan = panBlock(in);
    for (const auto& [name, solid] : solids) {
        if (name == "pad" || name == "riser") continue; // they meet the gearbox behind its pan
        INFO(name);
        CHECK(*shape::leastDistance(solid, pan) >= 12 - 0.01);
    }
    // pieces meet and do not overlap
    CHECK(*shape::leastDistance(solids.at("middle"), solids.at("leg left")) == Approx(0).margin(1e-6));
    CHECK(*shape::sharedVolume(solids.at("middle"), solids.at("leg right")) == Approx(0).margin(1));
    CHECK(*shape::leastDistance(solids.at("leg right"), solids.at("flange right")) == Approx(0).margin(1e-6));
    CHECK(*shape::sharedVolume(solids.at("leg left"), solids.at("flange left")) == Approx(0).margin(1));
    CHECK(*shape::leastDistance(solids.at("riser"), solids.at("pad")) == Approx(0).margin(1e-6));
}

TEST_CASE("the straight bridge as a solid", "[make]") {
    auto in = under(0);
    in.design.dropped = false;
    in.gearbox_mount.z_mm = 500;
    const auto p = make::crossmember(in);
    const auto solids = solidsOf(in, p);
    REQUIRE(solids.size() == 4);
    CHECK(shape::steelMass(solids.at("bridge")) == Approx(p.pieces[0].mass_kg).epsilon(1e-3));
    const auto b = shape::bounds(solids.at("bridge"));
    CHECK(b.max.y_mm - b.min.y_mm == Approx(p.box_length_mm).margin(1e-3));
    CHECK(b.max.z_mm == Approx(p.box_top_mm));
    const auto flange = shape::bounds(solids.at("flange left"));
    CHECK(flange.min.y_mm == Approx(-420 + 1)); // one clearance from the rail's inner face
    CHECK(flange.max.y_mm == Approx(-420 + 9));
    const auto other = shape::bounds(solids.at("flange right"));
    CHECK(other.max.y_mm == Approx(420 - 1));
    const auto file = test::freshFolder("make-step") / "crossmember.step";
    REQUIRE(shape::writeStep(*make::crossmemberSolids(in, p), file));
    const auto read = test::stepVolumes(file);
    REQUIRE(read.size() == 4);
    double mass = 0;
    for (const double v : read) mass += make::steelMass(v);
    double listed = 0;
    for (const auto& piece : p.pieces)
        if (solids.contains(piece.name)) listed += piece.mass_kg;
    CHECK(mass == Approx(listed).epsilon(1e-3));
}

TEST_CASE("a straight bridge under a low pan fouls it, with figure, need and remedy", "[make]") {
    auto in = under(425);
    in.design.dropped = false;
    const auto p = make::crossmember(in);
    const auto* r = remark(p, "pan-fouls");
    REQUIRE(r);
    CHECK(r->verdict == PlanVerdict::Fails);
    CHECK(r->sentence == "The gearbox pan fouls the bridge by 9 mm. Needs 12 clear."); // top at 434
    CHECK(r->remedy == "Drop the middle by 21 mm: crossmember form dropped.");
    in.pan.clear();
    CHECK_FALSE(remark(make::crossmember(in), "pan-fouls"));
    // a pan that ends well ahead of it does not matter
    in.pan = {{700, -100, 300}, {900, 100, 300}};
    CHECK_FALSE(remark(make::crossmember(in), "pan-fouls"));
}

TEST_CASE("bolts come out, or the plan says why not", "[make]") {
    auto in = under(410);
    auto p = make::crossmember(in);
    REQUIRE(p.bolt_length_mm);
    CHECK(*p.bolt_length_mm > 60);              // through the rail
    CHECK(p.bolt_free_mm == Approx(411 - 150)); // the upper bolts meet the pan's side
    in.pan.clear();
    CHECK(make::crossmember(in).bolt_free_mm == Approx(840 - 16)); // nothing but the other flange
    in.pan = {{800, -330, 395}, {1200, 330, 395}};
    in.design.pan_clearance_mm = 5;
    p = make::crossmember(in);
    CHECK(p.bolt_free_mm == Approx(411 - 330));
    REQUIRE(remark(p, "bolt-trapped"));
    // short bolts into captive nuts: 8 + 4 grip instead of 8 + 60
    in.design.captive = true;
    p = make::crossmember(in);
    REQUIRE(p.bolt_length_mm);
    CHECK(*p.bolt_length_mm <= 40);
    CHECK_FALSE(remark(p, "bolt-trapped"));
    bool nuts = false;
    bool crush = false;
    for (const auto& piece : p.pieces) {
        nuts |= piece.name == "captive nut";
        crush |= piece.name == "crush tube";
    }
    CHECK(nuts);
    CHECK_FALSE(crush);
}

TEST_CASE("where a middle can't be dropped the plan says so", "[make][dropped]") {
    // over the rails: nothing to drop
    auto high = under(0);
    high.gearbox_mount.z_mm = 560;
    auto p = make::crossmember(high);
    CHECK_FALSE(p.dropped);
    REQUIRE(remark(p, "no-room-to-drop"));
    CHECK(remark(p, "no-room-to-drop")->verdict == PlanVerdict::Fails);
    // a pan as wide as the frame
    auto wide = under(0);
    wide.pan = {{800, -405, 380}, {1200, 405, 380}};
    p = make::crossmember(wide);
    CHECK_FALSE(p.dropped);
    CHECK(p.verdict == PlanVerdict::Fails);
    // barely lower: a straight one would do
    auto slight = under(0);
    slight.gearbox_mount.z_mm = 490;
    p = make::crossmember(slight);
    REQUIRE(p.dropped);
    CHECK(remark(p, "drop-small"));
    // a deep pan near the rails makes the legs too steep
    auto steep = under(0);
    steep.pan = {{800, -380, 300}, {1200, 380, 300}};
    p = make::crossmember(steep);
    if (p.dropped) CHECK(remark(p, "legs-steep"));
}

TEST_CASE("a leg's long edge in space: the four edges between flange plane and mitre plane, at 8° of plan",
          "[make][dropped][closed-form]") {
    auto in = under(410);
    const double plan = units::radians(8);
    for (auto* r : {&in.left, &in.right}) {
        const double side = r == &in.left ? -1 : 1;
        for (auto& p : r->points) p.y_mm = side * (450 + (p.x_mm - 1050) * std::tan(plan));
    }
    const auto p = make::crossmember(in);
    REQUIRE(p.dropped);
    const auto& leg = p.dropped->right;
    const double theta = leg.angle_rad, w = in.design.box_width_mm, h = in.design.box_height_mm;
    // outwards y, up z: the leg runs from its joint along (cos θ, sin θ); each edge is cut by the mitre plane through the joint,
    // whose normal halves the angle to the level middle, and by the flange plane, which runs outwards to the rear
    double longest = 0;
    for (const double e : {-w / 2, w / 2})
        for (const double n : {-h / 2, h / 2}) {
            const double y0 = -n * std::sin(theta), z0 = n * std::cos(theta); // of the edge at the joint, across the leg
            const double my = std::cos(theta / 2), mz = std::sin(theta / 2);
            const double from = -(y0 * my + z0 * mz) / (std::cos(theta) * my + std::sin(theta) * mz);
            const double flange = std::abs(leg.flange_y_mm - leg.joint_y_mm) + e * std::tan(plan);
            const double to = (flange - y0) / std::cos(theta);
            longest = std::max(longest, to - from);
        }
    CHECK(leg.long_edge_mm == Approx(longest).epsilon(1e-9));
    CHECK(leg.long_edge_mm - (leg.length_mm + h / 2 * (std::tan(theta) - std::tan(theta / 2))) ==
          Approx(w / 2 * std::tan(plan) / std::cos(theta))); // what was left out: 3.5 to 4.5 mm
    // the saw on the tube's upper face is set steeper than the rail's angle in plan: over the width e the cut runs e tan φ / cos
    // θ
    CHECK(std::abs(leg.plan_saw_rad) == Approx(std::atan(std::tan(plan) / std::cos(theta))).margin(1e-12));
    CHECK(std::abs(leg.plan_saw_rad) > plan);
    const auto piece = std::find_if(p.pieces.begin(), p.pieces.end(), [](const auto& c) { return c.name == "leg right"; });
    REQUIRE(piece != p.pieces.end());
    CHECK(piece->ends.find(units::fixed(units::degrees(std::abs(leg.plan_saw_rad)), 1) + "° top") != std::string::npos);
    CHECK(piece->length_mm == Approx(longest));
}

TEST_CASE("on rails that slope by 5° every hole keeps its distance from the rail's edges", "[make][closed-form]") {
    auto in = under(410);
    in.design.dropped = false;
    const double slope = units::radians(5);
    for (auto* r : {&in.left, &in.right})
        for (auto& p : r->points) p.z_mm = 490 - (p.x_mm - 1050) * std::tan(slope);
    const auto p = make::crossmember(in);
    REQUIRE(p.possible);
    for (const auto* plate : {&p.left, &p.right}) {
        REQUIRE(plate->holes.size() == 4);
        for (const auto& hole : plate->holes) {
            const double dx = hole.x_mm - plate->width_mm / 2;
            // square to the rail, from its top and from its underside; 2 walls and half a washer are the rule: 20 (it was 15.5)
            const double from_top = (plate->rail_top_mm - dx * std::tan(slope) - hole.z_mm) * std::cos(slope);
            CHECK(from_top >= 20 - 1e-6);
            CHECK(100 - from_top >= 20 - 1e-6);
            // and the plate is large enough for it
            CHECK(hole.z_mm >= 1.5 * 12 - 1e-6);
            CHECK(plate->height_mm - hole.z_mm >= 1.5 * 12 - 1e-6);
        }
    }
}

TEST_CASE("nuts and crush tubes stay out of what fills the rails", "[make]") {
    auto in = under(410);
    auto p = make::crossmember(in);
    const double first = p.station_mm - p.left.width_mm / 2 + p.left.holes.front().x_mm;
    in.filled = {{"the sleeve of the cut", first - 10, first + 300}};
    p = make::crossmember(in);
    REQUIRE(remark(p, "bolts-in-sleeve"));
    CHECK(remark(p, "bolts-in-sleeve")->verdict == PlanVerdict::Fails);
    CHECK(p.verdict == PlanVerdict::Fails);
    in.filled = {{"the sleeve of the cut", p.station_mm + p.left.width_mm / 2, p.station_mm + 500}};
    CHECK_FALSE(remark(make::crossmember(in), "bolts-in-sleeve"));
}

} // namespace make_dropped_test
