#include "tape/equations.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>

namespace tape_equations_test {

using namespace gorvet;
using tape::ReadingKind;

TEST_CASE("readings of a known pair", "[tape]") {
    const build::Vec3 a{0, 0, 0};
    const build::Vec3 b{300, 400, 1200};
    CHECK(tape::predict(ReadingKind::Tape, a, b, true).value == Approx(1300));
    CHECK(tape::predict(ReadingKind::Plan, a, b, true).value == Approx(500));
    CHECK(tape::predict(ReadingKind::Height, b, {}, false).value == Approx(1200));
    CHECK(tape::predict(ReadingKind::Level, a, b, true).value == Approx(1200));
    CHECK(tape::predict(ReadingKind::Level, b, a, true).value == Approx(-1200));
    CHECK(tape::predict(ReadingKind::Offset, b, {}, false).value == Approx(400));
    CHECK(tape::predict(ReadingKind::Offset, a, b, true).value == Approx(400));
    CHECK(tape::predict(ReadingKind::Station, b, {}, false).value == Approx(300));
    CHECK(tape::predict(ReadingKind::Station, b, a, true).value == Approx(-300));
}

TEST_CASE("slope goes down when followed rearward, whichever end is named first", "[tape]") {
    const build::Vec3 front{0, 0, 500};
    const build::Vec3 rear{1000, 0, 500 - 1000 * std::tan(units::radians(2))};
    const double down =
        tape::predict(ReadingKind::Slope, front, rear, true, tape::senseOf(ReadingKind::Slope, front, rear)).value;
    const double named_backwards =
        tape::predict(ReadingKind::Slope, rear, front, true, tape::senseOf(ReadingKind::Slope, rear, front)).value;
    CHECK(units::degrees(down) == Approx(2));
    CHECK(units::degrees(named_backwards) == Approx(2));
    // across the frame: from the first point to the second
    const build::Vec3 left{0, -500, 500};
    const build::Vec3 right{-3, 500, 490};
    CHECK(tape::predict(ReadingKind::Slope, left, right, true, tape::senseOf(ReadingKind::Slope, left, right)).value > 0);
    CHECK(tape::predict(ReadingKind::Slope, right, left, true, tape::senseOf(ReadingKind::Slope, right, left)).value < 0);
}

TEST_CASE("derivatives agree with finite differences", "[tape][property]") {
    std::mt19937 rng(11);
    for (const auto kind :
         {ReadingKind::Tape, ReadingKind::Plan, ReadingKind::Height, ReadingKind::Level, ReadingKind::Offset,
          ReadingKind::Station, ReadingKind::Slope, ReadingKind::CrossLevel, ReadingKind::RailAngle, ReadingKind::Symmetry})
        for (int round = 0; round < 200; ++round) {
            const auto random = [&] {
                return build::Vec3{test::normal(rng, 900), test::normal(rng, 400), test::normal(rng, 300)};
            };
            const build::Vec3 a = random();
            const build::Vec3 b = random();
            const bool has_to = build::secondPoint(kind) == build::SecondPoint::Needed ||
                                (build::secondPoint(kind) == build::SecondPoint::Optional && round % 2);
            const double sense = round % 3 ? 1.0 : -1.0;
            const auto p = tape::predict(kind, a, b, has_to, sense);
            constexpr double h = 1e-3;
            for (int axis = 0; axis < 6; ++axis) {
                const auto moved = [&](double by) {
                    build::Vec3 from = a;
                    build::Vec3 to = b;
                    build::Vec3& v = axis < 3 ? from : to;
                    (axis % 3 == 0 ? v.x_mm : axis % 3 == 1 ? v.y_mm : v.z_mm) += by;
                    return tape::predict(kind, from, to, has_to, sense).value;
                };
                if (axis >= 3 && !has_to) continue;
                const double numeric = (moved(h) - moved(-h)) / (2 * h);
                const double analytic = axis < 3 ? p.by_from[axis] : p.by_to[axis - 3];
                CHECK(analytic == Approx(numeric).margin(1e-7));
            }
        }
}

TEST_CASE("a cross-level is followed from left to right, a rail's angle rearward, coordinates along their axes", "[tape]") {
    const build::Vec3 left{10, -500, 400};
    const build::Vec3 right{12, 500, 400 + 1000 * std::tan(units::radians(0.5))};
    const auto read = [](ReadingKind kind, const build::Vec3& a, const build::Vec3& b) {
        return units::degrees(tape::predict(kind, a, b, true, tape::senseOf(kind, a, b)).value);
    };
    CHECK(read(ReadingKind::CrossLevel, left, right) == Approx(0.5).epsilon(1e-4));
    CHECK(read(ReadingKind::CrossLevel, right, left) == Approx(0.5).epsilon(1e-4));
    const build::Vec3 front{0, 400, 300};
    const build::Vec3 rear{2000, 400 + 2000 * std::tan(units::radians(1.5)), 310};
    CHECK(read(ReadingKind::RailAngle, front, rear) == Approx(1.5));
    CHECK(read(ReadingKind::RailAngle, rear, front) == Approx(1.5));
    const auto along = tape::predictAlong({0.6, 0.8, 0}, {10, 20, 30});
    CHECK(along.value == Approx(22));
    CHECK(along.by_from[1] == 0.8);
    CHECK(tape::predict(ReadingKind::Symmetry, left, right, true).value == Approx(0));
}

TEST_CASE("two points in one place have no direction, and nothing is infinite", "[tape]") {
    const build::Vec3 a{1, 2, 3};
    for (const auto kind : {ReadingKind::Tape, ReadingKind::Plan, ReadingKind::Slope}) {
        const auto p = tape::predict(kind, a, a, true);
        CHECK(std::isfinite(p.value));
        for (int axis = 0; axis < 3; ++axis) CHECK(std::isfinite(p.by_from[axis]));
    }
}

} // namespace tape_equations_test
