#include "units/text.hpp"

#include <catch2/catch.hpp>
#include <rapidcheck.h>

namespace units_text_test {

using namespace gorvet;
using units::TextIs;

TEST_CASE("what is no UTF-8 is found, at its place", "[text]") {
    CHECK_FALSE(units::notUtf8(""));
    CHECK_FALSE(units::notUtf8("Träger – ½″ 車 🚗"));
    const auto bad = units::notUtf8("Tr\xE4ger");
    REQUIRE(bad);
    CHECK(bad->byte == 2);
    CHECK(bad->column == 2);
    CHECK(bad->what == "the byte E4 is no UTF-8");
    CHECK(units::notUtf8("ä\xC3")->column == 1);
    for (const char* wrong : {"\xC0\x80", "\xC1\xBF", "\xE0\x80\x80", "\xED\xA0\x80", "\xF0\x80\x80\x80", "\xF4\x90\x80\x80",
                              "\xF5\x80\x80\x80", "\x80", "\xFF", "a\xC3"})
        CHECK(units::notUtf8(wrong)); // overlong, surrogate, beyond, alone, cut off
}

TEST_CASE("signs that can't be seen have no place in a name", "[text]") {
    CHECK_FALSE(units::badSign("Al_vorn-2 ½", TextIs::Name));
    for (const char* sign :
         {"\n", "\t", "\x1b", "\x7f", "\u0085", "\u200b", "\u200d", "\ufeff", "\u202e", "\u2066", "\u00a0", "\u00ad", "\u2028"})
        CHECK(units::badSign(std::string("A") + sign + "l", TextIs::Name));
    CHECK_FALSE(units::badSign("two\nlines\tand a tab\u00a0", TextIs::Note));
    CHECK(units::badSign("A\u202e", TextIs::Note)->what == "a sign that turns the direction of writing (U+202E)");
    CHECK(units::badSign("A\x1b[2J", TextIs::Note)->column == 1);
    CHECK(units::visible("A\x1b[2J\xff\u202e") == "A\uFFFD[2J\uFFFD\uFFFD");
    CHECK(units::characters("Tür") == 3);
}

TEST_CASE("what old spreadsheets write becomes UTF-8", "[text]") {
    CHECK(units::fromWindows1252("T\xFCr \x80 5 \x96 \xBD") == "Tür € 5 – ½");
    CHECK_FALSE(units::fromWindows1252("a\x81"));
    CHECK_FALSE(units::fromWindows1252(std::string_view("a\0b", 3)));
    CHECK(units::fromUtf16(std::string_view("\xFF\xFET\0\xFC\0r\0", 8)) == "Tür");
    CHECK(units::fromUtf16(std::string_view("\xFE\xFF\0T\0\xFC\0r\xD8\x3D\xDE\x97", 12)) == "Tür🚗");
    CHECK_FALSE(units::fromUtf16("no mark"));
    CHECK_FALSE(units::fromUtf16(std::string_view("\xFF\xFE\x3D\xD8", 4))); // half of a pair
}

TEST_CASE("a visible text is always UTF-8 without controls", "[text][property]") {
    CHECK(rc::check("any bytes", [](const std::string& bytes) {
        const std::string seen = units::visible(bytes);
        RC_ASSERT(!units::notUtf8(seen));
        RC_ASSERT(units::characters(seen) == units::characters(bytes));
        if (!units::notUtf8(bytes) && !units::badSign(bytes, TextIs::Note) && bytes.find_first_of("\n\t") == std::string::npos)
            RC_ASSERT(seen == bytes);
        if (const auto wide = units::fromWindows1252(bytes)) RC_ASSERT(!units::notUtf8(*wide));
    }));
}

} // namespace units_text_test
