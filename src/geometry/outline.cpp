#include "geometry/outline.hpp"

#include "dense/dense.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace gorvet::geometry {

namespace {

double turns(const Flat& o, const Flat& a, const Flat& b) {
    return (a.first - o.first) * (b.second - o.second) - (a.second - o.second) * (b.first - o.first);
}
double apart(const Flat& a, const Flat& b) { return std::hypot(a.first - b.first, a.second - b.second); }

/// Whether two stretches meet, ends included.
bool meet(const Flat& a, const Flat& b, const Flat& c, const Flat& d) {
    const double at_c = turns(a, b, c), at_d = turns(a, b, d), at_a = turns(c, d, a), at_b = turns(c, d, b);
    if (((at_c > 0) != (at_d > 0) || at_c == 0 || at_d == 0) && ((at_a > 0) != (at_b > 0) || at_a == 0 || at_b == 0)) {
        // all in one line: only where they reach each other
        if (at_c != 0 || at_d != 0) return true;
        const auto over = [](double p, double q, double r, double s) {
            return std::max(std::min(p, q), std::min(r, s)) <= std::min(std::max(p, q), std::max(r, s));
        };
        return over(a.first, b.first, c.first, d.first) && over(a.second, b.second, c.second, d.second);
    }
    return false;
}

} // namespace

Outline hullOf(std::vector<Flat> p) {
    std::sort(p.begin(), p.end());
    p.erase(std::unique(p.begin(), p.end()), p.end());
    if (p.size() < 3) return p;
    Outline hull;
    for (int pass = 0; pass < 2; ++pass) {
        const std::size_t begins = hull.size();
        for (const Flat& q : p) {
            while (hull.size() >= begins + 2 && turns(hull[hull.size() - 2], hull.back(), q) <= 0) hull.pop_back();
            hull.push_back(q);
        }
        hull.pop_back();
        std::reverse(p.begin(), p.end());
    }
    return hull;
}

Outline hullRound(const std::vector<Flat>& places, double edge, int steps) {
    std::vector<Flat> round;
    // flat pieces that touch the circle from outside: nowhere is less steel than asked
    const double reach = edge / std::cos(std::numbers::pi / steps);
    for (const Flat& p : places)
        for (int s = 0; s < steps; ++s)
            round.emplace_back(p.first + reach * std::cos(2 * std::numbers::pi * s / steps),
                               p.second + reach * std::sin(2 * std::numbers::pi * s / steps));
    return hullOf(std::move(round));
}

double areaOf(const Outline& o) {
    double twice = 0;
    for (std::size_t k = 0; k < o.size(); ++k) {
        const Flat &one = o[k], &next = o[(k + 1) % o.size()];
        twice += one.first * next.second - next.first * one.second;
    }
    return twice / 2;
}

double perimeterOf(const Outline& o) {
    double sum = 0;
    for (std::size_t k = 0; k < o.size(); ++k) sum += apart(o[k], o[(k + 1) % o.size()]);
    return sum;
}

bool isSimple(const Outline& o) {
    const std::size_t n = o.size();
    if (n < 3) return false;
    for (std::size_t i = 0; i < n; ++i) {
        if (apart(o[i], o[(i + 1) % n]) < 1e-9) return false;
        for (std::size_t j = i + 1; j < n; ++j) {
            if (j == i + 1 || (i == 0 && j == n - 1)) { // neighbours share a corner, and nothing more
                const Flat &shared = j == i + 1 ? o[j] : o[0], &before = j == i + 1 ? o[i] : o[n - 1],
                           &after = j == i + 1 ? o[(j + 1) % n] : o[1];
                const double along = (before.first - shared.first) * (after.first - shared.first) +
                                     (before.second - shared.second) * (after.second - shared.second);
                if (turns(shared, before, after) == 0 && along > 0) return false;
                continue;
            }
            if (meet(o[i], o[(i + 1) % n], o[j], o[(j + 1) % n])) return false;
        }
    }
    return true;
}

bool isInside(const Outline& o, const Flat& p) {
    bool inside = false;
    for (std::size_t i = 0, j = o.size() - 1; i < o.size(); j = i++)
        if ((o[i].second > p.second) != (o[j].second > p.second) &&
            p.first < (o[j].first - o[i].first) * (p.second - o[i].second) / (o[j].second - o[i].second) + o[i].first)
            inside = !inside;
    return inside;
}

double fromEdge(const Outline& o, const Flat& p) {
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t k = 0; k < o.size(); ++k) {
        const Flat &a = o[k], &b = o[(k + 1) % o.size()];
        const double dx = b.first - a.first, dy = b.second - a.second, square = dx * dx + dy * dy;
        const double share =
            square > 0 ? std::clamp(((p.first - a.first) * dx + (p.second - a.second) * dy) / square, 0.0, 1.0) : 0;
        least = std::min(least, apart(p, {a.first + share * dx, a.second + share * dy}));
    }
    return least;
}

Plane planeOf(const std::vector<Vec3>& at) {
    Eigen::MatrixXd m(static_cast<Eigen::Index>(at.size()), 3);
    for (std::size_t k = 0; k < at.size(); ++k) m.row(static_cast<Eigen::Index>(k)) << at[k].x_mm, at[k].y_mm, at[k].z_mm;
    const Eigen::RowVector3d middle = m.colwise().mean();
    m.rowwise() -= middle;
    const Eigen::Vector3d normal = dense::singular(m, dense::Sides::Right).right.col(2);
    return {{middle.x(), middle.y(), middle.z()}, {normal.x(), normal.y(), normal.z()}};
}

} // namespace gorvet::geometry
