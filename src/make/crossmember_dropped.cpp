#include "make/crossmember_dropped.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include <fmt/format.h>

namespace gorvet::make {
namespace {

constexpr double step_mm = 5;

/// A leg from the flange inwards to a joint `run` away, in coordinates that grow inwards and upwards.
/// Returns the distance from the pan's lower edge (at `pan_edge` inwards from the flange, height `pan_low`) to its upper face.
Leg legTo(double run, double drop, const CrossmemberDesign& d, double plan_angle, double pan_edge, double pan_over_flange) {
    Leg leg;
    leg.angle_rad = std::atan2(drop, run);
    leg.length_mm = std::hypot(drop, run);
    const double half = d.box_height_mm / 2;
    // an edge at (e across, n up from the axis) runs from the flange plane, −(n sin θ + e tan φ)/cos θ, to the mitre, L − n tan
    // θ/2
    leg.long_edge_mm = leg.length_mm + half * (std::tan(leg.angle_rad) - std::tan(leg.angle_rad / 2)) +
                       d.box_width_mm / 2 * std::abs(std::tan(plan_angle)) / std::cos(leg.angle_rad);
    leg.plan_saw_rad = std::atan(std::tan(plan_angle) / std::cos(leg.angle_rad));
    // distance of the pan's edge from the upper face: along the face's normal, up and inwards
    const double c = std::cos(leg.angle_rad);
    const double s = std::sin(leg.angle_rad);
    leg.pan_distance_mm = pan_edge * s + pan_over_flange * c - half;
    return leg;
}

} // namespace

void dropMiddle(CrossmemberPlan& p, const CrossmemberInput& in) {
    const CrossmemberDesign& d = in.design;
    double top = p.pad_top_mm - d.pad_mm;
    if (p.pan_over) top = std::min(top, p.pan->low_mm - d.pan_clearance_mm);
    Dropped q;
    q.riser_mm = p.pad_top_mm - d.pad_mm - top;
    q.riser_side_mm = std::min(d.box_width_mm, 50.0);
    const double axis = top - d.box_height_mm / 2;
    const double least_half =
        p.pad.height_mm > 0 ? p.pad.height_mm / 2 + 10 : std::max(d.box_width_mm, 6 * d.pad_hole_mm) / 2 + 10;
    for (const bool left : {true, false}) {
        const double sign = left ? -1 : 1; // outwards
        const double plan_angle = left ? p.end_angle_left_rad : p.end_angle_right_rad;
        const double inner = left ? p.rail_inner_left_mm : p.rail_inner_right_mm;
        const double flange_y = inner - sign * (d.flange_mm + d.end_clearance_mm) / std::cos(plan_angle);
        const double flange_z = (left ? p.rail_top_left_mm : p.rail_top_right_mm) - p.rail_height_mm / 2;
        const double drop = flange_z - axis;
        q.drop_mm = std::max(q.drop_mm, drop);
        if (drop <= 0) {
            p.waiting_for =
                fmt::format("The middle would not lie under the rails' middle but {} mm over it.", units::fixed(-drop, 0));
            return;
        }
        // inwards from the flange: the joint as far in as the pad allows, then outwards until the leg clears the pan
        const double whole = sign * (flange_y - in.gearbox_mount.y_mm) - least_half;
        const double none = std::numeric_limits<double>::infinity();
        const double pan_edge = p.pan_over ? sign * (flange_y - (left ? p.pan->left_mm : p.pan->right_mm)) : none;
        const double pan_over_flange = p.pan_over ? p.pan->low_mm - flange_z : none;
        Leg leg;
        bool found = false;
        for (double run = whole; run >= step_mm && !found; run -= step_mm) {
            leg = legTo(run, drop, d, plan_angle, pan_edge, pan_over_flange);
            leg.joint_y_mm = flange_y - sign * run;
            found = leg.pan_distance_mm >= d.pan_clearance_mm;
        }
        if (!found) {
            p.waiting_for = fmt::format("No {} leg clears the gearbox pan by {} mm.", left ? "left" : "right",
                                        units::fixed(d.pan_clearance_mm, 0));
            return;
        }
        leg.flange_y_mm = flange_y;
        leg.flange_z_mm = flange_z;
        (left ? q.left : q.right) = leg;
    }
    q.middle_mm = q.right.joint_y_mm - q.left.joint_y_mm;
    q.middle_long_mm = q.middle_mm + d.box_height_mm / 2 * (std::tan(q.left.angle_rad / 2) + std::tan(q.right.angle_rad / 2));
    p.box_top_mm = top;
    p.box_bottom_mm = top - d.box_height_mm;
    p.box_length_mm = q.middle_mm;
    p.box_long_edge_mm = q.middle_long_mm;
    p.dropped = q;
}

} // namespace gorvet::make
