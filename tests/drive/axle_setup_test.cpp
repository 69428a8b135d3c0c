// An axle on the bench: from both faces by hand, turned against its pinion, dampers through travel, ± by simulation, limits on
// both sides.
#include "drive/axle_setup_sheet.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

namespace drive_axle_setup_test {

using namespace gorvet;
using namespace gorvet::drive;
using build::BracketKind;
using build::Dimension;
using build::GearCheck;
using build::Provenance;

constexpr double deg = std::numbers::pi / 180;
Dimension read(double v) { return {v, "", Provenance::Measured}; }
Figure taped(double v, double u95 = 1.5) { return {v, u95, Provenance::Measured}; }

AxleSetupIn base() {
    AxleSetupIn in;
    in.name = "rear axle";
    in.faces_mm = taped(1420);
    in.tube_mm = taped(76, 0.5);
    in.brake_in_mm = taped(95);
    in.springs_mm = {taped(430), taped(434)};
    in.spring_width_mm = taped(60, 0.5);
    in.pad_slope_rad = taped(1 * deg, 0.2 * deg);
    in.pinion_slope_rad = Figure{3 * deg, 0, Provenance::Derived};
    in.places.names = {"RWl", "RWr"};
    in.places.at = {{2600, -700, 320}, {2600, 700, 320}};
    in.places.covariance.assign(36, 0);
    in.bump_mm = 75;
    for (const auto& [left, right] : {std::pair{0.0, 0.0}, {75.0, 75.0}, {-85.0, -85.0}}) {
        RigidTransform m;
        m.translation.z_mm = (left + right) / 2;
        in.travel.push_back(m);
    }
    return in;
}
bool says(const AxleSetupPlan& p, const char* code) {
    return std::any_of(p.remarks.begin(), p.remarks.end(), [&](const build::Remark& r) { return r.code == code; });
}
PlanVerdict verdictOf(const AxleSetupPlan& p, const char* code) {
    for (const build::Remark& r : p.remarks)
        if (r.code == code) return r.verdict;
    return PlanVerdict::Holds;
}

TEST_CASE("perches from both faces, the pinion against them, the U-bolts: by hand", "[drive][axle-setup]") {
    AxleSetupIn in = base();
    AxleSetupPlan p = axleSetupPlan(in);
    REQUIRE(p.perches.size() == 2);
    CHECK(p.perches[0].from_left_mm.value == Approx(280));
    CHECK(p.perches[0].from_right_mm.value == Approx(1140));
    CHECK(p.perches[1].from_right_mm.value == Approx(276));
    for (const PerchRow& perch : p.perches) CHECK(perch.from_left_mm.value + perch.from_right_mm.value == Approx(1420));
    CHECK(p.perches[0].from_left_mm.u95 == Approx(std::hypot(0.75, 1.5)));
    CHECK(p.pinion_up_rad->value == Approx(2 * deg)); // nose up by 3 over the level, the seats by 1
    CHECK(p.verdict == PlanVerdict::Holds);
    CHECK(p.missing.empty());
    in.u_bolt_mm = 14;
    in.stack_mm = 62;
    p = axleSetupPlan(in);
    REQUIRE(p.u_bolt);
    CHECK(p.u_bolt->inside_mm == 76);
    CHECK(p.u_bolt->leg_mm == Approx(76 + 62 + 1.65 * 14));
    // half a turn on the rod's own middle, and two straight legs below the tube's middle
    CHECK(p.u_bolt->rod_mm == Approx(std::numbers::pi * 45 + 2 * (p.u_bolt->leg_mm - 38)));
    in.stack_mm.reset();
    CHECK(axleSetupPlan(in).missing.size() == 1);
    // a front beam: kingpins lean back 2 against the seats, these are down at the front by 1, wanted are 4
    in = base();
    in.front = true;
    in.kingpin_rad = taped(2 * deg, 0.2 * deg);
    in.caster_rad = Figure{4 * deg, 0, Provenance::Derived};
    in.pad_slope_rad = taped(-1 * deg, 0.2 * deg);
    CHECK(axleSetupPlan(in).wedge_rad->value == Approx(3 * deg));
    // nothing said of the width: nothing is taped, and that is said
    in = base();
    in.faces_mm.reset();
    CHECK(axleSetupPlan(in).perches.empty());
    CHECK(axleSetupPlan(in).verdict == PlanVerdict::Marginal);
    CHECK(axleSetupPlan(AxleSetupIn{}).missing.size() == 1);
}

TEST_CASE("brackets are turned against the pinion as the axle lies on the bench", "[drive][axle-setup]") {
    // the axle as it stands in the car: the pinion nose up by 3; a place 100 ahead and 60 below
    AxleSetupIn in = base();
    BracketIn b;
    b.name = "damper";
    b.right_mm = taped(-480);
    b.ahead_mm = taped(100);
    b.up_mm = taped(-60);
    in.brackets = {b};
    const BracketRow row = axleSetupPlan(in).brackets[0];
    CHECK(row.from_left_mm.value == Approx(230));
    CHECK(row.from_right_mm.value == Approx(1190));
    CHECK(row.from_middle_mm.value == Approx(std::hypot(100, 60)));
    // on the bench the pinion lies level: turn the place back with it
    const double c = std::cos(3 * deg), s = std::sin(3 * deg);
    const double ahead = 100 * c + -60 * s, up = -100 * s + -60 * c;
    CHECK(row.turned_rad->value == Approx(std::atan2(up, ahead)));
    // marked, it is the same
    in.places.names.push_back("D");
    in.places.at.push_back({2500, -480, 260});
    in.places.covariance.assign(81, 0);
    for (std::size_t k = 0; k < 9; ++k) in.places.covariance[10 * k] = 0.25;
    in.brackets[0].place = 2;
    const BracketRow marked = axleSetupPlan(in).brackets[0];
    CHECK(marked.from_left_mm.value == Approx(230));
    CHECK(marked.turned_rad->value == Approx(row.turned_rad->value));
    // by hand: its own half millimetre and that of the middle between both wheels
    CHECK(marked.from_left_mm.u95 == Approx(std::hypot(0.75, build::u95Of(std::sqrt(0.25 + 0.125)))));
}

TEST_CASE("dampers and stops through the travel, each limit on both sides", "[drive][axle-setup]") {
    AxleSetupIn in = base();
    in.places.names.push_back("top");
    in.places.at.push_back({2600, -480, 760});
    in.places.covariance.assign(81, 0);
    BracketIn b;
    b.name = "damper";
    b.kind = BracketKind::Damper;
    b.right_mm = taped(-480, 0);
    b.ahead_mm = taped(0, 0);
    b.up_mm = taped(-60, 0);
    b.frame = 2;
    b.closed = read(300);
    b.open = read(620);
    in.brackets = {b};
    const auto with = [&](double closed, double open) {
        in.brackets[0].closed = read(closed);
        in.brackets[0].open = read(open);
        return axleSetupPlan(in);
    };
    const AxleSetupPlan p = with(300, 620);
    CHECK(p.brackets[0].rest_mm->value == Approx(500));
    CHECK(p.brackets[0].shortest_mm->value == Approx(425));
    CHECK(p.brackets[0].longest_mm->value == Approx(585));
    CHECK(p.verdict == PlanVerdict::Holds);
    CHECK_FALSE(says(with(413, 620), "axle-damper-in")); // 12 left, 10 asked, ± 1.5
    CHECK(verdictOf(with(414.5, 620), "axle-damper-in") == PlanVerdict::Marginal);
    CHECK(verdictOf(with(417, 620), "axle-damper-in") == PlanVerdict::Fails);
    CHECK_FALSE(says(with(300, 597), "axle-damper-out"));
    CHECK(verdictOf(with(300, 595), "axle-damper-out") == PlanVerdict::Marginal);
    CHECK(verdictOf(with(300, 593), "axle-damper-out") == PlanVerdict::Fails);
    in.brackets[0].open.reset();
    CHECK(axleSetupPlan(in).missing.size() == 1);
    // a stop: its face 760 over the ground, its pad 380 with 320 under it
    in.brackets[0].kind = BracketKind::Stop;
    in.brackets[0].up_mm = taped(60, 0);
    const auto stop = [&](double height) {
        in.brackets[0].closed = read(height);
        return axleSetupPlan(in);
    };
    CHECK(stop(310).brackets[0].gap_mm->value == Approx(70));
    CHECK_FALSE(says(stop(306), "axle-stop"));
    CHECK(says(stop(304), "axle-stop"));
}

TEST_CASE("perches in the brake, tacks and gears: each limit on both sides", "[drive][axle-setup]") {
    const auto with = [](auto&& change) {
        AxleSetupIn in = base();
        change(in);
        return axleSetupPlan(in);
    };
    // 710 − 585 − 30 − 95 = 0
    CHECK(verdictOf(with([](AxleSetupIn& in) { in.springs_mm[0] = taped(590); }), "axle-perch") == PlanVerdict::Fails);
    CHECK(verdictOf(with([](AxleSetupIn& in) { in.springs_mm[0] = taped(584); }), "axle-perch") == PlanVerdict::Marginal);
    CHECK_FALSE(says(with([](AxleSetupIn& in) { in.springs_mm[0] = taped(580); }), "axle-perch"));
    const auto tack = [&](double is, std::optional<double> wanted, std::optional<double> welded) {
        return with([&](AxleSetupIn& in) {
            build::TackReading t;
            t.name = "perch";
            t.tacked = read(is);
            if (wanted) t.wanted = read(*wanted);
            if (welded) t.welded = read(*welded);
            t.within = read(1);
            in.tacks = {t};
        });
    };
    CHECK_FALSE(says(tack(280.4, 280, {}), "axle-tack"));
    CHECK(verdictOf(tack(280.6, 280, {}), "axle-tack") == PlanVerdict::Marginal);
    CHECK(verdictOf(tack(281.6, 280, {}), "axle-tack") == PlanVerdict::Fails);
    CHECK_FALSE(says(tack(281.6, 280, 280.3), "axle-tack")); // welded since: that counts
    CHECK_FALSE(says(tack(281.6, 280, 280.3), "axle-welded"));
    CHECK(verdictOf(tack(280, 280, 278.4), "axle-welded") == PlanVerdict::Fails);
    CHECK(says(tack(280, {}, 278.4), "axle-pull"));
    CHECK_FALSE(says(tack(280, {}, 279.6), "axle-pull"));
    const auto gear = [&](GearCheck check, std::vector<double> list, double least, double most) {
        return with([&](AxleSetupIn& in) {
            build::GearReading g;
            g.check = check;
            g.readings = std::move(list);
            g.least = read(least);
            g.most = read(most);
            g.spread = read(0.06);
            in.gears = {g};
        });
    };
    CHECK(gear(GearCheck::Backlash, {0.10, 0.15, 0.16}, 0.1, 0.2).verdict == PlanVerdict::Holds);
    CHECK(says(gear(GearCheck::Backlash, {0.09, 0.12, 0.13}, 0.1, 0.2), "axle-gears"));
    CHECK(says(gear(GearCheck::Backlash, {0.19, 0.20, 0.21}, 0.1, 0.2), "axle-gears"));
    CHECK(says(gear(GearCheck::Backlash, {0.11, 0.18, 0.15}, 0.1, 0.2), "axle-gears"));        // from tooth to tooth
    CHECK(gear(GearCheck::Backlash, {0.15, 0.16}, 0.1, 0.2).verdict == PlanVerdict::Marginal); // two teeth say little
    const AxleSetupPlan turning = gear(GearCheck::PinionPreload, {1.50, 1.55}, 1.2, 2);
    CHECK(std::string(turning.gears[0].unit) == "N·m");
    CHECK(turning.gears[0].mean == Approx(1.525));
    CHECK(with([](AxleSetupIn& in) { in.assumed.emplace_back("the tube"); }).verdict == PlanVerdict::Marginal);
}

TEST_CASE("what is taped from a face covers what it says", "[drive][axle-setup][coverage]") {
    std::mt19937 random(17);
    std::normal_distribution<double> normal(0, 1);
    const auto off = [&](double u95) { return units::sigmaOfU95(u95) * normal(random); };
    int covered = 0, turned = 0, all = 0, lengths = 0;
    AxleSetupIn truth = base();
    truth.pinion_slope_rad->u95 = 0.2 * deg;
    truth.places.names = {"l", "r", "D", "top"};
    truth.places.at.push_back({2520, -480, 250});
    truth.places.at.push_back({2560, -440, 760});
    truth.places.covariance.assign(144, 0);
    for (std::size_t k = 0; k < 12; ++k) truth.places.covariance[13 * k] = 0.64;
    BracketIn b;
    b.name = "damper";
    b.place = 2;
    b.frame = 3;
    truth.brackets = {b};
    const AxleSetupPlan real = axleSetupPlan(truth);
    for (int trial = 0; trial < 3000; ++trial) {
        AxleSetupIn in = truth;
        in.faces_mm->value += off(1.5);
        for (auto& spring : in.springs_mm) spring->value += off(1.5);
        in.pinion_slope_rad->value += off(0.2 * deg);
        for (Vec3& p : in.places.at)
            for (std::size_t axis = 0; axis < 3; ++axis) p[axis] += 0.8 * normal(random);
        const AxleSetupPlan said = axleSetupPlan(in);
        for (std::size_t k = 0; k < 2; ++k) {
            covered += std::abs(said.perches[k].from_left_mm.value - real.perches[k].from_left_mm.value) <=
                       said.perches[k].from_left_mm.u95;
            ++all;
        }
        covered += std::abs(said.brackets[0].from_right_mm.value - real.brackets[0].from_right_mm.value) <=
                   said.brackets[0].from_right_mm.u95;
        ++all;
        turned +=
            std::abs(said.brackets[0].turned_rad->value - real.brackets[0].turned_rad->value) <= said.brackets[0].turned_rad->u95;
        lengths +=
            std::abs(said.brackets[0].longest_mm->value - real.brackets[0].longest_mm->value) <= said.brackets[0].longest_mm->u95;
    }
    for (const double share : {static_cast<double>(covered) / all, turned / 3000.0, lengths / 3000.0}) {
        CHECK(share > 0.93);
        CHECK(share < 0.97);
    }
}

} // namespace drive_axle_setup_test
