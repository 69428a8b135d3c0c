#include "build/places.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::build {

using geometry::Vec3;

Figure figureOf(const Places& p, const std::vector<std::size_t>& of, const std::function<double(const std::vector<Vec3>&)>& f) {
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
    return {value, u95Of(std::sqrt(std::max(0.0, variance))), Provenance::Derived};
}

Propagated figuresOf(const std::vector<double>& values, const std::vector<double>& covariance, const std::vector<double>& steps,
                     const std::function<std::vector<double>(const std::vector<double>&)>& f) {
    const std::size_t n = values.size();
    const std::vector<double> value = f(values);
    const std::size_t m = value.size();
    std::vector<std::size_t> varied;
    std::vector<std::vector<double>> gradient; // of each that is varied, of each figure
    std::vector<double> at = values;
    for (std::size_t k = 0; k < n; ++k) {
        if (covariance[k * n + k] <= 0) continue;
        at[k] = values[k] + steps[k];
        const std::vector<double> more = f(at);
        at[k] = values[k] - steps[k];
        const std::vector<double> less = f(at);
        at[k] = values[k];
        varied.push_back(k);
        gradient.emplace_back();
        for (std::size_t j = 0; j < m; ++j) gradient.back().push_back((more[j] - less[j]) / (2 * steps[k]));
    }
    Propagated out;
    out.covariance.assign(m * m, 0.0);
    for (std::size_t a = 0; a < varied.size(); ++a)
        for (std::size_t b = 0; b < varied.size(); ++b) {
            const double c = covariance[varied[a] * n + varied[b]];
            if (c == 0) continue;
            for (std::size_t i = 0; i < m; ++i)
                for (std::size_t j = 0; j < m; ++j) out.covariance[i * m + j] += gradient[a][i] * c * gradient[b][j];
        }
    for (std::size_t j = 0; j < m; ++j)
        out.figures.push_back({value[j], u95Of(std::sqrt(std::max(0.0, out.covariance[j * m + j]))), Provenance::Derived});
    return out;
}

Measure acrossAs(const Places& p, std::size_t from, std::size_t to, const std::function<Vec3(const Vec3&)>& planned) {
    const Figure f = figureOf(p, {from, to},
                              [&](const std::vector<Vec3>& at) { return geometry::between(planned(at[from]), planned(at[to])); });
    return {p.names[from] + " to " + p.names[to], f.value, f.u95};
}

} // namespace gorvet::build
