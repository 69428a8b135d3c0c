// What weighs where along a frame, against the analysis that weighs it otherwise.
#include "frame/weights.hpp"

#include <catch2/catch.hpp>

#include <random>

namespace frame_weights_test {

using namespace gorvet;
using namespace gorvet::frame;

namespace {

Structure ladder() {
    Structure s;
    const Profile deep{"box", {120, 60, 4}, {}, false, 0}, shallow{"channel", {80, 40, 3}, {}, false, 0},
        bar{"box", {60, 60, 3}, {}, false, 0};
    for (const double y : {-450.0, 450.0}) {
        Line l;
        l.name = y < 0 ? "left" : "right";
        l.points = {{-400, y, 400}, {1000, y, 400}, {1200, y, 460}, {3000, y, 460}};
        const double bent = geometry::between(l.points[1], l.points[2]);
        l.pieces = {{900, deep, 210}, {1400 + bent + 300, shallow, 210}, {1e9, deep, 210}};
        l.rail = true;
        s.lines.push_back(l);
    }
    for (const double x : {-300.0, 900.0, 1700.0, 2900.0}) {
        Line l;
        l.name = "bridge";
        const double z = x < 1100 ? 400 : 460;
        l.points = {{x, -450, z}, {x, 450, z}};
        l.pieces = {{900, bar, 210}};
        s.lines.push_back(l);
    }
    s.seats = {Seat{{0, -450, 400}, 0, 30}, Seat{{0, 450, 400}, 0, 30}, Seat{{2600, -450, 460}, 0, 30},
               Seat{{2600, 450, 460}, 0, 30}};
    s.hung = {{"engine", 180, {100, 0, 600}, 500}, {"tank", 40, {2500, -100, 420}, 0}};
    return s;
}

} // namespace

TEST_CASE("all weights together are what the frame's analysis says of mass and middle", "[frame][weights]") {
    const Structure s = ladder();
    const auto o = analyse(s);
    REQUIRE(o);
    const auto all = weightsOf(s);
    const Mass steel = massBetween(all, -1e9, 1e9, false), loaded = massBetween(all, -1e9, 1e9, true);
    CHECK(steel.kg == Approx(o->mass_kg).epsilon(2e-3)); // its beams stand at corners' middles
    CHECK(loaded.kg == Approx(o->all_kg).epsilon(2e-3));
    CHECK(loaded.middle.x_mm == Approx(o->centre_mm).margin(3));
    CHECK(loaded.middle.z_mm == Approx(o->centre_up_mm).margin(3));
    CHECK(loaded.kg - steel.kg == Approx(220));
}

TEST_CASE("two halves are the whole, wherever it is cut", "[frame][weights][property]") {
    const auto all = weightsOf(ladder(), 20);
    const Mass whole = massBetween(all, -1e9, 1e9, true);
    std::mt19937 dice(3);
    for (int n = 0; n < 100; ++n) {
        const double cut = std::uniform_real_distribution<double>(-300, 2900)(dice) + 0.123;
        const Mass front = massBetween(all, -1e9, cut, true), rear = massBetween(all, cut, 1e9, true);
        CHECK(front.kg + rear.kg == Approx(whole.kg).epsilon(1e-9));
        CHECK((front.kg * front.middle.x_mm + rear.kg * rear.middle.x_mm) / whole.kg == Approx(whole.middle.x_mm).margin(1e-6));
        CHECK(front.middle.x_mm < cut);
        CHECK(rear.middle.x_mm > cut);
    }
}

TEST_CASE("what hangs over a length is shared by a cut through it", "[frame][weights]") {
    Structure s = ladder();
    s.lines.clear();
    s.hung = {{"gearbox", 60, {1000, 0, 400}, 400}};
    const auto all = weightsOf(s, 10);
    CHECK(massBetween(all, -1e9, 900, true).kg == Approx(15).margin(0.8)); // a quarter lies ahead of 900
    CHECK(massBetween(all, 1100, 1e9, true).kg == Approx(15).margin(0.8));
    CHECK(massBetween(all, -1e9, 1e9, false).kg == 0);
}

} // namespace frame_weights_test
