// The datum in the workshop's terms: a free network, laid on pads, a centreline and a station without measuring again.
#include "tape/condition.hpp"

#include "dense/dense.hpp"
#include "support/dense_qr.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace tape_datum_test {

using namespace gorvet;
using build::DatumKind;
using tape::ReadingKind;

namespace {

/// Every distance of a frame taped; nothing ties it to the floor.
test::SurveyMaker tapedAllOver(std::mt19937& rng, int pairs = 4) {
    auto m = test::frameSurvey(pairs, rng, 25);
    m.survey.holds.clear();
    for (int i = 0; i < 2 * pairs; ++i)
        for (int j = i + 1; j < 2 * pairs; ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, 0.8), 0.8);
    return m;
}

std::vector<double> of(const build::Vec3& v) { return {v.x_mm, v.y_mm, v.z_mm}; }
double distance(const build::Vec3& a, const build::Vec3& b) {
    return std::hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm, a.z_mm - b.z_mm);
}

/// Pads at three corners, the centreline through two pairs, the station at the front pair's middle.
std::vector<tape::DatumRule> workshop(int last) {
    return {{DatumKind::Height, {0}, 100},
            {DatumKind::Height, {1}, 100},
            {DatumKind::Height, {last - 1}, 100},
            {DatumKind::Centred, {0, 1}, 0},
            {DatumKind::Centred, {last - 1, last}, 0},
            {DatumKind::Station, {0, 1}, -50}};
}

/// gᵀQg of a row over two points.
double varianceOf(const tape::Solution& s, const std::vector<std::pair<size_t, double>>& row) {
    double sum = 0;
    for (const auto& [k, a] : row)
        for (const auto& [l, b] : row) sum += a * b * s.covariance(k, l);
    return sum;
}

} // namespace

TEST_CASE("a free network has the least ± of all: its covariance is the pseudo-inverse", "[tape][datum]") {
    std::mt19937 rng(5);
    auto m = tapedAllOver(rng);
    m.survey.datum = {{DatumKind::Free, {}, 0}};
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    const auto n = static_cast<Eigen::Index>(3 * s.points.size());
    // independent: N⁺ of the dense normal equations at the adjusted places, six directions open
    Eigen::MatrixXd a = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(m.survey.readings.size()), n);
    for (size_t i = 0; i < m.survey.readings.size(); ++i) {
        const auto& r = m.survey.readings[i];
        const auto p = tape::predict(r.kind, s.points[static_cast<size_t>(r.from)].position,
                                     s.points[static_cast<size_t>(r.to)].position, true);
        for (int axis = 0; axis < 3; ++axis) {
            a(static_cast<Eigen::Index>(i), 3 * r.from + axis) = p.by_from[static_cast<size_t>(axis)] / r.sigma;
            a(static_cast<Eigen::Index>(i), 3 * r.to + axis) = p.by_to[static_cast<size_t>(axis)] / r.sigma;
        }
    }
    const dense::Eigenpairs own = dense::eigenpairs(a.transpose() * a);
    const Eigen::VectorXd& values = own.values;
    CHECK(values(5) < 1e-9 * values(6));
    Eigen::MatrixXd inverse = Eigen::MatrixXd::Zero(n, n);
    for (Eigen::Index k = 6; k < n; ++k) inverse += own.vectors.col(k) * own.vectors.col(k).transpose() / values(k);
    const double scale2 = s.sigma_0 * s.sigma_0;
    double trace = 0;
    for (Eigen::Index k = 0; k < n; ++k) {
        trace += inverse(k, k) * scale2;
        CHECK(s.points[static_cast<size_t>(k / 3)].sd_mm[k % 3] == Approx(std::sqrt(inverse(k, k) * scale2)).epsilon(1e-6));
        for (Eigen::Index l = 0; l < n; ++l)
            CHECK(s.covariance(static_cast<size_t>(k), static_cast<size_t>(l)) ==
                  Approx(inverse(k, l) * scale2).margin(1e-9 * trace + 1e-9));
    }
    // and it stays where the rough positions are: no shift of the middle
    for (int axis = 0; axis < 3; ++axis) {
        double off = 0;
        for (size_t i = 0; i < s.points.size(); ++i)
            off += of(s.points[i].position)[static_cast<size_t>(axis)] - of(*m.survey.points[i].rough)[static_cast<size_t>(axis)];
        CHECK(off == Approx(0).margin(1e-6));
    }
}

