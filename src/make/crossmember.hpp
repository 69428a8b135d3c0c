#pragma once

#include "build/rail_line.hpp"
#include "build/verdict.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// Make: a crossmember under the gearbox, a straight box-section bridge between the rails, bolted by end flanges.
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
    bool assumed = false;
    bool operator==(const CrossmemberDesign&) const = default;
};

struct CrossmemberInput {
    build::Vec3 gearbox_mount; ///< underside of the mounting face, chassis frame
    double gearbox_half_width_mm = 0;
    build::RailLine left;
    build::RailLine right;
    bool channel = false;
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
    double box_front_mm = 0; ///< from the plate's front edge
    double rail_top_mm = 0;  ///< the rail's top face, from the plate's lower edge
    double mass_kg = 0;
};

struct CutPiece {
    std::string name;
    std::string stock; ///< "box 60 × 40 × 3"
    int count = 1;
    double length_mm = 0; ///< longest edge
    std::string ends;     ///< how its ends are cut
    double mass_kg = 0;   ///< of all of them
};

struct Remark {
    const char* code = "";
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
    std::string sentence;
    std::string remedy;
};

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
    Plate left;
    Plate right;
    Plate pad;
    std::optional<double> bolt_length_mm;
    double bolt_mm = 0;
    double bolt_free_mm = 0; ///< free length inboard along the bolts, to draw them out
    std::vector<CutPiece> pieces;
    double mass_kg = 0;
    std::vector<Remark> remarks;
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
};

/// Section area of a cold-formed box with rounded corners, mm²; outside radius 2 t, inside t. EN 10219-2.
double boxArea(double height_mm, double width_mm, double wall_mm);
/// Mass of steel, kg, 7850 kg/m³.
double steelMass(double volume_mm3);

/// The bridge at the gearbox mount's station: pad height = mount − isolator, flanges parallel to the rails' inner faces.
/// Four bolts in each flange where the rail is high enough for two rows, else two. Never fails: see `waiting_for`.
CrossmemberPlan crossmember(const CrossmemberInput&);

} // namespace gorvet::make
