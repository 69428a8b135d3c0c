#include "analysis/kept_cuts.hpp"
#include "analysis/overlay_clearance.hpp"
#include "analysis/scene_times.hpp"

#include "sim/car_meshes.hpp"
#include "support/scanned_car.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace analysis_way_test {

using namespace gorvet;
using namespace gorvet::build;
using geometry::RigidTransform;
using shape::Mesh;
using shape::Point3;
using test::box;
using test::Car;
using test::farthest;

TEST_CASE("the way in of a build's scans: what comes off, what a cloud can't tell, where a scan is missing", "[analysis][way]") {
    Car car;
    CHECK_FALSE(analysis::wayOf(car.overlay(), car.b.planned_cuts, 1));
    // a shell with a tray under an engine's overhang: it can't come straight down past it
    Mesh shell = box({0, -600, 700}, {2000, 600, 704});
    const Mesh tray = box({500, -200, 400}, {700, 200, 410});
    const auto first = static_cast<std::uint32_t>(shell.points.size());
    shell.points.insert(shell.points.end(), tray.points.begin(), tray.points.end());
    for (const auto& t : tray.triangles) shell.triangles.push_back({t[0] + first, t[1] + first, t[2] + first});
    car.add(the_body, ScanPart::Body, "shell", shell);
    car.add(the_chassis, ScanPart::Chassis, "frame", box({0, -300, 300}, {2000, -250, 380}));
    car.add(the_chassis, ScanPart::Engine, "engine", box({-6000, -150, 450}, {8000, 150, 600}));
    const auto way = analysis::wayOf(car.overlay(), car.b.planned_cuts, 1);
    REQUIRE(way);
    CHECK_FALSE(way->down.found);
    REQUIRE(way->down.in_the_way.size() == 1);
    CHECK(way->down.in_the_way[0].chassis_part == "engine");
    CHECK(way->down.in_the_way[0].take_off == "engine");
    CHECK(way->down.in_the_way[0].up_mm == Approx(200).margin(20)); // the tray's underside at 400 is past 600
    CHECK(way->down.tried.size() > 5);
    CHECK_THAT(way->words, Catch::Contains("With the engine off it goes straight down"));
    CHECK_THAT(analysis::wayHeadline(car.b, *way).sentence, Catch::Contains("does not come down"));
    CHECK(way->clouds.empty());
    const auto o = car.overlay();
    const auto drawn = analysis::wayView(car.b, o, *way, 1000, 300, {});
    bool caution = false;
    for (const auto& item : drawn.items)
        if (const auto* t = std::get_if<sheet::Text>(&item.shape))
            caution = caution || t->text.find("Nobody under a hung body") == 0;
    CHECK(caution);
    // to be watched: each moment says of its own pose what the two meshes do there, and the last one is the seat
    const auto moments = analysis::wayTimes(car.b, o, *way)->moments;
    REQUIRE(moments.size() == way->down.tried.size());
    bool touched = false;
    for (std::size_t k = 0; k < moments.size(); ++k) {
        const auto& m = moments[k];
        INFO(m.words);
        const double apart = shape::closest(*o.body->tree, *o.chassis->tree, m.seat, 50).least_mm;
        CHECK(m.touches() == (apart < 5));
        if (k) CHECK(m.seat.translation[2] < moments[k - 1].seat.translation[2]);
        if (m.touches()) CHECK_THAT(m.words, Catch::Contains("engine"));
        touched = touched || m.touches();
    }
    CHECK(touched);
    for (const Point3 p : {Point3{0, 0, 0}, Point3{2000, 600, 700}})
        CHECK(geometry::between(moments.back().seat.transformed(p), o.seat.transformed(p)) < 1e-6);
    // without the engine it does; as a cloud it says what that is worth
    Mesh cloud;
    cloud.points = car.meshes.at(ScanId{2})->points;
    Car bare;
    bare.add(the_body, ScanPart::Body, "shell", shell);
    bare.add(the_chassis, ScanPart::Chassis, "frame", cloud);
    const auto free = analysis::wayOf(bare.overlay(), bare.b.planned_cuts, 1);
    REQUIRE(free);
    CHECK(free->down.straight);
    const auto down = analysis::wayTimes(bare.b, bare.overlay(), *free)->moments;
    REQUIRE(down.size() > 3);
    CHECK(down.back().words == "on its seat");
    for (const auto& m : down) CHECK_FALSE(m.touches());
    CHECK(free->clouds == std::vector<std::string>{"frame"});
    CHECK_THAT(free->words, Catch::Contains("frame is a cloud"));
    CHECK_THAT(analysis::wayHeadline(bare.b, *free).sentence, Catch::Contains("straight down"));
    CHECK_FALSE(analysis::wayOf(bare.overlay(), bare.b.planned_cuts, 1, [] { return true; }));
}

