#include "shape/solid.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <map>

namespace shape_solid_test {

using namespace gorvet;
using namespace gorvet::shape;

namespace {

constexpr double pi = 3.14159265358979323846;

Solid made(const Result<Solid>& r) {
    if (!r) FAIL(r.error().text());
    CHECK(isSound(*r));
    return *r;
}

Section box(double w, double h, double t, double corner = 0) { return {Section::Kind::Box, w, h, t, corner}; }
Section pipe(double d, double t) { return {Section::Kind::Round, d, 0, t, 0}; }

/// Section area by hand: outer minus inner, corners (4 − π) r² each time.
double boxAreaOf(double w, double h, double t, double r) {
    const double inner = std::max(0.0, r - t);
    return w * h - (4 - pi) * r * r - ((w - 2 * t) * (h - 2 * t) - (4 - pi) * inner * inner);
}

/// Volume of a triangle mesh by the divergence theorem; also checks that it is closed.
double meshVolume(const Mesh& m) {
    double six = 0;
    for (const auto& [a, b, c] : m.triangles) {
        const auto& p = m.points[a];
        const auto& q = m.points[b];
        const auto& r = m.points[c];
        six += p[0] * (q[1] * r[2] - q[2] * r[1]) - p[1] * (q[0] * r[2] - q[2] * r[0]) + p[2] * (q[0] * r[1] - q[1] * r[0]);
    }
    return six / 6;
}

} // namespace

TEST_CASE("tubes weigh what their section and length say", "[shape]") {
    CHECK(volume(made(tube(box(60, 40, 3), 900))) == Approx(boxAreaOf(60, 40, 3, 0) * 900));
    CHECK(volume(made(tube(box(60, 40, 3, 6), 900))) == Approx(boxAreaOf(60, 40, 3, 6) * 900));
    CHECK(volume(made(tube(box(60, 40, 3, 2), 900))) == Approx(boxAreaOf(60, 40, 3, 2) * 900)); // inside corners sharp
    const Solid round = made(tube(pipe(48.3, 3.2), 1000));
    CHECK(volume(round) == Approx(pi / 4 * (48.3 * 48.3 - 41.9 * 41.9) * 1000));
    CHECK(steelMass(round) == Approx(3.559).margin(0.002)); // 3.56 kg/m, as steel tables have it
    CHECK(centreOfMass(round).x_mm == Approx(500));
    const geometry::Box3 b = bounds(round);
    CHECK(b.min.y_mm == Approx(-24.15).margin(1e-6));
    CHECK(b.max.x_mm == Approx(1000));
    // walls, ends, and the two ring faces
    CHECK(surfaceArea(round) == Approx(pi * 48.3 * 1000 + pi * 41.9 * 1000 + 2 * pi / 4 * (48.3 * 48.3 - 41.9 * 41.9)));
}

TEST_CASE("a plate with holes", "[shape]") {
    const Solid p = made(plate(200, 120, 8, {{30, 30, 13}, {170, 90, 13}}));
    CHECK(volume(p) == Approx((200 * 120 - 2 * pi / 4 * 13 * 13) * 8));
    CHECK(centreOfMass(p).x_mm == Approx(100)); // the holes lie opposite each other
    CHECK(centreOfMass(p).z_mm == Approx(4));
    CHECK_FALSE(plate(200, 120, 8, {{5, 60, 13}}));
    CHECK_FALSE(plate(200, 0, 8));
    CHECK(volume(made(prism({{0, 0}, {60, 0}, {0, 80}}, 5))) == Approx(60 * 80 / 2.0 * 5));
}

TEST_CASE("a bend has the volume that Pappus gives it", "[shape]") {
    const double area = pi / 4 * (42.4 * 42.4 - 36.4 * 36.4);
    const Solid bent = made(bentTube(pipe(42.4, 3), 200, 120, pi / 2, 300));
    CHECK(volume(bent) == Approx(area * (200 + 120 * pi / 2 + 300)));
    const geometry::Box3 b = bounds(bent);
    CHECK(b.max.x_mm == Approx(200 + 120 + 21.2)); // turned up
    CHECK(b.max.z_mm == Approx(120 + 300));
    const Solid square = made(bentTube(box(50, 30, 2, 4), 0, 90, pi / 6, 0));
    CHECK(volume(square) == Approx(boxAreaOf(50, 30, 2, 4) * 90 * pi / 6));
    CHECK_FALSE(bentTube(pipe(42.4, 3), 200, 20, pi / 2, 300));
    CHECK_FALSE(bentTube(pipe(42.4, 3), 200, 120, 4, 300));
}

TEST_CASE("a mitre takes nothing from the length along the middle", "[shape]") {
    const Solid bar = made(tube(box(60, 40, 3, 6), 1000));
    // both ends sawn at 30° through the axis at 100 and 900
    const Solid one = made(sawn(bar, {900, 0, 0}, {std::cos(pi / 6), 0, std::sin(pi / 6)}));
    const Solid both = made(sawn(one, {100, 0, 0}, {-std::cos(pi / 6), 0, std::sin(pi / 6)}));
    CHECK(volume(both) == Approx(boxAreaOf(60, 40, 3, 6) * 800));
    CHECK(bounds(both).max.x_mm - bounds(both).min.x_mm == Approx(800 + 2 * 20 * std::tan(pi / 6)).margin(0.01));
    const auto nothing = sawn(bar, {-10, 0, 0}, {1, 0, 0});
    REQUIRE_FALSE(nothing);
    CHECK(nothing.error().code == Error::Code::Degenerate);
}

TEST_CASE("a cope follows the formula of the wrapped template", "[shape]") {
    // branch of radius 20 at 60° onto a main of radius 30, 5 beside its axis
    const double R = 30;
    const double r = 20;
    const double theta = pi / 3;
    const double e = 5;
    const Solid bar = made(cylinder(r, 200));
    // the main runs through (0, e, 0), its direction θ from the branch's axis, in the branch's own X–Z plane
    const Solid coped_bar = made(coped(bar, R, {0, e, 0}, {std::cos(theta), 0, std::sin(theta)}));
    // volume left of the part x > 0: ∫ over the branch's cross-section of (200 − x(y, z)), with
    // x = (√(R² − (y − e)²) + z cos θ)/sin θ on the branch's side (engineering.md, Make)
    double left = 0;
    constexpr int n = 1500;
    const double cell = 2 * r / n;
    for (int i = 0; i < n; ++i)
        for (int k = 0; k < n; ++k) {
            const double y = -r + (i + 0.5) * cell;
            const double z = -r + (k + 0.5) * cell;
            if (y * y + z * z > r * r) continue;
            left += (200 - (std::sqrt(R * R - (y - e) * (y - e)) + z * std::cos(theta)) / std::sin(theta)) * cell * cell;
        }
    CHECK(volume(coped_bar) == Approx(left).epsilon(2e-3));
    CHECK_FALSE(coped(bar, 0, {}, {1, 0, 0}));
}

TEST_CASE("union, cut, shared volume and distance", "[shape]") {
    const Solid a = made(prism({{0, 0}, {100, 0}, {100, 100}, {0, 100}}, 100));
    const Solid b = placed(a, {{60, 0, 0}, {1, 0, 0}, {0, 1, 0}});
    CHECK(*sharedVolume(a, b) == Approx(40 * 100 * 100));
    CHECK(volume(made(unite({a, b}))) == Approx(160 * 100 * 100));
    CHECK(volume(made(cut(a, b))) == Approx(60 * 100 * 100));
    CHECK(*leastDistance(a, b) == 0);
    const Solid far = placed(a, {{130, 140, 0}, {1, 0, 0}, {0, 1, 0}});
    CHECK(*leastDistance(a, far) == Approx(50));
    CHECK(*sharedVolume(a, far) == 0);
    CHECK_FALSE(unite({}));
    CHECK_FALSE(cut(a, a)); // nothing is left
    // a frame turns as it says: local x to vehicle up, local y to the left
    const Solid bar = placed(made(tube(box(10, 20, 1), 100)), {{5, 6, 7}, {0, 0, 2}, {0, -3, 0}});
    CHECK(bounds(bar).max.z_mm == Approx(107));
    CHECK(bounds(bar).max.y_mm == Approx(11));
    CHECK(bounds(bar).max.x_mm == Approx(15)); // its height, 20, runs along x × y
}

TEST_CASE("a mesh encloses the volume of its solid", "[shape]") {
    const Solid bent = made(bentTube(pipe(42.4, 3), 50, 100, pi / 3, 60));
    const Mesh fine = mesh(bent, 0.02);
    CHECK(meshVolume(fine) == Approx(volume(bent)).epsilon(5e-3));
    const Solid p = placed(made(plate(80, 50, 6, {{40, 25, 20}})), {{10, 20, 30}, {0, 1, 0}, {0, 0, 1}});
    const Mesh m = mesh(p, 0.01);
    CHECK(meshVolume(m) == Approx(volume(p)).epsilon(1e-3));
    for (const auto& v : m.points) CHECK((v[0] > 9.99 && v[0] < 16.01));
}

TEST_CASE("sizes that make nothing are refused in words", "[shape]") {
    const auto refused = tube(box(60, 40, 25), 100);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().message == "A tube of these sizes can't be made: its wall must be above 0 and below half its outside.");
    CHECK_FALSE(tube(box(60, 40, 3, 20), 100));
    CHECK_FALSE(tube(pipe(40, 0), 100));
    CHECK_FALSE(tube(pipe(40, 2), -1));
    CHECK_FALSE(tube(pipe(40, 2), std::nan("")));
    CHECK_FALSE(cylinder(0, 1));
}

