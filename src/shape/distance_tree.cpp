#include "shape/distance_tree.hpp"

#include "shape/distance_tree_build.hpp"
#include "shape/parallel.hpp"

#include <algorithm>
#include <bit>
#include <limits>
#include <optional>

namespace gorvet::shape {
namespace {

using kernel::leaf_bit;
using kernel::nothing;

kernel::Code codeFor(Width wish) {
#if defined(__x86_64__)
    const bool can16 =
        __builtin_cpu_supports("avx512f") && __builtin_cpu_supports("avx512dq") && __builtin_cpu_supports("avx512vl");
    const bool can8 = __builtin_cpu_supports("avx2") && __builtin_cpu_supports("fma");
    if (can16 && (wish == Width::Auto || wish == Width::Wide16)) return kernel::code16();
    if (can8 && wish != Width::Plain) return kernel::code8();
#endif
    (void)wish;
    return kernel::codePlain();
}

/// Rows of three as the wide code takes them.
template <class T, class Row> const T (*rowsOf(const Row* first))[3] {
    static_assert(sizeof(Row) == sizeof(T[3]));
    return reinterpret_cast<const T(*)[3]>(first);
}

/// Walks the tree as long as `wanted(node, place)` says so; `leaf` gets each leaf reached, false from it stops.
template <class Wanted, class AtLeaf> void walk(const kernel::Tree& tree, const Wanted& wanted, const AtLeaf& at_leaf) {
    if (tree.root == nothing) return;
    std::uint32_t stack[kernel::node_width * 72];
    int waiting = 0;
    stack[waiting++] = tree.root;
    while (waiting > 0) {
        const std::uint32_t node = stack[--waiting];
        if (node & leaf_bit) {
            if (!at_leaf(tree.leaves[node & ~leaf_bit])) return;
            continue;
        }
        const kernel::Node& n = tree.nodes[node];
        for (int i = 0; i < kernel::node_width && n.child[i] != nothing; ++i)
            if (wanted(n, i)) stack[waiting++] = n.child[i];
    }
}

/// The triangles of a leaf, each once (the last is repeated to fill it).
template <class F> bool eachOf(const kernel::Leaf& leaf, const F& f) {
    for (int i = 0; i < kernel::leaf_width && (i == 0 || leaf.triangle[i] != leaf.triangle[i - 1]); ++i)
        if (!f(leaf.triangle[i])) return false;
    return true;
}

/// A triangle in its place of a leaf.
void putIn(kernel::Leaf& l, size_t place, const Corners& q, const Point3& origin) {
    size_t k = 0;
    double most = -1;
    for (size_t i = 0; i < 3; ++i) {
        const Point3 side = minus(q[(i + 1) % 3], q[i]);
        if (const double s = dot(side, side); s > most) {
            most = s;
            k = i;
        }
    }
    const Point3 ac = minus(q[(k + 2) % 3], q[k]);
    const double b = std::sqrt(most);
    // of no length: any frame will do
    const Point3 u = b > 0 ? times(minus(q[(k + 1) % 3], q[k]), 1 / b) : Point3{1, 0, 0};
    const double along = dot(ac, u);
    const Point3 rest = minus(ac, times(u, along));
    const double across = length(rest);
    Point3 v = across > 1e-9 * b ? times(rest, 1 / across) : Point3{};
    if (!(across > 1e-9 * b)) { // of no area: any way across
        const size_t axis = std::abs(u[0]) < 0.6 ? 0 : std::abs(u[1]) < 0.6 ? 1 : 2;
        Point3 way{};
        way[axis] = 1;
        v = unit(minus(way, times(u, u[axis])));
    }
    for (size_t axis = 0; axis < 3; ++axis) {
        l.a[axis][place] = static_cast<float>(q[k][axis] - origin[axis]);
        l.u[axis][place] = static_cast<float>(u[axis]);
        l.v[axis][place] = static_cast<float>(v[axis]);
    }
    l.b_along[place] = static_cast<float>(b);
    l.c_along[place] = static_cast<float>(along);
    l.c_across[place] = static_cast<float>(across);
}
/// Along the mean normal, from the middle of the corners.
void discRound(kernel::Leaf& l) {
    Point3 middle{}, normal{};
    std::array<Point3, 3UL * kernel::leaf_width> corners;
    for (size_t i = 0; i < kernel::leaf_width; ++i) {
        const Point3 a{l.a[0][i], l.a[1][i], l.a[2][i]}, u{l.u[0][i], l.u[1][i], l.u[2][i]}, v{l.v[0][i], l.v[1][i], l.v[2][i]};
        const Point3 ab = times(u, l.b_along[i]), ac = plus(times(u, l.c_along[i]), times(v, l.c_across[i]));
        corners[3 * i] = a;
        corners[3 * i + 1] = plus(a, ab);
        corners[3 * i + 2] = plus(a, ac);
        Point3 n = cross(ab, ac);
        if (dot(n, normal) < 0) n = times(n, -1);
        normal = plus(normal, n);
        middle = plus(middle, plus(a, times(plus(ab, ac), 1.0 / 3)));
    }
    middle = times(middle, 1.0 / kernel::leaf_width);
    normal = unit(normal);
    if (length(normal) == 0) normal = {0, 0, 1};
    for (size_t axis = 0; axis < 3; ++axis) {
        l.middle[axis] = static_cast<float>(middle[axis]);
        l.normal[axis] = static_cast<float>(normal[axis]);
    }
    double radius = 0, thickness = 0;
    for (const Point3& p : corners) {
        const Point3 d = minus(p, middle);
        const double h = dot(d, normal);
        thickness = std::max(thickness, std::abs(h));
        radius = std::max(radius, length(minus(d, times(normal, h))));
    }
    // with room for rounding of the disc itself
    l.radius = static_cast<float>(radius * 1.00001 + 1e-6 * length(middle) + 1e-4);
    l.half_thickness = static_cast<float>(thickness * 1.00001 + 1e-6 * length(middle) + 1e-4);
}

} // namespace

DistanceTree::DistanceTree(std::shared_ptr<const Mesh> mesh, const TreeOptions& options) : mesh_(std::move(mesh)) {
    code_ = codeFor(options.width);
    if (!mesh_->triangles.empty()) build(threadsOf(options.threads));
}

void DistanceTree::build(int threads) {
    const Mesh& m = *mesh_;
    Point3 least = m.points[m.triangles[0][0]];
    Point3 most = least;
    for (const Point3& p : m.points)
        for (size_t axis = 0; axis < 3; ++axis) {
            least[axis] = std::min(least[axis], p[axis]);
            most[axis] = std::max(most[axis], p[axis]);
        }
    middle_ = along(least, most, 0.5);
    if (m.triangles.size() < 20000) threads = 1;

    const auto local = [&](std::uint32_t point, size_t axis) {
        return static_cast<float>(m.points[point][axis] - middle_[axis]);
    };
    std::vector<kernel::Boxed> boxes(m.triangles.size());
    inPieces(boxes.size(), 16384, threads, [&](size_t from, size_t to) {
        for (size_t t = from; t < to; ++t) {
            const Triangle& q = m.triangles[t];
            kernel::Boxed& b = boxes[t];
            for (size_t axis = 0; axis < 3; ++axis) {
                const float u = local(q[0], axis), v = local(q[1], axis), w = local(q[2], axis);
                b.least[axis] = std::min(u, std::min(v, w));
                b.most[axis] = std::max(u, std::max(v, w));
            }
            b.triangle = static_cast<std::uint32_t>(t);
        }
    });
    auto skeleton = kernel::skeletonOf(boxes, threads);
    kernel::AlignedArray<kernel::Leaf> leaves(skeleton.leaves.size());
    inPieces(leaves.size, 2048, threads, [&](size_t from, size_t to) {
        for (size_t l = from; l < to; ++l) {
            const kernel::Range& r = skeleton.leaves[l];
            kernel::Leaf& leaf = leaves[l];
            for (std::uint32_t i = 0; i < kernel::leaf_width; ++i) {
                const std::uint32_t t = boxes[r.from + std::min(i, r.count - 1)].triangle;
                putIn(leaf, i, cornersOf(m, t), middle_);
                leaf.triangle[i] = t;
            }
            discRound(leaf);
        }
    });
    const auto nodes = std::make_shared<std::vector<kernel::Node>>(std::move(skeleton.nodes));
    nodes->shrink_to_fit();
    tree_.root = nodes->empty() ? leaf_bit : 0;
    tree_.nodes = nodes->data();
    tree_.leaves = static_cast<const kernel::Leaf*>(leaves.memory.get());
    node_bytes_ = nodes->size() * sizeof(kernel::Node);
    leaf_bytes_ = leaves.size * sizeof(kernel::Leaf);
    nodes_ = nodes;
    leaves_ = leaves.memory;
}

size_t DistanceTree::bytes() const { return sizeof *this + node_bytes_ + leaf_bytes_; }

bool DistanceTree::anyWithin(const Point3& local, double reach_mm) const {
    const float at[3] = {static_cast<float>(local[0]), static_cast<float>(local[1]), static_cast<float>(local[2])};
    return code_.any_within(tree_, at, capOf(reach_mm * 1.00001 + 1e-6 * length(local) + 1e-3));
}

kernel::Places DistanceTree::placesOf(const RigidTransform& motion) const {
    kernel::Places places;
    for (size_t axis = 0; axis < 3; ++axis) {
        for (size_t i = 0; i < 3; ++i) places.motion[axis][i] = motion.rotation[axis][i];
        places.motion[axis][3] = motion.translation[axis];
        places.middle[axis] = middle_[axis];
    }
    return places;
}

void DistanceTree::lay(const Point3* first, size_t n, kernel::Places& places, kernel::Run& run) const {
    places.points = rowsOf<double>(first);
    run.points = static_cast<int>(n);
    code_.lay(places, run);
}

void DistanceTree::feet(const kernel::Places& places, const kernel::Run& run, kernel::Feet& feet) const {
    unsigned left =
        code_.feet({rowsOf<double>(mesh_->points.data()), rowsOf<std::uint32_t>(mesh_->triangles.data())}, places, run, feet);
    for (; left; left &= left - 1) {
        const auto i = static_cast<size_t>(std::countr_zero(left));
        if (run.triangle[i] == nothing) continue;
        const Point3 p{places.at[0][i], places.at[1][i], places.at[2][i]};
        const Foot foot = footOn(cornersOf(*mesh_, run.triangle[i]), p);
        for (size_t axis = 0; axis < 3; ++axis) feet.at[axis][i] = foot.at[axis];
        feet.distance[i] = between(foot.at, p);
        feet.feature[i] = static_cast<std::int64_t>(foot.feature);
    }
}

Nearest DistanceTree::exact(std::uint32_t triangle, const Point3& p, double cap_mm) const {
    if (triangle == nothing) return {nothing, cap_mm, {}};
    Nearest n;
    n.foot = footOn(cornersOf(*mesh_, triangle), p);
    n.distance_mm = between(n.foot.at, p);
    if (n.distance_mm > cap_mm) return {nothing, cap_mm, {}};
    n.triangle = triangle;
    return n;
}

Nearest DistanceTree::nearest(const Point3& p, double cap_mm) const {
    if (empty()) return {nothing, cap_mm, {}};
    kernel::Run run;
    for (size_t axis = 0; axis < 3; ++axis)
        for (float& c : run.at[axis]) c = static_cast<float>(p[axis] - middle_[axis]);
    run.points = 1;
    run.cap = capOf(cap_mm);
    code_.nearest(tree_, run);
    return exact(run.triangle[0], p, cap_mm);
}

void DistanceTree::inBox(const Point3& least, const Point3& most, const std::function<bool(std::uint32_t)>& take) const {
    float low[3], high[3];
    for (size_t axis = 0; axis < 3; ++axis) {
        low[axis] = static_cast<float>(least[axis] - middle_[axis]);
        high[axis] = static_cast<float>(most[axis] - middle_[axis]);
        // rounding must not lose a touch
        low[axis] -= std::abs(low[axis]) * 1e-6F + 1e-4F;
        high[axis] += std::abs(high[axis]) * 1e-6F + 1e-4F;
    }
    const auto wanted = [&](const auto& n, int i) {
        return n.least[0][i] <= high[0] && n.most[0][i] >= low[0] && n.least[1][i] <= high[1] && n.most[1][i] >= low[1] &&
               n.least[2][i] <= high[2] && n.most[2][i] >= low[2];
    };
    const auto at_leaf = [&](const auto& leaf) { return eachOf(leaf, take); };
    walk(tree_, wanted, at_leaf);
}

namespace {
/// The triangles whose boxes a ray meets up to `until` of its way, which may shrink as it goes; false from `take` stops.
template <class F>
void alongRay(const kernel::Tree& tree, const Point3& start, const Point3& way, const double& until, const F& take) {
    double per[3], room[3];
    for (size_t axis = 0; axis < 3; ++axis) {
        per[axis] = 1 / (std::abs(way[axis]) > 1e-30 ? way[axis] : 1e-30);
        room[axis] = 1e-3 + 1e-6 * std::abs(start[axis]); // a little wider, for what single precision rounded away
    }
    const double at[3] = {start.x_mm, start.y_mm, start.z_mm};
    const auto wanted = [&](const auto& n, int i) {
        double enter = 0, leave = until;
        for (int axis = 0; axis < 3; ++axis) {
            const double t0 = (static_cast<double>(n.least[axis][i]) - room[axis] - at[axis]) * per[axis];
            const double t1 = (static_cast<double>(n.most[axis][i]) + room[axis] - at[axis]) * per[axis];
            enter = std::max(enter, std::min(t0, t1));
            leave = std::min(leave, std::max(t0, t1));
        }
        return enter <= leave;
    };
    const auto at_leaf = [&](const auto& leaf) { return eachOf(leaf, take); };
    walk(tree, wanted, at_leaf);
}

/// Where a ray meets a triangle, in shares of its way (Möller and Trumbore); nothing where it does not.
std::optional<double> metAt(const Corners& c, const Point3& from, const Point3& way) {
    const Point3 e1 = minus(c[1], c[0]), e2 = minus(c[2], c[0]);
    const Point3 h = cross(way, e2);
    const double a = dot(e1, h);
    if (a == 0) return {};
    const Point3 s = minus(from, c[0]);
    const double u = dot(s, h) / a;
    const Point3 q = cross(s, e1);
    const double v = dot(way, q) / a;
    const double at = dot(e2, q) / a;
    if (u < -1e-12 || v < -1e-12 || u + v > 1 + 1e-12 || at < 0) return {};
    return at;
}
constexpr double without_end = std::numeric_limits<double>::infinity();
} // namespace

void DistanceTree::onRay(const Point3& from, const Point3& way, const std::function<void(std::uint32_t)>& take) const {
    alongRay(tree_, minus(from, middle_), way, without_end, [&](std::uint32_t t) {
        take(t);
        return true;
    });
}

DistanceTree::Hit DistanceTree::firstHit(const Point3& from, const Point3& way) const {
    Hit hit;
    hit.at = without_end;
    alongRay(tree_, minus(from, middle_), way, hit.at, [&](std::uint32_t t) {
        if (const auto at = metAt(cornersOf(*mesh_, t), from, way); at && *at < hit.at) hit = {t, *at};
        return true;
    });
    return hit;
}

bool DistanceTree::isBetween(const Point3& from, const Point3& to) const {
    bool found = false;
    const Point3 way = minus(to, from);
    alongRay(tree_, minus(from, middle_), way, 1, [&](std::uint32_t t) {
        const auto at = metAt(cornersOf(*mesh_, t), from, way);
        found = at && *at <= 1;
        return !found;
    });
    return found;
}

} // namespace gorvet::shape
