// How strong the joint is beside the rail, and its plug welds. engineering.md, Stretch; Blodgett, Design of Welded Structures.
#include "stretch/parts.hpp"
#include "stretch/sheet_plugs.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::PlanVerdict;

constexpr double yield_MPa = 210; ///< unknown mild steel
constexpr double working_stress_MPa = yield_MPa / 1.5;
constexpr double weld_allowable_MPa = sheet_filler_MPa; ///< of filler F_EXX 480, shear on throat or plug area
constexpr double base_allowable_MPa = sheet_base_MPa;   ///< of the base metal, shear along the leg or round the plug
constexpr double fatigue_MPa = 36;                      ///< ±1 g range at a weld toe
constexpr double capacity_factor = 1.5;
constexpr double least_structural_wall_mm = 3;

std::string mm(double v, int decimals = 0) { return units::fixed(v, decimals); }

Plugs plugsFor(const build::RailLine& rail, const Sleeve& sleeve, const Input& in, double flange_force_N) {
    Plugs g;
    const double t = rail.thickness_mm;
    g.structural = t >= least_structural_wall_mm;
    g.hole_least_mm = t + 8;
    g.hole_most_mm = std::max(t + 11, 2.25 * t);
    g.hole_mm = in.plug_hole_mm.value_or(std::ceil(g.hole_least_mm));
    g.pitch_mm = 4 * g.hole_mm;
    g.edge_mm = 2 * g.hole_mm;
    g.base_limits = base_allowable_MPa < weld_allowable_MPa;
    g.capacity_N = units::pi / 4 * g.hole_mm * g.hole_mm * std::min(weld_allowable_MPa, base_allowable_MPa);
    // the sleeve's flange pulls beside the rail's: the couple tilts it in its fit and pries at the first plug, over the edge
    const double beside = (t + sleeve.wall_mm) / 2 + in.sleeve_fit_mm;
    g.prying = std::hypot(1.0, beside / g.edge_mm);
    // where the butt weld carries, or plugs may not, they only hold the sleeve in place
    g.needed = in.butt_counts || flange_force_N <= 0
                   ? 2
                   : static_cast<int>(std::ceil(capacity_factor * g.prying * flange_force_N / g.capacity_N - 1e-9));
    const double along = sleeve.overlap_mm - 2 * g.edge_mm;
    g.in_a_row = along < 0 ? 0 : 1 + static_cast<int>(std::floor(along / g.pitch_mm + 1e-9));
    // across the flat of the flange: clear of the corner (twice the wall) by a hole's radius and a little
    const double across = rail.width_mm - 2 * (2 * t) - 1.5 * g.hole_mm;
    g.rows = across < 0 ? 0 : 1 + static_cast<int>(std::floor(across / g.pitch_mm + 1e-9));
    if (g.rows > 0) g.overlap_need_mm = 2 * g.edge_mm + (std::ceil(static_cast<double>(g.needed) / g.rows) - 1) * g.pitch_mm;
    return g;
}

FishPlate plateFor(const build::RailLine& rail, double thickness_mm, double joint_mm) {
    FishPlate f;
    f.thickness_mm = thickness_mm;
    f.weld_leg_mm = thickness_mm <= 6 ? 3 : 5;
    if (rail.thickness_mm > 6) f.weld_leg_mm = std::max(f.weld_leg_mm, 5.0);
    // clear of the corners and of a flange edge by the weld
    f.height_mm = std::floor(rail.height_mm - 2 * (2 * rail.thickness_mm) - 2 * f.weld_leg_mm);
    f.length_mm = std::ceil(joint_mm + 2 * 2 * rail.height_mm);
    return f;
}

} // namespace

std::vector<std::pair<double, double>> fishPlateOutline(const FishPlate& f) {
    const double tip = f.height_mm / 2;
    return {{0, tip},          {tip, 0}, {tip + f.length_mm, 0}, {2 * tip + f.length_mm, tip}, {tip + f.length_mm, f.height_mm},
            {tip, f.height_mm}};
}

