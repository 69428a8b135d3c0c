// Splice strength, plug welds, crossings and cut stations against hand calculations.
#include "stretch/parts.hpp"
#include "stretch/stretch.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace stretch_joint_test {

using namespace gorvet;
using build::CrossingKind;
using build::PlanVerdict;
using build::Presence;

namespace {

build::RailLine rail(double side) {
    build::RailLine r;
    for (const double x : {-500.0, 3200.0}) r.points.push_back({x, side * 440, 500});
    r.height_mm = 100;
    r.width_mm = 60;
    r.thickness_mm = 4;
    return r;
}

stretch::Input level(double change) {
    stretch::Input in;
    in.left = rail(-1);
    in.right = rail(1);
    in.change_mm = change;
    in.cut_station_mm = 1200;
    in.front_axle_mm = 0;
    in.rear_axle_mm = 2800;
    in.obstacles = {{"ahead", "body mount", 850}, {"behind", "body mount", 1750}}; // where nobody looked nothing is good
    for (size_t i = 0; i < build::Words<CrossingKind>::text.size(); ++i)
        in.runners.push_back({static_cast<CrossingKind>(i), Presence::Absent, {}, {}, {}});
    return in;
}

const stretch::Remark* remark(const stretch::Plan& p, const std::string& code) {
    for (const auto& r : p.remarks)
        if (r.code == code) return &r;
    return nullptr;
}

stretch::Runner& runner(stretch::Input& in, CrossingKind kind) { return in.runners[static_cast<size_t>(kind)]; }

} // namespace

TEST_CASE("section properties with their corner radii, by hand", "[stretch][closed-form]") {
    // sharp corners: (60·100³ − 52·92³)/12 / 50
    const auto sharp = stretch::sectionOf(100, 60, 4, false, 0.0);
    CHECK(sharp.level_modulus_mm3 == Approx((60e6 - 52 * 92. * 92 * 92) / 12 / 50));
    CHECK(sharp.upright_mm4 == Approx((100 * 216e3 - 92 * 52. * 52 * 52) / 12));
    CHECK(sharp.area_mm2 == Approx(100 * 60 - 92 * 52));
    // outside radius 8, inside 4: less four spandrels outside, more four inside. A spandrel of radius r has the area (1 − π/4)
    // r², its centroid 0.2234 r from either side of its corner
    const auto box = stretch::sectionOf(100, 60, 4, false);
    const auto spandrels = [](double r, double half) {
        const double area = (1 - units::pi / 4) * r * r, to_axis = half - 0.22337 * r;
        const double own = (1. / 3 - units::pi / 16 - 1. / (9 * (4 - units::pi))) * std::pow(r, 4);
        return 4 * (area * to_axis * to_axis + own);
    };
    CHECK(box.level_mm4 == Approx(sharp.level_mm4 - spandrels(8, 50) + spandrels(4, 46)).epsilon(2e-4));
    CHECK(sharp.level_modulus_mm3 / box.level_modulus_mm3 == Approx(1.065).margin(0.01)); // what sharp corners promised too much
    // the published properties of 100 × 60 × 4 (EN 10219): A 11.7 cm², W 30.4 and 22.9 cm³
    CHECK(box.area_mm2 == Approx(1170).epsilon(0.01));
    CHECK(box.level_modulus_mm3 == Approx(30.4e3).epsilon(0.01));
    CHECK(box.upright_modulus_mm3 == Approx(22.9e3).epsilon(0.005));
    // a channel of 100 × 50 × 5 with sharp corners: flanges 2·(50·5³/12 + 250·47.5²), web 5·90³/12
    const double hand = 2 * (50 * 125. / 12 + 250 * 47.5 * 47.5) + 5 * 729000. / 12;
    const auto channel = stretch::sectionOf(100, 50, 5, true, 0.0);
    CHECK(channel.level_mm4 == Approx(hand));
    const double y = (90 * 5 * 2.5 + 2 * 250 * 25) / 950.;
    const double upright = 90 * 125. / 12 + 450 * (y - 2.5) * (y - 2.5) + 2 * (5 * 125e3 / 12 + 250 * (25 - y) * (25 - y));
    CHECK(channel.upright_mm4 == Approx(upright));
    CHECK(channel.upright_modulus_mm3 == Approx(upright / (50 - y)));
    // torsion: Bredt's 2 A t on the mid-line of a round-cornered box, Σbt²/3 of an open one
    CHECK(sharp.torsion_modulus_mm3 == Approx(2 * (96 * 56 - (4 - units::pi) * 0) * 4));
    CHECK(channel.torsion_modulus_mm3 == Approx((95 + 2 * 47.5) * 25 / 3));
}

