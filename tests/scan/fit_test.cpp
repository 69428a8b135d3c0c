// Shapes through scanned points: exact ones, noisy ones against their stated ±, and points that make no shape.
#include "scan/fit.hpp"

#include <Eigen/Geometry>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace scan_fit_test {

using namespace gorvet;
using scan::Point3;

namespace {

Eigen::Vector3d vec(const Point3& p) { return {p[0], p[1], p[2]}; }
Point3 point(const Eigen::Vector3d& v) { return {v.x(), v.y(), v.z()}; }
double angleBetween(const Point3& a, const Point3& b) {
    return std::atan2(vec(a).cross(vec(b)).norm(), std::abs(vec(a).dot(vec(b))));
}

struct Random {
    std::mt19937 rng;
    double normal(double sigma) { return std::normal_distribution<double>(0, sigma)(rng); }
    double uniform(double a, double b) { return std::uniform_real_distribution<double>(a, b)(rng); }
    Eigen::Vector3d noise(double sigma) { return {normal(sigma), normal(sigma), normal(sigma)}; }
    Eigen::Matrix3d turn() {
        return Eigen::Quaterniond(normal(1), normal(1), normal(1), normal(1)).normalized().toRotationMatrix();
    }
};

/// Points on a tube along z, turned and shifted.
std::vector<Point3> tube(Random& r, double radius, double length, double arc, int n, double sigma, const Eigen::Matrix3d& turn,
                         const Eigen::Vector3d& at) {
    std::vector<Point3> points;
    for (int i = 0; i < n; ++i) {
        const double a = r.uniform(0, arc);
        points.push_back(
            point(turn * Eigen::Vector3d(radius * std::cos(a), radius * std::sin(a), r.uniform(-length / 2, length / 2)) + at +
                  r.noise(sigma)));
    }
    return points;
}

} // namespace

TEST_CASE("exact shapes are found exactly, wherever they lie", "[scan][fit]") {
    Random r{std::mt19937(1)};
    for (int round = 0; round < 60; ++round) {
        const Eigen::Matrix3d turn = r.turn();
        const Eigen::Vector3d at(r.normal(2000), r.normal(2000), r.normal(800));
        std::vector<Point3> flat;
        std::vector<Point3> straight;
        std::vector<Point3> round_edge;
        std::vector<Point3> ball;
        for (int i = 0; i < 25; ++i) {
            flat.push_back(point(turn * Eigen::Vector3d(r.normal(200), r.normal(100), 0) + at));
            straight.push_back(point(turn * Eigen::Vector3d(r.normal(300), 0, 0) + at));
            const double a = r.uniform(0, 2.5); // less than half round
            round_edge.push_back(point(turn * Eigen::Vector3d(57.15 * std::cos(a), 57.15 * std::sin(a), 0) + at));
            ball.push_back(point(19.05 * r.noise(1).normalized() + at));
        }
        const auto plane = scan::fitPlane(flat);
        REQUIRE(plane);
        CHECK(angleBetween(plane->normal, point(turn.col(2))) < 1e-9);
        CHECK(plane->fit.rms_mm < 1e-9);
        const auto line = scan::fitLine(straight);
        REQUIRE(line);
        CHECK(angleBetween(line->way, point(turn.col(0))) < 1e-9);
        const auto circle = scan::fitCircle(round_edge);
        REQUIRE(circle);
        CHECK(circle->radius_mm == Approx(57.15).epsilon(1e-8));
        CHECK((vec(circle->centre) - at).norm() < 1e-5);
        const auto sphere = scan::fitSphere(ball);
        REQUIRE(sphere);
        CHECK(sphere->radius_mm == Approx(19.05).epsilon(1e-9));
        CHECK((vec(sphere->centre) - at).norm() < 1e-6);
        const double radius = r.uniform(10, 60);
        const auto cylinder = scan::fitCylinder(tube(r, radius, r.uniform(20, 400), 2.6, 60, 0, turn, at));
        REQUIRE(cylinder);
        CHECK(cylinder->radius_mm == Approx(radius).epsilon(1e-6));
        CHECK(angleBetween(cylinder->way, point(turn.col(2))) < 1e-6);
    }
}

