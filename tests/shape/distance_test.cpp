#include "shape/distance_map.hpp"
#include "sim/mesh_maker.hpp"

#include <catch2/catch.hpp>

#include <limits>
#include <numbers>
#include <random>

namespace shape_distance_test {

using namespace gorvet;
using namespace gorvet::shape;

namespace {

std::shared_ptr<const Mesh> kept(Mesh m) { return std::make_shared<const Mesh>(std::move(m)); }

Mesh soup(std::mt19937& rng, size_t triangles, double size) {
    std::uniform_real_distribution<double> place(-1000, 1000), side(-size, size);
    Mesh m;
    for (size_t t = 0; t < triangles; ++t) {
        const Point3 p{place(rng), place(rng), place(rng)};
        for (int k = 0; k < 3; ++k) m.points.push_back(plus(p, {side(rng), side(rng), side(rng)}));
        const auto i = static_cast<std::uint32_t>(3 * t);
        m.triangles.push_back({i, i + 1, i + 2});
    }
    return m;
}

double bruteForce(const Mesh& m, const Point3& p) {
    double least = std::numeric_limits<double>::infinity();
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) least = std::min(least, between(footOn(cornersOf(m, t), p).at, p));
    return least;
}

/// A distance to a triangle by another way than footOn: down by halving the parameters' ranges (convex, so it ends at the least).
double bySearch(const Corners& c, const Point3& p) {
    const auto at = [&](double u, double v) {
        return between(plus(c[0], plus(times(minus(c[1], c[0]), u), times(minus(c[2], c[0]), v))), p);
    };
    const auto best_v = [&](double u) {
        double low = 0, high = 1 - u;
        for (int i = 0; i < 200; ++i) {
            const double a = low + (high - low) / 3, b = high - (high - low) / 3;
            (at(u, a) < at(u, b) ? high : low) = at(u, a) < at(u, b) ? b : a;
        }
        return at(u, (low + high) / 2);
    };
    double low = 0, high = 1;
    for (int i = 0; i < 200; ++i) {
        const double a = low + (high - low) / 3, b = high - (high - low) / 3;
        (best_v(a) < best_v(b) ? high : low) = best_v(a) < best_v(b) ? b : a;
    }
    return best_v((low + high) / 2);
}

Mesh ball(double radius, int n) {
    Mesh m;
    std::vector<std::array<double, 2>> outline;
    for (int i = 0; i <= n; ++i) {
        const double a = std::numbers::pi * i / n;
        outline.push_back({-radius * std::cos(a), i == 0 || i == n ? 0 : radius * std::sin(a)});
    }
    sim::addTurned(m, radius / n, {0, 0, 0}, outline);
    return m;
}
Mesh box(const Point3& middle, const Point3& size, double step = 1e9) {
    Mesh m;
    sim::addBox(m, step, middle, size);
    return m;
}
Mesh both(Mesh a, const Mesh& b) {
    append(a, b);
    return a;
}
Mesh turnedOut(Mesh m) {
    for (Triangle& t : m.triangles) std::swap(t[1], t[2]);
    return m;
}

/// Signed distance of one point, through the same way the map goes.
double signedAt(const Mesh& m, const Point3& p, double cap = 1e6) {
    const DistanceTree tree(kept(m));
    const Sides sides(tree);
    return distancesTo(tree, &sides, ordered({p}), {}, cap).distance_mm[0];
}

} // namespace

TEST_CASE("the nearest place on a triangle agrees with a search", "[shape][distance]") {
    std::mt19937 rng(5);
    std::uniform_real_distribution<double> place(-100, 100);
    for (int i = 0; i < 40; ++i) {
        Corners c;
        for (Point3& p : c) p = {place(rng), place(rng), place(rng)};
        const Point3 p{place(rng), place(rng), place(rng)};
        const Foot foot = footOn(c, p);
        CHECK(between(foot.at, p) == Approx(bySearch(c, p)).margin(1e-6));
        // as thin as may be, and with no area at all
        for (const double thin : {1e-3, 1e-5, 1e-7, 1e-9, 0.0}) {
            Corners sliver = c;
            sliver[i % 3] = plus(along(c[(i + 1) % 3], c[(i + 2) % 3], 0.4), {0, 0, thin});
            CHECK(between(footOn(sliver, p).at, p) == Approx(bySearch(sliver, p)).margin(1e-5));
        }
    }
}