TEST_CASE("a sleeve of equal wall has three quarters of the rail, and the plan says what brings it up", "[stretch]") {
    auto in = level(-140);
    const auto p = stretch::plan(in);
    REQUIRE(p.splice);
    CHECK(p.splice->share() > 0.74); // with corner radii; 0.76 … 0.83 with sharp ones
    CHECK(p.splice->share() < 0.83);
    const auto* weak = remark(p, "splice-weak");
    REQUIRE(weak);
    CHECK(weak->verdict == PlanVerdict::Fails);
    // both remedies really do it
    REQUIRE(p.splice->wall_need_mm);
    REQUIRE(p.splice->plate_need_mm);
    auto thick = in;
    thick.sleeve_wall_mm = p.splice->wall_need_mm;
    CHECK_FALSE(remark(stretch::plan(thick), "splice-weak"));
    thick.sleeve_wall_mm = *p.splice->wall_need_mm - 0.5;
    CHECK(remark(stretch::plan(thick), "splice-weak"));
    auto plated = in;
    plated.fish_plate_mm = p.splice->plate_need_mm;
    const auto q = stretch::plan(plated);
    CHECK_FALSE(remark(q, "splice-weak"));
    REQUIRE(q.splice->plate);
    CHECK(q.splice->plate->height_mm == Approx(100 - 16 - 6)); // clear of the corners, and of the weld
    CHECK(q.splice->plate->length_mm == Approx(2 + 4 * 100));  // two heights each side of the root gap
    auto butt = in;
    butt.butt_counts = true;
    CHECK(stretch::plan(butt).splice->share() == Approx(1));
    CHECK_FALSE(remark(stretch::plan(butt), "splice-weak"));
}

TEST_CASE("plug welds by the rules", "[stretch][closed-form]") {
    auto in = level(-140);
    const auto p = stretch::plan(in);
    const auto& g = p.splice->plugs;
    CHECK(g.structural);
    CHECK(g.hole_least_mm == 12); // t + 8
    CHECK(g.hole_most_mm == 15);  // max(t + 11, 2.25 t)
    CHECK(g.hole_mm == 12);
    CHECK(g.pitch_mm == 48);
    // the weld bears 0.30 · 480 = 144 MPa, 16.3 kN; unknown mild steel round it 0.40 · 210 = 84, 9.5 kN: that is what a plug
    // carries
    CHECK(g.capacity_N == Approx(units::pi / 4 * 144 * 84));
    CHECK(g.capacity_N == Approx(9500).margin(5));
    CHECK(g.base_limits);
    // M = S·140; over the faying surfaces, 100 − 2·4 apart; 1.5 × of it in plugs, and what the sleeve's tilt adds: 5 beside, 24
    // to the edge
    CHECK(p.splice->flange_force_N == Approx(p.splice->rail_modulus_mm3 * 140 / 92));
    CHECK(g.prying == Approx(std::hypot(1, 5. / 24)));
    CHECK(g.needed == static_cast<int>(std::ceil(1.5 * g.prying * p.splice->flange_force_N / g.capacity_N)));
    // overlap 200: first at 24, then every 48: 24, 72, 120, 168
    CHECK(g.in_a_row == 4);
    CHECK(g.rows == 1);
    REQUIRE(remark(p, "plugs-short"));
    auto longer = in;
    longer.overlap_heights = g.overlap_need_mm / 100;
    CHECK_FALSE(remark(stretch::plan(longer), "plugs-short"));
    longer.overlap_heights -= 0.05;
    CHECK(remark(stretch::plan(longer), "plugs-short"));
    auto large = in;
    large.plug_hole_mm = 16;
    CHECK(remark(stretch::plan(large), "plug-hole"));
    large.plug_hole_mm = 15;
    CHECK_FALSE(remark(stretch::plan(large), "plug-hole"));
    auto thin = in;
    for (auto* r : {&thin.left, &thin.right}) r->thickness_mm = 2;
    CHECK(remark(stretch::plan(thin), "plug-thin"));
    // plates that carry all of it alone are the way out: its hold point can open
    thin.fish_plate_mm = stretch::plan(thin).splice->plate_need_mm;
    REQUIRE(thin.fish_plate_mm);
    CHECK_FALSE(remark(stretch::plan(thin), "plug-thin"));
    CHECK_FALSE(stretch::plan(thin).splice->sleeve_carries);
    thin.fish_plate_mm.reset();
    thin.butt_counts = true;
    CHECK_FALSE(remark(stretch::plan(thin), "plug-thin"));
    auto loose = in;
    loose.sleeve_fit_mm = 2.5;
    CHECK(remark(stretch::plan(loose), "plug-gap"));
    auto butt = in;
    butt.butt_counts = true;
    CHECK(stretch::plan(butt).splice->plugs.needed == 2);
    CHECK(stretch::plan(butt).verdict == PlanVerdict::Holds);
}

