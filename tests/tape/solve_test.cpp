#include "tape/equations.hpp"
#include "tape/survey.hpp"

#include "support/dense_qr.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>

namespace tape_solve_test {

using namespace gorvet;
using tape::Axis;
using tape::ReadingKind;

TEST_CASE("a 3-4-5 triangle closes", "[tape][closed-form]") {
    test::SurveyMaker m;
    const int a = m.point("A", 0, 0, 0);
    const int b = m.point("B", 3050, 20, 0);
    const int c = m.point("C", 40, 3900, 0);
    m.truth = {{0, 0, 0}, {3000, 0, 0}, {0, 4000, 0}};
    for (const int p : {a, b, c}) m.hold(p, Axis::Z, 0);
    m.hold(a, Axis::X, 0);
    m.hold(a, Axis::Y, 0);
    m.hold(b, Axis::Y, 0);
    m.read(ReadingKind::Tape, a, b);
    m.read(ReadingKind::Tape, a, c);
    m.read(ReadingKind::Tape, b, c);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.redundancy == 0);
    CHECK(s.points[b].position.x_mm == Approx(3000).margin(0.001));
    CHECK(s.points[c].position.x_mm == Approx(0).margin(0.001));
    CHECK(s.points[c].position.y_mm == Approx(4000).margin(0.001));
    // nothing is left over, so nothing is checked, and nothing Agrees
    for (const auto& r : s.readings) {
        CHECK(r.check == tape::Check::Nothing);
        CHECK(r.verdict == tape::Verdict::Doubtful);
        CHECK(r.redundancy == 0);
    }
}

TEST_CASE("the mean of repeated readings, and its σ", "[tape][closed-form]") {
    test::SurveyMaker m;
    const int a = m.point("A", 0, 0, 0);
    const int b = m.point("B", 1000, 0, 0);
    for (const auto axis : {Axis::X, Axis::Y, Axis::Z}) m.hold(a, axis, 0);
    m.hold(b, Axis::Y, 0);
    m.hold(b, Axis::Z, 0);
    const double readings[] = {1001, 1002, 1004, 1001};
    for (const double value : readings) m.survey.readings.push_back({1, ReadingKind::Tape, a, b, value, 2.0});
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.points[b].position.x_mm == Approx(1002).margin(1e-6));
    CHECK(s.points[b].sd_mm[0] == Approx(2.0 / std::sqrt(4.0)));
    CHECK(s.redundancy == 3);
    // v = 1, 0, −2, 1; Ω = 6/4
    CHECK(s.omega == Approx(6.0 / 4));
    CHECK(s.readings[2].residual == Approx(-2));
    for (const auto& r : s.readings) CHECK(r.redundancy == Approx(0.75));
    CHECK(s.readings[2].w == Approx(-1 / std::sqrt(0.75)));
    CHECK(s.readings[0].minimal_detectable_error == Approx(4.13 * 2 / std::sqrt(0.75)));
    // what the other three say of the third: their mean, with σ 2/√3
    CHECK(s.readings[2].leave_one_out == Approx((1001 + 1002 + 1001) / 3.0));
    CHECK(s.readings[2].leave_one_out_u95 == Approx(1.959964 * 2 / std::sqrt(3.0)));
}

TEST_CASE("weights count: 2 mm and 1 mm readings mix as 1 to 4", "[tape][closed-form]") {
    test::SurveyMaker m;
    const int a = m.point("A", 0, 0, 500);
    m.hold(a, Axis::X, 0);
    m.hold(a, Axis::Y, 0);
    m.survey.readings.push_back({1, ReadingKind::Height, a, -1, 500, 2.0});
    m.survey.readings.push_back({2, ReadingKind::Height, a, -1, 501, 1.0});
    const auto s = tape::solve(m.survey);
    CHECK(s.points[a].position.z_mm == Approx(500.8));
    CHECK(s.points[a].sd_mm[2] == Approx(std::sqrt(1 / (0.25 + 1.0))));
}

