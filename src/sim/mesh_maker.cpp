#include "sim/mesh_maker.hpp"

#include <map>
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

std::vector<std::array<double, 2>> chamfered(double width, double height, double corner) {
    const double w = width / 2, h = height / 2, c = corner;
    return {{-w + c, -h}, {w - c, -h}, {w, -h + c}, {w, h - c}, {w - c, h}, {-w + c, h}, {-w, h - c}, {-w, -h + c}};
}

double outsideRounded(double x, double y, const std::array<double, 2>& from, const std::array<double, 2>& to, double radius) {
    const double dx = std::abs(x - (from[0] + to[0]) / 2) - (to[0] - from[0]) / 2 + radius;
    const double dy = std::abs(y - (from[1] + to[1]) / 2) - (to[1] - from[1]) / 2 + radius;
    return std::hypot(std::max(dx, 0.0), std::max(dy, 0.0)) + std::min(std::max(dx, dy), 0.0) - radius;
}

namespace {

/// A surface in its pieces, which are put into a mesh as they are wanted.
class Grid {
public:
    Grid(Mesh& m, double step, const Surface& f) : m_(m), f_(f) {
        double long_u = 0, long_v = 0;
        for (int i = 0; i < 32; ++i) {
            long_u += geometry::between(f(i / 32.0, 0.5), f((i + 1) / 32.0, 0.5));
            long_v += geometry::between(f(0.5, i / 32.0), f(0.5, (i + 1) / 32.0));
        }
        nu_ = pieces(long_u, step);
        nv_ = pieces(long_v, step);
        for (size_t i = 0; i <= nu_; ++i)
            for (size_t j = 0; j <= nv_; ++j) points_.push_back(f(u(i), v(j)));
        at_.assign(points_.size(), nothing);
    }
    size_t along() const { return nu_; }
    size_t across() const { return nv_; }
    size_t corner(size_t i, size_t j) const { return i * (nv_ + 1) + j; }
    const Point3& point(size_t corner) const { return points_[corner]; }
    std::uint32_t place(size_t corner) {
        if (at_[corner] == nothing) at_[corner] = add(m_, points_[corner]);
        return at_[corner];
    }
    /// Where a function changes its sign between two corners: on the surface itself.
    Point3 crossing(size_t a, size_t b, const std::function<double(const Point3&)>& hole) const {
        const auto at = [this](size_t c) { return std::array<double, 2>{u(c / (nv_ + 1)), v(c % (nv_ + 1))}; };
        std::array<double, 2> kept = at(a), gone = at(b);
        for (int k = 0; k < 30; ++k) {
            const std::array<double, 2> middle{(kept[0] + gone[0]) / 2, (kept[1] + gone[1]) / 2};
            (hole(f_(middle[0], middle[1])) > 0 ? gone : kept) = middle;
        }
        return f_(kept[0], kept[1]);
    }

private:
    static constexpr std::uint32_t nothing = ~std::uint32_t{0};
    double u(size_t i) const { return static_cast<double>(i) / static_cast<double>(nu_); }
    double v(size_t j) const { return static_cast<double>(j) / static_cast<double>(nv_); }
    Mesh& m_;
    const Surface& f_;
    size_t nu_ = 0, nv_ = 0;
    std::vector<Point3> points_;
    std::vector<std::uint32_t> at_;
};

} // namespace

void addGrid(Mesh& m, double step, const Surface& f) {
    Grid g(m, step, f);
    for (size_t i = 0; i < g.along(); ++i)
        for (size_t j = 0; j < g.across(); ++j)
            quad(m, g.place(g.corner(i, j)), g.place(g.corner(i + 1, j)), g.place(g.corner(i + 1, j + 1)),
                 g.place(g.corner(i, j + 1)));
}

void addTrimmed(Mesh& m, double step, const Surface& f, const std::function<double(const Point3&)>& hole,
                const std::function<Point3(const Point3&)>& lip) {
    Grid g(m, step, f);
    std::vector<bool> gone;
    for (size_t c = 0; c < (g.along() + 1) * (g.across() + 1); ++c) gone.push_back(hole(g.point(c)) > 0);
    std::map<std::pair<size_t, size_t>, std::uint32_t> edge; // from a corner that is kept to one that is not
    const auto crossing = [&](size_t kept, size_t away) {
        const auto [it, fresh] = edge.try_emplace({kept, away}, 0);
        if (fresh) it->second = add(m, g.crossing(kept, away, hole));
        return it->second;
    };
    std::map<std::uint32_t, std::uint32_t> lips;
    const auto lipOf = [&](std::uint32_t of) {
        const auto [it, fresh] = lips.try_emplace(of, 0);
        if (fresh) it->second = add(m, lip(m.points[of]));
        return it->second;
    };
    const auto trimmed = [&](const std::array<size_t, 3>& corners) {
        std::vector<std::uint32_t> rim;
        std::vector<std::uint32_t> cut;
        for (size_t k = 0; k < 3; ++k) {
            const size_t a = corners[k], b = corners[(k + 1) % 3];
            if (!gone[a]) rim.push_back(g.place(a));
            if (gone[a] == gone[b]) continue;
            rim.push_back(gone[b] ? crossing(a, b) : crossing(b, a));
            cut.push_back(rim.back());
        }
        for (size_t k = 2; k < rim.size(); ++k) m.triangles.push_back({rim[0], rim[k - 1], rim[k]});
        if (lip && cut.size() == 2) quad(m, cut[1], cut[0], lipOf(cut[0]), lipOf(cut[1]));
    };
    for (size_t i = 0; i < g.along(); ++i)
        for (size_t j = 0; j < g.across(); ++j) {
            const size_t a = g.corner(i, j), b = g.corner(i + 1, j), c = g.corner(i + 1, j + 1), d = g.corner(i, j + 1);
            trimmed({a, b, c});
            trimmed({a, c, d});
        }
}

void addTube(Mesh& m, double step, const std::vector<Point3>& path, double radius) {
    std::vector<std::array<double, 2>> round;
    for (int k = 0; k < 14; ++k) {
        const double a = 2 * std::numbers::pi * k / 14;
        round.push_back({radius * std::cos(a), radius * std::sin(a)});
    }
    addBar(m, step, path, round);
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

void addTurnedAlong(Mesh& m, double step, const Point3& middle, const std::vector<std::array<double, 2>>& outline) {
    Mesh turned;
    addTurned(turned, step, {}, outline);
    for (Point3& p : turned.points) p = plus(middle, {p[1], -p[0], p[2]}); // a quarter turn: y comes to lie along x
    append(m, turned);
}

} // namespace gorvet::sim