TEST_CASE("the ± of a radius is what repeated scans show", "[scan][fit]") {
    Random r{std::mt19937(2)};
    int inside[3] = {};
    constexpr int rounds = 600;
    for (int round = 0; round < rounds; ++round) {
        const Eigen::Matrix3d turn = r.turn();
        std::vector<Point3> edge;
        std::vector<Point3> ball;
        for (int i = 0; i < 30; ++i) {
            const double a = r.uniform(0, 2 * M_PI);
            // noise in the plane and out of it
            edge.push_back(point(turn * (Eigen::Vector3d(40 * std::cos(a), 40 * std::sin(a), 0) + r.noise(0.3))));
            ball.push_back(point(19 * r.noise(1).normalized() + r.noise(0.3)));
        }
        const auto circle = scan::fitCircle(edge);
        const auto sphere = scan::fitSphere(ball);
        const auto cylinder = scan::fitCylinder(tube(r, 30, 120, 2 * M_PI, 60, 0.3, turn, {500, 20, -90}));
        REQUIRE((circle && sphere && cylinder));
        inside[0] += std::abs(circle->radius_mm - 40) <= circle->radius_u95_mm;
        inside[1] += std::abs(sphere->radius_mm - 19) <= sphere->radius_u95_mm;
        inside[2] += std::abs(cylinder->radius_mm - 30) <= cylinder->radius_u95_mm;
    }
    for (const int n : inside) { // 95 %, with few points to spare a little less
        CHECK(n >= rounds * 91 / 100);
        CHECK(n <= rounds * 98 / 100);
    }
}

TEST_CASE("what stands off is left out, and said", "[scan][fit]") {
    Random r{std::mt19937(3)};
    std::vector<Point3> points;
    for (int i = 0; i < 200; ++i) points.push_back({r.normal(100), r.normal(100), 50 + r.normal(0.2)});
    for (int i = 0; i < 20; ++i) points.push_back({r.normal(100), r.normal(100), 50 + r.uniform(5, 40)});
    const auto with = scan::fitPlane(points, false);
    const auto without = scan::fitPlane(points, true);
    REQUIRE((with && without));
    CHECK(without->fit.outliers >= 20);
    CHECK(without->fit.outliers <= 24);
    CHECK(without->fit.rms_mm == Approx(0.2).epsilon(0.15));
    CHECK(with->fit.rms_mm > 3);
    CHECK(without->at[2] == Approx(50).margin(0.1));
    CHECK(without->normal[2] > 0);
}

TEST_CASE("points that make no shape are refused in words", "[scan][fit]") {
    const std::vector<Point3> one_line = {{0, 0, 0}, {1, 1, 1}, {2, 2, 2}, {3, 3, 3}, {5, 5, 5}, {9, 9, 9}};
    CHECK(scan::fitPlane(one_line).error().code == Error::Code::Degenerate);
    CHECK(scan::fitCircle(one_line).error().code == Error::Code::Degenerate);
    CHECK(scan::fitCylinder(one_line).error().code == Error::Code::Degenerate);
    const std::vector<Point3> one_plane = {{0, 0, 0}, {10, 0, 0}, {0, 10, 0}, {10, 10, 0}, {3, 7, 0}, {2, 1, 0}};
    CHECK(scan::fitSphere(one_plane).error().code == Error::Code::Degenerate);
    CHECK(scan::fitLine({{1, 2, 3}, {1, 2, 3}}).error().code == Error::Code::Degenerate);
    CHECK(scan::fitPlane({{0, 0, 0}, {1, 0, 0}}).error().code == Error::Code::BadInput);
    CHECK(scan::fitCylinder({{0, 0, 0}}).error().message == "A tube needs 6 points at least.");
}

TEST_CASE("one set of points is laid on another, with its ±", "[scan][lay]") {
    Random r{std::mt19937(4)};
    int inside = 0;
    constexpr int rounds = 400;
    for (int round = 0; round < rounds; ++round) {
        const Eigen::Matrix3d turn = r.turn();
        const Eigen::Vector3d shift(r.normal(500), r.normal(500), r.normal(500));
        std::vector<Point3> from;
        std::vector<Point3> exact;
        std::vector<Point3> noisy;
        for (int i = 0; i < 12; ++i) {
            const Eigen::Vector3d p(r.normal(900), r.normal(400), r.normal(200));
            from.push_back(point(p));
            exact.push_back(point(turn * p + shift));
            noisy.push_back(point(turn * p + shift + r.noise(0.5)));
        }
        const auto laid = scan::registerPoints(from, exact);
        REQUIRE(laid);
        CHECK(laid->rms_mm < 1e-9);
        for (size_t i = 0; i < from.size(); ++i) CHECK((vec(laid->motion.transformed(from[i])) - vec(exact[i])).norm() < 1e-8);
        const auto rough = scan::registerPoints(from, noisy);
        REQUIRE(rough);
        Eigen::Vector3d mid = Eigen::Vector3d::Zero();
        for (const Point3& p : from) mid += vec(p) / 12;
        const Eigen::Vector3d off = vec(rough->motion.transformed(point(mid))) - (turn * mid + shift);
        for (int k = 0; k < 3; ++k) inside += std::abs(off(k)) <= rough->translation_u95[static_cast<size_t>(k)];
    }
    CHECK(inside >= 3 * rounds * 92 / 100);
    CHECK(inside <= 3 * rounds * 98 / 100);
}

