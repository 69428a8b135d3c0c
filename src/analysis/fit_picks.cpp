#include "analysis/fit_picks.hpp"

#include "scan/fit.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using shape::Point3;

namespace {

constexpr double beside_mm = 2.0; ///< so near to the first shape a point of the scan is taken for its own
constexpr size_t enough_points = 30;

/// Those in the box round the picks that lie on the shape.
template <class Off>
std::vector<Point3> own(const std::vector<Point3>& scan, const std::vector<Point3>& picks, double wider, Off&& off) {
    Point3 least = picks[0], most = picks[0];
    for (const Point3& p : picks)
        for (size_t axis = 0; axis < 3; ++axis) {
            least[axis] = std::min(least[axis], p[axis]);
            most[axis] = std::max(most[axis], p[axis]);
        }
    std::vector<Point3> out;
    for (const Point3& p : scan) {
        bool in = true;
        for (size_t axis = 0; axis < 3; ++axis) in = in && p[axis] >= least[axis] - wider && p[axis] <= most[axis] + wider;
        if (in && std::abs(off(p)) < beside_mm) out.push_back(p);
    }
    return out;
}

std::string place(const Point3& p) { return fmt::format("station {:.1f}, offset {:.1f}, height {:.1f}", p[0], p[1], p[2]); }

/// The second fit, when it can be had.
template <class Shape> bool better(Shape& first, Result<Shape> second) {
    if (!second) return false;
    first = *second;
    return true;
}

std::string quality(const scan::Fit& f, bool grown, units::LengthStep step) {
    return fmt::format("RMS {} over {} {}{}", units::formatSmall(f.rms_mm, step, true), f.points,
                       grown ? "points of the scan" : "picks", f.outliers ? fmt::format(", {} left out", f.outliers) : "");
}

} // namespace

std::optional<double> scatterAt(const sit::Ready& r, const Point3& at, double reach) {
    if (!r.tree || !r.mesh) return std::nullopt;
    std::vector<Point3> near;
    const Point3 box{reach, reach, reach};
    std::vector<std::uint32_t> corners;
    r.tree->inBox(geometry::minus(at, box), geometry::plus(at, box), [&](std::uint32_t t) {
        for (const std::uint32_t k : r.mesh->triangles[t])
            if (geometry::between(r.mesh->points[k], at) <= reach) corners.push_back(k);
        return true;
    });
    std::sort(corners.begin(), corners.end());
    corners.erase(std::unique(corners.begin(), corners.end()), corners.end());
    for (const std::uint32_t k : corners) near.push_back(r.mesh->points[k]);
    if (near.size() < 6) return std::nullopt;
    const auto plane = scan::fitPlane(near);
    if (!plane) return std::nullopt;
    return 1.96 * plane->fit.rms_mm;
}

Result<FittedPicks> fitThrough(PickShape shape, const std::vector<Point3>& picks, const std::vector<Point3>& points,
                               units::LengthStep step) {
    FittedPicks out;
    const auto len = [&](double mm) { return units::formatLength(mm, step, true); };
    const auto finish = [&](const scan::Fit& f, const Point3& at) {
        out.at = at;
        out.rms_mm = f.rms_mm;
        out.points = f.points;
    };
    switch (shape) {
    case PickShape::Plane: {
        auto fit = scan::fitPlane(picks);
        if (!fit) return fit.error();
        const auto mine =
            own(points, picks, 1, [&](const Point3& p) { return geometry::dot(geometry::minus(p, fit->at), fit->normal); });
        out.grown = mine.size() >= enough_points && better(*fit, scan::fitPlane(mine, true));
        finish(fit->fit, fit->at);
        const double lean = units::degrees(std::acos(std::min(1.0, std::abs(fit->normal[2]))));
        out.words = fmt::format("Plane at {}, {:.2f}° off level; {}.", place(fit->at), lean, quality(fit->fit, out.grown, step));
        break;
    }
    case PickShape::Line: {
        auto fit = scan::fitLine(picks);
        if (!fit) return fit.error();
        finish(fit->fit, fit->at);
        const double slope =
            -units::degrees(std::atan2(fit->way[0] >= 0 ? fit->way[2] : -fit->way[2], std::hypot(fit->way[0], fit->way[1])));
        out.words = fmt::format("Line through {}, going {} {:.2f}° rearward; {}.", place(fit->at), slope >= 0 ? "down" : "up",
                                std::abs(slope), quality(fit->fit, false, step));
        break;
    }
    case PickShape::Circle: {
        auto fit = scan::fitCircle(picks);
        if (!fit) return fit.error();
        const auto mine = own(points, picks, fit->radius_mm, [&](const Point3& p) {
            const Point3 d = geometry::minus(p, fit->centre);
            const double out_of = geometry::dot(d, fit->normal);
            return std::hypot(out_of, std::sqrt(std::max(0.0, geometry::dot(d, d) - out_of * out_of)) - fit->radius_mm);
        });
        out.grown = mine.size() >= enough_points && better(*fit, scan::fitCircle(mine, true));
        finish(fit->fit, fit->centre);
        out.radius_mm = fit->radius_mm;
        out.words = fmt::format("Circle of diameter {} ± {}, centre at {}; {}.", len(2 * fit->radius_mm),
                                units::formatSmall(2 * fit->radius_u95_mm, step, true), place(fit->centre),
                                quality(fit->fit, out.grown, step));
        break;
    }
    case PickShape::Ball: {
        auto fit = scan::fitSphere(picks);
        if (!fit) return fit.error();
        const auto mine = own(points, picks, fit->radius_mm,
                              [&](const Point3& p) { return geometry::between(p, fit->centre) - fit->radius_mm; });
        out.grown = mine.size() >= enough_points && better(*fit, scan::fitSphere(mine, true));
        finish(fit->fit, fit->centre);
        out.radius_mm = fit->radius_mm;
        out.words = fmt::format("Ball of diameter {}, centre at {}; {}.", len(2 * fit->radius_mm), place(fit->centre),
                                quality(fit->fit, out.grown, step));
        break;
    }
    case PickShape::Tube: {
        auto fit = scan::fitCylinder(picks);
        if (!fit) return fit.error();
        const auto mine = own(points, picks, fit->radius_mm, [&](const Point3& p) {
            const Point3 d = geometry::minus(p, fit->at);
            return geometry::length(geometry::cross(d, fit->way)) - fit->radius_mm;
        });
        out.grown = mine.size() >= enough_points && better(*fit, scan::fitCylinder(mine, true));
        finish(fit->fit, fit->at);
        out.radius_mm = fit->radius_mm;
        out.words = fmt::format("Tube of diameter {} ± {}, axis through {}; {}.", len(2 * fit->radius_mm),
                                units::formatSmall(2 * fit->radius_u95_mm, step, true), place(fit->at),
                                quality(fit->fit, out.grown, step));
        break;
    }
    }
    return out;
}

} // namespace gorvet::analysis
