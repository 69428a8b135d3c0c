// Strange meshes and clouds into all that is done with them: the tree, thinning, strays, markers, the mid-plane, laying.
// The first byte picks how coordinates are made from the bytes, the second what is done.
#include "scan/cloud.hpp"
#include "scan/fit.hpp"
#include "scan/markers.hpp"
#include "scan/midplane.hpp"
#include "shape/distance_tree.hpp"

#include <cmath>
#include <cstdint>
#include <cstdlib>
#include <cstring>

using namespace gorvet;
using shape::Point3;

namespace {

/// Coordinates as a file may bring them: within 100 km, down to denormals.
double coordinate(const std::uint8_t*& at, int how) {
    if (how % 4 == 0) { // small whole numbers: many on each other
        return static_cast<std::int8_t>(*at++);
    }
    if (how % 4 == 1) {
        std::int16_t v = 0;
        std::memcpy(&v, at, 2);
        at += 2;
        return v * 0.37;
    }
    double v = 0;
    if (how % 4 == 2) {
        float f = 0;
        std::memcpy(&f, at, 4);
        at += 4;
        v = f;
    } else {
        std::memcpy(&v, at, 8);
        at += 8;
    }
    return std::isfinite(v) && std::abs(v) < 1e8 ? v : 0;
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size < 8) return 0;
    const int how = data[0];
    // what is slow comes more rarely: the tree six times in sixteen, the mid-plane and the fits once
    static constexpr int choices[16] = {0, 1, 0, 2, 0, 1, 3, 0, 1, 0, 2, 1, 3, 0, 4, 5};
    const int what = choices[data[1] % 16];
    const size_t bytes[] = {1, 2, 4, 8};
    const size_t each = 3 * bytes[how % 4];
    auto mesh = std::make_shared<shape::Mesh>();
    const std::uint8_t* at = data + 2;
    const std::uint8_t* const end = data + size;
    constexpr size_t most[] = {400, 200, 200, 120, 60, 200}; // what takes longer gets fewer
    while (at + each <= end && mesh->points.size() < most[what]) {
        Point3 p{};
        for (double& v : p) v = coordinate(at, how);
        mesh->points.push_back(p);
    }
    const auto n = static_cast<std::uint32_t>(mesh->points.size());
    if (n < 3) return 0;
    for (std::uint32_t i = 0; i + 2 < n; i += 1 + how % 3) mesh->triangles.push_back({i, i + 1, (i * 7 + 2) % n});
    (void)shape::look(*mesh).remarks();
    switch (what) {
    case 0: {
        const shape::DistanceTree tree(mesh);
        for (std::uint32_t i = 0; i < std::min(n, 30U); ++i) {
            const auto near = tree.nearest(mesh->points[i], 1e9);
            if (std::isnan(near.distance_mm)) std::abort();
        }
        break;
    }
    case 1: {
        const double bound = 0.001 + 0.5 * data[2] * data[2];
        const auto t = scan::downsampled(*mesh, bound);
        for (const Point3& p : mesh->points) {
            bool near = false;
            for (const Point3& q : t.mesh.points)
                near = near || geometry::between(p, q) <= bound * (1 + 1e-9) + 1e-7 * (1 + geometry::length(p));
            if (!near) std::abort(); // the bound is a promise
        }
        break;
    }
    case 2: {
        const auto kept = scan::withoutOutliers(mesh->points, 12, 3, 1);
        (void)shape::look(scan::onlyPoints(*mesh, kept));
        break;
    }
    case 3: (void)scan::findMarkers(mesh->points, 1 + data[2], 12, 1); break;
    case 4: {
        const auto plane = scan::midPlaneOf(mesh->points, std::nullopt, {});
        if (plane) {
            const auto off = scan::asymmetry(mesh->points, *plane, 50, 1);
            (void)scan::unlikePlaces(mesh->points, *plane, off, 1, 100);
        }
        break;
    }
    default:
        (void)scan::fitPlane(mesh->points, true);
        (void)scan::fitLine(mesh->points, true);
        (void)scan::fitCircle(mesh->points, true);
        (void)scan::fitSphere(mesh->points, true);
        (void)scan::fitCylinder(mesh->points, true);
        break;
    }
    return 0;
}
