#include "make/fasteners.hpp"
#include "make/mounts.hpp"

#include <catch2/catch.hpp>
#include <numeric>
#include <rapidcheck.h>

namespace make_mounts_test {

using namespace gorvet;
using build::PlanVerdict;

namespace {
build::RailLine rail() {
    build::RailLine r;
    r.points = {{0, -440, 500}, {3000, -440, 500}};
    r.height_mm = 100;
    r.width_mm = 60;
    r.thickness_mm = 4;
    return r;
}
make::MountInput mount(double gap, double y = -440) {
    make::MountInput m;
    m.name = "Ml";
    m.body_point = {1000, y, 500 + gap};
    m.height_u95_mm = 1;
    return m;
}
} // namespace

TEST_CASE("bolt lengths are the next standard size above what is needed", "[make][closed-form]") {
    const auto* m10 = make::boltSize(10);
    REQUIRE(m10);
    // grip 45 + washers 4 + nut 8.4 + three threads 4.5 = 61.9
    CHECK(*make::boltLength(*m10, 45) == 65);
    CHECK(*make::boltLength(*m10, 48.1) == 65); // 65.0 exactly
    CHECK(*make::boltLength(*m10, 48.2) == 70);
    CHECK(*make::boltLength(*m10, 60) == 80);
    CHECK(*make::boltLength(*m10, 150) == 180);
    CHECK_FALSE(make::boltLength(*m10, 500));
    CHECK_FALSE(make::boltSize(11));
}

TEST_CASE("a stack by hand", "[make][closed-form]") {
    make::MountDesign d;
    d.biscuit_free_mm = {25};
    d.biscuit_squash = {0.2};
    const auto s = make::mountStack(mount(42.6), rail(), d);
    // 42.6 − 3 − 20 = 19.6: standoff 15, shims 3 + 1 + 0.5, 0.1 over
    CHECK(s.gap_mm.value == Approx(42.6));
    CHECK(s.biscuit_mm.value == Approx(20));
    CHECK(s.standoff_mm == Approx(15));
    CHECK(s.shims_mm == std::vector<double>{3, 1, 0.5});
    CHECK(s.leftover_mm == Approx(0.1));
    // body 3 + gap 42.6 + wall 4 + washers 4 + nut 8.4 + threads 4.5 = 66.5
    CHECK(*s.bolt_length_mm == 70);
    CHECK(s.verdict == PlanVerdict::Holds);
    d.through_rail = true; // + 96
    CHECK(*make::mountStack(mount(42.6), rail(), d).bolt_length_mm == 180);
}

TEST_CASE("the stack makes up the gap to a quarter of a millimetre", "[make][property]") {
    CHECK(rc::check("parts add up", [] {
        const double gap = *rc::gen::inRange(2000, 20000) / 100.0;
        make::MountDesign d;
        d.standoff_step_mm = *rc::gen::element(1.0, 5.0, 10.0);
        const auto s = make::mountStack(mount(gap), rail(), d);
        RC_PRE(gap >= (d.washer_mm + s.biscuit_mm).value);
        const double shims = std::accumulate(s.shims_mm.begin(), s.shims_mm.end(), 0.0);
        RC_ASSERT(std::abs((s.washer_mm + s.biscuit_mm).value + s.standoff_mm + shims + s.leftover_mm - gap) < 1e-9);
        RC_ASSERT(std::abs(s.leftover_mm) <= 0.25 + 1e-9);
        RC_ASSERT(shims < d.standoff_step_mm + 0.26);
    }));
}

TEST_CASE("what can't be made says why", "[make]") {
    const make::MountDesign d;
    auto s = make::mountStack(mount(12), rail(), d); // washer and biscuit need 20
    CHECK(s.verdict == PlanVerdict::Fails);
    CHECK(s.sentence == "Ml: the gap is 12.0 mm. Washer and biscuit need 20.0.");
    CHECK(s.remedy.find("Raise the body 8.0 mm") == 0);
    auto m = mount(40);
    m.rail_station_mm = 3500;
    s = make::mountStack(m, rail(), d);
    CHECK_FALSE(s.on_rail);
    CHECK(s.verdict == PlanVerdict::Fails);
    s = make::mountStack(mount(40, -500), rail(), d);
    CHECK(s.outboard_mm == Approx(60));
    CHECK(s.verdict == PlanVerdict::Fails);
    CHECK(s.sentence.find("60 mm outboard") != std::string::npos);
    s = make::mountStack(mount(40, -418), rail(), d);
    CHECK(s.outboard_mm == Approx(-22));
    CHECK(s.verdict == PlanVerdict::Marginal);
    m = mount(40);
    m.rail_station_mm = 1010;
    s = make::mountStack(m, rail(), d);
    CHECK(s.lean_mm == Approx(10));
    CHECK(s.verdict == PlanVerdict::Marginal);
    m = mount(40);
    m.height_u95_mm = 4;
    CHECK(make::mountStack(m, rail(), d).sentence.find("± 4.0 mm") != std::string::npos);
    make::MountDesign assumed;
    assumed.washer_mm.provenance = build::Provenance::Assumed;
    CHECK(make::mountStack(mount(40), rail(), assumed).verdict == PlanVerdict::Marginal);
    make::MountDesign guessed_rail;
    guessed_rail.rail = build::Provenance::Assumed;
    CHECK(make::mountStack(mount(40), rail(), guessed_rail).code == "assumed");
    make::MountDesign thin;
    thin.biscuit_free_mm = {5};
    CHECK(make::mountStack(mount(8), rail(), thin).sentence.find("Soft mounts need 10") != std::string::npos);
}

TEST_CASE("a bolt into a closed box has its nut in the list, and none goes into a sleeve", "[make]") {
    build::RailLine rail;
    rail.points = {{0, -450, 490}, {3000, -450, 490}};
    rail.height_mm = 100;
    rail.width_mm = 60;
    rail.thickness_mm = 4;
    make::MountInput in;
    in.name = "M1l";
    in.body_point = {800, -450, 530};
    make::MountDesign design;
    design.closed_box = true;
    auto s = make::mountStack(in, rail, design);
    CHECK(s.nut_inside);
    CHECK(s.nut.find("nut M10 on a plate") == 0);
    design.filled = {{"the sleeve of the cut", 790, 1200}};
    s = make::mountStack(in, rail, design);
    CHECK(s.verdict == build::PlanVerdict::Fails);
    CHECK(s.code == "in-sleeve");
    design.filled.clear();
    design.through_rail = true;
    s = make::mountStack(in, rail, design);
    CHECK_FALSE(s.nut_inside);
    CHECK(s.nut.find("crush tube 100 long") != std::string::npos);
    design.through_rail = design.closed_box = false;
    CHECK(make::mountStack(in, rail, design).nut == "nut M10 under the flange");
}

} // namespace make_mounts_test
