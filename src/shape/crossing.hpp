#pragma once

#include "shape/distance_tree.hpp"

/// Where two surfaces cut each other, and how near they come.
namespace gorvet::shape {

/// Places that follow each other; a closed one does not repeat its first place.
struct Polyline {
    std::vector<Point3> places;
    bool closed = false;
};
double length(const Polyline&);

/// Two triangles that meet.
struct Meeting {
    std::uint32_t moving = 0; ///< a triangle of the moving mesh
    std::uint32_t fixed = 0;
};

struct Crossings {
    std::vector<Polyline> lines;   ///< in the fixed mesh's frame; what lies in one plane makes no line
    std::vector<Meeting> meetings; ///< the pairs that make them
    bool tangled = false;          ///< more than `most_pieces` pairs meet: no sheet is cut like that, and no lines are made
};
inline constexpr size_t most_pieces = 1'000'000;
/// Which side of what each corner lies on is asked once, in one order, so that the pieces of a line join. `moving_to_fixed` as in
/// distancesTo. `stop` ends it early with what is there. Möller 1997, with the signs of Segura and Feito.
Crossings crossings(const DistanceTree& moving, const DistanceTree& fixed, const RigidTransform& moving_to_fixed, int threads = 0,
                    const std::function<bool()>& stop = {});

/// The nearest places of two surfaces, exact to rounding: on faces, sides and corners of both. `least_mm` > `cap_mm`: none nearer
/// than the cap. Meeting surfaces give 0.
struct Closest {
    double least_mm = 0;
    Point3 on_moving{}; ///< both in the fixed mesh's frame
    Point3 on_fixed{};
    std::uint32_t moving = kernel::nothing;
    std::uint32_t fixed = kernel::nothing;
};
Closest closest(const DistanceTree& moving, const DistanceTree& fixed, const RigidTransform& moving_to_fixed, double cap_mm);

/// The line on a mesh along which a value given at its points is `level`: from where it is lower, on the left. Polylines of the
/// mesh's own frame; open where the mesh ends.
std::vector<Polyline> levelLines(const Mesh&, const std::vector<float>& value, double level);

} // namespace gorvet::shape
