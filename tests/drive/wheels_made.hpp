#pragma once

#include "drive/wheels_sheet.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

/// An axle's wheels for tests.
namespace drive_wheels_test {

using namespace gorvet;
using namespace gorvet::drive;
using build::Dimension;
using build::Provenance;
using build::RoomFrom;
using build::RoomOn;

constexpr double deg = std::numbers::pi / 180;

inline Dimension read(double v) { return {v, "", Provenance::Measured}; }
inline Figure tape(double v) { return {v, tape_u95_mm, Provenance::Measured}; }

inline build::WheelSet wheel(build::WheelAs as, double width, double backspace, double tyre, double aspect, double seat) {
    build::WheelSet w;
    w.as = as;
    w.width = read(width);
    w.diameter = read(seat);
    w.over_lips = read(width + 25.4);
    w.backspace = read(backspace);
    w.tyre = read(tyre);
    w.aspect = read(aspect);
    w.studs = read(5);
    w.circle = read(114.3);
    w.bore = read(70.2);
    w.inside = read(seat - 30);
    w.spokes = read(40);
    w.carries = read(615);
    w.speed = read(190);
    return w;
}

/// An axle on which all is said and nothing is wrong.
inline WheelsIn base() {
    WheelsIn in;
    in.name = "rear";
    in.fitted = wheel(build::WheelAs::Fitted, 152.4, 110, 195, 65, 381);
    build::Hub hub;
    hub.studs = read(5);
    hub.circle = read(114.3);
    hub.spigot = read(70);
    hub.brake_radius = read(160);
    hub.brake_out = read(20);
    hub.axle_kg = read(1100);
    in.hub = hub;
    in.wheel_kg = Figure{480, 0, Provenance::Measured};
    in.places.names = {"Hl", "Hr"};
    in.places.at = {{2500, -700, 310}, {2500, 700, 310}};
    in.places.covariance.assign(36, 0);
    for (std::size_t side = 0; side < 2; ++side) {
        Corner& c = in.corners[side];
        c.name = side == 0 ? "left" : "right";
        c.right = side == 1;
        c.centre = side;
        c.poses = {{RigidTransform{}, ""}};
        for (const double up : {-90.0, -45.0, 40.0, 80.0}) {
            RigidTransform m;
            m.translation.z_mm = up;
            c.poses.push_back({m, up > 0 ? "at bump" : "at droop"});
        }
        TapedThing arch;
        arch.name = "arch";
        arch.out_mm = tape(150);
        arch.up_mm = tape(300);
        arch.ahead_mm = tape(0);
        TapedThing rail;
        rail.name = "rail";
        rail.on = RoomOn::Frame;
        rail.out_mm = tape(-165);
        rail.up_mm = tape(40);
        rail.ahead_mm = tape(0);
        c.taped = {arch, rail};
    }
    return in;
}

inline bool says(const WheelsPlan& p, const char* code) {
    return std::any_of(p.remarks.begin(), p.remarks.end(), [&](const build::Remark& r) { return r.code == code; });
}
inline PlanVerdict verdictOf(const WheelsPlan& p, const char* code) {
    for (const build::Remark& r : p.remarks)
        if (r.code == code) return r.verdict;
    return PlanVerdict::Holds;
}

} // namespace drive_wheels_test
