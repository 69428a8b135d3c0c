#include "make/crossmember_solid.hpp"

#include <cmath>

namespace gorvet::make {
namespace {

using build::Vec3;
using shape::Frame;
using shape::NamedSolid;
using shape::Solid;

/// A flange's inner face: a point on it, and its normal out of the bridge.
struct SolidFace {
    Vec3 point;
    Vec3 normal;
};

/// A box tube between two saw planes: its axis through `from` and `to` (both in the cross plane), long enough on both sides.
Result<Solid> boxBetween(const CrossmemberDesign& d, const Vec3& from, const Vec3& to, const Vec3& from_plane,
                         const Vec3& from_normal, const Vec3& to_plane, const Vec3& to_normal) {
    const double spare = 3 * (d.box_height_mm + d.box_width_mm);
    const double dy = to.y_mm - from.y_mm;
    const double dz = to.z_mm - from.z_mm;
    const double length = std::hypot(dy, dz);
    const Vec3 along{0, dy / length, dz / length};
    auto bar = shape::tube({shape::Section::Kind::Box, d.box_width_mm, d.box_height_mm, d.box_wall_mm, 2 * d.box_wall_mm},
                           length + 2 * spare);
    if (!bar) return bar;
    // width runs fore and aft
    const Frame place{{from.x_mm, from.y_mm - spare * along.y_mm, from.z_mm - spare * along.z_mm}, along, {-1, 0, 0}};
    auto half = shape::sawn(shape::placed(*bar, place), from_plane, from_normal);
    return half ? shape::sawn(*half, to_plane, to_normal) : half;
}

/// A plate of the plan, its local x along the rail (rearward) and its y up, thickness towards the left.
Result<Solid> standing(const Plate& p, const Vec3& lower_front, double plan_angle_rad) {
    std::vector<shape::RoundHole> holes;
    for (const Hole& h : p.holes) holes.push_back({h.x_mm, h.z_mm, h.diameter_mm});
    auto flat = shape::plate(p.width_mm, p.height_mm, p.thickness_mm, holes);
    if (!flat) return flat;
    return shape::placed(*flat, {lower_front, {std::cos(plan_angle_rad), std::sin(plan_angle_rad), 0}, {0, 0, 1}});
}

} // namespace

Result<std::vector<NamedSolid>> crossmemberSolids(const CrossmemberInput& in, const CrossmemberPlan& p) {
    if (!p.possible)
        return Error{Error::Code::NotFound, "crossmember", "The crossmember waits for " + p.waiting_for + ".", "", -1};
    const CrossmemberDesign& d = in.design;
    std::vector<NamedSolid> pieces;
    Error failed;
    const auto add = [&](const char* name, Result<Solid> solid) {
        if (solid)
            pieces.push_back({name, *solid});
        else if (failed.message.empty())
            failed = solid.error();
    };
    const double x = p.station_mm;
    const double axis_z = (p.box_top_mm + p.box_bottom_mm) / 2;
    // plan angles of the rails: rearward direction (cos, sin)
    const double left_plan = p.end_angle_left_rad;
    const double right_plan = -p.end_angle_right_rad;
    const auto face = [&](bool left) {
        const double sign = left ? -1 : 1;
        const double plan = left ? left_plan : right_plan;
        const double inner = left ? p.rail_inner_left_mm : p.rail_inner_right_mm;
        const double y = inner - sign * (d.flange_mm + d.end_clearance_mm) / std::cos(plan);
        return SolidFace{Vec3{x, y, axis_z}, Vec3{-sign * std::sin(plan), sign * std::cos(plan), 0}};
    };
    const SolidFace left_face = face(true);
    const SolidFace right_face = face(false);
    if (p.dropped) {
        const Dropped& q = *p.dropped;
        const Vec3 joint_left{x, q.left.joint_y_mm, axis_z};
        const Vec3 joint_right{x, q.right.joint_y_mm, axis_z};
        const Vec3 end_left{x, q.left.flange_y_mm, q.left.flange_z_mm};
        const Vec3 end_right{x, q.right.flange_y_mm, q.right.flange_z_mm};
        // mitre planes halve the angle between middle and leg; normals point out of the middle
        const Vec3 mitre_left{0, -std::cos(q.left.angle_rad / 2), std::sin(q.left.angle_rad / 2)};
        const Vec3 mitre_right{0, std::cos(q.right.angle_rad / 2), std::sin(q.right.angle_rad / 2)};
        const auto back = [](const Vec3& n) { return Vec3{-n.x_mm, -n.y_mm, -n.z_mm}; };
        add("middle", boxBetween(d, joint_left, joint_right, joint_left, mitre_left, joint_right, mitre_right));
        add("leg left", boxBetween(d, joint_left, end_left, joint_left, back(mitre_left), left_face.point, left_face.normal));
        add("leg right",
            boxBetween(d, joint_right, end_right, joint_right, back(mitre_right), right_face.point, right_face.normal));
        if (q.riser_mm > 0) {
            auto riser = shape::tube(
                {shape::Section::Kind::Box, q.riser_side_mm, q.riser_side_mm, d.box_wall_mm, 2 * d.box_wall_mm}, q.riser_mm);
            if (riser)
                add("riser", shape::placed(*riser, {{x, in.gearbox_mount.y_mm, p.box_top_mm}, {0, 0, 1}, {1, 0, 0}}));
            else
                add("riser", riser);
        }
    } else {
        add("bridge", boxBetween(d, left_face.point, right_face.point, left_face.point, left_face.normal, right_face.point,
                                 right_face.normal));
    }
    const auto flange = [&](const Plate& plate, bool left) {
        const double plan = left ? left_plan : right_plan;
        const double rail_top = left ? p.rail_top_left_mm : p.rail_top_right_mm;
        const SolidFace& f = left ? left_face : right_face;
        // thickness grows towards the left: the left flange from its inner face, the right one from its outer face
        const double out = left ? 0 : d.flange_mm;
        const Vec3 lower_front{f.point.x_mm + f.normal.x_mm * out - plate.width_mm / 2 * std::cos(plan),
                               f.point.y_mm + f.normal.y_mm * out - plate.width_mm / 2 * std::sin(plan),
                               rail_top - plate.rail_top_mm};
        return standing(plate, lower_front, plan);
    };
    add("flange left", flange(p.left, true));
    add("flange right", flange(p.right, false));
    std::vector<shape::RoundHole> holes;
    for (const Hole& h : p.pad.holes) holes.push_back({h.x_mm, h.z_mm, h.diameter_mm});
    auto pad = shape::plate(p.pad.width_mm, p.pad.height_mm, p.pad.thickness_mm, holes);
    if (pad)
        add("pad", shape::placed(*pad, {{x - p.pad.width_mm / 2, in.gearbox_mount.y_mm - p.pad.height_mm / 2,
                                         p.pad_top_mm - p.pad.thickness_mm},
                                        {1, 0, 0},
                                        {0, 1, 0}}));
    else
        add("pad", pad);
    if (!failed.message.empty()) return failed;
    return pieces;
}

} // namespace gorvet::make