TEST_CASE("the nearest places of two triangles agree with many samples, and say when they meet", "[shape][distance]") {
    std::mt19937 rng(6);
    std::uniform_real_distribution<double> place(-100, 100);
    int met = 0;
    for (int i = 0; i < 60; ++i) {
        Corners a, b;
        for (Point3& p : a) p = {place(rng), place(rng), place(rng)};
        for (Point3& p : b) p = {place(rng), place(rng), place(rng)};
        double least = 1e9;
        for (int u = 0; u <= 60; ++u)
            for (int v = 0; u + v <= 60; ++v) {
                const Point3 p = plus(a[0], plus(times(minus(a[1], a[0]), u / 60.0), times(minus(a[2], a[0]), v / 60.0)));
                least = std::min(least, between(footOn(b, p).at, p));
            }
        const Segment s = nearestOf(a, b);
        const double d = between(s.from, s.to);
        CHECK(d <= least + 1e-9);
        CHECK(least - d < 200.0 / 60 * 1.8); // the samples are so far apart
        CHECK(meet(a, b) == (d < 1e-6));
        met += d < 1e-6;
    }
    CHECK(met > 5);
    CHECK(met < 55);
}

TEST_CASE("distances agree with brute force, whatever the width, the size and the cap", "[shape][distance]") {
    const Width width = GENERATE(Width::Auto, Width::Wide16, Width::Wide8, Width::Plain);
    std::mt19937 rng(static_cast<unsigned>(width) + 1);
    std::uniform_real_distribution<double> place(-1200, 1200);
    double worst = 0;
    for (const size_t triangles : {1UL, 7UL, 16UL, 17UL, 300UL, 3000UL})
        for (const double size : {2.0, 60.0, 900.0}) {
            const auto mesh = kept(soup(rng, triangles, size));
            const DistanceTree tree(mesh, {width, 2});
            std::vector<Point3> points;
            for (int i = 0; i < 60; ++i) points.push_back({place(rng), place(rng), place(rng)});
            for (int i = 0; i < 20; ++i) points.push_back(mesh->points[static_cast<size_t>(rng()) % mesh->points.size()]);
            const RigidTransform move = geometry::rigidTransform({3, -7, 11}, 0.02, -0.01, 0.03);
            for (const double cap : {80.0, 1e5}) {
                const DistanceMap map = distancesTo(tree, nullptr, ordered(points), move, cap);
                CHECK_FALSE(map.has_inside);
                for (size_t i = 0; i < points.size(); ++i) {
                    const double right = std::min(cap, bruteForce(*mesh, move.transformed(points[i])));
                    worst = std::max(worst, std::abs(static_cast<double>(map.distance_mm[i]) - right));
                    const Nearest one = tree.nearest(move.transformed(points[i]), cap);
                    worst = std::max(worst, std::abs(one.distance_mm - right));
                }
            }
        }
    CHECK(worst < 1e-3);
}

