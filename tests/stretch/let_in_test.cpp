// Rails let into a shell: length, inner pieces that can be got in, joints as strong as what they join, feet. Both sides of each
// limit.
#include "stretch/let_in.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

namespace stretch_let_in_test {

using namespace gorvet;
using namespace gorvet::build;
using stretch::LetInEnd;
using stretch::LetInInput;
using stretch::LetInPlan;

namespace {

Dimension mm(double v) { return Dimension{v, "", Provenance::Measured}; }

/// A rail of 90 x 60 x 3 between legs of 84 x 54 x 2.5, 1500 apart, all in one line.
LetInInput rail() {
    LetInInput in;
    in.row.name = "left";
    in.row.height = mm(90);
    in.row.width = mm(60);
    in.row.wall = mm(3);
    for (Dimension* d : {&in.row.leg_height, &in.row.tail_height}) *d = mm(84);
    for (Dimension* d : {&in.row.leg_width, &in.row.tail_width}) *d = mm(54);
    for (Dimension* d : {&in.row.leg_wall, &in.row.tail_wall}) *d = mm(2.5);
    in.row.floor = mm(1.2);
    in.points.names = {"Fl", "Rl", "Gl", "Sl"};
    in.points.at = {{800, -400, 200}, {2300, -400, 200}, {300, -400, 200}, {2800, -400, 200}};
    in.points.covariance.assign(144, 0);
    for (std::size_t k = 0; k < 12; ++k) in.points.covariance[k * 12 + k] = 0.04;
    in.along = {2, 3};
    return in;
}
/// The same, surveyed so well that its legs are known to run in one line.
LetInInput straight() {
    LetInInput in = rail();
    for (double& c : in.points.covariance) c *= 1e-6;
    in.row.engage = mm(240);
    return in;
}
const Remark* said(const LetInPlan& p, const std::string& code) {
    for (const Remark& r : p.remarks)
        if (r.code == code) return &r;
    return nullptr;
}
PlanVerdict verdictOf(const LetInInput& in, const std::string& code) {
    const LetInPlan p = stretch::letInPlan(in);
    const Remark* r = said(p, code);
    return r ? r->verdict : PlanVerdict::Holds;
}
double boxModulus(double h, double w, double t) { return (w * h * h * h - (w - 2 * t) * std::pow(h - 2 * t, 3)) / 6 / h; }

} // namespace

TEST_CASE("a rail let in: its length, and pieces that can be drawn back and driven out", "[stretch][let-in]") {
    LetInInput in = rail();
    const LetInPlan p = stretch::letInPlan(in);
    REQUIRE(p.missing.empty());
    CHECK(p.between.value == Approx(1500));
    CHECK(p.between.u95 == Approx(1.96 * std::sqrt(0.08)).epsilon(1e-3));
    CHECK(p.length.value == Approx(1498)); // driven without a gap in front, a root behind
    CHECK(p.rail_kg == Approx((90 * 60 - 84 * 54) * 1498 * 7.85e-6));
    const LetInEnd &front = p.ends[0], &rear = p.ends[1];
    CHECK(front.driven);
    CHECK_FALSE(rear.driven);
    // inside the leg 79 x 49, inside the rail 84 x 54: it is drawn back into the rail
    CHECK(front.into_rail);
    CHECK(front.thin_high_mm == Approx(79 - 0.2));
    CHECK(rear.thin_high_mm == Approx(79 - 1));
    CHECK(front.thick_high_mm == Approx(84 - 1));
    CHECK(front.step_mm == Approx(2.5));
    // never thicker than what it slides in
    CHECK(front.thick_high_mm <= 84);
    CHECK(front.thick_wide_mm <= 54);
    CHECK(front.thin_wide_mm <= 49);
    CHECK(front.engage_mm == 180);
    CHECK(front.slot_mm == 380);
    // as strong as the weaker of both
    CHECK(front.share >= 1);
    CHECK(front.weaker_mm3 <= boxModulus(84, 54, 2.5));
    CHECK(front.weaker_mm3 > 0.9 * boxModulus(84, 54, 2.5));
    // twisted, too: twice the area within its middle lines and its wall (Bredt), with sharp corners
    const auto bredt = [](double h, double w, double t) { return 2 * (h - t) * (w - t) * t; };
    for (const LetInEnd& e : p.ends) {
        CHECK(e.share >= 1);
        CHECK(bredt(e.thin_high_mm, e.thin_wide_mm, e.wall_mm) > 0.97 * std::min(bredt(84, 54, 2.5), bredt(90, 60, 3)));
    }
    // each plug bears the least of filler and sheet; all of them half as much again as the flange pulls
    const double pull = front.weaker_mm3 * 210 / 1.5 / (84 - 2.5), d = front.plug_mm;
    const double each = std::min(std::numbers::pi / 4 * d * d * 0.30 * 480, std::numbers::pi * d * 2.5 * 0.40 * 210);
    CHECK(front.plugs_needed == static_cast<int>(std::ceil(1.5 * pull / each)));
    // the other way round: a rail smaller inside than the leg is drawn back into the leg
    in.row.height = mm(80);
    in.row.width = mm(50);
    in.row.wall = mm(3);
    CHECK_FALSE(stretch::letInPlan(in).ends[0].into_rail);
    CHECK(stretch::letInPlan(in).ends[0].thin_high_mm == Approx(74 - 0.2));
    // driven behind
    in = rail();
    in.row.driven = RailEnd::Rear;
    CHECK(stretch::letInPlan(in).ends[1].driven);
    CHECK(stretch::letInPlan(in).ends[1].thin_high_mm == Approx(79 - 0.2));
}

TEST_CASE("a rail that can't be let in: limits from both sides", "[stretch][let-in]") {
    LetInInput in = straight();
    CHECK(stretch::letInPlan(in).verdict == PlanVerdict::Holds);
    // too short a piece
    LetInInput other = in;
    other.row.engage = mm(134.9);
    CHECK(verdictOf(other, "let-in-short") == PlanVerdict::Fails);
    other.row.engage = mm(135);
    CHECK(verdictOf(other, "let-in-short") == PlanVerdict::Holds);
    // plugs: what is advised holds
    other.row.engage = mm(136);
    LetInPlan p = stretch::letInPlan(other);
    if (const Remark* plugs = said(p, "let-in-plugs")) {
        CHECK(plugs->verdict == PlanVerdict::Fails);
        other.row.engage = mm(std::ceil(p.ends[0].engage_need_mm));
        CHECK(verdictOf(other, "let-in-plugs") == PlanVerdict::Holds);
        other.row.engage = mm(std::floor(p.ends[0].engage_need_mm) - p.ends[0].pitch_mm);
        CHECK(verdictOf(other, "let-in-plugs") == PlanVerdict::Fails);
    }
    // higher inside one way, narrower the other: it slides into neither
    other = in;
    other.row.width = mm(50); // inside 44, the leg's 49
    CHECK(verdictOf(other, "let-in-step") == PlanVerdict::Fails);
    other.row.width = mm(55); // 49
    CHECK(verdictOf(other, "let-in-step") == PlanVerdict::Holds);
    // a step that no tube fills
    other = in;
    other.row.height = mm(97);
    other.row.width = mm(67);
    CHECK(verdictOf(other, "let-in-far") == PlanVerdict::Holds); // 91 less 79: six a side
    other.row.height = mm(98);
    CHECK(verdictOf(other, "let-in-far") == PlanVerdict::Marginal);
    // no room to draw it back
    other = in;
    other.points.at[1].x_mm = 800 + 3 * 240 + 20 + 2 + 1;
    CHECK(verdictOf(other, "let-in-no-room") == PlanVerdict::Holds);
    other.points.at[1].x_mm -= 2;
    CHECK(verdictOf(other, "let-in-no-room") == PlanVerdict::Fails);
    // a rail weaker than its legs
    other = in;
    other.row.wall = mm(1.5);
    CHECK(verdictOf(other, "let-in-weak") == PlanVerdict::Marginal);
    CHECK(verdictOf(in, "let-in-weak") == PlanVerdict::Holds);
    // legs so thick that nothing inside is as strong
    other = in;
    for (Dimension* d : {&other.row.leg_wall, &other.row.wall}) *d = mm(12);
    CHECK(verdictOf(other, "let-in-piece") == PlanVerdict::Fails);
    // nothing assumed holds, and what is missing is asked for
    other = in;
    other.assumed = {"the front leg's wall"};
    CHECK(stretch::letInPlan(other).verdict == PlanVerdict::Marginal);
    other.row.leg_height = {};
    other.row.tail_wall = {};
    CHECK(stretch::letInPlan(other).missing.size() == 2);
}

TEST_CASE("a leg that stands turned to the rail: within the fit, bent, or not at all", "[stretch][let-in]") {
    LetInInput in = straight();
    const auto turned = [&](double deg, std::size_t axis) {
        LetInInput t = in;
        t.points.at[2][axis] += 500 * std::tan(deg * std::numbers::pi / 180);
        return t;
    };
    const double slack = 2 * 0.1 / 240 * 180 / std::numbers::pi; // driven: 0.05°
    for (const std::size_t axis : {1, 2}) {
        CHECK(verdictOf(turned(0.9 * slack, axis), "let-in-kink") == PlanVerdict::Holds);
        CHECK(verdictOf(turned(1.1 * slack, axis), "let-in-kink") == PlanVerdict::Marginal);
        CHECK(verdictOf(turned(2.9, axis), "let-in-kink") == PlanVerdict::Marginal);
        CHECK(verdictOf(turned(3.1, axis), "let-in-kink") == PlanVerdict::Fails);
        CHECK(verdictOf(turned(-3.1, axis), "let-in-kink") == PlanVerdict::Fails);
    }
    // the way it turns: a mark ahead that stands higher makes a leg that falls rearward; out of it, the rail turns up
    const LetInPlan p = stretch::letInPlan(turned(2, 2));
    CHECK(p.ends[0].turn->up.value == Approx(2 * std::numbers::pi / 180).epsilon(1e-3));
    CHECK(p.ends[0].turn->aside.value == Approx(0).margin(1e-6));
    // a mark ahead further right: the leg runs to the car's left, the rail turns to the car's right of it: the left of who looks
    // back
    CHECK(stretch::letInPlan(turned(2, 1)).ends[0].turn->aside.value == Approx(-2 * std::numbers::pi / 180).epsilon(1e-3));
    // what was never marked is said
    in.along = {-1, -1};
    CHECK(verdictOf(in, "let-in-way") == PlanVerdict::Marginal);
    // a survey that can't tell is no fit
    LetInInput loose = rail();
    loose.row.engage = mm(240);
    for (double& c : loose.points.covariance) c *= 100;
    CHECK(verdictOf(loose, "let-in-kink") == PlanVerdict::Marginal);
}

TEST_CASE("feet: what shears the floor round them bears half as much again as the joints can push", "[stretch][let-in]") {
    LetInInput in = rail();
    in.row.engage = mm(240);
    const LetInPlan p = stretch::letInPlan(in);
    const double weaker = std::min(p.ends[0].weaker_mm3, p.ends[1].weaker_mm3);
    CHECK(p.push_N == Approx(2 * weaker * 140 / 1498));
    CHECK(p.foot_wide_mm == 140);
    CHECK(2 * (p.foot_long_mm + p.foot_wide_mm) * 1.2 * 84 >= 1.5 * p.push_N);
    CHECK(p.foot_long_mm >= 120);
    CHECK(p.foot_thick_mm == Approx(2.4));
    CHECK(p.slot_wide_mm == 64);
    // a thin floor and a short rail: no foot is long enough
    LetInInput weak = in;
    weak.row.floor = mm(0.5);
    weak.row.height = mm(150);
    weak.row.width = mm(100);
    weak.row.wall = mm(5);
    for (Dimension* d : {&weak.row.leg_height, &weak.row.tail_height}) *d = mm(144);
    for (Dimension* d : {&weak.row.leg_width, &weak.row.tail_width}) *d = mm(94);
    for (Dimension* d : {&weak.row.leg_wall, &weak.row.tail_wall}) *d = mm(4);
    weak.points.at[1].x_mm = 800 + 800;
    weak.points.at[3].x_mm = 2100;
    CHECK(verdictOf(weak, "let-in-floor") == PlanVerdict::Fails);
    weak.row.floor = mm(3);
    CHECK(verdictOf(weak, "let-in-floor") == PlanVerdict::Holds);
}

TEST_CASE("the ± of a rail's length and of its turns covers what it says", "[stretch][let-in][coverage]") {
    std::mt19937 rng(7);
    std::normal_distribution<double> normal;
    LetInInput truth = rail();
    truth.points.at[2] = {300, -390, 215};
    truth.points.at[3] = {2800, -412, 190};
    const LetInPlan right = stretch::letInPlan(truth);
    int lengths = 0, ups = 0, asides = 0;
    constexpr int rounds = 1500;
    for (int round = 0; round < rounds; ++round) {
        LetInInput in = truth;
        for (Vec3& at : in.points.at)
            for (std::size_t axis = 0; axis < 3; ++axis) at[axis] += 0.2 * normal(rng);
        const LetInPlan p = stretch::letInPlan(in);
        const auto covers = [](const Figure& f, const Figure& t) { return std::abs(f.value - t.value) <= f.u95; };
        lengths += covers(p.length, right.length);
        ups += covers(p.ends[1].turn->up, right.ends[1].turn->up);
        asides += covers(p.ends[0].turn->aside, right.ends[0].turn->aside);
    }
    for (const int n : {lengths, ups, asides}) {
        CHECK(n > 0.93 * rounds);
        CHECK(n < 0.97 * rounds);
    }
}

} // namespace stretch_let_in_test
