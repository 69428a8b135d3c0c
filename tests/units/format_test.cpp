#include "units/quantity.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <limits>
#include <rapidcheck.h>

namespace units_format_test {

using namespace gorvet;
using units::LengthStep;

TEST_CASE("lengths are written to the step", "[units]") {
    CHECK(units::formatLength(1673.44, LengthStep::Mm01) == "1673.4");
    CHECK(units::formatLength(1673.25, LengthStep::Mm05) == "1673.5");
    CHECK(units::formatLength(1673.5, LengthStep::Mm1, true) == "1674 mm");
    CHECK(units::formatLength(25.4 * 65.875, LengthStep::Inch16) == "65 7/8\"");
    CHECK(units::formatLength(25.4 * 0.5, LengthStep::Inch32) == "1/2\"");
    CHECK(units::formatLength(-25.4 * 2.25, LengthStep::Inch16) == "-2 1/4\"");
    CHECK(units::formatLength(25.4 * 3, LengthStep::Inch16) == "3\"");
    CHECK(units::formatLength(0.01, LengthStep::Inch16) == "0\"");
    CHECK(units::formatLength(3.048, LengthStep::InchThousandth) == "0.120\"");
    CHECK(units::formatLength(-0.04, LengthStep::Mm01) == "0.0"); // never "-0.0"
    CHECK(units::formatLength(std::nan(""), LengthStep::Mm01) == "–");
    CHECK(units::formatLength(std::numeric_limits<double>::infinity(), LengthStep::Inch16) == "–");
    CHECK(units::formatSmall(0.3, LengthStep::Mm1) == "0.3");
    CHECK(units::formatAngle(units::radians(0.55)) == "0.55°");
    CHECK(units::formatMass(4.716) == "4.72 kg");
    CHECK(units::fixed(0.15, 1) == "0.2");
}

TEST_CASE("what is written is read back", "[units][property]") {
    const auto step = GENERATE(LengthStep::Mm1, LengthStep::Mm05, LengthStep::Mm01, LengthStep::Inch16, LengthStep::Inch32,
                               LengthStep::InchThousandth);
    const bool ok = rc::check("format then parse gives the nearest step", [step] {
        const double mm = *rc::gen::inRange(-9'000'000, 9'000'000) / 1000.0;
        const auto parsed = units::parse(units::formatLength(mm, step), units::Kind::Length, units::unitOf(step));
        RC_ASSERT(static_cast<bool>(parsed));
        RC_ASSERT(std::abs(parsed->value - mm) <= units::stepMm(step) / 2 + 1e-6);
        // and writing it again changes nothing
        RC_ASSERT(units::formatLength(parsed->value, step) == units::formatLength(mm, step));
    });
    CHECK(ok);
}

} // namespace units_format_test
