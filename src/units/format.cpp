#include "units/quantity.hpp"

#include <cmath>
#include <cstdlib>

#include <fmt/format.h>

namespace gorvet::units {

Unit unitOf(LengthStep step) {
    switch (step) {
    case LengthStep::Inch16:
    case LengthStep::Inch32:
    case LengthStep::InchThousandth: return Unit::Inch;
    default: return Unit::Millimetre;
    }
}

double stepMm(LengthStep step) {
    switch (step) {
    case LengthStep::Mm1: return 1.0;
    case LengthStep::Mm05: return 0.5;
    case LengthStep::Mm01: return 0.1;
    case LengthStep::Inch16: return 25.4 / 16;
    case LengthStep::Inch32: return 25.4 / 32;
    case LengthStep::InchThousandth: return 0.0254;
    }
    return 1.0;
}

std::string fixed(double value, int decimals) {
    if (!std::isfinite(value)) return "–";
    const double scale = std::pow(10.0, decimals);
    // half away from zero, as people round; the nudge keeps 0.15 (stored as 0.1499…) from going down
    const double rounded = std::round(value * scale * (1 + 4e-16)) / scale;
    std::string text = fmt::format("{:.{}f}", rounded, decimals);
    if (text.starts_with('-') && text.find_first_of("123456789") == std::string::npos) text.erase(0, 1);
    return text;
}

namespace {

std::string inchFraction(double mm, int denominator) {
    const double parts = std::round(mm / 25.4 * denominator);
    const auto count = static_cast<long long>(std::abs(parts));
    const long long whole = count / denominator;
    long long top = count % denominator;
    long long bottom = denominator;
    while (top != 0 && top % 2 == 0) {
        top /= 2;
        bottom /= 2;
    }
    const std::string sign = parts < 0 ? "-" : "";
    if (top == 0) return fmt::format("{}{}\"", sign, whole);
    if (whole == 0) return fmt::format("{}{}/{}\"", sign, top, bottom);
    return fmt::format("{}{} {}/{}\"", sign, whole, top, bottom);
}

} // namespace

std::string formatLength(double mm, LengthStep step, bool with_unit) {
    if (!std::isfinite(mm)) return "–";
    const std::string unit = with_unit ? " mm" : "";
    switch (step) {
    case LengthStep::Mm1: return fixed(mm, 0) + unit;
    case LengthStep::Mm05: return fixed(std::round(mm * 2) / 2, 1) + unit;
    case LengthStep::Mm01: return fixed(mm, 1) + unit;
    case LengthStep::Inch16: return inchFraction(mm, 16);
    case LengthStep::Inch32: return inchFraction(mm, 32);
    case LengthStep::InchThousandth: return fixed(mm / 25.4, 3) + "\"";
    }
    return {};
}

std::string formatSmall(double mm, LengthStep step, bool with_unit) {
    return unitOf(step) == Unit::Inch ? formatLength(mm, LengthStep::InchThousandth)
                                      : formatLength(mm, LengthStep::Mm01, with_unit);
}

std::string formatAngle(double rad, int decimals) { return std::isfinite(rad) ? fixed(degrees(rad), decimals) + "°" : "–"; }

std::string formatMass(double kg) { return std::isfinite(kg) ? fixed(kg, std::abs(kg) < 10 ? 2 : 1) + " kg" : "–"; }

} // namespace gorvet::units
