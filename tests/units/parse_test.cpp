#include "units/quantity.hpp"

#include <catch2/catch.hpp>

namespace units_parse_test {

using namespace gorvet;
using units::Kind;
using units::Unit;

namespace {
double mm(const char* text, Unit unit = Unit::Millimetre) {
    INFO(text);
    const auto parsed = units::parse(text, Kind::Length, unit);
    if (!parsed) FAIL(parsed.error().text());
    return parsed->value;
}
double deg(const char* text) {
    INFO(text);
    const auto parsed = units::parse(text, Kind::Angle, Unit::Degree);
    if (!parsed) FAIL(parsed.error().text());
    return units::degrees(parsed->value);
}
Error wrong(const char* text, Kind kind = Kind::Length) {
    INFO(text);
    const auto parsed = units::parse(text, kind, kind == Kind::Length ? Unit::Millimetre : Unit::Degree);
    REQUIRE_FALSE(parsed);
    return parsed.error();
}
} // namespace

TEST_CASE("lengths as people type them", "[units]") {
    const double inch = 25.4;
    CHECK(mm("4 1/4", Unit::Inch) == Approx(4.25 * inch));
    CHECK(mm("4-1/4\"") == Approx(4.25 * inch));
    CHECK(mm("4.25in") == Approx(4.25 * inch));
    CHECK(mm("6' 3 1/2\"") == Approx((72 + 3.5) * inch));
    CHECK(mm("6'3\"") == Approx(75 * inch));
    CHECK(mm("6'-3 1/2\"") == Approx(75.5 * inch)); // a drawing's hyphen joins, it does not subtract
    CHECK(mm("2m35") == Approx(2350));
    CHECK(mm("2m350") == Approx(2350));
    CHECK(mm("2m 35cm") == Approx(2350));
    CHECK(mm("1885") == Approx(1885));
    CHECK(mm("188.5 cm") == Approx(1885));
    CHECK(mm("188,5 cm") == Approx(1885));
    CHECK(mm("73 mm") == Approx(73));
    CHECK(mm(".120\"") == Approx(0.12 * inch));
    CHECK(mm("120 thou") == Approx(0.12 * inch));
    CHECK(mm("7 thou") == Approx(0.007 * inch));
    CHECK(mm("-0.6") == Approx(-0.6));
    CHECK(mm("\xE2\x88\x92"
             "0.6") == Approx(-0.6)); // a typographic minus
    CHECK(mm("1885+12") == Approx(1897));
    CHECK(mm("1885 - 12") == Approx(1873));
    CHECK(mm("2x73") == Approx(146));
    CHECK(mm("2 x 73 + 4") == Approx(150));
    CHECK(mm("3x1 1/2\"") == Approx(4.5 * inch));
    CHECK(mm("1885/2") == Approx(942.5));
    CHECK(mm("4\xC2\xBD\"") == Approx(4.5 * inch)); // 4½"
    CHECK(mm("1.885 m") == Approx(1885));
    CHECK(mm("1,885 m") == Approx(1885)); // metres with a decimal comma: nothing else is meant
    CHECK(mm("12 ft") == Approx(12 * 304.8));
}

TEST_CASE("angles", "[units]") {
    CHECK(deg("3\xC2\xB0") == Approx(3));
    CHECK(deg("3 deg") == Approx(3));
    CHECK(deg("3\xC2\xB0"
              "15'") == Approx(3.25));
    CHECK(deg("3\xC2\xB0"
              "15'36\"") == Approx(3.26));
    CHECK(deg("-0.6") == Approx(-0.6));
    CHECK(deg("0.0174532925199433 rad") == Approx(1));
}

TEST_CASE("masses", "[units]") {
    CHECK(units::parse("12.5 kg", Kind::Mass, Unit::Kilogram)->value == Approx(12.5));
    CHECK(units::parse("100 lb", Kind::Mass, Unit::Kilogram)->value == Approx(45.359237));
}

TEST_CASE("what could mean two things is refused, at the character", "[units]") {
    CHECK(wrong("1,885").column == 0); // thousands or decimals?
    CHECK(wrong("12+1,885").column == 3);
    CHECK(wrong("2m5").column == 2);     // 2.05 or 2.50 m
    CHECK(wrong("6' 13\"").column == 3); // 13 inches after feet
    CHECK(wrong("12 kg").column == 3);
    CHECK(wrong("12 parsecs").column == 3);
    CHECK(wrong("12..5").column == 3);
    CHECK(wrong("12+").column == 3);
    CHECK(wrong("12 13").column == 3);
    CHECK(wrong("4 5/4\"").column == 3); // an improper fraction in a mixed number
    CHECK(wrong("1/0").column == 2);
    CHECK(wrong("abc").column == 0);
    CHECK(wrong("3\xC2\xB0 75'", Kind::Angle).column == 3); // a degree sign is one character
    CHECK(wrong("").column == 0);
    CHECK(wrong("9999999999999999").column == 0);
    CHECK_FALSE(wrong("2m5").text().empty());
}

TEST_CASE("units are never guessed in silence", "[units]") {
    CHECK(units::parse("4 1/4", Kind::Length, Unit::Millimetre)->remark == "the fraction was read as mm");
    CHECK(units::parse("4 1/4\"", Kind::Length, Unit::Millimetre)->remark.empty());
    CHECK(units::parse("1885+1/2\"", Kind::Length, Unit::Millimetre)->remark == "numbers without a unit were read as mm");
    CHECK(units::parse("1885", Kind::Length, Unit::Millimetre)->bare);
    CHECK_FALSE(units::parse("1885 mm", Kind::Length, Unit::Millimetre)->bare);
    CHECK(units::parse("  73 mm ", Kind::Length, Unit::Millimetre)->typed == "73 mm");
}

TEST_CASE("no text crashes the parser", "[units]") {
    unsigned state = 7;
    const std::string alphabet = "0123456789.,'\"/x+- mcinft\xC2\xB0\xE2\x80\xFF";
    for (int round = 0; round < 20000; ++round) {
        std::string text;
        for (int i = 0; i < 1 + static_cast<int>((state >> 16) % 12); ++i) {
            state = state * 1664525u + 1013904223u;
            text += alphabet[(state >> 16) % alphabet.size()];
        }
        const auto parsed = units::parse(text, Kind::Length, Unit::Millimetre);
        if (!parsed) CHECK(parsed.error().column <= static_cast<int>(text.size()));
    }
}

} // namespace units_parse_test