namespace {

/// Two plates on the webs, about the level axis.
double platesLevel(const FishPlate& f) { return 2 * f.thickness_mm * std::pow(f.height_mm, 3) / 12; }

/// Sleeve and plates bend together about the level axis; the outermost of what carries sets the modulus.
double together(const Section& sleeve, double sleeve_height, bool sleeve_carries, const FishPlate& plate) {
    const double outer = sleeve_carries ? std::max(sleeve_height, plate.height_mm) : plate.height_mm;
    return ((sleeve_carries ? sleeve.level_mm4 : 0) + platesLevel(plate)) / (outer / 2);
}

/// What the joint has of the rail sideways, in torsion, shear and tension.
void otherShares(Splice& s, const build::RailLine& rail, const Section& whole, const Section& sleeve, const Input& in) {
    if (in.butt_counts) {
        s.upright_share = s.torsion_share = s.shear_share = s.axial_share = 1;
        return;
    }
    const double carries = s.sleeve_carries ? 1 : 0;
    double upright = carries * sleeve.upright_mm4;
    double outer = rail.width_mm / 2;
    double torsion = carries * sleeve.torsion_modulus_mm3;
    double webs = carries * sleeve.web_area_mm2;
    double area = carries * sleeve.area_mm2;
    if (s.plate) {
        const FishPlate& f = *s.plate;
        const double arm = (rail.width_mm + f.thickness_mm) / 2;
        upright += 2 * f.thickness_mm * f.height_mm * arm * arm;
        outer = rail.width_mm / 2 + f.thickness_mm;
        // the two plates shear against each other as a couple over the width
        torsion += f.thickness_mm * f.height_mm * 2 * arm;
        webs += 2 * f.thickness_mm * f.height_mm;
        area += 2 * f.thickness_mm * f.height_mm;
    }
    s.upright_share = upright / outer / whole.upright_modulus_mm3;
    s.torsion_share = torsion / whole.torsion_modulus_mm3;
    s.shear_share = webs / whole.web_area_mm2;
    s.axial_share = area / whole.area_mm2;
}

/// ±1 g at the weld toe: an even load between the axles on two rails. An assumption where nobody knows the loads.
std::optional<double> fatigueRange(const Plan& p, const Input& in, double rail_modulus) {
    if (!in.mass_kg || !in.front_axle_mm || !in.rear_axle_mm || p.tail) return std::nullopt;
    const double span = (*in.rear_axle_mm - *in.front_axle_mm + p.change_mm) / 1000; // m
    const RailCut& cut = p.left.known ? p.left : p.right;
    const double x = std::clamp((cut.first_station_mm - *in.front_axle_mm) / 1000, 0.0, span);
    const double even = *in.mass_kg * 9.81 / span;          // N/m
    const double moment_Nm = even * x * (span - x) / 2 / 2; // one of two rails, at 1 g
    return 2 * moment_Nm * 1000 / rail_modulus;             // from 0 g to 2 g
}

/// Takes remarks, one after the other.
struct Remarks {
    Plan& p;
    Remark& operator()(const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) const {
        return p.remarks.emplace_back(Remark{code, verdict, std::move(sentence), std::move(remedy), {}, {}});
    }
};

/// How strong the joint is beside the rail, in each way that it is loaded.
void remarksOnStrength(const Splice& s, const Input& in, const Remarks& add) {
    if (s.share() < 1 - 1e-9) {
        std::string remedy;
        if (s.plate_need_mm)
            remedy += fmt::format("Add fish plates of {} (fish-plate {})", mm(*s.plate_need_mm), mm(*s.plate_need_mm));
        if (s.wall_need_mm)
            remedy += fmt::format("{} sleeve wall of {}", remedy.empty() ? "Take a" : ", or take a", mm(*s.wall_need_mm, 1));
        remedy += remedy.empty() ? "Have the butt weld fully penetrated by someone licensed (butt counts)."
                                 : ", or have the butt weld fully penetrated by someone licensed (butt counts).";
        add("splice-weak", PlanVerdict::Fails,
            fmt::format("{} reach {} of the rail's section modulus. The joint needs all of it.",
                        !s.sleeve_carries ? (s.plate ? "The plates alone"
                                                     : "In so thin a wall no plug weld carries: plates would have to; now they")
                        : s.plate         ? "Sleeve and plates"
                                          : "Sleeve",
                        units::fixed(s.share(), 2)),
            remedy)
            .of(units::fixed(s.share(), 2), "1.00");
    }
    struct Other {
        const char* code;
        const char* how;
        double share;
    };
    for (const Other& o :
         {Other{"splice-sideways", "Bent sideways", s.upright_share}, Other{"splice-torsion", "Twisted", s.torsion_share},
          Other{"splice-shear", "In shear", s.shear_share}, Other{"splice-axial", "Pulled along", s.axial_share}}) {
        constexpr double usual = 0.75; // loads of these kinds are well below what a rail bears
        if (o.share >= 1 - 1e-9) continue;
        add(o.code, o.share < usual ? PlanVerdict::Fails : PlanVerdict::Marginal,
            fmt::format("{}, the joint has {} of the rail.", o.how, units::fixed(o.share, 2)),
            "Take fish plates, a thicker sleeve, or have the butt weld fully penetrated by someone licensed (butt counts).")
            .of(units::fixed(o.share, 2), o.share < usual ? "0.75" : "1.00");
    }
    if (s.fatigue_range_MPa && *s.fatigue_range_MPa > fatigue_MPa)
        add("splice-fatigue", PlanVerdict::Marginal,
            fmt::format(
                "Over ±1 g the stress at the weld toe goes through about {} MPa, for {} kg spread evenly between the axles "
                "(assumed). {} is what a weld toe bears for long.",
                mm(*s.fatigue_range_MPa), mm(*in.mass_kg), mm(fatigue_MPa)),
            "Cut where the frame bends less, box the rail there, or let a licensed engineer work out the loads.")
            .of(mm(*s.fatigue_range_MPa) + " MPa", mm(fatigue_MPa) + " MPa at most");
}

/// Whether what is welded carries its share.
void remarksOnWelds(const Splice& s, const build::RailLine& rail, const Input& in, const Remarks& add) {
    const double h = rail.height_mm;
    const double t = rail.thickness_mm;
    const Plugs& g = s.plugs;
    // in a thin wall plates have to carry all of it, or the butt weld; once they do, plugs only hold the sleeve in place
    if (!g.structural && s.share() < 1 - 1e-9)
        add("plug-thin", PlanVerdict::Fails, fmt::format("The rail's wall is {} mm: plug welds carry from 3 mm on.", mm(t, 1)),
            s.plate_need_mm
                ? fmt::format("Take fish plates of {} (fish-plate {}) that carry without the sleeve, or have the butt weld fully "
                              "penetrated by someone licensed (butt counts).",
                              mm(*s.plate_need_mm), mm(*s.plate_need_mm))
                : "Have the butt weld fully penetrated by someone licensed (butt counts), or joined as a licensed person says.")
            .of(mm(t, 1) + " mm", "3.0 mm");
    if (in.plug_hole_mm && (g.hole_mm < g.hole_least_mm - 1e-9 || g.hole_mm > g.hole_most_mm + 1e-9))
        add("plug-hole", PlanVerdict::Marginal,
            fmt::format("Plug holes of {} mm in a wall of {}. They need {} to {}.", mm(g.hole_mm, 1), mm(rail.thickness_mm, 1),
                        mm(g.hole_least_mm, 1), mm(g.hole_most_mm, 1)),
            "Too small does not fuse to the bottom, too large burns the sleeve.")
            .of(mm(g.hole_mm, 1) + " mm", fmt::format("{} to {} mm", mm(g.hole_least_mm, 1), mm(g.hole_most_mm, 1)));
    if (in.sleeve_fit_mm > 2)
        add("plug-gap", PlanVerdict::Fails,
            fmt::format("Rail and sleeve stand {} mm apart. A plug weld bridges 2.", mm(in.sleeve_fit_mm, 1)),
            "Line the sleeve with strip, or take another tube.")
            .of(mm(in.sleeve_fit_mm, 1) + " mm", "2.0 mm at most");
    if (g.structural && !in.butt_counts && g.fit() < g.needed)
        add("plugs-short", PlanVerdict::Fails,
            fmt::format("Each flange needs {} plug welds of {} each side of the joint. {} fit.", g.needed, mm(g.hole_mm),
                        g.fit()),
            g.rows == 0
                ? "The flange is too narrow for plug welds of this size: take fish plates."
                : fmt::format("Make the overlap {} mm ({} rail heights), take larger holes up to {}, or share with fish plates.",
                              mm(std::ceil(g.overlap_need_mm)), units::fixed(std::ceil(10 * g.overlap_need_mm / h) / 10, 1),
                              mm(std::floor(g.hole_most_mm))))
            .of(fmt::format("{} plug welds", g.fit()), fmt::format("{} plug welds", g.needed));
    if (s.plate && s.plate->weld_capacity_N < s.plate->weld_force_N)
        add("plate-weld", PlanVerdict::Fails,
            fmt::format("The fillets of the fish plates carry {} kN. They need {}.",
                        units::fixed(s.plate->weld_capacity_N / 1000, 0), units::fixed(s.plate->weld_force_N / 1000, 0)),
            "Take longer plates or a larger fillet.")
            .of(units::fixed(s.plate->weld_capacity_N / 1000, 0) + " kN", units::fixed(s.plate->weld_force_N / 1000, 0) + " kN");
}

} // namespace

