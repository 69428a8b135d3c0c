#pragma once

#include "shape/sides.hpp"

/// The distance of every point of a set to a surface, as often as the set is moved.
namespace gorvet::shape {

/// Points in an order in which neighbours follow each other: halved and halved again, made once. They must be numbers all.
struct PointOrder {
    std::vector<Point3> points;       ///< sorted
    std::vector<std::uint32_t> place; ///< of each, where it was
    /// A ball round points that follow each other.
    struct Ball {
        Point3 middle{};
        double radius = 0;
    };
    static constexpr size_t run_points = kernel::run_width;
    static constexpr size_t crowd_points = 16 * run_points;
    static constexpr size_t piece_points = 4 * crowd_points; ///< what one thread takes at a time
    std::vector<Ball> runs;
    std::vector<Ball> crowds;
};
PointOrder ordered(const std::vector<Point3>&);

struct DistanceMap {
    /// In the order the points had: mm, < 0 inside a closed piece, ± the cap where nothing is nearer.
    std::vector<float> distance_mm;
    bool has_inside = false; ///< false: no piece of the surface is closed, all distances are unsigned
};
/// `points_to_surface` moves the points into the surface's frame. `sides` may be missing: unsigned. `stop`, asked now and then
/// from any thread, ends it early with what is there. `cap_mm` > 0.
DistanceMap distancesTo(const DistanceTree&, const Sides* sides, const PointOrder&, const RigidTransform& points_to_surface,
                        double cap_mm, int threads = 0, const std::function<bool()>& stop = {});
/// Of the points from `from` to before `to` in the order's own order, those that are nearer than the cap or inside: `put` gets
/// the place that each had, and its distance (− the cap for those deeper inside). `from` must be a multiple of crowd_points.
void eachDistance(const DistanceTree&, const Sides*, const PointOrder&, const RigidTransform& points_to_surface, double cap_mm,
                  size_t from, size_t to, const std::function<void(std::uint32_t point, double distance_mm)>& put);

} // namespace gorvet::shape