TEST_CASE("a change of datum moves the axes, not the shape", "[tape][datum]") {
    std::mt19937 rng(6);
    auto m = tapedAllOver(rng);
    const int last = 7;
    m.survey.datum = workshop(last);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.points[0].position.z_mm == Approx(100).margin(1e-6));
    CHECK(s.points[1].position.z_mm == Approx(100).margin(1e-6));
    CHECK(s.points[6].position.z_mm == Approx(100).margin(1e-6));
    CHECK(s.points[0].position.y_mm + s.points[1].position.y_mm == Approx(0).margin(1e-6));
    CHECK(s.points[6].position.y_mm + s.points[7].position.y_mm == Approx(0).margin(1e-6));
    CHECK((s.points[0].position.x_mm + s.points[1].position.x_mm) / 2 == Approx(-50).margin(1e-6));
    CHECK(s.datum_missed_mm < 1e-6);
    // what the rules hold has no ±
    CHECK(s.points[0].sd_mm[2] < 1e-6);
    CHECK(varianceOf(s, {{3 * 6 + 1, 0.5}, {3 * 7 + 1, 0.5}}) == Approx(0).margin(1e-9));

    // the same survey with six coordinates held: other places, the same shape and the same ± of every distance
    auto held = m;
    held.survey.datum.clear();
    held.hold(0, tape::Axis::X, 0);
    held.hold(0, tape::Axis::Y, -400);
    held.hold(0, tape::Axis::Z, 100); // the same plane: figures in plan see another one by its lean
    held.hold(1, tape::Axis::Z, 100);
    held.hold(1, tape::Axis::X, 2);
    held.hold(6, tape::Axis::Z, 100);
    const auto h = tape::solve(held.survey);
    REQUIRE(h.status == tape::Status::Solved);
    CHECK(s.omega == Approx(h.omega).epsilon(1e-6));
    CHECK(s.redundancy == h.redundancy);
    for (size_t i = 0; i < s.readings.size(); ++i) {
        CHECK(s.readings[i].w == Approx(h.readings[i].w).margin(1e-5));
        CHECK(s.readings[i].redundancy == Approx(h.readings[i].redundancy).epsilon(1e-6));
    }
    for (size_t i = 0; i < 8; ++i)
        for (size_t j = i + 1; j < 8; ++j) {
            CHECK(distance(s.points[i].position, s.points[j].position) ==
                  Approx(distance(h.points[i].position, h.points[j].position)).margin(1e-6));
            const auto sd = [&](const tape::Solution& of_survey) {
                const auto p = tape::predict(ReadingKind::Tape, of_survey.points[i].position, of_survey.points[j].position, true);
                std::vector<std::pair<size_t, double>> row;
                for (size_t axis = 0; axis < 3; ++axis) {
                    row.emplace_back(3 * i + axis, p.by_from[axis]);
                    row.emplace_back(3 * j + axis, p.by_to[axis]);
                }
                return std::sqrt(varianceOf(of_survey, row));
            };
            CHECK(sd(s) == Approx(sd(h)).epsilon(1e-5));
        }
    // and what is made of the shape does not see the datum
    tape::FramePoints frame;
    for (int i = 0; i < 4; ++i) frame.pairs.push_back({2 * i, 2 * i + 1});
    const auto a = tape::condition(s, frame);
    const auto b = tape::condition(h, frame);
    REQUIRE(a.figures.size() == b.figures.size());
    for (size_t k = 0; k < a.figures.size(); ++k) {
        if (!a.figures[k].judged) continue;
        CHECK(a.figures[k].size_mm.value == Approx(b.figures[k].size_mm.value).margin(1e-4));
        CHECK(a.figures[k].size_mm.u95 == Approx(b.figures[k].size_mm.u95).epsilon(1e-3));
    }
}

