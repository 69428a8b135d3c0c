// How its pins set a piece of another frame, and how well what is taped across it is known.
#include "geometry/vec3.hpp"
#include "stretch/graft_input.hpp"
#include "stretch/graft_pose.hpp"

#include <array>
#include <cmath>
#include <random>

namespace stretch_graft_pose_test {

using namespace gorvet;
using namespace gorvet::build;
using graft_tests::alike;
using stretch::GraftInput;
using stretch::GraftPlan;

TEST_CASE("pins set a piece: what was moved in space comes back, whatever they are", "[stretch][graft][property]") {
    std::mt19937 rng(2026);
    std::normal_distribution<double> normal;
    for (int round = 0; round < 200; ++round) {
        stretch::PoseInput in;
        std::vector<Vec3> truth;
        for (int k = 0; k < 7; ++k) truth.push_back({700 * normal(rng), 500 * normal(rng), 150 * normal(rng)});
        // moved: turned by up to some ten degrees, and shifted
        const double a = 0.2 * normal(rng), e = 0.1 * normal(rng), c = 0.1 * normal(rng);
        const Vec3 by{300 * normal(rng), 100 * normal(rng), 100 * normal(rng)};
        for (const Vec3& p : truth) {
            Vec3 q{std::cos(a) * p.x_mm - std::sin(a) * p.y_mm, std::sin(a) * p.x_mm + std::cos(a) * p.y_mm, p.z_mm};
            q = {std::cos(e) * q.x_mm + std::sin(e) * q.z_mm, q.y_mm, -std::sin(e) * q.x_mm + std::cos(e) * q.z_mm};
            q = {q.x_mm, std::cos(c) * q.y_mm - std::sin(c) * q.z_mm, std::sin(c) * q.y_mm + std::cos(c) * q.z_mm};
            in.points.push_back(geometry::plus(q, by));
        }
        in.covariance.assign(21 * 21, 0);
        for (std::size_t k = 0; k < 4; ++k)
            for (const auto kind : {GraftPinKind::Station, GraftPinKind::Offset, GraftPinKind::Height}) {
                const double at = kind == GraftPinKind::Station  ? truth[k].x_mm
                                  : kind == GraftPinKind::Offset ? truth[k].y_mm
                                                                 : truth[k].z_mm;
                in.pins.push_back({kind, {k}, at, 1 + std::abs(normal(rng))});
            }
        const stretch::GraftPose pose = stretch::graftPose(in);
        REQUIRE(pose.found);
        CHECK(pose.open.empty());
        for (std::size_t k = 0; k < truth.size(); ++k) CHECK(geometry::between(pose.points[k], truth[k]) < 1e-6);
        // and it stays as long as it was
        CHECK(geometry::between(pose.points[5], pose.points[6]) == Approx(geometry::between(in.points[5], in.points[6])));
    }
}

TEST_CASE("what no pin decides is named, and stays as it is; pins that contradict share by their tolerance", "[stretch][graft]") {
    stretch::PoseInput in;
    in.points = {{0, -700, 400}, {0, 700, 400}, {900, -400, 500}, {900, 400, 500}};
    in.covariance.assign(144, 0);
    CHECK(stretch::graftPose(in).open.size() == 6);
    in.pins = {{GraftPinKind::Station, {0, 1}, 50, 2}};
    auto pose = stretch::graftPose(in);
    REQUIRE(pose.found);
    CHECK(pose.points[0].x_mm == Approx(50));
    CHECK(pose.points[1].x_mm == Approx(50));
    CHECK(pose.points[0].y_mm == Approx(-700));
    CHECK(pose.points[2].z_mm == Approx(500));
    CHECK(pose.open.size() == 4); // leaning, nose, offset, height
    in.pins.push_back({GraftPinKind::Centred, {0, 1}, 0, 1});
    in.pins.push_back({GraftPinKind::Height, {0, 1}, 310, 2});
    CHECK(stretch::graftPose(in).open.size() == 1);
    in.pins.push_back({GraftPinKind::Height, {2}, 420, 2});
    pose = stretch::graftPose(in);
    CHECK(pose.open.empty());
    CHECK(pose.points[2].z_mm == Approx(420));
    CHECK(pose.points[0].z_mm == Approx(310));
    // the same height asked of a point twice: the tighter one gets the better of it, by the squares
    in.pins.back() = {GraftPinKind::Height, {2}, 420, 1};
    in.pins.push_back({GraftPinKind::Height, {2}, 430, 3});
    const double z = stretch::graftPose(in).points[2].z_mm;
    CHECK(z == Approx(420 + 10 * (1.0 / 9) / (1 + 1.0 / 9)).margin(0.01));
}

TEST_CASE("2,000 pieces: the ± of what is taped across covers the truth in 93 to 97 of 100",
          "[stretch][graft][simulation][coverage]") {
    std::mt19937 rng(7);
    std::normal_distribution<double> normal;
    const std::vector<Vec3> truth{{-400, -420, 500}, {-400, 420, 500}, {700, -400, 480},
                                  {700, 400, 480},   {0, -720, 420},   {0, 720, 420}};
    const std::size_t n = 3 * truth.size();
    // a survey's errors hang together
    std::vector<double> mix(n * n);
    for (double& v : mix) v = 0.35 * normal(rng);
    std::vector<double> covariance(n * n, 0);
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j < n; ++j)
            for (std::size_t k = 0; k < n; ++k) covariance[i * n + j] += mix[i * n + k] * mix[j * n + k];
    GraftInput in = alike();
    const auto posed = [&](const std::vector<Vec3>& points) {
        stretch::PoseInput p;
        p.points = points;
        p.covariance = covariance;
        p.pins = {{GraftPinKind::Station, {4, 5}, 12, 2},
                  {GraftPinKind::Centred, {4, 5}, 0, 1},
                  {GraftPinKind::Height, {4, 5}, 430, 2},
                  {GraftPinKind::Height, {2, 3}, 470, 2}};
        return stretch::graftPose(p);
    };
    const build::Places marks = in.chassis;
    const auto real = posed(truth);
    std::array<int, 5> covered{};
    constexpr int rounds = 2000;
    for (int round = 0; round < rounds; ++round) {
        std::vector<double> unit(n);
        for (double& v : unit) v = normal(rng);
        std::vector<Vec3> read = truth;
        for (std::size_t i = 0; i < n; ++i)
            for (std::size_t k = 0; k < n; ++k) read[i / 3][i % 3] += mix[i * n + k] * unit[k];
        in.chassis = marks;
        for (Vec3& p : in.chassis.at) p = geometry::plus(p, {0.4 * normal(rng), 0.4 * normal(rng), 0.4 * normal(rng)});
        const auto set = posed(read);
        in.piece.at = set.points;
        in.piece.covariance = set.covariance;
        const GraftPlan p = stretch::graftPlan(in);
        REQUIRE(p.measures.size() == 4);
        const int ends[4][2] = {{0, 5}, {1, 4}, {0, 4}, {1, 5}}; // as they are taped: left to right, right to left, left, right
        for (std::size_t k = 0; k < 4; ++k) {
            const double is = geometry::between(marks.at[static_cast<std::size_t>(ends[k][0])],
                                                real.points[static_cast<std::size_t>(ends[k][1])]);
            covered[k] += std::abs(p.measures[k].mm - is) <= p.measures[k].u95_mm;
        }
        REQUIRE(p.wheelbase);
        const double base = (marks.at[2].x_mm + marks.at[3].x_mm - real.points[4].x_mm - real.points[5].x_mm) / 2;
        covered[4] += std::abs(p.wheelbase->value - base) <= p.wheelbase->u95;
    }
    for (const int hits : covered) {
        CHECK(hits > 0.93 * rounds);
        CHECK(hits < 0.97 * rounds);
    }
}

} // namespace stretch_graft_pose_test
