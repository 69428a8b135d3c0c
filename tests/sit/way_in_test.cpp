#include "sim/mesh_maker.hpp"
#include "sit/way_in.hpp"

#include <catch2/catch.hpp>

namespace sit_way_in_test {

using namespace gorvet;
using namespace gorvet::sit;
using shape::Mesh;

namespace {

Mesh boxes(const std::vector<std::pair<shape::Point3, shape::Point3>>& list) {
    Mesh m;
    for (const auto& [middle, size] : list) sim::addBox(m, 40, middle, size);
    return m;
}
WayPart part(const char* name, const std::vector<std::pair<shape::Point3, shape::Point3>>& list) {
    return {name, std::make_shared<const Mesh>(boxes(list))};
}

} // namespace

TEST_CASE("the lift is what the tallest part asks for under everything it passes", "[sit][way]") {
    // a floor at 500 with a low skirt across its tail down to 300, another across its nose down to 400
    const Mesh body =
        boxes({{{1500, 0, 510}, {3000, 1200, 20}}, {{2990, 0, 400}, {20, 1200, 200}}, {{10, 0, 450}, {20, 1200, 100}}});
    // a frame up to 250, an engine at the front up to 480, in the middle of the car
    const std::vector<WayPart> chassis{part("frame", {{{1500, 0, 200}, {2800, 800, 100}}}),
                                       part("engine", {{{400, 0, 365}, {500, 400, 230}}})};
    WayOptions o;
    o.spare_mm = 0;
    o.most_tilt_rad = 0;
    const WayIn w = wayIn(body, {}, chassis, o);
    // from behind the engine passes under the tail's skirt: 480 − 300; from the front under the nose's: 480 − 400
    CHECK(w.from_behind.lift_mm == Approx(180).margin(1));
    CHECK(w.from_behind.part == "engine");
    CHECK(w.from_front.lift_mm == Approx(80).margin(1));
    CHECK_FALSE(w.behind_is_less);
    REQUIRE(w.from_behind.by_part.size() == 2);
    CHECK(w.from_behind.by_part[1].second == Approx(0).margin(1)); // the frame stays below both skirts
    CHECK(w.undercuts.empty());
    CHECK_THAT(w.words, Catch::Contains("from the front") && Catch::Contains("engine"));
    // spare is added; a part that is not beside the skirt asks for nothing
    o.spare_mm = 50;
    CHECK(wayIn(body, {}, chassis, o).from_front.lift_mm == Approx(130).margin(1));
    const std::vector<WayPart> outside{part("post", {{{400, 900, 500}, {100, 100, 900}}})};
    CHECK(wayIn(body, {}, outside, {20, 0, 0}).from_behind.lift_mm == 0);
}

TEST_CASE("what hooks over the body stops it from coming straight down", "[sit][way]") {
    // a sill whose inner lip reaches under an outrigger of the frame
    const Mesh body = boxes({{{1000, 600, 400}, {1500, 80, 100}}, {{1000, 540, 360}, {1500, 60, 10}}});
    const std::vector<WayPart> chassis{part("frame", {{{1000, 450, 420}, {60, 200, 40}}})};
    const WayIn w = wayIn(body, {}, chassis, {10, 0, 0});
    REQUIRE(w.undercuts.size() == 1);
    CHECK(w.undercuts[0].by_mm == Approx(440 - 355).margin(1));
    CHECK(w.undercuts[0].at[0] == Approx(1000).margin(40));
    CHECK_THAT(w.undercut_words, Catch::Contains("The frame stands 85 mm over the body's lowest there"));
    // raised over it, nothing hooks
    CHECK(wayIn(body, geometry::rigidTransform({0, 0, 200}, 0, 0, 0), chassis, {10, 0, 0}).undercuts.empty());
}

TEST_CASE("hung nose up, less lift is enough when the nose is what is low", "[sit][way]") {
    const Mesh body = boxes({{{1500, 0, 510}, {3000, 1200, 20}}, {{10, 0, 350}, {20, 1200, 300}}});
    const std::vector<WayPart> chassis{part("frame", {{{2600, 0, 300}, {300, 800, 300}}})};
    const WayIn w = wayIn(body, {}, chassis, {20, 0, 0.12});
    CHECK(w.from_behind.lift_mm < w.from_front.lift_mm);
    const WayIn nothing = wayIn({}, {}, chassis);
    CHECK(nothing.from_behind.lift_mm == 0);
    CHECK(wayIn(body, {}, {}).words.empty());
    // the tall part at the rear, coming from the front must pass the low nose: tilted up it needs less
    const Mesh nose =
        boxes({{{1500, 0, 510}, {3000, 1200, 20}}, {{10, 0, 350}, {20, 1200, 300}}, {{2990, 0, 350}, {20, 1200, 300}}});
    const WayIn both = wayIn(nose, {}, chassis, {20, 0, 0.12});
    CHECK(both.tilted.lift_mm <= std::min(both.from_behind.lift_mm, both.from_front.lift_mm));
}

} // namespace sit_way_in_test
