#include "tape/alignment.hpp"

#include "units/quantity.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::tape {

namespace {

using build::u95Of;

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
AlignmentFigure unlike(const char* key, const char* name, int axle, double left, double right, double u95, double limit,
                       bool angle, const char* more, const char* what) {
    AlignmentFigure f;
    f.key = fmt::format("{}-{}-unlike", key, axle == 0 ? "front" : "rear");
    f.name = fmt::format("{} {}, left − right", name, axle == 0 ? "front" : "rear");
    f.angle = angle;
    f.size.value = left - right;
    f.size.u95 = u95;
    f.judged = true;
    f.limit = limit;
    f.verdict = build::judge(f.size, build::Limit::within(limit));
    f.words = fmt::format("{} {}", f.size.value > 0 ? "left" : "right", more);
    f.remedy = fmt::format("Take {} off the {} {} wheel, or give it to the other; look first for something bent or worn.", what,
                           axle == 0 ? "front" : "rear", f.size.value > 0 ? "left" : "right");
    return f;
}

/// Corner weights, when all four wheels were on scales. σ of a share: each scale's, carried over the quotient.
void weights(const AlignmentInput& in, std::vector<AlignmentFigure>& figures) {
    double w[4];
    for (int k = 0; k < 4; ++k) {
        if (!in.wheels[k].weight_kg) return;
        w[k] = *in.wheels[k].weight_kg;
    }
    const double all = w[0] + w[1] + w[2] + w[3];
    if (!(all > 0)) return;
    const auto share = [&](const char* key, const char* name, int a, int b, const std::string& words) {
        AlignmentFigure f;
        f.key = key;
        f.name = name;
        f.angle = false;
        f.unit = "%";
        const double part = (w[a] + w[b]) / all;
        f.size.value = 100 * part;
        f.size.u95 = u95Of(100 * weight_sigma_kg / all * std::sqrt(2 * (1 - part) * (1 - part) + 2 * part * part));
        f.words = words;
        figures.push_back(std::move(f));
    };
    share("weight-front", "weight on the front axle", 0, 1, units::fixed(all, 0) + " kg in all");
    const double cross = (w[1] + w[2]) / all;
    share("weight-cross", "cross weight", 1, 2,
          cross > 0.5   ? "front right and rear left carry more"
          : cross < 0.5 ? "front left and rear right carry more"
                        : "even");
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
            f.size.value = std::atan2(*f.mm, toe->rim_mm);
            f.size.u95 = std::atan2(u95Of(toe_sigma_mm * std::sqrt(2.0)), toe->rim_mm);
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
                f.size.value = *w.camber_rad;
                f.size.u95 = u95Of(camber_sigma_rad);
                f.words = f.size.value > 0 ? "top out" : f.size.value < 0 ? "top in" : "upright";
                figures.push_back(std::move(f));
            }
            if (const auto caster = casterOf(w)) {
                AlignmentFigure f;
                f.key = keyOf("caster", wheel);
                f.name = fmt::format("caster {}", wheel_names[wheel]);
                f.size.value = *caster;
                f.size.u95 = u95Of(camber_sigma_rad * std::sqrt(2.0) / (2 * std::sin(*w.sweep_rad)));
                f.words = f.size.value >= 0 ? "top of the pivot back" : "top of the pivot forward";
                figures.push_back(std::move(f));
            }
        }
        if (left.camber_rad && right.camber_rad)
            figures.push_back(unlike("camber", "camber", axle, *left.camber_rad, *right.camber_rad,
                                     u95Of(camber_sigma_rad * std::sqrt(2.0)), unlike_limit_rad, true, "top further out",
                                     units::formatAngle(std::abs(*left.camber_rad - *right.camber_rad)).c_str()));
        if (const auto l = casterOf(left), r = casterOf(right); l && r)
            figures.push_back(unlike("caster", "caster", axle, *l, *r,
                                     u95Of(camber_sigma_rad * std::sqrt(0.5) *
                                           std::hypot(1 / std::sin(*left.sweep_rad), 1 / std::sin(*right.sweep_rad))),
                                     unlike_limit_rad, true, "has more caster, it pulls to the other side",
                                     units::formatAngle(std::abs(*l - *r)).c_str()));
        if (left.ride_mm && right.ride_mm)
            figures.push_back(unlike("ride", "ride height", axle, *left.ride_mm, *right.ride_mm,
                                     u95Of(ride_sigma_mm * std::sqrt(2.0)), unlike_ride_mm, false, "stands higher",
                                     (units::fixed(std::abs(*left.ride_mm - *right.ride_mm), 0) + " mm").c_str()));
    }
    for (int wheel = 0; wheel < 4; ++wheel)
        if (const auto run_out = in.wheels[wheel].run_out_mm) {
            AlignmentFigure f;
            f.key = keyOf("run-out", wheel);
            f.name = fmt::format("run-out {}", wheel_names[wheel]);
            f.angle = false;
            f.size.value = *run_out;
            f.size.u95 = u95Of(run_out_sigma_mm * std::sqrt(2.0));
            f.judged = true;
            f.limit = run_out_limit_mm;
            f.verdict = build::judge(f.size, build::Limit::atMost(f.limit));
            f.remedy = "Find whether rim, hub or bearing runs out: turn the rim on the hub by a stud and read again.";
            figures.push_back(std::move(f));
        }
    weights(in, figures);
    return figures;
}

std::string shownFigure(const AlignmentFigure& f, double value, units::LengthStep step) {
    if (f.angle) return units::formatAngle(std::abs(value));
    return f.unit.empty() ? units::formatSmall(std::abs(value), step) : units::fixed(value, 1) + " " + f.unit;
}

} // namespace gorvet::tape
