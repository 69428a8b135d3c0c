#include "sim/scanner.hpp"

#include "shape/parallel.hpp"
#include "sim/mesh_maker.hpp"

#include <algorithm>
#include <numbers>

namespace gorvet::sim {

using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;

shape::Mesh scanFrom(const shape::DistanceTree& scene, const Point3& eye, const ScannerSettings& settings, std::mt19937& rng) {
    shape::Mesh cloud;
    if (scene.empty()) return cloud;
    Point3 least = scene.mesh().points[0], most = least;
    for (const Point3& p : scene.mesh().points)
        for (size_t axis = 0; axis < 3; ++axis) {
            least[axis] = std::min(least[axis], p[axis]);
            most[axis] = std::max(most[axis], p[axis]);
        }
    // the cone of directions that holds the scene's box
    const Point3 towards = geometry::unit(minus(geometry::along(least, most, 0.5), eye));
    double widest = 0;
    for (int corner = 0; corner < 8; ++corner) {
        const Point3 c{corner & 1 ? most[0] : least[0], corner & 2 ? most[1] : least[1], corner & 4 ? most[2] : least[2]};
        widest = std::max(widest, std::acos(std::clamp(dot(geometry::unit(minus(c, eye)), towards), -1.0, 1.0)));
    }
    const Point3 up{0, 0, 1};
    Point3 right = geometry::unit(geometry::cross(towards, up));
    if (geometry::length(right) == 0) right = {0, 1, 0};
    const Point3 above = geometry::cross(right, towards);
    const auto steps = static_cast<std::int64_t>(std::ceil(widest / settings.step_rad));
    std::vector<Point3> ways;
    for (std::int64_t i = -steps; i <= steps; ++i)
        for (std::int64_t j = -steps; j <= steps; ++j) {
            const double a = static_cast<double>(i) * settings.step_rad, b = static_cast<double>(j) * settings.step_rad;
            if (a * a + b * b > widest * widest) continue;
            ways.push_back(plus(times(towards, std::cos(a) * std::cos(b)),
                                plus(times(right, std::sin(a) * std::cos(b)), times(above, std::sin(b)))));
        }
    std::vector<shape::DistanceTree::Hit> hits(ways.size());
    shape::inPieces(ways.size(), 256, shape::threadsOf(0), [&](size_t from, size_t to) {
        for (size_t i = from; i < to; ++i) hits[i] = scene.firstHit(eye, ways[i]);
    });
    std::normal_distribution<double> noise(0, settings.noise_mm);
    std::uniform_real_distribution<double> share(0, 1);
    for (size_t i = 0; i < ways.size(); ++i) {
        if (hits[i].triangle == shape::kernel::nothing || hits[i].at > settings.reach_mm) continue;
        const shape::Corners c = cornersOf(scene.mesh(), hits[i].triangle);
        const Point3 n = geometry::unit(geometry::cross(minus(c[1], c[0]), minus(c[2], c[0])));
        if (std::abs(dot(n, ways[i])) < settings.grazing_cosine) continue;
        if (share(rng) < settings.stray_share) {
            Point3 p;
            for (size_t axis = 0; axis < 3; ++axis) p[axis] = least[axis] + (most[axis] - least[axis]) * share(rng);
            cloud.points.push_back(p);
        } else {
            cloud.points.push_back(plus(eye, times(ways[i], hits[i].at + noise(rng))));
        }
    }
    return cloud;
}

Markers markersAround(size_t count, std::mt19937& rng) {
    Markers m;
    std::uniform_real_distribution<double> x(-900, 3700), z(150, 1500), apart(950, 1150), over(0, 1);
    std::vector<std::array<double, 2>> outline;
    for (int i = 0; i <= 16; ++i) {
        const double a = std::numbers::pi * i / 16;
        outline.push_back({-marker_radius_mm * std::cos(a), i == 0 || i == 16 ? 0 : marker_radius_mm * std::sin(a)});
    }
    while (m.centres.size() < count) {
        const Point3 p{x(rng), (m.centres.size() % 2 ? 1 : -1) * apart(rng), z(rng)};
        bool alike = false;
        for (const Point3& q : m.centres) alike = alike || geometry::between(p, q) < 250;
        if (alike) continue;
        m.centres.push_back(p);
        addTurned(m.mesh, marker_radius_mm / 5, p, outline);
    }
    return m;
}

} // namespace gorvet::sim
