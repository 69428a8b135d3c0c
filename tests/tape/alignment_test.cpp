// Toe, camber, caster and ride heights; the caster against an exact turn about an inclined pivot.
#include "tape/alignment.hpp"

#include "units/quantity.hpp"

#include <Eigen/Geometry>
#include <catch2/catch.hpp>
#include <cmath>

namespace tape_alignment_test {

using namespace gorvet;

namespace {

const tape::AlignmentFigure* figure(const std::vector<tape::AlignmentFigure>& list, const std::string& key) {
    for (const auto& f : list)
        if (f.key == key) return &f;
    return nullptr;
}

double deg(double v) { return units::radians(v); }

/// Camber of a right wheel (> 0 top out) after a turn about its pivot: x rearward, y right, z up; the wheel's axle points right.
double turnedCamber(double caster, double pivot_inclination, double camber, double turn) {
    // the pivot leans back by the caster and inward by its inclination
    const Eigen::Vector3d pivot = Eigen::Vector3d(std::tan(caster), -std::tan(pivot_inclination), 1).normalized();
    const Eigen::Vector3d axle(0, std::cos(camber), -std::sin(camber)); // top out: the axle's outer end low
    // a right wheel's front turns out (to the right) by a turn that takes −x towards +y: clockwise seen from above
    const Eigen::Vector3d now = Eigen::AngleAxisd(-turn, pivot) * axle;
    return -std::asin(now.z());
}

} // namespace

TEST_CASE("caster by sweep is that of the pivot", "[tape][alignment]") {
    for (const double caster : {0.0, 2.0, 5.0, 8.0})
        for (const double inclination : {0.0, 8.0, 12.0}) {
            tape::AlignmentInput in;
            in.wheels[1].sweep_rad = deg(20);
            in.wheels[1].turned_out_rad = turnedCamber(deg(caster), deg(inclination), deg(0.5), deg(20));
            in.wheels[1].turned_in_rad = turnedCamber(deg(caster), deg(inclination), deg(0.5), deg(-20));
            const auto list = tape::alignment(in);
            const auto* f = figure(list, "caster-front-right");
            REQUIRE(f);
            INFO(caster << " " << inclination << ": " << units::degrees(f->size.value));
            CHECK(units::degrees(f->size.value) == Approx(caster).margin(0.03 * caster + 0.01));
            CHECK(units::degrees(f->size.u95) == Approx(1.96 * 0.1 * std::sqrt(2.0) / (2 * std::sin(deg(20)))).epsilon(1e-3));
        }
}

TEST_CASE("toe, camber and ride, in words", "[tape][alignment]") {
    tape::AlignmentInput in;
    in.toe[0] = tape::ToeRead{1398, 1401, 400};
    in.wheels[0].camber_rad = deg(0.9);
    in.wheels[1].camber_rad = deg(-0.2);
    in.wheels[2].ride_mm = 412;
    in.wheels[3].ride_mm = 409;
    const auto list = tape::alignment(in);
    const auto* toe = figure(list, "toe-front");
    REQUIRE(toe);
    CHECK(*toe->mm == Approx(3));
    CHECK(units::degrees(toe->size.value) == Approx(0.43).margin(0.005));
    CHECK(toe->words == "toe-in");
    CHECK_FALSE(toe->judged);
    CHECK(figure(list, "camber-front-left")->words == "top out");
    CHECK(figure(list, "camber-front-right")->words == "top in");
    const auto* unlike = figure(list, "camber-front-unlike");
    REQUIRE(unlike);
    CHECK(units::degrees(unlike->size.value) == Approx(1.1));
    CHECK(unlike->verdict == build::PlanVerdict::Fails);
    CHECK(unlike->words == "left top further out");
    CHECK(unlike->remedy.find("Take 1.10° off the front left wheel") == 0);
    const auto* ride = figure(list, "ride-rear-unlike");
    REQUIRE(ride);
    CHECK(ride->size.value == Approx(3));
    CHECK(ride->verdict == build::PlanVerdict::Marginal); // 3 ± 2.8 against 5
    CHECK_FALSE(figure(list, "caster-front-left"));
    CHECK_FALSE(figure(list, "toe-rear"));
    CHECK(tape::alignment({}).empty());
}

TEST_CASE("corner weights and run-out", "[tape][alignment]") {
    tape::AlignmentInput in;
    const double kg[4] = {300, 320, 200, 180};
    for (int k = 0; k < 3; ++k) in.wheels[static_cast<size_t>(k)].weight_kg = kg[k];
    CHECK_FALSE(figure(tape::alignment(in), "weight-front")); // three scales tell nothing of the whole
    in.wheels[3].weight_kg = kg[3];
    in.wheels[0].run_out_mm = 0.4;
    in.wheels[3].run_out_mm = 1.6;
    const auto list = tape::alignment(in);
    const auto* front = figure(list, "weight-front");
    REQUIRE(front);
    CHECK(front->size.value == Approx(62));
    // σ of each scale 1 kg: each front one counts (1 − 0.62)/1000, each rear one 0.62/1000
    CHECK(front->size.u95 == Approx(1.96 * 100 * std::sqrt(2 * 0.38 * 0.38 + 2 * 0.62 * 0.62) / 1000).epsilon(0.001));
    CHECK(figure(list, "weight-cross")->size.value == Approx(52));
    CHECK(figure(list, "weight-cross")->words == "front right and rear left carry more");
    CHECK(figure(list, "run-out-front-left")->verdict == build::PlanVerdict::Holds);
    CHECK(figure(list, "run-out-rear-right")->verdict == build::PlanVerdict::Fails);
    CHECK(tape::shownFigure(*front, front->size.value, units::LengthStep::Mm01) == "62.0 %");
}

} // namespace tape_alignment_test
