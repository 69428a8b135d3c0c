#include "make/weld_room.hpp"

#include "shape/distance_tree.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <memory>
#include <numbers>
#include <span>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;
using geometry::Vec3;

namespace {

constexpr double marked_mm = 2.5; ///< a part stands where its place was marked: so far off a rail that runs crooked
constexpr double leans_cos = 0.3;
constexpr double sharp_cos = 0.94; ///< faces nearer to one plane than 20° make no edge

/// Directions spread evenly: a spiral of equal areas.
std::vector<Vec3> ways() {
    std::vector<Vec3> all;
    const double golden = std::numbers::pi * (3 - std::sqrt(5.0));
    for (int k = 0; k < weld_ways; ++k) {
        const double up = 1 - (2.0 * k + 1) / weld_ways, across = std::sqrt(1 - up * up);
        all.push_back({across * std::cos(golden * k), across * std::sin(golden * k), up});
    }
    return all;
}

struct Solid {
    const ServiceBody* body = nullptr;
    std::unique_ptr<shape::DistanceTree> tree;
    Vec3 least{1e18, 1e18, 1e18}, most{-1e18, -1e18, -1e18};
};
Solid solidOf(const ServiceBody& body) {
    Solid s{&body,
            std::make_unique<shape::DistanceTree>(body.mesh, shape::TreeOptions{shape::Width::Auto, 1}),
            {1e18, 1e18, 1e18},
            {-1e18, -1e18, -1e18}};
    for (const Vec3& p : body.mesh->points)
        for (std::size_t axis = 0; axis < 3; ++axis) {
            s.least[axis] = std::min(s.least[axis], p[axis]);
            s.most[axis] = std::max(s.most[axis], p[axis]);
        }
    return s;
}
bool within(const Solid& s, const Vec3& p, double reach) {
    for (std::size_t axis = 0; axis < 3; ++axis)
        if (p[axis] < s.least[axis] - reach || p[axis] > s.most[axis] + reach) return false;
    return true;
}
bool nearerThan(const Solid& s, const Vec3& at, double reach) {

    return within(s, at, reach) && s.tree->nearest(at, reach).triangle != shape::kernel::nothing;
}
/// Whether a torch at that place, its handle that way, touches it. `at` lies on it or beside it.
bool touches(const Solid& s, const Vec3& at, const Vec3& way) {
    if (!within(s, (at), hand_until_mm + hand_radius_mm)) return false;
    // whatever lies on its axis is hit first of all
    if (s.tree->isBetween(plus(at, times(way, 2)), plus(at, times(way, 2 + hand_until_mm)))) return true;
    for (double t = nozzle_from_mm; t <= nozzle_mm; t += nozzle_radius_mm / 1.5)
        if (nearerThan(s, plus(at, times(way, t)), nozzle_radius_mm)) return true;
    for (double t = nozzle_mm + hand_radius_mm; t <= hand_until_mm; t += hand_radius_mm / 1.5)
        if (nearerThan(s, plus(at, times(way, t)), hand_radius_mm)) return true;
    return false;
}

/// An edge of a closed mesh at which it has a corner, and the sum of its faces' normals.
struct SharpEdge {
    Vec3 from, to, out;
};
std::vector<SharpEdge> sharpEdges(const shape::Mesh& m) {
    std::map<std::pair<std::uint32_t, std::uint32_t>, std::vector<Vec3>> faces;
    for (const shape::Triangle& t : m.triangles) {
        const Vec3 a = m.points[t[0]];
        const Vec3 n = cross(minus(m.points[t[1]], a), minus(m.points[t[2]], a));
        if (geometry::length(n) < 1e-9) continue;
        for (std::size_t k = 0; k < 3; ++k) {
            const std::uint32_t p = t[k], q = t[(k + 1) % 3];
            faces[{std::min(p, q), std::max(p, q)}].push_back(unit(n));
        }
    }
    std::vector<SharpEdge> all;
    for (const auto& [edge, normals] : faces)
        if (normals.size() != 2 || dot(normals[0], normals[1]) < sharp_cos) {
            Vec3 out;
            for (const Vec3& n : normals) out = plus(out, n);
            all.push_back({m.points[edge.first], m.points[edge.second], out});
        }
    return all;
}

class RoomFinder {
public:
    explicit RoomFinder(const PutOnIn& in) : in_(in) {
        for (const ServiceBody& body : in.frame) solids_.push_back(solidOf(body));
        for (const PutOnItem& item : in.items) solids_.push_back(solidOf(item.body));
    }
    std::vector<WeldRoom> all() {
        std::vector<WeldRoom> rooms;
        for (std::size_t k = 0; k < in_.items.size(); ++k)
            if (in_.items[k].how == "welded on") rooms.push_back(of(k));
        return rooms;
    }

private:
    WeldRoom of(std::size_t item) {
        WeldRoom room{in_.items[item].name, in_.items[item].tag, 0, 0, "", {}};
        const std::size_t own = in_.frame.size() + item;
        std::map<std::size_t, double> in_the_way;
        for (const auto& [from, to, out] : sharpEdges(*in_.items[item].body.mesh)) {
            const double length = geometry::between(from, to);
            const int steps = std::max(1, static_cast<int>(std::lround(length / weld_step_mm)));
            for (int n = 0; n < steps; ++n)
                place(own, geometry::along(from, to, (n + 0.5) / steps), out, length / steps, room, in_the_way);
        }
        double most = 0;
        for (const auto& [body, mm] : in_the_way)
            if (mm > most) {
                most = mm;
                room.shut_by = solids_[body].body->name;
            }
        return room;
    }
    /// A place of an edge, and so much of it.
    void place(std::size_t own, const Vec3& at, const Vec3& out, double share, WeldRoom& room,
               std::map<std::size_t, double>& in_the_way) {
        std::size_t on = own;
        for (std::size_t k = 0; k < own && on == own; ++k)
            if (nearerThan(solids_[k], at, weld_on_mm + marked_mm + solids_[k].body->touch_mm)) on = k;
        if (on == own) return;
        bool open = false;
        std::map<std::size_t, int> by;
        for (const Vec3& way : bestFirst(on, at, out)) {
            if (touches(solids_[own], at, way) || touches(solids_[on], at, way)) continue;
            open = true;
            std::size_t shut = own;
            for (std::size_t k = 0; k < own && shut == own; ++k)
                if (k != on && touches(solids_[k], at, way)) shut = k;
            if (shut == own) {
                room.seam_mm += share;
                return;
            }
            ++by[shut];
        }
        if (!open) return; // its own shape leaves no room: it is not welded there
        room.seam_mm += share;
        room.shut_mm += share;
        room.at = at;
        const auto worst =
            std::max_element(by.begin(), by.end(), [](const auto& x, const auto& y) { return x.second < y.second; });
        in_the_way[worst->first] += share;
    }

