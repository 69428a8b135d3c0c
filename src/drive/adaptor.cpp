#include "drive/adaptor.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

namespace gorvet::drive {

namespace {

constexpr double around = 2 * std::numbers::pi;

double webAt(const AdaptorIn& in, double turned) {
    const double hub_hole = std::max(in.plate.hub_hole.value, in.plate.nut_across ? in.plate.nut_across->value : 0);
    double least = 1e9;
    for (int i = 0; i < in.hub_studs; ++i)
        for (int j = 0; j < in.wheel_studs; ++j) {
            const double a = around * i / in.hub_studs, b = turned + around * j / in.wheel_studs;
            const double apart = std::hypot(in.hub_circle_mm / 2 * std::cos(a) - in.wheel_circle_mm / 2 * std::cos(b),
                                            in.hub_circle_mm / 2 * std::sin(a) - in.wheel_circle_mm / 2 * std::sin(b));
            least = std::min(least, apart - (hub_hole + in.plate.wheel_hole.value) / 2);
        }
    return least;
}

} // namespace

AdaptorPlan adaptorPlan(const AdaptorIn& in) {
    AdaptorPlan p;
    const build::Adaptor& plate = in.plate;
    // the pattern comes again after a turn by the least common share of both
    const double period = around / std::lcm(in.hub_studs, in.wheel_studs);
    p.web_mm = -1e9;
    for (int k = 0; k < 400; ++k) {
        const double turned = period * k / 400;
        if (const double web = webAt(in, turned); web > p.web_mm + 1e-9) {
            p.web_mm = web;
            p.turned_rad = turned;
        }
    }
    const double hub_hole = std::max(plate.hub_hole.value, plate.nut_across ? plate.nut_across->value : 0);
    const auto circle = [&](int studs, double diameter, double turned, double hole, bool hub) {
        for (int k = 0; k < studs; ++k) {
            const double at = turned + around * k / studs;
            p.holes.push_back({diameter / 2 * std::sin(at), diameter / 2 * std::cos(at), hole, hub});
        }
        p.web_mm = std::min(p.web_mm, diameter * std::sin(std::numbers::pi / studs) - (hub ? hub_hole : hole));
    };
    circle(in.hub_studs, in.hub_circle_mm, 0, plate.hub_hole.value, true);
    circle(in.wheel_studs, in.wheel_circle_mm, p.turned_rad, plate.wheel_hole.value, false);
    p.edge_mm = plate.across.value / 2 -
                std::max(in.hub_circle_mm / 2 + hub_hole / 2, in.wheel_circle_mm / 2 + plate.wheel_hole.value / 2);
    if (in.spigot_mm > 0)
        p.middle_mm =
            std::min(in.hub_circle_mm / 2 - hub_hole / 2, in.wheel_circle_mm / 2 - plate.wheel_hole.value / 2) - in.spigot_mm / 2;
    return p;
}

} // namespace gorvet::drive
