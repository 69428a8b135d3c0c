#include "make/crossmember.hpp"

#include "make/crossmember_dropped.hpp"
#include "make/crossmember_strength.hpp"
#include "make/fasteners.hpp"
#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::make {
namespace {

using build::PlanVerdict;
constexpr double weld_leg_mm = 5;

/// The flange against one rail. `rail_top` and the box's place are heights in the chassis frame.
/// Its edges are level and upright as the box on it is; the rows of holes run along the rail, which may slope.
Plate flange(const char* name, const build::RailLine::At& rail, const CrossmemberInput& in, double box_bottom, double box_height,
             const BoltSize& bolt) {
    const double rail_top = rail.top_mm;
    const double upright = 1 / std::cos(rail.slope_rad); // of what is measured square to the rail
    const CrossmemberDesign& d = in.design;
    const double rail_height = in.left.height_mm;
    const double wall = in.left.thickness_mm;
    const double edge = 1.5 * bolt.nominal;
    // rows: clear of the rail's corner radius (twice the wall), a washer's radius inside
    const double from_face = (2 * wall + bolt.washer_outside / 2) * upright;
    double upper = rail_top - from_face;
    double lower = rail_top - rail_height * upright + from_face;
    std::vector<double> rows;
    if (upper - lower >= 3 * bolt.nominal)
        rows = {upper, lower};
    else
        rows = {rail_top - rail_height * upright / 2};
    // columns: room for washer and spanner beside the box and its weld
    const double column =
        std::ceil(d.box_width_mm / 2 + weld_leg_mm + std::max(bolt.washer_outside / 2, bolt.across_flats * 0.75) + 2);
    Plate p;
    p.name = name;
    p.thickness_mm = d.flange_mm;
    p.width_mm = 2 * (column + edge);
    const double falls = column * std::tan(std::abs(rail.slope_rad)); // from the middle to a column
    const double top = std::max(rows.front() + falls + edge, box_bottom + box_height + 10);
    const double bottom = std::min(rows.back() - falls - edge, box_bottom - 10);
    p.height_mm = std::ceil(top - bottom);
    p.box_bottom_mm = box_bottom - bottom;
    p.box_height_mm = box_height;
    p.box_front_mm = (p.width_mm - d.box_width_mm) / 2;
    p.rail_top_mm = rail_top - bottom;
    p.rail_slope_rad = rail.slope_rad;
    for (const double row : rows)
        for (const double dx : {-column, column})
            p.holes.push_back({p.width_mm / 2 + dx, row - dx * std::tan(rail.slope_rad) - bottom, bolt.clearance_hole});
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
    const std::string stock =
        fmt::format("box {} × {} × {}", trimmed(d.box_width_mm), trimmed(d.box_height_mm), trimmed(d.box_wall_mm));
    const double area = boxArea(d.box_height_mm, d.box_width_mm, d.box_wall_mm);
    const auto box = [&](const char* name, double long_edge, std::string cut, double middle_mm) {
        p.pieces.push_back({name, stock, 1, long_edge, std::move(cut), steelMass(area * middle_mm), d.box_width_mm,
                            d.box_height_mm, d.box_wall_mm});
    };
    if (p.dropped) {
        const auto degrees = [](double rad) { return units::fixed(units::degrees(rad), 1); };
        const Dropped& q = *p.dropped;
        box("middle", q.middle_long_mm,
            fmt::format("mitre {}° / {}°, long below", degrees(q.left.angle_rad / 2), degrees(q.right.angle_rad / 2)),
            q.middle_mm);
        for (const auto& [name, leg] : {std::pair{"leg left", &q.left}, std::pair{"leg right", &q.right}})
            box(name, leg->long_edge_mm,
                fmt::format("mitre {}°, end {}°{}", degrees(leg->angle_rad / 2), degrees(leg->angle_rad),
                            std::abs(leg->plan_saw_rad) < units::radians(0.25)
                                ? ""
                                : fmt::format(" side, {}° top", degrees(std::abs(leg->plan_saw_rad)))),
                leg->length_mm);
        if (q.riser_mm > 0)
            p.pieces.push_back(
                {"riser",
                 fmt::format("box {} × {} × {}", trimmed(q.riser_side_mm), trimmed(q.riser_side_mm), trimmed(d.box_wall_mm)), 1,
                 q.riser_mm, "both ends square", steelMass(boxArea(q.riser_side_mm, q.riser_side_mm, d.box_wall_mm) * q.riser_mm),
                 q.riser_side_mm, q.riser_side_mm, d.box_wall_mm});
    } else {
        box("bridge", p.box_long_edge_mm, ends(p.end_angle_left_rad, p.end_angle_right_rad), p.box_length_mm);
    }
    for (const Plate* plate : {&p.left, &p.right, &p.pad})
        p.pieces.push_back({plate->name, fmt::format("plate {}", trimmed(plate->thickness_mm)), 1,
                            std::max(plate->width_mm, plate->height_mm),
                            fmt::format("{} × {}, {} holes {}", trimmed(plate->width_mm), trimmed(plate->height_mm),
                                        plate->holes.size(), trimmed(plate->holes.front().diameter_mm)),
                            plate->mass_kg});
    if (d.captive) {
        const auto count = static_cast<int>(p.left.holes.size() + p.right.holes.size());
        p.pieces.push_back(
            {"captive nut", fmt::format("weld nut M{:g}", d.bolt_mm), count, 0, "in the rail, before it is closed", 0});
    } else if (!in.channel) {
        const double outside = d.bolt_mm + 8;
        const double inside = d.bolt_mm + 1;
        const auto count = static_cast<int>(p.left.holes.size() + p.right.holes.size());
        const double ring = units::pi / 4 * (outside * outside - inside * inside);
        p.pieces.push_back({"crush tube", fmt::format("tube {} × {}", trimmed(outside), trimmed((outside - inside) / 2)), count,
                            in.left.width_mm, "square, welded through the rail", count * steelMass(ring * in.left.width_mm),
                            outside, 0, (outside - inside) / 2});
    }
    for (const CutPiece& piece : p.pieces) p.mass_kg += piece.mass_kg;
}

/// What can be wrong with a dropped middle.
void droppedRemarks(const CrossmemberPlan& p, const CrossmemberInput& in, const auto& add) {
    const Dropped& q = *p.dropped;
    if (q.drop_mm < in.design.box_height_mm / 3)
        add("drop-small", PlanVerdict::Marginal,
            fmt::format("The middle lies only {} mm under the flanges: four mitres for nothing.", units::fixed(q.drop_mm, 0)),
            "A straight bridge is simpler and stiffer: crossmember form straight.")
            .of(units::fixed(q.drop_mm, 0) + " mm", units::fixed(in.design.box_height_mm / 3, 0) + " mm");
    const double steep = std::max(q.left.angle_rad, q.right.angle_rad);
    if (steep > units::radians(60) + 1e-9)
        add("legs-steep", PlanVerdict::Fails,
            fmt::format("A leg would stand at {}°: more than 60° bends its mitre instead of carrying.",
                        units::fixed(units::degrees(steep), 0)),
            "Take a lower isolator, or less clearance to the pan.")
            .of(units::fixed(units::degrees(steep), 0) + "°", "60° at most");
}

/// Takes remarks, one after the other.
struct Remarks {
    CrossmemberPlan& p;
    Remark& operator()(const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) const {
        return p.remarks.emplace_back(Remark{code, verdict, std::move(sentence), std::move(remedy), {}, {}});
    }
};

/// The pad, with what it stands on under it, beside a pan that hangs lower than its top.
void padBesidePan(CrossmemberPlan& p, const CrossmemberInput& in) {
    if (!p.pan || p.pan->low_mm >= p.pad_top_mm) return;
    const double along = p.pad.width_mm / 2, across = p.pad.height_mm / 2, y = in.gearbox_mount.y_mm;
    const double away = std::max({p.pan->front_mm - p.station_mm - along, p.station_mm - along - p.pan->rear_mm,
                                  p.pan->left_mm - y - across, y - across - p.pan->right_mm});
    const double need = in.design.pan_clearance_mm;
    if (away >= need) return;
    Remarks{p}("pad-near-pan", away < 0 ? PlanVerdict::Fails : PlanVerdict::Marginal,
               fmt::format("The pad stands {} mm {} the gearbox pan. Needs {} clear.", units::fixed(std::abs(away), 0),
                           away < 0 ? "inside" : "from", units::fixed(need, 0)),
               "Holes of the pad nearer to each other, or another mount; or mark the pan's places once more.")
        .of(units::fixed(away, 0) + " mm", units::fixed(need, 0) + " mm");
}

/// Where the bridge stands to rails and pan.
void remarksOnForm(CrossmemberPlan& p, const CrossmemberInput& in) {
    const CrossmemberDesign& d = in.design;
    const Remarks add{p};
    padBesidePan(p, in);
    if (d.dropped && !p.dropped)
        add("no-room-to-drop", PlanVerdict::Fails,
            p.waiting_for.empty() ? "There is no room for a dropped middle here." : p.waiting_for,
            "Take a lower box, a lower isolator, or the straight form.");
    if (!p.dropped && p.box_length_mm < 100)
        add("too-short", PlanVerdict::Fails,
            fmt::format("Only {} mm are left for the bridge between the flanges.", units::fixed(p.box_length_mm, 0)),
            "Check the rail points and the rail's width.")
            .of(units::fixed(p.box_length_mm, 0) + " mm", "100 mm");
    const double rail_top = std::min(p.rail_top_left_mm, p.rail_top_right_mm);
    const double rail_bottom = std::max(p.rail_top_left_mm, p.rail_top_right_mm) - p.rail_height_mm;
    const double middle = (p.box_top_mm + p.box_bottom_mm) / 2;
    if (p.dropped) {
        droppedRemarks(p, in, add);
    } else if (middle > rail_top)
        add("above-rail", PlanVerdict::Fails,
            fmt::format("The bridge would stand {} mm above the rails' top.", units::fixed(p.box_top_mm - rail_top, 0)),
            "Take a higher isolator or a lower box, or check the gearbox mount's height.")
            .of(units::fixed(p.box_top_mm - rail_top, 0) + " mm", "0 mm");
    else if (p.box_top_mm > rail_top)
        add("top-proud", PlanVerdict::Marginal,
            fmt::format("The bridge stands {} mm proud of the rails' top.", units::fixed(p.box_top_mm - rail_top, 0)),
            "Check the floor above it, with the body on.")
            .of(units::fixed(p.box_top_mm - rail_top, 0) + " mm", "0 mm");
    const double drop = rail_bottom - p.box_bottom_mm;
    if (p.dropped && drop > 0)
        add("hangs-below", PlanVerdict::Marginal, fmt::format("The middle hangs {} mm below the rails.", units::fixed(drop, 0)),
            "Check ground clearance and what it may strike.")
            .of(units::fixed(drop, 0) + " mm", "0 mm");
    else if (middle < rail_bottom)
        add("below-rail", PlanVerdict::Fails,
            fmt::format("The bridge would hang {} mm below the rails, and its flanges would bend.", units::fixed(drop, 0)),
            "A straight bridge does not fit here: it needs a dropped centre, or a lower isolator.")
            .of(units::fixed(drop, 0) + " mm", "0 mm");
    else if (drop > 0)
        add("hangs-below", PlanVerdict::Marginal, fmt::format("The bridge hangs {} mm below the rails.", units::fixed(drop, 0)),
            "Check ground clearance and what it may strike.")
            .of(units::fixed(drop, 0) + " mm", "0 mm");
    if (p.pan_over && p.pan_gap_mm < d.pan_clearance_mm - 1e-6)
        add("pan-fouls", p.pan_gap_mm < 0 ? PlanVerdict::Fails : PlanVerdict::Marginal,
            p.pan_gap_mm < 0 ? fmt::format("The gearbox pan fouls the bridge by {} mm. Needs {} clear.",
                                           units::fixed(-p.pan_gap_mm, 0), units::fixed(d.pan_clearance_mm, 0))
                             : fmt::format("The gearbox pan clears the bridge by {} mm. Needs {}.", units::fixed(p.pan_gap_mm, 1),
                                           units::fixed(d.pan_clearance_mm, 0)),
            fmt::format("Drop the middle by {} mm: crossmember form dropped.",
                        units::fixed(std::ceil(d.pan_clearance_mm - p.pan_gap_mm), 0)))
            .of(units::fixed(p.pan_gap_mm, 1) + " mm", units::fixed(d.pan_clearance_mm, 1) + " mm");
}

/// Whether the bolts go in, hold, and come out again.
void remarksOnBolts(CrossmemberPlan& p, const CrossmemberInput& in, const BoltSize& bolt) {
    const CrossmemberDesign& d = in.design;
    const Remarks add{p};
    for (const Filled& f : in.filled) {
        std::string stations;
        const double reach = bolt.across_flats;
        for (const Plate* plate : {&p.left, &p.right})
            for (const Hole& hole : plate->holes) {
                const double x = p.station_mm - plate->width_mm / 2 + hole.x_mm;
                const std::string at = units::fixed(x, 0);
                if (x + reach > f.from_mm && x - reach < f.to_mm && stations.find(at) == std::string::npos)
                    stations += (stations.empty() ? "" : " and ") + at;
            }
        if (!stations.empty())
            add("bolts-in-sleeve", PlanVerdict::Fails,
                fmt::format("{} of the flanges' bolts at {} would stand in {}, which fills the rails from {} to {}.",
                            d.captive || in.channel ? "The nuts" : "The crush tubes", stations, f.by, units::fixed(f.from_mm, 0),
                            units::fixed(f.to_mm, 0)),
                "Cut at another station, so that the sleeve ends short of the flange: a sleeve can't be slid past a nut or a tube.")
                .of(stations, fmt::format("outside {} to {}", units::fixed(f.from_mm, 0), units::fixed(f.to_mm, 0)));
    }
    if (!p.bolt_length_mm)
        add("no-bolt", PlanVerdict::Fails, "No standard bolt is long enough to go through the rail.",
            "Use captive nuts inside the rail.")
            .of(units::fixed(d.flange_mm + in.left.width_mm, 0) + " mm of grip", "a standard length");
    else if (p.bolt_free_mm < *p.bolt_length_mm + 20)
        add("bolt-trapped", PlanVerdict::Fails,
            fmt::format("The bolts can't be drawn: {} mm are free, they need {}.", units::fixed(p.bolt_free_mm, 0),
                        units::fixed(*p.bolt_length_mm + 20, 0)),
            d.captive ? "Take shorter bolts, or move the flange's holes away from the pan."
                      : "Turn them round, heads outside, or take captive nuts and shorter bolts.")
            .of(units::fixed(p.bolt_free_mm, 0) + " mm", units::fixed(*p.bolt_length_mm + 20, 0) + " mm");
    if (p.left.holes.size() == 2)
        add("one-row", PlanVerdict::Marginal,
            fmt::format("The rail is too low for two rows of M{:g}: the flange would rock on one row.", bolt.nominal),
            "Take smaller bolts.")
            .of("1 row", "2 rows");
}

/// Whether it bears what was said to stand on it.
void strength(CrossmemberPlan& p, const CrossmemberInput& in) {
    const CrossmemberDesign& d = in.design;
    const Remarks add{p};
    if (!d.load_N)
        return void(
            add("load", PlanVerdict::Marginal, "Nobody said what stands on it: whether it bears that is not known.",
                "Say the most, one bump too: crossmember load 3000. Three times what rests on the mount is no bad guess."));
    if (d.dropped && !p.dropped) return; // it can't be made
    const BridgeStrength s = bridgeStrength(in, p);
    p.used = s.used;
    p.used_at = s.at;
    if (s.used > 1)
        add("strength", PlanVerdict::Fails,
            fmt::format("It does not bear {:.0f} N: at {} stand {:.0f} MPa, and {:.0f} are borne.", *d.load_N, s.at, s.stress_mpa,
                        s.most_mpa),
            s.mend)
            .of(fmt::format("{:.0f} MPa", s.stress_mpa), fmt::format("≤ {:.0f} MPa", s.most_mpa));
    else if (!d.load_known || !d.yield_known)
        add("strength-guess", PlanVerdict::Marginal,
            fmt::format("It bears {:.1f} times the load that was said, by a yield or a load that is a guess.", 1 / s.used),
            "Say them as they are known: yield 235, and the load without a question mark.");
}

void findRemarks(CrossmemberPlan& p, const CrossmemberInput& in, const BoltSize& bolt) {
    const CrossmemberDesign& d = in.design;
    const Remarks add{p};
    remarksOnForm(p, in);
    remarksOnBolts(p, in, bolt);
    if (d.end_clearance_mm < 0.5)
        add("no-clearance", PlanVerdict::Marginal,
            fmt::format("The bridge has {} mm at each end. It needs 0.5 to come out again.", units::fixed(d.end_clearance_mm, 1)),
            "Give it 1 mm each end and shim on fitting.")
            .of(units::fixed(d.end_clearance_mm, 1) + " mm", "0.5 mm");
    const double angle = std::max(std::abs(p.end_angle_left_rad), std::abs(p.end_angle_right_rad));
    if (angle > units::radians(10))
        add("rails-taper", PlanVerdict::Marginal,
            fmt::format("The rails run {}° off straight here.", units::fixed(units::degrees(angle), 1)),
            "Check the saw angles with a bevel on the frame.")
            .of(units::fixed(units::degrees(angle), 1) + "°", "10.0° at most");
    if (std::abs(p.rail_top_left_mm - p.rail_top_right_mm) > 3)
        add("rails-unlevel", PlanVerdict::Marginal,
            fmt::format("The rails' tops differ by {} mm here: left and right flange are not alike.",
                        units::fixed(std::abs(p.rail_top_left_mm - p.rail_top_right_mm), 1)),
            "Mark the flanges left and right.")
            .of(units::fixed(std::abs(p.rail_top_left_mm - p.rail_top_right_mm), 1) + " mm", "3.0 mm at most");
    if (in.gearbox_u95_mm > 3)
        add("mount-uncertain", PlanVerdict::Marginal,
            fmt::format("The gearbox mount's height is known to ± {} mm only.", units::fixed(in.gearbox_u95_mm, 1)),
            "Take its height once more before cutting.")
            .of("± " + units::fixed(in.gearbox_u95_mm, 1) + " mm", "± 3.0 mm");
    if (!d.assumed.empty())
        add("assumed", PlanVerdict::Marginal,
            fmt::format("The crossmember rests on assumed sizes: {}.", fmt::join(d.assumed, ", ")),
            "Measure the isolator under load and type the sizes of your steel.");
    strength(p, in);
}

/// Free length inboard along the bolts: to the other flange, or to the pan's side where the pan stands in a bolt's way.
double freeForBolts(const CrossmemberPlan& p, const CrossmemberInput& in, const BoltSize& bolt) {
    const CrossmemberDesign& d = in.design;
    double free = p.between_rails_mm - 2 * d.flange_mm;
    if (!p.pan) return free;
    const double radius = bolt.washer_outside / 2;
    for (const bool left : {true, false}) {
        const Plate& plate = left ? p.left : p.right;
        const double lower_edge = (left ? p.rail_top_left_mm : p.rail_top_right_mm) - plate.rail_top_mm;
        for (const Hole& hole : plate.holes) {
            const double x = p.station_mm - plate.width_mm / 2 + hole.x_mm;
            const bool beside = x + radius < p.pan->front_mm || x - radius > p.pan->rear_mm;
            if (beside || lower_edge + hole.z_mm + radius < p.pan->low_mm) continue;
            const double face = left ? p.rail_inner_left_mm + d.end_clearance_mm + d.flange_mm
                                     : p.rail_inner_right_mm - d.end_clearance_mm - d.flange_mm;
            free = std::min(free, left ? p.pan->left_mm - face : face - p.pan->right_mm);
        }
    }
    return free;
}

} // namespace

