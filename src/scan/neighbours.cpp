#include "scan/neighbours.hpp"

#include <nanoflann.hpp>

namespace gorvet::scan {
namespace {

struct Adaptor {
    const std::vector<Point3>& points;
    size_t kdtree_get_point_count() const { return points.size(); }
    double kdtree_get_pt(size_t i, size_t axis) const { return points[i][axis]; }
    template <class Box> bool kdtree_get_bbox(Box&) const { return false; }
};
using Tree = nanoflann::KDTreeSingleIndexAdaptor<nanoflann::L2_Simple_Adaptor<double, Adaptor>, Adaptor, 3, std::uint32_t>;

} // namespace

struct Neighbours::Index {
    Adaptor adaptor;
    Tree tree;
    explicit Index(const std::vector<Point3>& points)
        : adaptor{points}, tree(3, adaptor, nanoflann::KDTreeSingleIndexAdaptorParams(12)) {
        if (!points.empty()) tree.buildIndex();
    }
};

Neighbours::Neighbours(const std::vector<Point3>& points) : index_(std::make_unique<Index>(points)) {}
Neighbours::~Neighbours() = default;

Neighbours::Near Neighbours::nearest(const Point3& p, double reach_mm) const {
    std::uint32_t point = none;
    double squared = 0;
    if (index_->adaptor.points.empty() || index_->tree.knnSearch(p.data(), 1, &point, &squared) == 0 ||
        squared > reach_mm * reach_mm)
        return {none, reach_mm};
    return {point, std::sqrt(squared)};
}

void Neighbours::nearest(const Point3& p, size_t k, std::vector<Near>& out) const {
    k = std::min(k, index_->adaptor.points.size());
    std::vector<std::uint32_t> points(k);
    std::vector<double> squared(k);
    const size_t n = k > 0 ? index_->tree.knnSearch(p.data(), k, points.data(), squared.data()) : 0;
    out.clear();
    for (size_t i = 0; i < n; ++i) out.push_back({points[i], std::sqrt(squared[i])});
}

} // namespace gorvet::scan
