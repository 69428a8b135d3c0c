#include "shape/distance_map.hpp"

#include "shape/parallel.hpp"

#include <algorithm>
#include <limits>
#include <numeric>

namespace gorvet::shape {
namespace {

using geometry::Box3;
using kernel::nothing;

constexpr size_t run_points = PointOrder::run_points;
constexpr size_t crowd_points = PointOrder::crowd_points;

/// Round the points from `first` to before `last`, as `at` gives them.
template <class At> Box3 boxRound(size_t first, size_t last, const At& at) {
    Box3 b;
    for (size_t i = first; i < last; ++i) b.take(at(i));
    return b;
}

/// Halves a range across its longest side, and the halves again, down to runs. The half nearer to where the range before ended
/// comes first, so that runs that follow each other lie beside each other. Gives back where this one ends.
Point3 halve(const std::vector<Point3>& points, std::vector<std::uint32_t>& place, size_t from, size_t to, const Point3& before) {
    if (to - from <= run_points) return points[place[to - 1]];
    // whole runs in the first half, so that only the last run of all is short
    const size_t middle = from + ((to - from) / 2 + run_points - 1) / run_points * run_points;
    const Box3 box = boxRound(from, to, [&](size_t i) -> const Point3& { return points[place[i]]; });
    const Point3 size = box.size();
    const std::size_t axis = size[1] > size[0] ? (size[2] > size[1] ? 2 : 1) : (size[2] > size[0] ? 2 : 0);
    const bool upwards = before[axis] <= box.middle()[axis];
    const auto at = [&](size_t i) { return place.begin() + static_cast<std::ptrdiff_t>(i); };
    std::nth_element(at(from), at(middle), at(to), [&](std::uint32_t a, std::uint32_t b) {
        return upwards ? points[a][axis] < points[b][axis] : points[b][axis] < points[a][axis];
    });
    return halve(points, place, middle, to, halve(points, place, from, middle, before));
}

/// Round the middle of the box of each `size` points.
std::vector<PointOrder::Ball> balls(const std::vector<Point3>& points, size_t size) {
    std::vector<PointOrder::Ball> all;
    for (size_t from = 0; from < points.size(); from += size) {
        const size_t to = std::min(points.size(), from + size);
        const Box3 box = boxRound(from, to, [&](size_t i) -> const Point3& { return points[i]; });
        PointOrder::Ball b{box.middle(), 0};
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
        if (!known_ || dot(minus(p, at_), minus(p, at_)) >= cap_ * cap_) inside_ = sides_->inside(p);
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
    o.place.resize(points.size());
    std::iota(o.place.begin(), o.place.end(), 0U);
    halve(points, o.place, 0, points.size(), points[0]);
    o.points.reserve(points.size());
    for (const std::uint32_t i : o.place) o.points.push_back(points[i]);
    o.runs = balls(o.points, run_points);
    o.crowds = balls(o.points, crowd_points);
    return o;
}

namespace {

/// Calls `put(point, distance)` for those of the points that are not outside beyond the cap.
template <class Put>
void distancesOf(const DistanceTree& tree, const Sides* sides, const PointOrder& order, const RigidTransform& move, double cap_mm,
                 size_t from, size_t to, const Put& put) {
    if (tree.empty()) return;
    if (sides && !sides->any()) sides = nullptr;
    kernel::Places places = tree.placesOf(move);
    kernel::Run run;
    kernel::Feet feet;
    run.cap = DistanceTree::capOf(cap_mm);
    FarSide far(sides, cap_mm);
    const auto allInside = [&](size_t first, size_t n) {
        for (size_t i = first; i < first + n; ++i) put(order.place[i], -cap_mm);
    };
    const auto at = [&](size_t i) { return Point3{places.at[0][i], places.at[1][i], places.at[2][i]}; };
    for (size_t crowd = from; crowd < to; crowd += crowd_points) {
        const size_t end = std::min(to, crowd + crowd_points);
        const PointOrder::Ball& ball = order.crowds[crowd / crowd_points];
        const Point3 middle = move.transformed(ball.middle);
        if (!tree.anyWithin(minus(middle, tree.middle()), static_cast<double>(run.cap) + ball.radius)) {
            // on one side, since nothing lies between
            if (far.inside(middle)) allInside(crowd, end - crowd);
            continue;
        }
        for (size_t first = crowd; first < end; first += run_points) {
            const size_t n = std::min(run_points, end - first);
            tree.lay(&order.points[first], n, places, run);
            tree.nearestRun(run);
            const bool all_far = std::all_of(run.triangle, run.triangle + n, [](std::uint32_t t) { return t == nothing; });
            run.known = 0;
            if (all_far && 2 * order.runs[first / run_points].radius < cap_mm) {
                if (far.inside(at(0))) allInside(first, n);
                continue;
            }
            tree.feet(places, run, feet);
            for (size_t i = 0; i < n; ++i) {
                Nearest nearest{run.triangle[i], feet.distance[i], {}};
                if (nearest.triangle == nothing || nearest.distance_mm > cap_mm) {
                    if (far.inside(at(i))) put(order.place[first + i], -cap_mm);
                    continue;
                }
                for (size_t axis = 0; axis < 3; ++axis) {
                    nearest.foot.at[axis] = feet.at[axis][i];
                    // the next run is likely to lie beside this one
                    run.known_at[run.known][axis] = static_cast<float>(feet.at[axis][i] - places.middle[axis]);
                }
                ++run.known;
                nearest.foot.feature = static_cast<Feature>(feet.feature[i]);
                const bool inside = sides && sides->inside(at(i), nearest, feet.side[i]);
                put(order.place[first + i], inside ? -nearest.distance_mm : nearest.distance_mm);
            }
        }
    }
}

} // namespace

DistanceMap distancesTo(const DistanceTree& tree, const Sides* sides, const PointOrder& order, const RigidTransform& move,
                        double cap_mm, int threads, const std::function<bool()>& stop) {
    DistanceMap map;
    map.distance_mm.assign(order.points.size(), static_cast<float>(cap_mm));
    map.has_inside = sides && sides->any();
    inPieces(order.points.size(), PointOrder::piece_points, threadsOf(threads), [&](size_t from, size_t to) {
        if (stop && stop()) return;
        distancesOf(tree, sides, order, move, cap_mm, from, to,
                    [&](std::uint32_t point, double distance) { map.distance_mm[point] = static_cast<float>(distance); });
    });
    return map;
}

void eachDistance(const DistanceTree& tree, const Sides* sides, const PointOrder& order, const RigidTransform& move,
                  double cap_mm, size_t from, size_t to,
                  const std::function<void(std::uint32_t point, double distance_mm)>& put) {
    distancesOf(tree, sides, order, move, cap_mm, from, to, put);
}

} // namespace gorvet::shape
