// Axles made narrower or wider: against a chalk line on the floor, on both sides of every limit.
#include "stretch/axle.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace stretch_axle_test {

using namespace gorvet;
using build::AxleJob;
using build::Dimension;
using build::PlanVerdict;
using build::Provenance;

namespace {

Dimension mm(double v) { return {v, "", Provenance::Measured}; }

/// All of it measured, 120 narrower, and nothing wrong with it.
stretch::AxleInput sound() {
    stretch::AxleInput in;
    AxleJob& a = in.job;
    a.faces = mm(1420);
    a.faces_wanted = mm(1300);
    a.pinion = mm(25);
    a.tube = mm(80);
    a.tube_wall = mm(8);
    a.yield_MPa = mm(235);
    a.flange_in = mm(62);
    a.perches = mm(940);
    a.perch = mm(60);
    a.shaft_left = mm(705);
    a.shaft_right = mm(655);
    a.splined = mm(110);
    a.engaged = mm(38);
    a.brake_in = mm(95);
    a.wheel_offset = mm(10);
    a.tyre = mm(185);
    in.rail_outside_mm = 480;
    in.wheel_kg = 330;
    return in;
}
const build::Remark* remark(const stretch::AxlePlan& p, const std::string& code) {
    for (const build::Remark& r : p.remarks)
        if (r.code == code) return &r;
    return nullptr;
}
std::optional<PlanVerdict> verdict(const stretch::AxleInput& in, const std::string& code) {
    const auto p = stretch::axlePlan(in);
    const build::Remark* r = remark(p, code);
    return r ? std::optional(r->verdict) : std::nullopt;
}

/// The axle as chalk marks on the floor, from the car's middle to the right: what is sawn off moves all that is outside of it.
struct Chalk {
    double left_face, right_face, pinion;
    double left_shaft_end, right_shaft_end; ///< inner ends, as the shafts stand in their flanges
    explicit Chalk(const AxleJob& a)
        : left_face(-a.faces.value / 2), right_face(a.faces.value / 2), pinion(a.pinion.value),
          left_shaft_end(left_face + a.shaft_left->value), right_shaft_end(right_face - a.shaft_right->value) {}
    void saw(double left, double right) { // housing and shafts, then all is moved so that the faces stand even
        left_face += left;
        right_face -= right;
        const double shift = -(left_face + right_face) / 2;
        for (double* p : {&left_face, &right_face, &pinion}) *p += shift;
    }
};

} // namespace

TEST_CASE("what comes off each side puts faces, pinion and shafts where they are wanted", "[stretch][axle][property]") {
    std::mt19937 dice(7);
    const auto any = [&](double from, double to) { return std::uniform_real_distribution<double>(from, to)(dice); };
    for (int n = 0; n < 500; ++n) {
        stretch::AxleInput in = sound();
        AxleJob& a = in.job;
        a.faces = mm(any(1100, 1700));
        a.faces_wanted = mm(any(1000, 1700));
        a.pinion = mm(any(-120, 120));
        if (n % 2) a.pinion_wanted = mm(any(-120, 120));
        const auto p = stretch::axlePlan(in);
        Chalk floor(a);
        // how deep the shafts stand past the pinion's line before and after must be alike
        const double left_depth = floor.left_shaft_end - floor.pinion, right_depth = floor.pinion - floor.right_shaft_end;
        floor.saw(p.sides[0].cut_mm, p.sides[1].cut_mm);
        CHECK(floor.right_face - floor.left_face == Approx(a.faces_wanted->value).margin(1e-9));
        CHECK(floor.pinion == Approx((a.pinion_wanted ? *a.pinion_wanted : a.pinion).value).margin(1e-9));
        CHECK(floor.left_face + *p.sides[0].shaft_mm - floor.pinion == Approx(left_depth).margin(1e-9));
        CHECK(floor.pinion - (floor.right_face - *p.sides[1].shaft_mm) == Approx(right_depth).margin(1e-9));
        // a perch that stays where the frame's spring is goes on its tube by what the casting went
        for (const std::size_t k : {0U, 1U}) {
            const double side = k == 0 ? -1 : 1;
            const double before = side * a.perches->value / 2 - a.pinion.value,
                         after = side * a.perches->value / 2 - floor.pinion;
            CHECK(*p.sides[k].perch_moves_mm == Approx(side * (after - before)).margin(1e-9));
        }
    }
}

