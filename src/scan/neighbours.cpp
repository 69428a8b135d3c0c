#include "scan/neighbours.hpp"

#include "shape/distinct.hpp"

#include <boost/container/small_vector.hpp>
#include <cmath>
#include <limits>
#include <nanoflann.hpp>

namespace gorvet::scan {

struct Neighbours::Index {
    /// Points that lie exactly on each other are one: a scanner's "no return" comes by the hundred thousand, and a tree can't
    /// divide it.
    struct Adaptor {
        std::vector<std::uint32_t> distinct; ///< which of all
        std::vector<Point3> points;
        explicit Adaptor(const std::vector<Point3>& all) {
            const auto first = shape::firstOfEach(all);
            for (std::uint32_t i = 0; i < first.size(); ++i)
                if (first[i] == i) {
                    distinct.push_back(i);
                    points.push_back(all[i]);
                }
        }
        size_t kdtree_get_point_count() const { return distinct.size(); }
        double kdtree_get_pt(size_t i, size_t axis) const { return points[i][axis]; }
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

namespace {
/// The nearest within a reach: what lies beyond it is never looked at. (The tree reads what this holds as it goes.)
struct NearestWithin {
    double squared; ///< mm², below which a point is taken
    std::uint32_t point = Neighbours::none;
    size_t size() const { return point == Neighbours::none ? 0 : 1; }
    bool full() const { return size() > 0; }
    bool addPoint(double distance, std::uint32_t at) {
        if (distance < squared) {
            squared = distance;
            point = at;
        }
        return true;
    }
    double worstDist() const { return squared; }
};
} // namespace

Neighbours::Near Neighbours::nearest(const Point3& p, double reach_mm) const {
    const double at[3] = {p.x_mm, p.y_mm, p.z_mm};
    if (index_->adaptor.distinct.empty()) return {none, reach_mm};
    NearestWithin found{
        std::nextafter(reach_mm * reach_mm, std::numeric_limits<double>::infinity())}; // the reach itself is within
    index_->tree.findNeighbors(found, at, nanoflann::SearchParams());
    if (found.point == none) return {none, reach_mm};
    return {index_->adaptor.distinct[found.point], std::sqrt(found.squared)};
}

void Neighbours::nearest(const Point3& p, size_t k, std::vector<Near>& out) const {
    k = std::min(k, index_->adaptor.distinct.size());
    const double at[3] = {p.x_mm, p.y_mm, p.z_mm};
    boost::container::small_vector<std::uint32_t, 20> points(k);
    boost::container::small_vector<double, 20> squared(k);
    const size_t n = k > 0 ? index_->tree.knnSearch(at, k, points.data(), squared.data()) : 0;
    out.clear();
    for (size_t i = 0; i < n; ++i) out.push_back({index_->adaptor.distinct[points[i]], std::sqrt(squared[i])});
}

} // namespace gorvet::scan
