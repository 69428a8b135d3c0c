#include "tape/condition.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::tape {

std::string likelySlip(double taped_mm, double rest_says_mm, double half_width_mm) {
    const double off = taped_mm - rest_says_mm;
    const double allowed = half_width_mm + 1.0;
    const auto would = [](double value) { return units::fixed(value, 1) + " would agree."; };
    struct Slip {
        double size_mm;
        const char* words;
    };
    static constexpr Slip slips[] = {{10, "A centimetre mark misread?"}, {20, "Two centimetres misread?"},
                                     {50, "A 5 cm mark misread?"},       {100, "A decimetre misread?"},
                                     {25.4, "An inch misread?"},         {1000, "A metre misread?"}};
    if (std::abs(off) <= allowed) return {};
    for (const Slip& slip : slips) {
        if (slip.size_mm <= 2 * allowed) continue; // a slip no larger than the ± explains nothing
        if (std::abs(std::abs(off) - slip.size_mm) <= allowed)
            return std::string(slip.words) + " " + would(taped_mm - std::copysign(slip.size_mm, off));
    }
    std::string digits = units::fixed(taped_mm, 1);
    for (size_t i = 0; i + 1 < digits.size(); ++i) {
        if (digits[i] == '.' || digits[i + 1] == '.') continue;
        std::swap(digits[i], digits[i + 1]);
        const double exchanged = std::stod(digits);
        if (exchanged != taped_mm && std::abs(exchanged - rest_says_mm) <= allowed)
            return "Two digits exchanged? " + would(exchanged);
        std::swap(digits[i], digits[i + 1]);
    }
    return {};
}

} // namespace gorvet::tape
