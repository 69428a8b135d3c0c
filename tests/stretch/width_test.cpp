// How wide a chassis is made: strips out along both sides, and floors that reach out to sills. Both sides of each limit, figures
// by hand, ± by simulation.
#include "stretch/width.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <random>

namespace stretch_width_test {

using namespace gorvet;
using namespace gorvet::build;
using stretch::EdgeInput;
using stretch::EdgePlan;
using stretch::NarrowInput;
using stretch::NarrowPlan;

namespace {

Dimension said_mm(double mm) { return Dimension{mm, "", Provenance::Measured}; }

/// A pan of 1180 x 1.2 from 120 to 2080 beside a spine of 190; pairs of marks near its edges, 590 from the middle.
NarrowInput pan() {
    NarrowInput in;
    in.narrowing = {said_mm(120), said_mm(400), {}};
    in.planned.narrower_mm = 120;
    in.planned.slit_mm = 400;
    in.pan = "floor";
    in.sheet_mm = 1.2;
    in.from_mm = 120;
    in.until_mm = 2080;
    in.half_mm = 590;
    in.spine_half_mm = 95;
    for (const auto& [name, x] : {std::pair{"A", 120.0}, {"E", 2080.0}})
        for (const int side : {-1, 1}) {
            in.paired.names.push_back(std::string(name) + (side < 0 ? "l" : "r"));
            in.paired.at.push_back({x, side * 590.0, 210});
            in.marks.push_back({in.paired.names.back(), Role::None, in.paired.at.back()});
        }
    in.paired.covariance.assign(12 * 12, 0);
    for (std::size_t k = 0; k < 12; ++k) in.paired.covariance[k * 12 + k] = 0.25;
    in.pairs = {{0, 1}, {2, 3}};
    return in;
}

/// A floor's left edge 500 from the middle, level at 200; the sill 620 ahead and 660 behind, 10 above it.
EdgeInput edge() {
    EdgeInput in;
    in.edge.name = "left";
    in.edge.sheet = said_mm(1.5);
    in.edge.lap = said_mm(20);
    in.edge.upstand = said_mm(25);
    in.edge.carries = said_mm(100);
    in.chassis.names = {"Bl", "Cl"};
    in.chassis.at = {{400, -500, 200}, {1800, -500, 200}};
    in.body.names = {"Hl", "Jl"};
    in.body.at = {{300, -620, 210}, {1900, -660, 210}};
    in.chassis.covariance.assign(36, 0);
    in.body.covariance.assign(36, 0);
    for (std::size_t k = 0; k < 6; ++k) {
        in.chassis.covariance[k * 6 + k] = 0.36;
        in.body.covariance[k * 6 + k] = 0.64;
    }
    in.edge_at = {0, 1};
    in.edge_out_mm = {0, 0};
    in.sill_at = {0, 1};
    return in;
}

template <class Plan> const Remark* said(const Plan& p, const std::string& code) {
    for (const Remark& r : p.remarks)
        if (r.code == code) return &r;
    return nullptr;
}
PlanVerdict verdictOf(const NarrowInput& in, const std::string& code) {
    const NarrowPlan p = stretch::narrowPlan(in);
    const Remark* r = said(p, code);
    return r ? r->verdict : PlanVerdict::Holds;
}
PlanVerdict verdictOf(const EdgeInput& in, const std::string& code) {
    const EdgePlan p = stretch::edgePlan(in);
    const Remark* r = said(p, code);
    return r ? r->verdict : PlanVerdict::Holds;
}

} // namespace

TEST_CASE("what lies outside a slit comes in by half, what lies inside stays, and nothing is folded over", "[stretch][width]") {
    PlannedChassis p;
    p.narrower_mm = 120;
    p.slit_mm = 400;
    CHECK(p.changes());
    CHECK_FALSE(p.cuts());
    CHECK(p.aside(399) == 399);
    CHECK(p.aside(-399) == -399);
    CHECK(p.aside(430) == 400);
    CHECK(p.aside(460) == 400);
    CHECK(p.aside(590) == 530);
    CHECK(p.aside(-590) == -530);
    double before = -1e9;
    for (double y = -800; y <= 800; y += 7) { // in order, for any place
        CHECK(p.aside(y) >= before);
        before = p.aside(y);
    }
    // together with a cut: both at once, whichever way round
    p.cut_station_mm = 1000;
    p.change_mm = 140;
    const Vec3 q = p.map(Vec3{1500, -590, 210});
    CHECK(q.x_mm == 1640);
    CHECK(q.y_mm == -530);
    CHECK(p.lengthwise().map(Vec3{1500, -590, 210}).y_mm == -590);
    // wheels go with their own axle
    p.rear_track_mm = 70;
    CHECK(p.mapHub({2240, 635, 300}, true).y_mm == 600);
    CHECK(p.mapHub({2240, 635, 300}, true).x_mm == 2380);
    CHECK(p.mapHub({0, 640, 300}, false).y_mm == 640);
    // a rail outside comes in with a point at the joint
    const RailLine rail{{{0, 500, 300}, {2000, 500, 300}}, 100, 50, 3, RailFace::Top};
    const RailLine moved = p.map(rail);
    REQUIRE(moved.points.size() == 3);
    for (const Vec3& at : moved.points) CHECK(at.y_mm == 440);
}

TEST_CASE("wheels come in with an axle that is made narrower, else with the frame; leaf springs keep theirs",
          "[stretch][width]") {
    Build b;
    b.narrowing = Narrowing{said_mm(120), said_mm(400), {}};
    CHECK(plannedWidth(b).front_track_mm == 120);
    b.frame_facts.front_springs = Springs::Leaf;
    CHECK(plannedWidth(b).front_track_mm == 0);
    AxleJob a;
    a.id = AxleJobId{50};
    a.end = AxleEnd::Rear;
    a.faces = said_mm(1270);
    a.faces_wanted = said_mm(1200);
    b.axle_jobs[a.id] = a;
    CHECK(plannedWidth(b).rear_track_mm == 70);
    b.narrowing.reset();
    CHECK(plannedWidth(b).rear_track_mm == 70);
    CHECK(plannedWidth(b).front_track_mm == 0);
}

TEST_CASE("a strip out of each side: what is cut, what laps, what comes out, by hand", "[stretch][width]") {
    NarrowInput in = pan();
    NarrowPlan p = stretch::narrowPlan(in);
    CHECK(p.side_mm == 60);
    CHECK(p.lap_mm == 20);
    CHECK(p.strip_mm == 40); // and 20 lie on each other
    CHECK(p.outer_mm == 440);
    CHECK(p.long_mm == 1960);
    CHECK(p.out_kg == Approx(2 * 40 * 1960 * 1.2 * 7.85e-6));
    CHECK(p.plug_mm == 8);
    CHECK(p.pitch_mm == 30);
    CHECK(p.plugs == 1 + static_cast<int>((1960 - 32) / 30));
    CHECK(p.moved.size() == 4);
    CHECK(p.remarks.empty());
    CHECK(p.verdict == PlanVerdict::Holds);
    // across and over the diagonals, as the sides will stand
    REQUIRE(p.measures.size() == 4);
    CHECK(p.measures[0].name == "Al to Er");
    CHECK(p.measures[0].mm == Approx(std::hypot(1960, 1060)));
    CHECK(p.measures[2].mm == Approx(1060));
    CHECK(p.measures[2].u95_mm == Approx(1.96 * std::sqrt(0.5)).epsilon(1e-3));
    // made longer first, the targets are those of the longer frame, and so is the strip
    in.planned.cut_station_mm = 1000;
    in.planned.change_mm = 140;
    CHECK(stretch::narrowPlan(in).measures[0].mm == Approx(std::hypot(2100, 1060)));
    CHECK(stretch::narrowPlan(in).long_mm == 2100);
    in = pan();
    // thicker metal is butted, and so is what asks for it
    in.sheet_mm = 3;
    CHECK(stretch::narrowPlan(in).strip_mm == 60);
    in = pan();
    in.narrowing.lap = said_mm(0);
    CHECK(stretch::narrowPlan(in).strip_mm == 60);
    CHECK(verdictOf(in, "narrow-butt") == PlanVerdict::Marginal);
    in.narrowing.lap = said_mm(11.9);
    CHECK(verdictOf(in, "narrow-lap") == PlanVerdict::Marginal);
    in.narrowing.lap = said_mm(12.1);
    CHECK(verdictOf(in, "narrow-lap") == PlanVerdict::Holds);
    // what is assumed holds nothing
    in.assumed = {"how thick the pan is"};
    CHECK(stretch::narrowPlan(in).verdict == PlanVerdict::Marginal);
}

TEST_CASE("where a slit can't run: limits from both sides", "[stretch][width]") {
    NarrowInput in = pan();
    const auto slit = [&](double at) {
        NarrowInput other = in;
        other.narrowing.slit = said_mm(at);
        other.planned.slit_mm = at;
        return other;
    };
    CHECK(verdictOf(slit(126), "narrow-flank") == PlanVerdict::Holds);
    CHECK(verdictOf(slit(124), "narrow-flank") == PlanVerdict::Marginal);
    CHECK(verdictOf(slit(94), "narrow-flank") == PlanVerdict::Fails);
    CHECK(verdictOf(slit(529), "narrow-edge") == PlanVerdict::Holds);
    CHECK(verdictOf(slit(530), "narrow-edge") == PlanVerdict::Fails);
    // what bears on the strip goes with it; beside it, it stands in the heat
    in.marks.push_back({"Ml", Role::BodyMount, {420, -430, 215}});
    CHECK(verdictOf(in, "narrow-strip") == PlanVerdict::Fails);
    in.marks.back().at.y_mm = -484;
    CHECK(verdictOf(in, "narrow-strip") == PlanVerdict::Holds);
    CHECK(verdictOf(in, "narrow-near") == PlanVerdict::Marginal);
    in.marks.back().at.y_mm = -486;
    CHECK(verdictOf(in, "narrow-near") == PlanVerdict::Holds);
    in.marks.back().at.y_mm = -376;
    CHECK(verdictOf(in, "narrow-near") == PlanVerdict::Marginal);
    in.marks.back().at.y_mm = -374;
    CHECK(verdictOf(in, "narrow-near") == PlanVerdict::Holds);
    // a mark that bears nothing may stand there
    in.marks.back() = {"x", Role::None, {420, -430, 215}};
    CHECK(stretch::narrowPlan(in).verdict == PlanVerdict::Holds);
    // what spans both slits
    in.members = {{"seats", false, 1100, 0}, {"bars", true, 900, 0}, {"short", false, 119, 0}};
    NarrowPlan p = stretch::narrowPlan(in);
    CHECK(p.members[0].then_mm == 980);
    REQUIRE(said(p, "narrow-tube"));
    CHECK(said(p, "narrow-tube")->sentence.find("bars") != std::string::npos);
    REQUIRE(said(p, "narrow-member"));
    // what nobody said holds nothing
    in = pan();
    in.pan.clear();
    CHECK(verdictOf(in, "narrow-unsaid") == PlanVerdict::Marginal);
    in.members = {{"seats", false, 1100, 0}};
    CHECK(verdictOf(in, "narrow-unsaid") == PlanVerdict::Holds);
    in.axles = {{AxleEnd::Rear, false, {}, 120, 1270.0, {}}};
    CHECK(verdictOf(in, "narrow-unsaid") == PlanVerdict::Marginal);
    // nothing tells whether both sides came in alike
    in = pan();
    in.pairs.clear();
    CHECK(verdictOf(in, "narrow-unmarked") == PlanVerdict::Marginal);
}

TEST_CASE("arms, wheels, perches and steering come in together, or it is said", "[stretch][width]") {
    NarrowInput in = pan();
    in.axles = {{AxleEnd::Front, false, 120.0, 120, 1280.0, {}}};
    CHECK(verdictOf(in, "narrow-steering") == PlanVerdict::Marginal);
    CHECK(verdictOf(in, "narrow-arms") == PlanVerdict::Holds);
    in.axles[0].wheels_mm = 117.9;
    CHECK(verdictOf(in, "narrow-arms") == PlanVerdict::Fails);
    in.axles[0].wheels_mm = 118.1;
    CHECK(verdictOf(in, "narrow-arms") == PlanVerdict::Holds);
    in.axles[0].arms_mm = 0;
    in.axles[0].wheels_mm = 0;
    CHECK(verdictOf(in, "narrow-steering") == PlanVerdict::Holds);
    // a live axle on leaf springs: its perches
    in.axles = {{AxleEnd::Rear, true, 120.0, 0, 1270.0, {}}};
    CHECK(verdictOf(in, "narrow-perches") == PlanVerdict::Fails);
    in.axles[0].perches_mm = 121.9;
    CHECK(verdictOf(in, "narrow-perches") == PlanVerdict::Holds);
    in.axles[0].perches_mm = 122.1;
    CHECK(verdictOf(in, "narrow-perches") == PlanVerdict::Fails);
}

TEST_CASE("how far it is to the sill, at each mark, and the strip that closes it, by hand", "[stretch][width]") {
    EdgeInput in = edge();
    const EdgePlan p = stretch::edgePlan(in);
    REQUIRE(p.missing.empty());
    CHECK(p.left);
    REQUIRE(p.stations.size() == 2); // the sill reaches further than the edge on both sides
    CHECK(p.stations[0].at == "Bl");
    CHECK(p.stations[0].width.value == Approx(120 + 40.0 * 100 / 1600));
    CHECK(p.stations[1].width.value == Approx(160 - 40.0 * 100 / 1600));
    CHECK(p.stations[0].rise.value == Approx(10));
    // its ±: both marks of the sill by their shares, the edge's own mark
    const double a = 1500.0 / 1600, b = 100.0 / 1600;
    const double by_x = 40.0 / 1600; // a sill that runs aside carries its stations' ± in
    const double variance = 0.36 + (a * a + b * b) * (0.64 + by_x * by_x * 0.64);
    CHECK(p.stations[0].width.u95 == Approx(1.96 * std::sqrt(variance)).epsilon(1e-3));
    // the strip, flat: lap, slope, flange less its bend
    REQUIRE(p.outline.size() == 4);
    const double flange = 25 - 2 * (1.5 + 1.5) + 3.14159265 / 2 * (1.5 + 0.40 * 1.5);
    CHECK(p.outline[3].second == Approx(20 + std::hypot(122.5, 10) + flange));
    CHECK(p.outline[2].second == Approx(20 + std::hypot(157.5, 10) + flange));
    CHECK(p.outline[1].first == Approx(1400));
    CHECK(p.strip_kg == Approx(1400 * (p.outline[3].second + p.outline[2].second) / 2 * 1.5 * 7.85e-6));
    CHECK(said(p, "edge-wide")); // nothing under it
    // the right side is the same
    EdgeInput right = edge();
    for (auto* places : {&right.chassis, &right.body})
        for (Vec3& at : places->at) at.y_mm = -at.y_mm;
    const EdgePlan q = stretch::edgePlan(right);
    CHECK_FALSE(q.left);
    CHECK(q.stations[0].width.value == Approx(p.stations[0].width.value));
    CHECK(q.stations[0].width.u95 == Approx(p.stations[0].width.u95));
    // a rail's outside, as planned: half its width out, and the plan's own narrowing
    in.edge_out_mm = {30, 30};
    CHECK(stretch::edgePlan(in).stations[0].width.value == Approx(92.5));
    in.planned.narrower_mm = 40;
    in.planned.slit_mm = 300;
    CHECK(stretch::edgePlan(in).stations[0].width.value == Approx(112.5));
}

TEST_CASE("a floor beyond its sill, a loose survey, a steep strip, a bare lap: limits from both sides", "[stretch][width]") {
    EdgeInput in = edge();
    in.edge.pitch = said_mm(400);
    in.edge.height = said_mm(50);
    in.edge.width = said_mm(30);
    in.edge.wall = said_mm(3);
    in.rail = true;
    in.edge.carries = said_mm(60);
    CHECK(stretch::edgePlan(in).verdict == PlanVerdict::Holds);
    EdgeInput other = in;
    other.body.at[0].y_mm = -490; // at the edge's first mark 500.6 − 500 = …
    other.body.at[1].y_mm = -660;
    CHECK(stretch::edgePlan(other).stations[0].width.value == Approx(-10 + 170.0 / 16).margin(1e-9));
    CHECK(verdictOf(other, "edge-beyond") == PlanVerdict::Holds); // within its ±
    other.body.at[0].y_mm = -480;
    CHECK(verdictOf(other, "edge-beyond") == PlanVerdict::Fails);
    for (const auto& [variance, verdict] : {std::pair{3.9, PlanVerdict::Holds}, {4.4, PlanVerdict::Marginal}}) {
        other = in;
        std::fill(other.body.covariance.begin(), other.body.covariance.end(), 0.0);
        std::fill(other.chassis.covariance.begin(), other.chassis.covariance.end(), 0.0);
        for (const std::size_t k : {1, 4}) other.chassis.covariance[k * 6 + k] = variance;
        CHECK(verdictOf(other, "edge-unsure") == verdict);
    }
    for (const auto& [rise, verdict] :
         {std::pair{32.0, PlanVerdict::Holds}, {34.0, PlanVerdict::Marginal}}) { // of 122.5: 14.6, 15.5°
        other = in;
        for (Vec3& at : other.body.at) at.z_mm = 200 + rise;
        CHECK(verdictOf(other, "edge-tilt") == verdict);
    }
    other = in;
    other.edge.lap = said_mm(11);
    CHECK(verdictOf(other, "edge-lap") == PlanVerdict::Marginal);
    other.edge.lap = said_mm(12);
    CHECK(verdictOf(other, "edge-lap") == PlanVerdict::Holds);
    other = in;
    other.edge.pitch.reset();
    for (const auto& [out, verdict] : {std::pair{-599.0, PlanVerdict::Holds}, {-601.0, PlanVerdict::Marginal}}) {
        for (Vec3& at : other.body.at) at.y_mm = out;
        CHECK(verdictOf(other, "edge-wide") == verdict);
    }
}

TEST_CASE("outriggers: as many as the pitch asks, backed or not, and what bends them", "[stretch][width]") {
    EdgeInput in = edge();
    in.edge.pitch = said_mm(400);
    in.edge.height = said_mm(50);
    in.edge.width = said_mm(30);
    in.edge.wall = said_mm(3);
    in.up_g = 3;
    in.yield_mpa = 210;
    // 1400 in pieces of 400 at the most: four, five outriggers
    EdgePlan p = stretch::edgePlan(in);
    REQUIRE(p.outriggers.size() == 5);
    CHECK(p.outriggers[1].station_mm == Approx(750));
    CHECK(p.outriggers[0].long_mm == Approx(std::hypot(122.5, 10) - 2));
    CHECK(verdictOf(in, "edge-root") == PlanVerdict::Fails); // a sheet's edge bears nothing
    in.backed_mm = {400, 750, 1100, 1450, 1800};
    CHECK(verdictOf(in, "edge-root") == PlanVerdict::Holds);
    in.backed_mm = {400, 750, 1100, 1450, 1861};
    CHECK(verdictOf(in, "edge-root") == PlanVerdict::Fails);
    in.backed_mm = {400, 750, 1100, 1450, 1859};
    CHECK(verdictOf(in, "edge-root") == PlanVerdict::Holds);
    // a member that stands elsewhere draws them to it; only what is still too far apart stands alone
    in.backed_mm = {700, 1100};
    p = stretch::edgePlan(in);
    REQUIRE(p.outriggers.size() == 5); // 400, 700, 1100, and 1450, 1800 alone
    CHECK_FALSE(p.outriggers[0].backed);
    CHECK(p.outriggers[1].station_mm == Approx(700));
    CHECK(p.outriggers[1].backed);
    CHECK(p.outriggers[3].station_mm == Approx(1450));
    CHECK_FALSE(p.outriggers[3].backed);
    in.backed_mm = {400, 750, 1100, 1450, 1859};
    // M = m g n l; the section's modulus without its corners is a little more
    p = stretch::edgePlan(in);
    REQUIRE(p.stress_mpa);
    const double sharp = (30 * std::pow(50, 3) - 24 * std::pow(44, 3)) / 12 / 25;
    CHECK(*p.stress_mpa > 100 * 9.81 * 3 * p.outriggers.back().long_mm / sharp);
    CHECK(*p.stress_mpa < 1.12 * 100 * 9.81 * 3 * p.outriggers.back().long_mm / sharp);
    // the weld all round, as a line: filler through its throat, or the metal beside it
    const double per_mm = std::min(0.707 * 3 * 0.30 * 480, 3 * 0.40 * 210.0);
    CHECK(*p.weld_share == Approx(100 * 9.81 * 3 * p.outriggers.back().long_mm * 1.5 / (per_mm * (30 * 50 + 50 * 50 / 3.0))));
    // beyond what either bears it fails, and what is advised holds
    const double most = 100 * std::min(p.may_mpa / *p.stress_mpa, 1 / *p.weld_share);
    in.edge.carries = said_mm(0.99 * most);
    CHECK(verdictOf(in, "edge-outrigger") == PlanVerdict::Holds);
    in.edge.carries = said_mm(1.01 * most);
    p = stretch::edgePlan(in);
    REQUIRE(said(p, "edge-outrigger"));
    CHECK(said(p, "edge-outrigger")->remedy.find("3.5") != std::string::npos);
    in.edge.wall = said_mm(3.5);
    CHECK(verdictOf(in, "edge-outrigger") == PlanVerdict::Holds);
    // in any order of its marks, and what it waits for
    std::swap(in.chassis.at[0], in.chassis.at[1]);
    std::swap(in.body.at[0], in.body.at[1]);
    CHECK(stretch::edgePlan(in).stations[0].width.value == Approx(122.5));
    in.body.at[0].y_mm = 660;
    CHECK(stretch::edgePlan(in).missing.front().find("one side") != std::string::npos);
    EdgeInput short_one = edge();
    short_one.body.at[1].x_mm = 420;
    CHECK(stretch::edgePlan(short_one).missing.front().find("beside each other") != std::string::npos);
    EdgeInput empty;
    CHECK(stretch::edgePlan(empty).missing.size() == 1);
}

TEST_CASE("the ± of widths and of measures across covers what it says", "[stretch][width][coverage]") {
    std::mt19937 rng(95);
    std::normal_distribution<double> normal;
    const EdgeInput truth = edge();
    const NarrowInput across = pan();
    const EdgePlan true_edge = stretch::edgePlan(truth);
    const NarrowPlan true_across = stretch::narrowPlan(across);
    int widths = 0, inside = 0, rises = 0, measures = 0, measured = 0;
    for (int round = 0; round < 1500; ++round) {
        EdgeInput in = truth;
        for (Vec3& at : in.chassis.at)
            for (std::size_t axis = 0; axis < 3; ++axis) at[axis] += 0.6 * normal(rng);
        for (Vec3& at : in.body.at)
            for (std::size_t axis = 0; axis < 3; ++axis) at[axis] += 0.8 * normal(rng);
        const EdgePlan p = stretch::edgePlan(in);
        for (std::size_t k = 0; k < p.stations.size(); ++k) {
            ++widths;
            inside += std::abs(p.stations[k].width.value - true_edge.stations[k].width.value) <= p.stations[k].width.u95;
            rises += std::abs(p.stations[k].rise.value - true_edge.stations[k].rise.value) <= p.stations[k].rise.u95;
        }
        NarrowInput n = across;
        for (Vec3& at : n.paired.at)
            for (std::size_t axis = 0; axis < 3; ++axis) at[axis] += 0.5 * normal(rng);
        const NarrowPlan q = stretch::narrowPlan(n);
        for (std::size_t k = 0; k < q.measures.size(); ++k) {
            ++measures;
            measured += std::abs(q.measures[k].mm - true_across.measures[k].mm) <= q.measures[k].u95_mm;
        }
    }
    const auto share = [](int n, int of) { return static_cast<double>(n) / of; };
    INFO("widths " << share(inside, widths) << ", rises " << share(rises, widths) << ", measures " << share(measured, measures));
    for (const double s : {share(inside, widths), share(rises, widths), share(measured, measures)}) {
        CHECK(s > 0.93);
        CHECK(s < 0.97);
    }
}

} // namespace stretch_width_test
