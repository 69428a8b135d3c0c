#include "sit/lowering.hpp"
#include "sit/trade_offs.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace sit_wishes_test {

using namespace gorvet;
using build::Bound;
using build::Importance;
using sit::At;
using sit::Pin;
using sit::PinKind;

namespace {

/// A body that is held by six exact pins on a chassis with level ground at z = 90; pins are added to it.
struct Scene {
    sit::Input in;
    Scene() {
        in.body.at = {{560, -690, 800}, {560, 690, 800}, {720, -700, 500}, {720, 700, 500}, {1920, -700, 500}, {1920, 700, 500}};
        in.chassis.at = {{0, -720, 430}, {0, 720, 430}, {2790, -720, 430}, {2790, 720, 430}};
        in.front_left = 0;
        in.front_right = 1;
        in.rear_left = 2;
        in.rear_right = 3;
        in.front_height_mm = in.rear_height_mm = 340;
        in.decided_change_mm = 0;
        in.pins = {{PinKind::Station, {0, 1}, 560, 2},
                   {PinKind::Centred, {0, 1}, 0, 2},
                   {PinKind::Centred, {4, 5}, 0, 2},
                   {PinKind::Height, {2, 3}, 285, 2},
                   {PinKind::Height, {4, 5}, 285, 2}};
        noise();
    }
    void noise(double sd = 0.2) {
        for (auto* located : {&in.body, &in.chassis}) {
            const size_t n = 3 * located->at.size();
            located->covariance.assign(n * n, 0.0);
            for (size_t k = 0; k < n; ++k) located->covariance[k * n + k] = sd * sd;
        }
    }
    At body(build::Vec3 at) {
        in.body.at.push_back(at);
        noise();
        return {static_cast<int>(in.body.at.size()) - 1};
    }
    At chassis(build::Vec3 at) {
        in.chassis.at.push_back(at);
        noise();
        return {static_cast<int>(in.chassis.at.size()) - 1, true};
    }
    /// What a pin comes to when it has no say.
    double figure(Pin w) {
        w.tolerance = 1e6;
        sit::Input copy = in;
        copy.pins.push_back(std::move(w));
        return sit::seat(copy).pins.back().achieved.value;
    }
};

Pin between(PinKind kind, std::vector<At> from, std::vector<At> to, double target = 0, Bound bound = Bound::Equal,
            Importance importance = Importance::Want) {
    Pin w;
    w.kind = kind;
    w.points = std::move(from);
    w.to = std::move(to);
    w.target = target;
    w.bound = bound;
    w.importance = importance;
    return w;
}

} // namespace

TEST_CASE("dimensions between two features are what they are called", "[sit][closed-form]") {
    Scene s;
    // the body stands 125 lower than drawn in its own frame (500 → 375): by hand
    const At b = s.body({1000, 100, 625});
    const At c = s.chassis({1300, -300, 400});
    CHECK(s.figure(between(PinKind::Along, {b}, {c})) == Approx(300).margin(1e-3));
    CHECK(s.figure(between(PinKind::Across, {b}, {c})) == Approx(-400).margin(1e-3));
    CHECK(s.figure(between(PinKind::Up, {b}, {c})) == Approx(-100).margin(1e-3));
    CHECK(s.figure(between(PinKind::Straight, {b}, {c})) == Approx(std::sqrt(300.0 * 300 + 400 * 400 + 100 * 100)).margin(1e-3));
    // means of features with several points
    const At d = s.body({1100, 100, 625});
    CHECK(s.figure(between(PinKind::Along, {b, d}, {c})) == Approx(250).margin(1e-3));
    // the distance from a line: 3-4-5 across it
    const At l1 = s.chassis({500, 130, 540});
    const At l2 = s.chassis({1500, 130, 540});
    CHECK(s.figure(between(PinKind::Line, {b}, {l1, l2})) == Approx(50).margin(1e-3));
}

