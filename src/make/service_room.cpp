#include "make/service_room.hpp"

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
using geometry::Vec3;

namespace {

constexpr double whole_turn = 2 * std::numbers::pi;
constexpr double hair_mm = 1e-9;

/// Shares of a segment at which it enters and leaves a circle about the origin; none when it stays outside.
bool throughCircle(double ax, double ay, double bx, double by, double r, double& from, double& to) {
    const double dx = bx - ax, dy = by - ay, dd = dx * dx + dy * dy, ad = ax * dx + ay * dy, c = ax * ax + ay * ay - r * r;
    if (dd < hair_mm * hair_mm) {
        from = 0;
        to = 1;
        return c <= 0;
    }
    const double under = ad * ad - dd * c;
    if (under < 0) return false;
    from = std::max(0.0, (-ad - std::sqrt(under)) / dd);
    to = std::min(1.0, (-ad + std::sqrt(under)) / dd);
    return from <= to;
}

bool holdsOrigin(const std::vector<std::array<double, 2>>& p) {
    bool inside = false;
    for (std::size_t i = 0, j = p.size() - 1; i < p.size(); j = i++)
        if ((p[i][1] > 0) != (p[j][1] > 0) && 0 < (p[j][0] - p[i][0]) * (0 - p[i][1]) / (p[j][1] - p[i][1]) + p[i][0])
            inside = !inside;
    return inside;
}

} // namespace

AxisRoom::AxisRoom(const Vec3& origin, const Vec3& along, double reach_mm, double length_mm)
    : origin_(origin), along_(along), reach_(reach_mm), length_(length_mm) {
    a_ = std::abs(along.z_mm) < 0.9 ? Vec3{0, 0, 1} : Vec3{1, 0, 0};
    a_ = unit(minus(a_, times(along, dot(a_, along))));
    b_ = cross(along, a_);
}

AxisRoom::Local AxisRoom::local(const Vec3& p) const {
    const Vec3 q = minus(p, origin_);
    return {dot(q, a_), dot(q, b_), dot(q, along_)};
}

Vec3 AxisRoom::direction(double angle) const { return plus(times(a_, std::cos(angle)), times(b_, std::sin(angle))); }

void AxisRoom::add(const shape::Mesh& mesh, int body, double slack_mm, bool closed) {
    // a hair off the axis, so that no side of a triangle lies on it
    constexpr double off_a = 1.7e-5, off_b = 2.3e-5;
    std::vector<Local> at;
    at.reserve(mesh.points.size());
    for (const auto& p : mesh.points) at.push_back(local(p));
    for (const shape::Triangle& t : mesh.triangles) {
        const Near n{{at[t[0]], at[t[1]], at[t[2]]}, body, slack_mm};
        const auto [low, high] = std::minmax({n.corners[0].h, n.corners[1].h, n.corners[2].h});
        if (closed && high > 0) {
            const auto side = [&](int i, int j) {
                const Local &p = n.corners[static_cast<std::size_t>(i)], &q = n.corners[static_cast<std::size_t>(j)];
                return (q.a - p.a) * (off_b - p.b) - (q.b - p.b) * (off_a - p.a);
            };
            const double u = side(1, 2), v = side(2, 0), w = side(0, 1);
            if ((u > 0 && v > 0 && w > 0) || (u < 0 && v < 0 && w < 0))
                crossings_.push_back({(u * n.corners[0].h + v * n.corners[1].h + w * n.corners[2].h) / (u + v + w), body});
        }
        if (high < 0 || low > length_) continue;
        const auto [a0, a1] = std::minmax({n.corners[0].a, n.corners[1].a, n.corners[2].a});
        const auto [b0, b1] = std::minmax({n.corners[0].b, n.corners[1].b, n.corners[2].b});
        if (a0 > reach_ || a1 < -reach_ || b0 > reach_ || b1 < -reach_) continue;
        near_.push_back(n);
    }
}

AxisRoom::Polygon AxisRoom::between(const Near& n, double from, double until) {
    Polygon p(n.corners.begin(), n.corners.end());
    for (const auto& [level, keeps_above] : {std::pair{from, true}, {until, false}}) {
        Polygon kept;
        for (std::size_t k = 0; k < p.size(); ++k) {
            const Local &here = p[k], &next = p[(k + 1) % p.size()];
            const double u = keeps_above ? here.h - level : level - here.h, v = keeps_above ? next.h - level : level - next.h;
            if (u >= 0) kept.push_back(here);
            if ((u < 0) != (v < 0)) {
                const double s = u / (u - v);
                kept.push_back({here.a + s * (next.a - here.a), here.b + s * (next.b - here.b), level});
            }
        }
        p = std::move(kept);
        if (p.empty()) break;
    }
    return p;
}

