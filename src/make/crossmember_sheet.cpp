#include "make/make_sheet.hpp"
#include "sheet/page.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::make {

using namespace sheet;

namespace {

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

namespace {

/// The bridge between its rails, from behind: left rail at the left.
class FromBehind {
public:
    FromBehind(Drawing& d, const CrossmemberView& v, double width, double height, const Format& f)
        : d_(d), v_(v), f_(f), p_(*v.plan), design_(v.input->design), outer_left_(p_.rail_inner_left_mm - p_.rail_width_mm),
          outer_right_(p_.rail_inner_right_mm + p_.rail_width_mm),
          bottom_(
              std::min({p_.rail_top_left_mm - p_.rail_height_mm, p_.rail_top_right_mm - p_.rail_height_mm, p_.box_bottom_mm})),
          box_left_(p_.dropped ? p_.dropped->left.joint_y_mm
                               : p_.rail_inner_left_mm + design_.end_clearance_mm + design_.flange_mm),
          box_right_(p_.dropped ? p_.dropped->right.joint_y_mm
                                : p_.rail_inner_right_mm - design_.end_clearance_mm - design_.flange_mm),
          to_(fit(outer_left_, outer_right_, bottom_,
                  std::max({p_.rail_top_left_mm, p_.rail_top_right_mm, v.input->gearbox_mount.z_mm}), {f.px(70), f.px(46)}, width,
                  height, true)) {}

    void draw() {
        d_.add(Text{{0, f_.body()}, "crossmember from behind", f_.body(), Ink::Second}, "crossmember");
        sheet::addScale(d_, {f_.px(200), f_.body()}, to_.scale, f_);
        railsAndFlanges();
        pan();
        bridge();
        padAndMount();
        dimensions();
    }

private:
    std::string len(double mm) const { return units::formatLength(mm, v_.step); }
    void rect(double y0, double y1, double z0, double z1, Pen pen, bool hatch) {
        const std::vector<P> path = {to_(y0, z0), to_(y1, z0), to_(y1, z1), to_(y0, z1)};
        if (hatch) d_.add(Hatch{path, {pen.ink, f_.thin(), Dash::Solid}, f_.px(6), false}, "crossmember");
        d_.add(Stroke{path, true, pen}, "crossmember");
    }

    void railsAndFlanges() {
        const auto wall = v_.input->left.thickness_mm;
        for (const bool left : {true, false}) {
            const double rail_top = left ? p_.rail_top_left_mm : p_.rail_top_right_mm;
            const double inner = left ? p_.rail_inner_left_mm : p_.rail_inner_right_mm;
            const double away = left ? -1 : 1;
            rect(inner, inner + away * p_.rail_width_mm, rail_top - p_.rail_height_mm, rail_top,
                 {Ink::Chassis, f_.thick(), Dash::Solid}, false);
            rect(inner + away * wall, inner + away * (p_.rail_width_mm - wall), rail_top - p_.rail_height_mm + wall,
                 rail_top - wall, {Ink::Chassis, f_.thin(), Dash::Solid}, false);
            const Plate& plate = left ? p_.left : p_.right;
            const double face = inner - away * design_.end_clearance_mm;
            const double low = rail_top - plate.rail_top_mm;
            rect(face, face - away * plate.thickness_mm, low, low + plate.height_mm, {Ink::NewSteel, f_.medium(), Dash::Solid},
                 true);
            for (const Hole& h : plate.holes) { // bolts through the rail
                const double z = low + h.z_mm;
                d_.add(Stroke{{to_(face - away * (plate.thickness_mm + 14), z), to_(inner + away * (p_.rail_width_mm + 14), z)},
                              false,
                              {Ink::Ink, f_.thin(), Dash::DashDot}},
                       "crossmember");
            }
        }
    }

