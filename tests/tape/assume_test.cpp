// What is assumed (a mirrored side, a data sheet's wheelbase) places what nothing else fixes, and touches nothing that was
// measured.
#include "tape/condition.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace tape_assume_test {

using namespace gorvet;
using tape::ReadingKind;

namespace {

/// A frame whose left side is measured and whose right points are only known by name.
test::SurveyMaker halfMeasured(std::mt19937& rng) {
    auto m = test::frameSurvey(4, rng, 20);
    for (int i = 0; i < 8; i += 2)
        for (int j = i + 2; j < 8; j += 2) m.read(ReadingKind::Tape, i, j, test::normal(rng, 0.5), 0.8);
    for (int i = 0; i < 8; i += 2) {
        m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.3), 0.7);
        m.read(ReadingKind::Offset, i, -1, test::normal(rng, 0.5), 1.0);
        m.read(ReadingKind::Station, i, -1, test::normal(rng, 0.5), 1.0);
    }
    for (int i = 1; i < 8; i += 2) m.survey.points[static_cast<size_t>(i)].rough.reset();
    std::erase_if(m.survey.holds, [](const tape::HeldCoordinate& h) { return h.point % 2 == 1; });
    return m;
}

void mirror(tape::Survey& s, int left, int right) {
    s.assumed.push_back({1, ReadingKind::Station, left, right, 0, 5, -1, {}});
    s.assumed.push_back({1, ReadingKind::Symmetry, left, right, 0, 5, -1, {}});
    s.assumed.push_back({1, ReadingKind::Level, left, right, 0, 5, -1, {}});
}

} // namespace

TEST_CASE("a mirrored side stands where the other one says, marked as assumed", "[tape][assumed]") {
    std::mt19937 rng(3);
    auto m = halfMeasured(rng);
    const auto before = tape::solve(m.survey);
    for (int i = 0; i < 8; i += 2) mirror(m.survey, i, i + 1);
    const auto s = tape::solve(m.survey);
    for (size_t i = 0; i < 8; i += 2) {
        const auto& l = s.points[i];
        const auto& r = s.points[i + 1];
        CHECK(l.determined);
        CHECK_FALSE(l.assumed);
        CHECK_FALSE(r.determined);
        REQUIRE(r.assumed);
        CHECK(r.position.x_mm == Approx(l.position.x_mm).margin(1e-3));
        CHECK(r.position.y_mm == Approx(-l.position.y_mm).margin(1e-3));
        CHECK(r.position.z_mm == Approx(l.position.z_mm).margin(1e-3));
        CHECK(r.sd_mm[1] == Approx(5).epsilon(0.01));
    }
    // they are said once, as assumed, not as having too few readings besides
    CHECK_FALSE(before.undetermined.empty());
    CHECK(s.undetermined.empty());
    // nothing that was measured knows of it
    CHECK(s.omega == before.omega);
    CHECK(s.redundancy == before.redundancy);
    for (size_t i = 0; i < s.readings.size(); ++i) {
        CHECK(s.readings[i].w == before.readings[i].w);
        CHECK(s.readings[i].redundancy == before.readings[i].redundancy);
        CHECK(s.readings[i].verdict == before.readings[i].verdict);
    }
    // and no figure comes from it
    tape::FramePoints frame;
    for (int i = 0; i < 4; ++i) frame.pairs.push_back({2 * i, 2 * i + 1});
    CHECK(tape::condition(s, frame).figures.empty());
}

TEST_CASE("an assumed figure gives way to readings", "[tape][assumed]") {
    // engineering.md: a 5 mm symmetry reading was seen to hide a third of a real 8 mm diamond
    std::mt19937 rng(4);
    auto m = test::frameSurvey(3, rng, 20);
    for (auto& p : m.truth)
        if (p.y_mm > 0) p.x_mm -= 8;
    for (int i = 0; i < 6; ++i)
        for (int j = i + 1; j < 6; ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, 0.3), 0.5);
    for (int i = 0; i < 6; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.3), 0.7);
    const auto without = tape::solve(m.survey);
    for (int i = 0; i < 6; i += 2) mirror(m.survey, i, i + 1);
    const auto with = tape::solve(m.survey);
    REQUIRE(with.status == tape::Status::Solved);
    for (size_t i = 0; i < 6; ++i) {
        CHECK_FALSE(with.points[i].assumed);
        CHECK(with.points[i].position.x_mm == without.points[i].position.x_mm);
    }
    tape::FramePoints frame;
    for (int i = 0; i < 3; ++i) frame.pairs.push_back({2 * i, 2 * i + 1});
    const auto c = tape::condition(with, frame);
    // as the places truly are
    double truth = 0;
    for (int i = 0; i < 6; i += 2) truth += (m.truth[static_cast<size_t>(i)].x_mm - m.truth[static_cast<size_t>(i) + 1].x_mm) / 3;
    CHECK(std::abs(truth) > 4);
    CHECK(c.figures.front().size_mm.value == Approx(truth).margin(1.0));
}

TEST_CASE("a data sheet's figure places a point that only half is measured", "[tape][assumed]") {
    std::mt19937 rng(5);
    auto m = test::frameSurvey(2, rng, 0.001);
    const int hub = m.point("RW", 2800, -700, 430);
    for (int i = 0; i < 4; ++i)
        for (int j = i + 1; j < 4; ++j) m.read(ReadingKind::Tape, i, j, 0, 0.8);
    for (int i = 0; i < 4; ++i) m.read(ReadingKind::Height, i, -1, 0, 0.7);
    m.read(ReadingKind::Height, hub, -1, 0, 0.7);
    m.read(ReadingKind::Offset, hub, -1, 0, 1.0);
    CHECK_FALSE(tape::solve(m.survey).points[static_cast<size_t>(hub)].determined);
    m.survey.assumed.push_back({9, ReadingKind::Station, hub, -1, 2790, 5, -1, {}});
    const auto s = tape::solve(m.survey);
    const auto& p = s.points[static_cast<size_t>(hub)];
    CHECK(p.assumed);
    CHECK(p.position.x_mm == Approx(2790).margin(0.01));
    CHECK(p.position.z_mm == Approx(430).margin(0.5));
    CHECK(s.status == tape::Status::NotDetermined); // it is still not measured
}

} // namespace tape_assume_test