TEST_CASE("the first triangle on a ray, and whether one cuts a line, agree with all triangles asked", "[shape][distance]") {
    std::mt19937 rng(41);
    std::uniform_real_distribution<double> place(-1200, 1200);
    int met = 0, cut = 0;
    for (const size_t triangles : {1U, 7U, 400U}) {
        const auto m = kept(soup(rng, triangles, 300));
        const DistanceTree tree(m);
        for (int round = 0; round < 1500; ++round) {
            const Point3 from{place(rng), place(rng), place(rng)};
            Point3 to{place(rng), place(rng), place(rng)};
            if (round % 5 == 0) to = {to.x_mm, from.y_mm, from.z_mm}; // along an axis
            const Point3 way = minus(to, from);
            double first = std::numeric_limits<double>::infinity();
            for (std::uint32_t t = 0; t < m->triangles.size();
                 ++t) { // where its plane is met, and whether that is on the side of each edge
                const Corners c = cornersOf(*m, t);
                const Point3 n = cross(minus(c[1], c[0]), minus(c[2], c[0]));
                const double at = dot(n, minus(c[0], from)) / dot(n, way);
                const Point3 q = plus(from, times(way, at));
                bool inside = at >= 0;
                for (size_t k = 0; k < 3; ++k) inside = inside && dot(n, cross(minus(c[(k + 1) % 3], c[k]), minus(q, c[k]))) >= 0;
                if (inside) first = std::min(first, at);
            }
            const auto hit = tree.firstHit(from, way);
            met += std::isfinite(first);
            if (std::isfinite(first))
                CHECK(hit.at == Approx(first).margin(1e-9));
            else
                CHECK(hit.triangle == kernel::nothing);
            if (std::abs(first - 1) < 1e-9) continue;
            cut += first < 1;
            CHECK(tree.isBetween(from, to) == (first < 1));
        }
    }
    CHECK(met > 1000);
    CHECK(cut > 500);
}

TEST_CASE("the tree of a large mesh, built on several threads, agrees with brute force", "[shape][distance]") {
    std::mt19937 rng(11);
    const auto mesh = kept(soup(rng, 60000, 15));
    const DistanceTree one(mesh, {Width::Auto, 1});
    const DistanceTree many(mesh, {Width::Auto, 3});
    CHECK(many.bytes() < 110 * mesh->triangles.size());
    std::uniform_real_distribution<double> place(-1000, 1000);
    for (int i = 0; i < 60; ++i) {
        const Point3 p{place(rng), place(rng), place(rng)};
        const double right = bruteForce(*mesh, p);
        CHECK(one.nearest(p, 1e9).distance_mm == Approx(right).margin(1e-3));
        CHECK(many.nearest(p, 1e9).distance_mm == Approx(right).margin(1e-3));
    }
}

TEST_CASE("triangles all in one place, of no area, or none at all do no harm", "[shape][distance]") {
    Mesh m;
    m.points = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}};
    for (int i = 0; i < 5000; ++i) m.triangles.push_back({0, 1, 2});
    CHECK(DistanceTree(kept(m)).nearest({0.25, 0.25, 7}, 100).distance_mm == Approx(7));
    m.triangles.assign(300, {1, 1, 1}); // points
    CHECK(DistanceTree(kept(m)).nearest({4, 4, 0}, 100).distance_mm == Approx(5));
    m.triangles.clear();
    const DistanceTree none(kept(m));
    CHECK(none.empty());
    CHECK(none.nearest({0, 0, 0}, 12).distance_mm == 12);
    const DistanceMap map = distancesTo(none, nullptr, ordered({{1, 2, 3}}), {}, 12);
    CHECK(map.distance_mm[0] == 12);
    CHECK(distancesTo(none, nullptr, ordered({}), {}, 12).distance_mm.empty());
}

