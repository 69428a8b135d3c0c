// Somebody else's answers to the same questions: CGAL on the demo pair.
#include "shape/cgal_answers.hpp"
#include "shape/crossing.hpp"
#include "shape/distance_map.hpp"
#include "sim/car_meshes.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace shape_cgal_test {

using namespace gorvet;
using shape::Mesh;
using shape::Point3;

namespace {

geometry::RigidTransform seated(double down) {
    const sim::BodyPlace p = sim::bodyPlace();
    return geometry::rigidTransform({p.shift[0], p.shift[1], p.shift[2] - down}, 0, p.pitch_rad, 0);
}

} // namespace

TEST_CASE("distances of the demo pair agree with CGAL's tree", "[cgal]") {
    const auto frame = std::make_shared<const Mesh>(sim::ladderFrame(20));
    const theirs::NaiveTree theirs(*frame);
    const shape::DistanceTree tree(frame);
    const shape::Sides sides(tree);
    const Mesh body = sim::bodyShell(60);
    const geometry::RigidTransform seat = seated(20);
    const auto map = distancesTo(tree, &sides, shape::ordered(body.points), seat, 1e5);
    double worst = 0;
    for (size_t i = 0; i < body.points.size(); ++i) {
        const double right = std::sqrt(theirs.squaredDistance(seat.transformed(body.points[i])));
        worst = std::max(worst, std::abs(right - std::abs(static_cast<double>(map.distance_mm[i]))));
    }
    CHECK(worst < 1e-3);
}

TEST_CASE("what is inside of a closed piece agrees with CGAL's side of a mesh", "[cgal]") {
    const Mesh wheel = sim::wheel(25);
    const theirs::Inside theirs(wheel);
    const shape::DistanceTree tree(std::make_shared<const Mesh>(wheel));
    const shape::Sides sides(tree);
    REQUIRE(sides.all());
    int in = 0, unlike = 0;
    for (double x = -350; x < 350; x += 23)
        for (double y = -120; y < 120; y += 17)
            for (double z = -350; z < 350; z += 29) {
                const bool right = theirs.holds({x, y, z});
                in += right;
                unlike += right != sides.inside({x, y, z});
            }
    CHECK(in > 500);
    CHECK(unlike == 0);
}

TEST_CASE("cut lines of the demo pair agree with CGAL's surface intersection", "[cgal]") {
    for (const double down : {0.0, 40.0}) {
        const Mesh body = transformed(sim::bodyShell(40), seated(down));
        const auto frame = std::make_shared<const Mesh>(sim::ladderFrame(30));
        const double theirs = theirs::CutPair(body, *frame).lengthOfLines();
        double ours = 0;
        const shape::DistanceTree one(std::make_shared<const Mesh>(body)), two(frame);
        for (const shape::Polyline& line : shape::crossings(one, two, {}).lines) ours += length(line);
        CHECK(theirs > 100);
        CHECK(ours == Approx(theirs).epsilon(1e-9));
    }
}

} // namespace shape_cgal_test
