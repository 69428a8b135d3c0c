#include "stretch/joint_forces.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::stretch {
namespace {

constexpr double safety = 1.5; ///< engineering.md: weld capacity over the section force

} // namespace

std::vector<std::pair<double, double>> plugPlaces(const Plugs& g) {
    std::vector<std::pair<double, double>> places;
    if (g.rows <= 0) return places;
    const int made = std::min(g.needed, g.fit());
    for (int k = 0; k < made; ++k)
        places.emplace_back(g.edge_mm + (k / g.rows) * g.pitch_mm, (k % g.rows - (g.rows - 1) / 2.0) * g.pitch_mm);
    return places;
}

JointBears jointBears(const Splice& s, const build::RailLine& rail, bool channel, bool butt_counts, const JointForces& f) {
    JointBears bears;
    if (butt_counts) return bears;
    const double lever = rail.height_mm - 2 * rail.thickness_mm; // between the faying surfaces
    const auto places = plugPlaces(s.plugs);
    if (s.sleeve_carries && s.plugs.structural && !places.empty() && lever > 0) {
        const double n = static_cast<double>(places.size());
        double along = 0, across = 0;
        for (const auto& [x, y] : places) {
            along += x / n;
            across += y / n;
        }
        double polar = 0;
        for (const auto& [x, y] : places) polar += (x - along) * (x - along) + (y - across) * (y - across);
        // of one flange: its force along the rail, what turns it in its own plane, what pushes it aside
        const double pull = f.bends * s.sleeve_share / lever + f.axial / 2;
        const double push = f.aside / 2 + (channel ? f.twist / lever : f.twist / (2 * lever));
        const double turns = f.bends_aside / 2 + push * along; // the joint stands beside the group's middle
        double worst = 0;
        for (const auto& [x, y] : places) {
            const double turned_along = polar > 0 ? turns * std::abs(y - across) / polar : 0;
            const double turned_aside = polar > 0 ? turns * std::abs(x - along) / polar : 0;
            worst = std::max(worst, std::hypot(pull / n + turned_along, push / n + turned_aside));
        }
        if (polar <= 0 && turns > 0)
            worst = std::hypot(worst, turns / lever); // one plug turns nothing back: the flanges do, as a couple
        bears.plug_N = worst * s.plugs.prying;
        bears.plug_may_N = s.plugs.capacity_N / safety;
    }
    if (s.plate && s.plate->height_mm > 0) {
        const double couple = f.bends * (1 - s.sleeve_share) / 2 / s.plate->height_mm;
        bears.fillet_N = std::hypot(couple + f.axial / 8, f.upright / 4);
        bears.fillet_may_N = s.plate->weld_capacity_N / safety;
    }
    return bears;
}

} // namespace gorvet::stretch
