#include "sit/clearance.hpp"

#include "shape/disjoint_sets.hpp"
#include "shape/parallel.hpp"

#include <algorithm>
#include <limits>
#include <queue>

namespace gorvet::sit {
namespace {

using geometry::between;
using shape::Corners;
using shape::cornersOf;

constexpr double depth_error_mm = 1;
constexpr int most_places = 8000; ///< in one triangle
constexpr double infinite = std::numeric_limits<double>::infinity();

Corners movedCorners(const shape::Mesh& m, std::uint32_t t, const RigidTransform& move) {
    Corners c = cornersOf(m, t);
    for (Point3& p : c) p = move.transformed(p);
    return c;
}
double signedAt(const Ready& surface, const Point3& p, double cap) {
    const shape::Nearest n = surface.tree->nearest(p, cap);
    return surface.sides->inside(p, n) ? -n.distance_mm : n.distance_mm;
}

/// How near one triangle of the moving mesh comes, and where on it.
struct Near {
    double distance_mm = infinite;
    Point3 at{};
    Point3 there{}; ///< on the fixed surface, when it is outside
    bool meets = false;
    bool enters = false; ///< meets a closed piece: a part of it may be inside
};

/// The deepest place of a triangle inside the fixed surface, to depth_error_mm: distances change no faster than places do, so
/// that what can't beat the deepest so far is left.
void deepest(const Ready& fixed, const Corners& c, double cap, Near& near) {
    struct Piece {
        double bound; ///< no place in it is deeper
        Corners corners;
        bool operator<(const Piece& o) const { return bound > o.bound; }
    };
    std::priority_queue<Piece> left;
    left.push({-infinite, c});
    // the deepest that can be comes first, so that the search ends as soon as that is no news
    for (int looked_at = 0; !left.empty() && looked_at < most_places; ++looked_at) {
        const Corners t = left.top().corners;
        if (left.top().bound > std::min(near.distance_mm, 0.0) - depth_error_mm) break;
        left.pop();
        const Point3 middle = geometry::times(geometry::plus(t[0], geometry::plus(t[1], t[2])), 1.0 / 3);
        const double reach = std::max({between(middle, t[0]), between(middle, t[1]), between(middle, t[2])});
        if (!fixed.sides->mayReachInside(middle, reach)) continue;
        const double d = signedAt(fixed, middle, cap);
        if (d < near.distance_mm) {
            near.distance_mm = d;
            near.at = near.there = middle;
        }
        // what lies farther out than it is wide can't reach in
        if (reach < depth_error_mm || d - reach > std::min(near.distance_mm, 0.0) - depth_error_mm) continue;
        const Point3 a = geometry::along(t[0], t[1], 0.5), b = geometry::along(t[1], t[2], 0.5),
                     e = geometry::along(t[2], t[0], 0.5);
        for (const Corners& part : {Corners{t[0], a, e}, Corners{a, t[1], b}, Corners{e, b, t[2]}, Corners{a, b, e}})
            left.push({d - reach, part});
    }
}

/// The exact distance of a triangle to the fixed surface, as far as `limit`.
void outside(const Ready& fixed, const Corners& c, double limit, Near& near) {
    double best = std::min(limit, near.distance_mm);
    Point3 least = c[0], most = c[0];
    for (const Point3& p : c)
        for (size_t axis = 0; axis < 3; ++axis) {
            least[axis] = std::min(least[axis], p[axis]);
            most[axis] = std::max(most[axis], p[axis]);
        }
    const Point3 reach{best, best, best};
    fixed.tree->inBox(geometry::minus(least, reach), geometry::plus(most, reach), [&](std::uint32_t u) {
        const Corners b = cornersOf(*fixed.mesh, u);
        for (size_t axis = 0; axis < 3; ++axis) {
            const double low = std::min(b[0][axis], std::min(b[1][axis], b[2][axis]));
            const double high = std::max(b[0][axis], std::max(b[1][axis], b[2][axis]));
            if (low > most[axis] + best || high < least[axis] - best) return true;
        }
        const shape::Segment s = shape::nearestOf(c, b);
        if (const double d = between(s.from, s.to); d < best) {
            best = near.distance_mm = d;
            near.at = s.from;
            near.there = s.to;
        }
        return best > 0;
    });
}

struct Patch {
    Contact contact;
    bool touches_foul = false;
};

/// Sheets that meet without an edge in common, as scans have them, are one place to whoever stands there: patches are taken
/// together whose worst places lie within reach of each other, the worst first.
std::vector<Patch> oneEachPlace(std::vector<Patch> patches) {
    constexpr double reach_mm = 40;
    std::stable_sort(patches.begin(), patches.end(),
                     [](const Patch& a, const Patch& b) { return a.contact.distance_mm < b.contact.distance_mm; });
    std::vector<Patch> places;
    for (const Patch& p : patches) {
        const auto same = std::find_if(places.begin(), places.end(),
                                       [&](const Patch& k) { return geometry::between(k.contact.at, p.contact.at) < reach_mm; });
        if (same == places.end()) {
            places.push_back(p);
            continue;
        }
        Contact& c = same->contact;
        c.meets = c.meets || p.contact.meets;
        c.area_mm2 += p.contact.area_mm2;
        c.points += p.contact.points;
        c.box.take(p.contact.box);
        same->touches_foul = same->touches_foul || p.touches_foul;
    }
    return places;
}

/// Triangles of one band that hang together, and whether they touch a worse band's.
void addContacts(const Ready& moving, const RigidTransform& move, const std::vector<Near>& near, const std::vector<Band>& band,
                 Band which, std::vector<Contact>& out) {
    const shape::Mesh& m = *moving.mesh;
    shape::DisjointSets groups(m.points.size());
    std::vector<bool> foul_point(m.points.size(), false);
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
        const shape::Triangle& q = m.triangles[t];
        if (band[t] == which) {
            groups.join(q[0], q[1]);
            groups.join(q[1], q[2]);
        } else if (band[t] == Band::Fouls) {
            for (const std::uint32_t p : q) foul_point[p] = true;
        }
    }
    std::vector<std::int32_t> place(m.points.size(), -1);
    std::vector<Patch> patches;
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
        if (band[t] != which) continue;
        const shape::Triangle& q = m.triangles[t];
        std::int32_t& k = place[groups.find(q[0])];
        if (k < 0) {
            k = static_cast<std::int32_t>(patches.size());
            Patch fresh;
            fresh.contact.band = which;
            fresh.contact.distance_mm = infinite;
            patches.push_back(fresh);
        }
        Patch& patch = patches[static_cast<size_t>(k)];
        Contact& c = patch.contact;
        const Corners corners = movedCorners(m, t, move);
        c.area_mm2 +=
            geometry::length(geometry::cross(geometry::minus(corners[1], corners[0]), geometry::minus(corners[2], corners[0]))) /
            2;
        c.meets = c.meets || near[t].meets;
        if (near[t].distance_mm < c.distance_mm) {
            c.distance_mm = near[t].distance_mm;
            c.at = near[t].at;
        }
        for (size_t i = 0; i < 3; ++i) {
            patch.touches_foul = patch.touches_foul || foul_point[q[i]];
            c.box.take(corners[i]);
        }
    }
    std::vector<bool> counted(m.points.size(), false);
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
        if (band[t] != which) continue;
        for (const std::uint32_t p : m.triangles[t]) {
            if (counted[p]) continue;
            counted[p] = true;
            ++patches[static_cast<size_t>(place[groups.find(p)])].contact.points;
        }
    }
    for (const Patch& p : oneEachPlace(std::move(patches)))
        if (which == Band::Fouls || !p.touches_foul) out.push_back(p.contact);
}

} // namespace

