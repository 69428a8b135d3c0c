#include "shape/cgal_answers.hpp"

#include <CGAL/AABB_face_graph_triangle_primitive.h>
#include <CGAL/AABB_traits.h>
#include <CGAL/AABB_tree.h>
#include <CGAL/AABB_triangle_primitive.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/Polygon_mesh_processing/intersection.h>
#include <CGAL/Side_of_triangle_mesh.h>
#include <CGAL/Simple_cartesian.h>
#include <CGAL/Surface_mesh.h>

#include <cmath>

namespace gorvet::theirs {
namespace {

using Exact = CGAL::Exact_predicates_inexact_constructions_kernel;
using Simple = CGAL::Simple_cartesian<double>;
using Surface = CGAL::Surface_mesh<Exact::Point_3>;

Surface surfaceOf(const Mesh& m) {
    Surface s;
    for (const Point3& p : m.points) s.add_vertex({p[0], p[1], p[2]});
    for (const auto& t : m.triangles)
        s.add_face(Surface::Vertex_index(t[0]), Surface::Vertex_index(t[1]), Surface::Vertex_index(t[2]));
    return s;
}

} // namespace

struct NaiveTree::Content {
    using Tree = CGAL::AABB_tree<CGAL::AABB_traits<Exact, CGAL::AABB_face_graph_triangle_primitive<Surface>>>;
    Surface surface;
    Tree tree;
    explicit Content(const Mesh& m) : surface(surfaceOf(m)), tree(faces(surface).first, faces(surface).second, surface) {
        tree.accelerate_distance_queries();
    }
};
NaiveTree::NaiveTree(const Mesh& m) : content_(std::make_unique<Content>(m)) {}
NaiveTree::~NaiveTree() = default;
double NaiveTree::squaredDistance(const Point3& p) const { return content_->tree.squared_distance({p[0], p[1], p[2]}); }

struct TunedTree::Content {
    using Triangles = std::vector<Simple::Triangle_3>;
    using Tree = CGAL::AABB_tree<CGAL::AABB_traits<Simple, CGAL::AABB_triangle_primitive<Simple, Triangles::const_iterator>>>;
    Triangles triangles;
    Tree tree;
    explicit Content(const Mesh& m) {
        const auto at = [](const Point3& p) { return Simple::Point_3(p[0], p[1], p[2]); };
        for (const auto& t : m.triangles) triangles.emplace_back(at(m.points[t[0]]), at(m.points[t[1]]), at(m.points[t[2]]));
        tree.insert(triangles.cbegin(), triangles.cend());
        tree.build();
    }
};
TunedTree::TunedTree(const Mesh& m) : content_(std::make_unique<Content>(m)) {}
TunedTree::~TunedTree() = default;
double TunedTree::sumOfDistances(const std::vector<Point3>& points, double cap_mm) const {
    double sum = 0;
    if (points.empty()) return sum;
    Simple::Point_3 hint(points[0][0] + cap_mm, points[0][1], points[0][2]);
    for (const Point3& q : points) {
        const Simple::Point_3 p(q[0], q[1], q[2]);
        if (CGAL::squared_distance(p, hint) > cap_mm * cap_mm) hint = p + Simple::Vector_3(cap_mm, 0, 0);
        hint = content_->tree.closest_point(p, hint);
        sum += std::sqrt(CGAL::squared_distance(p, hint));
    }
    return sum;
}

struct Inside::Content {
    Surface surface;
    CGAL::Side_of_triangle_mesh<Surface, Exact> side;
    explicit Content(const Mesh& m) : surface(surfaceOf(m)), side(surface) {}
};
Inside::Inside(const Mesh& m) : content_(std::make_unique<Content>(m)) {}
Inside::~Inside() = default;
bool Inside::holds(const Point3& p) const { return content_->side(Exact::Point_3(p[0], p[1], p[2])) == CGAL::ON_BOUNDED_SIDE; }

struct CutPair::Content {
    Surface one, two;
};
CutPair::CutPair(const Mesh& a, const Mesh& b) : content_(new Content{surfaceOf(a), surfaceOf(b)}) {}
CutPair::~CutPair() = default;
double CutPair::lengthOfLines() const {
    std::vector<std::vector<Exact::Point_3>> lines;
    CGAL::Polygon_mesh_processing::surface_intersection(content_->one, content_->two, std::back_inserter(lines));
    double sum = 0;
    for (const auto& line : lines)
        for (size_t i = 1; i < line.size(); ++i) sum += std::sqrt(CGAL::squared_distance(line[i - 1], line[i]));
    return sum;
}

} // namespace gorvet::theirs
