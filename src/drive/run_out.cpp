#include "drive/run_out.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::drive {

using build::Figure;
using build::Provenance;

RunOut runOut(const std::vector<double>& read, double u95) {
    RunOut out;
    const auto n = static_cast<double>(read.size());
    if (read.size() < 4) return out;
    double mean = 0, b = 0, c = 0;
    const auto at = [&](std::size_t k) { return 2 * std::numbers::pi * static_cast<double>(k) / n; };
    for (std::size_t k = 0; k < read.size(); ++k) {
        mean += read[k] / n;
        b += 2 / n * read[k] * std::cos(at(k));
        c += 2 / n * read[k] * std::sin(at(k));
    }
    // b and c have each the variance 2 σ²/n and do not depend on each other
    const double each = u95 * std::sqrt(2 / n), amplitude = std::hypot(b, c);
    out.first_mm = {amplitude, each, Provenance::Derived};
    out.high_known = amplitude > each;
    double high = std::atan2(c, b);
    if (high < 0) high += 2 * std::numbers::pi;
    out.high_rad = {high, amplitude > 0 ? std::min(std::numbers::pi, each / amplitude) : std::numbers::pi, Provenance::Derived};
    const auto [least, most] = std::minmax_element(read.begin(), read.end());
    out.total_mm = *most - *least;
    double low = 1e18, top = -1e18;
    for (std::size_t k = 0; k < read.size(); ++k) {
        const double rest = read[k] - mean - b * std::cos(at(k)) - c * std::sin(at(k));
        low = std::min(low, rest);
        top = std::max(top, rest);
    }
    out.rest_mm = top - low;
    return out;
}

} // namespace gorvet::drive
