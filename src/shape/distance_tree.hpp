#pragma once

#include "shape/distance_kernel.hpp"
#include "shape/triangle.hpp"

#include <functional>
#include <memory>
#include <vector>

/// The nearest triangle of a mesh: a tree of boxes 16 side by side, in single precision; every answer is worked out again in
/// double precision on the mesh itself. Distances are right to 1e-3 mm for a mesh up to 10 m across (the triangle is chosen in
/// single precision, to about 1e-7 of that).
namespace gorvet::shape {

/// The code for AVX-512, for AVX2, for any processor; Auto: the widest that this one has.
enum class Width { Auto, Wide16, Wide8, Plain };

/// How many threads and how wide; Auto and 0 suit the machine.
struct TreeOptions {
    Width width = Width::Auto;
    int threads = 0;
};

struct Nearest {
    std::uint32_t triangle = kernel::nothing; ///< `nothing`: none within the cap
    double distance_mm = 0;                   ///< ≥ 0; the cap when there is none
    Foot foot;
};

/// Built once for a mesh, which it keeps alive. Triangles with a corner beyond the mesh's own points must not be in it.
class DistanceTree {
public:
    explicit DistanceTree(std::shared_ptr<const Mesh>, const TreeOptions& = {});
    const Mesh& mesh() const { return *mesh_; }
    const std::shared_ptr<const Mesh>& shared() const { return mesh_; }
    /// Of the tree alone, without the mesh.
    size_t bytes() const;
    bool empty() const { return tree_.root == kernel::nothing; }

    Nearest nearest(const Point3&, double cap_mm) const;
    /// Nearest of points that lie near each other: `run` in the tree's own frame (see middle()), in single precision.
    void nearestRun(kernel::Run& run) const { code_.nearest(tree_, run); }
    /// Whether a leaf's box may be within `reach` of a place in the tree's own frame. Never false when a triangle is.
    bool anyWithin(const Point3& local, double reach_mm) const;
    /// A cap as the wide code takes it: squared in single precision.
    static float capOf(double cap_mm) { return static_cast<float>(cap_mm < 1e15 ? cap_mm : 1e15); }
    /// The tree's frame is the mesh's, shifted so that this place is its origin.
    const Point3& middle() const { return middle_; }
    /// The places of a set of points under a motion, for lay().
    kernel::Places placesOf(const RigidTransform&) const;
    /// Up to kernel::run_width points that lie near each other, moved, for nearestRun().
    void lay(const Point3* first, size_t n, kernel::Places&, kernel::Run&) const;
    /// The answers in full, for what nearestRun() named.
    void feet(const kernel::Places&, const kernel::Run&, kernel::Feet&) const;

    /// Calls with every triangle whose box may meet the box; false from it stops.
    void inBox(const Point3& least, const Point3& most, const std::function<bool(std::uint32_t)>&) const;
    /// Calls with every triangle whose box a ray may meet.
    void onRay(const Point3& from, const Point3& way, const std::function<void(std::uint32_t)>&) const;
    /// The first triangle that a ray goes through, and how far it is in lengths of `way`; either side counts.
    struct Hit {
        std::uint32_t triangle = kernel::nothing;
        double at = 0;
    };
    Hit firstHit(const Point3& from, const Point3& way) const;
    /// Whether a triangle cuts the line from one place to the other; sooner told than the first one is found.
    bool isBetween(const Point3& from, const Point3& to) const;

    /// The leaves, for walks over two trees.
    size_t leafCount() const { return leaf_bytes_ / sizeof(kernel::Leaf); }
    const kernel::Leaf& leaf(size_t i) const { return tree_.leaves[i]; }

private:
    void build(int threads);
    /// The answer in full, for a triangle or `nothing`.
    Nearest exact(std::uint32_t triangle, const Point3&, double cap_mm) const;
    std::shared_ptr<const Mesh> mesh_;
    Point3 middle_{};
    kernel::Tree tree_;
    kernel::Code code_;
    std::shared_ptr<void> nodes_; ///< the memory tree_ points into
    std::shared_ptr<void> leaves_;
    size_t node_bytes_ = 0;
    size_t leaf_bytes_ = 0;
};

} // namespace gorvet::shape
