#include "build/rail_line.hpp"

#include <catch2/catch.hpp>

namespace build_rail_line_test {

using namespace gorvet::build;

TEST_CASE("a rail is known between its marks", "[build]") {
    RailLine rail;
    rail.points = {{0, -400, 500}, {1000, -420, 480}, {2000, -420, 560}};
    rail.height_mm = 100;
    SECTION("marked on top") {
        const auto at = rail.at(500);
        REQUIRE(at);
        CHECK(at->top_mm == Approx(490));
        CHECK(at->bottom_mm == Approx(390));
        CHECK(at->y_mm == Approx(-410));
        CHECK(at->slope_rad > 0); // goes down rearward
        CHECK(rail.at(1500)->slope_rad < 0);
        CHECK(rail.at(500)->plan_angle_rad < 0); // runs to the left
    }
    SECTION("marked underneath") {
        rail.datum_face = RailFace::Bottom;
        CHECK(rail.at(1000)->top_mm == Approx(580));
    }
    SECTION("not beyond its ends, nor with one mark") {
        CHECK_FALSE(rail.at(-1));
        CHECK_FALSE(rail.at(2001));
        rail.points.resize(1);
        CHECK_FALSE(rail.at(0));
    }
}

} // namespace build_rail_line_test
