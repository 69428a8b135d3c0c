#include "make/put_on.hpp"

#include "make/fouls.hpp"
#include "shape/triangle.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::Vec3;
using shape::Mesh;

namespace {

constexpr double ahead_mm = 0.05; ///< so far ahead counts: rounding

/// Seen along the way: two places across, and how far along.
struct Seen {
    std::vector<std::array<double, 3>> points;
    struct Box {
        double least[2], most[2], near, far;
    };
    std::vector<Box> boxes; ///< of triangles
    Box whole{};
};
Seen seenAlong(const Mesh& m, const Vec3& way) {
    const Vec3 any = std::abs(way.x_mm) < 0.9 ? Vec3{1, 0, 0} : Vec3{0, 1, 0};
    const Vec3 a = geometry::unit(cross(way, any)), b = cross(way, a);
    Seen s;
    for (const auto& p : m.points) s.points.push_back({dot(p, a), dot(p, b), dot(p, way)});
    constexpr double none = std::numeric_limits<double>::infinity();
    const Seen::Box empty{{none, none}, {-none, -none}, none, -none};
    s.whole = empty;
    for (const shape::Triangle& t : m.triangles) {
        Seen::Box box = empty;
        for (const std::uint32_t k : t) {
            for (int axis = 0; axis < 2; ++axis) {
                box.least[axis] = std::min(box.least[axis], s.points[k][static_cast<std::size_t>(axis)]);
                box.most[axis] = std::max(box.most[axis], s.points[k][static_cast<std::size_t>(axis)]);
            }
            box.near = std::min(box.near, s.points[k][2]);
            box.far = std::max(box.far, s.points[k][2]);
        }
        for (int axis = 0; axis < 2; ++axis) {
            s.whole.least[axis] = std::min(s.whole.least[axis], box.least[axis]);
            s.whole.most[axis] = std::max(s.whole.most[axis], box.most[axis]);
        }
        s.whole.near = std::min(s.whole.near, box.near);
        s.whole.far = std::max(s.whole.far, box.far);
        s.boxes.push_back(box);
    }
    return s;
}
/// Whether the other can lie ahead where both are seen.
bool covers(const Seen::Box& own, const Seen::Box& other) {
    return own.least[0] < other.most[0] && other.least[0] < own.most[0] && own.least[1] < other.most[1] &&
           other.least[1] < own.most[1] && other.far > own.near + ahead_mm;
}

using Corner = std::array<double, 3>;
using Corners = std::array<Corner, 3>;
double turn(const Corner& a, const Corner& b, const Corner& c) {
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}
/// How far along a triangle's plane is at a place across; it is not seen on edge.
double depthAt(const Corners& t, double area, double u, double v) {
    const Corner p{u, v, 0};
    return (turn(t[1], t[2], p) * t[0][2] + turn(t[2], t[0], p) * t[1][2] + turn(t[0], t[1], p) * t[2][2]) / area;
}
/// Whether the other's triangle lies ahead of the own anywhere that both cover: at the corners of what they share (Sutherland and
/// Hodgman), as both are flat.
bool liesAhead(const Corners& own, const Corners& other) {
    const double mine = turn(own[0], own[1], own[2]), theirs = turn(other[0], other[1], other[2]);
    if (std::abs(mine) < 1e-9 || std::abs(theirs) < 1e-9) return false; // seen on edge: its neighbours tell
    std::array<Corner, 8> shared{own[0], own[1], own[2]}, next{};
    std::size_t n = 3;
    for (std::size_t k = 0; k < 3 && n > 0; ++k) {
        const Corner &a = other[k], &b = other[(k + 1) % 3];
        const double sense = theirs > 0 ? 1 : -1;
        std::size_t m = 0;
        for (std::size_t i = 0; i < n; ++i) {
            const Corner &p = shared[i], &q = shared[(i + 1) % n];
            const double dp = sense * turn(a, b, p), dq = sense * turn(a, b, q);
            if (dp >= 0) next[m++] = p;
            if ((dp > 0 && dq < 0) || (dp < 0 && dq > 0)) {
                const double t = dp / (dp - dq);
                next[m++] = {p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1]), 0};
            }
        }
        shared = next;
        n = m;
    }
    if (n < 3) return false;
    double area = 0;
    for (std::size_t i = 1; i + 1 < n; ++i) area += turn(shared[0], shared[i], shared[i + 1]);
    if (std::abs(area) < 1e-7) return false; // they share an edge at the most
    for (std::size_t i = 0; i < n; ++i)
        if (depthAt(other, theirs, shared[i][0], shared[i][1]) > depthAt(own, mine, shared[i][0], shared[i][1]) + ahead_mm)
            return true;
    return false;
}
Corners cornersSeen(const Seen& s, const shape::Triangle& t) { return {s.points[t[0]], s.points[t[1]], s.points[t[2]]}; }

