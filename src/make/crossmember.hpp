#pragma once

#include "build/rail_line.hpp"
#include "build/remark.hpp"
#include "make/fasteners.hpp"

#include <algorithm>
#include <array>
#include <optional>
#include <string>
#include <vector>

/// Make: a crossmember under the gearbox, a box-section bridge between the rails, bolted by end flanges: straight, or with its
/// middle dropped on mitred legs so that it clears the gearbox pan.
namespace gorvet::make {

struct CrossmemberDesign {
    double isolator_mm = 35;
    double pad_mm = 6;
    double box_height_mm = 40;
    double box_width_mm = 60;
    double box_wall_mm = 3;
    double flange_mm = 8;
    double end_clearance_mm = 1;
    double bolt_mm = 12;
    double pad_hole_pitch_mm = 80;
    double pad_hole_mm = 11;
    bool dropped = false;
    bool captive = false;             ///< bolts go into nuts held inside the rail, instead of through it
    double pan_clearance_mm = 12;     ///< least, between gearbox pan and steel
    std::vector<std::string> assumed; ///< what of its sizes, and of the rail's, was never given: "box height"
    std::optional<double> load_N;     ///< down on the mount, at the most
    bool load_known = false;
    double yield_mpa = 210;
    bool yield_known = false;
    bool guessed(std::string_view size) const { return std::find(assumed.begin(), assumed.end(), size) != assumed.end(); }
    bool operator==(const CrossmemberDesign&) const = default;
};

struct CrossmemberInput {
    build::Vec3 gearbox_mount; ///< underside of the mounting face, chassis frame
    double gearbox_u95_mm = 0;
    build::RailLine left;
    build::RailLine right;
    bool channel = false;
    std::vector<Filled> filled;   ///< lengths of the rails that are not hollow: sleeves
    std::vector<build::Vec3> pan; ///< places on the underside of the gearbox pan, chassis frame; may be empty
    CrossmemberDesign design;
    bool operator==(const CrossmemberInput&) const = default;
};

struct Hole {
    double x_mm = 0; ///< on the plate, from its lower front corner: along the rail, rearward
    double z_mm = 0; ///< up
    double diameter_mm = 0;
};

/// A plate with holes, seen from outside the frame towards the middle… of the left flange; mirrored for the right one.
struct Plate {
    std::string name;
    double width_mm = 0; ///< along the rail
    double height_mm = 0;
    double thickness_mm = 0;
    std::vector<Hole> holes;
    double box_bottom_mm = 0; ///< where the box sits on it, from the plate's lower edge
    double box_height_mm = 0;
    double box_front_mm = 0;   ///< from the plate's front edge
    double rail_top_mm = 0;    ///< the rail's top face at the plate's middle, from the plate's lower edge
    double rail_slope_rad = 0; ///< of the rail against the plate's level edges, down rearward: the rows of holes follow it
    double mass_kg = 0;
};

struct CutPiece {
    std::string name;
    std::string stock; ///< "box 60 × 40 × 3"
    int count = 1;
    double length_mm = 0; ///< longest edge
    std::string ends;     ///< how its ends are cut
    double mass_kg = 0;   ///< of all of them
    /// Of a box or tube its section, outside; a tube has no width; a plate, and what is bought by the piece, has none of them.
    double height_mm = 0;
    double width_mm = 0;
    double wall_mm = 0;
};

using build::Remark;

/// One leg of a dropped bridge, from the flange down to the middle.
struct Leg {
    double angle_rad = 0;    ///< under the level, 0…π/3
    double plan_saw_rad = 0; ///< of its flange end across the tube's upper face, off square: atan(tan(plan angle)/cos(angle))
    double length_mm = 0;    ///< along its axis, flange to joint
    double long_edge_mm = 0; ///< its longest edge, of the four corners between flange plane and mitre
    double flange_y_mm = 0;  ///< axis at the flange's inner face
    double flange_z_mm = 0;
    double joint_y_mm = 0;      ///< axis at the mitre
    double pan_distance_mm = 0; ///< between its upper face and the pan's nearest edge; infinite without a pan
};

/// What a dropped bridge has beyond a straight one.
struct Dropped {
    Leg left;
    Leg right;
    double drop_mm = 0;        ///< middle's axis under the legs' upper ends
    double middle_mm = 0;      ///< between the joints, along the axis
    double middle_long_mm = 0; ///< its longest edge, below
    double riser_mm = 0;       ///< between the middle's top and the pad; 0: the pad lies on the middle
    double riser_side_mm = 0;  ///< it is a square box of this side
};

/// The gearbox pan as a box that is open upwards.
struct Pan {
    double front_mm = 0;
    double rear_mm = 0;
    double left_mm = 0;
    double right_mm = 0;
    double low_mm = 0;
};
/// Null without places on it.
std::optional<Pan> panOf(const std::vector<build::Vec3>&);

struct CrossmemberPlan {
    bool possible = false; ///< the rails are known there
    std::string waiting_for;
    double station_mm = 0;
    double between_rails_mm = 0;   ///< inner face to inner face
    double box_length_mm = 0;      ///< along its middle
    double end_angle_left_rad = 0; ///< saw angle off square, > 0: the front edge is the longer
    double end_angle_right_rad = 0;
    double box_long_edge_mm = 0;
    double pad_top_mm = 0; ///< heights in the chassis frame
    double box_top_mm = 0;
    double box_bottom_mm = 0;
    double rail_top_left_mm = 0;
    double rail_top_right_mm = 0;
    double rail_inner_left_mm = 0; ///< offsets of the inner faces
    double rail_inner_right_mm = 0;
    double rail_height_mm = 0;
    double rail_width_mm = 0;
    std::optional<Dropped> dropped; ///< when the form is dropped and there is room for it
    std::optional<Pan> pan;         ///< when places on it are marked
    bool pan_over = false;          ///< the pan reaches over the bridge, fore and aft
    double pan_gap_mm = 0;          ///< between the pan's lowest place and the bridge's middle, when it reaches over it
    Plate left;
    Plate right;
    Plate pad;
    std::optional<double> bolt_length_mm;
    double bolt_mm = 0;
    double bolt_free_mm = 0; ///< free length inboard along the bolts, to draw them out
    std::vector<CutPiece> pieces;
    double mass_kg = 0;
    std::optional<double> used; ///< of what it bears, the load that was said takes so much at the worst place
    std::string used_at;
    std::vector<Remark> remarks;
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
};

/// Section area of a cold-formed box with rounded corners, mm²; outside radius 2 t, inside t. EN 10219-2.
double boxArea(double height_mm, double width_mm, double wall_mm);
/// Mass of steel, kg, 7850 kg/m³.
double steelMass(double volume_mm3);
/// A size of stock as it is said: to 0.1 mm, without needless noughts.
std::string trimmed(double mm);

/// Height of a box's vertical cut at an angle from the level.
double legHeight(double box_height_mm, double angle_rad);

/// The bridge at the gearbox mount's station: pad height = mount − isolator, flanges parallel to the rails' inner faces.
/// Four bolts in each flange where the rail is high enough for two rows, else two. A dropped bridge's middle lies under the pad
/// and under the pan by the least clearance; its joints are as near to the middle as that clearance and the pad allow, each leg
/// at 60° at the most. The bolts' free length inboard is to the other flange, or to the pan where it stands in their way.
/// Never fails: see `waiting_for`.
CrossmemberPlan crossmember(const CrossmemberInput&);

} // namespace gorvet::make
