#pragma once

#include "shape/crossing.hpp"
#include "shape/distance_map.hpp"

#include <optional>

/// Clearance: how near the body comes to what it sits on, where it fouls, and by how much.
namespace gorvet::sit {

using geometry::RigidTransform;
using shape::Point3;

/// A mesh made ready once: its tree, its sides, its points in order. It keeps the mesh alive.
struct Ready {
    std::shared_ptr<const shape::Mesh> mesh;
    std::unique_ptr<shape::DistanceTree> tree;
    std::unique_ptr<shape::Sides> sides;
    shape::PointOrder order;
};
Ready readyOf(std::shared_ptr<const shape::Mesh>, int threads = 0);

enum class Band : std::uint8_t { Clear, Tight, Fouls };

/// What counts as clear. With clearance c ± U: Fouls c − U < least, Tight c − U < 1.5 × least, else Clear.
struct Need {
    double cap_mm = 100;  ///< distances are looked for up to here; > 0
    double least_mm = 10; ///< ≥ 0
    double finish_mm = 0; ///< deadener, carpet, heat shield, seals: taken off the distance first
    double u95_mm = 0;    ///< U: ± of the seat and of both shapes, at 95 %
    double foulsBelow() const { return least_mm + u95_mm + finish_mm; }
    double tightBelow() const { return 1.5 * least_mm + u95_mm + finish_mm; }
    Band band(double distance_mm) const {
        return distance_mm < foulsBelow() ? Band::Fouls : distance_mm < tightBelow() ? Band::Tight : Band::Clear;
    }
};

/// A patch of the moving surface that is too near.
struct Contact {
    Band band = Band::Fouls;
    double distance_mm = 0; ///< the least, signed as in the map
    bool meets = false;     ///< surfaces cut each other in it
    Point3 at{};            ///< where, in the fixed frame
    geometry::Box3 box;     ///< round it, in the fixed frame
    double area_mm2 = 0;
    size_t points = 0;
};

/// What can be had many times a second.
struct LiveClearance {
    shape::DistanceMap map; ///< of the moving mesh's points, in their own order
    size_t clear = 0;
    size_t tight = 0;
    size_t fouls = 0;
    double least_mm = 0; ///< over the points; the cap when none is nearer
    Point3 at{};         ///< there, in the fixed frame
    std::string pose;    ///< of what moves, when it is least; empty: as all stands
};
LiveClearance liveClearance(const Ready& moving, const Ready& fixed, const RigidTransform& moving_to_fixed, const Need&,
                            int threads = 0, const std::function<bool()>& stop = {});

struct Clearance {
    LiveClearance live;
    /// The least distance of the two surfaces, from faces, sides and corners of both. Where they meet: the greatest depth as < 0,
    /// to 1 mm, when one has an inside; 0 when none has, and `depth_known` is false.
    double least_mm = 0;
    Point3 at_moving{}; ///< both in the fixed frame
    Point3 at_fixed{};
    bool meets = false;
    bool depth_known = true;
    std::vector<Contact> contacts; ///< the worst first
    shape::Crossings crossings;
    std::array<double, 5> percentiles_mm{}; ///< 1, 5, 25, 50, 75 % of the points are nearer
};
inline constexpr std::array<int, 5> percentile_ranks{1, 5, 25, 50, 75};
/// All of it. What is outside is exact (triangle against triangle), so that a rail through the middle of a large panel, which
/// touches no point, is found; depths are searched to 1 mm. Nothing when stopped.
std::optional<Clearance> clearance(const Ready& moving, const Ready& fixed, const RigidTransform& moving_to_fixed, const Need&,
                                   int threads = 0, const std::function<bool()>& stop = {});

} // namespace gorvet::sit