TEST_CASE("needles, slivers and triangles of no area are found like any others", "[shape][distance]") {
    const Width width = GENERATE(Width::Auto, Width::Wide16, Width::Wide8, Width::Plain);
    std::mt19937 rng(21);
    std::uniform_real_distribution<double> place(-800, 800), side(-300, 300), tiny(-1, 1);
    for (const double thin : {1.0, 1e-2, 1e-5, 1e-8, 0.0}) {
        Mesh m;
        for (std::uint32_t t = 0; t < 200; ++t) {
            const Point3 a{place(rng), place(rng), place(rng)};
            const Point3 along_it{side(rng), side(rng), side(rng)};
            const Point3 aside{thin * tiny(rng), thin * tiny(rng), thin * tiny(rng)};
            // every corner in turn is the one beside the longest side; one in ten is a point
            std::array<Point3, 3> c{a, plus(a, along_it), plus(plus(a, times(along_it, 0.5 + 0.4 * tiny(rng))), aside)};
            if (t % 10 == 0) c = {a, a, a};
            for (std::uint32_t k = 0; k < 3; ++k) m.points.push_back(c[(k + t) % 3]);
            m.triangles.push_back({3 * t, 3 * t + 1, 3 * t + 2});
        }
        const auto mesh = kept(m);
        const DistanceTree tree(mesh, {width, 1});
        double worst = 0;
        for (int i = 0; i < 300; ++i) {
            const Point3 p{place(rng), place(rng), place(rng)};
            worst = std::max(worst, std::abs(tree.nearest(p, 1e9).distance_mm - bruteForce(*mesh, p)));
        }
        INFO(thin);
        CHECK(worst < 1e-3);
    }
}

TEST_CASE("sixteen feet at once are the feet one by one: place, what of the triangle, and side", "[shape][distance]") {
    const Width width = GENERATE(Width::Auto, Width::Wide16, Width::Wide8, Width::Plain);
    std::mt19937 rng(22);
    std::uniform_real_distribution<double> place(-100, 100);
    std::array<int, 7> met{};
    double worst = 0;
    int unlike = 0;
    for (int i = 0; i < 400; ++i) {
        Mesh m;
        for (int k = 0; k < 3; ++k) m.points.push_back({place(rng), place(rng), place(rng)});
        if (i % 20 == 0) m.points[2] = along(m.points[0], m.points[1], 0.3);
        m.triangles.push_back({0, 1, 2});
        const auto mesh = kept(m);
        const DistanceTree tree(mesh, {width, 1});
        const size_t n = 1 + static_cast<size_t>(rng()) % kernel::run_width;
        std::vector<Point3> points;
        for (size_t k = 0; k < n; ++k) points.push_back({place(rng), place(rng), place(rng)});
        const RigidTransform move = geometry::rigidTransform({3, -7, 11}, 0.2, -0.1, 0.3);
        kernel::Places places = tree.placesOf(move);
        kernel::Run run;
        run.cap = 1e6F;
        kernel::Feet feet;
        tree.lay(points.data(), n, places, run);
        tree.nearestRun(run);
        tree.feet(places, run, feet);
        const Corners c = cornersOf(*mesh, 0);
        const Point3 normal = cross(minus(c[1], c[0]), minus(c[2], c[0]));
        for (size_t k = 0; k < n; ++k) {
            const Point3 p = move.transformed(points[k]);
            const Foot foot = footOn(c, p);
            REQUIRE(run.triangle[k] == 0);
            worst = std::max({worst, std::abs(feet.distance[k] - between(p, foot.at)),
                              between(foot.at, {feet.at[0][k], feet.at[1][k], feet.at[2][k]})});
            if (i % 20 == 0) continue; // of no area: which of its corners or sides it is, is a matter of rounding
            unlike += feet.feature[k] != static_cast<int>(foot.feature);
            unlike += (feet.side[k] > 0) != (dot(normal, minus(p, foot.at)) > 0);
            ++met[static_cast<size_t>(foot.feature)];
        }
    }
    CHECK(worst < 1e-9);
    CHECK(unlike == 0);
    for (const int times_met : met) CHECK(times_met > 20);
}

