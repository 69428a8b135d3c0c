#include "sim/car_meshes.hpp"
#include "sim/mesh_maker.hpp"
#include "sit/clearance.hpp"
#include "sit/cut_map.hpp"

#include <catch2/catch.hpp>

#include <numbers>
#include <random>

namespace sit_clearance_test {

using namespace gorvet;
using namespace gorvet::sit;
using geometry::between;
using shape::Mesh;

namespace {

Ready ready(Mesh m) { return readyOf(std::make_shared<const Mesh>(std::move(m))); }
Mesh box(const Point3& middle, const Point3& size, double step = 1e9) {
    Mesh m;
    sim::addBox(m, step, middle, size);
    return m;
}
Mesh ball(double radius, const Point3& middle, int n) {
    Mesh m;
    std::vector<std::array<double, 2>> outline;
    for (int i = 0; i <= n; ++i) {
        const double a = std::numbers::pi * i / n;
        outline.push_back({-radius * std::cos(a), i == 0 || i == n ? 0 : radius * std::sin(a)});
    }
    sim::addTurned(m, radius / n, middle, outline);
    return m;
}
/// A sheet of two triangles in the plane z = height.
Mesh sheet(double half_x, double half_y, double height) {
    Mesh m;
    m.points = {{-half_x, -half_y, height}, {half_x, -half_y, height}, {half_x, half_y, height}, {-half_x, half_y, height}};
    m.triangles = {{0, 1, 2}, {0, 2, 3}};
    return m;
}
RigidTransform shifted(double x, double y, double z) { return geometry::rigidTransform({x, y, z}, 0, 0, 0); }

} // namespace

TEST_CASE("a ball cut by a sheet gives one closed circle, by two balls too", "[shape][crossing]") {
    const Ready b = ready(ball(200, {0, 0, 0}, 60));
    Mesh grid;
    sim::addGrid(grid, 17, [](double u, double v) { return Point3{600 * u - 300, 600 * v - 300, 40}; });
    const Ready plate = ready(grid);
    const auto c = shape::crossings(*plate.tree, *b.tree, {});
    REQUIRE(c.lines.size() == 1);
    CHECK(c.lines[0].closed);
    CHECK(length(c.lines[0]) == Approx(2 * std::numbers::pi * std::sqrt(200.0 * 200 - 40 * 40)).epsilon(0.002));
    for (const Point3& p : c.lines[0].places) {
        CHECK(p[2] == Approx(40).margin(1e-9));
        CHECK(geometry::length(p) == Approx(200).margin(0.2));
    }
    const Ready other = ready(ball(150, {0, 0, 0}, 40));
    const auto lens = shape::crossings(*other.tree, *b.tree, geometry::rigidTransform({220, 30, -20}, 0.3, 0.1, 0.2));
    REQUIRE(lens.lines.size() == 1);
    CHECK(lens.lines[0].closed);
    const double d = std::sqrt(220.0 * 220 + 900 + 400);
    const double a = (d * d + 200.0 * 200 - 150.0 * 150) / (2 * d);
    CHECK(length(lens.lines[0]) == Approx(2 * std::numbers::pi * std::sqrt(200.0 * 200 - a * a)).epsilon(0.003));
    CHECK(shape::crossings(*other.tree, *b.tree, shifted(0, 0, 900)).lines.empty());
}

TEST_CASE("lines of the demo pair close or end at the sheet's rim, whatever the threads", "[shape][crossing]") {
    const Ready body = ready(sim::bodyShell(30));
    const Ready frame = ready(sim::ladderFrame(25));
    const sim::BodyPlace p = sim::bodyPlace();
    const RigidTransform m = geometry::rigidTransform({p.shift[0], p.shift[1], p.shift[2] - 25}, 0, p.pitch_rad, 0);
    const auto one = shape::crossings(*body.tree, *frame.tree, m, 1);
    const auto two = shape::crossings(*body.tree, *frame.tree, m, 2);
    REQUIRE(one.lines.size() > 5);
    REQUIRE(one.lines.size() == two.lines.size());
    for (size_t i = 0; i < one.lines.size(); ++i) CHECK(one.lines[i].places == two.lines[i].places);
    for (const auto& l : one.lines) CHECK((l.closed || l.places.size() > 1));
}

TEST_CASE("the least distance of two bodies is exact: balls, and bars that cross in the air", "[shape][closest]") {
    const Ready a = ready(ball(100, {0, 0, 0}, 80)), b = ready(ball(70, {0, 0, 0}, 80));
    const auto c = shape::closest(*a.tree, *b.tree, shifted(140, -90, 120), 500);
    CHECK(c.least_mm == Approx(std::sqrt(140.0 * 140 + 90 * 90 + 120 * 120) - 170).margin(0.15));
    // two bars, one above the other: their sides are nearest, no corner of either is
    const Ready lower = ready(box({0, 0, 0}, {2000, 40, 40})), upper = ready(box({0, 0, 0}, {40, 2000, 40}));
    const auto bars = shape::closest(*upper.tree, *lower.tree, geometry::rigidTransform({3, 5, 52.5}, 0.4, 0, 0), 500);
    CHECK(bars.least_mm == Approx(12.5).margin(1e-9));
    const Ready knife = ready(box({0, 0, 0}, {2000, 30, 30}));
    const auto edges =
        shape::closest(*knife.tree, *lower.tree, geometry::rigidTransform({0, 0, 80}, 1.1, 0, std::numbers::pi / 4), 500);
    CHECK(edges.least_mm == Approx(80 - 20 - 30 / std::numbers::sqrt2).margin(1e-9));
    CHECK(shape::closest(*a.tree, *b.tree, shifted(1000, 0, 0), 100).least_mm > 100);
    CHECK(shape::closest(*a.tree, *b.tree, shifted(50, 0, 0), 100).least_mm == 0);
}

TEST_CASE("a rail through the middle of a large sheet touches no point of it and is found all the same", "[sit][clearance]") {
    const Ready floor = ready(sheet(900, 900, 0));
    const Ready rail = ready(box({0, 0, 0}, {300, 60, 100}));
    Need need;
    need.least_mm = 10;
    const auto c = clearance(floor, rail, shifted(0, 0, 20), need);
    REQUIRE(c);
    CHECK(c->live.fouls == 0); // the points see nothing
    CHECK(c->meets);
    CHECK(c->least_mm == Approx(-30).margin(1)); // the sheet's deepest place is in the middle of the rail's width
    REQUIRE(c->contacts.size() == 1);
    CHECK(c->contacts[0].band == Band::Fouls);
    CHECK(c->depth_known);
    // above it by less than the least clearance: nothing meets, and it fouls
    const auto above = clearance(floor, rail, shifted(0, 0, 56), need);
    CHECK_FALSE(above->meets);
    CHECK(above->least_mm == Approx(6).margin(1e-6));
    REQUIRE(above->contacts.size() == 1);
    CHECK(above->contacts[0].band == Band::Fouls);
    CHECK(clearance(floor, rail, shifted(0, 0, 62), need)->contacts[0].band == Band::Tight);
    CHECK(clearance(floor, rail, shifted(0, 0, 66), need)->contacts.empty());
    // two open sheets: they meet, how deep can't be said
    Mesh upright = sheet(50, 50, 0);
    for (Point3& p : upright.points) p = {p[0], 0, p[1]};
    const auto open = clearance(floor, ready(upright), {}, need);
    CHECK(open->meets);
    CHECK_FALSE(open->depth_known);
    CHECK_FALSE(open->live.map.has_inside);
}

TEST_CASE("finish and ± are taken off before the verdict; what is wholly inside fouls", "[sit][clearance]") {
    Need need;
    need.least_mm = 10;
    CHECK(need.band(12) == Band::Tight);
    CHECK(need.band(16) == Band::Clear);
    need.finish_mm = 5;
    CHECK(need.band(14.9) == Band::Fouls);
    need.u95_mm = 2;
    CHECK(need.band(16.9) == Band::Fouls);
    CHECK(need.band(21.9) == Band::Tight);
    CHECK(need.band(22) == Band::Clear);

    const Ready tank = ready(box({0, 0, 0}, {400, 400, 400}, 50));
    const Ready bolt = ready(box({0, 0, 0}, {20, 20, 20}));
    Need plain;
    CHECK(clearance(bolt, tank, shifted(150, 0, 0), plain)->least_mm == Approx(-60).margin(1.01));
    CHECK(clearance(bolt, tank, {}, plain)->least_mm == Approx(-100).margin(1e-6)); // deeper than the cap
    const auto around = clearance(tank, bolt, shifted(0, 0, 150), plain);
    CHECK(around->least_mm < 0); // the moving one holds the other
    CHECK_FALSE(around->contacts.empty());
}

TEST_CASE("stopping a clearance gives nothing", "[sit][clearance]") {
    const Ready body = ready(sim::bodyShell(40)), frame = ready(sim::ladderFrame(40));
    CHECK_FALSE(clearance(body, frame, {}, {}, 2, [] { return true; }));
}

TEST_CASE("what is cut from a floor over a rail is the rail's outline, grown", "[sit][cut]") {
    Mesh floor;
    sim::addGrid(floor, 60, [](double u, double v) { return Point3{2000 * u - 1000, 1000 * v - 500, 0}; });
    const Ready body = ready(floor);
    const Ready rail = ready(box({0, 0, 0}, {800, 60, 100}, 40));
    CutOptions o;
    o.need.least_mm = 10;
    o.margin_mm = 15;
    o.fineness_mm = 4;
    const auto map = cutMap(body, rail, shifted(0, 0, 10), o);
    REQUIRE(map);
    REQUIRE(map->cuts.size() == 1);
    const Cut& c = map->cuts[0];
    REQUIRE(c.lines.size() == 1);
    CHECK(c.lines[0].line.closed);
    // the rail's 800 × 60 grown by 25 all round, with round corners
    const double grown = 25;
    const double area = 800 * 60 + 2 * grown * 860 + std::numbers::pi * grown * grown;
    const double round = 2 * (800 + 60) + 2 * std::numbers::pi * grown;
    CHECK(c.area_mm2 == Approx(area).epsilon(0.01));
    CHECK(c.lines[0].length_mm == Approx(round).epsilon(0.01));
    CHECK(c.lines[0].off_mm <= 2 * o.smooth_mm);
    CHECK(c.mass_kg == Approx(area * 0.9 * 7.85e-6).epsilon(0.01));
    CHECK(c.flat);
    CHECK(c.deepest_mm < 0);
    CHECK(c.box.min.x_mm == Approx(-425).margin(5));
    CHECK(c.box.max.y_mm == Approx(55).margin(5));
    // no place of the line is nearer to the rail than wanted
    for (const Point3& p : placesAlong(c.lines[0])) {
        const double d = rail.tree->nearest(p, 1000).distance_mm;
        CHECK(d > 10 + 15 - 4);
    }
    const auto flat = flattened(c);
    double length_flat = 0;
    for (size_t i = 0; i < flat[0].size(); ++i) {
        const auto &a = flat[0][i], &b = flat[0][(i + 1) % flat[0].size()];
        length_flat += std::hypot(b[0] - a[0], b[1] - a[1]);
    }
    CHECK(length_flat == Approx(c.lines[0].length_mm).epsilon(1e-6));
}

TEST_CASE("zones forbid a cut or ask for a brace first, and set the order", "[sit][cut]") {
    Mesh floor;
    sim::addGrid(floor, 40, [](double u, double v) { return Point3{2000 * u - 1000, 1000 * v - 500, 0}; });
    const Ready body = ready(floor);
    Mesh three = box({-700, 0, 0}, {100, 60, 60}, 40);
    for (const double x : {0.0, 700.0}) append(three, box({x, 0, 0}, {100, 60, 60}, 40));
    const Ready frame = ready(three);
    CutOptions o;
    o.margin_mm = 20;
    o.flange_mm = 12;
    o.zones = {{"number-plate", ZoneKind::Never, {{-800, -50, -10}, {-650, 50, 10}}},
               {"sill", ZoneKind::Brace, {{-60, -500, -10}, {60, 500, 10}}},
               {"tunnel", ZoneKind::Named, {{600, -50, -10}, {800, 50, 10}}}};
    const auto map = cutMap(body, frame, {}, o);
    REQUIRE(map);
    REQUIRE(map->cuts.size() == 3);
    CHECK(map->cuts[0].crosses == std::vector<std::string>{"tunnel"});
    CHECK(map->cuts[1].brace == std::vector<std::string>{"sill"});
    CHECK_FALSE(map->cuts[2].allowed());
    CHECK(map->cuts[2].never == std::vector<std::string>{"number-plate"});
    CHECK(map->remarks.size() == 2);
    for (const Cut& c : map->cuts) {
        REQUIRE(c.rough.size() == 1);
        CHECK(c.rough[0].length_mm < c.lines[0].length_mm); // the flange stands inside the finished edge
    }
    // nothing near: nothing to cut. A flange wider than the margin would foul
    CHECK(cutMap(body, frame, shifted(0, 0, 500), o)->cuts.empty());
    o.flange_mm = 30;
    const auto refused = cutMap(body, frame, {}, o);
    REQUIRE_FALSE(refused);
    CHECK_THAT(refused.error().message, Catch::Contains("flange_mm = 30"));
}

TEST_CASE("a cut that reaches the sheet's own edge is an open line", "[sit][cut]") {
    Mesh floor;
    sim::addGrid(floor, 30, [](double u, double v) { return Point3{1000 * u, 600 * v - 300, 0}; });
    CutOptions o;
    o.margin_mm = 5;
    const auto map = cutMap(ready(floor), ready(box({0, 0, 0}, {300, 60, 100}, 40)), {}, o);
    REQUIRE(map);
    REQUIRE(map->cuts.size() == 1);
    REQUIRE(map->cuts[0].lines.size() == 1);
    CHECK_FALSE(map->cuts[0].lines[0].line.closed);
    CHECK(map->cuts[0].area_mm2 == Approx(150 * 60 + 15 * (60 + 300) + std::numbers::pi * 15 * 15 / 2).epsilon(0.03));
}

TEST_CASE("the place on the chassis lies on the chassis, open or closed, however deep the other lies in it", "[sit][clearance]") {
    Need need;
    need.cap_mm = 300;
    // a closed box that a single open sheet cuts: the place was once as far off as the box is deep
    const Ready open = ready(sheet(800, 500, 40));
    for (const double z : {-150.0, -60.0, 20.0, 90.0, 200.0}) {
        const Ready moving = ready(box({0, 0, 0}, {300, 200, 180}, 40));
        const auto c = clearance(moving, open, shifted(30, -20, z), need, 1);
        REQUIRE(c);
        if (c->least_mm >= need.cap_mm) continue;
        INFO(z);
        CHECK(c->at_fixed[2] == Approx(40).margin(1e-3));
        CHECK(std::abs(c->at_fixed[0]) <= 800.001);
    }
    const Ready closed = ready(ball(200, {0, 0, 0}, 60));
    const Ready small = ready(box({0, 0, 0}, {40, 40, 40}));
    for (const double x : {0.0, 60.0, 150.0, 260.0}) {
        const auto c = clearance(small, closed, shifted(x, 5, 3), need, 1);
        REQUIRE(c);
        CHECK(geometry::length(c->at_fixed) == Approx(200).margin(1.0));
    }
}

} // namespace sit_clearance_test
