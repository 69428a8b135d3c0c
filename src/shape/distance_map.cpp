#include "shape/distance_map.hpp"

#include "shape/parallel.hpp"

#include <algorithm>
#include <limits>
#include <numeric>

namespace gorvet::shape {
namespace {

using kernel::nothing;

/// 21 bits spread to every third place.
std::uint64_t spread(std::uint64_t v) {
    v = (v | v << 32) & 0x1f00000000ffffULL;
    v = (v | v << 16) & 0x1f0000ff0000ffULL;
    v = (v | v << 8) & 0x100f00f00f00f00fULL;
    v = (v | v << 4) & 0x10c30c30c30c30c3ULL;
    return (v | v << 2) & 0x1249249249249249ULL;
}

constexpr size_t run_points = PointOrder::run_points;
constexpr size_t crowd_points = PointOrder::crowd_points;

/// Round the middle of the box of each `size` points.
std::vector<PointOrder::Ball> balls(const std::vector<Point3>& points, size_t size) {
    std::vector<PointOrder::Ball> all;
    for (size_t from = 0; from < points.size(); from += size) {
        const size_t to = std::min(points.size(), from + size);
        Point3 least = points[from], most = points[from];
        for (size_t i = from; i < to; ++i)
            for (size_t axis = 0; axis < 3; ++axis) {
                least[axis] = std::min(least[axis], points[i][axis]);
                most[axis] = std::max(most[axis], points[i][axis]);
            }
        PointOrder::Ball b{along(least, most, 0.5), 0};
        for (size_t i = from; i < to; ++i) b.radius = std::max(b.radius, between(points[i], b.middle));
        all.push_back(b);
    }
    return all;
}

/// Which side far points are on: the same as another far point's nearer than the cap, since nothing lies between them.
class FarSide {
public:
    FarSide(const Sides* sides, double cap) : sides_(sides), cap_(cap) {}
    bool inside(const Point3& p) {
        if (!sides_) return false;
        if (!known_ || between(p, at_) >= cap_) inside_ = sides_->inside(p);
        known_ = true;
        at_ = p;
        return inside_;
    }

private:
    const Sides* sides_;
    double cap_;
    bool known_ = false;
    bool inside_ = false;
    Point3 at_{};
};

} // namespace

PointOrder ordered(const std::vector<Point3>& points) {
    PointOrder o;
    if (points.empty()) return o;
    Point3 least = points[0], most = points[0];
    for (const Point3& p : points)
        for (size_t axis = 0; axis < 3; ++axis) {
            least[axis] = std::min(least[axis], p[axis]);
            most[axis] = std::max(most[axis], p[axis]);
        }
    const double size = std::max({most[0] - least[0], most[1] - least[1], most[2] - least[2], 1e-9});
    std::vector<std::pair<std::uint64_t, std::uint32_t>> keys(points.size());
    for (std::uint32_t i = 0; i < points.size(); ++i) {
        std::uint64_t key = 0;
        for (size_t axis = 0; axis < 3; ++axis)
            key |= spread(static_cast<std::uint64_t>((points[i][axis] - least[axis]) / size * 2097151.0)) << axis;
        keys[i] = {key, i};
    }
    std::sort(keys.begin(), keys.end());
    o.points.reserve(points.size());
    o.place.reserve(points.size());
    for (const auto& [key, i] : keys) {
        o.points.push_back(points[i]);
        o.place.push_back(i);
    }
    o.runs = balls(o.points, run_points);
    o.crowds = balls(o.points, crowd_points);
    return o;
}

DistanceMap distancesTo(const DistanceTree& tree, const Sides* sides, const PointOrder& order, const Motion& move, double cap_mm,
                        int threads, const std::function<bool()>& stop) {
    DistanceMap map;
    map.distance_mm.assign(order.points.size(), static_cast<float>(cap_mm));
    map.has_inside = sides && sides->any();
    if (!map.has_inside) sides = nullptr;
    if (tree.empty()) return map;
    const float cap = DistanceTree::capOf(cap_mm);
    /// Whether anything may be within the cap of a ball.
    const auto near = [&](const PointOrder::Ball& b) {
        const Point3 at = minus(move.moved(b.middle), tree.middle());
        return tree.anyWithin(at, static_cast<double>(cap) + b.radius);
    };
    const auto work = [&](size_t from, size_t to) {
        if (stop && stop()) return;
        std::array<Point3, run_points> at;
        kernel::Run run;
        run.cap = cap;
        FarSide far(sides, cap_mm);
        // all of a ball beyond the cap: on one side, since nothing lies between
        const auto allFar = [&](size_t first, size_t n, const PointOrder::Ball& ball) {
            if (!far.inside(move.moved(ball.middle))) return;
            for (size_t i = first; i < first + n; ++i) map.distance_mm[order.place[i]] = static_cast<float>(-cap_mm);
        };
        for (size_t crowd = from; crowd < to; crowd += crowd_points) {
            const size_t end = std::min(to, crowd + crowd_points);
            if (!near(order.crowds[crowd / crowd_points])) {
                allFar(crowd, end - crowd, order.crowds[crowd / crowd_points]);
                continue;
            }
            for (size_t first = crowd; first < end; first += run_points) {
                const size_t n = std::min(run_points, end - first);
                if (!near(order.runs[first / run_points])) {
                    allFar(first, n, order.runs[first / run_points]);
                    continue;
                }
                for (size_t i = 0; i < run_points; ++i) {
                    if (i < n) at[i] = minus(move.moved(order.points[first + i]), tree.middle());
                    for (size_t axis = 0; axis < 3; ++axis) run.at[axis][i] = static_cast<float>(at[std::min(i, n - 1)][axis]);
                }
                run.points = static_cast<int>(n);
                tree.nearestRun(run);
                tree.fetch(run.triangle, n);
                run.known = 0;
                for (size_t i = 0; i < n; ++i) {
                    const Point3 p = plus(at[i], tree.middle());
                    const Nearest nearest = tree.exact(run.triangle[i], p, cap_mm);
                    if (nearest.triangle != nothing) { // the next run is likely to lie beside this one
                        const Point3 foot = minus(nearest.foot.at, tree.middle());
                        for (size_t axis = 0; axis < 3; ++axis) run.known_at[run.known][axis] = static_cast<float>(foot[axis]);
                        ++run.known;
                    }
                    const bool inside = nearest.triangle == nothing ? far.inside(p) : sides && sides->inside(p, nearest);
                    map.distance_mm[order.place[first + i]] =
                        static_cast<float>(inside ? -nearest.distance_mm : nearest.distance_mm);
                }
            }
        }
    };
    inPieces(order.points.size(), 4 * crowd_points, threadsOf(threads), work);
    return map;
}

} // namespace gorvet::shape
