#pragma once

#include "sit/clearance.hpp"

#include "units/result.hpp"

#include <string>

/// The cut map: what of the body's sheet to take away so that it clears what it sits on, as lines a person can cut.
namespace gorvet::sit {

enum class ZoneKind : std::uint8_t {
    Named, ///< only told: hump, tunnel, floor
    Brace, ///< may be cut once it is braced: the sills of an open body
    Never  ///< plates with numbers, pillars, mounts
};
/// A box along the body's own axes.
struct Zone {
    std::string name;
    ZoneKind kind = ZoneKind::Named;
    geometry::Box3 box;
};

struct CutOptions {
    Need need;
    double margin_mm = 10;       ///< along the sheet, beyond what is too near; ≥ 0
    double flange_mm = 0;        ///< sheet left standing inside the finished edge for re-joining; at most the margin
    double thickness_mm = 0.9;   ///< of the sheet, for its mass
    double fineness_mm = 8;      ///< triangles near a cut are divided down to this; > 0
    double smooth_mm = 1.5;      ///< by so much a line may be straightened; ≥ 0
    double least_area_mm2 = 100; ///< smaller ones are ground off, and only counted
    std::vector<Zone> zones;
};

/// One line of a cut. Places in the fixed frame.
struct CutLine {
    shape::Polyline line;
    double length_mm = 0;
    double off_mm = 0; ///< how far straightening moved it at most
    bool hole = false; ///< what is inside stays
};
struct Cut {
    int number = 0;             ///< the order: 1 first
    std::vector<CutLine> lines; ///< the finished edge; an open line ends at the sheet's own edge
    std::vector<CutLine> rough; ///< with a flange: cut here first
    double area_mm2 = 0;
    double mass_kg = 0;
    double deepest_mm = 0; ///< least distance in it, as in the map
    Point3 at{};           ///< there
    geometry::Box3 box;    ///< round it
    bool flat = false;     ///< within 3 mm of a plane: can be printed 1:1
    double off_plane_mm = 0;
    Point3 plane_at{}; ///< of the best plane through the lines
    Point3 plane_normal{};
    std::vector<std::string> crosses; ///< zones it touches
    std::vector<std::string> never;   ///< of them, those that are never cut
    std::vector<std::string> brace;   ///< of them, those that must be braced first
    bool allowed() const { return never.empty(); }
};
struct CutMap {
    std::vector<Cut> cuts; ///< in their order: what needs no brace first, from the front rearward
    size_t ground_off = 0; ///< places too small for a cut
    double area_mm2 = 0;
    double mass_kg = 0;
    std::vector<std::string> remarks;
};
/// What the body is cut for.
struct CutAgainst {
    const Ready* fixed = nullptr;
    double extra_mm = 0; ///< asked for beyond the options' need; may be < 0
    RigidTransform pose; ///< where it stands in the fixed frame
};
/// From the clearance of the body where it stands, from all these together. As below.
Result<CutMap> cutMap(const Ready& body, const std::vector<CutAgainst>&, const RigidTransform& body_to_fixed, const CutOptions&,
                      int threads = 0, const std::function<bool()>& stop = {});
/// From the clearance of the body where it stands. Fails with BadInput for options out of their range.
Result<CutMap> cutMap(const Ready& body, const Ready& fixed, const RigidTransform& body_to_fixed, const CutOptions&,
                      int threads = 0, const std::function<bool()>& stop = {});

/// The lines of a cut laid flat: along the best plane's two axes, mm. What stands off the plane is pressed into it.
std::vector<std::vector<std::array<double, 2>>> flattened(const Cut&);
/// A list of places along a line, no two farther apart than `step_mm`, every corner among them.
std::vector<Point3> placesAlong(const CutLine&, double step_mm = 50);

} // namespace gorvet::sit
