#pragma once

#include "geometry/vec3.hpp"
#include "shape/mesh.hpp"

#include <utility>
#include <vector>

/// What stands round the axis of a fastener: how far along it is free, and in which directions a spanner can stand. Exact for
/// triangles. Internal to this room.
namespace gorvet::make {

/// Triangles near an axis, on its own coordinates: h along it from where a washer lies, a and b across.
class AxisRoom {
public:
    /// `along` of length 1.
    AxisRoom(const geometry::Vec3& origin, const geometry::Vec3& along, double reach_mm, double length_mm);
    /// A body's triangles that come near enough. `slack_mm`: it counts as beginning so much farther along. `closed`: it has an
    /// inside, and what lies wholly in it is blocked.
    void add(const shape::Mesh&, int body, double slack_mm, bool closed);

    struct Free {
        double length_mm = 0; ///< from `from_mm`, up to `until_mm`
        int by = -1;          ///< the body that ends it; −1: none does
    };
    /// Of a round room about the axis.
    Free free(double radius_mm, double from_mm, double until_mm, const std::vector<char>& gone) const;

    using Arc = std::pair<double, double>; ///< rad, from < to, from in 0…2π; a whole turn: 0…2π
    struct Swing {
        std::vector<Arc> arcs; ///< directions in which a strip of that width is free, by angle from the axis' own a towards b
        double widest_rad = 0; ///< of them
        std::vector<int> by;   ///< bodies that take directions away
    };
    /// Of a ring about the axis (`ring_mm` radius) with a strip that reaches out of it, between two heights.
    Swing swing(double ring_mm, double half_wide_mm, double reach_mm, double from_mm, double until_mm,
                const std::vector<char>& gone) const;
    /// The direction of an angle in space.
    geometry::Vec3 direction(double angle_rad) const;

private:
    struct Local {
        double a = 0, b = 0, h = 0;
    };
    struct Near {
        std::array<Local, 3> corners;
        int body = 0;
        double slack_mm = 0;
    };
    using Polygon = std::vector<Local>;
    static Polygon between(const Near&, double from_mm, double until_mm);
    Local local(const geometry::Vec3&) const;

    geometry::Vec3 origin_, along_, a_, b_;
    double reach_, length_;
    std::vector<Near> near_;
    struct Crossing {
        double h = 0;
        int body = 0;
    };
    std::vector<Crossing> crossings_; ///< of closed bodies with the axis, however far
};

} // namespace gorvet::make