TEST_CASE("cut for the way in, too, a body comes down where cut for its seat alone it hangs", "[analysis][way]") {
    // a heel board across the car, open below, and a rail that runs through it where it sits; finely and coarsely scanned
    const auto step = GENERATE(10.0, 40.0);
    const auto rows = static_cast<std::uint32_t>(600 / step), columns = static_cast<std::uint32_t>(800 / step);
    Mesh board;
    for (std::uint32_t j = 0; j <= rows; ++j)
        for (std::uint32_t i = 0; i <= columns; ++i) board.points.push_back({1000, -400 + step * i, 300 + step * j});
    for (std::uint32_t j = 0; j < rows; ++j)
        for (std::uint32_t i = 0; i < columns; ++i) {
            const std::uint32_t a = j * (columns + 1) + i;
            board.triangles.push_back({a, a + 1, a + columns + 2});
            board.triangles.push_back({a, a + columns + 2, a + columns + 1});
        }
    Car car;
    car.add(the_body, ScanPart::Body, "shell", board);
    car.add(the_chassis, ScanPart::Chassis, "frame", box({-5000, -40, 500}, {7000, 40, 560}));
    const auto kept = [&](const std::vector<sit::CutAgainst>& besides) {
        Car copy = car;
        const auto o = copy.overlay();
        const auto map = analysis::cutMapOf(o, analysis::cutRulesOf(copy.b), 1, {}, besides);
        REQUIRE(map);
        const auto edit = analysis::keepCuts(copy.b, copy.results(), *map);
        REQUIRE(edit);
        REQUIRE(enact(copy.b, *edit));
        return copy;
    };
    const auto o = car.overlay();
    const auto way = analysis::wayOf(o, car.b.planned_cuts, 1);
    REQUIRE(way);
    CHECK_FALSE(way->down.found);
    REQUIRE(way->down.in_the_way.size() == 1);
    CHECK(way->down.in_the_way[0].take_off.empty());
    // below the rail's hole there are 200 mm of board, as wide as the rail and what it passes at
    if (step == 10.0) CHECK(way->down.in_the_way[0].more_mm2 == Approx(190 * 90).epsilon(0.15));
    CHECK_FALSE(analysis::wayOf(o, kept({}).b.planned_cuts, 1)->down.found);
    const auto besides = analysis::cutsForWay(o, *way);
    CHECK(besides.size() > 15);
    const Car slotted = kept(besides);
    const auto free = analysis::wayOf(o, slotted.b.planned_cuts, 1);
    REQUIRE(free);
    CHECK(free->down.straight);
    CHECK(analysis::cutsForWay(o, *free).empty());
    // made again with those cuts kept, the map is for the way all the same
    CHECK(analysis::cutsForWay(o, 1).size() == besides.size());
    CHECK(analysis::cutsForWay(o, 1, [] { return true; }).empty());
    // the layer shows the slot to the lower edge
    const Mesh out = analysis::toRemoveMesh(slotted.b.planned_cuts, o);
    CHECK(farthest(out, [](const Point3& p) { return -p[2]; }) == Approx(-300));
    CHECK(farthest(out, [](const Point3& p) { return std::abs(p[1]); }) < 70 + step);
    // what stays is cut along the lines: no corner of it nearer to the rail than the cut's own edge, to 4 mm
    const auto rest = analysis::withoutKeptCuts(slotted.b.planned_cuts, o, analysis::inKeptCuts(slotted.b.planned_cuts, o), 0);
    REQUIRE(rest);
    double nearest = 1e9;
    for (const auto& t : rest->triangles)
        for (const std::uint32_t k : t)
            if (const Point3& p = rest->points[k]; p[2] < 560) nearest = std::min(nearest, std::abs(p[1]));
    double edge = 1e9;
    for (const auto& [id, c] : slotted.b.planned_cuts)
        for (const Vec3& v : c.line)
            if (v.z_mm < 540) edge = std::min(edge, std::abs(v.y_mm));
    CHECK(nearest > edge - 4.5);
    CHECK(nearest > 40);
}

} // namespace analysis_way_test
