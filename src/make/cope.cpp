#include "make/cope.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::make {

namespace {
constexpr double least_cope_rad = 15 * std::numbers::pi / 180;
}

double copeAt(const Cope& c, double phi) {
    const double big = c.main_mm / 2;
    double most = 0;
    for (const double r : {c.branch_mm / 2, c.branch_mm / 2 - c.wall_mm}) {
        const double aside = r * std::sin(phi) + c.offset_mm;
        most = std::max(most, (std::sqrt(std::max(0.0, big * big - aside * aside)) + r * std::cos(phi) * std::cos(c.angle_rad)) /
                                  std::sin(c.angle_rad));
    }
    return most;
}

Result<std::vector<double>> copeCurve(const Cope& c, int steps) {
    if (!(c.angle_rad >= least_cope_rad))
        return Error{Error::Code::BadInput, "cope",
                     fmt::format("The tubes meet at {:.0f}°: nobody copes that.", c.angle_rad * 180 / std::numbers::pi),
                     "15° and more; else lay the one along the other, or join them by a plate.", -1};
    if (c.branch_mm / 2 + std::abs(c.offset_mm) > c.main_mm / 2 + 1e-9)
        return Error{Error::Code::BadInput, "cope",
                     fmt::format("A tube of {:g} mm does not sit on one of {:g}: it is wider, or passes beside it.", c.branch_mm,
                                 c.main_mm),
                     "The narrower tube is coped onto the wider; or a plate between them.", -1};
    std::vector<double> all;
    for (int k = 0; k < steps; ++k) all.push_back(copeAt(c, 2 * std::numbers::pi * k / steps));
    return all;
}

double copeMean(const Cope& c, int steps) {
    const double outer = c.branch_mm / 2, inner = outer - c.wall_mm, big = c.main_mm / 2;
    double sum = 0, area = 0;
    for (const auto& [r, weight] : {std::pair{inner, 1.0}, std::pair{(inner + outer) / 2, 4.0}, std::pair{outer, 1.0}})
        for (int k = 0; k < steps; ++k) {
            const double phi = 2 * std::numbers::pi * k / steps, aside = r * std::sin(phi) + c.offset_mm;
            const double x = (std::sqrt(std::max(0.0, big * big - aside * aside)) + r * std::cos(phi) * std::cos(c.angle_rad)) /
                             std::sin(c.angle_rad);
            sum += weight * r * x;
            area += weight * r;
        }
    return sum / area;
}

} // namespace gorvet::make
