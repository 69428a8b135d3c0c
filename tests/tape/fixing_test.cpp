// What is not fixed, and mirror images: said in words.
#include "tape/survey.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>

namespace tape_fixing_test {

using namespace gorvet;
using tape::Axis;
using tape::ReadingKind;

namespace {
std::string sentences(const tape::Solution& s) {
    std::string all;
    for (const auto& u : s.undetermined) all += u.sentence + " " + u.remedy + "\n";
    return all;
}
bool says(const tape::Solution& s, const std::string& part) {
    INFO(sentences(s));
    CHECK(sentences(s).find(part) != std::string::npos);
    return sentences(s).find(part) != std::string::npos;
}
/// A frame with all tapes and heights, without noise.
test::SurveyMaker fullFrame(bool holds) {
    std::mt19937 rng(1);
    auto m = test::frameSurvey(4, rng);
    if (!holds) m.survey.holds.clear();
    const int n = static_cast<int>(m.survey.points.size());
    for (int i = 0; i < n; ++i)
        for (int j = i + 1; j < n; ++j) m.read(ReadingKind::Tape, i, j);
    return m;
}
} // namespace

TEST_CASE("a survey without a datum floats, and it says in which ways", "[tape]") {
    auto m = fullFrame(false);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::NotDetermined);
    CHECK(s.undetermined.size() == 6);
    for (const char* part : {"fore and aft", "sideways", "up and down", "rolling", "tipping", "swinging in plan"})
        CHECK(says(s, part));
    CHECK(s.redundancy == 28 - 24 + 6);
}

TEST_CASE("heights fix the plane, so only the plan is open", "[tape]") {
    auto m = fullFrame(false);
    for (int i = 0; i < 8; ++i) m.read(ReadingKind::Height, i);
    m.hold(0, Axis::X, 0);
    m.hold(0, Axis::Y, -400);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::NotDetermined);
    REQUIRE(s.undetermined.size() == 1);
    CHECK(says(s, "Nothing stops the survey from swinging in plan. Hold or measure the offset of a second point"));
    m.hold(6, Axis::Y, m.truth[6].y_mm);
    CHECK(tape::solve(m.survey).status == tape::Status::Solved);
}

TEST_CASE("heights that nothing fixes are named, and what to measure", "[tape]") {
    // two points taped to coplanar neighbours only, in one plane with them: their heights are free
    test::SurveyMaker m;
    for (const auto& [name, x, y] :
         {std::tuple{"A1", 0.0, -400.0}, {"B1", 0.0, 400.0}, {"A2", 1500.0, -400.0}, {"B2", 1500.0, 400.0}}) {
        const int p = m.point(name, x, y, 0);
        for (const auto axis : {Axis::X, Axis::Y, Axis::Z}) m.hold(p, axis, axis == Axis::X ? x : axis == Axis::Y ? y : 0);
    }
    const int a4 = m.point("A4", 800, -700, 0);
    const int b4 = m.point("B4", 800, 700, 0);
    for (int p = 0; p < 4; ++p) {
        m.read(ReadingKind::Tape, a4, p);
        m.read(ReadingKind::Tape, b4, p);
    }
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::NotDetermined);
    CHECK(says(s, "Nothing fixes the heights of A4 and B4."));
    CHECK(says(s, "Measure the height of one of them"));
    CHECK(std::isnan(s.points[a4].sd_mm[2]));
    CHECK_FALSE(s.points[a4].determined);
    CHECK(std::isfinite(s.points[a4].sd_mm[0])); // the plan is fixed all the same
    m.read(ReadingKind::Height, a4);
    const auto one = tape::solve(m.survey);
    CHECK(says(one, "Nothing fixes the height of B4."));
    m.read(ReadingKind::Level, a4, b4);
    CHECK(tape::solve(m.survey).status == tape::Status::Solved);
}

