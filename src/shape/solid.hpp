#pragma once

#include "shape/mesh.hpp"
#include "units/result.hpp"

#include <array>
#include <filesystem>
#include <memory>
#include <string>
#include <vector>

/// Shape: steel as solids. Lengths mm, angles rad, right-handed. OpenCASCADE makes them, in a library of its own that is opened
/// by whoever makes the first (solid_kernel.hpp); where it can't be, every maker says so (File).
namespace gorvet::shape {

using geometry::Vec3;

/// A hollow section, centred on its axis.
struct Section {
    enum class Kind { Box, Round } kind = Kind::Box;
    double width_mm = 0;  ///< box: across, along local Y; round: outside diameter
    double height_mm = 0; ///< box: along local Z; unused for round
    double wall_mm = 0;   ///< 0 < wall < half the smaller side
    double corner_mm = 0; ///< box: outside corner radius, inside it is one wall less (at least 0); 0: sharp
};

struct RoundHole {
    double x_mm = 0;
    double y_mm = 0;
    double diameter_mm = 0;
};

/// A place with a direction: local X and Y axes; Z is their cross product.
struct Frame {
    Vec3 origin;
    Vec3 x{1, 0, 0};
    Vec3 y{0, 1, 0}; ///< need be neither of length 1 nor square to x; must not be along it
};

/// A closed body. A value: copies share what never changes.
class Solid {
public:
    struct Content;
    explicit Solid(std::shared_ptr<const Content> content) : content_(std::move(content)) {}
    const Content& content() const { return *content_; }

private:
    std::shared_ptr<const Content> content_;
};

/// Straight tube from the origin along +X. Fails with BadInput when section or length make no tube.
Result<Solid> tube(const Section&, double length_mm);
/// Tube along +X for `before`, bent about the axis parallel to Y at z = +radius (so that it turns up towards +Z) by `angle`
/// (0…π) at the middle radius `radius`, then straight for `after`. Fails when the radius is not above half the section's
/// depth. Volume: area × (before + radius·angle + after) (Pappus).
Result<Solid> bentTube(const Section&, double before_mm, double radius_mm, double angle_rad, double after_mm);
/// Plate with its lower left corner at the origin, width along X, height along Y, thickness along +Z, round holes through.
/// Fails when a hole does not lie inside.
Result<Solid> plate(double width_mm, double height_mm, double thickness_mm, const std::vector<RoundHole>& = {});
/// Straight bar of any simple outline (points in local X and Y, in order), thickness along +Z.
Result<Solid> prism(const std::vector<std::pair<double, double>>& outline, double thickness_mm);
Result<Solid> cylinder(double radius_mm, double length_mm); ///< round bar from the origin along +X

Solid placed(const Solid&, const Frame&); ///< takes local coordinates to the frame's

/// What lies behind the plane through `point` (on the side away from `normal`): a saw cut, a mitre. Fails with Degenerate when
/// nothing is left.
Result<Solid> sawn(const Solid&, const Vec3& point, const Vec3& normal);
/// The branch with the main tube's outside taken out of it: a cope. The main's axis through `point` along `axis`.
Result<Solid> coped(const Solid& branch, double main_outside_radius_mm, const Vec3& point, const Vec3& axis);
Result<Solid> unite(const std::vector<Solid>&);
Result<Solid> cut(const Solid& from, const Solid& tool);
/// Volume of what two solids share, mm³: 0 when they only touch or stand apart.
Result<double> sharedVolume(const Solid&, const Solid&);
/// Least distance between two solids, mm; 0 when they touch or overlap.
Result<double> leastDistance(const Solid&, const Solid&);

double volume(const Solid&);      ///< mm³
Vec3 centreOfMass(const Solid&);  ///< of a solid of one material
double surfaceArea(const Solid&); ///< mm²
double steelMass(const Solid&);   ///< kg, 7850 kg/m³
geometry::Box3 bounds(const Solid&);
/// Whether it is one closed, valid body or several; false for anything a cutter could not make.
bool isSound(const Solid&);

/// Triangles that stray at most `chord_mm` (> 0) from the true surface.
Mesh mesh(const Solid&, double chord_mm = 0.1);

struct NamedSolid {
    std::string name;
    Solid solid;
    std::string of = {}; ///< the part that it is a piece of; empty: of none
};
/// STEP (AP214, mm): one assembly of that name, in it an assembly for each part, in these each solid by its own name; parts in
/// colours of their own. Fails with File when it can't be written.
Result<void> writeStep(const std::vector<NamedSolid>&, const std::filesystem::path&, const std::string& name = "Gorvet");

} // namespace gorvet::shape