TEST_CASE("an engine under a bonnet, a tyre in its arch, a booster beside a bulkhead", "[sit][closed-form]") {
    Scene s;
    // a bonnet that rises 1 in 10 rearward, at z = 725 at station 0 once seated
    const std::vector<At> bonnet = {s.body({0, -400, 850}), s.body({0, 400, 850}), s.body({500, -400, 900}),
                                    s.body({500, 400, 900})};
    const At top = s.chassis({200, 0, 700});
    // height of the plane over the engine: 725 + 20 − 700 = 45, along the normal
    CHECK(s.figure(between(PinKind::Under, {top}, bonnet)) == Approx(45 / std::sqrt(1.01)).margin(1e-3));
    // an arch lip right over the hub: 830 − 125 − 430 = 275 below … the tyre's radius is 340
    Pin tyre;
    tyre.kind = PinKind::Tyre;
    tyre.points = {s.body({0, -720, 955})};
    CHECK(s.figure(tyre) == Approx(955 - 125 - 430 - 340).margin(1e-3));
    tyre.kind = PinKind::Bump;
    s.in.front_bump_mm = 50;
    CHECK(s.figure(tyre) == Approx(10).margin(1e-3));
    s.in.front_tyre_mm = 335; // the free tyre is typed
    CHECK(s.figure(tyre) == Approx(15).margin(1e-3));
    // beside the tyre, not over it: 20 outside of a 200 wide one
    s.in.tyre_width_mm = 200;
    tyre.kind = PinKind::Tyre;
    tyre.points = {s.body({0, -840, 455})};
    CHECK(s.figure(tyre) == Approx(20).margin(1e-3));
    // a box of the chassis: 30 behind it and 40 over it
    Pin clear;
    clear.kind = PinKind::Clear;
    clear.clear_of = sit::Envelope{{{100, -100, 300}, {400, 100, 500}}, true};
    clear.points = {s.body({430, 0, 665})};
    CHECK(s.figure(clear) == Approx(50).margin(1e-3));
    clear.points = {s.body({300, 0, 605})}; // 20 deep inside
    CHECK(s.figure(clear) == Approx(-20).margin(1e-3));
    // a box of the body against a point of the chassis
    clear.clear_of = sit::Envelope{{{100, -100, 425}, {400, 100, 625}}, false};
    clear.points = {s.chassis({430, 0, 400})};
    CHECK(s.figure(clear) == Approx(30).margin(1e-3));
}

TEST_CASE("a must is kept whatever it costs, and the others share the rest", "[sit]") {
    Scene s;
    const At floor = s.body({1200, 0, 520});
    const At tunnel = s.chassis({1200, 0, 380});
    // seated by the sills the floor lies 15 over the shaft: 25 is a must
    s.in.pins.push_back(between(PinKind::Up, {tunnel}, {floor}, 25, Bound::AtLeast, Importance::Must));
    const auto seat = sit::seat(s.in);
    REQUIRE(seat.status == sit::Status::Seated);
    CHECK(seat.pins[5].achieved.value == Approx(25).margin(1e-4));
    CHECK(seat.pins[5].on_bound);
    CHECK(seat.pins[5].miss.value == 0);
    // set down by it, the built car has it in one case of two: floor and shaft are known to 0.2 each
    CHECK(seat.pins[5].achieved.u95 == Approx(build::u95Of(0.2 * std::sqrt(2))).epsilon(0.02));
    CHECK(seat.pins[5].verdict == build::PlanVerdict::Marginal);
    // the sills go up by 10 on the mean at that station, more at the end that is nearer to it: the least turn that does it
    CHECK(seat.pins[3].miss.value + seat.pins[4].miss.value == Approx(20).epsilon(0.2));
    CHECK(seat.pins[3].miss.value > 5);
    // as a want it shares the miss
    s.in.pins[5].importance = Importance::Want;
    const auto shared = sit::seat(s.in);
    CHECK(shared.pins[5].achieved.value > 16);
    CHECK(shared.pins[5].achieved.value < 24);
    CHECK(shared.pins[5].miss.value == Approx(shared.pins[5].achieved.value - 25));
    // liked only, it gets less
    s.in.pins[5].importance = Importance::Like;
    CHECK(sit::seat(s.in).pins[5].achieved.value < shared.pins[5].achieved.value - 0.9);
    // and where there is room to spare it does not pull at all
    s.in.pins[5] = between(PinKind::Up, {tunnel}, {floor}, 5, Bound::AtLeast);
    const auto idle = sit::seat(s.in);
    CHECK(std::abs(idle.pins[3].miss.value) < 1e-4);
    CHECK(idle.pins[5].achieved.value == Approx(15).margin(1e-3));
    CHECK_FALSE(idle.pins[5].on_bound);
    CHECK(idle.pins[5].verdict == build::PlanVerdict::Holds);
}