TEST_CASE("STEP files are read by another program, with the same volumes", "[shape][step]") {
    const auto folder = test::freshFolder("shape-step");
    const Solid a = made(tube(box(60, 40, 3, 6), 900));
    const Solid b = placed(made(plate(200, 120, 8, {{30, 30, 13}})), {{0, 300, 0}, {1, 0, 0}, {0, 1, 0}});
    const auto file = folder / "parts.step";
    REQUIRE(writeStep({{"bridge", a}, {"flange left", b}}, file));
    const auto read = test::stepVolumes(file);
    REQUIRE(read.size() == 2);
    CHECK(read[0] == Approx(volume(a)).epsilon(1e-5));
    CHECK(read[1] == Approx(volume(b)).epsilon(1e-5));
    const std::string text = test::fileText(file);
    CHECK(text.find("'flange left") != std::string::npos);
    CHECK(text.find(".MILLI.,.METRE.") != std::string::npos);
    // two alike, moved, of one part, and another: an assembly in the assembly, each by its name and in its part's colour
    const Solid c = placed(b, {{0, 0, 200}, {1, 0, 0}, {0, 1, 0}});
    const auto whole = folder / "whole.step";
    REQUIRE(writeStep({{"ear 1", b, "part ears"}, {"ear 2", c, "part ears"}, {"bridge", a, "part brace"}}, whole, "the build"));
    const auto again = test::stepVolumes(whole);
    REQUIRE(again.size() == 3);
    double sum = 0;
    for (const double v : again) sum += v;
    CHECK(sum == Approx(2 * volume(b) + volume(a)).epsilon(1e-5));
    const std::string written = test::fileText(whole);
    const auto times = [&](const std::string& what) {
        std::size_t n = 0;
        for (auto at = written.find(what); at != std::string::npos; at = written.find(what, at + 1)) ++n;
        return n;
    };
    for (const char* product : {"the build", "part ears", "part brace", "ear 1", "ear 2", "bridge"}) {
        INFO(product);
        CHECK(times(std::string("PRODUCT('") + product + "'") == 1);
    }
    CHECK(times("NEXT_ASSEMBLY_USAGE_OCCURRENCE(") == 5); // two parts in the whole, three solids in these
    CHECK(times("STYLED_ITEM(") == 3);
    CHECK(times("COLOUR_RGB(") >= 2);
    CHECK_FALSE(writeStep({{"x", a}}, folder / "no" / "such.step"));
    CHECK_FALSE(writeStep({}, file));
}

} // namespace shape_solid_test