TEST_CASE("fish-plate fillets carry what they take over", "[stretch][closed-form]") {
    auto in = level(-140);
    in.fish_plate_mm = 5;
    const auto p = stretch::plan(in);
    const auto& f = *p.splice->plate;
    CHECK(f.weld_leg_mm == 3);
    // the throat bears 0.707·3·144 = 305 N/mm, the base metal along the leg 3·84 = 252
    CHECK(f.weld_capacity_N == Approx(200 * 3 * 84));
    const double plates = 2 * 5 * std::pow(f.height_mm, 3) / 12;
    const double sleeve = stretch::sectionOf(90, 50, 4, false).level_mm4;
    CHECK(f.weld_force_N == Approx(1.5 * p.splice->moment_Nmm * plates / (plates + sleeve) / 2 / f.height_mm));
}

TEST_CASE("what crosses the cut gets an answer", "[stretch]") {
    auto in = level(-140);
    runner(in, CrossingKind::PropShaft).presence = Presence::Present;
    runner(in, CrossingKind::Loom) = {CrossingKind::Loom, Presence::Present, 200.0, {}, {}};
    runner(in, CrossingKind::BrakeLine) = {CrossingKind::BrakeLine, Presence::Present, 30.0, {}, {}};
    runner(in, CrossingKind::FuelLine) = {CrossingKind::FuelLine, Presence::Present, {}, 1500.0, 2600.0}; // behind the cut
    runner(in, CrossingKind::Exhaust).presence = Presence::Unknown;
    const auto p = stretch::plan(in);
    REQUIRE(p.crossings.size() == 3);
    CHECK(p.crossings[0].answer == "Shorten the shaft by 140 and have it balanced; 25 of plunge spare both ways.");
    CHECK(p.crossings[1].kind == CrossingKind::BrakeLine);
    CHECK_FALSE(p.crossings[1].follows); // 30 is less than 140
    CHECK(p.crossings[1].caution.find("licensed") != std::string::npos);
    CHECK(p.crossings[2].follows); // 200 ≥ 140 + 10
    CHECK(p.crossings[2].verdict == PlanVerdict::Holds);
    REQUIRE(p.not_told.size() == 1);
    CHECK(remark(p, "crossings-not-told")->sentence == "Nothing is said about exhaust: does it cross the cut?");
    REQUIRE(remark(p, "crossing-slack"));
    CHECK(remark(p, "crossing-slack")->sentence.find("prop-shaft") != std::string::npos);
    auto longer = in;
    longer.change_mm = 200;
    CHECK(stretch::plan(longer).crossings[1].answer == "Make the line new in one piece, 200 longer: no joint over the cut.");
}

