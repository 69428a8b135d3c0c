#pragma once

#include "build/remark.hpp"
#include "make/fasteners.hpp"
#include "shape/mesh.hpp"

#include <array>
#include <memory>
#include <string>
#include <utility>
#include <vector>

/// Whether every fastener can be put in, tightened, and taken out again, and in what order the parts come off. Chassis frame: x
/// rearward, y to the right, z up; mm, rad.
namespace gorvet::make {

/// Something that a fastener, or a hand's tool, may meet.
struct ServiceBody {
    std::string name; ///< "the rails", "bracket b1"
    std::shared_ptr<const shape::Mesh> mesh;
    double slack_mm = 0;    ///< a scan's own noise: it counts from so far beyond a washer
    bool closed = true;     ///< it has an inside
    bool given = false;     ///< it is there, or is not planned on Make: rails, tyres, shafts
    double touch_mm = 1;    ///< it may stand in others by so much: how well its place and theirs are known
    bool comes_off = false; ///< once every fastener that holds it is out
    bool operator==(const ServiceBody&) const;
};

/// A bolt with its nut.
struct Fastener {
    std::string name;     ///< "mount Bl1", "bracket b1, bolt 2"
    std::string group;    ///< of bolts that are alike: "mounts"
    std::string tag;      ///< of what it belongs to
    geometry::Vec3 head;  ///< on its axis, where the washer under its head lies
    geometry::Vec3 along; ///< of length 1, from the head to the nut
    double grip_mm = 0;   ///< between the washers
    double bolt_mm = 0;   ///< thread: one of the sizes
    double length_mm = 0;
    bool captive = false;           ///< its nut is fixed beforehand
    bool either = true;             ///< it may go in from either side
    bool there = false;             ///< it went in past all that is given: only what is planned can be in its way
    std::vector<std::string> holds; ///< names of bodies
    std::vector<std::string> assumed;
    bool operator==(const Fastener&) const = default;
};

struct ServiceIn {
    std::vector<Fastener> fasteners;
    std::vector<ServiceBody> bodies;
    std::vector<std::string> not_looked_at; ///< what may stand there too; with anything here nothing holds
    bool operator==(const ServiceIn&) const = default;
};

/// Room at an end of a fastener while everything is on.
struct FastenerEnd {
    double free_mm = 0; ///< along its axis from where the washer lies
    double need_mm = 0;
    std::string blocked_by; ///< what ends it; empty: nothing before it is enough
    double swing_rad = 0;   ///< how far a ring spanner turns, the widest
    std::vector<std::pair<double, double>>
        arcs; ///< directions in which it can stand: seen from outside, anticlockwise from up; of an upright one from rearward
    std::vector<std::string> tool_blocked_by;
    bool socket = false; ///< a socket on an extension gets there
};

struct FastenerRow {
    std::string name, group, tag;
    double bolt_mm = 0, length_mm = 0, grip_mm = 0;
    bool captive = false;
    std::array<FastenerEnd, 2> ends; ///< head as planned, nut
    bool turned = false;             ///< it goes in the other way round only
    int round = 0;                   ///< when it comes out: 1 with everything on; 0 never
    std::vector<std::string> after;  ///< what must be off before it comes out
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
    std::vector<build::Remark> remarks;
    std::vector<std::string> assumed;
    geometry::Vec3 at;
};

struct ServicePlan {
    std::vector<FastenerRow> rows;
    std::vector<std::vector<std::string>> off; ///< what comes off, one after the other; on again backwards
    std::vector<std::string> stays;            ///< what is bolted on and never comes off
    std::vector<std::string> looked_at, not_looked_at;
    build::PlanVerdict verdict = build::PlanVerdict::Marginal; ///< the worst of its rows
};

/// A fastener needs its own length and 20 mm free along its axis at the side from which it goes in, its nut room to be put on,
/// and tools: one end turns (a ring spanner with 30° to swing, or a socket on an extension), the other is held or is captive.
/// What comes off by fasteners that are free is taken off, and it is looked again, until nothing more comes. Holds when all this
/// is there with 2 mm to spare all round. engineering.md, Make.
ServicePlan servicePlan(const ServiceIn&);

inline constexpr double draw_spare_mm = 20, service_spare_mm = 2, least_swing_rad = 0.5235988, socket_mm = 120, fingers_mm = 10;
/// Radius of a ring spanner's ring and of a socket, half the width and the whole length of its handle, in widths across flats.
inline constexpr double ring_of_flats = 0.75, half_handle_of_flats = 0.4, handle_of_flats = 12;

} // namespace gorvet::make
