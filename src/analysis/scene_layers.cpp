#include "analysis/scene_layers.hpp"

#include "make/crossmember_solid.hpp"
#include "make/rail_mesh.hpp"
#include "sit/as_cut.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::analysis {

using namespace build;
using shape::Mesh;
using shape::Point3;

SteelInput steelInput(const Results& r) {
    SteelInput in;
    if (r.crossmember.made()) in.crossmember_input = r.crossmember.input();
    in.crossmember = r.crossmember.share();
    in.stretch = r.stretch.share();
    in.left = r.planned_left;
    in.right = r.planned_right;
    return in;
}

Mesh newSteelMesh(const SteelInput& in) {
    Mesh m;
    if (in.crossmember_input)
        for (const make::NamedMesh& piece : make::partMeshes(make::crossmemberPieces(*in.crossmember_input, *in.crossmember)))
            append(m, piece.mesh);
    if (in.stretch && in.stretch->status == stretch::Status::Planned && in.stretch->sleeve) {
        const stretch::Sleeve& s = *in.stretch->sleeve;
        for (const auto& [rail, cut] : {std::pair{&in.left, &in.stretch->left}, {&in.right, &in.stretch->right}})
            if (cut->known)
                append(m, make::alongRail(*rail, cut->first_station_mm - s.length_mm / 2, cut->first_station_mm + s.length_mm / 2,
                                          s.height_mm, s.width_mm));
    }
    return m;
}

std::vector<bool> inKeptCuts(const PlannedCuts& cuts, const Overlay& o) {
    if (!o.hasBody()) return {};
    const Mesh& body = *o.body->mesh;
    std::vector<Point3> middles(body.triangles.size());
    for (size_t t = 0; t < middles.size(); ++t) {
        const shape::Triangle& q = body.triangles[t];
        middles[t] =
            geometry::times(geometry::plus(body.points[q[0]], geometry::plus(body.points[q[1]], body.points[q[2]])), 1.0 / 3);
    }
    std::vector<bool> taken(middles.size(), false);
    for (const auto& [id, c] : cuts) {
        if (c.line.size() < 2) continue;
        std::vector<Point3> line;
        Point3 least{INFINITY, INFINITY, INFINITY}, most{-INFINITY, -INFINITY, -INFINITY};
        for (const Vec3& v : c.line) {
            line.push_back({v.x_mm, v.y_mm, v.z_mm});
            for (size_t axis = 0; axis < 3; ++axis) {
                least[axis] = std::min(least[axis], line.back()[axis]);
                most[axis] = std::max(most[axis], line.back()[axis]);
            }
        }
        // what comes to about the area that was planned; else what lies within the line as it is seen along its normal
        if (const auto out = sit::takenOut(*o.body, line, c.closed, c.area_mm2); !out.empty()) {
            for (const std::uint32_t t : out) taken[t] = true;
            continue;
        }
        if (!c.closed || line.size() < 3) continue;
        // the sheet bulges beyond the box of its edge
        const double bulge = 0.15 * geometry::between(least, most) + 5;
        std::vector<Point3> some;
        std::vector<size_t> which;
        for (size_t t = 0; t < middles.size(); ++t) {
            bool in = true;
            for (size_t axis = 0; axis < 3; ++axis)
                in = in && middles[t][axis] > least[axis] - bulge && middles[t][axis] < most[axis] + bulge;
            if (!in || taken[t]) continue;
            some.push_back(middles[t]);
            which.push_back(t);
        }
        const auto off = sit::offTheLine(line, true, some);
        for (size_t k = 0; k < which.size(); ++k)
            if (off[k] < 0) taken[which[k]] = true;
    }
    return taken;
}

