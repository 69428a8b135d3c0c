// Two surveys laid on each other, and gaps over time.
#include "tape/compare.hpp"
#include "tape/gaps.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace tape_compare_test {

using namespace gorvet;
using tape::ReadingKind;

namespace {

/// A survey of the same frame with its own noise; some points moved, the datum held where it stands now.
tape::Solution survey(unsigned seed, const std::vector<std::pair<int, build::Vec3>>& moved = {}, double turn_rad = 0,
                      double shift_mm = 0) {
    std::mt19937 rng(seed);
    auto m = test::frameSurvey(6, rng);
    for (const auto& [point, by] : moved) {
        m.truth[point].x_mm += by.x_mm;
        m.truth[point].y_mm += by.y_mm;
        m.truth[point].z_mm += by.z_mm;
    }
    for (auto& p : m.truth) { // the frame was put down a little askew
        const double x = p.x_mm;
        p.x_mm = x * std::cos(turn_rad) - p.y_mm * std::sin(turn_rad) + shift_mm;
        p.y_mm = x * std::sin(turn_rad) + p.y_mm * std::cos(turn_rad);
    }
    for (auto& h : m.survey.holds) {
        const auto& t = m.truth[h.point];
        h.value_mm = h.axis == tape::Axis::X ? t.x_mm : h.axis == tape::Axis::Y ? t.y_mm : t.z_mm;
    }
    for (int i = 0; i < 12; ++i)
        for (int j = i + 1; j < 12; ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, 0.8), 0.8);
    for (int i = 2; i < 12; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    const auto s = tape::solve(m.survey, {.set_aside = false});
    REQUIRE(s.status == tape::Status::Solved);
    return s;
}

std::vector<tape::Common> all() {
    std::vector<tape::Common> common;
    for (int i = 0; i < 12; ++i) common.push_back({i, i});
    return common;
}

} // namespace

TEST_CASE("what moved is named, what did not is not, however the frame was put down", "[tape][compare]") {
    const auto before = survey(1);
    const auto after = survey(2, {{7, {0, 6, 4}}}, 0.01, 25);
    const auto c = tape::compare(before, after, all());
    REQUIRE(c.possible);
    REQUIRE(c.moved.size() == 12);
    CHECK(c.moved[0].before == 7);
    CHECK(c.moved[0].proven);
    CHECK(c.moved[0].by.z_mm == Approx(4).margin(2));
    CHECK(std::hypot(c.moved[0].by.x_mm, c.moved[0].by.y_mm) == Approx(6).margin(2.5));
    CHECK(c.turn_rad.z_mm == Approx(0.01).margin(0.002));
    CHECK(c.omega > c.omega_limit);
    int proven = 0;
    for (const auto& m : c.moved) proven += m.proven;
    CHECK(proven <= 3);
    // the same two the other way round: the opposite motion
    const auto back = tape::compare(after, before, all());
    CHECK(back.moved[0].before == 7);
    CHECK(back.moved[0].by.z_mm == Approx(-c.moved[0].by.z_mm).margin(0.3));
}

TEST_CASE("two surveys of one frame differ by chance as often as they say", "[tape][compare]") {
    int proven = 0;
    int points = 0;
    int omega = 0;
    for (unsigned k = 0; k < 60; ++k) {
        const auto c = tape::compare(survey(100 + 2 * k), survey(101 + 2 * k, {}, 0.004, 10), all());
        REQUIRE(c.possible);
        for (const auto& m : c.moved) proven += m.proven;
        points += static_cast<int>(c.moved.size());
        omega += c.omega > c.omega_limit;
    }
    INFO(proven << " of " << points << " points, " << omega << " of 60 surveys");
    const double share = static_cast<double>(proven) / points;
    CHECK(share > 0.005);
    CHECK(share < 0.10); // 5 % of them; neighbours move together, so their count scatters more than a coin's
    CHECK(omega < 15);
}

TEST_CASE("on one datum nothing is laid on anything", "[tape][compare]") {
    const auto before = survey(1);
    const auto after = survey(2, {}, 0, 25);
    const auto c = tape::compare(before, after, all(), {.as_measured = true});
    REQUIRE(c.possible);
    CHECK(c.shift.x_mm == 0);
    for (const auto& m : c.moved) CHECK(m.by.x_mm == Approx(25).margin(4));
    CHECK(tape::compare(before, after, all()).moved[0].by.x_mm == Approx(0).margin(4));
}