TEST_CASE("a sound plan holds only while all of it was measured", "[stretch][axle]") {
    const auto p = stretch::axlePlan(sound());
    for (const auto& r : p.remarks) FAIL_CHECK(r.sentence);
    CHECK(p.missing.empty());
    CHECK(p.assumed.empty());
    CHECK(p.changes);
    CHECK(p.verdict == PlanVerdict::Holds);
    CHECK(p.sides[0].cut_mm == Approx(60));
    CHECK(p.sides[1].cut_mm == Approx(60));
    CHECK(*p.sides[0].shaft_mm == Approx(645));
    CHECK(*p.sides[1].shaft_mm == Approx(595));
    CHECK(*p.track_mm == Approx(1280));
    CHECK(*p.over_tyres_mm == Approx(1465));
    // each figure that nobody measured takes it back, and is named
    const std::vector<std::optional<Dimension> AxleJob::*> figures{
        &AxleJob::tube,     &AxleJob::tube_wall,    &AxleJob::yield_MPa, &AxleJob::flange_in,
        &AxleJob::perches,  &AxleJob::shaft_left,   &AxleJob::splined,   &AxleJob::engaged,
        &AxleJob::brake_in, &AxleJob::wheel_offset, &AxleJob::tyre,      &AxleJob::shaft_right};
    for (const auto figure : figures) {
        auto in = sound();
        (in.job.*figure)->provenance = Provenance::Assumed;
        const auto assumed = stretch::axlePlan(in);
        CHECK(assumed.verdict == PlanVerdict::Marginal);
        CHECK(assumed.assumed.size() == 1);
        in = sound();
        (in.job.*figure).reset();
        const bool shaft = figure == &AxleJob::shaft_left || figure == &AxleJob::shaft_right;
        if (!shaft) CHECK(stretch::axlePlan(in).verdict == PlanVerdict::Marginal);
    }
    auto unweighed = sound();
    unweighed.wheel_kg.reset();
    CHECK(stretch::axlePlan(unweighed).verdict == PlanVerdict::Marginal);
    CHECK(stretch::axlePlan(unweighed).missing.size() == 1);
}

TEST_CASE("an axle that stays as it is asks for nothing", "[stretch][axle]") {
    stretch::AxleInput in;
    in.job.faces = mm(1420);
    const auto p = stretch::axlePlan(in);
    CHECK_FALSE(p.changes);
    CHECK(p.missing.empty());
    CHECK(p.verdict == PlanVerdict::Holds);
}

TEST_CASE("splines: what the gear holds and 5 mm, on both sides", "[stretch][axle]") {
    auto in = sound();
    in.job.splined = mm(60 + 38 + 5);
    CHECK_FALSE(verdict(in, "splines"));
    in.job.splined = mm(60 + 38 + 4.9);
    CHECK(verdict(in, "splines") == PlanVerdict::Marginal);
    in.job.splined = mm(60 + 38 - 0.1);
    CHECK(verdict(in, "splines") == PlanVerdict::Fails);
    // 50 mm between the sides: with 50 off the longer one, a second of the other fits
    in.job.faces_wanted = mm(1320);
    in.job.splined = mm(50 + 37);
    const auto p = stretch::axlePlan(in);
    CHECK(p.sides[0].other_fits);
    CHECK_FALSE(p.sides[1].other_fits);
    REQUIRE(remark(p, "shaft-swapped"));
    CHECK(remark(p, "shaft-swapped")->verdict == PlanVerdict::Marginal);
    CHECK(remark(p, "splines")->verdict == PlanVerdict::Fails); // the right one still
    in.job.shaft_right = mm(653.9);
    CHECK_FALSE(stretch::axlePlan(in).sides[0].other_fits);
    // a wider axle needs longer ones
    in = sound();
    in.job.faces_wanted = mm(1460);
    CHECK(verdict(in, "shaft-short") == PlanVerdict::Fails);
}

TEST_CASE("brake, joint, tyre and rail: each limit on both sides", "[stretch][axle]") {
    // perch edge at 500; faces' half 650
    auto in = sound();
    in.job.brake_in = mm(140);
    CHECK_FALSE(verdict(in, "brake"));
    in.job.brake_in = mm(140.1);
    CHECK(verdict(in, "brake") == PlanVerdict::Marginal);
    in.job.brake_in = mm(150.1);
    CHECK(verdict(in, "brake") == PlanVerdict::Fails);
    in = sound();
    in.job.flange_in = mm(100);
    CHECK_FALSE(verdict(in, "tube-room"));
    in.job.flange_in = mm(100.1);
    CHECK(verdict(in, "tube-room") == PlanVerdict::Marginal);
    in.job.flange_in = mm(125.1);
    CHECK(verdict(in, "tube-room") == PlanVerdict::Fails);
    in = sound(); // tyre's inner side at 640 − 92.5 = 547.5
    in.rail_outside_mm = 522.5;
    CHECK_FALSE(verdict(in, "tyre-rail"));
    in.rail_outside_mm = 522.6;
    CHECK(verdict(in, "tyre-rail") == PlanVerdict::Marginal);
    in.rail_outside_mm = 537.6;
    CHECK(verdict(in, "tyre-rail") == PlanVerdict::Fails);
    in = sound();
    in.job.tyre = mm(230);
    CHECK_FALSE(verdict(in, "tyre-spring"));
    in.job.tyre = mm(230.1);
    CHECK(verdict(in, "tyre-spring") == PlanVerdict::Marginal);
    in.job.tyre = mm(260.1);
    CHECK(verdict(in, "tyre-spring") == PlanVerdict::Fails);
}

