// A first answer from two small surveys: 8 points and 26 readings each, few of them spare. The ± of the change of wheelbase
// covers.
#include "sit/sit.hpp"
#include "tape/survey.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace sit_small_survey_test {

using namespace gorvet;
using sit::PinKind;
using tape::Axis;
using tape::ReadingKind;

namespace {

/// Four pairs, 18 tapes and 8 heights.
test::SurveyMaker small(const std::vector<build::Vec3>& at, std::mt19937& rng) {
    test::SurveyMaker m;
    for (size_t i = 0; i < at.size(); ++i) m.point("P" + std::to_string(i), at[i].x_mm, at[i].y_mm, at[i].z_mm);
    m.hold(0, Axis::X, at[0].x_mm);
    m.hold(0, Axis::Y, at[0].y_mm);
    m.hold(6, Axis::Y, at[6].y_mm);
    int tapes = 0;
    for (int reach = 1; reach < 8 && tapes < 18; ++reach)
        for (int i = 0; i + reach < 8 && tapes < 18; ++i, ++tapes) {
            const double d = std::hypot(at[static_cast<size_t>(i)].x_mm - at[static_cast<size_t>(i + reach)].x_mm,
                                        at[static_cast<size_t>(i)].y_mm - at[static_cast<size_t>(i + reach)].y_mm);
            const double sigma = build::defaultSigma(ReadingKind::Tape, d);
            m.read(ReadingKind::Tape, i, i + reach, test::normal(rng, sigma), sigma);
        }
    for (int i = 0; i < 8; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    for (auto& p : m.survey.points) {
        p.rough->x_mm += test::normal(rng, 15);
        p.rough->y_mm += test::normal(rng, 15);
    }
    return m;
}

sit::Located located(const tape::Solution& s) {
    sit::Located l;
    const size_t n = 3 * s.points.size();
    l.covariance.resize(n * n);
    for (const auto& p : s.points) l.at.push_back(p.position);
    for (size_t i = 0; i < n; ++i)
        for (size_t j = 0; j < n; ++j) l.covariance[i * n + j] = s.covariance(i, j);
    return l;
}

} // namespace

TEST_CASE("500 pairs of small surveys: the ± of the change of wheelbase covers the truth in 93 to 97 of 100",
          "[sit][tape][simulation]") {
    std::mt19937 rng(1429);
    // hubs front and rear, two pairs of rail points between; arches front and rear, hinges and sills between
    const std::vector<build::Vec3> chassis = {{0, -720, 430},    {0, 720, 430},    {700, -430, 480},  {700, 430, 480},
                                              {2000, -450, 500}, {2000, 450, 500}, {2791, -720, 430}, {2791, 720, 430}};
    const std::vector<build::Vec3> body = {{0, -730, 560},    {0, 730, 560},    {560, -690, 800},  {560, 690, 800},
                                           {1920, -700, 500}, {1920, 700, 500}, {2650, -735, 560}, {2650, 735, 560}};
    int covered = 0, spare = 0;
    double half = 0;
    constexpr int rounds = 500;
    for (int k = 0; k < rounds; ++k) {
        const auto c = tape::solve(small(chassis, rng).survey);
        const auto b = tape::solve(small(body, rng).survey);
        REQUIRE(c.status == tape::Status::Solved);
        REQUIRE(b.status == tape::Status::Solved);
        REQUIRE(c.readings.size() == 26);
        spare += c.redundancy;
        sit::Input in;
        in.body = located(b);
        in.chassis = located(c);
        in.front_left = 0, in.front_right = 1, in.rear_left = 6, in.rear_right = 7;
        in.front_height_mm = in.rear_height_mm = 340;
        const auto pin = [](PinKind kind, int first, double target) { return sit::Pin{kind, {first, first + 1}, target, 2}; };
        in.pins = {pin(PinKind::ArchFront, 0, 0), pin(PinKind::ArchRear, 6, 0), pin(PinKind::Centred, 2, 0),
                   pin(PinKind::Centred, 6, 0),   pin(PinKind::Height, 4, 285), pin(PinKind::Height, 2, 585)};
        const auto seat = sit::seat(in);
        REQUIRE(seat.change_mm);
        covered += std::abs(*seat.change_mm - (2650 - 2791)) <= seat.change_u95_mm;
        half += seat.change_u95_mm / rounds;
    }
    INFO(covered << " of 500 covered, ± " << half << " on the mean, " << static_cast<double>(spare) / rounds << " spare of 26");
    CHECK(covered >= 0.93 * rounds);
    CHECK(covered <= 0.97 * rounds);
    CHECK(half > 1);
}

} // namespace sit_small_survey_test
