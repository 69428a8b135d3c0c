// Where what lies behind a cut goes.
#include "build/planned_chassis.hpp"
#include "shape/mesh.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <rapidcheck.h>
#include <rapidcheck/catch.h>

namespace build_planned_chassis_test {

using namespace gorvet;
using build::PlannedChassis;
using build::Vec3;

TEST_CASE("what lies behind the cut moves along the rail, what comes out is pressed into it", "[build][planned]") {
    const PlannedChassis shorter{1280, -140, std::atan(0.1)};
    CHECK(shorter.map(Vec3{1200, -400, 500}) == Vec3{1200, -400, 500});
    const Vec3 behind = shorter.map(Vec3{2000, -400, 500});
    CHECK(behind.x_mm == Approx(1860));
    CHECK(behind.z_mm == Approx(514));                           // forward is up a rail that goes down rearward
    CHECK(shorter.map(Vec3{1350, 0, 500}).x_mm == Approx(1280)); // in the piece
    const PlannedChassis longer{1280, 200, 0};
    CHECK(longer.map(Vec3{1281, 0, 500}) == Vec3{1481, 0, 500});
    CHECK_FALSE(PlannedChassis{}.changes());
    CHECK(PlannedChassis{}.map(Vec3{9000, 1, 2}) == Vec3{9000, 1, 2});
}

TEST_CASE("points, rails, boxes and meshes go the same way", "[build][planned][property]") {
    CHECK(rc::check("one map", [] {
        const PlannedChassis p{1000.0 + *rc::gen::inRange(0, 500), static_cast<double>(*rc::gen::inRange(-300, 300)),
                               *rc::gen::inRange(-10, 10) / 100.0};
        build::RailLine rail;
        for (int i = 0; i < 8; ++i) rail.points.push_back({400.0 * i + 7, -420.0 + i, 500.0 - 3 * i});
        const build::RailLine planned = p.map(rail);
        for (size_t i = 1; i < planned.points.size(); ++i) RC_ASSERT(planned.points[i].x_mm > planned.points[i - 1].x_mm);
        if (!p.changes()) RC_ASSERT(planned == rail);
        // beyond the cut the rail goes through what its points map to
        for (const Vec3& q : rail.points) {
            const Vec3 there = p.map(q);
            if (!p.changes() || std::abs(there.x_mm - *p.cut_station_mm) < 2) continue;
            const auto at = planned.at(there.x_mm);
            RC_ASSERT(at.has_value());
            RC_ASSERT(std::abs(at->top_mm - there.z_mm) < 1e-6);
        }
        shape::Mesh mesh;
        mesh.points = rail.points;
        const shape::Mesh moved = p.map(mesh);
        for (size_t i = 0; i < mesh.points.size(); ++i) RC_ASSERT(moved.points[i] == p.map(mesh.points[i]));
        const geometry::Box3 box{{2500, -100, 400}, {2600, 100, 480}};
        const geometry::Box3 there = p.map(box);
        RC_ASSERT(std::abs(there.size().x_mm - 100) < 1e-9);
        RC_ASSERT(geometry::between(there.middle(), p.map(box.middle())) < 1e-9);
        // and back
        const double station = *rc::gen::inRange(0, 3000);
        if (p.changes() && (station <= *p.cut_station_mm || station > *p.cut_station_mm + std::max(0.0, -p.change_mm)))
            RC_ASSERT(std::abs(p.stationNow(p.map(Vec3{station, 0, 0}).x_mm) - station) < 1e-9);
    }));
}

} // namespace build_planned_chassis_test