Ready readyOf(std::shared_ptr<const shape::Mesh> mesh, int threads) {
    Ready r;
    r.mesh = std::move(mesh);
    r.tree = std::make_unique<shape::DistanceTree>(r.mesh, shape::TreeOptions{shape::Width::Auto, threads});
    r.sides = std::make_unique<shape::Sides>(*r.tree);
    r.order = shape::ordered(r.mesh->points);
    return r;
}

LiveClearance liveClearance(const Ready& moving, const Ready& fixed, const RigidTransform& move, const Need& need, int threads,
                            const std::function<bool()>& stop) {
    LiveClearance live;
    live.map = distancesTo(*fixed.tree, fixed.sides.get(), moving.order, move, need.cap_mm, threads, stop);
    live.least_mm = need.cap_mm;
    size_t worst = 0;
    for (size_t i = 0; i < live.map.distance_mm.size(); ++i) {
        const double d = static_cast<double>(live.map.distance_mm[i]);
        switch (need.band(d)) {
        case Band::Clear: ++live.clear; break;
        case Band::Tight: ++live.tight; break;
        case Band::Fouls: ++live.fouls; break;
        }
        if (d < live.least_mm) {
            live.least_mm = d;
            worst = i;
        }
    }
    if (!moving.mesh->points.empty()) live.at = move.transformed(moving.mesh->points[worst]);
    return live;
}

