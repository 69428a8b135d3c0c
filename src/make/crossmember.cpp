#include "make/crossmember.hpp"

#include "make/fasteners.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::make {
namespace {

using build::PlanVerdict;
constexpr double weld_leg_mm = 5;

std::string trimmed(double value) { return fmt::format("{:g}", std::round(value * 10) / 10); }

/// The flange against one rail. `rail_top` and the box's height are in the chassis frame.
Plate flange(const char* name, double rail_top, const CrossmemberInput& in, double box_bottom, const BoltSize& bolt) {
    const CrossmemberDesign& d = in.design;
    const double rail_height = in.left.height_mm;
    const double wall = in.left.thickness_mm;
    const double edge = 1.5 * bolt.nominal;
    // rows: clear of the rail's corner radius (twice the wall), a washer's radius inside
    const double from_face = 2 * wall + bolt.washer_outside / 2;
    double upper = rail_top - from_face;
    double lower = rail_top - rail_height + from_face;
    std::vector<double> rows;
    if (upper - lower >= 3 * bolt.nominal)
        rows = {upper, lower};
    else
        rows = {rail_top - rail_height / 2};
    // columns: room for washer and spanner beside the box and its weld
    const double column =
        std::ceil(d.box_width_mm / 2 + weld_leg_mm + std::max(bolt.washer_outside / 2, bolt.across_flats * 0.75) + 2);
    Plate p;
    p.name = name;
    p.thickness_mm = d.flange_mm;
    p.width_mm = 2 * (column + edge);
    const double top = std::max(rows.front() + edge, box_bottom + d.box_height_mm + 10);
    const double bottom = std::min(rows.back() - edge, box_bottom - 10);
    p.height_mm = std::ceil(top - bottom);
    p.box_bottom_mm = box_bottom - bottom;
    p.box_height_mm = d.box_height_mm;
    p.box_front_mm = (p.width_mm - d.box_width_mm) / 2;
    p.rail_top_mm = rail_top - bottom;
    for (const double row : rows)
        for (const double x : {p.width_mm / 2 - column, p.width_mm / 2 + column})
            p.holes.push_back({x, row - bottom, bolt.clearance_hole});
    double area = p.width_mm * p.height_mm;
    for (const Hole& hole : p.holes) area -= units::pi / 4 * hole.diameter_mm * hole.diameter_mm;
    p.mass_kg = steelMass(area * p.thickness_mm);
    return p;
}

Plate padPlate(const CrossmemberDesign& d) {
    Plate p;
    p.name = "pad";
    p.thickness_mm = d.pad_mm;
    p.width_mm = d.pad_hole_pitch_mm + 4 * d.pad_hole_mm; // fore and aft
    p.height_mm = std::max(d.box_width_mm, 6 * d.pad_hole_mm);
    p.holes = {{2 * d.pad_hole_mm, p.height_mm / 2, d.pad_hole_mm},
               {2 * d.pad_hole_mm + d.pad_hole_pitch_mm, p.height_mm / 2, d.pad_hole_mm}};
    p.mass_kg = steelMass((p.width_mm * p.height_mm - 2 * units::pi / 4 * d.pad_hole_mm * d.pad_hole_mm) * p.thickness_mm);
    return p;
}

void listPieces(CrossmemberPlan& p, const CrossmemberInput& in) {
    const CrossmemberDesign& d = in.design;
    const auto ends = [](double left, double right) {
        if (std::abs(left) < units::radians(0.25) && std::abs(right) < units::radians(0.25))
            return std::string("both ends square");
        return fmt::format("saw {}° left, {}° right", units::fixed(units::degrees(std::abs(left)), 1),
                           units::fixed(units::degrees(std::abs(right)), 1));
    };
    p.pieces.push_back(
        {"bridge", fmt::format("box {} × {} × {}", trimmed(d.box_width_mm), trimmed(d.box_height_mm), trimmed(d.box_wall_mm)), 1,
         p.box_long_edge_mm, ends(p.end_angle_left_rad, p.end_angle_right_rad),
         steelMass(boxArea(d.box_height_mm, d.box_width_mm, d.box_wall_mm) * p.box_length_mm)});
    for (const Plate* plate : {&p.left, &p.right, &p.pad})
        p.pieces.push_back({plate->name, fmt::format("plate {}", trimmed(plate->thickness_mm)), 1,
                            std::max(plate->width_mm, plate->height_mm),
                            fmt::format("{} × {}, {} holes {}", trimmed(plate->width_mm), trimmed(plate->height_mm),
                                        plate->holes.size(), trimmed(plate->holes.front().diameter_mm)),
                            plate->mass_kg});
    if (!in.channel) {
        const double outside = d.bolt_mm + 8;
        const double inside = d.bolt_mm + 1;
        const auto count = static_cast<int>(p.left.holes.size() + p.right.holes.size());
        const double area = units::pi / 4 * (outside * outside - inside * inside);
        p.pieces.push_back({"crush tube", fmt::format("tube {} × {}", trimmed(outside), trimmed((outside - inside) / 2)), count,
                            in.left.width_mm, "square, welded through the rail", count * steelMass(area * in.left.width_mm)});
    }
    for (const CutPiece& piece : p.pieces) p.mass_kg += piece.mass_kg;
}

void findRemarks(CrossmemberPlan& p, const CrossmemberInput& in, const BoltSize& bolt) {
    const CrossmemberDesign& d = in.design;
    const auto add = [&p](const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        p.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy)});
    };
    if (p.box_length_mm < 100)
        add("too-short", PlanVerdict::Fails,
            fmt::format("Only {} mm are left for the bridge between the flanges.", units::fixed(p.box_length_mm, 0)),
            "Check the rail points and the rail's width.");
    const double rail_top = std::min(p.rail_top_left_mm, p.rail_top_right_mm);
    const double rail_bottom = std::max(p.rail_top_left_mm, p.rail_top_right_mm) - p.rail_height_mm;
    const double middle = (p.box_top_mm + p.box_bottom_mm) / 2;
    if (middle > rail_top)
        add("above-rail", PlanVerdict::Fails,
            fmt::format("The bridge would stand {} mm above the rails' top.", units::fixed(p.box_top_mm - rail_top, 0)),
            "Take a higher isolator or a lower box, or check the gearbox mount's height.");
    else if (p.box_top_mm > rail_top)
        add("top-proud", PlanVerdict::Marginal,
            fmt::format("The bridge stands {} mm proud of the rails' top.", units::fixed(p.box_top_mm - rail_top, 0)),
            "Check the floor above it, with the body on.");
    const double drop = rail_bottom - p.box_bottom_mm;
    if (middle < rail_bottom)
        add("below-rail", PlanVerdict::Fails,
            fmt::format("The bridge would hang {} mm below the rails, and its flanges would bend.", units::fixed(drop, 0)),
            "A straight bridge does not fit here: it needs a dropped centre, or a lower isolator.");
    else if (drop > 0)
        add("hangs-below", PlanVerdict::Marginal, fmt::format("The bridge hangs {} mm below the rails.", units::fixed(drop, 0)),
            "Check ground clearance and what it may strike.");
    if (d.end_clearance_mm < 0.5)
        add("no-clearance", PlanVerdict::Marginal,
            fmt::format("The bridge has {} mm at each end. It needs 0.5 to come out again.", units::fixed(d.end_clearance_mm, 1)),
            "Give it 1 mm each end and shim on fitting.");
    if (!p.bolt_length_mm)
        add("no-bolt", PlanVerdict::Fails, "No standard bolt is long enough to go through the rail.",
            "Use captive nuts inside the rail.");
    else if (p.bolt_free_mm < *p.bolt_length_mm + 20)
        add("bolt-trapped", PlanVerdict::Fails,
            fmt::format("The bolts can't be drawn: {} mm are free, they need {}.", units::fixed(p.bolt_free_mm, 0),
                        units::fixed(*p.bolt_length_mm + 20, 0)),
            "Turn them round, heads outside.");
    if (p.left.holes.size() == 2)
        add("one-row", PlanVerdict::Marginal,
            fmt::format("The rail is too low for two rows of M{:g}: the flange would rock on one row.", bolt.nominal),
            "Take smaller bolts.");
    const double angle = std::max(std::abs(p.end_angle_left_rad), std::abs(p.end_angle_right_rad));
    if (angle > units::radians(10))
        add("rails-taper", PlanVerdict::Marginal,
            fmt::format("The rails run {}° off straight here.", units::fixed(units::degrees(angle), 1)),
            "Check the saw angles with a bevel on the frame.");
    if (std::abs(p.rail_top_left_mm - p.rail_top_right_mm) > 3)
        add("rails-unlevel", PlanVerdict::Marginal,
            fmt::format("The rails' tops differ by {} mm here: left and right flange are not alike.",
                        units::fixed(std::abs(p.rail_top_left_mm - p.rail_top_right_mm), 1)),
            "Mark the flanges left and right.");
    if (in.gearbox_half_width_mm > 3)
        add("mount-uncertain", PlanVerdict::Marginal,
            fmt::format("The gearbox mount's height is known to ± {} mm only.", units::fixed(in.gearbox_half_width_mm, 1)),
            "Take its height once more before cutting.");
    if (d.assumed)
        add("assumed", PlanVerdict::Marginal, "The crossmember rests on assumed sizes.",
            "Measure the isolator under load and type the sizes of your steel.");
    add("strength", PlanVerdict::Marginal, "The bridge's strength is not checked by this plan.",
        "Gearbox load, torque reaction and the frame's stiffness need a check by a licensed person.");
}

} // namespace

