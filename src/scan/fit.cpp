#include "scan/fit.hpp"

#include "dense/dense.hpp"

#include <Eigen/Geometry>
#include <Eigen/LU>
#include <algorithm>
#include <cmath>
#include <functional>

#include <fmt/format.h>

namespace gorvet::scan {
namespace {

using Eigen::Matrix3d;
using Eigen::Vector3d;
using Points = std::vector<Vector3d>;

constexpr double z95 = 1.959963984540054;
constexpr double flat = 1e-7; ///< of the longest extent: less is no extent

Points vectors(const std::vector<Point3>& points) {
    Points v;
    v.reserve(points.size());
    for (const Point3& p : points) v.emplace_back(p[0], p[1], p[2]);
    return v;
}
Point3 point(const Vector3d& v) { return {v.x(), v.y(), v.z()}; }
Vector3d vec(const Point3& p) { return {p[0], p[1], p[2]}; }

Error few(const char* what, size_t need) {
    return Error{Error::Code::BadInput, what, fmt::format("A {} needs {} points at least.", what, need), "Pick more of them.",
                 -1};
}
Error degenerate(const char* what, const char* why) {
    return Error{Error::Code::Degenerate, what, fmt::format("These points make no {}: {}.", what, why),
                 "Pick points further apart.", -1};
}

struct Spread {
    Vector3d middle = Vector3d::Zero();
    Vector3d size; ///< standard deviations along the axes, the least first
    Matrix3d axes; ///< columns
};
Spread spreadAbout(const Points& points) {
    Spread s;
    for (const Vector3d& p : points) s.middle += p;
    s.middle /= static_cast<double>(points.size());
    Matrix3d c = Matrix3d::Zero();
    for (const Vector3d& p : points) c += (p - s.middle) * (p - s.middle).transpose();
    const dense::Eigenpairs own = dense::eigenpairs(c / static_cast<double>(points.size()));
    s.size = own.values.cwiseMax(0).cwiseSqrt();
    s.axes = own.vectors;
    return s;
}
Vector3d facing(Vector3d v) {
    Eigen::Index k = 0;
    v.cwiseAbs().maxCoeff(&k);
    return v(k) < 0 ? Vector3d(-v) : v;
}

Fit fitOf(const std::vector<double>& off, size_t left_out) {
    Fit f;
    f.points = off.size();
    f.outliers = left_out;
    for (const double d : off) {
        f.rms_mm += d * d / static_cast<double>(off.size());
        f.worst_mm = std::max(f.worst_mm, std::abs(d));
    }
    f.rms_mm = std::sqrt(f.rms_mm);
    return f;
}

/// Fits, leaves out what stands off (3.5 spreads from the median distance), fits again.
template <class Shape>
Result<Shape> withoutOutliers(Points points, bool outliers, const std::function<Result<Shape>(const Points&)>& fit,
                              const std::function<double(const Shape&, const Vector3d&)>& off) {
    const size_t all = points.size();
    Result<Shape> shape = fit(points);
    for (int round = 0; outliers && shape && round < 3; ++round) {
        std::vector<double> size;
        for (const Vector3d& p : points) size.push_back(std::abs(off(*shape, p)));
        std::vector<double> sorted = size;
        std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2), sorted.end());
        const double limit = std::max(3.5 * 1.4826 * sorted[sorted.size() / 2], 1e-9);
        Points kept;
        for (size_t i = 0; i < points.size(); ++i)
            if (size[i] <= limit) kept.push_back(points[i]);
        if (kept.size() == points.size() || 2 * kept.size() < all) break;
        points = std::move(kept);
        shape = fit(points);
    }
    if (!shape) return shape;
    std::vector<double> distances;
    for (const Vector3d& p : points) distances.push_back(off(*shape, p));
    shape->fit = fitOf(distances, all - points.size());
    return shape;
}

