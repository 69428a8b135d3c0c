#include "drive/ratio.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

namespace gorvet::drive {

using build::Figure;

Figure ratioOf(const Turns& t) {
    const double value = (t.one_held ? 2 : 1) * t.shaft / t.wheel;
    return {value, value * std::hypot(t.shaft_off / t.shaft, t.wheel_off / t.wheel), build::Provenance::Measured};
}

Figure ratioOf(const std::vector<Turns>& counts) {
    if (counts.size() == 1) return ratioOf(counts.front());
    double weights = 0, sum = 0;
    for (const Turns& t : counts) {
        const Figure f = ratioOf(t);
        const double w = 1 / (f.u95 * f.u95);
        weights += w;
        sum += w * f.value;
    }
    const double mean = sum / weights;
    double omega = 0;
    for (const Turns& t : counts) {
        const Figure f = ratioOf(t);
        const double off = (f.value - mean) / build::sigmaOfU95(f.u95);
        omega += off * off;
    }
    const double widened = std::sqrt(std::max(1.0, omega / static_cast<double>(counts.size() - 1)));
    return {mean, widened / std::sqrt(weights), build::Provenance::Measured};
}

std::vector<TeethPair> pairsFor(const Figure& ratio, bool hunting_only) {
    std::vector<TeethPair> fit;
    for (int pinion = 6; pinion <= 21; ++pinion)
        for (int crown = 25; crown <= 60; ++crown) {
            const TeethPair pair{crown, pinion};
            if (std::abs(pair.ratio() - ratio.value) > ratio.u95) continue;
            if (hunting_only && std::gcd(crown, pinion) != 1) continue;
            const auto same =
                std::find_if(fit.begin(), fit.end(), [&](const TeethPair& p) { return p.crown * pinion == crown * p.pinion; });
            if (same == fit.end())
                fit.push_back(pair);
            else if (std::abs(crown - 41) < std::abs(same->crown - 41))
                *same = pair;
        }
    std::stable_sort(fit.begin(), fit.end(), [&](const TeethPair& a, const TeethPair& b) {
        return std::abs(a.ratio() - ratio.value) < std::abs(b.ratio() - ratio.value);
    });
    return fit;
}

double engineRpm(double kmh, double axle_ratio, double gear_ratio, double tyre_mm) {
    const double mm_per_minute = kmh * 1e6 / 60;
    return mm_per_minute / (0.97 * std::numbers::pi * tyre_mm) * axle_ratio * gear_ratio;
}

double speedometerShare(double was_ratio, double is_ratio, double was_tyre_mm, double is_tyre_mm) {
    return is_ratio / was_ratio * was_tyre_mm / is_tyre_mm;
}

} // namespace gorvet::drive