TEST_CASE("two weights share a miss as the squares of their tolerances, a like a quarter as heavy", "[sit][closed-form]") {
    Scene s;
    for (auto& w : s.in.pins)
        if (w.kind != PinKind::Station) w.tolerance = 1e-3;
    const At b = s.body({1000, 0, 500});
    const At c = s.chassis({1110, 0, 400});
    Pin w = between(PinKind::Along, {b}, {c}, 100); // 10 too far forward for it
    w.tolerance = 2;
    s.in.pins.push_back(w);
    // two points of the station pin pull with 2/σ², the other with 1/σ²
    CHECK(sit::seat(s.in).pins[0].miss.value == Approx(10.0 / 3).epsilon(1e-3));
    s.in.pins.back().importance = Importance::Like;
    CHECK(sit::seat(s.in).pins[0].miss.value == Approx(10.0 * (1.0 / 16) / (2 + 1.0 / 16)).epsilon(1e-3));
    s.in.pins.back().importance = Importance::Want;
    s.in.leads = build::Leads::Driveline; // nine times as heavy in the squares
    CHECK(sit::seat(s.in).pins[0].miss.value == Approx(10.0 * 9 / 11).epsilon(1e-3));
    s.in.leads = build::Leads::Body;
    CHECK(sit::seat(s.in).pins[0].miss.value == Approx(10.0 / 19).epsilon(1e-3));
}

TEST_CASE("musts that can't all be kept are named, and the rest is still seated", "[sit]") {
    Scene s;
    const At floor = s.body({1200, 0, 520});
    const At over = s.chassis({1200, 0, 380});
    const At under = s.chassis({1200, 0, 420});
    s.in.pins.push_back(between(PinKind::Up, {over}, {floor}, 25, Bound::AtLeast, Importance::Must));  // floor ≥ 405
    s.in.pins.push_back(between(PinKind::Up, {floor}, {under}, 25, Bound::AtLeast, Importance::Must)); // floor ≤ 395
    const auto seat = sit::seat(s.in);
    CHECK(seat.contradictory == std::vector<int>{5, 6});
    CHECK((seat.status == sit::Status::Seated || seat.status == sit::Status::Underdetermined));
    // half-way between, as both are worth the same
    CHECK(seat.pins[5].achieved.value == Approx(20).margin(0.1));
    CHECK(seat.pins[6].achieved.value == Approx(20).margin(0.1));
    CHECK(seat.pins[5].verdict == build::PlanVerdict::Fails);
    CHECK(std::abs(seat.pins[0].miss.value) < 0.01);
}

TEST_CASE("bounds leave open what they do not press, and say so", "[sit]") {
    Scene s;
    s.in.pins.erase(s.in.pins.begin() + 3, s.in.pins.end()); // no heights
    s.in.pins.push_back({PinKind::Height, {2, 3, 4, 5}, 200, 2});
    s.in.pins.back().bound = Bound::AtLeast;
    const auto seat = sit::seat(s.in);
    CHECK(seat.status == sit::Status::Underdetermined);
    CHECK(std::any_of(seat.open.begin(), seat.open.end(),
                      [](const std::string& o) { return o.find("how high") != std::string::npos; }));
    CHECK(seat.pins.back().achieved.value == Approx(410).margin(1e-6)); // it stays where it was
    // and goes no farther than the bound asks
    s.in.pins.back().target = 450;
    const auto pushed = sit::seat(s.in);
    CHECK(pushed.pins.back().achieved.value == Approx(450).margin(1e-3));
    CHECK_FALSE(pushed.pins.back().on_bound); // it lies on the bound, but nothing presses against it
}

TEST_CASE("points of the chassis behind the cut go along with the rear wheels", "[sit][closed-form]") {
    Scene s;
    const At b = s.body({1000, 0, 500});
    const At near = s.chassis({1200, 0, 400});
    const At far = s.chassis({2000, 0, 400});
    s.in.decided_change_mm = -100;
    s.in.cut_station_mm = 1500;
    CHECK(s.figure(between(PinKind::Along, {b}, {near})) == Approx(200).margin(1e-3));
    CHECK(s.figure(between(PinKind::Along, {b}, {far})) == Approx(900).margin(1e-3));
    s.in.cut_station_mm.reset();
    CHECK(s.figure(between(PinKind::Along, {b}, {far})) == Approx(1000).margin(1e-3));
}

TEST_CASE("± of a figure between two surveys comes from both", "[sit][closed-form]") {
    Scene s;
    const At b = s.body({1000, 0, 500});
    const At c = s.chassis({1110, 0, 400});
    Pin w = between(PinKind::Along, {b}, {c}, 110);
    w.tolerance = 1e6;
    s.in.pins.push_back(w);
    // own point and chassis point: the body is built in where it was seated, what it was seated by no longer counts
    const double sd = 0.2 * std::sqrt(1 + 1);
    CHECK(sit::seat(s.in).pins.back().achieved.u95 == Approx(build::u95Of(sd)).epsilon(0.02));
}