double planeOff(const Plane& s, const Vector3d& p) { return (p - vec(s.at)).dot(vec(s.normal)); }
double lineOff(const Line& s, const Vector3d& p) { return (p - vec(s.at)).cross(vec(s.way)).norm(); }
double circleOff(const Circle& s, const Vector3d& p) {
    const Vector3d d = p - vec(s.centre);
    const double out = d.dot(vec(s.normal));
    return std::hypot(out, (d - out * vec(s.normal)).norm() - s.radius_mm);
}
double sphereOff(const Sphere& s, const Vector3d& p) { return (p - vec(s.centre)).norm() - s.radius_mm; }
double cylinderOff(const Cylinder& s, const Vector3d& p) { return (p - vec(s.at)).cross(vec(s.way)).norm() - s.radius_mm; }

/// Centre and radius of a ball in n dimensions, columns of `p`: algebraic first, then Gauss–Newton on the distances. The radius'
/// σ² by the fit's own spread comes with it.
struct Ball {
    Eigen::VectorXd centre;
    double radius = 0;
    double radius_variance = 0;
    bool good = false;
};
Ball ballThrough(const Eigen::MatrixXd& p) {
    const Eigen::Index n = p.cols();
    const Eigen::Index dims = p.rows();
    const Eigen::VectorXd middle = p.rowwise().mean();
    const Eigen::MatrixXd q = p.colwise() - middle;
    const double scale = std::max(std::sqrt(q.colwise().squaredNorm().mean()), 1e-300);
    // |q|² = 2 c·q + (r² − |c|²): Kåsa's linear fit, scaled
    Eigen::MatrixXd a(n, dims + 1);
    a << 2 * q.transpose() / scale, Eigen::VectorXd::Ones(n);
    const Eigen::VectorXd b = q.colwise().squaredNorm().transpose() / (scale * scale);
    const dense::ByColumns qr(a);
    Ball ball;
    if (qr.rank() < dims + 1 || std::abs(qr.pivot(dims)) < 1e-6 * std::abs(qr.pivot(0))) return ball;
    const Eigen::VectorXd x = qr.solve(b);
    Eigen::VectorXd centre = x.head(dims) * scale;
    double radius = std::sqrt(std::max(0.0, x(dims) * scale * scale + centre.squaredNorm()));
    Eigen::MatrixXd j(n, dims + 1);
    Eigen::VectorXd v(n);
    for (int round = 0; round < 50; ++round) {
        for (Eigen::Index i = 0; i < n; ++i) {
            const Eigen::VectorXd d = q.col(i) - centre;
            const double length = std::max(d.norm(), 1e-12);
            v(i) = length - radius;
            j.row(i) << -d.transpose() / length, -1.0;
        }
        const Eigen::VectorXd step = dense::leastSquares(j, -v);
        if (!step.allFinite()) return ball;
        centre += step.head(dims);
        radius += step(dims);
        if (step.norm() < 1e-10 * scale) break;
    }
    if (!(radius > 0) || radius > 1e4 * scale) return ball; // as good as flat
    ball.centre = centre + middle;
    ball.radius = radius;
    if (n > dims + 1) {
        const Eigen::MatrixXd inverse = dense::inverse(j.transpose() * j);
        ball.radius_variance = inverse(dims, dims) * v.squaredNorm() / static_cast<double>(n - dims - 1);
    }
    ball.good = true;
    return ball;
}

/// Two unit vectors square to `way` and to each other.
std::pair<Vector3d, Vector3d> across(const Vector3d& way) {
    const Vector3d u = way.unitOrthogonal();
    return {u, way.cross(u)};
}

Result<Plane> planeThrough(const Points& points) {
    const Spread s = spreadAbout(points);
    if (s.size(1) <= flat * std::max(s.size(2), 1e-9)) return degenerate("plane", "they stand on one line");
    Plane p;
    p.at = point(s.middle);
    p.normal = point(facing(s.axes.col(0)));
    return p;
}