double legHeight(double box_height_mm, double angle_rad) { return box_height_mm / std::cos(angle_rad); }

std::optional<Pan> panOf(const std::vector<build::Vec3>& places) {
    if (places.empty()) return std::nullopt;
    Pan pan{places[0].x_mm, places[0].x_mm, places[0].y_mm, places[0].y_mm, places[0].z_mm};
    for (const build::Vec3& v : places) {
        pan.front_mm = std::min(pan.front_mm, v.x_mm);
        pan.rear_mm = std::max(pan.rear_mm, v.x_mm);
        pan.left_mm = std::min(pan.left_mm, v.y_mm);
        pan.right_mm = std::max(pan.right_mm, v.y_mm);
        pan.low_mm = std::min(pan.low_mm, v.z_mm);
    }
    return pan;
}

double boxArea(double h, double w, double t) {
    const double outer = 2 * t;
    const double inner = t;
    const double corner = 4 - units::pi;
    return h * w - corner * outer * outer - ((h - 2 * t) * (w - 2 * t) - corner * inner * inner);
}

std::string trimmed(double mm) { return fmt::format("{:g}", std::round(mm * 10) / 10); }

double steelMass(double volume_mm3) { return volume_mm3 * units::steel_kg_mm3; }

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
    p.pan = panOf(in.pan);
    p.pan_over = p.pan && p.pan->front_mm < p.station_mm + d.box_width_mm / 2 + d.pan_clearance_mm &&
                 p.pan->rear_mm > p.station_mm - d.box_width_mm / 2 - d.pan_clearance_mm;
    double end_bottom[2] = {p.box_bottom_mm, p.box_bottom_mm};
    double end_height[2] = {d.box_height_mm, d.box_height_mm};
    if (d.dropped) {
        dropMiddle(p, in);
        if (p.dropped)
            for (const int side : {0, 1}) {
                const Leg& leg = side == 0 ? p.dropped->left : p.dropped->right;
                end_height[side] = legHeight(d.box_height_mm, leg.angle_rad);
                end_bottom[side] = leg.flange_z_mm - end_height[side] / 2;
            }
    }
    if (p.pan_over) p.pan_gap_mm = p.pan->low_mm - p.box_top_mm;
    p.left = flange("flange left", *left, in, end_bottom[0], end_height[0], *bolt);
    p.right = flange("flange right", *right, in, end_bottom[1], end_height[1], *bolt);
    p.pad = padPlate(d);
    p.bolt_mm = d.bolt_mm;
    const bool wall_only = in.channel || d.captive;
    p.bolt_length_mm = boltLength(*bolt, d.flange_mm + (wall_only ? in.left.thickness_mm : in.left.width_mm));
    p.bolt_free_mm = freeForBolts(p, in, *bolt);
    listPieces(p, in);
    findRemarks(p, in, *bolt);
    p.verdict = PlanVerdict::Holds;
    for (const Remark& remark : p.remarks) p.verdict = std::max(p.verdict, remark.verdict);
    return p;
}

} // namespace gorvet::make