TEST_CASE("stations are scored with reasons, and refused where nothing can be cut", "[stretch]") {
    auto in = level(-140);
    in.obstacles = {{"Q", "body mount", 1700}, {"X", "crossmember", 900}};
    in.cut_station_mm.reset(); // asked before any is chosen
    auto p = stretch::plan(in);
    REQUIRE_FALSE(p.candidates.empty());
    for (const auto& c : p.candidates) {
        const double last = c.station_mm + 142;
        CHECK(c.station_mm > 0);
        CHECK(last < 2800);
        CHECK_FALSE((c.station_mm < 1700 && last > 1700));
        CHECK_FALSE((c.station_mm < 900 && last > 900));
        CHECK(c.reasons.size() >= 2);
        CHECK(c.score <= 10);
    }
    for (size_t i = 0; i + 1 < p.candidates.size(); ++i) {
        CHECK(p.candidates[i].score >= p.candidates[i + 1].score);
        CHECK(std::abs(p.candidates[i].station_mm - p.candidates[i + 1].station_mm) >= 150);
    }
    // by hand at 1300, even load between axles 0 and 2800: middle of the piece 1371, x = 0.4896, moment 0.9996, shear 0.0207
    in.cut_station_mm = 1300;
    p = stretch::plan(in);
    REQUIRE(p.chosen);
    const double x = (1300 + 71) / 2800.0;
    CHECK(p.chosen->score == Approx(10 - 1.5 * 4 * x * (1 - x) - 0.8 * std::abs(1 - 2 * x)).margin(0.051));
    in.cut_station_mm = 1650;
    p = stretch::plan(in);
    REQUIRE(remark(p, "station-refused"));
    CHECK(remark(p, "station-refused")->sentence == "The cut does not suit at 1650: the body mount Q stands there.");
    in.cut_station_mm = 1500; // 58 from Q
    p = stretch::plan(in);
    CHECK(remark(p, "better-station"));
    in.heat_treated = true;
    CHECK(stretch::plan(in).candidates.empty());
    CHECK(remark(stretch::plan(in), "no-station"));
}

TEST_CASE("a rail that bends inside the sleeve's reach is no place for a straight sleeve", "[stretch]") {
    auto in = level(-140);
    for (auto* r : {&in.left, &in.right}) r->points.insert(r->points.begin() + 1, {1500, r == &in.left ? -440.0 : 440.0, 440});
    // the sleeve reaches 200 beyond the second cut line: 1542 lies behind the bend at 1500
    in.cut_station_mm = 1250;
    const auto p = stretch::plan(in);
    REQUIRE(p.chosen);
    CHECK((p.chosen->refused.find("bends") != std::string::npos || p.chosen->reasons.front().find("bends") != std::string::npos));
    for (const auto& c : p.candidates) {
        const bool over_bend = c.station_mm - 200 < 1500 && c.station_mm + 342 > 1500;
        if (over_bend) CHECK(c.reasons.front().find("bends") != std::string::npos);
    }
}

TEST_CASE("a joint is looked at in all the ways that it is loaded", "[stretch]") {
    auto in = level(-140);
    const auto p = stretch::plan(in);
    const auto whole = stretch::sectionOf(100, 60, 4, false);
    const auto sleeve = stretch::sectionOf(90, 50, 4, false);
    CHECK(p.splice->upright_share == Approx(sleeve.upright_mm4 / 30 / whole.upright_modulus_mm3));
    CHECK(p.splice->torsion_share == Approx(sleeve.torsion_modulus_mm3 / whole.torsion_modulus_mm3));
    CHECK(p.splice->shear_share == Approx(sleeve.web_area_mm2 / whole.web_area_mm2));
    CHECK(p.splice->axial_share == Approx(sleeve.area_mm2 / whole.area_mm2));
    REQUIRE(remark(p, "splice-sideways"));
    CHECK(remark(p, "splice-sideways")->verdict == PlanVerdict::Fails); // 0.65
    in.fish_plate_mm = 5;
    CHECK_FALSE(remark(stretch::plan(in), "splice-sideways"));
    in.butt_counts = true;
    for (const char* code : {"splice-sideways", "splice-torsion", "splice-shear", "splice-axial"})
        CHECK_FALSE(remark(stretch::plan(in), code));
    // ±1 g, 1,200 kg even over 2,660 after the change: at 1200 from the front axle w x (l − x)/2 on two rails, twice of it
    in.mass_kg = 1200;
    const auto q = stretch::plan(in);
    const double w = 1200 * 9.81 / 2.66;
    REQUIRE(q.splice->fatigue_range_MPa);
    CHECK(*q.splice->fatigue_range_MPa == Approx(2 * w * 1.2 * 1.46 / 2 / 2 * 1000 / whole.level_modulus_mm3));
    CHECK(remark(q, "splice-fatigue"));
}

