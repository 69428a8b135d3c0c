#pragma once

#include <optional>

/// Properties of a rail's or sleeve's section, with the radii of its corners. Internal to this room.
namespace gorvet::stretch {

struct Section {
    double area_mm2 = 0;
    double level_mm4 = 0;   ///< second moment about the level axis through the centroid
    double upright_mm4 = 0; ///< about the upright axis through it
    double level_modulus_mm3 = 0;
    double upright_modulus_mm3 = 0; ///< the lesser one of a channel: at its flange tips
    double torsion_modulus_mm3 = 0; ///< torque over the shear stress it makes: closed 2 A t (Bredt), open Σbt²/3 (St Venant)
    double web_area_mm2 = 0;        ///< of the webs alone, that carry upright shear
};

/// A box (two webs) or a channel (one, open to one side). Outside radius of its corners: twice the wall unless it was read; the
/// inside one is less by the wall. Exact for the outline with its arcs (Green's theorem over their chords, 32 a corner).
/// height > 2·wall, width > 2·wall (channel: wall); mm.
Section sectionOf(double height_mm, double width_mm, double wall_mm, bool channel, std::optional<double> radius_mm = {});

} // namespace gorvet::stretch
