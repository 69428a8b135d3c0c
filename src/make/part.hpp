#pragma once

#include "build/places.hpp"
#include "build/rail_line.hpp"
#include "build/remark.hpp"
#include "geometry/outline.hpp"
#include "make/cope.hpp"
#include "shape/solid.hpp"

#include <array>
#include <map>
#include <optional>
#include <string>
#include <vector>

/// A part of new steel by the rules of its kind: the pieces that it is made of, where each sits, how each is cut, bent and
/// drilled, its seams, what it carries. Chassis frame: x rearward, y to the right, z up; mm, rad, N, kg.
namespace gorvet::make {

using build::Figure;
using build::PlanVerdict;
using geometry::Vec3;

struct PartIn {
    std::string name;
    std::string kind;                      ///< word of a kind
    build::Places places;                  ///< of its points, as planned or as pinned
    std::vector<std::size_t> at;           ///< in the places, in the order of the kind
    build::RailLine left, right;           ///< as planned
    std::map<std::string, Figure> figures; ///< said, or as usual
    double yield_mpa = 210;
    bool yield_known = false;
    bool wall_known = false; ///< the rails' wall was measured
    bool pinned = false;
    bool channel = false; ///< the rails are open to one side
    std::vector<std::string> assumed;
    std::vector<std::string> missing;
    bool operator==(const PartIn&) const = default;
};

/// A round hole in a flat piece, in its own plane.
struct FlatHole {
    geometry::Flat at;
    double diameter_mm = 0;
    std::string what; ///< "bolt", "drain"
};
/// A bend of a flat piece: the sheet on both sides of a line is turned towards its upper side.
struct FlatBend {
    geometry::Flat from, to; ///< the bend's middle line, on the flat
    double angle_rad = 0;
    double inside_mm = 0;
    double allowance_mm = 0; ///< of flat, taken up by it
};
/// A piece that is cut from sheet or plate: as it is cut, flat.
struct FlatPiece {
    std::string name;
    int count = 1;
    double thickness_mm = 0;
    geometry::Outline outline; ///< anticlockwise
    std::vector<FlatHole> holes;
    std::vector<geometry::Outline> windows; ///< openings that are not round, anticlockwise
    std::vector<FlatBend> bends;            ///< in the order in which they are bent
    double mass_kg = 0;          ///< of one
    bool at_hand = false;        ///< bought as it is, or there already: nothing is cut for it
    /// Of one that is bent all along: its section as it comes out of the press, and how long it is along its bends.
    geometry::Outline section;
    double along_mm = 0;
    /// Where each of them sits: its own plane is its lower side, its thickness upwards. Of a bent piece: see `Trough`.
    std::vector<shape::Frame> places;
};
/// How an end of a bar is cut.
struct BarEnd {
    enum class Kind { Square, Saw, Cope } kind = Kind::Square;
    Vec3 point;            ///< on the cut; of a cope on the other tube's middle
    Vec3 normal;           ///< out of the bar; of a cope along the other tube's middle
    double saw_rad = 0;    ///< of a saw cut, off square
    double turned_rad = 0; ///< where its longest edge (of a cope: its acute side) stands about the bar, from its upper side to
                           ///< the right seen from its first end
    std::optional<Cope> cope;
};
/// A bend of a tube: from where it begins along the tube as it lies straight, by how much it is bent, and how far the tube is
/// turned about itself before it, from the plane of the bend before (clockwise seen from the first end).
struct TubeBend {
    double from_mm = 0;
    double angle_rad = 0;
    double turned_rad = 0;
};
/// A piece that is cut from a length of tube or box.
struct BarPiece {
    std::string name;
    int count = 1;
    bool round = true;
    double height_mm = 0; ///< outside diameter of a round one
    double width_mm = 0;
    double wall_mm = 0;
    Figure length_mm; ///< of its longest edge: what is sawn off
    std::array<BarEnd, 2> ends;
    double mass_kg = 0;
    bool at_hand = false; ///< cut from an original piece
    Vec3 from, to;        ///< of its middle
    Vec3 up{0, 0, 1};
    std::vector<TubeBend> bends;
    std::vector<Vec3> through; ///< of one that is bent: its ends and the corners between, in order
    double radius_mm = 0;      ///< of its bends, to the tube's middle
};
/// Sides and bottom of a box bent from one sheet, its sides lower towards its far end. On its own axes: from its near end along
/// the bottom's middle, across, and up from the bottom's lower side.
struct Trough {
    shape::Frame place; ///< x along the bottom, y across to the left, seen along it
    double wide_mm = 0; ///< outside
    double deep_mm = 0; ///< outside, of its sides where they are highest
    double thickness_mm = 0;
    double inside_mm = 0;
    double length_mm = 0;                      ///< long enough: what its planes leave is it
    std::vector<std::pair<Vec3, Vec3>> planes; ///< a point of each and its normal outwards: its ends and its top
};
/// A weld.
struct Seam {
    std::string what; ///< "the foot, both sides"
    double length_mm = 0;
    double leg_mm = 0;       ///< of a fillet; of a corner or butt the sheet's thickness
    double thickness_mm = 0; ///< of the thinner of what it joins
    Vec3 at;                 ///< its middle
    bool on_car = true;      ///< it joins the part to what is there; else it is welded on the bench
};

/// A bolt of a part, where its head lies.
struct PartBolt {
    Vec3 head;          ///< on its axis, on the face that its head's washer lies on
    Vec3 along;         ///< of length 1, from the head to the nut
    double grip_mm = 0; ///< of all that it holds together
    double hole_mm = 0;
    bool grip_known = false; ///< else something as thick as the part is taken to be behind it
    bool captive = false;    ///< its nut is fixed beforehand
};

/// What else is worked out of a part: a length, or words: "holds, filled to 95 %", "62.3 l".
struct PartFact {
    std::string what;
    std::optional<Figure> length_mm;
    std::string words;
};
struct PartPlan {
    std::string name, kind;
    std::vector<FlatPiece> flats;
    std::vector<BarPiece> bars;
    std::vector<Seam> seams;
    std::optional<Trough> trough;
    std::vector<PartBolt> bolts;
    bool bolted_on = false; ///< they hold the part itself: it comes off
    bool apart = false;     ///< a tool: it is not on the car
    Figure size_mm;         ///< its main length, from the survey
    std::string size_of;    ///< "between its two faces"
    std::vector<PartFact> facts;
    double mass_kg = 0;
    std::optional<double> used; ///< of what it bears, the load that was said takes so much at the worst place
    std::string used_at;        ///< "the weld of its feet"
    std::vector<Vec3> at;       ///< its points
    std::vector<std::string> not_looked_at;
    std::vector<build::Remark> remarks;
    PlanVerdict verdict = PlanVerdict::Marginal;
    bool made() const { return !flats.empty() || !bars.empty(); }
};
PartPlan partPlan(const PartIn&);
/// Every piece of it as a solid, where it sits. Fails with NotFound when it is not made yet, or as the modelling does.
Result<std::vector<shape::NamedSolid>> partSolids(const PartPlan&);
/// A piece as a closed mesh. Round ones touch the true surface with the middles of their flats from outside, bores with their
/// corners; holes are not in it.
struct NamedMesh {
    std::string name;
    shape::Mesh mesh;
};
/// The same pieces in the same order, at once; none while it is not made.
std::vector<NamedMesh> partMeshes(const PartPlan&);

/// Flat length that a bend takes up: θ (R + K t), K by R and t. engineering.md, Make.
double bendAllowance(double angle_rad, double inside_mm, double thickness_mm);
/// kg of steel.
double flatMass(const FlatPiece&);

/// Least inside radius of a bend in mild steel, in thicknesses; least flange for a common press, in thicknesses beyond the
/// radius.
inline constexpr double least_bend_radii = 1, least_flange_thick = 4;

} // namespace gorvet::make