    void pan() {
        if (p_.pan) {
            const double up = std::min(p_.pan->low_mm + 25, v_.input->gearbox_mount.z_mm);
            d_.add(Stroke{{to_(p_.pan->left_mm, up), to_(p_.pan->left_mm, p_.pan->low_mm), to_(p_.pan->right_mm, p_.pan->low_mm),
                           to_(p_.pan->right_mm, up)},
                          false,
                          {Ink::Second, f_.medium(), p_.pan_over ? Dash::Solid : Dash::Dashed}},
                   "crossmember");
            d_.add(Text{{to_(p_.pan->left_mm, 0).x - f_.px(6), to_(0, up).y - f_.px(8)},
                        p_.pan_over ? "pan, " + units::fixed(p_.pan_gap_mm, 1) + " clear" : std::string("pan"),
                        f_.small(),
                        p_.pan_over && p_.pan_gap_mm < design_.pan_clearance_mm - 1e-6 ? Ink::Bad : Ink::Second,
                        Anchor::Right});
        }
    }

    void bridge() {
        if (p_.dropped) {
            dropped(d_, p_, design_, to_, f_);
        } else {
            rect(box_left_, box_right_, p_.box_bottom_mm, p_.box_top_mm, {Ink::NewSteel, f_.thick(), Dash::Solid}, false);
            for (const double z : {p_.box_top_mm - design_.box_wall_mm, p_.box_bottom_mm + design_.box_wall_mm})
                d_.add(Stroke{{to_(box_left_, z), to_(box_right_, z)}, false, {Ink::NewSteel, f_.thin(), Dash::Dashed}},
                       "crossmember");
        }
    }

    void padAndMount() {
        const double gy = v_.input->gearbox_mount.y_mm;
        rect(gy - p_.pad.height_mm / 2, gy + p_.pad.height_mm / 2, p_.pad_top_mm - p_.pad.thickness_mm, p_.pad_top_mm,
             {Ink::NewSteel, f_.medium(), Dash::Solid}, false);
        if (p_.dropped && p_.dropped->riser_mm > 0)
            rect(gy - p_.dropped->riser_side_mm / 2, gy + p_.dropped->riser_side_mm / 2, p_.box_top_mm,
                 p_.pad_top_mm - p_.pad.thickness_mm, {Ink::NewSteel, f_.medium(), Dash::Solid}, false);
        rect(gy - 30, gy + 30, p_.pad_top_mm, v_.input->gearbox_mount.z_mm, {Ink::Ink, f_.thin(), Dash::Solid}, true);
        d_.add(Text{{to_(gy + 34, 0).x, to_(0, (p_.pad_top_mm + v_.input->gearbox_mount.z_mm) / 2).y + f_.px(4)},
                    "isolator " + len(design_.isolator_mm),
                    f_.small(),
                    Ink::Ink,
                    Anchor::Left,
                    Level::Base,
                    Face::Sans,
                    design_.guessed("isolator") ? Mark::Assumed : Mark::None});
        d_.add(Stroke{{to_(gy - 70, v_.input->gearbox_mount.z_mm), to_(gy + 70, v_.input->gearbox_mount.z_mm)},
                      false,
                      {Ink::Second, f_.medium(), Dash::Solid}},
               "crossmember");
        d_.add(Text{{to_(gy, 0).x, to_(0, v_.input->gearbox_mount.z_mm).y - f_.px(6)},
                    "gearbox mount",
                    f_.small(),
                    Ink::Second,
                    Anchor::Centre});
    }