TEST_CASE("what a move costs and brings, by hand", "[sit][closed-form]") {
    Scene s;
    const At floor = s.body({1200, 0, 520});
    const At shaft = s.chassis({1200, 0, 360});
    s.in.pins.push_back(between(PinKind::Up, {shaft}, {floor}, 25, Bound::AtLeast));
    const auto seat = sit::seat(s.in);
    const auto moved = sit::afterMoves(s.in, seat, sit::usualMoves(20));
    REQUIRE(moved.size() == 6);
    // down 20: 20 off each sill, 20 off the spare over the shaft
    CHECK(moved[0].gain[3] == Approx(-20).margin(1e-3));
    CHECK(moved[0].gain[5] == Approx(-20).margin(1e-3));
    CHECK(moved[0].gain[0] == Approx(0).margin(1e-6));
    CHECK(moved[1].gain[5] == Approx(20).margin(1e-3));
    CHECK(moved[2].gain[0] == Approx(-20).margin(1e-3));
    // nose up by half a degree about the middle between the axles, 1395: the front sill rises, the rear one sinks
    CHECK(moved[5].pins[3].achieved.value == Approx(285 + (1395 - 720) * std::tan(units::radians(0.5))).margin(0.1));
    CHECK(moved[5].pins[4].achieved.value == Approx(285 - (1920 - 1395) * std::tan(units::radians(0.5))).margin(0.1));
}

TEST_CASE("giving up the pin that is in the way lets the others have theirs", "[sit]") {
    Scene s;
    s.in.body.at.push_back({0, -730, 560});
    s.in.body.at.push_back({0, 730, 560});
    s.noise();
    s.in.pins.push_back({PinKind::ArchFront, {6, 7}, 0, 4});
    s.in.pins[0].target = 575; // 15 further back than the front arch would like
    const auto seat = sit::seat(s.in);
    const auto given = sit::givenUp(s.in, seat);
    REQUIRE(given.size() == 2);
    CHECK(given[0].pin == 0);
    CHECK(given[0].gains == std::vector<int>{5});
    CHECK(std::abs(given[0].pins[5].miss.value) < 1e-4);
    CHECK(given[0].becomes.achieved.value == Approx(560).margin(1e-3));
    CHECK(given[1].pin == 5);
    CHECK(given[1].becomes.achieved.value == Approx(15).margin(1e-3));
    CHECK(std::abs(given[1].pins[0].miss.value) < 1e-4);
    // nothing to give up where all hold
    s.in.pins[0].target = 560;
    CHECK(sit::givenUp(s.in, sit::seat(s.in)).empty());
}

TEST_CASE("ways to lower a body: lengths and masses by hand", "[sit][closed-form]") {
    sit::LoweringInput in;
    in.floor_length_mm = 1500;
    in.floor_width_mm = 1200;
    in.rail_width_mm = 60;
    in.side_gap_mm = 10;
    in.sheet_mm = 1;
    in.rail_perimeter_mm = 320;
    in.kick_run_mm = 1100;
    in.head_room_mm = 900;
    const auto ways = sit::waysToLower(in, 40);
    REQUIRE(ways.size() == 4);
    const auto& channel = ways[0];
    CHECK(channel.cut_mm == Approx(2 * 2 * (1500 + 80)));
    CHECK(channel.sheet_area_mm2 == Approx(2 * (1500 * 80 + 2 * (1500 + 80) * 40)));
    CHECK(channel.mass_kg == Approx(channel.sheet_area_mm2 * 7.85e-6));
    CHECK(channel.head_room_by_mm == 0);
    const auto& raise = ways[1];
    CHECK(raise.cut_mm == Approx(5400));
    CHECK(raise.sheet_area_mm2 == Approx(5400 * 40));
    CHECK(raise.head_room_by_mm == -40);
    CHECK(std::any_of(raise.words.begin(), raise.words.end(),
                      [](const std::string& w) { return w.find("860, from 900") != std::string::npos; }));
    const auto& kick = ways[2];
    CHECK(kick.weld_mm == Approx(8 * 320));
    CHECK(kick.cuts_rails);
    CHECK(kick.rail_clearance_by_mm == -40);
    CHECK(ways[3].sill_by_mm == 40);
    CHECK(ways[3].by_mm == 0);
    // what is not known is said
    CHECK(sit::waysToLower({}, 40)[0].words.back().find("not known") != std::string::npos);
}

} // namespace sit_wishes_test
