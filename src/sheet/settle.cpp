#include "sheet/settle.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::sheet {
namespace {

constexpr double radians = 3.14159265358979323846 / 180;

/// What a text covers, and the upright box round it: most pairs are told apart by that.
struct Covered {
    std::array<P, 4> corners;
    P low;
    P high;
    explicit Covered(const Text& t) : corners(cornersOf(t)), low(corners[0]), high(corners[0]) {
        for (const P& p : corners) {
            low = {std::min(low.x, p.x), std::min(low.y, p.y)};
            high = {std::max(high.x, p.x), std::max(high.y, p.y)};
        }
    }
    bool meets(const Covered& o) const {
        return low.x < o.high.x && o.low.x < high.x && low.y < o.high.y && o.low.y < high.y && overlap(corners, o.corners);
    }
    bool within(double width, double height) const {
        return low.x >= -0.5 && low.y >= -0.5 && high.x <= width + 0.5 && high.y <= height + 0.5;
    }
};

/// Where a text may be set aside to, the nearest first, along its own axes.
std::vector<P> places(const Text& t) {
    const double c = std::cos(t.turn_deg * radians), s = std::sin(t.turn_deg * radians);
    const P along{c, -s}, up{-s, -c}; // y runs down
    const double line = t.size * 1.12;
    const double half = textWidth(t.text, t.size, t.face) / 2 + t.size * 0.3;
    std::vector<P> out;
    for (const double n : {1.0, -1.0, 2.0, -2.0}) out.push_back({up.x * n * line, up.y * n * line});
    for (const double n : {1.0, -1.0}) out.push_back({along.x * n * half, along.y * n * half});
    for (const double n : {3.0, -3.0}) out.push_back({up.x * n * line, up.y * n * line});
    for (const double n : {1.0, -1.0})
        for (const double m : {1.0, -1.0})
            out.push_back({along.x * n * half + up.x * m * line, along.y * n * half + up.y * m * line});
    for (const double n : {2.0, -2.0}) out.push_back({along.x * n * half, along.y * n * half});
    return out;
}

} // namespace

std::array<P, 4> cornersOf(const Text& t) {
    const double width = textWidth(t.mark == Mark::Assumed ? t.text + " ?" : t.text, t.size, t.face);
    const double left = t.anchor == Anchor::Left ? 0 : t.anchor == Anchor::Centre ? -width / 2 : -width;
    const double base = t.level == Level::Base ? 0 : t.level == Level::Middle ? t.size * 0.36 : t.size * 0.78;
    const double c = std::cos(-t.turn_deg * radians), s = std::sin(-t.turn_deg * radians);
    std::array<P, 4> corners{P{left, base - 0.72 * t.size},
                             {left + width, base - 0.72 * t.size},
                             {left + width, base + 0.14 * t.size},
                             {left, base + 0.14 * t.size}};
    for (P& p : corners) p = {t.at.x + p.x * c - p.y * s, t.at.y + p.x * s + p.y * c};
    return corners;
}

bool overlap(const std::array<P, 4>& a, const std::array<P, 4>& b) {
    const auto parted = [](const std::array<P, 4>& box, const std::array<P, 4>& other) {
        for (size_t i = 0; i < 2; ++i) {
            const P axis{box[i + 1].x - box[i].x, box[i + 1].y - box[i].y};
            double low[2] = {1e300, 1e300}, high[2] = {-1e300, -1e300};
            for (size_t k = 0; k < 2; ++k)
                for (const P& p : k ? other : box) {
                    const double at = p.x * axis.x + p.y * axis.y;
                    low[k] = std::min(low[k], at);
                    high[k] = std::max(high[k], at);
                }
            if (high[0] <= low[1] || high[1] <= low[0]) return true;
        }
        return false;
    };
    return !parted(a, b) && !parted(b, a);
}

void settleTexts(std::vector<Item>& items, double width, double height) {
    std::vector<Covered> taken;
    for (Item& item : items) {
        auto* t = std::get_if<Text>(&item.shape);
        if (!t || t->text.empty()) continue;
        const auto free = [&](const Covered& c) {
            return std::none_of(taken.begin(), taken.end(), [&](const Covered& o) { return o.meets(c); });
        };
        Covered covered(*t);
        if (!free(covered)) {
            const bool was_within = covered.within(width, height);
            for (const P& by : places(*t)) {
                Text aside = *t;
                aside.at = {t->at.x + by.x, t->at.y + by.y};
                const Covered there(aside);
                if ((was_within && !there.within(width, height)) || !free(there)) continue;
                *t = std::move(aside);
                covered = there;
                break;
            }
        }
        taken.push_back(covered);
    }
}

} // namespace gorvet::sheet
