#include "formats/csv.hpp"
#include "formats/readings_csv.hpp"

#include <catch2/catch.hpp>
#include <rapidcheck.h>

namespace formats_readings_csv_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {
const std::string header = "kind,from,to,value,unit,sigma_mm,note\n";

formats::ReadReadings readInto(Build& b, const std::string& csv) {
    auto read = formats::readReadings(csv, b, the_chassis, {}, "import");
    if (!read) FAIL(read.error().text());
    REQUIRE(enact(b, read->edit));
    return std::move(*read);
}
const Reading& only(const Build& b) {
    REQUIRE(b.readings.size() == 1);
    return b.readings.begin()->second;
}
} // namespace

TEST_CASE("readings of every kind come in", "[formats]") {
    Build b;
    const auto read = readInto(b, header + "point,A,rail,\"0 -420.5 310\",mm,,front left\n"
                                           "point,B,,\"2m35 1' 4.5in\",,,\n"
                                           "hold-x,A,,0,mm,,\nhold-y,A,,-420,mm,,\nhold-z,A,,0,mm,,\n"
                                           "tape,A,B,1673.4,mm,,\n"
                                           "plan,A,B,167.3,cm,2.5,plumbed\n"
                                           "height,A,,12 1/4,in,,\n"
                                           "level,A,B,-3,mm,,\n"
                                           "offset,A,,-420,mm,,\n"
                                           "station,A,B,2350,mm,,\n"
                                           "slope,A,B,2.5,deg,0.2,\n"
                                           "tape,B,C,\"6' 3 1/2\"\"\",,,\n");
    for (const auto& p : read.problems) INFO(p.sentence());
    CHECK(read.problems.empty());
    CHECK(read.readings == 8);
    CHECK(read.points == 3);
    CHECK(read.holds == 3);
    const Point* a = pointNamed(b, the_chassis, "A");
    REQUIRE(a);
    CHECK(a->role == Role::Rail);
    CHECK(a->rough == Vec3{0, -420.5, 310});
    CHECK(a->note == "front left");
    CHECK(pointNamed(b, the_chassis, "B")->rough->x_mm == Approx(2350));
    CHECK(pointNamed(b, the_chassis, "B")->rough->z_mm == Approx(4.5 * 25.4));
    std::vector<const Reading*> r;
    for (const auto& [id, reading] : b.readings) r.push_back(&reading);
    CHECK(r[0]->value.value == Approx(1673.4));
    CHECK(r[1]->value.value == Approx(1673));
    CHECK(*r[1]->sigma == Approx(2.5));
    CHECK(r[1]->note == "plumbed");
    CHECK(r[2]->value.value == Approx(12.25 * 25.4));
    CHECK(r[6]->value.value == Approx(units::radians(2.5)));
    CHECK(*r[6]->sigma == Approx(units::radians(0.2)));
    CHECK(r[7]->value.value == Approx(75.5 * 25.4));
    CHECK(r[7]->value.typed == "6' 3 1/2\"");
    CHECK(read.lines.at(r[0]->id) == 7);
    CHECK(read.lines.at(r[7]->id) == 14);
}

TEST_CASE("a bad line is named by number and column, the others are kept", "[formats]") {
    struct Case {
        const char* line;
        const char* column;
        const char* part; ///< of the message
    };
    const auto [line, column, part] = GENERATE(table<const char*, const char*, const char*>({
        {"tapes,A,B,100,mm,,", "kind", "not known"},
        {"tape,A,,100,mm,,", "to", "second point"},
        {"height,A,B,100,mm,,", "to", "one point"},
        {"tape,,B,100,mm,,", "from", "missing"},
        {"tape,A,B,1x,mm,,", "value", "character 3"},
        {"tape,A,B,,mm,,", "value", "Nothing was typed"},
        {"tape,A,B,100,furlong,,", "unit", "not known"},
        {"tape,A,B,100,deg,,", "unit", "length is in mm"},
        {"slope,A,B,1,mm,,", "unit", "angle is in deg"},
        {"tape,A,B,10 cm,mm,,", "value", "carries a unit"},
        {"tape,A,B,100,mm,-1,", "sigma_mm", "above 0"},
        {"tape,A,B,100,mm,much,", "sigma_mm", ""},
        {"tape,A,A,100,mm,,", "", "two different points"},
        {"tape,A,B,-100,mm,,", "", "above 0"},
        {"point,N,,\"1 2\",mm,,", "value", "three numbers"},
        {"point,N,engine,\"1 2 3\",mm,,", "to", "role"},
        {"tape,A,B,1,2,3,4,5", "", "columns"},
        {"tape,A,two words,100,mm,,", "to", "one word"},
    }));
    Build b;
    const auto read = readInto(b, header + "tape,A,B,500,mm,,\n" + line + "\ntape,A,C,700,mm,,\n");
    INFO(line);
    REQUIRE(read.problems.size() == 1);
    INFO(read.problems[0].sentence());
    CHECK(read.problems[0].line == 3);
    CHECK(read.problems[0].column == column);
    CHECK(read.problems[0].message.find(part) != std::string::npos);
    CHECK(read.readings == 2);
    // a point that only the bad line named is not left behind
    CHECK_FALSE(pointNamed(b, the_chassis, "N"));
    CHECK(b.points.size() == 3);
}

