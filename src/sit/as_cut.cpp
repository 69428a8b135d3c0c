#include "sit/as_cut.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <unordered_map>
#include <utility>

namespace gorvet::sit {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using shape::Point3;

namespace {

double toSegment(const Point3& p, const Point3& a, const Point3& b) {
    const Point3 along = minus(b, a);
    const double l2 = dot(along, along);
    const double share = l2 > 0 ? std::clamp(dot(minus(p, a), along) / l2, 0.0, 1.0) : 0;
    return geometry::between(p, plus(a, times(along, share)));
}

Point3 newell(const std::vector<Point3>& line) {
    Point3 n{};
    for (size_t k = 0; k < line.size(); ++k) n = plus(n, cross(line[k], line[(k + 1) % line.size()]));
    return n;
}

void keep(const std::vector<Point3>& line, size_t from, size_t to, double within, std::vector<bool>& kept) {
    size_t worst = from;
    double most = within;
    for (size_t k = from + 1; k < to; ++k)
        if (const double d = toSegment(line[k], line[from], line[to]); d > most) {
            most = d;
            worst = k;
        }
    if (worst == from) return;
    kept[worst] = true;
    keep(line, from, worst, within, kept);
    keep(line, worst, to, within, kept);
}

} // namespace

double enclosed(const std::vector<Point3>& line) { return line.size() < 3 ? 0 : geometry::length(newell(line)) / 2; }

std::vector<double> offTheLine(const std::vector<Point3>& line, bool closed, const std::vector<Point3>& measured) {
    std::vector<double> off;
    const bool has_inside = closed && line.size() >= 3;
    const Point3 n = geometry::unit(newell(line));
    const Point3 across = std::abs(n[0]) < 0.7 ? Point3{1, 0, 0} : Point3{0, 1, 0};
    const Point3 u = geometry::unit(cross(n, across)), v = cross(n, u);
    for (const Point3& p : measured) {
        double d = INFINITY;
        for (size_t k = 0; k + (closed ? 0 : 1) < line.size(); ++k)
            d = std::min(d, toSegment(p, line[k], line[(k + 1) % line.size()]));
        if (has_inside) {
            // how often a ray along u crosses the line
            bool in = false;
            const double px = dot(p, u), py = dot(p, v);
            for (size_t k = 0; k < line.size(); ++k) {
                const Point3 &a = line[k], &b = line[(k + 1) % line.size()];
                const double ay = dot(a, v), by = dot(b, v);
                if ((ay > py) == (by > py)) continue;
                const double x = dot(a, u) + (py - ay) / (by - ay) * (dot(b, u) - dot(a, u));
                if (x > px) in = !in;
            }
            if (in) d = -d;
        }
        off.push_back(d);
    }
    return off;
}

std::vector<Point3> fewerCorners(const std::vector<Point3>& line, bool closed, double within) {
    if (line.size() < 4) return line;
    std::vector<Point3> open = line;
    if (closed) open.push_back(line.front());
    std::vector<bool> kept(open.size(), false);
    kept.front() = kept.back() = true;
    // a closed line has no chord: it is halved at the place farthest from its start
    size_t half = open.size() - 1;
    if (closed) {
        double most = 0;
        for (size_t k = 1; k + 1 < open.size(); ++k)
            if (const double d = geometry::between(open[k], open[0]); d > most) {
                most = d;
                half = k;
            }
        kept[half] = true;
        keep(open, 0, half, within, kept);
    }
    keep(open, closed ? half : 0, open.size() - 1, within, kept);
    std::vector<Point3> out;
    for (size_t k = 0; k + (closed ? 1 : 0) < open.size(); ++k)
        if (kept[k]) out.push_back(open[k]);
    return out;
}

double leftOf(const std::vector<Point3>& line, bool closed, const Point3& normal, const Point3& p) {
    double nearest = INFINITY, off = 0;
    for (size_t k = 0; k + (closed ? 0 : 1) < line.size(); ++k) {
        const Point3 &a = line[k], &b = line[(k + 1) % line.size()];
        const double d = toSegment(p, a, b);
        const double o = dot(cross(normal, minus(b, a)), minus(p, a));
        // at a corner both sides are as near: the one it stands off further from tells
        if (d < nearest - 1e-9 || (d < nearest + 1e-9 && std::abs(o) > std::abs(off))) {
            nearest = std::min(nearest, d);
            off = o;
        }
    }
    return off;
}

namespace {

/// The triangles beside a line, and which side of it they are on.
class Banks {
public:
    enum Side : std::uint8_t { Left, Right };
    Banks(const Ready& sheet, std::vector<Point3> given, bool closed) : sheet_(sheet), line_(std::move(given)) {
        if (closed) line_.push_back(line_.front());
        const std::vector<Point3>& line = line_;
        constexpr double sample_mm = 3, beyond_mm = 40;
        const auto along = [&](const Point3& a, const Point3& b) {
            const int n = std::max(1, static_cast<int>(geometry::between(a, b) / sample_mm));
            for (int i = 0; i <= n; ++i)
                meet(sheet.tree->nearest(geometry::along(a, b, static_cast<double>(i) / n), 1e6).triangle);
        };
        for (size_t k = 0; k + 1 < line.size(); ++k) along(line[k], line[k + 1]);
        widen();
        // and on beyond its ends, where they stop short of the edge: only as a bank
        const auto beyond = [&](const Point3& from, const Point3& end) {
            along(end, plus(end, times(geometry::unit(minus(end, from)), beyond_mm)));
        };
        beyond_from_ = panels_.size();
        if (closed) return;
        beyond(line[1], line[0]);
        beyond(line[line.size() - 2], line.back());
        widen();
    }
    std::unordered_map<std::uint32_t, Side> sides;
    /// Those beside the line itself, panel by panel.
    std::vector<std::vector<std::uint32_t>> panels() const {
        std::vector<std::vector<std::uint32_t>> list;
        std::unordered_map<std::uint32_t, bool> own;
        for (size_t i = 0; i < beyond_from_; ++i) own[panels_[i]] = false;
        for (size_t i = 0; i < beyond_from_; ++i) {
            if (std::exchange(own[panels_[i]], true)) continue;
            list.push_back({panels_[i]});
            auto& panel = list.back();
            for (size_t k = 0; k < panel.size(); ++k)
                for (size_t e = 0; e < 3; ++e)
                    if (const auto next = own.find(sheet_.sides->neighbour(panel[k], e)); next != own.end() && !next->second) {
                        next->second = true;
                        panel.push_back(next->first);
                    }
        }
        return list;
    }

private:
    void meet(std::uint32_t t) {
        if (t == shape::kernel::nothing || sides.contains(t)) return;
        sides[t] = sideOf(t);
        panels_.push_back(t);
    }
    /// Two rings, so that no way leads past.
    void widen() {
        for (int ring = 0; ring < 2; ++ring)
            for (size_t i = 0, n = panels_.size(); i < n; ++i)
                for (size_t k = 0; k < 3; ++k) meet(sheet_.sides->neighbour(panels_[i], k));
    }
    Side sideOf(std::uint32_t t) const {
        const shape::Corners c = shape::cornersOf(*sheet_.mesh, t);
        const Point3 normal = cross(minus(c[1], c[0]), minus(c[2], c[0]));
        const Point3 middle = times(plus(c[0], plus(c[1], c[2])), 1.0 / 3);
        return leftOf(line_, false, normal, middle) > 0 ? Left : Right;
    }
    const Ready& sheet_;
    std::vector<Point3> line_;
    std::vector<std::uint32_t> panels_;
    size_t beyond_from_ = 0;
};

struct Flooded {
    std::vector<std::uint32_t> triangles;
    double area_mm2 = 0;
};
/// What hangs together with one bank, as far as the other.
Flooded flooded(const Ready& sheet, const Banks& banks, const std::vector<std::uint32_t>& panel, Banks::Side side, double most) {
    const shape::Mesh& m = *sheet.mesh;
    Flooded f;
    std::vector<bool> taken(m.triangles.size(), false);
    const auto take = [&](std::uint32_t t) {
        if (t == shape::kernel::nothing || taken[t]) return;
        if (const auto s = banks.sides.find(t); s != banks.sides.end() && s->second != side) return;
        taken[t] = true;
        const shape::Corners c = shape::cornersOf(m, t);
        f.area_mm2 += geometry::length(cross(minus(c[1], c[0]), minus(c[2], c[0]))) / 2;
        f.triangles.push_back(t);
    };
    for (const std::uint32_t t : panel) take(t);
    for (size_t i = 0; i < f.triangles.size() && f.area_mm2 <= most; ++i)
        for (size_t k = 0; k < 3; ++k) take(sheet.sides->neighbour(f.triangles[i], k));
    return f;
}

} // namespace

std::vector<std::uint32_t> takenOut(const Ready& sheet, const std::vector<Point3>& line, bool closed, double area_mm2) {
    if (line.size() < 2 || sheet.mesh->triangles.empty()) return {};
    const double most = 1.6 * area_mm2 + 5000, least = 0.5 * area_mm2 - 5000;
    const Banks banks(sheet, line, closed);
    // of each panel one side or the other, or none where both are too much; few panels, so all ways are tried
    std::vector<std::array<Flooded, 2>> panels;
    for (const auto& panel : banks.panels()) {
        std::array<Flooded, 2> both{flooded(sheet, banks, panel, Banks::Left, most),
                                    flooded(sheet, banks, panel, Banks::Right, most)};
        if (both[0].area_mm2 > most && both[1].area_mm2 > most) continue; // touched in passing
        if (panels.size() == 8) return {};
        panels.push_back(std::move(both));
    }
    size_t best = 0;
    double nearest = INFINITY;
    for (size_t way = 0; way < size_t{1} << panels.size(); ++way) {
        double sum = 0;
        for (size_t p = 0; p < panels.size(); ++p) sum += panels[p][way >> p & 1U].area_mm2;
        if (sum > most || sum < least || std::abs(sum - area_mm2) >= nearest) continue;
        nearest = std::abs(sum - area_mm2);
        best = way;
    }
    std::vector<std::uint32_t> found;
    if (nearest == INFINITY) return found;
    for (size_t p = 0; p < panels.size(); ++p) {
        const auto& side = panels[p][best >> p & 1U].triangles;
        found.insert(found.end(), side.begin(), side.end());
    }
    std::sort(found.begin(), found.end());
    found.erase(std::unique(found.begin(), found.end()), found.end());
    return found;
}

} // namespace gorvet::sit
