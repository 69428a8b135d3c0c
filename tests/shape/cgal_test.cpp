// Somebody else's answers to the same questions: CGAL on the demo pair.
#include "shape/crossing.hpp"
#include "shape/distance_map.hpp"
#include "sim/car_meshes.hpp"

#include <CGAL/AABB_traits.h>
#include <CGAL/AABB_tree.h>
#include <CGAL/AABB_triangle_primitive.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/Polygon_mesh_processing/intersection.h>
#include <CGAL/Side_of_triangle_mesh.h>
#include <CGAL/Surface_mesh.h>

#include <catch2/catch.hpp>

namespace shape_cgal_test {

using namespace gorvet;
using shape::Mesh;
using shape::Point3;

namespace {

using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
using Surface = CGAL::Surface_mesh<Kernel::Point_3>;

Surface surfaceOf(const Mesh& m) {
    Surface s;
    for (const Point3& p : m.points) s.add_vertex({p[0], p[1], p[2]});
    for (const auto& t : m.triangles)
        s.add_face(Surface::Vertex_index(t[0]), Surface::Vertex_index(t[1]), Surface::Vertex_index(t[2]));
    return s;
}
geometry::RigidTransform seated(double down) {
    const sim::BodyPlace p = sim::bodyPlace();
    return geometry::rigidTransform({p.shift[0], p.shift[1], p.shift[2] - down}, 0, p.pitch_rad, 0);
}

} // namespace

TEST_CASE("distances of the demo pair agree with CGAL's tree", "[cgal]") {
    const auto frame = std::make_shared<const Mesh>(sim::ladderFrame(20));
    std::vector<Kernel::Triangle_3> triangles;
    const auto at = [](const Point3& p) { return Kernel::Point_3(p[0], p[1], p[2]); };
    for (const auto& t : frame->triangles)
        triangles.emplace_back(at(frame->points[t[0]]), at(frame->points[t[1]]), at(frame->points[t[2]]));
    using Primitive = CGAL::AABB_triangle_primitive<Kernel, std::vector<Kernel::Triangle_3>::const_iterator>;
    const CGAL::AABB_tree<CGAL::AABB_traits<Kernel, Primitive>> theirs(triangles.cbegin(), triangles.cend());
    const shape::DistanceTree tree(frame);
    const shape::Sides sides(tree);
    const Mesh body = sim::bodyShell(60);
    const geometry::RigidTransform seat = seated(20);
    const auto map = distancesTo(tree, &sides, shape::ordered(body.points), seat, 1e5);
    double worst = 0;
    for (size_t i = 0; i < body.points.size(); ++i) {
        const double right = std::sqrt(theirs.squared_distance(at(seat.transformed(body.points[i]))));
        worst = std::max(worst, std::abs(right - std::abs(static_cast<double>(map.distance_mm[i]))));
    }
    CHECK(worst < 1e-3);
}

TEST_CASE("what is inside of a closed piece agrees with CGAL's side of a mesh", "[cgal]") {
    const Mesh wheel = sim::wheel(25);
    const Surface theirs = surfaceOf(wheel);
    const CGAL::Side_of_triangle_mesh<Surface, Kernel> side(theirs);
    const shape::DistanceTree tree(std::make_shared<const Mesh>(wheel));
    const shape::Sides sides(tree);
    REQUIRE(sides.all());
    int in = 0, unlike = 0;
    for (double x = -350; x < 350; x += 23)
        for (double y = -120; y < 120; y += 17)
            for (double z = -350; z < 350; z += 29) {
                const bool right = side(Kernel::Point_3(x, y, z)) == CGAL::ON_BOUNDED_SIDE;
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
        auto a = surfaceOf(body), b = surfaceOf(*frame);
        std::vector<std::vector<Kernel::Point_3>> lines;
        CGAL::Polygon_mesh_processing::surface_intersection(a, b, std::back_inserter(lines));
        double theirs = 0;
        for (const auto& line : lines)
            for (size_t i = 1; i < line.size(); ++i) theirs += std::sqrt(CGAL::squared_distance(line[i - 1], line[i]));
        double ours = 0;
        const shape::DistanceTree one(std::make_shared<const Mesh>(body)), two(frame);
        for (const shape::Polyline& line : shape::crossings(one, two, {}).lines) ours += length(line);
        CHECK(theirs > 100);
        CHECK(ours == Approx(theirs).epsilon(1e-9));
    }
}

} // namespace shape_cgal_test