    void dimensions() {
        const double foot = to_(0, bottom_).y;
        d_.add(Dimension{{to_(p_.rail_inner_left_mm, 0).x, foot},
                         {to_(p_.rail_inner_right_mm, 0).x, foot},
                         -f_.px(56),
                         len(p_.between_rails_mm),
                         f_.body(),
                         Ink::Chassis,
                         Mark::Derived},
               "crossmember");
        d_.add(Dimension{{to_(box_left_, 0).x, foot},
                         {to_(box_right_, 0).x, foot},
                         -f_.px(26),
                         len(p_.box_length_mm),
                         f_.body(),
                         Ink::NewSteel,
                         Mark::Derived},
               "crossmember");
        d_.add(Dimension{{to_(outer_left_, 0).x, to_(0, p_.rail_top_left_mm).y},
                         {to_(outer_left_, 0).x, to_(0, p_.pad_top_mm).y},
                         p_.pad_top_mm > p_.rail_top_left_mm ? f_.px(26) : -f_.px(26),
                         len(std::abs(p_.pad_top_mm - p_.rail_top_left_mm)),
                         f_.body(),
                         Ink::NewSteel,
                         Mark::Derived},
               "crossmember");
        d_.add(Text{{f_.px(2), std::min(to_(0, p_.rail_top_left_mm).y, to_(0, p_.pad_top_mm).y) - f_.px(20)},
                    p_.pad_top_mm > p_.rail_top_left_mm ? "pad over rail top" : "pad under rail top",
                    f_.small(),
                    Ink::Second});
        if (p_.dropped)
            d_.add(Dimension{{to_(outer_right_, 0).x, to_(0, p_.rail_top_right_mm).y},
                             {to_(outer_right_, 0).x, to_(0, p_.box_top_mm).y},
                             f_.px(26),
                             len(p_.rail_top_right_mm - p_.box_top_mm),
                             f_.body(),
                             Ink::NewSteel,
                             Mark::Derived},
                   "crossmember");
        else
            d_.add(Dimension{{to_(outer_right_, 0).x, to_(0, p_.box_top_mm).y},
                             {to_(outer_right_, 0).x, to_(0, p_.box_bottom_mm).y},
                             f_.px(26),
                             len(design_.box_height_mm),
                             f_.body(),
                             Ink::NewSteel,
                             design_.guessed("box height") ? Mark::Assumed : Mark::None},
                   "crossmember");
    }

    Drawing& d_;
    const CrossmemberView& v_;
    const Format& f_;
    const CrossmemberPlan& p_;
    const CrossmemberDesign& design_;
    double outer_left_;
    double outer_right_;
    double bottom_;
    double box_left_;
    double box_right_;
    Projection to_;
};

/// What is to be cut.
void addCutList(Drawing& d, const Area& area, const CrossmemberView& v, const Format& f) {
    const CrossmemberPlan& p = *v.plan;
    const auto len = [&](double mm) { return units::formatLength(mm, v.step); };
    std::vector<std::vector<std::string>> rows;
    for (const CutPiece& piece : p.pieces)
        rows.push_back({std::to_string(piece.count), piece.name, piece.stock, piece.length_mm > 0 ? len(piece.length_mm) : "",
                        piece.ends, piece.mass_kg > 0 ? units::formatMass(piece.mass_kg) : ""});
    rows.push_back({"", "all", "", "",
                    p.bolt_length_mm ? fmt::format("bolts {} × M{:g} × {:g}", p.left.holes.size() + p.right.holes.size(),
                                                   p.bolt_mm, *p.bolt_length_mm)
                                     : "",
                    units::formatMass(p.mass_kg)});
    const double unit = area.width / 100;
    addTable(d, area,
             {{"no", 4 * unit, Anchor::Right},
              {"piece", 15 * unit},
              {"stock", 19 * unit},
              {"length", 10 * unit, Anchor::Right},
              {"ends and holes", 40 * unit},
              {"mass", 12 * unit, Anchor::Right}},
             rows, f.small());
}

} // namespace

Drawing crossmemberSheet(const CrossmemberView& v, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    const CrossmemberPlan& p = *v.plan;
    if (!p.possible) return d;
    const bool wide = listBeside(width, height, f);
    const double column = wide ? std::max(width * 0.46, std::min(f.px(540), width * 0.6)) : std::min(width * 0.32, f.px(360));
    const double list_height = wide ? 0 : listHeight(p, f);
    FromBehind(d, v, width - column - f.px(150), height - list_height - f.px(120), f).draw();
    if (!wide) d.place(plateSheet(p.left, v.step, column, height - list_height - f.px(10), f), {width - column, 0});
    const double table_width = wide ? column : width;
    addCutList(d, {width - table_width, wide ? 0 : height - list_height, table_width, wide ? height : list_height}, v, f);
    return d;
}

} // namespace gorvet::make
