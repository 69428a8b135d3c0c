// Splice strength, plug welds, crossings and cut stations against hand calculations.
#include "stretch/parts.hpp"
#include "stretch/stretch.hpp"

#include <catch2/catch.hpp>
#include <cmath>

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

TEST_CASE("section moduli by hand", "[stretch][closed-form]") {
    // (60·100³ − 52·92³)/12 / 50
    CHECK(stretch::sectionModulus(100, 60, 4, false) == Approx((60e6 - 52 * 92. * 92 * 92) / 12 / 50));
    CHECK(stretch::sectionModulus(100, 60, 4, false) == Approx(32514).margin(1));
    // a channel of 100 × 50 × 5: flanges 2·(50·5³/12 + 250·47.5²), web 5·90³/12
    const double hand = 2 * (50 * 125. / 12 + 250 * 47.5 * 47.5) + 5 * 729000. / 12;
    CHECK(stretch::secondMoment(100, 50, 5, true) == Approx(hand));
}

TEST_CASE("a sleeve of equal wall has three quarters of the rail, and the plan says what brings it up", "[stretch]") {
    auto in = level(-140);
    const auto p = stretch::plan(in);
    REQUIRE(p.splice);
    CHECK(p.splice->share() > 0.75); // engineering.md: 0.76 … 0.83
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
    CHECK(g.capacity_N == Approx(units::pi / 4 * 144 * 144)); // 0.30 · 480 = 144 MPa
    // M = S·140; flange force over 96 mm; 1.5 × of it in plugs
    CHECK(p.splice->flange_force_N == Approx(p.splice->rail_modulus_mm3 * 140 / 96));
    CHECK(g.needed == static_cast<int>(std::ceil(1.5 * p.splice->flange_force_N / g.capacity_N)));
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
    CHECK(f.weld_capacity_N == Approx(200 * 0.707 * 3 * 144));
    const double plates = 2 * 5 * std::pow(f.height_mm, 3) / 12;
    const double sleeve = stretch::secondMoment(90, 50, 4, false);
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
