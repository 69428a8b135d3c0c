#include "build/places.hpp"

#include <algorithm>
#include <cmath>
#include <random>

namespace gorvet::build {

using geometry::Vec3;

namespace {

/// L with L Lᵀ the matrix, rows by rows; of one without full rank what is there.
std::vector<double> rootOf(const std::vector<double>& matrix, std::size_t n) {
    std::vector<double> l(n * n, 0.0);
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j <= i; ++j) {
            double sum = matrix[i * n + j];
            for (std::size_t k = 0; k < j; ++k) sum -= l[i * n + k] * l[j * n + k];
            if (i == j)
                l[i * n + i] = sum > 1e-12 ? std::sqrt(sum) : 0;
            else if (l[j * n + j] > 0)
                l[i * n + j] = sum / l[j * n + j];
        }
    return l;
}

} // namespace

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

Figure drawnFigureOf(const Places& p, const std::vector<std::size_t>& of,
                     const std::function<double(const std::vector<Vec3>&)>& f, int draws) {
    const double value = f(p.at);
    const std::size_t m = 3 * of.size(), n = 3 * p.at.size();
    std::vector<double> own(m * m);
    const auto row = [&](std::size_t i) { return 3 * of[i / 3] + i % 3; };
    for (std::size_t i = 0; i < m; ++i)
        for (std::size_t j = 0; j < m; ++j) own[i * m + j] = p.covariance[row(i) * n + row(j)];
    const std::vector<double> root = rootOf(own, m);
    std::mt19937 dice(1);
    std::normal_distribution<double> normal;
    std::vector<double> off, by(m);
    for (int k = 0; k < draws; ++k) {
        for (double& d : by) d = normal(dice);
        std::vector<Vec3> at = p.at;
        for (std::size_t i = 0; i < m; ++i)
            for (std::size_t j = 0; j <= i; ++j) at[of[i / 3]][i % 3] += root[i * m + j] * by[j];
        off.push_back(std::abs(f(at) - value));
    }
    std::sort(off.begin(), off.end());
    return {value, off.empty() ? 0 : off[off.size() * 95 / 100], Provenance::Derived};
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
