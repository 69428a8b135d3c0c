#include "scan/align.hpp"
#include "sim/car_meshes.hpp"
#include "sim/scanner.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <numbers>

namespace scan_align_test {

using namespace gorvet;
using namespace gorvet::scan;
using geometry::minus;
using geometry::plus;
using geometry::times;

namespace {

constexpr double degree = std::numbers::pi / 180;

/// A turn about any axis through `at`, then a shift.
RigidTransform turnAbout(const Point3& axis, double angle, const Point3& at, const Point3& shift) {
    const Point3 a = geometry::unit(axis);
    RigidTransform m;
    const double c = std::cos(angle), s = std::sin(angle);
    const double cross[3][3] = {{0, -a[2], a[1]}, {a[2], 0, -a[0]}, {-a[1], a[0], 0}};
    for (size_t i = 0; i < 3; ++i)
        for (size_t j = 0; j < 3; ++j) m.rotation[i][j] = (i == j ? c : 0) + (1 - c) * a[i] * a[j] + s * cross[i][j];
    m.translation = plus(minus(at, m.rotated(at)), shift);
    return m;
}
Point3 middleOf(const std::vector<Point3>& points) {
    Point3 sum{};
    for (const Point3& p : points) sum = plus(sum, times(p, 1.0 / static_cast<double>(points.size())));
    return sum;
}

/// Two clouds of one shell seen from two places, without noise; of the second as much is left away that 30 % of it is seen by the
/// first.
struct TwoScans {
    std::vector<Point3> fixed, moving;
};
TwoScans twoScans(const shape::DistanceTree& shell, const Point3& first, const Point3& second) {
    std::mt19937 rng(1);
    sim::ScannerSettings clean;
    clean.noise_mm = 0;
    clean.step_rad = 0.0028;
    TwoScans s;
    s.fixed = scanFrom(shell, first, clean, rng).points;
    const auto all = scanFrom(shell, second, clean, rng).points;
    const Neighbours near(s.fixed);
    std::vector<Point3> common, alone;
    for (const Point3& p : all) (near.nearest(p, 16).point != Neighbours::none ? common : alone).push_back(p);
    // the common part shrinks from one end, so that it stays in one piece; or the lonely part does
    const auto wanted = alone.size() * 3 / 7;
    if (common.size() > wanted) {
        std::sort(common.begin(), common.end());
        common.resize(wanted);
    } else {
        const Point3 middle = middleOf(common);
        std::sort(alone.begin(), alone.end(),
                  [&](const Point3& a, const Point3& b) { return geometry::between(a, middle) < geometry::between(b, middle); });
        alone.resize(common.size() * 7 / 3);
    }
    s.moving = common;
    s.moving.insert(s.moving.end(), alone.begin(), alone.end());
    return s;
}

/// Noise of 0.3 mm each way, and one point in ten anywhere.
std::vector<Point3> spoilt(const std::vector<Point3>& points, std::mt19937& rng) {
    std::normal_distribution<double> noise(0, 0.3);
    std::uniform_real_distribution<double> share(0, 1);
    Point3 least = points[0], most = points[0];
    for (const Point3& p : points)
        for (size_t axis = 0; axis < 3; ++axis) {
            least[axis] = std::min(least[axis], p[axis]);
            most[axis] = std::max(most[axis], p[axis]);
        }
    std::vector<Point3> out;
    for (Point3 p : points) {
        const bool stray = share(rng) < 0.1;
        for (size_t axis = 0; axis < 3; ++axis)
            p[axis] = stray ? least[axis] + (most[axis] - least[axis]) * share(rng) : p[axis] + noise(rng);
        out.push_back(p);
    }
    return out;
}

} // namespace

TEST_CASE("a scan is laid on another: 30 % in common, noise 0.3 mm, every tenth point a stray, 100 mm and 5° off",
          "[scan][align]") {
    const shape::DistanceTree shell(std::make_shared<const shape::Mesh>(sim::bodyShell(15)));
    const TwoScans scenes[] = {twoScans(shell, {-2200, -2800, 1500}, {4600, -2900, 1600}),
                               twoScans(shell, {1700, -3200, 1900}, {5000, -1300, 1700})};
    int good = 0, told = 0;
    for (unsigned seed = 1; seed <= 100; ++seed) {
        std::mt19937 rng(seed);
        const TwoScans& scene = scenes[seed % 2];
        const auto moving = preparedFor(spoilt(scene.moving, rng));
        const auto fixed = preparedFor(spoilt(scene.fixed, rng));
        REQUIRE(moving);
        REQUIRE(fixed);
        std::normal_distribution<double> any(0, 1);
        const Point3 middle = middleOf(scene.moving);
        const RigidTransform start = turnAbout({any(rng), any(rng), any(rng)}, 5 * degree, middle,
                                               times(geometry::unit({any(rng), any(rng), any(rng)}), 100));
        const ScanRegistration a = registerScans(**moving, **fixed, start);
        const Apart off = apart(a.motion, {}, middle);
        const bool right = off.shift_mm < 0.15 && off.turn_rad < 0.01 * degree;
        good += right;
        // one that is far off must not be called settled
        told += !a.settled || off.shift_mm < 1;
        if (seed <= 4) CHECK(a.overlap == Approx(0.28).margin(0.06));
    }
    CHECK(good >= 95);
    CHECK(told == 100);
}

TEST_CASE("what two flat plates share holds them in one direction only, and that is said", "[scan][align]") {
    std::mt19937 rng(3);
    std::uniform_real_distribution<double> place(0, 800);
    std::vector<Point3> one, two;
    for (int i = 0; i < 5000; ++i) one.push_back({place(rng), place(rng), 0}), two.push_back({place(rng), place(rng), 0});
    const auto a = preparedFor(one), b = preparedFor(two);
    REQUIRE(a);
    const ScanRegistration laid = registerScans(**a, **b, geometry::rigidTransform({0, 0, 7}, 0, 0, 0));
    CHECK_FALSE(laid.settled);
    CHECK(laid.loose.size() == 2);
    for (const Point3& d : laid.loose) CHECK(std::abs(d[2]) < 0.05);
    CHECK_THAT(laid.words, Catch::Contains("slide"));
}

TEST_CASE("scans of different things do not settle, and a handful of points is refused", "[scan][align]") {
    std::mt19937 rng(4);
    std::uniform_real_distribution<double> place(-500, 500);
    std::vector<Point3> fog, other;
    for (int i = 0; i < 3000; ++i)
        fog.push_back({place(rng), place(rng), place(rng)}), other.push_back({place(rng), place(rng), place(rng)});
    const auto a = preparedFor(fog), b = preparedFor(other);
    REQUIRE(a);
    CHECK_FALSE(registerScans(**a, **b, {}).settled);
    CHECK_FALSE(preparedFor({{0, 0, 0}, {1, 0, 0}}));
}

} // namespace scan_align_test