TEST_CASE("spellings of CSV", "[formats]") {
    Build b;
    SECTION("semicolons, CR LF, byte-order mark, comments and blank lines") {
        readInto(b, "\xEF\xBB\xBFkind;from;to;value;unit;sigma_mm;note\r\n# a remark\r\n\r\ntape;A;B;188,5;cm;;\r\n");
        CHECK(only(b).value.value == Approx(1885));
    }
    SECTION("other order, columns left out, no newline at the end") {
        readInto(b, "value,kind,to,from\n77,tape,B,A");
        CHECK(only(b).value.value == 77);
        CHECK(nameOf(b, only(b).from) == "A");
    }
    SECTION("a quotation mark that is never closed") {
        auto read = formats::readReadings(header + "tape,A,B,\"100,mm,,\n", b, the_chassis, {}, "x");
        REQUIRE(read);
        REQUIRE(read->problems.size() == 1);
        CHECK(read->problems[0].message.find("never closed") != std::string::npos);
    }
    SECTION("no header") {
        const auto read = formats::readReadings("tape,A,B,100,mm,,\n", b, the_chassis, {}, "x");
        REQUIRE_FALSE(read);
        CHECK(read.error().remedy.find("kind,from,to") != std::string::npos);
        CHECK_FALSE(formats::readReadings("", b, the_chassis, {}, "x"));
    }
    SECTION("a build in inches gives bare numbers its unit") {
        Settings s;
        s.length_step = units::LengthStep::Inch16;
        REQUIRE(enact(b, Change{Set<Settings>{s}}));
        readInto(b, header + "tape,A,B,10,,,\n");
        CHECK(only(b).value.value == Approx(254));
    }
}

TEST_CASE("no file is too odd to be told what is wrong with it", "[formats]") {
    Build b;
    const auto read = [&](const std::string& csv) {
        auto result = formats::readReadings(csv, b, the_chassis, {}, "x");
        REQUIRE(result);
        CHECK(result->readings == 0);
        REQUIRE(result->problems.size() == 1);
        const std::string sentence = result->problems[0].sentence();
        for (const char c : sentence) CHECK((static_cast<unsigned char>(c) >= 32 && c != 127));
        CHECK(sentence.size() < 400);
        CHECK(result->problems[0].line == 2);
        return sentence;
    };
    CHECK(read(header + "tape,A,B,nan,mm,,\n").find("column value (nan)") != std::string::npos);
    CHECK(read(header + "tape,A,B,inf,mm,,\n").find("column value") != std::string::npos);
    CHECK(read(header + "tape,A,B,1e999,mm,,\n").find("column value") != std::string::npos);
    CHECK(read(header + "tape,A,B,-5,mm,,\n").find("above 0") != std::string::npos);
    CHECK(read(header + "tape,A,B,5,mm,nan,\n").find("column sigma_mm") != std::string::npos);
    CHECK(read(header + "ta\x01pe\x1b[2J,A,B,5,mm,,\n").find("column kind (ta?pe?[2J)") != std::string::npos);
    CHECK(read(header + "tape,A," + std::string(100000, 'B') + " C,5,mm,,\n").find("100002 characters, 120 at most") !=
          std::string::npos);
    CHECK(read(header + "tape,A,B,5,mm,,,,,\n").find("columns, the header has") != std::string::npos);
    CHECK(read(header + "tape,A,A,5,mm,,\n").find("two different points") != std::string::npos);
    CHECK(read(header + "coordinates,A,,1 2,mm,,\n").find("three numbers") != std::string::npos);
    CHECK(read(header + "coordinates,A,,1 2 3,mm,1 2 3,\n").find("one number, or six") != std::string::npos);
    CHECK(read(header + "symmetry,A,,,,,\n").find("needs a second point") != std::string::npos);
}

