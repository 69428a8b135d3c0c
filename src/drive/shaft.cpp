#include "drive/shaft.hpp"

#include <cmath>
#include <numbers>

namespace gorvet::drive {

namespace {
constexpr double young_Pa = 205e9, steel_kg_m3 = 7850;
double power4(double x) { return x * x * x * x; }
double bore(const Tube& t) { return t.outside_mm - 2 * t.wall_mm; }
} // namespace

double criticalRpm(const Tube& t, double length_mm) {
    const double outer = t.outside_mm / 1000, inner = bore(t) / 1000, l = length_mm / 1000;
    const double area = std::numbers::pi / 4 * (outer * outer - inner * inner);
    const double second = std::numbers::pi / 64 * (power4(outer) - power4(inner));
    return 60 * std::numbers::pi / 2 * std::sqrt(young_Pa * second / (steel_kg_m3 * area * power4(l)));
}

double shearMpa(const Tube& t, double torque_Nm) {
    return 16 * torque_Nm * 1000 * t.outside_mm / (std::numbers::pi * (power4(t.outside_mm) - power4(bore(t))));
}

double massKg(const Tube& t, double length_mm) {
    return std::numbers::pi / 4 * (t.outside_mm * t.outside_mm - bore(t) * bore(t)) * length_mm * 1e-9 * steel_kg_m3;
}

const std::vector<Tube>& usualTubes() {
    static const std::vector<Tube> sizes{{50, 2}, {50, 3},    {60, 2},  {60, 3},  {63.5, 2}, {63.5, 3}, {70, 2},   {70, 3},
                                         {76, 2}, {76, 2.5},  {76, 3},  {80, 2},  {80, 3},   {89, 2},   {89, 2.5}, {89, 3},
                                         {90, 4}, {100, 2.5}, {100, 3}, {100, 4}, {110, 3},  {120, 3},  {120, 4}};
    return sizes;
}

std::optional<Tube> lightestTube(const TubeNeed& need) {
    std::optional<Tube> best;
    for (const Tube& t : usualTubes()) {
        if (need.top_rpm > 0.7 * criticalRpm(t, need.length_mm)) continue;
        if (need.torque_Nm > 0 && shearMpa(t, need.torque_Nm) > need.may_shear_mpa) continue;
        if (!best || massKg(t, 1000) < massKg(*best, 1000)) best = t;
    }
    return best;
}

} // namespace gorvet::drive
