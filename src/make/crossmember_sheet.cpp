#include "make/make_sheet.hpp"
#include "sheet/page.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::make {

using namespace sheet;

namespace {

std::string trimmed(double v) { return fmt::format("{:g}", std::round(v * 10) / 10); }

/// Front view of the plate in a projection: x along the rail, z up.
void drawPlate(Drawing& d, const Plate& p, const Projection& to, const Format& f) {
    d.add(Stroke{{to(0, 0), to(p.width_mm, 0), to(p.width_mm, p.height_mm), to(0, p.height_mm)},
                 true,
                 {Ink::NewSteel, f.thick(), Dash::Solid}});
    for (const Hole& h : p.holes) {
        const P c = to(h.x_mm, h.z_mm);
        const double r = h.diameter_mm / 2 * to.scale;
        d.add(Circle{c, r, {Ink::NewSteel, f.medium(), Dash::Solid}});
        for (const auto& [dx, dy] : {std::pair{1.0, 0.0}, std::pair{0.0, 1.0}})
            d.add(Stroke{
                {{c.x - dx * (r + f.px(5)), c.y - dy * (r + f.px(5))}, {c.x + dx * (r + f.px(5)), c.y + dy * (r + f.px(5))}},
                false,
                {Ink::Second, f.thin() * 0.7, Dash::DashDot}});
    }
}

/// Middle and legs from behind, with the clearance to the pan and the angle of each leg.
void dropped(Drawing& d, const CrossmemberPlan& p, const CrossmemberDesign& design, const Projection& to, const Format& f) {
    const Dropped& q = *p.dropped;
    const Pen steel{Ink::NewSteel, f.thick(), Dash::Solid};
    const double half = design.box_height_mm / 2;
    const double axis = (p.box_top_mm + p.box_bottom_mm) / 2;
    // a mitre's ends: half the angle off square, half a box above and below the axis; outwards below
    const auto joint = [&](const Leg& leg, double out, double side) {
        return to(leg.joint_y_mm - out * side * half * std::tan(leg.angle_rad / 2), axis + side * half);
    };
    const auto end = [&](const Leg& leg, double side) {
        return to(leg.flange_y_mm, leg.flange_z_mm + side * half / std::cos(leg.angle_rad));
    };
    d.add(Stroke{{joint(q.left, -1, 1), joint(q.right, 1, 1), joint(q.right, 1, -1), joint(q.left, -1, -1)}, true, steel},
          "crossmember");
    for (const auto& [leg, out] : {std::pair{&q.left, -1.0}, std::pair{&q.right, 1.0}}) {
        d.add(Stroke{{joint(*leg, out, 1), end(*leg, 1), end(*leg, -1), joint(*leg, out, -1)}, true, steel}, "crossmember");
        const P middle = to((leg->flange_y_mm + leg->joint_y_mm) / 2, (leg->flange_z_mm + axis) / 2);
        d.add(Text{{middle.x, middle.y + f.px(34)},
                   units::formatAngle(leg->angle_rad, 1),
                   f.small(),
                   Ink::NewSteel,
                   Anchor::Centre,
                   Level::Base,
                   Face::Sans,
                   Mark::Derived},
              "crossmember");
    }
}

constexpr double same_row_mm = 0.25;

/// A low, wide sheet has the cut list beside the bridge; any other below it, and the flange beside the bridge.
bool listBeside(double width, double height, const Format& f) { return width > 2.2 * height && width >= f.px(1080); }
double listHeight(const CrossmemberPlan& p, const Format& f) {
    return f.px(30) + f.px(22) * static_cast<double>(p.pieces.size() + 1);
}

} // namespace

double crossmemberHeight(const CrossmemberView& v, double width, const Format& f) {
    if (!v.plan->possible) return 0;
    return width >= f.px(1080) ? listHeight(*v.plan, f) : listHeight(*v.plan, f) + f.px(300);
}

Drawing plateDrawing(const Plate& p) {
    Drawing d;
    d.width = p.width_mm;
    d.height = p.height_mm;
    const auto y = [&](double z) { return p.height_mm - z; };
    d.add(Stroke{{{0, y(0)}, {p.width_mm, y(0)}, {p.width_mm, y(p.height_mm)}, {0, y(p.height_mm)}},
                 true,
                 {Ink::NewSteel, 0.25, Dash::Solid}});
    for (const Hole& h : p.holes) d.add(Circle{{h.x_mm, y(h.z_mm)}, h.diameter_mm / 2, {Ink::NewSteel, 0.25, Dash::Solid}});
    return d;
}

