#include "sit/as_cut.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::sit {

using shape::cross;
using shape::dot;
using shape::minus;
using shape::plus;
using shape::Point3;
using shape::times;

namespace {

double toSegment(const Point3& p, const Point3& a, const Point3& b) {
    const Point3 along = minus(b, a);
    const double l2 = dot(along, along);
    const double share = l2 > 0 ? std::clamp(dot(minus(p, a), along) / l2, 0.0, 1.0) : 0;
    return shape::between(p, plus(a, times(along, share)));
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

double enclosed(const std::vector<Point3>& line) { return line.size() < 3 ? 0 : shape::length(newell(line)) / 2; }

std::vector<double> offTheLine(const std::vector<Point3>& line, bool closed, const std::vector<Point3>& measured) {
    std::vector<double> off;
    const bool has_inside = closed && line.size() >= 3;
    const Point3 n = shape::unit(newell(line));
    const Point3 across = std::abs(n[0]) < 0.7 ? Point3{1, 0, 0} : Point3{0, 1, 0};
    const Point3 u = shape::unit(cross(n, across)), v = cross(n, u);
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
            if (const double d = shape::between(open[k], open[0]); d > most) {
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

} // namespace gorvet::sit
