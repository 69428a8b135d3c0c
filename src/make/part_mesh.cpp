// Every piece of a part as a closed mesh, at once: for what is looked for while it is moved.
#include "make/part.hpp"
#include "make/part_pieces.hpp"
#include "shape/plain_mesh.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;
using shape::Mesh;
using shape::Ring;

namespace {

constexpr int around = 72;

/// Where a line along a bar meets its end.
double ends(const BarEnd& e, const Vec3& on, const Vec3& along, bool first) {
    if (!e.cope) return dot(minus(e.point, on), e.normal) / dot(along, e.normal);
    // on the outside of the other tube: the root on the bar's own side
    const Vec3 off = minus(on, e.point), axis = unit(e.normal);
    const Vec3 a = minus(along, times(axis, dot(along, axis))), b = minus(off, times(axis, dot(off, axis)));
    const double r = e.cope->main_mm / 2, aa = dot(a, a), ab = dot(a, b), under = ab * ab - aa * (dot(b, b) - r * r);
    if (under < 0) return -ab / aa; // it runs past the tube: no higher than its middle
    return (-ab + (first ? 1 : -1) * std::sqrt(under)) / aa;
}

/// A section's corners about a middle, outer or inner.
std::vector<std::pair<double, double>> sectionCorners(const BarPiece& b, bool outer) {
    std::vector<std::pair<double, double>> all; // across, up
    const double less = outer ? 0 : b.wall_mm;
    if (b.round) {
        // flat pieces that touch the outside from outside, the bore from inside: nothing is made smaller than it is
        const double r = (b.height_mm / 2 - less) / (outer ? std::cos(std::numbers::pi / around) : 1);
        for (int k = 0; k < around; ++k) {
            const double phi = 2 * std::numbers::pi * k / around;
            all.emplace_back(r * std::cos(phi), r * std::sin(phi));
        }
        return all;
    }
    const double w = b.width_mm / 2 - less, h = b.height_mm / 2 - less, r = (outer ? 2 : 1) * b.wall_mm;
    constexpr int steps = 6;
    const double corner[4][2] = {{1, 1}, {-1, 1}, {-1, -1}, {1, -1}};
    for (int q = 0; q < 4; ++q)
        for (int k = 0; k <= steps; ++k) {
            const double phi = std::numbers::pi / 2 * (q + static_cast<double>(k) / steps);
            all.emplace_back(corner[q][0] * (w - r) + r * std::cos(phi), corner[q][1] * (h - r) + r * std::sin(phi));
        }
    return all;
}

Mesh barMesh(const BarPiece& b) {
    const Vec3 along = unit(minus(b.to, b.from)), up = unit(minus(b.up, times(along, dot(b.up, along)))),
               across = cross(up, along);
    const auto rings = [&](bool outer) {
        std::vector<Ring> both(2);
        for (const auto& [a, h] : sectionCorners(b, outer)) {
            const Vec3 on = plus(b.from, plus(times(across, a), times(up, h)));
            for (std::size_t end = 0; end < 2; ++end)
                both[end].push_back(plus(on, times(along, ends(b.ends[end], on, along, end == 0))));
        }
        return both;
    };
    return shape::wallMesh(rings(true), rings(false));
}

/// Through its corners, round each in steps.
Mesh bentMesh(const BarPiece& b) {
    constexpr double step_rad = 0.06;
    struct Station {
        Vec3 at, along;
    };
    const std::vector<Vec3>& q = b.through;
    std::vector<Station> path{{q[0], unit(minus(q[1], q[0]))}};
    for (std::size_t k = 1; k + 1 < q.size(); ++k) {
        const Vec3 in = unit(minus(q[k], q[k - 1])), out = unit(minus(q[k + 1], q[k]));
        const double angle = std::acos(std::clamp(dot(in, out), -1.0, 1.0));
        if (angle < 1e-4) continue;
        const Vec3 to_middle = unit(minus(out, times(in, dot(out, in))));
        const Vec3 begins = minus(q[k], times(in, b.radius_mm * std::tan(angle / 2)));
        const int steps = std::max(2, static_cast<int>(std::ceil(angle / step_rad)));
        for (int s = 0; s <= steps; ++s) {
            const double a = angle * s / steps;
            path.push_back(
                {plus(begins, plus(times(in, b.radius_mm * std::sin(a)), times(to_middle, b.radius_mm * (1 - std::cos(a))))),
                 plus(times(in, std::cos(a)), times(to_middle, std::sin(a)))});
        }
    }
    path.push_back({q.back(), unit(minus(q.back(), q[q.size() - 2]))});
    const auto rings = [&](bool outer) {
        const auto corners = sectionCorners(b, outer);
        std::vector<Ring> all;
        Vec3 up = b.up;
        for (std::size_t k = 0; k < path.size(); ++k) {
            const Vec3 along = path[k].along;
            up = minus(up, times(along, dot(up, along)));
            if (geometry::length(up) < 1e-3) up = std::abs(along.z_mm) < 0.9 ? Vec3{0, 0, 1} : Vec3{1, 0, 0};
            up = unit(minus(up, times(along, dot(up, along))));
            const Vec3 across = cross(up, along);
            Ring ring;
            for (const auto& [a, h] : corners) {
                const Vec3 on = plus(path[k].at, plus(times(across, a), times(up, h)));
                const bool first = k == 0, last = k + 1 == path.size();
                const BarEnd& e = b.ends[last ? 1 : 0];
                ring.push_back(
                    (first || last) && e.kind != BarEnd::Kind::Square ? plus(on, times(along, ends(e, on, along, first))) : on);
            }
            all.push_back(std::move(ring));
        }
        return all;
    };
    return shape::wallMesh(rings(true), rings(false));
}

/// Both sides and the bottom of a bent box, to its planes: root, end, top.
Mesh troughMesh(const Trough& t) {
    const geometry::Outline section = troughSection(t);
    const Vec3 x = unit(t.place.x), y = unit(t.place.y), z = cross(x, y);
    const auto meets = [&](const std::pair<Vec3, Vec3>& plane, const Vec3& on, const Vec3& along) {
        return dot(minus(plane.first, on), plane.second) / dot(along, plane.second);
    };
    std::vector<Ring> rings(2);
    for (const auto& [across, up] : section) {
        const Vec3 on = plus(t.place.origin, plus(times(y, across), times(z, up)));
        for (std::size_t end = 0; end < 2; ++end) {
            Vec3 p = plus(on, times(x, meets(t.planes[end], on, x)));
            // what would stand over the top: down to where both planes meet
            const bool over = dot(minus(p, t.planes[2].first), t.planes[2].second) > 0;
            for (int k = 0; over && k < 30; ++k) {
                p = plus(p, times(z, meets(t.planes[2], p, z)));
                p = plus(p, times(x, meets(t.planes[end], p, x)));
            }
            rings[end].push_back(p);
        }
    }
    return shape::ringsMesh(rings, shape::filled(section));
}

} // namespace

std::vector<NamedMesh> partMeshes(const PartPlan& p) {
    std::vector<NamedMesh> all;
    for (const PlacedPiece& piece : piecesOf(p)) {
        Mesh mesh;
        if (piece.bar)
            mesh = piece.bar->through.empty() ? barMesh(*piece.bar) : bentMesh(*piece.bar);
        else if (piece.trough)
            mesh = troughMesh(*piece.trough);
        else if (!piece.flat->section.empty())
            mesh = shape::prismMesh(piece.flat->section, piece.flat->along_mm, piece.place);
        else
            mesh = shape::prismMesh(piece.flat->outline, piece.flat->thickness_mm, piece.place);
        all.push_back({piece.name, std::move(mesh)});
    }
    return all;
}

} // namespace gorvet::make