TEST_CASE("points far from each other and from the surface tell their side each", "[shape][sides]") {
    const DistanceTree tree(kept(box({0, 0, 0}, {2000, 1600, 1200}, 40)));
    const Sides sides(tree);
    std::vector<Point3> points; // 310 mm apart: in a run of them lie both sides of a wall
    for (int x = -5; x <= 5; ++x)
        for (int y = -4; y <= 4; ++y)
            for (int z = -3; z <= 3; ++z) points.push_back({310.0 * x + 11, 310.0 * y - 7, 310.0 * z + 5});
    const DistanceMap map = distancesTo(tree, &sides, ordered(points), {}, 50);
    int far_in = 0, far_out = 0;
    for (size_t i = 0; i < points.size(); ++i) {
        const Point3 p = points[i];
        const bool in = std::abs(p[0]) < 1000 && std::abs(p[1]) < 800 && std::abs(p[2]) < 600;
        CHECK((map.distance_mm[i] < 0) == in);
        (in ? far_in : far_out) += std::abs(map.distance_mm[i]) == 50.0F;
    }
    CHECK(far_in > 50);
    CHECK(far_out > 50);
}

TEST_CASE("points are ordered once each, in runs that lie close together", "[shape][distance]") {
    std::vector<Point3> points;
    for (int x = 0; x < 70; ++x)
        for (int y = 0; y < 41; ++y) points.push_back({10.0 * y, 0.001 * x * y, 10.0 * x});
    const PointOrder order = ordered(points);
    std::vector<bool> seen(points.size(), false);
    for (size_t i = 0; i < points.size(); ++i) {
        REQUIRE_FALSE(seen[order.place[i]]);
        seen[order.place[i]] = true;
        CHECK(order.points[i] == points[order.place[i]]);
    }
    REQUIRE(order.runs.size() == (points.size() + 15) / 16);
    // four by four is 21 mm round its middle, two by eight 35
    double sum = 0;
    for (const PointOrder::Ball& b : order.runs) {
        sum += b.radius;
        CHECK(b.radius < 60);
    }
    CHECK(sum / static_cast<double>(order.runs.size()) < 27);
    CHECK(ordered({{1, 2, 3}}).runs.size() == 1);
}

TEST_CASE("signed distances of a ball follow its radius", "[shape][sides]") {
    const Mesh m = ball(200, 90);
    const DistanceTree tree(kept(m));
    const Sides sides(tree);
    REQUIRE(sides.all());
    CHECK(sides.pieces().size() == 1);
    CHECK(sides.pieces()[0].volume_mm3 == Approx(4.0 / 3 * std::numbers::pi * 8e6).epsilon(0.003));
    std::mt19937 rng(3);
    std::uniform_real_distribution<double> place(-320, 320);
    std::vector<Point3> points;
    for (int i = 0; i < 4000; ++i) points.push_back({place(rng), place(rng), place(rng)});
    const DistanceMap map = distancesTo(tree, &sides, ordered(points), {}, 60);
    REQUIRE(map.has_inside);
    for (size_t i = 0; i < points.size(); ++i)
        CHECK(map.distance_mm[i] == Approx(std::clamp(length(points[i]) - 200, -60.0, 60.0)).margin(0.2));
}

TEST_CASE("what is inside any of several overlapping pieces is inside", "[shape][sides]") {
    // a rail with a crossmember running into it, wound as they should be, and one of them inside out
    const Mesh rail = box({0, 0, 0}, {1000, 60, 100}, 9);
    const Mesh cross = box({0, 200, 0}, {60, 400, 60}, 11);
    for (const Mesh& m : {both(rail, cross), both(turnedOut(rail), cross), both(rail, turnedOut(cross))}) {
        const DistanceTree tree(kept(m));
        const Sides sides(tree);
        std::mt19937 rng(8);
        std::uniform_real_distribution<double> x(-100, 100), y(-60, 420), z(-80, 80);
        std::vector<Point3> points;
        for (int i = 0; i < 3000; ++i) points.push_back({x(rng), y(rng), z(rng)});
        const DistanceMap map = distancesTo(tree, &sides, ordered(points), {}, 15);
        int wrong = 0;
        for (size_t i = 0; i < points.size(); ++i) {
            const Point3& p = points[i];
            const bool in_rail = std::abs(p[1]) < 30 && std::abs(p[2]) < 50;
            const bool in_cross = std::abs(p[0]) < 30 && p[1] > 0 && p[1] < 400 && std::abs(p[2]) < 30;
            wrong += (in_rail || in_cross) != (map.distance_mm[i] < 0);
        }
        CHECK(wrong == 0);
    }
}