namespace {

/// How near each triangle of what moves comes, from its own side.
std::vector<Near> fromItsSide(const Ready& moving, const Ready& fixed, const RigidTransform& move, const Clearance& so_far,
                              const Need& need, int threads, const std::function<bool()>& stop) {
    const shape::Mesh& m = *moving.mesh;
    const auto& distance = so_far.live.map.distance_mm;
    std::vector<Near> near(m.triangles.size());
    for (const shape::Meeting& meeting : so_far.crossings.meetings) {
        near[meeting.moving].meets = true;
        // nobody gets inside without going through a closed piece's surface
        if (fixed.sides->pieces()[fixed.sides->pieceOf(meeting.fixed)].closed) near[meeting.moving].enters = true;
    }
    const double limit = std::min(need.cap_mm, need.tightBelow());
    shape::inPieces(m.triangles.size(), 512, shape::threadsOf(threads), [&](size_t from, size_t to) {
        if (stop && stop()) return;
        for (size_t t = from; t < to; ++t) {
            Near& n = near[t];
            const Corners c = movedCorners(m, static_cast<std::uint32_t>(t), move);
            for (size_t k = 0; k < 3; ++k)
                if (const double d = static_cast<double>(distance[m.triangles[t][k]]); d < n.distance_mm) {
                    n.distance_mm = d;
                    n.at = n.there = c[k];
                }
            const double longest = std::max({between(c[0], c[1]), between(c[1], c[2]), between(c[2], c[0])});
            if (n.meets) {
                if (n.enters)
                    deepest(fixed, c, need.cap_mm, n);
                else if (n.distance_mm > 0)
                    n.distance_mm = 0;
            } else if (n.distance_mm > 0 && n.distance_mm - longest < limit && limit > 0) {
                outside(fixed, c, limit, n);
            } else if (n.distance_mm < 0 && n.distance_mm - longest > -need.cap_mm) {
                deepest(fixed, c, need.cap_mm, n); // wholly inside: perhaps deeper between its corners
            }
        }
    });
    return near;
}

/// The other way: what of the fixed thing lies inside the moving one.
void fromTheOtherSide(const Ready& moving, const Ready& fixed, const RigidTransform& move, const Need& need, int threads,
                      const std::function<bool()>& stop, std::vector<Near>& near) {
    if (!moving.sides->any()) return;
    const RigidTransform back = inverse(move);
    const shape::DistanceMap other = distancesTo(*moving.tree, moving.sides.get(), fixed.order, back, need.cap_mm, threads, stop);
    for (size_t i = 0; i < other.distance_mm.size(); ++i) {
        const double d = static_cast<double>(other.distance_mm[i]);
        if (d >= 0) continue;
        const Point3& p = fixed.mesh->points[i];
        const shape::Nearest n = moving.tree->nearest(back.transformed(p), need.cap_mm);
        if (n.triangle == shape::kernel::nothing) continue;
        if (Near& hit = near[n.triangle]; d < hit.distance_mm) {
            hit.distance_mm = d;
            hit.at = move.transformed(n.foot.at);
            hit.there = p;
        }
    }
}

/// Where the two are nearest, from faces, sides and corners of both.
void findNearestPlaces(const Ready& moving, const Ready& fixed, const RigidTransform& move, const Need& need, Clearance& result) {
    if (!result.meets && result.least_mm > 0) {
        const shape::Closest c = shape::closest(*moving.tree, *fixed.tree, move, std::min(need.cap_mm, result.least_mm));
        if (c.least_mm < result.least_mm) {
            result.least_mm = c.least_mm;
            result.at_moving = c.on_moving;
            result.at_fixed = c.on_fixed;
        }
    }
    // the other end of it lies on the fixed surface, whatever kind of distance it was
    if (result.least_mm < need.cap_mm) {
        const double far = std::max(need.cap_mm, std::abs(result.least_mm)) + 1;
        if (const shape::Nearest n = fixed.tree->nearest(result.at_moving, far); n.triangle != shape::kernel::nothing)
            result.at_fixed = n.foot.at;
    }
}

} // namespace

