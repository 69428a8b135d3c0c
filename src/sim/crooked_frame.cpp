#include "sim/crooked_frame.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::sim {

using build::Role;

std::uint64_t Chance::bits() {
    std::uint64_t z = (state_ += 0x9e3779b97f4a7c15ULL);
    z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ULL;
    z = (z ^ (z >> 27)) * 0x94d049bb133111ebULL;
    return z ^ (z >> 31);
}
double Chance::uniform(double from, double to) { return from + (to - from) * (static_cast<double>(bits() >> 11) * 0x1.0p-53); }
int Chance::whole(int from, int to) { return from + static_cast<int>(bits() % static_cast<std::uint64_t>(to - from + 1)); }
double Chance::normal() {
    const double u = uniform(1e-12, 1);
    return std::sqrt(-2 * std::log(u)) * std::cos(2 * units::pi * uniform(0, 1));
}

const FramePoint* CrookedFrame::named(std::string_view name) const {
    for (const FramePoint& p : points)
        if (p.name == name) return &p;
    return nullptr;
}

namespace {

/// A kind of damage: how much it comes to at each difficulty, and what it does to a point.
struct Damage {
    const char* key;
    double least[3];
    double most[3];
    const char* positive;
    const char* negative;
    void (*apply)(FramePoint&, double amount, double length);
};

/// 0 at the front pair, 1 at the rear pair.
double along(const FramePoint& p, double length) { return std::clamp(p.drawn.x_mm / length, 0.0, 1.0); }
bool isLeft(const FramePoint& p) { return p.drawn.y_mm < 0; }

constexpr Damage damages[] = {
    {"diamond",
     {8, 6, 4.5},
     {14, 9, 6.5},
     "pushed back at the left front corner",
     "pushed back at the right front corner",
     [](FramePoint& p, double amount, double) { p.truth.x_mm += (isLeft(p) ? 0.5 : -0.5) * amount; }},
    {"twist",
     {9, 7, 5},
     {15, 10, 7},
     "one front wheel dropped into a ditch, right side left high",
     "one front wheel dropped into a ditch, left side left high",
     [](FramePoint& p, double amount, double length) {
         p.truth.z_mm += (isLeft(p) ? -0.5 : 0.5) * amount * (1 - along(p, length));
     }},
    {"sidesway",
     {7, 5.5, 4.5},
     {12, 8, 6},
     "struck on its left side, amidships",
     "struck on its right side, amidships",
     [](FramePoint& p, double amount, double length) { p.truth.y_mm += amount * std::sin(units::pi * along(p, length)); }},
    {"sag",
     {8, 6, 5},
     {14, 9, 7},
     "overloaded amidships for years",
     "lifted by its middle",
     [](FramePoint& p, double amount, double length) { p.truth.z_mm -= amount * std::sin(units::pi * along(p, length)); }},
    {"rail-difference",
     {8, 6, 5},
     {13, 9, 7},
     "right rail crumpled shorter ahead of the rear pair",
     "left rail crumpled shorter ahead of the rear pair",
     [](FramePoint& p, double amount, double length) {
         // half of it at each rail's rear, so that the frame keeps its middle
         if (along(p, length) > 0.9) p.truth.x_mm += (isLeft(p) ? 0.5 : -0.5) * amount;
     }},
};

} // namespace

CrookedFrame crookedFrame(std::uint32_t seed, int difficulty) {
    CrookedFrame f;
    f.seed = seed;
    f.difficulty = std::clamp(difficulty, 1, 3);
    const size_t level = static_cast<size_t>(f.difficulty - 1);
    Chance chance(0x6f7276657400ULL ^ (static_cast<std::uint64_t>(seed) << 8) ^ level);
    // the drawing: a ladder frame with a kick-up over the rear axle
    const double length = 10 * chance.whole(290, 360);
    const double half_front = 5 * chance.whole(74, 88);
    const double half_rear = half_front + 5 * chance.whole(0, 14);
    const double base = 10 * chance.whole(36, 52);
    const double kick = 10 * chance.whole(0, 11);
    constexpr int pairs = 5;
    for (int i = 0; i < pairs; ++i) {
        const double share = static_cast<double>(i) / (pairs - 1);
        const double x =
            i == 0 || i + 1 == pairs ? share * length : std::round((share * length + chance.uniform(-90, 90)) / 5) * 5;
        const double y = std::round(half_front + (half_rear - half_front) * share);
        const double z = base + std::round(kick * std::clamp((x / length - 0.55) / 0.25, 0.0, 1.0));
        for (const double side : {-1.0, 1.0}) {
            FramePoint p;
            p.name = std::string(1, static_cast<char>('A' + i)) + (side < 0 ? "l" : "r");
            p.role = Role::Rail;
            p.drawn = {x, side * y, z};
            f.points.push_back(p);
        }
    }
    for (FramePoint& p : f.points) p.truth = p.drawn;
    // what happened to it
    std::vector<int> order = {0, 1, 2, 3, 4};
    for (size_t i = order.size(); i > 1; --i)
        std::swap(order[i - 1], order[static_cast<size_t>(chance.whole(0, static_cast<int>(i) - 1))]);
    // a shortened rail and a diamond hide each other: never both
    const auto together = [](int a, int b) { return (a == 0 && b == 4) || (a == 4 && b == 0); };
    const int count = chance.whole(f.difficulty == 1 ? 1 : 2, f.difficulty == 1 ? 2 : 3);
    std::vector<int> chosen;
    for (const int k : order) {
        if (static_cast<int>(chosen.size()) == count) break;
        if (std::none_of(chosen.begin(), chosen.end(), [&](int c) { return together(c, k); })) chosen.push_back(k);
    }
    for (const int k : chosen) {
        const Damage& d = damages[k];
        const double amount = std::round(chance.uniform(d.least[level], d.most[level]) * 10) / 10 * (chance.whole(0, 1) ? 1 : -1);
        for (FramePoint& p : f.points) d.apply(p, amount, length);
        f.faults.push_back({d.key, amount, amount > 0 ? d.positive : d.negative});
    }
    for (FramePoint& p : f.points) {
        const auto glance = [&](double v) { return std::round((v + chance.uniform(-20, 20)) / 10) * 10; };
        p.rough = {glance(p.drawn.x_mm), glance(p.drawn.y_mm), glance(p.drawn.z_mm)};
    }
    f.misread.push_back(chance.whole(5, 12));
    if (f.difficulty == 3) {
        f.misread.push_back(chance.whole(14, 20));
        f.floor = {chance.uniform(-5, 5), chance.uniform(-3, 3), chance.uniform(-3, 3)};
    }
    return f;
}

} // namespace gorvet::sim
