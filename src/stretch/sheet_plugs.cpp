#include "stretch/sheet_plugs.hpp"

#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::stretch {

SheetPlugs sheetPlugs(double t, double across_mm, double along_mm, double pull_N, std::optional<double> hole_mm) {
    SheetPlugs p;
    const bool thin = t < sheet_thin_mm;
    p.hole_mm = hole_mm.value_or(thin ? (t < 1.2 ? 6.0 : 8.0) : std::ceil(t + 8));
    const double d = p.hole_mm;
    p.pitch_mm = thin ? std::max(sheet_pitch_mm, 4 * d - 2) : 4 * d;
    p.each_N = std::min(units::pi / 4 * d * d * sheet_filler_MPa, units::pi * d * t * sheet_base_MPa);
    p.needed = static_cast<int>(std::ceil(sheet_spare * pull_N / p.each_N - 1e-9));
    const double edge = 2 * d;
    const double across = across_mm - 1.5 * d, along = along_mm - 2 * edge;
    p.rows = across < 0 ? 0 : 1 + static_cast<int>(std::floor(across / p.pitch_mm + 1e-9));
    const int in_a_row = along < 0 ? 0 : 1 + static_cast<int>(std::floor(along / p.pitch_mm + 1e-9));
    p.fit = p.rows * in_a_row;
    if (p.rows > 0) p.along_need_mm = 2 * edge + (std::ceil(static_cast<double>(p.needed) / p.rows) - 1) * p.pitch_mm;
    return p;
}

double filletBears(double leg_mm, double thinner_mm) {
    return std::min(0.707 * leg_mm * sheet_filler_MPa, std::min(leg_mm, thinner_mm) * sheet_base_MPa);
}

} // namespace gorvet::stretch
