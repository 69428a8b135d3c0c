#include "make/crossmember_solid.hpp"

#include <cmath>

namespace gorvet::make {
namespace {

/// A flange's inner face: a point on it, and its normal out of the bridge.
struct SolidFace {
    Vec3 point;
    Vec3 normal;
};

/// A box tube between two saw planes, its axis in the cross plane, its width fore and aft.
BarPiece boxBetween(const char* name, const CrossmemberDesign& d, const Vec3& from, const Vec3& to, const SolidFace& first,
                    const SolidFace& last) {
    BarPiece bar;
    bar.name = name;
    bar.round = false;
    bar.height_mm = d.box_height_mm;
    bar.width_mm = d.box_width_mm;
    bar.wall_mm = d.box_wall_mm;
    bar.from = from;
    bar.to = to;
    const Vec3 along = geometry::unit(geometry::minus(to, from));
    bar.up = {0, -along.z_mm, along.y_mm};
    bar.ends = {BarEnd{BarEnd::Kind::Saw, first.point, first.normal, 0, 0, std::nullopt},
                BarEnd{BarEnd::Kind::Saw, last.point, last.normal, 0, 0, std::nullopt}};
    return bar;
}

FlatPiece drilled(const char* name, const Plate& p, const shape::Frame& place) {
    FlatPiece piece;
    piece.name = name;
    piece.thickness_mm = p.thickness_mm;
    piece.outline = {{0, 0}, {p.width_mm, 0}, {p.width_mm, p.height_mm}, {0, p.height_mm}};
    for (const Hole& h : p.holes) piece.holes.push_back({{h.x_mm, h.z_mm}, h.diameter_mm, "bolt"});
    piece.places = {place};
    return piece;
}

} // namespace

PartPlan crossmemberPieces(const CrossmemberInput& in, const CrossmemberPlan& p) {
    PartPlan steel;
    steel.kind = "crossmember";
    if (!p.possible) return steel;
    const CrossmemberDesign& d = in.design;
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
        // mitre planes halve the angle between middle and leg; normals point out of the middle
        const SolidFace mitre_left{joint_left, {0, -std::cos(q.left.angle_rad / 2), std::sin(q.left.angle_rad / 2)}};
        const SolidFace mitre_right{joint_right, {0, std::cos(q.right.angle_rad / 2), std::sin(q.right.angle_rad / 2)}};
        const auto back = [](const SolidFace& f) { return SolidFace{f.point, geometry::times(f.normal, -1)}; };
        steel.bars.push_back(boxBetween("middle", d, joint_left, joint_right, mitre_left, mitre_right));
        steel.bars.push_back(
            boxBetween("leg left", d, joint_left, {x, q.left.flange_y_mm, q.left.flange_z_mm}, back(mitre_left), left_face));
        steel.bars.push_back(boxBetween("leg right", d, joint_right, {x, q.right.flange_y_mm, q.right.flange_z_mm},
                                        back(mitre_right), right_face));
        if (q.riser_mm > 0) {
            CrossmemberDesign square = d;
            square.box_height_mm = square.box_width_mm = q.riser_side_mm;
            const Vec3 low{x, in.gearbox_mount.y_mm, p.box_top_mm}, high{x, low.y_mm, low.z_mm + q.riser_mm};
            steel.bars.push_back(boxBetween("riser", square, low, high, {low, {0, 0, -1}}, {high, {0, 0, 1}}));
        }
    } else {
        steel.bars.push_back(boxBetween("bridge", d, left_face.point, right_face.point, left_face, right_face));
    }
    for (const bool left : {true, false}) {
        const Plate& plate = left ? p.left : p.right;
        const double plan = left ? left_plan : right_plan;
        const double rail_top = left ? p.rail_top_left_mm : p.rail_top_right_mm;
        const SolidFace& f = left ? left_face : right_face;
        // thickness grows towards the left: the left flange from its inner face, the right one from its outer face
        const double out = left ? 0 : d.flange_mm;
        const Vec3 lower_front{f.point.x_mm + f.normal.x_mm * out - plate.width_mm / 2 * std::cos(plan),
                               f.point.y_mm + f.normal.y_mm * out - plate.width_mm / 2 * std::sin(plan),
                               rail_top - plate.rail_top_mm};
        steel.flats.push_back(
            drilled(left ? "flange left" : "flange right", plate, {lower_front, {std::cos(plan), std::sin(plan), 0}, {0, 0, 1}}));
    }
    steel.flats.push_back(
        drilled("pad", p.pad,
                {{x - p.pad.width_mm / 2, in.gearbox_mount.y_mm - p.pad.height_mm / 2, p.pad_top_mm - p.pad.thickness_mm},
                 {1, 0, 0},
                 {0, 1, 0}}));
    return steel;
}

Result<std::vector<shape::NamedSolid>> crossmemberSolids(const CrossmemberInput& in, const CrossmemberPlan& p) {
    if (!p.possible)
        return Error{Error::Code::NotFound, "crossmember", "The crossmember waits for " + p.waiting_for + ".", "", -1};
    return partSolids(crossmemberPieces(in, p));
}

} // namespace gorvet::make
