#include "scan/neighbours.hpp"

#include "shape/distinct.hpp"

#include <nanoflann.hpp>

namespace gorvet::scan {

struct Neighbours::Index {
    /// Points that lie exactly on each other are one: a scanner's "no return" comes by the hundred thousand, and a tree can't
    /// divide it.
    struct Adaptor {
        const std::vector<Point3>& points;
        std::vector<std::uint32_t> distinct;
        explicit Adaptor(const std::vector<Point3>& all) : points(all) {
            const auto first = shape::firstOfEach(all);
            for (std::uint32_t i = 0; i < first.size(); ++i)
                if (first[i] == i) distinct.push_back(i);
        }
        size_t kdtree_get_point_count() const { return distinct.size(); }
        double kdtree_get_pt(size_t i, size_t axis) const { return points[distinct[i]][axis]; }
        template <class Box> bool kdtree_get_bbox(Box&) const { return false; }
    };
    using Tree = nanoflann::KDTreeSingleIndexAdaptor<nanoflann::L2_Simple_Adaptor<double, Adaptor>, Adaptor, 3, std::uint32_t>;

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
    const double at[3] = {p.x_mm, p.y_mm, p.z_mm};
    std::uint32_t point = none;
    double squared = 0;
    if (index_->adaptor.distinct.empty() || index_->tree.knnSearch(at, 1, &point, &squared) == 0 || squared > reach_mm * reach_mm)
        return {none, reach_mm};
    return {index_->adaptor.distinct[point], std::sqrt(squared)};
}

void Neighbours::nearest(const Point3& p, size_t k, std::vector<Near>& out) const {
    k = std::min(k, index_->adaptor.distinct.size());
    const double at[3] = {p.x_mm, p.y_mm, p.z_mm};
    std::vector<std::uint32_t> points(k);
    std::vector<double> squared(k);
    const size_t n = k > 0 ? index_->tree.knnSearch(at, k, points.data(), squared.data()) : 0;
    out.clear();
    for (size_t i = 0; i < n; ++i) out.push_back({index_->adaptor.distinct[points[i]], std::sqrt(squared[i])});
}

} // namespace gorvet::scan
