#include "stretch/places.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::stretch {

using geometry::Vec3;

build::Figure figureOf(const Places& p, const std::vector<std::size_t>& of,
                       const std::function<double(const std::vector<Vec3>&)>& f) {
    std::vector<Vec3> at = p.at;
    const double value = f(at);
    std::vector<std::size_t> rows;
    std::vector<double> gradient;
    constexpr double step_mm = 0.01;
    for (const std::size_t k : of)
        for (std::size_t axis = 0; axis < 3; ++axis) {
            const double held = at[k][axis];
            at[k][axis] = held + step_mm;
            const double more = f(at);
            at[k][axis] = held - step_mm;
            const double less = f(at);
            at[k][axis] = held;
            rows.push_back(3 * k + axis);
            gradient.push_back((more - less) / (2 * step_mm));
        }
    const std::size_t n = 3 * p.at.size();
    double variance = 0;
    for (std::size_t i = 0; i < rows.size(); ++i)
        for (std::size_t j = 0; j < rows.size(); ++j) variance += gradient[i] * gradient[j] * p.covariance[rows[i] * n + rows[j]];
    return {value, build::u95Of(std::sqrt(std::max(0.0, variance))), build::Provenance::Derived};
}

Measure acrossAs(const Places& p, std::size_t from, std::size_t to, const std::function<Vec3(const Vec3&)>& planned) {
    const build::Figure f = figureOf(
        p, {from, to}, [&](const std::vector<Vec3>& at) { return geometry::between(planned(at[from]), planned(at[to])); });
    return {p.names[from] + " to " + p.names[to], f.value, f.u95};
}

} // namespace gorvet::stretch