Result<Circle> circleThrough(const Points& points) {
    const Spread s = spreadAbout(points);
    if (s.size(1) <= flat * std::max(s.size(2), 1e-9)) return degenerate("circle", "they stand on one line");
    const Vector3d normal = facing(s.axes.col(0));
    const auto [u, w] = across(normal);
    Eigen::MatrixXd flat_points(2, static_cast<Eigen::Index>(points.size()));
    for (size_t i = 0; i < points.size(); ++i)
        flat_points.col(static_cast<Eigen::Index>(i)) << (points[i] - s.middle).dot(u), (points[i] - s.middle).dot(w);
    const Ball ball = ballThrough(flat_points);
    if (!ball.good) return degenerate("circle", "they stand nearly on one line");
    Circle c;
    c.centre = point(s.middle + ball.centre(0) * u + ball.centre(1) * w);
    c.normal = point(normal);
    c.radius_mm = ball.radius;
    c.radius_u95_mm = z95 * std::sqrt(ball.radius_variance);
    return c;
}

Result<Sphere> sphereThrough(const Points& points) {
    Eigen::MatrixXd p(3, static_cast<Eigen::Index>(points.size()));
    for (size_t i = 0; i < points.size(); ++i) p.col(static_cast<Eigen::Index>(i)) = points[i];
    const Ball ball = ballThrough(p);
    if (!ball.good) return degenerate("ball", "they stand in one plane");
    Sphere s;
    s.centre = point(Vector3d(ball.centre));
    s.radius_mm = ball.radius;
    s.radius_u95_mm = z95 * std::sqrt(ball.radius_variance);
    return s;
}

Result<Cylinder> cylinderThrough(const Points& points) {
    const Spread s = spreadAbout(points);
    if (s.size(1) <= flat * std::max(s.size(2), 1e-9)) return degenerate("tube", "they stand on one line");
    const auto n = static_cast<Eigen::Index>(points.size());
    const auto seen = [&](const Vector3d& way) {
        const auto [u, w] = across(way);
        Eigen::MatrixXd q(2, n);
        for (Eigen::Index i = 0; i < n; ++i)
            q.col(i) << (points[static_cast<size_t>(i)] - s.middle).dot(u), (points[static_cast<size_t>(i)] - s.middle).dot(w);
        return q;
    };
    // the axis for which the points seen along it stand best on a circle: a search over half the ball of directions
    Vector3d best = s.axes.col(2);
    double least = std::numeric_limits<double>::infinity();
    const auto consider = [&](const Vector3d& way) {
        const Eigen::MatrixXd q = seen(way);
        const Ball ball = ballThrough(q);
        if (!ball.good) return;
        double sum = 0;
        for (Eigen::Index i = 0; i < n; ++i) {
            const double off = (q.col(i) - ball.centre).norm() - ball.radius;
            sum += off * off;
        }
        if (sum < least) {
            least = sum;
            best = way;
        }
    };
    for (int k = 0; k < 3; ++k) consider(s.axes.col(k));
    constexpr int directions = 160; // evenly on the half ball (golden spiral): 8° apart
    for (int k = 0; k < directions; ++k) {
        const double z = (k + 0.5) / directions;
        const double a = k * 2.399963229728653;
        const double r = std::sqrt(1 - z * z);
        consider({r * std::cos(a), r * std::sin(a), z});
    }
    if (!std::isfinite(least)) return degenerate("tube", "no axis fits them");
    // Gauss–Newton: two turns of the axis, two shifts across it, the radius
    Vector3d way = best;
    const Ball start = ballThrough(seen(way));
    const auto [u0, w0] = across(way);
    Vector3d at = s.middle + start.centre(0) * u0 + start.centre(1) * w0;
    double radius = start.radius;
    Eigen::MatrixXd j(n, 5);
    Eigen::VectorXd v(n);
    for (int round = 0; round < 100; ++round) {
        const auto [u, w] = across(way);
        for (Eigen::Index i = 0; i < n; ++i) {
            const Vector3d d = points[static_cast<size_t>(i)] - at;
            const double along = d.dot(way);
            const Vector3d out = d - along * way;
            const double length = std::max(out.norm(), 1e-12);
            const Vector3d e = out / length;
            v(i) = length - radius;
            j.row(i) << -along * e.dot(u), -along * e.dot(w), -e.dot(u), -e.dot(w), -1.0;
        }
        const Eigen::VectorXd step = dense::leastSquares(j, -v);
        if (!step.allFinite()) return degenerate("tube", "no axis fits them");
        const double turn = std::hypot(step(0), step(1));
        const double held = turn > 0.2 ? 0.2 / turn : 1.0; // no more than 11° a round
        way = (way + held * (step(0) * u + step(1) * w)).normalized();
        at += step(2) * u + step(3) * w;
        radius += step(4);
        if (step.norm() < 1e-10 * std::max(1.0, radius)) break;
    }
    const double extent = s.size(2);
    if (!(radius > 0) || radius > 1e4 * extent) return degenerate("tube", "they are as good as flat");
    Cylinder c;
    way = facing(way);
    double low = std::numeric_limits<double>::infinity();
    double high = -low;
    for (const Vector3d& p : points) {
        low = std::min(low, (p - at).dot(way));
        high = std::max(high, (p - at).dot(way));
    }
    c.at = point(at + way * (low + high) / 2);
    c.way = point(way);
    c.radius_mm = radius;
    c.length_mm = high - low;
    if (n > 5) {
        const Eigen::MatrixXd inverse = dense::inverse(j.transpose() * j);
        c.radius_u95_mm = z95 * std::sqrt(std::max(0.0, inverse(4, 4)) * v.squaredNorm() / static_cast<double>(n - 5));
    }
    return c;
}

} // namespace

