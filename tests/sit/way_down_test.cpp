#include "sim/mesh_maker.hpp"
#include "sit/way_down.hpp"

#include <catch2/catch.hpp>

namespace sit_way_down_test {

using namespace gorvet;
using namespace gorvet::sit;
using shape::Mesh;

namespace {

using Box = std::pair<shape::Point3, shape::Point3>; ///< middle, size
Ready boxes(const std::vector<Box>& list) {
    Mesh m;
    for (const auto& [middle, size] : list) sim::addBox(m, 60, middle, size);
    return readyOf(std::make_shared<const Mesh>(std::move(m)), 1);
}
WayDown down(const Ready& body, const Ready& chassis, double lift, const DownOptions& o = {}, bool comes_off = false) {
    const auto way = wayDown({{"shell", &body}}, {{"frame", &chassis, comes_off}}, {}, lift, o, 1);
    REQUIRE(way);
    return *way;
}
/// Nothing of the way touches: looked at again, ten times as finely as it was stepped.
void checkFree(const WayDown& way, const Ready& body, const Ready& chassis, double through) {
    Point3 least{1e9, 1e9, 1e9}, most{-1e9, -1e9, -1e9};
    for (const Point3& p : body.mesh->points)
        for (size_t a = 0; a < 3; ++a) least[a] = std::min(least[a], p[a]), most[a] = std::max(most[a], p[a]);
    const Point3 middle = geometry::along(least, most, 0.5);
    for (size_t k = 0; k + 2 < way.steps.size(); ++k)
        for (int i = 0; i < 10; ++i) {
            const Hang &a = way.steps[k].at, &b = way.steps[k + 1].at;
            const double s = i / 10.0;
            RigidTransform m = geometry::rigidTransform({}, 0, std::lerp(a.tilt_rad, b.tilt_rad, s), 0);
            m.translation = geometry::plus(geometry::minus(middle, m.rotated(middle)),
                                           {std::lerp(a.back_mm, b.back_mm, s), 0, std::lerp(a.up_mm, b.up_mm, s)});
            const double d = shape::closest(*body.tree, *chassis.tree, m, 60).least_mm;
            CHECK(d >= way.no_nearer_mm - 1e-9);
            CHECK(d >= through - 1.01);
        }
}

} // namespace

TEST_CASE("a body that clears comes straight down, and how near it passes is the gap beside it", "[sit][way]") {
    // two sills 12 mm outside of the rails
    const Ready body = boxes({{{1500, 500, 500}, {2000, 40, 160}}, {{1500, -500, 500}, {2000, 40, 160}}});
    const Ready frame = boxes({{{1500, 438, 480}, {2600, 60, 120}}, {{1500, -438, 480}, {2600, 60, 120}}});
    const WayDown way = down(body, frame, 300);
    REQUIRE(way.found);
    CHECK(way.straight);
    CHECK(way.corners.size() == 2);
    CHECK(way.left_out_mm2 == 0);
    CHECK(way.steps.front().at.up_mm == 300);
    CHECK(way.steps.back().at.up_mm == 0);
    CHECK(way.steps[way.tightest].least_mm == Approx(12).margin(1e-3));
    CHECK(way.no_nearer_mm > 4 - 1e-9);
    CHECK(way.no_nearer_mm <= 12);
    CHECK_THAT(way.words, Catch::Contains("straight down, no nearer than 12: shell to frame"));
    checkFree(way, body, frame, 5);
    // what is farther than the limit is kept as at the limit: rounded downwards it does not count as touching
    for (const double touches : {11.4145138703023, 11.3, 11.5, 11.7, 11.9}) {
        DownOptions o;
        o.touches_mm = touches;
        CHECK(down(body, frame, 300, o).left_out_mm2 == 0); // all of it was, and nothing was searched
    }
}

TEST_CASE("a lip under an outrigger: the body comes down beside it and goes back under", "[sit][way]") {
    // the lip reaches 60 under an outrigger that is 60 long; 100 behind it there is room
    const Ready body = boxes({{{1000, 600, 400}, {400, 40, 140}}, {{1000, 550, 340}, {60, 80, 10}}});
    const Ready frame = boxes({{{1000, 520, 400}, {60, 80, 40}}, {{1000, 430, 400}, {1600, 60, 40}}});
    const WayDown way = down(body, frame, 200);
    REQUIRE(way.found);
    CHECK_FALSE(way.straight);
    REQUIRE(way.in_the_way.size() == 1);
    // straight up the lip's top, 345, meets the outrigger's underside, 380: from 20 up to where it has gone through, 420
    CHECK(way.in_the_way[0].where[0] == Approx(1000).margin(31));
    CHECK(way.in_the_way[0].up_mm >= 35);
    CHECK(way.in_the_way[0].up_mm <= 100);
    CHECK(way.in_the_way[0].take_off.empty());
    // what of the lip is under the outrigger would have to go: 60 long, and a ring of triangles round it
    CHECK(way.in_the_way[0].more_mm2 >= 60 * 50);
    CHECK(way.in_the_way[0].box.min.x_mm >= 1000 - 31 - 60);
    CHECK(way.in_the_way[0].box.max.x_mm <= 1000 + 31 + 60);
    CHECK(way.in_the_way[0].box.max.z_mm <= 410);
    // it must be 65 off at least while the lip passes the outrigger
    double aside = 0;
    for (const DownStep& s : way.steps) aside = std::max(aside, std::abs(s.at.back_mm) + 600 * std::abs(s.at.tilt_rad));
    CHECK(aside >= 60);
    CHECK(way.corners.size() >= 3);
    CHECK(way.corners.size() <= 6);
    CHECK_THAT(way.words, Catch::Contains("Straight down it does not go, but from 200 above its seat so:"));
    checkFree(way, body, frame, 5);
    // the same with a lip and an outrigger as long as the search reaches: there is none, and who is in the way is said
    const Ready long_frame = boxes({{{1000, 520, 400}, {1600, 80, 40}}});
    DownOptions near;
    near.most_back_mm = 60;
    near.most_tilt_rad = 0.02;
    near.shop_mm = 200;
    const WayDown none = down(body, long_frame, 200, near, true);
    CHECK_FALSE(none.found);
    CHECK_FALSE(none.gave_up);
    CHECK(none.steps.empty());
    REQUIRE(none.in_the_way.size() == 1);
    CHECK(none.in_the_way[0].take_off == "frame");
    CHECK_THAT(none.words, Catch::Contains("no way down was found") && Catch::Contains("level up to 200") &&
                               Catch::Contains("never sideways") && Catch::Contains("With the frame off it goes straight down"));
    // fewer looks than it takes: it says that it gave up
    DownOptions few;
    few.most_looks = 5;
    CHECK(down(body, long_frame, 200, few).gave_up);
}

TEST_CASE("a slide of 650 and a straight lift are found, as far as the shop allows", "[sit][way]") {
    // the lip is 590 from the outrigger's end on either side: said before: "there is no way down"
    const Ready body = boxes({{{1000, 600, 400}, {400, 40, 140}}, {{1000, 550, 340}, {60, 80, 10}}});
    const Ready frame = boxes({{{1000, 520, 400}, {1240, 80, 40}}, {{1000, 430, 400}, {1600, 60, 40}}});
    const WayDown way = down(body, frame, 200);
    REQUIRE(way.found);
    CHECK_FALSE(way.straight);
    double aside = 0;
    for (const DownStep& s : way.steps) aside = std::max(aside, std::abs(s.at.back_mm));
    CHECK(aside >= 650);
    CHECK_THAT(way.searched, Catch::Contains("level up to 3000"));
    checkFree(way, body, frame, 5);
}

TEST_CASE("a nose that hooks under is tilted in", "[sit][way]") {
    // a tongue at the nose reaches 150 forward under a crossmember; no room to go 150 back because of a post behind
    const Ready body =
        boxes({{{1500, 0, 500}, {1600, 300, 40}}, {{640, 0, 380}, {200, 300, 20}}, {{730, 0, 430}, {20, 300, 100}}});
    const Ready frame = boxes({{{610, 0, 450}, {120, 500, 30}}, {{2400, 0, 500}, {40, 300, 400}}});
    DownOptions o;
    const WayDown way = down(body, frame, 400, o);
    CHECK_FALSE(way.straight);
    REQUIRE(way.found);
    double tilt = 0;
    for (const DownStep& s : way.steps) tilt = std::max(tilt, std::abs(s.at.tilt_rad));
    CHECK(tilt > 0.01);
    checkFree(way, body, frame, 5);
}

TEST_CASE("what fouls or rests at the seat does not stop the way down", "[sit][way]") {
    // a floor that the frame's bracket cuts through: that patch is to be cut
    const Ready body = boxes({{{1500, 0, 500}, {2000, 1000, 4}}});
    const Ready frame = boxes({{{1500, 0, 460}, {60, 60, 120}}, {{1500, 0, 380}, {2400, 300, 40}}});
    const WayDown way = down(body, frame, 300);
    REQUIRE(way.found);
    CHECK(way.straight);
    // the bracket is 60 × 60, the floor's triangles 60 wide, both skins
    CHECK(way.left_out_mm2 >= 2 * 60 * 60);
    CHECK(way.left_out_mm2 <= 2 * 260 * 260);
    CHECK_THAT(way.words, Catch::Contains("was left out"));
}

TEST_CASE("no surface, no lift: no way, and no trouble", "[sit][way]") {
    const Ready body = boxes({{{1500, 0, 500}, {2000, 1000, 4}}});
    Mesh cloud;
    cloud.points = {{0, 0, 0}, {1, 2, 3}};
    const Ready points = readyOf(std::make_shared<const Mesh>(cloud), 1);
    CHECK_FALSE(down(body, points, 300).found);
    CHECK_FALSE(down(points, body, 300).found);
    CHECK_FALSE(down(body, body, 0).found);
    CHECK_FALSE(wayDown({}, {}, {}, 300)->found);
    CHECK_FALSE(wayDown({{"shell", &body}}, {{"frame", &body}}, {}, 300, {}, 1, [] { return true; }));
}

} // namespace sit_way_down_test
