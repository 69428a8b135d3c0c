#include "shape/triangle.hpp"

#include "shape/distance_kernel.hpp"

#include <algorithm>
#include <limits>

namespace gorvet::shape {

namespace {

Segment sideOf(const Corners& t, size_t k) { return {t[k], t[(k + 1) % 3]}; }

/// The nearest place of the three sides.
Foot footOnSides(const Corners& t, const Point3& p) {
    Foot best;
    double least = std::numeric_limits<double>::infinity();
    for (size_t k = 0; k < 3; ++k) {
        const Segment side = sideOf(t, k);
        const Point3 way = minus(side.to, side.from);
        const double squared = dot(way, way);
        const double share = squared > 0 ? std::clamp(dot(minus(p, side.from), way) / squared, 0.0, 1.0) : 0;
        const Point3 at = share < 1 ? along(side.from, side.to, share) : side.to;
        const double d = between(at, p);
        if (!(d < least)) continue;
        least = d;
        const auto feature = share <= 0 ? 4 + k : share >= 1 ? 4 + (k + 1) % 3 : 1 + k;
        best = {at, static_cast<Feature>(feature)};
    }
    return best;
}

} // namespace

Foot footOn(const Corners& t, const Point3& p) {
    const Point3 ab = minus(t[1], t[0]);
    const Point3 ac = minus(t[2], t[0]);
    const Point3 ap = minus(p, t[0]);
    const Point3 normal = cross(ab, ac);
    const double area = dot(normal, normal);
    if (!(area > kernel::thin * dot(ab, ab) * dot(ac, ac))) return footOnSides(t, p);
    const double d1 = dot(ab, ap), d2 = dot(ac, ap);
    if (d1 <= 0 && d2 <= 0) return {t[0], Feature::Corner0};
    const Point3 bp = minus(p, t[1]);
    const double d3 = dot(ab, bp), d4 = dot(ac, bp);
    if (d3 >= 0 && d4 <= d3) return {t[1], Feature::Corner1};
    const double vc = d1 * d4 - d3 * d2;
    if (vc <= 0 && d1 >= 0 && d3 <= 0) return {along(t[0], t[1], d1 > d3 ? d1 / (d1 - d3) : 0), Feature::Side0};
    const Point3 cp = minus(p, t[2]);
    const double d5 = dot(ab, cp), d6 = dot(ac, cp);
    if (d6 >= 0 && d5 <= d6) return {t[2], Feature::Corner2};
    const double vb = d5 * d2 - d1 * d6;
    if (vb <= 0 && d2 >= 0 && d6 <= 0) return {along(t[0], t[2], d2 > d6 ? d2 / (d2 - d6) : 0), Feature::Side2};
    const double va = d3 * d6 - d5 * d4;
    if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
        const double whole = (d4 - d3) + (d5 - d6);
        return {along(t[1], t[2], whole > 0 ? (d4 - d3) / whole : 0), Feature::Side1};
    }
    // not by shares of the sides: of a sliver they are lost in rounding
    return {minus(p, times(normal, dot(normal, ap) / area)), Feature::Face};
}

Segment nearestOf(const Segment& one, const Segment& two) {
    const Point3 d1 = minus(one.to, one.from);
    const Point3 d2 = minus(two.to, two.from);
    const Point3 r = minus(one.from, two.from);
    const double a = dot(d1, d1), e = dot(d2, d2), f = dot(d2, r);
    double s = 0, t = 0;
    if (a > 0 || e > 0) {
        if (a <= 0) {
            t = std::clamp(f / e, 0.0, 1.0);
        } else {
            const double c = dot(d1, r);
            if (e <= 0) {
                s = std::clamp(-c / a, 0.0, 1.0);
            } else {
                const double b = dot(d1, d2);
                const double denominator = a * e - b * b;
                s = denominator > 1e-14 * a * e ? std::clamp((b * f - c * e) / denominator, 0.0, 1.0) : 0.0;
                t = (b * s + f) / e;
                if (t < 0) {
                    t = 0;
                    s = std::clamp(-c / a, 0.0, 1.0);
                } else if (t > 1) {
                    t = 1;
                    s = std::clamp((b - c) / a, 0.0, 1.0);
                }
            }
        }
    }
    return {along(one.from, one.to, s), along(two.from, two.to, t)};
}

double orientation(const Point3& a, const Point3& b, const Point3& c, const Point3& d) {
    return dot(minus(a, d), cross(minus(b, d), minus(c, d)));
}

namespace {

/// Where a segment goes through a triangle.
std::optional<Point3> through(const Segment& s, const Corners& t) {
    const double from = orientation(t[0], t[1], t[2], s.from);
    const double to = orientation(t[0], t[1], t[2], s.to);
    if ((from > 0) == (to > 0)) return std::nullopt;
    // one that lies in the triangle's plane goes through it nowhere: by rounding alone it would seem to, however far off it is;
    // whether it touches the triangle its sides and corners tell
    constexpr double in_plane_mm = 1e-7;
    const double area = length(cross(minus(t[1], t[0]), minus(t[2], t[0])));
    if (std::max(std::abs(from), std::abs(to)) <= in_plane_mm * area) return std::nullopt;
    const double u = orientation(s.from, s.to, t[0], t[1]);
    const double v = orientation(s.from, s.to, t[1], t[2]);
    const double w = orientation(s.from, s.to, t[2], t[0]);
    if (!((u >= 0 && v >= 0 && w >= 0) || (u <= 0 && v <= 0 && w <= 0))) return std::nullopt;
    return along(s.from, s.to, from / (from - to));
}

} // namespace

Segment nearestOf(const Corners& one, const Corners& two) {
    for (size_t k = 0; k < 3; ++k) {
        if (const auto at = through(sideOf(one, k), two)) return {*at, *at};
        if (const auto at = through(sideOf(two, k), one)) return {*at, *at};
    }
    Segment best;
    double least = std::numeric_limits<double>::infinity();
    const auto offer = [&](const Segment& s) {
        const Point3 d = minus(s.from, s.to);
        if (const double squared = dot(d, d); squared < least) {
            least = squared;
            best = s;
        }
    };
    for (size_t k = 0; k < 3; ++k) {
        offer({one[k], footOn(two, one[k]).at});
        offer({footOn(one, two[k]).at, two[k]});
        for (size_t j = 0; j < 3; ++j) offer(nearestOf(sideOf(one, k), sideOf(two, j)));
    }
    return best;
}

bool meet(const Corners& one, const Corners& two) {
    // all of one on one side of the other's plane, clearly: the usual case, and quickly said
    for (const auto& [a, b] : {std::pair(&one, &two), std::pair(&two, &one)}) {
        const Point3 normal = cross(minus((*a)[1], (*a)[0]), minus((*a)[2], (*a)[0]));
        const double size = length(normal);
        double least = std::numeric_limits<double>::infinity(), most = -least;
        for (const Point3& p : *b) {
            const double d = dot(normal, minus(p, (*a)[0]));
            least = std::min(least, d);
            most = std::max(most, d);
        }
        if (least > 1e-6 * size || most < -1e-6 * size) return false;
    }
    const Segment s = nearestOf(one, two);
    return between(s.from, s.to) <= 1e-6;
}

} // namespace gorvet::shape