Result<Plane> fitPlane(const std::vector<Point3>& points, bool outliers) {
    if (points.size() < 3) return few("plane", 3);
    return withoutOutliers<Plane>(vectors(points), outliers, planeThrough, planeOff);
}
Result<Line> fitLine(const std::vector<Point3>& points, bool outliers) {
    if (points.size() < 2) return few("line", 2);
    return withoutOutliers<Line>(
        vectors(points), outliers,
        [](const Points& p) -> Result<Line> {
            const Spread s = spreadAbout(p);
            if (s.size(2) < 1e-9) return degenerate("line", "they stand in one place");
            Line line;
            line.at = point(s.middle);
            line.way = point(facing(s.axes.col(2)));
            return line;
        },
        lineOff);
}
Result<Circle> fitCircle(const std::vector<Point3>& points, bool outliers) {
    if (points.size() < 3) return few("circle", 3);
    return withoutOutliers<Circle>(vectors(points), outliers, circleThrough, circleOff);
}
Result<Sphere> fitSphere(const std::vector<Point3>& points, bool outliers) {
    if (points.size() < 4) return few("ball", 4);
    return withoutOutliers<Sphere>(vectors(points), outliers, sphereThrough, sphereOff);
}
Result<Cylinder> fitCylinder(const std::vector<Point3>& points, bool outliers) {
    if (points.size() < 6) return few("tube", 6);
    return withoutOutliers<Cylinder>(vectors(points), outliers, cylinderThrough, cylinderOff);
}