TEST_CASE("a hundred thousand lines come in, all of them or all but the bad", "[formats]") {
    std::string good = header;
    std::string bad = header;
    for (int i = 0; i < 100000; ++i) {
        good += "tape,P" + std::to_string(i % 300) + ",P" + std::to_string((i * 7 + 1) % 300) + "," +
                std::to_string(1000 + i % 900) + ",mm,,\n";
        bad += "tape,P1,P2,x,mm,,\n";
    }
    Build b;
    const auto all = formats::readReadings(good, b, the_chassis, {}, "x");
    REQUIRE(all);
    CHECK(all->readings + static_cast<int>(all->problems.size()) == 100000);
    CHECK(all->points == 300);
    const auto none = formats::readReadings(bad, b, the_chassis, {}, "x");
    REQUIRE(none);
    CHECK(none->problems.size() == 100000);
    CHECK(none->points == 0);
}

TEST_CASE("importing again meets known points and holds", "[formats]") {
    Build b;
    readInto(b, header + "point,A,,\"0 0 0\",mm,,\nhold-x,A,,5,mm,,\ntape,A,B,100,mm,,\n");
    const auto again = readInto(b, header + "point,A,rail,\"1 2 3\",mm,,\nhold-x,A,,5,mm,,\ntape,A,B,101,mm,,\n");
    CHECK(again.points == 0);
    CHECK(b.points.size() == 2);
    CHECK(b.holds.size() == 1);
    // another value for what is held is no second hold, and not taken in silence
    const auto other = formats::readReadings(header + "hold-x,A,,6,mm,,\n", b, the_chassis, b.sessions.begin()->first, "x");
    REQUIRE(other);
    REQUIRE(other->problems.size() == 1);
    CHECK(other->problems[0].sentence().find("x of A is held at 5 mm already") != std::string::npos);
    CHECK(other->edit.changes.empty());
    CHECK(b.holds.begin()->second.value.value == 5);
    CHECK(pointNamed(b, the_chassis, "A")->rough->y_mm == 2);
    CHECK(b.readings.size() == 2);
}

TEST_CASE("what is written is read back the same", "[formats][property]") {
    CHECK(rc::check("write, read, write", [] {
        Build b;
        const auto rows = *rc::gen::container<std::vector<std::tuple<int, int, int, int, int>>>(
            20, rc::gen::tuple(rc::gen::inRange(0, 9), rc::gen::inRange(0, 6), rc::gen::inRange(0, 6),
                               rc::gen::inRange(1, 390000), rc::gen::inRange(0, 5)));
        std::string csv = header;
        for (int i = 0; i < 6; ++i)
            csv +=
                "point,P" + std::to_string(i) + ",,\"" + std::to_string(i * 100) + " 0 0\",mm,,\"note, with \"\"quotes\"\"\"\n";
        for (const auto& [kind, from, to, value, how] : rows) {
            const auto k = static_cast<ReadingKind>(kind);
            const bool has_to = secondPoint(k) != SecondPoint::None && from != to;
            if (secondPoint(k) == SecondPoint::Needed && !has_to) continue;
            const int size = isAngle(k) ? value % 9000 : value; // an angle is below 90°
            const std::string number = std::to_string(size / 100) + "." + std::to_string(size % 100);
            const char* unit = isAngle(k) ? "deg"
                               : how == 0 ? "mm"
                               : how == 1 ? "cm"
                               : how == 2 ? "in"
                               : how == 3 ? "thou"
                                          : "mm";
            csv += std::string(word(k)) + ",P" + std::to_string(from) + "," + (has_to ? "P" + std::to_string(to) : "") + "," +
                   number + "," + unit + "," + (how == 4 ? "1.5" : "") + ",\n";
        }
        auto read = formats::readReadings(csv, b, the_chassis, {}, "import");
        RC_ASSERT(static_cast<bool>(read));
        RC_ASSERT(read->problems.empty());
        RC_ASSERT(static_cast<bool>(enact(b, read->edit)));
        const std::string written = formats::writeReadings(b, the_chassis);
        Build c;
        auto again = formats::readReadings(written, c, the_chassis, {}, "import");
        RC_ASSERT(static_cast<bool>(again));
        RC_ASSERT(again->problems.empty());
        RC_ASSERT(static_cast<bool>(enact(c, again->edit)));
        RC_ASSERT(b.readings.size() == c.readings.size());
        auto theirs = c.readings.begin();
        for (const auto& [id, r] : b.readings) {
            RC_ASSERT(r.value.value == theirs->second.value.value);
            RC_ASSERT(r.sigma.has_value() == theirs->second.sigma.has_value());
            RC_ASSERT(r.kind == theirs->second.kind);
            RC_ASSERT(nameOf(b, r.from) == nameOf(c, theirs->second.from));
            ++theirs;
        }
        RC_ASSERT(formats::writeReadings(c, the_chassis) == written);
    }));
}

} // namespace formats_readings_csv_test
