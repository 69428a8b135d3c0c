#include "formats/instrument_line.hpp"

#include <catch2/catch.hpp>
#include <random>

namespace formats_instrument_line_test {

using namespace gorvet;
using formats::InstrumentSays;

TEST_CASE("what an instrument says", "[formats][instrument]") {
    const auto hello = formats::readInstrumentLine("hello height-gauge bench-gauge");
    REQUIRE(hello);
    CHECK(hello->what == InstrumentSays::What::Hello);
    CHECK(hello->kind == build::InstrumentKind::HeightGauge);
    CHECK(hello->name == "bench-gauge");
    const auto reads = formats::readInstrumentLine("reads big 2164.25 mm");
    REQUIRE(reads);
    CHECK(reads->what == InstrumentSays::What::Reads);
    CHECK(reads->value.value == Approx(2164.25));
    CHECK(reads->quantity == units::Kind::Length);
    CHECK(formats::readInstrumentLine("reads big 84 1/4\"")->value.value == Approx(84.25 * 25.4));
    CHECK(formats::readInstrumentLine("reads big 84.25 in")->value.value == Approx(84.25 * 25.4));
    const auto angle = formats::readInstrumentLine("reads level 1.25°");
    REQUIRE(angle);
    CHECK(angle->quantity == units::Kind::Angle);
    CHECK(units::degrees(angle->value.value) == Approx(1.25));
    CHECK(formats::readInstrumentLine("reads pads 312.5 kg")->quantity == units::Kind::Mass);
    CHECK(formats::readInstrumentLine("trouble big battery low")->text == "battery low");
    CHECK(formats::readInstrumentLine("bye big")->what == InstrumentSays::What::Bye);
}

TEST_CASE("what is not understood is said, and never guessed", "[formats][instrument]") {
    const auto wrong = [](std::string_view line) {
        const auto read = formats::readInstrumentLine(line);
        REQUIRE_FALSE(read);
        for (const char c : read.error().message) CHECK((static_cast<unsigned char>(c) >= 32 && c != 127));
        return read.error().message;
    };
    CHECK(wrong("reads big 2164").find("without a unit is not taken") != std::string::npos);
    CHECK(wrong("reads big").find("not understood") != std::string::npos);
    CHECK(wrong("reads big lots mm").find("The instrument said \"reads big lots mm\"") == 0);
    CHECK(wrong("hello trumpet big").find("kind of instrument is not known") != std::string::npos);
    CHECK(wrong("hello tape two words").find("one word") != std::string::npos);
    CHECK(wrong("\x01\xfe~~\x7f 21").find("no text") != std::string::npos);
    CHECK(wrong("").find("empty") != std::string::npos);
    CHECK(wrong(std::string(500, 'x')).find("too long") != std::string::npos);
}

TEST_CASE("what is asked for goes over the line and back", "[formats][instrument]") {
    const auto asked = formats::readAskedLine(formats::atLine("tape", "A3", "B7"));
    REQUIRE(asked);
    CHECK(asked->kind == "tape");
    CHECK(asked->from == "A3");
    CHECK(asked->to == "B7");
    CHECK(formats::readAskedLine(formats::atLine("height", "A3", ""))->to.empty());
    CHECK(formats::readAskedLine("take")->take);
    CHECK_FALSE(formats::readAskedLine("at tape"));
    CHECK_FALSE(formats::readAskedLine("at tape A B C"));
    CHECK_FALSE(formats::readAskedLine("give"));
}

TEST_CASE("lines are cut from pieces, and an endless one is given up", "[formats][instrument]") {
    formats::LineCutter cutter;
    CHECK(cutter.feed("reads big 21").empty());
    const auto two = cutter.feed("64 mm\r\nbye big\nhel");
    REQUIRE(two.size() == 2);
    CHECK(two[0] == "reads big 2164 mm");
    CHECK(two[1] == "bye big");
    CHECK(cutter.feed("lo tape big\n").front() == "hello tape big");
    for (int k = 0; k < 100; ++k) CHECK(cutter.feed(std::string(100, 'z')).empty());
    CHECK(cutter.tooLong() == 1);
    CHECK(cutter.feed("\nbye big\n").size() == 1);
    // however it is cut up, the lines are the same
    const std::string all = "hello tape big\nreads big 1 mm\r\n\nbye big\n";
    std::mt19937 rng(1);
    for (int round = 0; round < 200; ++round) {
        formats::LineCutter piecewise;
        std::vector<std::string> lines;
        for (size_t at = 0; at < all.size();) {
            const size_t n = 1 + rng() % 9;
            for (auto& line : piecewise.feed(std::string_view(all).substr(at, n))) lines.push_back(line);
            at += n;
        }
        CHECK(lines == std::vector<std::string>{"hello tape big", "reads big 1 mm", "", "bye big"});
    }
}

} // namespace formats_instrument_line_test
