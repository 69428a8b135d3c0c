#include "build/unit_doubt.hpp"

#include <cmath>

namespace gorvet::build {

std::optional<UnitDoubt> doubtUnit(double value_mm, double expected_mm) {
    constexpr double far = 1.5, near = 1.125;
    const double value = std::abs(value_mm), expected = std::abs(expected_mm);
    if (!(value > 0) || !(expected >= least_expected_mm) || !std::isfinite(value + expected)) return std::nullopt;
    const auto apart = [](double a, double b) { return a > b ? a / b : b / a; };
    if (apart(value, expected) < far) return std::nullopt;
    struct Slip {
        double factor;
        const char* words;
    };
    static constexpr Slip slips[] = {{25.4, "in inches, 25.4 times as much"},
                                     {10, "in cm, 10 times as much"},
                                     {100, "with the mark two places on, 100 times as much"},
                                     {1000, "in metres, 1000 times as much"},
                                     {1 / 25.4, "mm taken for inches, a 25.4th"},
                                     {0.1, "mm taken for cm, a tenth"},
                                     {0.01, "with the mark two places back, a hundredth"},
                                     {0.001, "mm taken for metres, a thousandth"}};
    std::optional<UnitDoubt> best;
    double least = near;
    for (const Slip& slip : slips)
        if (const double off = apart(value * slip.factor, expected); off < least) {
            least = off;
            best = UnitDoubt{slip.factor, value_mm * slip.factor, slip.words};
        }
    return best;
}

std::optional<double> roughly(const Build& b, ReadingKind kind, PointId from, PointId to) {
    const auto at = [&](PointId id) -> std::optional<Vec3> {
        const auto p = b.points.find(id);
        return p == b.points.end() ? std::nullopt : p->second.rough;
    };
    const auto one = at(from);
    const auto other = to ? at(to) : std::nullopt;
    if (!one || (to && !other)) return std::nullopt;
    const Vec3 d = other ? Vec3{other->x_mm - one->x_mm, other->y_mm - one->y_mm, other->z_mm - one->z_mm} : *one;
    switch (kind) {
    case ReadingKind::Tape: return to ? std::optional(std::hypot(d.x_mm, d.y_mm, d.z_mm)) : std::nullopt;
    case ReadingKind::Plan: return to ? std::optional(std::hypot(d.x_mm, d.y_mm)) : std::nullopt;
    case ReadingKind::Height:
    case ReadingKind::Level: return d.z_mm;
    case ReadingKind::Offset: return d.y_mm;
    case ReadingKind::Station: return d.x_mm;
    default: return std::nullopt;
    }
}

} // namespace gorvet::build
