#pragma once

#include "shape/distance_tree.hpp"

#include <random>

/// A simulated scanner: it stands somewhere, looks at a scene, and sees what is in front.
namespace gorvet::sim {

struct ScannerSettings {
    double step_rad = 0.0035;     ///< between rays
    double noise_mm = 0.3;        ///< 1σ along the ray
    double stray_share = 0;       ///< of the rays that come back from somewhere else
    double grazing_cosine = 0.17; ///< a ray that meets the surface flatter than this gives nothing
    double reach_mm = 12000;
};
/// What it sees from a place, in the scene's frame, every ray that comes back one point; looks all round where the scene is.
/// Strays lie anywhere in the scene's box.
shape::Mesh scanFrom(const shape::DistanceTree& scene, const shape::Point3& eye, const ScannerSettings&, std::mt19937&);

/// Balls of this radius set about the scene as markers.
inline constexpr double marker_radius_mm = 38;
struct Markers {
    std::vector<shape::Point3> centres;
    shape::Mesh mesh; ///< closed balls
};
/// On stands about a car: unlike distances between all of them.
Markers markersAround(size_t count, std::mt19937&);

} // namespace gorvet::sim
