// How strong the joint is beside the rail, and its plug welds. engineering.md, Stretch; Blodgett, Design of Welded Structures.
#include "stretch/parts.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::PlanVerdict;

constexpr double working_stress_MPa = 210.0 / 1.5; ///< unknown mild steel
constexpr double weld_allowable_MPa = 0.30 * 480;  ///< of filler F_EXX 480, shear on throat or plug area
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
    g.capacity_N = units::pi / 4 * g.hole_mm * g.hole_mm * weld_allowable_MPa;
    // where the butt weld carries, plugs only hold the sleeve in place
    g.needed = in.butt_counts ? 2 : static_cast<int>(std::ceil(capacity_factor * flange_force_N / g.capacity_N - 1e-9));
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

double secondMoment(double h, double b, double t, bool channel) {
    const double inner = h - 2 * t;
    return (b * h * h * h - (b - (channel ? 1 : 2) * t) * inner * inner * inner) / 12;
}

double sectionModulus(double h, double b, double t, bool channel) { return secondMoment(h, b, t, channel) / (h / 2); }

void joinStrength(Plan& p, const Input& in) {
    if (!p.sleeve) return;
    const build::RailLine& rail = p.left.known ? in.left : in.right;
    const Sleeve& sleeve = *p.sleeve;
    const double h = rail.height_mm;
    Splice s;
    s.rail_modulus_mm3 = sectionModulus(h, rail.width_mm, rail.thickness_mm, in.channel);
    const double sleeve_I = secondMoment(sleeve.height_mm, sleeve.width_mm, sleeve.wall_mm, in.channel);
    s.sleeve_modulus_mm3 = sleeve_I / (sleeve.height_mm / 2);
    s.moment_Nmm = s.rail_modulus_mm3 * working_stress_MPa;
    const double joint = p.shortens ? in.root_gap_mm : std::max(p.left.length_mm, p.right.length_mm) + 2 * in.root_gap_mm;
    // sleeve and plates bend together about the same axis; the outermost of them sets the modulus
    const auto together = [&](double plate_height, double plate_t) {
        const double plates = 2 * plate_t * plate_height * plate_height * plate_height / 12;
        return (sleeve_I + plates) / (std::max(sleeve.height_mm, plate_height) / 2);
    };
    double plates_I = 0;
    if (in.fish_plate_mm) {
        s.plate = plateFor(rail, *in.fish_plate_mm, joint);
        plates_I = 2 * s.plate->thickness_mm * std::pow(s.plate->height_mm, 3) / 12;
        s.joint_modulus_mm3 = together(s.plate->height_mm, s.plate->thickness_mm);
    } else {
        s.joint_modulus_mm3 = s.sleeve_modulus_mm3;
    }
    if (in.butt_counts) s.joint_modulus_mm3 = std::max(s.joint_modulus_mm3, s.rail_modulus_mm3);
    const double total_I = sleeve_I + plates_I;
    const double sleeve_share = total_I > 0 ? sleeve_I / total_I : 1;
    s.flange_force_N = s.moment_Nmm * sleeve_share / (h - rail.thickness_mm);
    s.plugs = plugsFor(rail, sleeve, in, s.flange_force_N);
    if (s.plate) {
        FishPlate& f = *s.plate;
        f.weld_capacity_N = 2 * h * 0.707 * f.weld_leg_mm * weld_allowable_MPa;
        f.weld_force_N = capacity_factor * s.moment_Nmm * (1 - sleeve_share) / 2 / f.height_mm;
    }
    const auto add = [&p](const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) -> Remark& {
        return p.remarks.emplace_back(Remark{code, verdict, std::move(sentence), std::move(remedy), {}, {}});
    };
    if (s.share() < 1 - 1e-9) {
        for (double wall = sleeve.wall_mm; wall < sleeve.height_mm / 2 && !s.wall_need_mm; wall += 0.5)
            if (2 * wall < sleeve.width_mm &&
                sectionModulus(sleeve.height_mm, sleeve.width_mm, wall, in.channel) >= s.rail_modulus_mm3)
                s.wall_need_mm = wall;
        for (double t = 3; t <= 12 && !s.plate_need_mm; t += 1)
            if (together(plateFor(rail, t, joint).height_mm, t) >= s.rail_modulus_mm3) s.plate_need_mm = t;
        std::string remedy;
        if (s.plate_need_mm)
            remedy += fmt::format("Add fish plates of {} (fish-plate {})", mm(*s.plate_need_mm), mm(*s.plate_need_mm));
        if (s.wall_need_mm)
            remedy += fmt::format("{} sleeve wall of {}", remedy.empty() ? "Take a" : ", or take a", mm(*s.wall_need_mm, 1));
        remedy += remedy.empty() ? "Have the butt weld fully penetrated by someone licensed (butt counts)."
                                 : ", or have the butt weld fully penetrated by someone licensed (butt counts).";
        add("splice-weak", PlanVerdict::Fails,
            fmt::format("Sleeve{} reach {} of the rail's section modulus. The joint needs all of it.",
                        s.plate ? " and plates" : "", units::fixed(s.share(), 2)),
            remedy)
            .of(units::fixed(s.share(), 2), "1.00");
    }
    const Plugs& g = s.plugs;
    if (!g.structural)
        add("plug-thin", PlanVerdict::Fails,
            fmt::format("The rail's wall is {} mm: plug welds carry from 3 mm on.", mm(rail.thickness_mm, 1)),
            "Lap and weld all round as a licensed person says, or take fish plates.")
            .of(mm(rail.thickness_mm, 1) + " mm", "3.0 mm");
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
    if (g.structural && g.fit() < g.needed)
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
        add("plate-weld", PlanVerdict::Marginal,
            fmt::format("The fillets of the fish plates carry {} kN. They need {}.",
                        units::fixed(s.plate->weld_capacity_N / 1000, 0), units::fixed(s.plate->weld_force_N / 1000, 0)),
            "Take longer plates or a larger fillet.")
            .of(units::fixed(s.plate->weld_capacity_N / 1000, 0) + " kN", units::fixed(s.plate->weld_force_N / 1000, 0) + " kN");
    p.splice = s;
}

} // namespace gorvet::stretch
