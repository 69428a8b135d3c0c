#include "shape/plain_mesh.hpp"

#include <numeric>

namespace gorvet::shape {

using geometry::Flat;
using geometry::plus;
using geometry::times;

namespace {

double turn(const Flat& a, const Flat& b, const Flat& c) {
    return (b.first - a.first) * (c.second - a.second) - (b.second - a.second) * (c.first - a.first);
}
std::uint32_t number(std::size_t n) { return static_cast<std::uint32_t>(n); }

/// The wall that runs round between rings; `outwards`: its places run anticlockwise seen from the last ring.
void addSides(Mesh& m, const std::vector<Ring>& rings, bool outwards) {
    const std::uint32_t from = number(m.points.size()), n = number(rings.front().size());
    for (const Ring& ring : rings) m.points.insert(m.points.end(), ring.begin(), ring.end());
    for (std::uint32_t r = 0; r + 1 < rings.size(); ++r)
        for (std::uint32_t k = 0; k < n; ++k) {
            const std::uint32_t a = from + r * n + k, b = from + r * n + (k + 1) % n, c = b + n, d = a + n;
            for (Triangle t : {Triangle{a, b, c}, Triangle{a, c, d}}) {
                if (!outwards) std::swap(t[1], t[2]);
                m.triangles.push_back(t);
            }
        }
}

} // namespace

std::vector<Triangle> filled(const geometry::Outline& o) {
    std::vector<std::uint32_t> left(o.size());
    std::iota(left.begin(), left.end(), 0U);
    std::vector<Triangle> all;
    std::size_t k = 0, without = 0;
    while (left.size() > 3 && without <= left.size()) {
        const std::size_t n = left.size();
        k %= n;
        const std::uint32_t a = left[(k + n - 1) % n], b = left[k], c = left[(k + 1) % n];
        bool ear = turn(o[a], o[b], o[c]) > 1e-9;
        for (std::size_t i = 0; ear && i < n; ++i) {
            const std::uint32_t p = left[i];
            if (p == a || p == b || p == c) continue;
            ear = !(turn(o[a], o[b], o[p]) >= 0 && turn(o[b], o[c], o[p]) >= 0 && turn(o[c], o[a], o[p]) >= 0);
        }
        // corners in one line fill nothing: they go without a triangle of their own only when nothing else does
        if (!ear && without == n) ear = true;
        if (ear) {
            all.push_back({a, b, c});
            left.erase(left.begin() + static_cast<std::ptrdiff_t>(k));
            without = 0;
        } else {
            ++k;
            ++without;
        }
    }
    if (left.size() == 3) all.push_back({left[0], left[1], left[2]});
    return all;
}

Mesh ringsMesh(const std::vector<Ring>& rings, const std::vector<Triangle>& cap) {
    Mesh m;
    addSides(m, rings, true);
    const std::uint32_t last = number(m.points.size() - rings.back().size());
    for (const Triangle& t : cap) {
        m.triangles.push_back({t[0], t[2], t[1]});
        m.triangles.push_back({last + t[0], last + t[1], last + t[2]});
    }
    return m;
}

Mesh wallMesh(const std::vector<Ring>& outer, const std::vector<Ring>& inner) {
    Mesh m;
    addSides(m, outer, true);
    const std::uint32_t inside = number(m.points.size()), n = number(outer.front().size());
    addSides(m, inner, false);
    const auto ring = [&](std::uint32_t out, std::uint32_t in, bool facing) {
        for (std::uint32_t k = 0; k < n; ++k) {
            const std::uint32_t next = (k + 1) % n;
            for (Triangle t : {Triangle{out + k, out + next, in + next}, Triangle{out + k, in + next, in + k}}) {
                if (!facing) std::swap(t[1], t[2]);
                m.triangles.push_back(t);
            }
        }
    };
    ring(0, inside, false);
    ring(inside - n, number(m.points.size()) - n, true);
    return m;
}

Mesh prismMesh(const geometry::Outline& outline, double thickness_mm, const Frame& f) {
    const Point3 x = geometry::unit(f.x), z = geometry::unit(geometry::cross(f.x, f.y)), y = geometry::cross(z, x);
    std::vector<Ring> rings(2);
    for (const auto& [a, b] : outline)
        for (std::size_t end = 0; end < 2; ++end)
            rings[end].push_back(plus(plus(f.origin, times(x, a)), plus(times(y, b), times(z, end == 0 ? 0 : thickness_mm))));
    return ringsMesh(rings, filled(outline));
}

} // namespace gorvet::shape
