// What the readings of a hold point say of the frame's shape.
#include "work/work.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace gorvet::work {

using namespace build;

bool CheckItem::agrees() const { return read_mm && (level ? !out : std::abs(*read_mm - plan_mm) <= tolerance_mm + 1e-9); }

std::vector<ShapeFault> twistAndBow(const std::vector<CheckItem>& items) {
    // by pair: what left and right stand off the plan, over the reference, which is the front pair's left one
    struct Pair {
        double left = 0, right = 0, back = 0, width = 0;
        bool has_left = false, has_right = false;
    };
    std::map<int, Pair> pairs;
    double tolerance = 0;
    for (const CheckItem& c : items) {
        if (!c.level) continue;
        if (!c.read_mm) return {};
        Pair& p = pairs[c.level->pair];
        const double off = *c.read_mm - c.plan_mm;
        (c.level->left ? p.left : p.right) = off;
        (c.level->left ? p.has_left : p.has_right) = true;
        p.back = c.level->back_mm;
        p.width = c.level->width_mm;
        tolerance = c.tolerance_mm;
    }
    if (pairs.size() < 2) return {};
    std::vector<ShapeFault> wrong;
    const auto nameOfPair = [&](int pair) {
        std::string name;
        for (const CheckItem& c : items)
            if (c.level && c.level->pair == pair) name = c.name.substr(c.name.find("–") + std::string("–").size());
        return name;
    };
    const auto& [first, front] = *pairs.begin();
    const auto& [last, rear] = *pairs.rbegin();
    for (const auto& [k, p] : pairs) {
        if (k == first || !p.has_left || !p.has_right) continue;
        const double share = front.width > 0 ? p.width / front.width : 1;
        const double twist = (p.right - p.left) - (front.right - front.left) * share;
        if (std::abs(twist) > tolerance + 1e-9)
            wrong.push_back({fmt::format("the pair of {} is twisted by {} against the front: its {} side stands high",
                                         nameOfPair(k), units::fixed(std::abs(twist), 1), twist > 0 ? "right" : "left"),
                             k,
                             {}});
    }
    for (const auto& [k, p] : pairs) {
        if (k == first || k == last || rear.back <= 0) continue;
        const double share = p.back / rear.back;
        for (const bool left : {true, false}) {
            const double bow = left ? p.left - share * rear.left : p.right - front.right - share * (rear.right - front.right);
            if (std::abs(bow) > tolerance + 1e-9)
                wrong.push_back({fmt::format("the {} rail stands {} {} between its ends beside {}", left ? "left" : "right",
                                             units::fixed(std::abs(bow), 1), bow > 0 ? "high" : "low", nameOfPair(k)),
                                 k, left});
        }
    }
    return wrong;
}

} // namespace gorvet::work
