#pragma once

#include "shape/mesh.hpp"

#include <memory>

/// Somebody else's answers to the same questions, CGAL's, compiled once for the test that compares with them and the benchmark
/// that measures beside them. Lengths mm.
namespace gorvet::theirs {

using shape::Mesh;
using shape::Point3;

/// Distances as most would write them: exact predicates over a surface mesh.
class NaiveTree {
public:
    explicit NaiveTree(const Mesh&);
    ~NaiveTree();
    double squaredDistance(const Point3&) const;

private:
    struct Content;
    std::unique_ptr<Content> content_;
};

/// Distances as one who knows the library would: its simple kernel over an array of triangles.
class TunedTree {
public:
    explicit TunedTree(const Mesh&);
    ~TunedTree();
    /// Sum of the distances of points in an order in which neighbours follow each other: each begins from the place that the one
    /// before it found, or from one at the cap.
    double sumOfDistances(const std::vector<Point3>&, double cap_mm) const;

private:
    struct Content;
    std::unique_ptr<Content> content_;
};

/// Which points a closed mesh holds.
class Inside {
public:
    explicit Inside(const Mesh&);
    ~Inside();
    bool holds(const Point3&) const;

private:
    struct Content;
    std::unique_ptr<Content> content_;
};

/// Two meshes that cut each other.
class CutPair {
public:
    CutPair(const Mesh&, const Mesh&);
    ~CutPair();
    double lengthOfLines() const;

private:
    struct Content;
    std::unique_ptr<Content> content_;
};

} // namespace gorvet::theirs
