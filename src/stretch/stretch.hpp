#pragma once

#include "build/rail_line.hpp"
#include "build/verdict.hpp"

#include <optional>
#include <string>
#include <vector>

/// Stretch: how do I change the wheelbase? The piece to take out or put in, at one cut station, and the sleeve that joins.
namespace gorvet::stretch {

/// Something on the frame that a weld should keep away from.
struct Obstacle {
    std::string name;
    const char* what = ""; ///< "mount", "crossmember", "suspension point", "steering point"
    double station_mm = 0;
    bool operator==(const Obstacle&) const = default;
};

struct Input {
    build::RailLine left;
    build::RailLine right;
    bool channel = false;
    bool heat_treated = false;
    bool section_assumed = false;
    std::vector<Obstacle> obstacles;
    std::optional<double> change_mm; ///< of the wheelbase: > 0 longer
    double change_half_width_mm = 0;
    std::optional<double> cut_station_mm;
    std::optional<double> front_axle_mm;
    std::optional<double> rear_axle_mm;
    double kerf_mm = 1.5;
    double root_gap_mm = 2;
    double sleeve_fit_mm = 1;
    double overlap_heights = 2;
    bool operator==(const Input&) const = default;
};

/// What is cut on one rail.
struct RailCut {
    bool known = false;   ///< the rail reaches over the cut
    double slope_rad = 0; ///< of the rail at the cut, down rearward
    double length_mm = 0; ///< along the rail, ≥ 0: between the two cut lines when taking out; the new piece when putting in
    double first_station_mm = 0; ///< front cut line
    double last_station_mm = 0;  ///< rear cut line (the same when putting in)
};

struct Near {
    Obstacle obstacle;
    double distance_mm = 0; ///< to the nearest cut line; < 0: it stands in the piece that comes out, by so much
    build::PlanVerdict verdict = build::PlanVerdict::Holds;
};

struct Sleeve {
    double height_mm = 0; ///< outside
    double width_mm = 0;
    double wall_mm = 0;
    double length_mm = 0;
    double overlap_mm = 0; ///< each side of the joint
};

/// A remark of the plan that is no distance to an obstacle.
struct Remark {
    const char* code = "";
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
    std::string sentence;
    std::string remedy;
};

enum class Status { Planned, NoChange, Waiting };

struct Plan {
    Status status = Status::Waiting;
    std::string waiting_for; ///< what to give, when Waiting
    double change_mm = 0;
    bool shortens = false;
    double clearance_need_mm = 150; ///< 1.5 rail heights, 150 at least
    RailCut left;
    RailCut right;
    std::optional<Sleeve> sleeve;
    std::vector<Near> near; ///< obstacles sorted by distance, nearest first
    std::vector<Remark> remarks;
    /// What every point behind the cut moves by: along the rail.
    build::Vec3 shift;
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
};

/// Inserted piece = change/cos(slope) + kerf − 2 root gaps; taken out between the cut lines: |change|/cos(slope) + root gap,
/// kerfs inside the piece that comes out. Sleeve: fit per side, overlap each side of the joint. engineering.md, Stretch.
/// Cut lines nearer than 1.5 rail heights (150 mm least) to an obstacle are named.
Plan plan(const Input&);

} // namespace gorvet::stretch
