#include "tape/condition.hpp"
#include "tape/judge.hpp"
#include "tape/survey.hpp"

#include "support/support.hpp"

#include <algorithm>
#include <catch2/catch.hpp>

namespace tape_judge_test {

using namespace gorvet;
using tape::Axis;
using tape::ReadingKind;
using tape::Verdict;

namespace {

/// Four corners in plan, four sides and two diagonals: one reading more than needed.
test::SurveyMaker rectangle() {
    test::SurveyMaker m;
    m.point("Al", 0, -450, 0);
    m.point("Ar", 0, 450, 0);
    m.point("Bl", 3000, -450, 0);
    m.point("Br", 3000, 450, 0);
    for (int p = 0; p < 4; ++p) m.hold(p, Axis::Z, 0);
    m.hold(0, Axis::X, 0);
    m.hold(0, Axis::Y, -450);
    m.hold(2, Axis::Y, -450);
    return m;
}

} // namespace

TEST_CASE("χ² limits are those of the tables", "[tape]") {
    CHECK(tape::omegaLimit(1) == Approx(3.841).margin(0.001));
    CHECK(tape::omegaLimit(10) == Approx(18.307).margin(0.001));
    CHECK(tape::omegaLimit(100) == Approx(124.342).margin(0.001));
    CHECK(tape::omegaLimit(0) == 0);
}

TEST_CASE("four sides and two diagonals with one 8 mm blunder: six equal w of 2.48, and nobody is singled out", "[tape]") {
    auto m = rectangle();
    // default σ of a tape
    const auto read = [&](int from, int to, double error) {
        m.read(ReadingKind::Tape, from, to, error, 1.0);
        m.survey.readings.back().sigma = build::defaultSigma(ReadingKind::Tape, m.survey.readings.back().value);
    };
    read(0, 1, 0);
    read(2, 3, 0);
    read(0, 2, 0);
    read(1, 3, 0);
    read(0, 3, 8);
    read(1, 2, 0);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.redundancy == 1);
    CHECK(s.omega > s.omega_limit);
    for (const auto& r : s.readings) {
        CHECK(std::abs(r.w) == Approx(std::abs(s.readings[0].w)).epsilon(0.01)); // a single spare reading can't say who is wrong
        CHECK(r.verdict == Verdict::Doubtful);
        CHECK_FALSE(r.set_aside);
    }
    CHECK(std::abs(s.readings[0].w) > 2.3);
    CHECK(std::abs(s.readings[0].w) < 2.8);
    REQUIRE(s.inseparable.size() == 1);
    CHECK(s.inseparable[0].size() == 6);
    CHECK(s.sigma_0 == Approx(std::sqrt(s.omega)));
}

TEST_CASE("a larger blunder in the same figure is still not pinned on one reading", "[tape]") {
    auto m = rectangle();
    for (const auto& [a, b] : {std::pair{0, 1}, {2, 3}, {0, 2}, {1, 3}, {1, 2}}) m.read(ReadingKind::Tape, a, b);
    m.read(ReadingKind::Tape, 0, 3, 20);
    const auto s = tape::solve(m.survey);
    for (const auto& r : s.readings) {
        CHECK(r.verdict == Verdict::Retape);
        CHECK_FALSE(r.set_aside); // setting a wrong one aside would hide the blunder
    }
    REQUIRE(s.inseparable.size() == 1);
}