TEST_CASE("± on pads agree with a thousand surveys", "[tape][datum]") {
    std::mt19937 rng(8);
    auto m = tapedAllOver(rng);
    m.survey.datum = workshop(7);
    auto exact = m;
    for (auto& r : exact.survey.readings)
        r.value = distance(m.truth[static_cast<size_t>(r.from)], m.truth[static_cast<size_t>(r.to)]);
    const auto truth = tape::solve(exact.survey, {.set_aside = false, .go_on = {}});
    std::vector<double> square(24, 0.0);
    constexpr int rounds = 1000;
    tape::Solution s;
    for (int round = 0; round < rounds; ++round) {
        for (size_t i = 0; i < m.survey.readings.size(); ++i)
            m.survey.readings[i].value = exact.survey.readings[i].value + test::normal(rng, 0.8);
        s = tape::solve(m.survey, {.set_aside = false, .go_on = {}});
        for (size_t k = 0; k < 24; ++k) {
            const double off = of(s.points[k / 3].position)[k % 3] - of(truth.points[k / 3].position)[k % 3];
            square[k] += off * off / rounds;
        }
    }
    for (size_t k = 0; k < 24; ++k) {
        const double stated = s.points[k / 3].sd_mm[k % 3] / s.sigma_0;
        if (stated < 1e-6)
            CHECK(std::sqrt(square[k]) < 1e-5);
        else
            CHECK(std::sqrt(square[k]) == Approx(stated).epsilon(0.1));
    }
}

TEST_CASE("rules that contradict each other are said, and a body stands on what is left of it", "[tape][datum]") {
    std::mt19937 rng(9);
    auto m = tapedAllOver(rng);
    m.survey.datum = workshop(7);
    m.survey.datum.push_back({DatumKind::Height, {7}, 140}); // a fourth pad, 40 too high
    CHECK(tape::solve(m.survey).datum_missed_mm > 5);
    // a pillar that stands upright, two points level, one height, the middle and a station
    const int top = m.point("top", m.truth[0].x_mm + 40, m.truth[0].y_mm + 5, m.truth[0].z_mm + 900);
    for (int i = 0; i < 8; ++i) m.read(ReadingKind::Tape, i, top, test::normal(rng, 0.8), 0.8);
    m.survey.datum = {{DatumKind::Upright, {0, top}, 0},
                      {DatumKind::Level, {0, 1}, 0},
                      {DatumKind::Height, {0}, 200},
                      {DatumKind::Centred, {0, 1}, 0},
                      {DatumKind::Station, {0}, 300}};
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.points[0].position.x_mm == Approx(300).margin(1e-6));
    CHECK(s.points[static_cast<size_t>(top)].position.x_mm == Approx(300).margin(1e-6));
    CHECK(s.points[0].position.z_mm == Approx(200).margin(1e-6));
    CHECK(s.points[1].position.z_mm == Approx(200).margin(1e-6));
}

TEST_CASE("heights that were read hold what no rule does", "[tape][datum]") {
    std::mt19937 rng(10);
    auto m = tapedAllOver(rng);
    for (int i = 0; i < 8; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.5), 0.7);
    m.survey.datum = {{DatumKind::Station, {0, 1}, 0}, {DatumKind::Centred, {0, 1}, 0}, {DatumKind::Centred, {6, 7}, 0}};
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    for (size_t i = 0; i < 8; ++i) CHECK(std::abs(s.points[i].position.z_mm - m.truth[i].z_mm) < 3);
    CHECK((s.points[0].position.x_mm + s.points[1].position.x_mm) / 2 == Approx(0).margin(1e-6));
}

TEST_CASE("a floor moves with the datum, and its ± too", "[tape][datum][setup]") {
    std::mt19937 rng(12);
    auto m = tapedAllOver(rng);
    m.survey.setups.push_back({"floor", tape::SetUpKind::Plane});
    // a floor that falls 4 mm/m rearward, read from; the frame's own three pads are the datum
    for (int i = 0; i < 8; ++i) {
        const auto& p = m.truth[static_cast<size_t>(i)];
        const double floor = 10 - 4 * p.x_mm / 1000;
        m.survey.readings.push_back({100 + i, ReadingKind::Height, i, -1, p.z_mm - floor + test::normal(rng, 0.5), 0.7, 0});
    }
    auto pads = m;
    pads.survey.datum = {{DatumKind::Height, {0}, m.truth[0].z_mm}, {DatumKind::Height, {1}, m.truth[1].z_mm},
                         {DatumKind::Height, {6}, m.truth[6].z_mm}, {DatumKind::Centred, {0, 1}, 0},
                         {DatumKind::Centred, {6, 7}, 0},           {DatumKind::Station, {0}, m.truth[0].x_mm}};
    const auto s = tape::solve(pads.survey);
    REQUIRE(s.status == tape::Status::Solved);
    CHECK(s.setups[0].value[1] == Approx(-4).margin(1.5));
    CHECK(s.setups[0].value[0] == Approx(10).margin(4));
}

} // namespace tape_datum_test