double boxArea(double h, double w, double t) {
    const double outer = 2 * t;
    const double inner = t;
    const double corner = 4 - units::pi;
    return h * w - corner * outer * outer - ((h - 2 * t) * (w - 2 * t) - corner * inner * inner);
}

double steelMass(double volume_mm3) { return volume_mm3 * 7850e-9; }

CrossmemberPlan crossmember(const CrossmemberInput& in) {
    CrossmemberPlan p;
    const CrossmemberDesign& d = in.design;
    p.station_mm = in.gearbox_mount.x_mm;
    const auto left = in.left.at(p.station_mm);
    const auto right = in.right.at(p.station_mm);
    const BoltSize* bolt = boltSize(d.bolt_mm);
    if (!left || !right) {
        p.waiting_for = "rail points on both sides, ahead of the gearbox mount and behind it (role rail)";
        return p;
    }
    if (!(in.left.height_mm > 0 && in.left.width_mm > 0 && in.left.thickness_mm > 0) || !bolt) {
        p.waiting_for = "the rail's section: height, width and wall";
        return p;
    }
    p.possible = true;
    p.rail_height_mm = in.left.height_mm;
    p.rail_width_mm = in.left.width_mm;
    p.rail_top_left_mm = left->top_mm;
    p.rail_top_right_mm = right->top_mm;
    p.rail_inner_left_mm = left->y_mm + in.left.width_mm / 2 / std::cos(left->plan_angle_rad);
    p.rail_inner_right_mm = right->y_mm - in.right.width_mm / 2 / std::cos(right->plan_angle_rad);
    p.between_rails_mm = p.rail_inner_right_mm - p.rail_inner_left_mm;
    // the left rail running inwards (to the right) makes the front edge the longer one; mirrored on the right
    p.end_angle_left_rad = left->plan_angle_rad;
    p.end_angle_right_rad = -right->plan_angle_rad;
    const double each_left = (d.flange_mm + d.end_clearance_mm) / std::cos(p.end_angle_left_rad);
    const double each_right = (d.flange_mm + d.end_clearance_mm) / std::cos(p.end_angle_right_rad);
    p.box_length_mm = p.between_rails_mm - each_left - each_right;
    // front and rear edge differ by half a width times the tangents each way
    p.box_long_edge_mm =
        p.box_length_mm + d.box_width_mm / 2 * std::abs(std::tan(p.end_angle_left_rad) + std::tan(p.end_angle_right_rad));
    p.pad_top_mm = in.gearbox_mount.z_mm - d.isolator_mm;
    p.box_top_mm = p.pad_top_mm - d.pad_mm;
    p.box_bottom_mm = p.box_top_mm - d.box_height_mm;
    p.left = flange("flange left", p.rail_top_left_mm, in, p.box_bottom_mm, *bolt);
    p.right = flange("flange right", p.rail_top_right_mm, in, p.box_bottom_mm, *bolt);
    p.pad = padPlate(d);
    p.bolt_mm = d.bolt_mm;
    p.bolt_length_mm = boltLength(*bolt, d.flange_mm + (in.channel ? in.left.thickness_mm : in.left.width_mm));
    p.bolt_free_mm = p.between_rails_mm - 2 * d.flange_mm;
    listPieces(p, in);
    findRemarks(p, in, *bolt);
    p.verdict = PlanVerdict::Holds;
    for (const Remark& remark : p.remarks) p.verdict = std::max(p.verdict, remark.verdict);
    return p;
}

} // namespace gorvet::make