Drawing plateSheet(const Plate& p, units::LengthStep step, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    const auto len = [&](double mm) { return units::formatLength(mm, step); };
    const Projection to = fit(0, p.width_mm, 0, p.height_mm, {f.px(52), f.px(30)}, width - f.px(130), height - f.px(120), true);
    d.add(Text{{0, f.body()}, fmt::format("{}, {} thick", p.name, trimmed(p.thickness_mm)), f.body(), Ink::Second});
    drawPlate(d, p, to, f);
    if (p.rail_top_mm > 0) { // a flange: where the box is welded on, and the rail's top face
        const double from = p.box_front_mm;
        const double until = p.width_mm - p.box_front_mm;
        d.add(Stroke{{to(from, p.box_bottom_mm), to(until, p.box_bottom_mm), to(until, p.box_bottom_mm + p.box_height_mm),
                      to(from, p.box_bottom_mm + p.box_height_mm)},
                     true,
                     {Ink::NewSteel, f.thin(), Dash::Dashed}});
        const double falls = p.width_mm / 2 * std::tan(p.rail_slope_rad);
        d.add(Stroke{{to(0, p.rail_top_mm + falls), to(p.width_mm, p.rail_top_mm - falls)},
                     false,
                     {Ink::Chassis, f.medium(), Dash::Dashed}});
        d.add(Text{{to(p.width_mm, 0).x + f.px(4), to(0, p.rail_top_mm).y + f.px(4)}, "rail top", f.small(), Ink::Chassis});
    }
    sheet::addScale(d, {f.px(2), height - f.px(20)}, to.scale, f); // above the line of its holes
    const P low_left = to(0, 0);
    const P low_right = to(p.width_mm, 0);
    d.add(Dimension{low_left, low_right, -f.px(54), len(p.width_mm), f.small(), Ink::Ink, Mark::Derived});
    d.add(Dimension{low_left, to(0, p.height_mm), f.px(38), len(p.height_mm), f.small(), Ink::Ink, Mark::Derived});
    std::vector<double> xs;
    std::vector<double> zs;
    // what nobody marks out apart is one row; the file for cutting has each hole where it is
    const auto keep = [](std::vector<double>& rows, double at) {
        if (std::none_of(rows.begin(), rows.end(), [at](double other) { return std::abs(other - at) < same_row_mm; }))
            rows.push_back(at);
    };
    for (const Hole& h : p.holes) {
        keep(xs, h.x_mm);
        keep(zs, h.z_mm);
    }
    std::sort(xs.begin(), xs.end());
    std::sort(zs.begin(), zs.end());
    double at = 0;
    for (const double x : xs) {
        d.add(Dimension{to(at, 0), to(x, 0), -f.px(24), len(x - at), f.small(), Ink::Ink, Mark::Derived});
        at = x;
    }
    at = 0;
    for (const double z : zs) {
        d.add(Dimension{to(p.width_mm, z), to(p.width_mm, at), f.px(20), len(z - at), f.small(), Ink::Ink, Mark::Derived});
        at = z;
    }
    if (!p.holes.empty())
        d.add(Text{
            {f.px(2), height - f.px(4)},
            fmt::format("{} holes {}, {}", p.holes.size(), trimmed(p.holes.front().diameter_mm), units::formatMass(p.mass_kg)),
            f.small(),
            Ink::Ink});
    return d;
}

