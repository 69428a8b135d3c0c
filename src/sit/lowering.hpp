#pragma once

#include <optional>
#include <string>
#include <vector>

/// Ways to bring the body lower over rails that its floor would foul: each with what it takes and what it costs.
namespace gorvet::sit {

enum class Way {
    Channel, ///< boxes let into the floor over the rails
    Raise,   ///< the whole floor set up
    Kick,    ///< the rails let down between two kick-ups
    Stand    ///< nothing of it: the body stands higher by as much
};

/// What the ways are made from. Lengths mm.
struct LoweringInput {
    double floor_length_mm = 0; ///< of the floor over the rails, along the car
    double floor_width_mm = 0;  ///< between the sills
    double rail_width_mm = 0;
    double side_gap_mm = 10;        ///< air beside a rail in its channel
    double sheet_mm = 0.9;          ///< new floor steel
    double rail_perimeter_mm = 0;   ///< of the rail's section, welded once a joint
    double kick_run_mm = 0;         ///< between the two kick-ups
    double head_room_mm = 0;        ///< seat to roof now; 0: not known
    double ground_clearance_mm = 0; ///< of the rails now; 0: not known
    double tunnel_spare_mm = 0;     ///< air over the shaft in the tunnel now; 0: not known
    bool operator==(const LoweringInput&) const = default;
};

struct LoweringPlan {
    Way way = Way::Stand;
    double by_mm = 0;                ///< how much lower the body stands than without; > 0
    double cut_mm = 0;               ///< length of cuts
    double weld_mm = 0;              ///< of welds, both sides of a seam sealed not counted
    double sheet_area_mm2 = 0;       ///< new sheet
    double mass_kg = 0;              ///< of new sheet
    double head_room_by_mm = 0;      ///< seat to roof, by how much
    double foot_room_by_mm = 0;      ///< over the rails
    double sill_by_mm = 0;           ///< height of the sills over the ground
    double rail_clearance_by_mm = 0; ///< of the rails over the ground
    double tunnel_by_mm = 0;         ///< air over the shaft in the tunnel
    double kick_angle_rad = 0;       ///< steepest that the ramps become, with ramps one and a half rail widths long
    bool cuts_rails = false;         ///< structure: approved by licensed people
    std::vector<std::string> words;
};
/// All four for the same drop, in the order of Way. by_mm > 0; floor, rail and kick lengths that are 0 leave their figures 0 and
/// say so.
std::vector<LoweringPlan> waysToLower(const LoweringInput&, double by_mm);
/// A word for it: "channel the floor over the rails".
const char* name(Way);

} // namespace gorvet::sit
