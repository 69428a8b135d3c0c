#include "tape/condition.hpp"
#include "tape/propagate.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::tape {
namespace {

using Pair = FramePoints::Pair;
constexpr size_t most_sections = 40;

Vec3 middle(const Positions& p, const Pair& q) {
    return {(p[q.left].x_mm + p[q.right].x_mm) / 2, (p[q.left].y_mm + p[q.right].y_mm) / 2,
            (p[q.left].z_mm + p[q.right].z_mm) / 2};
}

/// Where a pair stands to the line through the middles of the end pairs.
struct Stand {
    double lead;
    double aside;
    double low;
};
Stand standOf(const Positions& p, const Pair& front, const Pair& rear, const Pair& q) {
    const Vec3 a = middle(p, front);
    const Vec3 b = middle(p, rear);
    const Vec3 m = middle(p, q);
    const double length = std::hypot(b.x_mm - a.x_mm, b.y_mm - a.y_mm);
    const double c = (b.x_mm - a.x_mm) / length;
    const double s = (b.y_mm - a.y_mm) / length;
    const double along = ((m.x_mm - a.x_mm) * c + (m.y_mm - a.y_mm) * s) / length;
    return {(p[q.left].x_mm - p[q.right].x_mm) * c + (p[q.left].y_mm - p[q.right].y_mm) * s,
            -(m.x_mm - a.x_mm) * s + (m.y_mm - a.y_mm) * c, a.z_mm + along * (b.z_mm - a.z_mm) - m.z_mm};
}

double lean(const Positions& p, const Pair& front, const Pair& q) {
    const auto angle = [&p](const Pair& r) {
        return std::atan2(p[r.right].z_mm - p[r.left].z_mm, p[r.right].y_mm - p[r.left].y_mm);
    };
    return std::tan(angle(q) - angle(front)) * std::hypot(p[q.right].x_mm - p[q.left].x_mm, p[q.right].y_mm - p[q.left].y_mm);
}

} // namespace

std::vector<Section> sections(const Solution& s, const FramePoints& frame) {
    const Positions at = positionsOf(s);
    std::vector<Pair> pairs;
    for (const Pair& q : frame.pairs)
        if (q.left >= 0 && q.right >= 0 && s.points[q.left].determined && s.points[q.right].determined) pairs.push_back(q);
    if (pairs.size() < 2) return {};
    std::sort(pairs.begin(), pairs.end(), [&](const Pair& a, const Pair& b) { return middle(at, a).x_mm < middle(at, b).x_mm; });
    const Pair front = pairs.front();
    const Pair rear = pairs.back();
    if (middle(at, rear).x_mm - middle(at, front).x_mm < 1) return {};
    if (pairs.size() > most_sections) {
        std::vector<Pair> some;
        for (size_t i = 0; i < most_sections; ++i) some.push_back(pairs[i * (pairs.size() - 1) / (most_sections - 1)]);
        pairs = std::move(some);
    }
    const auto design = [&](const Pair& q) -> std::optional<double> {
        const auto l = frame.design_heights.find(q.left);
        const auto r = frame.design_heights.find(q.right);
        if (l == frame.design_heights.end() || r == frame.design_heights.end()) return std::nullopt;
        return (l->second + r->second) / 2;
    };
    std::vector<Section> list;
    for (const Pair& q : pairs) {
        Section section;
        section.pair = q;
        section.station_mm = middle(at, q).x_mm;
        std::vector<int> points;
        for (const int p : {front.left, front.right, rear.left, rear.right, q.left, q.right})
            if (std::find(points.begin(), points.end(), p) == points.end()) points.push_back(p);
        const auto deviation = [&](const std::function<double(const Positions&)>& figure) {
            const Propagated p = propagate(s, at, points, figure);
            const build::Figure size{p.value, u95Of(p.sd)};
            return Deviation{size, build::judge(size, Limit::within(frame.tolerance_mm))};
        };
        Deviation none;
        none.verdict = PlanVerdict::Holds;
        const bool end = q == front || q == rear;
        section.lead = deviation([&](const Positions& p) { return standOf(p, front, rear, q).lead; });
        section.lean = q == front ? none : deviation([&](const Positions& p) { return lean(p, front, q); });
        section.aside = end ? none : deviation([&](const Positions& p) { return standOf(p, front, rear, q).aside; });
        if (const auto z0 = design(front), z1 = design(rear), z = design(q); z0 && z1 && z) {
            const double share = (section.station_mm - middle(at, front).x_mm) / (middle(at, rear).x_mm - middle(at, front).x_mm);
            const double drawn = *z0 + share * (*z1 - *z0) - *z;
            section.low = end ? none : deviation([&](const Positions& p) { return standOf(p, front, rear, q).low - drawn; });
        }
        list.push_back(std::move(section));
    }
    return list;
}

} // namespace gorvet::tape