TEST_CASE("a cavity is outside, an open sheet has no side, and a box of repeated corners has an inside", "[shape][sides]") {
    const Mesh hollow = both(box({0, 0, 0}, {100, 100, 100}), turnedOut(box({0, 0, 0}, {80, 80, 80})));
    CHECK(signedAt(hollow, {45, 0, 0}) == Approx(-5));
    CHECK(signedAt(hollow, {30, 0, 0}) == Approx(10));
    CHECK(signedAt(hollow, {0, 0, 0}, 5) == Approx(5));
    CHECK(signedAt(hollow, {70, 0, 0}) == Approx(20));

    Mesh sheet = box({0, 0, 0}, {100, 100, 100});
    sheet.triangles.pop_back();
    CHECK(signedAt(sheet, {0, 0, 0}) == Approx(50));
    const DistanceTree tree(kept(sheet));
    CHECK_FALSE(Sides(tree).any());

    // an open sheet beside a closed box: the box keeps its inside
    Mesh with_sheet = box({0, 0, 0}, {100, 100, 100});
    Mesh plate;
    plate.points = {{-20, -20, 10}, {20, -20, 10}, {0, 20, 10}};
    plate.triangles = {{0, 1, 2}};
    CHECK(signedAt(both(with_sheet, plate), {0, 0, 12}) == Approx(-2));
    CHECK(signedAt(both(with_sheet, plate), {0, 0, 60}) == Approx(10));

    Mesh repeated;
    for (const Mesh whole = box({0, 0, 0}, {100, 100, 100}); const Triangle& t : whole.triangles) {
        const auto i = static_cast<std::uint32_t>(repeated.points.size());
        for (const std::uint32_t p : t) repeated.points.push_back(whole.points[p]);
        repeated.triangles.push_back({i, i + 1, i + 2});
    }
    CHECK(signedAt(repeated, {40, 0, 0}) == Approx(-10));
    CHECK(signedAt(repeated, {40, 44, 43}) == Approx(-6));
    CHECK(signedAt(repeated, {60, 60, 60}) == Approx(std::sqrt(300)));
    CHECK(signedAt(repeated, {0, 0, 0}, 30) == Approx(-30)); // deeper than the cap
    // two blocks that touch at a face with shared places stay two closed pieces
    const DistanceTree touching(kept(both(box({0, 0, 0}, {100, 100, 100}), box({100, 0, 0}, {100, 100, 100}))));
    CHECK(Sides(touching).all());
    CHECK(Sides(touching).inside({49.999, 0, 0}));
    CHECK(Sides(touching).inside({120, 0, 0}));
    CHECK_FALSE(Sides(touching).inside({50, 0, 51}));
}

TEST_CASE("inside by nearest place agrees with the winding number", "[shape][sides]") {
    Mesh m = both(ball(150, 24), box({120, 30, -20}, {200, 90, 70}, 25));
    m = both(m, box({-100, 0, 0}, {60, 500, 40}, 30));
    const DistanceTree tree(kept(m));
    const Sides sides(tree);
    std::mt19937 rng(12);
    std::uniform_real_distribution<double> place(-260, 260);
    int in = 0, unlike = 0;
    for (int i = 0; i < 5000; ++i) {
        const Point3 p{place(rng), place(rng), place(rng)};
        const bool by_winding = sides.winding(p) > 0;
        in += by_winding;
        unlike += sides.inside(p) != by_winding;
    }
    CHECK(in > 300);
    CHECK(unlike == 0);
}

} // namespace shape_distance_test
