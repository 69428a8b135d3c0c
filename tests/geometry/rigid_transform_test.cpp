#include "geometry/box3.hpp"
#include "geometry/rigid_transform.hpp"

#include <catch2/catch.hpp>
#include <rapidcheck.h>
#include <rapidcheck/catch.h>

namespace geometry_rigid_transform_test {

using namespace gorvet::geometry;

TEST_CASE("a rigid transform: back, chained, and by its angles", "[geometry][property]") {
    CHECK(rc::check("rigid", [] {
        const auto figure = [](int most) { return *rc::gen::inRange(-most, most + 1) / 100.0; };
        const auto any = [&] {
            return rigidTransform({figure(100000), figure(100000), figure(100000)}, figure(300), figure(150), figure(300));
        };
        const RigidTransform a = any(), b = any();
        const Vec3 p{figure(100000), figure(100000), figure(100000)}, q{figure(100000), figure(100000), figure(100000)};
        RC_ASSERT(std::abs(between(a.transformed(p), a.transformed(q)) - between(p, q)) < 1e-8);
        RC_ASSERT(between(inverse(a).transformed(a.transformed(p)), p) < 1e-8);
        RC_ASSERT(between(chained(a, b).transformed(p), a.transformed(b.transformed(p))) < 1e-8);
        const auto [yaw, pitch, roll] = yawPitchRoll(a);
        RC_ASSERT(between(rigidTransform(a.translation, yaw, pitch, roll).transformed(p), a.transformed(p)) < 1e-6);
        // right-handed: x cross y is z
        RC_ASSERT(between(cross(a.rotated({1, 0, 0}), a.rotated({0, 1, 0})), a.rotated({0, 0, 1})) < 1e-12);
    }));
}

TEST_CASE("a box grows round what it takes", "[geometry]") {
    Box3 box;
    CHECK(box.empty());
    CHECK_FALSE(box.contains(Vec3{}));
    box.take(Vec3{1, 2, 3});
    box.take(Vec3{-1, 5, 3});
    CHECK(box.min == Vec3{-1, 2, 3});
    CHECK(box.max == Vec3{1, 5, 3});
    CHECK(box.middle() == Vec3{0, 3.5, 3});
    CHECK(box.size() == Vec3{2, 3, 0});
    CHECK(box.contains(Vec3{0, 4, 3}));
    CHECK(box.meets({{1, 5, 3}, {9, 9, 9}})); // corner to corner
    CHECK_FALSE(box.meets({{1.1, 5, 3}, {9, 9, 9}}));
    CHECK(unit({0, 0, 0}) == Vec3{});
    CHECK(along({0, 0, 0}, {10, 0, 0}, 0.25) == Vec3{2.5, 0, 0});
}

} // namespace geometry_rigid_transform_test