TEST_CASE("the adjustment agrees with an independent dense QR solver", "[tape][independent]") {
    std::mt19937 rng(2026);
    for (int round = 0; round < 8; ++round) {
        auto m = test::frameSurvey(5, rng);
        const int n = static_cast<int>(m.survey.points.size());
        for (int i = 0; i < n; ++i)
            for (int j = i + 1; j < n; ++j) {
                if ((i + j + round) % 4 == 0) continue;
                const double sigma = 1.2 + 0.1 * (i % 3);
                m.read(ReadingKind::Tape, i, j, test::normal(rng, sigma), sigma);
            }
        for (int i = 0; i < n; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
        for (int i = 0; i + 3 < n; i += 2) {
            m.read(ReadingKind::Level, i, i + 1, test::normal(rng, 1.0), 1.0);
            m.read(ReadingKind::Plan, i, i + 3, test::normal(rng, 1.8), 1.8);
            m.read(ReadingKind::Station, i, i + 2, test::normal(rng, 1.0), 1.0);
            m.read(ReadingKind::Slope, i, i + 2, test::normal(rng, units::radians(0.1)), units::radians(0.1));
        }
        m.read(ReadingKind::Offset, 2, -1, test::normal(rng, 1.0), 1.0);
        const auto s = tape::solve(m.survey, {.set_aside = false});
        REQUIRE(s.status == tape::Status::Solved);
        const auto independent = test::solveByQr(m.survey, m.truth);
        CHECK(s.omega == Approx(independent.omega).epsilon(1e-6));
        for (int i = 0; i < n; ++i) {
            CHECK(std::abs(s.points[i].position.x_mm - independent.at[i].x_mm) < 0.01);
            CHECK(std::abs(s.points[i].position.y_mm - independent.at[i].y_mm) < 0.01);
            CHECK(std::abs(s.points[i].position.z_mm - independent.at[i].z_mm) < 0.01);
        }
        double sum = 0;
        for (size_t i = 0; i < s.readings.size(); ++i) {
            CHECK(s.readings[i].redundancy == Approx(independent.redundancy(static_cast<Eigen::Index>(i))).margin(1e-5));
            CHECK(s.readings[i].w == Approx(independent.w(static_cast<Eigen::Index>(i))).margin(1e-3));
            sum += s.readings[i].redundancy;
        }
        CHECK(sum == Approx(s.redundancy).margin(1e-6)); // the redundancy numbers share out the redundancy
        // the variances, coordinate by coordinate
        std::vector<double> ours;
        for (const auto& p : s.points)
            for (const double sd : p.sd_mm)
                if (sd > 0) ours.push_back(sd * sd / (s.sigma_0 * s.sigma_0));
        REQUIRE(ours.size() == static_cast<size_t>(independent.covariance.rows()));
        for (size_t k = 0; k < ours.size(); ++k)
            CHECK(ours[k] ==
                  Approx(independent.covariance(static_cast<Eigen::Index>(k), static_cast<Eigen::Index>(k))).epsilon(1e-4));
    }
}

TEST_CASE("± mean what they say: the truth lies inside them about 95 times in 100", "[tape][property]") {
    std::mt19937 rng(77);
    int inside = 0;
    int all = 0;
    for (int round = 0; round < 40; ++round) {
        auto m = test::frameSurvey(4, rng);
        const int n = static_cast<int>(m.survey.points.size());
        for (int i = 0; i < n; ++i)
            for (int j = i + 1; j < n; ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, 1.3), 1.3);
        for (int i = 0; i < n; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
        const auto s = tape::solve(m.survey, {.set_aside = false});
        for (int i = 0; i < n; ++i) {
            const double got[3] = {s.points[i].position.x_mm, s.points[i].position.y_mm, s.points[i].position.z_mm};
            const double true_at[3] = {m.truth[i].x_mm, m.truth[i].y_mm, m.truth[i].z_mm};
            for (int axis = 0; axis < 3; ++axis) {
                if (s.points[i].sd_mm[axis] == 0) continue;
                ++all;
                inside += std::abs(got[axis] - true_at[axis]) <= tape::u95Of(s.points[i].sd_mm[axis]);
            }
        }
    }
    const double share = static_cast<double>(inside) / all;
    CHECK(share > 0.92);
    CHECK(share < 0.985);
}

TEST_CASE("points without a rough position are placed by their readings", "[tape]") {
    std::mt19937 rng(5);
    auto m = test::frameSurvey(4, rng);
    const int n = static_cast<int>(m.survey.points.size());
    for (int i = 0; i < n; ++i)
        for (int j = i + 1; j < n; ++j) m.read(ReadingKind::Tape, i, j);
    for (int i = 0; i < n; ++i) m.read(ReadingKind::Height, i);
    m.survey.points[5].rough.reset();
    m.survey.points[7].rough.reset();
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.points[5].position.y_mm == Approx(m.truth[5].y_mm).margin(0.01));
    CHECK(s.points[7].position.x_mm == Approx(m.truth[7].x_mm).margin(0.01));
}

TEST_CASE("same input, same output", "[tape]") {
    std::mt19937 rng(9);
    auto m = test::frameSurvey(4, rng);
    const int n = static_cast<int>(m.survey.points.size());
    for (int i = 0; i < n; ++i)
        for (int j = i + 1; j < n; ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, 1), 1);
    const auto a = tape::solve(m.survey);
    const auto b = tape::solve(m.survey);
    CHECK(a.omega == b.omega);
    for (size_t k = 0; k < a.covariance.size(); ++k) CHECK(a.covariance.column(k) == b.covariance.column(k));
}

TEST_CASE("nothing to adjust is said, not computed", "[tape]") {
    CHECK(tape::solve({}).status == tape::Status::NoReadings);
    test::SurveyMaker m;
    m.point("A", 0, 0, 0);
    const auto s = tape::solve(m.survey);
    CHECK(s.status == tape::Status::NoReadings);
    CHECK(s.message == "There are no readings yet.");
    CHECK(s.points.size() == 1);
}

} // namespace tape_solve_test