Drawing crossmemberSheet(const CrossmemberView& v, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    const CrossmemberPlan& p = *v.plan;
    if (!p.possible) return d;
    const CrossmemberDesign& design = v.input->design;
    const auto len = [&](double mm) { return units::formatLength(mm, v.step); };
    const bool wide = listBeside(width, height, f);
    const double column = wide ? std::max(width * 0.46, std::min(f.px(540), width * 0.6)) : std::min(width * 0.32, f.px(360));
    const double list_height = wide ? 0 : listHeight(p, f);

    // from behind: left rail at the left
    const double outer_left = p.rail_inner_left_mm - p.rail_width_mm;
    const double outer_right = p.rail_inner_right_mm + p.rail_width_mm;
    const double top = std::max({p.rail_top_left_mm, p.rail_top_right_mm, v.input->gearbox_mount.z_mm});
    const double bottom =
        std::min({p.rail_top_left_mm - p.rail_height_mm, p.rail_top_right_mm - p.rail_height_mm, p.box_bottom_mm});
    const Projection to = fit(outer_left, outer_right, bottom, top, {f.px(70), f.px(46)}, width - column - f.px(150),
                              height - list_height - f.px(120), true);
    d.add(Text{{0, f.body()}, "crossmember from behind", f.body(), Ink::Second}, "crossmember");
    sheet::addScale(d, {f.px(200), f.body()}, to.scale, f);
    const auto rect = [&](double y0, double y1, double z0, double z1, Pen pen, bool hatch) {
        const std::vector<P> path = {to(y0, z0), to(y1, z0), to(y1, z1), to(y0, z1)};
        if (hatch) d.add(Hatch{path, {pen.ink, f.thin(), Dash::Solid}, f.px(6), false}, "crossmember");
        d.add(Stroke{path, true, pen}, "crossmember");
    };
    const auto wall = v.input->left.thickness_mm;
    for (const bool left : {true, false}) {
        const double rail_top = left ? p.rail_top_left_mm : p.rail_top_right_mm;
        const double inner = left ? p.rail_inner_left_mm : p.rail_inner_right_mm;
        const double away = left ? -1 : 1;
        rect(inner, inner + away * p.rail_width_mm, rail_top - p.rail_height_mm, rail_top, {Ink::Chassis, f.thick(), Dash::Solid},
             false);
        rect(inner + away * wall, inner + away * (p.rail_width_mm - wall), rail_top - p.rail_height_mm + wall, rail_top - wall,
             {Ink::Chassis, f.thin(), Dash::Solid}, false);
        const Plate& plate = left ? p.left : p.right;
        const double face = inner - away * design.end_clearance_mm;
        const double low = rail_top - plate.rail_top_mm;
        rect(face, face - away * plate.thickness_mm, low, low + plate.height_mm, {Ink::NewSteel, f.medium(), Dash::Solid}, true);
        for (const Hole& h : plate.holes) { // bolts through the rail
            const double z = low + h.z_mm;
            d.add(Stroke{{to(face - away * (plate.thickness_mm + 14), z), to(inner + away * (p.rail_width_mm + 14), z)},
                         false,
                         {Ink::Ink, f.thin(), Dash::DashDot}},
                  "crossmember");
        }
    }
    const double box_left =
        p.dropped ? p.dropped->left.joint_y_mm : p.rail_inner_left_mm + design.end_clearance_mm + design.flange_mm;
    const double box_right =
        p.dropped ? p.dropped->right.joint_y_mm : p.rail_inner_right_mm - design.end_clearance_mm - design.flange_mm;
    if (p.pan) {
        const double up = std::min(p.pan->low_mm + 25, v.input->gearbox_mount.z_mm);
        d.add(Stroke{{to(p.pan->left_mm, up), to(p.pan->left_mm, p.pan->low_mm), to(p.pan->right_mm, p.pan->low_mm),
                      to(p.pan->right_mm, up)},
                     false,
                     {Ink::Second, f.medium(), p.pan_over ? Dash::Solid : Dash::Dashed}},
              "crossmember");
        d.add(Text{{to(p.pan->left_mm, 0).x - f.px(6), to(0, up).y + f.px(2)},
                   p.pan_over ? "pan, " + units::fixed(p.pan_gap_mm, 1) + " clear" : std::string("pan"),
                   f.small(),
                   p.pan_over && p.pan_gap_mm < design.pan_clearance_mm - 1e-6 ? Ink::Bad : Ink::Second,
                   Anchor::Right});
    }
    if (p.dropped) {
        dropped(d, p, design, to, f);
    } else {
        rect(box_left, box_right, p.box_bottom_mm, p.box_top_mm, {Ink::NewSteel, f.thick(), Dash::Solid}, false);
        for (const double z : {p.box_top_mm - design.box_wall_mm, p.box_bottom_mm + design.box_wall_mm})
            d.add(Stroke{{to(box_left, z), to(box_right, z)}, false, {Ink::NewSteel, f.thin(), Dash::Dashed}}, "crossmember");
    }
    const double gy = v.input->gearbox_mount.y_mm;
    rect(gy - p.pad.height_mm / 2, gy + p.pad.height_mm / 2, p.pad_top_mm - p.pad.thickness_mm, p.pad_top_mm,
         {Ink::NewSteel, f.medium(), Dash::Solid}, false);
    if (p.dropped && p.dropped->riser_mm > 0)
        rect(gy - p.dropped->riser_side_mm / 2, gy + p.dropped->riser_side_mm / 2, p.box_top_mm,
             p.pad_top_mm - p.pad.thickness_mm, {Ink::NewSteel, f.medium(), Dash::Solid}, false);
    rect(gy - 30, gy + 30, p.pad_top_mm, v.input->gearbox_mount.z_mm, {Ink::Ink, f.thin(), Dash::Solid}, true);
    d.add(Text{{to(gy + 34, 0).x, to(0, (p.pad_top_mm + v.input->gearbox_mount.z_mm) / 2).y + f.px(4)},
               "isolator " + len(design.isolator_mm),
               f.small(),
               Ink::Ink,
               Anchor::Left,
               Level::Base,
               Face::Sans,
               design.assumed ? Mark::Assumed : Mark::None});
    d.add(Stroke{{to(gy - 70, v.input->gearbox_mount.z_mm), to(gy + 70, v.input->gearbox_mount.z_mm)},
                 false,
                 {Ink::Second, f.medium(), Dash::Solid}},
          "crossmember");
    d.add(Text{
        {to(gy, 0).x, to(0, v.input->gearbox_mount.z_mm).y - f.px(6)}, "gearbox mount", f.small(), Ink::Second, Anchor::Centre});
    // dimensions
    const double foot = to(0, bottom).y;
    d.add(Dimension{{to(p.rail_inner_left_mm, 0).x, foot},
                    {to(p.rail_inner_right_mm, 0).x, foot},
                    -f.px(56),
                    len(p.between_rails_mm),
                    f.body(),
                    Ink::Chassis,
                    Mark::Derived},
          "crossmember");
    d.add(Dimension{{to(box_left, 0).x, foot},
                    {to(box_right, 0).x, foot},
                    -f.px(26),
                    len(p.box_length_mm),
                    f.body(),
                    Ink::NewSteel,
                    Mark::Derived},
          "crossmember");
    d.add(Dimension{{to(outer_left, 0).x, to(0, p.rail_top_left_mm).y},
                    {to(outer_left, 0).x, to(0, p.pad_top_mm).y},
                    p.pad_top_mm > p.rail_top_left_mm ? f.px(26) : -f.px(26),
                    len(std::abs(p.pad_top_mm - p.rail_top_left_mm)),
                    f.body(),
                    Ink::NewSteel,
                    Mark::Derived},
          "crossmember");
    d.add(Text{{f.px(2), std::min(to(0, p.rail_top_left_mm).y, to(0, p.pad_top_mm).y) - f.px(20)},
               p.pad_top_mm > p.rail_top_left_mm ? "pad over rail top" : "pad under rail top",
               f.small(),
               Ink::Second});
    if (p.dropped)
        d.add(Dimension{{to(outer_right, 0).x, to(0, p.rail_top_right_mm).y},
                        {to(outer_right, 0).x, to(0, p.box_top_mm).y},
                        f.px(26),
                        len(p.rail_top_right_mm - p.box_top_mm),
                        f.body(),
                        Ink::NewSteel,
                        Mark::Derived},
              "crossmember");
    else
        d.add(Dimension{{to(outer_right, 0).x, to(0, p.box_top_mm).y},
                        {to(outer_right, 0).x, to(0, p.box_bottom_mm).y},
                        f.px(26),
                        len(design.box_height_mm),
                        f.body(),
                        Ink::NewSteel,
                        design.assumed ? Mark::Assumed : Mark::None},
              "crossmember");
    if (!wide) d.place(plateSheet(p.left, v.step, column, height - list_height - f.px(10), f), {width - column, 0});
    // cut list
    std::vector<std::vector<std::string>> rows;
    for (const CutPiece& piece : p.pieces)
        rows.push_back({std::to_string(piece.count), piece.name, piece.stock, piece.length_mm > 0 ? len(piece.length_mm) : "",
                        piece.ends, piece.mass_kg > 0 ? units::formatMass(piece.mass_kg) : ""});
    rows.push_back({"", "all", "", "",
                    p.bolt_length_mm ? fmt::format("bolts {} × M{:g} × {:g}", p.left.holes.size() + p.right.holes.size(),
                                                   p.bolt_mm, *p.bolt_length_mm)
                                     : "",
                    units::formatMass(p.mass_kg)});
    const double table_width = wide ? column : width;
    const double unit = table_width / 100;
    addTable(d, {width - table_width, wide ? 0 : height - list_height, table_width, wide ? height : list_height},
             {{"no", 4 * unit, Anchor::Right},
              {"piece", 15 * unit},
              {"stock", 19 * unit},
              {"length", 10 * unit, Anchor::Right},
              {"ends and holes", 40 * unit},
              {"mass", 12 * unit, Anchor::Right}},
             rows, f.small());
    return d;
}

} // namespace gorvet::make
