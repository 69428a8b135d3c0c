// What readings share that nobody measured: a floor that is not level, a string off the centreline, a tape that reads long.
#include "tape/equations.hpp"
#include "tape/survey.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace tape_setup_test {

using namespace gorvet;
using tape::ReadingKind;
using tape::SetUpKind;

namespace {

/// Adds a reading as it is read from a set-up with these true unknowns.
void readBy(test::SurveyMaker& m, int setup, const std::array<double, 3>& truth, ReadingKind kind, int from, int to, double error,
            double sigma) {
    const bool has_to = to >= 0;
    const auto p =
        tape::predictFrom(m.survey.setups[static_cast<size_t>(setup)].kind, truth, kind, m.truth[static_cast<size_t>(from)],
                          has_to ? m.truth[static_cast<size_t>(to)] : build::Vec3{}, has_to);
    m.survey.readings.push_back({static_cast<int>(m.survey.readings.size()) + 1, kind, from, to, p.value + error, sigma, setup});
}

/// Six pairs, taped well in all directions.
test::SurveyMaker taped(std::mt19937& rng) {
    auto m = test::frameSurvey(6, rng);
    for (int i = 0; i < 12; ++i)
        for (int j = i + 1; j < 12; ++j)
            if ((i * 5 + j * 3) % 4 != 0) m.read(ReadingKind::Tape, i, j, test::normal(rng, 0.8), 0.8);
    for (int i = 2; i < 12; ++i) m.read(ReadingKind::Level, 0, i, test::normal(rng, 0.6), 0.6);
    return m;
}

} // namespace

TEST_CASE("what is read from a set-up, and its derivatives", "[tape][setup]") {
    // a floor 5 high at the origin, falling 2 mm/m rearward: a point 412 over the datum at station 1500 reads 412 − 5 + 3
    const build::Vec3 a{1500, -400, 412};
    CHECK(tape::predictFrom(SetUpKind::Plane, {5, -2, 0}, ReadingKind::Height, a, {}, false).value == Approx(410));
    // a string 3 right of the centreline that swings 1 mm/m to the right: −400 − 3 − 1.5
    CHECK(tape::predictFrom(SetUpKind::String, {3, 1, 0}, ReadingKind::Offset, a, {}, false).value == Approx(-404.5));
    const build::Vec3 b{2500, 380, 430};
    CHECK(tape::predictFrom(SetUpKind::Plane, {5, -2, 1}, ReadingKind::Level, a, b, true).value == Approx(18 + 2 - 0.78));
    CHECK(tape::predictFrom(SetUpKind::Tape, {2, 0, 0}, ReadingKind::Tape, a, b, true).value ==
          Approx(std::hypot(1000, 780, 18) + 2));
    struct Case {
        SetUpKind setup;
        ReadingKind kind;
        bool has_to;
    };
    for (const Case& c : {Case{SetUpKind::Plane, ReadingKind::Height, false}, Case{SetUpKind::Plane, ReadingKind::Level, true},
                          Case{SetUpKind::String, ReadingKind::Offset, false}, Case{SetUpKind::String, ReadingKind::Offset, true},
                          Case{SetUpKind::Tape, ReadingKind::Tape, true}, Case{SetUpKind::Tape, ReadingKind::Plan, true}}) {
        const std::array<double, 3> at{4, -3, 2};
        const auto value = [&](build::Vec3 p, build::Vec3 q, const std::array<double, 3>& s) {
            return tape::predictFrom(c.setup, s, c.kind, p, q, c.has_to).value;
        };
        const auto p = tape::predictFrom(c.setup, at, c.kind, a, b, c.has_to);
        constexpr double h = 1e-3;
        for (int axis = 0; axis < 3; ++axis) {
            const auto moved = [axis](build::Vec3 v, double by) {
                (axis == 0 ? v.x_mm : axis == 1 ? v.y_mm : v.z_mm) += by;
                return v;
            };
            CHECK(p.by_from[axis] == Approx((value(moved(a, h), b, at) - value(moved(a, -h), b, at)) / (2 * h)).margin(1e-7));
            if (c.has_to)
                CHECK(p.by_to[axis] == Approx((value(a, moved(b, h), at) - value(a, moved(b, -h), at)) / (2 * h)).margin(1e-7));
        }
        for (int u = 0; u < 3; ++u) {
            auto up = at;
            auto down = at;
            up[u] += h;
            down[u] -= h;
            CHECK(p.by_setup[u] == Approx((value(a, b, up) - value(a, b, down)) / (2 * h)).margin(1e-7));
        }
    }
}