TEST_CASE("held coordinates are no better known than their neighbours: unchanged pairs move by chance only; 120 pairs",
          "[tape][compare][simulation]") {
    // each survey holds its own datum points; before, what was held counted as read to a tenth of a millimetre
    int proven = 0;
    int points = 0;
    int omega = 0;
    int covered = 0;
    for (unsigned k = 0; k < 120; ++k) {
        const auto c = tape::compare(survey(1000 + 2 * k), survey(1001 + 2 * k, {}, -0.006, 14), all());
        REQUIRE(c.possible);
        for (const auto& m : c.moved) {
            proven += m.proven;
            ++points;
            covered += std::abs(m.by.x_mm) <= m.u95[0];
            covered += std::abs(m.by.y_mm) <= m.u95[1];
            covered += std::abs(m.by.z_mm) <= m.u95[2];
        }
        omega += c.omega > c.omega_limit;
    }
    INFO(proven << " of " << points << " points proven, coverage " << covered / (3.0 * points) << ", " << omega
                << " of 120 by Ω");
    CHECK(proven < 0.075 * points);
    CHECK(proven > 0.02 * points);
    CHECK(covered > 0.93 * 3 * points);
    CHECK(covered < 0.97 * 3 * points);
    CHECK(omega <= 14);
}

TEST_CASE("a planned change is taken off, and surveys are laid on the points one names", "[tape][compare]") {
    const build::Vec3 shift{-140, 0, 0};
    std::vector<std::pair<int, build::Vec3>> rear;
    for (int p = 6; p < 12; ++p) rear.emplace_back(p, shift);
    rear.emplace_back(9, build::Vec3{-5, 3, 0}); // and one that did not come out as planned
    const auto before = survey(31);
    const auto after = survey(32, rear, 0.003, 8);
    auto common = all();
    for (int p = 6; p < 12; ++p) common[static_cast<size_t>(p)].planned = shift;
    const auto c = tape::compare(before, after, common);
    REQUIRE(c.possible);
    CHECK(c.moved[0].before == 9);
    CHECK(c.moved[0].proven);
    CHECK_FALSE(c.moved[0].lays);
    CHECK(c.moved[0].by.x_mm == Approx(-5).margin(2.5));
    for (size_t i = 1; i < c.moved.size(); ++i) CHECK(std::abs(c.moved[i].by.x_mm) < 3);
    // laid on the front half only, without the plan, the rear shows the whole change
    auto front = all();
    for (int p = 6; p < 12; ++p) front[static_cast<size_t>(p)].lays = false;
    const auto whole = tape::compare(before, after, front, {.keep_laying = true});
    for (const auto& m : whole.moved)
        if (m.before >= 6 && m.before != 9)
            CHECK(m.by.x_mm == Approx(-140).margin(4));
        else if (m.before < 6)
            CHECK(std::abs(m.by.x_mm) < 3);
    auto two = all();
    for (size_t p = 2; p < 12; ++p) two[p].lays = false;
    CHECK_FALSE(tape::compare(before, after, two).possible);
}

TEST_CASE("too little in common is said", "[tape][compare]") {
    const auto s = survey(1);
    CHECK_FALSE(tape::compare(s, s, {{0, 0}, {1, 1}}).possible);
    // three points on one line leave the turn about it open
    tape::Solution line = s;
    for (int i = 0; i < 3; ++i) line.points[i].position = {1000.0 * i, 300.0 + 10 * i, 500.0 - 20 * i};
    CHECK(tape::compare(line, line, {{0, 0}, {1, 1}, {2, 2}}).message.find("on one line") != std::string::npos);
    CHECK(tape::compare(s, s, {}).message.find("three points") != std::string::npos);
}

TEST_CASE("gaps: change since the event before, against its ± and its tolerance", "[tape][gaps]") {
    const auto trends = tape::gapTrends({{"left", "brace in", 4.5, 1.5},
                                         {"right", "brace in", 5.0, 1.5},
                                         {"left", "on the chassis", 5.0, 1.5},
                                         {"right", "on the chassis", 7.6, 1.5},
                                         {"left", "brace out", 5.2, 1.5}});
    REQUIRE(trends.size() == 2);
    CHECK(trends[0].place == "left");
    CHECK(trends[0].readings.size() == 3);
    CHECK(trends[0].change_mm.value == Approx(0.2));
    CHECK(trends[0].since_first_mm == Approx(0.7));
    CHECK(trends[0].largest_mm == Approx(0.5));
    CHECK(trends[0].change_mm.u95 == Approx(1.96 * 0.3 * std::sqrt(2)).epsilon(1e-3));
    CHECK(trends[0].verdict == build::PlanVerdict::Holds);
    CHECK_FALSE(proven(trends[0].change_mm));
    CHECK(trends[1].change_mm.value == Approx(2.6));
    CHECK(proven(trends[1].change_mm));
    CHECK(trends[1].verdict == build::PlanVerdict::Fails);
    CHECK(tape::gapTrends({}).empty());
    CHECK(tape::gapTrends({{"left", "brace in", 4.5, 1.5}})[0].verdict == build::PlanVerdict::Holds);
}

} // namespace tape_compare_test
