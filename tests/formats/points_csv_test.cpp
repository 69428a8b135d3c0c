#include "formats/points_csv.hpp"

#include <catch2/catch.hpp>
#include <chrono>
#include <cmath>

namespace formats_points_csv_test {

using namespace gorvet;
using namespace gorvet::build;
using formats::PointsAre;

namespace {
Build taken(const Build& b, const std::string& csv, PointsAre are, size_t problems = 0, SubjectId subject = the_chassis) {
    const auto read = formats::readPoints(csv, b, subject, are, "works drawing");
    REQUIRE(read);
    CHECK(read->problems.size() == problems);
    Build after = b;
    const auto done = enact(after, read->edit);
    if (!done) FAIL(done.error().text());
    return after;
}
} // namespace

TEST_CASE("points come in as what they are", "[formats][points]") {
    const std::string csv =
        "point,role,x,y,z,unit,sx,sy,sz,note\nAl,rail,0,-420,310,mm,0.2,0.2,0.5,\nAr,rail,0,420,310,,,,,\nB,,1 m,0,10 in,,,,,by eye\n";
    const Build rough = taken({}, csv, PointsAre::Rough);
    REQUIRE(rough.points.size() == 3);
    CHECK(pointNamed(rough, the_chassis, "Al")->role == Role::Rail);
    CHECK(pointNamed(rough, the_chassis, "B")->rough->x_mm == Approx(1000));
    CHECK(pointNamed(rough, the_chassis, "B")->rough->z_mm == Approx(254));
    CHECK(pointNamed(rough, the_chassis, "B")->note == "by eye");
    const Build drawn = taken(rough, "point,x,y,z\nAl,1,-421,\nAr,1,,311\n", PointsAre::Drawing);
    REQUIRE(drawn.drawing.size() == 2);
    const auto& first = drawn.drawing.begin()->second;
    CHECK(first.x_mm == Approx(1));
    CHECK_FALSE(first.z_mm);
    CHECK(first.source == "works drawing");
    CHECK(pointNamed(drawn, the_chassis, "Al")->rough->x_mm == 0); // a drawing moves no point
    // the same file again changes, it does not double
    CHECK(taken(drawn, "point,x,y,z\nAl,2,-421,\n", PointsAre::Drawing).drawing.size() == 2);
    const Build scanned = taken(rough, csv, PointsAre::Coordinates);
    REQUIRE(scanned.readings.size() == 3);
    const auto& reading = scanned.readings.begin()->second;
    CHECK(reading.kind == ReadingKind::Coordinates);
    CHECK(reading.at->y_mm == -420);
    REQUIRE(reading.covariance_mm2.size() == 6);
    CHECK(reading.covariance_mm2[5] == Approx(0.25));
    CHECK(scanned.sessions.begin()->second.name == "works drawing");
}

TEST_CASE("a bad line of points is named, the others are kept", "[formats][points]") {
    const auto read = formats::readPoints("point;x;y;z\nA;1;2;3\nB;1;2\n;1;2;3\nA;4;5;6\nC;1,5;nan;3\nD D;1;2;3\nE;1,5;2;3\n", {},
                                          the_body, PointsAre::Rough, "s");
    REQUIRE(read);
    CHECK(read->points == 2); // A and E
    REQUIRE(read->problems.size() == 5);
    CHECK(read->problems[0].message == "It needs x, y and z");
    CHECK(read->problems[1].column == "point");
    CHECK(read->problems[2].message.find("twice") != std::string::npos);
    CHECK(read->problems[3].column == "y");
    CHECK(read->problems[4].message.find("one word") != std::string::npos);
    CHECK_FALSE(formats::readPoints("name,x,y\n", {}, the_body, PointsAre::Rough, "s"));
    CHECK_FALSE(formats::readPoints("", {}, the_body, PointsAre::Rough, "s"));
}

TEST_CASE("points that are written come in again", "[formats][points]") {
    const std::string csv = formats::writePoints({{"Al", Role::Rail, {1.25, -420.5, 310}, {0.4, 0.5, NAN}, "fixed"},
                                                  {"Q", Role::None, {5, 6, 7}, {NAN, NAN, NAN}, "assumed"}});
    const Build b = taken({}, csv, PointsAre::Rough);
    CHECK(pointNamed(b, the_chassis, "Al")->rough->y_mm == Approx(-420.5));
    CHECK(pointNamed(b, the_chassis, "Al")->role == Role::Rail);
    CHECK(pointNamed(b, the_chassis, "Q")->rough->z_mm == 7);
}

TEST_CASE("ten thousand points come in while one waits", "[formats][points]") {
    std::string csv = "point,x,y,z\n";
    for (int i = 0; i < 10000; ++i) csv += "P" + std::to_string(i) + ",1,2,3\n";
    CHECK(formats::readPoints(csv, {}, the_chassis, PointsAre::Rough, "s")->points == 10000);
}

} // namespace formats_points_csv_test