AxisRoom::Free AxisRoom::free(double radius, double from, double until, const std::vector<char>& gone) const {
    Free best{until - from, -1};
    const auto take = [&](double h, int body) {
        if (h - from < best.length_mm) best = {std::max(0.0, h - from), body};
    };
    for (const Near& n : near_) {
        if (gone[static_cast<std::size_t>(n.body)]) continue;
        const Polygon p = between(n, from + n.slack_mm, until);
        if (p.empty()) continue;
        // the lowest place of a flat piece within a circle: on one of its sides, or on the circle where it falls
        for (std::size_t k = 0; k < p.size(); ++k) {
            const Local &here = p[k], &next = p[(k + 1) % p.size()];
            double s = 0, t = 0;
            if (throughCircle(here.a, here.b, next.a, next.b, radius, s, t))
                take(std::min(here.h + s * (next.h - here.h), here.h + t * (next.h - here.h)), n.body);
        }
        const Local &c0 = n.corners[0], &c1 = n.corners[1], &c2 = n.corners[2];
        const Vec3 normal = cross({c1.a - c0.a, c1.b - c0.b, c1.h - c0.h}, {c2.a - c0.a, c2.b - c0.b, c2.h - c0.h});
        if (std::abs(normal.z_mm) < hair_mm) continue; // upright: its sides have it
        const double ga = -normal.x_mm / normal.z_mm, gb = -normal.y_mm / normal.z_mm, g = std::hypot(ga, gb);
        const double a = g > 0 ? -radius * ga / g : 0, b = g > 0 ? -radius * gb / g : 0;
        std::vector<std::array<double, 2>> flat;
        for (const Local& q : p) flat.push_back({q.a - a, q.b - b});
        if (holdsOrigin(flat)) take(c0.h + ga * (a - c0.a) + gb * (b - c0.b), n.body);
    }
    // wholly inside of something closed
    for (std::size_t body = 0; body < gone.size() && best.length_mm > 0; ++body) {
        if (gone[body]) continue;
        const auto above = std::count_if(crossings_.begin(), crossings_.end(),
                                         [&](const Crossing& c) { return c.body == static_cast<int>(body) && c.h > from; });
        if (above % 2 == 1) take(from, static_cast<int>(body));
    }
    return best;
}

AxisRoom::Swing AxisRoom::swing(double ring, double half_wide, double reach, double from, double until,
                                const std::vector<char>& gone) const {
    Swing s;
    if (const Free about = free(ring, from, until, gone); about.by >= 0) {
        s.by.push_back(about.by);
        return s;
    }
    std::vector<Arc> taken;
    const auto note = [&](int body) {
        if (std::find(s.by.begin(), s.by.end(), body) == s.by.end()) s.by.push_back(body);
    };
    for (const Near& n : near_) {
        if (gone[static_cast<std::size_t>(n.body)]) continue;
        const Polygon p = between(n, from + n.slack_mm, until);
        if (p.empty()) continue;
        // what of it lies within reach: its corners there, and where its sides cross the circle. It does not reach the axis, so
        // that it is seen under less than half a turn, and its outline widened by half a strip by circles about these
        double base = 0, least = 0, most = 0;
        bool any = false, round = false;
        const auto see = [&](double a, double b) {
            const double away = std::hypot(a, b), wide = std::asin(std::min(1.0, half_wide / std::max(away, half_wide)));
            const double at = std::atan2(b, a);
            if (!any) {
                base = at;
                least = -wide;
                most = wide;
                any = true;
                return;
            }
            const double turn = std::remainder(at - base, whole_turn);
            least = std::min(least, turn - wide);
            most = std::max(most, turn + wide);
        };
        for (std::size_t k = 0; k < p.size(); ++k) {
            const Local &here = p[k], &next = p[(k + 1) % p.size()];
            double u = 0, v = 0;
            if (!throughCircle(here.a, here.b, next.a, next.b, reach, u, v)) continue;
            for (const double share : {u, v}) see(here.a + share * (next.a - here.a), here.b + share * (next.b - here.b));
        }
        if (!any) {
            // all of its sides beyond reach: it lies beyond, or all round
            std::vector<std::array<double, 2>> flat;
            for (const Local& q : p) flat.push_back({q.a, q.b});
            round = holdsOrigin(flat);
            if (!round) continue;
        }
        note(n.body);
        if (round || most - least >= whole_turn) {
            s.arcs.clear();
            s.widest_rad = 0;
            return s;
        }
        double begin = std::fmod(base + least, whole_turn);
        if (begin < 0) begin += whole_turn;
        taken.emplace_back(begin, begin + (most - least));
    }
    std::vector<Arc> cut;
    for (const auto& [begin, end] : taken) {
        cut.emplace_back(begin, std::min(end, whole_turn));
        if (end > whole_turn) cut.emplace_back(0, end - whole_turn);
    }
    std::sort(cut.begin(), cut.end());
    double reached = 0;
    for (const auto& [begin, end] : cut) {
        if (begin > reached) s.arcs.emplace_back(reached, begin);
        reached = std::max(reached, end);
    }
    if (reached < whole_turn) s.arcs.emplace_back(reached, whole_turn);
    if (s.arcs.size() > 1 && s.arcs.front().first == 0 && s.arcs.back().second == whole_turn) { // one, through the beginning
        s.arcs.back().second += s.arcs.front().second;
        s.arcs.erase(s.arcs.begin());
    }
    for (const auto& [begin, end] : s.arcs) s.widest_rad = std::max(s.widest_rad, end - begin);
    return s;
}

} // namespace gorvet::make
