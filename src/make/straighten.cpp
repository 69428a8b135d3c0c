#include "make/straighten.hpp"

#include "dense/dense.hpp"

#include <cmath>

#include <Eigen/Core>

namespace gorvet::make {

Mirror mirrorOf(const std::vector<Vec3>& places, const std::vector<Pair>& pairs) {
    Vec3 middle;
    for (const auto& [left, right] : pairs)
        middle = geometry::plus(middle, geometry::times(geometry::plus(places[left], places[right]), 0.5));
    middle = geometry::times(middle, 1.0 / static_cast<double>(pairs.size()));
    // a middle is known twice as well as a difference, in variance four times
    constexpr double of_middle = 2, of_difference = 1;
    Eigen::Matrix3d n = Eigen::Matrix3d::Zero();
    Eigen::Vector3d t = Eigen::Vector3d::Zero();
    const auto say = [&](const Eigen::Vector3d& row, double value, double weight) {
        n += weight * weight * row * row.transpose();
        t += weight * weight * value * row;
    };
    for (const auto& [left, right] : pairs) {
        const Vec3 between = geometry::minus(places[right], places[left]);
        const Vec3 m = geometry::minus(geometry::times(geometry::plus(places[left], places[right]), 0.5), middle);
        say({1, m.x_mm, m.z_mm}, m.y_mm, of_middle);
        say({0, between.y_mm, 0}, -between.x_mm, of_difference);
        say({0, 0, between.y_mm}, -between.z_mm, of_difference);
    }
    const Eigen::Vector3d plane = dense::solveSymmetric(n, t);
    return {geometry::plus(middle, {0, plane[0], 0}), geometry::unit(Vec3{-plane[1], 1, -plane[2]})};
}

Vec3 mirrored(const Mirror& m, const Vec3& p) {
    return geometry::minus(p, geometry::times(m.normal, 2 * geometry::dot(geometry::minus(p, m.point), m.normal)));
}

std::array<Figure, 3> drawnStraight(const build::Places& places, const std::vector<Pair>& held, std::size_t place,
                                    std::size_t twin) {
    std::vector<std::size_t> of{place, twin};
    for (const auto& [left, right] : held) {
        of.push_back(left);
        of.push_back(right);
    }
    std::array<Figure, 3> by;
    for (std::size_t axis = 0; axis < 3; ++axis)
        by[axis] = build::figureOf(places, of, [&](const std::vector<Vec3>& p) {
            return geometry::minus(mirrored(mirrorOf(p, held), p[twin]), p[place])[axis];
        });
    return by;
}

} // namespace gorvet::make