void joinStrength(Plan& p, const Input& in) {
    if (!p.sleeve) return;
    const build::RailLine& rail = p.left.known ? in.left : in.right;
    const Sleeve& sleeve = *p.sleeve;
    const double h = rail.height_mm;
    const double t = rail.thickness_mm;
    const Section whole = sectionOf(h, rail.width_mm, t, in.channel);
    const Section inner = sectionOf(sleeve.height_mm, sleeve.width_mm, sleeve.wall_mm, in.channel);
    Splice s;
    s.sleeve_carries = in.butt_counts || t >= least_structural_wall_mm;
    s.rail_modulus_mm3 = whole.level_modulus_mm3;
    s.sleeve_modulus_mm3 = inner.level_modulus_mm3;
    s.moment_Nmm = s.rail_modulus_mm3 * working_stress_MPa;
    const double joint = p.shortens ? in.root_gap_mm : std::max(p.left.length_mm, p.right.length_mm) + 2 * in.root_gap_mm;
    s.joint_modulus_mm3 = s.sleeve_carries ? s.sleeve_modulus_mm3 : 0;
    double plates_I = 0;
    if (in.fish_plate_mm) {
        s.plate = plateFor(rail, *in.fish_plate_mm, joint);
        plates_I = platesLevel(*s.plate);
        s.joint_modulus_mm3 = together(inner, sleeve.height_mm, s.sleeve_carries, *s.plate);
    }
    if (in.butt_counts) s.joint_modulus_mm3 = std::max(s.joint_modulus_mm3, s.rail_modulus_mm3);
    const double sleeve_I = s.sleeve_carries ? inner.level_mm4 : 0;
    const double total_I = sleeve_I + plates_I;
    const double sleeve_share = total_I > 0 ? sleeve_I / total_I : 0;
    s.sleeve_share = sleeve_share;
    s.flange_force_N = s.moment_Nmm * sleeve_share / (h - 2 * t);
    s.plugs = plugsFor(rail, sleeve, in, s.flange_force_N);
    if (s.plate) {
        FishPlate& f = *s.plate;
        f.weld_capacity_N = 2 * h * filletBears(f.weld_leg_mm, std::min(f.thickness_mm, t));
        f.weld_force_N = in.butt_counts ? 0 : capacity_factor * s.moment_Nmm * (1 - sleeve_share) / 2 / f.height_mm;
    }
    otherShares(s, rail, whole, inner, in);
    s.fatigue_range_MPa = fatigueRange(p, in, s.rail_modulus_mm3);
    for (double more = 3; more <= 12 && !s.plate_need_mm; more += 1)
        if (together(inner, sleeve.height_mm, s.sleeve_carries, plateFor(rail, more, joint)) >= s.rail_modulus_mm3)
            s.plate_need_mm = more;
    if (s.share() < 1 - 1e-9)
        for (double wall = sleeve.wall_mm; s.sleeve_carries && wall < sleeve.height_mm / 2 && !s.wall_need_mm; wall += 0.5)
            if (2 * wall < sleeve.width_mm &&
                sectionOf(sleeve.height_mm, sleeve.width_mm, wall, in.channel).level_modulus_mm3 >= s.rail_modulus_mm3)
                s.wall_need_mm = wall;
    const Remarks add{p};
    remarksOnStrength(s, in, add);
    remarksOnWelds(s, rail, in, add);
    p.splice = s;
}

} // namespace gorvet::stretch
