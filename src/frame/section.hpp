#pragma once

#include "units/result.hpp"

#include <string>
#include <utility>
#include <vector>

/// Sections of beams as walls: open, closed, of several cells, in any shape that sheet is bent or welded to.
namespace gorvet::frame {

/// A place of the section, mm: y to the right, z up.
struct At {
    double y_mm = 0;
    double z_mm = 0;
    bool operator==(const At&) const = default;
};
/// A straight wall between two places of its middle line.
struct Wall {
    std::size_t from = 0;
    std::size_t to = 0;
    double thickness_mm = 0; ///< > 0; 0 where windows leave nothing that runs through and `shear_mm` is given
    double shear_mm = 0;     ///< thickness of a whole wall that shears as much; 0: as thick as it is
    double bends_per_mm = 0; ///< what its strips and posts bend by, MPa for a shear flow of 1 N/mm; 0: it is whole
    bool operator==(const Wall&) const = default;
};
/// All walls hang together.
struct Walls {
    std::vector<At> at;
    std::vector<Wall> walls;
    /// Index of the place, a new one where none is within a thousandth of a millimetre.
    std::size_t place(At);
    void add(At from, At to, double thickness_mm);
    bool operator==(const Walls&) const = default;
};

/// What a section is worth. Moments about level (y) and upright (z) axes through its centroid; lengths mm.
struct Section {
    double area_mm2 = 0;
    At centroid;
    double level_mm4 = 0;           ///< ∫ z² dA
    double upright_mm4 = 0;         ///< ∫ y² dA
    double product_mm4 = 0;         ///< ∫ y z dA
    double principal_mm4 = 0;       ///< the larger principal moment
    double lesser_mm4 = 0;          ///< and the smaller
    double turned_rad = 0;          ///< of the axis of the larger one from level, anticlockwise, −π/2…π/2
    double level_modulus_mm3 = 0;   ///< the least, over top and bottom, with half a wall
    double upright_modulus_mm3 = 0; ///< over left and right
    double torsion_mm4 = 0;         ///< J: of its cells (Bredt and Batho) and of its walls (St Venant)
    double cells_mm4 = 0;           ///< of it, by its cells alone; 0: it is open
    At shear_centre;
    double warping_mm6 = 0;     ///< Cw about the shear centre
    double shear_level_mm2 = 0; ///< shear areas: A over the form factor
    double shear_upright_mm2 = 0;
    std::vector<double> warping_mm2; ///< at each place, normalised: its mean over the section is 0
    /// Bending stress in the strips and posts of a windowed wall, MPa for 1 N·mm of twist and 1 N of shear; 0: no windows.
    double window_twist = 0, window_level = 0, window_upright = 0;
    double mass_kg_per_m = 0; ///< of steel, 7850 kg/m³
    bool closed() const { return cells_mm4 > 1e-6 * torsion_mm4; }
};

/// Vlasov's theory of thin walls, for any graph of walls at once: warping and shear flow are potentials on it. Each wall's own
/// thickness counts in the moments and in J. Fails with BadInput where walls are missing, without thickness or length, or in
/// pieces that do not hang together.
Result<Section> sectionOf(const Walls&);

// ---- shapes, outside dimensions in mm; corners with an outside radius of `radius` (0: sharp), as arcs of their middle line

Walls box(double height, double width, double wall, double radius);
/// Open to the right.
Walls channel(double height, double width, double wall, double radius);
/// Open below, with a flange outwards at each foot; `width` between the outsides of its webs.
Walls hat(double height, double width, double flange, double wall);
Walls tube(double diameter, double wall);
Walls angle(double height, double width, double wall);
Walls flat(double width, double thickness);
/// Two channels one in the other to a box: webs left and right of one wall each, top and bottom of both walls where they overlap.
Walls nested(double height, double width, double wall, double overlap);
/// A channel with a plate welded over its open side: a box of two thicknesses.
Walls boxed(double height, double width, double wall, double plate, double radius);
/// Windows in a row in the plate that closes a channel, in the middle of its height.
struct Windows {
    double long_mm = 0;
    double high_mm = 0;
    double pitch_mm = 0; ///< from one to the next: a post of `pitch − long` between them
    bool operator==(const Windows&) const = default;
};
/// The same with a windowed plate: its strips run through, the middle only shears.
Walls windowed(double height, double width, double wall, double plate, const Windows&, double radius);
/// The thickness of a whole plate that shears as much as a windowed one of a height between the flanges' middles: as a Vierendeel
/// girder, window and post each a quarter of the other's depth longer than they are clear. Plane-stress finite elements
/// (tests/frame/windows) give 1.03 to 1.37 times as much.
double windowedShear_mm(double height, double plate, const Windows&, double e_over_g = 205.0 / 79.0);
/// The bending stress in its strips and posts, whichever is more, for a shear flow of 1 N/mm.
double windowedBends_per_mm(double height, double plate, const Windows&);

/// A section as it is said: a word of `shapes` with its figures, or walls of its own.
struct Profile {
    std::string shape;
    std::vector<double> sizes;
    Walls walls;           ///< where there is no shape
    bool mirrored = false; ///< left is right
    double turned_rad = 0; ///< about its middle, anticlockwise
    bool operator==(const Profile&) const = default;
};
/// Fails with BadInput, saying what belongs there.
Result<Walls> wallsOf(const Profile&);

/// "box 100 60 4", "channel 100 50 4 [radius]", "hat 80 60 20 2", "tube 48 3", "angle 40 40 4", "flat 60 6", "nested 100 60 4
/// 40", "boxed 100 50 4 3", "windowed 100 50 4 3 60 50 100": a word, then its figures in mm. Fails with BadInput, saying what
/// belongs there.
Result<Walls> wallsFrom(const std::vector<std::string>& words);
/// What can stand there: word and its figures.
const std::vector<std::pair<std::string, std::string>>& shapes();

} // namespace gorvet::frame
