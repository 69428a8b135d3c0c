#include "shape/hidden_lines.hpp"

#include "sim/mesh_maker.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <numbers>
#include <random>

namespace shape_hidden_lines_test {

using namespace gorvet;
using shape::Mesh;
using shape::ScribedLine;
using shape::Sight;

namespace {

Mesh box(const shape::Point3& middle, const shape::Point3& size, double step = 20) {
    Mesh m;
    sim::addBox(m, step, middle, size);
    return m;
}
/// A box of six grids blown up.
Mesh ball(double radius, double noise = 0) {
    Mesh m;
    for (size_t axis = 0; axis < 3; ++axis)
        for (const double side : {-1.0, 1.0})
            sim::addGrid(m, 15, [&](double u, double v) {
                shape::Point3 p{};
                p[axis] = side;
                p[(axis + 1) % 3] = 2 * u - 1;
                p[(axis + 2) % 3] = 2 * v - 1;
                p = geometry::times(geometry::unit(p), radius);
                for (size_t k = 0; k < 3; ++k) p[k] = std::round(p[k] * 1e6) / 1e6; // alike where two grids meet
                return p;
            });
    std::mt19937 rng(7);
    std::normal_distribution<double> off(0, noise > 0 ? noise : 1);
    std::map<std::array<double, 3>, double> by; // the same where two grids meet
    for (auto& p : m.points) {
        const auto [it, fresh] = by.try_emplace({p[0], p[1], p[2]}, 0);
        if (fresh && noise > 0) it->second = off(rng);
        p = geometry::times(p, 1 + it->second / radius);
    }
    return m;
}
double lengthOf(const std::vector<ScribedLine>& lines, size_t part, Sight sight) {
    double sum = 0;
    for (const ScribedLine& l : lines)
        if (l.part == part && l.sight == sight)
            for (size_t i = 1; i < l.path.size(); ++i)
                sum += std::hypot(l.path[i][0] - l.path[i - 1][0], l.path[i][1] - l.path[i - 1][1]);
    return sum;
}
const shape::ViewAxes left = shape::ViewAxes::from(0, 0);

} // namespace

TEST_CASE("of a box from its corner nine edges are seen, of the length that geometry says", "[shape][lines]") {
    const Mesh m = box({0, 0, 0}, {800, 400, 300});
    const double azimuth = -0.55, rise = 0.42;
    const auto lines = shape::scribedLines({{&m, {}, false}}, shape::ViewAxes::from(azimuth, rise));
    // an edge along x shows its part along the picture; three of the four of each kind are seen
    const auto shown = [&](const shape::Point3& along) {
        const auto v = shape::ViewAxes::from(azimuth, rise);
        return std::hypot(geometry::dot(along, v.right), geometry::dot(along, v.up));
    };
    const double expected = 3 * (shown({800, 0, 0}) + shown({0, 400, 0}) + shown({0, 0, 300}));
    CHECK(lengthOf(lines, 0, Sight::Plain) == Approx(expected).epsilon(0.01));
    CHECK(lengthOf(lines, 0, Sight::Veiled) == 0);
}

TEST_CASE("what stands behind solid is left out, behind sheet it is veiled", "[shape][lines]") {
    const Mesh far = box({0, 300, 0}, {200, 100, 100}), near = box({0, 0, 0}, {600, 50, 400});
    // from the left the eye is at negative offsets
    const auto behind_solid = shape::scribedLines({{&far, {}, false}, {&near, {}, false}}, left);
    CHECK(lengthOf(behind_solid, 0, Sight::Plain) == 0);
    CHECK(lengthOf(behind_solid, 0, Sight::Veiled) == 0);
    const auto behind_sheet = shape::scribedLines({{&far, {}, false}, {&near, {}, true}}, left);
    CHECK(lengthOf(behind_sheet, 0, Sight::Plain) == 0);
    CHECK(lengthOf(behind_sheet, 0, Sight::Veiled) == Approx(2 * (200 + 100)).epsilon(0.02));
    const auto sheet_behind = shape::scribedLines({{&far, {}, true}, {&near, {}, false}}, left);
    CHECK(lengthOf(sheet_behind, 0, Sight::Plain) + lengthOf(sheet_behind, 0, Sight::Veiled) == 0);
    // half of it stands out: that half is plain
    const Mesh beside = box({300, 300, 0}, {200, 100, 100});
    const auto half = shape::scribedLines({{&beside, {}, false}, {&near, {}, true}}, left);
    CHECK(lengthOf(half, 0, Sight::Plain) == Approx(2 * 100 + 100).epsilon(0.03));
    CHECK(lengthOf(half, 0, Sight::Veiled) == Approx(2 * 100 + 100).epsilon(0.03));
    // moved by its pose it is in front
    const auto moved =
        shape::scribedLines({{&far, geometry::rigidTransform({0, -600, 0}, 0, 0, 0), false}, {&near, {}, false}}, left);
    CHECK(lengthOf(moved, 0, Sight::Plain) == Approx(2 * (200 + 100)).epsilon(0.02));
}

TEST_CASE("a ball is a circle, however it is wound, and nearly so with a scanner's noise", "[shape][lines]") {
    for (const double noise : {0.0, 0.3}) {
        Mesh m = ball(250, noise);
        for (size_t t = 0; t < m.triangles.size(); t += 3) std::swap(m.triangles[t][1], m.triangles[t][2]);
        const auto lines = shape::scribedLines({{&m, {}, false}}, shape::ViewAxes::from(0.7, 0.3));
        REQUIRE_FALSE(lines.empty());
        for (const ScribedLine& l : lines)
            for (const auto& p : l.path) CHECK(std::hypot(p[0], p[1]) == Approx(250).margin(noise > 0 ? 6 : 1.5));
        CHECK(lengthOf(lines, 0, Sight::Plain) == Approx(2 * std::numbers::pi * 250).epsilon(noise > 0 ? 0.15 : 0.02));
    }
}

TEST_CASE("nothing, a cloud and a stop make no lines", "[shape][lines]") {
    CHECK(shape::scribedLines({}, left).empty());
    const Mesh none;
    CHECK(shape::scribedLines({{&none, {}, false}}, left).empty());
    Mesh cloud;
    for (std::uint32_t i = 0; i < 20; ++i) {
        cloud.points.push_back({10.0 * i, 0, 1.0 * i});
        cloud.triangles.push_back({i, i, i});
    }
    CHECK(shape::scribedLines({{&cloud, {}, false}}, left).empty());
    const Mesh m = box({0, 0, 0}, {800, 400, 300});
    CHECK(shape::scribedLines({{&m, {}, false}}, left, {}, [] { return true; }).empty());
}

} // namespace shape_hidden_lines_test
