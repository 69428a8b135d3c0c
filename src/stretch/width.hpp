#pragma once

#include "build/places.hpp"
#include "build/planned_chassis.hpp"
#include "build/rail_line.hpp"
#include "build/remark.hpp"
#include "build/width.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// How wide a chassis is made: a strip out along each side, and floors that reach out to a body's sills. engineering.md, Stretch.
/// mm, kg, MPa; x rearward, y to the right, z up, in the chassis' frame.
namespace gorvet::stretch {

// ---- narrower

/// A member of the frame that spans the slits.
struct NarrowMember {
    std::string name;
    bool tube = false; ///< round: a bar or shaft may run inside
    double now_mm = 0; ///< across
    double then_mm = 0;
    bool operator==(const NarrowMember&) const = default;
};
/// An axle, by what hangs on the frame and by its wheels.
struct NarrowAxle {
    build::AxleEnd end = build::AxleEnd::Front;
    bool leaf = false;                ///< on leaf springs
    std::optional<double> arms_mm;    ///< by how much its mounts on the frame come nearer to each other; none: not marked
    double wheels_mm = 0;             ///< the same of its wheels, as planned
    std::optional<double> track_mm;   ///< between its wheel centres as they are
    std::optional<double> perches_mm; ///< by how much the axle's own perches come nearer; none: nothing is planned of them
    bool operator==(const NarrowAxle&) const = default;
};
/// A marked point of the chassis, as it is.
struct NarrowMark {
    std::string name;
    build::Role role = build::Role::None;
    build::Vec3 at;
    bool operator==(const NarrowMark&) const = default;
};
struct NarrowInput {
    build::Narrowing narrowing;
    build::PlannedChassis planned;    ///< with the change of length, too: that is done first
    std::string pan;                  ///< the sheet that is slit; empty: there is none, crossmembers alone are made shorter
    double sheet_mm = 0;              ///< its thickness
    double from_mm = 0, until_mm = 0; ///< its ends
    double half_mm = 0;               ///< from the middle to the outside of all: the pan's edge, or the rails'
    double spine_half_mm = 0;         ///< from the middle to a spine's flank; 0: no spine
    std::vector<NarrowMark> marks;
    build::Places paired;                   ///< of them, those that stand left and right of each other
    std::vector<std::pair<int, int>> pairs; ///< places in `paired`, left and right, front to rear
    std::vector<NarrowMember> members;
    std::vector<NarrowAxle> axles;
    std::vector<std::string> assumed; ///< of all that, what nobody measured
    bool operator==(const NarrowInput&) const = default;
};
struct NarrowPlan {
    double side_mm = 0;  ///< by which each side comes in
    double lap_mm = 0;   ///< of both sheets on each other; 0: butt
    double strip_mm = 0; ///< that is cut out on each side
    double slit_mm = 0;  ///< from the middle to the inner line
    double outer_mm = 0; ///< to the outer one
    double long_mm = 0;  ///< of each strip
    double plug_mm = 0;  ///< holes along the lap; 0: a butt, or no sheet
    double pitch_mm = 0;
    int plugs = 0;                  ///< on each side
    double out_kg = 0;              ///< of both strips
    std::vector<std::string> moved; ///< marked points that come in
    std::vector<NarrowMember> members;
    std::vector<build::Measure> measures; ///< across, before it is welded
    std::vector<build::Remark> remarks;
    build::PlanVerdict verdict = build::PlanVerdict::Holds;
};
/// Never fails.
NarrowPlan narrowPlan(const NarrowInput&);

// ---- reaching out

struct EdgeInput {
    build::FloorEdge edge;
    build::PlannedChassis planned;    ///< what the chassis' points go through
    build::Places chassis;            ///< as it is
    build::Places body;               ///< where the body's points stand, seated
    std::vector<std::size_t> edge_at; ///< in `chassis`
    std::vector<double> edge_out_mm;  ///< outwards from each of them to the face: half a rail's width
    std::vector<std::size_t> sill_at; ///< in `body`, or in `chassis`
    bool sill_of_body = true;
    bool rail = false;             ///< the edge is a rail's outside: it bears an outrigger anywhere
    std::vector<double> backed_mm; ///< stations, as planned, where a member runs out to the edge
    double up_g = 3;               ///< the most that a load case asks
    double yield_mpa = 210;
    bool loose = false;               ///< a place of both lines is only assumed
    std::vector<std::string> missing; ///< what it waits for
    std::vector<std::string> assumed;
    bool operator==(const EdgeInput&) const = default;
};
/// How far it is from the edge to the sill at a station.
struct EdgeStation {
    double station_mm = 0; ///< as planned
    std::string at;        ///< the mark that stands there; empty: between marks
    build::Figure width;   ///< > 0: the floor reaches out; < 0: it stands beyond the sill
    build::Figure rise;    ///< of the sill's mark over the edge's
    double edge_mm = 0;    ///< from the middle
};
struct EdgeOutrigger {
    double station_mm = 0;
    double long_mm = 0;
    double rise_mm = 0;
    bool backed = false; ///< it has a member, or a rail, behind it
};
struct EdgePlan {
    std::vector<std::string> missing; ///< then nothing else is said
    bool left = false;
    std::vector<EdgeStation> stations; ///< front to rear
    std::vector<EdgeOutrigger> outriggers;
    /// The strip flat: along from the front end, outwards from its inner edge. Front to rear along the inner edge, then back.
    std::vector<std::pair<double, double>> outline;
    std::vector<std::pair<double, double>> bend; ///< where the flange is turned up
    double plug_mm = 0;                          ///< holes along the lap
    double pitch_mm = 0;
    int plugs = 0;
    double strip_kg = 0;
    double outriggers_kg = 0;
    std::optional<double> stress_mpa; ///< at the root of the longest outrigger
    double may_mpa = 0;
    std::optional<double> weld_share; ///< of what its weld may bear
    std::vector<build::Remark> remarks;
    build::PlanVerdict verdict = build::PlanVerdict::Holds;
};
/// Never fails.
EdgePlan edgePlan(const EdgeInput&);

// ---- limits, mm; usual practice
inline constexpr double narrow_flank = 30; ///< from a spine's flank to the slit: room to weld
inline constexpr double narrow_near = 25;  ///< from what bears to a weld line: engineering.md
inline constexpr double narrow_unlike = 2; ///< by which mounts and what hangs on them may come nearer unlike
inline constexpr double narrow_lap = 20;   ///< of thin sheet, where none is said
inline constexpr double narrow_lap_least = 12;
inline constexpr double edge_unsure = 4;    ///< ± beyond which a strip is not cut
inline constexpr double edge_wide = 100;    ///< wider without outriggers carries nobody
inline constexpr double edge_backed = 60;   ///< from an outrigger to the member behind it
inline constexpr double edge_tilt_deg = 15; ///< of the strip, outwards

} // namespace gorvet::stretch