bool strikes(const Mesh& own, const Seen& mine, const Mesh& other, const Vec3& way) {
    const Seen theirs = seenAlong(other, way);
    if (!covers(mine.whole, theirs.whole)) return false;
    std::vector<std::uint32_t> near;
    for (std::uint32_t j = 0; j < other.triangles.size(); ++j)
        if (covers(mine.whole, theirs.boxes[j])) near.push_back(j);
    for (std::uint32_t i = 0; i < own.triangles.size(); ++i) {
        if (!covers(mine.boxes[i], theirs.whole)) continue;
        for (const std::uint32_t j : near)
            if (covers(mine.boxes[i], theirs.boxes[j]) &&
                liesAhead(cornersSeen(mine, own.triangles[i]), cornersSeen(theirs, other.triangles[j])))
                return true;
    }
    return false;
}

std::vector<std::string> struckBy(const Mesh& small, const std::vector<const ServiceBody*>& others, const Vec3& way, bool all) {
    std::vector<std::string> names;
    const Seen mine = seenAlong(small, way);
    for (const ServiceBody* other : others)
        if (other->mesh && strikes(small, mine, *other->mesh, way)) {
            names.push_back(other->name);
            if (!all) break;
        }
    return names;
}

double mostTouch(const ServiceBody& item, const std::vector<const ServiceBody*>& others) {
    double most = item.touch_mm;
    for (const ServiceBody* other : others) most = std::max(most, other->touch_mm);
    return most;
}

} // namespace

std::string struckOn(const ServiceBody& item, const std::vector<ServiceBody>& others, const Vec3& way) {
    std::vector<const ServiceBody*> all;
    for (const ServiceBody& other : others) all.push_back(&other);
    const auto names = struckBy(shrunk(*item.mesh, mostTouch(item, all)), all, geometry::unit(way), false);
    return names.empty() ? std::string() : names.front();
}

std::vector<PutOn> putOn(const PutOnIn& in) {
    // it goes in from a side when it comes out to it
    static constexpr std::pair<Vec3, const char*> sides[] = {{{0, 0, -1}, "below"},    {{0, 0, 1}, "above"},
                                                             {{0, -1, 0}, "the left"}, {{0, 1, 0}, "the right"},
                                                             {{-1, 0, 0}, "ahead"},    {{1, 0, 0}, "behind"}};
    std::vector<const ServiceBody*> on;
    for (const ServiceBody& f : in.frame) on.push_back(&f);
    std::vector<PutOn> all;
    for (const PutOnItem& item : in.items) {
        PutOn one{item.name, item.tag, item.how, {}, ""};
        if (item.body.mesh) {
            // what it stands in is told as that, and is no matter of order
            std::vector<const ServiceBody*> others;
            for (const ServiceBody* other : on)
                if (other->mesh && foulsOf({item.body, *other}).empty()) others.push_back(other);
            const Mesh small = shrunk(*item.body.mesh, mostTouch(item.body, others));
            std::size_t least = std::numeric_limits<std::size_t>::max();
            for (const auto& [way, side] : sides) {
                const auto names = struckBy(small, others, way, true);
                if (names.empty()) one.from.emplace_back(side);
                if (names.size() >= least || names.empty()) continue;
                least = names.size();
                one.shut_by.clear();
                for (std::size_t k = 0; k < names.size(); ++k)
                    one.shut_by += (k == 0 ? "" : k + 1 == names.size() ? " and " : ", ") + names[k];
            }
            if (!one.from.empty()) one.shut_by.clear();
            on.push_back(&item.body);
        }
        all.push_back(std::move(one));
    }
    return all;
}

} // namespace gorvet::make