    /// The ways that lead away from the item and from what it lies on, straight away first: where there is room, it is found at
    /// once. What leans further than `leans_cos` from that lies along the edge, or in the steel.
    std::span<const Vec3> bestFirst(std::size_t on, const Vec3& at, const Vec3& out) {
        const shape::Mesh& m = *solids_[on].body->mesh;
        Vec3 away = out;
        if (const auto near = solids_[on].tree->nearest(at, 50); near.triangle != shape::kernel::nothing) {
            const shape::Triangle& t = m.triangles[near.triangle];
            const Vec3 n = cross(minus(m.points[t[1]], m.points[t[0]]), minus(m.points[t[2]], m.points[t[0]]));
            if (geometry::length(n) > 1e-9) away = plus(away, times(unit(n), 2));
        }
        const double least = leans_cos * geometry::length(away);
        const auto end = std::partition(ways_.begin(), ways_.end(), [&](const Vec3& way) { return dot(way, away) >= least; });
        std::sort(ways_.begin(), end, [&](const Vec3& a, const Vec3& b) { return dot(a, away) > dot(b, away); });
        return {ways_.data(), static_cast<std::size_t>(end - ways_.begin())};
    }

    const PutOnIn& in_;
    std::vector<Solid> solids_;
    std::vector<Vec3> ways_ = ways();
};

} // namespace

std::vector<WeldRoom> weldRooms(const PutOnIn& in) { return RoomFinder(in).all(); }

} // namespace gorvet::make
