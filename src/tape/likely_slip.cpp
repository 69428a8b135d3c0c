#include "tape/condition.hpp"

#include "tape/equations.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::tape {

std::string likelySlip(double taped_mm, double leave_one_out_mm, double u95_mm) {
    const double off = taped_mm - leave_one_out_mm;
    const double allowed = u95_mm + 1.0;
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
        if (exchanged != taped_mm && std::abs(exchanged - leave_one_out_mm) <= allowed)
            return "Two digits exchanged? " + would(exchanged);
        std::swap(digits[i], digits[i + 1]);
    }
    return {};
}

std::vector<std::string> likelyPairs(const Survey& survey, const Solution& s, int reading) {
    const SurveyReading& r = survey.readings[static_cast<size_t>(reading)];
    if ((r.kind != ReadingKind::Tape && r.kind != ReadingKind::Plan) || r.to < 0 || s.status != Status::Solved) return {};
    struct Fit {
        double off;
        std::string words;
    };
    std::vector<Fit> fits;
    const auto consider = [&](int from, int to) {
        if (from == to || !s.points[static_cast<size_t>(from)].determined || !s.points[static_cast<size_t>(to)].determined)
            return;
        if ((from == r.from && to == r.to) || (from == r.to && to == r.from)) return;
        const Predicted p =
            predict(r.kind, s.points[static_cast<size_t>(from)].position, s.points[static_cast<size_t>(to)].position, true);
        std::vector<size_t> coordinates;
        std::vector<double> gradient(3 * s.points.size(), 0.0);
        for (int axis = 0; axis < 3; ++axis) {
            coordinates.push_back(3 * static_cast<size_t>(from) + axis);
            coordinates.push_back(3 * static_cast<size_t>(to) + axis);
            gradient[3 * static_cast<size_t>(from) + axis] = p.by_from[axis];
            gradient[3 * static_cast<size_t>(to) + axis] = p.by_to[axis];
        }
        const double own = s.covariance.quadratic(coordinates, gradient);
        const double allowed = u95Of(std::sqrt(std::max(0.0, own) + r.sigma * r.sigma));
        const double off = std::abs(p.value - r.value);
        if (off <= allowed)
            fits.push_back(
                {off / allowed, fmt::format("It would fit {}–{} ({} ± {}).", survey.points[static_cast<size_t>(from)].name,
                                            survey.points[static_cast<size_t>(to)].name, units::fixed(p.value, 1),
                                            units::fixed(u95Of(std::sqrt(std::max(0.0, own))), 1))});
    };
    for (int k = 0; k < static_cast<int>(survey.points.size()); ++k) {
        consider(r.from, k);
        consider(k, r.to);
    }
    std::stable_sort(fits.begin(), fits.end(), [](const Fit& a, const Fit& b) { return a.off < b.off; });
    std::vector<std::string> words;
    for (size_t i = 0; i < fits.size() && i < 2; ++i) words.push_back(fits[i].words);
    return words;
}

} // namespace gorvet::tape
