#include "sit/outcome.hpp"

#include "dense/dense.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::sit {
namespace {

/// By how much the length of a plane vector known to `c` (2 × 2) misses the truth in 19 of 20: the vector's error over its
/// whole circle, as near its own zero a length has no slope that a variance could follow.
double u95OfLength(const Eigen::Vector2d& v, const Eigen::Matrix2d& c) {
    constexpr int turns = 60;
    constexpr int rings = 60;
    Eigen::Matrix2d grown = c;
    grown.diagonal().array() += 1e-12;
    const Eigen::Matrix2d root = dense::root(grown);
    std::vector<double> misses;
    misses.reserve(turns * rings);
    for (int t = 0; t < turns; ++t)
        for (int r = 0; r < rings; ++r) {
            const double angle = 2 * std::numbers::pi * (t + 0.5) / turns;
            const double radius = std::sqrt(-2 * std::log(1 - (r + 0.5) / rings)); // Rayleigh
            const Eigen::Vector2d off = root * Eigen::Vector2d(radius * std::cos(angle), radius * std::sin(angle));
            misses.push_back(std::abs((v - off).norm() - v.norm()));
        }
    const auto at = misses.begin() + static_cast<std::ptrdiff_t>(0.95 * static_cast<double>(misses.size()));
    std::nth_element(misses.begin(), at, misses.end());
    return *at;
}

/// Achieved figures, then all parts of all pins.
Eigen::VectorXd figuresOf(const Scene& s, const Parameters& p) {
    const Evaluated e = evaluate(s, p);
    std::vector<double> all = e.achieved;
    for (const auto& parts : e.parts) all.insert(all.end(), parts.begin(), parts.end());
    return Eigen::Map<const Eigen::VectorXd>(all.data(), static_cast<Eigen::Index>(all.size()));
}

} // namespace

Outcome outcomeOf(const Scene& scene, const Parameters& p) {
    const Evaluated e = evaluate(scene, p);
    const Eigen::VectorXd here = figuresOf(scene, p);
    Eigen::MatrixXd spread = Eigen::MatrixXd::Zero(here.size(), here.size());
    for (const bool body : {true, false}) {
        const Located& located = body ? scene.input->body : scene.input->chassis;
        const size_t n3 = 3 * located.at.size();
        if (located.covariance.size() != n3 * n3 || n3 == 0) continue;
        Eigen::MatrixXd by(here.size(), static_cast<Eigen::Index>(n3));
        Scene moved = scene;
        for (size_t k = 0; k < n3; ++k) {
            constexpr double step_mm = 0.05;
            Vec3& v = (body ? moved.body : moved.chassis)[k / 3];
            double& c = k % 3 == 0 ? v.x_mm : k % 3 == 1 ? v.y_mm : v.z_mm;
            const double keep = c;
            c = keep + step_mm;
            const Eigen::VectorXd up = figuresOf(moved, p);
            c = keep - step_mm;
            const Eigen::VectorXd down = figuresOf(moved, p);
            c = keep;
            by.col(static_cast<Eigen::Index>(k)) = (up - down) / (2 * step_mm);
        }
        const Eigen::Map<const Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>> c(
            located.covariance.data(), static_cast<Eigen::Index>(n3), static_cast<Eigen::Index>(n3));
        spread += by * c * by.transpose();
    }
    const auto half = [&](Eigen::Index k) { return build::u95Of(std::sqrt(std::max(0.0, spread(k, k)))); };
    Outcome out;
    auto row = static_cast<Eigen::Index>(e.achieved.size());
    for (size_t i = 0; i < e.achieved.size(); ++i) {
        const auto& parts = e.parts[i];
        out.achieved.push_back(half(static_cast<Eigen::Index>(i)));
        out.parts.emplace_back();
        for (size_t k = 0; k < parts.size(); ++k) out.parts.back().push_back(half(row + static_cast<Eigen::Index>(k)));
        if (isPlaneVector(scene.input->pins[i], parts.size()))
            out.achieved.back() = u95OfLength({parts[0], parts[1]}, spread.block<2, 2>(row, row));
        row += static_cast<Eigen::Index>(parts.size());
    }
    return out;
}

} // namespace gorvet::sit