std::optional<Clearance> clearance(const Ready& moving, const Ready& fixed, const RigidTransform& move, const Need& need,
                                   int threads, const std::function<bool()>& stop) {
    Clearance result;
    const auto stopped = [&] { return stop && stop(); };
    result.live = liveClearance(moving, fixed, move, need, threads, stop);
    if (stopped()) return std::nullopt;
    result.crossings = shape::crossings(*moving.tree, *fixed.tree, move, threads, stop);
    if (stopped()) return std::nullopt;
    const shape::Mesh& m = *moving.mesh;
    const auto& distance = result.live.map.distance_mm;
    const bool fixed_inside = fixed.sides->any();

    std::vector<Near> near = fromItsSide(moving, fixed, move, result, need, threads, stop);
    result.meets = !result.crossings.meetings.empty();
    if (stopped()) return std::nullopt;

    fromTheOtherSide(moving, fixed, move, need, threads, stop, near);
    if (stopped()) return std::nullopt;

    std::vector<Band> band(m.triangles.size(), Band::Clear);
    result.least_mm = need.cap_mm;
    for (size_t t = 0; t < near.size(); ++t) {
        band[t] = near[t].meets ? Band::Fouls : need.band(near[t].distance_mm);
        if (near[t].distance_mm < result.least_mm) {
            result.least_mm = near[t].distance_mm;
            result.at_moving = near[t].at;
            result.at_fixed = near[t].there;
        }
    }
    findNearestPlaces(moving, fixed, move, need, result);
    result.depth_known = !result.meets || fixed_inside || moving.sides->any();
    addContacts(moving, move, near, band, Band::Fouls, result.contacts);
    addContacts(moving, move, near, band, Band::Tight, result.contacts);
    std::stable_sort(result.contacts.begin(), result.contacts.end(), [](const Contact& a, const Contact& b) {
        if (a.band != b.band) return a.band > b.band;
        return a.distance_mm != b.distance_mm ? a.distance_mm < b.distance_mm : a.area_mm2 > b.area_mm2;
    });

    std::vector<float> sorted = distance;
    std::sort(sorted.begin(), sorted.end());
    for (size_t i = 0; i < percentile_ranks.size() && !sorted.empty(); ++i)
        result.percentiles_mm[i] =
            static_cast<double>(sorted[(sorted.size() - 1) * static_cast<size_t>(percentile_ranks[i]) / 100]);
    return result;
}

} // namespace gorvet::sit
