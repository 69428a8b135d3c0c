#pragma once

#include "build/figure.hpp"
#include "geometry/vec3.hpp"

#include <functional>
#include <string>
#include <vector>

/// Marked points and figures of them, with the ± of their survey. mm; x rearward, y to the right, z up.
namespace gorvet::build {

/// Points with the covariance of all their coordinates (3n × 3n, mm², row-major).
struct Places {
    std::vector<std::string> names;
    std::vector<geometry::Vec3> at;
    std::vector<double> covariance;
    bool operator==(const Places&) const = default;
};

/// What is measured across before it is welded.
struct Measure {
    std::string name; ///< "Bl to FR"
    double mm = 0;
    double u95_mm = 0;
};

/// A figure of some of the places, derived, its ± by the law of propagation with central differences (Ghilani, ch. 6). `of`: the
/// points that carry it; the function is given all of them.
Figure figureOf(const Places&, const std::vector<std::size_t>& of,
                const std::function<double(const std::vector<geometry::Vec3>&)>&);
/// The same for a figure that has no slope where it stands (the size of what may be nothing): 95 of 100 truths drawn from the
/// covariance, always the same ones, lie within its ±. Costs `draws` calls.
Figure drawnFigureOf(const Places&, const std::vector<std::size_t>& of,
                     const std::function<double(const std::vector<geometry::Vec3>&)>&, int draws = 400);
/// Many figures of many numbers at once, all derived, and their covariance (m × m, row-major).
struct Propagated {
    std::vector<Figure> figures;
    std::vector<double> covariance;
    bool operator==(const Propagated&) const = default;
};
/// Their ± by the same law. `covariance`: of the numbers, n × n, row-major; `steps`: by which each is varied each way, > 0. A
/// number without variance is not varied.
Propagated figuresOf(const std::vector<double>& values, const std::vector<double>& covariance, const std::vector<double>& steps,
                     const std::function<std::vector<double>(const std::vector<double>&)>&);
/// The distance of two of them once each was moved as planned.
Measure acrossAs(const Places&, std::size_t from, std::size_t to,
                 const std::function<geometry::Vec3(const geometry::Vec3&)>& planned);

} // namespace gorvet::build
