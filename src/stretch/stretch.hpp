#pragma once

#include "build/build.hpp"
#include "build/rail_line.hpp"
#include "build/remark.hpp"
#include "stretch/spine.hpp"

#include <algorithm>
#include <optional>
#include <string>
#include <vector>

/// Stretch: how do I change the wheelbase? The piece to take out or put in, at one cut station; the splice that joins; what
/// crosses the cut; and which stations would be better ones.
namespace gorvet::stretch {

/// Something on the frame that a weld should keep away from.
struct Obstacle {
    std::string name;
    const char* what = ""; ///< "mount", "crossmember", "suspension point", "steering point", "new crossmember", "axle line"
    double station_mm = 0; ///< of its middle, on the rail as it is before the change
    double half_mm = 0;    ///< it reaches so far ahead and behind
    bool operator==(const Obstacle&) const = default;
};

/// Something that runs along the frame, as far as it is known.
struct Runner {
    build::CrossingKind kind = build::CrossingKind::PropShaft;
    build::Presence presence = build::Presence::Unknown;
    std::optional<double> slack_mm;  ///< by how much it can follow as it is
    std::optional<double> starts_mm; ///< none: as far as the frame goes
    std::optional<double> ends_mm;
    std::string name; ///< its own, of several of its kind
    build::RunAnswer answer = build::RunAnswer::Open;
    std::optional<double> new_length_mm;
    bool out_before_heat = false;
    bool operator==(const Runner&) const = default;
};

struct Input {
    build::RailLine left;
    build::RailLine right;
    bool channel = false;
    bool heat_treated = false;
    std::vector<std::string> assumed; ///< what of the rail's section and of the saw was never given: "thickness", "kerf"
    std::vector<Obstacle> obstacles;
    std::optional<double> change_mm; ///< of the wheelbase: > 0 longer
    double change_u95_mm = 0;
    std::optional<double> cut_station_mm;
    std::optional<double> front_axle_mm;
    std::optional<double> rear_axle_mm;
    double kerf_mm = 1.5;
    double root_gap_mm = 2;
    double sleeve_fit_mm = 1;
    double overlap_heights = 2;
    std::optional<double> sleeve_wall_mm; ///< none: as the rail
    std::optional<double> tube_height_mm; ///< of the tube in hand, outside; with its width
    std::optional<double> tube_width_mm;
    double strip_mm = 0;                 ///< of flat on the sides where it is loose; 0: none
    std::optional<double> plug_hole_mm;  ///< none: the least the rules allow
    std::optional<double> fish_plate_mm; ///< none: no plates
    bool butt_counts = false;            ///< the butt weld is fully penetrated, by someone licensed
    bool stepped = false;                ///< the sleeve is made with the step, or the kink, of rails that run aside in plan
    std::optional<double> mass_kg;       ///< on all wheels, where it was weighed
    std::vector<Runner> runners;
    std::optional<SpineInput> spine; ///< the frame is a spine platform: its spine is both rails
    bool operator==(const Input&) const = default;
};

/// What is cut on one rail.
struct RailCut {
    bool known = false;   ///< the rail reaches over the cut
    double slope_rad = 0; ///< of the rail at the cut, down rearward
    double length_mm = 0; ///< along the rail, ≥ 0: between the two cut lines when taking out; the new piece when putting in
    double sideways_mm =
        0; ///< by how much the rear end stands beside the front end once joined, > 0 to the right: the rail diverges
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

/// How a tube stands in the rail, mm a side; < 0: it does not go in. engineering.md, Stretch.
struct TubeFit {
    double upright_mm = 0;      ///< between the flanges
    double sideways_mm = 0;     ///< between the webs
    double bare_upright_mm = 0; ///< the same without strip
    double bare_sideways_mm = 0;
    double least() const { return std::min(upright_mm, sideways_mm); }
    double most() const { return std::max(upright_mm, sideways_mm); }
};
/// Of a tube with outside sizes in a rail with a wall. Strip goes on where the fit is more than `tube_loose_mm`: on both sides,
/// in a channel on the web's alone.
TubeFit tubeFit(const build::RailLine&, bool channel, double height_mm, double width_mm, double strip_mm);
inline constexpr double tube_driven_mm = 0.25; ///< less than that is driven
inline constexpr double tube_tight_mm = 0.5;   ///< less than that sticks at spatter and scale
inline constexpr double tube_loose_mm = 1.5;   ///< more than that wants strip

/// Plug welds of a sleeve in one flange, each side of the joint.
struct Plugs {
    bool structural = false; ///< the wall is thick enough for plug welds that carry (3 mm)
    double hole_mm = 0;
    double hole_least_mm = 0;
    double hole_most_mm = 0;
    double pitch_mm = 0; ///< between centres
    double edge_mm = 0;  ///< from a sleeve end or the joint to the first centre
    int needed = 0;
    int rows = 0; ///< across the flange
    int in_a_row = 0;
    int fit() const { return rows * in_a_row; }
    double capacity_N = 0;      ///< of one in shear: the lesser of the weld's and the base metal's
    bool base_limits = false;   ///< it is the base metal's
    double prying = 1;          ///< what tilting the sleeve in its fit adds to the force on a plug, as a factor
    double overlap_need_mm = 0; ///< for all that are needed, in these rows
};

/// A plate welded outside on each web, over the joint.
struct FishPlate {
    double thickness_mm = 0;
    double height_mm = 0;
    double length_mm = 0;       ///< of its long edges
    double weld_leg_mm = 0;     ///< fillet along both long edges
    double weld_capacity_N = 0; ///< of one edge, one side of the joint: the lesser of the weld's and the base metal's
    double weld_force_N = 0;    ///< what it must carry, 1.5 × included
};

/// As it is cut: both long edges as long as the plate counts, and beyond them each end runs out to a point half its height long,
/// so that the weld ends where little is borne. From its lower left corner's height, anticlockwise.
std::vector<std::pair<double, double>> fishPlateOutline(const FishPlate&);

/// What joins the rail again, and how strong that is beside the rail. Section moduli about the level axis, mm³, with corner radii
/// (outside twice the wall).
struct Splice {
    double rail_modulus_mm3 = 0;
    double sleeve_modulus_mm3 = 0;
    double joint_modulus_mm3 = 0; ///< sleeve and plates together; the rail's own where the butt weld counts
    // what joint (sleeve and plates) has of the rail in the other ways it is loaded; 1 where the butt weld counts
    double upright_share = 0; ///< bent sideways
    double torsion_share = 0;
    double shear_share = 0; ///< upright, in the webs
    double axial_share = 0;
    bool sleeve_carries = true; ///< its plug welds are structural, or the butt weld counts
    double share() const { return rail_modulus_mm3 > 0 ? joint_modulus_mm3 / rail_modulus_mm3 : 0; }
    double sleeve_share = 0;   ///< of what bends it up and down, the rest is the plates'
    double moment_Nmm = 0;     ///< what the joint is sized for: the rail's modulus at 210 / 1.5 MPa
    double flange_force_N = 0; ///< of the sleeve's share, at the faying surfaces: h − 2t apart
    std::optional<double>
        fatigue_range_MPa; ///< at the weld toe over ±1 g, by the wheels' weights and an even load; none: no weights
    Plugs plugs;
    std::optional<FishPlate> plate;
    std::optional<double> wall_need_mm;  ///< sleeve wall that alone would reach the rail; none when no wall does
    std::optional<double> plate_need_mm; ///< fish plate that would, with the sleeve as it is
};

/// What happens to something that runs along the frame.
struct Crossing {
    build::CrossingKind kind = build::CrossingKind::PropShaft;
    double change_mm = 0; ///< of its length
    std::optional<double> slack_mm;
    bool follows = false; ///< its slack is enough
    std::string answer;
    std::string caution; ///< may be empty
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
    std::string name;                                  ///< its own, of several of its kind
    build::RunAnswer decided = build::RunAnswer::Open; ///< what was decided
    std::optional<double> new_length_mm;
    bool out_before_heat = false;
    /// "brake-line left"
    std::string said() const { return std::string(word(kind)) + (name.empty() ? "" : " " + name); }
};

/// A place where the rails could be cut, 0 (bad) … 10.
struct Candidate {
    double station_mm = 0; ///< of the front cut line
    double score = 0;
    std::vector<std::string> reasons; ///< for and against
    std::string refused;              ///< why it can't be cut there; then score is 0
    bool operator==(const Candidate&) const = default;
};

using build::Remark;

enum class Status { Planned, NoChange, Waiting };

struct Plan {
    Status status = Status::Waiting;
    std::string waiting_for; ///< what to give, when Waiting
    double change_mm = 0;
    bool shortens = false;
    bool tail = false;              ///< the cut lies behind the rear axle: the frame's tail changes, the wheelbase does not
    double clearance_need_mm = 150; ///< 1.5 rail heights, 150 at least
    RailCut left;
    RailCut right;
    std::optional<TubeFit> tube;    ///< of the tube in hand
    std::optional<SpinePlan> spine; ///< of a spine platform, in place of sleeve and splice
    std::optional<Sleeve> sleeve;
    std::optional<Splice> splice;
    bool butt_counts = false;                  ///< the butt weld does: not over ends that stand beside each other by half a wall
    std::vector<Crossing> crossings;           ///< of what is known to cross the cut
    std::vector<build::CrossingKind> not_told; ///< of which nothing is said yet
    std::vector<Candidate> candidates;         ///< best first, at most five, 150 mm apart
    std::optional<Candidate> chosen;           ///< how the chosen station scores
    std::vector<Near> near;                    ///< obstacles sorted by distance, nearest first
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