TEST_CASE("a floor that is not level is found out, and the frame is not blamed for it", "[tape][setup]") {
    std::mt19937 rng(77);
    auto m = taped(rng);
    m.survey.setups = {{"floor", SetUpKind::Plane}};
    const std::array<double, 3> floor{12, 4, -3}; // 4 mm/m along is 13 mm over the frame
    for (int i = 0; i < 12; ++i) readBy(m, 0, floor, ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    REQUIRE(s.setups.size() == 1);
    CHECK(s.setups[0].readings == 12);
    for (int u = 0; u < 3; ++u) {
        CHECK(s.setups[0].estimable[u]);
        CHECK(s.setups[0].sd[u] < 1.5);
        CHECK(std::abs(s.setups[0].value[u] - floor[u]) < 4 * s.setups[0].sd[u]);
    }
    CHECK(s.kept_omega < s.kept_omega_limit);
    for (size_t i = 0; i < 12; ++i) CHECK(s.points[i].position.z_mm == Approx(m.truth[i].z_mm).margin(2.5));
    // taken as level, the same readings do not agree
    auto level = m;
    level.survey.setups.clear();
    for (auto& r : level.survey.readings) r.setup = -1;
    const auto wrong = tape::solve(level.survey, {.set_aside = false});
    CHECK(wrong.omega > 3 * wrong.omega_limit);
}

TEST_CASE("a floor that is itself the datum is taken as level, and it is said", "[tape][setup]") {
    std::mt19937 rng(78);
    auto m = test::frameSurvey(5, rng);
    std::erase_if(m.survey.holds, [](const tape::HeldCoordinate& h) { return h.axis == tape::Axis::Z; });
    m.survey.setups = {{"floor", SetUpKind::Plane}};
    for (int i = 0; i < 10; ++i)
        for (int j = i + 1; j < 10; ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, 0.8), 0.8);
    for (int i = 0; i < 10; ++i) readBy(m, 0, {0, 0, 0}, ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    for (int u = 0; u < 3; ++u) {
        CHECK_FALSE(s.setups[0].estimable[u]);
        CHECK(s.setups[0].value[u] == 0);
        CHECK(std::isnan(s.setups[0].sd[u]));
    }
    // the same as heights over the datum
    auto plain = m;
    plain.survey.setups.clear();
    for (auto& r : plain.survey.readings) r.setup = -1;
    const auto same = tape::solve(plain.survey);
    for (size_t i = 0; i < 10; ++i) {
        CHECK(s.points[i].position.z_mm == Approx(same.points[i].position.z_mm).margin(1e-5));
        CHECK(s.points[i].sd_mm[2] == Approx(same.points[i].sd_mm[2]).epsilon(1e-6));
    }
}

TEST_CASE("two floors: the second is found by the first", "[tape][setup]") {
    std::mt19937 rng(79);
    auto m = test::frameSurvey(6, rng);
    m.survey.setups = {{"floor", SetUpKind::Plane}, {"pit", SetUpKind::Plane}};
    for (int i = 0; i < 12; ++i)
        for (int j = i + 1; j < 12; ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, 0.8), 0.8);
    std::erase_if(m.survey.holds, [](const tape::HeldCoordinate& h) { return h.axis == tape::Axis::Z; });
    for (int i = 0; i < 12; ++i) readBy(m, 0, {0, 0, 0}, ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    for (int i = 2; i < 12; ++i) readBy(m, 1, {-40, 2, 6}, ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    // one of the two carries the datum, the other is told by it: their difference is what can be known
    const auto& floor = s.setups[0];
    const auto& pit = s.setups[1];
    CHECK((floor.estimable[0] != pit.estimable[0] || floor.estimable[2] != pit.estimable[2]));
    CHECK(pit.value[0] - floor.value[0] == Approx(-40).margin(3));
    CHECK(pit.value[1] - floor.value[1] == Approx(2).margin(1.5));
    CHECK(pit.value[2] - floor.value[2] == Approx(6).margin(4));
}

TEST_CASE("a string beside the centreline and a tape that reads long are found", "[tape][setup]") {
    std::mt19937 rng(80);
    auto m = taped(rng);
    m.survey.setups = {{"string", SetUpKind::String}, {"old-tape", SetUpKind::Tape}};
    for (int i = 0; i < 12; ++i) readBy(m, 0, {-6, 2.5, 0}, ReadingKind::Offset, i, -1, test::normal(rng, 1.0), 1.0);
    for (int i = 0; i + 3 < 12; ++i) readBy(m, 1, {3, 0, 0}, ReadingKind::Tape, i, i + 3, test::normal(rng, 0.8), 0.8);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.setups[0].estimable[0]);
    CHECK(s.setups[0].value[0] == Approx(-6).margin(4 * s.setups[0].sd[0]));
    CHECK(s.setups[0].value[1] == Approx(2.5).margin(4 * s.setups[0].sd[1]));
    CHECK(s.setups[1].estimable[0]);
    CHECK(s.setups[1].value[0] == Approx(3).margin(4 * s.setups[1].sd[0]));
    CHECK(s.setups[1].sd[0] < 0.6);
    CHECK_FALSE(s.setups[1].estimable[1]);
}

TEST_CASE("a set-up without readings, and one with a single reading, change nothing", "[tape][setup]") {
    std::mt19937 rng(81);
    auto m = taped(rng);
    const auto before = tape::solve(m.survey);
    m.survey.setups = {{"floor", SetUpKind::Plane}, {"none", SetUpKind::String}};
    readBy(m, 0, {30, 0, 0}, ReadingKind::Height, 4, -1, 0, 0.7);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.setups[1].readings == 0);
    CHECK(s.setups[0].estimable[0]); // its height, with its slopes taken as level
    CHECK_FALSE(s.setups[0].estimable[1]);
    CHECK(s.readings.back().check == tape::Check::Nothing);
    for (size_t i = 0; i < 12; ++i) CHECK(s.points[i].position.z_mm == Approx(before.points[i].position.z_mm).margin(1e-4));
}

} // namespace tape_setup_test
