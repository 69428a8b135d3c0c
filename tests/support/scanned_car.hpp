#pragma once

#include "analysis/overlay.hpp"

#include <cmath>
#include <functional>

/// A build with scans made in the test.
namespace gorvet::test {

using namespace build;
using shape::Mesh;
using shape::Point3;

inline Mesh box(const Point3& least, const Point3& most) {
    Mesh m;
    for (const double z : {least[2], most[2]})
        for (const double y : {least[1], most[1]})
            for (const double x : {least[0], most[0]}) m.points.push_back({x, y, z});
    for (const auto& f :
         {std::array<std::uint32_t, 4>{0, 2, 3, 1}, {4, 5, 7, 6}, {0, 1, 5, 4}, {2, 6, 7, 3}, {0, 4, 6, 2}, {1, 3, 7, 5}}) {
        m.triangles.push_back({f[0], f[1], f[2]});
        m.triangles.push_back({f[0], f[2], f[3]});
    }
    return m;
}

/// A build with scans of these parts; body and chassis on one set of axes, as nothing seats the body.
struct Car {
    Build b;
    analysis::ScanMeshes meshes;
    std::uint32_t next = 1;
    ScanId add(SubjectId subject, ScanPart part, const std::string& name, Mesh m) {
        const ScanId id{next++};
        b.scans[id] = {id, subject, part, name, std::string(64, 'a')};
        b.next_id = next;
        meshes[id] = std::make_shared<const Mesh>(std::move(m));
        return id;
    }
    analysis::Results results() const { return analysis::analyse(b, 1); }
    analysis::Overlay overlay() const { return analysis::overlayOf(b, results(), meshes, 1); }
};

inline double farthest(const Mesh& m, const std::function<double(const Point3&)>& of) {
    double most = -INFINITY;
    for (const Point3& p : m.points) most = std::max(most, of(p));
    return most;
}

} // namespace gorvet::test
