#include "shape/crossing.hpp"

#include "shape/parallel.hpp"

#include <algorithm>
#include <atomic>
#include <limits>
#include <mutex>
#include <queue>
#include <unordered_map>

namespace gorvet::shape {
namespace {

using kernel::nothing;

/// A place of a line by what makes it: a side of one mesh through a triangle of the other.
struct Key {
    std::uint32_t low = 0;
    std::uint32_t high = 0;
    std::uint32_t triangle = 0;
    bool side_of_moving = false;
    bool operator==(const Key&) const = default;
};
struct KeyHash {
    size_t operator()(const Key& k) const {
        std::uint64_t h = (static_cast<std::uint64_t>(k.low) << 32 | k.high) * 0x9e3779b97f4a7c15ULL;
        h ^= (static_cast<std::uint64_t>(k.triangle) << 1 | k.side_of_moving) * 0xc2b2ae3d27d4eb4fULL;
        return static_cast<size_t>(h ^ h >> 29);
    }
};
struct End {
    Key key;
    Point3 at{};
};
struct CutPiece {
    End from, to;
};

/// Joins pieces that share ends into lines; a place where more than two pieces end begins lines anew.
template <class K, class Hash>
std::vector<Polyline> joined(const std::vector<std::pair<K, K>>& pieces, const std::unordered_map<K, Point3, Hash>& at) {
    std::unordered_map<K, std::vector<size_t>, Hash> ends;
    for (size_t i = 0; i < pieces.size(); ++i) {
        ends[pieces[i].first].push_back(i);
        ends[pieces[i].second].push_back(i);
    }
    std::vector<bool> used(pieces.size(), false);
    std::vector<Polyline> lines;
    const auto walk = [&](size_t first, const K& start) {
        Polyline line;
        line.places.push_back(at.at(start));
        K here = start;
        for (size_t i = first;;) {
            used[i] = true;
            here = pieces[i].first == here ? pieces[i].second : pieces[i].first;
            if (here == start) {
                line.closed = true;
                break;
            }
            line.places.push_back(at.at(here));
            const auto& next = ends.at(here);
            if (next.size() != 2) break;
            i = used[next[0]] ? next[1] : next[0];
            if (used[i]) break;
        }
        lines.push_back(std::move(line));
    };
    for (size_t i = 0; i < pieces.size(); ++i) // open ones from their ends
        if (!used[i]) {
            if (ends.at(pieces[i].first).size() != 2)
                walk(i, pieces[i].first);
            else if (ends.at(pieces[i].second).size() != 2)
                walk(i, pieces[i].second);
        }
    for (size_t i = 0; i < pieces.size(); ++i)
        if (!used[i]) walk(i, pieces[i].first);
    return lines;
}

/// The corners of two triangles, with which side of the other's plane each is on.
class Pair {
public:
    Pair(const Triangle& moving, const Corners& moved, const Triangle& fixed, const Corners& still)
        : t_{&moving, &fixed}, c_{&moved, &still} {
        for (size_t m = 0; m < 2; ++m)
            for (size_t k = 0; k < 3; ++k)
                height_[m][k] = orientation((*c_[1 - m])[0], (*c_[1 - m])[1], (*c_[1 - m])[2], (*c_[m])[k]);
    }
    /// Whether both have corners on both sides of the other's plane.
    bool may() const {
        for (const auto& h : height_)
            if ((h[0] > 0) == (h[1] > 0) && (h[1] > 0) == (h[2] > 0)) return false;
        return true;
    }
    /// Side k of triangle m (0 moving, 1 fixed) through the other.
    bool through(size_t m, size_t k, Point3& at) const {
        const size_t j = (k + 1) % 3;
        const double from = height_[m][k], to = height_[m][j];
        if ((from > 0) == (to > 0)) return false;
        const bool a = passes(m, k, 0), b = passes(m, k, 1), c = passes(m, k, 2);
        if (a != b || b != c) return false;
        // along the side from its lower point, so that both its triangles get the same place
        const bool forward = (*t_[m])[k] < (*t_[m])[j];
        const Point3& p = (*c_[m])[forward ? k : j];
        const Point3& q = (*c_[m])[forward ? j : k];
        const double hp = forward ? from : to, hq = forward ? to : from;
        at = along(p, q, hp / (hp - hq));
        return true;
    }
    Key key(size_t m, size_t k, std::uint32_t other) const {
        const std::uint32_t a = (*t_[m])[k], b = (*t_[m])[(k + 1) % 3];
        return {std::min(a, b), std::max(a, b), other, m == 0};
    }

private:
    /// On which side side k of triangle m passes side i of the other: asked of the sides from their lower to their higher points.
    bool passes(size_t m, size_t k, size_t i) const {
        const size_t o = 1 - m;
        const size_t k2 = (k + 1) % 3, i2 = (i + 1) % 3;
        const bool own = (*t_[m])[k] < (*t_[m])[k2];
        const bool other = (*t_[o])[i] < (*t_[o])[i2];
        const Point3& a = (*c_[m])[own ? k : k2];
        const Point3& b = (*c_[m])[own ? k2 : k];
        const Point3& p = (*c_[o])[other ? i : i2];
        const Point3& q = (*c_[o])[other ? i2 : i];
        // always the moving mesh's side first: the answer is the same from either triangle
        const bool positive = m == 0 ? orientation(a, b, p, q) > 0 : orientation(p, q, a, b) > 0;
        return (positive != own) != other;
    }
    const Triangle* t_[2];
    const Corners* c_[2];
    double height_[2][3];
};

void boxOf(const Corners& c, Point3& least, Point3& most) {
    for (size_t axis = 0; axis < 3; ++axis) {
        least[axis] = std::min(c[0][axis], std::min(c[1][axis], c[2][axis]));
        most[axis] = std::max(c[0][axis], std::max(c[1][axis], c[2][axis]));
    }
}
bool boxesMeet(const Point3& l1, const Point3& m1, const Point3& l2, const Point3& m2) {
    return l1[0] <= m2[0] && l2[0] <= m1[0] && l1[1] <= m2[1] && l2[1] <= m1[1] && l1[2] <= m2[2] && l2[2] <= m1[2];
}

Corners movedCorners(const DistanceTree& tree, std::uint32_t triangle, const RigidTransform& move) {
    Corners c = cornersOf(tree.mesh(), triangle);
    for (Point3& p : c) p = move.transformed(p);
    return c;
}

} // namespace

double length(const Polyline& line) {
    double sum = 0;
    for (size_t i = 1; i < line.places.size(); ++i) sum += between(line.places[i - 1], line.places[i]);
    if (line.closed && line.places.size() > 1) sum += between(line.places.back(), line.places.front());
    return sum;
}

Crossings crossings(const DistanceTree& moving, const DistanceTree& fixed, const RigidTransform& move, int threads,
                    const std::function<bool()>& stop) {
    Crossings result;
    if (moving.empty() || fixed.empty()) return result;
    std::vector<CutPiece> pieces;
    std::atomic<size_t> count{0};
    std::mutex guard;
    inPieces(moving.leafCount(), 256, threadsOf(threads), [&](size_t from, size_t to) {
        if (stop && stop()) return;
        std::vector<CutPiece> found;
        std::vector<Meeting> met;
        for (size_t l = from; l < to; ++l) {
            const kernel::Leaf& leaf = moving.leaf(l);
            // the disc of the leaf says quickly that nothing is near
            const Point3 middle = move.transformed(plus(moving.middle(), {leaf.middle[0], leaf.middle[1], leaf.middle[2]}));
            const double reach = std::hypot(static_cast<double>(leaf.radius), static_cast<double>(leaf.half_thickness));
            if (!fixed.anyWithin(minus(middle, fixed.middle()), reach)) continue;
            for (size_t i = 0; i < kernel::leaf_width && (i == 0 || leaf.triangle[i] != leaf.triangle[i - 1]); ++i) {
                const std::uint32_t a = leaf.triangle[i];
                const Corners ca = movedCorners(moving, a, move);
                Point3 least, most;
                boxOf(ca, least, most);
                fixed.inBox(least, most, [&](std::uint32_t b) {
                    const Corners cb = cornersOf(fixed.mesh(), b);
                    Point3 low, high;
                    boxOf(cb, low, high);
                    if (!boxesMeet(least, most, low, high)) return true;
                    const Pair pair(moving.mesh().triangles[a], ca, fixed.mesh().triangles[b], cb);
                    if (!pair.may()) return true;
                    std::array<End, 6> ends;
                    size_t n = 0;
                    for (size_t m = 0; m < 2; ++m)
                        for (size_t k = 0; k < 3; ++k)
                            if (pair.through(m, k, ends[n].at)) {
                                ends[n].key = pair.key(m, k, m == 0 ? b : a);
                                ++n;
                            }
                    if (n != 2) return true;
                    if (++count <= most_pieces) found.push_back({ends[0], ends[1]});
                    met.push_back({a, b});
                    return true;
                });
            }
        }
        const std::lock_guard lock(guard);
        pieces.insert(pieces.end(), found.begin(), found.end());
        result.meetings.insert(result.meetings.end(), met.begin(), met.end());
    });
    if (count > most_pieces) {
        result.tangled = true;
        std::sort(result.meetings.begin(), result.meetings.end(), [](const Meeting& p, const Meeting& q) {
            return p.moving != q.moving ? p.moving < q.moving : p.fixed < q.fixed;
        });
        return result;
    }
    // in one order whatever thread was first
    std::vector<size_t> order(pieces.size());
    for (size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::sort(order.begin(), order.end(), [&](size_t i, size_t j) {
        const Meeting &p = result.meetings[i], &q = result.meetings[j];
        return p.moving != q.moving ? p.moving < q.moving : p.fixed < q.fixed;
    });
    std::vector<Meeting> meetings;
    std::vector<std::pair<Key, Key>> keys;
    std::unordered_map<Key, Point3, KeyHash> at;
    for (const size_t i : order) {
        meetings.push_back(result.meetings[i]);
        keys.emplace_back(pieces[i].from.key, pieces[i].to.key);
        at.emplace(pieces[i].from.key, pieces[i].from.at);
        at.emplace(pieces[i].to.key, pieces[i].to.at);
    }
    result.meetings = std::move(meetings);
    result.lines = joined<Key, KeyHash>(keys, at);
    return result;
}

Closest closest(const DistanceTree& moving, const DistanceTree& fixed, const RigidTransform& move, double cap_mm) {
    Closest best;
    best.least_mm = std::nextafter(cap_mm, std::numeric_limits<double>::infinity());
    if (moving.empty() || fixed.empty()) return best;
    // leaves of the moving mesh by the distance of their discs' middles, the nearest first, until none can be nearer
    struct Candidate {
        double bound;
        size_t leaf;
        bool operator<(const Candidate& o) const { return bound > o.bound; }
    };
    std::priority_queue<Candidate> queue;
    for (size_t l = 0; l < moving.leafCount(); ++l) {
        const kernel::Leaf& leaf = moving.leaf(l);
        const Point3 middle = move.transformed(plus(moving.middle(), {leaf.middle[0], leaf.middle[1], leaf.middle[2]}));
        const double reach = std::hypot(static_cast<double>(leaf.radius), static_cast<double>(leaf.half_thickness));
        if (!fixed.anyWithin(minus(middle, fixed.middle()), best.least_mm + reach)) continue;
        const Nearest n = fixed.nearest(middle, best.least_mm + reach);
        if (n.triangle == nothing) continue;
        queue.push({n.distance_mm - reach, l});
        // the middle's own triangle gives a first bound
        const std::uint32_t a = leaf.triangle[0];
        const Segment s = nearestOf(movedCorners(moving, a, move), cornersOf(fixed.mesh(), n.triangle));
        if (const double d = between(s.from, s.to); d < best.least_mm) best = {d, s.from, s.to, a, n.triangle};
    }
    while (!queue.empty() && queue.top().bound < best.least_mm && best.least_mm > 0) {
        const kernel::Leaf& leaf = moving.leaf(queue.top().leaf);
        queue.pop();
        for (size_t i = 0; i < kernel::leaf_width && (i == 0 || leaf.triangle[i] != leaf.triangle[i - 1]); ++i) {
            const std::uint32_t a = leaf.triangle[i];
            const Corners ca = movedCorners(moving, a, move);
            Point3 least, most;
            boxOf(ca, least, most);
            for (size_t axis = 0; axis < 3; ++axis) {
                least[axis] -= best.least_mm;
                most[axis] += best.least_mm;
            }
            fixed.inBox(least, most, [&](std::uint32_t b) {
                const Corners cb = cornersOf(fixed.mesh(), b);
                Point3 low, high;
                boxOf(cb, low, high);
                if (!boxesMeet(least, most, low, high)) return true;
                const Segment s = nearestOf(ca, cb);
                if (const double d = between(s.from, s.to); d < best.least_mm) best = {d, s.from, s.to, a, b};
                return best.least_mm > 0;
            });
        }
    }
    return best;
}

std::vector<Polyline> levelLines(const Mesh& m, const std::vector<float>& value, double level) {
    struct Hash {
        size_t operator()(std::uint64_t k) const { return static_cast<size_t>((k ^ k >> 31) * 0x9e3779b97f4a7c15ULL); }
    };
    std::vector<std::pair<std::uint64_t, std::uint64_t>> pieces;
    std::unordered_map<std::uint64_t, Point3, Hash> at;
    const auto below = [&](std::uint32_t p) { return static_cast<double>(value[p]) < level; };
    for (const Triangle& t : m.triangles) {
        std::uint64_t ends[2];
        size_t n = 0;
        for (size_t k = 0; k < 3; ++k) {
            const std::uint32_t a = t[k], b = t[(k + 1) % 3];
            if (below(a) == below(b) || n == 2) continue;
            const std::uint32_t low = std::min(a, b), high = std::max(a, b);
            const std::uint64_t key = static_cast<std::uint64_t>(low) << 32 | high;
            const double from = static_cast<double>(value[low]) - level, to = static_cast<double>(value[high]) - level;
            at.emplace(key, along(m.points[low], m.points[high], from / (from - to)));
            // out of what is lower last: it then lies on the left seen from outside
            if (below(a))
                ends[1] = key;
            else
                ends[0] = key;
            ++n;
        }
        if (n == 2) pieces.emplace_back(ends[0], ends[1]);
    }
    return joined<std::uint64_t, Hash>(pieces, at);
}

} // namespace gorvet::shape