TEST_CASE("rails that diverge in plan: the step at the joint is named, and no such station is recommended", "[stretch]") {
    auto in = level(-140);
    // apart by 2° each from 1000 on
    for (auto* r : {&in.left, &in.right}) {
        const double side = r == &in.left ? -1 : 1;
        r->points = {
            {-500, side * 440, 500}, {1000, side * 440, 500}, {3200, side * (440 + 2200 * std::tan(units::radians(3.8))), 500}};
    }
    in.cut_station_mm = 1500;
    const auto p = stretch::plan(in);
    CHECK(p.left.sideways_mm == Approx(-142 * std::tan(units::radians(3.8)))); // 9.4
    const auto* apart = remark(p, "rails-diverge");
    REQUIRE(apart);
    CHECK(apart->verdict == PlanVerdict::Fails);
    CHECK(p.verdict == PlanVerdict::Fails);
    REQUIRE(p.chosen);
    CHECK(p.chosen->refused.find("run apart") != std::string::npos);
    for (const auto& c : p.candidates) CHECK(c.station_mm + 142 < 1000 + 75); // within the fit and 3: 4 mm at the most
    in.cut_station_mm = 700;
    CHECK_FALSE(remark(stretch::plan(in), "rails-diverge"));
}

TEST_CASE("nothing marked: stations keep clear of the axle lines by the rule, and say that nothing is marked", "[stretch]") {
    auto in = level(-140);
    in.cut_station_mm.reset();
    const auto p = stretch::plan(in);
    REQUIRE_FALSE(p.candidates.empty());
    for (const auto& c : p.candidates) {
        CHECK(c.station_mm >= 0 + 150 - 1e-9);
        CHECK(c.station_mm + 142 <= 2800 - 150 + 1e-9);
        if (c.station_mm > 600 && c.station_mm + 142 < 2200)
            CHECK(std::any_of(c.reasons.begin(), c.reasons.end(),
                              [](const auto& r) { return r.find("nothing is marked within 600") == 0; }));
    }
    // 10 behind the front axle, as it was once recommended
    in.cut_station_mm = 10;
    const auto q = stretch::plan(in);
    REQUIRE_FALSE(q.near.empty());
    CHECK(std::string(q.near.front().obstacle.what) == "axle line");
    CHECK(q.near.front().verdict == PlanVerdict::Marginal);
    CHECK(remark(q, "better-station"));
}

TEST_CASE("a tail let in behind the rear axle is a job of its own, not a failing plan", "[stretch]") {
    auto in = level(300);
    in.cut_station_mm = 3000;
    in.butt_counts = true;
    const auto p = stretch::plan(in);
    CHECK(p.tail);
    CHECK_FALSE(remark(p, "outside-wheelbase"));
    REQUIRE(remark(p, "tail"));
    CHECK(remark(p, "tail")->verdict == PlanVerdict::Holds);
    CHECK_FALSE(remark(p, "station-refused"));
    CHECK(p.verdict == PlanVerdict::Holds);
}

TEST_CASE("a new part counts with what it reaches over: a flange 130 from the cut is not 150", "[stretch]") {
    auto in = level(-140);
    in.obstacles = {{"flange", "new crossmember's", 980, 90}};
    in.cut_station_mm = 1200;
    const auto p = stretch::plan(in);
    REQUIRE_FALSE(p.near.empty());
    CHECK(p.near.front().distance_mm == Approx(130));
    CHECK(p.near.front().verdict == PlanVerdict::Marginal);
    in.cut_station_mm = 1050;
    CHECK(stretch::plan(in).near.front().verdict == PlanVerdict::Fails);
}

} // namespace stretch_joint_test