TEST_CASE("a point with too few readings is named with what is open", "[tape]") {
    auto m = fullFrame(true);
    const int z = m.point("Z", 900, 0, 700);
    m.read(ReadingKind::Tape, z, 0);
    auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::NotDetermined);
    CHECK(says(s, "of Z."));
    CHECK(s.points[0].determined); // the others stay fixed
    CHECK(s.points[5].determined);
    m.read(ReadingKind::Height, z);
    m.read(ReadingKind::Offset, z);
    s = tape::solve(m.survey);
    CHECK(s.status == tape::Status::Solved);
    // no rough position and one reading: nowhere
    const int y = m.point("Y", 0, 0, 0);
    m.survey.points[static_cast<size_t>(y)].rough.reset();
    m.read(ReadingKind::Tape, y, 0, 500);
    s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::NotDetermined);
    CHECK(says(s, "Y has neither a rough position nor enough readings"));
    CHECK_FALSE(s.points[static_cast<size_t>(y)].placed);
    CHECK(s.points[3].determined);
}

TEST_CASE("a mirror image is recognised and said; a height decides", "[tape]") {
    auto m = fullFrame(true);
    for (int i = 0; i < 8; ++i) m.read(ReadingKind::Height, i);
    const int z = m.point("Z", 900, 30, 900); // well above the frame; taped to four marks that lie nearly in a plane
    for (const int p : {0, 1, 2, 3}) m.read(ReadingKind::Tape, z, p);
    auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    for (const auto& mirror : s.mirrors) UNSCOPED_INFO(mirror.sentence);
    REQUIRE(s.mirrors.size() == 1);
    CHECK(s.mirrors[0].point == z);
    CHECK_FALSE(s.mirrors[0].mended);
    CHECK(s.mirrors[0].other.z_mm < 400);
    INFO(s.mirrors[0].sentence);
    CHECK(s.mirrors[0].sentence.find("Z has a mirror image") == 0);
    CHECK(s.mirrors[0].remedy.find("a height or a level of Z") != std::string::npos);
    CHECK(s.points[z].position.z_mm == Approx(900).margin(0.1));
    m.read(ReadingKind::Height, z);
    s = tape::solve(m.survey);
    CHECK(s.mirrors.empty());
}

TEST_CASE("a start on the wrong side is mended and said", "[tape]") {
    auto m = fullFrame(true);
    for (int i = 0; i < 8; ++i) m.read(ReadingKind::Height, i);
    const int z = m.point("Z", 900, 30, 900);
    for (const int p : {0, 1, 2, 3, 5}) m.read(ReadingKind::Tape, z, p);
    m.survey.points[static_cast<size_t>(z)].rough->z_mm = 60; // typed below the frame
    m.read(ReadingKind::Level, 0, z, 0, 25.0);                // rough, but enough to tell the sides apart
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.points[z].position.z_mm == Approx(900).margin(1));
}

TEST_CASE("a survey of tapes alone can't tell up from down", "[tape]") {
    test::SurveyMaker m;
    for (const auto& [name, x, y, z] : {std::tuple{"A", 0.0, -400.0, 0.0},
                                        {"B", 0.0, 400.0, 0.0},
                                        {"C", 2000.0, -400.0, 0.0},
                                        {"D", 2000.0, 400.0, 150.0},
                                        {"E", 1000.0, 0.0, 300.0}})
        m.point(name, x, y, z);
    for (const int p : {0, 1, 2}) m.hold(p, Axis::Z, 0);
    m.hold(0, Axis::X, 0);
    m.hold(0, Axis::Y, -400);
    m.hold(2, Axis::Y, -400);
    for (int i = 0; i < 5; ++i)
        for (int j = i + 1; j < 5; ++j) m.read(ReadingKind::Tape, i, j);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    bool said = false;
    for (const auto& mirror : s.mirrors) said = said || mirror.sentence.find("can't tell up from down") != std::string::npos;
    CHECK(said);
}

} // namespace tape_fixing_test
