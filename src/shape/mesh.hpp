#pragma once

#include "geometry/box3.hpp"

#include <array>
#include <cstdint>
#include <string>
#include <vector>

/// Triangle meshes and clouds as values: what a scan is. Lengths mm.
namespace gorvet::shape {

/// A point in space, mm.
using Point3 = geometry::Vec3;
using Triangle = std::array<std::uint32_t, 3>;

/// A mesh; without triangles, a cloud. `normals` and `colours` are empty, or one for each point.
struct Mesh {
    std::vector<Point3> points;
    std::vector<Triangle> triangles;           ///< indices into `points`, counter-clockwise seen from outside
    std::vector<std::array<float, 3>> normals; ///< unit vectors
    std::vector<std::array<std::uint8_t, 3>> colours;
    bool operator==(const Mesh&) const = default;
};

/// What a mesh is like, in numbers. Nothing here changes it.
struct MeshReport {
    size_t points = 0;
    size_t triangles = 0;
    size_t pieces = 0;               ///< parts that hang together by edges; of a cloud 0
    size_t boundary_edges = 0;       ///< edges with one triangle: rims and holes
    size_t holes = 0;                ///< closed rings of open edges (an open shell's own rim counts as one)
    size_t non_manifold_edges = 0;   ///< edges with more than two triangles (non-manifold)
    size_t flipped_edges = 0;        ///< edges whose two triangles face unlike ways
    size_t degenerate_triangles = 0; ///< of no area
    size_t duplicate_triangles = 0;  ///< the same three points twice
    size_t unreferenced_points = 0;  ///< of a mesh: points that no triangle uses
    bool closed = false;             ///< every edge has two triangles that face alike: it has an inside
    double area_mm2 = 0;
    double volume_mm3 = 0; ///< of a closed mesh; < 0 when it is turned inside out
    geometry::Box3 box;    ///< round all points
    /// In sentences, the worst first; empty for a sound mesh.
    std::vector<std::string> remarks() const;
};
MeshReport look(const Mesh&);

} // namespace gorvet::shape
