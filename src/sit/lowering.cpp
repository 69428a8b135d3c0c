#include "sit/lowering.hpp"

#include "units/quantity.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::sit {
namespace {

using units::steel_kg_mm3;

LoweringPlan channel(const LoweringInput& in, double by) {
    LoweringPlan p;
    p.way = Way::Channel;
    p.foot_room_by_mm = -by;
    p.words.emplace_back("The floor beside the rails stays where it is; feet and seat runners must miss the boxes.");
    if (in.floor_length_mm <= 0 || in.rail_width_mm <= 0) {
        p.words.emplace_back("What it takes is not known: type the rail's section and name the floor's zone.");
        return p;
    }
    const double width = in.rail_width_mm + 2 * in.side_gap_mm;
    const double round = 2 * (in.floor_length_mm + width);
    // two openings; each box has a lid and four walls
    p.cut_mm = 2 * round;
    p.sheet_area_mm2 = 2 * (in.floor_length_mm * width + round * by);
    // the box is seamed to the floor all round, and its lid to its walls
    p.weld_mm = 2 * 2 * round;
    return p;
}

LoweringPlan raise(const LoweringInput& in, double by) {
    LoweringPlan p;
    p.way = Way::Raise;
    p.head_room_by_mm = -by;
    p.foot_room_by_mm = -by;
    p.words.emplace_back("Seats, pedals and steering column go up with it; doors shut on a lower sill.");
    p.words.emplace_back("A floor cut free all round needs the shell braced first.");
    if (in.floor_length_mm <= 0 || in.floor_width_mm <= 0) {
        p.words.emplace_back("What it takes is not known: name the floor's zone.");
        return p;
    }
    const double round = 2 * (in.floor_length_mm + in.floor_width_mm);
    p.cut_mm = round;
    p.sheet_area_mm2 = round * by; // the floor goes back in on a wall
    p.weld_mm = 2 * round;
    return p;
}

LoweringPlan kick(const LoweringInput& in, double by) {
    LoweringPlan p;
    p.way = Way::Kick;
    // two rails, two kick-ups each, each kick-up with two mitred joints
    constexpr int joints = 2 * 2 * 2;
    p.cut_mm = joints * in.rail_perimeter_mm;
    p.weld_mm = joints * in.rail_perimeter_mm;
    p.rail_clearance_by_mm = -by;
    p.tunnel_by_mm = -by;
    p.cuts_rails = true;
    const double ramp = 1.5 * in.rail_width_mm;
    if (ramp > 0) p.kick_angle_rad = std::atan2(by, ramp);
    p.words.emplace_back("The driveline stays where the axles are: the tunnel comes down over the shaft by as much.");
    p.words.emplace_back("Every line, cable and crossmember between the kick-ups goes down with the rails.");
    if (in.kick_run_mm > 0 && in.kick_run_mm < 4 * ramp)
        p.words.emplace_back("The two kick-ups stand too near each other for their ramps.");
    if (in.rail_perimeter_mm <= 0) p.words.emplace_back("What it takes is not known: type the rail's section.");
    return p;
}

} // namespace

const char* name(Way w) {
    switch (w) {
    case Way::Channel: return "channel the floor over the rails";
    case Way::Raise: return "raise the whole floor";
    case Way::Kick: return "kick the rails";
    case Way::Stand: return "let it stand higher";
    }
    return "";
}

std::vector<LoweringPlan> waysToLower(const LoweringInput& in, double by) {
    LoweringPlan stand;
    stand.way = Way::Stand;
    stand.sill_by_mm = by;
    stand.words.emplace_back("Nothing is cut; the body stands over its wheels as much higher.");
    std::vector<LoweringPlan> plans = {channel(in, by), raise(in, by), kick(in, by), stand};
    for (LoweringPlan& p : plans) {
        p.by_mm = p.way == Way::Stand ? 0 : by;
        p.mass_kg = p.sheet_area_mm2 * in.sheet_mm * steel_kg_mm3;
        if (in.head_room_mm > 0 && p.head_room_by_mm < 0)
            p.words.push_back(fmt::format("Seat to roof: {:.0f}, from {:.0f}; least 50 over the head.",
                                          in.head_room_mm + p.head_room_by_mm, in.head_room_mm));
        if (in.ground_clearance_mm > 0 && p.rail_clearance_by_mm < 0)
            p.words.push_back(fmt::format("Rails over the ground: {:.0f}, from {:.0f}.",
                                          in.ground_clearance_mm + p.rail_clearance_by_mm, in.ground_clearance_mm));
        if (in.tunnel_spare_mm > 0 && p.tunnel_by_mm < 0)
            p.words.push_back(fmt::format("Air over the shaft: {:.0f}, from {:.0f}; least 25 at full bump.",
                                          in.tunnel_spare_mm + p.tunnel_by_mm, in.tunnel_spare_mm));
    }
    return plans;
}

} // namespace gorvet::sit
