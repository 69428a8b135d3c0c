// The order in which a round of readings is walked.
#include "tape/next_reading.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::tape {

std::vector<size_t> walkingOrder(const Solution& s, const std::vector<RankedReading>& readings) {
    struct Stand {
        Vec3 a;
        Vec3 b;
    };
    std::vector<Stand> stands;
    for (const RankedReading& r : readings)
        stands.push_back({s.points[r.from].position, s.points[r.to >= 0 ? r.to : r.from].position});
    const auto far = [](const Vec3& p, const Vec3& q) { return std::hypot(p.x_mm - q.x_mm, p.y_mm - q.y_mm); };
    // both walk at the same time, and may change ends
    const auto way = [&](size_t i, size_t j) {
        const Stand& p = stands[i];
        const Stand& q = stands[j];
        return std::min(std::max(far(p.a, q.a), far(p.b, q.b)), std::max(far(p.a, q.b), far(p.b, q.a)));
    };
    std::vector<size_t> order;
    std::vector<char> taken(stands.size(), 0);
    for (size_t k = 0; k < stands.size(); ++k) {
        size_t best = stands.size();
        double least = 0;
        for (size_t i = 0; i < stands.size(); ++i) {
            if (taken[i]) continue;
            const double d = order.empty() ? std::min(stands[i].a.x_mm, stands[i].b.x_mm) : way(order.back(), i);
            if (best == stands.size() || d < least) {
                best = i;
                least = d;
            }
        }
        taken[best] = 1;
        order.push_back(best);
    }
    for (bool better = true; better;) {
        better = false;
        for (size_t i = 1; i + 1 < order.size(); ++i)
            for (size_t j = i + 1; j < order.size(); ++j) {
                const double last = j + 1 < order.size() ? way(order[j], order[j + 1]) : 0;
                const double swapped = way(order[i - 1], order[j]) + (j + 1 < order.size() ? way(order[i], order[j + 1]) : 0);
                if (swapped < way(order[i - 1], order[i]) + last - 1e-6) {
                    std::reverse(order.begin() + static_cast<std::ptrdiff_t>(i),
                                 order.begin() + static_cast<std::ptrdiff_t>(j) + 1);
                    better = true;
                }
            }
    }
    return order;
}

} // namespace gorvet::tape