TEST_CASE("kept within a width: by narrower faces or by other wheels, and either is right", "[stretch][axle]") {
    auto in = sound();
    in.job.over_tyres_wanted = mm(1465);
    CHECK_FALSE(verdict(in, "over-tyres"));
    in.job.over_tyres_wanted = mm(1464);
    CHECK(verdict(in, "over-tyres") == PlanVerdict::Marginal);
    in.job.over_tyres_wanted = mm(1440);
    const auto p = stretch::axlePlan(in);
    CHECK(remark(p, "over-tyres")->verdict == PlanVerdict::Fails);
    auto faces = in, wheels = in;
    faces.job.faces_wanted = mm(*p.faces_needed_mm);
    CHECK(*stretch::axlePlan(faces).over_tyres_mm == Approx(1440));
    wheels.job.offset_wanted = mm(*p.offset_needed_mm);
    CHECK(*stretch::axlePlan(wheels).over_tyres_mm == Approx(1440));
}

TEST_CASE("the joint bears what a beam's root bears", "[stretch][axle][closed-form]") {
    auto in = sound();
    const auto p = stretch::axlePlan(in);
    // the joint halfway between perch (500) and end flange (588), the tyre at 640: M = W · arm; S of a tube
    const double arm = 640 - 544, moment = 330 * 9.81 * arm;
    const double inertia = std::acos(-1.0) / 64 * (std::pow(80, 4) - std::pow(64, 4));
    CHECK(p.sides[0].weld_mm == Approx(544));
    CHECK(*p.stress_1g_mpa == Approx(moment * 40 / inertia).epsilon(1e-9));
    CHECK(*p.stress_3g_mpa == Approx(3 * *p.stress_1g_mpa));
    CHECK(p.may_mpa == Approx(235 / 1.5));
    // both sides of each limit, by the weight
    const double at_36 = 330 * 36 / *p.stress_1g_mpa, at_yield = 330 * p.may_mpa / *p.stress_3g_mpa;
    in.wheel_kg = at_36 * 0.999;
    CHECK_FALSE(verdict(in, "tube-tires"));
    in.wheel_kg = at_36 * 1.001;
    CHECK(verdict(in, "tube-tires") == PlanVerdict::Fails);
    in.wheel_kg = at_yield * 1.001;
    CHECK(verdict(in, "tube-bends") == PlanVerdict::Fails);
    in.wheel_kg = at_yield * 0.999;
    CHECK_FALSE(verdict(in, "tube-bends"));
    in.job.yield_MPa.reset(); // as unknown mild steel, and said so
    CHECK(stretch::axlePlan(in).may_mpa == Approx(140));
    CHECK(stretch::axlePlan(in).assumed.size() == 1);
}

TEST_CASE("a plan that holds leaves every part its room on the floor", "[stretch][axle][property]") {
    // Reality: each part as an interval from the car's middle; nothing that holds may have two of them in one place.
    std::mt19937 dice(11);
    const auto any = [&](double from, double to) { return std::uniform_real_distribution<double>(from, to)(dice); };
    int held = 0, failed = 0;
    for (int n = 0; n < 4000; ++n) {
        auto in = sound();
        AxleJob& a = in.job;
        a.faces_wanted = mm(any(1180, 1420));
        a.flange_in = mm(any(40, 110));
        a.brake_in = mm(any(60, 160));
        a.perches = mm(any(820, 1040));
        if (n % 3 == 0) a.perches_wanted = mm(any(780, 1000));
        a.tyre = mm(any(145, 265));
        a.wheel_offset = mm(any(-20, 40));
        a.splined = mm(any(60, 200));
        in.rail_outside_mm = any(400, 560);
        const auto p = stretch::axlePlan(in);
        const double half = a.faces_wanted->value / 2;
        const double perch = (a.perches_wanted ? *a.perches_wanted : *a.perches).value / 2 + 30;
        const double tyre = half - a.wheel_offset->value - a.tyre->value / 2;
        const double off = (a.faces.value - a.faces_wanted->value) / 2;
        const bool stands = perch < half - a.brake_in->value && perch + 25 < half - a.flange_in->value - 25 && perch < tyre &&
                            *in.rail_outside_mm < tyre && a.splined->value - off >= a.engaged->value;
        if (p.verdict == PlanVerdict::Holds) {
            ++held;
            CHECK(stands);
        }
        if (!stands) {
            ++failed;
            CHECK(p.verdict != PlanVerdict::Holds);
        }
        for (const auto& r : p.remarks) {
            CHECK_FALSE(r.sentence.empty());
            CHECK_FALSE(r.remedy.empty());
        }
    }
    CHECK(held > 50);
    CHECK(failed > 500);
}

} // namespace stretch_axle_test
