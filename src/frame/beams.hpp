#pragma once

#include "frame/section.hpp"
#include "geometry/vec3.hpp"
#include "units/quantity.hpp"

#include <array>
#include <optional>

/// Frames of beams in space: Timoshenko's bending, Vlasov's torsion with warping as a seventh degree of freedom, centroid and
/// shear centre where they are. mm, N, N·mm, MPa.
namespace gorvet::frame {

using geometry::Vec3;

/// In this order at every node: along x, y, z, about x, y, z, and the rate of twist of the beams that end there (warping).
enum class Dof { X, Y, Z, AboutX, AboutY, AboutZ, Warp };
inline constexpr std::size_t dofs = 7;

struct Material {
    double e_mpa = 205'000; ///< engineering.md, Stretch
    double g_mpa = 79'000;
    double kg_mm3 = units::steel_kg_mm3;
    bool operator==(const Material&) const = default;
};

/// A section as a beam has it: along its own axes, y to its left and z up.
struct BeamSection {
    double area_mm2 = 0;
    double level_mm4 = 0;   ///< about y
    double upright_mm4 = 0; ///< about z
    double product_mm4 = 0;
    double torsion_mm4 = 0;
    double warping_mm6 = 0;     ///< 0: it does not warp, and its ends' seventh degree of freedom is nobody's
    double shear_level_mm2 = 0; ///< for forces along y; 0: no shear deformation
    double shear_upright_mm2 = 0;
    At centroid;     ///< from the line between its nodes
    At shear_centre; ///< the same
};
/// The line between the nodes goes through `line` of the section; a beam that runs rearward has y to the right.
BeamSection beamSection(const Section&, At line);

struct Node {
    Vec3 at;
    std::array<bool, dofs> held{};     ///< it can't move so
    std::array<double, dofs> spring{}; ///< N/mm, N·mm/rad to the ground, ≥ 0
    double mass_kg = 0;                ///< hung on it, beyond the beams' own
};

struct Beam {
    std::size_t from = 0;
    std::size_t to = 0;
    BeamSection section;
    Material material;
    Vec3 up{0, 0, 1};       ///< not along it: its own z lies in the plane of both
    Vec3 arm_from{0, 0, 0}; ///< rigid, from its node to where it begins
    Vec3 arm_to{0, 0, 0};
    /// What its ends do not hand over, in its own axes (Warp: the end warps freely, else as its neighbours at the node).
    std::array<bool, dofs> loose_from{};
    std::array<bool, dofs> loose_to{};
};

struct Model {
    std::vector<Node> nodes;
    std::vector<Beam> beams;
};

/// What pulls at the nodes (the first six N and N·mm; the seventh a bimoment, N·mm²), and the weight of the beams themselves.
struct Load {
    std::string name;
    std::vector<std::pair<std::size_t, std::array<double, dofs>>> at;
    Vec3 gravity{0, 0, 0}; ///< mm/s², of the beams' own mass: {0, 0, −9810} where z is up
};

/// What a load comes to.
struct Answer {
    std::vector<std::array<double, dofs>> moves;      ///< of each node
    std::vector<std::array<double, dofs>> reactions;  ///< what the ground does to each node
    std::vector<std::array<double, 2 * dofs>> forces; ///< on each beam's ends, in its own axes at its nodes' line
    double unbalanced = 0; ///< the greatest force or moment left over at a node, as a share of the greatest one there is
};

/// One answer a load. Fails with BadInput where beams have no length, no section or an `up` along them, and with Conflict, naming
/// node and direction, where something can move that nothing holds.
Result<std::vector<Answer>> solve(const Model&, const std::vector<Load>&);

/// A way in which the frame swings by itself.
struct Mode {
    double hz = 0;
    std::vector<std::array<double, dofs>> moves; ///< of each node, the greatest along x, y or z is 1
};
/// The lowest ones, slowest first; of a frame that nothing holds the six of moving as a whole are among them, with 0 Hz. Fails as
/// `solve` for what is no beam; Conflict where there are fewer ways than asked for.
Result<std::vector<Mode>> modes(const Model&, int count);

/// Moves that a load of 1 at one degree of freedom makes, for stiffness between places.
std::array<double, dofs> unit(Dof, double amount = 1);

} // namespace gorvet::frame