std::optional<Mesh> withoutKeptCuts(const PlannedCuts& cuts, const Overlay& o, const std::vector<bool>& cut, size_t part) {
    size_t first = 0;
    for (size_t i = 0; i < part; ++i) first += o.body_parts[i].part.ready->mesh->triangles.size();
    const Mesh& own = *o.body_parts[part].part.ready->mesh;
    const size_t n = own.triangles.size();
    const auto begin = cut.begin() + static_cast<std::ptrdiff_t>(first);
    if (cut.size() < first + n || std::none_of(begin, begin + static_cast<std::ptrdiff_t>(n), [](bool c) { return c; }))
        return std::nullopt;
    std::vector<std::pair<std::vector<Point3>, bool>> lines;
    for (const auto& [id, c] : cuts) {
        lines.emplace_back(std::vector<Point3>{}, c.closed);
        for (const Vec3& v : c.line) lines.back().first.push_back({v.x_mm, v.y_mm, v.z_mm});
    }
    constexpr double fine_mm = 4;
    Mesh out;
    out.points = own.points;
    struct Piece {
        shape::Corners corners;
        int depth;
    };
    for (size_t t = 0; t < n; ++t) {
        const bool taken = cut[first + t];
        bool on_line = false;
        for (size_t k = 0; k < 3; ++k)
            if (const auto u = o.body->sides->neighbour(static_cast<std::uint32_t>(first + t), k); u != shape::kernel::nothing)
                on_line = on_line || cut[u] != taken;
        if (!on_line) {
            if (!taken) out.triangles.push_back(own.triangles[t]);
            continue;
        }
        const shape::Corners c = shape::cornersOf(own, static_cast<std::uint32_t>(t));
        const Point3 normal = geometry::cross(geometry::minus(c[1], c[0]), geometry::minus(c[2], c[0]));
        const auto middle = [](const shape::Corners& q) {
            return geometry::times(geometry::plus(q[0], geometry::plus(q[1], q[2])), 1.0 / 3);
        };
        const std::pair<std::vector<Point3>, bool>* line = nullptr;
        double nearest = INFINITY;
        for (const auto& l : lines)
            if (const double d = sit::offTheLine(l.first, l.second, {middle(c)}).front(); std::abs(d) < nearest) {
                nearest = std::abs(d);
                line = &l;
            }
        const bool left = sit::leftOf(line->first, line->second, normal, middle(c)) > 0;
        std::vector<Piece> pieces{{c, 0}};
        while (!pieces.empty()) {
            const Piece p = pieces.back();
            pieces.pop_back();
            const auto& q = p.corners;
            if (p.depth < 5 && std::max({geometry::between(q[0], q[1]), geometry::between(q[1], q[2]),
                                         geometry::between(q[2], q[0])}) > fine_mm) {
                const Point3 x = geometry::along(q[0], q[1], 0.5), y = geometry::along(q[1], q[2], 0.5),
                             z = geometry::along(q[2], q[0], 0.5);
                for (const shape::Corners& r : {shape::Corners{q[0], x, z}, {x, q[1], y}, {z, y, q[2]}, {x, y, z}})
                    pieces.push_back({r, p.depth + 1});
                continue;
            }
            if (taken == ((sit::leftOf(line->first, line->second, normal, middle(q)) > 0) == left)) continue;
            const auto at = static_cast<std::uint32_t>(out.points.size());
            out.points.insert(out.points.end(), q.begin(), q.end());
            out.triangles.push_back({at, at + 1, at + 2});
        }
    }
    return out;
}

Mesh toRemoveMesh(const PlannedCuts& cuts, const Overlay& o) {
    Mesh out;
    if (!o.hasBody()) return out;
    const Mesh& body = *o.body->mesh;
    const std::vector<bool> taken = inKeptCuts(cuts, o);
    std::vector<std::int64_t> place(body.points.size(), -1);
    for (size_t t = 0; t < taken.size(); ++t) {
        if (!taken[t]) continue;
        shape::Triangle q = body.triangles[t];
        for (std::uint32_t& p : q) {
            if (place[p] < 0) {
                place[p] = static_cast<std::int64_t>(out.points.size());
                out.points.push_back(body.points[p]);
            }
            p = static_cast<std::uint32_t>(place[p]);
        }
        out.triangles.push_back(q);
    }
    return out;
}

} // namespace gorvet::analysis
