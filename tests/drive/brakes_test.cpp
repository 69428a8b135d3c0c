// Checks of brakes and pedals: worked by hand, both axles braked on a road by hand, each limit on both sides, ± by simulation.
#include "drive/brakes.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <random>

namespace drive_brakes_test {

using namespace gorvet;
using namespace gorvet::drive;
using build::Brake;
using build::BrakeKind;
using build::CrossingKind;
using build::Dimension;
using build::Pedal;
using build::Provenance;

Dimension read(double v) { return {v, "", Provenance::Measured}; }
bool says(const BrakesPlan& p, const char* code) {
    return std::any_of(p.remarks.begin(), p.remarks.end(), [&](const build::Remark& r) { return r.code == code; });
}
double bore(double d) { return std::numbers::pi / 4 * d * d; }

/// Discs in front, drums behind; 1200 kg, 55 % of it on the front wheels.
BrakesIn car() {
    BrakesIn in;
    in.said = true;
    Brake front, rear;
    front.end = build::AxleEnd::Front;
    front.piston = read(48);
    front.pistons = read(2);
    front.radius = read(112);
    front.grip = read(0.38);
    front.stroke = read(0.3);
    rear.kind = BrakeKind::Drum;
    rear.piston = read(19);
    rear.pistons = read(1);
    rear.radius = read(114);
    rear.factor = read(2.2);
    rear.stroke = read(1.0);
    in.brakes = {front, rear};
    Pedal p;
    p.lever = read(290);
    p.arm = read(58);
    p.bore = read(22.2);
    p.room = read(150);
    p.stroke = read(36);
    p.help = read(3);
    in.pedal = p;
    in.axle_kg = {Figure{660, 3, Provenance::Measured}, Figure{540, 3, Provenance::Measured}};
    in.wheelbase_mm = Figure{2500, 2, Provenance::Derived};
    in.cg_mm = Figure{550, 15, Provenance::Derived};
    in.radius_mm = {310.0, 310.0};
    return in;
}

TEST_CASE("braking worked by hand", "[drive][brakes]") {
    const BrakesIn in = car();
    const BrakesPlan p = brakesPlan(in);
    const double front = 2 * 2 * 2 * bore(48) * 0.38 * 112 / 310, rear = 2 * 1 * bore(19) * 2.2 * 114 / 310; // N for each MPa
    CHECK(p.front_share->value == Approx(front / (front + rear)));
    // on a road: at that braking, both axles ask for the same grip
    const double g = p.locks_at_g->value, share = p.front_share->value;
    const double moved = g * 1200 * 550 / 2500;
    CHECK(g * 1200 * share / (660 + moved) == Approx(g * 1200 * (1 - share) / (540 - moved)));
    CHECK(lockTogetherG(share, 0.55, 2500, 550) == Approx(g));
    // the leg: pressure from 0.6 g at the front tyres, back through cylinder, servo and lever
    const double pressure = 0.6 * 9.80665 * 1200 * share / front;
    CHECK(p.leg_N->value == Approx(pressure * bore(22.2) / 3 / 5));
    CHECK(p.pedal_ratio->value == Approx(5));
    // the pedal: both circuits' oil, one piston behind the other
    const double oil = 2 * 2 * 2 * bore(48) * 0.3 + 2 * 1 * 2 * bore(19) * 1.0;
    CHECK(p.pedal_mm->value == Approx(oil / bore(22.2) * 5));
    CHECK(p.verdict != PlanVerdict::Holds); // a check makes nothing good
    BrakesIn leg = in;
    leg.pedal->leg = read(p.leg_N->value);
    CHECK(brakesPlan(leg).reached_g->value == Approx(0.6));
    // a cylinder for each on a bar: half the push each, the smaller one presses harder
    BrakesIn twin = in;
    twin.pedal->bore = read(19);
    twin.pedal->bore_rear = read(22.2);
    const double bias = bore(22.2) / bore(19);
    CHECK(brakesPlan(twin).front_share->value == Approx(bias * front / (bias * front + rear)));
}

TEST_CASE("brakes and pedals: limits on both sides, and what was not looked at", "[drive][brakes]") {
    const auto with = [](auto change) {
        BrakesIn in = car();
        change(in);
        return brakesPlan(in);
    };
    // the rear locks first under 0.8 g: wheel cylinders between which it turns over, known exactly
    const auto rearOf = [&](double piston) {
        return with([&](BrakesIn& in) {
            in.brakes[1]->piston = read(piston);
            in.axle_kg[0]->u95 = in.axle_kg[1]->u95 = in.wheelbase_mm->u95 = in.cg_mm->u95 = 0;
        });
    };
    double small = 10, large = 40;
    for (int k = 0; k < 50; ++k) {
        const double middle = (small + large) / 2;
        (rearOf(middle).locks_at_g->value > least_lock_g ? small : large) = middle;
    }
    CHECK(says(rearOf(large + 0.01), "brake-rear-first"));
    CHECK(rearOf(large * 1.3).verdict == PlanVerdict::Fails);
    CHECK_FALSE(says(rearOf(large * 0.8), "brake-rear-first"));
    CHECK(says(rearOf(90), "brake-rear-first"));                                      // however it is braked
    const double leg = brakesPlan(car()).leg_N->value + brakesPlan(car()).leg_N->u95; // its ± goes with it
    const auto lever = [&](double by) {
        return with([&](BrakesIn& in) {
            in.pedal->help = read(1);
            in.pedal->lever = read(290 * 3 * leg / most_leg_N * by);
        });
    };
    CHECK_FALSE(says(lever(1.02), "brake-leg"));
    CHECK(says(lever(0.95), "brake-leg"));
    const double goes = brakesPlan(car()).pedal_mm->value + brakesPlan(car()).pedal_mm->u95;
    const auto room = [&](double mm) { return with([&](BrakesIn& in) { in.pedal->room = read(mm); }); };
    CHECK(says(room(goes / most_pedal_share - 1), "brake-pedal"));
    CHECK_FALSE(says(room(goes / most_pedal_share + 1), "brake-pedal"));
    const auto stroke = [&](double mm) { return with([&](BrakesIn& in) { in.pedal->stroke = read(mm); }); };
    CHECK(says(stroke(10), "brake-stroke"));
    CHECK_FALSE(says(stroke(goes / 5 / most_pedal_share + 1), "brake-stroke"));
    // what is not said is named
    CHECK(brakesPlan(car()).not_looked_at.empty());
    const BrakesPlan none = with([](BrakesIn& in) { in.brakes[1].reset(); });
    CHECK_FALSE(none.front_share);
    CHECK(none.not_looked_at.size() == 2);
    CHECK_FALSE(with([](BrakesIn& in) { in.cg_mm.reset(); }).locks_at_g);
    CHECK_FALSE(with([](BrakesIn& in) { in.pedal->arm.reset(); }).leg_N);
    CHECK(brakesPlan(BrakesIn{}).remarks.empty());
    // assumed friction makes its figures assumed
    CHECK(with([](BrakesIn& in) { in.brakes[0]->grip->provenance = Provenance::Assumed; }).locks_at_g->provenance ==
          Provenance::Assumed);
}

TEST_CASE("lines beside what is hot or turns", "[drive][brakes]") {
    BrakesIn in;
    in.said = true;
    in.places.names = {"a", "b", "c", "d"};
    in.places.covariance.assign(144, 0);
    const auto at = [&](double apart, CrossingKind line, CrossingKind other, bool shielded) {
        in.places.at = {{0, 0, 0}, {500, 0, 0}, {0, apart, 0}, {500, apart + 40, 0}};
        in.runs = {{"line", line, {0, 1}, 6, shielded, false}, {"pipe", other, {2, 3}, 50, false, false}};
        return brakesPlan(in);
    };
    for (const auto& [shielded, least] : {std::pair{false, 100.0}, {true, 50.0}})
        for (const double spare : {-1.0, 1.0}) {
            const BrakesPlan p = at(least + 28 + spare, CrossingKind::BrakeLine, CrossingKind::Exhaust, shielded);
            REQUIRE(p.apart.size() == 1);
            CHECK(p.apart[0].clear_mm.value == Approx(least + spare));
            CHECK(says(p, "line-hot") == (spare < 0));
        }
    for (const double spare : {-1.0, 1.0})
        CHECK(says(at(25 + 28 + spare, CrossingKind::FuelLine, CrossingKind::PropShaft, false), "line-moving") == (spare < 0));
    CHECK(at(10, CrossingKind::Loom, CrossingKind::Exhaust, false).apart.empty()); // a loom is not asked here
}

TEST_CASE("the ± of where the axles lock together covers what it says", "[drive][brakes][coverage]") {
    std::mt19937 random(41);
    std::normal_distribution<double> normal(0, 1);
    const auto off = [&](double u95) { return build::sigmaOfU95(u95) * normal(random); };
    const BrakesPlan is = brakesPlan(car());
    constexpr int rounds = 2000;
    int share = 0, lock = 0, leg = 0, way = 0, ratio = 0;
    for (int trial = 0; trial < rounds; ++trial) {
        BrakesIn in = car();
        for (auto& b : in.brakes) {
            b->piston->value += off(0.1);
            b->radius->value += off(2);
            auto& rubs = b->kind == BrakeKind::Disc ? b->grip : b->factor;
            rubs->value *= 1 + off(0.1);
        }
        for (auto& kg : in.axle_kg) kg->value += off(3);
        in.wheelbase_mm->value += off(2);
        in.cg_mm->value += off(15);
        for (auto& r : in.radius_mm) *r += off(5);
        for (auto& b : in.brakes) b->stroke->value += off(0.1);
        in.pedal->lever->value += off(2);
        in.pedal->arm->value += off(1);
        in.pedal->bore->value += off(0.1);
        const BrakesPlan p = brakesPlan(in);
        const auto in_it = [](const Figure& f, double v) { return std::abs(f.value - v) <= f.u95; };
        share += in_it(*p.front_share, is.front_share->value);
        lock += in_it(*p.locks_at_g, is.locks_at_g->value);
        leg += in_it(*p.leg_N, is.leg_N->value);
        way += in_it(*p.pedal_mm, is.pedal_mm->value);
        ratio += in_it(*p.pedal_ratio, is.pedal_ratio->value);
    }
    INFO(share << " " << lock << " " << leg);
    for (const int covered : {share, lock, leg, way, ratio}) {
        CHECK(covered > 0.93 * rounds);
        CHECK(covered < 0.97 * rounds);
    }
}

namespace {
/// A hose from the frame to the axle, 300 aside and 40 down, so long; each end known to 0.5 mm.
BrakesIn hose(double length) {
    BrakesIn in;
    in.said = true;
    in.places.names = {"Ha", "Hb"};
    in.places.at = {{2400, -300, 480}, {2400, 0, 440}};
    in.places.covariance.assign(36, 0);
    for (std::size_t k = 0; k < 6; ++k) in.places.covariance[7 * k] = 0.25;
    RunIn run;
    run.name = "hose";
    run.kind = CrossingKind::BrakeLine;
    run.points = {0, 1};
    run.across_mm = 10;
    run.long_mm = Figure{length, 1, Provenance::Measured};
    for (const double up : {70.0, -90.0}) {
        geometry::RigidTransform moved;
        moved.translation.z_mm = up;
        run.last_moved.push_back(moved);
    }
    in.runs = {run};
    return in;
}
} // namespace

TEST_CASE("whether a hose reaches where its way is longest: limits on both sides, coverage", "[drive][brakes][coverage]") {
    const double longest = std::hypot(300, 130);
    BrakesPlan p = brakesPlan(hose(longest + 14));
    REQUIRE(p.reaches.size() == 1);
    CHECK(p.reaches[0].way_mm.value == Approx(std::hypot(300, 40)));
    CHECK(p.reaches[0].spare_mm.value == Approx(14));
    CHECK(p.reaches[0].at == "at full droop");
    const double u95 = p.reaches[0].spare_mm.u95;
    CHECK_FALSE(says(brakesPlan(hose(longest + 10.01 + u95)), "run-short"));
    CHECK(says(brakesPlan(hose(longest + 9.99 + u95)), "run-short"));
    const auto verdict = [](const BrakesPlan& plan) { return plan.remarks.front().verdict; };
    CHECK(verdict(brakesPlan(hose(longest + 9.9 + u95))) == build::PlanVerdict::Marginal);
    CHECK(verdict(brakesPlan(hose(longest + 9.9 - u95))) == build::PlanVerdict::Fails);
    CHECK_FALSE(says(brakesPlan(hose(1.149 * longest - u95)), "run-slack"));
    CHECK(says(brakesPlan(hose(1.151 * longest - u95)), "run-slack"));
    // held at rest only, it would seem to do
    BrakesIn rest = hose(longest - 5);
    rest.runs[0].last_moved.clear();
    CHECK_FALSE(says(brakesPlan(rest), "run-short"));
    CHECK(says(brakesPlan(hose(longest - 5)), "run-short"));
    // steered: never held, and said
    BrakesIn steered = hose(longest + 25);
    steered.runs[0].steers = true;
    p = brakesPlan(steered);
    CHECK(p.reaches[0].spare_mm.provenance == Provenance::Assumed);
    CHECK(std::any_of(p.not_looked_at.begin(), p.not_looked_at.end(),
                      [](const auto& s) { return s.find("lock") != std::string::npos; }));
    std::mt19937 dice(8);
    std::normal_distribution<double> normal;
    int inside = 0;
    for (int round = 0; round < 2000; ++round) {
        BrakesIn in = hose(longest + 14 + normal(dice) / 1.959964);
        for (auto& q : in.places.at)
            for (std::size_t axis = 0; axis < 3; ++axis) q[axis] += 0.5 * normal(dice);
        const Figure f = brakesPlan(in).reaches[0].spare_mm;
        inside += std::abs(f.value - 14) <= f.u95;
    }
    CHECK(inside > 0.93 * 2000);
    CHECK(inside < 0.97 * 2000);
}

} // namespace drive_brakes_test