TEST_CASE("a mirrored set is laid by a turn, never by a mirror; a wrong unit shows as a scale", "[scan][lay]") {
    const std::vector<Point3> from = {{0, 0, 0}, {100, 0, 0}, {0, 50, 0}, {0, 0, 20}};
    std::vector<Point3> mirrored;
    std::vector<Point3> inches;
    for (const Point3& p : from) {
        mirrored.push_back({p[0], -p[1], p[2]});
        inches.push_back({p[0] / 25.4 + 7, p[1] / 25.4, p[2] / 25.4});
    }
    const auto m = scan::registerPoints(from, mirrored);
    REQUIRE(m);
    Eigen::Matrix3d turn;
    for (int i = 0; i < 3; ++i)
        for (int k = 0; k < 3; ++k) turn(i, k) = m->motion.rotation[static_cast<size_t>(i)][static_cast<size_t>(k)];
    CHECK(turn.determinant() == Approx(1));
    CHECK(m->rms_mm > 5);
    CHECK(*scan::registerPoints(from, inches, {}, true)->scale == Approx(1 / 25.4));
    CHECK_FALSE(scan::registerPoints(from, inches)->scale);
    CHECK(scan::registerPoints({{0, 0, 0}, {1, 0, 0}, {2, 0, 0}}, {{0, 0, 0}, {1, 0, 0}, {2, 0, 0}}).error().code ==
          Error::Code::Degenerate);
    CHECK_FALSE(scan::registerPoints(from, {{0, 0, 0}}));
    CHECK_FALSE(scan::registerPoints(from, from, {1, 1, 1, 0}));
    // weights: the point that counts a hundred times is met
    auto off = from;
    off[3][2] += 10;
    CHECK(scan::registerPoints(from, off, {1, 1, 1, 10000})->off_mm[3] < 0.01);
}

TEST_CASE("three, two, one: a scan on the workshop's axes", "[scan][lay]") {
    Random r{std::mt19937(5)};
    for (int round = 0; round < 40; ++round) {
        // the scan leans a little and is turned in plan by anything
        const Eigen::Matrix3d turn = (Eigen::AngleAxisd(r.normal(0.2), Eigen::Vector3d::UnitX()) *
                                      Eigen::AngleAxisd(r.normal(0.2), Eigen::Vector3d::UnitY()) *
                                      Eigen::AngleAxisd(r.uniform(-3, 3), Eigen::Vector3d::UnitZ()))
                                         .toRotationMatrix();
        const Eigen::Vector3d shift(r.normal(500), r.normal(500), r.normal(500));
        const auto seen = [&](double x, double y, double z) { return point(turn * Eigen::Vector3d(x, y, z) + shift); };
        const auto m = scan::threeTwoOne({seen(0, -400, 0), seen(0, 400, 0), seen(2500, 10, 0)},
                                         {seen(100, 0, 77), seen(2000, 0, 30)}, seen(0, 700, 430));
        REQUIRE(m);
        const Point3 p = m->transformed(seen(1234, -321, 56));
        CHECK(p[0] == Approx(1234).margin(1e-8));
        CHECK(p[1] == Approx(-321).margin(1e-8));
        CHECK(p[2] == Approx(56).margin(1e-8));
    }
    CHECK(scan::threeTwoOne({{0, 0, 0}, {1, 0, 0}, {0, 1, 0}}, {Point3{0, 0, 0}, Point3{0, 0, 5}}, {0, 0, 0}).error().code ==
          Error::Code::Degenerate);
    CHECK_FALSE(scan::threeTwoOne({{0, 0, 0}, {1, 0, 0}}, {Point3{0, 0, 0}, Point3{5, 0, 0}}, {0, 0, 0}));
}

} // namespace scan_fit_test
