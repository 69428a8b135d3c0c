// Linkages against closed forms, their derivatives by differences, and what must hold of every one.
#include "drive/linkage.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

namespace drive_linkage_test {

using namespace gorvet;
using namespace gorvet::drive;

constexpr double deg = std::numbers::pi / 180;

std::vector<Asked> heaves(double from, double to, int steps) {
    std::vector<Asked> all;
    for (int k = 0; k <= steps; ++k) {
        const double up = from + (to - from) * k / steps;
        all.push_back({up, up, 0});
    }
    return all;
}
double pitchOf(const Stance& s) {
    return std::atan2(-s.moved.rotation[2].x_mm, s.moved.rotation[0].x_mm);
} // down at the back: positive
double worstRod(const Linkage& l, const Stance& s) {
    double worst = 0;
    for (const Rod& rod : l.rods) {
        Vec3 frame = rod.frame;
        if (rod.racked) frame = geometry::plus(frame, l.rack.shift(s.asked.rack_mm));
        worst = std::max(
            worst, std::abs(geometry::between(frame, s.moved.transformed(rod.body)) - geometry::between(rod.frame, rod.body)));
    }
    return worst;
}

/// An axle at 2500, tracks 1400, on two lower links, two upper ones and a panhard rod.
Linkage fiveLinks() {
    Linkage l;
    l.left = {2500, -700, 0};
    l.right = Vec3{2500, 700, 0};
    for (const double side : {-1.0, 1.0}) {
        l.rods.push_back({"lower", {1900, side * 450, 20}, {2480, side * 500, -60}, false});
        l.rods.push_back({"upper", {2150, side * 350, 150}, {2520, side * 350, 120}, false});
    }
    l.rods.push_back({"panhard", {2600, -480, 60}, {2600, 420, 40}, false});
    return l;
}
/// The same held only as often as it need be: three links and the panhard rod.
Linkage threeLinks() {
    Linkage l = fiveLinks();
    l.rods.erase(l.rods.begin() + 3);
    return l;
}

TEST_CASE("what is free sideways, or held twice in one way, goes up and down all the same", "[drive][linkage]") {
    const auto check = [](const Linkage& l) {
        const auto asked = heaves(-60, 60, 12);
        const auto all = sweep(l, asked);
        REQUIRE(all.size() == asked.size());
        for (const Stance& s : all) {
            CHECK(worstRod(l, s) < 1e-6);
            CHECK(s.reference.z_mm == Approx(s.asked.left_mm).margin(1e-6));
            CHECK(std::abs(s.reference.y_mm) < 1e-3); // nothing takes it aside
        }
    };
    Linkage l = fiveLinks();
    l.rods.pop_back(); // as many rows as columns, and little holds it sideways
    check(l);
    Linkage twice = threeLinks();
    twice.rods.back() = twice.rods.front(); // and one said twice in the place of the panhard rod
    REQUIRE(twice.rods.size() == 4);
    const auto asked = heaves(-20, 20, 4);
    CHECK(sweep(twice, asked).size() == asked.size());
}

TEST_CASE("parallel links of one length carry an axle without turning it, along an arc", "[drive][linkage]") {
    Linkage l;
    l.left = {2500, -700, 0};
    l.right = Vec3{2500, 700, 0};
    const double length = 600;
    for (const double side : {-1.0, 1.0}) {
        l.rods.push_back({"lower", {2500 - length, side * 450, -50}, {2500, side * 450, -50}, false});
        l.rods.push_back({"upper", {2500 - length, side * 350, 150}, {2500, side * 350, 150}, false});
    }
    l.rods.push_back({"panhard", {2500, -500, 0}, {2500, 500, 0}, false});
    const auto stances = sweep(l, heaves(-90, 80, 34));
    REQUIRE(stances.size() == 35);
    for (const Stance& s : stances) {
        const double h = s.asked.left_mm;
        CHECK(std::abs(pitchOf(s)) < 1e-9);
        // the links swing: back and forth by their arc; the panhard rod: aside by its own
        CHECK(s.reference.x_mm - 2500 ==
              Approx(std::sqrt(length * length - h * h - std::pow(s.reference.y_mm, 2)) - length).margin(1e-6));
        CHECK(std::abs(s.reference.y_mm) ==
              Approx(1000 - std::sqrt(1e6 - h * h - std::pow(s.reference.x_mm - 2500, 2))).margin(1e-6));
        CHECK(s.strain_mm < 1e-6);
    }
}

TEST_CASE("links of unequal length are a four-bar in the side view", "[drive][linkage]") {
    // no sideways motion: two rods of no account hold it in the middle, both swinging in its own plane
    Linkage l;
    l.left = {2500, -700, 0};
    l.right = Vec3{2500, 700, 0};
    const Vec3 lf{1900, 0, 30}, lb{2490, 0, -60}, uf{2150, 0, 170}, ub{2510, 0, 130};
    for (const double side : {-1.0, 1.0}) {
        l.rods.push_back({"lower", {lf.x_mm, side * 450, lf.z_mm}, {lb.x_mm, side * 450, lb.z_mm}, false});
        l.rods.push_back({"upper", {uf.x_mm, side * 350, uf.z_mm}, {ub.x_mm, side * 350, ub.z_mm}, false});
    }
    l.rods.push_back({"panhard", {2500, -5e5, 0}, {2500, 0, 0}, false});
    for (const Stance& s : sweep(l, heaves(-90, 80, 17))) {
        // Freudenstein: the coupler's turn from the lower link's angle, both circles met
        const double r = geometry::between(lf, lb), c = geometry::between(lb, ub), q = geometry::between(uf, ub);
        const Vec3 low = s.moved.transformed({lb.x_mm, 0, lb.z_mm});
        CHECK(std::hypot(low.x_mm - lf.x_mm, low.z_mm - lf.z_mm) == Approx(r).margin(1e-3));
        const double dx = uf.x_mm - low.x_mm, dz = uf.z_mm - low.z_mm, d = std::hypot(dx, dz);
        const double at = std::atan2(dz, dx), open = std::acos((c * c + d * d - q * q) / (2 * c * d));
        const double rest = std::atan2(ub.z_mm - lb.z_mm, ub.x_mm - lb.x_mm);
        const double turn_one = at + open - rest, turn_two = at - open - rest;
        // anticlockwise in x and z is up at the back: less slope
        const double turned = -pitchOf(s);
        CHECK(std::min(std::abs(turned - turn_one), std::abs(turned - turn_two)) < 1e-6);
    }
}

TEST_CASE("a panhard rod carries the axle aside along its arc", "[drive][linkage]") {
    Linkage l = threeLinks();
    const Rod& rod = l.rods.back();
    for (const Stance& s : sweep(l, heaves(-90, 80, 17))) {
        const Vec3 end = s.moved.transformed(rod.body);
        CHECK(geometry::between(end, rod.frame) == Approx(geometry::between(rod.body, rod.frame)).margin(1e-8));
        CHECK(worstRod(l, s) < 1e-6);
    }
}

TEST_CASE("a Watts linkage keeps the axle in the middle", "[drive][linkage]") {
    Linkage l = threeLinks();
    const Rod panhard = l.rods.back();
    l.rods.pop_back();
    l.watts.push_back({"watts", {2600, 0, 20}, {2600, -500, 90}, {2600, 0, 90}, {2600, 500, -50}, {2600, 0, -50}});
    l.rods[2].frame.y_mm = l.rods[2].body.y_mm = 0; // the upper link in the middle: nothing else leads it aside
    REQUIRE(freedoms(l).empty());
    double with_watts = 0;
    for (const Stance& s : sweep(l, heaves(-80, 80, 16)))
        with_watts = std::max(with_watts, std::abs(s.moved.transformed({2600, 0, 20}).y_mm));
    l.watts.clear();
    l.rods.push_back(panhard);
    double with_panhard = 0;
    for (const Stance& s : sweep(l, heaves(-80, 80, 16)))
        with_panhard = std::max(with_panhard, std::abs(s.moved.transformed({2600, 0, 20}).y_mm));
    CHECK(with_panhard > 3);
    CHECK(with_watts < 0.2);
}

TEST_CASE("a trailing arm goes round its pivot line", "[drive][linkage]") {
    Linkage l;
    l.left = {2500, -700, 0};
    l.hinges = {{"arm", {2100, -600, 50}}, {"arm", {2100, -200, 50}}};
    for (const Asked& a : heaves(-90, 90, 18)) {
        const auto s = sweep(l, {{a.left_mm, 0, 0}});
        REQUIRE(s.size() == 1);
        const Vec3 hub = s[0].moved.transformed(l.left);
        CHECK(std::hypot(hub.x_mm - 2100, hub.z_mm - 50) == Approx(std::hypot(400, 50)).margin(1e-7));
        CHECK(hub.y_mm == Approx(-700).margin(1e-7));
        CHECK(pitchOf(s[0]) ==
              Approx(-(std::asin((a.left_mm - 50) / std::hypot(400, 50)) - std::asin(-50 / std::hypot(400, 50)))).margin(1e-8));
    }
}

TEST_CASE("equal and parallel wishbones keep a wheel upright, a shorter upper one leans it in", "[drive][linkage]") {
    const auto corner = [](double upper) {
        Linkage l;
        l.left = {0, -700, 0};
        const double lower = 300;
        for (const double x : {-150.0, 150.0}) {
            l.rods.push_back({"lower", {x, -600 + lower, -100}, {0, -600, -100}, false});
            l.rods.push_back({"upper", {x, -600 + upper, 120}, {0, -600, 120}, false});
        }
        l.rods.push_back({"tie", {-120, -600 + lower, -100}, {-120, -600, -100}, true});
        return l;
    };
    const auto lean = [](const Stance& s) {
        return std::atan2(s.moved.rotation[1].z_mm, s.moved.rotation[2].z_mm);
    }; // top to the right: in
    for (const Stance& s : sweep(corner(300), heaves(-60, 60, 12))) {
        CHECK(std::abs(lean(s)) < 1e-8);
        CHECK(s.reference.y_mm + 700 == Approx(300 - std::sqrt(9e4 - std::pow(s.asked.left_mm, 2))).margin(1e-6));
    }
    for (const Stance& s : sweep(corner(200), heaves(-60, 60, 12))) {
        // both outer joints on their circles in the front view, exactly
        const Vec3 low = s.moved.transformed({0, -600, -100}), up = s.moved.transformed({0, -600, 120});
        CHECK(std::hypot(low.y_mm + 300, low.z_mm + 100) == Approx(300).margin(1e-7));
        CHECK(std::hypot(up.y_mm + 400, up.z_mm - 120) == Approx(200).margin(1e-7));
        if (s.asked.left_mm > 1) CHECK(lean(s) > 0);
    }
}

TEST_CASE("a strut's line runs through its top", "[drive][linkage]") {
    Linkage l;
    l.left = {0, -700, 0};
    for (const double x : {-150.0, 150.0}) l.rods.push_back({"lower", {x, -350, -80}, {0, -640, -100}, false});
    l.struts.push_back({"strut", {20, -580, 480}, {0, -640, -100}});
    l.rods.push_back({"tie", {-120, -330, -70}, {-130, -620, -60}, true});
    REQUIRE(freedoms(l).empty());
    const double rest = geometry::between(l.struts[0].top, l.struts[0].foot);
    for (const Stance& s : sweep(l, heaves(-70, 70, 14))) {
        const Vec3 foot = s.moved.transformed(l.struts[0].foot);
        const Vec3 axis = s.moved.rotated(geometry::unit(geometry::minus(l.struts[0].top, l.struts[0].foot)));
        CHECK(geometry::length(geometry::cross(geometry::minus(l.struts[0].top, foot), axis)) < 1e-7);
        if (s.asked.left_mm > 1) CHECK(strutLength(l.struts[0], s) < rest);
        CHECK(worstRod(l, s) < 1e-6);
    }
}

Linkage onLeaves(double front, double rear, double camber) {
    Linkage l;
    l.left = {2500, -700, 0};
    l.right = Vec3{2500, 700, 0};
    for (const double y : {-500.0, 500.0})
        l.leaves.push_back(
            {"leaf", {2500 - front, y, camber}, {2500, y, 0}, {2500 + rear, y, camber}, {2500 + rear + 20, y, camber + 110}});
    return l;
}

TEST_CASE("leaf springs lead an axle by the three-link rule", "[drive][linkage]") {
    // flat, equal halves: no turn of the seat, an arc of 3/4 of a half about a place a quarter of it behind the eye
    const Linkage flat = onLeaves(600, 600, 0);
    REQUIRE(freedoms(flat).empty());
    for (const Stance& s : sweep(flat, heaves(-60, 60, 12))) {
        const double h = s.asked.left_mm, arm = 0.75 * 600;
        CHECK(std::abs(pitchOf(s)) < 2.5e-3); // the shackle lifts the rear eye by a few mm
        CHECK(s.reference.x_mm - 2500 == Approx(std::sqrt(arm * arm - h * h) - arm).margin(0.35));
        CHECK(s.strain_mm < 1e-6);
    }
    // a seat nearer to the front eye turns with the springs: by h (b − a)/(a b), nose up in bump where the rear half is longer
    const Linkage uneven = onLeaves(500, 700, 0);
    for (const double h : {-20.0, 20.0}) {
        const auto s = sweep(uneven, {{h, h, 0}});
        REQUIRE(s.size() == 1);
        CHECK(std::abs(pitchOf(s[0])) == Approx(20 * 200.0 / (500 * 700)).epsilon(0.06));
    }
    // cambered as springs are: held, and closed
    for (const Stance& s : sweep(onLeaves(560, 640, 90), heaves(-80, 70, 15))) CHECK(s.strain_mm < 1e-6);
    // one wheel up: the springs must give a little sideways, never along
    const auto rolled = sweep(onLeaves(600, 600, 60), {{-40, 40, 0}});
    REQUIRE(rolled.size() == 1);
    CHECK(rolled[0].strain_mm < 6);
}

TEST_CASE("loops stay closed and derivatives are those of the motion", "[drive][linkage]") {
    std::mt19937 rng(3);
    std::uniform_real_distribution<double> any(-1, 1);
    for (int k = 0; k < 40; ++k) {
        Linkage l = threeLinks();
        for (Rod& rod : l.rods)
            for (Vec3* p : {&rod.frame, &rod.body}) *p = geometry::plus(*p, {30 * any(rng), 30 * any(rng), 30 * any(rng)});
        l.rods[0].racked = true;
        if (k % 2) l.rack.arm = Vec3{130 + 20 * any(rng), 30 * any(rng), 20 * any(rng)};
        REQUIRE(freedoms(l).empty());
        const Asked at{60 * any(rng), 60 * any(rng), 5 * any(rng)};
        const auto s = sweep(l, {at});
        REQUIRE(s.size() == 1);
        CHECK(worstRod(l, s[0]) < 1e-6);
        const double h = 0.01;
        const Vec3 probe{2400, 300, 80};
        const auto difference = [&](const Asked& more, const Asked& less) {
            const auto a = sweep(l, {at, more}), b = sweep(l, {at, less});
            return geometry::times(geometry::minus(a.back().moved.transformed(probe), b.back().moved.transformed(probe)),
                                   1 / (2 * h));
        };
        const auto check = [&](const Motion& m, const Vec3& d, double scale) {
            const Vec3 v = geometry::times(motionAt(m, s[0].reference, s[0].moved.transformed(probe)), scale);
            CHECK(geometry::between(v, d) < 1e-5);
        };
        check(s[0].in_heave,
              difference({at.left_mm + h, at.right_mm + h, at.rack_mm}, {at.left_mm - h, at.right_mm - h, at.rack_mm}), 1);
        check(s[0].in_roll,
              difference({at.left_mm - h, at.right_mm + h, at.rack_mm}, {at.left_mm + h, at.right_mm - h, at.rack_mm}),
              1 / 700.0);
        check(s[0].in_rack, difference({at.left_mm, at.right_mm, at.rack_mm + h}, {at.left_mm, at.right_mm, at.rack_mm - h}), 1);
    }
}

TEST_CASE("no linkage jumps to another way of closing", "[drive][linkage]") {
    std::mt19937 rng(5);
    std::uniform_real_distribution<double> any(-1, 1);
    int ended = 0;
    for (int k = 0; k < 60; ++k) {
        Linkage l = threeLinks();
        for (Rod& rod : l.rods)
            for (Vec3* p : {&rod.frame, &rod.body}) *p = geometry::plus(*p, {80 * any(rng), 60 * any(rng), 80 * any(rng)});
        if (!freedoms(l).empty()) continue;
        const auto there = sweep(l, heaves(0, 300, 60));
        ended += there.size() < 61;
        for (std::size_t n = 1; n < there.size(); ++n) {
            // between neighbours, 5 mm apart, it moves about as its derivative says
            const Vec3 probe{2500, 0, 100};
            const Vec3 step = geometry::minus(there[n].moved.transformed(probe), there[n - 1].moved.transformed(probe));
            const Vec3 before = geometry::times(
                motionAt(there[n - 1].in_heave, there[n - 1].reference, there[n - 1].moved.transformed(probe)), 5);
            const Vec3 after =
                geometry::times(motionAt(there[n].in_heave, there[n].reference, there[n].moved.transformed(probe)), 5);
            CHECK(std::min(geometry::between(step, before), geometry::between(step, after)) < 1 + 0.5 * geometry::length(step));
        }
        if (there.empty()) continue;
        // and back again to where it was
        auto way = heaves(0, there.back().asked.left_mm, 7);
        way.push_back({0, 0, 0});
        const auto back = sweep(l, way);
        if (back.size() == way.size()) CHECK(geometry::length(back.back().moved.translation) < 1e-6);
    }
    CHECK(ended > 0); // some lock before 300 mm: they end there
}

TEST_CASE("what nothing holds is named, and a rod more than need be strains its bushes", "[drive][linkage]") {
    Linkage l = threeLinks();
    CHECK(freedoms(l).empty());
    l.rods.pop_back(); // the panhard rod
    const auto free = freedoms(l);
    REQUIRE(free.size() == 1);
    CHECK(std::abs(free[0].shift.y_mm) == Approx(1).margin(0.05));
    CHECK(freedoms(Linkage{{}, {}, {}, {}, {}, {}, {0, -700, 0}, Vec3{0, 700, 0}}).size() == 4);
    // five links: level it goes freely, in roll upper and lower links fight
    const auto level = sweep(fiveLinks(), {{60, 60, 0}}), rolled = sweep(fiveLinks(), {{-60, 60, 0}});
    REQUIRE(rolled.size() == 1);
    CHECK(level[0].strain_mm < 0.3);
    CHECK(rolled[0].strain_mm > level[0].strain_mm);
    CHECK(rolled[0].strain_mm < 20);
}

} // namespace drive_linkage_test
