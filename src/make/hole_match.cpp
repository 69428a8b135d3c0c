#include "make/hole_match.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace gorvet::make {

using geometry::Flat;

namespace {

double apart(const Flat& a, const Flat& b) { return std::hypot(a.first - b.first, a.second - b.second); }

Flat turnedBy(const Flat& p, double angle) {
    const double c = std::cos(angle), s = std::sin(angle);
    return {c * p.first - s * p.second, s * p.first + c * p.second};
}

/// From each place to its hole, the pattern turned only.
std::vector<Flat> offOf(const std::vector<Flat>& pattern, const std::vector<Flat>& places, double angle) {
    std::vector<Flat> off;
    for (std::size_t k = 0; k < pattern.size(); ++k) {
        const Flat p = turnedBy(pattern[k], angle), &q = places[k];
        off.emplace_back(p.first - q.first, p.second - q.second);
    }
    return off;
}

} // namespace

RoundOf leastCircle(const std::vector<Flat>& all) {
    RoundOf best;
    if (all.empty()) return best;
    best = {all.front(), 0};
    constexpr double slack = 1e-9;
    const auto holds = [&](const RoundOf& c) {
        return std::all_of(all.begin(), all.end(), [&](const Flat& p) { return apart(p, c.middle) <= c.radius_mm + slack; });
    };
    if (holds(best)) return best;
    best.radius_mm = 1e18;
    const auto consider = [&](const RoundOf& c) {
        if (c.radius_mm < best.radius_mm && holds(c)) best = c;
    };
    for (std::size_t i = 0; i < all.size(); ++i)
        for (std::size_t j = 0; j < i; ++j) {
            const Flat &a = all[i], &b = all[j];
            consider({{(a.first + b.first) / 2, (a.second + b.second) / 2}, apart(a, b) / 2});
            for (std::size_t k = 0; k < j; ++k) { // through three
                const Flat& c = all[k];
                const double bx = b.first - a.first, by = b.second - a.second, cx = c.first - a.first, cy = c.second - a.second;
                const double twice = 2 * (bx * cy - by * cx);
                if (std::abs(twice) < 1e-12) continue;
                const double bb = bx * bx + by * by, cc = cx * cx + cy * cy;
                const double x = (cy * bb - by * cc) / twice, y = (bx * cc - cx * bb) / twice;
                consider({{a.first + x, a.second + y}, std::hypot(x, y)});
            }
        }
    return best;
}

Flat HoleMatch::placed(const Flat& p) const {
    const Flat q = turnedBy(over ? Flat{p.first, -p.second} : p, turned_rad);
    return {q.first + shifted.first, q.second + shifted.second};
}

HoleMatch layHoles(const std::vector<Flat>& pattern, const std::vector<Flat>& places, bool over) {
    std::vector<Flat> own = pattern;
    if (over)
        for (Flat& p : own) p.second = -p.second;
    // by least squares
    const auto n = static_cast<double>(own.size());
    Flat a{0, 0}, b{0, 0};
    for (std::size_t k = 0; k < own.size(); ++k) {
        a = {a.first + own[k].first / n, a.second + own[k].second / n};
        b = {b.first + places[k].first / n, b.second + places[k].second / n};
    }
    double dots = 0, crosses = 0;
    for (std::size_t k = 0; k < own.size(); ++k) {
        const Flat p{own[k].first - a.first, own[k].second - a.second}, q{places[k].first - b.first, places[k].second - b.second};
        dots += p.first * q.first + p.second * q.second;
        crosses += p.first * q.second - p.second * q.first;
    }
    const double first = std::atan2(crosses, dots);
    const auto worst = [&](double angle) { return leastCircle(offOf(own, places, angle)).radius_mm; };
    // about it in steps, then round the best of them ever closer
    double middle = first, step = 0.02, least = worst(first);
    for (double d = -0.2; d <= 0.2; d += step)
        if (const double w = worst(first + d); w < least) {
            least = w;
            middle = first + d;
        }
    while (step > 1e-9) {
        step /= 2;
        for (const double d : {-step, step})
            if (const double w = worst(middle + d); w < least) {
                least = w;
                middle += d;
                break;
            }
    }
    HoleMatch m;
    const auto off = offOf(own, places, middle);
    const RoundOf c = leastCircle(off);
    m.over = over;
    m.turned_rad = middle;
    m.shifted = {-c.middle.first, -c.middle.second};
    m.worst_mm = c.radius_mm;
    for (const Flat& o : off) m.off.emplace_back(o.first - c.middle.first, o.second - c.middle.second);
    for (std::size_t k = 0; k < own.size(); ++k) m.onto.push_back(k);
    return m;
}

HoleMatch matchHoles(const std::vector<Flat>& pattern, const std::vector<Flat>& places, bool may_turn_over) {
    HoleMatch best;
    best.worst_mm = 1e18;
    for (const bool over : {false, true}) {
        if (over && !may_turn_over) continue;
        std::vector<std::size_t> onto(places.size());
        std::iota(onto.begin(), onto.end(), std::size_t{0});
        do {
            std::vector<Flat> ordered;
            for (const std::size_t k : onto) ordered.push_back(places[k]);
            HoleMatch m = layHoles(pattern, ordered, over);
            if (m.worst_mm >= best.worst_mm - 1e-6) continue;
            best = std::move(m);
            best.onto = onto;
        } while (std::next_permutation(onto.begin(), onto.end()));
    }
    return best;
}

} // namespace gorvet::make
