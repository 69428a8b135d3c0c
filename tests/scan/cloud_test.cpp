#include "scan/cloud.hpp"
#include "scan/markers.hpp"
#include "scan/midplane.hpp"
#include "sim/car_meshes.hpp"
#include "sim/scanner.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <numbers>
#include <random>

namespace scan_cloud_test {

using namespace gorvet;
using namespace gorvet::scan;
using geometry::between;
using geometry::dot;
using geometry::plus;
using geometry::times;

TEST_CASE("a thinned scan keeps its own points, none farther than the bound from what went", "[scan][cloud]") {
    const Mesh shell = sim::bodyShell(30);
    for (const double bound : {25.0, 70.0, 300.0}) {
        const Downsampled t = downsampled(shell, bound);
        CHECK(t.mesh.points.size() < shell.points.size());
        CHECK(t.mesh.points.size() > 20);
        const Neighbours near(t.mesh.points);
        double worst = 0;
        for (const Point3& p : shell.points) worst = std::max(worst, near.nearest(p, 1e9).distance_mm);
        CHECK(worst <= bound);
        for (const shape::Triangle& q : t.mesh.triangles) CHECK((q[0] != q[1] && q[1] != q[2] && q[2] != q[0]));
    }
    CHECK(downsampled({}, 10).mesh.points.empty());
}

TEST_CASE("the nearest within a reach is the nearest of all, or there is none so near", "[scan][cloud]") {
    std::mt19937 rng(43);
    std::uniform_real_distribution<double> place(-500, 500), reach(1, 120);
    std::vector<Point3> points;
    for (int i = 0; i < 3000; ++i) points.push_back({place(rng), place(rng), place(rng)});
    for (int i = 0; i < 50; ++i) points.push_back(points[0]); // lies on another
    const Neighbours near(points);
    int found = 0, none = 0;
    for (int round = 0; round < 2000; ++round) {
        const Point3 p = round == 0 ? points[0] : Point3{place(rng), place(rng), place(rng)};
        double least = 1e9;
        for (const Point3& q : points) least = std::min(least, between(p, q));
        const auto n = near.nearest(p, round % 2 ? least * (1 + 1e-12) : reach(rng)); // just within it
        if (n.point == Neighbours::none) {
            ++none;
            CHECK(n.distance_mm < least);
        } else {
            ++found;
            CHECK(n.distance_mm == Approx(least).margin(1e-12));
            CHECK(between(points[n.point], p) == Approx(least).margin(1e-12));
        }
    }
    CHECK(found > 1100);
    CHECK(none > 200);
    CHECK(near.nearest(points[0], 1).point == 0);
    CHECK(Neighbours({}).nearest({0, 0, 0}, 10).point == Neighbours::none);
}

TEST_CASE("strays go, the surface stays; normals of a ball point outwards when the eye does", "[scan][cloud]") {
    std::mt19937 rng(2);
    std::normal_distribution<double> any(0, 1);
    std::uniform_real_distribution<double> far(300, 900);
    std::vector<Point3> points;
    for (int i = 0; i < 4000; ++i) points.push_back(times(geometry::unit({any(rng), any(rng), any(rng)}), 200));
    for (int i = 0; i < 40; ++i) points.push_back(times(geometry::unit({any(rng), any(rng), any(rng)}), far(rng)));
    const auto kept = withoutOutliers(points);
    size_t surface = 0, strays = 0;
    for (const std::uint32_t i : kept) ++(i < 4000 ? surface : strays);
    CHECK(surface > 3900);
    CHECK(strays <= 2);

    std::vector<Point3> ball(points.begin(), points.begin() + 4000);
    const Normals n = normalsOf(ball, 16);
    int rims = 0;
    for (size_t i = 0; i < ball.size(); ++i) {
        CHECK(std::abs(dot(n.normal[i], geometry::unit(ball[i]))) > 0.98);
        rims += n.on_boundary[i];
    }
    CHECK(rims < 600); // a ball has none; by chance some points lie unevenly
    const Point3 eye{0, 0, 5000};
    const Normals seen = normalsOf(ball, 16, eye);
    for (size_t i = 0; i < ball.size(); ++i)
        if (ball[i][2] > 100) CHECK(seen.normal[i][2] > 0);
}

TEST_CASE("the rim of a plate is known as one", "[scan][cloud]") {
    std::vector<Point3> plate;
    for (int i = 0; i < 40; ++i)
        for (int j = 0; j < 40; ++j) plate.push_back({10.0 * i + 0.7 * (j % 3), 10.0 * j + 0.4 * (i % 5), 0});
    const Normals n = normalsOf(plate, 14);
    for (int i = 0; i < 40; ++i)
        for (int j = 0; j < 40; ++j) {
            const bool edge = i == 0 || j == 0 || i == 39 || j == 39;
            if (edge)
                CHECK(n.on_boundary[static_cast<size_t>(40 * i + j)]);
            else if (i > 2 && j > 2 && i < 37 && j < 37)
                CHECK_FALSE(n.on_boundary[static_cast<size_t>(40 * i + j)]);
        }
}

TEST_CASE("a wrong unit is told from a known distance, and which one would fit", "[scan][cloud]") {
    const auto right = checkUnit({0, 0, 0}, {2784, 0, 0}, 2790, "mm");
    REQUIRE(right);
    CHECK(right->good);
    const auto inches = checkUnit({0, 0, 0}, {109.8, 0, 0}, 2790, "mm");
    CHECK_FALSE(inches->good);
    CHECK_THAT(inches->words, Catch::Contains("in would fit"));
    CHECK_THAT(checkUnit({0, 0, 0}, {27.9, 0, 0}, 2790, "in")->words,
               Catch::Contains("No usual unit") || Catch::Contains("would fit"));
    CHECK_THAT(checkUnit({0, 0, 0}, {1234, 0, 0}, 2790, "mm")->words, Catch::Contains("No usual unit"));
    CHECK_FALSE(checkUnit({0, 0, 0}, {0, 0, 0}, 2790, "mm"));
    CHECK_FALSE(checkUnit({0, 0, 0}, {1, 0, 0}, -4, "mm"));
}

TEST_CASE("marker balls are found in a scan of the car, and matched between two by their distances", "[scan][markers]") {
    std::mt19937 rng(4711);
    const sim::Markers markers = sim::markersAround(8, rng);
    Mesh scene = sim::bodyShell(25);
    append(scene, markers.mesh);
    const shape::DistanceTree tree(std::make_shared<const Mesh>(std::move(scene)));
    sim::ScannerSettings settings;
    settings.step_rad = 0.0022;
    settings.stray_share = 0.02;
    const RigidTransform away = geometry::rigidTransform({900, -400, 120}, 0.8, 0.03, -0.02);
    std::vector<std::vector<Point3>> centres;
    for (const Point3 eye : {Point3{-2400, -2600, 1600}, Point3{4600, -2900, 1700}}) {
        const auto found = findMarkers(scanFrom(tree, eye, settings, rng).points, sim::marker_radius_mm);
        // every one that is found is one that is there
        for (const Marker& m : found) {
            double off = 1e9;
            for (const Point3& c : markers.centres) off = std::min(off, between(c, m.centre));
            CHECK(off < 1.0);
        }
        CHECK(found.size() >= 4);
        centres.emplace_back();
        for (const Marker& m : found) centres.back().push_back(centres.size() == 2 ? away.transformed(m.centre) : m.centre);
    }
    const auto matched = matchMarkers(centres[1], centres[0]);
    REQUIRE(matched);
    CHECK(matched->pairs.size() >= 3);
    CHECK(matched->laid.rms_mm < 1);
    const Point3 place = away.transformed({1300, 0, 700});
    CHECK(between(matched->laid.motion.transformed(place), {1300, 0, 700}) < 2);
}

TEST_CASE("markers at the corners of a square match in more than one way, and that is said; a moved one is left out",
          "[scan][markers]") {
    const std::vector<Point3> square{{0, 0, 0}, {1000, 0, 0}, {1000, 1000, 0}, {0, 1000, 0}};
    const auto turned = matchMarkers(square, square);
    REQUIRE(turned);
    CHECK_FALSE(turned->only_one);
    std::vector<Point3> odd{{0, 0, 0}, {1300, 0, 0}, {1000, 1100, 200}, {0, 700, 500}, {600, 300, 900}};
    const RigidTransform m = geometry::rigidTransform({50, 60, 70}, 1, 0.2, 0.1);
    std::vector<Point3> there;
    for (const Point3& p : odd) there.push_back(m.transformed(p));
    there[4] = plus(there[4], {40, 0, 0}); // someone kicked it
    std::swap(there[0], there[2]);
    const auto matched = matchMarkers(odd, there);
    REQUIRE(matched);
    CHECK(matched->only_one);
    CHECK(matched->pairs.size() == 4);
    CHECK(apart(matched->laid.motion, m, {500, 500, 300}).shift_mm < 1e-6);
    // mirror images have the same distances and are no match
    std::vector<Point3> mirrored;
    for (const Point3& p : odd) mirrored.push_back({p[0], -p[1], p[2]});
    const auto never = matchMarkers(odd, mirrored);
    CHECK((!never || never->pairs.size() < 4));
    CHECK_FALSE(matchMarkers({{0, 0, 0}}, odd));
}

TEST_CASE("the point of the survey that disagrees with the rest is named and does not pull the scan", "[scan][survey]") {
    std::mt19937 rng(9);
    std::normal_distribution<double> noise(0, 0.6);
    const RigidTransform truth = geometry::rigidTransform({300, -200, 80}, 0.4, 0.02, -0.05);
    std::vector<PickedPoint> points;
    for (int i = 0; i < 10; ++i) {
        PickedPoint p;
        p.name = "P" + std::to_string(i);
        p.picked = {300.0 * i, i % 2 ? 500.0 : -480.0, 60.0 * (i % 3)};
        p.surveyed = plus(truth.transformed(p.picked), {noise(rng), noise(rng), noise(rng)});
        points.push_back(p);
    }
    points[6].surveyed[1] += 14;
    const auto on = layOnSurvey(points);
    REQUIRE(on);
    for (size_t i = 0; i < points.size(); ++i) CHECK(on->points[i].left_out == (i == 6));
    CHECK(on->points[6].off_mm == Approx(14).margin(3));
    CHECK(apart(on->laid.motion, truth, {1300, 0, 0}).shift_mm < 1);
    CHECK_THAT(on->points[6].words, Catch::Contains("P6") && Catch::Contains("tape it again"));
}

TEST_CASE("the mid-plane of a scanned shell is found, and a low sill is told", "[scan][midplane]") {
    std::mt19937 rng(21);
    std::normal_distribution<double> noise(0, 0.3);
    double worst_off = 0, worst_turn = 0;
    for (int i = 0; i < 6; ++i) {
        Mesh shell = sim::bodyShell(17);
        // as it stands somewhere in the workshop
        const RigidTransform m =
            geometry::rigidTransform({400.0 - 90 * i, -300.0 + 111 * i, 50}, -0.7 + 0.25 * i, 0.01 * i, 0.03 - 0.01 * i);
        for (Point3& p : shell.points) {
            // meshed scans have no two rows of points alike on both sides
            p = m.transformed(plus(p, {noise(rng), noise(rng), noise(rng)}));
        }
        std::vector<Point3> some;
        for (const Point3& p : shell.points)
            if (rng() % 10 < 6) some.push_back(p);
        const auto plane = midPlaneOf(some);
        REQUIRE(plane);
        CHECK(plane->settled);
        const Point3 across = m.rotated({0, 1, 0});
        worst_turn = std::max(worst_turn, std::acos(std::min(1.0, std::abs(dot(across, plane->normal)))));
        worst_off = std::max(worst_off, std::abs(dot(plane->normal, geometry::minus(m.transformed({1300, 0, 700}), plane->at))));
    }
    CHECK(worst_off < 0.2);
    CHECK(worst_turn < 0.02 * std::numbers::pi / 180);

    // the left sill 6 mm down
    std::vector<Point3> points;
    for (Point3 p : sim::bodyShell(17).points) {
        if (p[1] < -630 && p[0] > 480 && p[0] < 2100 && p[2] < 650) p[2] -= 6;
        points.push_back(plus(p, {noise(rng), noise(rng), noise(rng)}));
    }
    const auto plane = midPlaneOf(points, Point3{0, 1, 0});
    REQUIRE(plane);
    const auto map = asymmetry(points, *plane);
    const auto unlike = unlikePlaces(points, *plane, map);
    REQUIRE_FALSE(unlike.empty());
    CHECK(std::abs(unlike[0].by_mm) == Approx(6).margin(0.5));
    CHECK_THAT(unlike[0].words, Catch::Contains("lower than the right"));
    CHECK(unlike[0].box.max.y_mm < 0);
    // and nothing of a shell that is alike
    std::vector<Point3> even;
    for (const Point3& p : sim::bodyShell(17).points) even.push_back(plus(p, {noise(rng), noise(rng), noise(rng)}));
    const auto fair = midPlaneOf(even, Point3{0, 1, 0});
    CHECK(unlikePlaces(even, *fair, asymmetry(even, *fair)).empty());
}

} // namespace scan_cloud_test
