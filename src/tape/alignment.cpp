#include "tape/alignment.hpp"

#include "units/quantity.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::tape {

namespace {

using build::halfWidth;

std::string keyOf(const char* what, int wheel) {
    std::string key = std::string(what) + "-" + wheel_names[wheel];
    for (char& c : key)
        if (c == ' ') c = '-';
    return key;
}

std::optional<double> casterOf(const WheelRead& w) {
    if (!w.sweep_rad || !w.turned_out_rad || !w.turned_in_rad) return std::nullopt;
    return (*w.turned_out_rad - *w.turned_in_rad) / (2 * std::sin(*w.sweep_rad));
}

/// The difference between left and right of an axle, judged.
AlignmentFigure unlike(const char* key, const char* name, int axle, double left, double right, double half_width, double limit,
                       bool angle, const char* more, const char* what) {
    AlignmentFigure f;
    f.key = fmt::format("{}-{}-unlike", key, axle == 0 ? "front" : "rear");
    f.name = fmt::format("{} {}, left − right", name, axle == 0 ? "front" : "rear");
    f.angle = angle;
    f.value = left - right;
    f.half_width = half_width;
    f.judged = true;
    f.limit = limit;
    f.verdict = build::planVerdict(f.value, half_width, limit);
    f.words = fmt::format("{} {}", f.value > 0 ? "left" : "right", more);
    f.remedy = fmt::format("Take {} off the {} {} wheel, or give it to the other; look first for something bent or worn.", what,
                           axle == 0 ? "front" : "rear", f.value > 0 ? "left" : "right");
    return f;
}

} // namespace

std::vector<AlignmentFigure> alignment(const AlignmentInput& in) {
    std::vector<AlignmentFigure> figures;
    for (int axle = 0; axle < 2; ++axle) {
        const char* end = axle == 0 ? "front" : "rear";
        if (const auto& toe = in.toe[axle]; toe && toe->rim_mm > 0) {
            AlignmentFigure f;
            f.key = fmt::format("toe-{}", end);
            f.name = fmt::format("toe {}, both wheels", end);
            f.mm = toe->behind_mm - toe->ahead_mm;
            f.value = std::atan2(*f.mm, toe->rim_mm);
            f.half_width = std::atan2(halfWidth(toe_sigma_mm * std::sqrt(2.0)), toe->rim_mm);
            f.words = std::abs(*f.mm) < 0.05 ? "straight ahead" : *f.mm > 0 ? "toe-in" : "toe-out";
            figures.push_back(std::move(f));
        }
        const WheelRead& left = in.wheels[2 * axle];
        const WheelRead& right = in.wheels[2 * axle + 1];
        for (int side = 0; side < 2; ++side) {
            const int wheel = 2 * axle + side;
            const WheelRead& w = in.wheels[wheel];
            if (w.camber_rad) {
                AlignmentFigure f;
                f.key = keyOf("camber", wheel);
                f.name = fmt::format("camber {}", wheel_names[wheel]);
                f.value = *w.camber_rad;
                f.half_width = halfWidth(camber_sigma_rad);
                f.words = f.value > 0 ? "top out" : f.value < 0 ? "top in" : "upright";
                figures.push_back(std::move(f));
            }
            if (const auto caster = casterOf(w)) {
                AlignmentFigure f;
                f.key = keyOf("caster", wheel);
                f.name = fmt::format("caster {}", wheel_names[wheel]);
                f.value = *caster;
                f.half_width = halfWidth(camber_sigma_rad * std::sqrt(2.0) / (2 * std::sin(*w.sweep_rad)));
                f.words = f.value >= 0 ? "top of the pivot back" : "top of the pivot forward";
                figures.push_back(std::move(f));
            }
        }
        if (left.camber_rad && right.camber_rad)
            figures.push_back(unlike("camber", "camber", axle, *left.camber_rad, *right.camber_rad,
                                     halfWidth(camber_sigma_rad * std::sqrt(2.0)), unlike_limit_rad, true, "top further out",
                                     units::formatAngle(std::abs(*left.camber_rad - *right.camber_rad)).c_str()));
        if (const auto l = casterOf(left), r = casterOf(right); l && r)
            figures.push_back(unlike("caster", "caster", axle, *l, *r,
                                     halfWidth(camber_sigma_rad * std::sqrt(0.5) *
                                               std::hypot(1 / std::sin(*left.sweep_rad), 1 / std::sin(*right.sweep_rad))),
                                     unlike_limit_rad, true, "has more caster, it pulls to the other side",
                                     units::formatAngle(std::abs(*l - *r)).c_str()));
        if (left.ride_mm && right.ride_mm)
            figures.push_back(unlike("ride", "ride height", axle, *left.ride_mm, *right.ride_mm,
                                     halfWidth(ride_sigma_mm * std::sqrt(2.0)), unlike_ride_mm, false, "stands higher",
                                     (units::fixed(std::abs(*left.ride_mm - *right.ride_mm), 0) + " mm").c_str()));
    }
    return figures;
}

} // namespace gorvet::tape