TEST_CASE("one misread reading is named, set aside, and its neighbours are cleared", "[tape]") {
    std::mt19937 rng(3);
    auto m = test::frameSurvey(5, rng);
    const int n = static_cast<int>(m.survey.points.size());
    int bad = -1;
    for (int i = 0; i < n; ++i)
        for (int j = i + 1; j < n; ++j) {
            const bool wrong = i == 2 && j == 7;
            if (wrong) bad = static_cast<int>(m.survey.readings.size());
            m.read(ReadingKind::Tape, i, j, test::normal(rng, 1.2) + (wrong ? 12 : 0), 1.2);
        }
    for (int i = 0; i < n; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.omega > s.omega_limit);
    CHECK(s.kept_omega < s.kept_omega_limit);
    CHECK(s.sigma_0 == 1);
    for (int i = 0; i < static_cast<int>(s.readings.size()); ++i) {
        INFO(i << " w " << s.readings[i].w);
        if (i == bad) {
            CHECK(s.readings[i].verdict == Verdict::Retape);
            CHECK(s.readings[i].set_aside);
            CHECK(std::abs(s.readings[i].w) > 3.29);
            // the rest know what it should be
            const double truth = m.survey.readings[i].value - 12;
            CHECK(std::abs(s.readings[i].leave_one_out - truth) < 4);
        } else {
            CHECK(s.readings[i].verdict != Verdict::Retape);
            CHECK_FALSE(s.readings[i].set_aside);
        }
    }
    const auto everything = tape::solve(m.survey, {.set_aside = false});
    CHECK_FALSE(everything.readings[bad].set_aside);
    CHECK(everything.readings[bad].verdict == Verdict::Retape);
    CHECK(everything.sigma_0 > 1);
    CHECK(everything.omega == Approx(s.omega));
}

TEST_CASE("two separate misread readings are both found, the larger first", "[tape]") {
    std::mt19937 rng(8);
    auto m = test::frameSurvey(5, rng);
    const int n = static_cast<int>(m.survey.points.size());
    for (int i = 0; i < n; ++i)
        for (int j = i + 1; j < n; ++j)
            m.read(ReadingKind::Tape, i, j, test::normal(rng, 1.0) + (i == 0 && j == 5 ? 20 : 0) + (i == 3 && j == 8 ? -11 : 0),
                   1.0);
    for (int i = 0; i < n; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    const auto s = tape::solve(m.survey);
    std::vector<double> aside;
    for (size_t i = 0; i < s.readings.size(); ++i)
        if (s.readings[i].set_aside) aside.push_back(m.survey.readings[i].value - s.readings[i].leave_one_out);
    REQUIRE(aside.size() == 2);
    std::sort(aside.begin(), aside.end());
    CHECK(aside[0] == Approx(-11).margin(3));
    CHECK(aside[1] == Approx(20).margin(3));
}

TEST_CASE("a barely checked reading never Agrees", "[tape]") {
    auto m = rectangle();
    for (const auto& [a, b] : {std::pair{0, 1}, {2, 3}, {0, 2}, {1, 3}, {1, 2}}) m.read(ReadingKind::Tape, a, b);
    m.read(ReadingKind::Tape, 0, 3, 0, 12.0); // so rough that the others are hardly checked by it
    const auto s = tape::solve(m.survey);
    for (int i = 0; i < 5; ++i) {
        CHECK(s.readings[i].redundancy < tape::barely_r);
        CHECK(s.readings[i].check == tape::Check::Barely);
        CHECK(s.readings[i].verdict == Verdict::Doubtful);
    }
    CHECK(s.readings[5].verdict == Verdict::Agrees);
}

TEST_CASE("slips are put into words", "[tape]") {
    CHECK(tape::likelySlip(1683.4, 1673.7, 1.1) == "A centimetre mark misread? 1673.4 would agree.");
    CHECK(tape::likelySlip(1573.4, 1673.7, 1.1) == "A decimetre misread? 1673.4 would agree.");
    CHECK(tape::likelySlip(1698.9, 1673.7, 1.1) == "An inch misread? 1673.5 would agree.");
    CHECK(tape::likelySlip(1749.0, 1673.7, 1.1) == ""); // 75.3 is no slip we know
    CHECK(tape::likelySlip(1637.0, 1673.0, 1.1) == "Two digits exchanged? 1673.0 would agree.");
    CHECK(tape::likelySlip(1674.0, 1673.7, 1.1).empty());
    CHECK(tape::likelySlip(1683.4, 1673.7, 9).empty()); // explains nothing when the ± is that wide
}

} // namespace tape_judge_test
