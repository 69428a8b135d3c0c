#include "sim/mesh_maker.hpp"

#include <numbers>

namespace gorvet::sim {
namespace {

using geometry::along;
using geometry::cross;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;

size_t pieces(double length, double step) { return std::max<size_t>(1, static_cast<size_t>(std::ceil(length / step - 1e-9))); }

std::uint32_t add(Mesh& m, const Point3& p) {
    m.points.push_back(p);
    return static_cast<std::uint32_t>(m.points.size() - 1);
}
void quad(Mesh& m, std::uint32_t a, std::uint32_t b, std::uint32_t c, std::uint32_t d) {
    m.triangles.push_back({a, b, c});
    m.triangles.push_back({a, c, d});
}

template <bool Round> double lookUp(const std::vector<std::array<double, 2>>& table, double at) {
    if (at <= table.front()[0]) return table.front()[1];
    for (size_t i = 1; i < table.size(); ++i) {
        if (at > table[i][0]) continue;
        double share = (at - table[i - 1][0]) / (table[i][0] - table[i - 1][0]);
        if (Round) share = 0.5 - 0.5 * std::cos(share * std::numbers::pi);
        return table[i - 1][1] + (table[i][1] - table[i - 1][1]) * share;
    }
    return table.back()[1];
}

} // namespace

double between(const std::vector<std::array<double, 2>>& table, double at) { return lookUp<false>(table, at); }
double rounded(const std::vector<std::array<double, 2>>& table, double at) { return lookUp<true>(table, at); }

std::vector<std::array<double, 2>> rectangle(double width, double height) {
    const double w = width / 2, h = height / 2;
    return {{-w, -h}, {w, -h}, {w, h}, {-w, h}};
}

void addGrid(Mesh& m, double step, const std::function<Point3(double, double)>& f,
             const std::function<bool(const Point3&)>& keep) {
    double long_u = 0, long_v = 0;
    for (int i = 0; i < 32; ++i) {
        long_u += geometry::between(f(i / 32.0, 0.5), f((i + 1) / 32.0, 0.5));
        long_v += geometry::between(f(0.5, i / 32.0), f(0.5, (i + 1) / 32.0));
    }
    const size_t nu = pieces(long_u, step), nv = pieces(long_v, step);
    std::vector<std::uint32_t> at((nu + 1) * (nv + 1));
    std::vector<bool> used(at.size(), false);
    std::vector<Point3> points(at.size());
    for (size_t i = 0; i <= nu; ++i)
        for (size_t j = 0; j <= nv; ++j)
            points[i * (nv + 1) + j] =
                f(static_cast<double>(i) / static_cast<double>(nu), static_cast<double>(j) / static_cast<double>(nv));
    const auto place = [&](size_t i, size_t j) {
        const size_t k = i * (nv + 1) + j;
        if (!used[k]) at[k] = add(m, points[k]);
        used[k] = true;
        return at[k];
    };
    for (size_t i = 0; i < nu; ++i)
        for (size_t j = 0; j < nv; ++j) {
            const Point3 middle = along(points[i * (nv + 1) + j], points[(i + 1) * (nv + 1) + j + 1], 0.5);
            if (keep && !keep(middle)) continue;
            quad(m, place(i, j), place(i + 1, j), place(i + 1, j + 1), place(i, j + 1));
        }
}

void addBar(Mesh& m, double step, const std::vector<Point3>& corners, const std::vector<std::array<double, 2>>& section) {
    std::vector<Point3> path{corners.front()};
    for (size_t i = 1; i < corners.size(); ++i) {
        const size_t n = pieces(geometry::between(corners[i - 1], corners[i]), step);
        for (size_t k = 1; k <= n; ++k)
            path.push_back(along(corners[i - 1], corners[i], static_cast<double>(k) / static_cast<double>(n)));
    }
    std::vector<std::array<double, 2>> rim;
    for (size_t i = 0; i < section.size(); ++i) {
        const auto& a = section[i];
        const auto& b = section[(i + 1) % section.size()];
        const size_t n = pieces(std::hypot(b[0] - a[0], b[1] - a[1]), step);
        for (size_t k = 0; k < n; ++k) {
            const double share = static_cast<double>(k) / static_cast<double>(n);
            rim.push_back({a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share});
        }
    }
    const Point3 up{0, 0, 1};
    std::vector<std::vector<std::uint32_t>> rings;
    for (size_t i = 0; i < path.size(); ++i) {
        const Point3 way = unit(minus(path[std::min(i + 1, path.size() - 1)], path[i > 0 ? i - 1 : 0]));
        Point3 across = unit(cross(way, up));
        if (geometry::length(across) == 0) across = {0, 1, 0};
        const Point3 rise = cross(across, way);
        std::vector<std::uint32_t> ring;
        for (const auto& r : rim) ring.push_back(add(m, plus(path[i], plus(times(across, r[0]), times(rise, r[1])))));
        rings.push_back(ring);
    }
    const size_t n = rim.size();
    for (size_t i = 0; i + 1 < rings.size(); ++i)
        for (size_t k = 0; k < n; ++k) quad(m, rings[i][k], rings[i + 1][k], rings[i + 1][(k + 1) % n], rings[i][(k + 1) % n]);
    // lids as fans: sections are convex about the path
    const std::uint32_t first = add(m, path.front()), last = add(m, path.back());
    for (size_t k = 0; k < n; ++k) {
        m.triangles.push_back({first, rings.front()[k], rings.front()[(k + 1) % n]});
        m.triangles.push_back({last, rings.back()[(k + 1) % n], rings.back()[k]});
    }
}

void addBox(Mesh& m, double step, const Point3& middle, const Point3& size) {
    addBar(m, step, {{middle[0] - size[0] / 2, middle[1], middle[2]}, {middle[0] + size[0] / 2, middle[1], middle[2]}},
           rectangle(size[1], size[2]));
}

void addTurned(Mesh& m, double step, const Point3& middle, const std::vector<std::array<double, 2>>& corners) {
    std::vector<std::array<double, 2>> outline{corners.front()};
    double widest = 0;
    for (size_t i = 1; i < corners.size(); ++i) {
        const auto& a = corners[i - 1];
        const auto& b = corners[i];
        const size_t n = pieces(std::hypot(b[0] - a[0], b[1] - a[1]), step);
        for (size_t k = 1; k <= n; ++k) {
            const double share = static_cast<double>(k) / static_cast<double>(n);
            outline.push_back({a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share});
        }
    }
    for (const auto& o : outline) widest = std::max(widest, o[1]);
    const size_t n = std::max<size_t>(8, pieces(2 * std::numbers::pi * widest, step));
    std::vector<std::vector<std::uint32_t>> rings;
    for (const auto& o : outline) {
        std::vector<std::uint32_t> ring;
        for (size_t k = 0; k < (o[1] > 0 ? n : 1); ++k) {
            const double a = 2 * std::numbers::pi * static_cast<double>(k) / static_cast<double>(n);
            ring.push_back(add(m, {middle[0] + o[1] * std::sin(a), middle[1] + o[0], middle[2] + o[1] * std::cos(a)}));
        }
        rings.push_back(ring);
    }
    for (size_t i = 0; i + 1 < rings.size(); ++i) {
        const auto& a = rings[i];
        const auto& b = rings[i + 1];
        for (size_t k = 0; k < n; ++k) {
            const size_t next = (k + 1) % n;
            if (a.size() > 1 && b.size() > 1)
                quad(m, a[k], a[next], b[next], b[k]);
            else if (b.size() > 1)
                m.triangles.push_back({a[0], b[next], b[k]});
            else if (a.size() > 1)
                m.triangles.push_back({a[k], a[next], b[0]});
        }
    }
}

} // namespace gorvet::sim