Result<PointRegistration> registerPoints(const std::vector<Point3>& from, const std::vector<Point3>& to,
                                         const std::vector<double>& weights, bool with_scale) {
    if (from.size() != to.size() || from.size() < 3 || (!weights.empty() && weights.size() != from.size()))
        return Error{Error::Code::BadInput, "points",
                     "Laying one on the other needs three pairs of points at least, and a weight for each or for none.", "", -1};
    for (const double w : weights)
        if (!(w > 0)) return Error{Error::Code::BadInput, "weights", "A weight must be above 0.", "", -1};
    const Points a = vectors(from);
    const Points b = vectors(to);
    const auto weight = [&](size_t i) { return weights.empty() ? 1.0 : weights[i]; };
    double sum = 0;
    Vector3d mid_a = Vector3d::Zero();
    Vector3d mid_b = Vector3d::Zero();
    for (size_t i = 0; i < a.size(); ++i) {
        sum += weight(i);
        mid_a += weight(i) * a[i];
        mid_b += weight(i) * b[i];
    }
    mid_a /= sum;
    mid_b /= sum;
    Matrix3d c = Matrix3d::Zero();
    Matrix3d own = Matrix3d::Zero();
    for (size_t i = 0; i < a.size(); ++i) {
        c += weight(i) * (b[i] - mid_b) * (a[i] - mid_a).transpose();
        own += weight(i) * (a[i] - mid_a) * (a[i] - mid_a).transpose();
    }
    const dense::Singular svd = dense::singular(c, dense::Sides::Both);
    const Matrix3d left = svd.left, right = svd.right;
    const Vector3d values = svd.values;
    if (values(1) <= 1e-9 * values(0)) return degenerate("place to lie in", "they stand on one line");
    Vector3d sign(1, 1, (left * right.transpose()).determinant() < 0 ? -1 : 1);
    const Matrix3d r = left * sign.asDiagonal() * right.transpose();
    PointRegistration laid;
    double scale = 1;
    if (with_scale) {
        scale = values.dot(sign) / own.trace();
        laid.scale = scale;
    }
    const Vector3d t = mid_b - scale * (r * mid_a);
    for (Eigen::Index i = 0; i < 3; ++i)
        for (Eigen::Index k = 0; k < 3; ++k) laid.motion.rotation[static_cast<size_t>(i)][static_cast<size_t>(k)] = r(i, k);
    laid.motion.translation = point(mid_b - r * mid_a); // of the motion alone; a scale is said, not applied
    double square = 0;
    Eigen::Matrix<double, 6, 6> normal = Eigen::Matrix<double, 6, 6>::Zero();
    for (size_t i = 0; i < a.size(); ++i) {
        const Vector3d off = b[i] - (scale * (r * a[i]) + t);
        laid.off_mm.push_back(off.norm());
        laid.rms_mm += off.squaredNorm() / static_cast<double>(a.size());
        laid.worst_mm = std::max(laid.worst_mm, off.norm());
        square += weight(i) * off.squaredNorm();
        const Vector3d p = r * (a[i] - mid_a);
        Eigen::Matrix<double, 3, 6> m = Eigen::Matrix<double, 3, 6>::Zero();
        m.leftCols<3>().setIdentity();
        m.rightCols<3>() << 0, p.z(), -p.y(), -p.z(), 0, p.x(), p.y(), -p.x(), 0;
        normal += weight(i) * m.transpose() * m;
    }
    laid.rms_mm = std::sqrt(laid.rms_mm);
    const int spare = 3 * static_cast<int>(a.size()) - 6 - (with_scale ? 1 : 0);
    if (spare > 0) {
        const Eigen::Matrix<double, 6, 6> spread = dense::inverse(normal) * (square / spare);
        for (size_t k = 0; k < 3; ++k) {
            laid.translation_u95[k] = z95 * std::sqrt(spread(static_cast<Eigen::Index>(k), static_cast<Eigen::Index>(k)));
            laid.rotation_u95_rad[k] =
                z95 * std::sqrt(spread(static_cast<Eigen::Index>(k) + 3, static_cast<Eigen::Index>(k) + 3));
        }
    }
    return laid;
}

Result<RigidTransform> threeTwoOne(const std::vector<Point3>& plane, const std::array<Point3, 2>& line, const Point3& station) {
    const auto fitted = fitPlane(plane);
    if (!fitted) return fitted.error();
    const Vector3d along = vec(line[1]) - vec(line[0]);
    const Vector3d up = vec(fitted->normal);
    // up is the side of the normal's greatest part: a scan stands upright, more or less
    // right
    const Vector3d x = along - along.dot(up) * up;
    if (x.norm() < 1e-6 * std::max(along.norm(), 1e-9) || along.norm() < 1e-9)
        return degenerate("set of axes", "the line stands square to the plane");
    const Vector3d ex = x.normalized();
    const Vector3d ey = up.cross(ex);
    RigidTransform m;
    const Vector3d rows[3] = {ex, ey, up};
    const Vector3d origin[3] = {vec(station), vec(line[0]), vec(fitted->at)};
    for (size_t i = 0; i < 3; ++i) {
        m.rotation[i] = point(rows[i]);
        m.translation[i] = -rows[i].dot(origin[i]);
    }
    return m;
}

} // namespace gorvet::scan
